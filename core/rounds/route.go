package rounds

import (
	"math"
	"math/bits"
	"slices"
)

// What goes into a plan's score: all in minutes of somebody's time, a point of a day's cost counted as one.
const (
	visitCost    = 12   // each arrival at a property, beside its own minutes
	overEach     = 3    // each minute beyond the hours
	overMost     = 60   // minutes beyond which a day is too long
	idleEach     = 0.5  // each minute of waiting before a gate, but for the first of a day
	sickEach     = 60   // each clean property after a sick one in a day
	loadEach     = 25   // each m³ beyond the vehicle's load
	movedEach    = 15   // each job that does not stay where it stood
	toldEach     = 400  // the same where the client was told
	pinnedLeft   = 1000 // for a pinned job that is left: only where it cannot be
	soonEach     = 0.5  // each day that a job waits: where days are alike the first is best, rain may still come
	waitingMore  = 15   // for each job left for later, beside what later costs and the way that is due then
	ownWay       = 0.4  // of the way there and on: for each job that is left; the rest is shared by all jobs of the property
	tooLate      = 200  // for a job that has no later
	urgentTimes  = 6    // weight of what makes safe
	arriveWeight = 0.5  // minutes on arrival are no driving, but somebody's time
	allDay       = 24 * 60
	kitEach      = 8      // each piece of bulky kit that a day wants: loading, cleaning
	unsafeLeft   = 20_000 // for what makes safe that is left,
	unsafeDay    = 3000   // for each day it waits,
	unsafeDays   = 5      // up to so many,
	unsafeAfter  = 200    // and for each visit that the crew makes before it
	strangeEach  = 20     // each visit of a crew that the client does not know
	fairEach     = 60     // each crew's share of its hours off the crews' mean of the day, squared
	pinnedWithin = 20     // minutes after the hour of a pin by which one may arrive
)

// stop is a property on a way, with what is done there.
type stop struct {
	place int
	jobs  []int
	work  float64 // minutes for the crew
	waste float64
	sick  bool
	kit   uint64  // by number
	early float64 // pinned: not before; minutes after midnight
	late  float64 // nor after; 0: no matter
	safe  bool    // something is made safe there
	leg   float64 // the way there from the stop before, where the way was worked out; minutes
}

// way is a crew's day.
type way struct {
	crew, day int
	hours     Span
	stops     []stop
	cost      float64 // of the way itself, without what days cost

	travel, busy, waste float64 // summed over the stops
	kit                 uint64  // of all stops
	firstSick           int     // index of the first sick stop; as many as there are where none is
	part                float64 // of its hours that ways and work take
	limited             bool    // the order counts: some stops can be entered at some hours only, one makes safe, or it tips
}

// timed is a way worked out.
type timed struct {
	travel, over, idle, end float64
	sick, before            int // clean stops after sick ones; stops before those that make safe
	ok                      bool
	begins, ends, legs      []float64 // arrival at each stop, when it is left, and the way there, where asked for
	rested                  float64   // when the break begins; 0: there is none
}

// clock is a crew's day as it passes: with its break, as soon as that is due and something is still to be done.
type clock struct {
	at      float64
	rest    float64 // minutes of the break that is still to come
	due     float64 // from when on
	started float64 // when it began
}

// clock begins a crew's day.
func (s *search) clock(w *way) clock {
	c := clock{at: float64(w.hours.From)}
	if b := s.p.Crews[w.crew].Break; b != nil && c.at < float64(b.From) {
		c.rest, c.due = float64(b.Minutes), float64(b.From)
	}
	c.pass(s.loading(w))
	return c
}

// loading is what a crew's day begins with before it sets out, minutes.
func (s *search) loading(w *way) float64 { return float64(s.p.Crews[w.crew].Load) }

// out is when a crew sets out at the earliest, minutes after midnight, its break left out.
func (s *search) out(w *way) float64 { return float64(w.hours.From) + s.loading(w) }

// coming is what a visit costs beside its way and its work.
func (s *search) coming(crew, place int) float64 {
	q := &s.p.Places[place]
	c := visitCost + arriveWeight*q.Arrive
	if q.Knows != nil && *q.Knows != crew {
		c += strangeEach
	}
	return c
}

// pass spends so many minutes.
func (c *clock) pass(minutes float64) {
	if c.rest > 0 && c.at+minutes > c.due+1e-9 {
		c.started = max(c.at, c.due)
		c.at, c.rest = c.at+c.rest, 0
	}
	c.at += minutes
}

// wait waits until a gate opens, resting if that is as late; it returns the minutes that were idle.
func (c *clock) wait(until float64) float64 {
	idle := until - c.at
	if c.rest > 0 && until > c.due+1e-9 {
		c.started = max(c.at, c.due)
		idle -= min(c.rest, until-c.started)
		until, c.rest = max(until, c.started+c.rest), 0
	}
	c.at = until
	return idle
}

// rests is the break of a crew's day that would end at a minute without it.
func (s *search) rests(w *way, end float64) float64 {
	if b := s.p.Crews[w.crew].Break; b != nil && w.hours.From < b.From && end > float64(b.From)+1e-9 {
		return float64(b.Minutes)
	}
	return 0
}

// leg is the way to a place from the one before; -1: from the start of the day.
func (s *search) leg(crew, from, to int) float64 {
	if from < 0 {
		return s.ways.start[crew][to]
	}
	return s.ways.place[from][to]
}

// simulate goes through a crew's day stop by stop.
func (s *search) simulate(w *way, stops []stop, begins bool) timed {
	out := timed{ok: len(stops) == 0 || !w.hours.empty()}
	c, last, ill := s.clock(w), -1, false
	dark, others, load := s.dark(w.day), 0, aboard{}
	for i := range stops {
		st := &stops[i]
		road := s.onward(&load, w.crew, last, st)
		leg := road.takes(s.rush[w.day], c.at)
		c.pass(leg)
		open := s.open[w.day][st.place]
		if opens := max(float64(open.From), st.early); c.at < opens {
			if last >= 0 {
				out.idle += c.wait(opens)
			} else { // the day begins later
				c.at, leg = opens, drivenTo(s.rush[w.day], opens, road.to)
				if opens-leg-s.loading(w) >= c.due {
					c.rest = 0
				}
			}
		}
		out.travel += leg
		out.ok = out.ok && (st.late == 0 || c.at <= st.late+1e-9)
		if begins {
			out.begins, out.legs = append(out.begins, c.at), append(out.legs, leg)
		}
		c.pass(s.p.Places[st.place].Arrive + st.work)
		away := s.goesAway(w, s.away(&load, w.crew, st), st.place, c.at)
		out.travel += away
		c.pass(away)
		if begins {
			out.ends = append(out.ends, c.at)
		}
		out.ok = out.ok && !open.empty() && c.at <= min(float64(open.To), dark)+1e-9
		if st.safe {
			out.before += others
		} else {
			others++
		}
		if st.sick {
			ill = true
		} else if ill {
			out.sick++
		}
		last = st.place
	}
	if last >= 0 {
		back := driven(s.rush[w.day], c.at, s.ways.start[w.crew][last])
		c.pass(back)
		out.travel += back
		out.over = max(0, c.at-float64(w.hours.To))
	}
	out.end, out.rested = c.at, c.started
	out.ok = out.ok && out.over <= overMost
	return out
}

// fixed is what stops cost whatever their order.
func (s *search) fixed(crew int, stops []stop) (c, waste, busy float64) {
	kit := uint64(0)
	for i := range stops {
		arrive := s.p.Places[stops[i].place].Arrive
		c += s.coming(crew, stops[i].place)
		busy += arrive + stops[i].work
		waste += stops[i].waste
		kit |= stops[i].kit
	}
	return c + kitEach*float64(bits.OnesCount64(kit)), waste, busy
}

// share is how full a crew's day is with ways and work.
func (w *way) share(minutes float64) float64 { return minutes / float64(w.hours.To-w.hours.From) }

// fair is what a day costs for being shared out unevenly, with a crew's share of its hours in place of what it has.
func (s *search) fair(w int, share float64) float64 {
	peers, sum, squares := s.peers[s.list[w].day], 0.0, 0.0
	for _, o := range peers {
		x := s.list[o].part
		if o == w {
			x = share
		}
		sum, squares = sum+x, squares+x*x
	}
	if len(peers) < 2 {
		return 0
	}
	return fairEach * max(0, squares-sum*sum/float64(len(peers)))
}

// fairNow is the same as the day stands.
func (s *search) fairNow(w int) float64 {
	if s.list[w].hours.empty() {
		return 0
	}
	return s.fair(w, s.list[w].part)
}

// fairer is what more minutes of a crew add to that.
func (s *search) fairer(w *way, more float64) float64 {
	if len(s.peers[w.day]) < 2 {
		return 0
	}
	i := w.crew*s.p.Days + w.day
	others, peers := 0.0, s.peers[w.day]
	for _, o := range peers {
		if o != i {
			others += s.list[o].part
		}
	}
	now, then := w.part, w.share(w.travel+w.busy+more)
	return fairEach * (then - now) * (then + now - (2*others+then+now)/float64(len(peers)))
}

// price is what a timed way costs.
func (s *search) price(w *way, t timed, fixed, waste float64) float64 {
	return t.travel + s.overEach*t.over + idleEach*t.idle + sickEach*float64(t.sick) + unsafeAfter*float64(t.before) +
		fixed + s.loaded(w, waste)
}

func (s *search) loaded(w *way, waste float64) float64 {
	if load := s.p.Crews[w.crew].LoadM3; load > 0 && waste > load && s.p.Crews[w.crew].Tip == nil {
		return loadEach * (waste - load)
	}
	return 0
}

// reckon works a way's sums and its cost out anew.
func (s *search) reckon(w *way) {
	last, sick, fixed := -1, 0, 0.0
	w.travel, w.busy, w.waste, w.kit, w.firstSick, w.limited = 0, 0, 0, 0, len(w.stops), len(s.rush[w.day]) > 0
	for i := range w.stops {
		st := &w.stops[i]
		st.leg = s.leg(w.crew, last, st.place)
		last = st.place
		w.travel += st.leg
		w.busy += s.p.Places[st.place].Arrive + st.work
		w.waste += st.waste
		w.kit |= st.kit
		fixed += s.coming(w.crew, st.place)
		w.limited = w.limited || st.late > 0 || st.safe || s.limits(w.day, st.place)
		if st.sick && w.firstSick == len(w.stops) {
			w.firstSick = i
		} else if !st.sick && w.firstSick < i {
			sick++
		}
	}
	fixed += kitEach * float64(bits.OnesCount64(w.kit))
	w.limited = w.limited || s.tips(w.crew, w.waste)
	t := timed{sick: sick}
	if w.limited {
		t = s.simulate(w, w.stops, false)
		w.travel = t.travel
	} else if last >= 0 {
		w.travel += s.ways.start[w.crew][last]
		t.travel = w.travel
		end := s.out(w) + w.travel + w.busy
		t.over = max(0, end+s.rests(w, end)-float64(w.hours.To))
	}
	w.cost = s.price(w, t, fixed, w.waste)
	if w.part = 0; !w.hours.empty() {
		w.part = w.share(w.travel + w.busy)
	}
}

// limits reports a place that can be entered at some hours only.
func (s *search) limits(d, place int) bool { return s.open[d][place] != Span{0, allDay} }

// find is the stop of a way at a place; -1 where there is none.
func (w *way) find(place int) int {
	return slices.IndexFunc(w.stops, func(s stop) bool { return s.place == place })
}

// spot is where a job goes on a way: into a stop that is there, or a fresh one before it.
type spot struct {
	at    int
	fresh bool
}

// dark is when the light of a day ends, minutes after midnight; none where that is no matter.
func (s *search) dark(d int) float64 {
	if d < len(s.p.Light) && !s.p.Light[d].empty() {
		return float64(s.p.Light[d].To)
	}
	return math.Inf(1)
}

// add is the least that a stop adds to a way, and where; far where it cannot be.
func (s *search) add(w *way, st stop) (float64, spot) {
	s.effort++
	i := w.find(st.place)
	if w.limited || st.late > 0 || st.safe || len(s.rush[w.day]) > 0 || s.limits(w.day, st.place) ||
		s.tips(w.crew, w.waste+st.waste) {
		return s.addSlowly(w, st, i)
	}
	c, how := s.addQuickly(w, st, i)
	if dark := s.dark(w.day); c < far && !math.IsInf(dark, 1) {
		end := s.out(w) + w.travel + w.busy + st.work // home again, later than the last work
		if how.fresh {
			end += s.p.Places[st.place].Arrive + s.detourAt(w, st.place, how.at)
		}
		if end+s.rests(w, end) > dark {
			return s.addSlowly(w, st, i)
		}
	}
	return c, how
}

// addQuickly does it where no gate, no hour and no light is in the way.
func (s *search) addQuickly(w *way, st stop, i int) (float64, spot) {
	kit := kitEach * float64(bits.OnesCount64(st.kit&^w.kit))
	if i >= 0 {
		sick := 0
		if st.sick && !w.stops[i].sick {
			sick = -1 // it was clean after a sick one
			if i < w.firstSick {
				sick = w.firstSick - i - 1
			}
		}
		return s.grown(w, 0, st.work, st.waste, kit, sick), spot{i, false}
	}
	own := s.p.Places[st.place].Arrive
	fixed := kit + s.coming(w.crew, st.place)
	best, how := far, spot{}
	if !st.sick { // before all sick ones, or after one
		more, at := s.detour(w, st.place, 0, w.firstSick)
		if best = s.grown(w, more, own+st.work, st.waste, fixed, 0); best < far {
			how = spot{at, true}
		}
		if w.firstSick < len(w.stops) {
			more, at = s.detour(w, st.place, w.firstSick+1, len(w.stops))
			if c := s.grown(w, more, own+st.work, st.waste, fixed, 1); c < best {
				best, how = c, spot{at, true}
			}
		}
		return best, how
	}
	for at := range len(w.stops) + 1 {
		more := s.detourAt(w, st.place, at)
		if c := s.grown(w, more, own+st.work, st.waste, fixed, w.inverts(at, st.sick)); c < best {
			best, how = c, spot{at, true}
		}
	}
	return best, how
}

// detour is the least that coming to one more place before one of some stops adds to a way, minutes, and before which;
// the number of stops stands for after the last.
func (s *search) detour(w *way, place, from, to int) (least float64, before int) {
	least = far
	start, row := s.ways.start[w.crew], s.ways.place[place]
	come, back := start[place], 0.0
	if from > 0 {
		last := w.stops[from-1].place
		come, back = row[last], start[last]
	}
	for i := from; i <= to && i < len(w.stops); i++ {
		st := &w.stops[i]
		on := row[st.place]
		if more := come + on - st.leg; more < least {
			least, before = more, i
		}
		come, back = on, start[st.place]
	}
	if to == len(w.stops) {
		if more := come + start[place] - back; more < least {
			least, before = more, to
		}
	}
	return least, before
}

// detourAt is what coming to one more place before a stop adds, minutes.
func (s *search) detourAt(w *way, place, before int) float64 {
	start, last, direct := s.ways.start[w.crew], -1, 0.0
	if before > 0 {
		last = w.stops[before-1].place
		direct = start[last]
	}
	more := s.leg(w.crew, last, place)
	if before == len(w.stops) {
		return more + start[place] - direct
	}
	to := w.stops[before].place
	return more + s.ways.place[place][to] - s.leg(w.crew, last, to)
}

// inverts is how many clean stops more come after a sick one where a stop is put in.
func (w *way) inverts(at int, sick bool) int {
	switch {
	case !sick && at > w.firstSick:
		return 1
	case sick && at < w.firstSick:
		return w.firstSick - at
	}
	return 0
}

// grown is what more travel, work and waste add to a way without limited stops; far where the day gets too long.
func (s *search) grown(w *way, travel, work, waste, fixed float64, sick int) float64 {
	end := s.out(w) + w.travel + w.busy
	then := end + travel + work
	over := then + s.rests(w, then) - float64(w.hours.To)
	end += s.rests(w, end)
	if over > overMost {
		return far
	}
	c := travel + fixed + sickEach*float64(sick)
	c += s.overEach * (max(0, over) - max(0, end-float64(w.hours.To)))
	return c + s.fairer(w, travel+work) + s.loaded(w, w.waste+waste) - s.loaded(w, w.waste)
}

// addSlowly does the same by going through the day, where gates open and close.
func (s *search) addSlowly(w *way, st stop, i int) (float64, spot) {
	best, how := far, spot{}
	try := func(stops []stop, at spot) {
		t := s.simulate(w, stops, false)
		if !t.ok {
			return
		}
		fixed, waste, busy := s.fixed(w.crew, stops)
		c := s.price(w, t, fixed, waste) - w.cost + s.fairer(w, t.travel+busy-w.travel-w.busy)
		if c < best {
			best, how = c, at
		}
	}
	if i >= 0 {
		s.scratch = append(s.scratch[:0], w.stops...)
		s.scratch[i].merge(&st)
		try(s.scratch, spot{i, false})
		return best, how
	}
	for at := 0; at <= len(w.stops); at++ {
		s.scratch = append(append(append(s.scratch[:0], w.stops[:at]...), st), w.stops[at:]...)
		try(s.scratch, spot{at, true})
	}
	return best, how
}

// merge takes the work of another stop at the same place in.
func (s *stop) merge(o *stop) {
	s.work, s.waste, s.sick, s.kit = s.work+o.work, s.waste+o.waste, s.sick || o.sick, s.kit|o.kit
	s.early, s.safe = max(s.early, o.early), s.safe || o.safe
	if s.late == 0 || o.late > 0 && o.late < s.late {
		s.late = o.late
	}
}
