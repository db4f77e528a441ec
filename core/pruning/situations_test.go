package pruning

import (
	"strings"
	"testing"
	"time"

	"mezzadro/core/catalogue"
	"mezzadro/core/day"
	"mezzadro/core/job"
	"mezzadro/core/season"
)

func year(t testing.TB, climate string) *Place {
	t.Helper()
	c, err := catalogue.Built().Climate(climate)
	if err != nil {
		t.Fatal(err)
	}
	return At(season.NewYear(c.Climate.Daily(), nil))
}

func entry(t testing.TB, id string) *catalogue.Entry {
	t.Helper()
	e, err := catalogue.Built().Species(id)
	if err != nil {
		t.Fatal(err)
	}
	return &e
}

// situations are days on which people who know would cut a plant, and days on which they would not, said from the
// field's practice in each climate. Days are month-day.
var situations = []struct {
	species, climate string
	purpose          Purpose
	good, bad        string
}{
	// A lake in mild southern foothills.
	{"forsythia-intermedia", "lake-foothills", Shape, "04-25 05-10", "01-15 02-25 08-15 10-10"},
	{"syringa-vulgaris", "lake-foothills", Shape, "05-25 06-10", "02-01 03-20 09-01 10-15"},
	{"philadelphus-coronarius", "lake-foothills", Renew, "07-01", "01-20 04-10 10-01"},
	{"spiraea-vanhouttei", "lake-foothills", Shape, "06-05", "02-10 10-15"},
	{"spiraea-japonica", "lake-foothills", Shape, "03-01 03-15", "06-10 11-20"},
	{"hydrangea-paniculata", "lake-foothills", Size, "03-05 03-20", "06-15 08-10"},
	{"hydrangea-macrophylla", "lake-foothills", Shape, "03-25 04-05", "11-15 07-15 12-20"},
	{"hydrangea-quercifolia", "lake-foothills", Shape, "07-25", "02-10 04-20 10-20"},
	{"rosa-bedding", "lake-foothills", Shape, "03-05 03-15", "11-25 12-30 05-20"},
	{"rosa-rambler", "lake-foothills", Shape, "07-05 07-20", "02-20 04-15"},
	{"rosa-old", "lake-foothills", Shape, "07-01", "02-20"},
	{"rosa-groundcover", "lake-foothills", Shape, "03-10", "12-15 06-10"},
	{"vitis-vinifera", "lake-foothills", Shape, "12-10 01-15", "03-25 04-20"},
	{"wisteria-sinensis", "lake-foothills", Shape, "07-20 02-10", "04-20 10-15"},
	{"prunus-persica", "lake-foothills", Shape, "03-20", "11-15 12-25 10-05"},
	{"prunus-avium", "lake-foothills", Shape, "07-15 08-01", "12-10 01-15 02-10"},
	{"prunus-serrulata", "lake-foothills", Shape, "07-10", "12-10 02-10"},
	{"malus-domestica", "lake-foothills", Shape, "02-01 03-01", "05-10 10-01"},
	{"pyrus-communis", "lake-foothills", Shape, "02-10", "05-10 09-25"},
	{"olea-europaea", "lake-foothills", Shape, "04-05 04-15", "12-15 01-20 10-10"},
	{"citrus-limon", "lake-foothills", Shape, "04-15 04-30", "12-20 01-20 10-25"},
	{"camellia-japonica", "lake-foothills", Shape, "04-25", "12-15 02-01 09-15"},
	{"rhododendron-hybrid", "lake-foothills", Shape, "06-15", "03-10 10-10"},
	{"azalea-evergreen", "lake-foothills", Shape, "06-01", "03-01 10-01"},
	{"prunus-laurocerasus", "lake-foothills", Hedge, "06-20", "12-20 04-20"},
	{"buxus-sempervirens", "lake-foothills", Hedge, "06-10", "01-10 12-15"},
	{"taxus-baccata", "lake-foothills", Shape, "03-20", "11-15 10-15"},
	{"thuja-occidentalis", "lake-foothills", Shape, "03-25", "12-20 11-10"},
	{"lavandula-angustifolia", "lake-foothills", Shape, "08-05", "12-10 11-01"},
	{"salvia-rosmarinus", "lake-foothills", Shape, "05-20", "12-20 10-20"},
	{"caryopteris-clandonensis", "lake-foothills", Shape, "04-05", "11-20 01-10 07-01"},
	{"buddleja-davidii", "lake-foothills", Shape, "04-01", "12-01 06-15"},
	{"acer-palmatum", "lake-foothills", Shape, "07-01 12-01", "03-10 03-25"},
	{"betula-pendula", "lake-foothills", Shape, "07-01", "03-10 03-30"},
	{"juglans-regia", "lake-foothills", Shape, "07-15", "03-15 04-10"},
	{"magnolia-soulangeana", "lake-foothills", Shape, "06-01", "01-15 03-10"},
	{"tilia-cordata", "lake-foothills", Shape, "12-20 02-10", "05-15"},
	{"quercus-robur", "lake-foothills", Shape, "01-20", "05-15 06-10"},
	{"trachycarpus-fortunei", "lake-foothills", Shape, "06-15 07-15", "12-20 01-25"},
	{"miscanthus-sinensis", "lake-foothills", Shape, "03-01", "05-20 08-01"},
	{"paeonia-lactiflora", "lake-foothills", Shape, "02-25", "05-15"},
	{"clematis-late", "lake-foothills", Shape, "03-01", "06-20"},
	{"clematis-early", "lake-foothills", Shape, "05-15", "02-10 01-15"},
	{"ribes-nigrum", "lake-foothills", Renew, "01-15 02-20", "05-10"},
	{"rubus-idaeus", "lake-foothills", Shape, "08-15", "05-15"},
	{"ficus-carica", "lake-foothills", Shape, "03-15", "12-20 06-10"},
	{"hibiscus-syriacus", "lake-foothills", Shape, "03-20", "07-20 08-20"},
	// Cold steppe.
	{"syringa-vulgaris", "prairie", Shape, "06-20 07-05", "01-15 03-20 09-15"},
	{"rosa-hardy-shrub", "prairie", Shape, "05-05", "12-10 02-10 10-10"},
	{"malus-domestica", "prairie", Shape, "04-05 04-15", "12-20 01-20 06-10"},
	{"acer-negundo", "prairie", Shape, "07-15", "04-10 04-25"},
	{"ulmus-americana", "prairie", Shape, "11-05", "05-20 06-20"},
	{"picea-pungens", "prairie", Shape, "05-15", "01-15 12-10"},
	{"caragana-arborescens", "prairie", Shape, "06-25", "04-01 10-10"},
	{"hydrangea-paniculata", "prairie", Size, "04-20 05-01", "12-20 07-20"},
	{"potentilla-fruticosa", "prairie", Shape, "04-20", "01-10 07-10"},
	// Gulf coast.
	{"lagerstroemia-indica", "gulf-coast", Shape, "02-01 02-20", "05-10 07-10"},
	{"azalea-evergreen", "gulf-coast", Shape, "04-15 05-05", "01-10 10-10"},
	{"camellia-japonica", "gulf-coast", Shape, "04-01", "11-15 01-10"},
	{"rosa-bedding", "gulf-coast", Shape, "02-05 02-15", "11-20"},
	{"nerium-oleander", "gulf-coast", Shape, "03-05", "12-20"},
	{"sabal-palmetto", "gulf-coast", Shape, "06-01", "01-05"},
	{"citrus-reticulata", "gulf-coast", Shape, "03-10", "12-20 11-20"},
	{"quercus-virginiana", "gulf-coast", Shape, "01-15", "04-10 05-10"},
	{"hydrangea-macrophylla", "gulf-coast", Shape, "03-05", "07-15"},
	{"bougainvillea-glabra", "gulf-coast", Shape, "03-15", "12-20"},
	// Desert.
	{"citrus-sinensis", "hot-desert", Shape, "03-01", "07-10 12-20"},
	{"nerium-oleander", "hot-desert", Shape, "03-05", "12-25"},
	{"parkinsonia-florida", "hot-desert", Shape, "06-01", "03-01"},
	{"phoenix-dactylifera", "hot-desert", Shape, "05-15", "12-30"},
	{"rosa-bedding", "hot-desert", Shape, "01-20", "06-20"},
	// Cool coast.
	{"fuchsia-magellanica", "cool-coast", Shape, "04-05", "11-20 12-20"},
	{"rosa-bedding", "cool-coast", Shape, "03-01", "11-25 06-01"},
	{"escallonia-rubra", "cool-coast", Shape, "09-20", "12-10"},
	{"forsythia-intermedia", "cool-coast", Shape, "05-05", "01-15 09-20"},
	{"calluna-vulgaris", "cool-coast", Shape, "04-10", "12-15"},
	{"vitis-vinifera", "cool-coast", Shape, "12-20", "04-10"},
	// The southern half.
	{"rosa-bedding", "pampas", Shape, "07-25 08-10", "05-20 12-10"},
	{"syringa-vulgaris", "pampas", Shape, "11-10", "07-20 04-10"},
	{"malus-domestica", "pampas", Shape, "07-20", "11-10"},
	{"vitis-vinifera", "pampas", Shape, "06-20", "09-15"},
	{"forsythia-intermedia", "new-zealand-south", Shape, "10-20", "07-20 03-15"},
	{"hydrangea-macrophylla", "new-zealand-north", Shape, "08-20", "01-15"},
	{"prunus-avium", "new-zealand-south", Shape, "01-20", "07-10"},
	{"olea-europaea", "south-africa-cape", Shape, "08-20", "05-25"},
	{"citrus-limon", "south-africa-cape", Shape, "08-25", "06-20"},
	// Written after the model stood.
	{"cornus-alba", "lake-foothills", Shape, "03-15", "07-20"},
	{"weigela-florida", "lake-foothills", Shape, "06-25", "02-20 10-10"},
	{"deutzia-gracilis", "lake-foothills", Shape, "06-10", "02-20"},
	{"kerria-japonica", "lake-foothills", Shape, "05-25", "02-10"},
	{"kolkwitzia-amabilis", "humid-east", Shape, "06-25", "03-01 10-01"},
	{"viburnum-opulus", "oceanic-lowland", Shape, "06-25", "02-10"},
	{"ribes-sanguineum", "cool-coast", Shape, "05-20", "01-20"},
	{"chaenomeles-speciosa", "oceanic-lowland", Shape, "05-20", "12-20"},
	{"jasminum-nudiflorum", "oceanic-lowland", Shape, "04-01", "10-20 12-01"},
	{"hamamelis-intermedia", "oceanic-lowland", Shape, "04-01", "11-20"},
	{"cornus-mas", "oceanic-lowland", Shape, "05-01", "01-20"},
	{"lonicera-periclymenum", "oceanic-lowland", Shape, "03-10", "07-01"},
	{"hydrangea-arborescens", "humid-east", Shape, "03-20", "07-10"},
	{"rosa-tea", "warm-dry-coast", Shape, "01-25", "06-15"},
	{"perovskia-atriplicifolia", "humid-east", Shape, "04-15", "11-20 07-15"},
	{"salvia-officinalis", "oceanic-lowland", Shape, "04-25", "12-10"},
	{"lavandula-stoechas", "dry-summer-coast", Shape, "07-01", "12-20"},
	{"hedera-helix", "oceanic-lowland", Shape, "03-25", "12-20"},
	{"trachelospermum-jasminoides", "gulf-coast", Shape, "07-05", "01-10"},
	{"pieris-japonica", "oceanic-lowland", Shape, "06-01", "02-20 10-01"},
	{"mahonia-aquifolium", "oceanic-lowland", Shape, "05-10", "02-10"},
	{"photinia-fraseri", "oceanic-lowland", Hedge, "06-25", "01-10"},
	{"viburnum-tinus", "oceanic-lowland", Shape, "05-10", "12-10 10-15"},
	{"ligustrum-ovalifolium", "oceanic-lowland", Hedge, "06-20", "01-10"},
	{"carpinus-betulus", "oceanic-lowland", Hedge, "07-05", "01-10"},
	{"fagus-sylvatica", "oceanic-lowland", Shape, "01-20", "05-15"},
	{"aesculus-hippocastanum", "oceanic-lowland", Shape, "12-10", "05-15"},
	{"robinia-pseudoacacia", "oceanic-lowland", Shape, "01-20", "06-10"},
	{"acer-saccharum", "great-lakes", Shape, "07-10", "03-20 04-10"},
	{"betula-papyrifera", "great-lakes", Shape, "11-20", "04-10 06-10"},
	{"quercus-rubra", "great-lakes", Shape, "02-20", "05-20 06-20"},
	{"prunus-domestica", "oceanic-lowland", Shape, "07-25", "12-10 02-10"},
	{"prunus-armeniaca", "dry-summer-inland", Shape, "07-15", "12-15"},
	{"vaccinium-corymbosum", "great-lakes", Shape, "03-20", "07-10"},
	{"actinidia-deliciosa", "new-zealand-north", Shape, "07-01", "09-15"},
	{"feijoa-sellowiana", "new-zealand-north", Shape, "09-10", "04-20"},
	{"eriobotrya-japonica", "gulf-coast", Shape, "04-10", "01-05"},
	{"laurus-nobilis", "oceanic-lowland", Shape, "05-05", "12-20"},
	{"ilex-aquifolium", "oceanic-lowland", Hedge, "07-15", "01-10"},
	{"pinus-mugo", "continental-basin", Shape, "05-20", "12-20 10-20"},
	{"juniperus-chinensis", "humid-east", Shape, "04-15", "12-20"},
	{"calamagrostis-acutiflora", "great-lakes", Shape, "04-01", "06-20"},
	{"phormium-tenax", "cool-coast", Shape, "04-10", "12-20"},
	{"phoenix-canariensis", "dry-summer-coast", Shape, "02-10", "06-15"},
	{"hibiscus-rosa-sinensis", "florida-north", Shape, "03-20", "12-20"},
	{"camellia-sasanqua", "lake-foothills", Shape, "04-01", "10-15 12-10"},
	{"osmanthus-fragrans", "gulf-coast", Shape, "03-10", "10-20"},
	{"hamamelis-intermedia", "nordic-coast", Shape, "04-25", "11-20"},
	{"chimonanthus-praecox", "lake-foothills", Shape, "03-20", "10-15 12-01"},
	{"mahonia-media", "oceanic-lowland", Shape, "04-10", "11-20"},
	{"punica-granatum", "dry-summer-inland", Shape, "03-01", "07-01"},
}

// on is a month and day in the garden year of a day in high summer there.
func on(t testing.TB, y *Place, monthDay string) day.Day {
	t.Helper()
	at, err := time.Parse("01-02", monthDay)
	if err != nil {
		t.Fatal(err)
	}
	from, to := y.Year.Normals.Climate.GardenYear(day.Of(2027, 3, 1))
	for _, of := range []int{2026, 2027} {
		if d := day.Of(of, at.Month(), at.Day()); d >= from && d < to {
			return d
		}
	}
	t.Fatalf("%s is not in the garden year", monthDay)
	return 0
}

func TestSituations(t *testing.T) {
	right, asked := 0, 0
	for _, c := range situations {
		y := year(t, c.climate)
		p, err := For(Ask{Species: entry(t, c.species), Place: y, Date: day.Of(2027, 3, 1), Purpose: c.purpose})
		if err != nil {
			t.Errorf("%s in %s: %v", c.species, c.climate, err)
			continue
		}
		windows := []string{}
		for _, w := range p.Windows {
			windows = append(windows, w.From.String()[5:]+".."+w.To.String()[5:])
		}
		for list, good := range map[string]bool{c.good: true, c.bad: false} {
			for _, d := range strings.Fields(list) {
				asked++
				cost := p.Curve.On(on(t, y, d))
				if good == cost.Over(job.Acceptable) {
					t.Errorf("%s in %s, %s (%s): %s costs %v, good is %v; windows %v; %v", c.species, c.climate, c.purpose, p.Class, d, cost, good, windows, p.Curve.Why(on(t, y, d)))
				} else {
					right++
				}
			}
		}
	}
	t.Logf("%d situations, %d of %d days right", len(situations), right, asked)
}

// TestTreesAreNoHedges: no line is cut along the top of what has grown into a tree; a row of it is a hedge at any
// height that one clips. Gums and pines say that fire bans come first.
func TestTreesAreNoHedges(t *testing.T) {
	for _, x := range []struct {
		species string
		height  float64
		count   int
		hedge   bool
	}{
		{"pinus-sylvestris", 20, 1, false}, {"quercus-robur", 16, 1, false}, {"carpinus-betulus", 2.2, 40, true},
		{"taxus-baccata", 2, 30, true}, {"thuja-occidentalis", 3, 1, true},
	} {
		e, _ := catalogue.Built().Entry(x.species)
		p, err := For(Ask{Species: e, Place: year(t, "great-lakes"), Date: day.Of(2027, 7, 1), Purpose: Hedge, HeightM: x.height, Count: x.count})
		if err != nil {
			t.Fatal(err)
		}
		said := strings.Join(append(p.Steps, p.Where), " ")
		if line := strings.Contains(said, "Stretch a line"); line != x.hedge || strings.Contains(p.Text, "not a hedge") == x.hedge {
			t.Errorf("%s of %g m × %d: %s %s", x.species, x.height, x.count, p.Text, said)
		}
	}
	gum, _ := catalogue.Built().Entry("eucalyptus-gunnii")
	p, err := For(Ask{Species: gum, Place: year(t, "new-zealand-north"), Date: day.Of(2027, 1, 10), Purpose: Dead})
	if err != nil || !strings.Contains(strings.Join(p.Cautions, " "), "high fire danger") {
		t.Errorf("a gum in summer: %v %v", p.Cautions, err)
	}
}
