package cuts

import (
	"cmp"
	"context"
	"fmt"
	"slices"

	"mezzadro/core/catalogue"
	"mezzadro/core/cause"
	"mezzadro/core/damage"
	"mezzadro/core/day"
	"mezzadro/core/hold"
	"mezzadro/core/invalid"
	"mezzadro/core/job"
	"mezzadro/core/lookout"
	"mezzadro/core/pruning"
	"mezzadro/core/quantity"
	"mezzadro/core/site"
	"mezzadro/house/estate"
	"mezzadro/store"
)

// CutsProposed are the cuts of a property's year.
type CutsProposed struct {
	Cuts    []CutProposed `json:"cuts" doc:"By the first day of their window, on one day sound plants before sick ones"`
	Minutes int           `json:"minutes"`
	WasteM3 float64       `json:"waste_m3" doc:"Loose, m³: an estimate"`
}

// CutProposed is one cut that may be kept as a job.
type CutProposed struct {
	PlantID  int64            `json:"plant_id"`
	Plant    string           `json:"plant"`
	Title    string           `json:"title"`
	Purpose  pruning.Purpose  `json:"purpose" enum:"shape,size,renew,clear dead,frost damage,raise,thin,deadhead,hedge,train,sanitation,storm preparation,before lifting"`
	Part     int              `json:"part,omitempty" doc:"Of a renewal over three years: which third comes next"`
	Class    string           `json:"class"`
	From     day.Day          `json:"from" format:"date"`
	To       day.Day          `json:"to" format:"date"`
	Minutes  int              `json:"minutes" doc:"For all plants of the group, without what follows"`
	WasteM3  float64          `json:"waste_m3"`
	Skills   []string         `json:"skills"`
	Why      string           `json:"why"`
	Rules    []string         `json:"rules" doc:"House rules that it hangs on"`
	Together []pruning.Follow `json:"together" doc:"What is done in the same visit"`
	Asked    bool             `json:"asked" doc:"A job for it stands already"`
	Done     day.Day          `json:"done,omitempty" format:"date" doc:"When it was last cut, where the record knows"`
	Hurt     bool             `json:"hurt" doc:"Likely hurt by the weather and not looked at yet: what is dead is told first"`
	Hold     *hold.Hold       `json:"hold,omitempty" doc:"Why it waits for what is not known yet of the plant; absent where nothing holds it"`
	Sick     string           `json:"sick,omitempty" doc:"What was found on it and is to be cut out"`

	plan pruning.Plan
	ask  pruning.Ask
	best day.Day
}

// CutWanted is a cut to keep, or to propose for another purpose.
type CutWanted struct {
	PlantID int64           `json:"plant_id" minimum:"1"`
	Purpose pruning.Purpose `json:"purpose,omitempty" maxLength:"40" doc:"As proposed when absent"`
}

// cutting is what the record tells of a property's plants for their cuts.
type cutting struct {
	pl     *estate.Place
	past   map[int64]pruning.Past
	asked  map[int64][]store.CutKept
	held   map[int64]*hold.Hold
	sick   map[int64]*cause.Cause
	wires  map[int64]bool // near a power line, by the plan
	doomed map[int64]bool // to be replaced, or with what kills it and asks for a licensed person: nothing is cut for its looks
}

// cutsRemembered is how far back cuts are asked for, days.
const cutsRemembered = 5 * 365

func (h *Room) cutting(ctx context.Context, pl *estate.Place) (cutting, error) {
	c := cutting{
		pl,
		map[int64]pruning.Past{},
		map[int64][]store.CutKept{},
		nil,
		map[int64]*cause.Cause{},
		nil,
		map[int64]bool{},
	}
	cuts, err := h.Store.Cuts(ctx, pl.Property.ID, (pl.Today - cutsRemembered).String())
	if err != nil {
		return c, err
	}
	for _, k := range cuts {
		done, p := k.Done(), c.past[k.PlantID]
		switch {
		case !done.Given():
			c.asked[k.PlantID] = append(c.asked[k.PlantID], k)
			continue
		case pruning.Purpose(k.Purpose).Yearly() && done > p.Last:
			p.Last = done
		}
		if k.Part > 0 && done > p.PartDone {
			p.Part, p.PartDone = k.Part, done
		}
		c.past[k.PlantID] = p
	}
	finds, err := h.Store.Finds(ctx, store.FindsOf{Property: pl.Property.ID, Open: true, Limit: store.All})
	if err != nil {
		return c, err
	}
	for _, f := range finds {
		if of := cause.Built().Cause(f.Cause); of != nil && f.PlantID.Valid {
			switch act, _ := of.Rung(f.Share); {
			case act == "cut":
				c.sick[f.PlantID.Int64] = of
			case dooming(of, f.Share):
				c.doomed[f.PlantID.Int64] = true
			}
		}
	}
	verdicts, err := h.Store.Verdicts(ctx, pl.Property.ID, (pl.Today - cutsRemembered).String())
	if err != nil {
		return c, err
	}
	for _, v := range verdicts {
		if v.Decision != lookout.PutOff && v.Kind == string(damage.Replace) {
			c.doomed[v.PlantID] = true
		}
	}
	t, err := h.Triage(ctx)
	if err != nil {
		return c, err
	}
	c.held = t.Held
	c.wires, err = h.wires(ctx, pl.Property.ID)
	return c, err
}

// ProposeCuts proposes a year of cuts for all plants of a property; for a plant with a wanted purpose, for that alone.
func (h *Room) ProposeCuts(ctx context.Context, property int64, wanted []CutWanted) (CutsProposed, error) {
	out := CutsProposed{Cuts: []CutProposed{}}
	var bad invalid.Fields
	for i, w := range wanted {
		if w.Purpose != "" && !slices.Contains(pruning.Purposes, w.Purpose) {
			bad.Add(
				fmt.Sprintf("cuts[%d].purpose", i),
				w.Purpose,
				"%q is no purpose; want one of %q",
				w.Purpose,
				pruning.Purposes,
			)
		}
	}
	if bad != nil {
		return out, bad
	}
	pl, err := h.Place(ctx, property)
	if err != nil {
		return out, err
	}
	plants, err := h.Store.Plants(ctx, property, 0, store.All)
	if err != nil {
		return out, err
	}
	known, err := h.cutting(ctx, pl)
	if err != nil {
		return out, err
	}
	purposes := make(map[int64]pruning.Purpose, len(wanted))
	for _, w := range wanted {
		purposes[w.PlantID] = w.Purpose
	}
	cuts, found := make([]CutProposed, len(plants)), make([]bool, len(plants))
	if err := estate.OnAllCores(len(plants), func(i int) error {
		cuts[i], found[i] = known.propose(plants[i], purposes[plants[i].ID])
		return nil
	}); err != nil {
		return out, err
	}
	for i, c := range cuts {
		if found[i] {
			out.Cuts = append(out.Cuts, c)
			out.Minutes, out.WasteM3 = out.Minutes+c.Minutes, out.WasteM3+c.WasteM3
		}
	}
	slices.SortStableFunc(out.Cuts, func(x, y CutProposed) int {
		return cmp.Or(cmp.Compare(x.From, y.From), cmp.Compare(x.Sick, y.Sick))
	})
	out.WasteM3 = quantity.Round(out.WasteM3, 0.1)
	return out, nil
}

// propose is the next cut of a plant, for a purpose where one is wanted; false where none is proposed.
func (c cutting) propose(p store.Plant, wanted pruning.Purpose) (CutProposed, bool) {
	e, known := c.pl.Book.Entry(p.Species)
	if !known {
		return CutProposed{}, false
	}
	purpose, part, from := c.due(p, e, wanted)
	if purpose == "" {
		return CutProposed{}, false
	}
	ask := pruning.Ask{
		Species: e,
		Place:   c.pl.Cuts,
		Date:    from,
		HeightM: p.HeightM,
		SpreadM: p.SpreadM,
		GraftM:  p.GraftM,
		Count:   p.Count,
		RowM:    p.RowM,
		Purpose: purpose,
		Part:    part,
		Rules:   c.pl.Rules,
		Wire:    c.wires[p.ID] || site.TellsOfLine(p.Label, p.Note),
	}
	plan, err := pruning.Coming(ask)
	if err != nil {
		return CutProposed{}, false // a size that no plan takes: the bench says which
	}
	look := plan.Curve.Outlook(from)
	if look.Passed || !look.Window.From.Given() {
		return CutProposed{}, false
	}
	return c.tell(p, ask, plan, look), true
}

// due is what a plant is cut for next, which third of a renewal, and from when: for what was found on it, for what is
// wanted, or as its year asks.
func (c cutting) due(p store.Plant, e *catalogue.Entry, wanted pruning.Purpose) (pruning.Purpose, int, day.Day) {
	if c.doomed[p.ID] && wanted == "" {
		return "", 0, c.pl.Today
	}
	of := pruning.Of{Count: p.Count, RowM: p.RowM, HeightM: p.HeightM, Rules: c.pl.Rules}
	purpose, part, from := pruning.Next(e, of, c.past[p.ID], c.pl.Today)
	if c.sick[p.ID] != nil {
		purpose, part, from = pruning.Sick, 0, c.pl.Today
	}
	if wanted == "" || wanted == purpose {
		return purpose, part, from
	}
	if wanted == pruning.Renew {
		return wanted, 1, c.pl.Today
	}
	return wanted, 0, c.pl.Today
}

// tell is a cut as it is proposed.
func (c cutting) tell(p store.Plant, ask pruning.Ask, plan pruning.Plan, look job.Outlook) CutProposed {
	out := CutProposed{
		PlantID:  p.ID,
		Plant:    estate.PlantTitle(c.pl.Book, p),
		Title:    pruning.Title(ask.Purpose, ask.Species, p.Count),
		Purpose:  ask.Purpose,
		Part:     ask.Part,
		Class:    plan.Class,
		From:     max(look.Window.From, ask.Date),
		To:       look.Window.To,
		Minutes:  min(job.MaxMinutes, plan.Minutes),
		WasteM3:  quantity.Round(plan.WasteM3*float64(p.Count), 0.01),
		Skills:   plan.Skills,
		Why:      plan.Where,
		Rules:    plan.Rules,
		Together: plan.Together,
		Asked:    c.stands(p.ID, ask.Purpose, ask.Part),
		Done:     c.past[p.ID].Last,
		plan:     plan,
		ask:      ask,
		best:     max(ask.Date, look.Best),
	}
	if sick := c.sick[p.ID]; sick != nil && ask.Purpose == pruning.Sick {
		out.Sick = sick.Name
		out.Why = "Found on it: " + sick.Name + ". Sound plants first; bag what is cut out, never on the compost."
	}
	if by := c.held[p.ID]; by.Binds(hold.CutFor(string(ask.Purpose))) {
		out.Hold, out.Hurt, out.Why = by, by.By == "weather", by.Why+" "+out.Why
		out.From, out.best = max(out.From, by.Until), max(out.best, by.Until)
	}
	return out
}

// stands reports that a job for such a cut of a plant is there already.
func (c cutting) stands(plant int64, purpose pruning.Purpose, part int) bool {
	return slices.ContainsFunc(c.asked[plant], func(k store.CutKept) bool {
		as := pruning.Purpose(k.Purpose)
		if part > 0 && k.Part > 0 {
			return k.Part == part
		}
		return as == purpose || as.Yearly() && purpose.Yearly()
	})
}
