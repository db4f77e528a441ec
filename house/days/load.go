package days

import (
	"context"
	"slices"

	"mezzadro/core/day"
	"mezzadro/core/invalid"
	"mezzadro/core/job"
	"mezzadro/core/load"
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

// Loads are what each order takes along, with what is mixed for it where products are asked for.
func (h *Room) Loads(ctx context.Context, list []store.OrderFull, products bool) ([][]load.Item, error) {
	out, err := h.Work.Loads(ctx, list)
	if err != nil || !products {
		return out, err
	}
	mixed, err := h.Treat.OnVan(ctx, list)
	for i, k := range list {
		out[i] = append(out[i], mixed[k.ID]...)
	}
	return out, err
}
