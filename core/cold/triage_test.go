package cold

import (
	"strings"
	"testing"

	"mezzadro/core/catalogue"
	"mezzadro/core/day"
	"mezzadro/core/weather"
)

func TestTriage(t *testing.T) {
	f := weather.Freeze{MinC: -11, HoursBelow0: 31, FallC: 14, BeforeOffC: 4.6}
	on := day.Of(2027, 2, 26)
	for _, c := range []struct {
		species  string
		share    float64
		expected string
		says     string
	}{
		{"citrus-limon", 0.8, "wood", "below what its wood bore"},
		{"camellia-japonica", 0.5, "wood", "−15.0 °C in midwinter"},
		{"camellia-japonica", 0.75, "buds", "its buds bore"},
		{"camellia-japonica", 1, "nothing", "stayed 2.0 °C above"},
		{"syringa-vulgaris", 0.6, "nothing", "stayed"},
		{"hydrangea-macrophylla", 0.75, "buds", "came within"},
	} {
		e, err := catalogue.Built().Species(c.species)
		if err != nil {
			t.Fatal(err)
		}
		l := Triage(e, c.share, f, on)
		if l.Expected != c.expected || !strings.Contains(l.Reason, c.says) || !strings.Contains(l.Reason, "26 February") {
			t.Errorf("%s hardened by %g: %q, %s", c.species, c.share, l.Expected, l.Reason)
		}
	}
	if s := Story(f); !strings.Contains(s, "−11.0 °C, 31 h below 0 °C") || !strings.Contains(s, "fell 14 °C") || !strings.Contains(s, "4.6 °C warmer") {
		t.Error(s)
	}
	if s := Story(weather.Freeze{MinC: -6, BeforeOffC: -3}); !strings.Contains(s, "colder than normal") {
		t.Error(s)
	}
	// Hardier never comes before.
	e, _ := catalogue.Built().Species("camellia-japonica")
	last := 99.0
	for h := 0.0; h > -40; h-- {
		e.HardinessC = h
		if l := Triage(e, 0.7, f, on); l.BeyondC > last {
			t.Fatalf("hardiness %g °C: %.1f beyond, more than a tenderer plant's %.1f", h, l.BeyondC, last)
		} else {
			last = l.BeyondC
		}
	}
}
