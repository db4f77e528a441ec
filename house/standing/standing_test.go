package standing_test

import (
	"context"
	"errors"
	"testing"
	"time"

	"mezzadro/core/day"
	"mezzadro/core/invalid"
	"mezzadro/core/job"
	"mezzadro/core/quantity"
	"mezzadro/core/rounds"
	"mezzadro/house/crews"
	"mezzadro/house/housetest"
	roundsroom "mezzadro/house/rounds"
	"mezzadro/house/standing"
	"mezzadro/house/work"
	"mezzadro/store"
)

// kit is a record with a property and a crew that works from Monday to Friday; Good Friday is off.
type kit struct {
	*housetest.Kit
	t        *testing.T
	ctx      context.Context
	property int64
	crew     crews.Crew
	crewIn   crews.CrewIn
}

func open(t *testing.T) *kit {
	t.Helper()
	k := &kit{Kit: housetest.Open(t), t: t, ctx: context.Background()}
	k.property = k.Property("Villa Lumera", "lake-foothills").ID
	who, err := k.Team.KeepPerson(k.ctx, store.Key{}, 0, crews.PersonIn{Name: "Ilda"})
	who = housetest.Must(t, who, err)
	k.crewIn = crews.CrewIn{Name: "Crew 1", People: []int64{who.ID}, Off: []day.Day{day.Of(2027, 3, 26)}}
	for d := 1; d <= 5; d++ {
		k.crewIn.Hours[d] = rounds.Span{From: 480, To: 1020}
	}
	c, err := k.Team.KeepCrew(k.ctx, store.Key{}, 0, k.crewIn)
	k.crew = housetest.Must(t, c, err)
	return k
}

// fridays is a visit every other Friday from Good Friday on.
func (k *kit) fridays() standing.RegularIn {
	return standing.RegularIn{
		Standing: job.Standing{First: day.Of(2027, 3, 20), Weekday: time.Friday, Every: 2},
		CrewID:   k.crew.ID,
		Minutes:  90,
		Known:    true,
	}
}

// orders are the jobs of general care that stand, by their days.
func (k *kit) orders() map[day.Day]store.OrderFull {
	k.t.Helper()
	list, err := k.Estate.Store.StandingOrders(k.ctx)
	out := map[day.Day]store.OrderFull{}
	for _, o := range housetest.Must(k.t, list, err) {
		if o.Kind == job.Care {
			out[store.DayOf(o.Day)] = *o
		}
	}
	return out
}

// TestStandingVisitBecomesJobs: two months of them stand on their days with their crew; a holiday moves one, and that
// is the one of which the client is to be told.
func TestStandingVisitBecomesJobs(t *testing.T) {
	k := open(t)
	v, err := k.Standing.Add(k.ctx, store.Key{}, k.property, k.fridays())
	if err != nil {
		t.Fatal(err)
	}
	want := []day.Day{day.Of(2027, 3, 25), day.Of(2027, 4, 9), day.Of(2027, 4, 23), day.Of(2027, 5, 7)}
	got := k.orders()
	if len(got) != len(want) {
		t.Errorf("%d jobs within two months, want %d", len(got), len(want))
	}
	for _, on := range want {
		o, there := got[on]
		if !there || o.CrewID != k.crew.ID || o.Minutes != 90 || o.Title != "General care" || o.State != job.Placed {
			t.Errorf("%s: %+v", on, o.Order)
		}
		if knows := on != day.Of(2027, 3, 25); (o.Told == on.String()) != knows {
			t.Errorf("%s: the client was told %q", on, o.Told)
		}
	}
	if len(v.Next) != 4 || v.Next[0].Day != day.Of(2027, 3, 26) || v.Next[0].On != day.Of(2027, 3, 25) {
		t.Errorf("next: %+v", v.Next)
	}
	tell, err := k.Letters.Tellings(k.ctx, 60, housetestStyle)
	if err != nil || len(tell) != 1 || tell[0].Day != day.Of(2027, 3, 25) {
		t.Errorf("to be told of: %+v %v", tell, err)
	}

	// A second look makes nothing twice; a month later the next are there, and one that was dropped stays so.
	dropped := got[day.Of(2027, 4, 23)]
	if err := k.Work.Drop(k.ctx, store.Key{}, dropped.ID, dropped.Version); err != nil {
		t.Fatal(err)
	}
	for range 2 {
		if err := k.Standing.Ahead(k.ctx); err != nil {
			t.Fatal(err)
		}
	}
	if n := len(k.orders()); n != 3 {
		t.Errorf("%d jobs after one was dropped, want 3", n)
	}
	k.On += 28
	if err := k.Standing.Ahead(k.ctx); err != nil {
		t.Fatal(err)
	}
	got = k.orders()
	if _, back := got[day.Of(2027, 4, 23)]; back {
		t.Error("what was dropped by hand is there again")
	}
	for _, on := range []day.Day{day.Of(2027, 5, 21), day.Of(2027, 6, 4)} {
		if _, there := got[on]; !there {
			t.Errorf("a month later there is none on %s", on)
		}
	}
}

// TestStandingVisitMissed: one that nobody made ends when the next time has come, and says so.
func TestStandingVisitMissed(t *testing.T) {
	k := open(t)
	if _, err := k.Standing.Add(k.ctx, store.Key{}, k.property, k.fridays()); err != nil {
		t.Fatal(err)
	}
	first := k.orders()[day.Of(2027, 3, 25)]
	k.On = day.Of(2027, 4, 8)
	for _, c := range []struct {
		on   day.Day
		want job.State
	}{{day.Of(2027, 4, 8), job.Placed}, {day.Of(2027, 4, 9), job.Skipped}} {
		k.On = c.on
		if err := k.Standing.Ahead(k.ctx); err != nil {
			t.Fatal(err)
		}
		o, err := k.Estate.Store.Order(k.ctx, first.ID)
		if err != nil || o.State != c.want || (c.want == job.Skipped) != (o.Note != "") {
			t.Errorf("on %s: %s %q %v, want %s", c.on, o.State, o.Note, err, c.want)
		}
	}
}

// TestStandingVisitChanges: another weekday makes the days to come anew; what somebody pinned stays, and nothing is put
// beside it; ended it is gone, and comes back as it was.
func TestStandingVisitChanges(t *testing.T) {
	k := open(t)
	v, err := k.Standing.Add(k.ctx, store.Key{}, k.property, k.fridays())
	if err != nil {
		t.Fatal(err)
	}
	pinned := k.orders()[day.Of(2027, 4, 9)]
	if _, err := k.Rounds.PinOrder(k.ctx, store.Key{}, pinned.ID, pinned.Version, true); err != nil {
		t.Fatal(err)
	}
	in := k.fridays()
	in.Weekday, in.Title, in.Version = time.Tuesday, "Mow and edge", v.Version
	if v, err = k.Standing.Change(k.ctx, store.Key{}, v.ID, in); err != nil {
		t.Fatal(err)
	}
	got := k.orders()
	for _, on := range []day.Day{day.Of(2027, 3, 23), day.Of(2027, 4, 9), day.Of(2027, 4, 20), day.Of(2027, 5, 4)} {
		if _, there := got[on]; !there {
			t.Errorf("none on %s after the change", on)
		}
	}
	if len(got) != 5 { // 18 May too
		t.Errorf("%d jobs after the change: %v", len(got), got)
	}
	if _, err := k.Standing.Change(k.ctx, store.Key{}, v.ID, in); !errors.As(err, new(store.Stale)) {
		t.Errorf("an old version: %v", err)
	}
	if err := k.Standing.Remove(k.ctx, store.Key{}, v.ID); err != nil {
		t.Fatal(err)
	}
	if n := len(k.orders()); n != 1 {
		t.Errorf("%d jobs after it was ended, want the pinned one", n)
	}
	if err := k.Standing.Restore(k.ctx, store.Key{}, v.ID); err != nil {
		t.Fatal(err)
	}
	if n := len(k.orders()); n != 5 {
		t.Errorf("%d jobs after it was brought back", n)
	}
}

// TestStandingVisitRefused: what cannot be is named, and nothing is kept.
func TestStandingVisitRefused(t *testing.T) {
	k := open(t)
	in := k.fridays()
	in.Every, in.CrewID, in.First = 0, 99, day.None
	in.Months = [2]time.Month{4, 0}
	_, err := k.Standing.Add(k.ctx, store.Key{}, k.property, in)
	paths := map[string]bool{}
	for _, f := range invalid.Of(err) {
		paths[f.Path] = true
	}
	for _, want := range []string{"every", "crew_id", "first", "months"} {
		if !paths[want] {
			t.Errorf("%s is not named: %v", want, err)
		}
	}
	if list, err := k.Standing.Visits(k.ctx, 0); err != nil || len(list) != 0 || len(k.orders()) != 0 {
		t.Errorf("something was kept: %v %v", list, err)
	}
}

// TestRoundsHangOnStandingVisits: a job that may be done on any day of the fortnight goes along with the visit, and
// with the crew that the client knows.
func TestRoundsHangOnStandingVisits(t *testing.T) {
	k := open(t)
	other := k.crewIn
	who, err := k.Team.KeepPerson(k.ctx, store.Key{}, 0, crews.PersonIn{Name: "Bruno"})
	other.Name, other.People = "Crew 2", []int64{housetest.Must(t, who, err).ID}
	if _, err := k.Team.KeepCrew(k.ctx, store.Key{}, 0, other); err != nil {
		t.Fatal(err)
	}
	in := k.fridays()
	in.Weekday = time.Wednesday
	if _, err := k.Standing.Add(k.ctx, store.Key{}, k.property, in); err != nil {
		t.Fatal(err)
	}
	plant := k.Plant(k.property, "lavandula-angustifolia", 0.5)
	o, err := k.Work.AddOrder(k.ctx, store.Key{}, handOrder(k.property, plant.ID, k.On))
	o = housetest.Must(t, o, err)
	p, err := k.Rounds.Propose(k.ctx, roundsroom.ProposalIn{Days: 14, Seconds: 5, Tries: 200})
	if err != nil {
		t.Fatal(err)
	}
	for p.State == "working" {
		time.Sleep(10 * time.Millisecond)
		if p, err = k.Rounds.ReadProposal(context.Background(), p.ID); err != nil {
			t.Fatal(err)
		}
	}
	found := false
	for _, v := range p.Visits {
		care, job := false, false
		for _, j := range v.Jobs {
			care, job = care || j.Kind == "general care", job || j.ID == o.ID
		}
		if job {
			found = true
			if !care || v.Day != day.Of(2027, 3, 24) || p.Crews[v.Crew].ID != k.crew.ID {
				t.Errorf("on %s with %s, apart from the visit of Wednesday", v.Day, p.Crews[v.Crew].Name)
			}
		}
	}
	if !found {
		t.Errorf("the job has no day: %+v", p.Left)
	}
}

// housetestStyle is how letters are written here.
var housetestStyle = quantity.Style{}

// handOrder is half an hour of work on a plant that may be done on any day of a month.
func handOrder(property, plant int64, from day.Day) work.HandOrder {
	return work.HandOrder{
		PropertyID: property,
		Plants:     []int64{plant},
		Title:      "Stake",
		Minutes:    30,
		Spans:      []work.SpanIn{{From: from, To: from + 30}},
	}
}
