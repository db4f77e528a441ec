package treatment

import (
	"strings"
	"testing"

	"mezzadro/core/catalogue"
	"mezzadro/core/day"
	"mezzadro/core/quantity"
	"mezzadro/core/rules"
)

// TestFeeding: what is fed when, as those who keep such plants do; what is never fed; nothing after a freeze before
// growth; lime and sulphur by pH, and never lime for what loves it sour.
func TestFeeding(t *testing.T) {
	for _, c := range []struct {
		name, species, climate, date string
		ask                          FeedAsk
		none                         bool
		first                        string // MM-DD..MM-DD
		times                        int    // at least
		says, never                  string
	}{
		{"roses each month", "rosa-bedding", "lake-foothills", "04-20", FeedAsk{}, false, "04-20..04-25", 4, "30 days; Not after late summer", ""},
		{"roses in autumn", "rosa-bedding", "lake-foothills", "10-10", FeedAsk{}, false, "03-01..05-10", 3, "", ""},
		{"roses in the south", "rosa-bedding", "southern-foothills", "10-01", FeedAsk{}, false, "10-01..10-25", 3, "", ""},
		{"citrus each quarter", "citrus-limon", "citrus-coast", "03-10", FeedAsk{}, false, "02-01..05-10", 2, "quarter", ""},
		{"citrus in a pot", "citrus-limon", "lake-foothills", "03-18", FeedAsk{PotL: 60}, false, "03-18..05-20", 2, "quarter", ""},
		{"a frozen orange", "citrus-sinensis", "lake-foothills", "03-18", FeedAsk{PotL: 80, Hurt: true}, false, "04-10..06-20", 1, "not fed before it grows", ""},
		{"wisteria", "wisteria-sinensis", "lake-foothills", "03-18", FeedAsk{}, true, "", 0, "own nitrogen", "compost"},
		{"lavender", "lavandula-angustifolia", "lake-foothills", "04-18", FeedAsk{}, true, "", 0, "lean", ""},
		{"a lime tree", "tilia-cordata", "prairie", "04-18", FeedAsk{}, true, "", 0, "mulch", ""},
		{"camellias after bloom", "camellia-japonica", "lake-foothills", "03-01", FeedAsk{}, false, "04-05..06-01", 1, "Never lime", ""},
		{"azaleas on lime", "azalea-evergreen", "gulf-coast", "04-10", FeedAsk{PH: 7.4}, false, "", 1, "sulphur by the soil test", "lime in autumn"},
		{"a sour vegetable bed", "solanum-lycopersicum", "cool-coast", "04-10", FeedAsk{PH: 5}, false, "", 1, "lime in autumn; never together with manure", "sulphur"},
		{"soil that suits", "rosa-bedding", "cool-coast", "04-10", FeedAsk{PH: 6.5}, false, "", 3, "suits it", "lime in"},
		{"apples once", "malus-domestica", "cool-coast", "03-10", FeedAsk{}, false, "03-01..05-10", 1, "midsummer; once", ""},
		{"hostas", "hosta-hybrid", "prairie", "04-01", FeedAsk{}, false, "04-01..05-25", 1, "compost", ""},
		{"oleander in a pot", "nerium-oleander", "lake-foothills", "05-10", FeedAsk{PotL: 40}, false, "05-10..05-30", 5, "liquid organic", ""},
		{"any feed", "nerium-oleander", "lake-foothills", "05-10", FeedAsk{PotL: 40, Rules: rules.House{Feeding: rules.AnyFeed}}, false, "05-10..05-30", 5, "Any feed", "organic"},
		{"a palm", "trachycarpus-fortunei", "lake-foothills", "03-18", FeedAsk{}, false, "03-20..05-20", 2, "potash", ""},
		{"rosemary", "salvia-rosmarinus", "dry-summer-coast", "03-18", FeedAsk{}, true, "", 0, "scent", ""},
		{"box", "buxus-sempervirens", "cool-coast", "03-18", FeedAsk{}, false, "03-10..05-20", 1, "root run", ""},
	} {
		e, err := catalogue.Built().Species(c.species)
		if err != nil {
			t.Fatal(err)
		}
		c.ask.Species, c.ask.Place = &e, place(t, c.climate)
		if c.ask.Date, err = day.Parse("2027-" + c.date); err != nil {
			t.Fatal(err)
		}
		f, err := Feed(c.ask)
		if err != nil || f.None != c.none || len(f.Days) < c.times {
			t.Errorf("%s: %+v, %v", c.name, f, err)
			continue
		}
		text := quantity.Style{}.Text(strings.Join(append(append(f.Says, f.Rules...), f.Text, f.Soil), "\n"))
		for _, w := range strings.Split(c.says, "; ") {
			if !strings.Contains(strings.ToLower(text), strings.ToLower(w)) {
				t.Errorf("%s: does not say %q: %s", c.name, w, text)
			}
		}
		if c.never != "" && strings.Contains(strings.ToLower(f.Text+f.Soil), strings.ToLower(c.never)) {
			t.Errorf("%s: says %q: %s", c.name, c.never, text)
		}
		if from, to, asked := strings.Cut(c.first, ".."); asked {
			if first := f.Days[0].String()[5:]; first < from || first > to {
				t.Errorf("%s: first on %s, want %s", c.name, first, c.first)
			}
		}
		if c.ask.Hurt && (len(f.Foliar) != 3 || f.Foliar[1]-f.Foliar[0] < 14 || f.Foliar[0] < c.ask.Date) {
			t.Errorf("%s: foliar %v", c.name, f.Foliar)
		}
	}
	e := catalogue.Built().Entries[0]
	if _, err := Feed(FeedAsk{Species: &e, Place: place(t, "cool-coast"), Date: day.Of(2027, 4, 1), PH: 14}); err == nil || !strings.Contains(err.Error(), "ph") {
		t.Errorf("pH 14: %v", err)
	}
}

// TestWhatFeedingMinds: what a kind is, not what it looks like; what ails it; and what was done to it.
func TestWhatFeedingMinds(t *testing.T) {
	spring := day.Of(2027, 3, 1)
	for _, c := range []struct {
		name, species, climate string
		ask                    FeedAsk
		none                   bool
		says, never            string
	}{
		{"a redbud makes no nitrogen", "cercis-canadensis", "humid-east", FeedAsk{}, true, "mulch", "its own nitrogen"},
		{"nor does honey locust", "gleditsia-triacanthos", "great-lakes", FeedAsk{}, true, "mulch", "its own nitrogen"},
		{"a wisteria does", "wisteria-sinensis", "oceanic-lowland", FeedAsk{AfterCut: true}, true, "its own nitrogen", ""},
		{"phosphorus kills grevillea", "grevillea-shrubby", "southern-coast", FeedAsk{}, true, "phosphorus", ""},
		{"bottlebrush", "callistemon-citrinus", "southern-coast", FeedAsk{}, false, "without phosphorus", "balanced"},
		{"nobody knows what it is", "unknown-evergreen-shrub", "piedmont", FeedAsk{Rules: rules.House{Feeding: rules.AnyFeed}}, false,
			"compost; name it first", "balanced"},
		{"cherry laurel is no fruit bush", "prunus-laurocerasus", "cool-coast", FeedAsk{}, false, "", "midsummer"},
		{"roses that bloom once", "rosa-rambler", "oceanic-lowland", FeedAsk{}, false, "after bloom", ""},
		{"yew after a hard cut", "taxus-baccata", "cool-coast", FeedAsk{AfterCut: true}, false, "once", ""},
		{"yew as ever", "taxus-baccata", "cool-coast", FeedAsk{}, true, "finds its own", ""},
		{"a birch planted this year", "betula-pendula", "continental-basin", FeedAsk{Young: true}, true, "water and mulch", ""},
		{"fire blight", "malus-domestica", "humid-east", FeedAsk{Sick: []string{"fire-blight"}}, true, "fire blight", ""},
		{"a rose with black spot is fed as ever", "rosa-bedding", "oceanic-lowland", FeedAsk{Sick: []string{"black-spot"}}, false, "", ""},
		{"yellow for want of iron", "citrus-limon", "citrus-coast", FeedAsk{Sick: []string{"iron"}}, false, "iron", ""},
		{"a laurel after frost", "prunus-laurocerasus", "cold-lowland", FeedAsk{Hurt: true}, false, "half of the label; before it grows", ""},
	} {
		e, err := catalogue.Built().Species(c.species)
		if err != nil {
			t.Fatal(err)
		}
		c.ask.Species, c.ask.Place, c.ask.Date = &e, place(t, c.climate), spring
		f, err := Feed(c.ask)
		if err != nil || f.None != c.none || !f.None && len(f.Days) == 0 {
			t.Errorf("%s: %+v, %v", c.name, f, err)
			continue
		}
		text := strings.ToLower(quantity.Style{}.Text(strings.Join(append(f.Says, f.Text), "\n")))
		for _, w := range strings.Split(c.says, "; ") {
			if !strings.Contains(text, w) {
				t.Errorf("%s: does not say %q: %s", c.name, w, text)
			}
		}
		if c.never != "" && strings.Contains(text, c.never) {
			t.Errorf("%s: says %q: %s", c.name, c.never, text)
		}
	}
}

// TestLastFeedIsTheLastDay: what is said to be the last day of a season of feeds is the day of the last feed, over all
// kinds, in pots and in the ground, in two climates.
func TestLastFeedIsTheLastDay(t *testing.T) {
	for _, climate := range []string{"cold-lowland", "southern-coast"} {
		p := place(t, climate)
		for i := range catalogue.Built().Entries {
			for _, pot := range []float64{0, 30} {
				f, err := Feed(FeedAsk{Species: &catalogue.Built().Entries[i], Place: p, Date: day.Of(2027, 4, 10), PotL: pot})
				if err != nil {
					t.Fatal(err)
				}
				if n := len(f.Days); n > 1 && f.To != f.Days[n-1] {
					t.Errorf("%s in %s, pot %.0f: last on %v, season to %v", catalogue.Built().Entries[i].ID, climate, pot,
						f.Days[n-1], f.To)
				}
			}
		}
	}
}
