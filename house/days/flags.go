package days

import (
	"context"
	"fmt"
	"slices"

	"mezzadro/core/day"
	"mezzadro/core/job"
	"mezzadro/core/kinds"
	"mezzadro/core/quantity"
	"mezzadro/core/rounds"
	"mezzadro/house/crews"
	"mezzadro/house/estate"
	roundsroom "mezzadro/house/rounds"
	"mezzadro/store"
)

// Flag is what cannot be where it stands: of a crew's day, or of a visit on it.
type Flag struct {
	Day        day.Day `json:"day" format:"date"`
	Crew       int64   `json:"crew" doc:"By id; 0: no crew has it"`
	PropertyID int64   `json:"property_id" doc:"Of the visit; 0: of the crew's whole day"`
	Text       string  `json:"text"`
}

// flagger says what cannot be where it stands: a day off, more than the hours of who goes, a shut gate, weather that the
// work does not bear. Sheet, stretch of days and calendar ask it, so that they say the same.
type flagger struct {
	crews  []crews.Crew
	access map[int64]store.Access
	skies  estate.Skies
	places map[int64]*estate.Place
}

func (h *Room) flagger(ctx context.Context) (*flagger, error) {
	f := &flagger{places: map[int64]*estate.Place{}}
	var err error
	if f.crews, err = h.Crew.Crews(ctx); err != nil {
		return nil, err
	}
	if f.access, err = h.Store.Accesses(ctx); err != nil {
		return nil, err
	}
	if f.skies, err = h.SkiesAhead(ctx); err != nil {
		return nil, err
	}
	t, err := h.Triage(ctx) // has all properties at hand
	if err != nil {
		return nil, err
	}
	for _, pl := range t.Places {
		f.places[pl.Property.ID] = pl
	}
	return f, nil
}

// crewOn is a crew on a day.
type crewOn struct {
	crew int64
	day  day.Day
}

// flags of jobs, in their order on their days; what is done, or on no day, has none.
func (f *flagger) flags(list []store.OrderFull) []Flag {
	out := []Flag{}
	days := map[crewOn][]store.OrderFull{}
	order := []crewOn{}
	for _, k := range list {
		if k.State != job.Placed {
			continue
		}
		on := crewOn{k.CrewID, store.DayOf(k.Day)}
		if days[on] == nil {
			order = append(order, on)
		}
		days[on] = append(days[on], k)
	}
	for _, on := range order {
		jobs := days[on]
		if i := slices.IndexFunc(f.crews, func(c crews.Crew) bool { return c.ID == on.crew }); i >= 0 {
			if text := f.hours(f.crews[i], on.day, jobs); text != "" {
				out = append(out, Flag{on.day, on.crew, 0, text})
			}
		}
		for first := 0; first < len(jobs); {
			end := first + 1
			for end < len(jobs) && jobs[end].PropertyID == jobs[first].PropertyID {
				end++
			}
			for _, text := range f.visit(on.day, jobs[first:end]) {
				out = append(out, Flag{on.day, on.crew, jobs[first].PropertyID, text})
			}
			first = end
		}
	}
	return out
}

// hours are what speaks against a crew's day: it is off, or longer than the people who go have, with the ways.
func (f *flagger) hours(c crews.Crew, on day.Day, jobs []store.OrderFull) string {
	work, points, last := 0, []rounds.Point{}, int64(0)
	for _, k := range jobs {
		work += shared(k.Order)
		if pl := f.places[k.PropertyID]; pl != nil && k.PropertyID != last {
			at := pl.Property.Climate.V
			points = append(points, rounds.Point{Latitude: at.Latitude, Longitude: at.Longitude})
		}
		last = k.PropertyID
	}
	ways := rounds.Way(c.Start, points)
	has, out := c.Minutes(on), rounds.Clock(float64(work), len(c.People), ways)
	switch {
	case slices.Contains(c.Off, on):
		return c.Name + " has this day off."
	case has <= 0:
		return c.Name + " does not work on this day."
	case out > has+0.5:
		return fmt.Sprintf("%s: %s with about %s of ways is over the %s that they have.", c.Name, hoursOf(out), hoursOf(ways), hoursOf(has))
	}
	return ""
}

// shared is what a job takes of all who do it together, minutes.
func shared(k store.Order) int { return k.Minutes * max(1, k.CrewSize) }

// has is how long the crews work on a day, minutes of all people together.
func (f *flagger) has(on day.Day) (minutes float64) {
	for _, c := range f.crews {
		minutes += c.Minutes(on) * float64(max(1, len(c.People)))
	}
	return minutes
}

// hoursOf is a length of time in hours.
func hoursOf(minutes float64) string {
	switch m := int(minutes + 0.5); {
	case m < 60:
		return fmt.Sprintf("%d min", m)
	case m%60 == 0:
		return fmt.Sprintf("%d h", m/60)
	default:
		return fmt.Sprintf("%d h %d min", m/60, m%60)
	}
}

// visit are what speaks against being at a place on a day, or at an hour of it, and what the weather forbids there.
func (f *flagger) visit(on day.Day, jobs []store.OrderFull) (out []string) {
	a, at := f.access[jobs[0].PropertyID], jobs[0].Place/roundsroom.PlanPlace
	h := a.Hours[on.Weekday()]
	switch {
	case slices.Contains(a.Shut, int(on.Weekday())):
		out = append(out, "It is shut on this day of the week.")
	case at > 0 && h.To > h.From && (float64(at) < float64(h.From) || float64(at) >= float64(h.To)):
		out = append(out, "Outside the hours in which one may be there.")
	}
	pl := f.places[jobs[0].PropertyID]
	if pl == nil {
		return out
	}
	sky := f.skies.Of(pl, on, 1)
	for _, k := range jobs {
		if why := rounds.Against(kinds.Weather(k.Kind, k.Params.V.Use, k.Body.V.Skills), sky[0], sky[1]); why != "" {
			out = append(out, k.Title+": "+why+" on "+quantity.Day(on)+".")
		}
	}
	return out
}

// flag says on a sheet what cannot be where it stands.
func (h *Room) flag(ctx context.Context, s *Sheet, list []store.OrderFull) error {
	f, err := h.flagger(ctx)
	if err != nil {
		return err
	}
	for _, x := range f.flags(list) {
		if x.PropertyID == 0 {
			s.Flags = append(s.Flags, x.Text)
			continue
		}
		for i := range s.Visits {
			if v := &s.Visits[i]; v.PropertyID == x.PropertyID && v.Crew == x.Crew && !slices.Contains(v.Flags, x.Text) {
				v.Flags = append(v.Flags, x.Text)
			}
		}
	}
	return nil
}
