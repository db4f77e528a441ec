package treatment

import (
	"fmt"
	"math"

	"mezzadro/core/catalogue"
	"mezzadro/core/quantity"
)

// Amount is what a step takes, once over all plants that are treated.
type Amount struct {
	SprayL  float64 `json:"spray_l,omitempty" doc:"Spray or drench, L: an estimate"`
	FromL   float64 `json:"from_l,omitempty" doc:"Of its spread"`
	ToL     float64 `json:"to_l,omitempty"`
	AreaM2  float64 `json:"area_m2,omitempty"`
	Product float64 `json:"product,omitempty" doc:"In the card's unit; absent without a card that knows the rate"`
	Unit    string  `json:"unit,omitempty"`
	Card    int64   `json:"card,omitempty"`
	Name    string  `json:"name,omitempty" doc:"Of the product"`
	Buy     *Bought `json:"buy,omitempty" doc:"For all times it is used"`
	Formula string  `json:"formula"`
}

// What it takes to wet leaves.
const (
	litresPerM3 = 0.13 // of crown, in full leaf, to dripping
	leastL      = 0.1  // for the smallest plant
	sprayedOver = 0.25 // of it either way, by density of leaf and hand
	drenchPerM  = 5.0  // litres of water for a metre of height, where the rate is by another measure
)

// crownM3 is the room a plant's leaves fill, by its form.
func crownM3(e *catalogue.Entry, height, spread float64) (m3 float64, how string) {
	switch e.Form {
	case catalogue.Tree:
		return 0.52 * 0.7 * height * spread * spread, "0.52 × 0.7 height × spread²"
	case catalogue.Conifer:
		return 0.26 * 0.95 * height * spread * spread, "0.26 × 0.95 height × spread²"
	case catalogue.Palm:
		return 0.52 * min(height, spread) * spread * spread, "0.52 × spread³"
	case catalogue.Climber:
		return height * spread * min(0.5, spread), "height × spread × " + quantity.Length(0.5)
	}
	return 0.65 * height * spread * spread, "0.65 × height × spread²"
}

// crown is the crown of one plant, m³: of a row its share of the whole, length by height by depth.
func (a *Ask) crown() (m3 float64, how string) {
	if a.RowM > 0 {
		return a.RowM * a.HeightM * a.SpreadM / float64(a.Count),
			fmt.Sprintf("%s of row × height × depth, shared by %d", quantity.Length(a.RowM), a.Count)
	}
	return crownM3(a.Species, a.HeightM, a.SpreadM)
}

// crownFormula is how the wetting of crowns is reckoned, in words.
func crownFormula(n, m3 float64, how string) string {
	return fmt.Sprintf("%.0f × %s of crown (%s), %s to dripping", n, quantity.Bulk(m3), how, quantity.Wetting(litresPerM3))
}

// amount works out what a step takes.
func (a *Ask) amount(s Step, act *Active, times int, b *Book, p *Programme) *Amount {
	if act == nil || act.Class == "barrier" {
		return nil
	}
	n := float64(a.treated(p))
	out := &Amount{}
	area := a.BedM2
	if area == 0 {
		area = n * 0.785 * a.SpreadM * a.SpreadM
	}
	if a.BedM2 == 0 && a.RowM > 0 {
		area = a.RowM * a.SpreadM * n / float64(a.Count)
	}
	switch {
	case act.Class == "herbicide" || act.ID == "iron-phosphate":
		out.AreaM2 = quantity.Round(area, 0.1)
		out.Formula = fmt.Sprintf("%s of ground", quantity.Area(area))
	case act.Ground:
		each := max(1, drenchPerM*a.HeightM)
		out.SprayL = n * each
		out.AreaM2 = quantity.Round(area, 0.1)
		out.Formula = fmt.Sprintf(
			"%.0f × %s of water, %s of height",
			n,
			quantity.Volume(each),
			quantity.Watering(drenchPerM),
		)
	default:
		m3, how := a.crown()
		each := max(leastL, litresPerM3*m3)
		out.SprayL = n * each
		out.Formula = crownFormula(n, m3, how)
		if each == leastL {
			out.Formula = fmt.Sprintf("%.0f × %s, the least for a small plant", n, quantity.Volume(leastL))
		}
	}
	out.SprayL = quantity.Round(out.SprayL, 0.01)
	out.FromL, out.ToL = quantity.Round(
		out.SprayL*(1-sprayedOver),
		0.01,
	), quantity.Round(
		out.SprayL*(1+sprayedOver),
		0.01,
	)
	a.product(out, act, times, n, area)
	return out
}

// product adds what the firm's own card says.
func (a *Ask) product(out *Amount, act *Active, times int, n, area float64) {
	if c := a.card(act); c != nil && c.rate(a.Cause) != nil {
		r := c.rate(a.Cause)
		by := a.per(r, out.SprayL, area, n)
		out.Product, out.Unit, out.Card, out.Name = quantity.Round(r.Amount*by, 0.01), c.Unit, c.ID, c.Name
		out.Formula += "; " + r.Text(c.Unit) + " by its label"
		all := c.Buy(out.Product * float64(max(1, times)))
		out.Buy = &all
		return
	}
	out.Formula += "; no product card: enter the rate from the label of " + act.Name
}

// per is how much there is of what a rate is by: litres, ground, or so many plants with their height and girth.
func (a *Ask) per(r *Rate, litres, area, n float64) float64 {
	switch r.Per {
	case "L":
		return litres
	case "m2":
		return area
	case "m height":
		return n * a.HeightM
	case "cm girth":
		return n * girthCM(a.Species, a.HeightM)
	}
	return n
}

// girthCM is the girth of a trunk at breast height as usual for a height, cm: a guess where nobody measured.
func girthCM(e *catalogue.Entry, height float64) float64 {
	if e.Form != catalogue.Tree && e.Form != catalogue.Conifer {
		return 0
	}
	return math.Pi * 2 * height
}

// treated is how many plants are: all of the bed, those that show it where that was told, or all.
func (a *Ask) treated(p *Programme) int {
	if a.Affected > 0 && !p.Bed {
		return a.Affected
	}
	return a.Count
}

// Takes is what one time of a means takes on the plants of an ask, and how many those are; nil where it is not
// measured.
func (b *Book) Takes(a Ask, use string) (*Amount, int) {
	a.fill()
	act, p := b.active[use], b.programme(&a)
	if act == nil || p == nil {
		return nil, 0
	}
	return a.amount(Step{}, act, 1, b, p), a.treated(p)
}
