package overview

import (
	"context"
	"strings"

	"mezzadro/core/cause"
	"mezzadro/house/finds"
	"mezzadro/house/work"
)

// Hits are what a search found, the best first in each list.
type Hits struct {
	Plants     []PlantHit        `json:"plants"`
	Properties []PropertyHit     `json:"properties"`
	Species    []SpeciesHit      `json:"species"`
	Causes     []finds.CauseLine `json:"causes"`
	Jobs       []work.Order      `json:"jobs" doc:"That are still to be done"`
	More       bool              `json:"more" doc:"More was found than is given: say more words"`
}

// PlantHit is a plant that was found.
type PlantHit struct {
	ID       int64  `json:"id"`
	Common   string `json:"common"`
	Label    string `json:"label"`
	Property string `json:"property"`
}

// PropertyHit is a property that was found.
type PropertyHit struct {
	ID     int64  `json:"id"`
	Name   string `json:"name"`
	Client string `json:"client"`
}

// SpeciesHit is an entry that was found.
type SpeciesHit struct {
	ID        string `json:"id"`
	Common    string `json:"common"`
	Botanical string `json:"botanical"`
}

// Find looks for plants, properties, species, causes and jobs whose words hold all words of a text, up to so many of each.
func (h *Room) Find(ctx context.Context, text string, limit int) (Hits, error) {
	out := Hits{[]PlantHit{}, []PropertyHit{}, []SpeciesHit{}, []finds.CauseLine{}, []work.Order{}, false}
	words := strings.Fields(strings.ToLower(text))
	if len(words) == 0 {
		return out, nil
	}
	holds := func(parts ...string) bool {
		all := strings.ToLower(strings.Join(parts, " "))
		for _, w := range words {
			if !strings.Contains(all, w) {
				return false
			}
		}
		return true
	}
	room := func(n int) bool {
		out.More = out.More || n >= limit
		return n < limit
	}
	t, err := h.Triage(ctx)
	if err != nil {
		return out, err
	}
	for i := range t.Plants {
		if p := &t.Plants[i]; holds(p.Common, p.Botanical, p.Label, p.Property, "plant") && room(len(out.Plants)) {
			out.Plants = append(out.Plants, PlantHit{p.ID, p.Common, p.Label, p.Property})
		}
	}
	for _, p := range t.Places {
		if x := p.Property; holds(x.Name, x.Client, x.Address, "property") && room(len(out.Properties)) {
			out.Properties = append(out.Properties, PropertyHit{x.ID, x.Name, x.Client})
		}
	}
	book, err := h.Book(ctx)
	if err != nil {
		return out, err
	}
	for i := range book.Entries {
		if e := &book.Entries[i]; holds(e.Called(), "species") && room(len(out.Species)) {
			out.Species = append(out.Species, SpeciesHit{e.ID, e.Common, e.Botanical})
		}
	}
	for _, c := range cause.Built().Causes {
		if holds(c.Name, c.ID, "cause") && room(len(out.Causes)) {
			out.Causes = append(out.Causes, finds.CauseLine{ID: c.ID, Name: c.Name, Group: c.Group, Harm: c.Harm})
		}
	}
	jobs, err := h.Store.FindOrders(ctx, words, limit+1)
	if err != nil {
		return out, err
	}
	if len(jobs) > limit {
		jobs, out.More = jobs[:limit], true
	}
	out.Jobs, err = h.Work.Listed(ctx, jobs)
	return out, err
}
