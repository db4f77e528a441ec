package treatment

import (
	"fmt"

	"mezzadro/core/catalogue"
	"mezzadro/core/quantity"
)

// SoilAmount is what a layer, a feeding or a soil correction takes, once over all plants of a group.
type SoilAmount struct {
	What    string  `json:"what" enum:"feed,foliar,compost,mulch,lime,sulphur"`
	M3      float64 `json:"m3,omitempty" doc:"Loose, of a layer"`
	AreaM2  float64 `json:"area_m2,omitempty"`
	LiquidL float64 `json:"liquid_l,omitempty" doc:"Of a liquid feed, L: an estimate"`
	Product float64 `json:"product,omitempty" doc:"In the card's unit; absent without a card that knows the rate"`
	Unit    string  `json:"unit,omitempty"`
	Card    int64   `json:"card,omitempty"`
	Name    string  `json:"name,omitempty" doc:"Of the product"`
	Times   int     `json:"times" doc:"In the season that runs or comes next"`
	Buy     *Bought `json:"buy,omitempty" doc:"For all times"`
	Formula string  `json:"formula"`
}

// Layers on the ground, and what runs through a pot.
const (
	compostCM = 2.0
	mulchCM   = 5.0
	potShare  = 0.1 // of its volume, until it runs out below
	treeM2    = 2.0 // round the foot of a tree
	leastM2   = 0.25
	rowDeepM  = 0.5 // of the strip below a row, at least
)

// amounts are what is fed, spread and corrected.
func (a FeedAsk) amounts(c *feedClass, f *Feeding) []SoilAmount {
	ask := Ask{Species: a.Species, Count: a.Count, HeightM: a.HeightM, SpreadM: a.SpreadM, RowM: a.RowM, Cards: a.Cards}
	ask.fill()
	n := float64(ask.Count)
	area, of := a.ground(&ask)
	out := []SoilAmount{}
	if !f.None && len(f.Days) > 0 {
		feed := SoilAmount{What: "feed", AreaM2: quantity.Round(area, 0.1), Times: len(f.Days), Formula: of}
		if a.PotL > 0 {
			feed.AreaM2, feed.LiquidL = 0, quantity.Round(n*potShare*a.PotL, 0.1)
			feed.Formula = fmt.Sprintf("%.0f × a tenth of %s, until it runs out below", n, quantity.Volume(a.PotL))
		}
		out = append(out, a.byCard(&ask, feed, area, feedActives(f)...))
	}
	if len(f.Foliar) > 0 {
		m3, how := ask.crown()
		l := n * max(leastL, litresPerM3*m3)
		leaf := SoilAmount{What: "foliar", LiquidL: quantity.Round(l, 0.01), Times: len(f.Foliar),
			Formula: crownFormula(n, m3, how)}
		out = append(out, a.byCard(&ask, leaf, area, feedActives(f)...))
	}
	if a.PotL == 0 {
		if c.Compost {
			out = append(out, layer("compost", area, or(a.CompostCM, compostCM), of))
		}
		if !c.Bare {
			out = append(out, layer("mulch", area, or(a.MulchCM, mulchCM), of))
		}
		out = append(out, a.correction(c, &ask, area, of)...)
	}
	return out
}

func or(given, usual float64) float64 {
	if given > 0 {
		return given
	}
	return usual
}

// ground is the area that is fed and covered, and how it was come by.
func (a FeedAsk) ground(ask *Ask) (m2 float64, of string) {
	if a.BedM2 > 0 {
		return a.BedM2, quantity.Area(a.BedM2)
	}
	if a.RowM > 0 {
		m2 = a.RowM * max(rowDeepM, ask.SpreadM)
		return m2, fmt.Sprintf("%s below %s of row", quantity.Area(m2), quantity.Length(a.RowM))
	}
	each := max(leastM2, 0.785*ask.SpreadM*ask.SpreadM)
	if f := a.Species.Form; f == catalogue.Tree || f == catalogue.Conifer || f == catalogue.Palm {
		each = min(each, treeM2)
	}
	m2 = float64(ask.Count) * each
	if ask.Count == 1 {
		return m2, quantity.Area(m2) + " below it"
	}
	return m2, fmt.Sprintf("%s below %d of them", quantity.Area(m2), ask.Count)
}

// feedActives are the means that a feeding may be done with, the wanted one first.
func feedActives(f *Feeding) []string {
	for _, r := range f.Rules {
		if r == anyFeedRule {
			return []string{"mineral-feed", "organic-feed"}
		}
	}
	return []string{"organic-feed"}
}

// layer is what goes on the ground at a depth.
func layer(what string, area, cm float64, of string) SoilAmount {
	return SoilAmount{What: what, AreaM2: quantity.Round(area, 0.1), M3: quantity.Round(area*cm/100, 0.001), Times: 1,
		Formula: fmt.Sprintf("%s × %s deep, clear of the stems", of, quantity.Thickness(10*cm))}
}

// correction is lime or sulphur where the pH asks for it.
func (a FeedAsk) correction(c *feedClass, ask *Ask, area float64, of string) []SoilAmount {
	lo, hi := c.PH[0], c.PH[1]
	out := SoilAmount{AreaM2: quantity.Round(area, 0.1), Times: 1, Formula: of + ", by a soil test"}
	switch {
	case a.PH == 0:
		return nil
	case a.PH < lo-phSlack && hi > sourBelow:
		out.What = "lime"
		return []SoilAmount{a.byCard(ask, out, area, "lime")}
	case a.PH > hi+phSlack && hi <= limyAbove:
		out.What = "sulphur"
		return []SoilAmount{a.byCard(ask, out, area, "soil-sulphur")}
	}
	return nil
}

// byCard adds what the firm's own card says, of the first means it has one of.
func (a FeedAsk) byCard(ask *Ask, out SoilAmount, area float64, actives ...string) SoilAmount {
	n, held := float64(ask.Count), ""
	for _, id := range actives {
		c := ask.card(Built().Active(id))
		if c == nil || len(c.Rates) == 0 {
			continue
		}
		held = c.Name
		for _, r := range c.Rates {
			by := ask.per(&r, out.LiquidL, area, n)
			if by == 0 || out.LiquidL > 0 && r.Per == "m2" { // a liquid goes by the litre
				continue
			}
			out.Product, out.Unit, out.Card, out.Name = quantity.Round(r.Amount*by, 0.01), c.Unit, c.ID, c.Name
			out.Formula += "; " + r.Text(c.Unit) + " by its label"
			b := c.Buy(out.Product * float64(max(1, out.Times)))
			out.Buy = &b
			return out
		}
	}
	if held != "" {
		out.Formula += "; the card of " + held + " has no rate that fits: enter the label's by area or by plant"
		return out
	}
	out.Formula += "; no product card: enter the rate from the label of " + Built().Active(actives[0]).Name
	return out
}
