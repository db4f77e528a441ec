package job

import (
	"testing"
	"time"

	"mezzadro/core/day"
)

// TestStandingDays: when people come who come again and again, by what a gardener and a client have in mind.
func TestStandingDays(t *testing.T) {
	d := day.Of
	work := func(on day.Day) bool { w := on.Time().Weekday(); return w != time.Saturday && w != time.Sunday }
	cases := []struct {
		name     string
		s        Standing
		from, to day.Day
		can      func(day.Day) bool
		want     []day.Day
		falls    int
	}{
		{"every Tuesday", Standing{First: d(2027, 3, 1), Weekday: time.Tuesday, Every: 1},
			d(2027, 3, 1), d(2027, 3, 23), work, []day.Day{d(2027, 3, 2), d(2027, 3, 9), d(2027, 3, 16), d(2027, 3, 23)}, 0},
		{"every other Friday from a Friday on, asked for in between", Standing{First: d(2027, 3, 5), Weekday: time.Friday, Every: 2},
			d(2027, 3, 8), d(2027, 4, 3), work, []day.Day{d(2027, 3, 19), d(2027, 4, 2)}, 0},
		{"not before it begins", Standing{First: d(2027, 6, 1), Weekday: time.Monday, Every: 4},
			d(2027, 3, 1), d(2027, 6, 10), work, []day.Day{d(2027, 6, 7)}, 0},
		{"until a day", Standing{First: d(2027, 3, 1), Until: d(2027, 3, 10), Weekday: time.Tuesday, Every: 1},
			d(2027, 3, 1), d(2027, 3, 31), work, []day.Day{d(2027, 3, 2), d(2027, 3, 9)}, 0},
		{"April to October: none in March, none in November", Standing{First: d(2027, 1, 1), Weekday: time.Wednesday, Every: 4, Months: [2]time.Month{4, 10}},
			d(2027, 2, 1), d(2027, 5, 31), work, []day.Day{d(2027, 4, 28), d(2027, 5, 26)}, 0},
		{"a season over the new year, in the south", Standing{First: d(2026, 9, 1), Weekday: time.Thursday, Every: 2, Months: [2]time.Month{9, 3}},
			d(2027, 3, 20), d(2027, 9, 20), work, []day.Day{d(2027, 9, 2), d(2027, 9, 16)}, 0},
		{"a holiday: the day after", Standing{First: d(2027, 3, 1), Weekday: time.Tuesday, Every: 1}, d(2027, 3, 1), d(2027, 3, 9),
			func(on day.Day) bool { return work(on) && on != d(2027, 3, 2) }, []day.Day{d(2027, 3, 3), d(2027, 3, 9)}, 0},
		{"a holiday on a Friday: the day before, rather than Monday", Standing{First: d(2027, 3, 1), Weekday: time.Friday, Every: 1}, d(2027, 3, 1), d(2027, 3, 7),
			func(on day.Day) bool { return work(on) && on != d(2027, 3, 5) }, []day.Day{d(2027, 3, 4)}, 0},
		{"a week of holidays: that visit falls", Standing{First: d(2027, 3, 1), Weekday: time.Wednesday, Every: 1}, d(2027, 3, 1), d(2027, 3, 17),
			func(on day.Day) bool { return work(on) && (on < d(2027, 3, 8) || on > d(2027, 3, 14)) },
			[]day.Day{d(2027, 3, 3), d(2027, 3, 17)}, 1},
	}
	for _, c := range cases {
		var got []day.Day
		falls := 0
		for _, v := range c.s.Visits(c.from, c.to, c.can) {
			if v.On.Given() {
				got = append(got, v.On)
			} else {
				falls++
			}
		}
		if !equalDays(got, c.want) || falls != c.falls {
			t.Errorf("%s: %v and %d that fall, want %v and %d", c.name, got, falls, c.want, c.falls)
		}
	}
}

func equalDays(a, b []day.Day) bool {
	if len(a) != len(b) {
		return false
	}
	for i := range a {
		if a[i] != b[i] {
			return false
		}
	}
	return true
}

// TestStandingCosts: the day itself is best, each day off it is worse on both sides, and no visit comes so late that it
// is next to the one after.
func TestStandingCosts(t *testing.T) {
	tuesday := day.Of(2027, 3, 2)
	for _, every := range []int{1, 2, 4, 12} {
		cost := map[day.Day]Cost{}
		for _, s := range (Standing{Every: every, Weekday: time.Tuesday}).Spans(tuesday) {
			for on := s.From; on <= s.To; on++ {
				if _, twice := cost[on]; twice {
					t.Errorf("every %d: %s is told twice", every, on)
				}
				cost[on] = s.Cost
			}
		}
		if cost[tuesday].Int() != 0 || cost[tuesday+1].Int() == 0 || cost[tuesday-1].Int() == 0 {
			t.Errorf("every %d: the day itself is not the best: %v", every, cost)
		}
		for off := day.Day(1); off < 4; off++ {
			_, late := cost[tuesday+off]
			_, early := cost[tuesday-off]
			if !late || !early {
				t.Errorf("every %d: %d days off is forbidden; a visit in the same week is better than none", every, off)
			}
			if off > 1 && cost[tuesday+off].Int() <= cost[tuesday+off-1].Int() {
				t.Errorf("every %d: %d days late is no worse than a day less", every, off)
			}
		}
		if _, there := cost[tuesday+day.Day(7*every)-2]; there {
			t.Errorf("every %d: two days before the next visit is still allowed", every)
		}
	}
}
