package cold

import (
	"fmt"
	"math"
	"math/rand/v2"
	"strings"
	"testing"
	"time"

	"mezzadro/core/catalogue"
	"mezzadro/core/day"
	"mezzadro/core/quantity"
	"mezzadro/core/season"
	"mezzadro/core/weather"
)

func species(t testing.TB, id string) catalogue.Entry {
	t.Helper()
	e, err := catalogue.Built().Species(id)
	if err != nil {
		t.Fatal(err)
	}
	return e
}

func climate(t testing.TB, id string) season.Climate {
	t.Helper()
	c, err := catalogue.Built().Climate(id)
	if err != nil {
		t.Fatal(err)
	}
	return c.Climate
}

// normalHours is a record in which every day is normal: a stage on which one thing at a time is changed.
func normalHours(c season.Climate, from, to day.Day) []weather.Hour {
	n := c.Daily()
	days := make([]season.Weather, to-from+1)
	for i := range days {
		d := from + day.Day(i)
		days[i] = season.Weather{MinC: n.TMin.At(d), MaxC: n.TMax.At(d)}
	}
	out := make([]weather.Hour, 0, 24*len(days))
	for i, t := range season.Hourly(c.Latitude, from, days) {
		out = append(out, weather.Hour{Time: from.Time().Add(time.Duration(i) * time.Hour), TempC: t, RainMM: math.NaN(), WindMS: 1.5, RHPct: 75, Sun: math.NaN()})
	}
	return out
}

// change is something written into a record.
type change struct {
	from  day.Day
	hours int
	hold  float64 // temperature held, °C
	shift float64 // or every hour shifted, °C
}

// follow plays a year of normal days with changes written in, to the day asked on.
func follow(t testing.TB, climateID string, on day.Day, changes ...change) *Course {
	t.Helper()
	c := climate(t, climateID)
	hours := normalHours(c, on-330, on)
	for _, ch := range changes {
		for i := range hours {
			if since := hours[i].Time.Sub(ch.from.Time()); since >= 0 && since < time.Duration(ch.hours)*time.Hour {
				if ch.shift != 0 {
					hours[i].TempC += ch.shift
				} else {
					hours[i].TempC = ch.hold
				}
			}
		}
	}
	y := season.NewYear(c.Daily(), weather.Daily(hours, time.UTC))
	return Follow(y, hours, time.UTC, on)
}

func (c *Course) meet(t testing.TB, p Plant, when day.Day) Outcome {
	t.Helper()
	stages := p.Species.Stages(c.Year, when)
	var best *Outcome
	for i := range c.Events {
		if e := &c.Events[i]; e.Cold() && (e.Day-when).Sub(0) < 4 && when.Sub(e.Day) < 4 {
			o := e.Meet(&p, stages(e.Day))
			if best == nil || o.Severity > best.Severity {
				best = &o
			}
		}
	}
	if best == nil {
		// Nothing that counts as an event: nothing was hurt.
		return Outcome{Event: &Struck{}, plant: &p}
	}
	return *best
}

// shrub is an established shrub of hardiness zone 7 or 8.
func shrub(t testing.TB, hardiness float64) Plant {
	e := species(t, "viburnum-bodnantense")
	e.HardinessC, e.LeafOut, e.Bloom.Start = hardiness, season.Anchor{DegreeDays: 60}, season.Anchor{DegreeDays: 100}
	return Plant{Species: e, HeightM: 2, Shelter: 0.5, Sun: 0.5}
}

// TestSanity is what every gardener knows of frost.
func TestSanity(t *testing.T) {
	jan, feb, nov := day.Of(2027, 1, 15), day.Of(2027, 2, 24), day.Of(2026, 11, 12)
	at := func(d day.Day, hours int, c float64) change { return change{from: d, hours: hours, hold: c} }
	warmFeb := change{from: day.Of(2027, 2, 1), hours: 23 * 24, shift: 5}

	normal := follow(t, "lake-foothills", jan+5, at(jan, 12, -11)).meet(t, shrub(t, -17), jan)
	if normal.Share(Wood) > 0.1 || normal.Share(Buds) > 0.15 || normal.Dieback > 0 {
		t.Errorf("−11 °C in mid January of a normal winter hurts a zone-7 shrub: %+v", normal.Organs)
	}
	warm := follow(t, "lake-foothills", feb+5, warmFeb, at(feb, 6, -11)).meet(t, shrub(t, -17), feb)
	if warm.Share(Buds) < 0.7 || warm.Share(Wood) < 0.5 || warm.Dieback <= 0 || warm.Dieback > 0.9 {
		t.Errorf("the same −11 °C three weeks into a warm February: dieback %.2f, %+v", warm.Dieback, warm.Organs)
	}
	early := follow(t, "lake-foothills", nov+5, change{from: day.Of(2026, 10, 1), hours: 41 * 24, shift: 3}, at(nov, 10, -8)).meet(t, shrub(t, -12), nov)
	late := follow(t, "lake-foothills", jan+5, at(jan, 10, -8)).meet(t, shrub(t, -12), jan)
	if early.Share(Wood) < 0.6 || late.Share(Wood) > 0.15 {
		t.Errorf("−8 °C on a zone-8 shrub: in a mild November %.2f of the thin wood, in January %.2f", early.Share(Wood), late.Share(Wood))
	}
	short := follow(t, "lake-foothills", nov+5, at(nov, 4, -8)).meet(t, shrub(t, -9), nov)
	long := follow(t, "lake-foothills", nov+5, at(nov, 50, -8)).meet(t, shrub(t, -9), nov)
	if long.ThickestMM < 1.5*short.ThickestMM || short.ThickestMM == 0 {
		t.Errorf("at −8 °C 4 h kill wood of %.0f mm, 50 h of %.0f mm", short.ThickestMM, long.ThickestMM)
	}
	potted := shrub(t, -17)
	potted.Species.RootHardinessC = -5
	potted.PotL = 20
	cold := follow(t, "lake-foothills", jan+8, at(jan, 40, -11))
	inPot, inGround := cold.meet(t, potted, jan), cold.meet(t, shrub(t, -17), jan)
	if inPot.Share(Roots) < 0.6 || inGround.Share(Roots) > 0.1 {
		t.Errorf("roots lost: in a 20 L pot %.2f, in the ground %.2f", inPot.Share(Roots), inGround.Share(Roots))
	}
	if !strings.Contains(quantity.Metric.Text(inPot.Reason()), "20 L pot") {
		t.Error(quantity.Metric.Text(inPot.Reason()))
	}
}

// TestWarmWintersHardenLittle: where no month is under 10 °C a hard freeze is a disaster; where winters are cold two
// milder nights are nothing, though wind and sun on the frozen ground are.
func TestWarmWintersHardenLittle(t *testing.T) {
	jan := day.Of(2027, 1, 20)
	frost := change{from: jan, hours: 48, hold: -10}
	p := shrub(t, -12)
	gulf := follow(t, "florida-north", jan+5, frost)
	if h := gulf.Hardened.On(jan - 1); h.Cold > 0.02 || h.Short < 0.5 {
		t.Errorf("hardened by %+v in a climate without winter", h)
	}
	if o := gulf.meet(t, p, jan); o.Share(Wood) < 0.9 || o.Dieback < 0.9 {
		t.Errorf("48 h at −10 °C without cold to harden it: dieback %.2f, %+v", o.Dieback, o.Organs)
	}
	hardy := Plant{Species: species(t, "ilex-crenata"), HeightM: 1.6, Shelter: 0, Sun: 1}
	c := climate(t, "great-lakes")
	hours := normalHours(c, day.Of(2026, 8, 1), jan+5)
	for i := range hours { // a bright windy frost
		if since := hours[i].Time.Sub((jan - 21).Time()); since >= 0 && since < 23*24*time.Hour {
			hours[i].TempC, hours[i].WindMS, hours[i].RHPct, hours[i].Sun = -4, 10, 32, 0.95
		}
	}
	north := Follow(season.NewYear(c.Daily(), weather.Daily(hours, time.UTC)), hours, time.UTC, jan+5)
	dried := false
	for i := range north.Events {
		e := &north.Events[i]
		o := e.Meet(&hardy, catalogue.Stage{SinceLeafOut: -90, Leafing: true})
		switch {
		case e.Cold() && o.Severity > lookFrom:
			t.Errorf("a hardened holly is hurt by cold: %+v", o.Organs)
		case e.Kind == DryingWind && e.Day >= jan-12: // an earlier, milder spell dries none so deep-rooted
			dried = true
			if o.Worst.By != ByDrying || o.Severity < 0.15 || o.AliveAt(0.05) < 0.9 || !strings.Contains(quantity.Metric.Text(o.Reason()), "base is likely alive") {
				t.Errorf("drying in sun and wind: severity %.2f, base alive %.2f: %s", o.Severity, o.AliveAt(0.05), quantity.Metric.Text(o.Reason()))
			}
			sheltered := hardy
			sheltered.Shelter, sheltered.Sun = 1, 0
			if s := e.Meet(&sheltered, catalogue.Stage{SinceLeafOut: -90, Leafing: true}); s.Severity > o.Severity/2 {
				t.Errorf("the same holly sheltered in shade: %.2f", s.Severity)
			}
		}
	}
	if !dried {
		t.Error("three weeks of wind and sun on frozen ground is no event")
	}
}

func TestLateFrostTakesOpenGrowth(t *testing.T) {
	april := day.Of(2027, 4, 24)
	c := follow(t, "lake-foothills", april+3, change{from: day.Of(2027, 3, 15), hours: 38 * 24, shift: 3}, change{from: april, hours: 6, hold: -3.5})
	maple := Plant{Species: species(t, "acer-palmatum"), HeightM: 2.5, Shelter: 0.5, Sun: 0.4}
	o := c.meet(t, maple, april)
	if o.Event.Kind != weather.LateFrost || o.Share(Shoots) < 0.7 || o.Worst.Organ != Shoots || o.Dieback > 0.4 {
		t.Errorf("%s: %+v", o.Event.Kind, o.Organs)
	}
	crape := Plant{Species: species(t, "ziziphus-jujuba"), HeightM: 2, Shelter: 0.5, Sun: 1}
	if o := c.meet(t, crape, april); o.Share(Shoots) > 0 {
		t.Errorf("a shrub still bare has lost shoots: %+v", o.Organs)
	}
	if s := Story(o.Event.Event); !strings.Contains(s, "growth already open") {
		t.Error(s)
	}
}

func TestHeatGaleAndWetFindTheirPlants(t *testing.T) {
	c := climate(t, "lake-foothills")
	july := day.Of(2027, 7, 10)
	hours := normalHours(c, july-200, july+10)
	for i := range hours {
		h := &hours[i]
		switch since := int(h.Time.Sub(july.Time()).Hours()); {
		case since < 0 || since >= 240:
		case since < 72:
			h.TempC += 11
			h.Sun = 0.9
		case since < 80:
			h.WindMS = 16
		case since >= 120 && since < 200:
			h.RainMM = 4
		}
	}
	course := Follow(season.NewYear(c.Daily(), weather.Daily(hours, time.UTC)), hours, time.UTC, july+10)
	by := map[string]*Struck{}
	for i := range course.Events {
		by[course.Events[i].Kind] = &course.Events[i]
	}
	leafy := catalogue.Stage{SinceLeafOut: 90, Leafing: true}
	for _, k := range []struct {
		kind, hurt, spared string
		height             float64
		organ, says        string
	}{
		{weather.Heat, "aucuba-japonica", "nerium-oleander", 1.5, Leaves, "scorch"},
		{weather.Gale, "salix-babylonica", "buxus-sempervirens", 9, Limbs, "split limbs"},
		{weather.Wet, "santolina-chamaecyparissus", "taxodium-distichum", 0.5, Roots, "rain in a week"},
	} {
		e := by[k.kind]
		if e == nil {
			t.Errorf("no %s was found", k.kind)
			continue
		}
		hurt := Plant{Species: species(t, k.hurt), HeightM: k.height, Sun: 1, Shelter: 0.2}
		if o := e.Meet(&hurt, leafy); o.Worst.Organ != k.organ || !strings.Contains(quantity.Metric.Text(o.Reason()), k.says) {
			t.Errorf("%s on %s: %+v, %s", k.kind, k.hurt, o.Organs, quantity.Metric.Text(o.Reason()))
		}
		spared := Plant{Species: species(t, k.spared), HeightM: 1.5, Sun: 1, Shelter: 0.2}
		if o := e.Meet(&spared, leafy); o.Severity > 0 {
			t.Errorf("%s hurts %s: %+v", k.kind, k.spared, o.Organs)
		}
		if Story(e.Event) == "" {
			t.Errorf("%s has no story", k.kind)
		}
	}
}

// TestMoreIsNeverLess: colder or longer never means less injury, thicker wood never dies before thinner, more shelter
// never means more drying.
func TestMoreIsNeverLess(t *testing.T) {
	r := rand.New(rand.NewPCG(1, 2))
	all := catalogue.Built().Entries
	c := climate(t, "lake-foothills")
	base := normalHours(c, day.Of(2026, 12, 1), day.Of(2027, 2, 10))
	year := season.NewYear(c.Daily(), nil)
	strike := func(minC float64, hours int, wind float64) Struck {
		h := append([]weather.Hour{}, base...)
		from := day.Of(2027, 1, 20).Time()
		for i := range h {
			if since := h[i].Time.Sub(from); since >= 0 && since < time.Duration(hours)*time.Hour {
				h[i].TempC, h[i].WindMS = minC, wind
			}
		}
		s := Struck{Event: weather.Event{Kind: weather.Freeze, From: from, To: from.Add(time.Duration(hours) * time.Hour), Peak: from, Value: minC}, Hardened: Hardened{0.9, 0.4}}
		followGround(year, h, time.UTC).chill(&s)
		return s
	}
	for range 300 {
		p := Plant{Species: all[r.IntN(len(all))], HeightM: 0.3 + 8*r.Float64(), Shelter: r.Float64(), Sun: r.Float64()}
		if r.IntN(3) == 0 {
			p.PotL = 5 + 200*r.Float64()
		}
		stage := catalogue.Stage{SinceLeafOut: r.IntN(200) - 100, Leafing: true, InBloom: r.IntN(2) == 0}
		minC, hours, wind := -2-18*r.Float64(), 1+r.IntN(60), 6*r.Float64()
		a, colder, longer := strike(minC, hours, wind), strike(minC-0.5-3*r.Float64(), hours, wind), strike(minC, hours+1+r.IntN(30), wind)
		oa := a.Meet(&p, stage)
		for name, more := range map[string]*Struck{"colder": &colder, "longer": &longer} {
			o := more.Meet(&p, stage)
			if o.Dieback < oa.Dieback-1e-9 || o.ThickestMM < oa.ThickestMM-1e-9 || o.Severity < oa.Severity-1e-9 {
				t.Errorf("%s, %g °C for %d h, %s: dieback %.3f after %.3f, severity %.3f after %.3f", p.Species.ID, minC, hours, name, o.Dieback, oa.Dieback, o.Severity, oa.Severity)
			}
			for _, organ := range []string{Wood, Buds, Leaves, Roots, Crown, Heart, Shoots, Blossom} {
				if o.Share(organ) < oa.Share(organ)-1e-9 {
					t.Errorf("%s, %s: %s %.3f after %.3f", p.Species.ID, name, organ, o.Share(organ), oa.Share(organ))
				}
			}
		}
		last := -99.0
		for mm := 1.0; mm < 500; mm *= 1.3 {
			if tissue := a.TissueC(mm); tissue < last-1e-9 {
				t.Fatalf("wood of %.0f mm got to %.3f °C, thinner only to %.3f", mm, tissue, last)
			} else {
				last = tissue
			}
		}
		lives := 1.0
		for x := 0.0; x <= 1; x += 0.1 {
			if v := oa.AliveAt(x); v > lives+1e-9 {
				t.Fatalf("%s: more likely alive at %.1f of its height than below", p.Species.ID, x)
			} else {
				lives = v
			}
		}
		d := drySums{r.Float64() * 20, r.Float64() * 10, r.Float64() * 60, r.Float64() * 30}
		if lo, hi := d.dose(p.Shelter, p.Sun), d.dose(p.Shelter*r.Float64(), p.Sun); lo > hi+1e-9 {
			t.Errorf("shelter %.2f: a dose of %.2f, less sheltered %.2f", p.Shelter, lo, hi)
		}
	}
}

func TestPalmsAreJudgedByTheirHeart(t *testing.T) {
	feb := day.Of(2027, 2, 25)
	c := follow(t, "lake-foothills", feb+5, change{from: feb, hours: 20, hold: -10})
	p := Plant{Species: species(t, "trachycarpus-fortunei"), HeightM: 4, Sun: 0.7, Shelter: 0.4}
	if o := c.meet(t, p, feb); o.Share(Heart) > 0.4 || o.Share(Leaves) < o.Share(Heart) || o.Dieback != 0 {
		t.Errorf("%+v", o.Organs)
	}
	tender := Plant{Species: species(t, "washingtonia-robusta"), HeightM: 6, Sun: 1, Shelter: 0.4}
	if o := c.meet(t, tender, feb); o.Worst.Organ != Heart || !strings.Contains(quantity.Metric.Text(o.Reason()), "newest leaves") {
		t.Errorf("%+v: %s", o.Organs, quantity.Metric.Text(o.Reason()))
	}
}

func TestHardinessStaysInBounds(t *testing.T) {
	n := climate(t, "lake-foothills").Daily()
	for _, shift := range []float64{-25, -5, 0, 5, 25} {
		obs := map[day.Day]season.Extremes{}
		for d := day.Of(2026, 9, 1); d <= day.Of(2027, 8, 1); d++ {
			obs[d] = season.Extremes{Min: n.TMin.At(d) + shift, Max: n.TMax.At(d) + shift}
		}
		h := Harden(season.NewYear(n, obs), day.Of(2027, 7, 31))
		for d := day.Of(2026, 8, 1); d < day.Of(2027, 9, 1); d++ {
			if s := h.On(d); min(s.Short, s.Cold) < 0 || max(s.Short, s.Cold) > 1 {
				t.Fatalf("shift %g, %s: hardened %v", shift, d, s)
			}
		}
		if s := h.On(day.Of(2027, 7, 31)).Usual(); shift == 0 && s > 0.05 {
			t.Errorf("in July plants are still hardened by %.2f", s)
		}
	}
	bears := func(midwinter, share float64) (wood, buds float64) {
		return Bears(&catalogue.Entry{HardinessC: midwinter, Form: catalogue.Shrub, LeafSeason: catalogue.Deciduous}, share)
	}
	warm, _ := bears(3, 1)
	tender, _ := bears(-1.5, 1)
	if warm > UnhardenedTC+4 || tender != -1.5 {
		t.Errorf("tender plants: %g, %g", warm, tender)
	}
	// More hardened never bears less.
	for s := 0.0; s < 1; s += 0.1 {
		w, b := bears(-15, s)
		if more, _ := bears(-15, s+0.1); more > w || b < w {
			t.Errorf("at %.1f: wood %.1f, buds %.1f", s, w, b)
		}
	}
}

func TestLookListOrder(t *testing.T) {
	feb := day.Of(2027, 2, 25)
	c := follow(t, "lake-foothills", feb+20, change{from: day.Of(2027, 2, 2), hours: 22 * 24, shift: 5}, change{from: feb, hours: 30, hold: -11})
	look := func(id string, p Case) Look {
		p.Species = species(t, id)
		l, ok := c.Look(&p, p.Species.Stages(c.Year, feb), feb+20)
		if !ok {
			t.Fatalf("%s: no event", id)
		}
		return l
	}
	lemon := look("citrus-limon", Case{Plant: Plant{HeightM: 1.8, PotL: 60, Sun: 1, Shelter: 0.5}, SpreadM: 1.3, Count: 6, Value: 1})
	camellia := look("camellia-japonica", Case{Plant: Plant{HeightM: 2.1, Sun: 0.4, Shelter: 0.5}, SpreadM: 1.6, Count: 1, Value: 1})
	lilac := look("syringa-vulgaris", Case{Plant: Plant{HeightM: 3, Sun: 1, Shelter: 0.5}, SpreadM: 2, Count: 1, Value: 1})
	if !(lemon.Score > camellia.Score && camellia.Score > lilac.Score) || lilac.Worth || !camellia.Worth {
		t.Errorf("lemon %.2f, camellia %.2f, lilac %.2f: %+v", lemon.Score, camellia.Score, lilac.Score, camellia.Organs)
	}
	dear := look("camellia-japonica", Case{Plant: Plant{HeightM: 2.1, Sun: 0.4, Shelter: 0.5}, SpreadM: 1.6, Count: 1, Value: 2})
	if dear.Score <= camellia.Score {
		t.Error("a plant the client holds dear does not come before the same plant that is ordinary")
	}
	if lilac.Expected() != "nothing" || !strings.Contains(quantity.Metric.Text(lilac.Reason()), "likely unhurt") || !strings.Contains(quantity.Metric.Text(camellia.Reason()), "25 February") {
		t.Errorf("%s; %s", quantity.Metric.Text(lilac.Reason()), quantity.Metric.Text(camellia.Reason()))
	}
	// Blackened shoots tell something for some weeks; dead wood stays.
	late := follow(t, "lake-foothills", day.Of(2027, 6, 20), change{from: day.Of(2027, 4, 24), hours: 8, hold: -3})
	maple := Case{Plant: Plant{Species: species(t, "acer-palmatum"), HeightM: 2, Sun: 0.5, Shelter: 0.5}, Value: 1}
	in := func(days day.Day) Look {
		l, _ := late.Look(&maple, maple.Species.Stages(late.Year, day.Of(2027, 4, 24)), day.Of(2027, 4, 24)+days)
		return l
	}
	if soon, later := in(5), in(56); !soon.Worth || soon.Worst.Organ != Shoots || later.Worth || later.Score >= soon.Score {
		t.Errorf("hurt shoots after 5 days: %.2f, %v; after 56: %.2f, %v", soon.Score, soon.Worth, later.Score, later.Worth)
	}
	if _, ok := c.Look(&Case{Plant: Plant{Species: species(t, "syringa-vulgaris"), HeightM: 2}}, func(day.Day) catalogue.Stage { return catalogue.Stage{} }, feb+400); ok {
		t.Error("an event of last year is still on the list")
	}
}

// TestAStandInIsLessSure: of a plant nobody has named the same frost tells less: far from sure either way.
func TestAStandInIsLessSure(t *testing.T) {
	jan := day.Of(2027, 1, 15)
	frost := change{from: jan, hours: 10, hold: -14}
	course := follow(t, "florida-north", jan+5, frost)
	named := Plant{Species: species(t, "camellia-japonica"), HeightM: 2, Shelter: 0.5, Sun: 0.6}
	unnamed := named
	unnamed.Species.Basis = map[string]string{"hardiness_c": catalogue.Guess}
	a, b := course.meet(t, named, jan), course.meet(t, unnamed, jan)
	unsure := 0
	for x := 0.1; x <= 1; x += 0.1 {
		known, guessed := a.AliveAt(x), b.AliveAt(x)
		if math.Abs(guessed-0.5) > math.Abs(known-0.5)+1e-9 {
			t.Errorf("at %.1f of the height: %.3f for a guess, %.3f for what is known", x, guessed, known)
		}
		if math.Abs(guessed-0.5) < math.Abs(known-0.5)-0.01 {
			unsure++
		}
	}
	if unsure == 0 {
		t.Errorf("a guess is as sure as what is known: %.3f and %.3f at the top", b.AliveAt(1), a.AliveAt(1))
	}
}

func BenchmarkHarden(b *testing.B) {
	y := season.NewYear(climate(b, "lake-foothills").Daily(), nil)
	for b.Loop() {
		Harden(y, day.Of(2027, 3, 18))
	}
}

// BenchmarkTriage is a look-list from raw hours: 50 plants a property, a year of hours each.
func BenchmarkTriage(b *testing.B) {
	today := day.Of(2027, 3, 18)
	all := catalogue.Built()
	for _, plants := range []int{1000, 10000, 100000} {
		b.Run(fmt.Sprint(plants), func(b *testing.B) {
			n := plants / 50
			if plants > 20000 {
				b.ReportMetric(float64(n), "properties")
			}
			hours := make([][]weather.Hour, 0, min(n, 40)) // the same few records in turn: memory, not work, is shared
			var climates []season.Climate
			for i := range min(n, 40) {
				c := all.Climates[i%len(all.Climates)].Climate
				g := season.Generator{Normals: c.Daily(), Seed: uint64(i)}
				days := g.Days(today-365, 365)
				var h []weather.Hour
				for k, t := range season.Hourly(c.Latitude, today-365, days) {
					w := days[k/24]
					h = append(h, weather.Hour{Time: (today - 365).Time().Add(time.Duration(k) * time.Hour), TempC: t, WindMS: w.WindMS, RainMM: w.RainMM / 24, RHPct: w.RHPct, Sun: w.Sun})
				}
				hours, climates = append(hours, h), append(climates, c)
			}
			r := rand.New(rand.NewPCG(7, 7))
			cases := make([]Case, 50)
			for i := range cases {
				cases[i] = Case{Plant: Plant{Species: all.Entries[r.IntN(len(all.Entries))], HeightM: 0.5 + 4*r.Float64(), Shelter: 0.5, Sun: r.Float64()}, SpreadM: 1, Count: 1, Value: 1}
			}
			normals := make([]*season.Normals, len(climates))
			for i, c := range climates {
				normals[i] = c.Daily()
			}
			for b.Loop() {
				worth := 0
				for i := range n {
					h := hours[i%len(hours)]
					c := Follow(season.NewYear(normals[i%len(hours)], weather.Daily(h, time.UTC)), h, time.UTC, today)
					for k := range cases {
						if l, ok := c.Look(&cases[k], cases[k].Species.Stages(c.Year, today), today); ok && l.Worth {
							worth++
						}
					}
				}
				if worth == 0 {
					b.Fatal("nothing is on the list")
				}
			}
			b.ReportMetric(float64(b.Elapsed().Microseconds())/float64(b.N)/float64(plants), "µs/plant")
		})
	}
}

// TestWhatBore names the kill points that tell most: the hurt, and the next two that bore it.
func TestWhatBore(t *testing.T) {
	jan := day.Of(2027, 1, 15)
	c := follow(t, "lake-foothills", jan+5, change{from: jan, hours: 20, hold: -9})
	var e *Struck
	for i := range c.Events {
		if c.Events[i].Cold() && c.Events[i].Day >= jan-1 {
			e = &c.Events[i]
		}
	}
	var plants []Plant
	for _, id := range []string{"syringa-vulgaris", "citrus-limon", "nerium-oleander", "nerium-oleander", "olea-europaea", "camellia-japonica", "picea-abies", "betula-pendula", "dahlia-pinnata"} {
		plants = append(plants, Plant{Species: species(t, id), HeightM: 2, Shelter: UsualShelter, Sun: UsualSun})
	}
	winter := func(*catalogue.Entry) catalogue.Stage { return catalogue.Stage{SinceLeafOut: -90, Leafing: true} }
	all := e.WhatBore(plants, winter, 20)
	borne, ids := 0, map[string]int{}
	for i, b := range all {
		ids[b.Species.ID] = b.Plants
		if i > 0 && b.C > all[i-1].C {
			t.Errorf("%s at %.1f °C after %.1f", b.Species.ID, b.C, all[i-1].C)
		}
		if b.C < e.Value {
			borne++
		}
	}
	if all[0].Species.ID != "citrus-limon" || ids["nerium-oleander"] != 2 || borne != 2 || ids["picea-abies"] != 0 || ids["dahlia-pinnata"] != 0 {
		t.Errorf("the lemon first, two that bore it last, the hardiest and what sleeps in the soil left out: %v", ids)
	}
	few := e.WhatBore(plants, winter, 3)
	if len(few) != 3 || few[0].Species.ID != all[0].Species.ID || few[2].Species.ID != all[len(all)-1].Species.ID {
		t.Errorf("three of %d: %+v", len(all), few)
	}
	if none := e.WhatBore(nil, winter, 3); len(none) != 0 {
		t.Errorf("of no plants: %+v", none)
	}
	if Pressing(10, 2) <= Pressing(10, 20) || Pressing(11, 2) <= Pressing(10, 2) || Pressing(0, 0) != 0 || !Deep(Roots) || Deep(Blossom) {
		t.Error("newer and more hurt weighs more; roots are deep, blossom is not")
	}
}
