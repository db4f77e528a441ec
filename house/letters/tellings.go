package letters

import (
	"cmp"
	"context"
	"slices"

	"mezzadro/core/catalogue"
	"mezzadro/core/day"
	"mezzadro/core/kinds"
	"mezzadro/core/letter"
	"mezzadro/core/quantity"
	"mezzadro/house/days"
	"mezzadro/house/rounds"
	"mezzadro/store"
)

// Telling is what a client is told of a day: a draft, to be looked over and sent by hand.
type Telling struct {
	PropertyID int64    `json:"property_id"`
	Property   string   `json:"property"`
	Client     string   `json:"client"`
	Day        day.Day  `json:"day" format:"date" doc:"Empty where the day that was told falls and there is no new one"`
	Before     day.Day  `json:"before,omitempty" format:"date" doc:"The day that was told before; absent where none was"`
	Orders     []int64  `json:"orders"`
	Jobs       []string `json:"jobs" doc:"Titles"`
	Text       string   `json:"text" doc:"A draft"`
	FromMinute int      `json:"from_minute,omitempty" doc:"The crew arrives from then on, minutes after midnight; absent where no hour is planned. An estimate"`
	ToMinute   int      `json:"to_minute,omitempty" doc:"The crew arrives until then"`
	Thanks     bool     `json:"thanks,omitempty" doc:"The visit is over, its work done: the draft says so"`

	prepare []string // what the client gets ready
	next    day.Day  // the visit after it
}

// Tellings are the days from today on that a client does not know yet, by day.
func (h *Room) Tellings(ctx context.Context, ahead int, style quantity.Style) ([]Telling, error) {
	today := h.Today()
	list, err := h.Store.SheetsBetween(ctx, today.String(), (today + day.Day(ahead)).String(), days.Shown)
	if err != nil {
		return nil, err
	}
	firm, err := h.Firm(ctx)
	if err != nil {
		return nil, err
	}
	book, err := h.Book(ctx)
	if err != nil {
		return nil, err
	}
	teller, err := h.Work.Teller(ctx)
	if err != nil {
		return nil, err
	}
	out := []Telling{}
	at := map[visitOf]int{}
	for _, k := range list {
		on := store.DayOf(k.Day)
		if k.Told == on.String() || teller.Waits(k.Order) != nil { // what waits for a look has no day to tell of
			continue
		}
		i, err := h.visitAt(ctx, &out, at, visitOf{k.PropertyID, on})
		if err != nil {
			return nil, err
		}
		t := &out[i]
		t.add(k, titleForClient(k, book))
		if k.Told != "" {
			t.Before = store.DayOf(&k.Told)
		}
	}
	fallen, err := h.fallen(ctx, book)
	if err != nil {
		return nil, err
	}
	out = append(out, fallen...)
	out = slices.DeleteFunc(out, func(t Telling) bool { return len(t.Jobs) == 0 }) // nothing there is for the client
	for i := range out {
		out[i].Text = style.Text(out[i].visit(firm.Name).Draft())
	}
	slices.SortStableFunc(out, func(a, b Telling) int { return cmp.Compare(a.Day, b.Day) })
	return out, nil
}

// visitAt is where a visit stands among those told of; one that is not there yet is put at the end.
func (h *Room) visitAt(ctx context.Context, list *[]Telling, at map[visitOf]int, v visitOf) (int, error) {
	if i, known := at[v]; known {
		return i, nil
	}
	p, err := h.Store.Property(ctx, v.property)
	if err != nil {
		return 0, err
	}
	at[v] = len(*list)
	*list = append(*list, Telling{
		PropertyID: p.ID,
		Property:   p.Name,
		Client:     p.Client,
		Day:        v.day,
		Orders:     []int64{},
		Jobs:       []string{},
	})
	return at[v], nil
}

// arrives notes when the crew comes, by the first of the visit's jobs that has an hour.
func (t *Telling) arrives(k store.OrderFull) {
	if h := letter.Arriving(k.Place / rounds.PlanPlace); h.To > 0 && (t.ToMinute == 0 || h.From < t.FromMinute) {
		t.FromMinute, t.ToMinute = h.From, h.To
	}
}

// visit is what its letter tells of.
func (t Telling) visit(firm string) letter.Visit {
	return letter.Visit{
		Client:   t.Client,
		Property: t.Property,
		Firm:     firm,
		Day:      t.Day,
		Before:   t.Before,
		Hours:    letter.Hours{From: t.FromMinute, To: t.ToMinute},
		Jobs:     t.Jobs,
		Prepare:  t.prepare,
		Next:     t.next,
	}
}

// fallen are the days that clients know and that fall without a new one.
func (h *Room) fallen(ctx context.Context, book *catalogue.Catalogue) ([]Telling, error) {
	out := []Telling{}
	at := map[visitOf]int{}
	off, err := h.Store.ToldWithoutDay(ctx, h.Today().String())
	if err != nil {
		return nil, err
	}
	for _, k := range off {
		told := store.DayOf(&k.Told)
		i, err := h.visitAt(ctx, &out, at, visitOf{k.PropertyID, told})
		if err != nil {
			return nil, err
		}
		t := &out[i]
		t.Day, t.Before, t.Orders = day.None, told, append(t.Orders, k.ID)
		if words := titleForClient(k, book); words != "" {
			t.Jobs = append(t.Jobs, words)
		}
	}
	return out, nil
}

// titleForClient is a piece of work in the client's words, with its plant; empty where it is not for them.
func titleForClient(k store.OrderFull, book *catalogue.Catalogue) string {
	words, told := kinds.ForClient(k.Kind, k.Params.V, k.Title)
	if told && k.PlantID.Valid {
		words += ": " + nameOf(k, book)
	}
	return words
}

// Told notes that clients know the days of some jobs: those stay when rounds are proposed again, unless nothing else can
// be.
func (h *Room) Told(ctx context.Context, key store.Key, orders []int64, told bool) error {
	_, err := store.Once(ctx, h.Store, key, func(tx store.Tx) (struct{}, error) {
		for _, id := range orders {
			if err := tx.Told(ctx, id, told); err != nil {
				return struct{}{}, err
			}
		}
		return struct{}{}, nil
	})
	return err
}
