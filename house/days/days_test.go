package days_test

import (
	"context"
	"errors"
	"strings"
	"testing"

	"mezzadro/core/damage"
	"mezzadro/core/day"
	"mezzadro/core/job"
	"mezzadro/core/quantity"
	"mezzadro/house/crews"
	"mezzadro/house/days"
	"mezzadro/house/housetest"
	"mezzadro/house/walks"
	"mezzadro/house/work"
	"mezzadro/store"
)

var bg = context.Background()

// sheetOf is the one job of a plant on a day's sheet.
func sheetOf(t *testing.T, k *housetest.Kit, plant int64) days.SheetJob {
	t.Helper()
	s, err := k.Days.Sheet(bg, k.Estate.Today(), 0)
	for _, v := range housetest.Must(t, s, err).Visits {
		for _, j := range v.Jobs {
			if j.PlantID == plant {
				return j
			}
		}
	}
	t.Fatalf("no job of plant %d on the sheet", plant)
	return days.SheetJob{}
}

// TestSheetOfRenamedCrew: a crew with another name has the sheet that it was given under the old one, and one that is not
// there is not found.
func TestSheetOfRenamedCrew(t *testing.T) {
	k := housetest.Open(t)
	p := k.Property("Weir House", "lake-foothills")
	on := k.Estate.Today() + 1
	who, err := k.Team.KeepPerson(bg, store.Key{}, 0, crews.PersonIn{Name: "Ilda"})
	housetest.Must(t, who, err)
	in := crews.CrewIn{Name: "Ilda", People: []int64{who.ID}}
	for d := range in.Hours {
		in.Hours[d].From, in.Hours[d].To = 480, 1020
	}
	c, err := k.Team.KeepCrew(bg, store.Key{}, 0, in)
	housetest.Must(t, c, err)
	job, err := k.Work.AddOrder(bg, store.Key{}, work.HandOrder{PropertyID: p.ID, Title: "Sweep", Minutes: 60, Spans: []work.SpanIn{{From: on, To: on + 60}}})
	housetest.Must(t, job, err)
	put, err := k.Work.PutOnDay(bg, store.Key{}, job.ID, work.PutIn{Day: on, Crew: "Ilda", Version: job.Version})
	housetest.Must(t, put, err)
	in.Name, in.Version = "North van", c.Version
	c, err = k.Team.KeepCrew(bg, store.Key{}, c.ID, in)
	housetest.Must(t, c, err)
	s, err := k.Days.Sheet(bg, on, c.ID)
	if err != nil || s.Crew != "North van" || len(s.Visits) != 1 || s.Visits[0].Jobs[0].Crew != "North van" || len(s.Crews) != 1 {
		t.Errorf("its sheet: %+v, %v", s, err)
	}
	if _, _, err := k.Days.Route(bg, on, 99); !errors.Is(err, store.ErrNotFound) {
		t.Errorf("the way of a crew that is not there: %v", err)
	}
}

// TestSheetAgreesWithVerdict: a cut that was put on today before a verdict said to wait is flagged on the sheet, with its day,
// on paper too; overruled with a reason it stands with both; one the verdict itself asks for is not.
func TestSheetAgreesWithVerdict(t *testing.T) {
	k := housetest.Open(t)
	p := k.Property("Dune Row", "lake-foothills")
	bay := k.Plant(p.ID, "laurus-nobilis", 2)
	today := k.Estate.Today()
	cut, err := k.Work.AddOrder(bg, store.Key{}, work.HandOrder{PropertyID: p.ID, Plants: []int64{bay.ID}, Kind: job.CutToBase, Title: "Cut the bay to the base", Minutes: 30, CrewSize: 1})
	housetest.Must(t, cut, err)
	put, err := k.Work.PutOnDay(bg, store.Key{}, cut.ID, work.PutIn{Day: today, Version: cut.Version})
	if err != nil || put.Order.Hold != nil {
		t.Fatalf("%+v, %v", put.Order.Hold, err)
	}
	w, err := k.Walks.StartWalk(bg, store.Key{}, p.ID, 0, 0)
	housetest.Must(t, w, err)
	decided, err := k.Walks.Decide(bg, store.Key{}, w.ID, bay.ID, walks.DecisionIn{Ruling: damage.Ruling{Decision: "overruled", Kind: damage.Wait, Until: today + 60, Note: "the frost was hard"}})
	housetest.Must(t, decided, err)

	j := sheetOf(t, k, bay.ID)
	if j.Hold == nil || j.Hold.Until != today+60 || j.Hold.Anyway != "" {
		t.Fatalf("the sheet tells to cut what is to wait: %+v", j.Hold)
	}
	paper, err := k.Days.SheetPage(bg, today, 0, quantity.Style{})
	housetest.Must(t, paper, err)
	if mind := strings.Join(paper.Visits[0].Jobs[0].Mind, " "); !strings.Contains(mind, "LET IT WAIT") {
		t.Errorf("on paper it is cut: %q", mind)
	}
	o, err := k.Work.Order(bg, cut.ID)
	housetest.Must(t, o, err)
	if _, err := k.Work.PutOnDay(bg, store.Key{}, cut.ID, work.PutIn{Day: today + 3, Version: o.Version}); err == nil {
		t.Error("it is put on a day before the one it waits for")
	}
	over, err := k.Work.Anyway(bg, store.Key{}, cut.ID, o.Version, "the client moves out")
	housetest.Must(t, over, err)
	if j = sheetOf(t, k, bay.ID); j.Hold == nil || j.Hold.Anyway != "the client moves out" {
		t.Errorf("overruled: %+v", j.Hold)
	}
	if _, err := k.Work.PutOnDay(bg, store.Key{}, cut.ID, work.PutIn{Day: today + 3, Version: over.Version}); err != nil {
		t.Errorf("overruled with a reason, and refused: %v", err)
	}
	for _, own := range decided.Jobs {
		if got, err := k.Work.Order(bg, own.ID); err != nil || got.Hold != nil {
			t.Errorf("the verdict's own %q waits for itself: %+v, %v", own.Title, got.Hold, err)
		}
	}
	// Taken back, the verdict holds nothing: the day it waited for is no more in the lists.
	back, err := k.Work.Anyway(bg, store.Key{}, cut.ID, over.Version+1, "")
	if err != nil || back.From < today+60 {
		t.Errorf("it waits again, and its window begins on %s: %v", back.From, err)
	}
	listed := func() work.Order {
		page, err := k.Work.Orders(bg, store.ListStanding, p.ID, "", 50)
		for _, o := range housetest.Must(t, page, err).Items {
			if o.ID == cut.ID {
				return o
			}
		}
		t.Fatal("the cut is in no list")
		return work.Order{}
	}
	if o := listed(); o.From < today+60 {
		t.Errorf("the list has it from %s", o.From)
	}
	if err := k.Walks.UndoVerdict(bg, store.Key{}, decided.Verdict.ID); err != nil {
		t.Fatal(err)
	}
	if o := listed(); o.Hold != nil || o.From >= today+60 {
		t.Errorf("the verdict was taken back, and the list has it from %s, %+v", o.From, o.Hold)
	}
}

// TestWeekOf: a week begins on the day that the firm says, Monday where it says nothing; that day begins its own.
func TestWeekOf(t *testing.T) {
	k, ctx := housetest.Open(t), context.Background()
	thursday := day.Of(2027, 3, 18)
	for _, c := range []struct {
		starts   int
		of, want day.Day
	}{
		{-1, thursday, thursday - 3}, // nothing said
		{0, thursday, thursday - 4},
		{6, thursday, thursday - 5},
		{1, thursday + 3, thursday - 3}, // a Sunday is the last of its week
		{1, thursday + 4, thursday + 4},
		{0, thursday + 3, thursday + 3},
		{6, thursday + 1, thursday - 5},
	} {
		if c.starts >= 0 {
			err := k.Estate.Store.Write(ctx, func(tx store.Tx) error {
				return tx.SetFirm(ctx, store.Firm{Name: "Firm", Units: "metric", WeekStart: c.starts})
			})
			housetest.Must(t, 0, err)
		}
		got, err := k.Days.WeekOf(ctx, c.of)
		if housetest.Must(t, got, err) != c.want {
			t.Errorf("weeks begin on %d: the one of %s begins on %s, want %s", c.starts, c.of, got, c.want)
		}
	}
}
