package cuts

import (
	"cmp"
	"context"
	"errors"
	"strings"

	"mezzadro/core/cause"
	"mezzadro/core/day"
	"mezzadro/core/hold"
	"mezzadro/core/invalid"
	"mezzadro/core/job"
	"mezzadro/core/job/reason"
	"mezzadro/core/pruning"
	"mezzadro/core/rules"
	"mezzadro/core/season"
	"mezzadro/core/site"
	"mezzadro/house/estate"
	"mezzadro/store"
)

// PruningIn asks when and how far a plant is cut.
type PruningIn struct {
	Species  string          `json:"species,omitempty" doc:"Catalogue id; may be left out where a plant is named"`
	Plant    int64           `json:"plant,omitempty" doc:"A plant's id: its species, its property and its size count"`
	Date     day.Day         `json:"date,omitempty" format:"date" doc:"Of the cut that is thought of; today when absent. Its garden year is told"`
	Climate  *season.Climate `json:"climate,omitempty"`
	Property int64           `json:"property,omitempty" doc:"In place of a climate: a property's id"`
	HeightM  float64         `json:"height_m,omitempty" doc:"As tall as its kind grows when absent"`
	SpreadM  float64         `json:"spread_m,omitempty"`
	RowM     float64         `json:"row_m,omitempty" minimum:"0" maximum:"1000" doc:"Length of the row or hedge a group stands in, m"`
	Count    int             `json:"count,omitempty" minimum:"0" maximum:"10000" doc:"Plants of a group kept as one; one when absent"`
	GraftM   float64         `json:"graft_m,omitempty" doc:"Height of the graft; absent where there is none"`
	Purpose  pruning.Purpose `json:"purpose,omitempty" doc:"shape, size, renew, clear dead, frost damage, raise, thin, deadhead, hedge, train, sanitation, storm preparation or before lifting; shape when absent"`
	Usual    bool            `json:"usual,omitempty" doc:"Without a purpose: what such a plant is usually cut for, in place of shape"`
	WantedM  float64         `json:"wanted_m,omitempty" doc:"Height it is to stand at after the next season"`
	CutM     float64         `json:"cut_m,omitempty" doc:"Height it is cut to, in place of a wanted one"`
	Part     int             `json:"part,omitempty" minimum:"0" maximum:"3" doc:"Of a renewal over three years: which third; the first when absent"`
	Share    float64         `json:"share,omitempty" doc:"Of the living crown that is to go, 0 to 1; as the purpose takes when absent"`
	Rules    *PruningRules   `json:"house_rules,omitempty" doc:"The firm's when absent"`
}

// PruningRules are the house rules that cuts hang on.
type PruningRules struct {
	rules.House
	CutPerennialsAtFrost bool `json:"cut_perennials_at_frost,omitempty" doc:"Frosted perennials are cut back at the first killing frost: another word for perennials"`
}

// PruningOut is what it comes to.
type PruningOut struct {
	pruning.Plan
	Species string       `json:"species" doc:"Common name"`
	From    day.Day      `json:"from" format:"date" doc:"First day of the garden year"`
	To      day.Day      `json:"to" format:"date" doc:"First day of the next"`
	Costs   reason.Costs `json:"costs" doc:"What each day of the garden year costs: 0 best to 100 worst, 101 never"`
	Rule    string       `json:"rule" doc:"The house rule that the result hangs on; empty where none"`
	Hold    *hold.Hold   `json:"hold,omitempty" doc:"Of a kept plant: why the cut waits for what is not known yet of it; absent where nothing holds it"`
}

// ReckonPruning plans a cut from inline values or a kept plant, storing nothing.
func (h *Room) ReckonPruning(ctx context.Context, in PruningIn) (PruningOut, error) {
	var bad invalid.Fields
	out := PruningOut{}
	wire := false
	if in.Plant != 0 {
		p, err := h.Store.Plant(ctx, in.Plant)
		if err != nil {
			return out, err
		}
		in.Sized(p)
		near, err := h.wires(ctx, p.PropertyID)
		if err != nil {
			return out, err
		}
		wire = near[p.ID] || site.TellsOfLine(p.Label, p.Note)
	}
	book, err := h.Book(ctx)
	if err != nil {
		return out, err
	}
	e, err := book.Species(in.Species)
	if err != nil {
		bad.Add("species", in.Species, "%v", err)
	}
	y, pl, err := h.YearOf(ctx, in.Climate, in.Property)
	if errors.Is(err, store.ErrNotFound) {
		return out, err
	}
	bad = append(bad, invalid.Of(err)...)
	if bad != nil {
		return out, bad
	}
	ask := pruning.Ask{
		Species: &e,
		Place:   pruning.At(y),
		Date:    h.DateOr(in.Date),
		HeightM: in.HeightM,
		SpreadM: in.SpreadM,
		GraftM:  in.GraftM,
		Count:   in.Count,
		RowM:    in.RowM,
		Purpose: in.Purpose,
		WantedM: in.WantedM,
		CutM:    in.CutM,
		Share:   in.Share,
		Part:    in.Part,
		Wire:    wire,
	}
	if ask.Rules, err = h.RulesOf(ctx, in.Rules, pl); err != nil {
		return out, err
	}
	if pl != nil {
		ask.Place = pl.Cuts
		if ask.Near, err = h.neighbours(ctx, pl, in.Plant); err != nil {
			return out, err
		}
	}
	if in.Usual && ask.Purpose == "" {
		ask.Purpose = cmp.Or(
			pruning.Usual(&e, pruning.Of{Count: in.Count, RowM: in.RowM, HeightM: in.HeightM, Rules: ask.Rules}),
			pruning.Shape,
		)
	}
	out.Plan, err = planned(ask, pl)
	out.Species, out.Costs, out.Rule = e.Common, out.Plan.Curve.Costs(), strings.Join(out.Plan.Rules, "; ")
	out.From, out.To = y.Normals.Climate.GardenYear(ask.Date)
	if err != nil || in.Plant == 0 {
		return out, err
	}
	by, err := h.Work.WhatHolds(ctx, in.Plant)
	if by.Binds(hold.CutFor(string(ask.Purpose))) {
		out.Hold = by
	}
	if err != nil {
		return out, err
	}
	dooms, err := h.dooms(ctx, in.Plant)
	out.Cautions = append(dooms, out.Cautions...)
	return out, err
}

// planned is the plan of a cut, with what holds where the plant stands.
func planned(ask pruning.Ask, pl *estate.Place) (pruning.Plan, error) {
	plan, err := pruning.For(ask)
	if err == nil && pl != nil {
		on := cmp.Or(plan.Best, ask.Date)
		general, holds := estate.HoldsFor(pl.Property, ask.Species, job.Prune, "", on, false, plan.Cautions)
		plan.Cautions = append(general, holds...)
	}
	return plan, err
}

// dooms says of what was found on a plant and kills it that no cut saves it; what a cut takes out is not told.
func (h *Room) dooms(ctx context.Context, plant int64) (out []string, err error) {
	finds, err := h.Store.Finds(ctx, store.FindsOf{Plant: plant, Open: true, Limit: store.All})
	for _, f := range finds {
		if of := cause.Built().Cause(f.Cause); of != nil && dooming(of, f.Share) {
			out = append(out, of.Name+" was found on it: no cut saves it, and cuts carry it on. First what is done about that.")
		}
	}
	return out, err
}

// dooming reports what kills a plant and asks for more than a cut.
func dooming(of *cause.Cause, share float64) bool {
	act, _ := of.Rung(share)
	return of.Harm == "deadly" && (act == "strong" || act == "replace")
}

// wires are the plants of a property that stand near a power line on its plan, by id.
func (h *Room) wires(ctx context.Context, property int64) (map[int64]bool, error) {
	plan, err := h.Store.Plan(ctx, property)
	return plan.Body.V.NearWire(), err
}

// neighbours are the other plants of the property of one; none where no plant is named.
func (h *Room) neighbours(ctx context.Context, pl *estate.Place, plant int64) ([]pruning.Neighbour, error) {
	if plant == 0 {
		return nil, nil
	}
	plants, err := h.Store.Plants(ctx, pl.Property.ID, 0, store.All)
	var out []pruning.Neighbour
	for _, p := range plants {
		if e, known := pl.Book.Entry(p.Species); known && p.ID != plant {
			out = append(out, pruning.Neighbour{Name: strings.ToLower(e.Common), Species: e, HeightM: p.HeightM})
		}
	}
	return out, err
}

// Sized takes from a kept plant what was not told.
func (in *PruningIn) Sized(p store.Plant) {
	in.Property = p.PropertyID
	if in.Species == "" {
		in.Species = p.Species
	}
	if in.Count == 0 {
		in.Count = p.Count
	}
	for to, kept := range map[*float64]float64{&in.HeightM: p.HeightM, &in.SpreadM: p.SpreadM, &in.GraftM: p.GraftM, &in.RowM: p.RowM} {
		if *to == 0 {
			*to = kept
		}
	}
}

// RulesOf are those that are told, over those of the property, over the firm's.
func (h *Room) RulesOf(ctx context.Context, told *PruningRules, pl *estate.Place) (rules.House, error) {
	var r rules.House
	if told != nil {
		r = told.House
		if told.CutPerennialsAtFrost && r.Perennials == "" {
			r.Perennials = rules.AtFrost
		}
		return r, invalid.Under("house_rules", r.Validate())
	}
	if pl != nil {
		return pl.Rules, nil
	}
	f, err := h.Firm(ctx)
	return f.Rules.V, err
}
