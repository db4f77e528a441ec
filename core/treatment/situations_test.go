package treatment

import (
	"fmt"
	"slices"
	"strings"
	"testing"

	"mezzadro/core/catalogue"
	"mezzadro/core/day"
	"mezzadro/core/moment"
	"mezzadro/core/rules"
	"mezzadro/core/season"
)

// situation is a trouble as it is met, and what one who knows it does. first is the span of days (MM-DD..MM-DD) the
// first step lies in, says and never are words that must and must not be anywhere in the answer.
type situation struct {
	cause, species, climate, date string
	share                         float64
	with                          string // words that change it: see ask
	rung, first                   string
	says, never                   string
}

// Written from what gardeners do, before the programmes were tried on them.
var situations = []situation{
	// aphids: hunters first, water, soap; never on open flowers, never an insecticide in the kitchen
	{"aphids", "rosa-shrub", "lake-foothills", "05-10", 0.05, "", "none", "05-10..05-12", "hunters", "soap spray"},
	{"aphids", "rosa-shrub", "lake-foothills", "05-10", 0.2, "", "water", "05-10..05-12", "Wash", "pyrethrin"},
	{"aphids", "rosa-shrub", "lake-foothills", "05-10", 0.2, "helpers", "none", "", "helpers are at work", "soap"},
	{"aphids", "rosa-shrub", "lake-foothills", "04-20", 0.6, "", "soft", "04-20..04-24", "soft soap; undersides; never on open flowers", "pyrethrin"},
	{"aphids", "rosa-shrub", "lake-foothills", "06-01", 0.6, "", "soft", "06-05..11-30", "after bloom", ""},
	{"aphids", "rosa-shrub", "lake-foothills", "04-20", 0.6, "soft only", "soft", "04-20..04-24", "Soft means only", ""},
	{"aphids", "ocimum-basilicum", "lake-foothills", "06-10", 0.6, "", "soft", "06-10..10-30", "wait to harvest", "pyrethrin"},
	{"aphids", "ocimum-basilicum", "lake-foothills", "06-10", 0.6, "conventional", "soft", "06-10..10-30", "", "holders of a licence"},
	{"aphids", "rosa-shrub", "southern-foothills", "10-10", 0.2, "", "water", "10-10..10-12", "", ""},
	{"spittlebug", "salvia-rosmarinus", "lake-foothills", "05-20", 0.05, "", "none", "05-20..05-22", "no harm", "spray"},
	{"spittlebug", "salvia-rosmarinus", "lake-foothills", "05-20", 0.6, "conventional", "water", "05-20..05-22", "Rinse; No insecticide", "soap; oil"},
	// lace bug: from the first young on, below the leaves; shade and light cases are left
	{"lace-bug", "azalea-evergreen", "lake-foothills", "03-18", 0.2, "", "water", "04-01..05-25", "undersides", "drench"},
	{"lace-bug", "azalea-evergreen", "gulf-coast", "02-10", 0.2, "", "water", "02-10..04-05", "", ""},
	{"lace-bug", "azalea-evergreen", "lake-foothills", "06-20", 0.6, "", "soft", "06-20..06-25", "Knock them down; soft soap; in the sun", "systemic insecticide"},
	{"lace-bug", "azalea-evergreen", "lake-foothills", "06-20", 0.6, "shade", "water", "06-20..06-25", "in shade they hardly take harm", ""},
	{"lace-bug", "azalea-evergreen", "lake-foothills", "06-20", 0.6, "conventional", "strong", "06-20..06-25", "slow drench; licence", ""},
	{"lace-bug", "azalea-evergreen", "lake-foothills", "06-20", 0.6, "soft only; conventional-not", "soft", "06-20..06-25", "", "drench"},
	{"lace-bug", "azalea-evergreen", "lake-foothills", "06-20", 0.05, "", "habitat", "06-20..06-25", "Water and mulch", "spray"},
	{"lace-bug", "azalea-evergreen", "lake-foothills", "08-20", 0.6, "used soap 06-20 07-01 07-12", "strong", "08-20..08-30", "drench", ""},
	// mites: water, no killer of their hunters, no oil in heat
	{"spider-mite", "thuja-occidentalis", "lake-foothills", "07-10", 0.2, "", "water", "07-10..07-12", "Wash", "pyrethrin; oil"},
	{"spider-mite", "thuja-occidentalis", "lake-foothills", "07-10", 0.6, "", "soft", "07-10..07-14", "horticultural oil; by day", ""},
	{"spider-mite", "citrus-limon", "hot-desert", "06-20", 0.6, "", "soft", "09-15..11-20", "not in days warmer than", ""},
	// scale, mould and ants
	{"soft-scale", "citrus-limon", "citrus-coast", "04-02", 0.05, "", "hands", "04-02..04-04", "Scrape; Ants", "horticultural oil"},
	{"soft-scale", "laurus-nobilis", "lake-foothills", "06-25", 0.3, "", "soft", "06-25..06-28", "grease band; 21 days", "systemic"},
	{"soft-scale", "citrus-limon", "hot-desert", "07-01", 0.3, "", "soft", "07-01..07-03", "not in days warmer than; ants", ""},
	{"sooty-mould", "citrus-limon", "citrus-coast", "04-02", 0.05, "", "hands", "04-02..04-04", "no spray of its own", "fungicide"},
	{"armoured-scale", "euonymus-japonicus", "lake-foothills", "02-20", 0.2, "", "soft", "02-20..04-10", "while it rests; shields", ""},
	{"armoured-scale", "euonymus-japonicus", "lake-foothills", "05-20", 0.2, "", "soft", "05-20..07-20", "creep", ""},
	{"cushion-scale", "camellia-japonica", "cool-coast", "05-01", 0.2, "", "hands", "05-01..05-03", "before they hatch", "drench"},
	{"mealybug", "nerium-oleander", "lake-foothills", "06-01", 0.2, "", "hands", "06-01..06-03", "spirit", "drench"},
	{"whitefly", "lantana-camara", "gulf-coast", "06-01", 0.05, "", "water", "06-01..06-03", "", "pyrethrin"},
	{"whitefly", "solanum-lycopersicum", "lake-foothills", "07-01", 0.6, "", "soft", "07-01..11-30", "soft soap", "systemic"},
	{"thrips", "rosa-shrub", "lake-foothills", "06-10", 0.05, "", "none", "06-10..06-12", "", "soap"},
	{"psyllid", "laurus-nobilis", "lake-foothills", "06-01", 0.2, "", "none", "06-01..06-03", "curled tips", "drench"},
	{"adelgid", "picea-abies", "prairie", "02-15", 0.6, "", "soft", "03-15..05-31", "rests", ""},
	{"spruce-gall", "picea-abies", "prairie", "06-01", 0.2, "", "cutting", "05-20..07-10", "before they open; never on the compost", "oil"},
	{"woolly-aphid", "malus-domestica", "cool-coast", "06-10", 0.2, "", "hands", "06-10..06-12", "Brush", "systemic"},
	// galls: cut, bag, two sprays three weeks apart, all of the bed
	{"gall-mite", "rosa-shrub", "lake-foothills", "04-10", 0.05, "", "none", "04-10..04-12", "not harmful", "oil"},
	{"gall-mite", "acer-palmatum", "lake-foothills", "04-10", 0.3, "of 12", "soft", "04-10..04-12", "into a bag; 21 days; All plants of the kind in the bed", "drench"},
	{"stem-gall-wasp", "quercus-robur", "lake-foothills", "04-10", 0.3, "", "soft", "04-10..04-12", "bag", ""},
	{"big-bud-mite", "ribes-nigrum", "cool-coast", "01-20", 0.2, "", "hands", "01-20..03-20", "before they open", "oil"},
	// what eats leaves
	{"caterpillars-many", "rosa-shrub", "lake-foothills", "05-20", 0.05, "", "none", "05-20..05-22", "birds", "bacterium"},
	{"caterpillars-many", "malus-domestica", "lake-foothills", "05-20", 0.6, "", "soft", "05-20..06-05", "bacterium that kills only caterpillars; small", "pyrethrin"},
	{"sawfly", "rosa-shrub", "cool-coast", "06-01", 0.6, "", "soft", "06-01..11-30", "Wash them down", "bacterium"},
	{"box-caterpillar", "buxus-sempervirens", "lake-foothills", "04-25", 0.05, "", "hands", "04-25..04-27", "Pick", ""},
	{"box-caterpillar", "buxus-sempervirens", "lake-foothills", "04-25", 0.3, "", "soft", "04-25..05-05", "deep into the plant", "pyrethrin"},
	{"leaf-beetle", "viburnum-opulus", "cool-coast", "05-15", 0.2, "", "hands", "05-15..05-17", "Pick", ""},
	{"slugs", "hosta-hybrid", "cool-coast", "05-01", 0.2, "", "hands", "05-01..05-03", "dusk", "bait"},
	{"slugs", "hosta-hybrid", "cool-coast", "05-01", 0.6, "", "barriers", "05-01..05-03", "traps", ""},
	{"leaf-miner", "ilex-aquifolium", "cool-coast", "05-01", 0.05, "", "none", "05-01..05-03", "does not reach", "soap"},
	{"leaf-miner", "aesculus-hippocastanum", "cool-coast", "07-01", 0.6, "", "hands", "07-01..07-03", "fallen leaf", "drench"},
	{"weevil", "rhododendron-hybrid", "cool-coast", "05-20", 0.3, "", "soft", "08-01..09-30", "warm moist soil", "pyrethrin"},
	{"weevil", "rhododendron-hybrid", "cool-coast", "12-01", 0.3, "", "soft", "08-01..10-10", "Not this year", ""},
	{"chafer", "syringa-vulgaris", "alpine-foreland", "06-20", 0.3, "", "soft", "07-20..09-30", "nematodes", ""},
	{"bagworm", "thuja-occidentalis", "humid-east", "04-10", 0.2, "", "hands", "04-10..04-12", "before the young hatch", "pyrethrin"},
	{"bagworm", "thuja-occidentalis", "humid-east", "04-10", 0.6, "", "soft", "05-10..07-10", "small bags", ""},
	{"borer", "malus-domestica", "prairie", "06-01", 0.2, "", "hands", "06-01..06-03", "no cure; vigour; licensed", "drench"},
	{"bark-beetle", "picea-abies", "continental-basin", "06-01", 0.6, "", "replace", "06-01..06-03", "No spray reaches", ""},
	{"palm-weevil", "phoenix-canariensis", "dry-summer-coast", "06-01", 0.3, "", "strong", "06-01..06-03", "reported", "soap"},
	{"fruit-worm", "malus-domestica", "cool-coast", "05-20", 0.2, "", "hands", "05-20..07-20", "fallen fruit", ""},
	{"twig-girdler", "acacia-dealbata", "upland-south", "09-10", 0.2, "", "hands", "09-10..09-12", "fallen twigs", "spray"},
	// fungi
	{"powdery-mildew", "rosa-bedding", "lake-foothills", "05-20", 0.05, "", "habitat", "05-20..05-22", "at the root", "sulphur"},
	{"powdery-mildew", "rosa-bedding", "lake-foothills", "05-20", 0.2, "", "soft", "05-20..05-24", "both sides; resist", "systemic"},
	{"powdery-mildew", "monarda-didyma", "prairie", "09-20", 0.2, "", "cutting", "09-20..09-22", "So late in the year", "bicarbonate"},
	{"powdery-mildew", "phlox-paniculata", "cool-coast", "07-20", 0.6, "", "cutting", "07-20..07-22", "reflush", ""},
	{"powdery-mildew", "rosa-bedding", "lake-foothills", "03-18", 0, "prevent", "soft", "03-20..05-10", "mildew weather", "systemic"},
	{"black-spot", "rosa-bedding", "lake-foothills", "03-18", 0.3, "", "soft", "03-18..04-20", "Fallen leaves; 14 days; midsummer", "drench"},
	{"black-spot", "rosa-bedding", "lake-foothills", "09-10", 0.3, "", "soft", "02-20..04-20", "Not this year; Fallen leaves", ""},
	{"black-spot", "rosa-rugosa", "cool-coast", "05-18", 0.3, "", "hands", "05-18..05-20", "resists it", "sulphur"},
	{"rust", "rosa-shrub", "cool-coast", "07-10", 0.2, "", "hands", "07-10..07-12", "rake", "systemic"},
	{"leaf-spot", "cornus-florida", "upland-south", "06-10", 0.05, "", "none", "06-10..06-12", "Leave it", "copper"},
	{"anthracnose", "platanus-hispanica", "oceanic-lowland", "05-20", 0.2, "", "hands", "05-20..05-22", "Rake", "copper"},
	{"leaf-curl", "prunus-persica", "lake-foothills", "05-05", 0.3, "", "soft", "10-15..12-20", "no spray helps this year; leaf fall", "systemic"},
	{"leaf-curl", "prunus-persica", "lake-foothills", "05-05", 0.05, "", "hands", "05-05..05-07", "Pick", "copper"},
	{"fire-blight", "pyrus-communis", "lake-foothills", "05-25", 0.2, "", "cutting", "05-25..05-27", "blade cleaned; reported; Burn; No spray", "copper"},
	{"canker", "malus-domestica", "cool-coast", "02-04", 0.05, "", "cutting", "02-04..02-06", "clean wood; clean the blade", "fungicide"},
	{"silver-leaf", "prunus-domestica", "oceanic-lowland", "02-04", 0.2, "", "cutting", "06-01..08-20", "dry summer", "fungicide"},
	{"wilt", "acer-palmatum", "lake-foothills", "06-10", 0.2, "", "cutting", "06-10..06-12", "No spray cures", "drench"},
	{"citrus-greening", "citrus-sinensis", "florida-north", "06-10", 0.2, "", "replace", "06-10..06-12", "reported", "oil"},
	{"root-rot", "camellia-japonica", "gulf-coast", "06-10", 0.2, "", "habitat", "06-10..06-12", "Drain; no spray", "fungicide"},
	{"honey-fungus", "syringa-vulgaris", "cool-coast", "10-10", 0.2, "", "replace", "10-10..10-12", "stump", "Drench the"},
	{"box-blight", "buxus-sempervirens", "cool-coast", "06-10", 0.3, "", "cutting", "06-10..06-12", "dry day; sprinkler; never on the compost", "copper"},
	{"palm-heart-rot", "trachycarpus-fortunei", "lake-foothills", "04-10", 0.2, "", "none", "04-10..04-12", "Wait for a new spear; No spray", "copper"},
	{"grey-mould", "paeonia-lactiflora", "cool-coast", "05-10", 0.2, "", "hands", "05-10..05-12", "airy", "systemic"},
	{"petal-blight", "camellia-japonica", "lake-foothills", "03-18", 0.3, "", "hands", "03-18..03-20", "take away", "fungicide"},
	// plants, animals, shortage
	{"dodder", "lantana-camara", "gulf-coast", "06-01", 0.2, "", "hands", "06-01..06-03", "all it holds; seedlings", "weed killer"},
	{"mistletoe-plant", "malus-domestica", "cool-coast", "01-10", 0.2, "", "cutting", "01-10..01-12", "licensed", "weed killer"},
	{"bindweed", "rosa-shrub", "cool-coast", "05-10", 0.2, "", "hands", "05-10..05-12", "roots", "translocated"},
	{"bindweed", "rosa-shrub", "cool-coast", "05-10", 0.6, "conventional", "strong", "05-10..06-30", "weed alone; whatever green it wets", ""},
	{"burr-weed", "buxus-sempervirens", "central-valley", "05-20", 0.6, "conventional", "strong", "12-15..03-20", "Not this year; clover", ""},
	{"gnawed", "malus-domestica", "prairie", "11-10", 0.2, "", "barriers", "11-10..11-12", "mesh", "repellent"},
	{"dogs", "buxus-sempervirens", "lake-foothills", "05-10", 0.2, "", "barriers", "05-10..05-12", "fence; hidden", "Renewed after rain"},
	{"dogs", "buxus-sempervirens", "lake-foothills", "05-10", 0.2, "repellents", "barriers", "05-10..05-12", "Renewed after rain", "hidden"},
	{"deer", "taxus-baccata", "humid-east", "11-10", 0.2, "", "barriers", "11-10..11-12", "fence", ""},
	{"magnesium", "rosa-bedding", "lake-foothills", "05-20", 0.3, "", "soft", "05-20..06-15", "pH; compost; Epsom", ""},
	{"iron", "gardenia-jasminoides", "gulf-coast", "04-20", 0.3, "", "habitat", "04-20..05-10", "pH; chelated iron", ""},
	{"lichen-moss", "malus-domestica", "cool-coast", "02-10", 0.5, "conventional", "none", "02-10..02-12", "", "spray; copper"},
	{"leafcutter", "rosa-shrub", "lake-foothills", "06-10", 0.5, "conventional", "none", "06-10..06-12", "", "spray by"},
	{"virus", "camellia-japonica", "lake-foothills", "05-10", 0.3, "", "none", "05-10..05-12", "", "fungicide"},
	{"drought", "hydrangea-macrophylla", "lake-foothills", "07-10", 0.3, "", "water", "07-10..07-12", "", "feed it"},
	{"elm-disease", "ulmus-minor", "oceanic-lowland", "06-20", 0.2, "", "cutting", "06-20..06-22", "licensed arborist; No spray", "fungicide"},
	// kept off before it is there
	{"black-spot", "rosa-bedding", "lake-foothills", "02-10", 0, "prevent", "soft", "02-10..02-12", "rake; 14 days; both sides of leaves", "systemic"},
	{"black-spot", "rosa-bedding", "southern-foothills", "08-10", 0, "prevent", "soft", "08-10..08-12", "rake", "protective"},
	{"black-spot", "rosa-rugosa", "cool-coast", "02-10", 0, "prevent", "hands", "02-10..02-12", "resists it", "sulphur"},
	{"black-spot", "rosa-bedding", "lake-foothills", "02-10", 0, "prevent; conventional", "soft", "02-10..02-12", "rake", "systemic"},
	{"leaf-curl", "prunus-persica", "lake-foothills", "09-20", 0, "prevent", "soft", "10-15..12-20", "leaf fall; before the buds swell", "Pick the curled"},
	{"leaf-curl", "prunus-persica", "central-valley", "12-20", 0, "prevent", "soft", "12-20..02-10", "copper", ""},
	{"slugs", "hosta-hybrid", "cool-coast", "03-01", 0, "prevent", "barriers", "03-01..04-20", "rings", "bait"},
	{"lace-bug", "azalea-evergreen", "gulf-coast", "02-01", 0, "prevent", "habitat", "02-01..04-20", "below the leaves; in the sun", "soap"},
	{"aphids", "rosa-shrub", "lake-foothills", "03-10", 0, "prevent", "habitat", "03-20..05-01", "hunters; nitrogen", "soap"},
	{"aphids", "ocimum-basilicum", "lake-foothills", "06-10", 0, "prevent; conventional", "habitat", "06-10..06-12", "hunters", "pyrethrin"},
	{"weevil", "rhododendron-hybrid", "cool-coast", "06-10", 0, "prevent", "hands", "06-10..06-12", "torch", "nematodes"},
	{"box-caterpillar", "buxus-sempervirens", "lake-foothills", "03-20", 0, "prevent", "barriers", "03-20..05-10", "trap; look inside", "bacterium"},
	{"bagworm", "thuja-occidentalis", "humid-east", "01-10", 0, "prevent", "hands", "01-10..03-31", "bags", "bacterium"},
	{"gnawed", "malus-domestica", "prairie", "09-10", 0, "prevent", "barriers", "09-10..11-01", "mesh; grass", "repellent"},
	{"gnawed", "malus-domestica", "prairie", "06-20", 0, "prevent", "barriers", "09-10..11-15", "mesh", "repellent"},
	{"deer", "taxus-baccata", "humid-east", "09-10", 0, "prevent", "barriers", "09-10..09-12", "fence", "hidden"},
	{"fire-blight", "pyrus-communis", "lake-foothills", "02-10", 0, "prevent", "habitat", "02-10..05-10", "nitrogen", "copper"},
	{"silver-leaf", "prunus-domestica", "oceanic-lowland", "01-10", 0, "prevent", "cutting", "06-01..08-20", "dry summer", "fungicide"},
	{"root-rot", "camellia-japonica", "gulf-coast", "02-10", 0, "prevent", "habitat", "02-10..02-12", "Drain", "fungicide"},
	{"box-blight", "buxus-sempervirens", "cool-coast", "03-10", 0, "prevent", "habitat", "03-10..03-12", "dry; sprinkler", "copper"},
	{"petal-blight", "camellia-japonica", "lake-foothills", "11-10", 0, "prevent", "hands", "11-10..03-01", "mulch", "fungicide"},
	{"bindweed", "rosa-shrub", "cool-coast", "02-10", 0, "prevent", "barriers", "02-10..03-31", "mulch", "translocated"},
	{"burr-weed", "buxus-sempervirens", "central-valley", "11-20", 0, "prevent", "barriers", "11-20..02-01", "mulch", "pre-emergent"},
	{"leaf-miner", "aesculus-hippocastanum", "cool-coast", "09-01", 0, "prevent", "hands", "09-20..11-30", "fallen leaf", "spray it"},
	{"fruit-worm", "malus-domestica", "cool-coast", "03-10", 0, "prevent", "barriers", "05-15..07-15", "bands", "soap"},
	{"powdery-mildew", "monarda-didyma", "southern-foothills", "08-20", 0, "prevent", "soft", "09-10..12-01", "mildew weather", "systemic"},
	{"gall-mite", "rosa-shrub", "lake-foothills", "03-10", 0, "prevent", "none", "03-10..03-12", "look for it", "oil"},
	{"palm-heart-rot", "trachycarpus-fortunei", "lake-foothills", "09-20", 0, "prevent", "habitat", "09-20..12-20", "crown", "copper"},
	{"soft-scale", "laurus-nobilis", "lake-foothills", "03-10", 0, "prevent", "barriers", "03-10..05-10", "ants; band", "oil"},
	{"dogs", "buxus-sempervirens", "lake-foothills", "05-10", 0, "prevent", "barriers", "05-10..05-12", "fence", "Renewed after rain"},
	// by their hosts and habits
	{"bud-blast", "rhododendron-hybrid", "cool-coast", "03-01", 0.3, "", "hands", "03-01..03-03", "black bud; bag", "Rake"},
	{"pear-rust", "juniperus-chinensis", "lake-foothills", "03-10", 0.2, "", "cutting", "03-10..03-12", "swollen shoots; junipers", "sulphur"},
	{"needle-cast", "pinus-nigra", "prairie", "05-10", 0.3, "", "habitat", "05-10..05-12", "needles", "sulphur"},
	{"squirrels", "prunus-dulcis", "central-valley", "05-10", 0.3, "", "barriers", "05-10..05-12", "collar", "fence; repellent"},
	{"birds", "prunus-avium", "lake-foothills", "05-20", 0.4, "", "barriers", "05-20..05-22", "Netting; nothing is caught", "repellent; fence"},
	{"gall-mite", "acer-palmatum", "lake-foothills", "11-20", 0.3, "", "soft", "11-20..11-22", "into a bag; Then, from", ""},
	{"aphids", "tilia-cordata", "lake-foothills", "06-10", 0.3, "", "water", "06-10..06-12", "out of reach from the ground; licensed arborist", "ladder"},
	{"aphids", "rosa-shrub", "lake-foothills", "06-10", 0.2, "", "water", "06-10..06-12", "", "out of reach"},
	// gnawed bark: a guard, and white paint where it is bare
	{"rabbits", "malus-domestica", "lake-foothills", "03-20", 0.4, "", "barriers", "03-20..03-22", "mesh; white", "repellent"},
	// where the means has to wait, what can be done at once is said
	{"psyllid", "citrus-limon", "citrus-coast", "04-01", 0.5, "", "soft", "04-20..12-30", "after bloom; Until then: Wash the shoot tips", ""},
	{"armoured-scale", "camellia-japonica", "gulf-coast", "07-01", 0.5, "", "soft", "07-01..07-03", "Cut out the worst", ""},
	{"aphids", "lavandula-angustifolia", "lake-foothills", "07-01", 0.6, "", "soft", "07-10..08-30", "after bloom; Until then: Wash them off", ""},
	{"magnesium", "citrus-sinensis", "florida-north", "01-10", 0.5, "", "soft", "03-01..05-10", "Until then: Compost", "Not this year"},
	// gaps, rain, repeats
	{"black-spot", "rosa-bedding", "lake-foothills", "04-10", 0.3, "used oil 04-01", "soft", "05-01..05-06", "30 days after horticultural oil", ""},
	{"aphids", "rosa-shrub", "lake-foothills", "04-20", 0.6, "used sulphur 04-18", "soft", "04-25..12-30", "7 days after wettable sulphur", ""},
	{"soft-scale", "laurus-nobilis", "lake-foothills", "07-01", 0.3, "step 2 oil 06-25; step 1 grease-band 06-25", "soft", "07-16..07-18", "every 21 days", ""},
	{"gall-mite", "acer-palmatum", "lake-foothills", "04-20", 0.3, "step 1 - 04-10; step 2 oil 04-12 rain 12", "soft", "04-20..04-22", "rain washed off", ""},
	{"gall-mite", "acer-palmatum", "lake-foothills", "05-20", 0.3, "step 1 - 04-10; step 2 oil 04-12; step 2 oil 05-03", "soft", "", "look", ""},
	{"fire-blight", "pyrus-communis", "lake-foothills", "06-01", 0.2, "step 1 - 05-25", "cutting", "", "What helps was done", ""},
}

func place(t testing.TB, climate string) *moment.Place {
	t.Helper()
	c, err := catalogue.Built().Climate(climate)
	if err != nil {
		t.Fatal(err)
	}
	return moment.At(season.NewYear(c.Climate.Daily(), nil))
}

// ask is the question of a situation.
func (s situation) ask(t testing.TB) Ask {
	t.Helper()
	e, err := catalogue.Built().Species(s.species)
	if err != nil {
		t.Fatal(err)
	}
	on := func(text string) day.Day {
		d, err := day.Parse("2027-" + text)
		if err != nil {
			t.Fatal(err)
		}
		return d
	}
	a := Ask{Cause: s.cause, Species: &e, Place: place(t, s.climate), Date: on(s.date), Share: s.share}
	for _, w := range strings.Split(s.with, "; ") {
		words := strings.Fields(w)
		switch {
		case w == "helpers":
			a.Helpers = true
		case w == "shade":
			a.Shade = true
		case w == "prevent":
			a.Prevent = true
		case w == "soft only":
			a.Rules.Control = rules.SoftOnly
		case w == "conventional":
			a.Rules.Control = rules.Conventional
		case w == "repellents":
			a.Rules.Repellents = rules.Show
		case len(words) == 2 && words[0] == "of":
			fmt.Sscan(words[1], &a.Count)
			a.Affected = 3
		case len(words) > 2 && words[0] == "used":
			for _, d := range words[2:] {
				a.Uses = append(a.Uses, Use{Day: on(d), Active: words[1]})
			}
		case len(words) > 3 && words[0] == "step":
			u := Use{Day: on(words[3])}
			fmt.Sscan(words[1], &u.Step)
			if words[2] != "-" {
				u.Active = words[2]
			}
			if len(words) == 6 {
				fmt.Sscan(words[5], &u.RainMM)
			}
			a.Uses = append(a.Uses, u)
		}
	}
	return a
}

// all is everything an answer says, rung by rung.
func all(o Answer) string {
	text := []string{o.Text, o.Rung, o.Ends}
	text = append(text, o.Says...)
	text = append(text, o.Never...)
	text = append(text, o.Cautions...)
	text = append(text, o.Rules...)
	for _, r := range o.Ladder {
		text = append(text, r.Do, r.Why)
	}
	for _, s := range o.Steps {
		text = append(text, s.Do, s.UseName, s.Where, s.Stage)
		text = append(text, s.Limits...)
		text = append(text, s.Why...)
	}
	return strings.Join(text, "\n")
}

// TestSituations: the rung, the first day, what must be said and what must never be.
func TestSituations(t *testing.T) {
	right := 0
	for _, s := range situations {
		name := fmt.Sprintf("%s on %s in %s, %s, %.2f %s", s.cause, s.species, s.climate, s.date, s.share, s.with)
		o, err := Built().Plan(s.ask(t))
		if err != nil {
			t.Errorf("%s: %v", name, err)
			continue
		}
		text, ok := all(o), true
		fault := func(format string, args ...any) {
			ok = false
			t.Errorf("%s: "+format, append([]any{name}, args...)...)
		}
		if o.Rung != s.rung {
			fault("rung %s, want %s: %s", o.Rung, s.rung, o.Text)
		}
		if first, none := "", len(o.Steps) == 0; s.first != "" {
			if !none {
				first = o.Steps[0].Day.String()[5:]
			}
			from, to, _ := strings.Cut(s.first, "..")
			if in := first >= from && first <= to; none || from <= to && !in || from > to && first < from && first > to {
				fault("first on %s, want %s: %s", first, s.first, o.Text)
			}
		} else if !none && o.Ends == "" {
			fault("there is still to do: %s", o.Text)
		}
		for _, w := range strings.Split(s.says, "; ") {
			if w != "" && !strings.Contains(strings.ToLower(text), strings.ToLower(w)) {
				fault("does not say %q:\n%s", w, text)
			}
		}
		for _, w := range strings.Split(s.never, "; ") {
			if w != "" && strings.Contains(strings.ToLower(strings.Join(append(o.Cautions, o.Text, stepsOf(o)), "\n")), strings.ToLower(w)) {
				fault("says %q:\n%s", w, text)
			}
		}
		if ok {
			right++
		}
	}
	t.Logf("%d of %d situations right", right, len(situations))
}

func stepsOf(o Answer) string {
	var out []string
	for _, s := range o.Steps {
		out = append(out, s.Do, s.UseName)
	}
	return strings.Join(out, "\n")
}

// TestEveryCause: each of them has an answer with a step or an end, on a host and on an odd plant, in every severity
// and rule.
func TestEveryCause(t *testing.T) {
	e, err := catalogue.Built().Species("rosa-shrub")
	if err != nil {
		t.Fatal(err)
	}
	at := place(t, "lake-foothills")
	for _, p := range Built().Programmes {
		for _, c := range p.Causes {
			for _, share := range []float64{0, 0.05, 0.2, 0.7} {
				for _, control := range []string{"", rules.SoftOnly, rules.Conventional} {
					o, err := Built().Plan(Ask{Cause: c, Species: &e, Place: at, Date: day.Of(2027, 5, 10), Share: share, Rules: rules.House{Control: control}})
					if err != nil || len(o.Steps) == 0 && o.Ends == "" || o.Text == "" || len(o.Ladder) == 0 {
						t.Fatalf("%s at %.2f: %+v %v", c, share, o, err)
					}
					if n := len(slices.DeleteFunc(slices.Clone(o.Ladder), func(r Offer) bool { return !r.Chosen })); n != 1 {
						t.Errorf("%s at %.2f: %d rungs chosen", c, share, n)
					}
				}
			}
		}
	}
}
