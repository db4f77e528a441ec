package estate

import (
	"strconv"

	"mezzadro/core/catalogue"
	"mezzadro/core/cold"
	"mezzadro/core/offset"
	"mezzadro/core/walk"
	"mezzadro/store"
)

// measured reports that most of the days that still matter were measured in the garden itself.
func (p *Place) measured() bool {
	here := 0
	for _, rank := range p.SeenBy {
		if rank == store.OfTheGarden {
			here++
		}
	}
	return 2*here > len(p.SeenBy)
}

// Milder is by how much a plant here is reckoned milder for what its garden, its spot and its kind have shown, °C.
func (p *Place) Milder(plant store.Plant) float64 {
	if p.shown == nil {
		return 0
	}
	spot := offset.SpotOf(plant.Exposure.Or(p.Property.Exposure.V), plant.PotL)
	return p.shown.For(strconv.FormatInt(p.Property.ID, 10), spot, plant.Species, p.measured())
}

// OnWalk is a plant here as a walk knows it, with what was learnt of where it stands.
func (p *Place) OnWalk(plant store.Plant, years int) walk.Plant {
	out := OnWalk(plant, p.Property, years)
	out.MilderC = p.Milder(plant)
	return out
}

// CaseOf is a plant here as the core's triage takes it.
func (p *Place) CaseOf(plant store.Plant, e catalogue.Entry) cold.Case {
	w := p.OnWalk(plant, 0)
	return w.Case(e, p.Property.Climate.V.South())
}
