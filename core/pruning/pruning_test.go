package pruning

import (
	"math/rand/v2"
	"slices"
	"strings"
	"testing"

	"mezzadro/core/catalogue"
	"mezzadro/core/day"
	"mezzadro/core/moment"
	"mezzadro/core/rules"
	"mezzadro/core/season"
)

// TestLossIsALoss: for all kinds in several climates, what a cut costs in bloom lies between nothing and what is cut;
// on old wood nothing is lost between bloom and bud set; taking off faded heads costs nothing; no day costs less than
// one of its reasons.
func TestLossIsALoss(t *testing.T) {
	r := rand.New(rand.NewPCG(12, 3))
	for _, climate := range []string{"lake-foothills", "prairie", "gulf-coast", "hot-desert", "pampas", "cool-coast"} {
		y := year(t, climate)
		for i := range catalogue.Built().Entries {
			e := &catalogue.Built().Entries[i]
			a := Ask{Species: e, Place: y, Date: day.Of(2027, 3, 1) + day.Day(r.IntN(200)), Share: 0.04, Purpose: Purposes[r.IntN(len(Purposes))]}
			p, err := For(a)
			if err != nil {
				t.Errorf("%s in %s: %v", e.ID, climate, err)
				continue
			}
			if p.BloomLoss < 0 || p.BloomLoss > p.Share+0.005 {
				t.Errorf("%s in %s: %.2f of the bloom for %.2f of the crown", e.ID, climate, p.BloomLoss, p.Share)
			}
			if a.Purpose == Deadhead && p.BloomLoss != 0 {
				t.Errorf("%s: taking off faded heads costs %.2f", e.ID, p.BloomLoss)
			}
			for _, d := range []day.Day{p.Curve.Start, p.Curve.Start + 100, p.Curve.Start + 200, p.Curve.Start + 300} {
				for _, w := range p.Curve.Why(d) {
					if w.Cost.Over(p.Curve.On(d)) {
						t.Errorf("%s on %s costs %v, and %s alone %v", e.ID, d, p.Curve.On(d), w.Name, w.Cost)
					}
				}
			}
			if e.Bloom.OldWood < 1 || e.Bloom.NewWood > 0 {
				continue
			}
			cal := y.Of(e, a.Date)
			for n, end := range cal.On("bloom_end") {
				if n+1 >= len(cal.On("bloom_start")) {
					break
				}
				if set, ok := cal.Next(moment.When{Event: "buds_set"}, end); ok && set > end+4 && set < cal.On("bloom_start")[n+1] {
					if l := onOld(cal, (end+set)/2); l != 0 {
						t.Errorf("%s in %s: %.2f lost between bloom and bud set", e.ID, climate, l)
					}
				}
			}
		}
	}
}

// TestHeights: for all kinds a cut to the height that is told leads to the wanted one after a season, or it is said why
// not; more cut never gives less regrowth.
func TestHeights(t *testing.T) {
	y := year(t, "lake-foothills")
	told := 0
	for i := range catalogue.Built().Entries {
		e := &catalogue.Built().Entries[i]
		h := e.Mature.HeightM
		for _, part := range []float64{0.85, 0.6, 0.3} {
			p, err := For(Ask{Species: e, Place: y, Date: day.Of(2027, 3, 1), WantedM: part * h})
			if err != nil {
				t.Errorf("%s to %.2f m: %v", e.ID, part*h, err)
				continue
			}
			if p.CutM > h+0.01 || p.Heights[0].M > h+0.01 {
				t.Errorf("%s of %.2f m is cut to %.2f m", e.ID, h, p.CutM)
			}
			if p.CutM > 0 && len(p.Years) == 0 && !p.TooBig {
				told++
				if got := p.Heights[1].M; got < 0.9*part*h || got > 1.1*part*h+0.02 {
					t.Errorf("%s: wanted %.2f m, cut to %.2f m, stands at %.2f m after a season", e.ID, part*h, p.CutM, got)
				}
			}
			if p.TooBig && !strings.Contains(p.Text, "too big for its place") {
				t.Errorf("%s: %s", e.ID, p.Text)
			}
		}
		for n := 1; n <= seasonsAhead; n++ {
			if grows(e, 0.2, n) > grows(e, 0.7, n)+1e-9 {
				t.Errorf("%s grows less after more is cut", e.ID)
			}
		}
	}
	if told < 150 {
		t.Errorf("only %d heights could be told", told)
	}
}

// TestCutsThatAreNotToBe: what cannot be is named, with what is possible.
func TestCutsThatAreNotToBe(t *testing.T) {
	y := year(t, "lake-foothills")
	for _, c := range []struct {
		species string
		ask     Ask
		says    string
	}{
		{"camellia-japonica", Ask{HeightM: 2, WantedM: 9}, "above what it grows to"},
		{"rosa-standard", Ask{HeightM: 1.6, GraftM: 1.1, WantedM: 0.8}, "below the graft"},
		{"camellia-japonica", Ask{Share: 1.5}, "share"},
		{"camellia-japonica", Ask{Purpose: "haircut"}, "is no purpose"},
		{"camellia-japonica", Ask{WantedM: -1}, "below the ground"},
		{"camellia-japonica", Ask{HeightM: 2, CutM: 2.4}, "its top"},
		{"camellia-japonica", Ask{HeightM: 2, CutM: 1.6, WantedM: 1.8}, "one of the two"},
		{"pinus-nigra", Ask{HeightM: 2, CutM: 1}, "does not come again"},
	} {
		c.ask.Species, c.ask.Place, c.ask.Date = entry(t, c.species), y, day.Of(2027, 3, 1)
		if _, err := For(c.ask); err == nil || !strings.Contains(err.Error(), c.says) {
			t.Errorf("%+v: %v, want %q", c.ask, err, c.says)
		}
	}
}

// TestMoreThanItBears: more than a plant bears at once can be asked for: it is said to be too much, and costs, and is
// no refusal.
func TestMoreThanItBears(t *testing.T) {
	y := year(t, "lake-foothills")
	for _, c := range []struct {
		species string
		ask     Ask
		much    bool
	}{
		{"forsythia-intermedia", Ask{Share: 0.6}, true},
		{"forsythia-intermedia", Ask{Share: 0.3}, false},
		{"camellia-japonica", Ask{HeightM: 2, CutM: 0.9}, true},
		{"camellia-japonica", Ask{HeightM: 2, CutM: 1.5}, false},
		{"hydrangea-arborescens", Ask{Share: 0.85}, false},
	} {
		c.ask.Species, c.ask.Place, c.ask.Date = entry(t, c.species), y, day.Of(2027, 5, 20)
		p, err := For(c.ask)
		if err != nil {
			t.Errorf("%s: %v", c.species, err)
			continue
		}
		says := strings.Contains(strings.Join(p.Cautions, " "), "more than it bears at once")
		c.ask.Share, c.ask.CutM = 0, 0
		usual, err := For(c.ask)
		if err != nil || p.TooMuch != c.much || says != c.much || c.much && p.Curve.On(p.Best).Int() < usual.Curve.On(usual.Best).Int()+12 {
			t.Errorf("%s, %+v: too much %v, %v, best day %v against %v", c.species, c.ask, p.TooMuch, p.Cautions, p.Curve.On(p.Best), usual.Curve.On(usual.Best))
		}
	}
}

// TestPlainCuts: what a person who knows would be told of a few plants.
func TestPlainCuts(t *testing.T) {
	y := year(t, "lake-foothills")
	plan := func(species string, a Ask) Plan {
		t.Helper()
		a.Species, a.Place = entry(t, species), y
		if a.Date == 0 {
			a.Date = day.Of(2027, 3, 18)
		}
		p, err := For(a)
		if err != nil {
			t.Fatal(err)
		}
		return p
	}
	if p := plan("forsythia-intermedia", Ask{Date: day.Of(2027, 2, 20), Share: 0.33}); p.BloomLoss < 0.3 || !strings.Contains(p.BloomText, "takes no harm") {
		t.Errorf("forsythia in February: %.2f, %s", p.BloomLoss, p.BloomText)
	}
	if p := plan("hydrangea-macrophylla", Ask{}); p.BloomLoss != 0 || !strings.Contains(p.BloomText, "one pair further down") {
		t.Errorf("mophead: %.2f, %s", p.BloomLoss, p.BloomText)
	}
	if p := plan("philadelphus-coronarius", Ask{Purpose: Renew, HeightM: 2.4, WantedM: 2}); len(p.Years) != 3 || !strings.Contains(p.Years[0].Text, "oldest third") {
		t.Errorf("renewal: %+v", p.Years)
	}
	if p := plan("trachycarpus-fortunei", Ask{HeightM: 6}); !strings.Contains(strings.Join(p.Steps, " "), "brown fronds alone") || p.Most > 0.1 || len(p.Skills) == 0 {
		t.Errorf("palm: %+v", p)
	}
	if p := plan("tilia-cordata", Ask{HeightM: 14}); p.Skills[0] != "licensed arborist" || !strings.Contains(strings.Join(p.Cautions, " "), "permit") {
		t.Errorf("an old lime: %v, %v", p.Skills, p.Cautions)
	}
	if p := plan("lavandula-angustifolia", Ask{HeightM: 0.5}); len(p.Skills) != 0 || strings.Contains(strings.Join(p.Cautions, " "), "ladder") {
		t.Errorf("lavender: %v, %v", p.Skills, p.Cautions)
	}
	if p := plan("prunus-laurocerasus", Ask{HeightM: 4, WantedM: 1}); len(p.Years) < 2 && !p.TooBig {
		t.Errorf("laurel of 4 m to 1 m in one go: %+v", p)
	}
	rule := plan("miscanthus-sinensis", Ask{Rules: rules.House{Perennials: rules.AtFrost}})
	if len(rule.Windows) == 0 || rule.Windows[0].From.Month() > 3 && rule.Windows[0].From.Month() < 10 {
		t.Errorf("house rule: %+v", rule.Windows)
	}
	sick := plan("malus-domestica", Ask{Purpose: Sick})
	if !strings.Contains(sick.Steps[0], "Sound plants first") || !strings.Contains(strings.Join(sick.Cautions, " "), "never on the compost") {
		t.Errorf("sanitation: %v, %v", sick.Steps, sick.Cautions)
	}
}

// TestWarmYear: bloom is early in a warm year, and the window that hangs on it comes forward.
func TestWarmYear(t *testing.T) {
	usual := year(t, "lake-foothills")
	c := usual.Year.Normals.Climate
	c.Normals = slices.Clone(c.Normals)
	for m := range c.Normals {
		c.Normals[m].TMinC += 2
		c.Normals[m].TMaxC += 2
	}
	warm := At(season.NewYear(c.Daily(), nil))
	for _, id := range []string{"forsythia-intermedia", "syringa-vulgaris", "philadelphus-coronarius"} {
		first := func(a Ask) day.Day {
			a.Species, a.Date = entry(t, id), day.Of(2027, 3, 1)
			p, err := For(a)
			if err != nil || len(p.Windows) == 0 {
				t.Fatal(id, err)
			}
			return p.Windows[0].From
		}
		if u, w := first(Ask{Place: usual}), first(Ask{Place: warm}); w >= u-3 {
			t.Errorf("%s: from %s, in a warm year from %s", id, u, w)
		}
	}
}

func BenchmarkYearOfCuts(b *testing.B) {
	y := year(b, "lake-foothills")
	all := catalogue.Built().Entries
	ClassOf(&all[0]) // the classes are read once
	var n int
	for b.Loop() {
		if _, err := For(Ask{Species: &all[n%len(all)], Place: y, Date: day.Of(2027, 3, 1)}); err != nil {
			b.Fatal(err)
		}
		n++
	}
}

// TestUsual: what a gardener cuts each year, trims, clears of dead wood, or leaves alone, without being told.
func TestUsual(t *testing.T) {
	for _, c := range []struct {
		species string
		count   int
		want    Purpose
	}{
		{"buxus-sempervirens", 60, Hedge}, {"buxus-sempervirens", 1, Shape}, {"rosa-bedding", 60, Shape}, {"forsythia-intermedia", 12, Shape},
		{"tilia-cordata", 2, Dead}, {"malus-domestica", 5, Shape}, {"citrus-limon", 6, Shape}, {"picea-abies", 1, Dead},
		{"trachycarpus-fortunei", 1, Shape}, {"ocimum-basilicum", 20, ""}, {"miscanthus-sinensis", 12, Shape},
	} {
		if got := Usual(entry(t, c.species), Of{Count: c.count}); got != c.want {
			t.Errorf("%d of %s: %q, want %q", c.count, c.species, got, c.want)
		}
	}
}

// TestRenewing: what comes again from old wood is renewed over three years, in the way of its form; of what does not it
// is said at once.
func TestRenewing(t *testing.T) {
	for id, want := range map[string]struct {
		years int
		says  string
	}{
		"philadelphus-coronarius": {3, "at the ground"},
		"taxus-baccata":           {3, "one side"},
		"thuja-occidentalis":      {0, "cannot be renewed"},
		"lavandula-angustifolia":  {0, "cannot be renewed"},
		"cytisus-scoparius":       {0, "cannot be renewed"},
	} {
		p, err := For(Ask{Species: entry(t, id), Place: year(t, "oceanic-lowland"), Date: day.Of(2027, 4, 5), Purpose: Renew})
		if err != nil {
			t.Fatal(id, err)
		}
		said := p.Text
		for _, y := range p.Years {
			said += " " + y.Text
		}
		if len(p.Years) != want.years || !strings.Contains(said, want.says) || want.years > 0 && strings.Contains(said, "cannot") {
			t.Errorf("%s: %d years, %q", id, len(p.Years), said)
		}
	}
}
