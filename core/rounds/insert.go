package rounds

import "slices"

// pool are jobs that are to be put on ways, with the values they have there.
type pool struct {
	s     *search
	jobs  []int
	whole bool    // whole visits are put first
	wild  float64 // how far values are shaken, minutes
	eager float64 // how much dearer than to be left a job is put for all that: others may join it
	most  float64 // what the day may cost for the job that is looked at
	tops  map[int]top
}

// top is where a job costs least and second least.
type top struct {
	w, w2         int
	least, second float64
}

// value of a job on a way is worked out anew.
func (q *pool) look(j, w int) {
	v, ch := far, spot{}
	if q.s.there(j, w) < q.most { // else the day alone costs more than the job is worth
		v, ch = q.s.try(j, w)
	}
	if v < far && q.wild > 0 {
		v += q.wild * (q.s.rng.Float64() - 0.5)
	}
	k := j*len(q.s.list) + w
	q.s.value[k], q.s.fits[k] = v, ch
}

func (q *pool) lookAll(j int) {
	q.most = q.s.waits[j] + q.eager + q.wild
	for _, w := range q.s.working {
		q.look(j, w)
	}
	q.rank(j)
}

// rank finds where a job costs least among all ways.
func (q *pool) rank(j int) {
	n := len(q.s.list)
	t := top{-1, -1, far, far}
	row := q.s.value[j*n : (j+1)*n]
	for _, i := range q.s.working {
		v := row[i]
		switch {
		case v < t.least:
			t = top{i, t.w, v, t.least}
		case v < t.second:
			t.w2, t.second = i, v
		}
	}
	q.tops[j] = t
}

// again looks at one way anew.
func (q *pool) again(j, w int) {
	q.most = q.s.waits[j] + q.eager + q.wild
	q.look(j, w)
	t, v := q.tops[j], q.s.value[j*len(q.s.list)+w]
	switch {
	case w == t.w || w == t.w2:
		q.rank(j)
	case v < t.least:
		q.tops[j] = top{w, t.w, v, t.least}
	case v < t.second:
		t.w2, t.second = w, v
		q.tops[j] = t
	}
}

// best is where a job costs least, and by how much the second best crew's day is dearer; -1 where it is better left.
func (q *pool) best(j int) (w int, regret float64) {
	t, wait := q.tops[j], q.s.waits[j]+q.eager
	if t.least >= wait {
		return -1, 0
	}
	return t.w, min(t.second, wait) - t.least
}

// fill puts the jobs where they cost least, those first that lose most by waiting for their turn; what is better left
// is left.
func (q *pool) fill() {
	s := q.s
	if q.whole {
		q.bundles()
		q.jobs = slices.DeleteFunc(q.jobs, func(j int) bool { return s.at[j] >= 0 })
	}
	q.tops = make(map[int]top, len(q.jobs))
	for _, j := range q.jobs {
		q.lookAll(j)
	}
	for len(q.jobs) > 0 {
		pick, most, on := -1, -1.0, -1
		for i, j := range q.jobs {
			w, regret := q.best(j)
			if w < 0 {
				continue
			}
			if s.p.Jobs[j].Urgent && q.wild == 0 {
				regret += far / 2
			}
			if len(s.next[j]) > 0 { // what others wait for comes first
				regret += 50
			}
			if regret > most {
				pick, most, on = i, regret, w
			}
		}
		if pick < 0 {
			return
		}
		j := q.jobs[pick]
		q.jobs = slices.Delete(q.jobs, pick, pick+1)
		s.put(on, s.fits[j*len(s.list)+on], j)
		q.after(j, on)
	}
}

// after looks anew at what a job that was put has changed for the others.
func (q *pool) after(j, w int) {
	s := q.s
	for _, k := range q.jobs {
		if slices.Contains(s.next[j], k) || slices.Contains(s.mates[j], k) ||
			slices.ContainsFunc(s.p.Jobs[j].After, func(g Gap) bool { return g.Job == k }) {
			q.lookAll(k)
		} else {
			q.again(k, w)
		}
	}
}
