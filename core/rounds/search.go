package rounds

import (
	"math/rand/v2"
	"slices"
)

// search is a plan in the making.
type search struct {
	p       *Problem
	ways    ways
	open    [][]Span    // by day and place
	list    []way       // by crew, then day
	working []int       // of them, those with hours
	peers   [][]int     // the same by day
	at      []int       // the way each job is on; -1 none
	minutes [][]float64 // of each job for each crew; 0: it cannot do it
	next    [][]int     // jobs that come after each
	mates   [][]int     // jobs on the same plants, where one of the two closes them
	courses [][]int     // jobs that hang together, what is waited for first
	free    []bool      // jobs that hang on no other
	ofPlace [][]int     // jobs by place
	going   []bool      // jobs that are just being taken off their ways
	touched []bool      // places of theirs
	mine    []bool      // jobs that may be taken off and put; all but in a half
	kit     []uint64    // of each job, a bit for each kind
	single  []stop      // each job as a stop of its own
	days    []float64   // of each job on each way: what its day costs there; far where it may never be
	rush    [][]Traffic // by day
	round   []bool      // jobs that wait for one another in a circle
	value   []float64   // of each job on each way since it was last looked at
	fits    []spot
	rng     *rand.Rand
	scratch []stop
	gain    []float64 // by way
	key     []float64 // by which jobs are put in order
	waits   []float64 // what leaving each job costs
	trip    []float64 // by place: what a job there owes for somebody coming later
	sum     float64   // what the plan costs
	effort  int       // how much work was done: looks at a stop on a way
	log     []step    // what was done since the last mark, to be taken back
	olds    []way     // ways in it, as they were
	aside   []stop    // the stops in those
	store   []int     // room for lists of jobs in stops

	overEach float64 // each minute beyond the hours costs
}

const (
	far       = 1e18
	storeMost = 4096 // jobs in the lists that are made room for at once

	changeTakes = 4 // as long as so many looks: changing a way,
	buildTakes  = 8 // and what each build begins with
)

func newSearch(p *Problem, seed uint64) *search {
	s := &search{
		p:       p,
		ways:    p.ways(),
		at:      make([]int, len(p.Jobs)),
		next:    make([][]int, len(p.Jobs)),
		mates:   make([][]int, len(p.Jobs)),
		peers:   make([][]int, p.Days),
		going:   make([]bool, len(p.Jobs)),
		touched: make([]bool, len(p.Places)),
		mine:    make([]bool, len(p.Jobs)),
		ofPlace: make([][]int, len(p.Places)),
		rng:     rand.New(rand.NewPCG(seed, 17)),

		overEach: overEach,
	}
	for d := range p.Days {
		row := make([]Span, len(p.Places))
		for k := range row {
			row[k] = p.open(k, d)
		}
		s.open = append(s.open, row)
		s.rush = append(s.rush, p.rush(d))
	}
	for c := range p.Crews {
		for d := range p.Days {
			h := p.at(c, d)
			if !h.empty() {
				s.working = append(s.working, len(s.list))
				s.peers[d] = append(s.peers[d], len(s.list))
			}
			s.list = append(s.list, way{crew: c, day: d, hours: h})
		}
	}
	s.hang()
	s.kit = p.kits()
	s.round = p.circles()
	s.courses = s.findCourses()
	s.trip = s.trips()
	s.days = make([]float64, len(p.Jobs)*len(s.list))
	s.single = make([]stop, len(p.Jobs))
	s.waits = make([]float64, len(p.Jobs))
	for j := range p.Jobs {
		s.look(j)
		s.sum += s.waits[j]
	}
	s.value = make([]float64, len(p.Jobs)*len(s.list))
	s.fits = make([]spot, len(p.Jobs)*len(s.list))
	return s
}

// hang works out what each job takes each crew, and which jobs hang on one another.
func (s *search) hang() {
	p := s.p
	s.minutes = make([][]float64, len(p.Jobs))
	byPlant := map[int64][]int{}
	for j := range p.Jobs {
		s.at[j], s.mine[j] = -1, true
		k := &p.Jobs[j]
		s.minutes[j] = make([]float64, len(p.Crews))
		for c := range p.Crews {
			if p.lacks(j, c) == "" {
				s.minutes[j][c] = p.takes(j, c)
			}
		}
		for _, g := range k.After {
			if g.Job >= 0 {
				s.next[g.Job] = append(s.next[g.Job], j)
			}
		}
		for _, plant := range k.Plants {
			byPlant[plant] = append(byPlant[plant], j)
		}
	}
	for _, list := range byPlant {
		for _, a := range list {
			for _, b := range list {
				if a != b && (p.Jobs[a].closes() || p.Jobs[b].closes()) && !slices.Contains(s.mates[a], b) {
					s.mates[a] = append(s.mates[a], b)
				}
			}
		}
	}
	for j := range p.Jobs {
		s.free = append(s.free, len(p.Jobs[j].After)+len(s.next[j])+len(s.mates[j]) == 0)
		s.ofPlace[p.Jobs[j].Place] = append(s.ofPlace[p.Jobs[j].Place], j)
	}
}

// look works out anew what a job is as a stop, and what it costs on each way, and left.
func (s *search) look(j int) {
	s.single[j], s.waits[j] = s.asStop(j), s.leave(j)
	for w := range s.list {
		s.days[j*len(s.list)+w] = far
		if s.mayEver(j, w) {
			s.days[j*len(s.list)+w] = s.here(j, w)
		}
	}
}

// kits numbers the kinds of kit, and says which each job wants. From the 64th on kinds count as one.
func (p *Problem) kits() []uint64 {
	out, number := make([]uint64, len(p.Jobs)), map[string]int{}
	for j := range p.Jobs {
		for _, kind := range p.Jobs[j].Kit {
			n, known := number[kind]
			if !known {
				n = min(len(number), 63)
				number[kind] = n
			}
			out[j] |= 1 << n
		}
	}
	return out
}

// lacks is what a crew lacks for a job; empty where it can do it.
func (p *Problem) lacks(j, c int) string {
	k, crew := &p.Jobs[j], &p.Crews[c]
	if crew.Size < k.people() {
		return "people"
	}
	for _, skill := range k.Skills {
		if !slices.Contains(crew.Skills, skill) {
			return skill
		}
	}
	return ""
}

// circles are the jobs that wait for themselves through others.
func (p *Problem) circles() []bool {
	state := make([]int, len(p.Jobs)) // 1 looked at, 2 done
	out := make([]bool, len(p.Jobs))
	var path []int
	var visit func(j int)
	visit = func(j int) {
		state[j] = 1
		path = append(path, j)
		for _, g := range p.Jobs[j].After {
			switch {
			case g.Job < 0:
			case state[g.Job] == 0:
				visit(g.Job)
			case state[g.Job] == 1:
				for _, k := range path[slices.Index(path, g.Job):] {
					out[k] = true
				}
			}
		}
		path = path[:len(path)-1]
		state[j] = 2
	}
	for j := range p.Jobs {
		if state[j] == 0 {
			visit(j)
		}
	}
	return out
}

// trips are what each job left at a place owes: somebody has to come for it later, alone or with the others.
func (s *search) trips() []float64 {
	many := make([]float64, len(s.p.Places))
	for j := range s.p.Jobs {
		many[s.p.Jobs[j].Place]++
	}
	out := make([]float64, len(many))
	for i, n := range many {
		if n > 0 {
			whole := visitCost + arriveWeight*s.p.Places[i].Arrive + 2*s.shortest(i)
			out[i] = whole * (ownWay + (1-ownWay)/n)
		}
	}
	return out
}

// leave is what leaving a job for later costs.
func (s *search) leave(j int) float64 {
	k := &s.p.Jobs[j]
	c := waitingMore + s.trip[k.Place] + soonEach*float64(s.p.Days)
	if k.Later >= Forbidden {
		c += tooLate * k.weight()
	} else {
		c += float64(k.Later) * k.weight()
	}
	if k.Was != nil {
		c += k.moved()
	}
	if k.Pin != nil {
		c += pinnedLeft
	}
	if k.Urgent {
		c += unsafeLeft
	}
	return c
}

// own is what a job's day costs, wherever it stood.
func (j *Job) own(d int) float64 {
	c := j.weight()*float64(j.cost(d)) + soonEach*float64(d)
	if j.Urgent {
		c += unsafeDay * float64(min(d, unsafeDays))
	}
	return c
}

// closes reports a job on whose day no other crew works on its plants: what is sprayed, and what closes them longer.
func (j *Job) closes() bool { return j.Closes > 0 || j.Work == Spray }

func (j *Job) moved() float64 {
	if j.Told {
		return toldEach
	}
	return movedEach
}

// here is what a job's day costs there, with what moving it there costs.
func (s *search) here(j, w int) float64 {
	k, way := &s.p.Jobs[j], &s.list[w]
	c := k.own(way.day)
	if k.Was != nil && k.Was.Day != way.day {
		c += k.moved()
	} else if k.Was != nil && k.Was.Crew != way.crew {
		c += k.moved() / 3
	}
	return c
}

// there is the same, looked up; far where the job may never be there.
func (s *search) there(j, w int) float64 { return s.days[j*len(s.list)+w] }

// may reports that nothing but the hours speaks against a job on a way.
func (s *search) may(j, w int) bool {
	return s.there(j, w) < far && (s.free[j] || s.gapsHold(j, w) && s.matesHold(j, w))
}

// gapsHold reports that the gaps to what comes before and after hold.
func (s *search) gapsHold(j, w int) bool {
	d := s.list[w].day
	for _, g := range s.p.Jobs[j].After {
		before := g.Day
		if g.Job >= 0 {
			if s.at[g.Job] < 0 {
				return false
			}
			before = s.list[s.at[g.Job]].day
			if before == d && !s.together(j, w, g.Job) {
				return false
			}
		}
		if d-before < g.Min || g.Max > 0 && d-before > g.Max {
			return false
		}
	}
	for _, n := range s.next[j] {
		if s.at[n] < 0 {
			continue
		}
		for _, g := range s.p.Jobs[n].After {
			if g.Job != j {
				continue
			}
			gap := s.list[s.at[n]].day - d
			if gap < g.Min || g.Max > 0 && gap > g.Max || gap == 0 && !s.together(j, w, n) {
				return false
			}
		}
	}
	return true
}

// together reports that a job put on a way would be done in the same visit as another: then the order of the two is
// kept there.
func (s *search) together(j, w, other int) bool {
	return s.at[other] == w && s.p.Jobs[j].Place == s.p.Jobs[other].Place
}

// matesHold reports that no treatment closes the job's plants on a day, that it closes none that is worked on, and that
// of two crews none works on plants on the day the other treats them: within one visit the treatment comes last.
func (s *search) matesHold(j, w int) bool {
	d := s.list[w].day
	for _, m := range s.mates[j] {
		if s.at[m] < 0 {
			continue
		}
		other := s.list[s.at[m]].day
		if d > other && d <= other+s.p.Jobs[m].Closes || other > d && other <= d+s.p.Jobs[j].Closes {
			return false
		}
		if d == other && s.at[m] != w {
			return false
		}
	}
	return true
}

// stopOf is a job as a stop of its own for a crew.
func (s *search) stopOf(j, crew int) stop {
	st := s.single[j]
	st.work = s.minutes[j][crew]
	return st
}

// asStop is a job as a stop of its own, without its minutes.
func (s *search) asStop(j int) stop {
	k := &s.p.Jobs[j]
	st := stop{
		place: k.Place,
		waste: k.WasteM3,
		sick:  k.Sick || s.p.Places[k.Place].Sick,
		kit:   s.kit[j],
		safe:  k.Urgent,
	}
	if k.Pin != nil && k.Pin.At > 0 {
		st.early, st.late = float64(k.Pin.At), float64(k.Pin.At+pinnedWithin)
	}
	return st
}

// try is the least that putting a job on a way adds, and where; far where it cannot be.
func (s *search) try(j, w int) (float64, spot) {
	if !s.may(j, w) {
		return far, spot{}
	}
	way := &s.list[w]
	c, how := s.add(way, s.stopOf(j, way.crew))
	if c >= far {
		return far, how
	}
	return c + s.there(j, w), how
}

// step is a way as it was before it was changed, or the way that a job was on before it was put or taken off.
type step struct {
	w     int // -1: a job's
	old   int // index of the way as it was, among such
	job   int
	oldAt int
}

// change notes a way before jobs are put on it or taken off.
func (s *search) change(w int) {
	s.effort += changeTakes
	old := s.list[w]
	from := len(s.aside)
	s.aside = append(s.aside, old.stops...)
	old.stops = s.aside[from:len(s.aside):len(s.aside)]
	s.log = append(s.log, step{w: w, old: len(s.olds)})
	s.olds = append(s.olds, old)
	s.sum -= old.cost + s.fairNow(w)
}

// changed works a way out anew once that is done.
func (s *search) changed(w int) {
	s.reckon(&s.list[w])
	s.sum += s.list[w].cost + s.fairNow(w)
}

// set notes a job's way, or that it has none.
func (s *search) set(j, w int) {
	s.log = append(s.log, step{w: -1, job: j, oldAt: s.at[j]})
	s.sum += s.stands(j, w) - s.stands(j, s.at[j])
	s.at[j] = w
}

// stands is what a job costs on a way, or left, beside the way itself.
func (s *search) stands(j, w int) float64 {
	if w < 0 {
		return s.waits[j]
	}
	if c := s.there(j, w); c < far {
		return c
	}
	return s.here(j, w)
}

// forgetSteps has what was done up to now be no longer taken back.
func (s *search) forgetSteps() { s.log, s.olds, s.aside = s.log[:0], s.olds[:0], s.aside[:0] }

// back takes back all that was done since a mark.
func (s *search) back(mark int, sum float64) {
	for i := len(s.log) - 1; i >= mark; i-- {
		if st := &s.log[i]; st.w >= 0 {
			old := &s.olds[st.old]
			stops := append(s.list[st.w].stops[:0], old.stops...)
			s.list[st.w] = *old
			s.list[st.w].stops = stops
		} else {
			s.at[st.job] = st.oldAt
		}
	}
	s.log, s.sum = s.log[:mark], sum
}

// put puts jobs of one property on a way.
func (s *search) put(w int, at spot, jobs ...int) {
	s.change(w)
	way := &s.list[w]
	if at.fresh {
		way.stops = slices.Insert(way.stops, at.at, stop{place: s.p.Jobs[jobs[0]].Place})
	}
	there := &way.stops[at.at]
	there.jobs = append(append(s.room(len(there.jobs)+len(jobs)), there.jobs...), jobs...)
	for _, j := range jobs {
		st := s.stopOf(j, way.crew)
		there.merge(&st)
		s.set(j, w)
	}
	s.changed(w)
}

// room is an empty list with room for so many jobs. Lists in stops are made anew all the time, and never changed.
func (s *search) room(n int) []int {
	if len(s.store) < n {
		s.store = make([]int, max(n, storeMost))
	}
	out := s.store[:0:n]
	s.store = s.store[n:]
	return out
}

// take takes jobs off their ways, and with each what comes after it.
func (s *search) take(taken []int, jobs ...int) []int {
	before := len(taken)
	for _, j := range jobs {
		taken = s.follow(j, taken)
	}
	for _, j := range taken[before:] {
		if s.at[j] >= 0 {
			s.unload(s.at[j])
		}
	}
	for _, j := range taken[before:] {
		s.going[j], s.touched[s.p.Jobs[j].Place] = false, false
	}
	return taken
}

// follow notes that a job goes, and what comes after it.
func (s *search) follow(j int, taken []int) []int {
	if s.at[j] < 0 || s.going[j] || !s.mine[j] {
		return taken
	}
	s.going[j], s.touched[s.p.Jobs[j].Place] = true, true
	taken = append(taken, j)
	for _, n := range s.next[j] {
		taken = s.follow(n, taken)
	}
	return taken
}

// lift takes one job off its way and leaves what comes after it where it is.
func (s *search) lift(j int) {
	place := s.p.Jobs[j].Place
	s.going[j], s.touched[place] = true, true
	s.unload(s.at[j])
	s.going[j], s.touched[place] = false, false
}

// unload takes those jobs off a way that are going.
func (s *search) unload(w int) {
	s.change(w)
	way := &s.list[w]
	kept := way.stops[:0]
	for _, st := range way.stops {
		if s.touched[st.place] && slices.ContainsFunc(st.jobs, func(j int) bool { return s.going[j] }) {
			st = s.without(st, way.crew)
		}
		if len(st.jobs) > 0 {
			kept = append(kept, st)
		}
	}
	way.stops = kept
	s.changed(w)
}

// without is a stop without the jobs that are going.
func (s *search) without(st stop, crew int) stop {
	left := stop{place: st.place, jobs: s.room(len(st.jobs))}
	for _, j := range st.jobs {
		if s.going[j] {
			s.set(j, -1)
		} else {
			left.jobs = append(left.jobs, j)
			st := s.stopOf(j, crew)
			left.merge(&st)
		}
	}
	return left
}
