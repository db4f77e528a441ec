package ledger

import (
	"context"
	"math"

	"mezzadro/core/catalogue"
	"mezzadro/core/estimate"
	"mezzadro/core/kinds"
	"mezzadro/core/load"
	"mezzadro/core/pace"
	"mezzadro/core/quantity"
	"mezzadro/core/treatment"
	"mezzadro/house/estate"
	"mezzadro/store"
)

// pricing is what the prices of an estimate hang on.
type pricing struct {
	rates  estimate.Rates
	cards  map[string]treatment.Card // by name, as load lists tell them
	plants map[string]estimate.Amount
}

// pricing reads it.
func (h *Room) pricing(ctx context.Context, rates estimate.Rates, book *catalogue.Catalogue) (*pricing, error) {
	p := &pricing{rates: rates, cards: map[string]treatment.Card{}, plants: map[string]estimate.Amount{}}
	cards, err := h.Cards(ctx)
	if err != nil {
		return nil, err
	}
	for _, c := range cards {
		p.cards[c.Name] = c
	}
	words, err := h.Store.KindWords(ctx)
	for _, w := range words {
		p.plants[estate.EntryOf(book, w.Species).Common] = p.minor(w.Price)
	}
	return p, err
}

// minor is an amount that the firm entered elsewhere in whole units of its currency.
func (p *pricing) minor(v float64) estimate.Amount {
	return estimate.Amount(math.Round(v * math.Pow10(p.rates.Digits)))
}

// good is a thing of a load list, with its price where the firm has one.
func (p *pricing) good(x load.Item) estimate.Good {
	g := estimate.Good{Name: x.Name, Amount: x.Amount, Unit: x.Unit}
	if x.Group == load.Plants {
		g.Price, g.Per = p.plants[x.Name], 1
	}
	best := math.Inf(1)
	for _, pack := range p.cards[x.Name].Packs {
		if each := pack.Price / pack.Size; pack.Price > 0 && pack.Size >= 1 && each < best {
			best, g.Price, g.Per = each, p.minor(pack.Price), int64(math.Round(pack.Size))
		}
	}
	return g
}

// lines are what jobs cost, in the client's words; those that are not for clients are left out.
func (h *Room) lines(ctx context.Context, list []store.OrderFull, rates estimate.Rates) ([]estimate.Line, error) {
	book, err := h.Book(ctx)
	if err != nil {
		return nil, err
	}
	jobs, err := h.jobs(ctx, list, rates, book, nil)
	if err != nil {
		return nil, err
	}
	out, places := []estimate.Line{}, map[int64]*estate.Place{}
	for i, j := range jobs {
		k := list[i]
		if _, told := kinds.ForClient(k.Kind, k.Params.V, k.Title); !told {
			continue
		}
		pl := places[k.PropertyID]
		if pl == nil {
			if pl, err = h.Place(ctx, k.PropertyID); err != nil {
				return nil, err
			}
			places[k.PropertyID] = pl
		}
		c, err := h.Work.Shared(ctx, &k, pl)
		if err != nil {
			return nil, err
		}
		j.Waits = estimate.Waits(k.Kind, c.Curve, pl.Today)
		out = append(out, rates.LineOf(j))
	}
	return out, nil
}

// inUnitsOf writes lines in a client's own units, where they said so; else each reader reads them in theirs.
func (h *Room) inUnitsOf(ctx context.Context, client int64, lines []estimate.Line, s quantity.Style) error {
	list, err := h.Store.Clients(ctx)
	for _, c := range list {
		if c.ID == client && c.Units != "" {
			s.Imperial = c.Units == "imperial"
			for i := range lines {
				lines[i] = Written(lines[i], s)
			}
		}
	}
	return err
}

// jobs are what is priced of some orders: their people and time, what they use up, what they bring back. used are the
// products that went into those that were done, by order; nil: those that they will take.
func (h *Room) jobs(ctx context.Context, list []store.OrderFull, rates estimate.Rates, book *catalogue.Catalogue, used map[int64][]load.Item) ([]estimate.Job, error) {
	p, err := h.pricing(ctx, rates, book)
	if err != nil {
		return nil, err
	}
	loads, err := h.Days.Loads(ctx, list, used == nil)
	if err != nil {
		return nil, err
	}
	var ours *pace.Pace // what was done took as long as it took
	if used == nil {
		if ours, err = h.Learn.Pace(ctx); err != nil {
			return nil, err
		}
	}
	out := make([]estimate.Job, len(list))
	for i, k := range list {
		title, told := kinds.ForClient(k.Kind, k.Params.V, k.Title)
		if !told {
			title = k.Title
		}
		j := estimate.Job{Order: k.ID, Kind: k.Kind, Title: title, Plant: plantOf(k.Order, book), Minutes: ours.Minutes(string(k.Kind), k.Minutes), People: k.CrewSize,
			Skills: k.Body.V.Skills, WasteM3: load.WasteM3(loads[i]), Every: k.Params.V.EveryDays}
		for _, x := range append(loads[i], used[k.ID]...) {
			if x.Group == load.Tools {
				j.Tools = append(j.Tools, x.Name)
			}
			if x.Buy && (x.Group == load.Plants || x.Group == load.Stuff) && x.Amount > 0 {
				j.Goods = append(j.Goods, p.good(x))
			}
		}
		out[i] = j
	}
	return out, nil
}
