package house

import (
	"context"
	"slices"

	"mezzadro/core/cause"
	"mezzadro/core/day"
	"mezzadro/core/job"
	"mezzadro/core/treatment"
	"mezzadro/store"
)

// KeepFeeding makes a job of a plant's feeding in the season that runs or comes next; it comes again till that ends.
func (h *House) KeepFeeding(ctx context.Context, key store.Key, plant int64, in FeedingIn) (Order, error) {
	in.Plant = plant
	ask, err := h.feedAsk(ctx, in)
	if err != nil {
		return Order{}, err
	}
	f, err := treatment.Feed(ask)
	if err != nil {
		return Order{}, err
	}
	o, due := f.Order(ask)
	if !due {
		return Order{}, store.Refused(f.Text)
	}
	p, err := h.Store.Plant(ctx, plant)
	if err != nil {
		return Order{}, err
	}
	pl, err := h.Place(ctx, p.PropertyID)
	if err != nil {
		return Order{}, err
	}
	id, err := store.Once(ctx, h.Store, key, func(tx store.Tx) (int64, error) {
		stands, err := tx.StandingOf(ctx, plant, job.Feed, job.Programme)
		if err != nil {
			return 0, err
		}
		if stands {
			return 0, store.Refused("a job for its feeding stands already")
		}
		return tx.AddOrder(
			ctx,
			store.NewOrder{PropertyID: p.PropertyID, Plants: []int64{plant}, Trouble: "feeding", Order: o,
				Outlook: pl.curve(o, []string{p.Species}).Outlook(pl.Today)},
		)
	})
	if err != nil {
		return Order{}, err
	}
	k, err := h.Store.Order(ctx, id)
	return tellOrder(k.Order, pl.Book, pl.Today), err
}

// Guard is a cause that a plant can be guarded against before it is there.
type Guard struct {
	Cause  string  `json:"cause"`
	Name   string  `json:"name"`
	Do     string  `json:"do" doc:"The first step"`
	Day    day.Day `json:"day" format:"date" doc:"When that is next due"`
	FindID int64   `json:"find_id,omitempty" doc:"Of the wish that stands"`
}

// Guards are those of a plant.
func (h *House) Guards(ctx context.Context, plant int64) ([]Guard, error) {
	p, err := h.Store.Plant(ctx, plant)
	if err != nil {
		return nil, err
	}
	pl, err := h.Place(ctx, p.PropertyID)
	if err != nil {
		return nil, err
	}
	wishes, err := h.Store.Finds(ctx, store.FindsOf{Plant: plant, Open: true, Prevent: true, Limit: all})
	if err != nil {
		return nil, err
	}
	e := entryOf(pl.Book, p.Species)
	causes := treatment.Built().Guards(&e)
	for _, w := range wishes {
		if !slices.Contains(causes, w.Cause) {
			causes = append(causes, w.Cause)
		}
	}
	out := make([]Guard, 0, len(causes))
	for _, id := range causes {
		c := cause.Built().Cause(id)
		if c == nil {
			continue
		}
		a, err := treatment.Built().
			Plan(treatment.Ask{Cause: id, Prevent: true, Species: &e, Place: pl.Cuts.Place, Date: pl.Today, Rules: pl.rules, Count: p.Count,
				HeightM: p.HeightM, SpreadM: p.SpreadM})
		if err != nil {
			return nil, err
		}
		g := Guard{Cause: id, Name: c.Name}
		if len(a.Steps) > 0 {
			g.Do, g.Day = a.Steps[0].Do, a.Steps[0].Day
		}
		if n := slices.IndexFunc(wishes, func(w store.Find) bool { return w.Cause == id }); n >= 0 {
			g.FindID = wishes[n].ID
		}
		out = append(out, g)
	}
	return out, nil
}
