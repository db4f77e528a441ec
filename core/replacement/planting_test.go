package replacement

import (
	"slices"
	"testing"
	"time"

	"mezzadro/core/catalogue"
	"mezzadro/core/day"
	"mezzadro/core/rules"
)

// TestPlanting: when gardeners plant, by climate; and in which months what is new is watered.
func TestPlanting(t *testing.T) {
	for _, c := range []struct {
		climate, kind string
		from          day.Day
		good, bad     []time.Month // of windows
		water, dry    []int        // months watered, and not
		bare          []time.Month // months within the bare-root window; none: not planted so
	}{
		{"lake-foothills", "syringa-vulgaris", day.Of(2027, 3, 18), []time.Month{4, 10}, []time.Month{7, 1}, []int{7, 8}, []int{1, 12}, []time.Month{12, 2}},
		{"prairie", "syringa-meyeri", day.Of(2027, 3, 18), []time.Month{5}, []time.Month{1, 2, 12}, []int{6, 7, 8}, []int{1, 2, 12}, []time.Month{11, 4}},
		{"gulf-coast", "ilex-vomitoria", day.Of(2027, 6, 1), []time.Month{11, 2}, []time.Month{7, 8}, nil, nil, nil},
		{"hot-desert", "leucophyllum-frutescens", day.Of(2027, 6, 1), []time.Month{11, 2}, []time.Month{7, 8}, []int{5, 6, 7, 8, 9}, nil, nil},
		{"southern-coast", "camellia-japonica", day.Of(2027, 1, 15), []time.Month{5, 8}, []time.Month{}, []int{1, 12}, []int{7}, nil},
		{"dry-summer-coast", "salvia-rosmarinus", day.Of(2027, 3, 1), []time.Month{10, 11}, []time.Month{7, 8}, []int{6, 7, 8}, []int{1}, nil},
	} {
		a := ask(t, c.climate)
		e, _ := catalogue.Built().Entry(c.kind)
		p := a.PlantingOf(e, c.from, rules.House{})
		in := func(m time.Month) bool {
			return slices.ContainsFunc(p.Windows, func(w Window) bool {
				for d := w.From; d <= w.To; d++ {
					if d.Time().Month() == m {
						return true
					}
				}
				return false
			})
		}
		for _, m := range c.good {
			if !in(m) {
				t.Errorf("%s at %s: not planted in %s: %v", c.kind, c.climate, m, p.Windows)
			}
		}
		for _, m := range c.bad {
			if in(m) {
				t.Errorf("%s at %s: planted in %s: %v", c.kind, c.climate, m, p.Windows)
			}
		}
		watered := []int{}
		for _, w := range p.Water {
			watered = append(watered, w.Month)
		}
		for _, m := range c.water {
			if !slices.Contains(watered, m) {
				t.Errorf("%s at %s: no water in month %d: %v", c.kind, c.climate, m, watered)
			}
		}
		for _, m := range c.dry {
			if slices.Contains(watered, m) {
				t.Errorf("%s at %s: water in month %d", c.kind, c.climate, m)
			}
		}
		if (p.Bare != nil) != (len(c.bare) > 0) {
			t.Errorf("%s at %s: bare roots %v", c.kind, c.climate, p.Bare)
		}
		for _, m := range c.bare {
			found := false
			for d := p.Bare.From; d <= p.Bare.To; d++ {
				found = found || d.Time().Month() == m
			}
			if !found {
				t.Errorf("%s at %s: bare roots from %s to %s, not in %s", c.kind, c.climate, p.Bare.From, p.Bare.To, m)
			}
		}
	}
}

// TestPlantingOrders: a tree is planted in its window, watered after it, its tie loosened in a year and its stake gone
// in two; a shrub has no stake.
func TestPlantingOrders(t *testing.T) {
	a := ask(t, "lake-foothills")
	from := day.Of(2027, time.June, 1)
	for id, n := range map[string]int{"prunus-avium": 5, "syringa-vulgaris": 3} {
		e, _ := catalogue.Built().Entry(id)
		p := a.PlantingOf(e, from, rules.House{})
		if len(p.Orders) != n {
			t.Errorf("%s: %+v", id, p.Orders)
			continue
		}
		plant, water := p.Orders[0], p.Orders[1]
		if plant.From > plant.Best || plant.To < plant.Best || plant.From < from || water.From != plant.Best || water.Litres < 5 {
			t.Errorf("%s: %+v, then %+v", id, plant, water)
		}
		for _, w := range p.Water {
			for k, d := range w.On {
				if int(d.Time().Month()) != w.Month || d <= p.Best || d > p.Best+FirstSeason || k > 0 && d <= w.On[k-1] || len(w.On) > w.Times {
					t.Errorf("%s is watered on %v in month %d, planted on %s", id, w.On, w.Month, p.Best)
				}
			}
		}
		if !slices.ContainsFunc(p.Water, func(w Watered) bool { return w.Month == 7 && len(w.On) == w.Times }) {
			t.Errorf("%s has no water in its first July: %+v", id, p.Water)
		}
		for i := 1; i < n; i++ {
			if p.Orders[i].To < p.Orders[i].From || p.Orders[i].From < plant.Best {
				t.Errorf("%s: %+v", id, p.Orders[i])
			}
		}
		if last := p.Orders[n-1]; n == 5 && (last.From < plant.Best+700 || last.To > plant.Best+800) {
			t.Errorf("the stake is taken away from %s to %s, planted on %s", last.From, last.To, plant.Best)
		}
	}
}

// TestPlantingAgrees: in ten climates and at four dates the best day of every fifteenth kind lies in one of its own
// windows, not before today; what frost kills is not set out so late that it gives nothing, and nothing tender goes out
// in the frosts.
func TestPlantingAgrees(t *testing.T) {
	places := []string{"great-lakes", "lake-foothills", "oceanic-lowland", "dry-summer-coast", "hot-desert", "gulf-coast",
		"new-zealand-south", "monsoon-subtropics", "south-africa-highveld", "prairie"}
	asked, none := 0, 0
	for _, place := range places {
		a := ask(t, place)
		for i, e := range catalogue.Built().Entries {
			if i%31 != 0 {
				continue
			}
			for _, on := range []day.Day{day.Of(2026, 3, 10), day.Of(2026, 6, 10), day.Of(2026, 9, 10), day.Of(2026, 12, 10)} {
				p := a.PlantingOf(&e, on, rules.House{})
				asked++
				if len(p.Windows) == 0 {
					none++
					continue
				}
				if p.Best < on || !slices.ContainsFunc(p.Windows, func(w Window) bool { return p.Best >= w.From && p.Best <= w.To }) {
					t.Errorf("%s in %s, asked %s: best %s is in none of %v", e.ID, place, on, p.Best, p.Windows)
				}
				frost, ok := a.Year.FirstFrost(p.Best, 0)
				if soft := e.Stems == catalogue.AnnualStem && e.HardinessC > -1; ok && soft && p.Best < frost.Mid && frost.Mid-p.Best < 45 {
					t.Errorf("%s in %s: set out on %s, and the first frost is usual on %s", e.ID, place, p.Best, frost.Mid)
				}
			}
		}
	}
	t.Logf("%d plantings, %d of kinds with no good day there", asked, none)
	if none*4 > asked {
		t.Errorf("%d of %d have no good day", none, asked)
	}
}
