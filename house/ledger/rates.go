package ledger

import (
	"context"
	"slices"

	"golang.org/x/text/currency"

	"mezzadro/core/estimate"
	"mezzadro/core/invalid"
	"mezzadro/core/job"
	"mezzadro/house/estate"
	"mezzadro/store"
)

// Rates are what the firm asks for its work.
type Rates struct {
	estimate.Rates
	Version int `json:"version" doc:"0 while nothing was entered"`
}

// usualRates are what an estimate lacks while nothing was entered: no prices, a month to answer, all work planned.
var usualRates = estimate.Rates{ValidDays: 30, Plans: "all", Digits: 2}

func tellRates(r store.Rates) Rates {
	out := Rates{r.Body.V, r.Version}
	if r.Version == 0 {
		out.Rates = usualRates
	}
	if out.Stuff == nil {
		out.Stuff = []estimate.Price{}
	}
	return out
}

// Rates are those kept.
func (h *Room) Rates(ctx context.Context) (Rates, error) {
	r, err := h.Store.Rates(ctx)
	return tellRates(r), err
}

// SetRates keeps what the firm asks for.
func (h *Room) SetRates(ctx context.Context, key store.Key, in Rates) (Rates, error) {
	bad := invalid.Of(in.Validate())
	in.Digits = usualRates.Digits
	if unit, err := currency.ParseISO(in.Currency); err != nil && in.Currency != "" {
		bad.Add("currency", in.Currency, "%q is no currency by its three letters, such as EUR or USD", in.Currency)
	} else if err == nil {
		in.Currency = unit.String()
		in.Digits, _ = currency.Standard.Rounding(unit)
	}
	for skill := range in.Skills {
		if !slices.Contains(job.Skills, skill) {
			bad.Add("skills."+skill, skill, "want one of %q", job.Skills)
		}
	}
	if err := bad.Err(); err != nil {
		return Rates{}, err
	}
	if in.Plans == "" {
		in.Plans = usualRates.Plans
	}
	row := store.Rates{Body: store.JSON[estimate.Rates]{V: in.Rates}, Version: in.Version}
	return store.Once(ctx, h.Store, key, func(tx store.Tx) (Rates, error) {
		kept, err := tx.SetRates(ctx, row)
		return tellRates(kept), estate.Stale(err, tellRates)
	})
}
