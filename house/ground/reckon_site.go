package ground

import (
	"context"
	"fmt"

	"mezzadro/core/catalogue"
	"mezzadro/core/day"
	"mezzadro/core/invalid"
	"mezzadro/core/replacement"
	"mezzadro/core/site"
)

// SiteIn is a plan with inline values, and what is asked of it.
type SiteIn struct {
	Plan    site.Plan     `json:"plan"`
	Plant   string        `json:"plant,omitempty" maxLength:"60" doc:"Id of a thing on the plan whose spot is asked"`
	At      *site.At      `json:"at,omitempty" doc:"In place of a plant: a point"`
	UpM     float64       `json:"up_m,omitempty" minimum:"0" maximum:"60" doc:"How far above the ground; six tenths of the plant's height, or 0.5 m, when absent"`
	Year    int           `json:"year,omitempty" minimum:"0" maximum:"2200" doc:"This year when absent"`
	Shadow  *ShadowAt     `json:"shadow,omitempty" doc:"An hour whose shadows are asked"`
	Paced   *PacedIn      `json:"paced,omitempty" doc:"Something measured on site from two known places"`
	Changes []site.Change `json:"changes,omitempty" maxItems:"100" doc:"What is cut, taken away or planted"`
}

// ShadowAt is an hour of a day.
type ShadowAt struct {
	Day  day.Day `json:"day" format:"date"`
	Hour float64 `json:"hour" minimum:"0" maximum:"24" doc:"Of solar time: the sun is highest at 12"`
}

// PacedIn is how far something stands from two known places.
type PacedIn struct {
	A     site.At `json:"a"`
	B     site.At `json:"b"`
	FromA float64 `json:"from_a" minimum:"0" maximum:"2000" doc:"m"`
	FromB float64 `json:"from_b" minimum:"0" maximum:"2000" doc:"m"`
	Left  bool    `json:"left,omitempty" doc:"On the left of the way from a to b; on the right when absent"`
}

// SiteOut is what the spot gets, and what changes do.
type SiteOut struct {
	Spot    *site.Spot           `json:"spot,omitempty" doc:"As it is; absent where neither a plant nor a point was named"`
	After   *site.Spot           `json:"after,omitempty" doc:"After the changes"`
	Effects []site.Effect        `json:"effects" doc:"Of the changes, on each plant, those that matter first"`
	Shadows []site.Shadow        `json:"shadows" doc:"On level ground, after the changes"`
	Paced   *site.At             `json:"paced,omitempty" doc:"Where that stands"`
	Grows   *replacement.Outlook `json:"grows,omitempty" doc:"Of a plant of a known kind: how it goes on growing, and which limits of its place it meets"`
	Areas   []Measured           `json:"areas" doc:"Areas and lengths read off the plan"`
}

// Measured is a thing's area or length.
type Measured struct {
	ID     string  `json:"id"`
	AreaM2 float64 `json:"area_m2,omitempty"`
	LongM  float64 `json:"length_m,omitempty"`
}

// ReckonSite works out light, shelter and changes from inline values, storing nothing.
func (h *Room) ReckonSite(ctx context.Context, in SiteIn) (SiteOut, error) {
	out := SiteOut{Effects: []site.Effect{}, Areas: []Measured{}, Shadows: []site.Shadow{}}
	book, err := h.Book(ctx)
	if err != nil {
		return out, err
	}
	var bad invalid.Fields
	for i := range in.Plan.Things {
		known(book, &in.Plan.Things[i], fmt.Sprintf("plan.things[%d].species", i), &bad)
	}
	for i := range in.Changes {
		if in.Changes[i].Add != nil {
			known(book, in.Changes[i].Add, fmt.Sprintf("changes[%d].add.species", i), &bad)
		}
	}
	bad.Below("plan", in.Plan.Validate())
	if bad != nil {
		return out, bad
	}
	if in.Year == 0 {
		in.Year = h.Today().Time().Year()
	}
	at, up, own, err := in.spot()
	if err != nil {
		return out, err
	}
	if at != nil {
		s := in.Plan.SpotAt(*at, up, in.Year, own...)
		out.Spot = &s
	}
	if err := in.further(book, &out); err != nil {
		return out, err
	}
	for i := range in.Plan.Things {
		out.measure(&in.Plan.Things[i])
	}
	after := &in.Plan
	if len(in.Changes) > 0 {
		if after, err = in.Plan.With(in.Changes); err != nil {
			return out, err
		}
	}
	if in.Shadow != nil {
		out.Shadows = after.Shadows(in.Shadow.Day, in.Shadow.Hour)
	}
	if len(in.Changes) == 0 {
		return out, nil
	}
	if out.Effects, err = in.Plan.Effects(in.Changes, in.Year); err != nil {
		return out, err
	}
	if at != nil {
		s := after.SpotAt(*at, up, in.Year, own...)
		out.After = &s
	}
	return out, nil
}

// spot is the place that is asked of; nil where none is.
func (in *SiteIn) spot() (*site.At, float64, []string, error) {
	if in.Plant == "" {
		up := in.UpM
		if up == 0 {
			up = 0.5
		}
		return in.At, up, nil, nil
	}
	t := in.Plan.Thing(in.Plant)
	if t == nil {
		return nil, 0, nil, invalid.One("plant", in.Plant, "there is nothing of that id on the plan")
	}
	up := in.UpM
	if up == 0 {
		up = t.LitAt()
	}
	return &t.Points[0], up, []string{t.ID}, nil
}

// further answers what was paced, and how the plant that is asked of grows.
func (in *SiteIn) further(book *catalogue.Catalogue, out *SiteOut) error {
	if m := in.Paced; m != nil {
		q, err := site.Paced(m.A, m.B, m.FromA, m.FromB, m.Left)
		if err != nil {
			var bad invalid.Fields
			bad.Below("paced", err)
			return bad
		}
		out.Paced = &q
	}
	t := in.Plan.Thing(in.Plant)
	if in.Plant == "" || t == nil || t.Species == "" {
		return nil
	}
	if e, known := book.Entry(t.Species); known {
		grows := replacement.OutlookOf(&in.Plan, t, e)
		out.Grows = &grows
	}
	return nil
}

func (o *SiteOut) measure(t *site.Thing) {
	switch site.Kinds[t.Kind] {
	case "area":
		o.Areas = append(o.Areas, Measured{ID: t.ID, AreaM2: site.Area(t.Points)})
	case "line":
		o.Areas = append(o.Areas, Measured{ID: t.ID, LongM: site.Length(t.Points)})
	}
}

// known fills what is not said of a plant from its species.
func known(book *catalogue.Catalogue, t *site.Thing, at string, bad *invalid.Fields) {
	if t.Species == "" {
		return
	}
	e, err := book.Species(t.Species)
	if err != nil {
		bad.Add(at, t.Species, "%v", err)
		return
	}
	t.Fill(&e)
}
