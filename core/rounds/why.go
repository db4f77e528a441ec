package rounds

import (
	"fmt"
	"math"
	"math/rand/v2"
	"slices"
	"strings"

	"mezzadro/core/day"
	"mezzadro/core/quantity"
)

// Other is what a job would cost on another day, once others have made room for it: an upper end, a longer search may find
// less.
type Other struct {
	Day  int     `json:"day"`
	Date day.Day `json:"date" format:"date"`
	Crew int     `json:"crew" doc:"With which it costs least; -1 where it cannot be"`
	More float64 `json:"more" doc:"Than where it stands, once others have made room; an upper end. Below 0 it would be better"`
	Own  float64 `json:"own" doc:"Of that: what the day costs for the job itself, by weight"`
	Way  float64 `json:"way" doc:"Of that: the way, the arrival, overtime"`
	Why  string  `json:"why,omitempty" doc:"Why it cannot be"`
}

// Why is why a job stands where it does, and what other days would cost.
type Why struct {
	Text   string  `json:"text"`
	Others []Other `json:"others" doc:"Of each day"`
}

// Explain tells it for one job of a plan.
func (p Plan) Explain(j int) Why {
	s := p.search
	defer s.held()()
	kept := s.copy()
	defer s.restore(kept)
	w := s.at[j]
	now, own := s.leave(j), 0.0
	before := s.sum
	if w >= 0 {
		own = s.here(j, w)
		pin := s.p.Jobs[j].Pin
		s.p.Jobs[j].Pin = nil
		s.look(j)
		defer func() {
			s.p.Jobs[j].Pin = pin
			s.look(j)
		}()
		s.lift(j)
		now = before - (s.sum - s.leave(j))
	}
	out := Why{Others: make([]Other, s.p.Days)}
	better := 0
	for d := range s.p.Days {
		o := Other{Day: d, Date: s.p.From + day.Day(d), Crew: -1}
		if w >= 0 && d == s.list[w].day {
			o.Crew = s.list[w].crew
			out.Others[d] = o
			continue
		}
		least := far
		for c := range s.p.Crews {
			v, _ := s.try(j, c*s.p.Days+d)
			if v < least {
				least, o.Crew = v, c
			}
		}
		if o.Crew < 0 {
			o.Why = s.against(j, d)
		} else {
			o.More = math.Round(10*(min(least, s.settle(j, o.Crew*s.p.Days+d))-now)) / 10
			o.Own = math.Round(10*(s.here(j, o.Crew*s.p.Days+d)-own)) / 10
			o.Way = math.Round(10*(o.More-o.Own)) / 10
			if o.More < -0.5 {
				better++
			}
		}
		out.Others[d] = o
	}
	out.Text = s.because(j, kept.at[j], better)
	return out
}

// How often parts of a plan are torn down and built up again to see what a day costs once other jobs make room for it: the
// fewer the more jobs there are.
const (
	settleMost = 40
	settleAll  = 6000 // jobs times rounds
)

// settle puts a job that has been lifted on a way, has the others make room for it, and returns by how much the plan then
// costs more than with the job lifted.
func (s *search) settle(j, w int) float64 {
	kept, pin, rng := s.copy(), s.p.Jobs[j].Pin, s.rng
	lifted := s.sum - s.waits[j]
	defer func() {
		s.p.Jobs[j].Pin, s.rng = pin, rng
		s.look(j)
		s.restore(kept)
	}()
	_, at := s.try(j, w)
	s.p.Jobs[j].Pin = &Pin{Crew: w / s.p.Days, Day: w % s.p.Days}
	s.sum -= s.waits[j]
	s.look(j)
	s.sum += s.waits[j]
	s.put(w, at, j)
	s.rng = rand.New(rand.NewPCG(uint64(j), uint64(w)))
	s.improveWhole(warm, Rounds(min(settleMost, 1+settleAll/len(s.p.Jobs))))
	return s.sum - lifted
}

// because says in a sentence why a job stands where it does.
func (s *search) because(j, w, better int) string {
	if w < 0 {
		l := s.left(j)
		return strings.TrimSpace(l.Why + " " + l.Takes)
	}
	k, way := &s.p.Jobs[j], &s.list[w]
	parts := []string{}
	if k.Pin != nil {
		parts = append(parts, "it is pinned there")
	}
	if k.Was != nil && k.Was.Day == way.day {
		parts = append(parts, "it stood there before")
	}
	best := slices.Min(append([]int{Forbidden}, k.Costs...))
	switch c := k.cost(way.day); {
	case c == best:
		parts = append(parts, "no day of the span is better for the work")
	default:
		parts = append(parts, fmt.Sprintf("the day costs %d of 100, the best %d", c, best))
	}
	if i := way.find(k.Place); i >= 0 && len(way.stops[i].jobs) > 0 && s.at[j] < 0 ||
		i >= 0 && len(way.stops[i].jobs) > 1 {
		parts = append(parts, "the crew is at that property for other work")
	}
	if better == 0 {
		parts = append(parts, "every other day costs more or cannot be")
	}
	return strings.ToUpper(parts[0][:1]) + strings.Join(parts, ", ")[1:] + "."
}

// against is what speaks against a day for a job with every crew.
func (s *search) against(j, d int) string {
	why := []string{}
	for c := range s.p.Crews {
		if text := s.blocks(j, c*s.p.Days+d); !slices.Contains(why, text) {
			why = append(why, text)
		}
	}
	return strings.Join(why, "; ")
}

// blocks is what speaks against a job on a way.
func (s *search) blocks(j, w int) string {
	k, way := &s.p.Jobs[j], &s.list[w]
	crew := &s.p.Crews[way.crew]
	if lack := s.p.lacks(j, way.crew); lack == "people" {
		return fmt.Sprintf("%s is %d, it needs %d people", crew.Name, crew.Size, k.people())
	} else if lack != "" {
		return fmt.Sprintf("nobody of %s has: %s", crew.Name, lack)
	}
	switch {
	case s.round[j]:
		return "it waits in a circle for itself"
	case k.cost(way.day) >= Forbidden && s.p.said[[2]int{j, way.day}] != "":
		return s.p.said[[2]int{j, way.day}]
	case k.cost(way.day) >= Forbidden:
		return "the day is forbidden for the work"
	case way.hours.empty():
		return crew.Name + " is not at work"
	case s.open[way.day][k.Place].empty():
		return s.p.Places[k.Place].Name + " cannot be entered that day"
	case k.Pin != nil && (k.Pin.Crew != way.crew || k.Pin.Day != way.day):
		return "it is pinned elsewhere"
	case !s.gapsHold(j, w):
		return s.gapText(j)
	case !s.matesHold(j, w):
		return "its plants are closed by a treatment that day"
	}
	return s.full(j, w)
}

// gapText names the gaps of a job.
func (s *search) gapText(j int) string {
	parts := []string{}
	name := func(g Gap) string {
		if g.Job >= 0 {
			return "“" + s.p.Jobs[g.Job].Title + "”"
		}
		return "what was done " + quantity.Day(s.p.From+day.Day(g.Day))
	}
	for _, g := range s.p.Jobs[j].After {
		if g.Job >= 0 && s.at[g.Job] < 0 {
			parts = append(parts, name(g)+" comes first and has no day")
			continue
		}
		text := fmt.Sprintf("%s after %s at least", daysOf(g.Min), name(g))
		if g.Max > 0 {
			text += fmt.Sprintf(", %d at most", g.Max)
		}
		parts = append(parts, text)
	}
	for _, n := range s.next[j] {
		if s.at[n] >= 0 {
			parts = append(parts, "“"+s.p.Jobs[n].Title+"” comes after it and stands too near")
		}
	}
	return strings.Join(parts, "; ")
}

func daysOf(n int) string {
	if n == 1 {
		return "1 day"
	}
	return fmt.Sprintf("%d days", n)
}

// full tells how much too long a day would be.
func (s *search) full(j, w int) string {
	way := &s.list[w]
	own := s.stopOf(j, way.crew)
	stops := slices.Clone(way.stops)
	if i := way.find(own.place); i >= 0 {
		stops[i].merge(&own)
	} else {
		stops = append(stops, own)
	}
	t := s.simulate(way, stops, false)
	if own.late == 0 && t.end > 0 && t.over > overMost {
		return fmt.Sprintf("the day of %s is full: %.0f minutes more than its hours", s.p.Crews[way.crew].Name, t.over)
	}
	if k := &s.p.Jobs[j]; k.Pin != nil && k.Pin.At > 0 {
		return fmt.Sprintf("it does not fit at %s, to which it is pinned", quantity.Hour(k.Pin.At))
	}
	return "it does not fit into the hours in which one may be at " + s.p.Places[s.p.Jobs[j].Place].Name
}

// few is a crew that has a job's skills and only too few people; empty where none has.
func (s *search) few(k *Job) string {
	for i := range s.p.Crews {
		if c := &s.p.Crews[i]; len(k.Skills) > 0 && c.Size < k.people() && c.has(k.Skills) {
			return c.Name
		}
	}
	return ""
}

// left says why a job has no day, and what it would take.
func (s *search) left(j int) Left {
	out := Left{Job: j}
	k := &s.p.Jobs[j]
	lacks := map[string]bool{}
	able, works, allowed := false, false, false
	for c := range s.p.Crews {
		if lack := s.p.lacks(j, c); lack != "" {
			lacks[lack] = true
			continue
		}
		able = true
		for d := range s.p.Days {
			works = works || !s.list[c*s.p.Days+d].hours.empty()
			allowed = allowed ||
				k.cost(d) < Forbidden && !s.list[c*s.p.Days+d].hours.empty() && !s.open[d][k.Place].empty()
		}
	}
	switch {
	case len(s.p.Crews) == 0:
		out.Why, out.Takes = "There is no crew.", "Enter one, with its hours."
	case s.round[j]:
		out.Why, out.Takes = "It waits in a circle for itself: "+s.gapText(j)+".", "Take one of the gaps out."
	case !able && lacks["people"] && len(lacks) == 1:
		out.Why, out.Takes = fmt.Sprintf(
			"It needs %d people, and no crew is that many.",
			k.people(),
		), "Put crews together for it."
	case !able && s.few(k) != "":
		out.Why = fmt.Sprintf("%s may do it, but is too few: it needs %d people.", s.few(k), k.people())
		out.Takes = "Somebody to go with them."
	case !able:
		delete(lacks, "people")
		names := []string{}
		for l := range lacks {
			names = append(names, l)
		}
		slices.Sort(names)
		out.Why, out.Takes = "Nobody has: "+strings.Join(names, ", ")+".", "A person with it, or a firm from outside."
	case !works:
		out.Why, out.Takes = "Nobody who can do it is at work in the span.", "Hours for a crew, or a later span."
	case !allowed && s.weather(j) != "":
		out.Why, out.Takes = "The weather allows no day of the span: "+s.weather(j)+".", s.laterText(k)
	case !allowed:
		out.Why, out.Takes = "No day of the span is allowed for it, with the crew and the property open.", s.laterText(
			k,
		)
	default:
		s.leftFor(j, &out)
	}
	return out
}

// weather is the first thing that it says against a day of a job.
func (s *search) weather(j int) string {
	for d := range s.p.Days {
		if text := s.p.said[[2]int{j, d}]; text != "" && s.p.Jobs[j].cost(d) >= Forbidden {
			return text
		}
	}
	return ""
}

func (s *search) laterText(k *Job) string {
	if k.Later < Forbidden {
		return "It is done later."
	}
	return "Its time passes: ask whether it is still wanted."
}

// leftFor says why a job that some crew could do on some day is left.
func (s *search) leftFor(j int, out *Left) {
	k := &s.p.Jobs[j]
	if k.Pin != nil {
		out.Why = fmt.Sprintf(
			"It stands on %s with %s, and that cannot be: %s.",
			quantity.Day(s.p.From+day.Day(k.Pin.Day)),
			s.p.Crews[k.Pin.Crew].Name,
			s.blocks(j, k.Pin.Crew*s.p.Days+k.Pin.Day),
		)
		out.Takes = "Take it off that day, or let it move."
		return
	}
	least, on := far, -1
	for w := range s.list {
		if v, _ := s.try(j, w); v < least {
			least, on = v, w
		}
	}
	switch {
	case on >= 0 && k.Later < Forbidden:
		best, more := quantity.Day(s.p.From+day.Day(s.list[on].day)), least-s.leave(j)
		out.Why, out.Takes = "Later is as good: the best day here is "+best+".", "It is done later."
		if more >= 1 {
			out.Why = fmt.Sprintf("Later is better: the best day here is %s, and costs %.0f min more than leaving it.", best, more)
		}
	case on >= 0:
		out.Why, out.Takes = "It costs more than it is worth to come for it.", s.laterText(k)
	default:
		why := []string{}
		for d := range s.p.Days {
			if k.cost(d) >= Forbidden {
				continue
			}
			if text := s.against(j, d); !slices.Contains(why, text) && len(why) < 3 {
				why = append(why, text)
			}
		}
		out.Why = "It does not fit: " + strings.Join(why, "; ") + "."
		out.Takes = fmt.Sprintf("%.0f minutes more on one of its days, or something else put off.", k.Minutes)
	}
}
