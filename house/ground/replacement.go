package ground

import (
	"cmp"
	"context"
	"errors"
	"fmt"
	"math"
	"slices"

	"mezzadro/core/catalogue"
	"mezzadro/core/day"
	"mezzadro/core/invalid"
	"mezzadro/core/region"
	"mezzadro/core/replacement"
	"mezzadro/core/season"
	"mezzadro/core/site"
	"mezzadro/store"
)

// ReplacementIn asks what may stand on a spot.
type ReplacementIn struct {
	Climate  *season.Climate       `json:"climate,omitempty"`
	Property int64                 `json:"property,omitempty" doc:"In place of a climate: a property's id"`
	Date     day.Day               `json:"date,omitempty" format:"date" doc:"From which it is planted; today when absent"`
	Spot     replacement.Spot      `json:"spot,omitempty"`
	Plan     *site.Plan            `json:"plan,omitempty" doc:"From which light, walls, wires and roots are read, where the spot does not say them"`
	At       *site.At              `json:"at,omitempty" doc:"Where on the plan"`
	Without  []string              `json:"without,omitempty" maxItems:"50" doc:"Ids of things on the plan that go, such as what died"`
	Died     replacement.Died      `json:"died,omitempty"`
	Wish     replacement.Wish      `json:"wish,omitempty"`
	Only     []string              `json:"only,omitempty" maxItems:"20" doc:"Kinds to be compared, by catalogue id; all when absent"`
	Limit    int                   `json:"limit,omitempty" minimum:"0" maximum:"500" doc:"How many are ranked; 20 when absent"`
	AreaM2   float64               `json:"area_m2,omitempty" minimum:"0" maximum:"100000" doc:"Of a bed to be filled with one kind"`
	Rows     bool                  `json:"rows,omitempty" doc:"In rows rather than in gaps"`
	Price    float64               `json:"price,omitempty" money:"true" minimum:"0" maximum:"100000" doc:"For one plant; the firm's own for the kind when absent"`
	Bed      []replacement.BedPart `json:"bed,omitempty" maxItems:"40" doc:"Kinds that share the area"`
	Record   []OwnRecord           `json:"record,omitempty" maxItems:"1000" doc:"What became of kinds before, in place of the firm's own record"`
}

// OwnRecord is what became of a kind.
type OwnRecord struct {
	Species string `json:"species" minLength:"1" doc:"Catalogue id"`
	replacement.Own
}

// Replacing is a kind with its fit, and how it is planted.
type Replacing struct {
	replacement.Fit
	Botanical string                `json:"botanical"`
	Form      catalogue.Form        `json:"form"`
	Mature    catalogue.Size        `json:"mature"`
	Bloom     []int                 `json:"bloom_months" doc:"In a year as usual"`
	Planting  *replacement.Planting `json:"planting,omitempty"`
	Count     int                   `json:"count,omitempty" doc:"For the area"`
	Spacing   float64               `json:"spacing_m"`
	Cost      float64               `json:"cost,omitempty" money:"true"`
	Price     float64               `json:"price,omitempty" money:"true" doc:"The firm's, for one plant"`
	Flower    *catalogue.Flower     `json:"flower,omitempty"`
}

// ReplacementOut is what it comes to.
type ReplacementOut struct {
	Spot   replacement.Spot  `json:"spot" doc:"As it was judged, with what the plan says"`
	Site   *site.Spot        `json:"site,omitempty" doc:"What the plan says of it"`
	Ranked []Replacing       `json:"ranked"`
	Out    []replacement.Fit `json:"rejected" doc:"Left out, by name"`
	Fits   int               `json:"fits" doc:"How many kinds may stand there"`
	Bed    *replacement.Bed  `json:"bed,omitempty"`
}

// rankedShown is how many kinds are told where nobody said.
const rankedShown = 20

// ReckonReplacement ranks kinds for a spot from inline values or a property, storing nothing.
func (h *Room) ReckonReplacement(ctx context.Context, in ReplacementIn) (ReplacementOut, error) {
	out := ReplacementOut{Ranked: []Replacing{}, Out: []replacement.Fit{}}
	book, err := h.Book(ctx)
	if err != nil {
		return out, err
	}
	y, pl, err := h.YearOf(ctx, in.Climate, in.Property)
	if errors.Is(err, store.ErrNotFound) {
		return out, err
	}
	bad := invalid.Of(err)
	ask := replacement.Ask{Year: y, Spot: in.Spot, Died: in.Died, Wish: in.Wish, Among: book.Entries}
	bad = append(bad, h.onPlan(book, &in, &ask, &out)...)
	if pl != nil {
		ask.Spot.Invasive = append(ask.Spot.Invasive, region.Weeds(pl.Lies())...)
	}
	known, err := h.kinds(ctx)
	if err != nil {
		return out, err
	}
	bad = append(bad, in.own(book, known, &ask, &out)...)
	if in.Died.Species != "" {
		if _, err := book.Species(in.Died.Species); err != nil {
			bad.Add("died.species", in.Died.Species, "%v", err)
		}
	}
	for i, id := range in.Only {
		if _, err := book.Species(id); err != nil {
			bad.Add(fmt.Sprintf("only[%d]", i), id, "%v", err)
		}
	}
	if bad = append(bad, invalid.Of(ask.Validate())...); bad != nil {
		return out, bad
	}
	ranked, err := ask.Rank()
	if err != nil {
		return out, err
	}
	out.Spot, out.Fits = ask.Spot, len(ranked.Best)
	wanted := func(f replacement.Fit) bool { return len(in.Only) > 0 && !slices.Contains(in.Only, f.Species) }
	ranked.Best, ranked.Out = slices.DeleteFunc(ranked.Best, wanted), slices.DeleteFunc(ranked.Out, wanted)
	if in.Limit == 0 {
		in.Limit = rankedShown
	}
	house, err := h.Cuts.RulesOf(ctx, nil, pl)
	if err != nil {
		return out, err
	}
	for _, f := range ranked.Best[:min(in.Limit, len(ranked.Best))] {
		e, _ := book.Entry(f.Species)
		planting := ask.PlantingOf(e, h.DateOr(in.Date), house)
		r := Replacing{
			Fit: f, Botanical: e.Botanical, Form: e.Form, Mature: e.Mature, Bloom: append([]int{}, ask.BloomMonths(e)...),
			Planting: &planting, Spacing: replacement.Spacing(e), Price: cmp.Or(in.Price, known[f.Species].Price), Flower: e.Flower,
		}
		if in.AreaM2 > 0 {
			r.Count = replacement.Count(in.AreaM2, r.Spacing, !in.Rows)
			r.Cost = math.Round(100*r.Price*float64(r.Count)) / 100
		}
		out.Ranked = append(out.Ranked, r)
	}
	out.Out = append(out.Out, ranked.Out...)
	return out, nil
}

// own brings in what the firm says and has seen of kinds, and fills the bed that is asked for.
func (in *ReplacementIn) own(book *catalogue.Catalogue, known map[string]KindWord, ask *replacement.Ask, out *ReplacementOut) invalid.Fields {
	owns(ask, known)
	for _, r := range in.Record {
		ask.Own[r.Species] = r.Own
	}
	if len(in.Bed) == 0 {
		return nil
	}
	for i := range in.Bed {
		if in.Bed[i].Price == 0 {
			in.Bed[i].Price = known[in.Bed[i].Species].Price
		}
	}
	bed, err := replacement.BedOf(in.AreaM2, in.Rows, in.Bed, book)
	out.Bed = &bed
	return invalid.Of(err)
}

// onPlan reads off a plan what the spot does not say.
func (h *Room) onPlan(book *catalogue.Catalogue, in *ReplacementIn, ask *replacement.Ask, out *ReplacementOut) (bad invalid.Fields) {
	if in.Plan == nil {
		return nil
	}
	if in.At == nil {
		bad.Add("at", nil, "is missing: where on the plan")
	}
	for i := range in.Plan.Things {
		known(book, &in.Plan.Things[i], fmt.Sprintf("plan.things[%d].species", i), &bad)
	}
	bad.Below("plan", in.Plan.Validate())
	if bad != nil {
		return bad
	}
	s := in.Plan.SpotAt(*in.At, site.SpotHeight, h.DateOr(in.Date).Time().Year(), in.Without...)
	out.Site = &s
	ask.Spot.Read(in.Plan, *in.At, s, in.Without)
	ask.Died.Read(in.Plan, *in.At, h.DateOr(in.Date).Time().Year())
	return nil
}
