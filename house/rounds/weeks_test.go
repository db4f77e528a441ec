package rounds

import (
	"context"
	"fmt"
	"log/slog"
	"reflect"
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

// gardens is the room over a record of so many properties, each with plants of all kinds and seven jobs at each, fewer
// at every fortieth, and a crew.
func gardens(t testing.TB, properties, plants int) *Room {
	t.Helper()
	ctx := context.Background()
	ok := func(err error) {
		if err != nil {
			t.Fatal(err)
		}
	}
	st, err := store.Open(ctx, t.TempDir())
	ok(err)
	today := day.Of(2027, 3, 18)
	e := &estate.House{Store: st, Catalogue: catalogue.Built(), Today: func() day.Day { return today }, Log: slog.New(slog.DiscardHandler)}
	h := over(e)
	t.Cleanup(func() { h.Close(); _ = st.Close() })
	kinds := []job.Kind{job.Prune, job.Feed, job.Mulch, job.Look, job.CutBack, job.Water, job.Treat}
	purposes := []string{"shape", "clear dead", "thin"}
	book := catalogue.Built().Entries
	g := &garden.Room{House: e, Work: h.Work}
	for i := range properties {
		p, err := g.AddProperty(ctx, store.Key{}, garden.PropertyIn{Name: fmt.Sprintf("No. %d", i), ClimateType: "lake-foothills"})
		ok(err)
		ok(st.Write(ctx, func(tx store.Tx) error {
			for n := range plants {
				plant, err := tx.AddPlant(ctx, store.Plant{
					PropertyID: p.ID, Species: book[(i*50+n)*7%len(book)].ID,
					HeightM: 1.5, SpreadM: 1, Count: 1, Value: 1, Shelter: 0.5, Sun: 0.6,
				})
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
	return h
}

// over is the room over an estate.
func over(e *estate.House) *Room {
	w := work.New(e)
	return New(e, &crews.Room{House: e}, w, nil, &standing.Room{House: e, Work: w}, &learn.Room{House: e})
}

// BenchmarkSeasonOf13500 spreads 13,500 jobs of all kinds at forty properties over half a year of weeks, after a write
// each time.
func BenchmarkSeasonOf13500(b *testing.B) {
	ctx := context.Background()
	h := gardens(b, 40, 50)
	_, err := h.SeasonOf(ctx, 26)
	must(b, err)
	for b.Loop() {
		must(b, h.Store.Write(ctx, func(tx store.Tx) error {
			_, err := tx.ExecContext(ctx, `UPDATE job_order SET minutes = 50 - minutes WHERE id = 7`)
			return err
		}))
		out, err := h.SeasonOf(ctx, 26)
		must(b, err)
		if len(out.Weeks) != 26 {
			b.Fatal(len(out.Weeks))
		}
	}
}

// TestSeasonIsAsWritten: after writes of all kinds, and on another day, the season is what a program tells that was
// opened just now and has kept nothing.
func TestSeasonIsAsWritten(t *testing.T) {
	ctx := context.Background()
	h := gardens(t, 2, 8)
	today := h.Today()
	h.House.Today = func() day.Day { return today }
	told := map[string]bool{}
	for _, write := range []string{
		`SELECT 1`,
		`UPDATE job_order SET minutes = 400 WHERE id % 5 = 1`,
		`UPDATE job_order SET kind = 'mulch' WHERE id = 1`,
		`UPDATE job_order SET params = json_set(params, '$.purpose', 'clear dead') WHERE id % 3 = 0`,
		`UPDATE job_order SET for_day = '2027-06-20' WHERE id % 2 = 0`,
		`UPDATE plant SET species = 'syringa-vulgaris', version = version + 1 WHERE id = 3`,
		`UPDATE job_order SET plant_id = 4 WHERE id = 8`,
		`UPDATE property SET rules = '{"roses": "winter"}', version = version + 1 WHERE id = 1`,
		`DELETE FROM job_order WHERE id = 12`,
		`UPDATE job_order SET state = 'done', ended = '2027-03-17' WHERE id = 13`,
		`day`,
	} {
		if write == "day" {
			today += 9
		} else {
			must(t, h.Store.Write(ctx, func(tx store.Tx) error { _, err := tx.ExecContext(ctx, write); return err }))
		}
		must(t, h.Work.RefreshWindows(ctx)) // as whatever writes this otherwise has it done
		got, err := h.SeasonOf(ctx, 20)
		must(t, err)
		fresh := over(&estate.House{Store: h.Store, Catalogue: h.Catalogue, Today: h.Today, Log: h.Log})
		want, err := fresh.SeasonOf(ctx, 20)
		must(t, err)
		if !reflect.DeepEqual(got, want) {
			t.Errorf("after %s:\n%+v, want\n%+v", write, got.Weeks[:3], want.Weeks[:3])
		}
		told[fmt.Sprint(got)] = true
		fresh.Close()
	}
	if len(told) < 8 {
		t.Errorf("the writes changed the season %d times: too few of them count", len(told)-1)
	}
}
