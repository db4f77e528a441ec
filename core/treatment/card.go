package treatment

import (
	"cmp"
	"fmt"
	"math"
	"slices"

	"mezzadro/core/invalid"
	"mezzadro/core/quantity"
)

// Card is a product as its label says, entered by the firm.
type Card struct {
	ID          int64   `json:"id,omitempty"`
	Name        string  `json:"name" maxLength:"200" doc:"As on the label"`
	Active      string  `json:"active" doc:"What works in it, by id"`
	Rates       []Rate  `json:"rates" maxItems:"20" doc:"As on the label, by use"`
	Unit        string  `json:"unit" enum:"mL,g,piece" doc:"In which it is measured"`
	Packs       []Pack  `json:"packs" maxItems:"10"`
	HarvestDays int     `json:"harvest_days,omitempty" minimum:"0" maximum:"365" doc:"Wait to harvest"`
	ReentryH    float64 `json:"reentry_h,omitempty" minimum:"0" maximum:"720" doc:"Wait until people and pets go in again, hours; 0: until it is dry"`
	Licence     string  `json:"licence,omitempty" maxLength:"200" doc:"Which licence its use needs; empty for none"`
	Number      string  `json:"registration,omitempty" maxLength:"100" doc:"Its number in the register of the country, as on the label"`
	MostUses    int     `json:"most_uses,omitempty" minimum:"0" maximum:"50" doc:"Times a year on a plant by the label; 0: it says nothing"`
	IntervalD   int     `json:"interval_days,omitempty" minimum:"0" maximum:"365" doc:"Days between two uses by the label; 0: it says nothing"`
	BufferM     float64 `json:"buffer_m,omitempty" minimum:"0" maximum:"500" doc:"Kept free along water by the label, m; 0: it says nothing"`
	Hazard      string  `json:"hazard,omitempty" maxLength:"1000" doc:"Hazard words of the label"`
	OnHand      float64 `json:"on_hand,omitempty" doc:"In its unit; below nothing where more was used than was entered as bought: count it"`
}

// Rate is how much a label says for one use.
type Rate struct {
	For     []string `json:"for,omitempty" maxItems:"40" doc:"Causes it is labelled for, by id; for all when absent"`
	Amount  float64  `json:"amount,omitempty" doc:"Of the product, in its unit; worked out where it is entered in the label's own"`
	Per     string   `json:"per,omitempty" enum:"L,m2,m height,cm girth,plant" doc:"A litre of spray or drench, a square metre, a metre of height, a centimetre of trunk girth, or a plant"`
	Entered *Entered `json:"entered,omitempty" doc:"In the label's own units, which amount and per follow"`
	Says    string   `json:"says,omitempty" readOnly:"true" doc:"The rate in words, as it was entered"`
}

// Pack is a size it is sold in.
type Pack struct {
	Size  float64 `json:"size" doc:"In the product's unit"`
	Price float64 `json:"price,omitempty" money:"true" minimum:"0"`
}

var pers = []string{"L", "m2", "m height", "cm girth", "plant"}

func at(list string, i int) string { return fmt.Sprintf("%s[%d].", list, i) }

// Validate names what cannot be on a card.
func (c Card) Validate() error { return c.faults("").Err() }

func (c Card) faults(path string) (bad invalid.Fields) {
	if c.Name == "" {
		bad.Add(path+"name", c.Name, "is missing: as it stands on the label")
	}
	if Built().Active(c.Active) == nil {
		bad.Add(path+"active", c.Active, "%q is no active; GET /actives lists them", c.Active)
	}
	if !slices.Contains([]string{"mL", "g", "piece"}, c.Unit) {
		bad.Add(path+"unit", c.Unit, "want mL, g or piece")
	}
	for i, r := range c.Rates {
		if !(r.Amount > 0) || r.Amount > 1e6 {
			bad.Add(path+at("rates", i)+"amount", r.Amount, "a rate of %g is none: enter the label's", r.Amount)
		}
		if !slices.Contains(pers, r.Per) {
			bad.Add(path+at("rates", i)+"per", r.Per, "want one of %q", pers)
		}
	}
	for i, p := range c.Packs {
		if !(p.Size > 0) || p.Size > 1e7 {
			bad.Add(path+at("packs", i)+"size", p.Size, "a pack without a size cannot be bought")
		}
		if p.Price < 0 {
			bad.Add(path+at("packs", i)+"price", p.Price, "is below nothing")
		}
	}
	if c.MostUses < 0 || c.MostUses > 50 {
		bad.Add(path+"most_uses", c.MostUses, "want 0 to 50 uses a year")
	}
	if c.IntervalD < 0 || c.IntervalD > 365 {
		bad.Add(path+"interval_days", c.IntervalD, "want 0 to 365 days")
	}
	bad.Within(path+"buffer_m", c.BufferM, 0, 500, "m")
	return bad
}

// rate is the label's for a cause; nil where it has none.
func (c *Card) rate(cause string) *Rate {
	for i := range c.Rates {
		if r := &c.Rates[i]; slices.Contains(r.For, cause) {
			return r
		}
	}
	for i := range c.Rates {
		if r := &c.Rates[i]; len(r.For) == 0 {
			return r
		}
	}
	return nil
}

// Bought is how an amount is bought, beyond what is on hand.
type Bought struct {
	Packs    []PackCount `json:"packs" doc:"To buy, the largest first"`
	Price    float64     `json:"price" money:"true" doc:"Of what is bought"`
	Leftover float64     `json:"leftover" doc:"After the work, in the product's unit"`
}

// PackCount is so many packs of a size.
type PackCount struct {
	Size  float64 `json:"size"`
	Count int     `json:"count"`
	Price float64 `json:"price" money:"true" doc:"Of one"`
}

// Buy is the cheapest way to have an amount, and the one that leaves least where prices are the same.
func (c *Card) Buy(amount float64) Bought {
	short := amount - max(0, c.OnHand)
	out := Bought{Packs: []PackCount{}, Leftover: -short}
	if short <= 1e-9 || len(c.Packs) == 0 {
		if short > 0 {
			out.Leftover = 0
		}
		return out
	}
	packs := slices.Clone(c.Packs)
	slices.SortFunc(packs, func(a, b Pack) int {
		return cmp.Or(cmp.Compare(cost(a)/a.Size, cost(b)/b.Size), cmp.Compare(b.Size, a.Size))
	})
	counts := cheapest(packs, short)
	for i, n := range counts {
		if n > 0 {
			out.Packs = append(out.Packs, PackCount{packs[i].Size, n, packs[i].Price})
			out.Price += float64(n) * packs[i].Price
			out.Leftover += float64(n) * packs[i].Size
		}
	}
	slices.SortFunc(out.Packs, func(a, b PackCount) int { return cmp.Compare(b.Size, a.Size) })
	out.Price = quantity.Round(out.Price, 0.01)
	out.Leftover = quantity.Round(out.Leftover, 0.1)
	return out
}

// cheapest is how many of each pack, in order of what a unit costs in them, together hold an amount for the least money; with as little left
// over as may be where two ways cost the same.
func cheapest(packs []Pack, amount float64) []int {
	best, counts, taken := math.Inf(1), make([]int, len(packs)), make([]int, len(packs))
	var walk func(i int, left, price float64)
	walk = func(i int, left, price float64) {
		if left <= 1e-9 {
			if score := price - 1e-6*left; score < best {
				best = score
				copy(counts, taken)
				clear(counts[i:])
			}
			return
		}
		if i == len(packs) {
			return
		}
		each := cost(packs[i])
		for n := int(math.Ceil(left/packs[i].Size - 1e-9)); n >= 0; n-- {
			rest := left - float64(n)*packs[i].Size
			if i+1 < len(packs) && rest > 0 && price+float64(n)*each+rest*cost(packs[i+1])/packs[i+1].Size >= best {
				break // fewer of these are only dearer
			}
			taken[i] = n
			walk(i+1, rest, price+float64(n)*each)
		}
		taken[i] = 0
	}
	walk(0, amount, 0)
	return counts
}

// UnitPrice is that of one of its unit in the pack that is cheapest by amount; 0 where no pack has a price.
func (c *Card) UnitPrice() float64 {
	least := 0.0
	for _, p := range c.Packs {
		if each := p.Price / p.Size; each > 0 && (least == 0 || each < least) {
			least = each
		}
	}
	return least
}

// cost of a pack to choose by: its price, and its size where nobody entered one.
func cost(p Pack) float64 {
	if p.Price > 0 {
		return p.Price
	}
	return p.Size / 1000
}
