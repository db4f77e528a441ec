package treatment

import (
	"fmt"
	"math"
	"math/rand/v2"
	"strings"
	"testing"

	"mezzadro/core/catalogue"
	"mezzadro/core/day"
	"mezzadro/core/moment"
	"mezzadro/core/rules"
)

var climates = []string{"lake-foothills", "prairie", "gulf-coast", "hot-desert", "southern-foothills", "cool-coast", "tropical-coast"}

// TestNeverOutOfBounds walks through random seasons: whatever was used and whatever rain fell, no dose without a card, nothing that
// harms bees on open flowers, nothing above its warmth, closer than its gap to another, or more often than it may be; and every
// programme ends.
func TestNeverOutOfBounds(t *testing.T) {
	r := rand.New(rand.NewPCG(7, 11))
	entries := catalogue.Built().Entries
	places := map[string]*moment.Place{}
	for _, c := range climates {
		places[c] = place(t, c)
	}
	b := Built()
	causes := []string{}
	for _, p := range b.Programmes {
		causes = append(causes, p.Causes...)
	}
	looked := 0
	for range 400 {
		climate := climates[r.IntN(len(climates))]
		e := &entries[r.IntN(len(entries))]
		a := Ask{Cause: causes[r.IntN(len(causes))], Species: e, Place: places[climate], Date: day.Of(2027, 1, 1) + day.Day(r.IntN(365)), Share: r.Float64(),
			Rules: rules.House{Control: []string{"", rules.SoftOnly, rules.Conventional}[r.IntN(3)], Repellents: []string{"", rules.Show}[r.IntN(2)]}}
		if r.IntN(2) == 0 {
			a.Uses = append(a.Uses, Use{Day: a.Date - day.Day(r.IntN(40)), Active: b.Actives[r.IntN(len(b.Actives))].ID})
		}
		name := fmt.Sprintf("%s on %s in %s from %s", a.Cause, e.ID, climate, a.Date)
		ended := false
		for range 60 {
			o, err := b.Plan(a)
			if err != nil {
				t.Fatal(name, err)
			}
			if len(o.Steps) == 0 || o.Ends == "not this year" {
				ended = true
				break
			}
			st := o.Steps[0]
			outOfBounds(t, name, a, st)
			if st.Use != "" {
				looked++
			}
			rain := 0.0
			if r.IntN(4) == 0 {
				rain = 8
			}
			a.Date = max(a.Date, st.Day)
			a.Uses = append(a.Uses, Use{Day: st.Day, Active: st.Use, Step: st.N, RainMM: rain})
			a.Date++
		}
		if !ended {
			t.Errorf("%s: it does not end", name)
		}
	}
	if looked < 200 {
		t.Errorf("only %d times a means was used", looked)
	}
}

// outOfBounds names what a step may not be.
func outOfBounds(t *testing.T, name string, a Ask, st Dated) {
	t.Helper()
	act := Built().Active(st.Use)
	if act == nil {
		return
	}
	if st.Amount != nil && st.Amount.Product > 0 {
		t.Errorf("%s: a dose of %s without a card", name, act.Name)
	}
	if kitchen(a.Species) && !act.Kitchen {
		t.Errorf("%s: %s on what is eaten", name, act.Name)
	}
	if a.Rules.Control == rules.SoftOnly && !act.Soft {
		t.Errorf("%s: %s though only soft means are allowed", name, act.Name)
	}
	n := a.Place.Year.Normals
	if mx := n.TMax.At(st.Day); mx > act.MaxC+3 {
		found := false
		for d := st.Day; d < st.Day+300; d++ {
			found = found || n.TMax.At(d) <= act.MaxC
		}
		if found {
			t.Errorf("%s: %s on %s at %.0f °C", name, act.Name, st.Day, mx)
		}
	}
	for _, u := range a.Uses {
		other := Built().Active(u.Active)
		if other == nil || other == act || u.Day > st.Day {
			continue
		}
		if gap := act.Gaps[other.ID]; gap > 0 && int(st.Day-u.Day) < gap {
			t.Errorf("%s: %s %d days after %s", name, act.Name, st.Day-u.Day, other.Name)
		}
	}
	if act.Bees && visited(a.Species) {
		cal := a.Place.Of(a.Species, st.Day)
		if end, ok := cal.Next(moment.On("bloom_end", 0), st.Day); ok {
			if start := cal.Before("bloom_start", end); start != day.None && st.Day >= start && end-start < 250 {
				t.Errorf("%s: %s on open flowers, %s", name, act.Name, st.Day)
			}
		}
	}
}

// TestAmountsByHand: worked examples, each reckoned on paper from the formula in words that is told with it.
func TestAmountsByHand(t *testing.T) {
	card := func(active, unit, per string, amount, onHand float64, packs ...Pack) Card {
		return Card{ID: 1, Name: "From the shed", Active: active, Unit: unit, Rates: []Rate{{Amount: amount, Per: per}}, Packs: packs, OnHand: onHand}
	}
	for _, c := range []struct {
		name                        string
		cause, species              string
		height, spread              float64
		count                       int
		share                       float64
		control                     string
		card                        Card
		sprayL, product, buy, price float64 // once; once; bought in all; price in all
	}{
		// a shrub 1 m × 1 m fills 0.65 m³ and takes 0.65 × 0.13 = 0.0845 L, less than a plant's least of 0.1 L
		{"one small rose", "aphids", "rosa-shrub", 1, 1, 1, 0.6, "", card("soap", "mL", "L", 20, 0, Pack{500, 8}), 0.1, 2, 500, 8},
		{"ten of them", "aphids", "rosa-shrub", 1, 1, 10, 0.6, "", card("soap", "mL", "L", 20, 0, Pack{500, 8}), 1, 20, 500, 8},
		// 0.65 × 2 × 1.5² = 2.925 m³, × 0.13 = 0.38 L; 12 plants 4.563 L; 15 mL/L: 68.4 mL, twice 136.9
		{"azaleas", "lace-bug", "azalea-evergreen", 2, 1.5, 12, 0.6, "", card("soap", "mL", "L", 15, 0, Pack{250, 5}), 4.563, 68.45, 250, 5},
		// a hedge plant 2.5 × 0.8: 0.65 × 2.5 × 0.64 = 1.04 m³ = 0.1352 L; 40 plants 5.408 L; 10 mL/L: 54.08
		{"box hedge", "box-caterpillar", "buxus-sempervirens", 2.5, 0.8, 40, 0.3, "", card("bacillus", "g", "L", 1, 0, Pack{50, 18}), 5.408, 5.41, 50, 18},
		// a tree 6 × 5: 0.52 × 4.2 × 25 = 54.6 m³ = 7.098 L; a taller one is out of reach
		{"an apple tree", "caterpillars-many", "malus-domestica", 6, 5, 1, 0.6, "", card("bacillus", "g", "L", 1, 0, Pack{50, 18}), 7.098, 7.098, 50, 18},
		// a conifer 6 × 2.4: 0.26 × 5.7 × 5.76 = 8.536 m³ = 1.11 L
		{"a spruce", "adelgid", "picea-abies", 6, 2.4, 1, 0.6, "", card("oil", "mL", "L", 20, 0, Pack{1000, 14}), 1.11, 22.19, 1000, 14},
		// a climber 3 × 4: 3 × 4 × 0.5 = 6 m³ = 0.78 L
		{"a vine", "powdery-mildew", "vitis-vinifera", 3, 4, 1, 0.2, "", card("bicarbonate", "g", "L", 5, 0, Pack{250, 9}), 0.78, 3.9, 250, 9},
		// three laurels 3 × 2.5: 0.65 × 3 × 6.25 = 12.19 m³ = 1.584 L, 4.753 in all; the second step, 20 mL/L: 95.06
		{"roses and sulphur", "black-spot", "rosa-bedding", 0.8, 0.6, 60, 0.3, "", card("sulphur", "g", "L", 3, 0, Pack{200, 6}), 6, 18, 200, 6},
		// nematodes by the square metre: 0.785 × 2.5² = 4.906 m² each, 4 plants 19.625 m²; half a million a m² as 0.5 pieces
		{"nematodes by area", "weevil", "rhododendron-hybrid", 2, 2.5, 4, 0.3, "", card("nematodes", "piece", "m2", 0.5, 0, Pack{6, 12}, Pack{24, 36}), 40, 9.8125, 12, 24},
		// chelated iron by the plant
		{"iron by the plant", "iron", "gardenia-jasminoides", 1.2, 1, 5, 0.3, "", card("iron-chelate", "g", "plant", 20, 0, Pack{500, 11}), 30, 100, 500, 11},
		// Epsom salt: 0.65 × 0.8 × 0.36 = 0.187 m³: least 0.1 L; 30 roses 3 L × 20 g
		{"Epsom salt", "magnesium", "rosa-bedding", 0.8, 0.6, 30, 0.3, "", card("magnesium-salt", "g", "L", 20, 0, Pack{1000, 4}), 3, 60, 1000, 4},
		// enough on hand: nothing is bought
		{"on hand", "aphids", "rosa-shrub", 1, 1, 10, 0.6, "", card("soap", "mL", "L", 20, 400, Pack{500, 8}), 1, 20, 0, 0},
		// a little short: 3 × 20 = 60 mL, 50 on hand, 10 to buy: the smaller pack
		{"a little short", "aphids", "rosa-shrub", 1, 1, 10, 0.6, "", card("soap", "mL", "L", 20, 50, Pack{1000, 12}, Pack{250, 4}), 1, 20, 250, 4},
		// two small packs are dearer than a large one: 3 × 20 L × 20 mL = 1200 mL
		{"the large pack", "aphids", "rosa-shrub", 1, 1, 200, 0.6, "", card("soap", "mL", "L", 20, 0, Pack{1000, 12}, Pack{250, 4}), 20, 400, 1250, 16},
		// mealybug on oleanders 2 × 1.8: 0.65 × 2 × 3.24 = 4.212 m³ = 0.5476 L; 6: 3.285 L
		{"oleanders", "mealybug", "nerium-oleander", 2, 1.8, 6, 0.6, "", card("soap", "mL", "L", 20, 0, Pack{500, 8}), 3.285, 65.7, 500, 8},
		// a slow drench by the metre of height: 3 azaleas of 2 m; 5 L a metre
		{"a drench by height", "lace-bug", "azalea-evergreen", 2, 1.5, 3, 0.6, "conventional", card("drench", "mL", "m height", 10, 0, Pack{250, 30}), 30, 60, 250, 30},
		// a trunk by its girth: as a guess 2π cm for a metre: 6 m, 37.7 cm; 1.5 mL each
		{"a drench by girth", "lace-bug", "quercus-robur", 6, 4, 1, 0.6, "conventional", card("drench", "mL", "cm girth", 1.5, 0, Pack{250, 30}), 30, 56.55, 250, 30},
		// a palm 4 × 3: 0.52 × 3 × 9 = 14.04 m³ = 1.825 L
		// conifer 3 × 1.2: 0.26 × 2.85 × 1.44 = 1.067 m³ = 0.1387 L; ten
		{"a palm", "armoured-scale", "phoenix-canariensis", 4, 3, 1, 0.3, "", card("oil", "mL", "L", 15, 0, Pack{500, 9}), 1.825, 27.38, 500, 9},
		{"mites on a thuja", "spider-mite", "thuja-occidentalis", 3, 1.2, 10, 0.6, "", card("oil", "mL", "L", 10, 0, Pack{500, 9}), 1.387, 13.87, 500, 9},
		{"weeds by area", "bindweed", "rosa-shrub", 1, 2, 5, 0.6, "conventional", card("translocated", "mL", "m2", 0.6, 0, Pack{500, 20}), 0, 9.42, 500, 20},
	} {
		e := catalogue.Built().Entries
		var sp *catalogue.Entry
		for i := range e {
			if e[i].ID == c.species {
				sp = &e[i]
			}
		}
		o, err := Built().Plan(Ask{Cause: c.cause, Species: sp, Place: place(t, "lake-foothills"), Date: day.Of(2027, 5, 1), HeightM: c.height, SpreadM: c.spread, Count: c.count,
			Share: c.share, Cards: []Card{c.card}, Rules: rules.House{Control: c.control}})
		if err != nil {
			t.Fatal(c.name, err)
		}
		var got *Amount
		for _, st := range o.Steps {
			if st.Use == c.card.Active {
				got = st.Amount
			}
		}
		if got == nil {
			t.Errorf("%s: no amount in %s", c.name, o.Text)
			continue
		}
		near := func(got, want float64) bool { return math.Abs(got-want) <= 0.05*want+1e-9 }
		bought := 0.0
		for _, p := range got.Buy.Packs {
			bought += float64(p.Count) * p.Size
		}
		if !near(got.SprayL, c.sprayL) || !near(got.Product, c.product) || bought != c.buy || !near(got.Buy.Price, c.price) {
			t.Errorf("%s: %.3f L, %.2f %s, buys %.0f for %.2f; want %.3f, %.2f, %.0f, %.2f (%s)", c.name, got.SprayL, got.Product, got.Unit, bought, got.Buy.Price,
				c.sprayL, c.product, c.buy, c.price, got.Formula)
		}
		if !strings.Contains(got.Formula, "by its label") {
			t.Errorf("%s: %s", c.name, got.Formula)
		}
	}
}

// TestTotals: over random cards what is bought and on hand is never less than the work takes, nor dearer than packs of one size alone; and the
// amount for a group is never less than the sum of its plants.
func TestTotals(t *testing.T) {
	r := rand.New(rand.NewPCG(5, 9))
	entries := catalogue.Built().Entries
	at := place(t, "lake-foothills")
	for range 3000 {
		c := Card{OnHand: float64(r.IntN(300))}
		for range 1 + r.IntN(3) {
			c.Packs = append(c.Packs, Pack{float64(50 * (1 + r.IntN(40))), float64(1 + r.IntN(60))})
		}
		amount := r.Float64() * 8000
		b := c.Buy(amount)
		got := c.OnHand
		for _, p := range b.Packs {
			got += float64(p.Count) * p.Size
		}
		if got < amount-1e-6 || math.Abs(got-amount-b.Leftover) > 0.06 {
			t.Errorf("%.1f wanted, %.1f there, %.1f left over", amount, got, b.Leftover)
		}
		for _, p := range c.Packs {
			if alone := math.Ceil(max(0, amount-c.OnHand)/p.Size-1e-9) * p.Price; b.Price > alone+0.005 {
				t.Errorf("%.2f for %.0f, though packs of %.0f alone cost %.2f: %+v", b.Price, amount, p.Size, alone, c.Packs)
			}
		}
	}
	for range 300 {
		a := Ask{Cause: "aphids", Species: &entries[r.IntN(len(entries))], Place: at, Date: day.Of(2027, 5, 1), Count: 1 + r.IntN(40),
			Cards: []Card{{ID: 1, Name: "x", Active: "soap", Unit: "mL", Rates: []Rate{{Amount: 20, Per: "L"}}}}}
		all, n := Built().Takes(a, "soap")
		one := a
		one.Count = 1
		each, _ := Built().Takes(one, "soap")
		if sum := float64(n) * each.Product; all.Product < sum-0.02*float64(n)-0.11*20*float64(n)/20 {
			t.Errorf("%d × %s take %.2f, each %.2f", n, a.Species.ID, all.Product, each.Product)
		}
	}
}

// TestBadInput: each fault is named by its field, with what would do.
func TestBadInput(t *testing.T) {
	sp := &catalogue.Built().Entries[0]
	at := place(t, "lake-foothills")
	good := Ask{Cause: "aphids", Species: sp, Place: at, Date: day.Of(2027, 5, 1)}
	for says, change := range map[string]func(*Ask){
		"cause":                    func(a *Ask) { a.Cause = "gremlins" },
		"share":                    func(a *Ask) { a.Share = 1.4 },
		"affected":                 func(a *Ask) { a.Count, a.Affected = 3, 5 },
		"history[0].active":        func(a *Ask) { a.Uses = []Use{{Day: a.Date, Active: "magic"}} },
		"history[0].day":           func(a *Ask) { a.Uses = []Use{{Day: a.Date + 3, Active: "oil"}} },
		"cards[0].rates[0].amount": func(a *Ask) { a.Cards = []Card{{Name: "x", Active: "oil", Unit: "mL", Rates: []Rate{{Per: "L"}}}} },
		"cards[0].packs[0].size":   func(a *Ask) { a.Cards = []Card{{Name: "x", Active: "oil", Unit: "mL", Packs: []Pack{{}}}} },
		"cards[0].active":          func(a *Ask) { a.Cards = []Card{{Name: "x", Active: "elixir", Unit: "mL"}} },
		"cards[0].name":            func(a *Ask) { a.Cards = []Card{{Active: "oil", Unit: "mL"}} },
		"cards[0].rates[0].per": func(a *Ask) {
			a.Cards = []Card{{Name: "x", Active: "oil", Unit: "mL", Rates: []Rate{{Amount: 1, Per: "ha"}}}}
		},
		"cards[0].most_uses":     func(a *Ask) { a.Cards = []Card{{Name: "x", Active: "oil", Unit: "mL", MostUses: -2}} },
		"cards[0].interval_days": func(a *Ask) { a.Cards = []Card{{Name: "x", Active: "oil", Unit: "mL", IntervalD: 400}} },
		"cards[0].buffer_m":      func(a *Ask) { a.Cards = []Card{{Name: "x", Active: "oil", Unit: "mL", BufferM: -1}} },
	} {
		a := good
		change(&a)
		if _, err := Built().Plan(a); err == nil || !strings.Contains(err.Error(), says) {
			t.Errorf("%s: %v", says, err)
		}
	}
}

// TestWeatherAhead: a spray waits for a day without wind, and for rain to be over that would wash it off; work by hand waits for neither.
func TestWeatherAhead(t *testing.T) {
	e, err := catalogue.Built().Species("rosa-shrub")
	if err != nil {
		t.Fatal(err)
	}
	on := day.Of(2027, 4, 20)
	for _, c := range []struct {
		name  string
		share float64
		ahead []Ahead
		want  day.Day
	}{
		{"fair", 0.6, []Ahead{{Day: on, WindMS: 2}, {Day: on + 1}}, on},
		{"wind today", 0.6, []Ahead{{Day: on, WindMS: 8}, {Day: on + 1, WindMS: 2}}, on + 1},
		{"two days of rain", 0.6, []Ahead{{Day: on, RainMM: 9}, {Day: on + 1, RainMM: 5}, {Day: on + 2}}, on + 2},
		{"nothing told", 0.6, nil, on},
		{"a drizzle", 0.6, []Ahead{{Day: on, RainMM: 1}}, on},
		{"washing off in the wind", 0.2, []Ahead{{Day: on, WindMS: 8}}, on},
	} {
		o, err := Built().Plan(Ask{Cause: "aphids", Species: &e, Place: place(t, "lake-foothills"), Date: on, Share: c.share, Ahead: c.ahead})
		if err != nil || o.Steps[0].Day != c.want {
			t.Errorf("%s: %s, want %s (%v)", c.name, o.Steps[0].Day, c.want, err)
		}
	}
}

func BenchmarkPlan(b *testing.B) {
	e := catalogue.Built().Entries
	at := place(b, "lake-foothills")
	book := Built()
	n := 0
	for b.Loop() {
		p := book.Programmes[n%len(book.Programmes)]
		if _, err := book.Plan(Ask{Cause: p.Causes[0], Species: &e[n%len(e)], Place: at, Date: day.Of(2027, 5, 1), Share: 0.3}); err != nil {
			b.Fatal(err)
		}
		n++
	}
}

// BenchmarkNextSteps10000 plans what is done next on 10,000 plants with a history, in seven climates.
func BenchmarkNextSteps10000(b *testing.B) {
	entries, book := catalogue.Built().Entries, Built()
	places := []*moment.Place{}
	for _, c := range climates {
		places = append(places, place(b, c))
	}
	on := day.Of(2027, 5, 1)
	uses := []Use{{Day: on - 40, Active: "oil"}, {Day: on - 12, Active: "sulphur", RainMM: 6}}
	cards := []Card{{ID: 1, Name: "Soap", Active: "soap", Unit: "mL", Rates: []Rate{{Amount: 20, Per: "L"}}, Packs: []Pack{{500, 8}, {5000, 40}}}}
	for b.Loop() {
		for i := range 10_000 {
			p := &book.Programmes[i%len(book.Programmes)]
			a := Ask{Cause: p.Causes[0], Species: &entries[i%len(entries)], Place: places[i%len(places)], Date: on, Share: 0.3, Uses: uses, Cards: cards}
			if _, err := book.Plan(a); err != nil {
				b.Fatal(err)
			}
		}
	}
}
