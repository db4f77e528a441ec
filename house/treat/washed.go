package treat

import (
	"context"
	"fmt"

	"mezzadro/core/quantity"
	"mezzadro/core/treatment"
	"mezzadro/store"
)

// renewBack is how far back washed-off treatments are asked for again, days.
const renewBack = 10

// RenewWashed asks again for what rain washed off: the next time falls due at once, and the repeat after it hangs on
// that.
func (h *Room) RenewWashed(ctx context.Context, property int64) error {
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
func (h *Room) renew(ctx context.Context, u store.Use) error {
	f, err := h.Store.Find(ctx, u.FindID.Int64)
	there, err := store.There(err)
	if err != nil {
		return err
	}
	if !there || f.State != "open" {
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
					quantity.Day(store.DayOf(&u.Day)),
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
			_, err := tx.AddOrder(ctx, h.treatOrder(pl, f, p, o, u.OrderID.Int64, treatment.Dated{}))
			return err
		})
	}
	return nil
}
