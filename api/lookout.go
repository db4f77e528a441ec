package api

import (
	"cmp"
	"context"
	"maps"
	"math"
	"slices"
	"time"

	"mezzadro/core/cold"
	"mezzadro/core/day"
	"mezzadro/core/weather"
	"mezzadro/store"
)

// Frame is what every screen shows round its work.
type Frame struct {
	Today   day.Day    `json:"today" format:"date"`
	Movable bool       `json:"movable" doc:"The day can be moved: the sample's only"`
	Home    day.Day    `json:"home,omitempty" format:"date" doc:"The day the sample starts at, where it can be moved"`
	Firm    store.Firm `json:"firm"`
	Counts  Counts     `json:"counts"`
}

// Counts are what wants attention in each place.
type Counts struct {
	Lookout int `json:"lookout" doc:"Plants to look at"`
	Grounds int `json:"grounds" doc:"Properties"`
	Year    int `json:"year" doc:"Windows that close within a fortnight"`
	Rounds  int `json:"rounds" doc:"Jobs without a day"`
}

func (s *Server) frame(ctx context.Context, _ *struct{}) (*Out[Frame], error) {
	firm, err := s.Store.Firm(ctx)
	if err != nil {
		return nil, s.problem(ctx, "firm", err)
	}
	t, err := s.triage(ctx)
	if err != nil {
		return nil, s.problem(ctx, "plants", err)
	}
	lanes, err := s.lanes(ctx, 0)
	if err != nil {
		return nil, s.problem(ctx, "jobs", err)
	}
	f := Frame{Today: s.Today(), Movable: s.SetToday != nil, Firm: firm,
		Counts: Counts{Lookout: len(t.looks), Grounds: len(t.places), Year: len(closing(lanes, s.Today()))}}
	if f.Movable {
		f.Home = s.Home
	}
	for _, j := range lanes {
		if j.Day == nil {
			f.Counts.Rounds++
		}
	}
	return out(f), nil
}

// moveToday moves the day the sample stands at; its simulated weather is read up to there, and everything follows.
func (s *Server) moveToday(ctx context.Context, in *struct {
	Body struct {
		Day day.Day `json:"day" format:"date"`
	}
}) (*Out[Frame], error) {
	d := in.Body.Day
	if s.SetToday == nil {
		return nil, s.problem(ctx, "day", store.Refused("the day is the clock's; only the sample's can be moved"))
	}
	if lo, hi := s.Home-240, s.Home+600; d < lo || d > hi {
		return nil, s.problem(ctx, "day", refuse("day", d.String(), "the sample's time goes from "+lo.String()+" to "+hi.String()))
	}
	props, err := s.Store.Properties(ctx, 0, 1<<31)
	if err != nil {
		return nil, s.problem(ctx, "properties", err)
	}
	for _, p := range props {
		if _, err := s.readStation(ctx, p, d); err != nil {
			return nil, s.problem(ctx, "weather", err)
		}
	}
	err = s.Store.Write(ctx, func(tx store.Tx) error {
		firm, err := s.Store.Firm(ctx)
		if err != nil {
			return err
		}
		firm.Today = d.String()
		return tx.SetFirm(ctx, firm)
	})
	if err != nil {
		return nil, s.problem(ctx, "day", err)
	}
	s.SetToday(d)
	return s.frame(ctx, nil)
}

// Lookout is what weather and season ask now, over all properties.
type Lookout struct {
	Events   []EventGroup `json:"events" doc:"Events of the last months; first the one that hurt most plants"`
	Groups   []LookGroup  `json:"groups" doc:"The look-list by property, the most pressing first"`
	Looks    int          `json:"looks" doc:"Plants or groups to look at, over all properties"`
	Deep     int          `json:"deep" doc:"Those of them with more than buds, leaves or flowers hurt"`
	Unhurt   int          `json:"unhurt" doc:"Plants the events left well within what they bear"`
	Looked   int          `json:"looked" doc:"Plants of the list already decided on"`
	Due      []Lane       `json:"due" doc:"Follow-ups whose day is within a fortnight"`
	Closing  []Lane       `json:"closing" doc:"Jobs without a day whose window closes within a fortnight"`
	Property int64        `json:"property" doc:"Whose season the ribbon shows: where the first event was worst"`
}

// LookGroup is the look-list of one property.
type LookGroup struct {
	PropertyID int64      `json:"property_id"`
	Property   string     `json:"property"`
	Note       string     `json:"note" doc:"People, pets and anything else to mind"`
	Looks      []PlantOut `json:"looks" doc:"The most pressing first"`
	More       int        `json:"more" doc:"Plants beyond those given"`
	Minutes    int        `json:"minutes" doc:"Estimate for looking at all of them"`
	First      int64      `json:"first" doc:"Where a walk to them starts: the first on the way round"`
}

const (
	groupsShown = 30
	looksShown  = 12
	lookMinutes = 6 // a plant with three checks and the steps to the next
)

func (s *Server) lookout(ctx context.Context, _ *struct{}) (*Out[Lookout], error) {
	t, err := s.triage(ctx)
	if err != nil {
		return nil, s.problem(ctx, "plants", err)
	}
	lanes, err := s.lanes(ctx, 0)
	if err != nil {
		return nil, s.problem(ctx, "jobs", err)
	}
	o := Lookout{Events: t.events, Groups: []LookGroup{}, Looks: len(t.looks), Unhurt: t.unhurt, Looked: t.looked, Due: []Lane{}, Closing: closing(lanes, t.today)}
	if len(o.Events) > 12 {
		o.Events = o.Events[:12]
	}
	at := map[int64]int{}
	firstStop := map[int64]PlantOut{}
	for _, p := range t.looks {
		switch p.Look.Expected {
		case cold.Wood, cold.Roots, cold.Crown, cold.Heart, cold.Limbs:
			o.Deep++
		}
		i, known := at[p.PropertyID]
		if !known {
			i = len(o.Groups)
			at[p.PropertyID] = i
			o.Groups = append(o.Groups, LookGroup{PropertyID: p.PropertyID, Property: p.Property, Looks: []PlantOut{}})
		}
		g := &o.Groups[i]
		g.Minutes += lookMinutes
		if len(g.Looks) < looksShown {
			g.Looks = append(g.Looks, p)
		} else {
			g.More++
		}
		if f, any := firstStop[p.PropertyID]; !any || onTheWay(p, f) < 0 {
			firstStop[p.PropertyID] = p
			g.First = p.ID
		}
	}
	for _, pl := range t.places {
		if i, any := at[pl.property.ID]; any {
			o.Groups[i].Note = pl.property.Note
		}
	}
	o.Groups = o.Groups[:min(len(o.Groups), groupsShown)]
	if len(t.places) > 0 {
		o.Property = t.places[0].property.ID
	}
	if len(o.Events) > 0 {
		o.Property = o.Events[0].PropertyID
	}
	for _, l := range lanes {
		if l.Kind != "look" {
			continue
		}
		d := l.BestDay
		if l.Day != nil {
			if d, err = day.Parse(*l.Day); err != nil {
				return nil, s.problem(ctx, "job", err)
			}
		}
		if d <= t.today+14 {
			o.Due = append(o.Due, l)
		}
	}
	return out(o), nil
}

// onTheWay orders plants as one meets them round a property: by stop, those without one last.
func onTheWay(a, b PlantOut) int {
	key := func(p PlantOut) int64 {
		if p.Stop == 0 {
			return 1<<40 + p.ID
		}
		return int64(p.Stop)<<20 + p.ID&(1<<20-1)
	}
	switch x, y := key(a), key(b); {
	case x < y:
		return -1
	case x > y:
		return 1
	}
	return 0
}

// EventChart is the weather of an event hour by hour, against what the plants that matter bore.
type EventChart struct {
	Event  Event       `json:"event"`
	Label  string      `json:"label" doc:"What the values are"`
	Unit   string      `json:"unit"`
	Zone   string      `json:"zone" doc:"Time zone of the property"`
	Times  []time.Time `json:"times" doc:"Start of each hour, UTC"`
	Values []*float64  `json:"values" doc:"null where nothing was measured"`
	Lines  []KillLine  `json:"lines" doc:"What plants here bore that day, the tenderest first"`
}

// KillLine is the temperature at which half of an organ dies, for plants of one species here.
type KillLine struct {
	Species string  `json:"species"`
	Common  string  `json:"common"`
	Organ   string  `json:"organ"`
	C       float64 `json:"c" doc:"°C; for other events the limit in the chart's unit"`
	Plants  int     `json:"plants" doc:"Plants or groups of it here"`
	Share   float64 `json:"share" doc:"Expected share killed"`
}

// linesShown is how many kill points a chart bears without turning into a thicket.
const linesShown = 5

func (s *Server) eventChart(ctx context.Context, in *struct {
	ByID
	Kind string `query:"kind" required:"true"`
	Peak string `query:"peak" required:"true" format:"date"`
}) (*Out[EventChart], error) {
	p, err := s.place(ctx, in.ID)
	if err != nil {
		return nil, s.problem(ctx, "property", err)
	}
	var e *cold.Struck
	for i := range p.course.Events {
		if x := &p.course.Events[i]; x.Kind == in.Kind && x.Day.String() == in.Peak {
			e = x
		}
	}
	if e == nil {
		return nil, s.problem(ctx, in.Kind+" on "+in.Peak, store.ErrNotFound)
	}
	margin := 36 * time.Hour
	if e.Kind == weather.Wet {
		margin = 0
	}
	hours, err := s.Store.Weather(ctx, p.property.ID, e.From.Add(-margin), e.To.Add(margin))
	if err != nil {
		return nil, s.problem(ctx, "weather", err)
	}
	c := EventChart{Event: p.tellEvent(e), Zone: p.property.Zone, Label: "Air", Unit: "°C", Lines: []KillLine{}}
	figure := func(h weather.Hour) float64 { return h.TempC }
	switch e.Kind {
	case weather.Gale:
		c.Label, c.Unit, figure = "Wind", "m/s", func(h weather.Hour) float64 { return h.WindMS }
	case weather.Wet:
		sum := 0.0
		c.Label, c.Unit, figure = "Rain so far", "mm", func(h weather.Hour) float64 {
			if h.RainMM > 0 {
				sum += h.RainMM
			}
			return sum
		}
	}
	for _, h := range weather.At(hours, p.property.Site.V, p.normals.Climate.Longitude) {
		c.Times = append(c.Times, h.Time)
		var v *float64
		if f := figure(h); !math.IsNaN(f) {
			r := tenth(f)
			v = &r
		}
		c.Values = append(c.Values, v)
	}
	t, err := s.triage(ctx)
	if err != nil {
		return nil, s.problem(ctx, "plants", err)
	}
	if e.Cold() {
		c.Lines = p.killLines(e, t.plants)
	} else if c.Unit == unitOf[e.Kind] {
		c.Lines = append(c.Lines, KillLine{Common: "counts as an event here", Organ: "", C: tenth(e.Threshold)})
	}
	return out(c), nil
}

// killLines are what species here bore that day, from the tenderest to the hardiest: those the event hurt and, for
// comparison, one or two it did not.
func (p *place) killLines(e *cold.Struck, plants []PlantOut) []KillLine {
	worst := map[string]KillLine{}
	for _, o := range plants {
		if o.PropertyID != p.property.ID || o.Botanical == "" {
			continue
		}
		entry := entryOf(p.book, o.Species)
		c := caseOf(o.Plant, entry, 1)
		x := e.Meet(&c.Plant, p.stage(&entry, e.Day))
		l := KillLine{o.Species, entry.Common, cold.Wood, tenth(x.WoodKillC), 1, math.Round(100*x.Worst.Share) / 100}
		switch x.Worst.Organ {
		case cold.Roots, cold.Crown: // they do not meet the air
			continue
		case "":
		default:
			l.Organ, l.C = x.Worst.Organ, tenth(x.Worst.KillC)
		}
		if was, known := worst[o.Species]; known {
			l.Plants += was.Plants
			if was.Share > l.Share {
				l.Organ, l.C, l.Share = was.Organ, was.C, was.Share
			}
		}
		worst[o.Species] = l
	}
	all := slices.SortedFunc(maps.Values(worst), func(a, b KillLine) int { return cmp.Or(cmp.Compare(b.C, a.C), cmp.Compare(a.Species, b.Species)) })
	borne := slices.IndexFunc(all, func(l KillLine) bool { return l.C < e.Value })
	if borne >= 0 {
		all = all[:min(len(all), borne+2)] // hardier ones tell nothing more
	}
	if len(all) <= linesShown {
		return all
	}
	out := []KillLine{}
	for i := range linesShown {
		out = append(out, all[i*(len(all)-1)/(linesShown-1)])
	}
	return out
}
