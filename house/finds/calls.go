package finds

import (
	"context"
	"database/sql"
	"fmt"
	"slices"
	"strings"

	"mezzadro/core/catalogue"
	"mezzadro/core/cause"
	"mezzadro/core/day"
	"mezzadro/core/invalid"
	"mezzadro/core/job"
	"mezzadro/house/estate"
	"mezzadro/house/work"
	"mezzadro/store"
)

// Call is a client's call: what was asked and said, and what came of it.
type Call struct {
	ID         int64             `json:"id"`
	PropertyID int64             `json:"property_id"`
	PlantID    int64             `json:"plant_id" doc:"0 where nobody knows which plant it is"`
	Plant      string            `json:"plant"`
	Species    string            `json:"species"`
	Day        day.Day           `json:"day" format:"date"`
	Caller     string            `json:"caller"`
	Answers    map[string]string `json:"answers" doc:"Answers by question, as keys of the call sheet"`
	Seen       []string          `json:"seen"`
	NotSeen    []string          `json:"not_seen"`
	Share      float64           `json:"share"`
	Ending     string            `json:"ending" enum:"open,advice,visit,picture" doc:"What it ended in: advice given, a visit, or a picture asked for"`
	Said       string            `json:"said" doc:"To the caller"`
	OrderID    int64             `json:"order_id" doc:"The visit it led to; 0 without one"`
	Version    int               `json:"version"`
}

// CallIn is a call to keep.
type CallIn struct {
	PropertyID int64             `json:"property_id,omitempty" doc:"May be left out where a plant is named"`
	PlantID    int64             `json:"plant_id,omitempty"`
	Species    string            `json:"species,omitempty" maxLength:"100"`
	Caller     string            `json:"caller,omitempty" maxLength:"300"`
	Answers    map[string]string `json:"answers,omitempty"`
	Seen       []string          `json:"seen,omitempty" maxItems:"60"`
	NotSeen    []string          `json:"not_seen,omitempty" maxItems:"60"`
	Share      float64           `json:"share,omitempty"`
	Ending     string            `json:"ending" enum:"open,advice,visit,picture"`
	Said       string            `json:"said,omitempty" maxLength:"4000"`
	VisitOn    day.Day           `json:"visit_on,omitempty" format:"date" doc:"Day of the visit; it waits without a day when absent"`
	Version    int               `json:"version,omitempty" doc:"When changing: the version the change is based on"`
}

// callRecord checks a call and joins it with its plant and property.
func (h *Room) callRecord(ctx context.Context, in CallIn) (store.Call, error) {
	bad := invalid.Of(cause.Built().Validate(cause.Case{Month: 6, Seen: in.Seen, Absent: in.NotSeen, Share: in.Share}))
	checkAnswers(in.Answers, &bad)
	if in.VisitOn.Given() && in.Ending != "visit" {
		bad.Add("visit_on", in.VisitOn.String(), "is only for a call that ends in a visit")
	}
	answers := in.Answers
	if answers == nil {
		answers = map[string]string{}
	}
	c := store.Call{PropertyID: in.PropertyID, Species: in.Species, Day: h.Today().String(), Caller: strings.TrimSpace(in.Caller),
		Answers: store.JSON[map[string]string]{V: answers}, Seen: store.JSON[[]string]{V: append([]string{}, in.Seen...)},
		NotSeen: store.JSON[[]string]{V: append([]string{}, in.NotSeen...)}, Share: in.Share, Ending: in.Ending, Said: strings.TrimSpace(in.Said), Version: in.Version}
	return c, h.standsOn(ctx, in.PlantID, &c.PropertyID, &c.PlantID, &c.Species, bad)
}

// checkAnswers names answers the call sheet does not have.
func checkAnswers(answers map[string]string, bad *invalid.Fields) {
	for key, a := range answers {
		i := slices.IndexFunc(cause.CallSheet(), func(q cause.Asked) bool { return q.Key == key })
		if i < 0 {
			bad.Add("answers."+key, a, "%q is no question of the call sheet", key)
		} else if !slices.ContainsFunc(cause.CallSheet()[i].Answers, func(x cause.Answer) bool { return x.Key == a }) {
			bad.Add("answers."+key, a, "%q is no answer to it", a)
		}
	}
}

// visit is the order a call asks for.
func (h *Room) visit(ctx context.Context, c store.Call, on day.Day) (store.NewOrder, *store.Stand, error) {
	from := h.Today()
	if on.Given() {
		from = on
	}
	what := "a plant"
	in := work.HandOrder{PropertyID: c.PropertyID, Kind: job.Walk, Minutes: job.VisitMinutes(), CrewSize: 1, Day: on, Spans: []work.SpanIn{{From: min(h.Today(), from), To: from + 14}}}
	if c.PlantID.Valid {
		in.Plants = []int64{c.PlantID.Int64}
		p, err := h.Store.Plant(ctx, c.PlantID.Int64)
		if err != nil {
			return store.NewOrder{}, nil, err
		}
		book, err := h.Book(ctx)
		if err != nil {
			return store.NewOrder{}, nil, err
		}
		what = estate.PlantTitle(book, p)
	}
	in.Title = fmt.Sprintf("Visit after a call: %s", what)
	in.Note = c.Said
	if c.Caller != "" {
		in.Note = strings.TrimSpace("Called: " + c.Caller + ". " + c.Said)
	}
	n, curve, err := h.Work.OrderByHand(ctx, in, 0)
	if err != nil || !on.Given() {
		return n, nil, err
	}
	put, text := work.PutOut{}, on.String()
	if err := h.Work.Allowed(&put, curve, on); err != nil {
		return n, nil, invalid.One("visit_on", on.String(), "cannot be: "+err.Error())
	}
	return n, &store.Stand{State: job.Placed, Day: &text, DayCost: put.Cost}, nil
}

// AddCall keeps a call, and makes its visit in the same write.
func (h *Room) AddCall(ctx context.Context, key store.Key, in CallIn) (Call, error) {
	return h.keepCall(ctx, key, in, 0)
}

// ChangeCall keeps a call anew; a visit is made where none was.
func (h *Room) ChangeCall(ctx context.Context, key store.Key, id int64, in CallIn) (Call, error) {
	return h.keepCall(ctx, key, in, id)
}

func (h *Room) keepCall(ctx context.Context, key store.Key, in CallIn, id int64) (Call, error) {
	c, err := h.callRecord(ctx, in)
	if err != nil {
		return Call{}, err
	}
	book, err := h.Book(ctx)
	if err != nil {
		return Call{}, err
	}
	tell := func(c store.Call) Call { return tellCall(c, book) }
	if id != 0 {
		kept, err := h.Store.Call(ctx, id)
		if err != nil {
			return Call{}, err
		}
		if kept.PropertyID != c.PropertyID {
			return Call{}, invalid.One("property_id", c.PropertyID, "a call stays with the property it came from")
		}
		c.ID, c.Day, c.OrderID = kept.ID, kept.Day, kept.OrderID
	}
	var order store.NewOrder
	var stand *store.Stand
	asks := c.Ending == "visit" && !c.OrderID.Valid
	if asks {
		if order, stand, err = h.visit(ctx, c, in.VisitOn); err != nil {
			return Call{}, err
		}
	}
	c, err = store.Once(ctx, h.Store, key, func(tx store.Tx) (store.Call, error) {
		if asks {
			made, err := tx.AddOrder(ctx, order)
			if err != nil {
				return c, err
			}
			if stand != nil {
				if _, err := work.PutOn(ctx, tx, made, 1, *stand); err != nil {
					return c, err
				}
			}
			c.OrderID = sql.NullInt64{Int64: made, Valid: true}
		}
		if id == 0 {
			return tx.AddCall(ctx, c)
		}
		return tx.ChangeCall(ctx, c)
	})
	if err != nil {
		return Call{}, estate.Stale(err, tell)
	}
	return tell(c), nil
}

// Calls lists a property's calls, the newest first.
func (h *Room) Calls(ctx context.Context, property int64) ([]Call, error) {
	if _, err := h.Store.Property(ctx, property); err != nil {
		return nil, err
	}
	book, err := h.Book(ctx)
	if err != nil {
		return nil, err
	}
	rows, err := h.Store.Calls(ctx, property, store.All)
	return estate.TellAll(rows, func(c store.Call) Call { return tellCall(c, book) }), err
}

// RemoveCall takes a call out of sight, or brings it back.
func (h *Room) RemoveCall(ctx context.Context, key store.Key, id int64, remove bool) error {
	_, err := store.Once(ctx, h.Store, key, func(tx store.Tx) (struct{}, error) { return struct{}{}, tx.RemoveCall(ctx, id, remove) })
	return err
}

func tellCall(c store.Call, book *catalogue.Catalogue) Call {
	o := Call{ID: c.ID, PropertyID: c.PropertyID, PlantID: c.PlantID.Int64, Species: c.Species, Day: store.DayOf(&c.Day), Caller: c.Caller, Answers: c.Answers.V,
		Seen: c.Seen.V, NotSeen: c.NotSeen.V, Share: c.Share, Ending: c.Ending, Said: c.Said, OrderID: c.OrderID.Int64, Version: c.Version}
	if c.Species != "" {
		o.Plant = estate.EntryOf(book, c.Species).Common
	}
	return o
}
