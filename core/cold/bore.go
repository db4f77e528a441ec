package cold

import (
	"cmp"
	"maps"
	"slices"

	"mezzadro/core/catalogue"
)

// Bore is what plants of one species bore on the day of a cold event.
type Bore struct {
	Species catalogue.Entry
	Organ   string  // the worst hurt one, the wood where none was
	C       float64 // temperature of the air at which half of it dies, °C
	Share   float64 // expected share killed
	Plants  int     // plants or groups of it
}

// WhatBore tells, for the species among plants, what they bore in a cold event, from the tenderest to the hardiest:
// those it hurt and, for comparison, the next two it did not; spread evenly over at most so many. Organs that do not
// meet the air are left out.
func (s *Struck) WhatBore(plants []Plant, stage func(*catalogue.Entry) catalogue.Stage, most int) []Bore {
	worst := map[string]Bore{}
	for i := range plants {
		p := &plants[i]
		o := s.Meet(p, stage(&p.Species))
		b := Bore{p.Species, Wood, o.WoodKillC, o.Worst.Share, 1}
		switch o.Worst.Organ {
		case Roots, Crown:
			continue
		case "":
		default:
			b.Organ, b.C = o.Worst.Organ, o.Worst.KillC
		}
		if was, known := worst[p.Species.ID]; known {
			b.Plants += was.Plants
			if was.Share > b.Share {
				b.Organ, b.C, b.Share = was.Organ, was.C, was.Share
			}
		}
		worst[p.Species.ID] = b
	}
	all := slices.SortedFunc(
		maps.Values(worst),
		func(a, b Bore) int { return cmp.Or(cmp.Compare(b.C, a.C), cmp.Compare(a.Species.ID, b.Species.ID)) },
	)
	if borne := slices.IndexFunc(all, func(b Bore) bool { return b.C < s.Value }); borne >= 0 {
		all = all[:min(len(all), borne+2)] // hardier ones tell nothing more
	}
	if len(all) <= most {
		return all
	}
	out := make([]Bore, most)
	for i := range out {
		out[i] = all[i*(len(all)-1)/(most-1)]
	}
	return out
}
