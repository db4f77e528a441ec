package exchange

import (
	"image"
	"image/color"
	"regexp"
	"strconv"
	"strings"
	"testing"

	"rsc.io/qr"
)

// TestScan: the drawing has the squares of the code, each once, with the three corners that a camera looks for; a longer
// text has more of them.
func TestScan(t *testing.T) {
	squares := regexp.MustCompile(`M(\d+) (\d+)h(\d+)v1h-(\d+)z`)
	last := 0
	for _, text := range []string{"https://garden.example/#/day", "https://garden.example/#/welcome/" + strings.Repeat("k3", 40)} {
		s, err := ScanOf(text)
		if err != nil {
			t.Fatal(err)
		}
		drawn := image.NewGray(image.Rect(0, 0, s.Size, s.Size))
		for _, m := range squares.FindAllStringSubmatch(s.Path, -1) {
			n := func(i int) int { v, _ := strconv.Atoi(m[i]); return v }
			if n(3) != n(4) {
				t.Fatalf("a square that is not closed: %v", m)
			}
			for x := n(1); x < n(1)+n(3); x++ {
				drawn.SetGray(x, n(2), color.Gray{255})
			}
		}
		code, err := qr.Encode(text, qr.M)
		if err != nil {
			t.Fatal(err)
		}
		for y := range s.Size {
			for x := range s.Size {
				if code.Black(x, y) != (drawn.GrayAt(x, y).Y > 0) {
					t.Fatalf("%q: square %d, %d is drawn wrong", text, x, y)
				}
			}
		}
		for _, c := range [][2]int{{0, 0}, {s.Size - 1, 0}, {0, s.Size - 1}} {
			if drawn.GrayAt(c[0], c[1]).Y == 0 {
				t.Errorf("%q: no corner at %v", text, c)
			}
		}
		if s.Size <= last {
			t.Errorf("%d squares for a longer text, %d for a shorter", s.Size, last)
		}
		last = s.Size
	}
	if _, err := ScanOf(strings.Repeat("long ", 2000)); err == nil {
		t.Error("a text too long for any code has one")
	}
}
