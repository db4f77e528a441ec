package overview

import (
	"context"
	"slices"

	"mezzadro/core/cold"
	"mezzadro/core/day"
	"mezzadro/core/lookout"
	"mezzadro/house/estate"
	"mezzadro/house/finds"
	"mezzadro/house/work"
	"mezzadro/store"
)

// Lookout is what weather and season ask now, over all properties.
type Lookout struct {
	Events       []estate.EventGroup `json:"events" doc:"Events of the last months; first the one that hurt most plants"`
	Places       []PlaceLine         `json:"places" doc:"All properties, the one to visit first first"`
	Groups       []LookGroup         `json:"groups" doc:"The look-list by property, the most pressing first"`
	Looks        int                 `json:"looks" doc:"Plants or groups to look at, over all properties"`
	Deep         int                 `json:"deep" doc:"Those of them with more than buds, leaves or flowers hurt"`
	Slight       int                 `json:"slight" doc:"Plants hurt a little, by which little is lost by waiting: not on the list"`
	Unhurt       int                 `json:"unhurt" doc:"Plants the events left well within what they bear"`
	Looked       int                 `json:"looked" doc:"Plants of the list already decided on"`
	Shelter      []estate.PlantOut   `json:"shelter" doc:"Tender plants to be lifted or taken in before the first frost, and not decided on yet; up to 60"`
	Tender       int                 `json:"tender" doc:"How many there are of them"`
	Overdue      []work.Order        `json:"overdue" doc:"Jobs that were on a past day and are not ticked off, the oldest first; up to 60"`
	Late         int                 `json:"late" doc:"How many there are of them"`
	Due          []work.Order        `json:"due" doc:"Follow-ups whose day is within a fortnight; up to 60"`
	DueCount     int                 `json:"due_count" doc:"How many there are of them"`
	Closing      []work.Order        `json:"closing" doc:"Jobs without a day whose window closes within a fortnight; up to 60"`
	Waits        []work.Order        `json:"waits" doc:"Jobs that stand on a day and wait for what is not known yet of their plants; up to 60"`
	Awaited      []finds.Unnamed     `json:"awaited" doc:"Finds without a name of which an answer is awaited within a fortnight, or should have come"`
	ClosingCount int                 `json:"closing_count" doc:"How many there are of them"`
	Property     int64               `json:"property" doc:"Whose season the ribbon shows: where the first event was worst"`
	BackupDue    bool                `json:"backup_due" doc:"There was no backup of the record for a week"`
	Unreadable   []string            `json:"unreadable" doc:"Rows of the record that cannot be read, and are left out everywhere but on their own page, which says so"`
}

// PlaceLine is a property as it stands among the others in the morning.
type PlaceLine struct {
	PropertyID int64   `json:"property_id"`
	Property   string  `json:"property"`
	Note       string  `json:"note" doc:"People, pets and anything else to mind"`
	Plants     int     `json:"plants" doc:"Plants or groups on it"`
	Looks      int     `json:"looks" doc:"Plants to look at on a walk today: likely hurt, tender before frost, or due again"`
	Deep       int     `json:"deep" doc:"Those of them with wood, roots or heart likely hurt"`
	Due        int     `json:"due" doc:"Follow-ups whose day has come"`
	Overdue    int     `json:"overdue" doc:"Jobs that were on a past day"`
	Minutes    int     `json:"minutes" doc:"Estimate for looking at all of them"`
	Nearest    day.Day `json:"nearest" format:"date" doc:"The nearest day that something there hangs on; empty without one"`
	Why        string  `json:"why"`
}

// LookGroup is the look-list of one property.
type LookGroup struct {
	PropertyID int64             `json:"property_id"`
	Property   string            `json:"property"`
	Note       string            `json:"note" doc:"People, pets and anything else to mind"`
	Shared     []string          `json:"shared" doc:"What the weather was here, said once for all its plants"`
	Looks      []estate.PlantOut `json:"looks" doc:"The most pressing first"`
	More       int               `json:"more" doc:"Plants beyond those given"`
	Minutes    int               `json:"minutes" doc:"Estimate for looking at all of them"`
}

// How much of each list the Lookout shows.
const (
	eventsShown  = 12
	groupsShown  = 30
	looksShown   = 12
	shelterShown = 60
	asksShown    = 60
)

// Lookout gathers it.
func (h *Room) Lookout(ctx context.Context) (Lookout, error) {
	t, err := h.Triage(ctx)
	if err != nil {
		return Lookout{}, err
	}
	o := Lookout{
		Events:  t.Events[:min(len(t.Events), eventsShown)],
		Looks:   len(t.Looks),
		Slight:  t.Slight,
		Unhurt:  t.Unhurt,
		Looked:  t.Looked,
		Shelter: append([]estate.PlantOut{}, t.Shelter[:min(len(t.Shelter), shelterShown)]...),
		Tender:  len(t.Shelter),
	}
	o.Groups, o.Deep = lookGroups(t)
	o.Unreadable = store.Torn()
	if firm, err := h.Store.Firm(ctx); err != nil {
		return o, err
	} else if !firm.Sample {
		b, err := h.Firm.BackupState(ctx)
		if err != nil {
			return o, err
		}
		o.BackupDue = b.Due
	}
	if o.Places, err = h.placeLines(ctx, t); err != nil {
		return o, err
	}
	if len(t.Places) > 0 {
		o.Property = t.Places[0].Property.ID
	}
	if len(o.Events) > 0 {
		o.Property = o.Events[0].PropertyID
	}
	if err := h.Work.CurrentWindows(ctx); err != nil {
		return o, err
	}
	today, soon := t.Today.String(), (t.Today + lookout.Soon).String()
	counts, err := h.Store.CountOrders(ctx, today, soon)
	if err != nil {
		return o, err
	}
	o.Late, o.DueCount, o.ClosingCount = counts.Overdue, counts.Due, counts.Closing
	for list, to := range map[store.OrderList]*[]work.Order{store.ListOverdue: &o.Overdue, store.ListDue: &o.Due, store.ListClosing: &o.Closing} {
		page, err := h.Work.Orders(ctx, list, 0, "", asksShown)
		if err != nil {
			return o, err
		}
		*to = page.Items
	}
	if o.Waits, err = h.Work.OnADayAndWaits(ctx, asksShown); err != nil {
		return o, err
	}
	o.Awaited, err = h.Treat.Finds.Awaited(ctx)
	return o, err
}

// lookGroups is the look-list by property, the most pressing first, and how many plants are hurt deep.
func lookGroups(t *estate.Triaged) (out []LookGroup, deep int) {
	out = []LookGroup{}
	at := map[int64]int{}
	for _, p := range t.Looks {
		if cold.Deep(p.Look.Expected) {
			deep++
		}
		i, known := at[p.PropertyID]
		if !known {
			i = len(out)
			at[p.PropertyID] = i
			out = append(out, LookGroup{PropertyID: p.PropertyID, Property: p.Property, Looks: []estate.PlantOut{}, Shared: []string{}})
		}
		g := &out[i]
		g.Minutes += cold.LookMinutes
		if len(g.Looks) < looksShown {
			g.Looks = append(g.Looks, p)
			g.Shared = once(g.Shared, p.Look.Shared)
		} else {
			g.More++
		}
	}
	for _, pl := range t.Places {
		if i, any := at[pl.Property.ID]; any {
			out[i].Note = pl.Property.Note
		}
	}
	return out[:min(len(out), groupsShown)], deep
}

// placeLines are all properties, the one that asks most first.
func (h *Room) placeLines(ctx context.Context, t *estate.Triaged) ([]PlaceLine, error) {
	asked := map[int64]*lookout.Asks{}
	for _, pl := range t.Places {
		asked[pl.Property.ID] = &lookout.Asks{Nearest: day.None}
	}
	for _, p := range t.Looks {
		a := asked[p.PropertyID]
		a.Score += p.Look.Score
		if cold.Deep(p.Look.Expected) {
			a.Deep++
		} else {
			a.Soft++
		}
	}
	near := func(a *lookout.Asks, d day.Day) {
		if d != day.None && (a.Nearest == day.None || d < a.Nearest) {
			a.Nearest = d
		}
	}
	for _, p := range t.Shelter {
		a := asked[p.PropertyID]
		a.Tender++
		near(a, p.TakeIn.Before)
	}
	rows, err := h.Store.AskedByProperty(ctx, t.Today.String())
	if err != nil {
		return nil, err
	}
	for _, r := range rows {
		if a := asked[r.PropertyID]; a != nil {
			a.Due, a.Overdue = r.Due, r.Overdue
			near(a, store.DayOf(r.Nearest))
		}
	}
	places := slices.Clone(t.Places)
	slices.SortStableFunc(places, func(a, b *estate.Place) int { return lookout.First(*asked[a.Property.ID], *asked[b.Property.ID]) })
	out := make([]PlaceLine, len(places))
	for i, pl := range places {
		p, a := pl.Property, asked[pl.Property.ID]
		out[i] = PlaceLine{PropertyID: p.ID, Property: p.Name, Note: p.Note, Plants: p.Plants, Looks: a.Looks(), Deep: a.Deep,
			Due: a.Due, Overdue: a.Overdue, Minutes: a.Looks() * cold.LookMinutes, Nearest: a.Nearest, Why: a.Why()}
	}
	return out, nil
}

// once adds a text that is not there yet.
func once(list []string, text string) []string {
	for _, t := range list {
		if t == text {
			return list
		}
	}
	return append(list, text)
}
