package cause

import (
	"fmt"
	"math"
	"testing"
	"time"

	"mezzadro/core/day"
	"mezzadro/core/weather"
)

// TestSameAnswerEachTime: the same signs and the same weather give the same odds to the last bit, run after run.
func TestSameAnswerEachTime(t *testing.T) {
	k := kase(t, "rosa-bedding", 6, "stippled webbing", "")
	k.Known = map[string]bool{}
	for i := range Built().Signs {
		if s := &Built().Signs[i]; i%3 == 0 {
			k.Known[s.ID] = i%2 == 0
		}
	}
	today := day.Of(2027, 6, 1)
	hours := make([]weather.Hour, 30*24)
	for i := range hours {
		hours[i] = weather.Hour{Time: today.Time().Add(time.Duration(i-28*24) * time.Hour), TempC: 12 + 0.1*float64(i%24), RHPct: 70, RainMM: 0.1 * float64(i%7), WindMS: 2}
	}
	bits := func() string {
		out := ""
		for _, l := range Built().present(Built().sets(k)) {
			out += fmt.Sprintf("%x ", math.Float64bits(l))
		}
		l := LatelyOf(hours, time.UTC, today)
		return out + fmt.Sprintf("%x %x", math.Float64bits(l.Rain30), math.Float64bits(l.Rain21))
	}
	first := bits()
	for range 40 {
		if again := bits(); again != first {
			t.Fatal("the odds differ from run to run")
		}
	}
	k.Seen, k.Absent = []string{"no-such"}, []string{"nor-this"}
	said := fmt.Sprint(Built().Validate(k))
	for range 40 {
		if again := fmt.Sprint(Built().Validate(k)); again != said {
			t.Fatalf("%s, then %s", said, again)
		}
	}
}
