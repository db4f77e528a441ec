package crown

import (
	"errors"
	"math"
	"slices"
	"strings"
	"testing"

	"mezzadro/core/invalid"
)

func many(c Colour, n int) []Colour { return slices.Repeat([]Colour{c}, n) }

// TestColours: what one would call green, brown, bare and sky on a picture.
func TestColours(t *testing.T) {
	for name, c := range map[string]struct {
		colour Colour
		is     Class
	}{
		"a leaf in sun": {Colour{96, 140, 50}, Green}, "yew in shade": {Colour{30, 48, 28}, Green}, "olive": {Colour{112, 118, 78}, Green},
		"lavender, grey-green": {Colour{135, 148, 130}, Green}, "young yellow-green": {Colour{165, 180, 70}, Green},
		"a scorched leaf": {Colour{120, 82, 45}, Brown}, "dead thuja": {Colour{170, 120, 70}, Brown}, "straw": {Colour{200, 170, 110}, Brown},
		"a dead leaf in shade": {Colour{62, 44, 30}, Brown}, "bark": {Colour{115, 107, 100}, Bare}, "a birch twig": {Colour{80, 72, 70}, Bare},
		"blue sky": {Colour{140, 180, 225}, Sky}, "cloud": {Colour{232, 234, 236}, Sky}, "a hole": {Colour{8, 9, 7}, Dark},
	} {
		if got, _ := labOf(c.colour).reads(usualBorder); got != c.is {
			t.Errorf("%s reads as %s, want %s (hue %.0f)", name, got, c.is, labOf(c.colour).hue())
		}
	}
}

// TestCounts: what is all green has no share, but an interval that knows how few points there are; what somebody says
// stands against the colour; the slider takes yellowing leaves for brown or not.
func TestCounts(t *testing.T) {
	leaf, dead, yellow := Colour{96, 140, 50}, Colour{120, 82, 45}, Colour{190, 180, 70}
	read := func(a Asked) Count {
		t.Helper()
		c, err := Read(a)
		if err != nil {
			t.Fatal(err)
		}
		return c
	}
	c := read(Asked{Colours: many(leaf, 40), Looked: true})
	if c.Share != 0 || c.Low != 0 || c.High < 0.02 || c.High > 0.1 || c.Green != 40 {
		t.Errorf("all green: %+v", c)
	}
	if big := read(Asked{Colours: many(leaf, 300), Looked: true}); big.High >= c.High {
		t.Errorf("300 points tell no more than 40: %+v", big)
	}
	third := append(many(leaf, 80), many(dead, 40)...)
	if c = read(Asked{Colours: third}); math.Abs(c.Share-0.333) > 0.01 || c.Low < 0.2 || c.High > 0.46 || c.Sure != 0.8 {
		t.Errorf("a third brown: %+v", c)
	}
	if !strings.HasPrefix(c.Text, "33 % brown or bare") {
		t.Errorf("said as %q", c.Text)
	}
	told := map[int]Class{}
	for i := range 20 {
		told[i] = Brown
	}
	if c = read(Asked{Colours: third, Told: told, Looked: true}); c.Brown != 60 || c.Share != 0.5 || c.Sure != 0.95 {
		t.Errorf("twenty told to be brown: %+v", c)
	}
	yellows := append(many(leaf, 30), many(yellow, 30)...)
	if less, more := read(Asked{Colours: yellows, Lean: -1}), read(Asked{Colours: yellows, Lean: 1}); less.Brown != 0 || more.Brown != 30 {
		t.Errorf("the slider: %d brown to one side, %d to the other", less.Brown, more.Brown)
	}
	if c = read(Asked{Colours: yellows}); len(c.Unsure) != 30 {
		t.Errorf("yellowing leaves are worth a look: %d", len(c.Unsure))
	}
	if c = read(Asked{Colours: append(many(leaf, 10), many(Colour{140, 180, 225}, 60)...)}); !strings.HasPrefix(c.Text, "Too little") {
		t.Errorf("sky: %q", c.Text)
	}
}

// TestChange: a third against a tenth is more, a third against a quarter of so few points may be chance.
func TestChange(t *testing.T) {
	of := func(brown, all int) Count {
		c, err := Read(Asked{Colours: append(many(Colour{120, 82, 45}, brown), many(Colour{96, 140, 50}, all-brown)...), Looked: true})
		if err != nil {
			t.Fatal(err)
		}
		return c
	}
	for _, c := range []struct {
		before, now Count
		want        string
	}{{of(12, 120), of(40, 120), "more"}, {of(40, 120), of(12, 120), "less"}, {of(30, 120), of(40, 120), ""}, {of(75, 300), of(130, 300), "more"}} {
		if got := Change(c.before, c.now); got != c.want {
			t.Errorf("%.2f, then %.2f: %q, want %q", c.before.Share, c.now.Share, got, c.want)
		}
	}
}

// TestLay: as many points as were asked for, evenly, and all inside; what cannot be is named.
func TestLay(t *testing.T) {
	square := []Point{{10, 10}, {210, 10}, {210, 160}, {10, 160}}
	for _, want := range []int{40, 120, 300} {
		got, err := Lay(square, want)
		if err != nil || math.Abs(float64(len(got)-want)) > 0.15*float64(want) {
			t.Errorf("%d points for %d: %v", len(got), want, err)
		}
		near := math.Inf(1)
		for i, p := range got {
			if p.X < 10 || p.X > 210 || p.Y < 10 || p.Y > 160 {
				t.Errorf("outside: %v", p)
			}
			for _, q := range got[:i] {
				near = min(near, math.Hypot(p.X-q.X, p.Y-q.Y))
			}
		}
		if even := math.Sqrt(200 * 150 * 2 / math.Sqrt(3) / float64(want)); near < 0.98*even {
			t.Errorf("two points %.1f apart, want %.1f", near, even)
		}
	}
	for name, of := range map[string][]Point{"none": nil, "a line": {{0, 0}, {50, 50}, {100, 100}}, "a crack": {{0, 0}, {300, 0}, {300, 0.1}}} {
		if _, err := Lay(of, 100); !errors.As(err, &invalid.Fields{}) {
			t.Errorf("%s: %v", name, err)
		}
	}
	if _, err := Lay(square, 3); err == nil {
		t.Error("three points are laid")
	}
	for name, a := range map[string]Asked{"few points": {Colours: many(Colour{}, 5)}, "no class": {Colours: many(Colour{}, 30), Told: map[int]Class{2: "red"}},
		"no point": {Colours: many(Colour{}, 30), Told: map[int]Class{30: Green}}, "slider": {Colours: many(Colour{}, 30), Lean: 2}} {
		if _, err := Read(a); !errors.As(err, &invalid.Fields{}) {
			t.Errorf("%s: %v", name, err)
		}
	}
}
