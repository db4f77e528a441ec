package rounds

import (
	"cmp"
	"math"
	"slices"
)

// How a floor is looked for.
const (
	floorStep   = 5.0  // minutes that a day is cut into; times are rounded down
	floorFirst  = 2.0  // by which a price rises at first in a round where nothing answers it, minutes
	floorLast   = 0.03 // the same at the end
	floorOpens  = 4.0  // above what its best day costs a job's price begins
	floorWide   = 50.0 // minutes between a job's first price and its highest from which on its steps are longer
	floorKeeps  = 0.7  // of the prices of the rounds before, in the mean that is weighed too
	floorMost   = 4e8  // legs to be looked at in a round: from there on only the bound by single properties is told
	floorWeighs = 10   // rounds after which a floor is worked out
)

// Floor raises what no plan can cost less than. goOn is asked after each round how far the search is, 0 to 1, and
// whether to go on. Each job has a price for being done at all, up to what leaving it costs, and each property one for
// each visit that its gaps ask for; each crew's day then takes, by itself, the way that gains most by those prices.
// Prices rise where nothing answers them and fall where several days do (Lagrange; ways as Christofides, Mingozzi and
// Toth 1981). What all days gain at most, taken off the sum of the prices, is below every plan, whatever the prices. A
// way keeps hours, arrivals, legs and overtime in full, but may come to a place again after two others, and do a part
// of a job; the length of gaps, access hours, waste, kit and sick properties are left out: all that makes plans
// dearer, never cheaper. Its error is a list of refused fields.
func Floor(p *Problem, goOn func(rounds int, floor float64) (done float64, more bool)) (float64, error) {
	if err := p.Validate(); err != nil {
		return 0, err
	}
	s := newSearch(p.weathered(), 1)
	f := newFloor(s)
	if f.size() > floorMost {
		return s.bound(), nil
	}
	return max(s.bound(), f.raise(goOn)), nil
}

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
	prices
	chain  [][]int   // by place: jobs of which no two can be done in one visit; nil where there are none
	in     []int     // the place in whose chain a job is; -1 none
	serves []float64 // how many days serve a job
	comes  []float64 // how many come to a place
	scale  []float64 // of the steps of a job's price
}

// floorDay is a crew's day as the floor sees it.
type floorDay struct {
	w      int
	places []floorPlace
	web
}

// floorPlace is a place with what can be done there on a day.
type floorPlace struct {
	place int
	jobs  []floorJob
	least float64 // minutes of its shortest job

	order []floorJob // those that gain something by the prices, by what they gain a minute
	gain  []float64  // by steps of work beyond the shortest job: what they gain, less the arrival
}

type floorJob struct {
	job           int
	cost, minutes float64
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

// size is how many legs a round looks at.
func (f *floor) size() (legs float64) {
	for _, d := range f.days {
		n, h := float64(len(d.places)), f.s.list[d.w].hours
		legs += n * n * float64(h.To-h.From+overMost) / floorStep
	}
	return legs
}

// day is what can be done on a way.
func (f *floor) day(w int) *floorDay {
	s, d := f.s, &floorDay{w: w}
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
			d.places = append(d.places, floorPlace{place: place, least: math.Inf(1)})
		}
		q, minutes := &d.places[i], s.minutes[j][s.list[w].crew]
		q.least = min(q.least, minutes)
		q.jobs = append(q.jobs, floorJob{job: j, cost: s.here(j, w), minutes: minutes})
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

// raise changes the prices until it may not go on.
func (f *floor) raise(goOn func(int, float64) (float64, bool)) float64 {
	best, mean := 0.0, f.copy()
	for n := 0; ; n++ {
		done, more := goOn(n, best)
		if n%floorWeighs == floorWeighs-1 || !more {
			best = max(best, f.weigh(f.prices), f.weigh(mean))
		}
		if !more {
			return best
		}
		step := floorFirst * math.Pow(floorLast/floorFirst, done)
		for _, i := range f.s.rng.Perm(len(f.days)) {
			f.answer(f.days[i], step)
		}
		mean.towards(f.prices, 1-floorKeeps)
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
	d.each(func(q *floorPlace, minutes float64) {
		f.visit[q.place] -= step
		for _, k := range q.order {
			f.job[k.job] -= step * f.scale[k.job] * min(1, minutes/k.minutes)
			if minutes -= k.minutes; minutes < 0 {
				break
			}
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
	most := -come
	for _, k := range q.jobs {
		if k.worth = f.job[k.job] - k.cost; k.worth > 0 {
			q.order = append(q.order, k)
			most += k.worth
		}
	}
	if most <= 0 && f.s.metric() {
		return false
	}
	slices.SortFunc(q.order, func(a, b floorJob) int { return cmp.Compare(b.worth*a.minutes, a.worth*b.minutes) })
	q.gain = q.gain[:0]
	for room := q.least + floorStep; ; room += floorStep {
		got, rest, all := -come, room, true
		for _, k := range q.order {
			if k.minutes > rest {
				got, all = got+k.worth*rest/k.minutes, false
				break
			}
			got, rest = got+k.worth, rest-k.minutes
		}
		if q.gain = append(q.gain, got); all {
			return true
		}
	}
}

// metric reports that no way over a third place is shorter: nobody has timed any.
func (s *search) metric() bool { return len(s.p.Ways) == 0 }
