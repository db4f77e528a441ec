package house

import (
	"context"
	"errors"
	"fmt"
	"slices"

	"mezzadro/core/catalogue"
	"mezzadro/core/day"
	"mezzadro/core/job"
	"mezzadro/core/job/reason"
	"mezzadro/core/lookout"
	"mezzadro/core/quantity"
	"mezzadro/store"
)

// Order is a piece of work as lists show it.
type Order struct {
	ID         int64      `json:"id"`
	PropertyID int64      `json:"property_id"`
	Property   string     `json:"property"`
	Address    string     `json:"address"`
	PlantID    int64      `json:"plant_id,omitempty" doc:"The one plant; absent for several or for the property itself"`
	Plants     int        `json:"plants" doc:"How many plants or groups it is for; 0 for the property itself"`
	Label      string     `json:"label"`
	Species    string     `json:"species" doc:"Catalogue id; empty where it is not for one plant"`
	Common     string     `json:"common"`
	Origin     job.Origin `json:"origin" enum:"verdict,after-care,taking in,plan,programme,planting,hand" doc:"Who asked for it"`
	OriginID   int64      `json:"origin_id,omitempty" doc:"Of the verdict that asked for it"`
	Kind       job.Kind   `json:"kind"`
	Title      string     `json:"title"`
	Minutes    int        `json:"minutes"`
	CrewSize   int        `json:"crew_size" doc:"People needed"`
	State      job.State  `json:"state" enum:"waiting,on a day,done,skipped"`
	Day        day.Day    `json:"day" format:"date" doc:"The day it is on; empty while it has none"`
	Crew       string     `json:"crew" doc:"Who goes"`
	Ended      day.Day    `json:"ended" format:"date" doc:"The day it was done or skipped on; else empty"`
	Took       int        `json:"took_minutes" doc:"How long it took; 0 not noted"`
	Note       string     `json:"note" doc:"Why it was skipped, or what was seen"`
	Overdue    bool       `json:"overdue" doc:"It was on a past day and is not ticked off"`
	Passed     bool       `json:"passed" doc:"The time for it has passed: no day left is better than the worst"`
	From       day.Day    `json:"window_from" format:"date" doc:"Of the window that runs or comes next; empty without one"`
	To         day.Day    `json:"window_to" format:"date"`
	BestDay    day.Day    `json:"best_day" format:"date" doc:"The cheapest day from today on; empty when every day is forbidden"`
	BestCost   int        `json:"best_cost" doc:"0 best to 100 worst; 101 forbidden"`
	DayCost    int        `json:"day_cost" doc:"What the day it is on costs as the season stands; for an overdue one what today costs"`
	Version    int        `json:"version"`
}

// Lane is an order with what each day costs.
type Lane struct {
	Order
	Windows []job.Window `json:"windows"`
	Start   day.Day      `json:"start" format:"date" doc:"First day of the costs"`
	Costs   reason.Costs `json:"costs" doc:"0 best to 100 worst; 101 forbidden"`
}

// OrderDetail is an order with all that is told of it.
type OrderDetail struct {
	Lane
	Reasons  []job.Reason `json:"reasons" doc:"What makes up the costs"`
	After    []GapOut     `json:"after" doc:"Jobs that come first"`
	Before   []GapOut     `json:"before" doc:"Jobs that wait for it"`
	Skills   []string     `json:"skills"`
	Cautions []string     `json:"cautions"`
	Kit      []string     `json:"kit"`
	Why      []string     `json:"why"`
	Params   job.Params   `json:"params"`
	PlantIDs []int64      `json:"plant_ids"`
}

// GapOut is a gap to another order.
type GapOut struct {
	ID      int64   `json:"id"`
	Kind    string  `json:"kind"`
	Title   string  `json:"title"`
	MinDays int     `json:"min_days"`
	MaxDays int     `json:"max_days" doc:"0: no limit"`
	Why     string  `json:"why"`
	Day     day.Day `json:"day" format:"date" doc:"The day the other is on, or was done on; else empty"`
}

// parsed is a kept day; what is none, or cannot be one, is day.None.
func parsed(text *string) day.Day {
	if text == nil {
		return day.None
	}
	d, err := day.Parse(*text)
	if err != nil {
		return day.None
	}
	return d
}

// tellOrder is a kept order as lists show it.
func tellOrder(k store.Order, book *catalogue.Catalogue, today day.Day) Order {
	o := Order{ID: k.ID, PropertyID: k.PropertyID, Property: k.Property, Address: k.Address, PlantID: k.PlantID.Int64, Plants: k.Plants, Label: k.Label,
		Species: k.Species, Origin: k.Origin, OriginID: k.OriginID, Kind: k.Kind, Title: k.Title, Minutes: k.Minutes, CrewSize: k.CrewSize, State: k.State,
		Day: parsed(k.Day), Crew: k.Crew, Ended: parsed(k.Ended), Took: k.Took, Note: k.Note, Passed: k.Passed,
		From: parsed(k.WinFrom), To: parsed(k.WinTo), BestDay: parsed(k.BestDay), BestCost: k.BestCost, DayCost: k.DayCost, Version: k.Version}
	o.Overdue = job.Overdue(k.State, o.Day, today)
	if k.Species != "" {
		o.Common = entryOf(book, k.Species).Common
	}
	return o
}

// listed are kept orders as lists show them.
func (h *House) listed(list []store.Order, today day.Day) []Order {
	out := make([]Order, 0, len(list))
	book, err := h.Book(context.Background())
	if err != nil {
		book = h.Catalogue
	}
	for _, k := range list {
		out = append(out, tellOrder(k, book, today))
	}
	return out
}

func bare(list []store.OrderFull) []store.Order {
	out := make([]store.Order, len(list))
	for i, o := range list {
		out[i] = o.Order
	}
	return out
}

// curve is what each day costs for an order, with its core form.
func (h *House) curve(ctx context.Context, k store.OrderFull, pl *Place) (job.Order, job.Curve, error) {
	o, err := k.Core()
	if err != nil {
		return o, job.Curve{}, err
	}
	of := []string{k.Species}
	if !k.PlantID.Valid && k.Plants > 1 {
		m, err := h.Store.SpeciesOf(ctx, k.ID)
		if err != nil {
			return o, job.Curve{}, err
		}
		of = m[k.ID]
	}
	return o, pl.curve(o, of), nil
}

// curve is that of an order on plants of some species, of which the costliest counts.
func (p *Place) curve(o job.Order, species []string) job.Curve {
	curves := make([]job.Curve, 0, len(species))
	for _, id := range species {
		e := entryOf(p.Book, id)
		curves = append(curves, p.Work.Curve(o, &e))
	}
	if len(curves) == 1 {
		return curves[0]
	}
	return job.Together(curves)
}

// lane joins a kept order with what its curve says.
func (h *House) lane(ctx context.Context, k store.OrderFull, pl *Place) (Lane, job.Order, job.Curve, error) {
	o, c, err := h.curve(ctx, k, pl)
	if err != nil {
		return Lane{}, o, c, err
	}
	today := pl.Today
	told := tellOrder(k.Order, pl.Book, today)
	out := c.Outlook(today)
	told.From, told.To, told.BestDay, told.BestCost, told.Passed = out.Window.From, out.Window.To, out.Best, out.Cost.Int(), out.Passed
	told.DayCost = dayCost(c, told.Day, today)
	l := Lane{Order: told, Windows: c.Windows(job.Acceptable), Start: c.Start, Costs: c.Costs()}
	if l.Windows == nil {
		l.Windows = []job.Window{}
	}
	return l, o, c, nil
}

// dayCost is what the day an order is on costs now; where that is past, what today costs.
func dayCost(c job.Curve, on, today day.Day) int {
	if on == day.None {
		return job.Never.Int()
	}
	return c.On(max(on, today)).Int()
}

// LanesPage is a page of lanes.
type LanesPage struct {
	Items []Lane
	Next  string // of the following page, empty at the end
}

// Lanes are the orders that are still to be done, with their costs, the next best day first.
func (h *House) Lanes(ctx context.Context, property int64, cursor string, limit int) (LanesPage, error) {
	list, next, err := h.page(ctx, store.OrderPage{List: store.ListStanding, Property: property}, cursor, limit)
	if err != nil {
		return LanesPage{}, err
	}
	out := LanesPage{Items: make([]Lane, 0, len(list)), Next: next}
	for _, k := range list {
		pl, err := h.Place(ctx, k.PropertyID)
		if err != nil {
			return out, err
		}
		l, _, _, err := h.lane(ctx, k, pl)
		if err != nil {
			return out, err
		}
		out.Items = append(out.Items, l)
	}
	return out, nil
}

// OrdersPage is a page of orders.
type OrdersPage struct {
	Items []Order
	Next  string
}

// Orders are a page of a list.
func (h *House) Orders(ctx context.Context, list store.OrderList, property int64, cursor string, limit int) (OrdersPage, error) {
	page, next, err := h.page(ctx, store.OrderPage{List: list, Property: property}, cursor, limit)
	if err != nil {
		return OrdersPage{}, err
	}
	return OrdersPage{h.listed(bare(page), h.Today()), next}, nil
}

// page reads one page and says where the next begins.
func (h *House) page(ctx context.Context, p store.OrderPage, cursor string, limit int) ([]store.OrderFull, string, error) {
	if err := h.currentWindows(ctx); err != nil {
		return nil, "", err
	}
	if cursor != "" {
		if n, err := fmt.Sscanf(cursor, "%10s.%d", &p.After, &p.AfterID); err != nil || n != 2 {
			return nil, "", Refuse("cursor", cursor, "is none that a page before gave")
		}
	}
	today := h.Today()
	p.Today, p.Soon, p.Limit = today.String(), (today + lookout.Soon).String(), limit+1
	list, err := h.Store.OrderPage(ctx, p)
	if err != nil || len(list) <= limit {
		return list, "", err
	}
	last := list[limit-1]
	return list[:limit], fmt.Sprintf("%s.%d", last.KeyIn(p.List), last.ID), nil
}

// Order is one with all that is told of it.
func (h *House) Order(ctx context.Context, id int64) (OrderDetail, error) {
	k, err := h.Store.Order(ctx, id)
	if err != nil {
		return OrderDetail{}, err
	}
	return h.detail(ctx, k)
}

func (h *House) detail(ctx context.Context, k store.OrderFull) (OrderDetail, error) {
	pl, err := h.Place(ctx, k.PropertyID)
	if err != nil {
		return OrderDetail{}, err
	}
	l, o, c, err := h.lane(ctx, k, pl)
	if err != nil {
		return OrderDetail{}, err
	}
	d := OrderDetail{Lane: l, Reasons: c.Reasons, Skills: o.Skills, Cautions: o.Cautions, Kit: o.Kit, Why: o.Reasons, Params: o.Params, PlantIDs: []int64{}}
	if d.Reasons == nil {
		d.Reasons = []job.Reason{}
	}
	if k.PlantID.Valid {
		d.PlantIDs = append(d.PlantIDs, k.PlantID.Int64)
	} else if d.PlantIDs, err = h.Store.PlantsOf(ctx, k.ID); err != nil {
		return d, err
	}
	before, err := h.Store.Before(ctx, k.ID)
	if err != nil {
		return d, err
	}
	after, err := h.Store.After(ctx, k.ID)
	d.After, d.Before = tellGaps(before, true), tellGaps(after, false)
	return d, err
}

func tellGaps(rows []store.GapRow, before bool) []GapOut {
	out := make([]GapOut, 0, len(rows))
	for _, r := range rows {
		g := GapOut{ID: r.OrderID, Kind: r.Kind, Title: r.Title, MinDays: r.MinDays, MaxDays: r.MaxDays, Why: r.Why, Day: standsOn(r)}
		if before {
			g.ID = r.OfID
		}
		out = append(out, g)
	}
	return out
}

// standsOn is the day another order was done on, or else is on.
func standsOn(r store.GapRow) day.Day {
	if r.State == string(job.Done) {
		return parsed(r.Ended)
	}
	if r.State == string(job.Placed) {
		return parsed(r.Day)
	}
	return day.None
}

// PutIn puts an order on a day.
type PutIn struct {
	Day     day.Day // day.None takes it off
	Crew    string
	Place   int // among the day's work; 0 comes last
	Version int
}

// PutOut is an order after it was put on a day, with what that costs.
type PutOut struct {
	Order    OrderDetail `json:"job"`
	Cost     int         `json:"cost" doc:"0 best to 100 worst"`
	Parts    []job.Part  `json:"parts" doc:"What makes up the cost"`
	Warnings []string    `json:"warnings"`
}

// staleOrder gives the kept order as it is told, not as it is stored.
func (h *House) staleOrder(err error) error {
	var s store.Stale
	if errors.As(err, &s) {
		if k, ok := s.Current.(store.OrderFull); ok {
			s.Current = h.listed([]store.Order{k.Order}, h.Today())[0]
		}
		return s
	}
	return err
}

// Put puts an order on a day, or takes it off.
func (h *House) Put(ctx context.Context, key store.Key, id int64, in PutIn) (PutOut, error) {
	o := PutOut{Warnings: []string{}, Parts: []job.Part{}}
	k, err := h.Store.Order(ctx, id)
	if err != nil {
		return o, err
	}
	pl, err := h.Place(ctx, k.PropertyID)
	if err != nil {
		return o, err
	}
	_, c, err := h.curve(ctx, k, pl)
	if err != nil {
		return o, err
	}
	s := store.Stand{State: job.Waiting, DayCost: job.Never.Int()}
	if in.Day != day.None {
		if err := h.allowed(&o, c, in.Day); err != nil {
			return o, err
		}
		if o.Warnings, err = h.gapWarnings(ctx, id, in.Day); err != nil {
			return o, err
		}
		text := in.Day.String()
		s = store.Stand{State: job.Placed, Day: &text, Crew: in.Crew, Place: in.Place, DayCost: o.Cost}
	}
	k, err = store.Once(ctx, h.Store, key, func(tx store.Tx) (store.OrderFull, error) {
		if k.State == job.Done || k.State == job.Skipped {
			return k, store.Refused(fmt.Sprintf("this job is %s already; take that back first", k.State))
		}
		if s.Day != nil && s.Place == 0 {
			last, err := tx.LastPlace(ctx, *s.Day)
			if err != nil {
				return k, err
			}
			s.Place = last + 1
		}
		return tx.SetStand(ctx, id, in.Version, s)
	})
	if err != nil {
		return o, h.staleOrder(err)
	}
	o.Order, err = h.detail(ctx, k)
	return o, err
}

// allowed says what a day costs, and refuses one that is past or forbidden.
func (h *House) allowed(o *PutOut, c job.Curve, d day.Day) error {
	if d < h.Today() {
		return Refuse("day", d.String(), "is past")
	}
	cost := c.On(d)
	o.Cost = cost.Int()
	o.Parts = append(o.Parts, c.Why(d)...)
	if !cost.Forbids() {
		return nil
	}
	why := "is outside the time this job was planned for"
	for _, p := range o.Parts {
		if p.Cost.Forbids() {
			why = "is forbidden: " + p.Text
		}
	}
	return Refuse("day", d.String(), why)
}

// gapWarnings says where a day breaks the order with other jobs, of whatever origin.
func (h *House) gapWarnings(ctx context.Context, id int64, d day.Day) ([]string, error) {
	out := []string{}
	before, err := h.Store.Before(ctx, id)
	if err != nil {
		return out, err
	}
	for _, g := range before {
		other := standsOn(g)
		switch {
		case other == day.None:
		case d < other+day.Day(g.MinDays):
			out = append(out, fmt.Sprintf("%q comes first, on %s; at least %d days lie between.", g.Title, quantity.Day(other), g.MinDays))
		case g.MaxDays > 0 && d > other+day.Day(g.MaxDays):
			out = append(out, fmt.Sprintf("More than %d days after %q on %s.", g.MaxDays, g.Title, quantity.Day(other)))
		}
	}
	after, err := h.Store.After(ctx, id)
	for _, g := range after {
		if other := standsOn(g); other != day.None && other < d+day.Day(g.MinDays) {
			out = append(out, fmt.Sprintf("%q on %s was to come after this; at least %d days lie between.", g.Title, quantity.Day(other), g.MinDays))
		}
	}
	return out, err
}

// TickIn says how an order ended, or takes that back.
type TickIn struct {
	State   job.State // done, skipped, or waiting to take either back
	On      day.Day   // the day it was done or skipped on; today when empty
	Took    int       // minutes; 0 not noted
	Note    string    // why it was skipped; of what is done, what was seen
	Version int
}

// tickBack is how long ago a job may have been done that is ticked off now, days.
const tickBack = 366

// Tick marks an order done or skipped. Of a repeat the next time is asked for; taking the tick back takes that away.
func (h *House) Tick(ctx context.Context, key store.Key, id int64, in TickIn) (OrderDetail, error) {
	on := h.DateOr(in.On)
	switch {
	case in.State == job.Skipped && in.Note == "":
		return OrderDetail{}, Refuse("note", in.Note, "is missing: say why it is skipped")
	case on > h.Today():
		return OrderDetail{}, Refuse("on", on.String(), "is still to come")
	case on < h.Today()-tickBack:
		return OrderDetail{}, Refuse("on", on.String(), "is more than a year ago")
	case in.Took < 0 || in.Took > job.MaxMinutes:
		return OrderDetail{}, Refuse("took_minutes", in.Took, fmt.Sprintf("%d minutes: want 0 to %d", in.Took, job.MaxMinutes))
	}
	k, err := store.Once(ctx, h.Store, key, func(tx store.Tx) (store.OrderFull, error) { return h.tick(ctx, tx, id, on, in) })
	if err != nil {
		return OrderDetail{}, h.staleOrder(err)
	}
	if err := h.refreshProperty(ctx, k.PropertyID); err != nil {
		return OrderDetail{}, err
	}
	return h.Order(ctx, id)
}

func (h *House) tick(ctx context.Context, tx store.Tx, id int64, on day.Day, in TickIn) (store.OrderFull, error) {
	k, err := h.Store.Order(ctx, id)
	if err != nil {
		return k, err
	}
	to := in.State
	if to == job.Waiting && k.Day != nil {
		to = job.Placed
	}
	if !k.State.CanBecome(to) {
		return k, store.Refused(fmt.Sprintf("this job is %s already", k.State))
	}
	s := store.Stand{State: to, Day: k.Day, Crew: k.Crew, Place: k.Place, DayCost: k.DayCost}
	if to != job.Waiting && to != job.Placed {
		text := on.String()
		s.Ended, s.Took, s.Note = &text, in.Took, in.Note
	} else if err := tx.TakeBackSuccessor(ctx, id); err != nil {
		return k, err
	}
	out, err := tx.SetStand(ctx, id, in.Version, s)
	if err != nil || s.Ended == nil || k.Params.V.EveryDays == 0 {
		return out, err
	}
	return out, h.repeat(ctx, tx, k, on)
}

// repeat asks for the next time of a repeat: only ever the next. In after-care that is over none comes.
func (h *House) repeat(ctx context.Context, tx store.Tx, k store.OrderFull, done day.Day) error {
	if _, err := tx.Successor(ctx, k.ID); !errors.Is(err, store.ErrNotFound) {
		return err
	}
	o, err := k.Core()
	if err != nil {
		return err
	}
	pl, err := h.Place(ctx, k.PropertyID)
	if err != nil {
		return err
	}
	e := entryOf(pl.Book, k.Species)
	next := done + day.Day(o.Params.EveryDays)
	if o.Kind != job.Other {
		if _, to, ok := pl.Work.Time(o.Kind, o.Params.Stage, &e, o.For); ok && next > to {
			return nil
		}
	} else if !slices.ContainsFunc(o.Params.Spans, func(s job.Span) bool { return s.To >= next }) {
		return nil
	}
	o.Params.Last = done
	plants, err := h.Store.PlantsOf(ctx, k.ID)
	if err != nil {
		return err
	}
	if k.PlantID.Valid {
		plants = []int64{k.PlantID.Int64}
	}
	_, err = tx.AddOrder(ctx, store.NewOrder{PropertyID: k.PropertyID, Plants: plants, OriginID: k.OriginID, Trouble: k.Trouble, Follows: k.ID, Order: o,
		Outlook: pl.curve(o, []string{k.Species}).Outlook(pl.Today),
		Gaps:    []store.GapRow{{OfID: k.ID, MinDays: o.Params.EveryDays, Why: "the time before"}}})
	return err
}

// NextYear gives an order whose time has passed that of the coming garden year.
func (h *House) NextYear(ctx context.Context, key store.Key, id int64, version int) (OrderDetail, error) {
	k, err := h.Store.Order(ctx, id)
	if err != nil {
		return OrderDetail{}, err
	}
	o, err := k.Core()
	if err != nil {
		return OrderDetail{}, err
	}
	if o.Kind == job.Other {
		return OrderDetail{}, store.Refused("the days of this job were entered by hand; change them there")
	}
	pl, err := h.Place(ctx, k.PropertyID)
	if err != nil {
		return OrderDetail{}, err
	}
	c := pl.Normals.Climate
	_, next := c.GardenYear(o.For)
	for next < pl.Today-300 { // years in which nobody asked for it are not gone through one by one
		_, next = c.GardenYear(next)
	}
	o.For = next
	of := []string{k.Species}
	if !k.PlantID.Valid {
		m, err := h.Store.SpeciesOf(ctx, id)
		if err != nil {
			return OrderDetail{}, err
		}
		of = m[id]
	}
	plants, gaps, err := h.kept(ctx, k)
	if err != nil {
		return OrderDetail{}, err
	}
	k, err = store.Once(ctx, h.Store, key, func(tx store.Tx) (store.OrderFull, error) {
		k, err := tx.ChangeOrder(ctx, id, version, store.NewOrder{PropertyID: k.PropertyID, Plants: plants, Order: o, Outlook: pl.curve(o, of).Outlook(pl.Today), Gaps: gaps})
		if err != nil || k.Day == nil {
			return k, err
		}
		return tx.SetStand(ctx, id, k.Version, store.Stand{State: job.Waiting, DayCost: job.Never.Int()})
	})
	if err != nil {
		return OrderDetail{}, h.staleOrder(err)
	}
	return h.detail(ctx, k)
}

// kept are the plants an order is for and the gaps it has, to be kept as they are.
func (h *House) kept(ctx context.Context, k store.OrderFull) ([]int64, []store.GapRow, error) {
	gaps, err := h.Store.Before(ctx, k.ID)
	if err != nil || k.PlantID.Valid {
		return []int64{k.PlantID.Int64}, gaps, err
	}
	plants, err := h.Store.PlantsOf(ctx, k.ID)
	return plants, gaps, err
}

// Drop takes an order out that nobody wants any more; Restore brings it back.
func (h *House) Drop(ctx context.Context, key store.Key, id int64, version int) error {
	_, err := store.Once(ctx, h.Store, key, func(tx store.Tx) (struct{}, error) { return struct{}{}, tx.DropOrder(ctx, id, version) })
	return h.staleOrder(err)
}

// Restore brings an order back that was dropped by hand.
func (h *House) Restore(ctx context.Context, key store.Key, id int64) (OrderDetail, error) {
	k, err := store.Once(ctx, h.Store, key, func(tx store.Tx) (store.OrderFull, error) { return tx.RestoreOrder(ctx, id) })
	if err != nil {
		return OrderDetail{}, err
	}
	return h.detail(ctx, k)
}
