package house

import (
	"context"
	"database/sql"
	"fmt"
	"math"
	"slices"
	"strings"
	"time"

	"mezzadro/core/day"
	"mezzadro/core/invalid"
	"mezzadro/core/job"
	"mezzadro/core/quantity"
	"mezzadro/core/treatment"
	"mezzadro/store"
)

// Treatment is what is done about a find.
type Treatment struct {
	Find    Find              `json:"find"`
	Answer  treatment.Answer  `json:"answer"`
	Jobs    []Order           `json:"jobs" doc:"Those of it that stand"`
	History []treatment.Use   `json:"history" doc:"What was used or done on the plant in this garden year, with the rain that followed"`
	Plant   string            `json:"plant"`
	Actives map[string]string `json:"actives" doc:"Names of the means in the history, by id"`
}

// treatmentAsk is the question of a find.
func (h *House) treatmentAsk(ctx context.Context, f store.Find) (treatment.Ask, *Place, store.Plant, error) {
	a := treatment.Ask{Cause: f.Cause, Date: h.Today(), Share: f.Share}
	pl, err := h.Place(ctx, f.PropertyID)
	if err != nil {
		return a, nil, store.Plant{}, err
	}
	if !f.PlantID.Valid {
		return a, pl, store.Plant{}, store.Refused("this find names no plant: a treatment is for one, or for a group")
	}
	p, err := h.Store.Plant(ctx, f.PlantID.Int64)
	if err != nil {
		return a, pl, p, err
	}
	e := entryOf(pl.Book, p.Species)
	a.Species, a.Place, a.Rules, a.Count, a.HeightM, a.SpreadM = &e, pl.Cuts.Place, pl.rules, p.Count, p.HeightM, p.SpreadM
	a.Value, a.Shade = pl.Property.Value, p.Sun < shadyBelow
	a.Helpers = slices.ContainsFunc(f.Seen.V, func(s string) bool { return s == "mummies" || s == "helpers_larvae" })
	if a.Uses, err = h.usesOn(ctx, pl, p.ID, f.Cause, pl.Today-366); err != nil {
		return a, pl, p, err
	}
	a.Cards, err = h.cards(ctx)
	return a, pl, p, err
}

// usesOn is what was used on a plant, with the rain that followed; what was done against another cause is no step of this one.
func (h *House) usesOn(ctx context.Context, pl *Place, plant int64, cause string, since day.Day) ([]treatment.Use, error) {
	list, err := h.Store.UsesOn(ctx, plant, since.String())
	out := make([]treatment.Use, 0, len(list))
	for _, u := range list {
		rain, err := h.rainAfter(ctx, pl, u)
		if err != nil {
			return nil, err
		}
		use := treatment.Use{Day: parsed(&u.Day), Active: u.Active, RainMM: rain}
		if u.Cause == cause {
			use.Step, use.Rung = u.Step, u.Rung
		}
		out = append(out, use)
	}
	return out, err
}

// sprayedAt is the hour of the day from which rain counts where nobody noted when it was put on.
const sprayedAt = 18

// rainAfter is the rain within the hours in which it washes a means off, mm; 0 where rain does not matter or nothing is known.
func (h *House) rainAfter(ctx context.Context, pl *Place, u store.Use) (float64, error) {
	a := treatment.Built().Active(u.Active)
	if a == nil || a.RainH == 0 {
		return 0, nil
	}
	from := midnight(parsed(&u.Day), pl.Zone).Add(sprayedAt * time.Hour)
	to := from.Add(time.Duration(a.RainH * float64(time.Hour)))
	if known := h.known(pl.Today, pl.Zone); to.After(known) {
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
	return Tenth(sum), err
}

// TreatmentOf tells what is done about a find, today.
func (h *House) TreatmentOf(ctx context.Context, find int64) (Treatment, error) {
	out := Treatment{Jobs: []Order{}, Actives: map[string]string{}}
	f, err := h.Store.Find(ctx, find)
	if err != nil {
		return out, err
	}
	a, pl, p, err := h.treatmentAsk(ctx, f)
	if err != nil {
		return out, err
	}
	if out.Find, err = h.OneFind(ctx, f.ID); err != nil {
		return out, err
	}
	out.Plant, out.History = plantTitle(pl.Book, p), a.Uses
	for _, u := range a.Uses {
		if act := treatment.Built().Active(u.Active); act != nil {
			out.Actives[u.Active] = act.Name
		}
	}
	if out.Answer, err = treatment.Built().Plan(a); err != nil {
		return out, err
	}
	list, err := h.Store.TreatmentsOf(ctx, find)
	for _, k := range list {
		out.Jobs = append(out.Jobs, tellOrder(k.Order, pl.Book, pl.Today))
	}
	return out, err
}

// KeepTreatment makes jobs of the steps of a find's treatment that do not stand yet, all in one write.
func (h *House) KeepTreatment(ctx context.Context, key store.Key, find int64) (Treatment, error) {
	t, err := h.TreatmentOf(ctx, find)
	if err != nil {
		return t, err
	}
	f, err := h.Store.Find(ctx, find)
	if err != nil {
		return t, err
	}
	a, pl, p, err := h.treatmentAsk(ctx, f)
	if err != nil {
		return t, err
	}
	_, err = store.Once(ctx, h.Store, key, func(tx store.Tx) (int, error) {
		before, n := int64(0), 0
		standing, err := tx.TreatmentKeys(ctx, find)
		if err != nil {
			return n, err
		}
		for _, d := range t.Answer.Steps {
			o := t.Answer.Order(a, d)
			if slices.Contains(standing, o.Key) {
				continue
			}
			id, err := tx.AddOrder(ctx, h.treatOrder(pl, f, p, o, 0, before, d))
			if err != nil {
				return n, err
			}
			before = id
			n++
		}
		return n, nil
	})
	if err != nil {
		return t, err
	}
	return h.TreatmentOf(ctx, find)
}

// treatOrder is a treatment's job as it is kept, after the one before it.
func (h *House) treatOrder(
	pl *Place,
	f store.Find,
	p store.Plant,
	o job.Order,
	follows, after int64,
	d treatment.Dated,
) store.NewOrder {
	n := store.NewOrder{
		PropertyID: f.PropertyID,
		Plants:     []int64{p.ID},
		OriginID:   f.ID,
		Trouble:    "pest",
		Follows:    follows,
		Order:      o,
		Outlook:    pl.curve(o, []string{p.Species}).Outlook(pl.Today),
	}
	if after != 0 {
		n.Gaps = []store.GapRow{{OfID: after, Why: "the step before"}}
	}
	if follows != 0 {
		n.Gaps = []store.GapRow{{OfID: follows, MinDays: d.Every, Why: "the time before"}}
	}
	return n
}

// UseIn is what was used for a treatment.
type UseIn struct {
	ProductID int64    `json:"product_id,omitempty" doc:"The card; absent for work without a product"`
	Amount    float64  `json:"amount,omitempty" minimum:"0" doc:"Of the product, in its unit"`
	SprayL    float64  `json:"spray_l,omitempty" minimum:"0" maximum:"100000"`
	Who       string   `json:"who,omitempty" maxLength:"200"`
	TempC     *float64 `json:"temp_c,omitempty" doc:"From the station when absent"`
	WindMS    *float64 `json:"wind_ms,omitempty"`
}

// treated keeps the use record of a treatment that was done, and asks for its next time or for the look whether it helped.
func (h *House) treated(ctx context.Context, tx store.Tx, k store.OrderFull, on day.Day, in TickIn) error {
	f, err := h.Store.Find(ctx, k.OriginID)
	if err != nil {
		return err
	}
	a, pl, p, err := h.treatmentAsk(ctx, f)
	if err != nil {
		return err
	}
	params := k.Params.V
	u := store.Use{
		PropertyID: k.PropertyID,
		PlantID:    k.PlantID,
		FindID:     sql.NullInt64{Int64: f.ID, Valid: true},
		OrderID:    sql.NullInt64{Int64: k.ID, Valid: true},
		Active:     params.Use,
		Cause:      params.Cause,
		Rung:       params.Rung,
		Step:       params.Step,
		Day:        on.String(),
		Plants:     max(1, p.Count),
		Note:       in.Note,
	}
	if err := h.usedProduct(ctx, tx, &u, in.Use, params); err != nil {
		return err
	}
	u.TempC, u.WindMS = weatherOf(pl, on, in.Use)
	if _, err := tx.AddUse(ctx, u); err != nil {
		return err
	}
	a.Uses = append(a.Uses, treatment.Use{Day: on, Active: u.Active, Step: u.Step, Rung: u.Rung})
	a.Date = max(a.Date, on)
	answer, err := treatment.Built().Plan(a)
	if err != nil {
		return err
	}
	for _, d := range answer.Steps {
		if d.N == params.Step && answer.Rung == params.Rung {
			o := answer.Order(a, d)
			_, err := tx.AddOrder(ctx, h.treatOrder(pl, f, p, o, k.ID, 0, d))
			return err
		}
	}
	if answer.Look.Given() && (answer.Ends == "done" || len(answer.Steps) == 0) {
		o := job.Order{
			Key:     "look",
			Kind:    job.Look,
			Title:   "Look whether it helped: " + strings.ToLower(causeName(f.Cause)),
			Origin:  job.Programme,
			For:     pl.Today,
			Minutes: 10,
			Crew:    1,
			Params: job.Params{
				When: job.OnDay,
				Due:  answer.Look,
			},
			Skills:   []string{},
			Kit:      []string{},
			Reasons:  []string{"The treatment is done; close the find if it helped."},
			Cautions: []string{},
		}
		_, err := tx.AddOrder(ctx, h.treatOrder(pl, f, p, o, k.ID, 0, treatment.Dated{}))
		return err
	}
	return nil
}

// usedProduct checks what was used against its card and what is on hand.
func (h *House) usedProduct(ctx context.Context, tx store.Tx, u *store.Use, in *UseIn, params job.Params) error {
	var bad invalid.Fields
	if in == nil {
		in = &UseIn{}
	}
	u.Who, u.SprayL = strings.TrimSpace(in.Who), in.SprayL
	if in.ProductID == 0 {
		if params.Use != "" && in.Amount > 0 {
			bad.Add("use.product_id", nil, "is missing: which product was it?")
		}
		return bad.Err()
	}
	c, err := tx.Product(ctx, in.ProductID)
	switch {
	case err != nil:
		bad.Add("use.product_id", in.ProductID, "is not there, or was removed")
		return bad
	case c.Card.V.Active != params.Use:
		bad.Add("use.product_id", in.ProductID, "%s holds another means than this step asks for", c.Card.V.Name)
	case !(in.Amount > 0):
		bad.Add("use.amount", in.Amount, "how much of %s was used?", c.Card.V.Name)
	case in.Amount > c.OnHand+1e-6:
		bad.Add(
			"use.amount",
			in.Amount,
			"%g %s is more than the %g %s on hand: add the lot that was bought",
			in.Amount,
			c.Card.V.Unit,
			Tenth(c.OnHand),
			c.Card.V.Unit,
		)
	}
	u.ProductID, u.Product = sql.NullInt64{Int64: c.ID, Valid: true}, c.Card.V.Name
	u.Amount, u.Unit = in.Amount, c.Card.V.Unit
	return bad.Err()
}

// weatherOf is the weather of the day as noted, or as the station saw it.
func weatherOf(pl *Place, on day.Day, in *UseIn) (temp, wind sql.NullFloat64) {
	if e, seen := pl.Year.Extremes(on); seen {
		temp = sql.NullFloat64{Float64: Tenth(e.Max), Valid: true}
	}
	if in != nil && in.TempC != nil {
		temp = sql.NullFloat64{Float64: *in.TempC, Valid: true}
	}
	if in != nil && in.WindMS != nil {
		wind = sql.NullFloat64{Float64: *in.WindMS, Valid: true}
	}
	return temp, wind
}

// renewBack is how far back washed-off treatments are asked for again, days.
const renewBack = 10

// renewWashed asks again for what rain washed off: the next time falls due at once, and the repeat after it hangs on that.
func (h *House) renewWashed(ctx context.Context, property int64) error {
	today := h.Today()
	list, err := h.Store.UsesBetween(ctx, property, (today - renewBack).String(), today.String(), usesShown)
	if err != nil {
		return err
	}
	for _, u := range list {
		if !u.FindID.Valid || !u.OrderID.Valid {
			continue
		}
		if err := h.renew(ctx, u); err != nil {
			return err
		}
	}
	return nil
}

// renew asks again for one use that was washed off, once.
func (h *House) renew(ctx context.Context, u store.Use) error {
	f, err := h.Store.Find(ctx, u.FindID.Int64)
	if err != nil || f.State != "open" {
		return nil // the find was closed or removed meanwhile: nothing is asked for it
	}
	a, pl, p, err := h.treatmentAsk(ctx, f)
	if err != nil {
		return err
	}
	rain, err := h.rainAfter(ctx, pl, u)
	if err != nil || rain < treatment.WashedMM {
		return err
	}
	answer, err := treatment.Built().Plan(a)
	if err != nil {
		return err
	}
	key := fmt.Sprintf("again %d", u.ID)
	for _, d := range answer.Steps {
		if d.N != u.Step || answer.Rung != u.Rung {
			continue
		}
		o := answer.Order(a, d)
		o.Key, o.Title, o.Params.Due = key, "Again: "+o.Title, max(d.Day, pl.Today)
		o.Reasons = append(
			[]string{
				fmt.Sprintf(
					"Rain washed off what was put on %s: %s fell.",
					quantity.Day(parsed(&u.Day)),
					quantity.Rain(rain),
				),
			},
			o.Reasons...)
		return h.Store.Write(ctx, func(tx store.Tx) error {
			if asked, err := tx.HasOrder(ctx, f.ID, key); err != nil || asked {
				return err
			}
			if err := tx.TakeBackSuccessor(ctx, u.OrderID.Int64); err != nil {
				return err
			}
			_, err := tx.AddOrder(ctx, h.treatOrder(pl, f, p, o, u.OrderID.Int64, 0, treatment.Dated{}))
			return err
		})
	}
	return nil
}
