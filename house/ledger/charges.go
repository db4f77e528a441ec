package ledger

import (
	"context"
	"fmt"
	"slices"
	"strings"

	"mezzadro/core/day"
	"mezzadro/core/estimate"
	"mezzadro/core/invalid"
	"mezzadro/core/quantity"
	"mezzadro/house/estate"
	"mezzadro/store"
)

// Charge is what was charged for work that was done: a draft of an invoice. It stays as it is.
type Charge struct {
	ID         int64           `json:"id"`
	Number     int             `json:"number" doc:"Without a gap"`
	PropertyID int64           `json:"property_id"`
	Property   string          `json:"property"`
	Client     string          `json:"client"`
	Address    string          `json:"address" doc:"Where it goes: the client's, else the property's"`
	Day        day.Day         `json:"day" format:"date"`
	Words      string          `json:"words"`
	Lines      []estimate.Line `json:"lines"`
	Visit      estimate.Part   `json:"visit"`
	Total      estimate.Sum    `json:"total"`
	Currency   string          `json:"currency"`
	Digits     int             `json:"digits"`
	Tax        estimate.Share  `json:"tax"`
	TaxName    string          `json:"tax_name"`
	Included   bool            `json:"tax_included"`
}

// ChargeIn asks for work to be charged.
type ChargeIn struct {
	PropertyID int64   `json:"property_id" minimum:"1"`
	Orders     []int64 `json:"orders" minItems:"1" maxItems:"500" doc:"Jobs that were done and not charged"`
	Visits     int     `json:"visits,omitempty" minimum:"0" maximum:"100"`
	Words      string  `json:"words,omitempty" maxLength:"4000"`
	ClientID   int64   `json:"client_id,omitempty"`
}

func tellCharge(c store.Charge) Charge {
	b := c.Body.V
	out := Charge{ID: c.ID, Number: c.Number, PropertyID: c.PropertyID, Property: c.Property, Client: c.Client, Address: c.Address,
		Day: store.DayOf(&c.Day), Words: b.Words, Lines: append([]estimate.Line{}, b.Lines...), Visit: b.Rates.Visits(b.Visits),
		Currency: b.Rates.Currency, Digits: b.Rates.Digits, Tax: b.Rates.Tax, TaxName: b.Rates.TaxName, Included: b.Rates.TaxIncluded}
	out.Total = b.Rates.Total(b.Lines, out.Visit)
	return out
}

// Charges are those of a property, or with 0 of all, the newest first.
func (h *Room) Charges(ctx context.Context, property int64) ([]Charge, error) {
	list, err := h.Store.Charges(ctx, property, estimatesShown)
	return estate.TellAll(list, tellCharge), err
}

// Charge is one.
func (h *Room) Charge(ctx context.Context, id int64) (Charge, error) {
	c, err := h.Store.Charge(ctx, id)
	if err != nil {
		return Charge{}, err
	}
	return tellCharge(c), nil
}

// AddCharge charges work that was done, under the next number.
func (h *Room) AddCharge(ctx context.Context, key store.Key, in ChargeIn, style quantity.Style) (Charge, error) {
	rates, err := h.Rates(ctx)
	if err != nil {
		return Charge{}, err
	}
	if rates.Currency == "" {
		return Charge{}, store.Refused("no currency is chosen: enter the firm's rates first")
	}
	done, err := h.Store.DoneBetween(ctx, in.PropertyID, (h.Today() - doneMost).String(), h.Today().String())
	if err != nil {
		return Charge{}, err
	}
	done = slices.DeleteFunc(done, func(k store.OrderFull) bool { return !slices.Contains(in.Orders, k.ID) })
	estimates, err := h.Store.Estimates(ctx, in.PropertyID, store.All)
	if err != nil {
		return Charge{}, err
	}
	work, err := h.doneWork(ctx, done, rates.Rates, estimates)
	if err != nil {
		return Charge{}, err
	}
	body := store.EstimateBody{Words: strings.TrimSpace(in.Words), Visits: in.Visits, Rates: rates.Rates, Lines: []estimate.Line{}}
	var bad invalid.Fields
	for i, id := range in.Orders {
		k := slices.IndexFunc(work, func(w DoneWork) bool { return w.Order == id })
		switch {
		case k < 0:
			bad.Add(fmt.Sprintf("orders[%d]", i), id, "was not done on this property within two years")
		case work[k].Unpriced:
			bad.Add(fmt.Sprintf("orders[%d]", i), id, "%s: a part of it has no price yet; enter it among the rates", work[k].Title)
		default:
			work[k].line.ID = i + 1
			body.Lines = append(body.Lines, work[k].line)
		}
	}
	if err := bad.Err(); err != nil {
		return Charge{}, err
	}
	row := store.Charge{PropertyID: in.PropertyID, Day: h.Today().String()}
	row.Body.V = body
	if row.ClientID.Int64, err = h.reader(ctx, in.PropertyID, in.ClientID); err != nil {
		return Charge{}, err
	}
	row.ClientID.Valid = row.ClientID.Int64 != 0
	if err := h.inUnitsOf(ctx, row.ClientID.Int64, body.Lines, style); err != nil {
		return Charge{}, err
	}
	return store.Once(ctx, h.Store, key, func(tx store.Tx) (Charge, error) {
		kept, err := tx.AddCharge(ctx, row, in.Orders)
		return tellCharge(kept), err
	})
}
