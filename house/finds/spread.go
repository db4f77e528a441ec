package finds

import (
	"cmp"
	"context"
	"fmt"
	"slices"
	"strings"

	"mezzadro/core/cause"
	"mezzadro/core/day"
	"mezzadro/core/invalid"
	"mezzadro/core/job"
	"mezzadro/house/estate"
	"mezzadro/house/work"
	"mezzadro/store"
)

// WatchGroup is the plants to look at on one property because of what was found on others.
type WatchGroup struct {
	Find       int64        `json:"find" doc:"The find that weighs most"`
	Cause      string       `json:"cause"`
	Name       string       `json:"name"`
	Harm       string       `json:"harm" enum:"harmless,ugly,weakening,deadly"`
	Report     bool         `json:"report"`
	PropertyID int64        `json:"property_id"`
	Property   string       `json:"property"`
	Sick       bool         `json:"sick" doc:"It was found here: this property comes last on a day"`
	Why        string       `json:"why"`
	Plants     []WatchPlant `json:"plants" doc:"The likeliest first"`
	Minutes    int          `json:"minutes" doc:"Estimate for looking at all of them"`
}

// WatchPlant is a plant to look at.
type WatchPlant struct {
	ID     int64   `json:"id"`
	Title  string  `json:"title"`
	Chance float64 `json:"chance" doc:"Rough, 0 to 1"`
}

// SpreadWatch tells which plants to look at now because of what was found on others: clean properties before those where it
// was found, the worst trouble first. A plant that was looked at since is off the list.
func (h *Room) SpreadWatch(ctx context.Context) ([]WatchGroup, error) {
	finds, err := h.founds(ctx)
	if err != nil || len(finds) == 0 {
		return []WatchGroup{}, err
	}
	book, err := h.Book(ctx)
	if err != nil {
		return nil, err
	}
	t, err := h.Triage(ctx) // has all plants and properties at hand
	if err != nil {
		return nil, err
	}
	properties := make([]store.Property, len(t.Places))
	for i, pl := range t.Places {
		properties[i] = pl.Property
	}
	byID, plants := make(map[int64]*store.Plant, len(t.Kept)), make([]cause.Standing, 0, len(t.Kept))
	for i := range t.Kept {
		p := &t.Kept[i]
		byID[p.ID] = p
		if e, known := book.Entry(p.Species); known {
			plants = append(plants, cause.Standing{Plant: p.ID, Property: p.PropertyID, Species: e})
		}
	}
	looked, err := h.Store.LookedLast(ctx)
	if err != nil {
		return nil, err
	}
	found := map[int64]cause.Found{}
	for _, f := range finds {
		found[f.ID] = f
	}
	names := map[int64]string{}
	for _, p := range properties {
		names[p.ID] = p.Name
	}
	groups := map[string]*WatchGroup{}
	for _, s := range cause.Built().Watch(finds, plants, h.between(properties, book), h.Today()) {
		p, f := byID[s.Plant], found[s.Find]
		if on := looked[p.ID]; on != "" && store.DayOf(&on) >= f.Day {
			continue
		}
		key := fmt.Sprint(s.Cause, " ", p.PropertyID)
		g := groups[key]
		if g == nil {
			c := cause.Built().Cause(s.Cause)
			g = &WatchGroup{Find: s.Find, Cause: s.Cause, Name: s.Name, Harm: c.Harm, Report: c.Report, PropertyID: p.PropertyID, Property: names[p.PropertyID], Why: s.Why,
				Sick: slices.ContainsFunc(finds, func(f cause.Found) bool { return f.Cause == s.Cause && f.Property == p.PropertyID && !f.Closed })}
			groups[key] = g
		}
		g.Plants = append(g.Plants, WatchPlant{p.ID, estate.PlantTitle(book, *p), s.Chance})
		g.Minutes = job.LookMinutes(len(g.Plants))
	}
	return cleanFirst(groups), nil
}

// cleanFirst orders what to look for: by harm, then by cause, and of each cause clean properties before sick ones.
func cleanFirst(groups map[string]*WatchGroup) []WatchGroup {
	out := make([]WatchGroup, 0, len(groups))
	for _, g := range groups {
		out = append(out, *g)
	}
	rank := map[string]int{"deadly": 0, "weakening": 1, "ugly": 2, "harmless": 3}
	sick := func(g WatchGroup) int {
		if g.Sick {
			return 1
		}
		return 0
	}
	slices.SortFunc(out, func(x, y WatchGroup) int {
		return cmp.Or(cmp.Compare(rank[x.Harm], rank[y.Harm]), cmp.Compare(x.Cause, y.Cause), cmp.Compare(sick(x), sick(y)),
			cmp.Compare(y.Plants[0].Chance, x.Plants[0].Chance), cmp.Compare(x.PropertyID, y.PropertyID))
	})
	return out
}

// LookFor asks for one look at all plants of a property that may have what was found: one job, clean plants first. Where
// plants are named, it is at these.
func (h *Room) LookFor(ctx context.Context, key store.Key, find, property int64, on day.Day, at []int64) (work.OrderDetail, error) {
	f, err := h.OneFind(ctx, find)
	if err != nil {
		return work.OrderDetail{}, err
	}
	if len(at) > 0 {
		note := fmt.Sprintf("%s was found on %s. Clean blades, gloves and boots before and after.", f.Name, cmp.Or(f.Plant, "this property"))
		return h.Work.AddOrder(ctx, key, h.lookAt(f.Name, property, on, at, note))
	}
	groups, err := h.SpreadWatch(ctx)
	if err != nil {
		return work.OrderDetail{}, err
	}
	i := slices.IndexFunc(groups, func(g WatchGroup) bool { return g.Cause == f.Cause && g.PropertyID == property })
	if i < 0 {
		return work.OrderDetail{}, invalid.One("property_id", property, "has no plant that is to be looked at for this now")
	}
	g := groups[i]
	ids := []int64{}
	for _, p := range slices.Backward(g.Plants) { // the least likely first: clean before sick
		ids = append(ids, p.ID)
	}
	note := g.Why + " Clean plants before sick ones: the likeliest last. Clean blades, gloves and boots before and after."
	if g.Report {
		note += " Reportable in many places: move nothing, ask the plant health office."
	}
	return h.Work.AddOrder(ctx, key, h.lookAt(g.Name, property, on, ids, note))
}

// lookAt is the job of a look at plants for a cause, as it is entered.
func (h *Room) lookAt(name string, property int64, on day.Day, plants []int64, note string) work.HandOrder {
	today := h.Today()
	from := today
	if on.Given() {
		from = on
	}
	return work.HandOrder{PropertyID: property, Kind: job.Walk, Title: "Look for " + strings.ToLower(name[:1]) + name[1:],
		Minutes: job.LookJobMinutes(len(plants)), CrewSize: 1, Plants: plants, Note: note, Day: on,
		Spans: []work.SpanIn{{From: min(today, from), To: from + 14}}}
}
