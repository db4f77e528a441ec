package learn_test

import (
	"context"
	"errors"
	"math"
	"strings"
	"testing"
	"time"

	"mezzadro/core/catalogue"
	"mezzadro/core/check"
	"mezzadro/core/cold"
	"mezzadro/core/damage"
	"mezzadro/core/invalid"
	"mezzadro/core/weather"
	"mezzadro/house/estate"
	"mezzadro/house/housetest"
	"mezzadro/house/walks"
	"mezzadro/store"
)

// colder is a house whose garden had a freeze that its station told 3 °C too mild, with shrubs and climbers of many
// kinds that were near what they bear.
func colder(t *testing.T) (k *housetest.Kit, garden int64, plants []estate.PlantOut, truth []float64) {
	t.Helper()
	ctx := context.Background()
	k = housetest.Open(t)
	p := k.Property("Villa Orba", "lake-foothills")
	pl, err := k.Estate.Place(ctx, p.ID)
	pl = housetest.Must(t, pl, err)
	n, on := pl.Normals, k.On-30
	days := []weather.DayMeasured{}
	for d := on - 110; d <= k.On-1; d++ {
		m := weather.DayMeasured{Day: d, MinC: n.TMin.At(d), MaxC: n.TMax.At(d), WindMS: 2, RHPct: 75}
		if d == on {
			m.MinC, m.MaxC = -9, -3
		}
		days = append(days, m)
	}
	hours := weather.OfDays(days, n.Climate.Latitude, n.Climate.Longitude, time.UTC)
	if _, err := k.Overview.TakeWeather(ctx, store.Key{}, p.ID, "Station", hours); err != nil {
		t.Fatal(err)
	}
	pl, err = k.Estate.Place(ctx, p.ID)
	pl = housetest.Must(t, pl, err)
	for _, e := range catalogue.Built().Entries {
		if e.Form != catalogue.Shrub && e.Form != catalogue.Climber || len(plants) >= 24 {
			continue
		}
		o := pl.Forecast(store.Plant{Species: e.ID, HeightM: 3, Shelter: 0.5, Sun: 0.6, PropertyID: p.ID}, e)
		if o == nil || !o.Event.Cold() || math.Abs(o.SpareC(0.5)-2) > 2.5 {
			continue
		}
		plants, truth = append(plants, k.Plant(p.ID, e.ID, 3)), append(truth, endsAt(o, -3))
	}
	if len(plants) < 12 {
		t.Fatalf("only %d kinds are near what they bear", len(plants))
	}
	return k, p.ID, plants, truth
}

// endsAt is how far up a plant lives after a freeze that was so much milder, as a share of its height.
func endsAt(o *cold.Outcome, milderC float64) (end float64) {
	for x := 0.01; x < 1; x += 0.01 {
		if o.SpareC(x)+milderC > 0 {
			end = x
		}
	}
	return end
}

// decide walks to a plant, scratches it up the stem and accepts what that comes to.
func decide(t *testing.T, k *housetest.Kit, walk int64, p estate.PlantOut, end float64) int64 {
	t.Helper()
	ctx, checks := context.Background(), []check.Check{}
	for _, x := range []float64{0.05, 0.2, 0.4, 0.6, 0.8, 0.95} {
		result := "brown"
		if x < end {
			result = "green"
		}
		checks = append(
			checks,
			check.Check{Kind: check.Scratch, HeightM: math.Round(100*x*p.HeightM) / 100, Result: result},
		)
	}
	if _, err := k.Walks.KeepLook(ctx, store.Key{}, walk, p.ID, walks.FoundIn{Checks: checks}); err != nil {
		t.Fatal(err)
	}
	d, err := k.Walks.Decide(
		ctx,
		store.Key{},
		walk,
		p.ID,
		walks.DecisionIn{Ruling: damage.Ruling{Decision: "accepted"}},
	)
	return housetest.Must(t, d, err).Verdict.ID
}

// TestColderThanItsStation: a garden in which a freeze did what one 3 °C colder does is found to be colder, with its
// doubt; from then on a plant like those is expected to be hurt more, in triage and on a walk alike, until that is
// switched off for the garden; a verdict taken back tells nothing any more. The record itself stays as it is.
func TestColderThanItsStation(t *testing.T) {
	ctx := context.Background()
	k, at, plants, truth := colder(t)
	more := k.Plant(at, plants[0].Species, 3) // looked at by nobody
	before := forecast(t, k, at, more)
	walk, err := k.Walks.StartWalk(ctx, store.Key{}, at, 0, 0)
	walk = housetest.Must(t, walk, err)
	told, err := k.Learn.ShownTold(ctx)
	if told = housetest.Must(t, told, err); len(told.Gardens) != 0 || !told.On {
		t.Errorf("before anybody has looked: %+v", told)
	}
	var verdicts []int64
	for i, p := range plants {
		verdicts = append(verdicts, decide(t, k, walk.ID, p, truth[i]))
	}
	told, err = k.Learn.ShownTold(ctx)
	if told = housetest.Must(t, told, err); len(told.Gardens) != 1 {
		t.Fatalf("told %+v", told)
	}
	g := told.Gardens[0]
	if g.WarmerC > -2 || g.WarmerC < -4 || !g.Beyond || !g.On || g.Plants != len(plants) || g.Property != "Villa Orba" {
		t.Errorf("the garden: %+v", g)
	}
	after := forecast(t, k, at, more)
	if after.Dieback <= before.Dieback || after.AliveAt(0.5) >= before.AliveAt(0.5) {
		t.Errorf("it is expected to die back by %.2f, %.2f before it was learnt", after.Dieback, before.Dieback)
	}
	if says := after.Own(); !strings.Contains(says, "colder here") || strings.Contains(before.Own(), "colder here") {
		t.Errorf("it is told as %q", says)
	}
	if l := look(t, k, more.ID); l == nil || math.Abs(l.Dieback-after.Dieback) > 0.001 {
		t.Errorf("the list of what to look at says %+v, the forecast %.3f", l, after.Dieback)
	}
	if told, err = k.Learn.SetShown(ctx, store.Key{}, "garden:1", false); err != nil || told.Gardens[0].On {
		t.Errorf("switched off: %+v, %v", told.Gardens, err)
	}
	if off := forecast(t, k, at, more); off.Dieback != before.Dieback {
		t.Errorf("switched off it is expected to die back by %.3f, before by %.3f", off.Dieback, before.Dieback)
	}
	if _, err := k.Learn.SetShown(ctx, store.Key{}, "garden:1", true); err != nil {
		t.Fatal(err)
	}
	if on := forecast(t, k, at, more); on.Dieback != after.Dieback {
		t.Errorf("switched on again %.3f, want %.3f", on.Dieback, after.Dieback)
	}
	for i := len(verdicts) - 1; i >= 0; i-- {
		if err := k.Walks.UndoVerdict(ctx, store.Key{}, verdicts[i]); err != nil {
			t.Fatal(err)
		}
	}
	if told, err = k.Learn.ShownTold(ctx); err != nil || len(told.Gardens) != 0 ||
		forecast(t, k, at, more).Dieback != before.Dieback {
		t.Errorf("all verdicts taken back: %+v, %v", told, err)
	}
	var bad invalid.Fields
	for _, what := range []string{"", "house", "garden:x", "kind:"} {
		if _, err := k.Learn.SetShown(ctx, store.Key{}, what, false); !errors.As(err, &bad) || bad[0].Path != "what" {
			t.Errorf("%q: %v", what, err)
		}
	}
}

func forecast(t *testing.T, k *housetest.Kit, at int64, p estate.PlantOut) *cold.Outcome {
	t.Helper()
	pl, err := k.Estate.Place(context.Background(), at)
	pl = housetest.Must(t, pl, err)
	return pl.Forecast(store.Plant(p.Plant), estate.EntryOf(pl.Book, p.Species))
}

func look(t *testing.T, k *housetest.Kit, plant int64) *estate.ReasonToLook {
	t.Helper()
	tr, err := k.Estate.Triage(context.Background())
	for _, p := range housetest.Must(t, tr, err).Plants {
		if p.ID == plant {
			return p.Look
		}
	}
	return nil
}
