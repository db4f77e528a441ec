// Package outcome foretells how a plant turns out and compares it with how it did.
package outcome

import (
	"fmt"
	"math"

	"mezzadro/core/catalogue"
	"mezzadro/core/day"
	"mezzadro/core/quantity"
	"mezzadro/core/season"
)

// Prognosis is how it will turn out.
type Prognosis struct {
	SeasonsLow  int     `json:"seasons_low" doc:"Growing seasons until it looks right again, at least"`
	SeasonsHigh int     `json:"seasons_high"`
	Chance      float64 `json:"chance" doc:"Chance that it gets there, 0 to 1"`
	Text        string  `json:"text"`

	Heights []float64 `json:"heights" doc:"How tall it is foretold to be at the end of each season to come, m, until it looks right again"`
}

// States a plant can turn out in.
const (
	TurnedRight = "right" // it looks right again, or crops
	TurnedAlive = "alive" // alive and on its way
	TurnedDead  = "dead"
)

// Turned is how a plant turned out against its prognosis.
type Turned struct {
	Seasons int    `json:"seasons" doc:"Growing seasons since the verdict"`
	As      string `json:"as" enum:"as foretold,better,slower,worse,as feared,too early"`
	Text    string `json:"text"`
}

// Against compares how a plant is on a day with the prognosis of a verdict given on another. A season counts once its
// midsummer is past.
func (p Prognosis) Against(c season.Climate, verdict, on day.Day, state string) Turned {
	t := Turned{}
	for x := verdict; x < on; x++ {
		if x == c.Midwinter(x)+182 {
			t.Seasons++
		}
	}
	after := fmt.Sprintf("after %s", Span(t.Seasons, t.Seasons))
	if t.Seasons == 0 {
		after = "within the first season"
	}
	foretold := fmt.Sprintf("foretold were %s", Span(p.SeasonsLow, p.SeasonsHigh))
	switch {
	case state == TurnedDead && p.Chance < 0.5:
		t.As, t.Text = "as feared", fmt.Sprintf("Dead %s; its chance was put at %.0f %%.", after, 100*p.Chance)
	case state == TurnedDead:
		t.As, t.Text = "worse", fmt.Sprintf("Dead %s, though its chance was put at %.0f %%.", after, 100*p.Chance)
	case state == TurnedRight && p.Chance == 0:
		t.As, t.Text = "better", "It came back, though no recovery was foretold."
	case state == TurnedRight && t.Seasons < p.SeasonsLow:
		t.As, t.Text = "better", fmt.Sprintf("Right again %s; %s.", after, foretold)
	case state == TurnedRight && t.Seasons <= p.SeasonsHigh:
		t.As, t.Text = "as foretold", fmt.Sprintf("Right again %s; %s.", after, foretold)
	case state == TurnedRight:
		t.As, t.Text = "slower", fmt.Sprintf("Right again %s; %s.", after, foretold)
	case t.Seasons > p.SeasonsHigh && p.SeasonsHigh > 0:
		t.As, t.Text = "slower", fmt.Sprintf("Alive %s, but not yet right; %s.", after, foretold)
	case p.Chance == 0:
		t.As, t.Text = "better", fmt.Sprintf("Alive %s, though no recovery was foretold.", after)
	default:
		t.As, t.Text = "too early", fmt.Sprintf("Alive %s and on its way; %s.", after, foretold)
	}
	return t
}

// foretoldSeasons is how many seasons ahead a plant's height is foretold at most.
const foretoldSeasons = 6

// Regrown is how tall a plant is foretold to be at the end of each season to come, m, from the height that is kept: the
// first season after a hard cut by what its kind regrows, the others by what it grows in a year, up to what it was.
func Regrown(sp catalogue.Entry, keepM, wasM float64, lost float64) []float64 {
	out := []float64{}
	h := keepM
	for i := 0; i < foretoldSeasons && h < LooksRight*wasM; i++ {
		grow := sp.GrowthCMYear / 100 * Vigour
		if i == 0 && lost > 0.5 {
			grow = max(grow, sp.RegrowthCM/100)
		}
		h = math.Min(wasM, h+grow)
		out = append(out, quantity.Round(h, 0.01))
	}
	return out
}

// Regrowth figures, to be calibrated by outcomes.
const (
	Vigour     = 1.4  // a whole root run under less crown grows that much faster than the yearbook figure
	LooksRight = 0.85 // share of its former height at which a plant looks right again
)

// Span is a number of seasons in words.
func Span(lo, hi int) string {
	if lo == hi {
		if lo == 1 {
			return "one season"
		}
		return fmt.Sprintf("%d seasons", lo)
	}
	return fmt.Sprintf("%d to %d seasons", lo, hi)
}
