package work

import (
	"context"
	"errors"
	"fmt"
	"slices"
	"strings"

	"mezzadro/core/catalogue"
	"mezzadro/core/day"
	"mezzadro/core/invalid"
	"mezzadro/core/job"
	"mezzadro/core/job/reason"
	"mezzadro/core/kinds"
	"mezzadro/core/pruning"
	"mezzadro/house/estate"
	"mezzadro/store"
)

// HandOrder is a piece of work entered by hand. Its cost is given by window, or it takes the curve of a kind of work.
type HandOrder struct {
	PropertyID int64     `json:"property_id" minimum:"1"`
	Plants     []int64   `json:"plants,omitempty" maxItems:"500" doc:"Ids; the property itself when absent"`
	Title      string    `json:"title" maxLength:"300"`
	Kind       job.Kind  `json:"kind,omitempty" doc:"other when absent: then days says what each costs; else a kind of work whose days follow the season"`
	Purpose    string    `json:"purpose,omitempty" maxLength:"40" doc:"prune: what the cut is for; shape when absent"`
	CutM       float64   `json:"cut_m,omitempty" minimum:"0" maximum:"60" doc:"prune: height to cut to; absent where nothing is shortened"`
	Spans      []SpanIn  `json:"spans,omitempty" maxItems:"24" doc:"other: when it may be done, and what days cost; days in no span are forbidden"`
	EveryDays  int       `json:"every_days,omitempty" doc:"Again after so many days; once when absent"`
	Minutes    int       `json:"minutes" doc:"How long it takes"`
	CrewSize   int       `json:"crew_size,omitempty" doc:"People needed; 1 when absent"`
	Note       string    `json:"note,omitempty" maxLength:"2000"`
	Kit        []string  `json:"kit,omitempty" maxItems:"20"`
	Private    bool      `json:"private,omitempty" doc:"The client does not read of it"`
	After      []AfterIn `json:"after,omitempty" maxItems:"20" doc:"Jobs, of whatever origin, that come first"`
	Day        day.Day   `json:"day,omitempty" format:"date" doc:"When adding: put on this day at once; waiting when absent"`
	Version    int       `json:"version,omitempty" doc:"When changing: the version the change is based on"`
}

// SpanIn is what some days cost.
type SpanIn struct {
	From day.Day `json:"from" format:"date"`
	To   day.Day `json:"to" format:"date"`
	Cost int     `json:"cost,omitempty" minimum:"0" maximum:"100" doc:"0 best to 100 worst"`
}

// AfterIn is a gap to another order.
type AfterIn struct {
	ID      int64  `json:"id" minimum:"1"`
	MinDays int    `json:"min_days,omitempty" minimum:"0" maximum:"400"`
	MaxDays int    `json:"max_days,omitempty" minimum:"0" maximum:"400" doc:"0: no limit"`
	Why     string `json:"why,omitempty" maxLength:"200"`
}

// order checks what was entered and makes the order of it.
func (in HandOrder) order(today day.Day) (job.Order, error) {
	o := job.Order{
		Key:     "hand",
		Kind:    in.Kind,
		Title:   strings.TrimSpace(in.Title),
		Origin:  job.Hand,
		For:     today,
		Minutes: in.Minutes,
		Crew:    max(1, in.CrewSize),
		Params: job.Params{
			EveryDays: in.EveryDays,
			Purpose:   in.Purpose,
			CutM:      in.CutM,
			Private:   in.Private,
		},
		Skills:   []string{},
		Kit:      append([]string{}, in.Kit...),
		Reasons:  []string{},
		Cautions: []string{},
	}
	if in.CrewSize < 0 {
		o.Crew = in.CrewSize
	}
	if o.Kind == "" {
		o.Kind = job.Other
	}
	if n := strings.TrimSpace(in.Note); n != "" {
		o.Reasons = append(o.Reasons, n)
	}
	for _, s := range in.Spans {
		o.Params.Spans = append(o.Params.Spans, job.Span{From: s.From, To: s.To, Cost: reason.Points(float64(s.Cost))})
	}
	bad := invalid.Of(o.Validate())
	if in.Purpose != "" && (in.Kind != job.Prune || !slices.Contains(pruning.Purposes, pruning.Purpose(in.Purpose))) {
		bad.Add("purpose", in.Purpose, "is for prune alone; want one of %q", pruning.Purposes)
	}
	if kind, _ := kinds.Of(o.Kind); !kind.ByHand {
		bad.Add("kind", in.Kind, "%q is no kind of work that is asked for by hand; want one of %q", in.Kind, kinds.ByHand())
	} else if !o.Kind.ByDays() && len(in.Plants) == 0 {
		bad.Add("plants", nil, "are missing: when %q is best done hangs on the plant", o.Kind)
	}
	if !o.Kind.ByDays() && len(in.Spans) > 0 {
		bad.Add("spans", nil, "are only for other work: the days of %q follow the season", o.Kind)
	}
	return o, bad.Err()
}

// OrderByHand joins what was entered with its property, its plants and the orders before it.
func (h *Room) OrderByHand(ctx context.Context, in HandOrder, self int64) (store.NewOrder, job.Curve, error) {
	o, err := in.order(h.Today())
	bad := invalid.Of(err)
	n := store.NewOrder{PropertyID: in.PropertyID, Order: o}
	pl, err := h.Place(ctx, in.PropertyID)
	if errors.Is(err, store.ErrNotFound) {
		bad.Add("property_id", in.PropertyID, "is not there, or was removed")
		return n, job.Curve{}, bad
	} else if err != nil {
		return n, job.Curve{}, err
	}
	var of []string
	plants, err := h.Store.PlantsByID(ctx, in.Plants)
	if err != nil {
		return n, job.Curve{}, err
	}
	for i, id := range in.Plants {
		p, there := plants[id]
		if !there || p.PropertyID != in.PropertyID {
			bad.Add(fmt.Sprintf("plants[%d]", i), id, "is not on this property, or was removed")
			continue
		}
		if !slices.Contains(n.Plants, id) {
			n.Plants, of = append(n.Plants, id), append(of, p.Species)
		}
	}
	if err := h.handGaps(ctx, in, self, &n, &bad); err != nil {
		return n, job.Curve{}, err
	}
	if bad != nil {
		return n, job.Curve{}, bad
	}
	slices.Sort(of)
	if of = slices.Compact(of); len(of) == 0 {
		of = []string{""}
	}
	c := pl.Curve(o, of)
	n.Outlook = c.Outlook(pl.Today)
	if len(of) == 1 && of[0] != "" {
		n.Order.Cautions = cautionsOf(estate.EntryOf(pl.Book, of[0]))
	}
	return n, c, nil
}

// handGaps takes over the gaps to other orders.
func (h *Room) handGaps(ctx context.Context, in HandOrder, self int64, n *store.NewOrder, bad *invalid.Fields) error {
	for i, a := range in.After {
		at := fmt.Sprintf("after[%d].", i)
		_, err := h.Store.Order(ctx, a.ID)
		there, err := store.There(err)
		if err != nil {
			return err
		}
		if !there || a.ID == self {
			bad.Add(at+"id", a.ID, "is no job that could come first")
		}
		if a.MaxDays > 0 && a.MaxDays < a.MinDays {
			bad.Add(at+"max_days", a.MaxDays, "at most %d days is less than at least %d", a.MaxDays, a.MinDays)
		}
		n.Gaps = append(n.Gaps, store.GapRow{OfID: a.ID, MinDays: a.MinDays, MaxDays: a.MaxDays, Why: a.Why})
	}
	return nil
}

// cautionsOf are what a species can do to people and animals.
func cautionsOf(e catalogue.Entry) []string {
	out := []string{}
	for _, c := range e.Cautions {
		out = append(out, c.Text)
	}
	return out
}

// AddOrder keeps an order entered by hand, on its day where one was given.
func (h *Room) AddOrder(ctx context.Context, key store.Key, in HandOrder) (OrderDetail, error) {
	n, c, err := h.OrderByHand(ctx, in, 0)
	if err != nil {
		return OrderDetail{}, err
	}
	var on *store.Stand
	var refused error
	if in.Day.Given() {
		put := PutOut{}
		refused = h.Allowed(&put, c, in.Day)
		text := in.Day.String()
		on = &store.Stand{State: job.Placed, Day: &text, DayCost: put.Cost}
	}
	id, err := store.Once(ctx, h.Store, key, func(tx store.Tx) (int64, error) {
		if refused != nil {
			return 0, refused
		}
		id, err := tx.AddOrder(ctx, n)
		if err == nil && on != nil {
			_, err = PutOn(ctx, tx, id, 1, *on)
		}
		return id, err
	})
	if err != nil {
		return OrderDetail{}, err
	}
	return h.Order(ctx, id)
}

// ChangeOrder keeps what was changed of an order that was entered by hand. The day it is on stays.
func (h *Room) ChangeOrder(ctx context.Context, key store.Key, id int64, in HandOrder) (OrderDetail, error) {
	k, err := h.Store.Order(ctx, id)
	if err != nil {
		return OrderDetail{}, err
	}
	if k.Origin != job.Hand {
		return OrderDetail{}, store.Refused(
			fmt.Sprintf("this job comes from a %s and changes with it; put it on another day, skip it or drop it", k.Origin),
		)
	}
	if in.Day.Given() {
		return OrderDetail{}, invalid.One("day", in.Day.String(), "is not changed here: put the job on another day")
	}
	n, _, err := h.OrderByHand(ctx, in, id)
	if err != nil {
		return OrderDetail{}, err
	}
	if made, err := day.Parse(k.ForDay); err == nil {
		n.Order.For = made
	}
	n.Order.Params.Last = k.Params.V.Last
	k, err = store.Once(
		ctx,
		h.Store,
		key,
		func(tx store.Tx) (store.OrderFull, error) { return tx.ChangeOrder(ctx, id, in.Version, n) },
	)
	if err != nil {
		return OrderDetail{}, h.StaleOrder(ctx, err)
	}
	if err := h.RefreshProperty(ctx, k.PropertyID); err != nil {
		return OrderDetail{}, err
	}
	return h.Order(ctx, k.ID)
}
