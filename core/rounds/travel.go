package rounds

import "math"

// The way between two places, where nobody has timed it.
const (
	earthKM  = 6371.0
	detour   = 1.3 // roads are longer than the crow flies
	parking  = 3.0 // minutes to set off and to stop
	farthest = 1.0 // of the farthest known way, for a place nobody has put on the map
)

// bands are the speeds by the length of the way, km and km/h.
var bands = []struct{ upTo, speed float64 }{{5, 28}, {20, 42}, {60, 60}, {math.Inf(1), 80}}

// Distance is the great circle between two points, km.
func Distance(a, b Point) float64 {
	rad := math.Pi / 180
	dLat, dLon := (b.Latitude-a.Latitude)*rad, (b.Longitude-a.Longitude)*rad
	h := math.Pow(math.Sin(dLat/2), 2) + math.Cos(a.Latitude*rad)*math.Cos(b.Latitude*rad)*math.Pow(math.Sin(dLon/2), 2)
	return 2 * earthKM * math.Asin(math.Min(1, math.Sqrt(h)))
}

// Minutes is how long the way between two points takes: the great circle with a detour, by speeds that grow with its length; an estimate.
func Minutes(a, b Point) float64 {
	km := Distance(a, b) * detour
	if km < 0.05 {
		return 0
	}
	at, took := 0.0, parking
	for _, s := range bands {
		leg := math.Min(km, s.upTo) - at
		if leg <= 0 {
			break
		}
		took += leg / s.speed * 60
		at += leg
	}
	return took
}

// ways is how long each way takes: from place to place, and between the start of each crew and a place.
type ways struct {
	place [][]float64
	start [][]float64 // by crew
	tip   [][]float64 // by crew: to where it tips; nothing where it does not
}

func (p *Problem) ways() ways {
	n := len(p.Places)
	w := ways{make([][]float64, n), make([][]float64, len(p.Crews)), make([][]float64, len(p.Crews))}
	far := 0.0
	fill := func(from, to *Point) float64 {
		if from == nil || to == nil {
			return -1
		}
		m := Minutes(*from, *to)
		far = math.Max(far, m)
		return m
	}
	for i := range w.place {
		w.place[i] = make([]float64, n)
		for k := range w.place[i] {
			if i != k {
				w.place[i][k] = fill(p.Places[i].At, p.Places[k].At)
			}
		}
	}
	for c := range w.start {
		w.start[c] = make([]float64, n)
		for k := range w.start[c] {
			if p.Crews[c].Start != nil { // else no way to the first and from the last is counted
				w.start[c][k] = fill(p.Crews[c].Start, p.Places[k].At)
			}
		}
	}
	for c := range w.tip {
		if t := p.Crews[c].Tip; t != nil {
			w.tip[c] = make([]float64, n)
			for k := range w.tip[c] {
				w.tip[c][k] = fill(&t.At, p.Places[k].At)
			}
		}
	}
	for _, rows := range [][][]float64{w.place, w.start, w.tip} {
		for _, row := range rows {
			for k := range row {
				if row[k] < 0 {
					row[k] = farthest * far
				}
			}
		}
	}
	for _, k := range p.Ways {
		switch {
		case k.From >= 0 && k.To >= 0:
			w.place[k.From][k.To], w.place[k.To][k.From] = k.Minutes, k.Minutes
		case k.From < 0 && k.To >= 0:
			w.start[-k.From-1][k.To] = k.Minutes
		case k.From >= 0:
			w.start[-k.To-1][k.From] = k.Minutes
		}
	}
	return w
}
