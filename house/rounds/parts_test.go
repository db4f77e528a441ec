package rounds

import (
	"context"
	"slices"
	"testing"

	"mezzadro/core/day"
	"mezzadro/core/job"
	"mezzadro/house/work"
	"mezzadro/store"
)

// TestLongJobOnDaysRunning: twenty hours for one person are three days running; taken, they are three jobs, what was to
// follow follows the last; put back it is one job again, as it was, and can be taken once more.
func TestLongJobOnDaysRunning(t *testing.T) {
	ctx, h := context.Background(), opened(t)
	props, err := h.Store.Properties(ctx, 0, 1)
	must(t, err)
	spans := []work.SpanIn{{From: h.Today(), To: h.Today() + 60}}
	long, err := h.Work.AddOrder(ctx, store.Key{}, work.HandOrder{PropertyID: props[0].ID, Title: "Clear the bank", Minutes: 1200, Spans: spans})
	must(t, err)
	after, err := h.Work.AddOrder(ctx, store.Key{}, work.HandOrder{PropertyID: props[0].ID, Title: "Sow the bank", Minutes: 30, Spans: spans,
		After: []work.AfterIn{{ID: long.ID, MinDays: 1}}})
	must(t, err)
	p, err := h.Propose(ctx, ProposalIn{Days: 14, Seconds: 20, Tries: 100})
	must(t, err)
	p = ends(t, h, p.ID)
	days, sown := []day.Day{}, day.None
	for _, v := range p.Visits {
		for _, o := range v.Jobs {
			if o.ID == long.ID {
				if want := job.DayTitle("Clear the bank", len(days)+1, 3); o.Title != want {
					t.Errorf("the part is called %q, want %q", o.Title, want)
				}
				days = append(days, v.Day)
			}
			if o.ID == after.ID {
				sown = v.Day
			}
		}
	}
	if len(days) != 3 || days[1] <= days[0] || days[2] <= days[1] || days[2]-days[0] > 2*job.RunningMost {
		t.Fatalf("it is on %v, want three days running; left %+v", days, p.Left)
	}
	if sown <= days[2] {
		t.Errorf("what follows is on %s, before the last part on %s", sown, days[2])
	}
	bank := func() (minutes int, on []day.Day) {
		list, err := h.Store.StandingOrders(ctx)
		must(t, err)
		for _, k := range list {
			if k.ID == long.ID || k.PartOf == long.ID {
				minutes += k.Minutes
				on = append(on, store.DayOf(k.Day))
			}
		}
		slices.Sort(on)
		return minutes, on
	}
	for range 2 {
		a, err := h.Accept(ctx, store.Key{}, p.ID)
		must(t, err)
		if m, on := bank(); m != 1200 || !slices.Equal(on, days) || len(a.Changed) > 0 {
			t.Errorf("taken: %d minutes on %v, want 1200 on %v; changed %v", m, on, days, a.Changed)
		}
		gaps, err := h.Store.Before(ctx, after.ID)
		must(t, err)
		if len(gaps) != 1 || gaps[0].Title != job.DayTitle("Clear the bank", 3, 3) {
			t.Errorf("what follows waits for %+v, want the last part", gaps)
		}
		b, err := h.TakeBack(ctx, store.Key{}, p.ID)
		must(t, err)
		if m, on := bank(); m != 1200 || len(on) != 1 || on[0].Given() || len(b.Changed) > 0 {
			t.Errorf("put back: %d minutes on %v; changed %v", m, on, b.Changed)
		}
		k, err := h.Store.Order(ctx, long.ID)
		must(t, err)
		if gaps, err = h.Store.Before(ctx, after.ID); err != nil || len(gaps) != 1 || gaps[0].OfID != long.ID || k.Title != "Clear the bank" {
			t.Errorf("put back: %q, and what follows waits for %+v %v", k.Title, gaps, err)
		}
	}
	if _, err := h.Accept(ctx, store.Key{}, p.ID); err != nil {
		t.Fatal(err)
	}
	list, err := h.Store.StandingOrders(ctx)
	must(t, err)
	for _, k := range list {
		if k.PartOf == long.ID {
			must(t, h.Work.Drop(ctx, store.Key{}, k.ID, k.Version))
		}
	}
	if b, err := h.TakeBack(ctx, store.Key{}, p.ID); err != nil || !slices.Contains(b.Changed, "Clear the bank") {
		t.Errorf("its parts were dropped meanwhile, and it was put back all the same: %+v %v", b, err)
	}
}
