package days

import (
	"context"
	"slices"

	"mezzadro/core/day"
	"mezzadro/core/job"
	"mezzadro/core/kinds"
	"mezzadro/core/rounds"
	"mezzadro/house/crews"
	"mezzadro/store"
)

// LostIn is a day that is lost, or a crew's: it rains, a crew is away, the van is broken.
type LostIn struct {
	Day  day.Day `json:"day" format:"date"`
	Crew int64   `json:"crew,omitempty" doc:"Whose day; all crews' when absent"`
	Why  string  `json:"why" enum:"rain,crew away,van broken" doc:"rain takes what wants it dry; the others take all"`
	All  bool    `json:"all,omitempty" doc:"rain: all work comes off, not only what wants it dry"`
}

// Lost is what falls off a lost day, and where it goes.
type Lost struct {
	Visits []LostVisit `json:"visits"`
	Stays  int         `json:"stays" doc:"Jobs that can be done all the same"`
}

// LostVisit is a visit that falls off a day.
type LostVisit struct {
	PropertyID int64   `json:"property_id"`
	Property   string  `json:"property"`
	Crew       int64   `json:"crew,omitempty"`
	Jobs       int     `json:"jobs"`
	Minutes    int     `json:"minutes"`
	Told       bool    `json:"told" doc:"The client knows the day: a letter says the new one"`
	To         day.Day `json:"to,omitempty" format:"date" doc:"Where it goes: the best day within a fortnight on which the crew works and has the time, and all of it can be done; absent where there is none"`

	orders []store.OrderFull
}

// Within how many days a lost visit finds another day.
const lostAhead = 14

// LostDay says what falls off a day and where it would go; nothing is changed.
func (h *Room) LostDay(ctx context.Context, in LostIn) (Lost, error) {
	out := Lost{Visits: []LostVisit{}}
	if _, err := h.Crew.CrewName(ctx, in.Crew); err != nil {
		return out, err
	}
	list, err := h.Store.SheetOf(ctx, in.Day.String(), Shown)
	if err != nil {
		return out, err
	}
	for _, k := range list {
		switch {
		case k.State != job.Placed || in.Crew != 0 && k.CrewID != in.Crew:
			continue
		case in.Why == "rain" && !in.All && kinds.Weather(k.Kind, k.Params.V.Use, k.Body.V.Skills) == rounds.Any:
			out.Stays++
			continue
		}
		i := slices.IndexFunc(out.Visits, func(v LostVisit) bool { return v.PropertyID == k.PropertyID && v.Crew == k.CrewID })
		if i < 0 {
			i = len(out.Visits)
			out.Visits = append(out.Visits, LostVisit{PropertyID: k.PropertyID, Property: k.Property, Crew: k.CrewID})
		}
		v := &out.Visits[i]
		v.Jobs, v.Minutes, v.Told, v.orders = v.Jobs+1, v.Minutes+shared(k.Order), v.Told || k.Told != "", append(v.orders, k)
	}
	return out, h.elsewhere(ctx, in, &out)
}

// elsewhere finds another day for each visit, the longest first.
func (h *Room) elsewhere(ctx context.Context, in LostIn, out *Lost) error {
	list, err := h.Crew.Crews(ctx)
	if err != nil {
		return err
	}
	access, err := h.Store.Accesses(ctx)
	if err != nil {
		return err
	}
	taken, err := h.minutesAhead(ctx, in.Day)
	if err != nil {
		return err
	}
	order := make([]int, len(out.Visits))
	for i := range order {
		order[i] = i
	}
	slices.SortStableFunc(order, func(a, b int) int { return out.Visits[b].Minutes - out.Visits[a].Minutes })
	for _, i := range order {
		v := &out.Visits[i]
		at := slices.IndexFunc(list, func(c crews.Crew) bool { return c.ID == v.Crew })
		best := job.Never
		curves, err := h.curvesOf(ctx, v.orders)
		if err != nil {
			return err
		}
		for d := max(in.Day, h.Today()) + 1; d <= in.Day+lostAhead; d++ {
			if at >= 0 && !fits(list[at], d, taken[crewDay{v.Crew, d}]+v.Minutes) || slices.Contains(access[v.PropertyID].Shut, int(d.Weekday())) {
				continue
			}
			if cost := dearest(curves, d); best.Over(cost) {
				best, v.To = cost, d
			}
		}
		if v.To.Given() {
			taken[crewDay{v.Crew, v.To}] += v.Minutes
		}
	}
	return nil
}

type crewDay struct {
	crew int64
	day  day.Day
}

// minutesAhead is the work that stands on the days after one, by crew and day.
func (h *Room) minutesAhead(ctx context.Context, from day.Day) (map[crewDay]int, error) {
	list, err := h.Store.OrdersBetween(ctx, (from + 1).String(), (from + lostAhead).String(), store.All)
	out := map[crewDay]int{}
	for _, k := range list {
		out[crewDay{k.CrewID, store.DayOf(k.Day)}] += shared(k)
	}
	return out, err
}

// fits reports that a crew works on a day and has so many minutes of it.
func fits(c crews.Crew, d day.Day, minutes int) bool {
	has := c.Minutes(d)
	return has > 0 && rounds.Clock(float64(minutes), len(c.People), 0) <= has
}

// curvesOf are what each day costs for some jobs, with the days before those they wait for forbidden.
func (h *Room) curvesOf(ctx context.Context, list []store.OrderFull) ([]job.Curve, error) {
	teller, err := h.Work.Teller(ctx)
	if err != nil {
		return nil, err
	}
	out := make([]job.Curve, len(list))
	for i, k := range list {
		pl, err := h.Place(ctx, k.PropertyID)
		if err != nil {
			return nil, err
		}
		c, err := h.Work.Shared(ctx, &k, pl)
		if err != nil {
			return nil, err
		}
		out[i] = teller.Curve(k.Order, c.Curve)
	}
	return out, nil
}

// dearest is what a day costs for the dearest of some jobs.
func dearest(curves []job.Curve, d day.Day) job.Cost {
	worst := job.Cost{}
	for _, c := range curves {
		if cost := c.On(d); cost.Over(worst) {
			worst = cost
		}
	}
	return worst
}

// LoseDay takes what falls off a day to where it goes, in one write; what finds no day comes off.
func (h *Room) LoseDay(ctx context.Context, key store.Key, in LostIn) (VisitChanged, error) {
	plan, err := h.LostDay(ctx, in)
	if err != nil {
		return VisitChanged{}, err
	}
	var moves []moved
	for _, v := range plan.Visits {
		to := move{do: "off"}
		if v.To.Given() {
			to = move{do: "move", day: v.To}
			if to.crew, err = h.crewOf(ctx, v.Crew); err != nil {
				return VisitChanged{}, err
			}
		}
		for _, k := range v.orders {
			m, err := h.moved(ctx, k, to)
			if err != nil {
				return VisitChanged{}, err
			}
			moves = append(moves, m)
		}
	}
	return store.Once(ctx, h.Store, key, func(tx store.Tx) (VisitChanged, error) { return keepMoves(ctx, tx, moves) })
}
