package rounds

import (
	"context"
	"slices"
	"testing"

	"mezzadro/core/day"
	"mezzadro/core/job"
	"mezzadro/core/rounds"
	"mezzadro/house/crews"
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
	long, err := h.Work.AddOrder(
		ctx,
		store.Key{},
		work.HandOrder{PropertyID: props[0].ID, Title: "Clear the bank", Minutes: 1200, Spans: spans},
	)
	must(t, err)
	after, err := h.Work.AddOrder(
		ctx,
		store.Key{},
		work.HandOrder{PropertyID: props[0].ID, Title: "Sow the bank", Minutes: 30, Spans: spans,
			After: []work.AfterIn{{ID: long.ID, MinDays: 1}}},
	)
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
		if gaps, err = h.Store.Before(ctx, after.ID); err != nil || len(gaps) != 1 || gaps[0].OfID != long.ID ||
			k.Title != "Clear the bank" {
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

// TestTwoCrewsJoin: what needs three people is done by a crew of two and a crew of one on the same morning, from the
// same hour; each has a job of its own that names the other, and put back it is one.
func TestTwoCrewsJoin(t *testing.T) {
	ctx, h := context.Background(), opened(t)
	pair := crews.CrewIn{Name: "The pair"}
	for _, name := range []string{"Tea", "Bruno"} {
		who, err := h.Team.KeepPerson(ctx, store.Key{}, 0, crews.PersonIn{Name: name})
		must(t, err)
		pair.People = append(pair.People, who.ID)
	}
	for d := range pair.Hours {
		pair.Hours[d] = rounds.Span{From: 420, To: 960}
	}
	_, err := h.Team.KeepCrew(ctx, store.Key{}, 0, pair)
	must(t, err)
	props, err := h.Store.Properties(ctx, 0, 1)
	must(t, err)
	big, err := h.Work.AddOrder(
		ctx,
		store.Key{},
		work.HandOrder{PropertyID: props[0].ID, Title: "Carry the trough", Minutes: 90, CrewSize: 3,
			Spans: []work.SpanIn{{From: h.Today(), To: h.Today() + 60}}},
	)
	must(t, err)
	p, err := h.Propose(ctx, ProposalIn{Days: 7, Seconds: 20, Tries: 100})
	must(t, err)
	p = ends(t, h, p.ID)
	titles, from := []string{}, map[int]bool{}
	for _, v := range p.Visits {
		for _, o := range v.Jobs {
			if o.ID == big.ID {
				titles, from[int(v.Day)*2000+v.From] = append(titles, o.Title), true
			}
		}
	}
	slices.Sort(titles)
	if !slices.Equal(titles, []string{"Carry the trough, with Ilda", "Carry the trough, with The pair"}) ||
		len(from) != 1 {
		t.Fatalf("it is %q at %d hours; left %+v", titles, len(from), p.Left)
	}
	if _, err := h.Accept(ctx, store.Key{}, p.ID); err != nil {
		t.Fatal(err)
	}
	list, err := h.Store.StandingOrders(ctx)
	must(t, err)
	people, crews := 0, map[int64]bool{}
	for _, k := range list {
		if k.ID == big.ID || k.PartOf == big.ID {
			people, crews[k.CrewID] = people+k.CrewSize, true
		}
	}
	if people != 3 || len(crews) != 2 {
		t.Errorf("%d people of %d crews", people, len(crews))
	}
	if _, err := h.TakeBack(ctx, store.Key{}, p.ID); err != nil {
		t.Fatal(err)
	}
	if k, err := h.Store.Order(ctx, big.ID); err != nil || k.CrewSize != 3 || k.Minutes != 90 ||
		k.Title != "Carry the trough" ||
		k.Day != nil {
		t.Errorf("put back: %+v %v", k.Order, err)
	}
}

// TestNobodyComesAlone: where one of two crews has no day for a job that needs both, neither is sent.
func TestNobodyComesAlone(t *testing.T) {
	of := &planned{parts: map[int]part{0: {n: 0}, 2: {n: 1}}}
	for _, id := range []int64{7, 8, 7} {
		of.orders = append(of.orders, &store.OrderFull{Order: store.Order{ID: id}})
	}
	plan := rounds.Plan{
		Visits: []rounds.Visit{{Crew: 0, Jobs: []int{0}}, {Crew: 0, Jobs: []int{1}}},
		Left:   []rounds.Left{{Job: 2, Why: "It stands on another day."}},
	}
	of.alone(&plan)
	if len(plan.Visits) != 1 || !slices.Equal(plan.Visits[0].Jobs, []int{1}) || len(plan.Left) != 2 ||
		plan.Left[1].Job != 0 {
		t.Errorf("%+v %+v", plan.Visits, plan.Left)
	}
}
