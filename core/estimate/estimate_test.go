package estimate

import (
	"strings"
	"testing"

	"mezzadro/core/day"
	"mezzadro/core/job"
	"mezzadro/core/job/reason"
	"mezzadro/core/quantity"
)

// What the firms of these tests ask for. The sums below were worked out on paper.
var (
	lake = Rates{Currency: "EUR", Digits: 2, Hour: 4000, Skills: map[string]Amount{"climbing": 6500, "spraying": 4800},
		Visit: 2500, WasteM3: 2800, Markup: 2500, Tax: 2200, ValidDays: 30,
		Stuff: []Price{{"mulch", "m3", 4500}, {"stakes", "piece", 380}, {"fleece", "m2", 65}}}
	yard  = Rates{Currency: "USD", Digits: 2, Hour: 5500, ValidDays: 30, Stuff: []Price{{"mulch", "cu yd", 3800}, {"fleece", "sq ft", 8}, {"compost", "gal", 95}}}
	odd   = Rates{Currency: "EUR", Digits: 2, Hour: 3850, Markup: 1000, Tax: 1900, ValidDays: 30, Stuff: []Price{{"mulch", "m3", 4500}}}
	fixed = Rates{Currency: "CHF", Digits: 2, Hour: 9000, WasteM3: 6000, Tax: 810, ValidDays: 60, Fixed: true}
	held  = Rates{Currency: "GBP", Digits: 2, Hour: 3600, Visit: 1500, Tax: 2000, TaxIncluded: true, ValidDays: 30}
	yen   = Rates{Currency: "JPY", Digits: 0, Hour: 4000, Tax: 1000, ValidDays: 14}
	dinar = Rates{Currency: "KWD", Digits: 3, Hour: 12500, ValidDays: 30}
)

// TestEstimatesByHand: twenty jobs as a gardener prices them on paper, to the cent: net from, as reckoned, to; and what
// the client pays with the visit and the tax.
func TestEstimatesByHand(t *testing.T) {
	for _, c := range []struct {
		name             string
		rates            *Rates
		job              Job
		visits           int
		from, amount, to Amount
		gross            Amount
	}{
		{"an hour and a half of pruning, 40.00 an hour", &lake, Job{Kind: job.Prune, Minutes: 90}, 0, 4800, 6000, 7200, 7320},
		{"with the way of 25.00", &lake, Job{Kind: job.Prune, Minutes: 90}, 1, 4800, 6000, 7200, 10370},
		{"fifty minutes of two at 38.50: 64.166…", &odd, Job{Kind: job.Prune, Minutes: 50, People: 2}, 0, 5134, 6417, 7700, 7636},
		{"a limb made safe by a climber and a helper, three hours: 195 + 120", &lake,
			Job{Kind: job.MakeSafe, Minutes: 180, People: 2, Skills: []string{"climbing"}}, 1, 20475, 31500, 42525, 41480},
		{"a sprayer who climbs is paid as a climber", &lake,
			Job{Kind: job.Treat, Minutes: 60, Skills: []string{"spraying", "climbing"}}, 0, 5200, 6500, 7800, 7930},
		{"a machine by the hour for as long as the work lasts: 45 min of a person at 40.00 and of a trimmer at 18.00",
			&Rates{Currency: "EUR", Digits: 2, Hour: 4000, Machines: map[string]Amount{"hedge trimmer": 1800, "chainsaw": 2200}},
			Job{Kind: job.Prune, Minutes: 45, Tools: []string{"secateurs", "hedge trimmer", "file for the chainsaw"}}, 1, 3480, 4350, 5220, 4350},
		{"a skill that has no rate costs as the rest", &lake, Job{Kind: job.Graft, Minutes: 30, Skills: []string{"grafting"}}, 0, 1300, 2000, 2700, 2440},
		{"twelve plants at 7.95 and a quarter on it", &lake,
			Job{Goods: []Good{{Name: "sweet box", Amount: 12, Unit: "piece", Price: 795, Per: 1}}}, 0, 11925, 11925, 11925, 14549},
		{"350 L of mulch at 45.00 a cubic metre and a tenth: 17.325", &odd,
			Job{Goods: []Good{{Name: "mulch", Amount: 350, Unit: "L"}}}, 0, 1733, 1733, 1733, 2062},
		{"three stakes at 3.80 and a quarter", &lake, Job{Goods: []Good{{Name: "stakes", Amount: 3, Unit: "piece"}}}, 0, 1425, 1425, 1425, 1739},
		{"14.6 m² of fleece at 0.65 and a quarter: 11.8625", &lake, Job{Goods: []Good{{Name: "fleece", Amount: 14.6, Unit: "m2"}}}, 0, 1186, 1186, 1186, 1447},
		{"120 mL of a bottle of 500 mL at 18.40 and a quarter: 5.52", &lake,
			Job{Goods: []Good{{Name: "oil", Amount: 120, Unit: "mL", Price: 1840, Per: 500}}}, 0, 552, 552, 552, 673},
		{"1.3 m³ of waste at 28.00", &lake, Job{WasteM3: 1.3}, 0, 2548, 3640, 4732, 4441},
		{"a cut with its waste and its mulch", &lake,
			Job{Kind: job.Prune, Minutes: 120, WasteM3: 0.5, Goods: []Good{{Name: "mulch", Amount: 100, Unit: "L"}}}, 1,
			6400 + 980 + 563, 8000 + 1400 + 563, 9600 + 1820 + 563, 15205},
		{"a fixed price is one", &fixed, Job{Kind: job.CutBack, Minutes: 75, People: 2, WasteM3: 0.8}, 0, 27300, 27300, 27300, 29511},
		{"tax held in 120.00 is 20.00", &held, Job{Kind: job.Prune, Minutes: 200}, 0, 9600, 12000, 14400, 12000},
		{"tax held, with a visit", &held, Job{Kind: job.Prune, Minutes: 200}, 2, 9600, 12000, 14400, 15000},
		{"yen have no parts: 3333.3", &yen, Job{Kind: job.Prune, Minutes: 50}, 0, 2666, 3333, 4000, 3666},
		{"dinars have thousandths: 4.1666", &dinar, Job{Kind: job.Prune, Minutes: 20}, 0, 3334, 4167, 5000, 4167},
		{"half a cubic yard of mulch at 38.00: 382.3 L", &yard, Job{Goods: []Good{{Name: "mulch", Amount: 382.28, Unit: "L"}}}, 0, 1900, 1900, 1900, 1900},
		{"100 square feet of fleece at 0.08", &yard, Job{Goods: []Good{{Name: "fleece", Amount: 9.3, Unit: "m2"}}}, 0, 800, 800, 800, 800},
		{"ten gallons of compost at 0.95", &yard, Job{Goods: []Good{{Name: "compost", Amount: 37.85, Unit: "L"}}}, 0, 950, 950, 950, 950},
		{"nothing is nothing", &lake, Job{}, 0, 0, 0, 0, 0},
		{"a job of one minute: 0.6666", &lake, Job{Kind: job.Prune, Minutes: 1}, 0, 54, 67, 80, 82},
	} {
		l := c.rates.LineOf(c.job)
		l.ID = 1
		if l.From != c.from || l.Amount != c.amount || l.To != c.to {
			t.Errorf("%s: %d, %d, %d, want %d, %d, %d", c.name, l.From, l.Amount, l.To, c.from, c.amount, c.to)
		}
		visits := c.rates.Visits(c.visits)
		if got := c.rates.Total([]Line{l}, visits); got.Gross.Amount != c.gross || got.Net.Amount+got.Tax.Amount != got.Gross.Amount {
			t.Errorf("%s: the client pays %+v, want %d", c.name, got, c.gross)
		}
	}
}

// TestARepeatIsPricedOnce: what comes again is priced for one time, and says so.
func TestARepeatIsPricedOnce(t *testing.T) {
	l := lake.LineOf(Job{Kind: job.Water, Minutes: 15, Every: 10})
	if l.Amount != 1000 || !strings.Contains(l.Note, "every 10 days") {
		t.Errorf("%+v", l)
	}
}

// TestUnpriced: what the firm has no price for counts nothing and says so.
func TestUnpriced(t *testing.T) {
	l := lake.LineOf(Job{Goods: []Good{{Name: "shade cloth", Amount: 4, Unit: "m2"}, {Name: "stakes", Amount: 2, Unit: "piece"}}})
	if !l.Parts[0].Unpriced || l.Parts[1].Unpriced || l.Amount != 950 {
		t.Errorf("%+v", l)
	}
	bare := Rates{ValidDays: 30}
	if l := bare.LineOf(Job{Minutes: 60, WasteM3: 1}); !l.Parts[0].Unpriced || !l.Parts[1].Unpriced || l.Amount != 0 {
		t.Errorf("without rates: %+v", l)
	}
}

// TestNothingAgreedNoVisit: declined lines cost nothing, and where all are declined nobody comes.
func TestNothingAgreedNoVisit(t *testing.T) {
	a, b := lake.LineOf(Job{Kind: job.Prune, Title: "Cut", Minutes: 60}), lake.LineOf(Job{Kind: job.Prune, Title: "Tie", Minutes: 30})
	a.ID, b.ID = 1, 2
	lines, visit := []Line{a, b}, lake.Visits(1)
	if got := lake.Total(lines, visit).Net.Amount; got != 4000+2000+2500 {
		t.Errorf("all open: %d", got)
	}
	if got := lake.Agreed(lines, visit).Net.Amount; got != 0 {
		t.Errorf("nothing is agreed: %d", got)
	}
	if err := Said(lines, 1, Answer{Name: "Noemi"}); err != nil {
		t.Fatal(err)
	}
	if got := lake.Total(lines, visit).Net.Amount; got != 2000+2500 {
		t.Errorf("one declined: %d", got)
	}
	if err := Said(lines, 2, Answer{Name: "Noemi"}); err != nil {
		t.Fatal(err)
	}
	if got := lake.Total(lines, visit).Gross.Amount; got != 0 || State(lines) != "declined" {
		t.Errorf("all declined: %d, %s", got, State(lines))
	}
}

// TestAnswers: a yes holds while words and price stay; a line that changed is asked anew; one that is gone cannot be
// answered; nobody answers without a name.
func TestAnswers(t *testing.T) {
	cut, mulch := lake.LineOf(Job{Kind: job.Prune, Title: "Cut", Plant: "Bay laurel", Minutes: 60}), lake.LineOf(Job{Kind: job.Mulch, Title: "Mulch", Minutes: 30})
	cut.ID, mulch.ID = 1, 2
	lines := []Line{cut, mulch}
	if State(lines) != "open" {
		t.Error("not open")
	}
	for _, c := range []struct {
		id   int
		a    Answer
		want string
	}{{3, Answer{Yes: true, Name: "Noemi"}, "not on the estimate any more"}, {1, Answer{Yes: true}, "name"}} {
		if err := Said(lines, c.id, c.a); err == nil || !strings.Contains(err.Error(), c.want) {
			t.Errorf("line %d: %v", c.id, err)
		}
	}
	for id, yes := range map[int]bool{1: true, 2: false} {
		if err := Said(lines, id, Answer{Yes: yes, Name: "Noemi", Remark: "in May, please"}); err != nil {
			t.Fatal(err)
		}
	}
	if State(lines) != "partly agreed" || lines[0].Answer.Wording != "Cut: Bay laurel" || lines[0].Answer.Said.Amount != 4000 {
		t.Errorf("%s, %+v", State(lines), lines[0].Answer)
	}
	same, anew, err := Revise(lines, []Line{lines[1], lines[0]})
	if err != nil || len(anew) != 0 || same[0].Answer == nil || same[1].Answer == nil {
		t.Errorf("in another order: anew %v, %v", anew, err)
	}
	dearer := lines[0]
	dearer.Parts = []Part{{What: "work", Text: "Work", ByHand: true, Range: exactly(5000)}}
	next, anew, err := Revise(lines, []Line{dearer, lines[1]})
	if err != nil || len(anew) != 1 || anew[0] != 1 || next[0].Answer != nil || next[0].Amount != 5000 || State(next) != "open" {
		t.Errorf("dearer after a yes: anew %v, %+v, %v", anew, next[0], err)
	}
	other := lines[0]
	other.Title = "Cut to the base"
	if _, anew, _ := Revise(lines, []Line{other, lines[1]}); len(anew) != 1 {
		t.Errorf("another work after a yes: anew %v", anew)
	}
	forged := lines[0] // an answer comes from the client alone
	forged.ID, forged.Answer = 7, &Answer{Yes: true, Name: "Nobody"}
	if next, _, _ := Revise(lines, []Line{forged}); next[0].Answer != nil {
		t.Error("an answer came along with a line")
	}
	for _, bad := range [][]Line{{lines[0], lines[0]}, {{ID: 0, Title: "x"}}, {{ID: 1}},
		{{ID: 1, Title: "x", Parts: []Part{{What: "free", Range: Range{From: 20, Amount: 10, To: 30}}}}}} {
		if _, _, err := Revise(nil, bad); err == nil {
			t.Errorf("%+v is taken", bad)
		}
	}
}

// TestRefusedRates: each that cannot be is named.
func TestRefusedRates(t *testing.T) {
	r := Rates{Hour: -1, Tax: 20000, Markup: -5, Skills: map[string]Amount{"climbing": -2}, Stuff: []Price{{Name: "", Unit: "L"}, {Name: "mulch", Unit: "bag"}, {Name: "mulch", Unit: "L"}}}
	err := r.Validate()
	for _, want := range []string{"hour", "tax", "markup", "skills.climbing", "stuff[0].name", "stuff[2].name", "stuff[1].unit", "valid_days"} {
		if err == nil || !strings.Contains(err.Error(), want) {
			t.Errorf("%s is not named: %v", want, err)
		}
	}
	if err := lake.Validate(); err != nil {
		t.Error(err)
	}
}

// TestRounding: half a cent goes away from zero, of money owed and of money given back alike.
func TestRounding(t *testing.T) {
	for _, c := range []struct {
		a     Amount
		of    int64
		times int64
		want  Amount
		why   string
	}{{25, 2, 1, 13, "12.5"}, {-25, 2, 1, -13, "-12.5"}, {24, 5, 1, 5, "4.8"}, {22, 5, 1, 4, "4.4"}, {1_000_000_000, 10_000, 2_500_000_000, 250_000_000_000_000, "no overflow"}} {
		if got := c.a.part(c.of, c.times); got != c.want {
			t.Errorf("%s: %d, want %d", c.why, got, c.want)
		}
	}
}

// TestWaits: what waiting costs says until when the days are good, what comes after and when the next begin; what may fall
// on somebody does not wait; where days go on being good nothing is said.
func TestWaits(t *testing.T) {
	on := func(from, to day.Day, cost float64) reason.Why {
		return reason.Why{Name: "sap", Text: "it bleeds when cut", On: func(d day.Day) job.Cost {
			if d >= from && d <= to {
				return reason.Points(cost)
			}
			return job.Cost{}
		}}
	}
	march := day.Of(2027, 3, 1)
	c := job.Curve{Start: march, Days: 365}
	c.Because(on(march+40, march+200, 80))
	got := Waits(job.Prune, c, march+10)
	for _, want := range []string{quantity.Day(march + 39), "it bleeds when cut", quantity.Day(march + 201)} {
		if !strings.Contains(got, want) {
			t.Errorf("%q does not say %s", got, want)
		}
	}
	if got := Waits(job.Mulch, job.Curve{Start: march, Days: 365}, march); got != "" {
		t.Errorf("any day is good: %q", got)
	}
	season := job.Curve{Start: march, Days: 365}
	late := reason.Why{Name: "too late", Text: "past the best time, when the bloom is over", On: on(march+40, march+200, 80).On}
	season.Because(late)
	if got := Waits(job.Prune, season, march); !strings.HasPrefix(got, "The good days for it, when the bloom is over, end on "+quantity.Day(march+39)) {
		t.Errorf("past the best time: %q", got)
	}
	if got := Waits(job.Look, c, march); got != "" {
		t.Errorf("a look: %q", got)
	}
	if got := Waits(job.MakeSafe, c, march); !strings.Contains(got, "does not wait") {
		t.Errorf("a hanging limb may wait: %q", got)
	}
}

// TestText: amounts as they stand on paper.
func TestText(t *testing.T) {
	for _, c := range []struct {
		a      Amount
		code   string
		digits int
		want   string
	}{{123450, "EUR", 2, "EUR 1 234.50"}, {5, "EUR", 2, "EUR 0.05"}, {0, "EUR", 2, "EUR 0.00"}, {-1250, "GBP", 2, "GBP −12.50"},
		{3333, "JPY", 0, "JPY 3 333"}, {1234567890, "USD", 2, "USD 12 345 678.90"}, {4167, "KWD", 3, "KWD 4.167"}, {100000, "", 2, "1 000.00"}} {
		if got := strings.ReplaceAll(c.a.Text(c.code, c.digits), "\u00a0", " "); got != c.want {
			t.Errorf("%d: %q, want %q", c.a, got, c.want)
		}
	}
	if got := (Range{4800, 6000, 7200}).Text("EUR", 2); strings.ReplaceAll(got, "\u00a0", " ") != "EUR 48.00–72.00" {
		t.Error(got)
	}
}
