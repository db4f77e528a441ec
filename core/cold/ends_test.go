package cold

import (
	"strings"
	"testing"

	"mezzadro/core/catalogue"
	"mezzadro/core/day"
)

// struckBy is what six hours at a temperature in the night of a day do to a plant in its stage of growth.
func struckBy(
	t *testing.T, climate, id string, heightM float64, night day.Day, holdC float64, stage catalogue.Stage,
) Outcome {
	t.Helper()
	c := follow(t, climate, night+2, change{from: night, hours: 6, hold: holdC})
	for i := range c.Events {
		if s := &c.Events[i]; s.Day >= night-1 && s.Day <= night+1 {
			return s.Meet(&Plant{Species: species(t, id), HeightM: heightM, Shelter: UsualShelter, Sun: UsualSun}, stage)
		}
	}
	t.Fatalf("%.1f °C on %s is no event", holdC, night)
	return Outcome{}
}

// TestUnripeEnds: shrubs that bloom into autumn lose their ends where those that finished in summer lose nothing, and
// live below.
func TestUnripeEnds(t *testing.T) {
	rest := catalogue.Stage{SinceLeafOut: -80, Leafing: true}
	january := day.Of(2027, 1, 15)
	for _, id := range []string{"buddleja-davidii", "rosa-bedding"} {
		o := struckBy(t, "cold-lowland", id, 1.5, january, -18, rest)
		if o.Share(Wood) < 0.6 || o.Dieback > 0.7 {
			t.Errorf("%s at -18: want dead ends over a living base: dieback %.2f, %+v", id, o.Dieback, o.Organs)
		}
	}
	unhurt := []string{"forsythia-intermedia", "hydrangea-paniculata", "syringa-vulgaris", "potentilla-fruticosa"}
	for _, id := range unhurt {
		if o := struckBy(t, "cold-lowland", id, 1.5, january, -18, rest); o.Share(Wood) > 0.1 {
			t.Errorf("%s at -18: want nothing lost: %+v", id, o.Organs)
		}
	}
}

// TestAnnualsDieWithTheirLeaves: tomato and squash are dead at -2 °C, in May as in September; parsley stands it.
func TestAnnualsDieWithTheirLeaves(t *testing.T) {
	may, september := day.Of(2027, 5, 18), day.Of(2026, 9, 28)
	for _, id := range []string{"solanum-lycopersicum", "cucurbita-pepo"} {
		set := catalogue.Stage{SinceLeafOut: -12, Leafing: true}
		grown := catalogue.Stage{SinceLeafOut: 110, Leafing: true, Leafy: true}
		if o := struckBy(t, "cold-lowland", id, 0.4, may, -2.2, set); o.Share(Crown) < 0.5 {
			t.Errorf("%s at -2.2 in May: %+v", id, o.Organs)
		}
		if o := struckBy(t, "cold-lowland", id, 1, september, -2.2, grown); o.Share(Crown) < 0.5 ||
			!strings.Contains(o.Own(), "killed it") || o.Expects() != "a dead annual" {
			t.Errorf("%s at -2.2 in September: %q, %+v", id, o.Own(), o.Organs)
		}
		winter := catalogue.Stage{SinceLeafOut: -120, Leafing: true}
		if o := struckBy(t, "cold-lowland", id, 0.4, day.Of(2027, 1, 15), -12, winter); len(o.Organs) > 0 ||
			!strings.Contains(o.Own(), "not out") {
			t.Errorf("%s stands there in January: %q, %+v", id, o.Own(), o.Organs)
		}
	}
	grown := catalogue.Stage{SinceLeafOut: 110, Leafing: true, Leafy: true}
	if o := struckBy(t, "cold-lowland", "petroselinum-crispum", 0.3, september, -3, grown); o.Severity > 0.1 {
		t.Errorf("parsley at -3: %+v", o.Organs)
	}
}

// TestUnfoldingLeaves: leaves just out of the bud bear what shoots of three weeks do not, and neither frost takes the
// wood of a tree in bloom.
func TestUnfoldingLeaves(t *testing.T) {
	spring := day.Of(2027, 5, 10)
	at := func(since int, holdC float64) Outcome {
		return struckBy(t, "cold-lowland", "malus-domestica", 3, spring, holdC,
			catalogue.Stage{SinceLeafOut: since, Leafing: true, Leafy: true, InBloom: since > 8 && since < 20})
	}
	if o := at(1, -5); o.Share(Shoots) > 0.4 {
		t.Errorf("apple at green tip, -5: %+v", o.Organs)
	}
	if o := at(22, -5.5); o.Share(Shoots) < 0.5 {
		t.Errorf("apple with shoots of three weeks, -5.5: %+v", o.Organs)
	}
	if o := at(12, -6); o.Dieback > 0.05 || o.Share(Blossom) < 0.9 {
		t.Errorf("apple in bloom, -6: its wood lives, its bloom does not: dieback %.2f %+v", o.Dieback, o.Organs)
	}
}
