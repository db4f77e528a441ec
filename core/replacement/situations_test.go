package replacement

import (
	"maps"
	"slices"
	"strings"
	"testing"

	"mezzadro/core/catalogue"
	"mezzadro/core/cause"
	"mezzadro/core/invalid"
	"mezzadro/core/season"
)

func ask(t testing.TB, climate string) Ask {
	t.Helper()
	book := catalogue.Built()
	c, err := book.Climate(climate)
	if err != nil {
		t.Fatal(err)
	}
	return Ask{Year: season.NewYear(c.Climate.Daily(), nil), Among: book.Entries}
}

func sun(h float64) *float64 { return &h }

// TestSituations: what a gardener would plant there, and what not and why. may: allowed, in whatever place; best:
// among the first third of what is allowed; last: left out or in its lower half; out: left out, with a word of the reason.
func TestSituations(t *testing.T) {
	for _, c := range []struct {
		name    string
		climate string
		spot    Spot
		died    Died
		wish    Wish
		may     []string
		best    []string
		last    []string // left out, or in the lower half
		out     map[string]string
	}{
		{name: "prairie winters", climate: "prairie", spot: Spot{Light: "full sun"},
			best: []string{"syringa-meyeri", "potentilla-fruticosa"}, out: map[string]string{"olea-europaea": "bears", "lavandula-angustifolia": "bears", "camellia-japonica": "bears", "buxus-sempervirens": "bears"}},
		{name: "the same spruce stands there", climate: "prairie", spot: Spot{Light: "full sun"}, wish: Wish{Evergr: true},
			may: []string{"picea-glauca", "picea-pungens"}, out: map[string]string{"syringa-meyeri": "not evergreen", "prunus-laurocerasus": "bears"}},
		{name: "an olive froze in the foothills", climate: "lake-foothills", spot: Spot{Light: "full sun"}, died: Died{Species: "olea-europaea", Cause: "frost-in-winter"},
			may: []string{"syringa-vulgaris"}, out: map[string]string{"olea-europaea": "froze", "citrus-limon": "bears", "nerium-oleander": ""}},
		{name: "the Gulf coast in full sun", climate: "gulf-coast", spot: Spot{Light: "full sun"},
			may: []string{"lagerstroemia-indica", "ilex-vomitoria"}, best: []string{"ilex-vomitoria"}, out: map[string]string{"syringa-vulgaris": "", "picea-abies": ""}},
		{name: "hot desert without water", climate: "hot-desert", spot: Spot{Light: "full sun", Water: "dry"},
			best: []string{"leucophyllum-frutescens", "hesperaloe-parviflora"}, out: map[string]string{"hydrangea-macrophylla": "", "rhododendron-hybrid": "", "astilbe-arendsii": ""}},
		{name: "dry shade under trees", climate: "cool-coast", spot: Spot{Light: "shade", Water: "dry"},
			may: []string{"hedera-helix", "vinca-minor"}, out: map[string]string{"lavandula-angustifolia": "wants full sun", "rosa-bedding": "wants full sun", "astilbe-arendsii": "dry"}},
		{name: "full sun, dry bank", climate: "dry-summer-coast", spot: Spot{Light: "full sun", Water: "dry"},
			best: []string{"lavandula-angustifolia", "salvia-rosmarinus"}, out: map[string]string{"hosta-hybrid": "", "hydrangea-macrophylla": "", "alnus-glutinosa": ""}},
		{name: "a wet hollow", climate: "oceanic-lowland", spot: Spot{Light: "full sun", Water: "wet", Stands: true, Hollow: true},
			may: []string{"alnus-glutinosa", "cornus-alba"}, out: map[string]string{"lavandula-angustifolia": "roots rot", "taxus-baccata": "", "prunus-avium": ""}},
		{name: "a hydrangea scorched at noon", climate: "lake-foothills", spot: Spot{Sun: sun(9)}, died: Died{Species: "hydrangea-macrophylla", Cause: "sunscald-leaf"},
			may: []string{"hydrangea-paniculata"}, out: map[string]string{"hydrangea-macrophylla": "scorch", "rhododendron-hybrid": "scorch", "hosta-hybrid": "scorch"}},
		{name: "roses starved in shade", climate: "cool-coast", spot: Spot{Sun: sun(1.5)}, died: Died{Species: "rosa-bedding", Cause: "shade"},
			may: []string{"hydrangea-petiolaris", "helleborus-orientalis"}, out: map[string]string{"rosa-shrub": "", "lavandula-angustifolia": "", "syringa-vulgaris": ""}},
		{name: "a maple died of wilt in the soil", climate: "oceanic-lowland", spot: Spot{Light: "full sun"}, died: Died{Species: "acer-platanoides", Cause: "wilt", Years: 1},
			may: []string{"betula-pendula", "carpinus-betulus", "crataegus-monogyna"}, out: map[string]string{"acer-campestre": "stays in the soil", "cotinus-coggygria": "stays in the soil", "tilia-cordata": "stays in the soil", "cercis-siliquastrum": ""}},
		{name: "the same, the soil changed", climate: "oceanic-lowland", spot: Spot{Light: "full sun"}, died: Died{Species: "acer-platanoides", Cause: "wilt", Years: 1, Soil: true},
			may: []string{"acer-campestre"}},
		{name: "the same, twenty years ago", climate: "oceanic-lowland", spot: Spot{Light: "full sun"}, died: Died{Species: "acer-platanoides", Cause: "wilt", Years: 20},
			may: []string{"acer-campestre", "tilia-cordata"}},
		{name: "honey fungus under the privet", climate: "cool-coast", spot: Spot{Light: "full sun"}, died: Died{Species: "ligustrum-ovalifolium", Cause: "honey-fungus", Years: 1},
			may: []string{"taxus-baccata", "carpinus-betulus"}, out: map[string]string{"ligustrum-ovalifolium": "root fungus", "rosa-shrub": "root fungus", "prunus-avium": "root fungus"}},
		{name: "a rhododendron drowned", climate: "humid-east", spot: Spot{Light: "part shade", Stands: true}, died: Died{Species: "rhododendron-hybrid", Cause: "root-rot"},
			may: []string{"clethra-alnifolia"}, out: map[string]string{"rhododendron-hybrid": "", "taxus-baccata": "", "pieris-japonica": ""}},
		{name: "roses after roses", climate: "oceanic-lowland", spot: Spot{Light: "full sun"}, died: Died{Species: "rosa-bedding", Years: 1},
			may: []string{"spiraea-japonica", "potentilla-fruticosa"}, out: map[string]string{"rosa-shrub": "tired", "rosa-bedding": "tired"}},
		{name: "roses after roses in new soil", climate: "oceanic-lowland", spot: Spot{Light: "full sun"}, died: Died{Species: "rosa-bedding", Years: 1, Soil: true}, may: []string{"rosa-shrub"}},
		{name: "an apple after an apple", climate: "oceanic-lowland", spot: Spot{Light: "full sun"}, died: Died{Species: "malus-domestica", Years: 2}, wish: Wish{Edible: true},
			may: []string{"prunus-domestica", "morus-nigra"}, out: map[string]string{"malus-domestica": "tired", "pyrus-communis": "tired"}},
		{name: "fire blight took the pear", climate: "alpine-foreland", spot: Spot{Light: "full sun"}, died: Died{Species: "pyrus-communis", Cause: "fire-blight", Years: 8},
			may: []string{"prunus-avium"}, out: map[string]string{"cydonia-oblonga": "Fire blight", "crataegus-monogyna": "Fire blight", "pyracantha-coccinea": "Fire blight"}},
		{name: "box blight and moth", climate: "lake-foothills", spot: Spot{Light: "part shade"}, died: Died{Species: "buxus-sempervirens", Cause: "box-blight"}, wish: Wish{Evergr: true, MaxM: 3},
			may: []string{"ilex-crenata"}, best: []string{"ilex-crenata"}, out: map[string]string{"buxus-sempervirens": "Box blight", "buxus-variegated": "Box blight"}},
		{name: "elm disease", climate: "oceanic-lowland", spot: Spot{Light: "full sun"}, died: Died{Species: "ulmus-minor", Cause: "elm-disease"},
			may: []string{"tilia-cordata"}, out: map[string]string{"ulmus-minor": "Elm disease", "ulmus-americana": "Elm disease"}},
		{name: "small children", climate: "mild-atlantic-coast", spot: Spot{Children: true},
			may: []string{"camellia-japonica"}, out: map[string]string{"taxus-baccata": "small children", "laburnum-anagyroides": "small children", "nerium-oleander": "small children", "berberis-julianae": "Thorns", "digitalis-purpurea": "small children", "agave-americana": ""}},
		{name: "dogs", climate: "gulf-coast", spot: Spot{Pets: true}, may: []string{"camellia-sasanqua"}, out: map[string]string{"cycas-revoluta": "kill a pet", "nerium-oleander": "kill a pet"}},
		{name: "above a car park", climate: "continental-basin", spot: Spot{People: true, Light: "full sun"}, may: []string{"tilia-cordata"}, out: map[string]string{"acer-saccharinum": "breaks", "populus-nigra": "breaks", "salix-babylonica": "breaks"}},
		{name: "a salted road in the north", climate: "great-lakes", spot: Spot{Light: "full sun", Salt: true}, best: []string{"gleditsia-triacanthos", "syringa-reticulata"}, last: []string{"acer-saccharum", "pinus-strobus", "tsuga-canadensis"}},
		{name: "a hedge by the sea", climate: "cool-coast", spot: Spot{Light: "full sun", Salt: true, Windy: true}, wish: Wish{ScreenM: 1.5}, best: []string{"escallonia-rubra", "griselinia-littoralis"}, last: []string{"carpinus-betulus", "thuja-plicata"}},
		{name: "a garden on limestone", climate: "lake-foothills", spot: Spot{Light: "part shade", PH: 7.8}, may: []string{"hydrangea-macrophylla"}, last: []string{"vaccinium-corymbosum", "pieris-japonica", "camellia-japonica"}},
		{name: "wildfire country, by the house", climate: "dry-summer-coast", spot: Spot{Light: "full sun", Fire: true}, best: []string{"pittosporum-tobira"}, last: []string{"juniperus-chinensis", "eucalyptus-gunnii", "cupressus-sempervirens"}},
		{name: "nothing that runs wild, in the south-east", climate: "upland-south", spot: Spot{Light: "full sun"}, wish: Wish{Tame: true}, may: []string{"lagerstroemia-indica"}, out: map[string]string{"wisteria-sinensis": "wild", "pyrus-calleryana": "wild", "lonicera-japonica": "wild"}},
		{name: "a street tree in the north of America", climate: "great-lakes", spot: Spot{Light: "full sun"}, last: []string{"acer-platanoides", "ailanthus-altissima"}},
		{name: "the same maple in Europe", climate: "cold-lowland", spot: Spot{Light: "full sun"}, may: []string{"acer-platanoides"}},
		{name: "under a wire of five metres", climate: "oceanic-lowland", spot: Spot{WireM: 5, Light: "full sun"}, may: []string{"syringa-vulgaris"}, out: map[string]string{"tilia-cordata": "wire", "fagus-sylvatica": "wire", "betula-pendula": "wire"}},
		{name: "two metres from the house", climate: "oceanic-lowland", spot: Spot{HouseM: 2, Light: "full sun"}, may: []string{"spiraea-japonica"}, out: map[string]string{"quercus-robur": "wall", "aesculus-hippocastanum": "wall", "platanus-hispanica": "wall"}},
		{name: "beside a drain", climate: "oceanic-lowland", spot: Spot{DrainM: 3}, out: map[string]string{"salix-babylonica": "drain", "populus-nigra": "drain"}, may: []string{"carpinus-betulus"}},
		{name: "below a window sill", climate: "lake-foothills", spot: Spot{HeightM: 1, SpreadM: 1.2, Light: "full sun"}, may: []string{"lavandula-angustifolia"}, out: map[string]string{"photinia-fraseri": "tall", "syringa-vulgaris": "tall", "magnolia-grandiflora": "tall"}},
		{name: "a pot on a northern terrace", climate: "continental-basin", spot: Spot{PotL: 60, Light: "full sun"}, out: map[string]string{"olea-europaea": "", "quercus-robur": "pot", "camellia-japonica": "", "fagus-sylvatica": "pot"}},
		{name: "a screen of two metres, evergreen", climate: "cool-coast", spot: Spot{Light: "full sun"}, wish: Wish{ScreenM: 2, Evergr: true}, may: []string{"griselinia-littoralis"}, best: []string{"prunus-lusitanica"}, out: map[string]string{"lavandula-angustifolia": "hide", "fagus-sylvatica": "not evergreen", "hebe-shrubby": "hide"}},
		{name: "something to eat at a warm wall", climate: "oceanic-lowland", spot: Spot{Light: "full sun", WarmWall: true}, wish: Wish{Edible: true}, may: []string{"ficus-carica", "vitis-vinifera", "prunus-persica"}, out: map[string]string{"camellia-japonica": "eaten", "citrus-limon": "bears"}},
		{name: "winter bloom", climate: "cool-coast", spot: Spot{Light: "part shade"}, wish: Wish{Bloom: []int{1, 2}}, best: []string{"hamamelis-intermedia", "sarcococca-confusa"}},
		{name: "autumn bloom in sun", climate: "cool-coast", spot: Spot{Light: "full sun"}, wish: Wish{Bloom: []int{9, 10}}, best: []string{"sedum-spectabile"}},
		{name: "a border that is never touched", climate: "oceanic-lowland", spot: Spot{Light: "full sun"}, wish: Wish{LowWork: true, Forms: []catalogue.Form{catalogue.Shrub}}, best: []string{"potentilla-fruticosa"}, out: map[string]string{"rosa-climbing": "", "betula-pendula": "It is a tree"}},
		{name: "a spot that must not have knotty spreaders", climate: "humid-east", spot: Spot{Light: "full sun", Invasive: []string{"berberis-thunbergii", "pyrus-calleryana", "euonymus-alatus"}}, out: map[string]string{"berberis-thunbergii": "must not", "pyrus-calleryana": "must not", "euonymus-alatus": "must not"}, may: []string{"amelanchier-lamarckii"}},
		{name: "a citrus garden by the southern sea", climate: "citrus-coast", spot: Spot{Light: "full sun"}, wish: Wish{Edible: true}, may: []string{"citrus-limon", "citrus-sinensis"}, out: map[string]string{"ribes-nigrum": ""}},
		{name: "the southern coast in shade", climate: "southern-coast", spot: Spot{Light: "shade"}, may: []string{"aucuba-japonica"}, out: map[string]string{"callistemon-citrinus": "wants full sun", "lavandula-stoechas": "wants full sun"}},
		{name: "far north by the sea", climate: "nordic-coast", spot: Spot{Light: "full sun", Windy: true}, may: []string{"sorbus-aucuparia", "pinus-mugo"}, best: []string{"pinus-mugo"}, out: map[string]string{"ceanothus-evergreen": "bears", "phormium-tenax": ""}},
		{name: "boreal", climate: "boreal-inland", spot: Spot{Light: "full sun"}, may: []string{"betula-papyrifera", "caragana-arborescens"}, out: map[string]string{"fagus-sylvatica": "bears", "magnolia-soulangeana": "bears", "wisteria-sinensis": "bears"}},
		{name: "died of thirst under a birch", climate: "continental-basin", spot: Spot{Light: "part shade", Roots: 0.9}, died: Died{Species: "hydrangea-macrophylla", Cause: "drought"}, may: []string{"geranium-macrorrhizum"}, best: []string{"geranium-macrorrhizum"}, out: map[string]string{"hydrangea-macrophylla": "thirst", "astilbe-arendsii": "thirst"}},
		{name: "winter wind burnt the laurel", climate: "continental-basin", spot: Spot{Windy: true, Light: "full sun"}, died: Died{Species: "prunus-laurocerasus", Cause: "winter-drying"}, wish: Wish{Evergr: true}, may: []string{"juniperus-chinensis"}, best: []string{"pinus-mugo"}},
		{name: "only ugly: black spot on roses", climate: "humid-east", spot: Spot{Light: "full sun"}, died: Died{Species: "rosa-bedding", Cause: "black-spot", Soil: true, Ugly: true}, may: []string{"rosa-rugosa"}},
		{name: "a garden of no winter", climate: "humid-subtropics", spot: Spot{Light: "full sun"}, may: []string{"hibiscus-rosa-sinensis"}, out: map[string]string{"syringa-vulgaris": "", "picea-glauca": ""}},
		// Wishes of scent, colour and bees; neighbours, sills and crowns; other climates.
		{name: "scent beside a seat in half shade", climate: "cool-coast", spot: Spot{Light: "part shade"}, wish: Wish{Scent: true, Evergr: true}, best: []string{"sarcococca-confusa", "choisya-ternata"}, may: []string{"skimmia-japonica"}},
		{name: "bees on a dry bank", climate: "lake-foothills", spot: Spot{Light: "full sun", Water: "dry"}, wish: Wish{Pollin: true}, best: []string{"lavandula-angustifolia", "thymus-vulgaris"}, may: []string{"nepeta-faassenii"}},
		{name: "blue in late summer", climate: "cool-coast", spot: Spot{Light: "full sun"}, wish: Wish{Colours: []string{"blue"}, Bloom: []int{8, 9}}, best: []string{"caryopteris-clandonensis", "perovskia-atriplicifolia"}},
		{name: "yellow in deep winter", climate: "cool-coast", spot: Spot{Light: "full sun"}, wish: Wish{Colours: []string{"yellow"}, Bloom: []int{1, 2}}, best: []string{"hamamelis-intermedia", "jasminum-nudiflorum"}},
		{name: "white in shade", climate: "oceanic-lowland", spot: Spot{Light: "shade"}, wish: Wish{Colours: []string{"white"}}, best: []string{"hydrangea-petiolaris"}, out: map[string]string{"rosa-shrub": ""}},
		{name: "bees on the prairie", climate: "northern-prairie", spot: Spot{Light: "full sun"}, wish: Wish{Pollin: true}, best: []string{"potentilla-fruticosa"}, out: map[string]string{"lavandula-angustifolia": "bears", "buddleja-davidii": "bears"}},
		{name: "red in the desert", climate: "hot-desert", spot: Spot{Light: "full sun", Water: "dry"}, wish: Wish{Colours: []string{"red"}}, best: []string{"hesperaloe-parviflora"}},
		{name: "scented evergreen by the Gulf", climate: "gulf-coast", spot: Spot{Light: "part shade"}, wish: Wish{Scent: true, Evergr: true}, best: []string{"osmanthus-fragrans"}, may: []string{"gardenia-jasminoides"}, out: map[string]string{"philadelphus-coronarius": "not evergreen"}},
		{name: "before a low window", climate: "lake-foothills", spot: Spot{Light: "full sun", Water: "well drained", SillM: 0.9}, wish: Wish{Evergr: true}, best: []string{"lavandula-angustifolia", "santolina-chamaecyparissus"}, may: []string{"prunus-laurocerasus"}},
		{name: "beneath an old tree", climate: "cool-coast", spot: Spot{Light: "shade", Roots: 0.9, ClearM: 2}, best: []string{"geranium-macrorrhizum", "vinca-minor"}, may: []string{"taxus-baccata"}, out: map[string]string{"rosa-bedding": "wants full sun"}},
		{name: "a pot of thirty litres", climate: "lake-foothills", spot: Spot{Light: "full sun", PotL: 30}, may: []string{"lavandula-angustifolia", "buxus-sempervirens"}, out: map[string]string{"fagus-sylvatica": "pot", "quercus-robur": "pot", "citrus-limon": ""}},
		{name: "a screen of three metres soon", climate: "oceanic-lowland", spot: Spot{Light: "full sun"}, wish: Wish{ScreenM: 3, Within: 7, Evergr: true}, best: []string{"thuja-occidentalis"}, may: []string{"prunus-laurocerasus", "prunus-lusitanica", "thuja-plicata"}, out: map[string]string{"lavandula-angustifolia": "does not hide", "erica-carnea": "does not hide", "syringa-vulgaris": "not evergreen"}},
		{name: "by the drain", climate: "oceanic-lowland", spot: Spot{Light: "full sun", DrainM: 3}, may: []string{"acer-campestre", "amelanchier-lamarckii"}, out: map[string]string{"salix-babylonica": "drain", "populus-nigra": "drain"}},
		{name: "a salted road in the north", climate: "great-lakes", spot: Spot{Light: "full sun", Salt: true}, best: []string{"gleditsia-triacanthos", "syringa-reticulata"}, last: []string{"acer-saccharum", "pinus-strobus", "tsuga-canadensis"}},
		{name: "a hedge by the sea", climate: "cool-coast", spot: Spot{Light: "full sun", Salt: true, Windy: true}, wish: Wish{ScreenM: 1.5}, best: []string{"escallonia-rubra", "griselinia-littoralis"}, last: []string{"carpinus-betulus", "thuja-plicata"}},
		{name: "a garden on limestone", climate: "lake-foothills", spot: Spot{Light: "part shade", PH: 7.8}, may: []string{"hydrangea-macrophylla"}, last: []string{"vaccinium-corymbosum", "pieris-japonica", "camellia-japonica"}},
		{name: "wildfire country, by the house", climate: "dry-summer-coast", spot: Spot{Light: "full sun", Fire: true}, best: []string{"pittosporum-tobira"}, last: []string{"juniperus-chinensis", "eucalyptus-gunnii", "cupressus-sempervirens"}},
		{name: "nothing that runs wild, in the south-east", climate: "upland-south", spot: Spot{Light: "full sun"}, wish: Wish{Tame: true}, may: []string{"lagerstroemia-indica"}, out: map[string]string{"wisteria-sinensis": "wild", "pyrus-calleryana": "wild", "lonicera-japonica": "wild"}},
		{name: "a street tree in the north of America", climate: "great-lakes", spot: Spot{Light: "full sun"}, last: []string{"acer-platanoides", "ailanthus-altissima"}},
		{name: "the same maple in Europe", climate: "cold-lowland", spot: Spot{Light: "full sun"}, may: []string{"acer-platanoides"}},
		{name: "under a wire of five metres", climate: "great-lakes", spot: Spot{Light: "full sun", WireM: 5}, may: []string{"syringa-meyeri", "hydrangea-paniculata"}, out: map[string]string{"tilia-americana": "wire", "quercus-rubra": "wire", "picea-pungens": "wire"}},
		{name: "spines beside a playground", climate: "oceanic-lowland", spot: Spot{Light: "full sun", Children: true}, may: []string{"cornus-alba", "amelanchier-lamarckii"}, out: map[string]string{"pyracantha-coccinea": "children", "berberis-thunbergii": "children", "laburnum-anagyroides": "children", "nerium-oleander": ""}},
		{name: "a dog that eats all", climate: "citrus-coast", spot: Spot{Light: "full sun", Pets: true}, may: []string{"lagerstroemia-indica"}, out: map[string]string{"nerium-oleander": "pet", "cycas-revoluta": "pet"}},
		{name: "a balcony of the tropics", climate: "tropical-coast", spot: Spot{Light: "full sun"}, may: []string{"bougainvillea-glabra", "plumeria-rubra", "ixora-coccinea"}, out: map[string]string{"malus-domestica": "", "betula-pendula": "", "syringa-vulgaris": ""}},
		{name: "the cool south of the southern sea", climate: "tasmanian-cool", spot: Spot{Light: "full sun", Windy: true}, may: []string{"griselinia-littoralis", "escallonia-rubra"}, out: map[string]string{"plumeria-rubra": "bears", "ixora-coccinea": "bears"}},
		{name: "a dry inland of the south", climate: "australian-inland", spot: Spot{Light: "full sun", Water: "dry"}, best: []string{"leucophyllum-frutescens"}, out: map[string]string{"hydrangea-macrophylla": "", "astilbe-arendsii": ""}},
		{name: "the same kind that froze on the plateau", climate: "south-africa-highveld", spot: Spot{Light: "full sun", Hollow: true}, died: Died{Species: "bougainvillea-glabra", Cause: "frost-in-winter"}, may: []string{"lagerstroemia-indica"}, out: map[string]string{"bougainvillea-glabra": "", "plumeria-rubra": "bears"}},
		{name: "half shade plants in a cool summer's sun", climate: "cool-west-maritime", spot: Spot{Sun: sun(8)}, may: []string{"rhododendron-hybrid", "camellia-japonica", "hydrangea-paniculata"}},
		{name: "half shade plants in a hot summer's sun", climate: "central-valley", spot: Spot{Sun: sun(8)}, may: []string{"lagerstroemia-indica"}, out: map[string]string{"rhododendron-hybrid": "", "hosta-hybrid": "scorch"}},
		{name: "a low hedge beside a narrow path", climate: "cool-coast", spot: Spot{Light: "full sun", PathM: 0.4}, wish: Wish{Evergr: true, MaxM: 1}, may: []string{"lavandula-angustifolia", "erica-carnea"}, out: map[string]string{"prunus-laurocerasus": "grows"}},
	} {
		a := ask(t, c.climate)
		a.Spot, a.Died, a.Wish = c.spot, c.died, c.wish
		got, err := a.Rank()
		if err != nil {
			t.Errorf("%s: %v", c.name, err)
			continue
		}
		place := map[string]int{}
		for i, f := range got.Best {
			place[f.Species] = i + 1
		}
		for _, id := range c.may {
			if place[id] == 0 {
				t.Errorf("%s: %s is left out: %v", c.name, id, a.find(id).Out)
			}
		}
		for _, id := range c.best {
			if place[id] == 0 || place[id] > len(got.Best)/3+1 {
				t.Errorf("%s: %s stands at %d of %d: %+v %v; first %s", c.name, id, place[id], len(got.Best), a.find(id).Parts, a.find(id).Out, got.Best[0].Species)
			}
		}
		for _, id := range c.last {
			if place[id] != 0 && place[id] <= len(got.Best)/2 {
				t.Errorf("%s: %s stands at %d of %d: %+v", c.name, id, place[id], len(got.Best), a.find(id).Parts)
			}
		}
		for id, why := range c.out {
			if f := a.find(id); len(f.Out) == 0 || !strings.Contains(strings.Join(f.Out, " "), why) {
				t.Errorf("%s: %s at %d is not left out for %q: %v %+v", c.name, id, place[id], why, f.Out, f.Parts)
			}
		}
	}
}

func (a *Ask) find(id string) Fit {
	for i := range a.Among {
		if a.Among[i].ID == id {
			return a.FitOf(&a.Among[i])
		}
	}
	return Fit{Out: []string{"there is no " + id}}
}

// TestGrown: it grows, never beyond its size, and the slower the nearer; when it meets the eave is told.
func TestGrown(t *testing.T) {
	a := ask(t, "oceanic-lowland")
	for i := range a.Among {
		e := &a.Among[i]
		last := -1.0
		for y := range 60 {
			h := heightAfter(e, float64(y))
			if h < last || h > e.Mature.HeightM+1e-9 || h <= 0 {
				t.Fatalf("%s after %d years: %.2f m, before %.2f, grown up %.2f", e.ID, y, h, last, e.Mature.HeightM)
			}
			last = h
		}
	}
	a.Spot = Spot{HeightM: 3}
	f := a.find("syringa-vulgaris") // four to five metres, cut from the base
	if f.MeetsIn < 3 || f.MeetsIn > 25 || f.Grown[2].HeightM <= f.Grown[1].HeightM {
		t.Errorf("a lilac under an eave of three metres: %+v", f)
	}
	if beech := a.find("fagus-sylvatica"); len(beech.Out) == 0 {
		t.Errorf("a beech under an eave: %+v", beech)
	}
}

// TestCount: nine to the square metre at a third of a metre, more when they stand in gaps.
func TestCount(t *testing.T) {
	if rows, gaps := Count(10, 0.5, false), Count(10, 0.5, true); rows != 40 || gaps != 46 {
		t.Errorf("%d in rows, %d staggered", rows, gaps)
	}
	if Count(0, 1, false) != 0 || Count(0.1, 1, false) != 1 {
		t.Error("no area, and a little one")
	}
}

func TestBadAsk(t *testing.T) {
	for path, change := range map[string]func(a *Ask){
		"spot.light":        func(a *Ask) { a.Spot.Light = "dusk" },
		"spot.soil_water":   func(a *Ask) { a.Spot.Water = "soup" },
		"spot.sun_hours":    func(a *Ask) { a.Spot.Sun = sun(30) },
		"died.cause":        func(a *Ask) { a.Died.Cause = "curse" },
		"wish.bloom_months": func(a *Ask) { a.Wish.Bloom = []int{13} },
		"wish.forms":        func(a *Ask) { a.Wish.Forms = []catalogue.Form{"moss"} },
	} {
		a := ask(t, "prairie")
		change(&a)
		_, err := a.Rank()
		fields, _ := err.(invalid.Fields)
		if !slices.ContainsFunc(fields, func(f invalid.Field) bool { return f.Path == path }) {
			t.Errorf("%s: %v", path, err)
		}
	}
}

func BenchmarkRank(b *testing.B) {
	a := ask(b, "lake-foothills")
	a.Spot, a.Wish = Spot{Light: "full sun", Water: "even", HeightM: 4}, Wish{Bloom: []int{6, 7}}
	for b.Loop() {
		if _, err := a.Rank(); err != nil {
			b.Fatal(err)
		}
	}
}

// TestSummers: each kind that is listed is there, and the figures are those of a month on this earth.
func TestSummers(t *testing.T) {
	genera, ids := map[string]bool{}, map[string]bool{}
	for _, e := range catalogue.Built().Entries {
		genera[e.Genus()], ids[e.ID] = true, true
	}
	for list, known := range map[*map[string]float64]map[string]bool{&bearableForTest().Genera: genera, &bearableForTest().Kinds: ids} {
		for name, limit := range *list {
			if !known[name] || limit < 18 || limit > 36 {
				t.Errorf("%s: %g °C", name, limit)
			}
		}
	}
}

func bearableForTest() *summers {
	s := bearable()
	return &s
}

// TestListsAreOfKinds: what the lists of spots name are kinds or genera of the catalogue, and no kind stands in two
// lists that speak against each other.
func TestListsAreOfKinds(t *testing.T) {
	known := map[string]bool{}
	for _, e := range catalogue.Built().Entries {
		known[e.ID], known[e.Genus()] = true, true
	}
	l := lists()
	all := [][]string{l.Salt.Well, l.Salt.Poorly, l.Sour, l.Fire.Fast, l.Fire.Slow}
	for _, of := range l.Spreads {
		all = append(all, of)
	}
	all = append(all, l.Paved, l.Breaks, slices.Collect(maps.Keys(bearable().Warm)))
	for trouble, of := range bears() {
		if cause.Built().Cause(trouble) == nil {
			t.Errorf("%s is no cause", trouble)
		}
		all = append(all, of.Takes, of.Bears)
		for _, name := range of.Takes {
			if slices.Contains(of.Bears, name) {
				t.Errorf("%s takes %s and bears it", name, trouble)
			}
		}
	}
	for _, list := range all {
		for _, name := range list {
			if !known[name] {
				t.Errorf("%s is no kind", name)
			}
		}
	}
	for _, name := range append(slices.Clone(l.Salt.Well), l.Fire.Fast...) {
		if slices.Contains(l.Salt.Well, name) && slices.Contains(l.Salt.Poorly, name) ||
			slices.Contains(l.Fire.Fast, name) && slices.Contains(l.Fire.Slow, name) {
			t.Errorf("%s stands on both sides", name)
		}
	}
}
