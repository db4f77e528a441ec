package ground

import (
	"context"
	"fmt"
	"math"
	"strings"
	"time"

	"mezzadro/core/day"
	"mezzadro/core/invalid"
	"mezzadro/core/job"
	"mezzadro/core/quantity"
	"mezzadro/core/replacement"
	"mezzadro/house/estate"
	"mezzadro/house/work"
	"mezzadro/store"
)

// PlantingIn asks that kinds be planted on a property.
type PlantingIn struct {
	Plant int64         `json:"plant,omitempty" doc:"In whose place"`
	Kinds []PlantedKind `json:"kinds" minItems:"1" maxItems:"40"`
	Where string        `json:"where,omitempty" maxLength:"120" doc:"Such as the name of a bed"`
}

// PlantedKind is how many of a kind.
type PlantedKind struct {
	Species  string  `json:"species" minLength:"1" doc:"Catalogue id"`
	Count    int     `json:"count,omitempty" minimum:"0" maximum:"10000" doc:"One when absent"`
	SpacingM float64 `json:"spacing_m,omitempty" minimum:"0" maximum:"30"`
}

// Planted are the jobs of a planting.
type Planted struct {
	Closed []int64 `json:"closed" doc:"Ids of the jobs of the plant in whose place it comes that are not needed any more; each can be restored"`
	Orders []int64 `json:"orders" doc:"Ids: the planting of each kind, and then the water of the first season, where rain is not enough, and last the taking out, where none stood"`
	Best   day.Day `json:"best" format:"date" doc:"Of the first kind"`
	Cost   float64 `json:"cost" money:"true" doc:"Of all plants that have a price"`
	Litres float64 `json:"litres" doc:"Of water in the first season, all plants: an estimate"`
}

// KeepPlanting makes jobs of a planting: each kind in its season, and the water of the first season after it, all in one
// write.
func (h *Room) KeepPlanting(ctx context.Context, key store.Key, property int64, in PlantingIn) (Planted, error) {
	out := Planted{Orders: []int64{}, Closed: []int64{}}
	plans, err := h.plantings(ctx, property, in)
	if err != nil {
		return out, err
	}
	known, err := h.kinds(ctx)
	if err != nil {
		return out, err
	}
	gone, err := h.inPlaceOf(ctx, property, in.Plant)
	if err != nil {
		return out, err
	}
	orders := []store.NewOrder{}
	for i, p := range plans {
		n := max(1, in.Kinds[i].Count)
		out.Cost += known[p.Species].Price * float64(n)
		for _, w := range p.Planting.Water {
			out.Litres += w.Litres * float64(w.Times*n)
		}
		o, _, err := h.Work.OrderByHand(ctx, p.order(property, in, i, gone.name), 0)
		if err != nil {
			return out, err
		}
		o.Order.Key, o.Order.Params.New, o.Order.Params.NewCount = plantingKey, p.Species, n
		orders = append(orders, o)
	}
	out.Best = plans[0].Planting.Best
	water, waters, err := h.firstWater(ctx, property, plans, in)
	if err != nil {
		return out, err
	}
	if !waters {
		water.PropertyID = 0
	}
	return store.Once(ctx, h.Store, key, func(tx store.Tx) (Planted, error) {
		err := out.keep(ctx, tx, gone, orders, water)
		return out, err
	})
}

// keep writes a planting: what stood there is taken out first, and its other jobs go.
func (p *Planted) keep(ctx context.Context, tx store.Tx, gone gone, orders []store.NewOrder, water store.NewOrder) error {
	for _, k := range gone.closes {
		if err := tx.DropOrder(ctx, k.ID, k.Version); err != nil {
			return err
		}
		p.Closed = append(p.Closed, k.ID)
	}
	takenOut := gone.standing
	if gone.takeOut != nil {
		id, err := tx.AddOrder(ctx, *gone.takeOut)
		if err != nil {
			return err
		}
		takenOut = id
	}
	for _, o := range orders {
		if takenOut != 0 {
			o.Gaps = append(o.Gaps, store.GapRow{OfID: takenOut, Why: "what stood there is taken out first"})
		}
		id, err := tx.AddOrder(ctx, o)
		if err != nil {
			return err
		}
		p.Orders = append(p.Orders, id)
		water.Gaps = append(water.Gaps, store.GapRow{OfID: id, Why: "it is planted first"})
	}
	if water.PropertyID != 0 {
		id, err := tx.AddOrder(ctx, water)
		if err != nil {
			return err
		}
		p.Orders = append(p.Orders, id)
	}
	if gone.takeOut != nil {
		p.Orders = append(p.Orders, takenOut)
	}
	return nil
}

// gone is the plant in whose place something comes.
type gone struct {
	name     string          // empty for none
	closes   []store.Order   // its jobs that are not needed any more
	standing int64           // the job that takes it out, where one stands
	takeOut  *store.NewOrder // or the one that is made
}

// inPlaceOf is the plant in whose place something comes, with what becomes of its jobs.
func (h *Room) inPlaceOf(ctx context.Context, property, plant int64) (gone, error) {
	if plant == 0 {
		return gone{}, nil
	}
	p, err := h.Store.Plant(ctx, plant)
	there, err := store.There(err)
	if err != nil {
		return gone{}, err
	}
	if !there || p.PropertyID != property {
		return gone{}, invalid.One("plant", plant, "is not on this property, or was removed")
	}
	book, err := h.Book(ctx)
	if err != nil {
		return gone{}, err
	}
	out := gone{name: estate.EntryOf(book, p.Species).Common}
	list, err := h.Store.PlantOrders(ctx, plant)
	if err != nil {
		return out, err
	}
	for _, k := range list {
		switch {
		case k.PlantID.Int64 != plant: // of others too
		case job.GoesWith(k.State, k.Kind):
			out.closes = append(out.closes, k)
		case k.Kind == job.Replace && k.Key != plantingKey && (k.State == job.Waiting || k.State == job.Placed):
			out.standing = k.ID
		}
	}
	if out.standing != 0 {
		return out, nil
	}
	o, _, err := h.Work.OrderByHand(ctx, work.HandOrder{
		PropertyID: property, Plants: []int64{plant}, Kind: job.Replace, Title: "Take out " + out.name,
		Minutes: job.TakingOutMinutes(p.HeightM, p.Count), CrewSize: 1, Kit: []string{"spade", "mattock", "barrow"},
		Note: "Roots and all, before the new one is planted.",
	}, 0)
	o.Order.Origin = job.Planting
	out.takeOut = &o
	return out, err
}

// plantings are how each kind is planted there.
func (h *Room) plantings(ctx context.Context, property int64, in PlantingIn) ([]Replacing, error) {
	var bad invalid.Fields
	out := []Replacing{}
	for i, k := range in.Kinds {
		r, err := h.plantingOf(ctx, property, k.Species)
		if f := invalid.Of(err); f != nil {
			bad.Add(fmt.Sprintf("kinds[%d].species", i), k.Species, "%s", f[0].Problem)
		} else if err != nil {
			return nil, err
		}
		if k.SpacingM > 0 {
			r.Spacing = k.SpacingM
		}
		out = append(out, r)
	}
	return out, bad.Err()
}

// plantingOf is how a kind is planted on a property.
func (h *Room) plantingOf(ctx context.Context, property int64, species string) (Replacing, error) {
	book, err := h.Book(ctx)
	if err != nil {
		return Replacing{}, err
	}
	e, known := book.Entry(species)
	if !known {
		return Replacing{}, invalid.One("species", species, "is not in the catalogue")
	}
	y, pl, err := h.YearOf(ctx, nil, property)
	if err != nil {
		return Replacing{}, err
	}
	rules, err := h.Cuts.RulesOf(ctx, nil, pl)
	if err != nil {
		return Replacing{}, err
	}
	ask := replacement.Ask{Year: y, Among: book.Entries}
	p := ask.PlantingOf(e, h.Today(), rules)
	r := Replacing{Planting: &p, Spacing: replacement.Spacing(e)}
	r.Species, r.Common = e.ID, e.Common
	return r, nil
}

// order is the planting of a kind as it is asked for by hand.
func (r Replacing) order(property int64, in PlantingIn, i int, instead string) work.HandOrder {
	k := in.Kinds[i]
	n := max(1, k.Count)
	title := "Plant " + r.Common
	if n > 1 {
		title = fmt.Sprintf("Plant %s × %d", r.Common, n)
	}
	if instead != "" {
		title += " for " + instead
	}
	if in.Where != "" {
		title += ", " + in.Where
	}
	notes := append([]string{}, r.Planting.How...)
	if n > 1 {
		notes = append(notes, fmt.Sprintf("%d plants, %s apart.", n, quantity.Length(r.Spacing)))
	}
	o := work.HandOrder{
		PropertyID: property, Title: title, Minutes: job.PlantingMinutes(n), CrewSize: 1,
		Note: strings.Join(notes, " "), Kit: []string{"spade", "mulch"},
	}
	if in.Plant != 0 && i == 0 {
		o.Kind, o.Plants = "replace", []int64{in.Plant}
		return o
	}
	for _, w := range r.Planting.Windows {
		o.Spans = append(o.Spans, work.SpanIn{From: w.From, To: w.To})
	}
	return o
}

// firstWater is the water of the first season of all kinds, once a week; false where rain is enough.
func (h *Room) firstWater(ctx context.Context, property int64, plans []Replacing, in PlantingIn) (store.NewOrder, bool, error) {
	from, each, names, months := day.Day(math.MaxInt32), 0.0, []string{}, map[int]int{}
	for i, p := range plans {
		if len(p.Planting.Water) == 0 {
			continue
		}
		from = min(from, p.Planting.Best)
		each += p.Planting.Water[0].Litres * float64(max(1, in.Kinds[i].Count))
		names = append(names, p.Common)
		for _, w := range p.Planting.Water {
			months[w.Month] = max(months[w.Month], w.Times)
		}
	}
	if len(names) == 0 {
		return store.NewOrder{}, false, nil
	}
	often := []string{}
	for m := 1; m <= 12; m++ {
		if n := months[m]; n > 0 {
			often = append(often, fmt.Sprintf("%s %d times", time.Month(m), n))
		}
	}
	note := "First season, an estimate: " + strings.Join(often, ", ") + "; less after good rain."
	title := "Water the new " + strings.Join(names, ", ")
	if len(title) > 120 {
		title = fmt.Sprintf("Water the new planting of %d kinds", len(names))
	}
	n, _, err := h.Work.OrderByHand(ctx, work.HandOrder{
		PropertyID: property, Title: fmt.Sprintf("%s: %.0f L each time", title, each), Minutes: job.WateringMinutes(each), CrewSize: 1,
		EveryDays: 7, Spans: []work.SpanIn{{From: from, To: from + replacement.FirstSeason}}, Note: note,
	}, 0)
	return n, true, err
}
