package work

import (
	"cmp"
	"context"
	"strings"

	"mezzadro/core/day"
	"mezzadro/core/job"
	"mezzadro/core/treatment"
	"mezzadro/house/estate"
	"mezzadro/store"
)

// LanesPage is a page of lanes.
type LanesPage struct {
	Items []Lane `json:"items"`
	Total int    `json:"total" doc:"How many there are in all"` // of the following page, empty at the end
}

// LanesOf says which standing jobs the year shows, and in which order.
type LanesOf struct {
	Property int64
	Kind     job.Kind
	By       string // time, property, plant or kind
	NoCare   bool
	Closing  int // only those whose running window ends within so many days; 0: all
	Words    string
	From     int
	Limit    int
}

// Lanes are a stretch of the standing jobs with what each day costs.
func (h *Room) Lanes(ctx context.Context, of LanesOf) (LanesPage, error) {
	if err := h.CurrentWindows(ctx); err != nil {
		return LanesPage{}, err
	}
	ask := store.LanesOf{
		Property: of.Property,
		Kind:     of.Kind,
		By:       cmp.Or(of.By, "time"),
		NoCare:   of.NoCare,
		Today:    h.Today().String(),
		Words:    strings.Fields(strings.ToLower(of.Words)),
		From:     of.From,
		Limit:    of.Limit,
	}
	if of.Closing > 0 {
		ask.Closing = (h.Today() + day.Day(of.Closing)).String()
	}
	list, total, err := h.Store.Lanes(ctx, ask)
	if err != nil {
		return LanesPage{}, err
	}
	out := LanesPage{Items: make([]Lane, 0, len(list)), Total: total}
	places := map[int64]*estate.Place{}
	for _, k := range list {
		pl := places[k.PropertyID]
		if pl == nil {
			if pl, err = h.Place(ctx, k.PropertyID); err != nil {
				return out, err
			}
			places[k.PropertyID] = pl
		}
		l, _, _, err := h.lane(ctx, k, pl)
		if err != nil {
			return out, err
		}
		out.Items = append(out.Items, l)
	}
	return out, h.mark(ctx, out.Items, list, places)
}

// waitsBack is how long ago something was used whose wait may still run, days.
const waitsBack = 60

// mark adds to the lanes of treatments the stages of pests, and to all lanes the waits that run on their plants.
func (h *Room) mark(ctx context.Context, lanes []Lane, list []store.OrderFull, places map[int64]*estate.Place) error {
	plants := []int64{}
	for _, k := range list {
		if k.PlantID.Valid {
			plants = append(plants, k.PlantID.Int64)
		}
	}
	used, err := h.Store.UsesOnAny(ctx, plants, (h.Today() - waitsBack).String())
	if err != nil {
		return err
	}
	var cards []treatment.Card
	if len(used) > 0 {
		if cards, err = h.Cards(ctx); err != nil {
			return err
		}
	}
	uses := map[int64][]treatment.Use{}
	for _, u := range used {
		uses[u.PlantID.Int64] = append(
			uses[u.PlantID.Int64],
			treatment.Use{Day: store.DayOf(&u.Day), Active: u.Active, Card: u.ProductID.Int64},
		)
	}
	for i, k := range list {
		pl, of := places[k.PropertyID], k.Params.V
		e := estate.EntryOf(pl.Book, k.Species)
		ask := treatment.Ask{Species: &e, Place: pl.Cuts.Place, Rules: pl.Rules}
		if k.Kind == job.Treat {
			j := treatment.Job{Cause: of.Cause, Rung: of.Rung, Step: of.Step, Made: store.DayOf(&k.ForDay)}
			if text, from, to, known := treatment.Built().Stage(ask, j); known {
				lanes[i].Stage = &StageBand{text, from, to}
			}
		}
		if ask.Uses = uses[k.PlantID.Int64]; len(ask.Uses) == 0 {
			continue
		}
		ask.Date, ask.Cards = pl.Today, cards
		for _, w := range treatment.Built().Waits(ask) {
			if w.What != "gap" || w.Use == of.Use {
				lanes[i].Waits = append(lanes[i].Waits, w)
			}
		}
	}
	return nil
}
