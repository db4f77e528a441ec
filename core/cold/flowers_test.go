package cold

import (
	"strings"
	"testing"

	"mezzadro/core/catalogue"
	"mezzadro/core/day"
	"mezzadro/core/quantity"
)

// inBloom is a tree so many days before its bloom (negative: after its begin), which lasts two weeks.
func inBloom(toBloom int) catalogue.Stage {
	return catalogue.Stage{SinceLeafOut: -toBloom, Leafing: true, Leafy: toBloom < 0, Blooms: true, ToBloom: toBloom,
		PastBloom: -toBloom - 14, InBloom: toBloom <= 0 && toBloom >= -14}
}

// TestBloomByStage: what growers cut open and count after a spring frost, by where the buds stood. A frost that does
// nothing to closed buds takes half of those that show colour, most of the open ones and nearly all young fruit.
func TestBloomByStage(t *testing.T) {
	spring := day.Of(2027, 4, 28)
	for _, c := range []struct {
		kind      string
		toBloom   int
		holdC     float64
		from, upt float64
		said      string
	}{
		{"malus-domestica", 28, -6, 0, 0.1, "likely unhurt"},              // silver tip
		{"malus-domestica", 20, -5, 0, 0.2, "likely unhurt"},              // green tip
		{"malus-domestica", 11, -5, 0.2, 0.7, ""},                         // tight clusters
		{"malus-domestica", 4, -5, 0.6, 1, "flower buds"},                 // pink
		{"malus-domestica", -3, -2.1, 0, 0.3, "likely unhurt"},            // open, a slight frost
		{"malus-domestica", -3, -4, 0.6, 1, "open flowers"},               // open
		{"malus-domestica", -20, -3.5, 0.6, 1, "young fruit"},             // as large as a pea
		{"prunus-persica", 20, -7, 0, 0.25, ""},                           // first swelling
		{"prunus-persica", -4, -2, 0, 0.3, "likely unhurt"},               // peaches bear two below
		{"prunus-persica", -4, -5, 0.8, 1, "open flowers"},                // five is the end of the crop
		{"prunus-avium", 3, -4.5, 0.5, 1, "flower buds"},                  // white
		{"forsythia-intermedia", -5, -2.5, 0, 0.3, "likely unhurt"},       // made for it
		{"magnolia-stellata", -5, -3.5, 0.6, 1, "its open flowers brown"}, // brown rags by noon
		{"hydrangea-paniculata", 80, -4, 0, 0.01, ""},                     // on this year's wood: none stand there yet
	} {
		o := struckBy(t, "cold-lowland", c.kind, 2.5, spring, c.holdC, inBloom(c.toBloom))
		if got := o.Share(Blossom); got < c.from || got > c.upt {
			t.Errorf("%s %d days before bloom at %.1f: %.0f %% lost, want %.0f to %.0f", c.kind, c.toBloom, c.holdC,
				100*got, 100*c.from, 100*c.upt)
		}
		if said := quantity.Metric.Text(o.Own()); !strings.Contains(said, c.said) {
			t.Errorf("%s %d days before bloom at %.1f: it is said %q", c.kind, c.toBloom, c.holdC, said)
		}
	}
}

// TestDormantFlowerBuds: a hard January takes the peach crop and the forsythia above the snow, and leaves the trees.
func TestDormantFlowerBuds(t *testing.T) {
	january := day.Of(2027, 1, 25)
	for id, c := range map[string]struct {
		holdC float64
		lost  bool
	}{
		"prunus-persica": {-23.5, true}, "malus-domestica": {-23.5, false}, "forsythia-intermedia": {-29, true},
		"syringa-vulgaris": {-29, false},
	} {
		o := struckBy(t, "great-lakes", id, 2.5, january, c.holdC, inBloom(95))
		if lost := o.Share(Blossom) >= 0.5; lost != c.lost {
			t.Errorf("%s at %.1f: flower buds lost %v: %+v", id, c.holdC, lost, o.Organs)
		}
		if o.Dieback > 0.1 {
			t.Errorf("%s at %.1f: its wood dies back by %.2f", id, c.holdC, o.Dieback)
		}
	}
}

// TestCitrus: thirteen hours under zero with −4.9 °C freeze lemons on the tree, burn its leaves and tips and spare the
// kumquat; two and a half degrees for a few hours cost a part of the lemons and no wood.
func TestCitrus(t *testing.T) {
	january := day.Of(2027, 1, 20)
	hard := frost{"citrus-coast", january, 13, -4.9, nil, 0}.course(t)
	slight := frost{"citrus-coast", january, 4, -2.2, nil, 0}.course(t)
	meets := func(c *Course, id string) Outcome {
		p := Plant{Species: species(t, id), HeightM: 2, Shelter: UsualShelter, Sun: UsualSun}
		return c.meet(t, p, january)
	}
	lemon := meets(hard, "citrus-limon")
	if lemon.Share(Blossom) < 0.8 || lemon.Share(Leaves) < 0.6 || lemon.Severity < softFrom || lemon.Dieback > 0.5 {
		t.Errorf("lemon at -4.9: %+v", lemon.Organs)
	}
	if !strings.Contains(lemon.Expects(), "dead tips") {
		t.Errorf("lemon at -4.9: one expects %q", lemon.Expects())
	}
	if o := meets(hard, "citrus-japonica"); o.Share(Wood) > 0.3 || o.Share(Blossom) > 0.9 {
		t.Errorf("kumquat at -4.9: %+v", o.Organs)
	}
	o := meets(slight, "citrus-limon")
	if o.Share(Wood) > 0.3 || o.Share(Blossom) < 0.1 || o.Share(Blossom) > 0.7 {
		t.Errorf("lemon at -2.2: %+v", o.Organs)
	}
}

// TestLeavesThatFallAnyway: an October frost browns what is still in leaf; that is no hurt to go and look for, and it
// is said.
func TestLeavesThatFallAnyway(t *testing.T) {
	october := day.Of(2026, 10, 18)
	grown := catalogue.Stage{SinceLeafOut: 160, Leafing: true, Leafy: true}
	for _, id := range []string{"hydrangea-macrophylla", "juglans-regia", "acer-palmatum"} {
		o := struckBy(t, "cold-lowland", id, 2, october, -5.5, grown)
		if o.Share(Leaves) < 0.5 || o.Severity >= lookFrom || o.Expects() != "brown leaves, and nothing more" ||
			!strings.Contains(quantity.Metric.Text(o.Own()), "leaves brown") {
			t.Errorf("%s at -5.5 in October: %.2f %q %+v", id, o.Severity, quantity.Metric.Text(o.Own()), o.Organs)
		}
	}
	if o := struckBy(t, "cold-lowland", "malus-domestica", 3, october, -3, grown); o.Share(Leaves) > 0.2 {
		t.Errorf("apple at -3 in October: %+v", o.Organs)
	}
}
