package cold

import (
	"strings"
	"testing"
	"time"

	"mezzadro/core/day"
	"mezzadro/core/quantity"
	"mezzadro/core/season"
	"mezzadro/core/weather"
)

// What a freeze leaves of a plant, as one finds it in the weeks after.
const (
	unhurt   = "unhurt"
	leaves   = "leaves"      // browned or cast, the wood lives
	tipsDead = "tips"        // the ends of the shoots
	topDead  = "top"         // a good part of the stems, the base lives
	toBase   = "to the base" // all or nearly all stems
	tops     = "tops"        // of a herb or tuber, the crown lives
	lost     = "lost"        // growing point, crown or roots
	shoots   = "shoots"      // what was soft and open
	mostly   = "mostly alive"
)

// left is what an outcome comes to, one or two of the above.
func (o *Outcome) left() map[string]bool {
	out := map[string]bool{}
	lostAt := max(o.Share(Heart), max(o.Share(Crown), o.Share(Roots)))
	out[lost] = lostAt >= 0.5
	out[toBase] = o.Dieback >= 0.75
	out[topDead] = o.Dieback >= 0.3
	out[tipsDead] = o.Share(Wood) >= 0.4 && o.Dieback < 0.5
	out[leaves] = o.Share(Leaves) >= 0.4 && o.Dieback < 0.3
	out[tops] = o.Share(Tops) >= 0.6 && o.Share(Crown) < 0.3
	out[shoots] = max(o.Share(Shoots), o.Share(Blossom)) >= 0.5 && o.Dieback < 0.3
	out[mostly] = o.Dieback < 0.3 && lostAt < 0.3
	out[unhurt] = o.Severity < lookFrom && o.Share(Wood) < 0.15
	return out
}

// frost is a cold spell written into normal weather.
type frost struct {
	climate string
	on      day.Day
	hours   int
	c       float64
	before  []change // what went before it
	snowMM  float64  // of water, fallen the days before
}

// TestFreezes: what gardeners found after freezes, from cold steppe to warm coast, desert and the south.
func TestFreezes(t *testing.T) {
	warm := func(d day.Day, days int, shift float64) []change {
		return []change{{from: d - day.Day(days), hours: days * 24, shift: shift}}
	}
	d := day.Of
	for _, c := range []struct {
		name string
		frost
		kinds map[string]string // what is left of each kind
		pot   float64
	}{
		{"mid January on a warm coast", frost{"gulf-coast", d(2027, 1, 18), 10, -6, nil, 0}, map[string]string{"magnolia-grandiflora": unhurt,
			"ilex-crenata": unhurt, "lagerstroemia-indica": unhurt, "nandina-domestica": unhurt, "bougainvillea-glabra": toBase, "lantana-camara": toBase, "citrus-limon": topDead}, 0},
		{"a desert January night", frost{"hot-desert", d(2027, 1, 10), 5, -4, nil, 0}, map[string]string{"olea-europaea": unhurt, "nerium-oleander": unhurt,
			"punica-granatum": unhurt, "vitex-agnus-castus": unhurt, "citrus-sinensis": mostly, "bougainvillea-glabra": topDead}, 0},
		{"mid October on the prairie", frost{"northern-prairie", d(2026, 10, 15), 9, -10, nil, 0}, map[string]string{"picea-pungens": unhurt, "potentilla-fruticosa": unhurt,
			"cornus-alba": unhurt, "betula-pendula": unhurt, "rosa-rugosa": unhurt}, 0},
		{"from +18 to −25 °C in mid November", frost{"prairie", d(2026, 11, 14), 30, -25, warm(d(2026, 11, 14), 25, 6), 0}, map[string]string{"prunus-persica": toBase,
			"rosa-bedding": toBase, "prunus-avium": topDead, "picea-abies": mostly, "syringa-vulgaris": mostly, "quercus-rubra": mostly}, 0},
		{"an ordinary January night in the foothills", frost{"lake-foothills", d(2027, 1, 12), 9, -5, nil, 0}, map[string]string{"camellia-japonica": unhurt,
			"hydrangea-macrophylla": unhurt, "olea-europaea": unhurt, "trachycarpus-fortunei": unhurt, "laurus-nobilis": unhurt, "rosa-shrub": unhurt}, 0},
		{"a hard January there", frost{"lake-foothills", d(2027, 1, 12), 40, -12, nil, 0}, map[string]string{"camellia-japonica": mostly, "olea-europaea": topDead,
			"nerium-oleander": toBase, "rosa-shrub": unhurt, "prunus-laurocerasus": unhurt}, 0},
		{"−11 °C late in a warm February", frost{"lake-foothills", d(2027, 2, 24), 8, -11, warm(d(2027, 2, 24), 24, 6), 0}, map[string]string{"hydrangea-macrophylla": topDead,
			"carpinus-betulus": mostly, "olea-europaea": toBase}, 0},
		{"the first frost of autumn", frost{"oceanic-lowland", d(2026, 10, 20), 5, -1.8, nil, 0}, map[string]string{"dahlia-pinnata": tops, "canna-indica": tops,
			"hosta-hybrid": unhurt, "hydrangea-macrophylla": unhurt, "camellia-japonica": unhurt}, 0},
		{"a light November frost", frost{"cool-coast", d(2026, 11, 20), 7, -3, nil, 0}, map[string]string{"pelargonium-zonal": topDead, "fuchsia-magellanica": mostly,
			"rosa-shrub": unhurt, "lavandula-angustifolia": unhurt, "phormium-tenax": unhurt, "dahlia-pinnata": tops}, 0},
		{"January in the cold lowland", frost{"cold-lowland", d(2027, 1, 20), 60, -18, nil, 0}, map[string]string{"malus-domestica": unhurt, "syringa-vulgaris": unhurt,
			"buddleja-davidii": mostly, "hydrangea-macrophylla": mostly, "laurus-nobilis": toBase, "picea-abies": unhurt}, 0},
		{"a prairie January", frost{"prairie", d(2027, 1, 15), 72, -30, nil, 40}, map[string]string{"picea-pungens": unhurt, "rosa-rugosa": unhurt, "malus-domestica": mostly,
			"hemerocallis-fulva": unhurt, "hosta-hybrid": unhurt, "hydrangea-arborescens": unhurt}, 0},
		{"the same on bare ground", frost{"prairie", d(2027, 1, 15), 72, -30, nil, 0}, map[string]string{"picea-pungens": unhurt, "potentilla-fruticosa": unhurt}, 0},
		{"five days at −38 °C under snow", frost{"northern-prairie", d(2027, 1, 15), 120, -38, nil, 60}, map[string]string{"paeonia-lactiflora": unhurt, "picea-pungens": unhurt,
			"malus-domestica": topDead, "cornus-alba": mostly}, 0},
		{"pots in a hard January", frost{"cold-lowland", d(2027, 1, 12), 48, -12, nil, 0}, map[string]string{"acer-palmatum": lost, "prunus-laurocerasus": lost}, 10},
		{"late frost on open growth", frost{"lake-foothills", d(2027, 4, 26), 6, -3.5, warm(d(2027, 4, 26), 40, 2), 0}, map[string]string{"hydrangea-macrophylla": shoots,
			"actinidia-deliciosa": shoots, "acer-palmatum": shoots, "vitis-vinifera": shoots}, 0},
		{"apple blossom at −4 °C", frost{"continental-basin", d(2027, 5, 1), 5, -4, nil, 0}, map[string]string{"malus-domestica": shoots}, 0},
		{"a southern July", frost{"pampas", d(2027, 7, 12), 7, -4, nil, 0}, map[string]string{"jacaranda-mimosifolia": tipsDead, "lagerstroemia-indica": unhurt, "camellia-japonica": unhurt,
			"citrus-sinensis": mostly, "bougainvillea-glabra": topDead}, 0},
		{"a cold July on the highveld", frost{"south-africa-highveld", d(2027, 7, 5), 8, -6, nil, 0}, map[string]string{"olea-europaea": unhurt, "rosa-shrub": unhurt,
			"agapanthus-africanus": mostly, "bougainvillea-glabra": toBase}, 0},
		{"palms on the dry-summer coast", frost{"dry-summer-coast", d(2027, 1, 20), 12, -5, nil, 0}, map[string]string{"chamaerops-humilis": unhurt, "phoenix-canariensis": mostly,
			"washingtonia-robusta": mostly, "citrus-limon": tipsDead}, 0},
		{"a northern freeze on the gulf", frost{"gulf-coast", d(2027, 1, 25), 40, -10, nil, 0}, map[string]string{"nerium-oleander": toBase, "citrus-sinensis": toBase,
			"pittosporum-tobira": topDead, "ilex-crenata": mostly}, 0},
		{"an ordinary winter night on the west coast", frost{"cool-west-maritime", d(2027, 1, 8), 8, -3, nil, 0}, map[string]string{"camellia-japonica": unhurt,
			"fuchsia-magellanica": unhurt, "phormium-tenax": unhurt, "rhododendron-hybrid": unhurt, "hebe-shrubby": unhurt}, 0},
		{"an arctic outbreak there in December", frost{"cool-west-maritime", d(2026, 12, 20), 60, -12, nil, 0}, map[string]string{"phormium-tenax": mostly, "hebe-shrubby": toBase,
			"choisya-ternata": tipsDead, "rhododendron-hybrid": unhurt, "acer-palmatum": unhurt}, 0},
		{"an April frost on the high desert", frost{"high-desert", d(2027, 4, 25), 6, -4, nil, 0}, map[string]string{"prunus-armeniaca": mostly, "juniperus-chinensis": mostly}, 0},
		{"a prairie November, ordinary", frost{"prairie", d(2026, 11, 20), 30, -20, nil, 0}, map[string]string{"malus-domestica": unhurt, "syringa-vulgaris": unhurt,
			"picea-pungens": unhurt, "caragana-arborescens": unhurt, "rosa-rugosa": unhurt}, 0},
		{"−40 °C on the northern prairie", frost{"northern-prairie", d(2027, 1, 25), 40, -40, nil, 30}, map[string]string{"picea-glauca": unhurt, "populus-tremuloides": unhurt,
			"caragana-arborescens": unhurt, "malus-baccata": unhurt, "acer-platanoides": tipsDead, "taxus-baccata": topDead}, 0},
		{"a cold night under the palms", frost{"florida-north", d(2027, 1, 22), 6, -4, nil, 0}, map[string]string{"hibiscus-rosa-sinensis": toBase, "sabal-palmetto": unhurt,
			"quercus-virginiana": unhurt, "ilex-vomitoria": unhurt, "loropetalum-chinense": unhurt, "duranta-erecta": tipsDead, "ixora-coccinea": toBase}, 0},
		{"a touch of frost on the citrus coast", frost{"citrus-coast", d(2027, 1, 15), 3, -1, nil, 0}, map[string]string{"citrus-sinensis": unhurt, "citrus-limon": unhurt,
			"persea-americana": mostly, "bougainvillea-glabra": mostly, "olea-europaea": unhurt}, 0},
		{"desert nights at −7 °C", frost{"hot-desert", d(2027, 1, 3), 8, -7, nil, 0}, map[string]string{"prosopis-velutina": mostly, "parkinsonia-florida": mostly,
			"leucophyllum-frutescens": unhurt, "citrus-paradisi": topDead, "tecoma-stans": topDead, "washingtonia-filifera": mostly, "caesalpinia-pulcherrima": topDead}, 0},
		{"the first frost on the piedmont", frost{"piedmont", d(2026, 11, 4), 5, -2, nil, 0}, map[string]string{"canna-indica": tops, "colocasia-esculenta": tops,
			"lagerstroemia-indica": unhurt, "camellia-sasanqua": unhurt, "magnolia-grandiflora": unhurt}, 0},
		{"a March freeze after a warm spell on the piedmont", frost{"piedmont", d(2027, 3, 14), 8, -6, warm(d(2027, 3, 14), 25, 5), 0}, map[string]string{"magnolia-soulangeana": shoots,
			"quercus-rubra": mostly, "ilex-crenata": mostly}, 0},
		{"oleander at −6 °C by the sea", frost{"dry-summer-coast", d(2027, 1, 28), 10, -6, nil, 0}, map[string]string{"nerium-oleander": mostly, "olea-europaea": unhurt,
			"pistacia-lentiscus": unhurt, "ceratonia-siliqua": tipsDead, "quercus-ilex": unhurt, "laurus-nobilis": unhurt}, 0},
		{"a hard July in Patagonia", frost{"patagonia-steppe", d(2027, 7, 10), 40, -14, nil, 0}, map[string]string{"populus-nigra": unhurt, "malus-domestica": unhurt,
			"lavandula-angustifolia": unhurt, "pinus-nigra": unhurt, "rosa-shrub": unhurt}, 0},
		{"tasmanian winter night", frost{"tasmanian-cool", d(2027, 7, 20), 7, -4, nil, 0}, map[string]string{"dicksonia-antarctica": mostly, "eucalyptus-gunnii": unhurt,
			"camellia-japonica": unhurt, "acacia-dealbata": unhurt}, 0},
		{"chilean valley in July", frost{"chile-central", d(2027, 7, 5), 6, -3, nil, 0}, map[string]string{"vitis-vinifera": unhurt, "persea-americana": mostly,
			"olea-europaea": unhurt, "jacaranda-mimosifolia": mostly}, 0},
		{"the north China plain in January", frost{"north-china-plain", d(2027, 1, 18), 60, -16, nil, 0}, map[string]string{"ginkgo-biloba": unhurt, "ziziphus-jujuba": unhurt,
			"styphnolobium-japonicum": unhurt, "diospyros-kaki": mostly, "magnolia-grandiflora": mostly}, 0},
		{"a mild winter night on the Black Sea", frost{"black-sea-humid", d(2027, 1, 12), 8, -5, nil, 0}, map[string]string{"trachycarpus-fortunei": unhurt, "camellia-japonica": unhurt,
			"citrus-reticulata": mostly, "musa-basjoo": unhurt}, 0},
		{"boreal October", frost{"boreal-inland", d(2026, 10, 10), 12, -9, nil, 0}, map[string]string{"betula-pendula": unhurt, "picea-abies": unhurt, "sorbus-aucuparia": unhurt,
			"potentilla-fruticosa": unhurt, "malus-domestica": mostly}, 0},
		{"pots of olives on a cold terrace", frost{"cold-lowland", d(2027, 1, 6), 60, -14, nil, 0}, map[string]string{"olea-europaea": lost, "laurus-nobilis": lost,
			"buxus-sempervirens": lost}, 25},
		{"a mountain valley in deep snow", frost{"mountain-valley", d(2027, 1, 30), 48, -22, nil, 80}, map[string]string{"lavandula-angustifolia": mostly, "hydrangea-arborescens": unhurt,
			"larix-decidua": unhurt, "erica-carnea": unhurt}, 0},
		{"a September frost on the steppe", frost{"mountain-steppe", d(2026, 9, 22), 5, -3, nil, 0}, map[string]string{"hosta-hybrid": mostly, "populus-tremuloides": unhurt,
			"picea-glauca": unhurt}, 0},
	} {
		course := c.course(t)
		for id, want := range c.kinds {
			e := species(t, id)
			p := Plant{Species: e, HeightM: min(3, e.Mature.HeightM), Shelter: 0.5, Sun: 0.6, PotL: c.pot, South: course.Year.Normals.Climate.South()}
			o := course.meet(t, p, c.on)
			if got := o.left(); !got[want] {
				t.Errorf("%s, %s: want %s; severity %.2f, dieback %.2f, wood bears %.1f, %+v", c.name, id, want, o.Severity, o.Dieback, o.WoodKillC, o.Organs)
			}
			said := quantity.Metric.Text(o.Reason())
			if o.left()[tops] != strings.Contains(said, "tops") {
				t.Errorf("%s, %s: it is said %q of %+v", c.name, id, said, o.Organs)
			}
			for _, i := range o.Organs {
				if i.Share >= 0.5 && strings.Contains(said, "unhurt") {
					t.Errorf("%s, %s: %q, though of its %s %.0f %% is hurt", c.name, id, said, i.Organ, 100*i.Share)
				}
			}
		}
	}
}

// course plays the frost into normal weather.
func (f frost) course(t testing.TB) *Course {
	t.Helper()
	c := climate(t, f.climate)
	hours := normalHours(c, f.on-330, f.on+5)
	for _, ch := range append(append([]change{}, f.before...), change{from: f.on, hours: f.hours, hold: f.c}) {
		for i := range hours {
			since := hours[i].Time.Sub(ch.from.Time())
			switch {
			case since < 0 || since >= time.Duration(ch.hours)*time.Hour:
			case ch.shift != 0:
				hours[i].TempC += ch.shift
			default:
				hours[i].TempC = ch.hold
			}
		}
	}
	for i := range hours {
		if since := hours[i].Time.Sub((f.on - 2).Time()); f.snowMM > 0 && since >= 0 && since < 10*time.Hour {
			hours[i].TempC, hours[i].RainMM = min(hours[i].TempC, -1), f.snowMM/10
		}
	}
	y := season.NewYear(c.Daily(), weather.Daily(hours, time.UTC))
	return Follow(y, hours, time.UTC, f.on+5)
}

// TestFlowersInFrost: what open flowers look like the day after a frost. Those that open in winter are made for it.
func TestFlowersInFrost(t *testing.T) {
	d := day.Of
	for _, c := range []struct {
		frost
		kind    string
		browned bool
	}{
		{frost{"oceanic-lowland", d(2027, 1, 25), 9, -8, nil, 0}, "hamamelis-intermedia", false},
		{frost{"oceanic-lowland", d(2027, 2, 15), 8, -7, nil, 0}, "galanthus-nivalis", false},
		{frost{"oceanic-lowland", d(2027, 2, 20), 8, -6, nil, 0}, "helleborus-orientalis", false},
		{frost{"oceanic-lowland", d(2027, 3, 5), 7, -5, nil, 0}, "erica-carnea", false},
		{frost{"cold-lowland", d(2027, 3, 20), 7, -5, nil, 0}, "cornus-mas", false},
		{frost{"cool-coast", d(2027, 2, 10), 8, -5, nil, 0}, "corylus-avellana", false},
		{frost{"cool-coast", d(2027, 4, 10), 7, -3.5, nil, 0}, "magnolia-soulangeana", true},
		{frost{"southern-coast", d(2027, 7, 12), 6, -4, nil, 0}, "camellia-japonica", true},
		{frost{"oceanic-lowland", d(2027, 4, 14), 6, -4, nil, 0}, "prunus-avium", true},
	} {
		course := c.course(t)
		e := species(t, c.kind)
		p := Plant{Species: e, HeightM: min(3, e.Mature.HeightM), Shelter: 0.5, Sun: 0.6, South: course.Year.Normals.Climate.South()}
		o := course.meet(t, p, c.on)
		if got := o.Share(Blossom) >= 0.5; got != c.browned {
			t.Errorf("%s at %.0f °C in %s: flowers browned %v; %+v", c.kind, c.c, c.climate, got, o.Organs)
		}
		if said := quantity.Metric.Text(o.Reason()); c.browned != strings.Contains(said, "flowers") && !strings.Contains(said, "soft new shoots") {
			t.Errorf("%s: it is said %q", c.kind, said)
		}
	}
}

// TestUnderSnow: what is wholly under snow is as warm as the soil, its leaves, buds and flowers too; what stands out of
// it is not.
func TestUnderSnow(t *testing.T) {
	course := frost{"mountain-valley", day.Of(2027, 1, 30), 48, -24, nil, 80}.course(t)
	for id, want := range map[string]bool{"erica-carnea": false, "lavandula-angustifolia": false, "buxus-sempervirens": true} {
		p := Plant{Species: species(t, id), HeightM: 0.3, Shelter: 0.5, Sun: 0.6}
		if id == "buxus-sempervirens" {
			p.HeightM = 2.5
		}
		o := course.meet(t, p, day.Of(2027, 1, 30))
		hurt := max(o.Share(Leaves), o.Share(Wood), o.Share(Blossom)) >= 0.3
		if hurt != want {
			t.Errorf("%s of %.1f m: hurt %v; %+v", id, p.HeightM, hurt, o.Organs)
		}
	}
}
