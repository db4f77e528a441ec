package letters

import (
	"context"
	"errors"
	"slices"
	"strings"

	"mezzadro/core/day"
	"mezzadro/core/kinds"
	"mezzadro/core/letter"
	"mezzadro/core/quantity"
	"mezzadro/house/clients"
	"mezzadro/house/days"
	"mezzadro/store"
)

// remindsFrom is the hour of the evening before from which clients are reminded, by the property's clock.
const remindsFrom = 17

// Remind writes to clients who want it, on the evening before a visit whose day they know: once a visit, by mail alone.
// It is called now and then; before five in the afternoon of a property nothing of it goes out.
func (h *Room) Remind(ctx context.Context) error {
	set, err := h.Mail(ctx)
	if err != nil || set.Host == "" || h.Post == nil {
		return err
	}
	known, err := h.Clients.Clients(ctx, 0)
	if err != nil || !slices.ContainsFunc(known, func(c clients.Client) bool { return wants(c, 0) }) {
		return err
	}
	today := h.Today()
	list, err := h.Store.SheetsBetween(ctx, today.String(), (today + 2).String(), days.Shown)
	if err != nil {
		return err
	}
	already, err := h.written(ctx, letter.Reminder, today)
	if err != nil {
		return err
	}
	teller, err := h.Work.Teller(ctx)
	if err != nil {
		return err
	}
	of := map[visitOf][]store.OrderFull{}
	for _, k := range list {
		if teller.Waits(k.Order) != nil { // it is looked at first
			continue
		}
		v := visitOf{k.PropertyID, store.DayOf(k.Day)}
		if _, refused := h.refused.Load(v); k.Told == v.day.String() && !already[v] && !refused {
			of[v] = append(of[v], k)
		}
	}
	var all error
	for v, jobs := range of {
		all = errors.Join(all, h.remind(ctx, v, jobs, known))
	}
	return all
}

// wants reports that a client has an address and wants to be reminded of visits to a property; 0: to any.
func wants(c clients.Client, property int64) bool {
	return c.Email != "" && slices.ContainsFunc(c.Of, func(o clients.AtHome) bool {
		return (property == 0 || o.PropertyID == property) && slices.Contains(o.Gets, "reminders")
	})
}

// remind writes one reminder, where it is the evening before and somebody wants it.
func (h *Room) remind(ctx context.Context, v visitOf, jobs []store.OrderFull, known []clients.Client) error {
	names, to := []string{}, []string{}
	for _, c := range known {
		if wants(c, v.property) {
			names, to = append(names, c.Name), append(to, c.Email)
		}
	}
	if len(to) == 0 {
		return nil
	}
	pl, err := h.Place(ctx, v.property)
	if err != nil {
		return err
	}
	now := h.Ledger.Now()
	if there := now.In(pl.Zone); day.FromTime(there) != v.day-1 || there.Hour() < remindsFrom {
		return nil
	}
	style, err := h.styleOfFirm(ctx)
	if err != nil {
		return err
	}
	text, err := h.reminder(ctx, v, jobs, strings.Join(names, ", "))
	if err != nil || text == "" {
		return err
	}
	row := store.Letter{
		PropertyID: v.property,
		Addressee:  strings.Join(names, ", "),
		Day:        v.day.String(),
		Body:       style.Text(text),
		Sent:       now.Unix(),
		Subject:    letter.Subject(pl.Property.Name, letter.Reminder),
		About:      string(letter.Reminder),
	}
	row.To.V = to
	_, err = h.give(ctx, store.Key{}, row)
	if errors.Is(err, ErrNotTaken) {
		h.refused.Store(v, true)
	}
	return err
}

// reminder is its text; empty where nothing of the visit is for clients.
func (h *Room) reminder(ctx context.Context, v visitOf, jobs []store.OrderFull, to string) (string, error) {
	firm, err := h.Firm(ctx)
	if err != nil {
		return "", err
	}
	book, err := h.Book(ctx)
	if err != nil {
		return "", err
	}
	p, err := h.Store.Property(ctx, v.property)
	if err != nil {
		return "", err
	}
	t := Telling{Property: p.Name, Client: to, Day: v.day}
	for _, k := range jobs {
		t.add(k, titleForClient(k, book))
	}
	if len(t.Jobs) == 0 {
		return "", nil
	}
	return t.visit(firm.Name).Reminder(), nil
}

// add takes a job into what is told, in the client's words; empty where it is not for them.
func (t *Telling) add(k store.OrderFull, words string) {
	t.Orders = append(t.Orders, k.ID)
	t.arrives(k)
	if words == "" {
		return
	}
	if !slices.Contains(t.Jobs, words) { // two treatments of one plant read the same
		t.Jobs = append(t.Jobs, words)
	}
	if p := kinds.Prepare(k.Kind, k.Params.V, k.Body.V.Skills); p != "" && !slices.Contains(t.prepare, p) {
		t.prepare = append(t.prepare, p)
	}
}

// styleOfFirm is how letters are written that nobody looks over: in the firm's units, with the year.
func (h *Room) styleOfFirm(ctx context.Context) (quantity.Style, error) {
	firm, err := h.Firm(ctx)
	return quantity.Style{
		Year:       h.Today().Year(),
		Imperial:   firm.Units == "imperial",
		MonthFirst: firm.DayOrder == "month",
		Twelve:     firm.Clock == "12",
	}, err
}
