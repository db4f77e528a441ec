package rounds

import (
	"context"
	"sync"

	"mezzadro/core/day"
	"mezzadro/core/rounds"
	"mezzadro/house/crews"
	"mezzadro/house/work"
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
	Part  int     `json:"part,omitempty" minimum:"0" maximum:"200" doc:"Which part of it, from 1, where it is done in parts; the first when absent"`
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
	Crews  []crews.Crew    `json:"crews"`
	Visits []ProposedVisit `json:"visits"`
	Breaks []rounds.Rest   `json:"breaks" doc:"When crews rest, by crew and day of the span"`
	Late   []rounds.Late   `json:"late" doc:"Of each day with visits: the chance that it goes on past the crew's hours, an estimate"`
	Drawn  *rounds.Drawn   `json:"drawn,omitempty" doc:"How it fares over drawn spans, beside the plan that was made as reckoned: an estimate; absent while it is looked for"`
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
	Crew       int          `json:"crew" doc:"Index among the crews"`
	Day        day.Day      `json:"day" format:"date"`
	PropertyID int64        `json:"property_id"`
	Property   string       `json:"property"`
	From       int          `json:"from" doc:"Minutes after midnight"`
	To         int          `json:"to"`
	Travel     int          `json:"travel" doc:"Minutes on the way there: an estimate"`
	Tip        bool         `json:"tip" doc:"The way there goes over the tip"`
	Trips      int          `json:"trips" doc:"How often its waste is taken to the tip and one comes back, within its time"`
	Sky        SkyOf        `json:"weather" doc:"There, on that day"`
	Jobs       []work.Order `json:"jobs" doc:"As they stand now, in the order they are done"`
	Parts      []int        `json:"parts" doc:"Of each of the jobs: which part of it, from 1, where it is done in parts; 0 where it is done whole"`
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
	Job   work.Order `json:"job"`
	Why   string     `json:"why"`
	Takes string     `json:"takes"`
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

// proposals are those at hand, by id.
type proposals struct {
	mu sync.Mutex
	by map[int64]*proposal
}

// Span and time of a search where nobody said.
const (
	proposedDays = 14
	proposedFor  = 6.0
	proposalsMax = 8
	daysHold     = 0.8 // chance with which a day is to end within its hours
	fortnights   = 30  // drawn spans over which plans are compared
)

func (p *proposal) read() Proposal {
	p.mu.Lock()
	defer p.mu.Unlock()
	return p.told
}

// ReadProposal tells how far one is.
func (h *Room) ReadProposal(ctx context.Context, id int64) (Proposal, error) {
	p, err := h.proposal(ctx, id)
	if err != nil {
		return Proposal{}, err
	}
	return p.read(), nil
}

// WhyThere is why a proposal puts a job where it does, and what each other day would cost.
func (h *Room) WhyThere(ctx context.Context, id, order int64, part int) (rounds.Why, error) {
	p, err := h.proposal(ctx, id)
	if err != nil {
		return rounds.Why{}, err
	}
	p.mu.Lock()
	defer p.mu.Unlock()
	for j := range p.of.orders {
		if p.of.partOf(j) == (partOf{order, max(0, part-1)}) && p.told.State != "working" {
			return p.plan.Explain(j), nil
		}
	}
	return rounds.Why{}, store.ErrNotFound
}
