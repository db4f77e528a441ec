package treat

import (
	"context"
	"strings"

	"mezzadro/core/day"
	"mezzadro/core/invalid"
	"mezzadro/core/treatment"
	"mezzadro/house/estate"
	"mezzadro/store"
)

// Product is a product card with what is on hand.
type Product struct {
	treatment.Card
	ActiveName string  `json:"active_name"`
	Supplier   string  `json:"supplier"`
	Expires    day.Day `json:"expires,omitempty" format:"date" doc:"Of the lot that expires first"`
	Version    int     `json:"version"`
	Label      string  `json:"label" enum:"jpg,pdf" doc:"What its label is kept as; empty where none is"`
}

func tellProduct(p store.Product) Product {
	c := estate.CardOf(p)
	out := Product{Card: c, Supplier: p.Supplier, Version: p.Version, Label: p.LabelIs}
	if a := treatment.Built().Active(c.Active); a != nil {
		out.ActiveName = a.Name
	}
	if p.Expires != "" {
		out.Expires = store.DayOf(&p.Expires)
	}
	return out
}

// ProductIn is what is entered of a product.
type ProductIn struct {
	treatment.Card
	Supplier string `json:"supplier,omitempty" maxLength:"200"`
	Version  int    `json:"version,omitempty" doc:"When changing: the version the change is based on"`
}

// Products are the firm's cards.
func (h *Room) Products(ctx context.Context) ([]Product, error) {
	list, err := h.Store.Products(ctx)
	out := make([]Product, len(list))
	for i, p := range list {
		out[i] = tellProduct(p)
	}
	return out, err
}

// record checks a card that was entered.
func (in ProductIn) record() (store.Product, error) {
	in.Name = strings.TrimSpace(in.Name)
	var err error
	if in.Card, err = in.Card.Settled(); err != nil {
		return store.Product{}, err
	}
	if in.OnHand != 0 {
		return store.Product{}, invalid.One("on_hand", in.OnHand, "is counted from what was bought and used: add a lot")
	}
	in.Card.ID = 0
	return store.Product{
		Card:     store.JSON[treatment.Card]{V: in.Card},
		Supplier: strings.TrimSpace(in.Supplier),
		Version:  in.Version,
	}, nil
}

// cardsFor are the product cards of a question, with their labels' rates worked out, or the firm's own.
func (h *Room) cardsFor(ctx context.Context, given []treatment.Card) ([]treatment.Card, error) {
	if given == nil {
		return h.Cards(ctx)
	}
	return treatment.Settle(given)
}

// AddProduct keeps a new card.
func (h *Room) AddProduct(ctx context.Context, key store.Key, in ProductIn) (Product, error) {
	p, err := in.record()
	if err != nil {
		return Product{}, err
	}
	id, err := store.Once(ctx, h.Store, key, func(tx store.Tx) (int64, error) { return tx.AddProduct(ctx, p) })
	if err != nil {
		return Product{}, err
	}
	return h.product(ctx, id)
}

// ChangeProduct keeps a changed card.
func (h *Room) ChangeProduct(ctx context.Context, key store.Key, id int64, in ProductIn) (Product, error) {
	p, err := in.record()
	if err != nil {
		return Product{}, err
	}
	p.ID = id
	_, err = store.Once(ctx, h.Store, key, func(tx store.Tx) (int64, error) {
		return id, estate.Stale(tx.ChangeProduct(ctx, p), tellProduct)
	})
	if err != nil {
		return Product{}, err
	}
	return h.product(ctx, id)
}

func (h *Room) product(ctx context.Context, id int64) (Product, error) {
	p, err := h.Store.Product(ctx, id)
	return tellProduct(p), err
}

// RemoveProduct takes a card out of sight, or brings it back.
func (h *Room) RemoveProduct(ctx context.Context, key store.Key, id int64, remove bool) error {
	_, err := store.Once(
		ctx,
		h.Store,
		key,
		func(tx store.Tx) (struct{}, error) { return struct{}{}, tx.RemoveProduct(ctx, id, remove) },
	)
	return err
}

// KeepLabel keeps the picture or PDF of a product's label; none where it is empty.
func (h *Room) KeepLabel(ctx context.Context, key store.Key, id int64, file []byte, is string) (Product, error) {
	hash := ""
	if len(file) > 0 {
		var err error
		if hash, err = h.Store.KeepFile(file, is); err != nil {
			return Product{}, err
		}
	}
	_, err := store.Once(ctx, h.Store, key, func(tx store.Tx) (struct{}, error) { return struct{}{}, tx.SetLabel(ctx, id, hash, is) })
	if err != nil {
		return Product{}, err
	}
	return h.product(ctx, id)
}

// Label reads a product's label, and what it is.
func (h *Room) Label(ctx context.Context, id int64) (file []byte, is string, err error) {
	p, err := h.Store.Product(ctx, id)
	if err != nil {
		return nil, "", err
	}
	if p.Label == "" {
		return nil, "", store.ErrNotFound
	}
	file, err = h.Store.File(p.Label, p.LabelIs)
	return file, p.LabelIs, err
}

// LotIn is what was bought or counted in.
type LotIn struct {
	Amount  float64 `json:"amount" doc:"In the product's unit"`
	Day     day.Day `json:"day,omitempty" format:"date" doc:"Today when absent"`
	Lot     string  `json:"lot,omitempty" maxLength:"100" doc:"As printed on the pack"`
	Expires day.Day `json:"expires,omitempty" format:"date"`
	Shelf   bool    `json:"shelf,omitempty" doc:"The amount is all that stands on the shelf: what the record differs by is set right"`
}

// AddLot keeps a lot.
func (h *Room) AddLot(ctx context.Context, key store.Key, product int64, in LotIn) (Product, error) {
	var bad invalid.Fields
	if !(in.Amount > 0) && !(in.Shelf && in.Amount == 0) || in.Amount > 1e7 {
		bad.Add("amount", in.Amount, "want more than nothing")
	}
	on := h.DateOr(in.Day)
	if on > h.Today() {
		bad.Add("day", on.String(), "is still to come")
	}
	if bad != nil {
		return Product{}, bad
	}
	l := store.Lot{ProductID: product, Day: on.String(), Amount: in.Amount, Lot: strings.TrimSpace(in.Lot)}
	if in.Expires.Given() {
		l.Expires = in.Expires.String()
	}
	if _, err := store.Once(ctx, h.Store, key, func(tx store.Tx) (int64, error) {
		p, err := tx.Product(ctx, product)
		if err != nil {
			return 0, err
		}
		if in.Shelf {
			l.Amount = in.Amount - p.OnHand
		}
		return tx.AddLot(ctx, l)
	}); err != nil {
		return Product{}, err
	}
	return h.product(ctx, product)
}
