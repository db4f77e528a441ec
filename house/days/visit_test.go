package days_test

import (
	"strings"
	"testing"

	"mezzadro/core/day"
	"mezzadro/core/job"
	"mezzadro/core/quantity"
	"mezzadro/house/crews"
	"mezzadro/house/days"
	"mezzadro/house/housetest"
	"mezzadro/house/standing"
	"mezzadro/house/work"
	"mezzadro/store"
)

// crewed is a house with two crews, and three properties with two jobs each on Monday 22 March, the first crew's at two of
// them; all clients know the day.
func crewed(t *testing.T) (*housetest.Kit, [3]int64, [2]crews.Crew, day.Day) {
	t.Helper()
	k := housetest.Open(t)
	monday := day.Of(2027, 3, 22)
	var both [2]crews.Crew
	for i, name := range []string{"North van", "South van"} {
		who, err := k.Team.KeepPerson(bg, store.Key{}, 0, crews.PersonIn{Name: name + " driver"})
		housetest.Must(t, who, err)
		in := crews.CrewIn{Name: name, People: []int64{who.ID}}
		for d := 1; d < 6; d++ {
			in.Hours[d].From, in.Hours[d].To = 480, 1020
		}
		c, err := k.Team.KeepCrew(bg, store.Key{}, 0, in)
		both[i] = housetest.Must(t, c, err)
	}
	var places [3]int64
	for i, name := range []string{"Dune Row", "Brook End", "Weir House"} {
		p := k.Property(name, "lake-foothills")
		places[i] = p.ID
		for _, title := range []string{"Sweep", "Rake"} {
			o, err := k.Work.AddOrder(bg, store.Key{}, work.HandOrder{PropertyID: p.ID, Title: title, Minutes: 60, CrewSize: 1, Spans: []work.SpanIn{{From: monday, To: monday + 25}}})
			housetest.Must(t, o, err)
			put, err := k.Work.PutOnDay(bg, store.Key{}, o.ID, work.PutIn{Day: monday, Crew: both[i/2].Name, Version: o.Version})
			housetest.Must(t, put, err)
			if err := k.Letters.Told(bg, store.Key{}, []int64{o.ID}, true); err != nil {
				t.Fatal(err)
			}
		}
	}
	return k, places, both, monday
}

// on counts a property's jobs on a day.
func on(t *testing.T, k *housetest.Kit, d day.Day, property int64) (n int) {
	t.Helper()
	s, err := k.Days.Sheet(bg, d, 0)
	for _, v := range housetest.Must(t, s, err).Visits {
		if v.PropertyID == property {
			for _, j := range v.Jobs {
				if j.State == job.Placed {
					n++
				}
			}
		}
	}
	return n
}

// TestVisitIsAThing: all jobs of a visit go to another day and crew in one write, come off in one, and stand as they did when
// that is taken back; a client who cancels has the reason stand on each.
func TestVisitIsAThing(t *testing.T) {
	k, places, both, monday := crewed(t)
	visit := days.VisitOf{Property: places[0], Day: monday, Crew: both[0].ID}
	out, err := k.Days.ChangeVisit(bg, store.Key{}, days.VisitIn{VisitOf: visit, Do: "move", To: monday + 2, ToCrew: both[1].ID})
	out = housetest.Must(t, out, err)
	if out.Moved != 2 || on(t, k, monday, places[0]) != 0 || on(t, k, monday+2, places[0]) != 2 {
		t.Errorf("moved: %+v", out)
	}
	o, err := k.Work.Order(bg, out.Was[0].Order)
	if o = housetest.Must(t, o, err); o.CrewID != both[1].ID {
		t.Errorf("goes with %s", o.Crew)
	}
	if back, err := k.Days.VisitBack(bg, store.Key{}, out.Was); err != nil || back.Moved != 2 || on(t, k, monday, places[0]) != 2 {
		t.Errorf("taken back: %+v, %v", back, err)
	}
	out, err = k.Days.ChangeVisit(bg, store.Key{}, days.VisitIn{VisitOf: visit, Do: "cancelled", Reason: "the client is away"})
	out = housetest.Must(t, out, err)
	o, err = k.Work.Order(bg, out.Was[0].Order)
	if o = housetest.Must(t, o, err); o.Day.Given() || o.PutOff != 1 || !strings.Contains(o.PutOffWhy, "away") || len(o.Stints) != 1 {
		t.Errorf("cancelled: %+v", o.Order)
	}
	if back, err := k.Days.VisitBack(bg, store.Key{}, out.Was); err != nil || back.Moved != 2 {
		t.Errorf("taken back: %+v, %v", back, err)
	}
	if o, err = k.Work.Order(bg, out.Was[0].Order); err != nil || o.PutOff != 0 || o.Day != monday {
		t.Errorf("as it stood: %+v, %v", o.Order, err)
	}
	for _, bad := range []days.VisitIn{{VisitOf: visit, Do: "move"}, {VisitOf: visit, Do: "cancelled"}, {VisitOf: visit, Do: "move", To: k.Estate.Today() - 1},
		{VisitOf: days.VisitOf{Property: places[0], Day: monday + 5}, Do: "off"}, {VisitOf: visit, Do: "move", To: monday + 400}} {
		if _, err := k.Days.ChangeVisit(bg, store.Key{}, bad); err == nil {
			t.Errorf("taken: %+v", bad)
		}
	}
}

// TestWashedOutDay: it rains on a day of three visits of whose days the clients know; each gets another day that the crew
// works and that is not over its hours, and a letter that says so; taken back all stands as before.
func TestWashedOutDay(t *testing.T) {
	k, places, both, monday := crewed(t)
	ask := days.LostIn{Day: monday, Why: "rain", All: true}
	plan, err := k.Days.LostDay(bg, ask)
	plan = housetest.Must(t, plan, err)
	if len(plan.Visits) != 3 {
		t.Fatalf("%d visits fall off: %+v", len(plan.Visits), plan.Visits)
	}
	for _, v := range plan.Visits {
		if !v.To.Given() || v.To <= monday || v.To.Weekday() == 0 || v.To.Weekday() == 6 || !v.Told {
			t.Errorf("%s goes to %s", v.Property, v.To)
		}
	}
	if on(t, k, monday, places[1]) != 2 {
		t.Error("asking alone has moved it")
	}
	done, err := k.Days.LoseDay(bg, store.Key{}, ask)
	done = housetest.Must(t, done, err)
	if done.Moved != 6 || on(t, k, monday, places[0])+on(t, k, monday, places[1])+on(t, k, monday, places[2]) != 0 {
		t.Errorf("%+v", done)
	}
	letters, err := k.Letters.Tellings(bg, 30, quantity.Style{})
	letters = housetest.Must(t, letters, err)
	if len(letters) != 3 || !strings.Contains(letters[0].Text, "not Monday, 22 March as we told you") {
		t.Errorf("%d letters: %+v", len(letters), letters)
	}
	if back, err := k.Days.VisitBack(bg, store.Key{}, done.Was); err != nil || back.Moved != 6 || on(t, k, monday, places[2]) != 2 {
		t.Errorf("taken back: %+v, %v", back, err)
	}
	// A crew that is away leaves the other one's visits alone.
	if plan, err = k.Days.LostDay(bg, days.LostIn{Day: monday, Crew: both[1].ID, Why: "crew away", All: true}); err != nil || len(plan.Visits) != 1 || plan.Visits[0].PropertyID != places[2] {
		t.Errorf("the south van is away: %+v, %v", plan.Visits, err)
	}
	// What has no day is told too: it was to be on Monday, and has none.
	if _, err := k.Days.ChangeVisit(bg, store.Key{}, days.VisitIn{VisitOf: days.VisitOf{Property: places[0], Day: monday, Crew: both[0].ID}, Do: "off"}); err != nil {
		t.Fatal(err)
	}
	letters, err = k.Letters.Tellings(bg, 30, quantity.Style{})
	if letters = housetest.Must(t, letters, err); len(letters) != 1 || letters[0].Day.Given() || !strings.Contains(letters[0].Text, "cannot come") {
		t.Errorf("a visit without a day: %+v", letters)
	}
}

// TestFlags: what cannot be is said where it stands: on a day off, outside the hours of the place, over the hours of who goes.
func TestFlags(t *testing.T) {
	k, places, both, monday := crewed(t)
	flags := func() string {
		s, err := k.Days.Sheet(bg, monday, 0)
		var out []string
		for _, v := range housetest.Must(t, s, err).Visits {
			out = append(out, v.Flags...)
		}
		return strings.Join(append(out, s.Flags...), "; ")
	}
	if got := flags(); got != "" {
		t.Errorf("all is well: %q", got)
	}
	c := both[0]
	in := crews.CrewIn{Name: c.Name, People: []int64{c.People[0].ID}, Hours: c.Hours, Off: []day.Day{monday}, Version: c.Version}
	c, err := k.Team.KeepCrew(bg, store.Key{}, c.ID, in)
	housetest.Must(t, c, err)
	if got := flags(); !strings.Contains(got, "North van") || strings.Contains(got, "South van") {
		t.Errorf("a day off: %q", got)
	}
	in.Off, in.Version = nil, c.Version
	in.Hours[1].From, in.Hours[1].To = 480, 600
	if _, err := k.Team.KeepCrew(bg, store.Key{}, c.ID, in); err != nil {
		t.Fatal(err)
	}
	if got := flags(); !strings.Contains(got, "North van") || !strings.Contains(got, "over") {
		t.Errorf("four hours of work in two: %q", got)
	}
	access := standing.Access{Shut: []int{1}}
	if _, err := k.Standing.SetAccess(bg, store.Key{}, places[2], access); err != nil {
		t.Fatal(err)
	}
	if got := flags(); !strings.Contains(got, "shut") {
		t.Errorf("shut on Mondays: %q", got)
	}
}
