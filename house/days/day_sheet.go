package days

import (
	"cmp"
	"context"
	"fmt"
	"slices"
	"strings"
	"time"

	"mezzadro/core/catalogue"
	"mezzadro/core/day"
	"mezzadro/core/job"
	"mezzadro/core/load"
	"mezzadro/core/quantity"
	"mezzadro/exchange"
	"mezzadro/house/crews"
	"mezzadro/house/estate"
	"mezzadro/house/rounds"
	"mezzadro/house/work"
	"mezzadro/store"
)

// Sheet is a crew's day.
type Sheet struct {
	Day    day.Day      `json:"day" format:"date"`
	Crew   string       `json:"crew" doc:"Its name; empty: of all"`
	Crews  []SheetCrew  `json:"crews" doc:"That have work on the day"`
	Visits []SheetVisit `json:"visits" doc:"In the order of the day"`
	Kit    []string     `json:"kit" doc:"What is taken along in the morning"`
	Load   []load.Item  `json:"load" doc:"The same with amounts, and what comes back: estimates"`
	Skills []string     `json:"skills" doc:"What some of the work asks for"`
	Flags  []string     `json:"flags" doc:"What cannot be as it stands: a day off, more than the hours of who goes"`
	Mixes  bool         `json:"mixes" doc:"Something is mixed: there is a mix card"`
}

// SheetCrew is a crew that has work on the day.
type SheetCrew struct {
	ID   int64  `json:"id"`
	Name string `json:"name"`
}

// SheetVisit is a property of the day.
type SheetVisit struct {
	PropertyID int64      `json:"property_id"`
	Property   string     `json:"property"`
	Address    string     `json:"address"`
	Note       string     `json:"note" doc:"What to mind there"`
	Gate       string     `json:"gate" doc:"Gate, key, parking"`
	At         int        `json:"at,omitempty" doc:"Arrival, minutes after midnight; absent where nobody planned it"`
	Minutes    int        `json:"minutes"`
	Crew       int64      `json:"crew,omitempty" doc:"Whose visit; absent where no crew has it"`
	Flags      []string   `json:"flags" doc:"What cannot be as it stands: a shut gate, weather that the work does not bear"`
	Jobs       []SheetJob `json:"jobs"`
}

// SheetJob is a job with what the crew has to know.
type SheetJob struct {
	work.Order
	Kit      []string          `json:"kit"`
	Skills   []string          `json:"skills"`
	Cautions []string          `json:"cautions"`
	Why      []string          `json:"why"`
	Params   job.Params        `json:"params"`
	Photos   []work.OrderPhoto `json:"photos" doc:"Taken at the job"`
}

// Sheet is the day of a crew, or of all.
func (h *Room) Sheet(ctx context.Context, on day.Day, crew int64) (Sheet, error) {
	out := Sheet{Day: on, Crews: []SheetCrew{}, Visits: []SheetVisit{}, Kit: []string{}, Load: []load.Item{}, Skills: []string{}, Flags: []string{}}
	var err error
	if out.Crew, err = h.Crew.CrewName(ctx, crew); err != nil {
		return out, err
	}
	list, err := h.Store.SheetOf(ctx, on.String(), Shown)
	if err != nil {
		return out, err
	}
	teller, err := h.Work.Teller(ctx)
	if err != nil {
		return out, err
	}
	shots, err := h.Store.DayPhotos(ctx, on.String())
	if err != nil {
		return out, err
	}
	here, book, err := h.whereOf(ctx)
	if err != nil {
		return out, err
	}
	visits, err := h.sheetVisits(ctx, here)
	if err != nil {
		return out, err
	}
	taken := map[int64][]work.OrderPhoto{}
	for _, p := range shots {
		taken[p.OrderID] = append(taken[p.OrderID], work.TellOrderPhoto(p))
	}
	add := func(to *[]string, from []string) {
		for _, v := range from {
			if !slices.Contains(*to, v) {
				*to = append(*to, v)
			}
		}
	}
	for _, k := range list {
		if of := (SheetCrew{k.CrewID, k.Crew}); of.ID != 0 && !slices.Contains(out.Crews, of) {
			out.Crews = append(out.Crews, of)
		}
		if crew != 0 && k.CrewID != crew {
			continue
		}
		if n := len(out.Visits); n == 0 || out.Visits[n-1].PropertyID != k.PropertyID || out.Visits[n-1].Crew != k.CrewID {
			v := visits[k.PropertyID]
			v.Jobs, v.Flags, v.Crew = []SheetJob{}, []string{}, k.CrewID
			out.Visits = append(out.Visits, v)
		}
		v := &out.Visits[len(out.Visits)-1]
		if k.Place >= rounds.PlanPlace && v.At == 0 {
			v.At = k.Place / rounds.PlanPlace
		}
		b := k.Body.V
		general, holds := holdsFor(here[k.PropertyID], book, &k, on)
		v.Jobs = append(
			v.Jobs,
			SheetJob{teller.Tell(k.Order), append([]string{}, b.Kit...), append([]string{}, b.Skills...),
				append(general, v.unsaid(holds)...), append([]string{}, b.Reasons...), k.Params.V,
				append([]work.OrderPhoto{}, taken[k.ID]...)},
		)
		v.Minutes += k.Minutes
		add(&out.Kit, b.Kit)
		add(&out.Skills, b.Skills)
		out.Mixes = out.Mixes || k.Kind == job.Treat && k.Params.V.Use != ""
	}
	if out.Load, err = h.load(ctx, list, crew, true); err != nil {
		return out, err
	}
	return out, h.flag(ctx, &out, list)
}

// SheetPage is a crew's day in words, to be printed.
func (h *Room) SheetPage(ctx context.Context, on day.Day, crew int64, style quantity.Style) (exchange.DaySheet, error) {
	s, err := h.Sheet(ctx, on, crew)
	if err != nil {
		return exchange.DaySheet{}, err
	}
	out := exchange.DaySheet{Title: style.Text(quantity.Day(on)) + ", " + cmp.Or(s.Crew, "all crews")}
	say := func(list *[]string, before string, words ...string) {
		words = slices.DeleteFunc(words, func(w string) bool { return strings.TrimSpace(w) == "" })
		if len(words) > 0 {
			*list = append(*list, style.Text(before+strings.Join(words, ", ")))
		}
	}
	along := []string{}
	for _, x := range s.Load {
		along = append(along, x.Text())
	}
	say(&out.Morning, "Take along: ", along...)
	say(&out.Morning, "Only for: ", s.Skills...)
	if s.Mixes {
		out.Morning = append(out.Morning, "Something is mixed: take the mix card too. The label comes first.")
	}
	for _, v := range s.Visits {
		to := exchange.SheetVisit{Head: fmt.Sprintf("%s, %d min", v.Property, v.Minutes)}
		if v.At > 0 {
			to.Head = style.Text(quantity.Hour(v.At)) + "  " + to.Head
		}
		say(&to.Mind, "", v.Address)
		say(&to.Mind, "", v.Gate)
		say(&to.Mind, "Mind: ", v.Note)
		for _, j := range v.Jobs {
			k := exchange.SheetJob{Title: style.Text(j.Title), Detail: fmt.Sprintf("%s, %d min", cmp.Or(j.Label, j.Common, "the property"), j.Minutes)}
			if j.State != job.Placed {
				k.Detail += ", " + string(j.State)
			}
			switch {
			case j.Hold != nil && j.Hold.Anyway != "":
				say(&k.Mind, "", j.Hold.Why, "Done all the same: "+j.Hold.Anyway)
			case j.Hold != nil:
				say(&k.Mind, "LET IT WAIT. ", j.Hold.Why)
			}
			for _, text := range slices.Concat(j.Why, j.Cautions) {
				say(&k.Mind, "", text)
			}
			to.Jobs = append(to.Jobs, k)
		}
		out.Visits = append(out.Visits, to)
	}
	return out, nil
}

// whereOf are the properties by id, and the book of kinds.
func (h *Room) whereOf(ctx context.Context) (map[int64]store.Property, *catalogue.Catalogue, error) {
	places, err := h.Store.Properties(ctx, 0, store.All)
	if err != nil {
		return nil, nil, err
	}
	out := make(map[int64]store.Property, len(places))
	for _, p := range places {
		out[p.ID] = p
	}
	book, err := h.Book(ctx)
	return out, book, err
}

// holdsFor are the cautions of a job, and those of its country and state that somebody at work must know.
func holdsFor(p store.Property, book *catalogue.Catalogue, k *store.OrderFull, on day.Day) (general, holds []string) {
	own := append([]string{}, k.Body.V.Cautions...)
	if k.Species == "" {
		return own, nil
	}
	e := estate.EntryOf(book, k.Species)
	return estate.HoldsFor(p, &e, k.Kind, k.Params.V.Cause, on, true, own)
}

// unsaid are those of some cautions that no earlier job of the visit has: what holds in a place is said once there.
func (v *SheetVisit) unsaid(texts []string) []string {
	return slices.DeleteFunc(texts, func(t string) bool {
		return slices.ContainsFunc(v.Jobs, func(j SheetJob) bool { return slices.Contains(j.Cautions, t) })
	})
}

// sheetVisits are properties as visits without jobs yet, by id.
func (h *Room) sheetVisits(ctx context.Context, places map[int64]store.Property) (map[int64]SheetVisit, error) {
	access, err := h.Store.Accesses(ctx)
	out := make(map[int64]SheetVisit, len(places))
	for _, p := range places {
		out[p.ID] = SheetVisit{PropertyID: p.ID, Property: p.Name, Address: p.Address, Note: p.Note, Gate: access[p.ID].Note}
	}
	return out, err
}

// Route is the way of a crew's day: from where it begins over its visits and back.
func (h *Room) Route(ctx context.Context, on day.Day, crew int64) (string, []exchange.RouteStop, error) {
	sheet, err := h.Sheet(ctx, on, crew)
	if err != nil {
		return "", nil, err
	}
	all, err := h.Crew.Crews(ctx)
	if err != nil {
		return "", nil, err
	}
	out := []exchange.RouteStop{}
	start := slices.IndexFunc(all, func(c crews.Crew) bool { return c.ID == crew && c.Start != nil })
	home := func() {
		if start >= 0 {
			at := all[start].Start
			out = append(out, exchange.RouteStop{Name: sheet.Crew, Latitude: at.Latitude, Longitude: at.Longitude})
		}
	}
	home()
	for _, v := range sheet.Visits {
		p, err := h.Store.Property(ctx, v.PropertyID)
		if err != nil {
			return "", nil, err
		}
		s := exchange.RouteStop{
			Name:      v.Property,
			Detail:    v.Address,
			Latitude:  p.Climate.V.Latitude,
			Longitude: p.Climate.V.Longitude,
		}
		if v.At > 0 {
			s.At = on.Time().Add(time.Duration(v.At) * time.Minute)
		}
		out = append(out, s)
	}
	if len(sheet.Visits) > 0 {
		home()
	}
	name := on.String()
	if sheet.Crew != "" {
		name = sheet.Crew + ", " + name
	}
	return name, out, nil
}
