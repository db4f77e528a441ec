package ledger

import (
	"context"
	"fmt"

	"mezzadro/store"
)

// Send has the client's link show an estimate, kept as it is from then on: its jobs wait for an answer.
func (h *Room) Send(ctx context.Context, key store.Key, id int64, version int) (Estimate, error) {
	return h.turn(ctx, key, id, version, func(tx store.Tx, e *store.Estimate) error {
		told := h.tell(*e)
		switch {
		case e.State == sent:
			return store.Refused("this edition was sent already")
		case e.State == withdrawn:
			return store.Refused("this estimate was withdrawn; make another")
		case told.Currency == "":
			return store.Refused("no currency is chosen: enter the firm's rates first")
		case told.Unpriced > 0:
			return store.Refused(fmt.Sprintf("%d parts have no price yet: enter one, or take them out", told.Unpriced))
		case told.Until < h.Today():
			return store.Refused("its last day is past: give it another")
		case len(e.Body.V.Lines) == 0:
			return store.Refused("it has no line")
		}
		e.State = sent
		if err := tx.KeepSent(ctx, *e, h.Today().String()); err != nil {
			return err
		}
		for _, l := range e.Body.V.Lines {
			if l.Answer == nil {
				if err := h.agree(ctx, tx, l, "asked", ""); err != nil {
					return err
				}
			}
		}
		return nil
	})
}

// Withdraw takes an estimate back: no line of it can be answered any more, what was agreed stays agreed.
func (h *Room) Withdraw(ctx context.Context, key store.Key, id int64, version int) (Estimate, error) {
	return h.turn(ctx, key, id, version, func(tx store.Tx, e *store.Estimate) error {
		if e.State == withdrawn {
			return store.Refused("it was withdrawn already")
		}
		e.State = withdrawn
		for _, l := range e.Body.V.Lines {
			if l.Answer == nil {
				if err := h.agree(ctx, tx, l, "", ""); err != nil {
					return err
				}
			}
		}
		return nil
	})
}

// turn keeps an estimate in another state.
func (h *Room) turn(ctx context.Context, key store.Key, id int64, version int, f func(store.Tx, *store.Estimate) error) (Estimate, error) {
	out, err := store.Once(ctx, h.Store, key, func(tx store.Tx) (Estimate, error) {
		e, err := tx.Estimate(ctx, id)
		if err != nil {
			return Estimate{}, err
		}
		if version != e.Version {
			return Estimate{}, store.Stale{Yours: version, Current: h.tell(e)}
		}
		if err := f(tx, &e); err != nil {
			return Estimate{}, err
		}
		kept, err := tx.ChangeEstimate(ctx, e)
		return h.tell(kept), err
	})
	return out, err
}
