package reason

import (
	"encoding/json"
	"math"
	"testing"

	"mezzadro/core/day"
)

// Whatever adds up, no day is forbidden by it: a sum that came to exactly one more than the worst once was.
func TestNeverIsNotReachedByAdding(t *testing.T) {
	for a := range 140 {
		for b := range 140 {
			x, y := Points(float64(a)), Points(float64(b))
			if sum := x.Plus(y); sum.Forbids() || sum.Over(Worst) || sum.Int() != min(100, min(100, a)+min(100, b)) {
				t.Fatalf("%d and %d make %s", a, b, sum)
			}
			if !x.Plus(Never).Forbids() || !Never.Plus(x).Forbids() {
				t.Fatalf("%d and never make %s", a, x.Plus(Never))
			}
		}
	}
	sum := Cost{}
	for range 1000 {
		sum = sum.Plus(Worst)
	}
	if sum != Worst {
		t.Errorf("a thousand worst days make %s", sum)
	}
	for v, want := range map[float64]int{math.NaN(): 100, math.Inf(1): 100, math.Inf(-1): 0, -3: 0, 100.6: 100, 101: 100, 29.6: 30} {
		if got := Points(v).Int(); got != want {
			t.Errorf("%g points are %d, want %d", v, got, want)
		}
	}
}

func TestCostAsNumber(t *testing.T) {
	b, err := json.Marshal(struct {
		C  Cost
		Cs Costs
	}{Never, Costs{{}, Points(7), Never}})
	if err != nil || string(b) != `{"C":101,"Cs":[0,7,101]}` {
		t.Fatalf("%s, %v", b, err)
	}
	var back struct {
		C  Cost
		Cs Costs
	}
	if err := json.Unmarshal(b, &back); err != nil || back.C != Never || len(back.Cs) != 3 || back.Cs[1] != Points(7) {
		t.Errorf("%+v, %v", back, err)
	}
	for _, bad := range []string{"102", "-1", `"3"`, "2.5", "null x"} {
		var c Cost
		if json.Unmarshal([]byte(bad), &c) == nil {
			t.Errorf("%s was taken for %s", bad, c)
		}
	}
}

func TestReasons(t *testing.T) {
	d := day.Of(2027, 4, 1)
	early := TooEarly("nothing to see", d+10, 25, 3)
	if a, b, c := early.On(d), early.On(d+9), early.On(d+10); a.Int() != 55 || b.Int() != 28 || !c.Free() {
		t.Errorf("too early: %s, %s, %s", a, b, c)
	}
	if w := PutOff("put off", "", d, 2); !w.On(d-5).Free() || w.On(d+15).Int() != 30 || w.On(d+500) != Worst {
		t.Error("put off does not rise to the worst")
	}
	span := Outside("before", "after", d, d+10, 31, 2)
	for _, c := range []struct{ at, before, after int }{{-1, 33, 0}, {0, 0, 0}, {10, 0, 0}, {11, 0, 33}} {
		x := d + day.Day(c.at)
		if b, a := span[0].On(x), span[1].On(x); b.Int() != c.before || a.Int() != c.after {
			t.Errorf("day %d costs %s before and %s after", c.at, b, a)
		}
	}
	heat := Heat("hot", 27, 8, func(x day.Day) float64 { return 25 + float64(x-d) })
	if !heat.On(d+2).Free() || heat.On(d+3).Int() != 8 {
		t.Error("heat does not count from its limit")
	}
	if _, ok := heat.Over(d-100, 100); ok {
		t.Error("a reason that never costs anything is kept")
	}
	if r, ok := heat.Over(d, 10); !ok || len(r.Costs) != 10 || r.Name != "heat" {
		t.Errorf("%+v, %v", r, ok)
	}
}
