package treat

import (
	"cmp"
	"context"
	"database/sql"
	"fmt"
	"slices"
	"strings"

	"mezzadro/core/day"
	"mezzadro/core/invalid"
	"mezzadro/core/job"
	"mezzadro/core/quantity"
	"mezzadro/core/treatment"
	"mezzadro/house/estate"
	"mezzadro/house/work"
	"mezzadro/store"
)

// licensed refuses a product that needs a licence where who used it holds none.
func licensed(ctx context.Context, tx store.Tx, product, licence, who string) error {
	people, err := tx.People(ctx)
	if err != nil {
		return err
	}
	holders := []string{}
	for _, p := range people {
		if slices.Contains(p.Skills.V, job.Restricted) {
			if strings.EqualFold(p.Name, who) {
				return nil
			}
			holders = append(holders, p.Name)
		}
	}
	text := fmt.Sprintf("%s needs a licence (%s)", product, licence)
	switch {
	case len(holders) == 0:
		text += ": nobody of the firm holds one by Settings, People"
	case who == "":
		text += fmt.Sprintf(": who used it? Licensed: %s", strings.Join(holders, ", "))
	default:
		text += fmt.Sprintf(", which %s does not hold. Licensed: %s", who, strings.Join(holders, ", "))
	}
	return invalid.One("use.who", who, text)
}

// treated keeps the use record of a treatment that was done, and asks for its next time or for the look whether it
// helped.
func (h *Room) treated(ctx context.Context, k store.OrderFull, on day.Day, in work.TickOffIn) (work.Followed, error) {
	out := work.Followed{GoesOn: true}
	f, err := h.Store.Find(ctx, k.OriginID)
	if err != nil {
		return out, err
	}
	a, pl, p, err := h.treatmentAsk(ctx, f)
	if err != nil {
		return out, err
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
	u.TempC, u.WindMS = weatherOf(pl, on, in.Use)
	since := a
	since.Uses = append(slices.Clone(a.Uses), treatment.Use{Day: on, Active: u.Active, Step: u.Step, Rung: u.Rung})
	since.Date = max(a.Date, on)
	answer, err := treatment.Built().Plan(since)
	if err != nil {
		return out, err
	}
	next, due, asks := answer.After(since, params.Rung, params.Step, pl.Today)
	out.Write = func(ctx context.Context, tx store.Tx) error {
		if err := usedProduct(ctx, tx, &u, in.Use, params); err != nil {
			return err
		}
		if err := within(a, u.Active, on, in); err != nil {
			return err
		}
		if _, err := tx.AddUse(ctx, u); err != nil || !asks {
			return err
		}
		_, err := tx.AddOrder(ctx, h.treatOrder(pl, f, p, next, k.ID, due))
		return err
	}
	return out, nil
}

// within refuses a use on a day that lies within a wait, unless who enters it says that it was so, and why.
func within(a treatment.Ask, active string, on day.Day, in work.TickOffIn) error {
	broken := treatment.Built().Breaks(a, active, on)
	if len(broken) == 0 {
		return nil
	}
	if in.Use == nil || !in.Use.Anyway {
		return invalid.One(
			"use.anyway",
			false,
			fmt.Sprintf(
				"on %s that was within a wait: %s. If it was used all the same, say so, and why",
				quantity.Day(on),
				strings.Join(broken, "; "),
			),
		)
	}
	if strings.TrimSpace(in.Note) == "" {
		return invalid.One("note", in.Note, "is missing: why was it used within a wait?")
	}
	return nil
}

// usedProduct checks what was used against its card and what is on hand.
func usedProduct(ctx context.Context, tx store.Tx, u *store.Use, in *work.UseIn, params job.Params) error {
	var bad invalid.Fields
	if in == nil {
		in = &work.UseIn{}
	}
	u.Who, u.SprayL = strings.TrimSpace(in.Who), in.SprayL
	if in.ProductID == 0 {
		if params.Use != "" && in.Amount > 0 {
			bad.Add("use.product_id", nil, "is missing: which product was it?")
		}
		return bad.Err()
	}
	c, err := tx.Product(ctx, in.ProductID)
	there, err := store.There(err)
	switch {
	case err != nil:
		return err
	case !there:
		bad.Add("use.product_id", in.ProductID, "is not there, or was removed")
		return bad
	case !treatment.Serves(c.Card.V.Active, params.Use):
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
			quantity.Tenth(c.OnHand),
			c.Card.V.Unit,
		)
	}
	if act := treatment.Built().Active(params.Use); c.Card.V.Licence != "" || act != nil && act.Licence {
		if err := licensed(ctx, tx, c.Card.V.Name, cmp.Or(c.Card.V.Licence, "for restricted products"), u.Who); err != nil {
			refused := invalid.Of(err)
			if refused == nil {
				return err
			}
			bad = append(bad, refused...)
		}
	}
	u.ProductID, u.Product = sql.NullInt64{Int64: c.ID, Valid: true}, c.Card.V.Name
	u.Amount, u.Unit = in.Amount, c.Card.V.Unit
	return bad.Err()
}

// fed keeps what a plant was fed with.
func (h *Room) fed(ctx context.Context, k store.OrderFull, on day.Day, in work.TickOffIn) (work.Followed, error) {
	if k.Params.V.Use == "" {
		return work.Followed{}, nil
	}
	u := store.Use{
		PropertyID: k.PropertyID,
		PlantID:    k.PlantID,
		OrderID:    sql.NullInt64{Int64: k.ID, Valid: true},
		Active:     k.Params.V.Use,
		Day:        on.String(),
		Plants:     1,
		Note:       in.Note,
	}
	p, err := h.Store.Plant(ctx, k.PlantID.Int64)
	there, err := store.There(err)
	if err != nil {
		return work.Followed{}, err
	}
	if there {
		u.Plants = max(1, p.Count)
	}
	return work.Followed{Write: func(ctx context.Context, tx store.Tx) error {
		if err := usedProduct(ctx, tx, &u, in.Use, k.Params.V); err != nil {
			return err
		}
		_, err := tx.AddUse(ctx, u)
		return err
	}}, nil
}

// weatherOf is the weather of the day as noted, or as the station saw it.
func weatherOf(pl *estate.Place, on day.Day, in *work.UseIn) (temp, wind sql.NullFloat64) {
	if e, seen := pl.Year.Extremes(on); seen {
		temp = sql.NullFloat64{Float64: quantity.Tenth(e.Max), Valid: true}
	}
	if in != nil && in.TempC != nil {
		temp = sql.NullFloat64{Float64: *in.TempC, Valid: true}
	}
	if in != nil && in.WindMS != nil {
		wind = sql.NullFloat64{Float64: *in.WindMS, Valid: true}
	}
	return temp, wind
}
