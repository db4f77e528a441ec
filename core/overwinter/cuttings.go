package overwinter

import (
	"fmt"
	"math"

	"mezzadro/core/catalogue"
	"mezzadro/core/day"
	"mezzadro/core/quantity"
	"mezzadro/core/season"
)

// RootsInWater reports a kind whose cuttings root in water.
func RootsInWater(id string) bool { return book().RootInWater[id] > 0 }

// FromCuttings reports a kind that is grown from cuttings, in water or in soil.
func FromCuttings(e *catalogue.Entry) bool { return RootsInWater(e.ID) || waysOf(e) != nil }

// Of cuttings.
const (
	potDays     = 42  // in a pot until its roots hold the soil, before it goes out
	winterAhead = 60  // days before the first frost by which a hardy kind is in the ground, else it waits for spring
	weakLight   = 1.5 // by how much rooting takes longer in the dark half of the year
	weakDay     = 11.0
)

// Cuttings are the steps of cuttings that are taken on a day: in a glass of water where a kind in leaf roots so,
// otherwise in soil, by the way that is open then or opens next. Its error is a kind that is not grown from cuttings.
func Cuttings(e *catalogue.Entry, taken day.Day, y *season.Year) (Wintering, error) {
	if book().RootInWater[e.ID] == 0 || bare(e, taken, y) {
		return inSoil(e, taken, y)
	}
	out := inWater(e, taken, y)
	out.others(e, opened(e, taken, y))
	return out, nil
}

// bare reports a day on which a kind that loses its leaves has none.
func bare(e *catalogue.Entry, d day.Day, y *season.Year) bool {
	if e.LeafSeason != catalogue.Deciduous && e.LeafSeason != catalogue.Herbaceous {
		return false
	}
	m := y.Normals.Climate.Midwinter(d)
	leaves, before := e.Dates(y, m+half/2), e.Dates(y, m-half/2)
	if d > m+half {
		return leaves.Drops && d > leaves.LeafDrop.Mid
	}
	return leaves.InLeaf && d < leaves.LeafOut.Mid && (!before.Drops || d > before.LeafDrop.Mid)
}

// inWater are the steps of cuttings in a glass of water.
func inWater(e *catalogue.Entry, taken day.Day, y *season.Year) Wintering {
	days := float64(7 * book().RootInWater[e.ID])
	if sun := season.SunOn(y.Normals.Climate.Latitude, taken); sun.Set-sun.Rise < weakDay {
		days *= weakLight
	}
	rooted := taken + day.Day(math.Round(days))
	potted := rooted + potDays
	out := Wintering{
		Way:    CarryIn,
		Chance: 0.8,
		Steps:  []Step{},
		Keep: &Keep{
			LeastC: 15,
			MostC:  22,
			Light:  "bright",
			M2:     0.02,
			Water:  "Fresh water every few days; no leaf under it.",
		},
		How:   []string{},
		Never: []string{},
	}
	out.step(
		"Cut below a leaf, strip the lower leaves, set into water, light but out of the sun",
		taken,
		taken+2,
		"soft tips without flowers root best",
	)
	out.step(
		"Into soil when the roots are as long as a finger is wide",
		rooted,
		rooted+10,
		"long water roots break, and do not grow on in soil",
	)
	hardy := e.HardinessC < y.Normals.Climate.ExtremeMinC
	frost, comes := y.FirstFrost(winterOf(y, potted), 0)
	if hardy && (!comes || potted < frost.Early-winterAhead) && inSeason(y, potted) {
		out.step("Harden them off: out by day, in shade at first", potted, potted+hardenDays, "leaves grown indoors scorch")
		out.step("Plant them out", potted+hardenDays, potted+hardenDays+14, "their roots have time until winter")
		return out
	}
	limit := 0.0
	goes, cold := lastNight(y, potted, limit)
	if !cold {
		goes = potted + hardenDays
	}
	goes = max(goes, potted+hardenDays)
	if goes-potted > 60 {
		out.step(
			"Keep them light, cool and rather dry over winter",
			potted,
			goes-hardenDays,
			fmt.Sprintf("%s, and nothing that is soft and new by the cold", quantity.Temperature(8)),
		)
	}
	out.step("Harden them off: out by day, in by night", goes-hardenDays, goes, "leaves grown indoors scorch and freeze")
	out.step("Out for good", goes, goes+14, "the last frost is over in nine years of ten")
	return out
}

// inSeason reports a day that is warm enough for something to root on outside.
func inSeason(y *season.Year, d day.Day) bool { return y.Normals.Mean(d) >= 8 }

// lastNight is the day of spring after a day on which the last night under a limit is over in nine years of ten; in the
// warm season, the day itself. ok is false where such nights are rare.
func lastNight(y *season.Year, from day.Day, limit float64) (day.Day, bool) {
	this, cold := y.FrostDay(from, limit, lastBy, true)
	if !cold {
		return 0, false
	}
	if m := y.Normals.Climate.Midwinter(from); from >= m && from <= this {
		return this, true
	}
	if first, ok := y.FirstFrost(winterOf(y, from), limit); ok && from < first.Early && from > this {
		return from, true
	}
	return springDay(y, from, limit)
}
