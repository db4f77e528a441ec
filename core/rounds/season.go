package rounds

import (
	"cmp"
	"math"
	"slices"

	"mezzadro/core/day"
)

// Outlook is a season in weeks: what the work wants, what the crews have, and what goes where so that it fits.
type Outlook struct {
	Weeks []Week  `json:"weeks"`
	Moved []Moved `json:"moved" doc:"Jobs that are not in their best week, the dearest first"`
	Left  []int   `json:"left" doc:"Jobs for which no week has hours"`
	Cost  float64 `json:"cost" doc:"What the weeks cost for all jobs together, by weight"`
}

// Week is seven days of the crews.
type Week struct {
	From     day.Day `json:"from" format:"date" doc:"Its first day"`
	Capacity float64 `json:"capacity" doc:"Minutes of people at work, without what driving takes"`
	Wanted   float64 `json:"wanted" doc:"Were each job done in its best week"`
	Load     float64 `json:"load" doc:"As it is spread"`
	Jobs     []int   `json:"jobs" doc:"Indices"`
}

// Moved is a job that is done in another week than its best.
type Moved struct {
	Job  int     `json:"job"`
	Best int     `json:"best" doc:"Index of its best week"`
	To   int     `json:"to"`
	Cost float64 `json:"cost" doc:"More than in its best week, by weight"`
}

// driving is the share of a day that goes on the way, on arrivals and on small things.
const driving = 0.3

// weekly is what a job costs in each week, and what it takes.
type weekly struct {
	job    int
	costs  []float64 // far where it cannot be
	best   int
	second float64 // the least cost of any other week
	takes  float64 // minutes of people
	leaves float64 // what it costs where it finds no week
	skills []int   // indices of the skills it asks for
}

// Season spreads jobs over weeks: each in its best week where there are hours for it, those that lose most by another
// week first; then jobs change places as long as that costs less. Costs of days beyond the list are forbidden, as in
// Make. Its error is a list of refused fields.
func Season(p *Problem, weeks int) (Outlook, error) {
	short := *p
	short.Days, short.Jobs = 1, slices.Clone(p.Jobs) // a season is longer than a round may be, and knows no single days
	for j := range short.Jobs {
		short.Jobs[j].Pin, short.Jobs[j].Was = nil, nil
	}
	if err := short.Validate(); err != nil {
		return Outlook{}, err
	}
	s := newSpread(p, weeks)
	for _, j := range s.order {
		s.place(j)
	}
	s.swap()
	s.orphans()
	return s.tell(), nil
}

// spread is an outlook in the making.
type spread struct {
	p      *Problem
	weeks  int
	skills []string
	room   []float64   // by week
	able   [][]float64 // by skill and week: minutes of the crews that have it
	jobs   []weekly
	next   [][]int // jobs that wait for each
	order  []int   // by what they lose in another week, the most first
	at     []int   // week of each job; -1 none
	least  float64 // minutes of people that the shortest job takes
	open   []roomIn
	costs  []float64 // of all jobs, one after the other
	vain   []vain    // by the week a job is in, of none first, and its best
	moves  int       // how often a job has found another week
	byDays map[*int]byDays
}

// vain are tries of jobs to get into their best week that came to nothing, as long as no job has moved since.
type vain struct {
	moves int
	tried []try
}

// try is what a job would have gained that asks for nothing but its minutes of people.
type try struct{ gain, takes float64 }

func newSpread(p *Problem, weeks int) *spread {
	s := &spread{p: p, weeks: weeks, room: make([]float64, weeks), at: make([]int, len(p.Jobs)), least: far,
		byDays: map[*int]byDays{}}
	s.next = make([][]int, len(p.Jobs))
	for j := range p.Jobs {
		for _, g := range p.Jobs[j].After {
			if g.Job >= 0 {
				s.next[g.Job] = append(s.next[g.Job], j)
			}
		}
		for _, skill := range p.Jobs[j].Skills {
			if !slices.Contains(s.skills, skill) {
				s.skills = append(s.skills, skill)
			}
		}
	}
	s.able = make([][]float64, len(s.skills))
	for i := range s.able {
		s.able[i] = make([]float64, weeks)
	}
	for c, crew := range p.Crews {
		for d := range 7 * weeks {
			h := p.at(c, d)
			m := max(0, float64(h.To-h.From-crew.Load)-crew.Break.Within(h)) * float64(crew.Size) * (1 - driving)
			s.room[d/7] += m
			for i, skill := range s.skills {
				if slices.Contains(crew.Skills, skill) {
					s.able[i][d/7] += m
				}
			}
		}
	}
	s.jobs, s.costs = make([]weekly, len(p.Jobs)), make([]float64, len(p.Jobs)*weeks)
	s.order = make([]int, 0, len(p.Jobs))
	for j := range p.Jobs {
		s.jobs[j] = s.weekly(j)
		s.at[j], s.least = -1, min(s.least, s.jobs[j].takes)
		s.order = append(s.order, j)
	}
	loss := func(j int) float64 {
		first, second := far, far
		for _, c := range s.jobs[j].costs {
			if c < first {
				first, second = c, first
			} else if c < second {
				second = c
			}
		}
		return second - first
	}
	losses := make([]float64, len(p.Jobs))
	for j := range losses {
		losses[j] = loss(j)
	}
	slices.SortStableFunc(s.order, func(a, b int) int { return cmp.Compare(losses[b], losses[a]) })
	return s
}

func (s *spread) weekly(j int) weekly {
	k := &s.p.Jobs[j]
	weight, leasts := k.weight(), s.leasts(k.Costs)
	out := weekly{job: j, costs: s.costs[j*s.weeks : (j+1)*s.weeks], best: -1, takes: k.Takes(), leaves: tooLate * weight}
	for w := range out.costs {
		out.costs[w] = far
		if leasts[w] < Forbidden {
			out.costs[w] = float64(leasts[w])*weight + soonEach*float64(7*w)
			if out.best < 0 || out.costs[w] < out.costs[out.best] {
				out.best = w
			}
		}
	}
	out.second = far
	for w, c := range out.costs {
		if w != out.best {
			out.second = min(out.second, c)
		}
	}
	for i, skill := range s.skills {
		if slices.Contains(k.Skills, skill) {
			out.skills = append(out.skills, i)
		}
	}
	return out
}

// leasts are what each week costs by days: worked out once for jobs that share their list.
func (s *spread) leasts(costs []int) []int {
	var of *int
	if len(costs) > 0 {
		of = &costs[0]
	}
	if known := s.byDays[of]; len(known.days) == len(costs) && known.weeks != nil {
		return known.weeks
	}
	out := make([]int, s.weeks)
	for w := range out {
		out[w] = Forbidden
		for _, c := range costs[min(7*w, len(costs)):min(7*w+7, len(costs))] {
			out[w] = min(out[w], c)
		}
	}
	s.byDays[of] = byDays{costs, out}
	return out
}

// byDays is what days cost, and so the weeks.
type byDays struct{ days, weeks []int }

// fits reports that a week has hours for a job, and people who can do it, and is far enough from what it waits for and
// what waits for it.
func (s *spread) fits(j, w int) bool {
	k := &s.jobs[j]
	if k.costs[w] >= far || s.room[w] < k.takes {
		return false
	}
	for _, g := range s.p.Jobs[j].After {
		if !s.apart(g, w) {
			return false
		}
	}
	for _, n := range s.next[j] {
		for _, g := range s.p.Jobs[n].After {
			if g.Job == j && s.at[n] >= 0 && !g.weeksHold(w, s.at[n]) {
				return false
			}
		}
	}
	for _, i := range k.skills {
		if s.able[i][w] < k.takes {
			return false
		}
	}
	return true
}

// apart reports that a week holds a gap to what comes before; where that has no week yet, it does.
func (s *spread) apart(g Gap, w int) bool {
	if g.Job < 0 {
		return 7*w+6 >= g.Day+g.Min && (g.Max == 0 || 7*w <= g.Day+g.Max)
	}
	return s.at[g.Job] < 0 || g.weeksHold(s.at[g.Job], w)
}

// weeksHold reports that some days of two weeks hold a gap that is counted in whole weeks: what is less than one may
// lie in the same.
func (g Gap) weeksHold(first, second int) bool {
	weeks := second - first
	return weeks >= g.Min/7 && (g.Max == 0 || weeks <= (g.Max+6)/7)
}

// orphans have no week, since what they wait for has none.
func (s *spread) orphans() {
	for again := true; again; {
		again = false
		for j, w := range s.at {
			if w >= 0 && slices.ContainsFunc(s.p.Jobs[j].After, func(g Gap) bool { return g.Job >= 0 && s.at[g.Job] < 0 }) {
				s.put(j, w, -1)
				again = true
			}
		}
	}
}

func (s *spread) put(j, w int, sign float64) {
	k := &s.jobs[j]
	s.room[w] -= sign * k.takes
	for _, i := range k.skills {
		s.able[i][w] -= sign * k.takes
	}
	if s.at[j] = w; sign < 0 {
		s.at[j] = -1
	}
}

// place puts a job into the cheapest week that has hours for it.
func (s *spread) place(j int) {
	if best := s.cheapest(j, far); best >= 0 {
		s.put(j, best, 1)
	}
}

// cheapest is the week that has hours for a job and costs the least, below a bound; -1: none.
func (s *spread) cheapest(j int, below float64) int {
	best := -1
	for w, c := range s.jobs[j].costs {
		if c < below && s.fits(j, w) {
			best, below = w, c
		}
	}
	return best
}

// swapRounds is how often all jobs that are out of their best week are tried again.
const swapRounds = 4

// swap lets a job that is out of its best week take the place of one there that hardly minds, as long as that costs
// less in all.
func (s *spread) swap() {
	for range swapRounds {
		better := false
		in := s.inWeeks()
		s.vain = nil // others are there now
		for _, j := range s.order {
			k := &s.jobs[j]
			if k.best < 0 || s.at[j] == k.best {
				continue
			}
			better = s.swapIn(j, in[k.best]) || better
		}
		if !better {
			return
		}
	}
}

// inWeeks are the jobs of each week, by what they lose elsewhere.
func (s *spread) inWeeks() [][]lost {
	in := make([][]lost, s.weeks)
	for j, w := range s.at {
		if w >= 0 {
			in[w] = append(in[w], lost{j, s.jobs[j].loses(w), s.jobs[j].takes})
		}
	}
	for w := range in {
		slices.SortStableFunc(in[w], func(a, b lost) int { return cmp.Compare(a.loses, b.loses) })
	}
	return in
}

// lost is a job in a week, with the least that it costs more in any other.
type lost struct {
	job          int
	loses, takes float64
}

// swapIn tries to put a job into its best week in the place of one of those there, who come in the order of what they
// lose elsewhere, the least first.
func (s *spread) swapIn(j int, there []lost) bool {
	k := &s.jobs[j]
	from, now := s.at[j], k.leaves
	if from >= 0 {
		now = k.costs[from]
	}
	gain := now - k.costs[k.best]
	if s.fits(j, k.best) {
		if from >= 0 {
			s.put(j, from, -1)
		}
		s.put(j, k.best, 1)
		s.moves++
		return true
	}
	if s.inVain(j, gain) {
		return false
	}
	if s.change(j, gain, there) {
		s.moves++
		return true
	}
	s.noteVain(j, gain)
	return false
}

// change looks for one in a job's best week who lets it in, and puts the two where they go.
func (s *spread) change(j int, gain float64, there []lost) bool {
	k, from := &s.jobs[j], s.at[j]
	open := s.roomElsewhere(k.best, from, k.takes)
	if len(open) == 0 {
		return false // no other week has hours for any job
	}
	most := 0.0
	for _, w := range open {
		most = max(most, w.room)
	}
	for _, t := range there {
		if t.loses >= gain-1e-9 {
			return false // nor does any after it find a week that is cheap enough
		}
		if t.takes > most {
			continue // no other week has hours for it
		}
		other, o := t.job, &s.jobs[t.job]
		bound := o.costs[k.best] + gain - 1e-9
		if !slices.ContainsFunc(open, func(w roomIn) bool { return w.room >= o.takes && o.costs[w.week] < bound }) {
			continue // no other week that has hours for it is cheap enough
		}
		if s.at[other] != k.best || o.takes < k.takes && s.room[k.best]+o.takes < k.takes {
			continue
		}
		s.put(other, k.best, -1)
		if from >= 0 {
			s.put(j, from, -1)
		}
		if s.fits(j, k.best) {
			s.put(j, k.best, 1)
			if to := s.cheapest(other, bound); to >= 0 {
				s.put(other, to, 1)
				return true
			}
			s.put(j, k.best, -1)
		}
		s.put(other, k.best, 1)
		if from >= 0 {
			s.put(j, from, 1)
		}
	}
	return false
}

// triesOf are the vain tries from a job's week to its best.
func (s *spread) triesOf(j int) *vain {
	if s.vain == nil {
		s.vain = make([]vain, (s.weeks+1)*s.weeks)
	}
	v := &s.vain[(s.at[j]+1)*s.weeks+s.jobs[j].best]
	if v.moves != s.moves {
		v.moves, v.tried = s.moves, v.tried[:0]
	}
	return v
}

// alone reports a job that waits for no other, and no other for it.
func (s *spread) alone(j int) bool { return len(s.next[j]) == 0 && len(s.p.Jobs[j].After) == 0 }

// inVain reports that a job which asks for no more and would gain no less has tried the same for nothing. One that
// leaves a week gives that its hours, so there only the same minutes are alike; one that others wait for may let those
// move too.
func (s *spread) inVain(j int, gain float64) bool {
	takes, from := s.jobs[j].takes, s.at[j]
	return s.alone(j) && slices.ContainsFunc(s.triesOf(j).tried, func(t try) bool {
		return t.gain >= gain && (t.takes == takes || from < 0 && t.takes < takes)
	})
}

// noteVain keeps a try that came to nothing, in the place of those that it makes needless.
func (s *spread) noteVain(j int, gain float64) {
	k, from := &s.jobs[j], s.at[j]
	if len(k.skills) > 0 || !s.alone(j) {
		return // it may have failed by what others do not ask
	}
	v := s.triesOf(j)
	v.tried = slices.DeleteFunc(v.tried, func(t try) bool {
		return t.gain <= gain && (t.takes == k.takes || from < 0 && t.takes > k.takes)
	})
	v.tried = append(v.tried, try{gain, k.takes})
}

// roomIn is what hours a week has.
type roomIn struct {
	week int
	room float64
}

// roomElsewhere are the weeks but one that have hours for some job, once what takes so long has left another (-1: none).
// It holds until it is asked for again.
func (s *spread) roomElsewhere(but, left int, takes float64) []roomIn {
	s.open = s.open[:0]
	for w, room := range s.room {
		if w == left {
			room += takes
		}
		if w != but && room >= s.least {
			s.open = append(s.open, roomIn{w, room})
		}
	}
	return s.open
}

// elsewhere is the least that a job costs in any week but one.
func (k *weekly) elsewhere(w int) float64 {
	if w == k.best {
		return k.second
	}
	return k.costs[k.best]
}

// loses is the least that a job costs more in any other week than in one.
func (k *weekly) loses(w int) float64 { return k.elsewhere(w) - k.costs[w] }

func (s *spread) tell() Outlook {
	out := Outlook{Weeks: make([]Week, s.weeks), Moved: []Moved{}, Left: []int{}}
	for w := range out.Weeks {
		out.Weeks[w] = Week{From: s.p.From + day.Day(7*w), Capacity: math.Round(s.room[w]), Jobs: []int{}}
	}
	for j, w := range s.at {
		k := &s.jobs[j]
		if k.best >= 0 {
			out.Weeks[k.best].Wanted += k.takes
		}
		if w < 0 {
			out.Left = append(out.Left, j)
			continue
		}
		out.Weeks[w].Load += k.takes
		out.Weeks[w].Capacity += k.takes
		out.Weeks[w].Jobs = append(out.Weeks[w].Jobs, j)
		out.Cost += k.costs[w]
		if w != k.best {
			out.Moved = append(out.Moved, Moved{j, k.best, w, math.Round(10*(k.costs[w]-k.costs[k.best])) / 10})
		}
	}
	out.Cost = math.Round(out.Cost)
	slices.SortStableFunc(out.Moved, func(a, b Moved) int { return cmp.Compare(b.Cost, a.Cost) })
	return out
}
