package ledger

import (
	"cmp"
	"context"
	"fmt"
	"slices"
	"strings"

	"mezzadro/core/day"
	"mezzadro/core/estimate"
	"mezzadro/core/invalid"
	"mezzadro/core/job"
	"mezzadro/core/quantity"
	"mezzadro/house/estate"
	"mezzadro/store"
)

// States of an estimate.
const (
	draft     = "draft"
	sent      = "sent"
	withdrawn = "withdrawn"
)

// Estimate is what a client is offered.
type Estimate struct {
	ID         int64           `json:"id"`
	Number     int             `json:"number"`
	Edition    int             `json:"edition" doc:"Counts how often it was sent in another form"`
	PropertyID int64           `json:"property_id"`
	Property   string          `json:"property"`
	ClientID   int64           `json:"client_id,omitempty"`
	Client     string          `json:"client" doc:"Who gets it; empty where nobody is entered"`
	Made       day.Day         `json:"made" format:"date"`
	Until      day.Day         `json:"until" format:"date" doc:"Its last day"`
	State      string          `json:"state" enum:"draft,sent,withdrawn"`
	Answers    string          `json:"answers" enum:"open,agreed,partly agreed,declined"`
	Over       bool            `json:"over" doc:"Its last day is past, and not all is answered"`
	Words      string          `json:"words" doc:"To the client, above the lines"`
	Lines      []estimate.Line `json:"lines"`
	Visits     int             `json:"visits"`
	Visit      estimate.Part   `json:"visit" doc:"What the visits cost"`
	Total      estimate.Sum    `json:"total" doc:"Of what was not declined"`
	Agreed     estimate.Sum    `json:"agreed" doc:"Of what was agreed"`
	Currency   string          `json:"currency"`
	Digits     int             `json:"digits" doc:"Decimal places of the currency"`
	Tax        estimate.Share  `json:"tax" doc:"In hundredths of a per cent"`
	TaxName    string          `json:"tax_name"`
	Included   bool            `json:"tax_included" doc:"Amounts of lines are with tax"`
	Unpriced   int             `json:"unpriced" doc:"Parts that have no price yet: they count nothing"`
	Version    int             `json:"version"`
}

func (h *Room) tell(e store.Estimate) Estimate {
	b := e.Body.V
	out := Estimate{ID: e.ID, Number: e.Number, Edition: e.Edition, PropertyID: e.PropertyID, Property: e.Property,
		ClientID: e.ClientID.Int64, Client: e.Client, Made: store.DayOf(&e.Made), Until: store.DayOf(&e.Until), State: e.State,
		Answers: estimate.State(b.Lines), Words: b.Words, Lines: append([]estimate.Line{}, b.Lines...), Visits: b.Visits,
		Visit: b.Rates.Visits(b.Visits), Currency: b.Rates.Currency, Digits: b.Rates.Digits, Tax: b.Rates.Tax,
		TaxName: b.Rates.TaxName, Included: b.Rates.TaxIncluded, Version: e.Version}
	out.Total, out.Agreed = b.Rates.Total(b.Lines, out.Visit), b.Rates.Agreed(b.Lines, out.Visit)
	out.Over = e.State == sent && out.Answers == "open" && out.Until < h.Today()
	for _, l := range b.Lines {
		for _, p := range l.Parts {
			if p.Unpriced && !p.ByHand {
				out.Unpriced++
			}
		}
	}
	return out
}

// estimatesShown is how many estimates are listed.
const estimatesShown = 400

// Estimates are those of a property, or with 0 of all, the newest first.
func (h *Room) Estimates(ctx context.Context, property int64) ([]Estimate, error) {
	list, err := h.Store.Estimates(ctx, property, estimatesShown)
	return estate.TellAll(list, h.tell), err
}

// Estimate is one.
func (h *Room) Estimate(ctx context.Context, id int64) (Estimate, error) {
	e, err := h.Store.Estimate(ctx, id)
	if err != nil {
		return Estimate{}, err
	}
	return h.tell(e), nil
}

// EstimateIn asks for a new estimate.
type EstimateIn struct {
	PropertyID int64   `json:"property_id" minimum:"1"`
	ClientID   int64   `json:"client_id,omitempty" doc:"Who gets it; absent: whoever gets estimates of the property"`
	Orders     []int64 `json:"orders,omitempty" maxItems:"500" doc:"Jobs to be priced; those of the coming half year that nobody was asked about when absent"`
}

// AddEstimate makes a draft of the standing jobs of a property, priced by the firm's rates as they are now, in the
// client's own units where they said so.
func (h *Room) AddEstimate(ctx context.Context, key store.Key, in EstimateIn, style quantity.Style) (Estimate, error) {
	p, err := h.Store.Property(ctx, in.PropertyID)
	if err != nil {
		return Estimate{}, err
	}
	rates, err := h.Rates(ctx)
	if err != nil {
		return Estimate{}, err
	}
	if err := h.Work.CurrentWindows(ctx); err != nil {
		return Estimate{}, err
	}
	list, err := h.priced(ctx, in)
	if err != nil {
		return Estimate{}, err
	}
	lines, err := h.lines(ctx, list, rates.Rates)
	if err != nil {
		return Estimate{}, err
	}
	if len(lines) == 0 {
		return Estimate{}, invalid.One("orders", in.Orders, "no job of this property is for a client to decide")
	}
	row := store.Estimate{PropertyID: p.ID, Made: h.Today().String(), Until: (h.Today() + day.Day(rates.ValidDays)).String(), State: draft}
	row.Body.V = store.EstimateBody{Lines: lines, Visits: 1, Rates: rates.Rates}
	if row.ClientID.Int64, err = h.reader(ctx, p.ID, in.ClientID); err != nil {
		return Estimate{}, err
	}
	row.ClientID.Valid = row.ClientID.Int64 != 0
	for i := range lines {
		lines[i].ID = i + 1
	}
	if err := h.inUnitsOf(ctx, row.ClientID.Int64, lines, style); err != nil {
		return Estimate{}, err
	}
	return store.Once(ctx, h.Store, key, func(tx store.Tx) (Estimate, error) {
		kept, err := tx.AddEstimate(ctx, row)
		return h.tell(kept), err
	})
}

// priced are the jobs that an estimate is asked for.
func (h *Room) priced(ctx context.Context, in EstimateIn) ([]store.OrderFull, error) {
	all, err := h.Store.StandingOrders(ctx)
	if err != nil {
		return nil, err
	}
	var out []store.OrderFull
	for _, k := range all {
		wanted := slices.Contains(in.Orders, k.ID)
		if k.PropertyID == in.PropertyID && (wanted || len(in.Orders) == 0 && k.Agreed == "" && !k.Passed && h.soon(k)) {
			out = append(out, *k)
		}
	}
	for i, id := range in.Orders {
		if !slices.ContainsFunc(out, func(k store.OrderFull) bool { return k.ID == id }) {
			return nil, invalid.One(fmt.Sprintf("orders[%d]", i), id, "no such job stands on this property")
		}
	}
	slices.SortStableFunc(out, func(a, b store.OrderFull) int {
		return cmp.Or(cmp.Compare(urgency(a.Kind), urgency(b.Kind)), cmp.Compare(text(a.BestDay), text(b.BestDay)), cmp.Compare(a.ID, b.ID))
	})
	return out, nil
}

// soonDays is how far ahead jobs are priced that nobody named.
const soonDays = 180

// soon reports a job of the coming half year: next year's is not asked about yet.
func (h *Room) soon(k *store.OrderFull) bool {
	on := store.DayOf(k.Day)
	if !on.Given() {
		on = store.DayOf(k.BestDay)
	}
	return !on.Given() || on <= h.Today()+soonDays
}

func urgency(k job.Kind) int {
	if k == job.MakeSafe {
		return 0
	}
	return 1
}

func text(s *string) string {
	if s == nil {
		return "9"
	}
	return *s
}

// reader is who gets an estimate: the one named, or whoever gets those of the property; 0 for nobody.
func (h *Room) reader(ctx context.Context, property, client int64) (int64, error) {
	of, err := h.Store.ClientsOf(ctx)
	for _, o := range of {
		if o.PropertyID != property {
			continue
		}
		if o.ClientID == client || client == 0 && slices.Contains(o.Gets.V, "estimates") {
			return o.ClientID, err
		}
	}
	if client != 0 && err == nil {
		return 0, invalid.One("client_id", client, "is no client at this property")
	}
	return 0, err
}

// Change is a new form of an estimate.
type Change struct {
	ClientID int64           `json:"client_id,omitempty"`
	Until    day.Day         `json:"until" format:"date"`
	Words    string          `json:"words,omitempty" maxLength:"4000"`
	Lines    []estimate.Line `json:"lines" maxItems:"500"`
	Visits   int             `json:"visits" minimum:"0" maximum:"100"`
	Version  int             `json:"version"`
}

// ChangeEstimate keeps a new form. A line that was answered and is another now is asked for again; a form that was sent
// before becomes the draft of another edition.
func (h *Room) ChangeEstimate(ctx context.Context, key store.Key, id int64, in Change, style quantity.Style) (Estimate, error) {
	if _, err := h.Store.Estimate(ctx, id); err != nil {
		return Estimate{}, err
	}
	return store.Once(ctx, h.Store, key, func(tx store.Tx) (Estimate, error) {
		e, err := tx.Estimate(ctx, id)
		if err != nil {
			return Estimate{}, err
		}
		if in.Until < store.DayOf(&e.Made) {
			return Estimate{}, invalid.One("until", in.Until.String(), "lies before the day it was made")
		}
		if e.State == withdrawn {
			return Estimate{}, store.Refused("this estimate was withdrawn; make another")
		}
		unwritten(e.Body.V.Lines, in.Lines, style)
		lines, anew, err := estimate.Revise(e.Body.V.Lines, in.Lines)
		if err != nil {
			return Estimate{}, err
		}
		gone := dropped(e.Body.V.Lines, lines)
		e.Body.V.Lines, e.Body.V.Visits, e.Body.V.Words = lines, in.Visits, strings.TrimSpace(in.Words)
		e.Until, e.Version = in.Until.String(), in.Version
		if in.ClientID != 0 {
			e.ClientID.Int64, e.ClientID.Valid = in.ClientID, true
		}
		if e.State == sent {
			e.State, e.Edition = draft, e.Edition+1
		}
		kept, err := tx.ChangeEstimate(ctx, e)
		if err != nil {
			return Estimate{}, estate.Stale(err, h.tell)
		}
		for _, l := range lines {
			if slices.Contains(anew, l.ID) {
				if err := h.agree(ctx, tx, l, "asked", ""); err != nil {
					return Estimate{}, err
				}
			}
		}
		for _, l := range gone {
			if err := h.agree(ctx, tx, l, "", ""); err != nil {
				return Estimate{}, err
			}
		}
		return h.tell(kept), nil
	})
}

// dropped are lines that are not among the next.
func dropped(kept, next []estimate.Line) (out []estimate.Line) {
	for _, l := range kept {
		if !slices.ContainsFunc(next, func(n estimate.Line) bool { return n.ID == l.ID }) {
			out = append(out, l)
		}
	}
	return out
}
