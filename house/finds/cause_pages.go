package finds

import (
	"cmp"
	"context"
	"slices"
	"time"

	"mezzadro/core/catalogue"
	"mezzadro/core/cause"
	"mezzadro/core/day"
	"mezzadro/core/treatment"
	"mezzadro/house/estate"
	"mezzadro/store"
)

// CauseLine is a cause in the list of all.
type CauseLine struct {
	ID    string `json:"id"`
	Name  string `json:"name"`
	Group string `json:"group"`
	Harm  string `json:"harm" enum:"harmless,ugly,weakening,deadly"`
	Finds int    `json:"finds" doc:"Open finds of the firm"`

	Picture [][]string `json:"picture" doc:"Drawings of the signs that tell it, the best first, each a part and the mark on it"`
}

// Causes lists all causes of the book.
func (h *Room) Causes(ctx context.Context) ([]CauseLine, error) {
	open, err := h.Store.Finds(ctx, store.FindsOf{Open: true, Limit: store.All})
	if err != nil {
		return nil, err
	}
	count := map[string]int{}
	for _, f := range open {
		count[f.Cause]++
	}
	b := cause.Built()
	out := make([]CauseLine, len(b.Causes))
	for i, c := range b.Causes {
		out[i] = CauseLine{c.ID, c.Name, c.Group, c.Harm, count[c.ID], c.Picture}
	}
	return out, nil
}

// CausePage is what the book says of a cause, in a property's dates, with the firm's plants that may have it.
type CausePage struct {
	cause.Page
	From      day.Day    `json:"from,omitempty" format:"date" doc:"First day of the property's year on which it can be at work; absent all year round"`
	To        day.Day    `json:"to,omitempty" format:"date"`
	Wakes     day.Day    `json:"wakes,omitempty" format:"date" doc:"When the warmth that wakes it is reached this year, an estimate; absent where no warmth is known"`
	Kinds     []HostKind `json:"kinds" doc:"Kinds the firm keeps that take it, those with the most plants first"`
	SparedAre []string   `json:"spared_are" doc:"Common names of the kinds that seldom have it"`
	Open      []Find     `json:"open" doc:"Open finds of the firm"`

	Programme *treatment.Answer `json:"programme,omitempty" doc:"What would be done about it at the property today, where it shows plainly on the kind that is kept most"`
	Guard     *treatment.Answer `json:"guard,omitempty" doc:"What keeps it off there before it is there"`
	On        string            `json:"programme_on,omitempty" doc:"That kind"`
}

// HostKind is a kind the firm keeps that a cause takes.
type HostKind struct {
	Species   string `json:"species"`
	Common    string `json:"common"`
	Botanical string `json:"botanical"`
	Plants    int    `json:"plants" doc:"Plants or groups"`
	Prone     bool   `json:"prone" doc:"Known to have it again and again"`
}

// Cause tells of one cause; property 0 leaves its dates in the northern year's months.
func (h *Room) Cause(ctx context.Context, id string, property int64) (CausePage, error) {
	p := cause.Built().Page(id)
	if p == nil {
		return CausePage{}, store.ErrNotFound
	}
	out := CausePage{Page: *p, Kinds: []HostKind{}, SparedAre: []string{}, Open: []Find{}}
	book, err := h.Book(ctx)
	if err != nil {
		return out, err
	}
	for _, s := range p.Spares {
		out.SparedAre = append(out.SparedAre, estate.SpeciesNamed(book, s))
	}
	if out.Kinds, err = h.hostKinds(ctx, cause.Built().Cause(id), book); err != nil {
		return out, err
	}
	finds, err := h.Finds(ctx, store.FindsOf{Open: true, Limit: store.All})
	if err != nil {
		return out, err
	}
	for _, f := range finds {
		if f.Cause == id {
			out.Open = append(out.Open, f)
		}
	}
	if property == 0 {
		return out, nil
	}
	pl, err := h.Place(ctx, property)
	if err != nil {
		return out, err
	}
	h.causeDates(&out, pl)
	return out, h.causeProgramme(&out, pl)
}

// causeProgramme tells what would be done about a cause at a property today.
func (h *Room) causeProgramme(out *CausePage, pl *estate.Place) error {
	if len(out.Kinds) == 0 {
		return nil
	}
	e := estate.EntryOf(pl.Book, out.Kinds[0].Species)
	ask := treatment.Ask{Cause: out.ID, Species: &e, Place: pl.Cuts.Place, Date: pl.Today, Share: cause.PlainShare, Rules: pl.Rules}
	a, err := treatment.Built().Plan(ask)
	if err != nil {
		return err
	}
	ask.Prevent = true
	guard, err := treatment.Built().Plan(ask)
	out.Programme, out.Guard, out.On = &a, &guard, e.Common
	return err
}

// hostKinds are the kinds the firm keeps that a cause takes.
func (h *Room) hostKinds(ctx context.Context, c *cause.Cause, book *catalogue.Catalogue) ([]HostKind, error) {
	counts, err := h.Store.CountSpecies(ctx)
	if err != nil {
		return nil, err
	}
	out := []HostKind{}
	for id, n := range counts {
		if e, known := book.Entry(id); known && c.Takes(e) {
			out = append(out, HostKind{id, e.Common, e.Botanical, n, c.Prone(e)})
		}
	}
	slices.SortFunc(out, func(x, y HostKind) int {
		return cmp.Or(cmp.Compare(y.Plants, x.Plants), cmp.Compare(x.Common, y.Common))
	})
	return out, nil
}

// causeDates puts a cause's months and its warmth into the year of a property.
func (h *Room) causeDates(out *CausePage, pl *estate.Place) {
	if out.Warmth > 0 {
		if b, ok := pl.Year.ReachDegreeDays(pl.Today, out.Warmth); ok {
			out.Wakes = b.Mid
		}
	}
	if len(out.Months) != 2 {
		return
	}
	from, _ := pl.Normals.Climate.GardenYear(pl.Today)
	shift := 0
	if pl.Normals.Climate.South() {
		shift = 6
	}
	at := func(month int) day.Day { // its first day within the garden year
		d := day.Of(from.Year(), time.Month((month-1+shift)%12+1), 1)
		if d < from {
			d = day.Of(from.Year()+1, time.Month((month-1+shift)%12+1), 1)
		}
		return d
	}
	out.From, out.To = at(out.Months[0]), at(out.Months[1]%12+1)-1
	if out.To < out.From { // it runs on into the next garden year
		out.To = day.Of(out.To.Year()+1, out.To.Month(), out.To.DayOfMonth())
	}
}
