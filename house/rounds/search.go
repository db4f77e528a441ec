package rounds

import (
	"context"
	"fmt"
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
	of, err := h.problemOf(ctx, from, in.Days, in.Anew || len(in.Wet) > 0 || len(in.Away) > 0)
	if err != nil {
		return Proposal{}, err
	}
	if err := h.begin(of, in); err != nil {
		return Proposal{}, err
	}
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
		Left:   []ProposedLeft{},
		Notes:  []string{},
		Sky:    []SkyOf{},
	}
	h.proposed.mu.Lock()
	h.proposed.last++
	p.told.ID = h.proposed.last
	if h.proposed.by == nil {
		h.proposed.by = map[int64]*proposal{}
	}
	h.proposed.by[p.told.ID] = p
	delete(h.proposed.by, p.told.ID-proposalsMax)
	h.proposed.mu.Unlock()
	go h.search(p, in)
	return p.read(), nil
}

// begin has a plan begin from another proposal, with some jobs pinned.
func (h *Room) begin(of *planned, in ProposalIn) error {
	index := map[int64]int{}
	for j, k := range of.orders {
		index[k.ID] = j
	}
	if in.Base != 0 {
		base, err := h.proposal(in.Base)
		if err != nil {
			return invalid.One("base", in.Base, "this proposal is not kept any more: propose anew")
		}
		base.mu.Lock()
		defer base.mu.Unlock()
		for _, v := range base.plan.Visits {
			for _, j := range v.Jobs {
				d := int(v.Date - of.problem.From)
				if k, there := index[base.of.orders[j].ID]; there && d >= 0 && d < of.problem.Days &&
					v.Crew < len(of.crews) &&
					of.problem.Jobs[k].Pin == nil {
					of.problem.Jobs[k].Was = &rounds.Pin{Crew: v.Crew, Day: d}
				}
			}
		}
	}
	for _, d := range in.Wet {
		for i := range of.problem.Places {
			rain(of.problem.Places[i].Sky, d)
		}
	}
	for i, a := range in.Away {
		if a.Crew >= len(of.crews) {
			return invalid.One(fmt.Sprintf("away[%d].crew", i), a.Crew, "there is no crew of that number")
		}
		of.problem.Crews[a.Crew].Off = append(slices.Clone(of.problem.Crews[a.Crew].Off), a.Day)
	}
	for i, pin := range in.Pins {
		j, there := index[pin.Order]
		d := int(pin.Day - of.problem.From)
		if !there || pin.Crew >= len(of.crews) || d < 0 || d >= of.problem.Days {
			return invalid.One(fmt.Sprintf("pins[%d]", i), pin.Order, "there is no such job, crew or day in this span")
		}
		of.problem.Jobs[j].Pin = &rounds.Pin{Crew: pin.Crew, Day: d, At: pin.At}
	}
	return nil
}

// rain makes a day wet.
func rain(sky []rounds.Sky, d day.Day) {
	for i := range sky {
		if sky[i].Day == d {
			sky[i].Told, sky[i].RainMM = true, max(rainedOff, sky[i].RainMM)
		}
	}
}

// search looks until its time is over or it is stopped.
func (h *Room) search(p *proposal, in ProposalIn) {
	defer close(p.ended)
	from, span := time.Now(), time.Duration(in.Seconds*float64(time.Second))
	floor := make(chan float64, 1)
	go func() { floor <- h.floor(p, from, span) }()
	plan, err := rounds.Make(p.of.problem, in.Seed, func(n int, best float64) (float64, bool) {
		done := min(1, float64(time.Since(from))/float64(span))
		if in.Tries > 0 {
			done = float64(n) / float64(in.Tries)
		}
		p.mu.Lock()
		defer p.mu.Unlock()
		p.told.Done, p.told.Rounds, p.told.Best = done, n, best
		return done, done < 1 && !p.stop
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
	h.tellPlan(p)
}

// floor looks for what no plan costs less than, beside the search and for as long.
func (h *Room) floor(p *proposal, from time.Time, span time.Duration) float64 {
	least, err := rounds.Floor(p.of.problem, func(int, float64) (float64, bool) {
		done := min(1, float64(time.Since(from))/float64(span))
		p.mu.Lock()
		defer p.mu.Unlock()
		return done, done < 1 && !p.stop
	})
	if err != nil { // the search says it too
		h.Log.Error("rounds", "error", err)
	}
	return least
}

// tellPlan puts a plan into orders and properties.
func (h *Room) tellPlan(p *proposal) {
	t, of := &p.told, p.of
	book, err := h.Book(context.Background())
	if err != nil {
		t.Notes = append(t.Notes, err.Error())
		return
	}
	today := h.Today()
	for _, v := range p.plan.Visits {
		out := ProposedVisit{
			Crew:       v.Crew,
			Day:        v.Date,
			PropertyID: of.places[v.Place],
			Property:   of.problem.Places[v.Place].Name,
			From:       v.From,
			To:         v.To,
			Travel:     int(v.Travel),
			Sky:        skyOf(of.problem.Places[v.Place].Sky, v.Date),
			Jobs:       []work.Order{},
		}
		for _, j := range v.Jobs {
			o := work.TellOrder(of.orders[j].Order, book, today)
			out.Jobs = append(out.Jobs, o)
			switch {
			case !o.Day.Given():
				t.New++
			case o.Day != v.Date || o.CrewID != of.crews[v.Crew].ID:
				t.Moved++
			}
		}
		t.Visits = append(t.Visits, out)
	}
	for _, l := range p.plan.Left {
		t.Left = append(t.Left, ProposedLeft{work.TellOrder(of.orders[l.Job].Order, book, today), l.Why, l.Takes})
	}
	if most := of.mostWork(); most >= 0 {
		t.SkyAt = of.problem.Places[most].Name
		for d := range of.problem.Days {
			t.Sky = append(t.Sky, skyOf(of.problem.Places[most].Sky, t.From+day.Day(d)))
		}
	}
	t.Score, t.Bound, t.Notes = p.plan.Score, p.plan.Bound, append(t.Notes, p.plan.Notes...)
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

// Progress is how far the search for a proposal is.
type Progress struct {
	State  string  `json:"state" enum:"working,done,accepted"`
	Done   float64 `json:"done" doc:"0 to 1"`
	Rounds int     `json:"rounds" doc:"How often parts were torn down and built up again"`
	Best   float64 `json:"best" doc:"Score of the best so far"`
}

// progressEvery is how often progress is told.
const progressEvery = 150 * time.Millisecond

// WatchProposal tells how far a search is, again and again, until it has ended, nobody listens any more, or the
// context is over.
func (h *Room) WatchProposal(ctx context.Context, id int64, tell func(Progress) error) error {
	p, err := h.proposal(id)
	if err != nil {
		return err
	}
	tick := time.NewTicker(progressEvery)
	defer tick.Stop()
	for {
		now := p.read()
		if err := tell(Progress{now.State, now.Done, now.Rounds, now.Best}); err != nil || now.State != "working" {
			return err
		}
		select {
		case <-ctx.Done():
			return ctx.Err()
		case <-p.ended:
		case <-tick.C:
		}
	}
}

// StopProposal ends the search: what it has found so far is the proposal.
func (h *Room) StopProposal(id int64) (Proposal, error) {
	p, err := h.proposal(id)
	if err != nil {
		return Proposal{}, err
	}
	p.mu.Lock()
	p.stop = true
	p.mu.Unlock()
	<-p.ended
	return p.read(), nil
}
