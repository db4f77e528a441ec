package house

import (
	"cmp"
	"context"
	"strings"

	"mezzadro/core/cause"
	"mezzadro/core/day"
	"mezzadro/core/invalid"
	"mezzadro/core/treatment"
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
	c := p.Card.V
	c.ID, c.OnHand = p.ID, Tenth(p.OnHand)
	if c.Rates == nil {
		c.Rates = []treatment.Rate{}
	}
	if c.Packs == nil {
		c.Packs = []treatment.Pack{}
	}
	out := Product{Card: c, Supplier: p.Supplier, Version: p.Version, Label: p.LabelIs}
	if a := treatment.Built().Active(c.Active); a != nil {
		out.ActiveName = a.Name
	}
	if p.Expires != "" {
		out.Expires = parsed(&p.Expires)
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
func (h *House) Products(ctx context.Context) ([]Product, error) {
	list, err := h.Store.Products(ctx)
	out := make([]Product, len(list))
	for i, p := range list {
		out[i] = tellProduct(p)
	}
	return out, err
}

// cards are the firm's as the core takes them.
func (h *House) cards(ctx context.Context) ([]treatment.Card, error) {
	list, err := h.Products(ctx)
	out := make([]treatment.Card, len(list))
	for i, p := range list {
		out[i] = p.Card
		out[i].OnHand = max(0, p.OnHand)
	}
	return out, err
}

// record checks a card that was entered.
func (in ProductIn) record() (store.Product, error) {
	in.Name = strings.TrimSpace(in.Name)
	if err := in.Card.Validate(); err != nil {
		return store.Product{}, err
	}
	if in.OnHand != 0 {
		return store.Product{}, Refuse("on_hand", in.OnHand, "is counted from what was bought and used: add a lot")
	}
	in.Card.ID = 0
	return store.Product{
		Card:     store.JSON[treatment.Card]{V: in.Card},
		Supplier: strings.TrimSpace(in.Supplier),
		Version:  in.Version,
	}, nil
}

// AddProduct keeps a new card.
func (h *House) AddProduct(ctx context.Context, key store.Key, in ProductIn) (Product, error) {
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
func (h *House) ChangeProduct(ctx context.Context, key store.Key, id int64, in ProductIn) (Product, error) {
	p, err := in.record()
	if err != nil {
		return Product{}, err
	}
	p.ID = id
	_, err = store.Once(ctx, h.Store, key, func(tx store.Tx) (int64, error) {
		return id, stale(tx.ChangeProduct(ctx, p), tellProduct)
	})
	if err != nil {
		return Product{}, err
	}
	return h.product(ctx, id)
}

func (h *House) product(ctx context.Context, id int64) (Product, error) {
	p, err := h.Store.Product(ctx, id)
	return tellProduct(p), err
}

// RemoveProduct takes a card out of sight, or brings it back.
func (h *House) RemoveProduct(ctx context.Context, key store.Key, id int64, remove bool) error {
	_, err := store.Once(
		ctx,
		h.Store,
		key,
		func(tx store.Tx) (struct{}, error) { return struct{}{}, tx.RemoveProduct(ctx, id, remove) },
	)
	return err
}

// KeepLabel keeps the picture or PDF of a product's label; none where it is empty.
func (h *House) KeepLabel(ctx context.Context, key store.Key, id int64, file []byte, is string) (Product, error) {
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
func (h *House) Label(ctx context.Context, id int64) (file []byte, is string, err error) {
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
}

// AddLot keeps a lot.
func (h *House) AddLot(ctx context.Context, key store.Key, product int64, in LotIn) (Product, error) {
	var bad invalid.Fields
	if !(in.Amount > 0) || in.Amount > 1e7 {
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
	if _, err := h.Store.Product(ctx, product); err != nil {
		return Product{}, err
	}
	if _, err := store.Once(ctx, h.Store, key, func(tx store.Tx) (int64, error) { return tx.AddLot(ctx, l) }); err != nil {
		return Product{}, err
	}
	return h.product(ctx, product)
}

// Used is one line of the use record.
type Used struct {
	ID       int64    `json:"id"`
	Property string   `json:"property"`
	PlantID  int64    `json:"plant_id"`
	Plant    string   `json:"plant"`
	Day      day.Day  `json:"day" format:"date"`
	Who      string   `json:"who"`
	Product  string   `json:"product" doc:"Empty for work without one"`
	Active   string   `json:"active"`
	Cause    string   `json:"cause" doc:"In words: why it was used"`
	Amount   float64  `json:"amount"`
	Unit     string   `json:"unit"`
	SprayL   float64  `json:"spray_l"`
	Plants   int      `json:"plants"`
	TempC    *float64 `json:"temp_c" doc:"That day, from the station or as noted; null where nobody knows"`
	WindMS   *float64 `json:"wind_ms"`
	RainMM   float64  `json:"rain_mm" doc:"That fell within the hours in which rain washes it off"`
	Note     string   `json:"note"`
}

// usesShown is how many lines of the use record are told at most.
const usesShown = 5000

// Uses is the use record of a span of days, the newest first.
func (h *House) Uses(ctx context.Context, property int64, from, to day.Day) ([]Used, error) {
	list, err := h.Store.UsesBetween(ctx, property, from.String(), to.String(), usesShown)
	if err != nil {
		return nil, err
	}
	book, err := h.Book(ctx)
	if err != nil {
		return nil, err
	}
	out := make([]Used, len(list))
	for i, u := range list {
		out[i] = Used{
			ID:       u.ID,
			Property: u.Property,
			PlantID:  u.PlantID.Int64,
			Day:      parsed(&u.Day),
			Who:      u.Who,
			Product:  u.Product,
			Active:   u.Active,
			Cause:    cmp.Or(causeName(u.Cause), "Feeding"),
			Amount:   u.Amount,
			Unit:     u.Unit,
			SprayL:   u.SprayL,
			Plants:   u.Plants,
			Note:     u.Note,
		}
		if u.Species != "" {
			out[i].Plant = plantTitle(book, store.Plant{Species: u.Species, Label: u.Label})
		}
		if a := treatment.Built().Active(u.Active); a != nil {
			out[i].Active = a.Name
		}
		if u.TempC.Valid {
			out[i].TempC = &u.TempC.Float64
		}
		if u.WindMS.Valid {
			out[i].WindMS = &u.WindMS.Float64
		}
	}
	return out, nil
}

// Shopping is what is to be bought for the treatments that stand as jobs.
type Shopping struct {
	Lines []ShoppingLine `json:"lines"`
	Price float64        `json:"price" doc:"In all, where packs have prices"`
}

// ShoppingLine is what one product takes over all properties.
type ShoppingLine struct {
	Product   int64             `json:"product" doc:"Id of the card; 0 where there is none"`
	Name      string            `json:"name"`
	Supplier  string            `json:"supplier"`
	Needed    float64           `json:"needed" doc:"In its unit; 0 without a rate"`
	Unit      string            `json:"unit"`
	OnHand    float64           `json:"on_hand"`
	SprayL    float64           `json:"spray_l"`
	Jobs      int               `json:"jobs"`
	Times     int               `json:"times" doc:"With the repeats that fall into the span"`
	Formula   string            `json:"formula" doc:"How it was summed, in words"`
	Buy       *treatment.Bought `json:"buy,omitempty"`
	Missing   string            `json:"missing,omitempty" doc:"What is not known: a card, a rate, a pack"`
	Expired   bool              `json:"expired" doc:"A lot on hand has expired"`
	FirstDue  day.Day           `json:"first_due,omitempty" format:"date"`
	Plants    int               `json:"plants"`
	PerPlant  float64           `json:"per_plant" doc:"Price for one plant"`
	ActiveFor string            `json:"active"`

	use string // the means, by id
}

// causeName is a cause in words.
func causeName(id string) string {
	if c := cause.Built().Cause(id); c != nil {
		return c.Name
	}
	return id
}
