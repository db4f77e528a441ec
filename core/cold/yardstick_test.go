package cold

import (
	"math"
	"os"
	"slices"
	"strings"
	"testing"
	"time"

	"mezzadro/core/written"

	"mezzadro/core/catalogue"
	"mezzadro/core/day"
	"mezzadro/core/season"
	"mezzadro/core/weather"
)

// spellRow is a cold spell in words, and what becomes of plants in it.
type spellRow struct {
	ID      string `yaml:"id"`
	Climate string `yaml:"climate"`
	Date    string `yaml:"date"`
	Weather struct {
		MinC  float64 `yaml:"min_c"`
		Below struct {
			C     float64 `yaml:"c"`
			Hours float64 `yaml:"hours"`
		} `yaml:"below"`
		Nights     int `yaml:"frost_nights"`
		IceDays    int `yaml:"ice_days"`
		WarmBefore *struct {
			MaxC float64 `yaml:"max_c"`
			MinC float64 `yaml:"min_c"`
			Days int     `yaml:"days"`
		} `yaml:"warm_before"`
		SnowCM     float64 `yaml:"snow_cm"`
		WindMS     float64 `yaml:"wind_ms"`
		RHPct      float64 `yaml:"rh_pct"`
		Sky        string  `yaml:"sky"`
		Hardened   string  `yaml:"hardened"`
		SeasonDays int     `yaml:"season_days"`
	} `yaml:"weather"`
	Plants []struct {
		Species   string    `yaml:"species"`
		HeightM   float64   `yaml:"height_m"`
		PotL      float64   `yaml:"pot_l"`
		Shelter   *float64  `yaml:"shelter"`
		Sun       *float64  `yaml:"sun"`
		Wall      bool      `yaml:"wall"`
		Slope     string    `yaml:"slope"`
		Stage     string    `yaml:"stage"`
		Expect    string    `yaml:"expect"`
		Tolerance []string  `yaml:"tolerance"`
		Roots     []string  `yaml:"roots"`
		Bloom     []float64 `yaml:"bloom_lost"`
		Note      string    `yaml:"note"`
	} `yaml:"plants"`
	Why string `yaml:"why"`
}

// worse are what becomes of a plant, the worst last.
var worse = []string{"unhurt", "leaves scorched", "tips", "part dieback", "to the base", "dead"}

// spellNight is the day's course from a minimum at dawn to a maximum in the afternoon: 0 at dawn, 1 at three.
func spellNight(hour int) float64 { return 0.5 - 0.5*math.Cos(2*math.Pi*float64((hour+18)%24)/24) }

// hours makes the hours of a spell as its words say, from eleven months before it to two days after.
func (r *spellRow) hours(t *testing.T, c season.Climate, on day.Day) []weather.Hour {
	t.Helper()
	w := r.Weather
	hours := normalHours(c, on-330, on+6)
	nights := max(1, w.Nights)
	for i, h := range normalHours(c, on-330+day.Day(w.SeasonDays), on+6+day.Day(w.SeasonDays)) {
		if d := on - 330 + day.Day(i/24); d > on-150 {
			hours[i].TempC = h.TempC
		}
	}
	first := on - day.Day(nights/2)
	last := first + day.Day(nights) - 1
	swing := map[string]float64{"clear": 10, "cloud": 4}[w.Sky]
	if swing == 0 {
		swing = 7
	}
	ice := map[day.Day]bool{}
	for k := 0; len(ice) < min(w.IceDays, nights); k++ { // round the coldest night
		d := on + day.Day((k+1)/2*(1-2*(k%2)))
		if d >= first && d <= last {
			ice[d] = true
		}
	}
	temp := func(d day.Day, hour int, power float64) float64 {
		low := w.MinC
		if d != on {
			low = min(-0.5, w.MinC+3.5)
		}
		high := low + swing
		if ice[d] {
			high = min(high, -0.5)
		} else {
			high = max(high, 1.5)
		}
		return low + (high-low)*math.Pow(spellNight(hour), power)
	}
	power, off := 1.0, math.Inf(1)
	for _, p := range []float64{0.3, 0.45, 0.6, 0.8, 1, 1.4, 2, 3, 5, 9} { // as many hours under it as are told
		n := 0.0
		for d := first; d <= last; d++ {
			for h := range 24 {
				if temp(d, h, p) <= w.Below.C {
					n++
				}
			}
		}
		if e := math.Abs(n - w.Below.Hours); e < off {
			power, off = p, e
		}
	}
	for i := range hours {
		d := day.FromTime(hours[i].Time)
		h := hours[i].Time.Hour()
		if b := w.WarmBefore; b != nil && d < first && d >= first-day.Day(b.Days) {
			hours[i].TempC = b.MinC + (b.MaxC-b.MinC)*spellNight(h)
		}
		if s := first - 3; w.SnowCM > 0 && d == s && h < 20 {
			hours[i].TempC, hours[i].RainMM = min(-1, hours[i].TempC), w.SnowCM/20*2
		} else if w.SnowCM > 0 && d > s && d < first {
			hours[i].TempC = min(-0.5, hours[i].TempC)
		}
		if d >= first && d <= last {
			hours[i].TempC, hours[i].WindMS = temp(d, h, power), w.WindMS
			hours[i].Sun = map[string]float64{"clear": 0.9, "cloud": 0.1}[w.Sky]
			if w.RHPct > 0 {
				hours[i].RHPct = w.RHPct
			}
		}
	}
	return hours
}

// became is how bad an outcome is, by its place among the words.
func (o *Outcome) became() int {
	e := &o.plant.Species
	again := e.HardPruning == catalogue.FromBase || e.Form == catalogue.Perennial
	gone := max(o.Share(Heart), max(o.Share(Crown), o.Share(Roots)))
	switch {
	case gone >= 0.6, o.Dieback >= 0.92 && !again:
		return 5
	case o.Dieback >= 0.75, o.Share(Tops) >= 0.6:
		return 4
	case o.Dieback >= 0.2:
		return 3
	case o.Share(Wood) >= 0.3, o.Share(Shoots) >= 0.4:
		return 2
	case o.Share(Leaves) >= 0.33:
		return 1
	}
	return 0
}

// TestFreezesHold: cold spells in words and what becomes of plants in them, against what gardeners of the region know;
// it prints how many hold. The hours are made from the words.
func TestFreezesHold(t *testing.T) {
	text, err := os.ReadFile("testdata/freezes.yaml")
	if err != nil {
		t.Fatal(err)
	}
	var all []spellRow
	if err := written.Read(text, &all); err != nil {
		t.Fatal(err)
	}
	plants, hold := 0, 0
	blooms, bloomsHold := 0, 0
	for i := range all {
		r := &all[i]
		c := climate(t, r.Climate)
		on, err := day.Parse(r.Date)
		if err != nil {
			t.Fatal(err)
		}
		hours := r.hours(t, c, on)
		y := season.NewYear(c.Daily(), weather.Daily(hours, time.UTC))
		course := Follow(y, hours, time.UTC, on+6)
		for _, x := range r.Plants {
			e, known := catalogue.Built().Entry(x.Species)
			if !known {
				continue
			}
			p := Plant{Species: *e, HeightM: x.HeightM, PotL: x.PotL, Shelter: UsualShelter, Sun: UsualSun, South: c.South()}
			p.Exposure = Exposure{Wall: x.Wall, Slope: x.Slope}
			if x.Shelter != nil {
				p.Shelter = *x.Shelter
			}
			if x.Sun != nil {
				p.Sun = *x.Sun
			}
			stages, got, bloom := e.Stages(y, on), 0, 0.0
			for j := range course.Events {
				if s := &course.Events[j]; s.Day >= on-20 && s.Day <= on+6 {
					o := s.Meet(&p, stages(s.Day))
					got, bloom = max(got, o.became()), max(bloom, o.Share(Blossom))
				}
			}
			if len(x.Bloom) == 2 {
				blooms++
				if bloom >= x.Bloom[0] && bloom <= x.Bloom[1] {
					bloomsHold++
				} else {
					t.Logf("%s | %s, %s: %.0f %% of the bloom lost, want %v", r.ID, x.Species, x.Stage, 100*bloom, x.Bloom)
				}
			}
			plants++
			low, high := slices.Index(worse, x.Tolerance[0]), slices.Index(worse, x.Tolerance[len(x.Tolerance)-1])
			if got >= low && got <= high {
				hold++
				continue
			}
			t.Logf("%s | %s %s | %.1f m, pot %.0f, %s | %s, want %s (%s) | min %.1f, %d nights, %s, %s", r.ID,
				r.Climate, x.Species, x.HeightM, x.PotL, x.Stage, worse[got], x.Expect,
				strings.Join(x.Tolerance, " to "), r.Weather.MinC, r.Weather.Nights, r.Weather.Sky, r.Weather.Hardened)
		}
	}
	t.Logf("%d of %d plants hold", hold, plants)
	if float64(hold) < 0.95*float64(plants) {
		t.Errorf("%d of %d plants hold, want 95 %%", hold, plants)
	}
	t.Logf("%d of %d blooms hold", bloomsHold, blooms)
	if float64(bloomsHold) < 0.8*float64(blooms) {
		t.Errorf("%d of %d blooms hold, want 80 %%", bloomsHold, blooms)
	}
}
