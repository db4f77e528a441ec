package outcome

import "math"

// Night is a night as it was told and as it came.
type Night struct {
	Ahead       int // days before it on which it was told
	Told, CameC float64
}

// NightScore is how well nights were told so many days ahead.
type NightScore struct {
	From   int     `json:"from" doc:"Days ahead, from"`
	To     int     `json:"to" doc:"Until"`
	Nights int     `json:"nights" doc:"How many were told and came"`
	OffC   float64 `json:"off_c" doc:"Mean of how far the lowest was off, either way, °C"`
	BiasC  float64 `json:"bias_c" doc:"Mean of what was told less what came, °C: above 0 it was told too warm"`
	Hit    int     `json:"hit" doc:"Frosts that were told and came"`
	False  int     `json:"false_alarms" doc:"Frosts that were told and did not come"`
	Missed int     `json:"missed" doc:"Frosts that came untold"`
}

// aheads are the spans of days ahead that are told together.
var aheads = [][2]int{{1, 1}, {2, 3}, {4, 6}, {7, 14}}

// NightsOf holds nights against what came, by how many days ahead they were told; spans without any are left out.
func NightsOf(list []Night) []NightScore {
	out := []NightScore{}
	for _, span := range aheads {
		s := NightScore{From: span[0], To: span[1]}
		for _, n := range list {
			if n.Ahead < s.From || n.Ahead > s.To {
				continue
			}
			s.Nights++
			s.OffC += math.Abs(n.Told - n.CameC)
			s.BiasC += n.Told - n.CameC
			switch told, came := n.Told < 0, n.CameC < 0; {
			case told && came:
				s.Hit++
			case told:
				s.False++
			case came:
				s.Missed++
			}
		}
		if s.Nights > 0 {
			s.OffC = math.Round(10*s.OffC/float64(s.Nights)) / 10
			s.BiasC = math.Round(10*s.BiasC/float64(s.Nights)) / 10
			out = append(out, s)
		}
	}
	return out
}
