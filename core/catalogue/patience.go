package catalogue

import (
	"mezzadro/core/day"
	"mezzadro/core/season"
)

// neverLeafs is where the patience date stands in a place too cool for the species to leaf: midsummer, days after
// midwinter.
const neverLeafs = 172

// Patience is the patience date in the garden year of d: the day by which the plant, if alive, would have shown leaf in
// this year's warmth, nine years in ten, plus the species' margin for coming late after damage. The band is that of its
// leaves.
func (e Entry) Patience(y *season.Year, d day.Day) (day.Day, season.Band) {
	b, ok := y.Resolve(e.LeafOut, d, nil)
	if !ok {
		m := y.Normals.Climate.Midwinter(d) + neverLeafs
		return m, season.Band{Early: m, Mid: m, Late: m}
	}
	return b.Late + day.Day(e.LatenessDays), b
}
