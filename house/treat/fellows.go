package treat

import (
	"context"
	"errors"
	"fmt"
	"slices"

	"mezzadro/core/cause"
	"mezzadro/core/invalid"
	"mezzadro/core/quantity"
	"mezzadro/core/treatment"
	"mezzadro/house/estate"
	"mezzadro/store"
)

// Takes is what a treatment takes over all times still to come, by the firm's own cards.
type Takes struct {
	SprayL  float64 `json:"spray_l" doc:"An estimate"`
	Product float64 `json:"product" doc:"Of the first product, in its unit; 0 without a card"`
	Unit    string  `json:"unit"`
	Name    string  `json:"name" doc:"Of the product"`
	Cost    float64 `json:"cost" money:"true" doc:"Of all that is used up, at the price of the pack that is cheapest by amount"`
}

// AlongPlant is another plant that can have the trouble too.
type AlongPlant struct {
	PlantID int64  `json:"plant_id"`
	Plant   string `json:"plant"`
	Count   int    `json:"count"`
	treatment.Fellow
	FindID int64 `json:"find_id,omitempty" doc:"Of an open find of the same cause on it"`
	Takes  Takes `json:"takes"`
}

// takes sums an answer's steps.
func takes(a treatment.Answer, cards []treatment.Card) (out Takes) {
	for _, s := range a.Steps {
		if s.Amount == nil {
			continue
		}
		times := float64(max(1, s.Most-s.Done))
		out.SprayL += times * s.Amount.SprayL
		n := slices.IndexFunc(cards, func(c treatment.Card) bool { return s.Amount.Card != 0 && c.ID == s.Amount.Card })
		if n < 0 {
			continue
		}
		if out.Name == "" || out.Name == s.Amount.Name {
			out.Name, out.Unit = s.Amount.Name, s.Amount.Unit
			out.Product += times * s.Amount.Product
		}
		out.Cost += times * s.Amount.Product * cards[n].UnitPrice()
	}
	out.SprayL, out.Product, out.Cost = quantity.Round(
		out.SprayL,
		0.01,
	), quantity.Round(
		out.Product,
		0.01,
	), quantity.Round(
		out.Cost,
		0.01,
	)
	return out
}

// along lists the others of a property that a find's treatment may take along.
func (h *Room) along(
	ctx context.Context,
	pl *estate.Place,
	p store.Plant,
	f store.Find,
	cards []treatment.Card,
) ([]AlongPlant, error) {
	out := []AlongPlant{}
	own := estate.EntryOf(pl.Book, p.Species)
	if _, asked := treatment.Built().Along(f.Cause, &own, false, false); !asked || f.Prevent {
		return out, nil
	}
	plants, err := h.Store.Plants(ctx, pl.Property.ID, 0, store.All)
	if err != nil {
		return out, err
	}
	finds, err := h.Store.Finds(ctx, store.FindsOf{Property: pl.Property.ID, Limit: store.All})
	if err != nil {
		return out, err
	}
	for _, other := range plants {
		if other.ID == p.ID {
			continue
		}
		e := estate.EntryOf(pl.Book, other.Species)
		if e.Genus() != own.Genus() {
			continue
		}
		open, had := int64(0), false
		for _, x := range finds {
			if x.PlantID.Int64 == other.ID && x.Cause == f.Cause {
				had = true
				if x.State == "open" {
					open = x.ID
				}
			}
		}
		w, asked := treatment.Built().Along(f.Cause, &e, treatment.Shaded(other.Sun), had)
		if !asked {
			continue
		}
		one := AlongPlant{PlantID: other.ID, Plant: estate.PlantTitle(pl.Book, other), Count: other.Count, Fellow: w, FindID: open}
		if w.Look {
			out = append(out, one)
			continue
		}
		t, err := h.treatmentOn(ctx, pl, other, alike(f, other), cards)
		if err != nil {
			return out, err
		}
		t.Shade = false // as the first is, if it is at all
		answer, err := treatment.Built().Plan(t)
		if err != nil {
			return out, err
		}
		one.Takes = takes(answer, cards)
		out = append(out, one)
	}
	return out, nil
}

// alike is the find that stands for a plant which is treated along with another.
func alike(f store.Find, p store.Plant) store.Find {
	out := store.Find{
		PropertyID: f.PropertyID,
		Species:    p.Species,
		Day:        f.Day,
		Cause:      f.Cause,
		Certainty:  f.Certainty,
		Share:      f.Share,
		How:        f.How,
	}
	out.PlantID.Int64, out.PlantID.Valid = p.ID, true
	out.AlongOf.Int64, out.AlongOf.Valid = f.ID, true
	out.Seen.V, out.NotSeen.V = []string{}, []string{}
	return out
}

// treatedAlong is the treatment of another plant of the same property.
func (h *Room) treatedAlong(
	ctx context.Context,
	pl *estate.Place,
	f store.Find,
	field string,
	plant int64,
	cards []treatment.Card,
) (treating, error) {
	p, err := h.Store.Plant(ctx, plant)
	switch {
	case errors.Is(err, store.ErrNotFound):
		return treating{}, invalid.One(field, plant, "is not there, or was removed")
	case err != nil:
		return treating{}, err
	case p.PropertyID != f.PropertyID:
		return treating{}, invalid.One(field, plant, "stands on another property")
	case f.PlantID.Int64 == plant:
		return treating{}, invalid.One(field, plant, "is the plant of the find itself")
	}
	e := estate.EntryOf(pl.Book, p.Species)
	if c := cause.Built().Cause(f.Cause); c != nil && c.OnKind(&e) < 1 {
		return treating{}, invalid.One(field, plant, fmt.Sprintf("%s does not take %s", e.Common, c.Name))
	}
	t := treating{find: alike(f, p), plant: p}
	t.find.Note = "Treated along with another of its kind; not found on it by itself."
	t.ask, err = h.treatmentOn(ctx, pl, p, t.find, cards)
	t.ask.Shade = false
	return t, err
}
