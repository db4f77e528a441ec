package house

import (
	"context"
	"fmt"
	"slices"
	"sync"
	"time"

	"mezzadro/core/day"
	"mezzadro/core/job"
	"mezzadro/core/rounds"
	"mezzadro/store"
)

// ProposalIn asks for rounds.
type ProposalIn struct {
	From    day.Day `json:"from,omitempty" format:"date" doc:"First day; today when absent"`
	Days    int     `json:"days,omitempty" minimum:"0" maximum:"28" doc:"14 when absent"`
	Seconds float64 `json:"seconds,omitempty" minimum:"0" maximum:"60" doc:"How long it may look; 6 when absent"`
	Seed    uint64  `json:"seed,omitempty" doc:"Another gives another search"`
	Tries   int     `json:"tries,omitempty" minimum:"0" maximum:"1000000" doc:"Stops after so many tries, so that the same question has the same answer; as many as the time allows when absent"`
	Anew    bool    `json:"anew,omitempty" doc:"What stands on a day already may move too, unless it is pinned or was told"`
	Base    int64   `json:"base,omitempty" doc:"A proposal that this one begins from: what is not pinned stays there as far as it can"`
	Pins    []PinIn `json:"pins,omitempty" maxItems:"200" doc:"Where some jobs are to be"`

	Wet  []day.Day `json:"wet,omitempty" maxItems:"28" doc:"Days on which rain is told: what wants it dry finds another day"`
	Away []AwayIn  `json:"away,omitempty" maxItems:"60" doc:"Crews that are not there on a day"`
}

// AwayIn is a crew that is not there on a day: somebody is ill, the van is in repair.
type AwayIn struct {
	Crew int     `json:"crew" minimum:"0" doc:"Index among the crews"`
	Day  day.Day `json:"day" format:"date"`
}

// PinIn is where a job is to be.
type PinIn struct {
	Order int64   `json:"order"`
	Crew  int     `json:"crew" minimum:"0" doc:"Index among the crews"`
	Day   day.Day `json:"day" format:"date"`
	At    int     `json:"at,omitempty" minimum:"0" maximum:"1440" doc:"Arrival, minutes after midnight, or up to 20 later; any time when absent"`
}

// Proposal is rounds as they are proposed, while they are looked for and after.
type Proposal struct {
	ID     int64           `json:"id"`
	State  string          `json:"state" enum:"working,done,accepted"`
	Done   float64         `json:"done" doc:"How far the search is, 0 to 1"`
	Rounds int             `json:"rounds" doc:"How often parts were torn down and built up again"`
	Best   float64         `json:"best" doc:"Score of the best so far"`
	From   day.Day         `json:"from" format:"date"`
	Days   int             `json:"days"`
	Crews  []Crew          `json:"crews"`
	Visits []ProposedVisit `json:"visits"`
	Left   []ProposedLeft  `json:"left"`
	Score  rounds.Score    `json:"score"`
	Bound  float64         `json:"bound" doc:"No plan can cost less"`
	Notes  []string        `json:"notes"`
	Sky    []SkyOf         `json:"weather" doc:"Of each day, where most work is"`
	SkyAt  string          `json:"weather_at" doc:"Which property that is"`
	New    int             `json:"new" doc:"Jobs that get a day"`
	Moved  int             `json:"moved" doc:"Jobs that change their day or crew"`
}

// ProposedVisit is a crew at a property on a day.
type ProposedVisit struct {
	Crew       int     `json:"crew" doc:"Index among the crews"`
	Day        day.Day `json:"day" format:"date"`
	PropertyID int64   `json:"property_id"`
	Property   string  `json:"property"`
	From       int     `json:"from" doc:"Minutes after midnight"`
	To         int     `json:"to"`
	Travel     int     `json:"travel" doc:"Minutes on the way there: an estimate"`
	Sky        SkyOf   `json:"weather" doc:"There, on that day"`
	Jobs       []Order `json:"jobs" doc:"As they stand now, in the order they are done"`
}

// SkyOf is the weather of a day: told by a station, or as usual.
type SkyOf struct {
	rounds.Sky
	Text string `json:"text"`
}

// skyOf is the weather of a day out of a list; nothing where it is not in it.
func skyOf(list []rounds.Sky, d day.Day) SkyOf {
	for _, w := range list {
		if w.Day == d {
			return SkyOf{w, w.Text()}
		}
	}
	return SkyOf{}
}

// ProposedLeft is a job that gets no day, and why.
type ProposedLeft struct {
	Job   Order  `json:"job"`
	Why   string `json:"why"`
	Takes string `json:"takes"`
}

// Accepted is what became of a proposal that was taken.
type Accepted struct {
	Placed  int      `json:"placed"`
	Changed []string `json:"changed" doc:"Titles of jobs that were changed meanwhile, and stay as they are"`
}

// proposal is one in the making.
type proposal struct {
	mu    sync.Mutex
	told  Proposal
	of    *planned
	plan  rounds.Plan
	stop  bool
	ended chan struct{}
	undo  []undone // where its jobs stood before it was taken
}

// undone is where a job stood, and the version it has since.
type undone struct {
	id      int64
	title   string
	version int
	stand   store.Stand
}

// proposals are those of the last while, by id.
type proposals struct {
	mu   sync.Mutex
	last int64
	by   map[int64]*proposal
}

// rainedOff is the rain of a day that somebody says is wet, mm.
const rainedOff = 15

// Span and time of a search where nobody said.
const (
	proposedDays = 14
	proposedFor  = 6.0
	proposalsMax = 8
)

// Propose begins to look for rounds, and returns at once.
func (h *House) Propose(ctx context.Context, in ProposalIn) (Proposal, error) {
	from := h.DateOr(in.From)
	if from < h.Today() {
		return Proposal{}, Refuse("from", from.String(), "is past")
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
func (h *House) begin(of *planned, in ProposalIn) error {
	index := map[int64]int{}
	for j, k := range of.orders {
		index[k.ID] = j
	}
	if in.Base != 0 {
		base, err := h.proposal(in.Base)
		if err != nil {
			return Refuse("base", in.Base, "this proposal is not kept any more: propose anew")
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
			return Refuse(fmt.Sprintf("away[%d].crew", i), a.Crew, "there is no crew of that number")
		}
		of.problem.Crews[a.Crew].Off = append(slices.Clone(of.problem.Crews[a.Crew].Off), a.Day)
	}
	for i, pin := range in.Pins {
		j, there := index[pin.Order]
		d := int(pin.Day - of.problem.From)
		if !there || pin.Crew >= len(of.crews) || d < 0 || d >= of.problem.Days {
			return Refuse(fmt.Sprintf("pins[%d]", i), pin.Order, "there is no such job, crew or day in this span")
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
func (h *House) search(p *proposal, in ProposalIn) {
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
func (h *House) floor(p *proposal, from time.Time, span time.Duration) float64 {
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
func (h *House) tellPlan(p *proposal) {
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
			Jobs:       []Order{},
		}
		for _, j := range v.Jobs {
			o := tellOrder(of.orders[j].Order, book, today)
			out.Jobs = append(out.Jobs, o)
			switch {
			case !o.Day.Given():
				t.New++
			case o.Day != v.Date || o.Crew != of.crews[v.Crew].Name:
				t.Moved++
			}
		}
		t.Visits = append(t.Visits, out)
	}
	for _, l := range p.plan.Left {
		t.Left = append(t.Left, ProposedLeft{tellOrder(of.orders[l.Job].Order, book, today), l.Why, l.Takes})
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

func (p *proposal) read() Proposal {
	p.mu.Lock()
	defer p.mu.Unlock()
	return p.told
}

func (h *House) proposal(id int64) (*proposal, error) {
	h.proposed.mu.Lock()
	defer h.proposed.mu.Unlock()
	if p := h.proposed.by[id]; p != nil {
		return p, nil
	}
	return nil, store.ErrNotFound
}

// ReadProposal tells how far one is.
func (h *House) ReadProposal(id int64) (Proposal, error) {
	p, err := h.proposal(id)
	if err != nil {
		return Proposal{}, err
	}
	return p.read(), nil
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
func (h *House) WatchProposal(ctx context.Context, id int64, tell func(Progress) error) error {
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
func (h *House) StopProposal(id int64) (Proposal, error) {
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

// WhyThere is why a proposal puts a job where it does, and what each other day would cost.
func (h *House) WhyThere(id, order int64) (rounds.Why, error) {
	p, err := h.proposal(id)
	if err != nil {
		return rounds.Why{}, err
	}
	p.mu.Lock()
	defer p.mu.Unlock()
	for j, k := range p.of.orders {
		if k.ID == order && p.told.State != "working" {
			return p.plan.Explain(j), nil
		}
	}
	return rounds.Why{}, store.ErrNotFound
}

// Accept puts the jobs of a proposal on their days, in one write. What was changed meanwhile stays as it is.
func (h *House) Accept(ctx context.Context, key store.Key, id int64) (Accepted, error) {
	p, err := h.proposal(id)
	if err != nil {
		return Accepted{}, err
	}
	p.mu.Lock()
	defer p.mu.Unlock()
	if p.told.State == "working" {
		return Accepted{}, store.Refused("it is still being looked for: stop it, or wait")
	}
	undo := []undone{}
	out, err := store.Once(ctx, h.Store, key, func(tx store.Tx) (Accepted, error) {
		a := Accepted{Changed: []string{}}
		for _, v := range p.plan.Visits {
			for n, j := range v.Jobs {
				if err := h.accept(ctx, tx, p.of, v, n, j, &a, &undo); err != nil {
					return a, err
				}
			}
		}
		return a, nil
	})
	if err != nil {
		return out, err
	}
	if len(undo) > 0 {
		p.undo = undo
	}
	p.told.State = "accepted"
	return out, nil
}

// accept puts one job on its day.
func (h *House) accept(
	ctx context.Context,
	tx store.Tx,
	of *planned,
	v rounds.Visit,
	n, j int,
	a *Accepted,
	undo *[]undone,
) error {
	k, crew, on := of.orders[j], of.crews[v.Crew].Name, v.Date.String()
	stays, place := k.Day != nil && *k.Day == on && k.Crew == crew, planPlace*v.From+n
	if stays && k.Place == place {
		return nil
	}
	cost := of.curves[j].On(v.Date).Int()
	kept, err := tx.SetStand(
		ctx,
		k.ID,
		k.Version,
		store.Stand{State: job.Placed, Day: &on, Crew: crew, Place: place, DayCost: cost},
	)
	if stale := (store.Stale{}); asStale(err, &stale) {
		a.Changed = append(a.Changed, k.Title)
		return nil
	}
	if err != nil {
		return fmt.Errorf("%s: %w", k.Title, err)
	}
	if !stays {
		a.Placed++
	}
	*undo = append(
		*undo,
		undone{
			k.ID,
			k.Title,
			kept.Version,
			store.Stand{State: k.State, Day: k.Day, Crew: k.Crew, Place: k.Place, DayCost: k.DayCost},
		},
	)
	return nil
}

// TakeBack puts the jobs of an accepted proposal back to where they stood, as far as nobody has changed them since.
func (h *House) TakeBack(ctx context.Context, key store.Key, id int64) (Accepted, error) {
	p, err := h.proposal(id)
	if err != nil {
		return Accepted{}, err
	}
	p.mu.Lock()
	defer p.mu.Unlock()
	now := map[int64]int{}
	out, err := store.Once(ctx, h.Store, key, func(tx store.Tx) (Accepted, error) {
		a := Accepted{Changed: []string{}}
		for _, u := range p.undo {
			k, err := tx.SetStand(ctx, u.id, u.version, u.stand)
			if stale := (store.Stale{}); asStale(err, &stale) {
				a.Changed = append(a.Changed, u.title)
				continue
			}
			if err != nil {
				return a, err
			}
			a.Placed++
			now[u.id] = k.Version
		}
		return a, nil
	})
	for j := range p.of.orders { // so that it can be taken again
		if v := now[p.of.orders[j].ID]; v != 0 {
			p.of.orders[j].Version = v
		}
	}
	if err == nil {
		p.undo, p.told.State = nil, "done"
	}
	return out, err
}

// PinOrder has a job stay on its day and with its crew when rounds are proposed, or not.
func (h *House) PinOrder(ctx context.Context, key store.Key, id int64, version int, pinned bool) (OrderDetail, error) {
	_, err := store.Once(
		ctx,
		h.Store,
		key,
		func(tx store.Tx) (struct{}, error) { return struct{}{}, tx.Pin(ctx, id, version, pinned) },
	)
	if err != nil {
		return OrderDetail{}, h.staleOrder(ctx, err)
	}
	return h.Order(ctx, id)
}
