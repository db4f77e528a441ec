package catalogue

import (
	"testing"

	"mezzadro/core/day"
	"mezzadro/core/season"
)

// TestGreenUntilFrost: what the first frost takes is green until then, be it after midwinter; where winters are cold it
// lies dead by then, and an autumn without frost so far keeps it.
func TestGreenUntilFrost(t *testing.T) {
	canna, _ := Built().Entry("canna-indica")
	for _, c := range []struct {
		name, climate string
		frost         day.Day // a night under zero in a record that is normal elsewhere; 0: none
		on            day.Day
		green         bool
	}{
		{"the gulf in a winter without frost", "gulf-coast", 0, day.Of(2027, 1, 25), true},
		{"the gulf, two weeks after a January frost", "gulf-coast", day.Of(2027, 1, 20), day.Of(2027, 2, 3), false},
		{"the gulf, on the morning of that frost", "gulf-coast", day.Of(2027, 1, 20), day.Of(2027, 1, 20), true},
		{"a cold lowland in January", "cold-lowland", day.Of(2026, 10, 20), day.Of(2027, 1, 25), false},
		{"there in September", "cold-lowland", 0, day.Of(2026, 9, 10), true},
		{"the highveld, after the frosts of May", "south-africa-highveld", day.Of(2027, 5, 20), day.Of(2027, 7, 20), false},
	} {
		k, err := Built().Climate(c.climate)
		if err != nil {
			t.Fatal(err)
		}
		n := k.Climate.Daily()
		seen := map[day.Day]season.Extremes{}
		for d := c.on - 400; d <= c.on; d++ {
			seen[d] = season.Extremes{Min: n.TMin.At(d), Max: n.TMax.At(d)}
		}
		if c.frost != 0 {
			seen[c.frost] = season.Extremes{Min: -3, Max: 6}
		}
		if got := canna.Stages(season.NewYear(n, seen), c.on)(c.on).Leafy; got != c.green {
			t.Errorf("%s: green %v, want %v", c.name, got, c.green)
		}
	}
}
