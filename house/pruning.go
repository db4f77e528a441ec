package house

import (
	"cmp"
	"context"
	"errors"
	"fmt"
	"slices"

	"mezzadro/core/catalogue"
	"mezzadro/core/day"
	"mezzadro/core/invalid"
	"mezzadro/core/job"
	"mezzadro/core/job/reason"
	"mezzadro/core/pruning"
	"mezzadro/core/quantity"
	"mezzadro/core/season"
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
	Count    int             `json:"count,omitempty" minimum:"0" maximum:"10000" doc:"Plants of a group kept as one; one when absent"`
	GraftM   float64         `json:"graft_m,omitempty" doc:"Height of the graft; absent where there is none"`
	Purpose  pruning.Purpose `json:"purpose,omitempty" doc:"shape, size, renew, clear dead, frost damage, raise, thin, deadhead, hedge, train, sanitation, storm preparation or before lifting; shape when absent"`
	WantedM  float64         `json:"wanted_m,omitempty" doc:"Height it is to stand at after the next season"`
	CutM     float64         `json:"cut_m,omitempty" doc:"Height it is cut to, in place of a wanted one"`
	Share    float64         `json:"share,omitempty" doc:"Of the living crown that is to go, 0 to 1; as the purpose takes when absent"`
	Rules    *PruningRules   `json:"house_rules,omitempty" doc:"The firm's when absent"`
}

// PruningRules are the house rules that cuts hang on.
type PruningRules struct {
	CutPerennialsAtFrost bool `json:"cut_perennials_at_frost" doc:"Frosted perennials are cut back at the first killing frost"`
}

// PruningOut is what it comes to.
type PruningOut struct {
	pruning.Plan
	Species string       `json:"species" doc:"Common name"`
	From    day.Day      `json:"from" format:"date" doc:"First day of the garden year"`
	To      day.Day      `json:"to" format:"date" doc:"First day of the next"`
	Costs   reason.Costs `json:"costs" doc:"What each day of the garden year costs: 0 best to 100 worst, 101 never"`
	Rule    string       `json:"rule" doc:"The house rule that the result hangs on; empty where none"`
}

// ReckonPruning plans a cut from inline values or a kept plant, storing nothing.
func (h *House) ReckonPruning(ctx context.Context, in PruningIn) (PruningOut, error) {
	var bad invalid.Fields
	out := PruningOut{}
	if in.Plant != 0 {
		p, err := h.Store.Plant(ctx, in.Plant)
		if err != nil {
			return out, err
		}
		in.sized(p)
	}
	book, err := h.Book(ctx)
	if err != nil {
		return out, err
	}
	e, err := book.Species(in.Species)
	if err != nil {
		bad.Add("species", in.Species, "%v", err)
	}
	y, pl, err := h.yearOf(ctx, in.Climate, in.Property)
	if errors.Is(err, store.ErrNotFound) {
		return out, err
	}
	bad = append(bad, fields(err)...)
	if bad != nil {
		return out, bad
	}
	rules, err := h.pruningRules(ctx, in.Rules)
	if err != nil {
		return out, err
	}
	place := pruning.At(y)
	if pl != nil {
		place = pl.Cuts
	}
	out.Plan, err = pruning.For(pruning.Ask{Species: &e, Place: place, Date: h.DateOr(in.Date), HeightM: in.HeightM, SpreadM: in.SpreadM, GraftM: in.GraftM, Count: in.Count,
		Purpose: in.Purpose, WantedM: in.WantedM, CutM: in.CutM, Share: in.Share, Rules: rules})
	out.Species, out.Costs = e.Common, out.Plan.Curve.Costs()
	out.From, out.To = y.Normals.Climate.GardenYear(h.DateOr(in.Date))
	if e.LeafSeason == catalogue.Herbaceous {
		out.Rule = "Frosted perennials stand till late winter"
		if rules.PerennialsAtFrost {
			out.Rule = "Frosted perennials are cut back at once"
		}
	}
	return out, err
}

// sized takes from a kept plant what was not told.
func (in *PruningIn) sized(p store.Plant) {
	in.Property = p.PropertyID
	if in.Species == "" {
		in.Species = p.Species
	}
	if in.Count == 0 {
		in.Count = p.Count
	}
	for to, kept := range map[*float64]float64{&in.HeightM: p.HeightM, &in.SpreadM: p.SpreadM, &in.GraftM: p.GraftM} {
		if *to == 0 {
			*to = kept
		}
	}
}

func (h *House) pruningRules(ctx context.Context, told *PruningRules) (pruning.Rules, error) {
	if told != nil {
		return pruning.Rules{PerennialsAtFrost: told.CutPerennialsAtFrost}, nil
	}
	f, err := h.Firm(ctx)
	return pruning.Rules{PerennialsAtFrost: f.Rules.V.CutPerennialsAtFrost}, err
}

// CutsProposed are the cuts of a property's year.
type CutsProposed struct {
	Cuts    []CutProposed `json:"cuts" doc:"By the first day of their window"`
	Minutes int           `json:"minutes"`
	WasteM3 float64       `json:"waste_m3" doc:"Loose, m³: an estimate"`
}

// CutProposed is one cut that may be kept as a job.
type CutProposed struct {
	PlantID int64           `json:"plant_id"`
	Plant   string          `json:"plant"`
	Title   string          `json:"title"`
	Purpose pruning.Purpose `json:"purpose" enum:"shape,renew,hedge,clear dead"`
	Class   string          `json:"class"`
	From    day.Day         `json:"from" format:"date"`
	To      day.Day         `json:"to" format:"date"`
	Minutes int             `json:"minutes" doc:"For all plants of the group"`
	WasteM3 float64         `json:"waste_m3"`
	Skills  []string        `json:"skills"`
	Why     string          `json:"why"`
	Asked   bool            `json:"asked" doc:"A job for it stands already"`
	Hurt    bool            `json:"hurt" doc:"Likely hurt by the weather and not looked at yet: what is dead is told first"`
}

// ProposeCuts proposes a year of cuts for all plants of a property.
func (h *House) ProposeCuts(ctx context.Context, property int64) (CutsProposed, error) {
	out := CutsProposed{Cuts: []CutProposed{}}
	pl, err := h.Place(ctx, property)
	if err != nil {
		return out, err
	}
	plants, err := h.Store.Plants(ctx, property, 0, all)
	if err != nil {
		return out, err
	}
	standing, err := h.Store.PruneStanding(ctx, property)
	if err != nil {
		return out, err
	}
	t, err := h.Triage(ctx)
	if err != nil {
		return out, err
	}
	hurt := map[int64]bool{}
	for i := range t.plants {
		p := &t.plants[i]
		hurt[p.ID] = p.Look != nil && p.Look.Worth && !p.Decided
	}
	for _, p := range plants {
		e, known := pl.Book.Entry(p.Species)
		if !known {
			continue
		}
		if c, cut := h.proposeCut(pl, p, e); cut {
			c.Asked, c.Hurt = standing[p.ID], hurt[p.ID]
			if c.Hurt {
				c.Why = "Look at it first: the weather likely hurt it. " + c.Why
			}
			out.Cuts = append(out.Cuts, c)
			out.Minutes, out.WasteM3 = out.Minutes+c.Minutes, out.WasteM3+c.WasteM3
		}
	}
	slices.SortStableFunc(out.Cuts, func(x, y CutProposed) int { return cmp.Compare(x.From, y.From) })
	out.WasteM3 = quantity.Round(out.WasteM3, 0.1)
	return out, nil
}

// proposeCut is the next cut of a plant; false where none is proposed.
func (h *House) proposeCut(pl *Place, p store.Plant, e *catalogue.Entry) (CutProposed, bool) {
	purpose := pruning.Usual(e, p.Count)
	if purpose == "" {
		return CutProposed{}, false
	}
	ask := pruning.Ask{Species: e, Place: pl.Cuts, Date: pl.Today, HeightM: p.HeightM, SpreadM: p.SpreadM, Count: p.Count, Purpose: purpose,
		Rules: pruning.Rules{PerennialsAtFrost: pl.rules.CutPerennialsAtFrost}}
	plan, err := pruning.For(ask)
	if err != nil {
		return CutProposed{}, false // a size that no plan takes: the bench says which
	}
	look := pruning.Ahead(ask).Outlook(pl.Today)
	if look.Passed || !look.Window.From.Given() {
		return CutProposed{}, false
	}
	return CutProposed{PlantID: p.ID, Plant: plantTitle(pl.Book, p), Title: cutTitle(purpose, p, e), Purpose: purpose, Class: plan.Class,
		From: max(look.Window.From, pl.Today), To: look.Window.To, Minutes: min(job.MaxMinutes, plan.Minutes), WasteM3: quantity.Round(plan.WasteM3*float64(p.Count), 0.01),
		Skills: plan.Skills, Why: plan.Where}, true
}

func cutTitle(purpose pruning.Purpose, p store.Plant, e *catalogue.Entry) string {
	title := map[pruning.Purpose]string{pruning.Hedge: "Trim ", pruning.Dead: "Clear dead wood from "}[purpose]
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

// KeepCuts makes jobs of the cuts that were proposed for some plants, all in one write.
func (h *House) KeepCuts(ctx context.Context, key store.Key, property int64, plants []int64) ([]Order, error) {
	proposed, err := h.ProposeCuts(ctx, property)
	if err != nil {
		return nil, err
	}
	var bad invalid.Fields
	var orders []store.NewOrder
	for i, id := range plants {
		at := fmt.Sprintf("plants[%d]", i)
		n := slices.IndexFunc(proposed.Cuts, func(c CutProposed) bool { return c.PlantID == id })
		if n < 0 {
			bad.Add(at, id, "no cut is proposed for it")
			continue
		}
		c := proposed.Cuts[n]
		o, _, err := h.handOrder(ctx, HandOrder{PropertyID: property, Plants: []int64{id}, Title: c.Title, Kind: job.Prune, Purpose: string(c.Purpose),
			Minutes: max(1, c.Minutes), CrewSize: 1, Note: c.Why}, 0)
		if err != nil {
			return nil, err
		}
		o.Order.Skills = c.Skills
		orders = append(orders, o)
	}
	if bad != nil {
		return nil, bad
	}
	ids, err := store.Once(ctx, h.Store, key, func(tx store.Tx) ([]int64, error) {
		made := []int64{}
		for _, o := range orders {
			id, err := tx.AddOrder(ctx, o)
			if err != nil {
				return nil, err
			}
			made = append(made, id)
		}
		return made, nil
	})
	if err != nil {
		return nil, err
	}
	out := []Order{}
	for _, id := range ids {
		o, err := h.Order(ctx, id)
		if err != nil {
			return nil, err
		}
		out = append(out, o.Order)
	}
	return out, nil
}
