package rounds

import (
	"context"
	"reflect"
	"testing"

	"mezzadro/core/job"
	"mezzadro/house/work"
	"mezzadro/store"
)

// reopened is the room after the program was ended and begun again.
func reopened(t *testing.T, h *Room) *Room {
	t.Helper()
	h.Close()
	again := New(h.House, h.Team, h.Work, nil, h.Standing, h.Learn)
	t.Cleanup(again.Close)
	return again
}

// TestProposalOutlivesTheProgram: somebody proposes rounds, the program is begun anew, and the proposal is there as it
// was: told and explained the same, taken, taken back and taken again, with a new start before each. What was changed
// meanwhile stays as it is; the next proposal has a number of its own and can go on from the old one.
func TestProposalOutlivesTheProgram(t *testing.T) {
	ctx, h := context.Background(), opened(t)
	if last, err := h.LastProposal(ctx); err != nil || last.ID != 0 {
		t.Errorf("before any: %+v, %v", last, err)
	}
	props, err := h.Store.Properties(ctx, 0, 1)
	must(t, err)
	long, err := h.Work.AddOrder(
		ctx,
		store.Key{},
		work.HandOrder{PropertyID: props[0].ID, Title: "Clear the bank", Minutes: 1200,
			Spans: []work.SpanIn{{From: h.Today(), To: h.Today() + 60}}},
	)
	must(t, err)
	p, err := h.Propose(ctx, ProposalIn{Days: 14, Seconds: 20, Tries: 60})
	must(t, err)
	p = ends(t, h, p.ID)
	first := p.Visits[0].Jobs[0]
	why, err := h.WhyThere(ctx, p.ID, first.ID, p.Visits[0].Parts[0])
	must(t, err)

	h = reopened(t, h)
	again, err := h.LastProposal(ctx)
	if err != nil || !reflect.DeepEqual(again, p) {
		t.Errorf("read again: %v\n%+v\nwas\n%+v", err, again, p)
	}
	if w, err := h.WhyThere(ctx, p.ID, first.ID, p.Visits[0].Parts[0]); err != nil || w.Text != why.Text {
		t.Errorf("why: %q, %v, was %q", w.Text, err, why.Text)
	}
	touched := ""
	for _, v := range p.Visits {
		for _, o := range v.Jobs {
			if o.ID != long.ID && o.ID != first.ID && touched == "" {
				_, err := h.Work.PutOnDay(ctx, store.Key{}, o.ID, work.PutIn{Day: h.Today() + 20, Version: o.Version})
				must(t, err)
				touched = o.Title
			}
		}
	}
	took, err := h.Accept(ctx, store.Key{}, p.ID)
	must(t, err)
	if took.Placed != 6 || len(took.Changed) != 1 || took.Changed[0] != touched { // three, and three parts of the bank
		t.Errorf("taken: %+v, want six and %q changed", took, touched)
	}

	h = reopened(t, h)
	if now, err := h.ReadProposal(ctx, p.ID); err != nil || now.State != "accepted" {
		t.Errorf("after taking it: %s, %v", now.State, err)
	}
	back, err := h.TakeBack(ctx, store.Key{}, p.ID)
	must(t, err)
	if o, err := h.Work.Order(ctx, long.ID); err != nil || o.State != job.Waiting || o.Minutes != 1200 {
		t.Errorf("taken back %+v, the bank is %+v, %v", back, o.Order, err)
	}

	h = reopened(t, h)
	if took, err = h.Accept(ctx, store.Key{}, p.ID); err != nil || took.Placed != 6 {
		t.Errorf("taken again: %+v, %v", took, err)
	}
	next, err := h.Propose(ctx, ProposalIn{Days: 14, Seconds: 20, Tries: 5, Base: p.ID})
	must(t, err)
	if next.ID <= p.ID {
		t.Errorf("the next is number %d after %d", next.ID, p.ID)
	}
	ends(t, h, next.ID)
	must(t, h.Store.Write(ctx, func(tx store.Tx) error { return tx.RemoveProperty(ctx, props[0].ID, true) }))
	_, err = h.Store.Erase(ctx, "property", props[0].ID)
	must(t, err)
	if last, err := reopened(t, h).LastProposal(ctx); err != nil || last.ID != 0 {
		t.Errorf("erased, its name stands in proposal %d, %v", last.ID, err)
	}
}
