package cold

import (
	"mezzadro/core/catalogue"
	"mezzadro/core/day"
	"mezzadro/core/season"
)

// Hardening goes in two stages (Leinonen 1996, Tree Physiology 16:345; Ferguson et al. 2011, 2014): short days and
// the end of growth bring a plant part of the way in any climate, and cold the rest. How large that part is, and what
// a plant bears in growth,
// differs by its group; how far either stage has gone hangs on the place alone.
const (
	HardenRate   = 0.012 // share of the cold stage a day and °C under 10 °C
	LoseDormant  = 0.003 // share of both lost a day and °C over 6 °C, before the chill need is met
	LoseReleased = 0.010 // the same, after
	Regain       = 0.5   // how fast plants harden again in late cold once their chill need is met, against autumn
	ChillNeedH   = 700   // hours between 0 and 7.2 °C after which warm days wake the plant
	DarkH        = 13    // daylength, hours, under which cold hardens
	shortH       = 14.0  // and under which days count as short
	stillShort   = 30    // days after midwinter until which days are short enough to keep what they brought
	halfYear     = 182
	shortRate    = 0.012 // share of the first stage a day and hour under that
)

// Hardened is how far the two stages of hardening have gone, each 0 to 1.
type Hardened struct {
	Short float64 // by short days and the end of growth
	Cold  float64 // by cold
}

// usualStart is the share of the way that short days bring an ordinary hardy plant.
const usualStart = 0.45

// Usual is how hardened an ordinary hardy plant is, 0 in growth to 1 in midwinter.
func (h Hardened) Usual() float64 { return usualStart*h.Short + (1-usualStart)*h.Cold }

// Of is how hardened a species is: the hardier its kind, the more it makes of short days alone.
func (h Hardened) Of(e *catalogue.Entry) float64 {
	start := 0.35 + 0.3*(-e.HardinessC-10)/30
	switch {
	case e.Form == catalogue.Conifer:
		start += 0.05
	case e.LeafSeason == catalogue.Evergreen:
		start = max(start, 0.65)
	}
	start = max(0.3, min(0.65, start))
	share := start*h.Short + (1-start)*h.Cold
	if e.Form == catalogue.Palm { // palms harden little and lose little
		return 0.8 + 0.2*share
	}
	return share
}

// Hardiness is how hardened plants are at a place, by day.
type Hardiness struct {
	from  day.Day
	share []Hardened
}

// Harden follows hardening from the end of summer before the garden year of d up to d.
func Harden(y *season.Year, d day.Day) Hardiness {
	c := y.Normals.Climate
	midwinter := c.Midwinter(d)
	from := midwinter - 140 // late summer: nothing is hardened yet
	if from > d {
		from = d - 1
	}
	out := Hardiness{from: from, share: make([]Hardened, 0, d-from+1)}
	var h Hardened
	chill := 0.0
	for x := from; x <= d; x++ {
		e, _ := y.Extremes(x)
		mean := (e.Min + e.Max) / 2
		since := x.Sub(midwinter)
		if since >= halfYear { // towards the next winter: its chill is counted anew
			if since == halfYear {
				chill = 0
			}
			since -= 2*halfYear + 1
		}
		chill += season.ChillHours(e.Min, e.Max)
		lose, harden := LoseDormant, HardenRate
		if chill >= ChillNeedH {
			lose, harden = LoseReleased, HardenRate*Regain
		}
		light := y.Normals.Light(x)
		warmer := max(0, mean-6)
		gain := 0.0
		if mean < 10 && light < DarkH {
			gain = harden * (10 - mean) * (1 - h.Cold)
		}
		h.Cold = max(0, min(1, h.Cold+gain-lose*warmer*h.Cold))
		if since < stillShort {
			h.Short += shortRate * max(0, shortH-light) * (1 - h.Short)
		} else {
			h.Short -= lose * warmer * h.Short
		}
		h.Short = max(0, min(1, h.Short))
		out.share = append(out.share, h)
	}
	return out
}

// On is how hardened plants are on d; days outside the followed stretch take its nearest end.
func (h Hardiness) On(d day.Day) Hardened {
	i := max(0, min(len(h.share)-1, int(d-h.from)))
	return h.share[i]
}

// unhardened is what the wood of a species bears in growth, °C: tender kinds hardly frost at all, leathery evergreens
// and conifers more than kinds that shed their leaves.
func unhardened(e *catalogue.Entry) float64 {
	m := e.HardinessC
	switch {
	case m > UnhardenedC:
		return max(m, UnhardenedTC)
	case e.Form == catalogue.Conifer:
		return max(m, -4.5)
	case e.LeafSeason == catalogue.Evergreen && e.Form != catalogue.Perennial && e.Form != catalogue.Palm:
		return max(m, max(-4, UnhardenedC+(m-UnhardenedC)/3))
	}
	if e.Form == catalogue.Perennial || e.Form == catalogue.Palm {
		return max(m, -3)
	}
	return max(m, ripeC-min(ripeMost, ripeADegree*max(0, ripeFromC-m)))
}

// The wood of kinds that shed their leaves bears frost in growth too, the more the hardier its kind: ripeC where it
// bears ripeFromC in midwinter, ripeADegree more for each °C under that, up to ripeMost.
const (
	ripeC       = -3.0
	ripeFromC   = -12.0
	ripeADegree = 0.16
	ripeMost    = 4.0
)

// Bears is the temperature, °C, at which half of a species' wood, and of its buds, dies when it is hardened by a share.
func Bears(e *catalogue.Entry, share float64) (wood, buds float64) {
	u := unhardened(e)
	wood = u + share*(min(e.HardinessC, u)-u)
	tender := BudsTenderC * share
	if e.LeafSeason == catalogue.Evergreen && e.HardinessC > -12 { // theirs are hardly less hardy than the leaves
		tender /= 2
	}
	return wood, min(wood+tender, UnhardenedTC)
}
