package cuts

import (
	"context"
	"fmt"

	"mezzadro/core/catalogue"
	"mezzadro/core/day"
	"mezzadro/core/invalid"
	"mezzadro/core/job"
	"mezzadro/core/pruning"
	"mezzadro/house/estate"
	"mezzadro/house/work"
	"mezzadro/store"
)

func cutTitle(purpose pruning.Purpose, p store.Plant, e *catalogue.Entry) string {
	title := map[pruning.Purpose]string{pruning.Hedge: "Trim ", pruning.Dead: "Clear dead wood from ", pruning.Renew: "Renew ",
		pruning.Sick: "Cut out what is sick: ", pruning.Deadhead: "Take faded heads off "}[purpose]
	switch {
	case e.Form == catalogue.Palm:
		title = "Take dead fronds off "
	case title == "":
		title = "Cut "
	}
	title += e.Common
	if p.Count > 1 {
		title += fmt.Sprintf(" × %d", p.Count)
	}
	return title
}

// orders are the jobs of a proposed cut: the cut, or each third of a renewal in its year, with what is done in the same visit.
// After says, by place in the list, which one a job comes after.
func (c *CutProposed) orders(pl *estate.Place) (list []store.NewOrder, after []int) {
	base := job.Order{
		Key:     "cut",
		Kind:    job.Prune,
		Title:   c.Title,
		Origin:  job.Hand,
		For:     c.ask.Date,
		Minutes: max(1, c.Minutes),
		Crew:    1,
		Params: job.Params{
			Purpose: string(c.Purpose),
			CutM:    c.plan.CutM,
			Part:    c.Part,
		},
		Skills:   c.Skills,
		Kit:      []string{},
		Reasons:  append([]string{c.Why}, c.plan.Rules...),
		Cautions: c.plan.Cautions,
	}
	add := func(o job.Order, of int) {
		n := store.NewOrder{
			PropertyID: pl.Property.ID,
			Plants:     []int64{c.PlantID},
			Order:      o,
			Outlook:    pl.Curve(o, []string{c.ask.Species.ID}).Outlook(pl.Today),
		}
		list, after = append(list, n), append(after, of)
	}
	if c.Purpose != pruning.Renew {
		add(base, -1)
	}
	for i, step := range c.plan.Years {
		if c.Purpose != pruning.Renew {
			break
		}
		o := base
		o.Params.Part = max(1, c.Part) + i
		o.For += day.Day(365 * i)
		o.Title = fmt.Sprintf("%s, %d of %d", base.Title, o.Params.Part, len(pruning.Thirds))
		o.Reasons = append([]string{step.Text}, base.Reasons...)
		add(o, len(list)-1)
	}
	for _, f := range c.Together {
		add(
			job.Order{
				Key:      f.Kind,
				Kind:     job.Kind(f.Kind),
				Title:    f.Title,
				Origin:   job.Hand,
				For:      c.best,
				Minutes:  f.Minutes,
				Crew:     1,
				Skills:   []string{},
				Kit:      []string{},
				Reasons:  []string{f.Why},
				Cautions: []string{},
			},
			0,
		)
	}
	return list, after
}

// Days between a cut and what comes after it.
const (
	sameVisit    = 14  // at most, for what is best done in one visit
	nextThirdDay = 300 // at least, from one third of a renewal to the next
)

// gap ties a job to the one it comes after.
func gap(o job.Order, of int64) []store.GapRow {
	if o.Kind == job.Prune {
		return []store.GapRow{{OfID: of, MinDays: nextThirdDay, Why: "a third a year"}}
	}
	return []store.GapRow{{OfID: of, MaxDays: sameVisit, Why: pruning.InOneVisit}}
}

// KeepCuts makes jobs of the cuts that are wanted, all in one write.
func (h *Room) KeepCuts(ctx context.Context, key store.Key, property int64, wanted []CutWanted) ([]work.Order, error) {
	proposed, err := h.ProposeCuts(ctx, property, wanted)
	if err != nil {
		return nil, err
	}
	pl, err := h.Place(ctx, property)
	if err != nil {
		return nil, err
	}
	var bad invalid.Fields
	var chosen []*CutProposed
	at := make(map[int64]int, len(proposed.Cuts))
	for n, c := range proposed.Cuts {
		at[c.PlantID] = n
	}
	for i, w := range wanted {
		n, found := at[w.PlantID]
		if !found {
			bad.Add(fmt.Sprintf("cuts[%d].plant_id", i), w.PlantID, "no cut is proposed for it")
			continue
		}
		chosen = append(chosen, &proposed.Cuts[n])
	}
	if bad != nil {
		return nil, bad
	}
	ids, err := store.Once(ctx, h.Store, key, func(tx store.Tx) ([]int64, error) {
		made := []int64{}
		for _, c := range chosen {
			ids, err := c.keep(ctx, tx, pl)
			if err != nil {
				return nil, err
			}
			made = append(made, ids...)
		}
		return made, nil
	})
	if err != nil {
		return nil, err
	}
	kept, err := h.Store.OrdersOf(ctx, ids)
	if err != nil {
		return nil, err
	}
	return h.Work.Listed(ctx, kept)
}

// keep writes the jobs of a proposed cut and returns their ids.
func (c *CutProposed) keep(ctx context.Context, tx store.Tx, pl *estate.Place) ([]int64, error) {
	list, after := c.orders(pl)
	ids := make([]int64, len(list))
	for i, n := range list {
		if after[i] >= 0 {
			n.Gaps = gap(n.Order, ids[after[i]])
		}
		id, err := tx.AddOrder(ctx, n)
		if err != nil {
			return nil, err
		}
		ids[i] = id
	}
	return ids, nil
}
