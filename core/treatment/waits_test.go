package treatment

import (
	"math/rand/v2"
	"strings"
	"testing"
	"time"

	"mezzadro/core/catalogue"
	"mezzadro/core/day"
	"mezzadro/core/moment"
	"mezzadro/core/quantity"
)

// soapCard is a soap whose label asks for three days to harvest and a day before anyone goes in again.
func soapCard() Card {
	return Card{ID: 4, Name: "Soap from the shed", Active: "soap", Unit: "mL", Rates: []Rate{{Amount: 20, Per: "L"}}, HarvestDays: 3, ReentryH: 24}
}

// TestWaits: what was sprayed is not eaten before the label's days are over, nobody goes in before its hours are; a
// pick that is due comes first, and the spray after it; of what is not eaten there is no wait to harvest.
func TestWaits(t *testing.T) {
	on := day.Of(2027, 6, 10)
	for _, c := range []struct {
		name, cause, species string
		uses                 []Use
		harvest              day.Day
		cards                []Card
		first                day.Day // of the first step with a means
		harvestFrom          day.Day // told with it
		waits                []string
	}{
		{"basil, nothing to pick soon", "aphids", "ocimum-basilicum", nil, 0, []Card{soapCard()}, on, on + 3, nil},
		{"basil, picked tomorrow", "aphids", "ocimum-basilicum", nil, on + 1, []Card{soapCard()}, on + 2, on + 5, nil},
		{"basil, picked in three days", "aphids", "ocimum-basilicum", nil, on + 3, []Card{soapCard()}, on, on + 3, nil},
		{"basil without a card", "aphids", "ocimum-basilicum", nil, on + 1, nil, on, 0, nil},
		{"basil sprayed yesterday", "aphids", "ocimum-basilicum", []Use{{Day: on - 1, Active: "soap"}}, 0, []Card{soapCard()}, on + 6, on + 9, []string{"harvest", "re-entry", "gap"}},
		{"sprayed today", "aphids", "ocimum-basilicum", []Use{{Day: on, Active: "soap"}}, 0, []Card{soapCard()}, on + 7, on + 10, []string{"harvest", "re-entry", "gap"}},
		{"a rose sprayed today", "aphids", "rosa-shrub", []Use{{Day: on, Active: "soap"}}, 0, []Card{soapCard()}, 0, 0, []string{"re-entry", "gap"}},
		{"a rose sprayed two days ago", "aphids", "rosa-shrub", []Use{{Day: on - 2, Active: "soap"}}, 0, []Card{soapCard()}, 0, 0, []string{"gap"}},
		{"sprayed last week", "aphids", "ocimum-basilicum", []Use{{Day: on - 7, Active: "soap"}}, 0, []Card{soapCard()}, on, on + 3, nil},
		{"oil on a rose that had sulphur", "soft-scale", "laurus-nobilis", []Use{{Day: on - 10, Active: "sulphur"}}, 0, nil, on + 20, 0, []string{"gap"}},
	} {
		e, err := catalogue.Built().Species(c.species)
		if err != nil {
			t.Fatal(err)
		}
		o, err := Built().Plan(Ask{Cause: c.cause, Species: &e, Place: place(t, "lake-foothills"), Date: on, Share: 0.6, Uses: c.uses, Harvest: c.harvest, Cards: c.cards})
		if err != nil {
			t.Fatal(c.name, err)
		}
		var step *Dated
		for i := range o.Steps {
			if o.Steps[i].Use != "" && o.Steps[i].Use != "grease-band" && step == nil {
				step = &o.Steps[i]
			}
		}
		if step == nil || c.first != 0 && step.Day != c.first || step.HarvestFrom != c.harvestFrom {
			t.Errorf("%s: %+v, want %s, harvest from %s", c.name, step, c.first, c.harvestFrom)
		}
		got := []string{}
		for _, w := range o.Waits {
			got = append(got, w.What)
			if w.To < on || w.From > on || w.Text == "" {
				t.Errorf("%s: %+v", c.name, w)
			}
		}
		if strings.Join(got, " ") != strings.Join(c.waits, " ") {
			t.Errorf("%s: waits %v, want %v", c.name, got, c.waits)
		}
	}
}

// TestBreaks: what is entered as used on a day that lies within a wait is named with the day from which it would be in
// order.
func TestBreaks(t *testing.T) {
	for _, c := range []struct {
		name, species, active string
		month                 time.Month
		day                   int
		uses                  []Use
		harvest               day.Day
		says                  string // empty: it is in order
	}{
		{"oil ten days after sulphur", "laurus-nobilis", "oil", 7, 20, []Use{{Day: day.Of(2027, 7, 10), Active: "sulphur"}}, 0, "30 days"},
		{"oil before a sulphur that followed", "laurus-nobilis", "oil", 7, 1, []Use{{Day: day.Of(2027, 7, 10), Active: "sulphur"}}, 0, "30 days"},
		{"oil long after", "laurus-nobilis", "oil", 8, 20, []Use{{Day: day.Of(2027, 7, 10), Active: "sulphur"}}, 0, ""},
		{"soap on open roses", "rosa-rugosa", "soap", 6, 20, nil, 0, "bees"},
		{"soap before they open", "rosa-rugosa", "soap", 4, 10, nil, 0, ""},
		{"soap the day before the pick", "ocimum-basilicum", "soap", 6, 9, nil, day.Of(2027, 6, 10), "3 days to harvest"},
		{"soap four days before the pick", "ocimum-basilicum", "soap", 6, 6, nil, day.Of(2027, 6, 10), ""},
		{"copper a fourth time", "prunus-persica", "copper", 3, 20, []Use{{Day: day.Of(2027, 2, 1), Active: "copper"}, {Day: day.Of(2027, 2, 15), Active: "copper"},
			{Day: day.Of(2027, 3, 1), Active: "copper"}}, 0, "3 times"},
	} {
		e, err := catalogue.Built().Species(c.species)
		if err != nil {
			t.Fatal(err)
		}
		on := day.Of(2027, c.month, c.day)
		a := Ask{Cause: "aphids", Species: &e, Place: place(t, "lake-foothills"), Date: day.Of(2027, 12, 20), Uses: c.uses, Harvest: c.harvest, Cards: []Card{soapCard()}}

		got := strings.Join(Built().Breaks(a, c.active, on), "; ")
		if c.says == "" && got != "" || !strings.Contains(got, c.says) {
			t.Errorf("%s: %q, want %q", c.name, got, c.says)
		}
	}
}

// TestLabelsLimits: what a label says of how often and how far apart holds for what is planned and for what was done; the
// next use is moved on by as many days, and a means that is used up for the year is not proposed.
func TestLabelsLimits(t *testing.T) {
	e, err := catalogue.Built().Species("prunus-persica")
	if err != nil {
		t.Fatal(err)
	}
	copper := func(most, apart int) []Card {
		return []Card{{ID: 4, Name: "Copper, 500 g", Active: "copper", Unit: "g", Rates: []Rate{{Amount: 3, Per: "L"}}, MostUses: most, IntervalD: apart, BufferM: 20}}
	}
	used := []Use{{Day: day.Of(2027, 2, 1), Active: "copper", Card: 4}}
	ask := func(cards []Card, uses []Use) Ask {
		return Ask{Cause: "leaf-curl", Species: &e, Place: place(t, "lake-foothills"), Date: day.Of(2027, 2, 4), Cards: cards, Uses: uses}
	}
	for _, c := range []struct {
		name        string
		cards       []Card
		on          day.Day
		says        string
		notProposed bool
	}{
		{"twelve days after, where the label asks for fourteen", copper(0, 14), day.Of(2027, 2, 13), "14 days between", false},
		{"fourteen days after", copper(0, 14), day.Of(2027, 2, 15), "", false},
		{"a second time, where once a year is the most", copper(1, 0), day.Of(2027, 3, 1), "most by its label", true},
		{"a second time, where twice are", copper(2, 0), day.Of(2027, 3, 1), "", false},
		{"a label that says nothing", copper(0, 0), day.Of(2027, 2, 13), "", false},
	} {
		a := ask(c.cards, used)
		if got := strings.Join(Built().Breaks(a, "copper", c.on), "; "); (got == "") != (c.says == "") || !strings.Contains(got, c.says) {
			t.Errorf("%s: %q, want %q", c.name, got, c.says)
		}
		answer, err := Built().Plan(a)
		if err != nil {
			t.Fatal(err)
		}
		proposed := false
		for _, s := range answer.Steps {
			proposed = proposed || s.Use == "copper"
			if apart := day.Day(c.cards[0].IntervalD); s.Use == "copper" && s.Day < used[0].Day+apart {
				t.Errorf("%s: planned for %s, %d days after the last", c.name, s.Day, s.Day-used[0].Day)
			}
		}
		if proposed && c.notProposed {
			t.Errorf("%s: it is proposed again: %+v", c.name, answer.Steps)
		}
	}
	answer, err := Built().Plan(ask(copper(0, 0), nil))
	if err != nil || !strings.Contains(quantity.Metric.Text(strings.Join(answer.Cautions, " ")), "keep 20.0 m from ponds") {
		t.Errorf("the strip along water is not told: %v, %v", answer.Cautions, err)
	}
}

// TestPlansKeepToLabels: of what is put on several times no plan says oftener, or sooner again, than its label.
func TestPlansKeepToLabels(t *testing.T) {
	rose, err := catalogue.Built().Species("rosa-bedding")
	if err != nil {
		t.Fatal(err)
	}
	plan := func(most, apart int) (out []Dated) {
		cards := []Card{}
		for i, act := range Built().Actives {
			cards = append(cards, Card{ID: int64(i + 1), Name: act.Name, Active: act.ID, Unit: "g", Rates: []Rate{{Amount: 3, Per: "L"}}, MostUses: most, IntervalD: apart})
		}
		for _, cause := range []string{"black-spot", "powdery-mildew", "aphids", "rust"} {
			for month := time.March; month <= time.July; month++ {
				answer, err := Built().Plan(Ask{Cause: cause, Species: &rose, Place: place(t, "lake-foothills"), Date: day.Of(2027, month, 20), Share: 0.5, Cards: cards})
				if err != nil {
					t.Fatal(err)
				}
				for _, s := range answer.Steps {
					if s.Use != "" && s.Every > 0 {
						out = append(out, s)
					}
				}
			}
		}
		return out
	}
	if again := plan(0, 0); len(again) < 4 || again[0].Most < 2 {
		t.Fatalf("nothing is put on several times: %+v", again)
	}
	for _, s := range plan(1, 0) {
		if s.Most > 1 {
			t.Errorf("%s: %d times, where the label says once a year", s.Use, s.Most)
		}
	}
	for _, s := range plan(0, 45) {
		if s.Every < 45 {
			t.Errorf("%s: every %d days, where the label says 45 apart", s.Use, s.Every)
		}
	}
}

// TestWaitsAtRandom: over random days to pick and things used no step lies in a wait, and each plan's own days break
// nothing.
func TestWaitsAtRandom(t *testing.T) {
	r := rand.New(rand.NewPCG(3, 5))
	entries := catalogue.Built().Entries
	b := Built()
	looked := 0
	places := map[string]*moment.Place{}
	for _, c := range climates {
		places[c] = place(t, c)
	}
	for range 600 {
		e := &entries[r.IntN(len(entries))]
		p := b.Programmes[r.IntN(len(b.Programmes))]
		a := Ask{Cause: p.Causes[r.IntN(len(p.Causes))], Species: e, Place: places[climates[r.IntN(len(climates))]], Date: day.Of(2027, 1, 1) + day.Day(r.IntN(365)), Share: r.Float64()}
		a.Harvest = a.Date + day.Day(r.IntN(40))
		for i, act := range b.Actives {
			a.Cards = append(a.Cards, Card{ID: int64(i + 1), Name: act.Name, Active: act.ID, Unit: "mL", Rates: []Rate{{Amount: 1, Per: "L"}}, HarvestDays: r.IntN(20)})
			if r.IntN(8) == 0 {
				a.Uses = append(a.Uses, Use{Day: a.Date - day.Day(r.IntN(40)), Active: act.ID})
			}
		}
		o, err := b.Plan(a)
		if err != nil {
			t.Fatal(err)
		}
		for _, st := range o.Steps {
			if st.Use == "" || st.Day > a.Date+200 { // another year's are dated anew when they come
				continue
			}
			looked++
			if broken := b.Breaks(a, st.Use, st.Day); len(broken) > 0 {
				t.Errorf("%s on %s, %s for %s: %s: %v", a.Cause, e.ID, st.UseName, st.Day, a.Date, broken)
			}
		}
	}
	if looked < 100 {
		t.Errorf("only %d steps with a means", looked)
	}
}
