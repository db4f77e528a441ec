package catalogue

import (
	"math"
	"testing"
	"time"

	"mezzadro/core/day"
	"mezzadro/core/season"
)

func TestZoneComesBackFromSimulatedYears(t *testing.T) {
	if n := len(Built().Climates); n < 66 {
		t.Errorf("%d climate types", n)
	}
	south := 0
	for _, ct := range Built().Climates {
		c := ct.Climate
		if c.South() {
			south++
		}
		o := season.NewYear(c.Daily(), nil).Simulate(c.Midwinter(day.Of(2027, 3, 1)), 300, 1)
		const half = 2.78 // °C: 5 °F
		if off := math.Abs(o.ExtremeMinC.Mid - c.ExtremeMinC); off > half/2 {
			t.Errorf("%s: the coldest night of simulated years is %.1f °C (zone %s), the climate says %.1f (zone %s)", ct.ID,
				o.ExtremeMinC.Mid, season.Zone(o.ExtremeMinC.Mid), c.ExtremeMinC, season.Zone(c.ExtremeMinC))
		}
	}
	if south < 8 {
		t.Errorf("only %d climates of the southern hemisphere", south)
	}
}

// TestPlacesOfClimates: each climate is found by places where people garden, none by two; a garden in either hemisphere
// is found by its own.
func TestPlacesOfClimates(t *testing.T) {
	of := map[string]string{}
	for _, c := range Built().Climates {
		if len(c.Places) < 3 {
			t.Errorf("%s is found by %v alone", c.ID, c.Places)
		}
		for _, p := range c.Places {
			if other := of[p]; other != "" {
				t.Errorf("%s stands for %s and for %s", p, other, c.ID)
			}
			of[p] = c.ID
		}
	}
	for place, want := range map[string]string{"Melbourne": "southern-coast", "Canberra": "southern-tablelands", "Bendigo": "victoria-inland",
		"Madison": "great-lakes", "Pretoria": "south-africa-highveld", "Atlanta": "piedmont", "London": "oceanic-lowland",
		"Minneapolis": "upper-midwest", "Miami": "florida-south", "Helsinki": "baltic-inland", "Shanghai": "yangtze-lowland"} {
		if of[place] != want {
			t.Errorf("%s has the climate %q, want %s", place, of[place], want)
		}
	}
}

// TestNeighboursOfClimates: between a climate type and one within 700 km no more than two zones lie, at the same height
// above the sea, unless a third lies between: who gardens there would else find none that fits.
func TestNeighboursOfClimates(t *testing.T) {
	all := Built().Climates
	level := func(c season.Climate) float64 { return c.AtElevation(200).ExtremeMinC / 5.56 }
	for i, a := range all {
		for _, b := range all[i+1:] {
			far, gap := kmBetween(a.Climate, b.Climate), math.Abs(level(a.Climate)-level(b.Climate))
			if far > 700 || gap <= 2 {
				continue
			}
			between := false
			for _, c := range all {
				between = between || kmBetween(a.Climate, c.Climate) < far && kmBetween(b.Climate, c.Climate) < far &&
					math.Abs(level(a.Climate)-level(c.Climate)) <= 2 && math.Abs(level(b.Climate)-level(c.Climate)) <= 2
			}
			if !between {
				t.Errorf("%s and %s: %.0f km, %.1f zones", a.ID, b.ID, far, gap)
			}
		}
	}
}

// kmBetween is how far two places are from one another, km (on a sphere).
func kmBetween(a, b season.Climate) float64 {
	rad := func(deg float64) float64 { return deg * math.Pi / 180 }
	cos := math.Sin(rad(a.Latitude))*math.Sin(rad(b.Latitude)) +
		math.Cos(rad(a.Latitude))*math.Cos(rad(b.Latitude))*math.Cos(rad(a.Longitude-b.Longitude))
	return 6371 * math.Acos(min(1, cos))
}

// TestFrostBands holds simulated frost against median dates that places with such normals are known for, in open screens
// on level ground: a week or two lies between one garden and the next.
func TestFrostBands(t *testing.T) {
	for _, c := range []struct {
		climate     string
		last, first string // usual dates; empty where frost comes in fewer than half the years
	}{
		{"lake-foothills", "03-22", "11-14"},
		{"cold-lowland", "05-01", "10-10"},
		{"oceanic-lowland", "03-30", "11-14"},
		{"great-lakes", "05-01", "10-14"},
		{"northern-prairie", "05-25", "09-18"},
		{"southern-prairie", "04-03", "11-03"},
		{"piedmont", "03-26", "11-10"},
		{"high-desert", "05-09", "10-04"},
		{"central-valley", "02-26", "11-28"},
		{"nordic-coast", "05-08", "10-14"},
		{"new-zealand-south", "09-30", "05-10"},
		{"southern-tablelands", "10-22", "04-20"},
		{"victoria-inland", "09-20", "05-25"},
		{"warm-dry-coast", "", ""},
		{"tropical-coast", "", ""},
	} {
		ct, err := Built().Climate(c.climate)
		if err != nil {
			t.Fatal(err)
		}
		o := season.NewYear(ct.Climate.Daily(), nil).Simulate(day.Of(2027, 3, 1), 300, 1)
		for name, x := range map[string]struct {
			got  *season.Band
			want string
		}{"last": {o.LastFrost, c.last}, "first": {o.FirstFrost, c.first}} {
			if (x.got == nil) != (x.want == "") {
				t.Errorf("%s: %s frost %v, want %q", c.climate, name, x.got, x.want)
				continue
			}
			if x.got == nil {
				continue
			}
			want, err := time.Parse("2006-01-02", x.got.Mid.String()[:5]+x.want)
			if err != nil {
				t.Fatal(err)
			}
			if off := x.got.Mid.Sub(day.FromTime(want)); off < -12 || off > 12 {
				t.Errorf("%s: %s frost about %s, gardeners there say %s", c.climate, name, x.got.Mid.Words(), x.want)
			}
			if x.got.Early >= x.got.Mid || x.got.Mid >= x.got.Late {
				t.Errorf("%s: %s frost %+v has no spread", c.climate, name, *x.got)
			}
		}
	}
}

// TestLastFrostsOnAverage: over climates from boreal to mild the middle last frost is neither early nor late as a rule. The
// days are what gardeners of places with such normals reckon with, rounded, said before the spread was set.
func TestLastFrostsOnAverage(t *testing.T) {
	sum, off, n := 0, 0, 0
	for climate, want := range map[string]string{
		"prairie": "05-13", "cold-lowland": "04-28", "nordic-coast": "05-05", "boreal-inland": "05-26", "northern-prairie": "05-24",
		"great-lakes": "04-29", "high-desert": "05-07", "great-basin-low": "04-18", "southern-prairie": "04-02", "upland-south": "04-18",
		"piedmont": "03-26", "humid-east": "04-11", "alpine-foreland": "04-29", "continental-basin": "04-12", "oceanic-lowland": "04-01",
		"cool-west-maritime": "03-30", "mountain-steppe": "04-18", "north-china-plain": "04-04", "east-asian-humid": "03-05",
		"florida-north": "02-24", "gulf-coast": "02-18", "central-valley": "02-24", "dry-summer-inland": "03-16",
	} {
		ct, err := Built().Climate(climate)
		if err != nil {
			t.Fatal(err)
		}
		b, ok := ct.Climate.Daily().LastFrost(day.Of(2027, 1, 1), 0)
		if !ok {
			t.Errorf("%s: no last frost", climate)
			continue
		}
		d, err := day.Parse("2027-" + want)
		if err != nil {
			t.Fatal(err)
		}
		late := b.Mid.Sub(d)
		sum, off, n = sum+late, off+max(late, -late), n+1
		if late > 12 || late < -12 {
			t.Errorf("%s: last frost about %s, gardeners there say %s", climate, b.Mid, want)
		}
	}
	mean, far := float64(sum)/float64(n), float64(off)/float64(n)
	t.Logf("%d climates: %.1f days late on average, %.1f days off", n, mean, far)
	if mean > 3 || mean < -3 || far > 5 {
		t.Errorf("last frosts lie %.1f days late on average, %.1f days off", mean, far)
	}
}

// TestSouthIsMirrored: the same climate half a year on and south of the equator gives the same garden half a year on.
func TestSouthIsMirrored(t *testing.T) {
	ct, err := Built().Climate("lake-foothills")
	if err != nil {
		t.Fatal(err)
	}
	south := ct.Climate
	south.Latitude = -south.Latitude
	south.Normals = append(append([]season.Normal{}, ct.Climate.Normals[6:]...), ct.Climate.Normals[:6]...)
	ny, sy := season.NewYear(ct.Climate.Daily(), nil), season.NewYear(south.Daily(), nil)
	nd, sd := day.Of(2027, 3, 18), day.Of(2027, 9, 18)
	for _, id := range []string{"camellia-japonica", "rosa-shrub", "hydrangea-macrophylla", "acer-palmatum", "dahlia-pinnata", "chimonanthus-praecox"} {
		e, err := Built().Species(id)
		if err != nil {
			t.Fatal(err)
		}
		n, s := e.Dates(ny, nd), e.Dates(sy, sd)
		for name, pair := range map[string][2]day.Day{"leaf-out": {n.LeafOut.Mid, s.LeafOut.Mid}, "bloom": {n.BloomStart.Mid, s.BloomStart.Mid},
			"leaf drop": {n.LeafDrop.Mid, s.LeafDrop.Mid}, "buds set": {n.BudsSet.Mid, s.BudsSet.Mid}} {
			if pair[0] == 0 && pair[1] == 0 {
				continue
			}
			if off := pair[1].Sub(pair[0]) % 365; min(off, 365-off) < 170 && max(off, 365-off) < 190 || off < 172 || off > 194 {
				t.Errorf("%s, %s: north %s, south %s", id, name, pair[0], pair[1])
			}
		}
	}
}

// TestEverySpeciesHasDates resolves every anchor in every climate: nothing falls outside the year, and what is quick
// to ask agrees with the band's middle.
func TestEverySpeciesHasDates(t *testing.T) {
	d := day.Of(2027, 4, 10)
	for _, ct := range Built().Climates {
		y := season.NewYear(ct.Climate.Daily(), nil)
		from, to := ct.Climate.GardenYear(d)
		for _, e := range Built().Entries {
			dates := e.Dates(y, d)
			if dates.InLeaf && (dates.LeafOut.Mid < from-60 || dates.LeafOut.Mid > to+300 || dates.LeafOut.Early > dates.LeafOut.Late) {
				t.Errorf("%s in %s: leaf-out %+v", e.ID, ct.ID, dates.LeafOut)
			}
			if dates.Blooms && dates.BloomEnd.Mid <= dates.BloomStart.Mid {
				t.Errorf("%s in %s: bloom %s to %s", e.ID, ct.ID, dates.BloomStart.Mid, dates.BloomEnd.Mid)
			}
			if dates.BloomStart.Mid >= ct.Climate.Midwinter(d)+364 {
				continue // blooms in warm years only
			}
			stage := e.Stages(y, d)(dates.BloomStart.Mid)
			if dates.Blooms && !stage.InBloom && dates.InLeaf == stage.Leafing {
				t.Errorf("%s in %s: not in bloom on the day bloom starts", e.ID, ct.ID)
			}
		}
	}
}
