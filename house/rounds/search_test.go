package rounds

import (
	"context"
	"errors"
	"fmt"
	"log/slog"
	"runtime"
	"strings"
	"testing"
	"time"

	"mezzadro/core/catalogue"
	"mezzadro/core/day"
	"mezzadro/core/rounds"
	"mezzadro/house/crews"
	"mezzadro/house/estate"
	"mezzadro/house/garden"
	"mezzadro/house/work"
	"mezzadro/store"
)

// opened is the room over a record with a property, a crew and some jobs.
func opened(t *testing.T) *Room {
	t.Helper()
	ctx := context.Background()
	st, err := store.Open(ctx, t.TempDir())
	must(t, err)
	today := day.Of(2027, 3, 18)
	e := &estate.House{Store: st, Catalogue: catalogue.Built(), Today: func() day.Day { return today }, Log: slog.New(slog.DiscardHandler)}
	h := over(e)
	t.Cleanup(func() { h.Close(); _ = st.Close() })
	p, err := (&garden.Room{House: e, Work: h.Work}).AddProperty(ctx, store.Key{}, garden.PropertyIn{Name: "Weir House", ClimateType: "lake-foothills"})
	must(t, err)
	for _, title := range []string{"Sweep", "Rake", "Edge", "Stake"} {
		_, err := h.Work.AddOrder(ctx, store.Key{}, work.HandOrder{PropertyID: p.ID, Title: title, Minutes: 60, Spans: []work.SpanIn{{From: today, To: today + 60}}})
		must(t, err)
	}
	who, err := h.Team.KeepPerson(ctx, store.Key{}, 0, crews.PersonIn{Name: "Ilda"})
	must(t, err)
	in := crews.CrewIn{Name: "Ilda", People: []int64{who.ID}}
	for d := range in.Hours {
		in.Hours[d] = rounds.Span{From: 480, To: 1020}
	}
	_, err = h.Team.KeepCrew(ctx, store.Key{}, 0, in)
	must(t, err)
	return h
}

func must(t testing.TB, err error) {
	t.Helper()
	if err != nil {
		t.Fatal(err)
	}
}

// ends waits until a proposal is no longer looked for.
func ends(t *testing.T, h *Room, id int64) Proposal {
	t.Helper()
	for range 3000 { // a minute: on a busy machine a search is slow to see that it is ended
		p, err := h.ReadProposal(context.Background(), id)
		must(t, err)
		if p.State != "working" {
			return p
		}
		time.Sleep(20 * time.Millisecond)
	}
	t.Fatalf("proposal %d is still looked for", id)
	return Proposal{}
}

// TestOneSearchAtATime: somebody who presses Propose twelve times has one search, the last; those before end with what
// they have, and no worker stays behind.
func TestOneSearchAtATime(t *testing.T) {
	h := opened(t)
	ctx := context.Background()
	before := runtime.NumGoroutine()
	var last Proposal
	for range 12 {
		p, err := h.Propose(ctx, ProposalIn{Days: 10, Seconds: 20})
		must(t, err)
		if last.ID > 0 {
			ends(t, h, last.ID)
		}
		last = p
	}
	if n := runtime.NumGoroutine() - before; n > 4 {
		t.Errorf("%d goroutines more than before, want the search and its floor", n)
	}
	if p, err := h.ReadProposal(context.Background(), last.ID); err != nil || p.State != "working" {
		t.Errorf("the last: %s, %v", p.State, err)
	}
	h.Close()
	if p := ends(t, h, last.ID); len(p.Visits) == 0 {
		t.Error("ended with the program, the search tells nothing of what it had found")
	}
	time.Sleep(50 * time.Millisecond)
	if n := runtime.NumGoroutine() - before; n > 1 {
		t.Errorf("%d goroutines are left when the program ends", n)
	}
}

// TestBreakIsKept: a crew's break is kept and told, one that cannot be is refused by its field, and a proposal says when they
// rest on a day that goes on past it.
func TestBreakIsKept(t *testing.T) {
	h := opened(t)
	ctx := context.Background()
	both, err := h.Team.Crews(ctx)
	must(t, err)
	in := crews.CrewIn{Name: "Ilda", People: []int64{both[0].People[0].ID}, Hours: both[0].Hours, Version: both[0].Version, Break: &rounds.Break{From: 9 * 60, Minutes: 500}}
	if _, err := h.Team.KeepCrew(ctx, store.Key{}, both[0].ID, in); err == nil || !strings.Contains(fmt.Sprint(err), "break.minutes") {
		t.Errorf("a break of 500 minutes: %v", err)
	}
	in.Break.Minutes = 30
	if c, err := h.Team.KeepCrew(ctx, store.Key{}, both[0].ID, in); err != nil || c.Break == nil || *c.Break != *in.Break {
		t.Errorf("kept as %+v, %v", c.Break, err)
	} else if on := h.Today(); c.Minutes(on) != 540-30 {
		t.Errorf("from eight to five with half an hour's break they work %g minutes", c.Minutes(on))
	} else if c.Off = append(c.Off, on); c.Minutes(on) != 0 {
		t.Errorf("on a day off they work %g minutes", c.Minutes(on))
	}
	p, err := h.Propose(ctx, ProposalIn{Days: 2, Seconds: 1})
	must(t, err)
	p = ends(t, h, p.ID)
	if len(p.Breaks) == 0 || p.Breaks[0].From != 9*60 || p.Breaks[0].To != 9*60+30 {
		t.Errorf("four hours of work from eight on: %+v", p.Breaks)
	}
}

// TestSearchBreaks: what breaks in a search is told with the proposal, and the next one is looked for.
func TestSearchBreaks(t *testing.T) {
	h := opened(t)
	p := &proposal{of: &planned{}, ended: make(chan struct{})}
	p.told.State = "working"
	must(t, h.keep(context.Background(), p))
	h.search(p, ProposalIn{Seconds: 1})
	if out := p.read(); out.State != "done" || !strings.Contains(strings.Join(out.Notes, " "), "broke off") {
		t.Errorf("%+v", out)
	}
	next, err := h.Propose(context.Background(), ProposalIn{Days: 10, Seconds: 0.2})
	must(t, err)
	if out := ends(t, h, next.ID); out.New != 4 {
		t.Errorf("after it: %d of 4 jobs get a day", out.New)
	}
}

// TestReckonedSearchHasAClock: a hundred thousand rounds end when nobody waits for them any more.
func TestReckonedSearchHasAClock(t *testing.T) {
	h := opened(t)
	of, err := h.problemOf(context.Background(), h.Today(), 14, true, false)
	must(t, err)
	soon, stop := context.WithTimeout(context.Background(), 200*time.Millisecond)
	defer stop()
	begun := time.Now()
	if _, err := h.ReckonRounds(soon, ReckonRoundsIn{Problem: *of.problem, Rounds: 100000}); !errors.Is(err, context.DeadlineExceeded) {
		t.Errorf("answered %v", err)
	}
	if took := time.Since(begun); took > 10*time.Second {
		t.Errorf("it went on for %v", took)
	}
}

// TestRenamedCrewKeepsItsDays: a crew with another name has the work that it was given under the old one.
func TestRenamedCrewKeepsItsDays(t *testing.T) {
	h := opened(t)
	ctx := context.Background()
	both, err := h.Team.Crews(ctx)
	must(t, err)
	page, err := h.Work.Orders(ctx, store.ListStanding, 0, "", 10)
	must(t, err)
	on, one := h.Today()+1, page.Items[0]
	_, err = h.Work.PutOnDay(ctx, store.Key{}, one.ID, work.PutIn{Day: on, Crew: "Ilda", Version: one.Version})
	must(t, err)
	c := both[0]
	_, err = h.Team.KeepCrew(ctx, store.Key{}, c.ID, crews.CrewIn{Name: "North van", People: []int64{c.People[0].ID}, Hours: c.Hours, Version: c.Version})
	must(t, err)
	if of, err := h.problemOf(ctx, h.Today(), 7, true, false); err != nil || of.problem.Jobs[0].Was == nil {
		t.Errorf("the search does not know whose it is: %v", err)
	}
}
