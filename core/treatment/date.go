package treatment

import (
	"cmp"
	"fmt"
	"slices"

	"mezzadro/core/catalogue"
	"mezzadro/core/cause"
	"mezzadro/core/day"
	"mezzadro/core/job"
	"mezzadro/core/moment"
	"mezzadro/core/quantity"
)

// search is one plan in the making.
type search struct {
	book      *Book
	ask       *Ask
	cause     *cause.Cause
	programme *Programme
	calendar  moment.Calendar
	again     bool // the next year is tried already
	rung      string
}

const (
	openSpan    = 60 // days that a step without an end stays open after its beginning
	WashedMM    = 3  // mm of rain within its hours from which it counts as washed off
	dryOff      = 2  // days until it is put on again
	fungusFirst = 7  // days between a fungicide and an insecticide
	drenchAhead = 150
)

// yearStart is the first day of the garden year that a day lies in.
func (s *search) yearStart() day.Day {
	from, _ := s.ask.Place.Year.Normals.Climate.GardenYear(s.ask.Date)
	return from
}

// usesOf counts the uses of an active in this garden year that rain did not wash off.
func (s *search) usesOf(active string) (n int) {
	for _, u := range s.ask.Uses {
		if u.Active == active && u.Day >= s.yearStart() && u.RainMM < WashedMM {
			n++
		}
	}
	return n
}

// usesInYear counts those of an active and of all that work the same way.
func (s *search) usesInYear(a *Active) (n int) {
	for _, u := range s.ask.Uses {
		other := s.book.active[u.Active]
		if other != nil && u.Day >= s.yearStart() && (other == a || a.Group != "" && other.Group == a.Group) {
			n++
		}
	}
	return n
}

// days are those a moment falls on, over the years that are known.
func (s *search) days(w When) []day.Day {
	switch {
	case w.Now:
		return []day.Day{s.ask.Date}
	case w.Warmth > 0:
		var out []day.Day
		for _, d := range []day.Day{s.ask.Date - 365, s.ask.Date, s.ask.Date + 365} {
			if b, ok := s.ask.Place.Year.ReachDegreeDays(d, w.Warmth); ok {
				out = append(out, b.Mid)
			}
		}
		return out
	}
	return s.calendar.All(w.When)
}

// window is the one of a step that runs on the day or comes next; false where there is none.
func (s *search) window(st Step) (from, to day.Day, ok bool) {
	if st.From.Now && st.To.given() && s.over(st.To) {
		return day.None, day.None, false
	}
	for _, from = range s.days(st.From) {
		to = from + openSpan
		if st.To.given() {
			to = day.None
			for _, d := range s.days(st.To) {
				if d >= from && d-from < 330 {
					to = d
					break
				}
			}
			if to == day.None {
				continue
			}
		}
		if to >= s.ask.Date {
			return from, to, true
		}
	}
	return day.None, day.None, false
}

// nextSoon is how near the next window is that is waited for, and not called another year's, days.
const nextSoon = 120

// overFor is how long after the end of its time a step is missed, and not early for the next, days.
const overFor = 180

// over reports that the day something ends on has gone by lately.
func (s *search) over(w When) bool {
	for _, d := range s.days(w) {
		if d < s.ask.Date && d > s.ask.Date-overFor {
			return true
		}
	}
	return false
}

// passed reports that the window of this year is over where the next opens on a day.
func (s *search) passed(st Step, from day.Day) bool {
	if st.From.Now || from <= s.ask.Date+openSpan {
		return false
	}
	if st.To.given() {
		return s.over(st.To)
	}
	return s.over(st.From)
}

// mine reports a use that counts as a time of a step: told as such, or the same means used for something else.
func (s *search) mine(u Use, n int, st Step) bool {
	if u.Step == 0 {
		return st.Use != "" && u.Active == st.Use
	}
	return u.Step == n && (u.Rung == "" || u.Rung == s.rung) && (u.Active == "" || u.Active == st.Use)
}

// date puts the steps of a rung on their days.
func (s *search) date(r Rung, out *Answer) {
	s.rung = r.Rung
	last := day.None // the step before, as done or as put
	planned := []Use{}
	missed := []Dated{}
	look, gone := 0, true
	for i, st := range r.Steps {
		look = max(look, st.Look)
		d, ok := s.next(i+1, st, last, planned)
		if !ok {
			if done := s.lastDone(i+1, st); done.Given() {
				last = done
			}
			continue
		}
		gone = false
		if from, to, open := s.window(st); !open || s.passed(st, from) || st.To.given() && d.Day > to {
			missed = append(missed, d) // the next time is another year's
			continue
		}
		last = d.Day
		planned = append(planned, Use{Day: d.Day, Active: st.Use})
		out.Steps = append(out.Steps, d)
	}
	allPassed := len(out.Steps) == 0 && len(missed) > 0
	out.Steps = append(out.Steps, missed...)
	slices.SortStableFunc(out.Steps, func(x, y Dated) int { return cmp.Compare(x.Day, y.Day) })
	if allPassed {
		last = out.Steps[0].Day
		if allPassed = last > s.ask.Date+nextSoon; allPassed {
			out.Next = last
		}
	}
	switch {
	case gone:
		out.Ends = "done"
	case allPassed:
		out.Ends = "not this year"
	}
	if look > 0 {
		end := last
		if gone || !last.Given() {
			end = s.lastUse()
		}
		out.Look = max(s.ask.Date, end+day.Day(look))
	}
}

// done counts how often a step was done so that it holds.
func (s *search) done(n int, st Step) (count int) {
	for _, u := range s.ask.Uses {
		if u.Day >= s.yearStart() && u.RainMM < WashedMM && s.mine(u, n, st) {
			count++
		}
	}
	return count
}

// lastDone is when a step was last done, washed off or not; none where it never was.
func (s *search) lastDone(n int, st Step) day.Day {
	at := day.None
	for _, u := range s.ask.Uses {
		if u.Day >= s.yearStart() && s.mine(u, n, st) &&
			(at == day.None || u.Day > at) {
			at = u.Day
		}
	}
	return at
}

func (s *search) lastUse() day.Day {
	at := s.ask.Date
	for i, u := range s.ask.Uses {
		if i == 0 || u.Day > at {
			at = u.Day
		}
	}
	return at
}

// next is the coming time of a step; false where it is done with, or has no window.
func (s *search) next(n int, st Step, before day.Day, planned []Use) (Dated, bool) {
	a := s.book.active[st.Use]
	st = s.byLabel(st, a)
	most, done := max(1, st.Most), s.done(n, st)
	from, to, ok := s.window(st)
	if !ok || done >= most {
		return Dated{}, false
	}
	d := Dated{
		N:      n,
		Do:     st.Do,
		Use:    st.Use,
		Where:  st.Where,
		Stage:  st.Stage,
		Every:  st.Every,
		Most:   most,
		Done:   done,
		Stop:   st.Stop,
		Limits: []string{},
		Why:    []string{},
	}
	if st.Who == "arborist" {
		d.Who = job.Arborist
	}
	on := max(from, s.ask.Date)
	if st.After > 0 && before.Given() && before+day.Day(st.After) > on {
		on = before + day.Day(st.After)
		d.Why = append(d.Why, stepBefore(st.After))
	}
	if u, was := s.lastTime(n, st); was {
		switch {
		case u.RainMM >= WashedMM:
			on = max(s.ask.Date, u.Day+dryOff)
			d.Why = append(d.Why, fmt.Sprintf("rain washed off what was put on %s: again", quantity.Day(u.Day)))
		case u.Day+day.Day(st.Every) > on:
			on = u.Day + day.Day(st.Every)
			d.Why = append(d.Why, fmt.Sprintf("every %d days, last %s", st.Every, quantity.Day(u.Day)))
		}
	}
	if !st.From.Now && on == from {
		d.Why, d.Seasonal = append(d.Why, "that is when "+st.From.words()), true
	}
	if a != nil {
		on = s.allowed(a, on, planned, &d)
		d.UseName, d.Limits = a.Name, limits(a)
		d.Amount = s.ask.amount(st, a, most-done, s.book, s.programme)
		if n := s.ask.harvestDays(s.ask.card(a)); n > 0 {
			d.HarvestFrom = on + n
		}
	}
	if st.To.given() {
		d.To = to
		if on > to {
			return s.later(n, st, to, before, planned)
		}
	}
	d.Day = on
	return d, true
}

// later is a step whose window ends before it may be done: in the next one.
func (s *search) later(n int, st Step, to, before day.Day, planned []Use) (Dated, bool) {
	if s.again { // neither this year nor the next
		return Dated{}, false
	}
	ask := *s.ask
	ask.Date = to + 1
	ask.Uses = nil
	next := &search{
		book:      s.book,
		ask:       &ask,
		cause:     s.cause,
		programme: s.programme,
		calendar:  ask.Place.Of(ask.Species, ask.Date),
		again:     true,
	}
	if from, _, ok := next.window(st); !ok || from <= to {
		return Dated{}, false
	}
	return next.next(n, st, before, planned)
}

// lastTime is the last use that a step counts as its own.
func (s *search) lastTime(n int, st Step) (Use, bool) {
	at := s.lastDone(n, st)
	for _, u := range s.ask.Uses {
		if at.Given() && u.Day == at && s.mine(u, n, st) {
			return u, true
		}
	}
	return Use{}, false
}

// allowed moves a day on until gaps, bees and heat let an active be used.
func (s *search) allowed(a *Active, on day.Day, planned []Use, d *Dated) day.Day {
	why := map[string]bool{}
	because := func(text string) {
		if !why[text] {
			d.Why = append(d.Why, text)
		}
		why[text] = true
	}
	for range 8 {
		was := on
		for _, u := range append(planned, s.ask.Uses...) {
			if gap := s.gap(a, s.book.active[u.Active]); gap > 0 && on < u.Day+day.Day(gap) {
				on = u.Day + day.Day(gap)
				because(fmt.Sprintf("%d days after %s", gap, s.book.active[u.Active].Name))
			}
		}
		on = s.pastBloom(a, on, because)
		on = s.pastHarvest(a, on, because)
		on = s.inReach(a, on, because)
		on = s.fair(a, on, because)
		if on == was {
			break
		}
	}
	return on
}

// gap is how many days lie between two actives.
func (b *Book) gap(a, other *Active) int {
	if other == nil || other == a {
		return 0
	}
	n := b.declared(a, other)
	if a.Class == "insecticide" && other.Class == "fungicide" ||
		a.Class == "fungicide" && other.Class == "insecticide" {
		n = max(n, fungusFirst)
	}
	return n
}

// pastBloom moves what harms bees past the open flowers of what they visit.
func (s *search) pastBloom(a *Active, on day.Day, because func(string)) day.Day {
	if !a.Bees || !visited(s.ask.Species) {
		return on
	}
	end, blooms := s.calendar.Next(moment.When{Event: "bloom_end"}, on)
	if !blooms {
		return on
	}
	start := s.calendar.Before("bloom_start", end)
	soon := day.Day(0)
	if a.Ground { // it rises into flowers that are still to open
		soon = drenchAhead
	}
	if start == day.None || on < start-soon || on > end {
		return on
	}
	because("after bloom: bees visit its flowers")
	return end + 1
}

// inReach moves a day on until the usual warmth of the day lets an active be used.
func (s *search) inReach(a *Active, on day.Day, because func(string)) day.Day {
	n := s.ask.Place.Year.Normals
	for d := on; d < on+300; d++ {
		t := n.TMax.At(d)
		if t >= a.MinC-slack && t <= a.MaxC+slack {
			return d
		}
		if t > a.MaxC {
			because(fmt.Sprintf("not in days warmer than %s", quantity.Temperature(a.MaxC)))
		} else {
			because(fmt.Sprintf("not in days colder than %s", quantity.Temperature(a.MinC)))
		}
	}
	return on
}

// fair moves a day on past wind, rain and heat that are told of the days to come.
func (s *search) fair(a *Active, on day.Day, because func(string)) day.Day {
	told := func(d day.Day) (w Ahead, known bool) {
		for _, w := range s.ask.Ahead {
			if w.Day == d {
				return w, true
			}
		}
		return w, false
	}
	for range len(s.ask.Ahead) + 1 {
		w, known := told(on)
		next, _ := told(on + 1)
		switch {
		case !known:
			return on
		case a.WindMS > 0 && w.WindMS > a.WindMS:
			because("too much wind on the days before")
		case a.RainH > 0 && w.RainMM >= WashedMM || a.RainH >= dayHours && next.RainMM >= WashedMM:
			because("rain would wash it off on the days before")
		case w.MaxC > a.MaxC:
			because(fmt.Sprintf("not in days warmer than %s", quantity.Temperature(a.MaxC)))
		default:
			return on
		}
		on++
	}
	return on
}

// dayHours are the hours of rain-fastness from which the next day's rain counts too.
const dayHours = 12

// slack is how far the usual maximum of a day may be beyond the limit: single days are better than that.
const slack = 2

// visited reports a kind whose flowers bees visit.
func visited(e *catalogue.Entry) bool {
	b := Built().Unvisited
	return !slices.Contains(b.Families, e.Family) && !slices.Contains(b.Genera, e.Genus())
}

// stepBefore says how long after the step before a step comes.
func stepBefore(days int) string {
	if days == 1 {
		return "the day after the step before"
	}
	return fmt.Sprintf("%d days after the step before", days)
}
