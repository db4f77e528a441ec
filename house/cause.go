package house

import (
	"cmp"
	"context"
	"errors"
	"maps"
	"slices"
	"time"

	"mezzadro/core/catalogue"
	"mezzadro/core/cause"
	"mezzadro/core/day"
	"mezzadro/core/invalid"
	"mezzadro/core/season"
	"mezzadro/core/treatment"
	"mezzadro/store"
)

// CauseIn asks what may be wrong with a plant by what was seen on it.
type CauseIn struct {
	Species  string          `json:"species,omitempty" doc:"Catalogue id; empty where nobody knows the plant"`
	Date     day.Day         `json:"date,omitempty" format:"date" doc:"Today when absent"`
	Climate  *season.Climate `json:"climate,omitempty" doc:"For its hemisphere; the northern half when both are absent"`
	Property int64           `json:"property,omitempty" doc:"In place of a climate: a property's id. Its weather and the finds nearby count"`
	Plant    int64           `json:"plant,omitempty" doc:"A plant's id: its species, its property, its place and the work done there count"`
	Weather  *LatelyIn       `json:"weather,omitempty" doc:"Of the last weeks, where no property tells it"`
	Place    *SpotIn         `json:"place,omitempty" doc:"Where it stands, where no plant tells it"`
	Seen     []string        `json:"seen" maxItems:"60" doc:"Signs that are there, by id"`
	Absent   []string        `json:"not_seen,omitempty" maxItems:"60" doc:"Signs that were looked for and are not there; of all others nobody has looked"`
	Share    float64         `json:"share,omitempty" doc:"Of the leaves or shoots that show it, 0 to 1"`
}

// LatelyIn is the weather of the last weeks.
type LatelyIn struct {
	MinC       float64 `json:"min_c" doc:"Coldest of the last 30 days"`
	MaxC       float64 `json:"max_c" doc:"Hottest of the last 21 days"`
	RainMM     float64 `json:"rain_mm" minimum:"0" doc:"Of the last 30 days"`
	WetDays    int     `json:"wet_days,omitempty" minimum:"0" maximum:"14" doc:"With more than 1 mm, of the last 14"`
	MildewDays int     `json:"mildew_days,omitempty" minimum:"0" maximum:"21" doc:"Warm (mean 18 to 27 °C) and close, without rain on the leaf, of the last 21"`
	Gale       bool    `json:"gale,omitempty"`
	DryingWind bool    `json:"drying_wind,omitempty" doc:"A spell of cold dry wind in the last 90 days"`
}

// SpotIn is where a plant stands.
type SpotIn struct {
	Wet     bool     `json:"wet,omitempty" doc:"Water stands there after rain"`
	Sun     *float64 `json:"sun,omitempty" minimum:"0" maximum:"1" doc:"0 shade to 1 sun all day"`
	PotL    float64  `json:"pot_l,omitempty" minimum:"0" doc:"Litres of its pot; 0 in the ground"`
	HeightM float64  `json:"height_m,omitempty" minimum:"0"`
	Years   int      `json:"years,omitempty" minimum:"0" doc:"Since it was planted; 0 not known"`
	CutHard bool     `json:"cut_hard,omitempty" doc:"Cut hard within the year"`
	Lost    bool     `json:"neighbour_cut,omitempty" doc:"What shaded it was cut back or taken out within the year"`
	Thirsty bool     `json:"big_neighbour,omitempty" doc:"A large tree or hedge within two of its heights"`
}

// CauseOut is what it comes to.
type CauseOut struct {
	cause.Diagnosis
	Species string          `json:"species" doc:"Common name; empty where nobody knows the plant"`
	Known   map[string]bool `json:"known" doc:"Signs that the record answers by itself: there, or not there"`
}

// signs are what inline weather and place answer.
func (in CauseIn) signs() map[string]bool {
	out := map[string]bool{}
	if w := in.Weather; w != nil {
		maps.Copy(out, cause.Lately{Days: 30, MinC: w.MinC, MaxC: w.MaxC, Rain30: w.RainMM, Rain21: 0.7 * w.RainMM, Wet14: w.WetDays, Mildew: w.MildewDays,
			Gale: w.Gale, Drying: w.DryingWind}.Signs())
	}
	if s := in.Place; s != nil {
		sun := -1.0
		if s.Sun != nil {
			sun = *s.Sun
		}
		maps.Copy(out, cause.Spot{Wet: s.Wet, Sun: sun, PotL: s.PotL, HeightM: s.HeightM, Years: s.Years, CutHard: s.CutHard, NeighbourC: s.Lost, Thirsty: s.Thirsty}.Signs())
	}
	return out
}

// ReckonCause names causes by what was seen, storing nothing.
func (h *House) ReckonCause(ctx context.Context, in CauseIn) (CauseOut, error) {
	k, err := h.caseOfSigns(ctx, in)
	if err != nil {
		return CauseOut{Diagnosis: cause.Diagnosis{}}, err
	}
	d, err := cause.Built().Diagnose(k)
	out := CauseOut{Diagnosis: d, Known: k.Known}
	if k.Species != nil {
		out.Species = k.Species.Common
	}
	return out, err
}

// caseOfSigns joins what was seen with the plant, the season, and what the record knows.
func (h *House) caseOfSigns(ctx context.Context, in CauseIn) (cause.Case, error) {
	var bad invalid.Fields
	k := cause.Case{Seen: in.Seen, Absent: in.Absent, Share: in.Share, Known: in.signs()}
	var plant *store.Plant
	if in.Plant != 0 {
		p, err := h.Store.Plant(ctx, in.Plant)
		if err != nil {
			return k, err
		}
		plant, in.Property = &p, p.PropertyID
		if in.Species == "" {
			in.Species = p.Species
		}
	}
	if in.Species != "" {
		book, err := h.Book(ctx)
		if err != nil {
			return k, err
		}
		e, err := book.Species(in.Species)
		if err != nil {
			bad.Add("species", in.Species, "%v", err)
		}
		k.Species = &e
	}
	south := false
	if in.Climate != nil || in.Property != 0 {
		y, pl, err := h.yearOf(ctx, in.Climate, in.Property)
		if errors.Is(err, store.ErrNotFound) {
			return k, err
		}
		bad = append(bad, fields(err)...)
		if err == nil {
			south = y.Normals.Climate.South()
			k.Warmth = y.DegreeDays(h.DateOr(in.Date))
		}
		if pl != nil && h.DateOr(in.Date) == h.Today() {
			if err := h.addRecord(ctx, &k, pl, plant); err != nil {
				return k, err
			}
		}
	}
	k.Month = northern(int(h.DateOr(in.Date).Month()), south)
	bad = append(bad, fields(cause.Built().Validate(k))...)
	return k, bad.Err()
}

// addRecord adds what the record knows; what was given inline stands.
func (h *House) addRecord(ctx context.Context, k *cause.Case, pl *Place, plant *store.Plant) error {
	known, err := h.knownOf(ctx, pl, plant)
	if err != nil {
		return err
	}
	maps.Copy(known, k.Known)
	k.Known = known
	finds, err := h.founds(ctx)
	if err != nil || len(finds) == 0 {
		return err
	}
	properties, err := h.Store.Properties(ctx, 0, all)
	if err != nil {
		return err
	}
	at := cause.Standing{Property: pl.Property.ID, Species: k.Species}
	if plant != nil {
		at.Plant = plant.ID
	}
	k.Near = cause.Built().Nearby(finds, at, h.between(properties, pl.Book), pl.Today)
	return nil
}

// northern is the month of the northern year that a month stands for.
func northern(month int, south bool) int {
	if south {
		return (month+5)%12 + 1
	}
	return month
}

// Signs are all that can be seen, by part.
func (h *House) Signs() []cause.Sign { return cause.Built().Signs }

// CauseLine is a cause in the list of all.
type CauseLine struct {
	ID    string `json:"id"`
	Name  string `json:"name"`
	Group string `json:"group"`
	Harm  string `json:"harm" enum:"harmless,ugly,weakening,deadly"`
	Finds int    `json:"finds" doc:"Open finds of the firm"`
}

// Causes lists all causes of the book.
func (h *House) Causes(ctx context.Context) ([]CauseLine, error) {
	open, err := h.Store.Finds(ctx, store.FindsOf{Open: true, Limit: all})
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
		out[i] = CauseLine{c.ID, c.Name, c.Group, c.Harm, count[c.ID]}
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

// hostFrom is from where on a kind counts as a host.
const hostFrom = 0.5

// Cause tells of one cause; property 0 leaves its dates in the northern year's months.
func (h *House) Cause(ctx context.Context, id string, property int64) (CausePage, error) {
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
		out.SparedAre = append(out.SparedAre, named(book, s))
	}
	if out.Kinds, err = h.hostKinds(ctx, cause.Built().Cause(id), book); err != nil {
		return out, err
	}
	finds, err := h.Finds(ctx, store.FindsOf{Open: true, Limit: all})
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

// plainly is the share of a plant at which a cause shows plainly.
const plainly = 0.25

// causeProgramme tells what would be done about a cause at a property today.
func (h *House) causeProgramme(out *CausePage, pl *Place) error {
	if len(out.Kinds) == 0 {
		return nil
	}
	e := entryOf(pl.Book, out.Kinds[0].Species)
	ask := treatment.Ask{Cause: out.ID, Species: &e, Place: pl.Cuts.Place, Date: pl.Today, Share: plainly, Rules: pl.rules}
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
func (h *House) hostKinds(ctx context.Context, c *cause.Cause, book *catalogue.Catalogue) ([]HostKind, error) {
	counts, err := h.Store.CountSpecies(ctx)
	if err != nil {
		return nil, err
	}
	out := []HostKind{}
	for id, n := range counts {
		if e, known := book.Entry(id); known && c.OnKind(e) >= hostFrom {
			out = append(out, HostKind{id, e.Common, e.Botanical, n, c.Prone(e)})
		}
	}
	slices.SortFunc(out, func(x, y HostKind) int {
		return cmp.Or(cmp.Compare(y.Plants, x.Plants), cmp.Compare(x.Common, y.Common))
	})
	return out, nil
}

// causeDates puts a cause's months and its warmth into the year of a property.
func (h *House) causeDates(out *CausePage, pl *Place) {
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
