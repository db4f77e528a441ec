package work

import (
	"cmp"
	"context"

	"mezzadro/core/catalogue"
	"mezzadro/core/day"
	"mezzadro/core/job"
	"mezzadro/core/job/reason"
	"mezzadro/core/treatment"
	"mezzadro/house/estate"
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
	CrewID     int64      `json:"crew_id,omitempty" doc:"Of the crew; absent where none was entered of that name"`
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
	Pinned     bool       `json:"pinned" doc:"Its day and crew stay when rounds are proposed"`
	Hold       *Held      `json:"hold,omitempty" doc:"Why it waits for what is not known yet of its plant; absent where nothing holds it"`
	Agreed     string     `json:"agreed,omitempty" enum:"asked,agreed,declined," doc:"With the client; absent where nobody was asked"`
	PutOff     int        `json:"put_off,omitempty" doc:"How often somebody was there and it was not done"`
	PutOffWhy  string     `json:"put_off_why,omitempty" doc:"Why it was not done the last time"`
	By         string     `json:"by" doc:"Who put it where it stands, or ticked it off; empty where nobody has to sign in"`
}

// Lane is an order with what each day costs.
type Lane struct {
	Order
	Windows []job.Window `json:"windows"`
	Start   day.Day      `json:"start" format:"date" doc:"First day of the costs"`
	Costs   reason.Costs `json:"costs" doc:"0 best to 100 worst; 101 forbidden"`

	Stage *StageBand       `json:"stage,omitempty" doc:"treat: when the stage of the pest that it hits is there"`
	Waits []treatment.Wait `json:"waits,omitempty" doc:"That run on its plant because of what was used there"`
}

// StageBand is the span of a pest's stage.
type StageBand struct {
	Text string  `json:"text"`
	From day.Day `json:"from" format:"date"`
	To   day.Day `json:"to" format:"date"`
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
	Stints   []StintOut   `json:"stints" doc:"Times at which somebody was at it and did not end it, the oldest first"`
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

// TellOrder is a kept order as lists show it.
func TellOrder(k store.Order, book *catalogue.Catalogue, today day.Day) Order {
	o := Order{
		ID:         k.ID,
		PropertyID: k.PropertyID,
		Property:   k.Property,
		Address:    k.Address,
		PlantID:    k.PlantID.Int64,
		Plants:     k.Plants,
		Label:      k.Label,
		Species:    k.Species,
		Origin:     k.Origin,
		OriginID:   k.OriginID,
		Kind:       k.Kind,
		Title:      k.Title,
		Minutes:    k.Minutes,
		CrewSize:   k.CrewSize,
		State:      k.State,
		Day:        store.DayOf(k.Day),
		Crew:       k.Crew,
		CrewID:     k.CrewID,
		By:         k.By,
		Ended:      store.DayOf(k.Ended),
		Took:       k.Took,
		Note:       k.Note,
		Passed:     k.Passed,
		From:       store.DayOf(k.WinFrom),
		To:         store.DayOf(k.WinTo),
		BestDay:    store.DayOf(k.BestDay),
		BestCost:   k.BestCost,
		DayCost:    k.DayCost,
		Version:    k.Version,
		Pinned:     k.Pinned,
		Agreed:     k.Agreed,
		PutOff:     k.PutOff,
		PutOffWhy:  k.PutOffWhy,
	}
	o.Overdue = job.Overdue(k.State, o.Day, today)
	if k.Species != "" {
		o.Common = estate.EntryOf(book, k.Species).Common
	}
	return o
}

// Listed are kept orders as lists show them.
func (h *Room) Listed(ctx context.Context, list []store.Order) ([]Order, error) {
	t, err := h.Teller(ctx)
	if err != nil {
		return nil, err
	}
	out := make([]Order, len(list))
	for i, k := range list {
		out[i] = t.Tell(k)
	}
	return out, nil
}

// CurveOf is what each day costs for an order, with its core form.
func (h *Room) CurveOf(ctx context.Context, k store.OrderFull, pl *estate.Place) (job.Order, job.Curve, error) {
	o, err := k.Core()
	if err != nil {
		return o, job.Curve{}, err
	}
	of, err := h.speciesOf(ctx, k)
	if err != nil {
		return o, job.Curve{}, err
	}
	return o, pl.Curve(o, of), nil
}

// Shared is what each day costs for an order, drawn once for all orders on one plant that ask the same.
func (h *Room) Shared(ctx context.Context, k *store.OrderFull, pl *estate.Place) (*estate.Shared, error) {
	if !k.PlantID.Valid {
		_, c, err := h.CurveOf(ctx, *k, pl)
		return &estate.Shared{Curve: c, Outlook: c.Outlook(pl.Today)}, err
	}
	o, err := k.Core()
	if err != nil {
		return nil, err
	}
	return pl.Shared(o, k.Species), nil
}

// speciesOf are the species of the plants an order is for.
func (h *Room) speciesOf(ctx context.Context, k store.OrderFull) ([]string, error) {
	if k.PlantID.Valid || k.Plants < 2 {
		return []string{k.Species}, nil
	}
	return h.Store.SpeciesOf(ctx, k.ID)
}

// lane joins a kept order with what its curve says.
func (h *Room) lane(ctx context.Context, k store.OrderFull, pl *estate.Place) (Lane, job.Order, job.Curve, error) {
	o, c, err := h.CurveOf(ctx, k, pl)
	if err != nil {
		return Lane{}, o, c, err
	}
	t, err := h.Teller(ctx)
	if err != nil {
		return Lane{}, o, c, err
	}
	today := pl.Today
	c = t.Curve(k.Order, c)
	told := t.Tell(k.Order)
	out := c.Outlook(today)
	told.From, told.To, told.BestDay, told.BestCost, told.Passed = out.Window.From, out.Window.To, out.Best, out.Cost.Int(), out.Passed
	told.DayCost = estate.DayCost(c, told.Day, today)
	l := Lane{Order: told, Windows: c.Windows(job.Acceptable), Start: c.Start, Costs: c.Costs()}
	if l.Windows == nil {
		l.Windows = []job.Window{}
	}
	return l, o, c, nil
}

// Order is one with all that is told of it.
func (h *Room) Order(ctx context.Context, id int64) (OrderDetail, error) {
	k, err := h.Store.Order(ctx, id)
	if err != nil {
		return OrderDetail{}, err
	}
	return h.detail(ctx, k)
}

func (h *Room) detail(ctx context.Context, k store.OrderFull) (OrderDetail, error) {
	pl, err := h.Place(ctx, k.PropertyID)
	if err != nil {
		return OrderDetail{}, err
	}
	l, o, c, err := h.lane(ctx, k, pl)
	if err != nil {
		return OrderDetail{}, err
	}
	d := OrderDetail{
		Lane:     l,
		Reasons:  append([]job.Reason{}, c.Reasons...),
		Skills:   o.Skills,
		Cautions: h.cautions(pl, &k, o),
		Kit:      o.Kit,
		Why:      o.Reasons,
		Params:   o.Params,
		PlantIDs: []int64{},
	}
	if k.PlantID.Valid {
		d.PlantIDs = append(d.PlantIDs, k.PlantID.Int64)
	} else if d.PlantIDs, err = h.Store.PlantsOf(ctx, k.ID); err != nil {
		return d, err
	}
	if d.Stints, err = h.stints(ctx, k.ID); err != nil {
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

// cautions are those of an order, with what holds in the place's country and state.
func (h *Room) cautions(pl *estate.Place, k *store.OrderFull, o job.Order) []string {
	general, holds := append([]string{}, o.Cautions...), []string{}
	if k.Species != "" {
		e, on := estate.EntryOf(pl.Book, k.Species), cmp.Or(store.DayOf(k.Day), store.DayOf(k.BestDay), pl.Today)
		general, holds = estate.HoldsFor(pl.Property, &e, k.Kind, o.Params.Cause, on, false, general)
	}
	return append(general, holds...)
}

func tellGaps(rows []store.GapRow, before bool) []GapOut {
	out := make([]GapOut, 0, len(rows))
	for _, r := range rows {
		g := GapOut{
			ID:      r.OrderID,
			Kind:    r.Kind,
			Title:   r.Title,
			MinDays: r.MinDays,
			MaxDays: r.MaxDays,
			Why:     r.Why,
			Day:     StandsOn(r),
		}
		if before {
			g.ID = r.OfID
		}
		out = append(out, g)
	}
	return out
}

// StandsOn is the day another order was done on, or else is on.
func StandsOn(r store.GapRow) day.Day {
	if r.State == string(job.Done) {
		return store.DayOf(r.Ended)
	}
	if r.State == string(job.Placed) {
		return store.DayOf(r.Day)
	}
	return day.None
}
