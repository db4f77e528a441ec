package house

import (
	"cmp"
	"context"
	"fmt"
	"slices"

	"mezzadro/core/day"
	"mezzadro/core/quantity"
	"mezzadro/core/treatment"
	"mezzadro/store"
)

// Shopping sums what the treatments that stand as jobs take until a day, over all properties, before it is bought.
func (h *House) Shopping(ctx context.Context, until day.Day) (Shopping, error) {
	out := Shopping{Lines: []ShoppingLine{}}
	if err := h.currentWindows(ctx); err != nil {
		return out, err
	}
	list, err := h.Store.TreatmentsOf(ctx, 0)
	if err != nil {
		return out, err
	}
	products, err := h.Products(ctx)
	if err != nil {
		return out, err
	}
	by := map[string]*ShoppingLine{}
	for _, k := range list {
		use := k.Params.V.Use
		due := parsed(k.BestDay)
		if on := parsed(k.Day); on != day.None {
			due = on
		}
		if use == "" || due == day.None || due > until {
			continue
		}
		if _, err := h.shop(ctx, by, k, due, products); err != nil {
			return out, err
		}
	}
	for _, l := range by {
		l.close(products)
		if l.Buy != nil {
			out.Price += l.Buy.Price
		}
		out.Lines = append(out.Lines, *l)
	}
	out.Price = quantity.Round(out.Price, 0.01)
	slices.SortFunc(out.Lines, func(x, y ShoppingLine) int {
		return cmp.Or(cmp.Compare(x.Supplier, y.Supplier), cmp.Compare(x.Name, y.Name))
	})
	return out, nil
}

// shop adds what one job takes, and says to which line.
func (h *House) shop(
	ctx context.Context,
	by map[string]*ShoppingLine,
	k store.OrderFull,
	due day.Day,
	products []Product,
) (string, error) {
	pl, err := h.Place(ctx, k.PropertyID)
	if err != nil {
		return "", err
	}
	p, err := h.Store.Plant(ctx, k.PlantID.Int64)
	if err != nil {
		return "", err
	}
	e := entryOf(pl.Book, p.Species)
	cards := make([]treatment.Card, len(products))
	for i, c := range products {
		cards[i] = c.Card
	}
	act := treatment.Built().Active(k.Params.V.Use)
	a, plants := treatment.Built().
		Takes(treatment.Ask{Cause: k.Params.V.Cause, Species: &e, Place: pl.Cuts.Place, Date: pl.Today, Count: p.Count, HeightM: p.HeightM,
			SpreadM: p.SpreadM, Cards: cards}, k.Params.V.Use)
	if a == nil || act == nil {
		return "", nil
	}
	key := fmt.Sprintf("%s %d", act.ID, a.Card)
	l := by[key]
	if l == nil {
		l = &ShoppingLine{
			Product:   a.Card,
			Name:      cmp.Or(a.Name, act.Name),
			Unit:      a.Unit,
			ActiveFor: act.Name,
			use:       act.ID,
		}
		by[key] = l
	}
	l.Needed, l.SprayL, l.Jobs, l.Plants = l.Needed+a.Product, l.SprayL+a.SprayL, l.Jobs+1, l.Plants+plants
	if !l.FirstDue.Given() || due < l.FirstDue {
		l.FirstDue = due
	}
	return key, nil
}

// close tells what is bought of a line, and what is not known.
func (l *ShoppingLine) close(products []Product) {
	l.Needed, l.SprayL = quantity.Round(l.Needed, 0.1), quantity.Round(l.SprayL, 0.1)
	n := slices.IndexFunc(products, func(p Product) bool { return p.ID == l.Product })
	if n < 0 {
		l.Missing = "no product card with a rate for it: enter one from the label"
		return
	}
	c := products[n].Card
	l.OnHand, l.Supplier = c.OnHand, products[n].Supplier
	l.Expired = products[n].Expires.Given() && l.FirstDue.Given() && products[n].Expires < l.FirstDue
	c.OnHand = max(0, c.OnHand)
	if len(c.Packs) == 0 && l.Needed > c.OnHand {
		l.Missing = "no pack size: enter what it is sold in"
		return
	}
	b := c.Buy(l.Needed)
	l.Buy = &b
	if l.Plants > 0 {
		l.PerPlant = quantity.Round(b.Price/float64(l.Plants), 0.01)
	}
}
