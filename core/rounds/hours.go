package rounds

// Clock is how long a crew is out, minutes: the work, minutes of all people together, shared by those who go, and the ways.
func Clock(work float64, people int, ways float64) float64 {
	return work/float64(max(1, people)) + ways
}

// Way is how long a way takes from where a day begins over some places and back, minutes; places that nobody has put on
// the map are left out. An estimate.
func Way(start *Point, places []Point) (minutes float64) {
	at := start
	for i := range places {
		if at != nil {
			minutes += Minutes(*at, places[i])
		}
		at = &places[i]
	}
	if start != nil && at != start {
		minutes += Minutes(*at, *start)
	}
	return minutes
}
