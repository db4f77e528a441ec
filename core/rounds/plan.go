package rounds

import (
	"cmp"
	"math"
	"math/bits"
	"slices"

	"mezzadro/core/day"
)

// Visit is a crew at a property on a day.
type Visit struct {
	Crew   int     `json:"crew" doc:"Index"`
	Day    int     `json:"day" doc:"Days from the first of the span"`
	Date   day.Day `json:"date" format:"date"`
	Place  int     `json:"place" doc:"Index"`
	Jobs   []int   `json:"jobs" doc:"Indices, in the order they are done: clean before sick, what closes a plant last"`
	From   int     `json:"from" doc:"Arrival, minutes after midnight"`
	To     int     `json:"to" doc:"When it is left"`
	Travel float64 `json:"travel" doc:"Minutes on the way there; an estimate where nobody timed it"`
	Tip    bool    `json:"tip,omitempty" doc:"The way there goes over the tip"`
	Trips  int     `json:"trips,omitempty" doc:"How often its waste is taken to the tip and one comes back, within its time"`
}

// Rest is a crew's break on a day.
type Rest struct {
	Crew int `json:"crew" doc:"Index"`
	Day  int `json:"day" doc:"Days from the first of the span"`
	From int `json:"from" doc:"Minutes after midnight"`
	To   int `json:"to"`
}

// Left is a job without a day, and why.
type Left struct {
	Job   int    `json:"job"`
	Why   string `json:"why"`
	Takes string `json:"takes,omitempty" doc:"What it would take to fit it in"`
}

// Score is what a plan costs, part by part: minutes, with a point of a day's cost counted as one.
type Score struct {
	Days     float64 `json:"days" doc:"What the days cost for the jobs, by weight, and half a minute for each day that a job waits"`
	Travel   float64 `json:"travel" doc:"Minutes on the way"`
	Visits   float64 `json:"visits" doc:"Arrivals, and 20 for each of a crew that the client does not know"`
	Overtime float64 `json:"overtime"`
	Idle     float64 `json:"idle" doc:"Waiting for a gate to open"`
	Sick     float64 `json:"sick" doc:"Clean properties after sick ones"`
	Unsafe   float64 `json:"unsafe" doc:"Visits made before what makes safe; what it costs that it waits is in days and waiting"`
	Load     float64 `json:"load" doc:"Waste beyond the vehicle's load"`
	Kit      float64 `json:"kit" doc:"Bulky kit that days want: loading and cleaning"`
	Fair     float64 `json:"fair" doc:"Days shared out unevenly among the crews"`
	Moved    float64 `json:"moved" doc:"Jobs that do not stay where they stood"`
	Waiting  float64 `json:"waiting" doc:"Jobs left for later"`
	Total    float64 `json:"total"`
}

// Plan is visits of a span of days.
type Plan struct {
	Visits []Visit  `json:"visits" doc:"By day, crew and time"`
	Breaks []Rest   `json:"breaks,omitempty" doc:"When crews rest; within a visit, or on the way"`
	Late   []Late   `json:"late" doc:"Of each day with visits: the chance that it goes on past the crew's hours"`
	Left   []Left   `json:"left"`
	Score  Score    `json:"score"`
	Bound  float64  `json:"bound" doc:"No plan can cost less"`
	Gap    float64  `json:"gap" doc:"How far the score is above the bound, as a share of it; what is left to gain is less"`
	Rounds int      `json:"rounds" doc:"How often parts were torn down and built up again"`
	Notes  []string `json:"notes" doc:"What is missing and was guessed"`

	Drawn *Drawn `json:"drawn,omitempty" doc:"How it fares over drawn spans, where that was asked for; absent without"`

	search *search
}

// Make plans. goOn is asked after each round of improvement, with the best score so far, how far the search is (0 to
// 1) and whether to go on: the clock is the caller's. The same seed and the same number of rounds give the same plan.
// Its error is a list of refused fields.
func Make(p *Problem, seed uint64, goOn func(rounds int, best float64) (done float64, more bool)) (Plan, error) {
	if err := p.Validate(); err != nil {
		return Plan{}, err
	}
	p = p.weathered()
	s := newSearch(p, seed)
	s.build()
	n, drawn := s.find(seed, goOn)
	out := s.plan(n)
	out.Drawn = drawn
	return out, nil
}

// build makes a first plan.
func (s *search) build() {
	q := &pool{s: s, jobs: []int{}, whole: true}
	for j := range s.p.Jobs {
		if !s.round[j] {
			q.jobs = append(q.jobs, j)
		}
	}
	s.stay()
	q.jobs = slices.DeleteFunc(q.jobs, func(j int) bool { return s.at[j] >= 0 })
	q.fill()
	for _, c := range s.courses {
		s.relink(c)
	}
}

// stay puts jobs back where they stood, and pinned ones where they are pinned, as far as that may be.
func (s *search) stay() {
	for again := true; again; {
		again = false
		for j := range s.p.Jobs {
			k := &s.p.Jobs[j]
			pin := k.Pin
			if pin == nil {
				pin = k.Was
			}
			if pin == nil || s.at[j] >= 0 || s.round[j] {
				continue
			}
			w := pin.Crew*s.p.Days + pin.Day
			if v, ch := s.try(j, w); v < far && (k.Pin != nil || v < s.leave(j)) {
				s.put(w, ch, j)
				again = true
			}
		}
	}
}

// Rounds counts so many rounds and no more: for tests and small plans.
func Rounds(n int) func(int, float64) (float64, bool) {
	return func(done int, _ float64) (float64, bool) { return float64(done) / float64(n), done < n }
}

func (s *search) plan(rounds int) Plan {
	out := Plan{Visits: []Visit{}, Late: s.late(), Left: []Left{}, Rounds: rounds, Notes: s.notes(), search: s}
	for i := range s.list {
		w := &s.list[i]
		t := s.simulate(w, w.stops, true)
		last, load := -1, aboard{}
		for k, st := range w.stops {
			over := s.onward(&load, w.crew, last, &st).tipped
			trips := s.away(&load, w.crew, &st)
			last = st.place
			out.Visits = append(out.Visits, Visit{Crew: w.crew, Day: w.day, Date: s.p.From + day.Day(w.day), Place: st.place, Jobs: s.inOrder(st.jobs),
				From: int(math.Round(t.begins[k])), To: int(math.Round(t.ends[k])), Travel: math.Round(t.legs[k]), Tip: over, Trips: trips})
		}
		if t.rested > 0 {
			b := s.p.Crews[w.crew].Break
			from := int(math.Round(t.rested))
			out.Breaks = append(out.Breaks, Rest{w.crew, w.day, from, from + b.Minutes})
		}
	}
	slices.SortStableFunc(out.Visits, func(a, b Visit) int {
		return cmp.Or(cmp.Compare(a.Day, b.Day), cmp.Compare(a.Crew, b.Crew), cmp.Compare(a.From, b.From))
	})
	for j, w := range s.at {
		if w < 0 {
			out.Left = append(out.Left, s.left(j))
		}
	}
	out.Score = s.score()
	out.Raise(s.bound())
	return out
}

// Raise takes a bound that is higher than the one known.
func (p *Plan) Raise(bound float64) {
	p.Bound = max(p.Bound, math.Floor(bound*10)/10)
	if p.Bound > 0 {
		p.Gap = math.Round(1000*(p.Score.Total-p.Bound)/p.Bound) / 1000
	}
}

// inOrder are the jobs of a visit as they are done: clean before sick, what closes a plant last, and after what they
// wait for.
func (s *search) inOrder(jobs []int) []int {
	out := slices.Clone(jobs)
	rank := func(j int) int {
		k := &s.p.Jobs[j]
		r := 0
		if k.Sick {
			r++
		}
		if k.closes() {
			r += 2
		}
		return r
	}
	slices.SortStableFunc(out, func(a, b int) int { return cmp.Or(cmp.Compare(rank(a), rank(b)), cmp.Compare(a, b)) })
	for range out { // what others wait for is done before them
		for i := range out {
			for k := i + 1; k < len(out); k++ {
				if slices.ContainsFunc(s.p.Jobs[out[i]].After, func(g Gap) bool { return g.Job == out[k] }) {
					out[i], out[k] = out[k], out[i]
				}
			}
		}
	}
	return out
}

// score sums the plan part by part.
func (s *search) score() (out Score) {
	for i := range s.list {
		w := &s.list[i]
		t := s.simulate(w, w.stops, false)
		fixed, waste, _ := s.fixed(w.crew, w.stops)
		kit := kitEach * float64(bits.OnesCount64(w.kit))
		out.Travel += t.travel
		out.Visits += fixed - kit
		out.Kit += kit
		out.Overtime += overEach * t.over
		out.Idle += idleEach * t.idle
		out.Sick += sickEach * float64(t.sick)
		out.Unsafe += unsafeAfter * float64(t.before)
		out.Load += s.loaded(w, waste)
	}
	for d := range s.p.Days {
		if w := slices.IndexFunc(s.list, func(w way) bool { return w.day == d && !w.hours.empty() }); w >= 0 {
			out.Fair += s.fairNow(w)
		}
	}
	for j, w := range s.at {
		if w < 0 {
			out.Waiting += s.leave(j)
			continue
		}
		d := s.list[w].day
		own := s.p.Jobs[j].own(d)
		out.Days += own
		out.Moved += s.here(j, w) - own
	}
	parts := []*float64{
		&out.Days, &out.Travel, &out.Visits, &out.Overtime, &out.Idle, &out.Sick, &out.Unsafe, &out.Load, &out.Kit, &out.Fair, &out.Moved, &out.Waiting,
	}
	for _, v := range parts {
		out.Total += *v
		*v = math.Round(*v*10) / 10
	}
	out.Total = math.Round(out.Total*10) / 10
	return out
}

// notes tell what was guessed.
func (s *search) notes() []string {
	out := []string{}
	for _, q := range s.p.Places {
		if q.At == nil {
			out = append(out, q.Name+" is not on the map: the way to it is taken as the longest.")
		}
	}
	for _, c := range s.p.Crews {
		if !slices.ContainsFunc(c.Hours[:], func(h Span) bool { return !h.empty() }) {
			out = append(out, c.Name+" has no hours on any day of the week: it goes nowhere.")
		}
		if c.Start == nil {
			out = append(
				out,
				c.Name+" has no place to start from: the way to its first and from its last visit is not counted.",
			)
		}
	}
	return out
}
