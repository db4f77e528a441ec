package estate

import (
	"context"
	"slices"

	"mezzadro/core/quantity"
	"mezzadro/core/treatment"
	"mezzadro/store"
)

// Cards are the firm's product cards as the core takes them.
func (h *House) Cards(ctx context.Context) ([]treatment.Card, error) {
	list, err := h.Store.Products(ctx)
	out := make([]treatment.Card, len(list))
	for i, p := range list {
		out[i] = CardOf(p)
		out[i].OnHand = max(0, out[i].OnHand)
	}
	return out, err
}

// CardOf is the card of a kept product, with what is on hand.
func CardOf(p store.Product) treatment.Card {
	c := p.Card.V
	c.ID, c.OnHand = p.ID, quantity.Tenth(p.OnHand)
	c.Rates = slices.Clone(c.Rates)
	for i := range c.Rates {
		c.Rates[i].Says = c.Rates[i].Text(c.Unit)
	}
	if c.Rates == nil {
		c.Rates = []treatment.Rate{}
	}
	if c.Packs == nil {
		c.Packs = []treatment.Pack{}
	}
	return c
}
