package treat

import (
	"cmp"
	"context"
	"fmt"
	"slices"

	"mezzadro/core/cause"
	"mezzadro/core/day"
	"mezzadro/core/invalid"
	"mezzadro/core/job"
	"mezzadro/core/moment"
	"mezzadro/core/rules"
	"mezzadro/core/season"
	"mezzadro/core/treatment"
	"mezzadro/house/estate"
	"mezzadro/house/work"
	"mezzadro/store"
)

// KeepFeeding makes a job of a plant's feeding in the season that runs or comes next; it comes again till that ends.
func (h *Room) KeepFeeding(ctx context.Context, key store.Key, plant int64, in FeedingIn) (work.Order, error) {
	in.Plant = plant
	ask, err := h.feedAsk(ctx, in)
	if err != nil {
		return work.Order{}, err
	}
	f, err := treatment.Feed(ask)
	if err != nil {
		return work.Order{}, err
	}
	o, due := f.Order(ask)
	if !due {
		return work.Order{}, store.Refused(f.Text)
	}
	p, err := h.Store.Plant(ctx, plant)
	if err != nil {
		return work.Order{}, err
	}
	pl, err := h.Place(ctx, p.PropertyID)
	if err != nil {
		return work.Order{}, err
	}
	id, err := store.Once(ctx, h.Store, key, func(tx store.Tx) (int64, error) {
		stands, err := tx.StandingOf(ctx, plant, job.Feed, job.Programme)
		if err != nil {
			return 0, err
		}
		if stands {
			return 0, store.Refused("a job for its feeding stands already")
		}
		return tx.AddOrder(
			ctx,
			store.NewOrder{PropertyID: p.PropertyID, Plants: []int64{plant}, Trouble: "feeding", Order: o,
				Outlook: pl.Curve(o, []string{p.Species}).Outlook(pl.Today)},
		)
	})
	if err != nil {
		return work.Order{}, err
	}
	k, err := h.Store.Order(ctx, id)
	return work.TellOrder(k.Order, pl.Book, pl.Today), err
}

// Guard is a cause that a plant can be guarded against before it is there.
type Guard struct {
	Cause  string  `json:"cause"`
	Name   string  `json:"name"`
	Do     string  `json:"do" doc:"The first step"`
	Day    day.Day `json:"day" format:"date" doc:"When that is next due"`
	FindID int64   `json:"find_id,omitempty" doc:"Of the wish that stands"`
}

// Guards are those of a plant.
func (h *Room) Guards(ctx context.Context, plant int64) ([]Guard, error) {
	p, err := h.Store.Plant(ctx, plant)
	if err != nil {
		return nil, err
	}
	pl, err := h.Place(ctx, p.PropertyID)
	if err != nil {
		return nil, err
	}
	wishes, err := h.Store.Finds(ctx, store.FindsOf{Plant: plant, Open: true, Prevent: true, Limit: store.All})
	if err != nil {
		return nil, err
	}
	e := estate.EntryOf(pl.Book, p.Species)
	causes := treatment.Built().Guards(&e)
	for _, w := range wishes {
		if !slices.Contains(causes, w.Cause) {
			causes = append(causes, w.Cause)
		}
	}
	out := make([]Guard, 0, len(causes))
	for _, id := range causes {
		c := cause.Built().Cause(id)
		if c == nil {
			continue
		}
		a, err := treatment.Built().
			Plan(treatment.Ask{Cause: id, Prevent: true, Species: &e, Place: pl.Cuts.Place, Date: pl.Today, Rules: pl.Rules, Count: p.Count,
				HeightM: p.HeightM, SpreadM: p.SpreadM, RowM: p.RowM, BedM2: p.BedM2})
		if err != nil {
			return nil, err
		}
		g := Guard{Cause: id, Name: c.Name}
		if len(a.Steps) > 0 {
			g.Do, g.Day = a.Steps[0].Do, a.Steps[0].Day
		}
		if n := slices.IndexFunc(wishes, func(w store.Find) bool { return w.Cause == id }); n >= 0 {
			g.FindID = wishes[n].ID
		}
		out = append(out, g)
	}
	return out, nil
}

// FeedingIn asks when and with what a plant is fed.
type FeedingIn struct {
	Species  string          `json:"species,omitempty" doc:"Catalogue id; may be left out where a plant is named"`
	Plant    int64           `json:"plant,omitempty" doc:"A plant's id: its species, its property, its pot and what winter did to it count"`
	Date     day.Day         `json:"date,omitempty" format:"date" doc:"Today when absent"`
	Climate  *season.Climate `json:"climate,omitempty"`
	Property int64           `json:"property,omitempty" doc:"In place of a climate: a property's id"`
	PotL     float64         `json:"pot_l,omitempty" minimum:"0" doc:"Litres of its pot; 0 in the ground"`
	Hurt     bool            `json:"hurt,omitempty" doc:"By frost, and not in growth yet"`
	AfterCut bool            `json:"after_hard_cut,omitempty" doc:"It was cut hard before this growth"`
	Young    bool            `json:"young,omitempty" doc:"Planted this year; a named plant by its own year"`
	Sick     []string        `json:"sick,omitempty" maxItems:"20" doc:"Causes found on it that are not over; of a named plant its own finds count too"`
	PH       float64         `json:"ph,omitempty" minimum:"0" doc:"Of its soil; not measured when absent"`
	Rules    *rules.House    `json:"house_rules,omitempty" doc:"The firm's when absent"`

	RowM      float64          `json:"row_m,omitempty" minimum:"0" maximum:"1000" doc:"Length of the row a group stands in, m"`
	Count     int              `json:"count,omitempty" minimum:"0" maximum:"10000" doc:"Plants of a group; one when absent"`
	HeightM   float64          `json:"height_m,omitempty" minimum:"0" maximum:"60"`
	SpreadM   float64          `json:"spread_m,omitempty" minimum:"0" maximum:"40"`
	BedM2     float64          `json:"bed_m2,omitempty" minimum:"0" doc:"Area of the bed; as wide as the crowns when absent"`
	CompostCM float64          `json:"compost_cm,omitempty" minimum:"0" doc:"How deep; 2 when absent"`
	MulchCM   float64          `json:"mulch_cm,omitempty" minimum:"0" doc:"How deep; 5 when absent"`
	Cards     []treatment.Card `json:"cards,omitempty" maxItems:"100" doc:"Product cards; the firm's own when absent"`
}

// ReckonFeeding tells when and with what a plant is fed, storing nothing.
func (h *Room) ReckonFeeding(ctx context.Context, in FeedingIn) (treatment.Feeding, error) {
	ask, err := h.feedAsk(ctx, in)
	if err != nil {
		return treatment.Feeding{}, err
	}
	return treatment.Feed(ask)
}

// feedAsk joins what is asked with a kept plant, its property and the firm's cards.
func (h *Room) feedAsk(ctx context.Context, in FeedingIn) (treatment.FeedAsk, error) {
	none := treatment.FeedAsk{}
	if in.Plant != 0 {
		p, err := h.Store.Plant(ctx, in.Plant)
		if err != nil {
			return none, err
		}
		in.Property = p.PropertyID
		in.Species, in.PotL = cmp.Or(in.Species, p.Species), cmp.Or(in.PotL, p.PotL)
		in.Count, in.HeightM = cmp.Or(in.Count, p.Count), cmp.Or(in.HeightM, p.HeightM)
		in.SpreadM, in.RowM, in.BedM2 = cmp.Or(in.SpreadM, p.SpreadM), cmp.Or(in.RowM, p.RowM), cmp.Or(in.BedM2, p.BedM2)
		in.Young = in.Young || p.Planted != 0 && p.Planted == h.DateOr(in.Date).Year()
		finds, err := h.Store.Finds(ctx, store.FindsOf{Plant: in.Plant, Open: true, Limit: store.All})
		if err != nil {
			return none, err
		}
		for _, f := range finds {
			in.Sick = append(in.Sick, f.Cause)
		}
	}
	for i, id := range in.Sick {
		if cause.Built().Cause(id) == nil {
			return none, invalid.One(fmt.Sprintf("sick[%d]", i), id, "no cause has this id")
		}
	}
	book, err := h.Book(ctx)
	if err != nil {
		return none, err
	}
	e, err := book.Species(in.Species)
	if err != nil {
		return none, invalid.One("species", in.Species, err.Error())
	}
	y, pl, err := h.YearOf(ctx, in.Climate, in.Property)
	if err != nil {
		return none, err
	}
	ask := treatment.FeedAsk{
		Species:   &e,
		Date:      h.DateOr(in.Date),
		PotL:      in.PotL,
		Hurt:      in.Hurt,
		AfterCut:  in.AfterCut,
		Young:     in.Young,
		Sick:      in.Sick,
		PH:        in.PH,
		Count:     in.Count,
		HeightM:   in.HeightM,
		SpreadM:   in.SpreadM,
		RowM:      in.RowM,
		BedM2:     in.BedM2,
		CompostCM: in.CompostCM,
		MulchCM:   in.MulchCM,
		Cards:     in.Cards,
	}
	if ask.Cards, err = h.cardsFor(ctx, in.Cards); err != nil {
		return none, err
	}
	if pl != nil {
		ask.Place, ask.Rules = pl.Cuts.Place, pl.Rules
	} else {
		ask.Place = moment.At(y)
	}
	if in.Rules != nil {
		ask.Rules = *in.Rules
		if err := invalid.Under("house_rules", in.Rules.Validate()); err != nil {
			return none, err
		}
	}
	return ask, nil
}
