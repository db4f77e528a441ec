package estate

import (
	"mezzadro/core/catalogue"
	"mezzadro/core/day"
	"mezzadro/core/job"
	"mezzadro/core/region"
	"mezzadro/store"
)

// Lies is where a place lies, as rules of countries and states know it; empty where nobody knows.
func (p *Place) Lies() string { return LiesIn(p.Property) }

// LiesIn is where a property lies.
func LiesIn(p store.Property) string { return region.Of(p.Region, string(p.Zone)) }

// SprayLicensed reports a place where whatever is put on plants for hire needs a licence. It holds where country or state
// were entered: a guess by the clock binds nobody.
func (p *Place) SprayLicensed() bool {
	return p.Property.Region != "" && region.AnySpray(p.Property.Region)
}

// regional is the work that rules of countries and states know kinds of jobs by.
var regional = map[job.Kind]string{
	job.Prune: region.Cut, job.TipBack: region.Cut, job.CutBack: region.Cut, job.CutToBase: region.Cut, job.Shorten: region.Cut,
	job.Replace: region.Fell, job.Treat: region.Treat, job.Feed: region.Feed, job.Water: region.Water, job.PlantOut: region.Plant,
}

// HoldsFor are the cautions of a property's country and state about a job on a kind, on a day; only those that somebody at
// work must know, where asked. General are the job's own cautions less those that they say more exactly.
func HoldsFor(
	p store.Property, e *catalogue.Entry, kind job.Kind, trouble string, on day.Day, atWork bool, own []string,
) (general, holds []string) {
	rules := region.About(LiesIn(p), region.Matter{
		Kind: e, Work: regional[kind], Cause: trouble, On: on, South: p.Climate.V.South(), AtWork: atWork,
	})
	for _, r := range rules {
		holds = append(holds, r.Words())
	}
	return region.General(own, rules), holds
}
