package work

import (
	"context"

	"mezzadro/core/job"
	"mezzadro/core/kinds"
	"mezzadro/house/estate"
	"mezzadro/store"
)

// Curves are those of many orders at one place: orders that ask the same share one.
type Curves struct {
	room  *Room
	place *estate.Place
	known map[kinds.Ask]curve
}

// curve is one with what it says today.
type curve struct {
	job.Curve
	outlook job.Outlook
}

// Curves begins with none known.
func (h *Room) Curves(pl *estate.Place) *Curves { return &Curves{h, pl, map[kinds.Ask]curve{}} }

// Of is what each day costs for an order at the place, and what that says today.
func (c *Curves) Of(ctx context.Context, k store.OrderFull) (job.Curve, job.Outlook, error) {
	made := store.DayOf(&k.ForDay)
	ask := kinds.AskOf(k.Kind, k.Species, made, k.Params.V)
	if known, is := c.known[ask]; is && k.PlantID.Valid {
		return known.Curve, known.outlook, nil
	}
	_, drawn, err := c.room.CurveOf(ctx, k, c.place)
	if err != nil {
		return job.Curve{}, job.Outlook{}, err
	}
	out := curve{drawn, drawn.Outlook(c.place.Today)}
	if k.PlantID.Valid && made.Given() {
		c.known[ask] = out
	}
	return out.Curve, out.outlook, nil
}
