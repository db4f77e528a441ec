package cold

import (
	"testing"

	"mezzadro/core/catalogue"
	"mezzadro/core/day"
)

// TestYoungLeaves: −3 °C for a night in May, on shoots ten days out. Gardeners see walnut, vine, kiwi, fig, ash, beech
// and Japanese maple burnt, and the leaves of apple, currant, lilac, birch and rowan green beside them; tomatoes go at
// the first touch of autumn.
func TestYoungLeaves(t *testing.T) {
	night := day.Of(2027, 5, 8)
	young := catalogue.Stage{SinceLeafOut: 10, Leafing: true, Leafy: true}
	at := func(holdC float64, id string) Outcome {
		c := follow(t, "cold-lowland", night+2, change{from: night, hours: 6, hold: holdC})
		for i := range c.Events {
			if s := &c.Events[i]; s.Day >= night-1 && s.Day <= night+1 {
				return s.Meet(&Plant{Species: species(t, id), HeightM: 1.5, Shelter: UsualShelter, Sun: UsualSun}, young)
			}
		}
		t.Fatalf("%.1f °C in May is no event", holdC)
		return Outcome{}
	}
	for _, id := range []string{"juglans-regia", "vitis-vinifera", "actinidia-deliciosa", "ficus-carica",
		"fraxinus-excelsior", "fagus-sylvatica", "acer-palmatum"} {
		if o := at(-3, id); o.Share(Shoots) < 0.5 {
			t.Errorf("%s: young shoots unhurt at -3: %+v", id, o.Organs)
		}
	}
	hardy := []string{"malus-domestica", "ribes-nigrum", "syringa-vulgaris", "betula-pendula", "sorbus-aucuparia"}
	for _, id := range hardy {
		if o := at(-3, id); o.Share(Shoots) > 0.35 {
			t.Errorf("%s: young shoots burnt at -3: %+v", id, o.Organs)
		}
		if o := at(-7, id); o.Share(Shoots) < 0.5 {
			t.Errorf("%s: young shoots unhurt at -7: %+v", id, o.Organs)
		}
	}
	tomato := Plant{Species: species(t, "solanum-lycopersicum"), HeightM: 1, Shelter: UsualShelter, Sun: UsualSun}
	grown := catalogue.Stage{SinceLeafOut: 120, Leafing: true, Leafy: true}
	autumn := day.Of(2026, 10, 12)
	c := follow(t, "cold-lowland", autumn+2, change{from: autumn, hours: 6, hold: -1})
	for i := range c.Events {
		if s := &c.Events[i]; s.Day >= autumn-1 && s.Day <= autumn+1 {
			if o := s.Meet(&tomato, grown); o.Share(Tops) < 0.6 {
				t.Errorf("a tomato stands at -1: %+v", o.Organs)
			}
			return
		}
	}
	t.Error("the first frost of autumn is no event")
}
