package rounds

import (
	"math"
	"slices"
)

// How a floor is looked for.
const (
	floorFirst  = 2.0  // by which a price rises at first in a round where nothing answers it, minutes
	floorLast   = 0.03 // the same at the end
	floorOpens  = 4.0  // above what its best day costs a job's price begins
	floorWide   = 50.0 // minutes between a job's first price and its highest from which on its steps are longer
	floorKeeps  = 0.7  // of the prices of the rounds before, in the mean that is weighed too
	floorMost   = 4e8  // legs to be looked at in a round: from there on only the bound by single properties is told
	floorLearns = 0.05 // of the time goes into a plan to learn the first prices from
	floorWeighs = 10   // rounds after which a floor is worked out
	floorEnds   = 2    // rounds of time kept for the last
	floorFew    = 12   // rounds of finer steps at least, or they are not begun
)

// Floor raises what no plan can cost less than. goOn is asked after each round how far the search is, 0 to 1, and
// whether to go on. Each job has a price for being done at all, up to what leaving it costs, and each property one for
// each visit that its gaps ask for; each crew's day then takes, by itself, the way that gains most by those prices.
// Prices rise where nothing answers them and fall where several days do (Lagrange; ways as Christofides, Mingozzi and
// Toth 1981). What all days gain at most, taken off the sum of the prices, is below every plan, whatever the prices. A
// way keeps hours, arrivals, legs, whole jobs and overtime in full, but may come to a place again after two others; the
// length of gaps, access hours, waste, kit and sick properties are left out: all that makes plans dearer, never cheaper.
// The first share of the time goes into a plan, from which the first prices come. Its error is a list of refused fields.
func Floor(p *Problem, goOn func(rounds int, floor float64) (done float64, more bool)) (float64, error) {
	if err := p.Validate(); err != nil {
		return 0, err
	}
	s := newSearch(p.weathered(), 1)
	f := newFloor(s)
	if f.size()/floorSteps[0] > floorMost {
		return s.bound(), nil
	}
	return max(s.bound(), f.raise(f.learn(goOn), goOn)), nil
}

// floorSteps are the minutes that a day is cut into, times rounded down: coarse ones first, while prices are far off.
var floorSteps = []float64{20, 10, 5, 2, 1}

// floorFrom is from which share of the time on each is gone over to.
var floorFrom = []float64{0, 0.05, 0.1, 0.33, 0.67}

// prices of jobs, and of visits by place.
type prices struct{ job, visit []float64 }

func (p prices) copy() prices { return prices{slices.Clone(p.job), slices.Clone(p.visit)} }

// towards moves prices a share of the way to others.
func (p prices) towards(o prices, share float64) {
	for _, pair := range [][2][]float64{{p.job, o.job}, {p.visit, o.visit}} {
		for i := range pair[0] {
			pair[0][i] += share * (pair[1][i] - pair[0][i])
		}
	}
}

// floor is the search for one.
type floor struct {
	s    *search
	days []*floorDay // that can be worked on
	step float64     // minutes that a day is cut into now
	web  web
	prices
	chain  [][]int   // by place: jobs of which no two can be done in one visit; nil where there are none
	in     []int     // the place in whose chain a job is; -1 none
	serves []float64 // how many days serve a job
	comes  []float64 // how many come to a place
	scale  []float64 // of the steps of a job's price
}

// gained is what work at a place gains by the prices in so many steps beyond its shortest job, less the arrival.
type gained struct {
	more int
	got  float64
}

// floorDay is a crew's day as the floor sees it.
type floorDay struct {
	w      int
	places []floorPlace
	*web   // of the day that is looked at; all days have the same
}

// floorPlace is a place with what can be done there on a day.
type floorPlace struct {
	place int
	jobs  []floorJob
	least int // steps of its shortest job

	order []floorJob // those that gain something by the prices
	gain  []gained   // the more steps of work, the more
	table []float64  // what the first so many of them gain in so many steps
}

type floorJob struct {
	job           int
	cost, minutes float64
	steps         int     // that it takes
	worth         float64 // its price less its cost
}

func newFloor(s *search) *floor {
	f := &floor{s: s, serves: make([]float64, len(s.p.Jobs)), comes: make([]float64, len(s.p.Places))}
	f.prices = prices{make([]float64, len(s.p.Jobs)), make([]float64, len(s.p.Places))}
	f.chains()
	for j := range f.job {
		f.job[j] = s.leave(j)
	}
	for w := range s.list {
		d := f.day(w)
		if len(d.places) == 0 {
			continue
		}
		f.days = append(f.days, d)
		for _, q := range d.places {
			f.comes[q.place]++
			for _, k := range q.jobs {
				f.serves[k.job]++
				f.job[k.job] = min(f.job[k.job], k.cost+floorOpens)
			}
		}
	}
	for j := range f.job {
		f.scale = append(f.scale, max(1, (s.leave(j)-f.job[j])/floorWide))
	}
	return f
}

// size is how many legs a round looks at, by minutes.
func (f *floor) size() (legs float64) {
	for _, d := range f.days {
		n, h := float64(len(d.places)), f.s.list[d.w].hours
		legs += n * n * float64(h.To-h.From+overMost)
	}
	return legs
}

// day is what can be done on a way.
func (f *floor) day(w int) *floorDay {
	s, d := f.s, &floorDay{w: w, web: &f.web}
	at := map[int]int{}
	for j := range s.p.Jobs {
		place := s.p.Jobs[j].Place
		if !s.mayEver(j, w) || s.here(j, w) >= s.leave(j) {
			continue
		}
		i, known := at[place]
		if !known {
			i = len(d.places)
			at[place] = i
			d.places = append(d.places, floorPlace{place: place})
		}
		q := &d.places[i]
		q.jobs = append(q.jobs, floorJob{job: j, cost: s.here(j, w), minutes: s.minutes[j][s.list[w].crew]})
	}
	return d
}

// chains finds for each place the most jobs that wait for one another by a day at least: so many visits there are,
// less those left.
func (f *floor) chains() {
	s := f.s
	f.chain, f.in = make([][]int, len(s.p.Places)), make([]int, len(s.p.Jobs))
	longest := make([][]int, len(s.p.Jobs))
	var walk func(j int) []int
	walk = func(j int) []int {
		if longest[j] != nil || s.round[j] {
			return longest[j]
		}
		best := []int{}
		for _, g := range s.p.Jobs[j].After {
			if g.Job >= 0 && g.Min > 0 && s.p.Jobs[g.Job].Place == s.p.Jobs[j].Place {
				if c := walk(g.Job); len(c) > len(best) {
					best = c
				}
			}
		}
		longest[j] = append(slices.Clone(best), j)
		return longest[j]
	}
	for j := range s.p.Jobs {
		f.in[j] = -1
		place := s.p.Jobs[j].Place
		if c := walk(j); len(c) > max(1, len(f.chain[place])) {
			f.chain[place] = c
		}
	}
	for place, c := range f.chain {
		for _, j := range c {
			f.in[j] = place
		}
	}
}

// learn takes the first prices from a plan that is looked for in the first share of the time: a job is worth what its
// day costs there, and its share of what coming for it costs. It returns how many rounds that took.
func (f *floor) learn(goOn func(int, float64) (float64, bool)) int {
	s := f.s
	s.build()
	n := s.improve(s.hottest(), func(n int, _ float64) (float64, bool) {
		done, more := goOn(n, 0)
		return min(1, done/floorLearns), more && done < floorLearns
	})
	for w := range s.list {
		way := &s.list[w]
		for i := range way.stops {
			st := &way.stops[i]
			come := s.coming(way.crew, st.place) + s.saved(way, i)
			for _, j := range st.jobs {
				f.job[j] = s.here(j, w) + come*s.minutes[j][way.crew]/st.work
			}
		}
	}
	for j, w := range s.at {
		if w < 0 {
			f.job[j] = s.leave(j)
		}
		f.job[j] = max(0, min(f.job[j], f.most(j)))
	}
	return n
}

// saved is what a way is shorter by without one of its stops, minutes.
func (s *search) saved(w *way, i int) float64 {
	last, place := -1, w.stops[i].place
	if i > 0 {
		last = w.stops[i-1].place
	}
	back := s.ways.start[w.crew]
	switch {
	case i < len(w.stops)-1:
		next := w.stops[i+1].place
		return s.leg(w.crew, last, place) + s.ways.place[place][next] - s.leg(w.crew, last, next)
	case last >= 0:
		return s.ways.place[last][place] + back[place] - back[last]
	}
	return 2 * back[place]
}

// raise changes the prices until it may not go on. It ends early enough for what is found to be weighed in time.
func (f *floor) raise(begun int, goOn func(int, float64) (float64, bool)) float64 {
	best, mean, fine := 0.0, f.copy(), 0
	finest := len(floorSteps)
	for f.size()/floorSteps[finest-1] > floorMost {
		finest--
	}
	begin, _ := goOn(begun, 0)
	was, round := begin, 0.0 // how far it was, and how far the longest round of these steps has taken it
	for n := begun; ; n++ {
		done, more := goOn(n, best)
		if n > begun {
			round = max(round, done-was)
		}
		if more = more && done+floorEnds*round < 1; n%floorWeighs == floorWeighs-1 || !more {
			f.cut(floorSteps[fine])
			best = max(best, f.weigh(f.prices), f.weigh(mean))
		}
		if !more {
			return best
		}
		was = done
		next := fine + 1
		due := next < finest && done-begin >= (1-begin)*floorFrom[next]
		if due && (1-done) >= floorFew*round*floorSteps[fine]/floorSteps[next] {
			fine, round = next, round*floorSteps[fine]/floorSteps[next]
		}
		f.cut(floorSteps[fine])
		step := floorFirst * math.Pow(floorLast/floorFirst, done)
		for _, i := range f.s.rng.Perm(len(f.days)) {
			f.answer(f.days[i], step)
		}
		mean.towards(f.prices, 1-floorKeeps)
	}
}

// cut cuts the days into steps of so many minutes.
func (f *floor) cut(step float64) {
	if f.step == step {
		return
	}
	f.step = step
	for _, d := range f.days {
		for i := range d.places {
			q := &d.places[i]
			for k := range q.jobs {
				q.jobs[k].steps = int(q.jobs[k].minutes/step + 1e-9)
			}
			q.least = slices.MinFunc(q.jobs, func(a, b floorJob) int { return a.steps - b.steps }).steps
		}
	}
}

// answer lets one day take its best way, and changes the prices by what it takes.
func (f *floor) answer(d *floorDay, step float64) {
	d.solve(f)
	for _, q := range d.places {
		f.visit[q.place] += step * float64(len(f.chain[q.place])) / f.comes[q.place]
		for _, k := range q.jobs {
			f.job[k.job] += step * f.scale[k.job] / f.serves[k.job]
		}
	}
	d.each(f, func(q *floorPlace, done []int) {
		f.visit[q.place] -= step
		for _, j := range done {
			f.job[j] -= step * f.scale[j]
		}
	})
	for _, q := range d.places {
		f.visit[q.place] = max(0, f.visit[q.place])
		if f.chain[q.place] == nil {
			f.visit[q.place] = 0
		}
		for _, j := range f.chain[q.place] {
			f.visit[q.place] = min(f.visit[q.place], f.s.leave(j))
		}
		for _, k := range q.jobs {
			f.job[k.job] = max(0, min(f.most(k.job), f.job[k.job]))
		}
	}
}

// most is the highest price of a job: what leaving it costs, less what it takes off the visits its place needs.
func (f *floor) most(j int) float64 {
	if f.in[j] >= 0 {
		return f.s.leave(j) - f.visit[f.in[j]]
	}
	return f.s.leave(j)
}

// weigh is what no plan costs less than, by some prices.
func (f *floor) weigh(by prices) float64 {
	kept := f.prices
	defer func() { f.prices = kept }()
	f.prices = by.copy()
	sum := 0.0
	for j := range f.job {
		f.job[j] = min(f.job[j], f.most(j))
		sum += f.job[j]
	}
	for place, c := range f.chain {
		sum += f.visit[place] * float64(len(c))
	}
	for _, d := range f.days {
		sum += d.solve(f)
	}
	return sum
}

// set works out what a place gains by the prices, and reports whether it gains anything.
func (q *floorPlace) set(f *floor, crew int) bool {
	q.order = q.order[:0]
	come := f.s.coming(crew, q.place) - f.visit[q.place]
	most, room := -come, 0
	for _, k := range q.jobs {
		if k.worth = f.job[k.job] - k.cost; k.worth > 0 {
			q.order = append(q.order, k)
			most, room = most+k.worth, room+k.steps
		}
	}
	if len(q.order) == 0 || most <= 0 && f.s.metric() {
		return false
	}
	q.fill(room)
	q.gain = q.gain[:0]
	for i, got := range q.table[len(q.order)*(room+1):] {
		if n := len(q.gain); got > 0 && (n == 0 || got-come > q.gain[n-1].got+1e-12) {
			q.gain = append(q.gain, gained{max(0, i-q.least), got - come})
		}
	}
	return true
}

// fill works out the most that the first so many jobs gain in so many steps: each whole or not at all.
func (q *floorPlace) fill(room int) {
	n := room + 1
	q.table = grow(q.table, (len(q.order)+1)*n)
	clear(q.table[:n])
	for i, k := range q.order {
		was, now := q.table[i*n:i*n+n], q.table[i*n+n:i*n+2*n]
		copy(now, was)
		for t := k.steps; t < n; t++ {
			now[t] = max(was[t], was[t-k.steps]+k.worth)
		}
	}
}

// done are the jobs that gain the most in so many steps.
func (q *floorPlace) done(room int) (jobs []int) {
	n := len(q.table) / (len(q.order) + 1)
	room = min(room, n-1)
	for i := len(q.order) - 1; i >= 0; i-- {
		if k := q.order[i]; q.table[i*n+n+room] > q.table[i*n+room] {
			jobs, room = append(jobs, k.job), room-k.steps
		}
	}
	return jobs
}

// metric reports that no way over a third place is shorter: nobody has timed any.
func (s *search) metric() bool { return len(s.p.Ways) == 0 }
