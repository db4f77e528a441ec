package treat

import (
	"cmp"
	"context"
	"fmt"
	"math"
	"slices"
	"time"

	"mezzadro/core/day"
	"mezzadro/core/job"
	"mezzadro/core/quantity"
	"mezzadro/core/treatment"
	"mezzadro/house/estate"
	"mezzadro/house/finds"
	"mezzadro/house/work"
	"mezzadro/store"
)

// Treatment is what is done about a find.
type Treatment struct {
	Find    finds.Find        `json:"find"`
	Answer  treatment.Answer  `json:"answer"`
	Jobs    []work.Order      `json:"jobs" doc:"Those of it that stand"`
	History []treatment.Use   `json:"history" doc:"What was used or done on the plant in this garden year, with the rain that followed"`
	Plant   string            `json:"plant"`
	Count   int               `json:"count" doc:"Plants of the group"`
	Edible  bool              `json:"edible" doc:"It is eaten from"`
	Actives map[string]string `json:"actives" doc:"Names of the means in the history, by id"`
	Takes   Takes             `json:"takes" doc:"What all times still to come take on it"`
	Along   []AlongPlant      `json:"along" doc:"Others on the property that can have it too: treated together, left by the sun, or looked at where only those that show it are treated"`
}

// KeepTreatmentIn is whose treatment becomes jobs.
type KeepTreatmentIn struct {
	Plants []int64 `json:"plants,omitempty" maxItems:"200" doc:"Others that are treated along, by id"`
}

// treatmentAsk is the question of a find.
func (h *Room) treatmentAsk(ctx context.Context, f store.Find) (treatment.Ask, *estate.Place, store.Plant, error) {
	pl, err := h.Place(ctx, f.PropertyID)
	if err != nil {
		return treatment.Ask{}, nil, store.Plant{}, err
	}
	if !f.PlantID.Valid {
		return treatment.Ask{}, pl, store.Plant{}, store.Refused(
			"this find names no plant: a treatment is for one, or for a group",
		)
	}
	p, err := h.Store.Plant(ctx, f.PlantID.Int64)
	if err != nil {
		return treatment.Ask{}, pl, p, err
	}
	cards, err := h.Cards(ctx)
	if err != nil {
		return treatment.Ask{}, pl, p, err
	}
	a, err := h.treatmentOn(ctx, pl, p, f, cards)
	return a, pl, p, err
}

// treatmentOn is the question of a cause on a plant.
func (h *Room) treatmentOn(
	ctx context.Context,
	pl *estate.Place,
	p store.Plant,
	f store.Find,
	cards []treatment.Card,
) (treatment.Ask, error) {
	e := estate.EntryOf(pl.Book, p.Species)
	a := treatment.Ask{
		Cause:    f.Cause,
		Prevent:  f.Prevent,
		Date:     h.Today(),
		Share:    f.Share,
		Species:  &e,
		Place:    pl.Cuts.Place,
		Rules:    pl.Rules,
		Count:    p.Count,
		Affected: min(f.Affected, p.Count),
		HeightM:  p.HeightM,
		SpreadM:  p.SpreadM,
		RowM:     p.RowM,
		BedM2:    cmp.Or(f.BedM2, p.BedM2),
		Value:    pl.Property.Value,
		Shade:    treatment.Shaded(p.Sun),
		Helpers:  slices.ContainsFunc(f.Seen.V, func(s string) bool { return s == "mummies" || s == "helpers_larvae" }),
		Cards:    cards,
	}
	if f.Harvest != "" {
		a.Harvest = store.DayOf(&f.Harvest)
	}
	var err error
	a.Uses, err = h.usesOn(ctx, pl, p.ID, f.Cause, pl.Today-366)
	return a, err
}

// usesOn is what was used on a plant, with the rain that followed; what was done against another cause is no step of
// this one.
func (h *Room) usesOn(
	ctx context.Context,
	pl *estate.Place,
	plant int64,
	cause string,
	since day.Day,
) ([]treatment.Use, error) {
	list, err := h.Store.UsesOn(ctx, plant, since.String())
	out := make([]treatment.Use, 0, len(list))
	for _, u := range list {
		rain, err := h.rainAfter(ctx, pl, u)
		if err != nil {
			return nil, err
		}
		use := treatment.Use{Day: store.DayOf(&u.Day), Active: u.Active, RainMM: rain, Card: u.ProductID.Int64}
		if u.Cause == cause {
			use.Step, use.Rung = u.Step, u.Rung
		}
		out = append(out, use)
	}
	return out, err
}

// sprayedAt is the hour of the day from which rain counts where nobody noted when it was put on.
const sprayedAt = 18

// rainAfter is the rain within the hours in which it washes a means off, mm; 0 where rain does not matter or nothing
// is known.
func (h *Room) rainAfter(ctx context.Context, pl *estate.Place, u store.Use) (float64, error) {
	a := treatment.Built().Active(u.Active)
	if a == nil || a.RainH == 0 {
		return 0, nil
	}
	from := store.DayOf(&u.Day).Midnight(pl.Zone).Add(sprayedAt * time.Hour)
	to := from.Add(time.Duration(a.RainH * float64(time.Hour)))
	if known := h.KnownUntil(pl.Today, pl.Zone); to.After(known) {
		to = known
	}
	if !to.After(from) {
		return 0, nil
	}
	hours, err := h.Store.Weather(ctx, pl.Property.ID, from, to)
	sum := 0.0
	for _, w := range hours {
		if !math.IsNaN(w.RainMM) {
			sum += w.RainMM
		}
	}
	return quantity.Tenth(sum), err
}

// TreatmentOf tells what is done about a find, today.
func (h *Room) TreatmentOf(ctx context.Context, find int64) (Treatment, error) {
	out := Treatment{Jobs: []work.Order{}, Actives: map[string]string{}, Along: []AlongPlant{}}
	f, err := h.Store.Find(ctx, find)
	if err != nil {
		return out, err
	}
	a, pl, p, err := h.treatmentAsk(ctx, f)
	if err != nil {
		return out, err
	}
	if out.Find, err = h.Finds.OneFind(ctx, f.ID); err != nil {
		return out, err
	}
	out.Plant, out.History, out.Count, out.Edible = estate.PlantTitle(pl.Book, p), a.Uses, p.Count, a.Species.Edible != ""
	for _, u := range a.Uses {
		if act := treatment.Built().Active(u.Active); act != nil {
			out.Actives[u.Active] = act.Name
		}
	}
	if out.Answer, err = treatment.Built().Plan(a); err != nil {
		return out, err
	}
	out.Takes = takes(out.Answer, a.Cards)
	if out.Along, err = h.along(ctx, pl, p, f, a.Cards); err != nil {
		return out, err
	}
	list, err := h.Store.TreatmentsOf(ctx, find)
	for _, k := range list {
		out.Jobs = append(out.Jobs, work.TellOrder(k.Order, pl.Book, pl.Today))
	}
	return out, err
}

// treating is a find's treatment as it becomes jobs.
type treating struct {
	find   store.Find
	plant  store.Plant
	ask    treatment.Ask
	answer treatment.Answer
}

// KeepTreatment makes jobs of the steps of a find's treatment that do not stand yet, and of the same on others that
// are treated along, all in one write.
func (h *Room) KeepTreatment(ctx context.Context, key store.Key, find int64, in KeepTreatmentIn) (Treatment, error) {
	f, err := h.Store.Find(ctx, find)
	if err != nil {
		return Treatment{}, err
	}
	a, pl, p, err := h.treatmentAsk(ctx, f)
	if err != nil {
		return Treatment{}, err
	}
	all := []treating{{find: f, plant: p, ask: a}}
	for i, id := range in.Plants {
		other, err := h.treatedAlong(ctx, pl, f, fmt.Sprintf("plants[%d]", i), id, a.Cards)
		if err != nil {
			return Treatment{}, err
		}
		all = append(all, other)
	}
	for i := range all {
		if all[i].answer, err = treatment.Built().Plan(all[i].ask); err != nil {
			return Treatment{}, err
		}
	}
	_, err = store.Once(ctx, h.Store, key, func(tx store.Tx) (int, error) {
		made := 0
		for _, t := range all {
			n, err := h.keepSteps(ctx, tx, pl, t)
			if err != nil {
				return made, err
			}
			made += n
		}
		return made, nil
	})
	if err != nil {
		return Treatment{}, err
	}
	return h.TreatmentOf(ctx, find)
}

// keepSteps keeps the steps that do not stand yet; of a plant that is treated along the find first.
func (h *Room) keepSteps(ctx context.Context, tx store.Tx, pl *estate.Place, t treating) (made int, err error) {
	if t.find.ID == 0 {
		if t.find, err = tx.FindOn(ctx, t.find); err != nil {
			return 0, err
		}
	}
	standing, err := tx.TreatmentKeys(ctx, t.find.ID)
	if err != nil {
		return 0, err
	}
	ids := make([]int64, len(t.answer.Steps))
	for i, d := range t.answer.Steps {
		o := t.answer.Order(t.ask, d)
		if ids[i] = standing[o.Key]; ids[i] != 0 {
			continue
		}
		if ids[i], err = tx.AddOrder(ctx, h.treatOrder(pl, t.find, t.plant, o, 0, d)); err != nil {
			return made, err
		}
		made++
	}
	return made, tx.Chain(ctx, ids, "the step before")
}

// treatOrder is a treatment's job as it is kept; one that follows another comes after the time before.
func (h *Room) treatOrder(
	pl *estate.Place,
	f store.Find,
	p store.Plant,
	o job.Order,
	follows int64,
	d treatment.Dated,
) store.NewOrder {
	if pl.SprayLicensed() && treatment.Built().Pesticide(o.Params.Use) && !slices.Contains(o.Skills, job.Restricted) {
		o.Skills = append(o.Skills, job.Spraying)
	}
	n := store.NewOrder{
		PropertyID: f.PropertyID,
		Plants:     []int64{p.ID},
		OriginID:   f.ID,
		Trouble:    "pest",
		Follows:    follows,
		Order:      o,
		Outlook:    pl.Curve(o, []string{p.Species}).Outlook(pl.Today),
	}
	if follows != 0 {
		n.Gaps = []store.GapRow{{OfID: follows, MinDays: d.Every, Why: "the time before"}}
	}
	return n
}
