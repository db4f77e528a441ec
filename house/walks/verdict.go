package walks

import (
	"context"
	"fmt"
	"math"

	"mezzadro/core/damage"
	"mezzadro/core/invalid"
	"mezzadro/core/lookout"
	"mezzadro/house/estate"
	"mezzadro/house/work"
	"mezzadro/store"
)

// DecisionIn is what the gardener decides about the verdict.
type DecisionIn struct {
	damage.Ruling
	Rev  *int  `json:"rev,omitempty" minimum:"0" doc:"Of the checks that were seen: where others have come in since, nothing is decided; whatever is kept when absent"`
	Read *Read `json:"read,omitempty" doc:"What was decided on without a connection: where it comes to something else by now, nothing is decided"`
}

// Read is a verdict as it was read.
type Read struct {
	Kind string  `json:"kind"`
	CutM float64 `json:"cut_m,omitempty" doc:"m; 0 without a cut"`
}

// sameCut is how far apart two cuts may be that are told as one, m.
const sameCut = 0.05

// holds reports that a verdict is still what was read.
func (r *Read) holds(v damage.Verdict) bool {
	return r == nil || r.Kind == v.Kind && math.Abs(r.CutM-v.CutM) <= sameCut
}

// Decided is what was kept.
type Decided struct {
	Verdict estate.Decision `json:"verdict"`
	Jobs    []work.Order    `json:"jobs" doc:"The work it asks for, with its after-care"`
}

// Decide keeps what the gardener decided and asks for the work that follows. Work that earlier verdicts on the same
// trouble asked for goes, unless it is done; work of any other origin stays.
func (h *Room) Decide(ctx context.Context, key store.Key, walk, plant int64, in DecisionIn) (Decided, error) {
	l, err := h.Store.Look(ctx, walk, plant)
	if err != nil {
		return Decided{}, err
	}
	if in.Rev != nil && *in.Rev != l.Rev {
		return Decided{}, estate.Stale(store.Stale{Yours: *in.Rev, Current: l}, estate.TellFound)
	}
	q, w, err := h.question(ctx, walk, plant, l.Checks)
	if err != nil {
		return Decided{}, err
	}
	a, note, err := damage.Decide(q, in.Ruling)
	if err != nil {
		return Decided{}, err
	}
	if !in.Read.holds(a.Verdict) {
		return Decided{}, invalid.One("read", in.Read.Kind, fmt.Sprintf("by what is known now it comes to something else (%s): decide again", a.Verdict.Kind))
	}
	shown, err := h.shown(ctx, q, plant)
	if err != nil {
		return Decided{}, err
	}
	on := h.Today()
	v, err := store.Once(ctx, h.Store, key, func(tx store.Tx) (estate.Decision, error) {
		if err := tx.StillAt(ctx, l); err != nil {
			return estate.Decision{}, estate.Stale(err, estate.TellFound)
		}
		kept, err := tx.KeepVerdict(ctx, store.Decision{WalkID: w.ID, PlantID: plant, Day: on.String(), Decision: in.Decision,
			Kind: a.Verdict.Kind, Sentence: a.Verdict.Sentence, Note: note}, a)
		v := estate.Decision(kept)
		if err != nil || in.Decision == lookout.PutOff {
			return v, err
		}
		if shown != nil {
			shown.VerdictID = v.ID
			if err := tx.KeepShown(ctx, *shown); err != nil {
				return v, err
			}
		}
		if err := tx.DropReplaced(ctx, plant, v.ID, a.Trouble); err != nil {
			return v, err
		}
		if a.Verdict.Kind == damage.Replace {
			if err := tx.DropWithPlant(ctx, plant, v.ID); err != nil {
				return v, err
			}
		}
		return v, h.askFor(ctx, tx, v.ID, w.PropertyID, plant, q, a)
	})
	if err != nil {
		return Decided{}, err
	}
	if err := h.Work.RefreshProperty(ctx, w.PropertyID); err != nil { // what waits for it has other days now
		return Decided{}, err
	}
	orders, err := h.Store.OrdersOfVerdict(ctx, v.ID)
	if err != nil {
		return Decided{}, err
	}
	jobs, err := h.Work.Listed(ctx, orders)
	return Decided{v, jobs}, err
}

// askFor keeps the orders of a verdict, with the gaps between them.
func (h *Room) askFor(
	ctx context.Context,
	tx store.Tx,
	verdict, property, plant int64,
	q damage.Question,
	a damage.Answer,
) error {
	orders := a.Orders()
	list := make([]store.NewOrder, len(orders))
	for i, o := range orders {
		list[i] = store.NewOrder{
			PropertyID: property,
			Plants:     []int64{plant},
			OriginID:   verdict,
			Trouble:    a.Trouble,
			Order:      o,
			Outlook:    q.Place.Curve(o, &q.Plant.Species).Outlook(q.Today),
		}
	}
	_, err := tx.AddTogether(ctx, list, nil)
	return err
}

// UndoVerdict takes a plant's latest decision back.
func (h *Room) UndoVerdict(ctx context.Context, key store.Key, id int64) error {
	_, err := store.Once(
		ctx,
		h.Store,
		key,
		func(tx store.Tx) (struct{}, error) { return struct{}{}, tx.UndoVerdict(ctx, id) },
	)
	if err != nil {
		return err
	}
	return h.heldAnew(ctx, id)
}

// heldAnew has the windows of a property follow a verdict that holds its work no more, or again.
func (h *Room) heldAnew(ctx context.Context, verdict int64) error {
	property, err := h.Store.PropertyOfVerdict(ctx, verdict)
	if err != nil {
		return err
	}
	return h.Work.RefreshProperty(ctx, property)
}
