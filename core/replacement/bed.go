package replacement

import (
	"fmt"
	"math"

	"mezzadro/core/catalogue"
	"mezzadro/core/invalid"
)

// BedPart is a kind that takes a share of a bed.
type BedPart struct {
	Species string  `json:"species"`
	Share   float64 `json:"share" minimum:"0" maximum:"1" doc:"Of the area"`
	Spacing float64 `json:"spacing_m,omitempty" minimum:"0" maximum:"30" doc:"As it closes up, when absent"`
	Price   float64 `json:"price,omitempty" money:"true" minimum:"0" maximum:"100000" doc:"The firm's, for one plant"`
}

// BedLine is what of it is bought.
type BedLine struct {
	Species string  `json:"species"`
	Common  string  `json:"common"`
	AreaM2  float64 `json:"area_m2"`
	Spacing float64 `json:"spacing_m"`
	Count   int     `json:"count"`
	Cost    float64 `json:"cost,omitempty" money:"true"`
}

// Bed is a mixed bed.
type Bed struct {
	Lines []BedLine `json:"lines"`
	Count int       `json:"count"`
	Cost  float64   `json:"cost" money:"true" doc:"Of those that have a price"`
	Bare  float64   `json:"bare_m2" doc:"Of the area, what no kind takes"`
	Notes []string  `json:"notes"`
}

// BedOf is how many plants of each kind a bed of an area takes, in rows or in gaps, and what they cost. Its error is a
// list of refused fields.
func BedOf(areaM2 float64, rows bool, parts []BedPart, among *catalogue.Catalogue) (Bed, error) {
	var bad invalid.Fields
	out := Bed{Lines: []BedLine{}, Notes: []string{}}
	if !(areaM2 > 0) {
		bad.Add("area_m2", areaM2, "must be above 0 for a bed")
	}
	sum := 0.0
	for i, p := range parts {
		e, err := among.Species(p.Species)
		if err != nil {
			bad.Add(fmt.Sprintf("bed[%d].species", i), p.Species, "%v", err)
			continue
		}
		if !(p.Share > 0) {
			bad.Add(fmt.Sprintf("bed[%d].share", i), p.Share, "must be above 0")
		}
		sum += p.Share
		l := BedLine{Species: p.Species, Common: e.Common, AreaM2: round(areaM2 * p.Share), Spacing: p.Spacing}
		if l.Spacing == 0 {
			l.Spacing = Spacing(&e)
		}
		l.Count = Count(areaM2*p.Share, l.Spacing, !rows)
		l.Cost = math.Round(100*p.Price*float64(l.Count)) / 100
		out.Lines = append(out.Lines, l)
		out.Count, out.Cost = out.Count+l.Count, out.Cost+l.Cost
		if l.Spacing*l.Spacing > 2*areaM2*p.Share {
			out.Notes = append(out.Notes, fmt.Sprintf("%s wants more room than its share of the bed.", e.Common))
		}
	}
	if sum > 1.001 {
		bad.Add("bed", nil, "the shares add up to %.0f %%", 100*sum)
	}
	out.Bare = round(areaM2 * math.Max(0, 1-sum))
	return out, bad.Err()
}
