package treat

import (
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
	"mezzadro/house/work"
	"mezzadro/store"
)

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
	if err := h.asDone(ctx, pl, &u, on, in.Use); err != nil {
		return out, err
	}
	since := a
	since.Uses = append(slices.Clone(a.Uses), treatment.Use{Day: on, Active: u.Active, Step: u.Step, Rung: u.Rung})
	since.Date = max(a.Date, on)
	answer, err := treatment.Built().Plan(since)
	if err != nil {
		return out, err
	}
	next, due, asks := answer.After(since, params.Rung, params.Step, pl.Today)
	out.Write = func(ctx context.Context, tx store.Tx) error {
		if err := usedProduct(ctx, tx, &u, in.Use, params, pl.SprayLicensed()); err != nil {
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
	if in.Use != nil { // by the label of what was used, not by another product's of the same means
		a.Cards = slices.DeleteFunc(slices.Clone(a.Cards), func(c treatment.Card) bool {
			return c.Active == active && c.ID != in.Use.ProductID
		})
	}
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

// usedProduct checks what was used against its card, and keeps what the card says that day. More may be used than was
// entered as bought: what was sprayed was sprayed, and the shelf is counted after. anySpray: for hire any of it wants a
// licence there.
func usedProduct(ctx context.Context, tx store.Tx, u *store.Use, in *work.UseIn, params job.Params, anySpray bool) error {
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
	}
	number, refused, err := holder(ctx, tx, c.Card.V, params.Use, u.Who, anySpray)
	if err != nil {
		return err
	}
	bad = append(bad, refused...)
	u.ProductID, u.Product = sql.NullInt64{Int64: c.ID, Valid: true}, c.Card.V.Name
	u.Amount, u.Unit = in.Amount, c.Card.V.Unit
	u.Details.V.Licence, u.Details.V.Registration = number, c.Card.V.Number
	u.Details.V.ReentryH, u.Details.V.HarvestDays = c.Card.V.ReentryH, c.Card.V.HarvestDays
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
		if err := usedProduct(ctx, tx, &u, in.Use, k.Params.V, false); err != nil {
			return err
		}
		_, err := tx.AddUse(ctx, u)
		return err
	}}, nil
}
