package damage

import (
	"testing"

	"mezzadro/core/check"
	"mezzadro/core/day"
)

func casts(h float64) check.Check  { return leaves(h, "dropped") }
func clings(h float64) check.Check { return leaves(h, "clinging") }

// overClimates are further situations, from cold steppe to desert and south of the equator: what a gardener there would
// do, said before it was tried.
var overClimates = []situationAt{
	// Spring after a winter, by how late the kind is.
	{"mophead, tip buds gone, nothing lower looked at", at{"great-lakes", "hydrangea-macrophylla", 1.2, day.Of(2027, 4, 20)}, nil,
		[]check.Check{rub(1.0, 0, 10), scratch(1.0, "brown")}, []string{Wait, Look}, nil, []string{"Replace", "Cut to the base"}},
	{"crape myrtle still bare on 1 April", at{"upland-south", "lagerstroemia-indica", 3, day.Of(2027, 4, 1)}, nil,
		[]check.Check{scratch(2.5, "brown"), scratch(0.3, "brown")}, []string{Wait}, nil, []string{"Replace", "nothing lives"}},
	{"crape myrtle shooting only from the ground at midsummer", at{"piedmont", "lagerstroemia-indica", 3, day.Of(2027, 6, 25)}, nil,
		[]check.Check{scratch(2.5, "brown"), scratch(1, "brown"), scratch(0.3, "brown"), shoot(0.08)}, []string{CutToBase, CutBack}, nil, []string{"Replace"}},
	{"bed roses black down to a hand", at{"great-lakes", "rosa-bedding", 0.9, day.Of(2027, 4, 25)}, nil,
		[]check.Check{scratch(0.7, "brown"), scratch(0.35, "brown"), scratch(0.12, "green")}, []string{Wait, CutBack, CutToBase}, nil, []string{"Replace"}},
	{"pomegranate brown, crown firm, on 1 May", at{"continental-basin", "punica-granatum", 2, day.Of(2027, 5, 1)}, nil,
		[]check.Check{scratch(1.5, "brown"), scratch(0.4, "brown"), crown("firm")}, []string{Wait, CutToBase}, nil, []string{"Replace"}},
	{"fig shooting at knee height in June", at{"oceanic-lowland", "ficus-carica", 3, day.Of(2027, 6, 20)}, nil,
		[]check.Check{scratch(2.5, "brown"), scratch(1.2, "brown"), shoot(0.5), scratch(0.55, "green")}, []string{CutBack}, nil, nil},
	{"a mulberry bare on 1 May", at{"cold-lowland", "morus-nigra", 4, day.Of(2027, 5, 1)}, nil,
		[]check.Check{scratch(1.5, "green")}, []string{Wait, Leave, Look}, nil, []string{"nothing living"}},
	{"two buds of twelve held", at{"prairie", "malus-domestica", 3, day.Of(2027, 4, 20)}, nil,
		[]check.Check{rub(1.8, 2, 10)}, []string{Wait, Look}, nil, []string{"nothing living"}},
	// Evergreens tell by leaf and bark, not by leaf alone.
	{"laurel leaves brown, bark green to the top", at{"oceanic-lowland", "prunus-laurocerasus", 2, march}, nil,
		[]check.Check{clings(1.8), scratch(1.85, "green"), scratch(1.5, "green"), rub(1.9, 6, 0)}, []string{Leave, Wait}, nil, []string{"Cut back", "Cut to"}},
	{"camellia bronzed by cold", at{"great-lakes", "azalea-evergreen", 0.8, march}, nil,
		[]check.Check{leaves(0.7, "bronzed"), rub(0.75, 8, 0)}, []string{Leave}, nil, nil},
	{"rhododendron, edges scorched in a dry cold wind", at{"prairie", "rhododendron-hybrid", 1.5, day.Of(2027, 4, 15)}, nil,
		[]check.Check{leaves(1.3, "scorched_margin"), scratch(1.4, "green"), rub(1.45, 6, 0)}, []string{Leave}, nil, []string{"Cut"}},
	{"arborvitae brown to the foot at midsummer", at{"great-lakes", "thuja-occidentalis", 2, day.Of(2027, 7, 1)}, nil,
		[]check.Check{clings(1.6), scratch(1.6, "brown"), scratch(1.0, "brown"), scratch(0.5, "brown"), scratch(0.15, "brown")}, []string{Replace}, nil, nil},
	{"lemon in a pot has cast its leaves, bark green", at{"lake-foothills", "citrus-limon", 1.5, march}, func(q *Question) { q.Plant.PotL = 40 },
		[]check.Check{casts(1.2), scratch(1.3, "green"), scratch(1.4, "green")}, []string{Leave, Wait}, nil, []string{"Replace", "Cut"}},
	// Autumn and midwinter: nothing is cut, and spring judges.
	{"fuchsia brown at the end of November", at{"oceanic-lowland", "fuchsia-magellanica", 1.2, day.Of(2026, 11, 28)}, nil,
		[]check.Check{scratch(1, "brown"), scratch(0.4, "brown")}, []string{Wait}, []string{"spring"}, []string{"Cut to the base and", "Replace"}},
	{"a bare deciduous shrub in January", at{"northern-prairie", "caragana-arborescens", 2, day.Of(2027, 1, 10)}, nil,
		nil, []string{Look, Leave}, nil, []string{"nothing living", "Replace"}},
	{"silver maple, buds held in January", at{"prairie", "acer-saccharinum", 6, day.Of(2027, 1, 20)}, nil,
		[]check.Check{rub(2, 8, 0), scratch(2, "green")}, []string{Leave, Wait, Look}, nil, []string{"nothing living"}},
	// The desert.
	{"palo verde leafless but green in January", at{"hot-desert", "parkinsonia-florida", 4, day.Of(2027, 1, 15)}, nil,
		[]check.Check{scratch(2, "green"), scratch(3.5, "green"), scratch(3.8, "green")}, []string{Leave}, nil, []string{"dead"}},
	{"orange after a hard desert frost", at{"hot-desert", "citrus-sinensis", 2.5, day.Of(2027, 1, 25)}, nil,
		[]check.Check{clings(2.2), scratch(2.2, "brown"), scratch(1.2, "green")}, []string{Wait}, nil, []string{"Cut back"}},
	{"lantana black, crown firm", at{"hot-desert", "lantana-camara", 0.9, day.Of(2027, 1, 25)}, nil,
		[]check.Check{scratch(0.7, "brown"), scratch(0.2, "brown"), crown("firm")}, []string{Wait, CutToBase}, nil, []string{"Replace"}},
	{"yellow bells shooting low at the end of April", at{"hot-desert", "tecoma-stans", 2.2, day.Of(2027, 4, 28)}, nil,
		[]check.Check{scratch(1.8, "brown"), scratch(1, "brown"), scratch(0.4, "brown"), shoot(0.2)}, []string{CutBack, CutToBase}, nil, []string{"Replace"}},
	// South of the equator.
	{"lemon burnt in July", at{"south-africa-highveld", "citrus-limon", 2, day.Of(2027, 7, 20)}, nil,
		[]check.Check{clings(1.7), scratch(1.6, "brown"), scratch(0.8, "green")}, []string{Wait}, nil, []string{"Cut back", "that is past"}},
	{"bougainvillea brown in August", at{"pampas", "bougainvillea-glabra", 2.5, day.Of(2027, 8, 15)}, nil,
		[]check.Check{scratch(2, "brown"), scratch(1, "brown"), scratch(0.1, "green")}, []string{Wait}, nil, []string{"Replace"}},
	{"feijoa in full shoot in November", at{"new-zealand-south", "feijoa-sellowiana", 2, day.Of(2027, 11, 15)}, nil,
		[]check.Check{shoot(1.9), shoot(1.95)}, []string{Leave}, nil, nil},
	{"hydrangea bare to the ground at the end of November", at{"new-zealand-south", "hydrangea-macrophylla", 1.2, day.Of(2027, 12, 1)}, nil,
		[]check.Check{scratch(1, "brown"), scratch(0.4, "brown"), scratch(0.15, "brown"), crown("firm_buds")}, []string{CutToBase}, []string{"bloom"}, nil},
	// Palms and their likes, each by its build.
	{"queen palm, spear out in March", at{"gulf-coast", "syagrus-romanzoffiana", 5, march}, nil, []check.Check{spear("pulled")}, []string{Wait}, nil, []string{"Replace"}},
	{"queen palm, spear out and head collapsed in late September", at{"gulf-coast", "syagrus-romanzoffiana", 5, day.Of(2027, 9, 25)}, nil,
		[]check.Check{spear("pulled"), head("collapsed")}, []string{Replace}, nil, nil},
	{"fan palm browned, spear held", at{"hot-desert", "washingtonia-filifera", 4, march}, nil, []check.Check{head("browned"), spear("held")}, []string{Leave, Wait}, nil, []string{"Replace", "came out"}},
	{"a clumping palm whose main head is gone in September", at{"dry-summer-coast", "chamaerops-humilis", 2, day.Of(2027, 9, 25)}, nil,
		[]check.Check{spear("pulled"), head("collapsed")}, []string{CutToBase, Wait, Look, Leave}, nil, []string{"Replace it"}},
	{"cabbage palm whose top went soft in March", at{"oceanic-lowland", "cordyline-australis", 2.5, march}, nil, []check.Check{head("collapsed")}, []string{Wait, Look}, nil, []string{"Replace"}},
	// Perennials, bulbs and tubers.
	{"agapanthus mush in March", at{"oceanic-lowland", "agapanthus-africanus", 0.6, march}, nil, []check.Check{crown("soft")}, []string{Wait, Look}, nil, []string{"cratch", "Replace"}},
	{"agapanthus mush at midsummer", at{"oceanic-lowland", "agapanthus-africanus", 0.6, day.Of(2027, 6, 30)}, nil, []check.Check{crown("soft")}, []string{Replace}, nil, []string{"cratch"}},
	{"cannas black in January where they stay out", at{"gulf-coast", "canna-indica", 1.2, day.Of(2027, 1, 15)}, nil, []check.Check{clings(1), crown("firm")}, []string{CutToBase, Wait, Leave}, nil, []string{"cratch", "Lift"}},
	{"hellebore with browned leaves", at{"cold-lowland", "helleborus-orientalis", 0.4, march}, nil, []check.Check{clings(0.3), crown("firm")}, []string{Leave, CutToBase, Wait}, nil, []string{"cratch", "bark"}},
	{"tulips not up yet", at{"prairie", "tulipa-hybrid", 0.3, day.Of(2027, 3, 25)}, nil, nil, []string{Look, Leave}, nil, []string{"cratch", "ub "}},
	// Grafts, rings, rocking.
	{"standard rose, only the stem shoots in April", at{"cold-lowland", "rosa-standard", 1.5, day.Of(2027, 4, 20)}, func(q *Question) { q.Plant.GraftM = 1 },
		[]check.Check{scratch(1.3, "brown"), scratch(1.1, "brown"), leaf(0.5, "rootstock")}, []string{Wait, Look}, nil, []string{"Leave it: it is alive"}},
	{"standard rose, only the stem shoots in July", at{"cold-lowland", "rosa-standard", 1.5, day.Of(2027, 7, 10)}, func(q *Question) { q.Plant.GraftM = 1 },
		[]check.Check{scratch(1.3, "brown"), scratch(1.1, "brown"), leaf(0.5, "rootstock")}, []string{Regraft, Replace}, nil, nil},
	{"young maple gnawed all round", at{"great-lakes", "acer-rubrum", 3, march}, nil, []check.Check{ring(0.1, 1, "no_bridge")}, []string{Regraft, Replace}, []string{"ridge"}, nil},
	{"red-osier dogwood gnawed all round", at{"prairie", "cornus-sericea", 1.8, march}, nil, []check.Check{ring(0.1, 1, "no_bridge")}, []string{CutToBase}, []string{"under the ring"}, nil},
	{"apple gnawed over two fifths", at{"cold-lowland", "malus-domestica", 3, march}, nil, []check.Check{ring(0.15, 0.4, "bridge")}, []string{Leave, Wait}, []string{"40 %"}, nil},
	{"lavender rocking in its hole", at{"oceanic-lowland", "lavandula-angustifolia", 0.5, march}, nil, []check.Check{foot("rocking"), shoot(0.4)}, []string{Leave, TipBack}, []string{"irm"}, []string{"ope off"}},
	// In growth, life above counts for what is below it.
	{"one brown scratch under living shoots in July", at{"piedmont", "abelia-grandiflora", 1.6, day.Of(2027, 7, 10)}, nil,
		[]check.Check{scratch(0.8, "brown"), shoot(1.5), shoot(1.45)}, []string{Leave, TipBack, Look}, nil, []string{"Replace", "to the base"}},
	{"a healthy lilac in July", at{"boreal-inland", "syringa-vulgaris", 2.5, day.Of(2027, 7, 15)}, nil,
		[]check.Check{shoot(2.4), shoot(2.45)}, []string{Leave}, nil, []string{"Wait"}},
}

func TestOverClimates(t *testing.T) { trySituations(t, overClimates) }
