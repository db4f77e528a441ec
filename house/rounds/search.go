package rounds

import (
	"context"
	"fmt"
	"runtime"
	"runtime/debug"
	"slices"
	"time"

	"mezzadro/core/day"
	"mezzadro/core/invalid"
	"mezzadro/core/rounds"
	"mezzadro/house/work"
	"mezzadro/store"
)

// Propose begins to look for rounds, and returns at once.
func (h *Room) Propose(ctx context.Context, in ProposalIn) (Proposal, error) {
	from := h.DateOr(in.From)
	if from < h.Today() {
		return Proposal{}, invalid.One("from", from.String(), "is past")
	}
	if in.Days == 0 {
		in.Days = proposedDays
	}
	if in.Seconds == 0 {
		in.Seconds = proposedFor
	}
	// What rain or illness takes off its day has to move, though else it would stay.
	of, err := h.problemOf(ctx, from, in.Days, in.Anew || len(in.Wet) > 0 || len(in.Away) > 0, false)
	if err != nil {
		return Proposal{}, err
	}
	if err := h.begin(ctx, of, in); err != nil {
		return Proposal{}, err
	}
	of.problem.Sure, of.problem.Fortnights = daysHold, fortnights
	if len(of.crews) == 0 {
		return Proposal{}, store.Refused("there is no crew yet: enter one in Settings, with its hours")
	}
	if err := of.problem.Validate(); err != nil {
		return Proposal{}, err
	}
	p := &proposal{of: of, ended: make(chan struct{})}
	p.told = Proposal{
		State:  "working",
		From:   from,
		Days:   in.Days,
		Crews:  of.crews,
		Visits: []ProposedVisit{},
		Breaks: []rounds.Rest{},
		Late:   []rounds.Late{},
		Left:   []ProposedLeft{},
		Notes:  []string{},
		Sky:    []SkyOf{},
	}
	if err := h.keep(ctx, p); err != nil {
		return Proposal{}, err
	}
	h.searches.Go(func() { h.search(p, in) })
	return p.read(), nil
}

// keep gives a proposal its number, and ends the searches for those before it: one is looked for at a time.
func (h *Room) keep(ctx context.Context, p *proposal) error {
	h.proposed.mu.Lock()
	defer h.proposed.mu.Unlock()
	err := h.Store.WriteQuietly(ctx, func(tx store.Tx) (err error) {
		p.told.ID, err = tx.NewProposal(ctx)
		return err
	})
	if err != nil {
		return err
	}
	for _, other := range h.proposed.by {
		other.mu.Lock()
		other.stop = true
		other.mu.Unlock()
	}
	h.proposed.hold(p.told.ID, p)
	return nil
}

// begin has a plan begin from another proposal, with some jobs pinned.
func (h *Room) begin(ctx context.Context, of *planned, in ProposalIn) error {
	index := map[partOf]int{}
	for j := range of.orders {
		index[of.partOf(j)] = j
	}
	if in.Base != 0 {
		if err := h.base(ctx, of, in.Base, index); err != nil {
			return err
		}
	}
	for _, d := range in.Wet {
		for i := range of.problem.Places {
			rounds.RainOn(of.problem.Places[i].Sky, d)
		}
	}
	for i, a := range in.Away {
		if a.Crew >= len(of.crews) {
			return invalid.One(fmt.Sprintf("away[%d].crew", i), a.Crew, "there is no crew of that number")
		}
		of.problem.Crews[a.Crew].Off = append(slices.Clone(of.problem.Crews[a.Crew].Off), a.Day)
	}
	for i, pin := range in.Pins {
		j, there := index[partOf{pin.Order, max(0, pin.Part-1)}]
		d := int(pin.Day - of.problem.From)
		if !there || pin.Crew >= len(of.crews) || d < 0 || d >= of.problem.Days {
			return invalid.One(fmt.Sprintf("pins[%d]", i), pin.Order, "there is no such job, crew or day in this span")
		}
		if err := of.pin(j, rounds.Pin{Crew: pin.Crew, Day: d, At: pin.At}); err != nil {
			return invalid.One(fmt.Sprintf("pins[%d].crew", i), pin.Crew, err.Error())
		}
	}
	return nil
}

// longestSearch ends a search whatever number of tries it was given.
const longestSearch = 60 * time.Second

// search looks until its time or its tries are over, it is stopped, or the program ends. What breaks in it is told with
// the proposal.
func (h *Room) search(p *proposal, in ProposalIn) {
	defer close(p.ended)
	defer func() {
		if broke := recover(); broke != nil {
			h.Log.Error("rounds", "panic", broke, "stack", string(debug.Stack()))
			p.mu.Lock()
			defer p.mu.Unlock()
			p.told.State, p.told.Done = "done", 1
			p.told.Notes = append(p.told.Notes, "The search broke off by a fault of the program; it has been logged.")
		}
	}()
	h.searching.Lock()
	defer h.searching.Unlock()
	span, from := time.Duration(in.Seconds*float64(time.Second)), time.Now()
	if in.Tries > 0 {
		span = longestSearch
	}
	passed := func() float64 { return min(1, float64(time.Since(from))/float64(span)) }
	floor := make(chan float64, 1)
	go func() { floor <- h.floor(p, passed) }()
	plan, err := rounds.Make(p.of.problem, in.Seed, func(n int, best float64) (float64, bool) {
		done := passed()
		if in.Tries > 0 { // the clock only ends it: the same number of tries is to give the same plan
			done = float64(n) / float64(in.Tries)
		}
		p.mu.Lock()
		defer p.mu.Unlock()
		p.told.Done, p.told.Rounds, p.told.Best = done, n, best
		return done, done < 1 && passed() < 1 && h.goesOn(p)
	})
	p.mu.Lock()
	p.stop = true // so ends the floor too, where the search ended by its tries
	p.mu.Unlock()
	plan.Raise(<-floor)
	p.mu.Lock()
	defer p.mu.Unlock()
	p.told.State, p.told.Done = "done", 1
	if err != nil { // it was checked before: what is wrong now is ours
		p.told.Notes = append(p.told.Notes, err.Error())
		h.Log.Error("rounds", "error", err)
		return
	}
	p.plan = plan
	p.of.alone(&p.plan)
	h.tellPlan(p)
	err = h.Store.WriteQuietly(context.Background(), func(tx store.Tx) error { return p.write(context.Background(), tx) })
	if err != nil {
		p.told.Notes = append(p.told.Notes, "It could not be saved: it is lost when the program ends.")
		h.Log.Error("rounds", "error", err)
	}
}

// goesOn reports that nobody has stopped a search, whose lock is held, and that the program goes on.
func (h *Room) goesOn(p *proposal) bool { return !p.stop && h.life.Err() == nil }

// floorShare is for how much of the time of a search a floor is looked for beside it: all of it where there is a core
// left, else a third, so that the plan comes first.
func floorShare(p *rounds.Problem) float64 {
	if runtime.NumCPU() > p.Cores() {
		return 1
	}
	return 1.0 / 3
}

// floor looks for what no plan costs less than, beside the search; where it breaks, nothing is known.
func (h *Room) floor(p *proposal, passed func() float64) (least float64) {
	defer func() {
		if broke := recover(); broke != nil {
			h.Log.Error("rounds", "panic", broke, "stack", string(debug.Stack()))
		}
	}()
	least, err := rounds.Floor(p.of.problem, func(int, float64) (float64, bool) {
		p.mu.Lock()
		defer p.mu.Unlock()
		done := min(1, passed()/floorShare(p.of.problem))
		return done, done < 1 && h.goesOn(p)
	})
	if err != nil { // the search says it too
		h.Log.Error("rounds", "error", err)
	}
	return least
}

// tellPlan puts a plan into orders and properties.
func (h *Room) tellPlan(p *proposal) {
	t, of := &p.told, p.of
	teller, err := h.Work.Teller(context.Background())
	if err != nil {
		t.Notes = append(t.Notes, err.Error())
		return
	}
	for _, v := range p.plan.Visits {
		out := ProposedVisit{
			Crew:       v.Crew,
			Day:        v.Date,
			PropertyID: of.places[v.Place],
			Property:   of.problem.Places[v.Place].Name,
			From:       v.From,
			To:         v.To,
			Travel:     int(v.Travel),
			Tip:        v.Tip,
			Trips:      v.Trips,
			Sky:        skyOf(of.problem.Places[v.Place].Sky, v.Date),
			Jobs:       []work.Order{},
			Parts:      []int{},
		}
		for _, j := range v.Jobs {
			o := of.tell(teller, j)
			out.Jobs, out.Parts = append(out.Jobs, o), append(out.Parts, of.number(j))
			switch {
			case !o.Day.Given():
				t.New++
			case o.Day != v.Date || o.CrewID != of.crews[v.Crew].ID:
				t.Moved++
			}
		}
		t.Visits = append(t.Visits, out)
	}
	t.Breaks, t.Late = append(t.Breaks, p.plan.Breaks...), append(t.Late, p.plan.Late...)
	for _, l := range p.plan.Left {
		t.Left = append(t.Left, ProposedLeft{of.tell(teller, l.Job), l.Why, l.Takes})
	}
	for _, k := range of.held[:min(heldShown, len(of.held))] {
		o := teller.Tell(k.Order)
		t.Left = append(t.Left, ProposedLeft{o, o.Hold.Why, ""})
	}
	for _, k := range of.waiting[:min(heldShown, len(of.waiting))] {
		why := "Its client has not agreed to it yet."
		if k.Agreed == "asked" {
			why = "It waits for its client's answer to the estimate."
		}
		t.Left = append(t.Left, ProposedLeft{teller.Tell(k.Order), why, ""})
	}
	if most := of.mostWork(); most >= 0 {
		t.SkyAt = of.problem.Places[most].Name
		for d := range of.problem.Days {
			t.Sky = append(t.Sky, skyOf(of.problem.Places[most].Sky, t.From+day.Day(d)))
		}
	}
	t.Drawn = p.plan.Drawn
	t.Score, t.Bound, t.Notes = p.plan.Score, p.plan.Bound, append(t.Notes, p.plan.Notes...)
	if of.beyond > 0 {
		t.Notes = append(t.Notes, fmt.Sprintf("%d jobs more have a day here. The %d that lose most by waiting are planned.", of.beyond, plannedMax))
	}
	if of.pace.Known() {
		t.Notes = append(t.Notes, "Where your own pace is known to differ, times are by it: see Work done in the Ledger.")
	}
}

// mostWork is the place with the most jobs; -1 without any.
func (o *planned) mostWork() int {
	most, many := -1, map[int]int{}
	for _, j := range o.problem.Jobs {
		if many[j.Place]++; most < 0 || many[j.Place] > many[most] {
			most = j.Place
		}
	}
	return most
}
