package garden

import (
	"context"

	"mezzadro/core/cause"
	"mezzadro/core/region"
	"mezzadro/house/estate"
)

// Regions are the countries and states that rules know.
type Regions struct {
	Countries []string                     `json:"countries" doc:"ISO 3166, by letter"`
	States    map[string]map[string]string `json:"states" doc:"Of countries whose rules tell them apart: names by code"`
}

// Regions lists them.
func (h *Room) Regions() Regions {
	out := Regions{region.Countries(), map[string]map[string]string{}}
	for _, c := range out.Countries {
		if s := region.States(c); s != nil {
			out.States[c] = s
		}
	}
	return out
}

// Holding is what holds where a property lies.
type Holding struct {
	Lies  string        `json:"lies,omitempty" doc:"Country and state, ISO 3166; absent where nobody knows"`
	Sure  bool          `json:"entered" doc:"It was entered, not taken from the time zone"`
	Rules []region.Rule `json:"rules" doc:"In our own words, by topic; none of it is the law's text"`

	Names map[string]string `json:"names" doc:"Of the kinds and troubles that rules name, by id"`
}

// HoldingAt tells it.
func (h *Room) HoldingAt(ctx context.Context, property int64) (Holding, error) {
	p, err := h.Store.Property(ctx, property)
	if err != nil {
		return Holding{}, err
	}
	lies := estate.LiesIn(p)
	out := Holding{lies, p.Region != "", append([]region.Rule{}, region.Holding(lies)...), map[string]string{}}
	book, err := h.Book(ctx)
	if err != nil {
		return out, err
	}
	for _, r := range out.Rules {
		for _, id := range r.Cause {
			out.Names[id] = cause.Built().Cause(id).Name
		}
		for _, id := range r.Weeds {
			if e, known := book.Entry(id); known {
				out.Names[id] = e.Common
			}
		}
	}
	return out, nil
}
