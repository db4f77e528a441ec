package rounds

import (
	"context"
	"fmt"
	"log/slog"
	"testing"

	"mezzadro/core/catalogue"
	"mezzadro/core/day"
	"mezzadro/core/job"
	"mezzadro/house/crews"
	"mezzadro/house/estate"
	"mezzadro/house/garden"
	"mezzadro/house/learn"
	"mezzadro/house/standing"
	"mezzadro/house/work"
	"mezzadro/store"
)

// BenchmarkSeasonOf13500 spreads 13,500 jobs of all kinds at forty properties over half a year of weeks.
func BenchmarkSeasonOf13500(b *testing.B) {
	ctx := context.Background()
	ok := func(err error) {
		if err != nil {
			b.Fatal(err)
		}
	}
	st, err := store.Open(ctx, b.TempDir())
	ok(err)
	today := day.Of(2027, 3, 18)
	e := &estate.House{Store: st, Catalogue: catalogue.Built(), Today: func() day.Day { return today }, Log: slog.New(slog.DiscardHandler)}
	w := work.New(e)
	h := New(e, &crews.Room{House: e}, w, nil, &standing.Room{House: e, Work: w}, &learn.Room{House: e})
	b.Cleanup(func() { h.Close(); _ = st.Close() })
	kinds := []job.Kind{job.Prune, job.Feed, job.Mulch, job.Look, job.CutBack, job.Water, job.Treat}
	purposes := []string{"shape", "clear dead", "thin"}
	book := catalogue.Built().Entries
	g := &garden.Room{House: e, Work: w}
	for i := range 40 {
		p, err := g.AddProperty(ctx, store.Key{}, garden.PropertyIn{Name: fmt.Sprintf("No. %d", i), ClimateType: "lake-foothills"})
		ok(err)
		ok(st.Write(ctx, func(tx store.Tx) error {
			for n := range 50 {
				plant, err := tx.AddPlant(ctx, store.Plant{PropertyID: p.ID, Species: book[(i*50+n)*7%len(book)].ID, HeightM: 1.5, SpreadM: 1, Count: 1, Value: 1, Shelter: 0.5, Sun: 0.6})
				if err != nil {
					return err
				}
				for k := range 7 {
					o := job.Order{Key: "hand", Kind: kinds[k], Title: "Work", Origin: job.Hand, For: today, Minutes: 20, Crew: 1,
						Params: job.Params{Purpose: purposes[n%3], Cause: "aphids", Rung: "water", Step: 1}}
					if n%40 == 39 && k > 3 {
						continue
					}
					if _, err := tx.AddOrder(ctx, store.NewOrder{PropertyID: p.ID, Plants: []int64{plant.ID}, Order: o}); err != nil {
						return err
					}
				}
			}
			return nil
		}))
	}
	who, err := h.Team.KeepPerson(ctx, store.Key{}, 0, crews.PersonIn{Name: "Ilda"})
	ok(err)
	in := crews.CrewIn{Name: "Ilda", People: []int64{who.ID}}
	for d := range in.Hours {
		in.Hours[d].From, in.Hours[d].To = 480, 1020
	}
	_, err = h.Team.KeepCrew(ctx, store.Key{}, 0, in)
	ok(err)
	_, err = h.SeasonOf(ctx, 26)
	ok(err)
	for b.Loop() {
		ok(st.Write(ctx, func(tx store.Tx) error {
			_, err := tx.ExecContext(ctx, `UPDATE job_order SET minutes = 50 - minutes WHERE id = 7`)
			return err
		}))
		out, err := h.SeasonOf(ctx, 26)
		ok(err)
		if len(out.Weeks) != 26 {
			b.Fatal(len(out.Weeks))
		}
	}
}
