package letters

import (
	"cmp"
	"context"
	"fmt"
	"slices"

	"mezzadro/core/catalogue"
	"mezzadro/core/day"
	"mezzadro/core/letter"
	"mezzadro/core/quantity"
	"mezzadro/house/days"
	"mezzadro/house/estate"
	"mezzadro/store"
)

// thankedFor is for how long after a visit thanks are drafted, days.
const thankedFor = 5

// visitOf is a property on a day.
type visitOf struct {
	property int64
	day      day.Day
}

// Thanks are drafts after the visits of the last days: what was done, where nothing of the visit is left to do, and
// nobody has been written to yet.
func (h *Room) Thanks(ctx context.Context, style quantity.Style) ([]Telling, error) {
	today := h.Today()
	done, err := h.Store.DoneBetween(ctx, 0, (today - thankedFor).String(), today.String())
	if err != nil {
		return nil, err
	}
	skip, err := h.written(ctx, letter.Thanks, today-thankedFor)
	if err != nil {
		return nil, err
	}
	standing, err := h.Store.SheetsBetween(ctx, (today - thankedFor).String(), (today + yearAhead).String(), days.Shown)
	if err != nil {
		return nil, err
	}
	next := map[int64]day.Day{}
	for _, k := range standing {
		d := store.DayOf(k.Day)
		skip[visitOf{k.PropertyID, d}] = true // not all of it is done
		if k.Told == d.String() && d > today && next[k.PropertyID] == 0 {
			next[k.PropertyID] = d
		}
	}
	firm, err := h.Firm(ctx)
	if err != nil {
		return nil, err
	}
	book, err := h.Book(ctx)
	if err != nil {
		return nil, err
	}
	out, err := h.doneVisits(ctx, done, skip, book)
	for i := range out {
		out[i].next = next[out[i].PropertyID]
		out[i].Text = style.Text(out[i].visit(firm.Name).Thanks())
	}
	return out, err
}

// yearAhead is how far the next visit is looked for, days.
const yearAhead = 366

// doneVisits are the jobs that were done, by visit, in the client's words; without those that are skipped.
func (h *Room) doneVisits(
	ctx context.Context,
	done []store.OrderFull,
	skip map[visitOf]bool,
	book *catalogue.Catalogue,
) ([]Telling, error) {
	out, at := []Telling{}, map[visitOf]int{}
	for _, k := range done {
		v := visitOf{k.PropertyID, store.DayOf(k.Ended)}
		words := titleForClient(k, book)
		if skip[v] || words == "" {
			continue
		}
		i, err := h.visitAt(ctx, &out, at, v)
		if err != nil {
			return nil, err
		}
		out[i].Thanks = true
		out[i].add(k, words)
	}
	slices.SortStableFunc(out, func(a, b Telling) int { return cmp.Compare(b.Day, a.Day) })
	return out, nil
}

// written are the visits from a day on that a letter about something was written of.
func (h *Room) written(ctx context.Context, about letter.About, from day.Day) (map[visitOf]bool, error) {
	list, err := h.Store.LettersAbout(ctx, string(about), from.String())
	out := map[visitOf]bool{}
	for _, l := range list {
		out[visitOf{l.PropertyID, store.DayOf(&l.Day)}] = true
	}
	return out, err
}

// SendThanks writes to the clients of a property after a visit, once.
func (h *Room) SendThanks(ctx context.Context, key store.Key, in ThanksIn) (Letter, error) {
	if h.Post == nil {
		return Letter{}, store.Refused("no outgoing post is set up")
	}
	p, err := h.Store.Property(ctx, in.PropertyID)
	if err != nil {
		return Letter{}, err
	}
	row := store.Letter{
		PropertyID: p.ID,
		Addressee:  cmp.Or(p.Client, p.Name),
		Day:        in.Day.String(),
		Body:       in.Text,
		Sent:       h.Ledger.Now().Unix(),
		Subject:    letter.Subject(p.Name, letter.Thanks),
		About:      string(letter.Thanks),
	}
	if err := h.addressed(ctx, &row, "days"); err != nil {
		return Letter{}, err
	}
	return h.give(ctx, key, row)
}

// ThanksIn is a letter after a visit, as it was looked over.
type ThanksIn struct {
	PropertyID int64   `json:"property_id" minimum:"1"`
	Day        day.Day `json:"day" format:"date" doc:"Of the visit"`
	Text       string  `json:"text" minLength:"1" maxLength:"20000" doc:"The letter"`
}

// give keeps a letter that changes nothing else and gives it to the post; of one that is not taken nothing is kept.
func (h *Room) give(ctx context.Context, key store.Key, row store.Letter) (Letter, error) {
	id, err := store.Once(ctx, h.Store, key, func(tx store.Tx) (int64, error) { return tx.AddLetter(ctx, row) })
	if err != nil {
		return Letter{}, err
	}
	if err := h.handed(ctx, key, id, nil); err != nil {
		return Letter{}, fmt.Errorf("letter to %s: %w", row.Addressee, err)
	}
	row, err = h.Store.Letter(ctx, id)
	return tellLetter(row), err
}

// nameOf is a plant as clients know it.
func nameOf(k store.OrderFull, book *catalogue.Catalogue) string {
	return estate.PlantName(estate.EntryOf(book, k.Species).Common, k.Label)
}
