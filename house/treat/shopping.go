package treat

import (
	"cmp"
	"context"
	"fmt"
	"slices"

	"mezzadro/core/day"
	"mezzadro/core/job"
	"mezzadro/core/quantity"
	"mezzadro/core/treatment"
	"mezzadro/house/estate"
	"mezzadro/store"
)

// taking is all that is at hand to tell what jobs take.
type taking struct {
	h        *Room
	products []Product
	cards    []treatment.Card
	plants   map[int64]store.Plant
	done     map[store.DoneOf]int
	places   map[int64]*estate.Place
	finds    map[int64]store.Find
}

// taking reads it once for all jobs.
func (h *Room) taking(ctx context.Context) (*taking, []store.OrderFull, error) {
	t := &taking{h: h, plants: map[int64]store.Plant{}, done: map[store.DoneOf]int{}, places: map[int64]*estate.Place{},
		finds: map[int64]store.Find{}}
	list, err := h.Store.TreatmentsOf(ctx, 0)
	if err != nil {
		return t, nil, err
	}
	if t.products, err = h.Products(ctx); err != nil {
		return t, nil, err
	}
	for _, p := range t.products {
		c := p.Card
		c.OnHand = max(0, c.OnHand)
		t.cards = append(t.cards, c)
	}
	plants, err := h.Store.PlantsTreated(ctx)
	if err != nil {
		return t, nil, err
	}
	for _, p := range plants {
		t.plants[p.ID] = p
	}
	for _, prevent := range []bool{false, true} {
		finds, err := h.Store.Finds(ctx, store.FindsOf{Open: true, Prevent: prevent, Limit: store.All})
		if err != nil {
			return t, nil, err
		}
		for _, f := range finds {
			t.finds[f.ID] = f
		}
	}
	done, err := h.Store.DoneTimes(ctx, (h.Today() - 366).String())
	for _, d := range done {
		t.done[d.DoneOf] = d.Count
	}
	return t, list, err
}

// place is a property's, read once.
func (t *taking) place(ctx context.Context, id int64) (*estate.Place, error) {
	if pl := t.places[id]; pl != nil {
		return pl, nil
	}
	pl, err := t.h.Place(ctx, id)
	t.places[id] = pl
	return pl, err
}

// Shopping sums what the treatments and feedings that stand as jobs take until a day, with their repeats, over all
// properties, before it is bought.
func (h *Room) Shopping(ctx context.Context, until day.Day) (Shopping, error) {
	out := Shopping{Lines: []ShoppingLine{}}
	if err := h.Work.CurrentWindows(ctx); err != nil {
		return out, err
	}
	t, list, err := h.taking(ctx)
	if err != nil {
		return out, err
	}
	by := map[string]*ShoppingLine{}
	for _, k := range list {
		due := store.DayOf(k.BestDay)
		if on := store.DayOf(k.Day); on != day.None {
			due = on
		}
		if k.Params.V.Use == "" || due == day.None || due > until {
			continue
		}
		if _, err := t.add(ctx, by, k, due, until); err != nil {
			return out, err
		}
	}
	for _, l := range by {
		l.close(t.products)
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

// taken is what one time of a job takes, and how often it falls due from a day on until another.
type taken struct {
	product, spray float64
	unit, name     string
	card           int64
	plants, times  int
}

// once of a job; false where it takes nothing that is measured.
func (t *taking) once(ctx context.Context, k store.OrderFull, due, until day.Day) (taken, bool, error) {
	pl, err := t.place(ctx, k.PropertyID)
	if err != nil {
		return taken{}, false, err
	}
	p, there := t.plants[k.PlantID.Int64]
	if !there {
		return taken{}, false, nil
	}
	e, of := estate.EntryOf(pl.Book, p.Species), k.Params.V
	if k.Kind == job.Feed {
		return t.fedOnce(pl, p, k, due, until)
	}
	f := t.finds[k.OriginID]
	a := treatment.Ask{
		Cause:    of.Cause,
		Affected: min(f.Affected, p.Count),
		BedM2:    cmp.Or(f.BedM2, p.BedM2),
		Species:  &e,
		Place:    pl.Cuts.Place,
		Date:     pl.Today,
		Count:    p.Count,
		HeightM:  p.HeightM,
		SpreadM:  p.SpreadM,
		RowM:     p.RowM,
		Cards:    t.cards,
	}
	x, plants := treatment.Built().Takes(a, of.Use)
	if x == nil {
		return taken{}, false, nil
	}
	times := treatment.Built().
		Times(a, treatment.Job{Cause: of.Cause, Rung: of.Rung, Step: of.Step, Made: store.DayOf(&k.ForDay)},
			t.done[store.DoneOf{Find: k.OriginID, Rung: of.Rung, Step: of.Step}], due, until)
	return taken{x.Product, x.SprayL, x.Unit, x.Name, x.Card, plants, times}, true, nil
}

// fedOnce is what one feeding takes.
func (t *taking) fedOnce(pl *estate.Place, p store.Plant, k store.OrderFull, due, until day.Day) (taken, bool, error) {
	e := estate.EntryOf(pl.Book, p.Species)
	f, err := treatment.Feed(
		treatment.FeedAsk{
			Species: &e,
			Place:   pl.Cuts.Place,
			Date:    store.DayOf(&k.ForDay),
			PotL:    p.PotL,
			Rules:   pl.Rules,
			Count:   p.Count,
			HeightM: p.HeightM,
			SpreadM: p.SpreadM,
			RowM:    p.RowM,
			BedM2:   p.BedM2,
			Cards:   t.cards,
		},
	)
	if err != nil {
		return taken{}, false, err
	}
	end := until
	for _, s := range k.Params.V.Spans {
		end = min(end, s.To)
	}
	times := 1
	if every := k.Params.V.EveryDays; every > 0 && end > due {
		times += int(end-due) / every
	}
	for _, x := range f.Amounts {
		if x.What == "feed" {
			return taken{x.Product, x.LiquidL, x.Unit, x.Name, x.Card, p.Count, times}, true, nil
		}
	}
	return taken{}, false, nil
}

// add adds what one job takes, and says to which line.
func (t *taking) add(
	ctx context.Context,
	by map[string]*ShoppingLine,
	k store.OrderFull,
	due, until day.Day,
) (string, error) {
	a, measured, err := t.once(ctx, k, due, until)
	act := treatment.Built().Active(k.Params.V.Use)
	if err != nil || !measured || act == nil {
		return "", err
	}
	key := fmt.Sprintf("%s %d", act.ID, a.card)
	l := by[key]
	if l == nil {
		l = &ShoppingLine{
			Product:   a.card,
			Name:      cmp.Or(a.name, act.Name),
			Unit:      a.unit,
			ActiveFor: act.Name,
			use:       act.ID,
		}
		by[key] = l
	}
	n := float64(a.times)
	l.Needed, l.SprayL, l.Jobs, l.Times, l.Plants = l.Needed+n*a.product, l.SprayL+n*a.spray, l.Jobs+1, l.Times+a.times, l.Plants+a.plants
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
	c.OnHand = max(0, c.OnHand) // more may have been used than was entered
	l.OnHand, l.Supplier = c.OnHand, products[n].Supplier
	l.Expired = products[n].Expires.Given() && l.FirstDue.Given() && products[n].Expires < l.FirstDue
	l.Formula = fmt.Sprintf(
		"Each job's crown, pot or ground × the label's rate × its times by then (%d in all) = %g %s, less %g %s on hand, in whole packs",
		l.Times,
		l.Needed,
		l.Unit,
		quantity.Tenth(c.OnHand),
		l.Unit,
	)
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

// Shopping is what is to be bought for the treatments that stand as jobs.
type Shopping struct {
	Lines []ShoppingLine `json:"lines"`
	Price float64        `json:"price" money:"true" doc:"In all, where packs have prices"`
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
	PerPlant  float64           `json:"per_plant" money:"true" doc:"Price for one plant"`
	ActiveFor string            `json:"active"`

	use string // the means, by id
}
