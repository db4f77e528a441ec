package job

import (
	"math"
	"strings"
	"testing"

	"mezzadro/core/day"
	"mezzadro/core/job/reason"
)

// springCut is a curve of 60 days: forbidden for ten, dear for frost until day 30, dear for heat from day 50.
func springCut() Curve {
	start := day.Of(2027, 3, 1)
	c := Curve{Start: start, Days: 60}
	c.Because(
		reason.Until("past", "before today", start+10, Never),
		reason.Why{Name: "frost", Text: "frost may still come", On: func(d day.Day) Cost { return reason.Points(float64(90 - 3*d.Sub(start))) }},
		reason.Why{Name: "heat", Text: "sun on opened bark", On: func(d day.Day) Cost { return reason.Points(float64(20 * (d.Sub(start) - 50))) }},
		reason.Why{Name: "nothing", Text: "never costs", On: func(day.Day) Cost { return Cost{} }})
	return c
}

func TestCurve(t *testing.T) {
	c := springCut()
	if len(c.Reasons) != 3 {
		t.Errorf("%d reasons, want the three that cost something", len(c.Reasons))
	}
	for _, want := range []struct {
		after int
		cost  Cost
		parts int
	}{{-1, Never, 0}, {0, Never, 2}, {9, Never, 2}, {10, reason.Points(60), 1}, {20, reason.Points(30), 1}, {30, Cost{}, 0},
		{52, reason.Points(40), 1}, {59, Worst, 1}, {60, Never, 0}} {
		d := c.Start + day.Day(want.after)
		if got := c.On(d); got != want.cost {
			t.Errorf("day %d costs %s, want %s", want.after, got, want.cost)
		}
		if got := c.Why(d); len(got) != want.parts {
			t.Errorf("day %d: %v, want %d reasons", want.after, got, want.parts)
		}
		if i := want.after; i >= 0 && i < c.Days && c.Costs()[i] != c.On(d) {
			t.Errorf("day %d costs %s in the list and %s by itself", i, c.Costs()[i], c.On(d))
		}
	}
}

func TestWindows(t *testing.T) {
	c := springCut()
	got := c.Windows(Acceptable)
	if len(got) != 1 || got[0].From != c.Start+20 || got[0].To != c.Start+51 || got[0].Best != c.Start+30 || !got[0].Cost.Free() {
		t.Errorf("%+v", got)
	}
	if best, ok := c.Best(c.Start + 40); !ok || best != c.Start+40 {
		t.Errorf("best day from the fortieth: %s, %v", best, ok)
	}
	c.Because(reason.Why{Name: "ban", Text: "nests", On: func(day.Day) Cost { return Never }})
	if got := c.Windows(Worst); len(got) != 0 {
		t.Errorf("windows on forbidden days: %+v", got)
	}
	if _, ok := c.Best(c.Start); ok {
		t.Error("a best day among forbidden ones")
	}
	hovers := Curve{Start: c.Start, Days: 12}
	costs := []float64{40, 29, 31, 30, 32, 29, 50, 29, 31, 31, 31, 31}
	hovers.Because(reason.Why{Name: "heat", Text: "heat", On: func(d day.Day) Cost { return reason.Points(costs[d-c.Start]) }})
	if got := hovers.Windows(Acceptable); len(got) != 2 || got[0].From != c.Start+1 || got[0].To != c.Start+5 || got[1].From != c.Start+7 || got[1].To != c.Start+7 {
		t.Errorf("a curve that hovers round the limit: %+v", got)
	}
	// A higher limit never shortens the windows.
	last := 0
	for limit := 0; limit <= 100; limit += 5 {
		days := 0
		for _, w := range springCut().Windows(reason.Points(float64(limit))) {
			days += w.To.Sub(w.From) + 1
		}
		if days < last {
			t.Fatalf("limit %d: %d days, before %d", limit, days, last)
		}
		last = days
	}
}

// TestOutlook: what a list says before, in and after the window, and when the time has passed.
func TestOutlook(t *testing.T) {
	c := springCut()
	for _, want := range []struct {
		on           int
		from         int // of the window; -1 for none
		best         int
		cost         int
		passed, gone bool
	}{{0, 20, 30, 0, false, false}, {35, 20, 35, 0, false, false}, {51, 20, 51, 20, false, false}, {52, -1, 52, 40, false, false},
		{56, -1, 56, 100, true, false}, {60, -1, 0, 101, true, true}, {-100, 20, 30, 0, false, false}} {
		o := c.Outlook(c.Start + day.Day(want.on))
		if want.from < 0 != (o.Window.From == day.None) || want.from >= 0 && o.Window.From != c.Start+day.Day(want.from) {
			t.Errorf("day %d: window from %s", want.on, o.Window.From)
		}
		if o.Cost.Int() != want.cost || o.Passed != want.passed || (o.Best == day.None) != want.gone || !want.gone && o.Best != c.Start+day.Day(want.best) {
			t.Errorf("day %d: %+v", want.on, o)
		}
	}
}

// TestBestInItsWindow: the best day that a list names lies in the window that it names, though a day of the next one
// costs less still: a rose that may be cut from now to 1 September is not "best on 19 July of next year".
func TestBestInItsWindow(t *testing.T) {
	c := Curve{Start: day.Of(2027, 7, 1), Days: 500}
	costs := func(d day.Day) Cost { // best on 19 July of each year, well until 1 September
		switch n := day.Of(2027, d.Month(), d.DayOfMonth()).Sub(day.Of(2027, 7, 19)); {
		case n < -40 || n > 44:
			return reason.Points(90)
		default:
			return reason.Points(math.Abs(float64(n)) / 2)
		}
	}
	c.Because(reason.Why{Name: "roses", Text: "roses", On: costs})
	for _, want := range []struct{ today, from, best, to day.Day }{
		{day.Of(2027, 7, 1), day.Of(2027, 7, 1), day.Of(2027, 7, 19), day.Of(2027, 9, 1)},
		{day.Of(2027, 8, 20), day.Of(2027, 7, 1), day.Of(2027, 8, 20), day.Of(2027, 9, 1)},
		{day.Of(2027, 9, 1), day.Of(2027, 7, 1), day.Of(2027, 9, 1), day.Of(2027, 9, 1)},
		{day.Of(2027, 9, 2), day.Of(2028, 6, 9), day.Of(2028, 7, 19), day.Of(2028, 9, 1)},
	} {
		o := c.Outlook(want.today)
		if o.Window.From != want.from || o.Best != want.best || o.Window.To != want.to || o.Cost != c.On(want.best) {
			t.Errorf("on %s: %s to %s, best %s at %s", want.today, o.Window.From, o.Window.To, o.Best, o.Cost)
		}
	}
}

func TestTogether(t *testing.T) {
	a, b := springCut(), springCut()
	b.Start += 5
	for i := range b.Reasons { // the second kind is five days later in all things
		b.Reasons[i].Text += ", later"
	}
	c := Together([]Curve{a, b})
	if c.Start != a.Start+5 || c.End() != a.End() || len(c.Reasons) != 3 {
		t.Fatalf("%s to %s with %d reasons", c.Start, c.End(), len(c.Reasons))
	}
	for d := c.Start; d < c.End(); d++ {
		if x, y, z := a.On(d), b.On(d), c.On(d); x.Over(z) || y.Over(z) {
			t.Errorf("%s costs %s together, %s and %s each by itself", d, z, x, y)
		}
	}
	if one := Together([]Curve{a}); one.On(a.Start+20) != a.On(a.Start+20) {
		t.Error("one kind alone costs something else")
	}
	if none := Together(nil); none.Days != 0 {
		t.Errorf("no kind at all: %+v", none)
	}
}

func TestStates(t *testing.T) {
	for _, c := range []struct {
		from, to State
		can      bool
	}{{Waiting, Placed, true}, {Waiting, Done, true}, {Placed, Waiting, true}, {Done, Placed, true}, {Done, Skipped, false},
		{Skipped, Done, false}, {Dropped, Done, false}, {Dropped, Waiting, true}, {Done, Done, false}} {
		if got := c.from.CanBecome(c.to); got != c.can {
			t.Errorf("from %q to %q: %v", c.from, c.to, got)
		}
	}
	today := day.Of(2027, 3, 18)
	for _, c := range []struct {
		state State
		on    day.Day
		want  bool
	}{{Placed, today - 1, true}, {Placed, today, false}, {Done, today - 1, false}, {Waiting, day.None, false}, {Placed, day.None, false}} {
		if got := Overdue(c.state, c.on, today); got != c.want {
			t.Errorf("%s on %s: overdue %v", c.state, c.on, got)
		}
	}
}

// TestReplaces: a verdict takes the place of earlier verdicts' work on the same trouble, and of nobody else's.
// TestEndsWith: nobody feeds a dead camellia or looks again whether it lives, but somebody still digs it out.
func TestEndsWith(t *testing.T) {
	for _, c := range []struct {
		origin Origin
		state  State
		kind   Kind
		want   bool
	}{
		{Verdict, Waiting, Look, true},
		{AfterCare, Placed, Feed, true},
		{Verdict, Waiting, CutBack, true},
		{TakingIn, Waiting, PlantOut, true},
		{Verdict, Waiting, Replace, false},
		{Verdict, Placed, MakeSafe, false},
		{AfterCare, Done, Water, false},
		{Programme, Waiting, Treat, true},
		{Hand, Waiting, Other, false},
	} {
		if got := EndsWith(c.origin, c.state, c.kind); got != c.want {
			t.Errorf("%s of %s, %s: %v", c.kind, c.origin, c.state, got)
		}
	}
}

func TestReplaces(t *testing.T) {
	for _, c := range []struct {
		origin  Origin
		state   State
		trouble string
		want    bool
	}{{Verdict, Waiting, "damage", true}, {AfterCare, Placed, "damage", true}, {TakingIn, Waiting, "damage", true},
		{Verdict, Done, "damage", false}, {Verdict, Skipped, "damage", false}, {Verdict, Waiting, "coming winter", false},
		{Hand, Waiting, "damage", false}, {Plan, Waiting, "damage", false}, {Programme, Placed, "damage", false}, {Planting, Waiting, "damage", false}} {
		if got := Replaces("damage", c.origin, c.state, c.trouble); got != c.want {
			t.Errorf("%s, %s, %s: %v", c.origin, c.state, c.trouble, got)
		}
	}
}

func TestValidate(t *testing.T) {
	d := day.Of(2027, 5, 1)
	good := Order{Kind: Other, Title: "Sweep the court", Minutes: 30, Crew: 1, Params: Params{Spans: []Span{{From: d, To: d + 10}}}}
	if err := good.Validate(); err != nil {
		t.Errorf("a good order: %v", err)
	}
	for want, spoil := range map[string]func(*Order){
		"title: is missing":            func(o *Order) { o.Title = "" },
		"minutes: 0 minutes":           func(o *Order) { o.Minutes = 0 },
		"crew: 50 people":              func(o *Order) { o.Crew = 50 },
		"every_days":                   func(o *Order) { o.Params.EveryDays = -1 },
		"spans: want the days":         func(o *Order) { o.Params.Spans = nil },
		"spans[0].to: 2027-05-01 is":   func(o *Order) { o.Params.Spans = []Span{{From: d + 10, To: d}} },
		"spans[0].cost: want 0 to 100": func(o *Order) { o.Params.Spans = []Span{{From: d, To: d, Cost: Never}} },
		"spans[0].from: both days":     func(o *Order) { o.Params.Spans = []Span{{From: day.None, To: d}} },
		"more than three years":        func(o *Order) { o.Params.Spans = []Span{{From: d, To: d + 2000}} },
	} {
		o := good
		spoil(&o)
		if err := o.Validate(); err == nil || !strings.Contains(err.Error(), want) {
			t.Errorf("want %q, got %v", want, err)
		}
	}
}
