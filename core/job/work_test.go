package job_test

import (
	"fmt"
	"testing"
	"time"

	"mezzadro/core/catalogue"
	"mezzadro/core/day"
	"mezzadro/core/job"
	"mezzadro/core/job/reason"
	"mezzadro/core/rules"
	"mezzadro/core/season"
)

func climate(t testing.TB, id string) season.Climate {
	t.Helper()
	c, err := catalogue.Built().Climate(id)
	if err != nil {
		t.Fatal(err)
	}
	return c.Climate
}

func species(t testing.TB, id string) *catalogue.Entry {
	t.Helper()
	e, err := catalogue.Built().Species(id)
	if err != nil {
		t.Fatal(err)
	}
	return &e
}

var march = day.Of(2027, 3, 18)

// What gardeners do when, in several climates and both hemispheres: the best day lies in these months.
func TestWhenWorkIsBestDone(t *testing.T) {
	for _, c := range []struct {
		what, climate, species string
		made                   day.Day
		order                  job.Order
		months                 []time.Month
	}{
		{"frosted camellia cut at a mild lake", "lake-foothills", "camellia-japonica", march, job.Order{Kind: job.CutBack}, []time.Month{4, 5}},
		{"oleander cut at a mild lake", "lake-foothills", "nerium-oleander", march, job.Order{Kind: job.CutBack}, []time.Month{5, 6, 7}},
		{"lilac found hurt in October is cut in spring", "lake-foothills", "syringa-vulgaris", day.Of(2027, 10, 10), job.Order{Kind: job.CutBack}, []time.Month{3, 4, 5}},
		{"replacing in March is done in spring or autumn", "lake-foothills", "lavandula-angustifolia", march, job.Order{Kind: job.Replace}, []time.Month{4, 5, 9, 10}},
		{"a hanging limb comes down today", "lake-foothills", "robinia-pseudoacacia", march, job.Order{Kind: job.MakeSafe}, []time.Month{3}},
		{"a lemon goes in before frost", "lake-foothills", "citrus-limon", day.Of(2027, 10, 1), job.Order{Kind: job.Lift}, []time.Month{10, 11}},
		{"and comes out after it", "lake-foothills", "citrus-limon", day.Of(2027, 10, 1), job.Order{Kind: job.PlantOut, Params: job.Params{When: job.FrostPast}}, []time.Month{3, 4, 5}},
		{"bark slips about leaf-out", "lake-foothills", "malus-domestica", march, job.Order{Kind: job.Graft}, []time.Month{3, 4, 5}},
		{"feeding waits for shoots", "lake-foothills", "camellia-japonica", march, job.Order{Kind: job.Feed}, []time.Month{4, 5, 6}},
		{"watering waits for the dry months", "lake-foothills", "camellia-japonica", march, job.Order{Kind: job.Water}, []time.Month{5, 6}},
	} {
		p := job.At(season.NewYear(climate(t, c.climate).Daily(), nil), rules.House{})
		c.order.For = c.made
		curve := p.Curve(c.order, species(t, c.species))
		best, ok := curve.Best(c.made)
		in := false
		for _, m := range c.months {
			in = in || best.Month() == m
		}
		if !ok || !in {
			t.Errorf("%s: best on %s, want a day in %v; windows %v", c.what, best, c.months, curve.Windows(job.Acceptable))
		}
	}
}

// every is an order of each kind.
func every(made day.Day) []job.Order {
	var out []job.Order
	for _, k := range []job.Kind{job.Look, job.TipBack, job.CutBack, job.CutToBase, job.Shorten, job.MakeSafe, job.Lift, job.PlantOut, job.Guard,
		job.Graft, job.Ask, job.Replace, job.Feed, job.Water, job.Mulch, job.Shade, job.Fruit, job.Protect} {
		out = append(out, job.Order{Kind: k, For: made})
	}
	for _, w := range []job.When{job.LeafDue, job.LeafDueNext, job.CutShows, job.FrostPast, job.InAWeek} {
		out = append(out, job.Order{Kind: job.Look, For: made, Params: job.Params{When: w}})
	}
	return append(out, job.Order{Kind: job.CutBack, For: made, Params: job.Params{When: job.AsFound}},
		job.Order{Kind: job.Water, For: made, Params: job.Params{Stage: job.New, EveryDays: job.WaterNewEvery}},
		job.Order{Kind: job.Water, For: made, Params: job.Params{Stage: job.Indoors, EveryDays: job.IndoorsEvery, Last: made}})
}

// Every kind of work, made in any month in any climate, has a curve from its day on with a day that is allowed.
func TestEveryKindEverywhere(t *testing.T) {
	for _, c := range catalogue.Built().Climates {
		y := season.NewYear(c.Climate.Daily(), nil)
		p := job.At(y, rules.House{})
		for _, id := range []string{"camellia-japonica", "hosta-hybrid", "malus-domestica", "trachycarpus-fortunei"} {
			sp := species(t, id)
			for m := time.January; m <= time.December; m += 2 {
				made := day.Of(2027, m, 9)
				for _, o := range every(made) {
					curve := p.Curve(o, sp)
					best, ok := curve.Best(made)
					if curve.Start != made || curve.Days < 1 || curve.Days > 900 || !ok || best < made {
						t.Fatalf("%s, %s, %s made %s: %d days from %s, best %s", c.ID, id, o.Kind, made, curve.Days, curve.Start, best)
					}
				}
			}
		}
	}
}

// TestWindowsFollowTheSeason: a warm fortnight brings what hangs on leaf forward, and never puts it back.
func TestWindowsFollowTheSeason(t *testing.T) {
	n := climate(t, "lake-foothills").Daily()
	as := func(off float64) *job.Place {
		seen := map[day.Day]season.Extremes{}
		for d := day.Of(2027, 1, 1); d < march; d++ {
			e := season.Extremes{Min: n.TMin.At(d), Max: n.TMax.At(d)}
			if d >= march-14 {
				e.Min, e.Max = e.Min+off, e.Max+off
			}
			seen[d] = e
		}
		return job.At(season.NewYear(n, seen), rules.House{})
	}
	usual, warm := as(0), as(9)
	for _, o := range []job.Order{{Kind: job.Look}, {Kind: job.CutBack, Params: job.Params{When: job.AsFound}}, {Kind: job.Feed}} {
		o.For = march - 20
		for _, id := range []string{"malus-domestica", "camellia-japonica", "rosa-shrub"} {
			a, b := usual.Curve(o, species(t, id)).Outlook(march), warm.Curve(o, species(t, id)).Outlook(march)
			if b.Window.From > a.Window.From || b.Best > a.Best {
				t.Errorf("%s on %s: after a warm fortnight the window opens on %s, as usual on %s", o.Kind, id, b.Window.From, a.Window.From)
			}
			if o.Kind == job.Look && id == "malus-domestica" && b.Window.From >= a.Window.From {
				t.Errorf("%s on %s did not move: %s", o.Kind, id, b.Window.From)
			}
		}
	}
}

// A repeat is due again after its days, not before.
func TestRepeats(t *testing.T) {
	p := job.At(season.NewYear(climate(t, "lake-foothills").Daily(), nil), rules.House{})
	sp := species(t, "camellia-japonica")
	july := day.Of(2027, 7, 1)
	o := job.Order{Kind: job.Water, For: march, Params: job.Params{EveryDays: job.WaterEvery, Last: july}}
	c := p.Curve(o, sp)
	if !c.On(july+1).Over(job.Acceptable) || c.On(july+job.WaterEvery).Over(job.Acceptable) {
		t.Errorf("the day after costs %s, a week after %s", c.On(july+1), c.On(july+job.WaterEvery))
	}
	if best, _ := c.Best(july); best != july+job.WaterEvery {
		t.Errorf("best on %s, want %s", best, july+job.WaterEvery)
	}
	if !c.On(july+40).Over(c.On(july+job.WaterEvery)) || !c.On(july+40).Over(reason.Points(50)) {
		t.Errorf("forgotten for weeks it costs %s", c.On(july+40))
	}
}

// The house that cuts frosted perennials at the first killing frost does so in November, the other in spring.
func TestHouseRule(t *testing.T) {
	y := season.NewYear(climate(t, "lake-foothills").Daily(), nil)
	o := job.Order{Kind: job.CutToBase, For: day.Of(2027, 11, 20)}
	for rule, months := range map[rules.House][]time.Month{{Perennials: rules.AtFrost}: {11}, {}: {3, 4, 5}} {
		best, ok := job.At(y, rule).Curve(o, species(t, "hosta-hybrid")).Best(o.For)
		if !ok || best.Month() < months[0] || best.Month() > months[len(months)-1] {
			t.Errorf("%+v: best on %s", rule, best)
		}
	}
}

// Days entered by hand stand as they were entered, and no others are allowed.
func TestByHand(t *testing.T) {
	p := job.At(season.NewYear(climate(t, "lake-foothills").Daily(), nil), rules.House{})
	o := job.Order{Kind: job.Other, For: march, Params: job.Params{Spans: []job.Span{
		{From: march + 10, To: march + 20, Cost: reason.Points(10)}, {From: march + 15, To: march + 17}, {From: march + 40, To: march + 41, Cost: reason.Points(60)}}}}
	c := p.Curve(o, &catalogue.Entry{})
	for at, want := range map[day.Day]int{march + 9: 101, march + 10: 10, march + 15: 0, march + 18: 10, march + 21: 101, march + 40: 60, march + 42: 101} {
		if got := c.On(at).Int(); got != want {
			t.Errorf("%s costs %d, want %d", at, got, want)
		}
	}
}

func BenchmarkCurve(b *testing.B) {
	p := job.At(season.NewYear(climate(b, "lake-foothills").Daily(), nil), rules.House{})
	sp := species(b, "camellia-japonica")
	for _, o := range every(march)[:8] {
		b.Run(fmt.Sprint(o.Kind), func(b *testing.B) {
			b.ReportAllocs()
			for b.Loop() {
				p.Curve(o, sp).Outlook(march)
			}
		})
	}
}
