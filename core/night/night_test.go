package night

import (
	"math"
	"math/rand/v2"
	"testing"
	"time"

	"mezzadro/core/catalogue"
	"mezzadro/core/cold"
	"mezzadro/core/day"
	"mezzadro/core/season"
	"mezzadro/core/weather"
)

// freeze is a mild autumn or winter at a place that ends in a night of a lowest temperature.
func freeze(t *testing.T, n *season.Normals, on day.Day, minC float64) *cold.Struck {
	t.Helper()
	days := []weather.DayMeasured{}
	for d := on - 60; d <= on+1; d++ {
		m := weather.DayMeasured{Day: d, MinC: n.TMin.At(d), MaxC: n.TMax.At(d), WindMS: 2, RHPct: 75}
		if d == on {
			m.MinC, m.MaxC = minC, math.Max(minC+6, n.TMax.At(d)-6)
		}
		days = append(days, m)
	}
	hours := weather.OfDays(days, n.Climate.Latitude, n.Climate.Longitude, time.UTC)
	c := cold.Follow(season.NewYear(n, weather.Daily(hours, time.UTC)), hours, time.UTC, on+1)
	for i := len(c.Events) - 1; i >= 0; i-- {
		if e := &c.Events[i]; e.Cold() && e.Day >= on-1 {
			return e
		}
	}
	return nil
}

// garden is thirty plants of all kinds and sizes, every third in a pot.
func garden(r *rand.Rand, book []catalogue.Entry, n *season.Normals, on day.Day) (out []Plant) {
	y := season.NewYear(n, nil)
	for i := range 30 {
		p := Plant{ID: int64(i + 1)}
		p.Species = book[r.IntN(len(book))]
		p.HeightM, p.SpreadM = 0.3+3.5*r.Float64(), 0.3+1.5*r.Float64()
		p.Shelter, p.Sun, p.Count, p.Value = 0.5, 0.6, 1, []float64{0.5, 1, 1, 2}[r.IntN(4)]
		if r.IntN(3) == 0 {
			p.PotL = 10 + 90*r.Float64()
		}
		if r.IntN(5) == 0 {
			p.Count = 1 + r.IntN(6)
		}
		p.Stage = p.Species.Stages(y, on)(on)
		out = append(out, p)
	}
	return out
}

// TestFirstHourOfANight: over a hundred freezes in three climates, told a day before with an error of a degree and a
// half, the first hour of work by the list saves at least nine tenths of what an hour could have saved by one who had
// known.
func TestFirstHourOfANight(t *testing.T) {
	r := rand.New(rand.NewPCG(7, 7))
	book := catalogue.Built()
	saved, could, nights := 0.0, 0.0, 0
	for nights < 100 {
		climate, err := book.Climate([]string{"lake-foothills", "cool-coast", "cold-lowland"}[nights%3])
		if err != nil {
			t.Fatal(err)
		}
		n := climate.Climate.Daily()
		on := day.Of(2026, 11, 1) + day.Day(r.IntN(170))
		truth := -1 - 10*r.Float64()
		come, told := freeze(t, n, on, truth), freeze(t, n, on, truth+1.5*r.NormFloat64())
		if come == nil || told == nil {
			continue
		}
		nights++
		plants := garden(r, book.Entries, n, on)
		worth := map[int64]Act{}
		for _, a := range Watch(come, plants) {
			worth[a.Plant] = a
		}
		left := 60
		for _, a := range Watch(told, plants) {
			if a.Minutes <= left {
				left -= a.Minutes
				saved += saves(come, plants, a)
			}
		}
		could += most(worth)
	}
	if could == 0 || saved < 0.9*could {
		t.Errorf("%.1f of %.1f was saved, %.0f %%", saved, could, 100*saved/could)
	}
	t.Logf("%.0f %% of what could be saved in the first hour of %d nights", 100*saved/could, nights)
}

// saves is what an act saves in the night as it came.
func saves(e *cold.Struck, plants []Plant, a Act) float64 {
	p := plants[a.Plant-1]
	o, with := e.Meet(&p.Plant, p.Stage), 0.0
	switch a.Do {
	case Cover:
		under := e.Under(3).Meet(&p.Plant, p.Stage)
		with = under.Severity
	case Mulch:
		p.Mulched = true
		under := e.Meet(&p.Plant, p.Stage)
		with = under.Severity
	}
	return (o.Severity - with) * p.dear()
}

// most is the most that an hour saves of what could be done, by the minute.
func most(acts map[int64]Act) float64 {
	got := make([]float64, 61)
	for _, a := range acts {
		for m := 60; m >= a.Minutes; m-- {
			got[m] = math.Max(got[m], got[m-a.Minutes]+a.Saves)
		}
	}
	return got[60]
}

// TestWatchKnowsItsLimits: a grown tree is not covered, a pot that nobody lifts is not carried, what bears the night
// is left alone, and what comes first saves most in a minute.
func TestWatchKnowsItsLimits(t *testing.T) {
	book := catalogue.Built()
	climate, _ := book.Climate("lake-foothills")
	n := climate.Climate.Daily()
	on := day.Of(2027, 1, 12)
	e := freeze(t, n, on, -8)
	if e == nil {
		t.Fatal("eight below is a freeze")
	}
	at := func(id int64, species string, height, pot float64) Plant {
		entry, known := book.Entry(species)
		if !known {
			t.Fatalf("no %s", species)
		}
		p := Plant{ID: id}
		p.Species, p.HeightM, p.SpreadM, p.PotL, p.Shelter, p.Sun, p.Count, p.Value = *entry, height, 1, pot, 0.5, 0.6, 1, 1
		p.Stage = entry.Stages(season.NewYear(n, nil), on)(on)
		return p
	}
	list := Watch(e, []Plant{
		at(
			1,
			"citrus-limon",
			1.2,
			30,
		), at(2, "citrus-limon", 1.2, 400), at(3, "citrus-limon", 5, 0), at(4, "taxus-baccata", 2, 0),
		at(5, "bougainvillea-glabra", 1.5, 25),
	})
	do := map[int64]string{}
	for i, a := range list {
		do[a.Plant] = a.Do
		if i > 0 && a.Saves/float64(a.Minutes) > list[i-1].Saves/float64(list[i-1].Minutes)+1e-9 {
			t.Errorf("%+v comes after %+v", a, list[i-1])
		}
		if a.With >= a.Without || a.Minutes < 1 {
			t.Errorf("it does not help: %+v", a)
		}
	}
	if do[1] != CarryIn || do[5] != CarryIn {
		t.Errorf("tender pots are carried in: %v", do)
	}
	if do[2] == CarryIn || do[3] == Cover || do[4] != "" {
		t.Errorf("400 L are not carried, 5 m not covered, a yew left alone: %v", do)
	}
}

// TestNobodyCoversAYewInSpring: a light frost on new leaf of what is hardy sends nobody out; a
// bougainvillea on the same night is minded.
func TestNobodyCoversAYewInSpring(t *testing.T) {
	book := catalogue.Built()
	climate, err := book.Climate("gulf-coast")
	if err != nil {
		t.Fatal(err)
	}
	n, on := climate.Climate.Daily(), day.Of(2027, 4, 10)
	e := freeze(t, n, on, -2)
	if e == nil {
		t.Fatal("a frost on open growth is an event")
	}
	for i, id := range []string{"taxus-baccata", "buxus-sempervirens", "acer-palmatum", "bougainvillea-glabra"} {
		entry, known := book.Entry(id)
		if !known {
			t.Fatalf("no %s", id)
		}
		p := Plant{ID: int64(i + 1), Stage: entry.Stages(season.NewYear(n, nil), on)(on)}
		p.Species, p.HeightM, p.SpreadM, p.PotL, p.Shelter, p.Sun, p.Count, p.Value = *entry, 0.6, 0.4, 25, 0.5, 0.6, 1, 1
		if minded := len(Watch(e, []Plant{p})) > 0; minded != (i == 3) {
			t.Errorf("%s: %v", id, minded)
		}
	}
}
