package days

import (
	"context"
	"slices"

	"mezzadro/core/catalogue"
	"mezzadro/core/day"
	"mezzadro/core/invalid"
	"mezzadro/core/job"
	"mezzadro/core/load"
	"mezzadro/house/estate"
	"mezzadro/store"
)

// Load is all that the jobs of some days take along and bring back. Amounts are estimates.
type Load struct {
	From  day.Day     `json:"from" format:"date"`
	To    day.Day     `json:"to" format:"date"`
	Crew  string      `json:"crew" doc:"Its name; empty: of all"`
	Jobs  int         `json:"jobs" doc:"That stand on these days; with those that wait, where they are asked for"`
	Items []load.Item `json:"items" doc:"By group: plants, stuff, tools, ladders, fuel, waste"`
}

// loadDays is the longest stretch that is summed.
const loadDays = 400

// Load sums what is taken along from a day until another, of a crew or of all; with what waits for a day and is best by
// then, it is what is to be bought.
func (h *Room) Load(ctx context.Context, from, to day.Day, crew int64, waiting bool) (Load, error) {
	out := Load{From: from, To: to, Items: []load.Item{}}
	if to < from || to > from+loadDays {
		return out, invalid.One("to", to.String(), "want a day from the first on, a year later at the latest")
	}
	var err error
	if out.Crew, err = h.Crew.CrewName(ctx, crew); err != nil {
		return out, err
	}
	if err := h.Work.CurrentWindows(ctx); err != nil {
		return out, err
	}
	var list []store.OrderFull
	if waiting {
		list, err = h.Store.StandingUntil(ctx, from.String(), to.String(), store.All)
	} else {
		list, err = h.Store.SheetsBetween(ctx, from.String(), to.String(), store.All)
	}
	if err != nil {
		return out, err
	}
	for _, k := range list {
		if crew == 0 || k.CrewID == crew {
			out.Jobs++
		}
	}
	if out.Items, err = h.load(ctx, list, crew, !waiting); waiting { // products stand on their own list, with packs and prices
		out.Items = slices.DeleteFunc(out.Items, func(x load.Item) bool { return !x.Buy })
	}
	return out, err
}

// load sums what a crew's jobs of a list take along, with what is mixed where products are asked for; what is done, or waits for what is not known yet, takes nothing.
func (h *Room) load(ctx context.Context, list []store.OrderFull, crew int64, products bool) ([]load.Item, error) {
	teller, err := h.Work.Teller(ctx)
	if err != nil {
		return nil, err
	}
	due := []store.OrderFull{}
	for _, k := range list {
		open := k.State == job.Placed || k.State == job.Waiting
		if open && (crew == 0 || k.CrewID == crew) && teller.Waits(k.Order) == nil {
			due = append(due, k)
		}
	}
	lists, err := h.Loads(ctx, due, products)
	return append([]load.Item{}, load.Sum(lists...)...), err
}

// Loads are what each order takes along.
func (h *Room) Loads(ctx context.Context, list []store.OrderFull, products bool) ([][]load.Item, error) {
	t, err := h.Triage(ctx) // has all plants at hand
	if err != nil {
		return nil, err
	}
	book, err := h.Book(ctx)
	if err != nil {
		return nil, err
	}
	several, err := h.Store.SeveralPlants(ctx)
	if err != nil {
		return nil, err
	}
	mixed := map[int64][]load.Item{}
	if products {
		if mixed, err = h.Treat.OnVan(ctx, list); err != nil {
			return nil, err
		}
	}
	plants := map[int64]*store.Plant{}
	for i := range t.Kept {
		plants[t.Kept[i].ID] = &t.Kept[i]
	}
	out := make([][]load.Item, 0, len(list))
	for _, k := range list {
		ids := several[k.ID]
		if k.PlantID.Valid {
			ids = []int64{k.PlantID.Int64}
		}
		out = append(out, append(load.Of(loadJob(k, ids, plants, book)), mixed[k.ID]...))
	}
	return out, nil
}

// loadJob is an order as the core asks for it.
func loadJob(k store.OrderFull, ids []int64, plants map[int64]*store.Plant, book *catalogue.Catalogue) load.Job {
	j := load.Job{Kind: k.Kind, Title: k.Title, Params: k.Params.V, Minutes: k.Minutes, Kit: k.Body.V.Kit, Skills: k.Body.V.Skills, Count: k.Params.V.NewCount}
	if e, known := book.Entry(j.Params.New); known {
		j.New = e
	}
	for _, id := range ids {
		p, there := plants[id]
		if !there {
			continue
		}
		e := estate.EntryOf(book, p.Species)
		j.Plants = append(j.Plants, load.Stock{Species: &e, Count: p.Count, HeightM: p.HeightM, SpreadM: p.SpreadM, PotL: p.PotL})
	}
	return j
}
