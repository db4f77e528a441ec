package overwinter

import (
	"slices"

	"mezzadro/core/catalogue"
	"mezzadro/core/check"
	"mezzadro/core/quantity"
)

// How a winter's protection is done, by what the plant is and how cold its place gets.
const (
	sureOutside = 0.985 // chance outside from which nothing at all is done
	moundsC     = -16.0 // coldest night of a usual year from which grafts are mounded, °C
	buriesC     = -24.0 // and from which canes are laid down
	sinksC      = -15.0 // and from which a wall and a wrap are not enough for a pot
	guardsC     = -18.0 // from which young bark and evergreens are guarded
	frostC      = -1.0  // and from which frost has to be reckoned with at all
	youngM      = 3.5
)

// thinBark are genera whose young bark splits in winter sun and is gnawed.
var thinBark = []string{"Malus", "Pyrus", "Prunus", "Acer", "Tilia", "Sorbus", "Fraxinus", "Gleditsia", "Lagerstroemia"}

// hows says how the winter is done; never is what does harm.
func hows(p check.Plant, w *Wintering, extremeC float64) (how, never []string) {
	never = []string{"No plastic on leaves or round stems.", "No hard cut in autumn.", "No feed before spring."}
	if p.Species.Annual {
		return []string{}, []string{}
	}
	switch w.Way {
	case CarryIn, LiftPot:
		return inside(p), append(never, "No heated room: it grows long and weak.")
	case Tubers:
		return []string{"Dry them under a roof, then store them frost-free and dark, barely moist; throw out what rots.",
			"Where winters are mild and the ground drains, a thick mulch over them is enough."}, never[2:]
	}
	if w.Way != StaysOut || extremeC < frostC {
		how = outside(p, w, extremeC)
	}
	if len(how) == 0 {
		return []string{"Leave it: nothing is needed."}, never[1:]
	}
	for i := range how {
		how[i] = quantity.Worded(how[i])
	}
	return how, never
}

// inside is how a plant is kept that comes in.
func inside(p check.Plant) []string {
	e := p.Species
	out := []string{"Look it over for scales and mites before it comes in, and wash it."}
	switch {
	case e.LeafSeason == catalogue.Deciduous || e.Genus() == "Plumeria":
		return append(out, "Cool; dark will do once it is leafless (a garage does); nearly dry. To be leafless is normal.")
	case e.LeafSeason == catalogue.Herbaceous:
		return append(out, "Cool; dark will do once its top has died down and is cut off; nearly dry.")
	case e.Form == catalogue.Perennial:
		return append(
			out,
			"Cool and light, nearly dry; its leaves stay, what is soft is cut back. Or take cuttings and treat it as an annual.",
		)
	}
	return append(out, "Cool and light, little water, damp air; aired on mild days.")
}

// outside is how a plant is kept that stays where it stands.
func outside(p check.Plant, w *Wintering, extremeC float64) []string {
	e := p.Species
	tender := w.Way != StaysOut || w.Out < sureOutside
	evergreen := e.LeafSeason == catalogue.Evergreen || e.LeafSeason == catalogue.SemiEvergreen
	switch {
	case p.PotL > 0 && w.Way == Wrapped && extremeC < sinksC:
		return []string{
			"Sink the pot in the ground to its rim and mulch it, or stand it in an unheated shed or against the wall, wrapped; the pot, not the plant.",
			"Water it in frost-free spells; out of the winter sun.",
		}
	case p.PotL > 0:
		return []string{
			"Stand it against the wall, on feet, out of the winter sun; wrap the pot, not the plant, and mulch it. Or sink the pot in the ground.",
			"Water it in frost-free spells; fleece over the top in hard frost only.",
		}
	case e.Genus() == "Dicksonia":
		return []string{
			"Straw into the crown, the leaves folded over it; wrap the trunk with fleece. In mild places leave it.",
		}
	case e.Genus() == "Musa":
		return []string{
			"Cut the leaves after the first frost, wrap the stems with straw under a roof, and mulch the foot thickly.",
			"In hard climates cut it down to a metre, or lift and store it.",
		}
	case e.Form == catalogue.Palm || e.Genus() == "Cycas" || e.Genus() == "Cordyline" || e.Genus() == "Phormium":
		return palms(tender)
	case e.Genus() == "Cortaderia" && extremeC < -9:
		return []string{"Tie up the leaves against wet in its heart, and leave it standing till spring; mulch its foot."}
	case e.Genus() == "Rosa":
		return roses(p, extremeC, tender)
	case e.Genus() == "Vitis" && extremeC < -21 || e.Genus() == "Ficus" && extremeC < -19:
		return []string{
			"After leaf fall lay it down or tie it together, cover it with straw mats or soil, and mulch the foot.",
		}
	case e.Genus() == "Citrus" && tender:
		return []string{
			"Fleece to the ground on frost nights, off by day; mound or mulch the foot for the winter; water before frost.",
			"A young one has a frame or a roof against the wall, open by day.",
		}
	case e.LeafSeason == catalogue.Herbaceous && tender || e.Form == catalogue.Perennial && tender:
		if evergreen {
			return []string{"Leave its leaves on, mulch round the crown, and fleece over it on hard nights, off again by day."}
		}
		return []string{"Leave it, cut down after frost, and mulch the crown a hand deep; in wet clay it is lifted instead."}
	case e.Bloom.OldWood >= 0.6 && e.Genus() == "Hydrangea" && extremeC < -14:
		return []string{"Leave stems and heads on; mulch the foot, and a cage of leaves or burlap round the stems."}
	case tender && e.Form == catalogue.Subshrub:
		return []string{
			"Leave the top till spring; brushwood or fleece on cold nights, mulch its foot with grit, keep it dry. Take cuttings in case.",
		}
	case tender && w.Out >= 0.8:
		return []string{
			"Leave it in an ordinary winter; mulch its foot, and keep fleece ready for a very hard night, off again by day.",
		}
	case tender:
		return []string{
			"Mulch its foot; fleece on hard nights, off again by day. A young one is wrapped, or stands against the wall.",
			leftStems(&e),
		}
	case e.Form == catalogue.Tree && p.HeightM <= youngM && extremeC < guardsC && slices.Contains(thinBark, e.Genus()):
		return []string{
			"Guard the trunk against gnawing, white wrap on the sunny side; mulch, clear of the bark; water before the ground freezes.",
		}
	case evergreen && p.HeightM <= youngM && extremeC < guardsC:
		return []string{
			"Water before the ground freezes, mulch; a screen of burlap against wind and March sun while it is young.",
		}
	}
	return nil
}

// palms is how what keeps its heart at the top is kept.
func palms(tender bool) []string {
	if !tender {
		return []string{
			"Leave it: an ordinary winter does it nothing. Mulch its foot; fleece in very hard frost only, off again after it.",
		}
	}
	return []string{
		"Tie up the leaves, keep the heart dry under a small roof, mulch the foot.",
		"Fleece or a straw wrap in hard frost, off again after it; green leaves stay.",
	}
}

// roses is how they are kept by what is grafted, and how high.
func roses(p check.Plant, extremeC float64, tender bool) []string {
	e := p.Species
	hardy := e.HardinessC < extremeC-6
	switch {
	case !tender && (hardy || extremeC > moundsC && p.Graft() < 0.5):
		return nil
	case p.Graft() >= 0.5 || e.ID == "rosa-standard":
		return []string{
			"Wrap the graft and head with fleece or sacking, with straw inside, or bend it down and cover it; mound the foot.",
		}
	case e.ID == "rosa-climbing" && extremeC < moundsC-4:
		return []string{"Lay the canes down, or tie burlap over them, and cover them airily; mound soil over the graft."}
	case extremeC < buriesC:
		return []string{
			"Mound soil a hand over the graft before the ground freezes, and a thick mulch over it; shorten whips only. Snow helps.",
		}
	}
	return []string{
		"Mound soil or compost a hand over the graft before the ground freezes; shorten whips only; off again as buds swell.",
	}
}

// leftStems is what is done with stems that may come through.
func leftStems(e *catalogue.Entry) string {
	if FromCuttings(e) {
		return "Leave the stems till spring; take cuttings in case."
	}
	return "Leave the stems till spring."
}
