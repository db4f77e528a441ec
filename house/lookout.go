package house

import (
	"context"
	"math"
	"slices"
	"time"

	"mezzadro/core/catalogue"
	"mezzadro/core/cold"
	"mezzadro/core/day"
	"mezzadro/core/lookout"
	"mezzadro/core/weather"
	"mezzadro/store"
)

// Frame is what every screen shows round its work.
type Frame struct {
	Today   day.Day
	Movable bool
	Home    day.Day
	Firm    store.Firm
	Counts  Counts
}

// Counts are what wants attention in each place.
type Counts struct {
	Lookout int `json:"lookout" doc:"Plants to look at, and jobs overdue"`
	Grounds int `json:"grounds" doc:"Properties"`
	Year    int `json:"year" doc:"Windows that close within a fortnight"`
	Rounds  int `json:"rounds" doc:"Jobs without a day, and jobs overdue"`
	Overdue int `json:"overdue" doc:"Jobs that were on a past day and are not ticked off"`
}

// Frame counts what wants attention.
func (h *House) Frame(ctx context.Context) (Frame, error) {
	f := Frame{Today: h.Today(), Movable: h.SetToday != nil}
	var err error
	if f.Firm, err = h.Firm(ctx); err != nil {
		return f, err
	}
	t, err := h.Triage(ctx)
	if err != nil {
		return f, err
	}
	if err := h.currentWindows(ctx); err != nil {
		return f, err
	}
	n, err := h.Store.CountOrders(ctx, f.Today.String(), (f.Today + lookout.Soon).String())
	if err != nil {
		return f, err
	}
	f.Counts = Counts{
		Lookout: len(t.looks) + n.Overdue,
		Grounds: len(t.places),
		Year:    n.Closing,
		Rounds:  n.Waiting + n.Overdue,
		Overdue: n.Overdue,
	}
	if f.Movable {
		f.Home = h.Home
	}
	return f, nil
}

// The sample's time can be moved so far before and after the day it starts at, days.
const (
	sampleBack  = 240
	sampleAhead = 600
)

// MoveToday moves the day the sample stands at; its simulated weather is read up to there, and everything follows.
func (h *House) MoveToday(ctx context.Context, d day.Day) error {
	if h.SetToday == nil {
		return store.Refused("the day is the clock's; only the sample's can be moved")
	}
	if lo, hi := h.Home-sampleBack, h.Home+sampleAhead; d < lo || d > hi {
		return Refuse("day", d.String(), "the sample's time goes from "+lo.String()+" to "+hi.String())
	}
	props, err := h.Store.Properties(ctx, 0, all)
	if err != nil {
		return err
	}
	for _, p := range props {
		if _, err := h.readStation(ctx, p, d); err != nil {
			return err
		}
	}
	firm, err := h.Firm(ctx)
	if err != nil {
		return err
	}
	firm.Today = d.String()
	if err := h.Store.Write(ctx, func(tx store.Tx) error { return tx.SetFirm(ctx, firm) }); err != nil {
		return err
	}
	h.SetToday(d)
	for _, p := range props {
		if err := h.renewWashed(ctx, p.ID); err != nil {
			return err
		}
	}
	return h.RefreshWindows(ctx)
}

// all is the limit of a list that is wanted whole.
const all = 1 << 31

// Lookout is what weather and season ask now, over all properties.
type Lookout struct {
	Events       []EventGroup `json:"events" doc:"Events of the last months; first the one that hurt most plants"`
	Places       []PlaceLine  `json:"places" doc:"All properties, the one to visit first first"`
	Groups       []LookGroup  `json:"groups" doc:"The look-list by property, the most pressing first"`
	Looks        int          `json:"looks" doc:"Plants or groups to look at, over all properties"`
	Deep         int          `json:"deep" doc:"Those of them with more than buds, leaves or flowers hurt"`
	Slight       int          `json:"slight" doc:"Plants hurt a little, by which little is lost by waiting: not on the list"`
	Unhurt       int          `json:"unhurt" doc:"Plants the events left well within what they bear"`
	Looked       int          `json:"looked" doc:"Plants of the list already decided on"`
	Shelter      []PlantOut   `json:"shelter" doc:"Tender plants to be lifted or taken in before the first frost, and not decided on yet; up to 60"`
	Tender       int          `json:"tender" doc:"How many there are of them"`
	Overdue      []Order      `json:"overdue" doc:"Jobs that were on a past day and are not ticked off, the oldest first; up to 60"`
	Late         int          `json:"late" doc:"How many there are of them"`
	Due          []Order      `json:"due" doc:"Follow-ups whose day is within a fortnight; up to 60"`
	DueCount     int          `json:"due_count" doc:"How many there are of them"`
	Closing      []Order      `json:"closing" doc:"Jobs without a day whose window closes within a fortnight; up to 60"`
	ClosingCount int          `json:"closing_count" doc:"How many there are of them"`
	Property     int64        `json:"property" doc:"Whose season the ribbon shows: where the first event was worst"`
	BackupDue    bool         `json:"backup_due" doc:"There was no backup of the record for a week"`
	Unreadable   []string     `json:"unreadable" doc:"Rows of the record that cannot be read, and are left out everywhere but on their own page, which says so"`
}

// PlaceLine is a property as it stands among the others in the morning.
type PlaceLine struct {
	PropertyID int64   `json:"property_id"`
	Property   string  `json:"property"`
	Note       string  `json:"note" doc:"People, pets and anything else to mind"`
	Plants     int     `json:"plants" doc:"Plants or groups on it"`
	Looks      int     `json:"looks" doc:"Plants to look at on a walk today: likely hurt, tender before frost, or due again"`
	Deep       int     `json:"deep" doc:"Those of them with wood, roots or heart likely hurt"`
	Due        int     `json:"due" doc:"Follow-ups whose day has come"`
	Overdue    int     `json:"overdue" doc:"Jobs that were on a past day"`
	Minutes    int     `json:"minutes" doc:"Estimate for looking at all of them"`
	Nearest    day.Day `json:"nearest" format:"date" doc:"The nearest day that something there hangs on; empty without one"`
	Why        string  `json:"why"`
}

// LookGroup is the look-list of one property.
type LookGroup struct {
	PropertyID int64      `json:"property_id"`
	Property   string     `json:"property"`
	Note       string     `json:"note" doc:"People, pets and anything else to mind"`
	Shared     []string   `json:"shared" doc:"What the weather was here, said once for all its plants"`
	Looks      []PlantOut `json:"looks" doc:"The most pressing first"`
	More       int        `json:"more" doc:"Plants beyond those given"`
	Minutes    int        `json:"minutes" doc:"Estimate for looking at all of them"`
}

// How much of each list the Lookout shows.
const (
	eventsShown  = 12
	groupsShown  = 30
	looksShown   = 12
	shelterShown = 60
	asksShown    = 60
)

// Lookout gathers it.
func (h *House) Lookout(ctx context.Context) (Lookout, error) {
	t, err := h.Triage(ctx)
	if err != nil {
		return Lookout{}, err
	}
	o := Lookout{
		Events:  t.events[:min(len(t.events), eventsShown)],
		Looks:   len(t.looks),
		Slight:  t.slight,
		Unhurt:  t.unhurt,
		Looked:  t.looked,
		Shelter: append([]PlantOut{}, t.shelter[:min(len(t.shelter), shelterShown)]...),
		Tender:  len(t.shelter),
	}
	o.Groups, o.Deep = t.groups()
	o.Unreadable = store.Torn()
	if firm, err := h.Store.Firm(ctx); err != nil {
		return o, err
	} else if !firm.Sample {
		b, err := h.BackupState(ctx)
		if err != nil {
			return o, err
		}
		o.BackupDue = b.Due
	}
	if o.Places, err = h.placeLines(ctx, t); err != nil {
		return o, err
	}
	if len(t.places) > 0 {
		o.Property = t.places[0].Property.ID
	}
	if len(o.Events) > 0 {
		o.Property = o.Events[0].PropertyID
	}
	if err := h.currentWindows(ctx); err != nil {
		return o, err
	}
	today, soon := t.today.String(), (t.today + lookout.Soon).String()
	counts, err := h.Store.CountOrders(ctx, today, soon)
	if err != nil {
		return o, err
	}
	o.Late, o.DueCount, o.ClosingCount = counts.Overdue, counts.Due, counts.Closing
	for list, to := range map[store.OrderList]*[]Order{store.ListOverdue: &o.Overdue, store.ListDue: &o.Due, store.ListClosing: &o.Closing} {
		page, err := h.Orders(ctx, list, 0, "", asksShown)
		if err != nil {
			return o, err
		}
		*to = page.Items
	}
	return o, nil
}

// groups is the look-list by property, the most pressing first, and how many plants are hurt deep.
func (t *Triaged) groups() (out []LookGroup, deep int) {
	out = []LookGroup{}
	at := map[int64]int{}
	for _, p := range t.looks {
		if cold.Deep(p.Look.Expected) {
			deep++
		}
		i, known := at[p.PropertyID]
		if !known {
			i = len(out)
			at[p.PropertyID] = i
			out = append(out, LookGroup{PropertyID: p.PropertyID, Property: p.Property, Looks: []PlantOut{}, Shared: []string{}})
		}
		g := &out[i]
		g.Minutes += cold.LookMinutes
		if len(g.Looks) < looksShown {
			g.Looks = append(g.Looks, p)
			g.Shared = once(g.Shared, p.Look.Shared)
		} else {
			g.More++
		}
	}
	for _, pl := range t.places {
		if i, any := at[pl.Property.ID]; any {
			out[i].Note = pl.Property.Note
		}
	}
	return out[:min(len(out), groupsShown)], deep
}

// placeLines are all properties, the one that asks most first.
func (h *House) placeLines(ctx context.Context, t *Triaged) ([]PlaceLine, error) {
	asked := map[int64]*lookout.Asks{}
	for _, pl := range t.places {
		asked[pl.Property.ID] = &lookout.Asks{Nearest: day.None}
	}
	for _, p := range t.looks {
		a := asked[p.PropertyID]
		a.Score += p.Look.Score
		if cold.Deep(p.Look.Expected) {
			a.Deep++
		} else {
			a.Soft++
		}
	}
	near := func(a *lookout.Asks, d day.Day) {
		if d != day.None && (a.Nearest == day.None || d < a.Nearest) {
			a.Nearest = d
		}
	}
	for _, p := range t.shelter {
		a := asked[p.PropertyID]
		a.Tender++
		near(a, p.TakeIn.Before)
	}
	rows, err := h.Store.AskedByProperty(ctx, t.today.String())
	if err != nil {
		return nil, err
	}
	for _, r := range rows {
		if a := asked[r.PropertyID]; a != nil {
			a.Due, a.Overdue = r.Due, r.Overdue
			near(a, parsed(r.Nearest))
		}
	}
	places := slices.Clone(t.places)
	slices.SortStableFunc(places, func(a, b *Place) int { return lookout.First(*asked[a.Property.ID], *asked[b.Property.ID]) })
	out := make([]PlaceLine, len(places))
	for i, pl := range places {
		p, a := pl.Property, asked[pl.Property.ID]
		out[i] = PlaceLine{PropertyID: p.ID, Property: p.Name, Note: p.Note, Plants: p.Plants, Looks: a.Looks(), Deep: a.Deep,
			Due: a.Due, Overdue: a.Overdue, Minutes: a.Looks() * cold.LookMinutes, Nearest: a.Nearest, Why: a.Why()}
	}
	return out, nil
}

// once adds a text that is not there yet.
func once(list []string, text string) []string {
	for _, t := range list {
		if t == text {
			return list
		}
	}
	return append(list, text)
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

// EventChart draws the event of a kind at a property that had its peak on a day.
func (h *House) EventChart(ctx context.Context, property int64, kind, peak string) (EventChart, error) {
	p, err := h.Place(ctx, property)
	if err != nil {
		return EventChart{}, err
	}
	var e *cold.Struck
	for i := range p.Course.Events {
		if x := &p.Course.Events[i]; x.Kind == kind && x.Day.String() == peak {
			e = x
		}
	}
	if e == nil {
		return EventChart{}, store.ErrNotFound
	}
	margin := 36 * time.Hour
	if e.Kind == weather.Wet {
		margin = 0
	}
	hours, err := h.Store.Weather(ctx, p.Property.ID, e.From.Add(-margin), e.To.Add(margin))
	if err != nil {
		return EventChart{}, err
	}
	c := EventChart{Event: p.TellEvent(e), Zone: p.Property.Zone, Lines: []KillLine{}}
	c.draw(e, weather.At(hours, p.Property.Site.V, p.Normals.Climate.Longitude))
	t, err := h.Triage(ctx)
	if err != nil {
		return c, err
	}
	if e.Cold() {
		c.Lines = p.killLines(e, t.plants)
	} else if c.Unit == unitOf[e.Kind] {
		c.Lines = append(c.Lines, KillLine{Common: "counts as an event here", Organ: "", C: Tenth(e.Threshold)})
	}
	return c, nil
}

// draw takes the figures that tell of the event.
func (c *EventChart) draw(e *cold.Struck, hours []weather.Hour) {
	c.Label, c.Unit = "Air", "°C"
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
	for _, x := range hours {
		c.Times = append(c.Times, x.Time)
		var v *float64
		if f := figure(x); !math.IsNaN(f) {
			r := Tenth(f)
			v = &r
		}
		c.Values = append(c.Values, v)
	}
}

// killLines are what plants here bore in a cold event.
func (p *Place) killLines(e *cold.Struck, plants []PlantOut) []KillLine {
	var here []cold.Plant
	for _, o := range plants {
		if o.PropertyID == p.Property.ID && o.Botanical != "" {
			here = append(here, caseOf(store.Plant(o.Plant), entryOf(p.Book, o.Species), p.Property).Plant)
		}
	}
	out := []KillLine{}
	for _, b := range e.WhatBore(here, func(s *catalogue.Entry) catalogue.Stage { return p.stage(s, e.Day) }, linesShown) {
		out = append(
			out,
			KillLine{b.Species.ID, b.Species.Common, b.Organ, Tenth(b.C), b.Plants, math.Round(100*b.Share) / 100},
		)
	}
	return out
}
