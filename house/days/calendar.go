package days

import (
	"cmp"
	"context"
	"fmt"
	"strings"
	"time"

	"mezzadro/core/day"
	"mezzadro/core/quantity"
	"mezzadro/exchange"
	"mezzadro/house/rounds"
	"mezzadro/store"
)

// startsAt is when the crew's day begins, minutes after midnight.
const startsAt = 8 * 60

// Calendar is the work of some days, of a crew or of all, as an iCalendar file, in the reader's units. Work that
// rounds have put on a day has its time; the rest follows from eight on.
func (h *Room) Calendar(ctx context.Context, from, to day.Day, crew int64, style quantity.Style) (string, error) {
	name, err := h.Crew.CrewName(ctx, crew)
	if err != nil {
		return "", err
	}
	orders, err := h.Store.SheetsBetween(ctx, from.String(), to.String(), Shown)
	if err != nil {
		return "", err
	}
	f, err := h.flagger(ctx)
	if err != nil {
		return "", err
	}
	here, book, err := h.whereOf(ctx)
	if err != nil {
		return "", err
	}
	flags := f.flags(orders)
	var entries []exchange.Entry
	at, visit, last := 0, 0, day.None
	for _, k := range orders {
		if crew != 0 && k.CrewID != crew {
			continue
		}
		d := store.DayOf(k.Day)
		if d != last {
			at, last = startsAt, d
		}
		if planned := k.Place / rounds.PlanPlace; planned > 0 && planned != visit {
			at, visit = planned, planned
		}
		general, holds := holdsFor(here[k.PropertyID], book, &k, d)
		entries = append(entries, flagged(entry(k, d, at, append(general, holds...), style), k, d, flags, style))
		at += k.Minutes
	}
	title := cmp.Or(name, "Round") + " from " + from.String()
	return exchange.Calendar(title, h.Today().Time().Add(6*time.Hour), entries), nil
}

// flagged says in front of an entry what cannot be as it stands: once, on the first job it is about.
func flagged(e exchange.Entry, k store.OrderFull, d day.Day, flags []Flag, style quantity.Style) exchange.Entry {
	for i, x := range flags {
		if x.Text != "" && x.Day == d && x.Crew == k.CrewID && (x.PropertyID == 0 || x.PropertyID == k.PropertyID) {
			e.Detail = append([]string{style.Text("Cannot be as it stands: " + x.Text)}, e.Detail...)
			flags[i].Text = ""
		}
	}
	return e
}

func entry(k store.OrderFull, d day.Day, at int, cautions []string, style quantity.Style) exchange.Entry {
	title := k.Title
	if k.Label != "" {
		title += ", " + k.Label
	}
	b := k.Body.V
	people := "one person"
	if k.CrewSize > 1 {
		people = fmt.Sprintf("%d people", k.CrewSize)
	}
	detail := append([]string{fmt.Sprintf("About %d minutes for %s.", k.Minutes, people)}, b.Reasons...)
	if len(b.Skills) > 0 {
		detail = append(detail, "Only for: "+strings.Join(b.Skills, ", ")+".")
	}
	if len(b.Kit) > 0 {
		detail = append(detail, "Take along: "+strings.Join(b.Kit, ", ")+".")
	}
	for _, c := range cautions {
		detail = append(detail, "Caution: "+c)
	}
	place := k.Property
	if k.Address != "" {
		place += ", " + k.Address
	}
	return exchange.Entry{
		ID:          k.ID,
		Day:         d,
		Title:       style.Text(title),
		Place:       place,
		Detail:      style.Texts(detail),
		Minutes:     k.Minutes,
		StartMinute: at,
	}
}
