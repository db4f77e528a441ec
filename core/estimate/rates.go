package estimate

import (
	"fmt"
	"slices"

	"mezzadro/core/invalid"
)

// Rates are what the firm asks for: by the hour of a person, the visit, the measure of waste and of what is used up. All
// in minor units of its currency, without tax unless said.
type Rates struct {
	Currency    string            `json:"currency" maxLength:"3" doc:"By its three letters, such as EUR; empty: none is chosen yet"`
	Digits      int               `json:"digits" minimum:"0" maximum:"4" doc:"Decimal places of the currency: 2 of cents, 0 of yen; set by the program"`
	Hour        Amount            `json:"hour" money:"true" minimum:"0" maximum:"1000000000" doc:"Of one person's work"`
	Skills      map[string]Amount `json:"skills,omitempty" money:"true" doc:"An hour of whoever has the skill that a job asks for, by skill; the others of the job work at the plain rate"`
	Machines    map[string]Amount `json:"machines,omitempty" money:"true" doc:"An hour of a machine that a job takes along, by its name"`
	Visit       Amount            `json:"visit" money:"true" minimum:"0" maximum:"1000000000" doc:"Way and setting up, each time"`
	WasteM3     Amount            `json:"waste_m3" money:"true" minimum:"0" maximum:"1000000000" doc:"A cubic metre of waste, taken away"`
	Markup      Share             `json:"markup" minimum:"0" maximum:"100000" doc:"On plants and materials, in hundredths of a per cent"`
	Tax         Share             `json:"tax" minimum:"0" maximum:"10000" doc:"In hundredths of a per cent: 2200 is 22 %"`
	TaxName     string            `json:"tax_name,omitempty" maxLength:"40" doc:"What it is called on paper, such as VAT"`
	TaxIncluded bool              `json:"tax_included,omitempty" doc:"All rates are with tax in them"`
	Fixed       bool              `json:"fixed,omitempty" doc:"Clients are told one price, not from–to"`
	ValidDays   int               `json:"valid_days" minimum:"1" maximum:"366" doc:"For how long an estimate holds"`
	Plans       string            `json:"plans" enum:"all,answered,agreed" doc:"What is planned: all work; none that waits for an answer; or only what was agreed. What makes safe is planned in any case"`
	Planners    bool              `json:"planners,omitempty" doc:"Planners read the ledger's money and make estimates too; else owners alone"`
	Stuff       []Price           `json:"stuff" maxItems:"200" doc:"What things cost that are used up and have no card"`
}

// Machines are those that may be asked for by the hour, as the load list has them.
var Machines = []string{"hedge trimmer", "chainsaw"}

// Price is what a measure of something costs, before the firm's share.
type Price struct {
	Name  string `json:"name" minLength:"1" maxLength:"80" doc:"As on the load list, such as mulch"`
	Unit  string `json:"unit" enum:"piece,L,m2,m3,kg,gal,sq ft,cu yd,lb" doc:"What the price is for one of: m3, gal and cu yd price what the lists count in litres"`
	Price Amount `json:"price" money:"true" minimum:"0" maximum:"1000000000"`
}

// Validate names every rate that cannot be.
func (r *Rates) Validate() error {
	var bad invalid.Fields
	amount := func(field string, a Amount) {
		if a < 0 || a > 1_000_000_000 {
			bad.Add(field, a, "must be from 0 to ten million of the currency")
		}
	}
	amount("hour", r.Hour)
	amount("visit", r.Visit)
	amount("waste_m3", r.WasteM3)
	for skill, a := range r.Skills {
		amount("skills."+skill, a)
	}
	for name, a := range r.Machines {
		amount("machines."+name, a)
		if !slices.Contains(Machines, name) {
			bad.Add("machines."+name, name, "want one of %q", Machines)
		}
	}
	if r.Tax < 0 || r.Tax > whole {
		bad.Add("tax", r.Tax, "must be from 0 to 100 %%")
	}
	if r.Markup < 0 || r.Markup > 10*whole {
		bad.Add("markup", r.Markup, "must be from 0 to 1000 %%")
	}
	if r.ValidDays < 1 || r.ValidDays > 366 {
		bad.Add("valid_days", r.ValidDays, "must be from 1 to 366 days")
	}
	seen := map[string]bool{}
	for i, p := range r.Stuff {
		at := fmt.Sprintf("stuff[%d].", i)
		if p.Name == "" || seen[p.Name] {
			bad.Add(at+"name", p.Name, "is missing or stands twice")
		}
		seen[p.Name] = true
		amount(at+"price", p.Price)
		if _, known := priced[p.Unit]; !known {
			bad.Add(at+"unit", p.Unit, "%q is no unit that a price is for", p.Unit)
		}
	}
	return bad.Err()
}

// priced are units that a price may be for one of: of which unit of the load list, and how many thousandths of it.
var priced = map[string]struct {
	unit        string
	thousandths int64
}{
	"piece": {"piece", 1000}, "L": {"L", 1000}, "m2": {"m2", 1000}, "kg": {"kg", 1000}, "m3": {"L", 1_000_000},
	"gal": {"L", 3785}, "cu yd": {"L", 764_555}, "sq ft": {"m2", 93}, "lb": {"kg", 454},
}

// price is what so many thousandths of a unit of a thing cost by the firm's own list; false where it names none in that unit.
func (r *Rates) price(name, unit string) (each Amount, thousandths int64, known bool) {
	for _, p := range r.Stuff {
		if of := priced[p.Unit]; p.Name == name && of.unit == unit {
			return p.Price, of.thousandths, true
		}
	}
	return 0, 0, false
}
