package letters

import (
	"cmp"
	"context"
	"fmt"
	"slices"
	"strings"

	"mezzadro/core/catalogue"
	"mezzadro/core/day"
	"mezzadro/core/kinds"
	"mezzadro/core/quantity"
	"mezzadro/house/days"
	"mezzadro/house/estate"
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

	prepare []string // what the client gets ready
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
	at := map[string]int{}
	for _, k := range list {
		on := store.DayOf(k.Day)
		if k.Told == on.String() || teller.Waits(k.Order) != nil { // what waits for a look has no day to tell of
			continue
		}
		key := fmt.Sprint(k.PropertyID, on)
		i, known := at[key]
		if !known {
			p, err := h.Store.Property(ctx, k.PropertyID)
			if err != nil {
				return nil, err
			}
			i, at[key] = len(out), len(out)
			out = append(
				out,
				Telling{
					PropertyID: p.ID,
					Property:   p.Name,
					Client:     p.Client,
					Day:        on,
					Orders:     []int64{},
					Jobs:       []string{},
				},
			)
		}
		t := &out[i]
		t.Orders = append(t.Orders, k.ID)
		if words := titleForClient(k, book); words != "" {
			t.Jobs = append(t.Jobs, words)
			if p := kinds.Prepare(k.Kind, k.Params.V, k.Body.V.Skills); p != "" && !slices.Contains(t.prepare, p) {
				t.prepare = append(t.prepare, p)
			}
		}
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
		out[i].Text = style.Text(out[i].draft(firm.Name))
	}
	slices.SortStableFunc(out, func(a, b Telling) int { return cmp.Compare(a.Day, b.Day) })
	return out, nil
}

// fallen are the days that clients know and that fall without a new one.
func (h *Room) fallen(ctx context.Context, book *catalogue.Catalogue) ([]Telling, error) {
	out := []Telling{}
	at := map[string]int{}
	off, err := h.Store.ToldWithoutDay(ctx, h.Today().String())
	if err != nil {
		return nil, err
	}
	for _, k := range off {
		t := at[fmt.Sprint(k.PropertyID, k.Told)]
		if t == 0 {
			p, err := h.Store.Property(ctx, k.PropertyID)
			if err != nil {
				return nil, err
			}
			out = append(out, Telling{PropertyID: p.ID, Property: p.Name, Client: p.Client, Day: day.None, Before: store.DayOf(&k.Told), Orders: []int64{}, Jobs: []string{}})
			t = len(out)
			at[fmt.Sprint(k.PropertyID, k.Told)] = t
		}
		out[t-1].Orders, out[t-1].Jobs = append(out[t-1].Orders, k.ID), append(out[t-1].Jobs, titleForClient(k, book))
	}
	return out, nil
}

// titleForClient is a piece of work in the client's words, with its plant; empty where it is not for them.
func titleForClient(k store.OrderFull, book *catalogue.Catalogue) string {
	words, told := kinds.ForClient(k.Kind, k.Params.V, k.Title)
	if told && k.PlantID.Valid {
		words += ": " + estate.PlantName(estate.EntryOf(book, k.Species).Common, k.Label)
	}
	return words
}

// draft is what would be written.
func (t Telling) draft(firm string) string {
	var b strings.Builder
	if t.Client != "" {
		fmt.Fprintf(&b, "%s:\n\n", t.Client)
	}
	if !t.Day.Given() {
		fmt.Fprintf(&b, "We cannot come to %s on %s as we had said, and say the new day as soon as it stands. It is about:\n", t.Property, quantity.Day(t.Before))
		for _, j := range t.Jobs {
			fmt.Fprintf(&b, "- %s\n", j)
		}
		fmt.Fprintf(&b, "\n%s", firm)
		return b.String()
	}
	if t.Before.Given() {
		fmt.Fprintf(
			&b,
			"We come to %s on %s, and not on %s as we had said.",
			t.Property,
			quantity.Day(t.Day),
			quantity.Day(t.Before),
		)
	} else {
		fmt.Fprintf(&b, "We come to %s on %s.", t.Property, quantity.Day(t.Day))
	}
	b.WriteString(" We plan to do:\n")
	for _, j := range t.Jobs {
		fmt.Fprintf(&b, "- %s\n", j)
	}
	b.WriteString("\n")
	for _, p := range t.prepare {
		b.WriteString(p + "\n")
	}
	fmt.Fprintf(&b, "Please keep the way in clear, and children and pets away from the work. If the weather puts it off, we let you know.\n\n%s", firm)
	return b.String()
}

// Told notes that clients know the days of some jobs: those stay when rounds are found anew, unless nothing else can
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
