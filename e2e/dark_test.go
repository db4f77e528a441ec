package e2e

import (
	"testing"

	"github.com/chromedp/cdproto/emulation"
	"github.com/chromedp/chromedp"
)

// TestDark: where the device asks for dark, every screen is, with enough contrast on it; full-sun reading stays black on
// white, and what is printed stays as it was.
func TestDark(t *testing.T) {
	t.Parallel()
	b := open(t, reading(t), 1280, 800)
	media := func(kind string) {
		t.Helper()
		p := emulation.SetEmulatedMediaParams{Media: kind, Features: []*emulation.MediaFeature{{Name: "prefers-color-scheme", Value: "dark"}}}
		if _, err := chromedp.Call(b.ctx, emulation.SetEmulatedMedia, p); err != nil {
			t.Fatal(err)
		}
	}
	light := func() float64 {
		v, _ := b.eval("getComputedStyle(document.documentElement).backgroundColor.match(/[0-9]+/g).slice(0, 3).reduce((s, x) => s + Number(x), 0) / 3").(float64)
		return v
	}
	media("")
	for _, path := range []string{"lookout", "grounds/1/plan", "walk", "plant/4", "year/1", "rounds", "treat/1", "replace/1", "ledger"} {
		b.visit("/#/" + path)
		b.settled()
		if l := light(); l > 60 {
			t.Errorf("%s: as light as %.0f of 255", path, l)
		}
		b.accessible("dark: " + path)
	}
	b.press("button", "Full-sun reading: off")
	if l := light(); l != 255 {
		t.Errorf("in full sun as light as %.0f", l)
	}
	b.press("button", "Full-sun reading: on")
	if media("print"); light() < 240 {
		t.Errorf("on paper as light as %.0f", light())
	}
}
