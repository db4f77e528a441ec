package overwinter

import (
	"strings"
	"testing"
	"time"

	"mezzadro/core/catalogue"
	"mezzadro/core/check"
	"mezzadro/core/day"
	"mezzadro/core/season"
)

// TestPlans: who comes in, how, in which months, and when it goes out again, as growers of these places do it.
func TestPlans(t *testing.T) {
	autumn := day.Of(2027, time.September, 1)
	for _, c := range []struct {
		name, climate, kind string
		plant               check.Plant
		today               day.Day
		way                 Way
		in, out             [2]int // months of coming in and of going out; 0: none
		light               string
		least               float64
	}{
		{"lemons on a terrace", "lake-foothills", "citrus-limon", check.Plant{PotL: 60, HeightM: 1.8, Count: 6}, autumn, CarryIn, [2]int{10, 11}, [2]int{4, 5}, "bright", 5},
		{"oleanders in tubs", "continental-basin", "nerium-oleander", check.Plant{PotL: 80, HeightM: 2}, autumn, CarryIn, [2]int{10, 12}, [2]int{4, 5}, "bright", 2},
		{"bougainvilleas", "lake-foothills", "bougainvillea-glabra", check.Plant{PotL: 40, HeightM: 1.7, Count: 6}, autumn, CarryIn, [2]int{9, 11}, [2]int{4, 6}, "", 0},
		{"geraniums of the balcony", "prairie", "pelargonium-zonal", check.Plant{PotL: 5, HeightM: 0.4, Count: 20}, autumn, CarryIn, [2]int{9, 9}, [2]int{5, 6}, "bright", 5},
		{"dahlias in the ground", "lake-foothills", "dahlia-pinnata", check.Plant{HeightM: 0.9, Count: 12}, autumn, Tubers, [2]int{10, 12}, [2]int{4, 5}, "dark will do", 4},
		{"dahlias in the cold steppe", "prairie", "dahlia-pinnata", check.Plant{HeightM: 0.9, Count: 12}, autumn, Tubers, [2]int{9, 10}, [2]int{5, 6}, "dark will do", 4},
		{"cannas", "cold-lowland", "canna-indica", check.Plant{HeightM: 1.2, Count: 5}, autumn, LiftPot, [2]int{9, 11}, [2]int{4, 6}, "dark will do", 0},
		{"box", "lake-foothills", "buxus-sempervirens", check.Plant{HeightM: 0.5}, autumn, StaysOut, [2]int{}, [2]int{}, "", 0},
		{"lilac in the steppe", "prairie", "syringa-meyeri", check.Plant{HeightM: 1.5}, autumn, StaysOut, [2]int{}, [2]int{}, "", 0},
		{"an olive tree in the lowland", "cold-lowland", "olea-europaea", check.Plant{HeightM: 4}, autumn, Lost, [2]int{}, [2]int{}, "", 0},
		{"a lemon in the ground by a warm sea", "citrus-coast", "citrus-limon", check.Plant{HeightM: 2.5}, autumn, Wrapped, [2]int{}, [2]int{}, "", 0},
		{"lemons in a cold valley south of the equator", "southern-foothills", "citrus-limon", check.Plant{PotL: 60, HeightM: 1.8}, day.Of(2027, time.February, 10), CarryIn, [2]int{2, 4}, [2]int{10, 12}, "bright", 5},
		{"dahlias by the northern sea", "nordic-coast", "dahlia-pinnata", check.Plant{HeightM: 0.9}, autumn, Tubers, [2]int{9, 11}, [2]int{5, 6}, "dark will do", 4},
		{"basil", "lake-foothills", "ocimum-basilicum", check.Plant{HeightM: 0.4, PotL: 3}, autumn, StaysOut, [2]int{}, [2]int{}, "", 0},
		{"tender sage", "cold-lowland", "salvia-tender", check.Plant{HeightM: 0.9, Count: 5}, autumn, LiftPot, [2]int{9, 11}, [2]int{4, 6}, "", 0},
	} {
		book := catalogue.Built()
		cl, err := book.Climate(c.climate)
		if err != nil {
			t.Fatal(err)
		}
		if c.plant.Species, err = book.Species(c.kind); err != nil {
			t.Fatal(err)
		}
		w := Plan(c.plant, 1.2, season.NewYear(cl.Climate.Daily(), nil), c.today)
		if w.Way != c.way {
			t.Errorf("%s: %s, want %s: %+v", c.name, w.Way, c.way, w)
			continue
		}
		if (w.Keep != nil) != (c.in[0] > 0) {
			t.Errorf("%s: keep %+v", c.name, w.Keep)
			continue
		}
		if c.in[0] == 0 {
			continue
		}
		first, last := w.Steps[0], w.Steps[len(w.Steps)-1]
		if m := int(first.To.Time().Month()); m < c.in[0] || m > c.in[1] || first.To < c.today {
			t.Errorf("%s: in by %s, want months %v", c.name, first.To, c.in)
		}
		if m := int(last.From.Time().Month()); m < c.out[0] || m > c.out[1] || last.From < first.To || last.From > first.To+330 {
			t.Errorf("%s: out on %s, want months %v", c.name, last.From, c.out)
		}
		if c.light != "" && w.Keep.Light != c.light || c.least > 0 && w.Keep.LeastC != c.least || w.Keep.M2 <= 0 {
			t.Errorf("%s: kept at %+v", c.name, *w.Keep)
		}
		for i, s := range w.Steps {
			if s.To < s.From || i > 0 && s.From < w.Steps[i-1].From {
				t.Errorf("%s: steps out of order: %+v", c.name, w.Steps)
			}
		}
		if w.Out >= wrapFrom && w.Way != Tubers || w.Chance < w.Out {
			t.Errorf("%s: outside %.2f, so %.2f", c.name, w.Out, w.Chance)
		}
	}
}

// TestForce: worked back from the day of bloom; where autumn is too warm the cold comes from a store.
func TestForce(t *testing.T) {
	for _, c := range []struct {
		kind, climate string
		bloom         day.Day
		pot           [2]time.Month
		says          string
	}{
		{"narcissus-hybrid", "cold-lowland", day.Of(2028, time.February, 20), [2]time.Month{time.September, time.October}, "under leaves"},
		{"tulipa-hybrid", "prairie", day.Of(2028, time.March, 1), [2]time.Month{time.October, time.October}, "under leaves"},
		{"narcissus-hybrid", "lake-foothills", day.Of(2027, time.December, 20), [2]time.Month{time.August, time.August}, "cold store"},
		{"crocus-vernus", "lake-foothills", day.Of(2028, time.February, 14), [2]time.Month{time.October, time.November}, ""},
		{"tulipa-hybrid", "gulf-coast", day.Of(2028, time.March, 1), [2]time.Month{time.October, time.October}, "cold store"},
		{"narcissus-hybrid", "southern-foothills", day.Of(2028, time.August, 10), [2]time.Month{time.March, time.April}, ""},
		{"galanthus-nivalis", "nordic-coast", day.Of(2028, time.February, 1), [2]time.Month{time.October, time.October}, "under leaves"},
	} {
		cl, err := catalogue.Built().Climate(c.climate)
		if err != nil {
			t.Fatal(err)
		}
		w, err := Force(c.kind, c.bloom, season.NewYear(cl.Climate.Daily(), nil))
		if err != nil {
			t.Fatal(err)
		}
		if m := w.Steps[0].From.Time().Month(); m < c.pot[0] || m > c.pot[1] || !strings.Contains(w.Steps[0].Do, c.says) || w.Steps[3].From != c.bloom {
			t.Errorf("%s at %s for %s: %+v", c.kind, c.climate, c.bloom, w.Steps)
		}
	}
	if _, err := Force("buxus-sempervirens", day.Of(2028, 2, 1), nil); err == nil {
		t.Error("box is forced")
	}
}

// TestShares: what stands together in one house, and what does not.
func TestShares(t *testing.T) {
	lemon, oleander, hibiscus := Keep{LeastC: 5, MostC: 12}, Keep{LeastC: 2, MostC: 10}, Keep{LeastC: 12, MostC: 18}
	if least, most, ok := lemon.Shares(oleander); !ok || least != 5 || most != 10 {
		t.Errorf("lemon and oleander: %g to %g, %v", least, most, ok)
	}
	if _, _, ok := oleander.Shares(hibiscus); ok {
		t.Error("oleander and hibiscus")
	}
}

// TestHouse: lemons and oleanders share a light house, tubers lie in the dark, what wants a warm room has its own.
func TestHouse(t *testing.T) {
	rooms, m2 := House([]string{"oleander", "dahlia", "lemon", "hibiscus"}, []Keep{
		{LeastC: 2, MostC: 10, Light: "bright", M2: 3}, {LeastC: 4, MostC: 9, Light: "dark will do", M2: 0.5},
		{LeastC: 5, MostC: 12, Light: "bright", M2: 2}, {LeastC: 12, MostC: 18, Light: "bright", M2: 1},
	})
	if len(rooms) != 3 || m2 != 6.5 || rooms[0].M2 != 1 || rooms[1].M2 != 5 {
		t.Errorf("%+v, %g", rooms, m2)
	}
	for _, r := range rooms {
		if r.LeastC > r.MostC {
			t.Errorf("a room that cannot be: %+v", r)
		}
	}
}

// TestWhereItWinters: what gardeners do with the same plants in an oceanic, a cold and a warm humid climate: hardy tops
// in pots want shelter for the pot, not a house; what is soft comes in; large grasses, roses and woody herbs are never
// lifted. Whoever is told to stay has the better of the chances that stand there.
func TestWhereItWinters(t *testing.T) {
	for _, c := range []struct {
		climate, kind string
		potL          float64
		way           Way
	}{
		{"oceanic-lowland", "laurus-nobilis", 40, Wrapped},
		{"oceanic-lowland", "acer-palmatum", 40, Wrapped},
		{"oceanic-lowland", "citrus-limon", 60, CarryIn},
		{"oceanic-lowland", "pelargonium-zonal", 0, LiftPot},
		{"oceanic-lowland", "cortaderia-selloana", 0, StaysOut},
		{"cold-lowland", "acer-palmatum", 60, Wrapped},
		{"cold-lowland", "olea-europaea", 60, CarryIn},
		{"cold-lowland", "cortaderia-selloana", 0, Wrapped},
		{"cold-lowland", "fuchsia-magellanica", 0, Wrapped},
		{"cold-lowland", "gardenia-jasminoides", 0, LiftPot},
		{"cold-lowland", "dahlia-pinnata", 0, Tubers},
		{"cold-lowland", "rosa-bedding", 0, StaysOut},
		{"piedmont", "lantana-camara", 0, Wrapped},
		{"piedmont", "salvia-rosmarinus", 0, Wrapped},
		{"piedmont", "camellia-japonica", 50, Wrapped},
		{"lake-foothills", "bougainvillea-glabra", 0, LiftPot}, // the ground stays cold and wet for months
		{"lake-foothills", "citrus-japonica", 45, CarryIn},
		{"oceanic-lowland", "lantana-camara", 0, LiftPot},
		{"oceanic-lowland", "plumbago-auriculata", 0, LiftPot},
		{"cool-coast", "plumeria-rubra", 0, LiftPot},
		{"south-africa-highveld", "codiaeum-variegatum", 0, LiftPot}, // never comes from its foot
		{"south-africa-highveld", "bougainvillea-glabra", 0, Wrapped},
		{"high-desert", "ficus-carica", 0, Wrapped},
		{"high-desert", "punica-granatum", 0, Wrapped}, // mounded: to the ground, and again
	} {
		e, _ := catalogue.Built().Entry(c.kind)
		k, err := catalogue.Built().Climate(c.climate)
		if err != nil {
			t.Fatal(err)
		}
		p := check.Plant{Species: *e, HeightM: min(1.5, e.Mature.HeightM), PotL: c.potL}
		w := Plan(p, 1, season.NewYear(k.Climate.Daily(), nil), day.Of(2027, 9, 20))
		if w.Way != c.way || w.Chance < w.Out {
			t.Errorf("%s in %s, pot %.0f L: %s (%.2f, bare %.2f), want %s", c.kind, c.climate, c.potL, w.Way, w.Chance, w.Out, c.way)
		}
	}
}

// TestTakenInAsPlanned: what Lookout asks to be taken in is what the winter's plan brings in, of every kind, in five
// climates.
func TestTakenInAsPlanned(t *testing.T) {
	asked := 0
	for _, place := range []string{"lake-foothills", "oceanic-lowland", "high-desert", "humid-east", "south-africa-highveld"} {
		k, err := catalogue.Built().Climate(place)
		if err != nil {
			t.Fatal(err)
		}
		y := season.NewYear(k.Climate.Daily(), nil)
		from, _, ok := Autumn(y, day.Of(2027, 10, 10))
		if !ok {
			from = day.Of(2027, 10, 10)
		}
		for _, e := range catalogue.Built().Entries {
			for _, potL := range []float64{0, 40} {
				p := check.Plant{Species: e, HeightM: min(1.5, e.Mature.HeightM), PotL: potL}
				_, _, chance, in := ToShelter(p, y, from+3)
				w := Plan(p, 1, y, from+3)
				if in && w.Way != CarryIn && w.Way != LiftPot && w.Way != Tubers {
					t.Errorf("%s, pot %.0f L, in %s is to be taken in, and its winter is: %s", e.ID, potL, place, w.Way)
				}
				if in && chance != w.Out {
					t.Errorf("%s in %s: %.2f and %.2f", e.ID, place, chance, w.Out)
				}
				if in {
					asked++
				}
			}
		}
	}
	if asked < 100 {
		t.Errorf("only %d are ever taken in", asked)
	}
}

// TestNoCuttingsOfPalms: nobody is told to take cuttings of what is not grown from them.
func TestNoCuttingsOfPalms(t *testing.T) {
	lost := 0
	for _, place := range []string{"lake-foothills", "oceanic-lowland", "cold-lowland", "humid-east"} {
		k, err := catalogue.Built().Climate(place)
		if err != nil {
			t.Fatal(err)
		}
		y := season.NewYear(k.Climate.Daily(), nil)
		for _, e := range catalogue.Built().Entries {
			w := Plan(check.Plant{Species: e, HeightM: max(3.5, e.Mature.HeightM)}, 1, y, day.Of(2027, 9, 20))
			if w.Way != Lost {
				continue
			}
			lost++
			if says := strings.Contains(w.Why+strings.Join(w.How, " "), "cuttings"); says && !FromCuttings(&e) {
				t.Errorf("%s in %s: %s %v", e.ID, place, w.Why, w.How)
			}
		}
	}
	if lost < 20 {
		t.Errorf("only %d are too large", lost)
	}
}
