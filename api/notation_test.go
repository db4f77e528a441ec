package api_test

import (
	"regexp"
	"strings"
	"testing"

	. "mezzadro/api"
	"mezzadro/core/quantity"
)

// TestPapersOfARegion: what is printed is on the paper and by the clock of the reader's region, unless the firm says
// otherwise for everybody.
func TestPapersOfARegion(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	property, _ := h.villa()
	_ = property
	box := regexp.MustCompile(`/MediaBox \[0 0 ([\d.]+) ([\d.]+)\]`)
	paper := func(path, language string) string {
		t.Helper()
		code, b := h.do("GET", path, nil, "Accept-Language", language)
		m := box.FindStringSubmatch(string(b))
		if code != 200 || m == nil {
			t.Fatalf("%s: %d %.100s", path, code, b)
		}
		return strings.TrimSuffix(m[1], ".00") + " × " + strings.TrimSuffix(m[2], ".00")
	}
	const a4, letter, wideLetter = "595.28 × 841.89", "612 × 792", "792 × 612"
	for _, c := range []struct{ path, language, want string }{
		{"/rounds/sheet.pdf?day=2027-03-18", "en-US", letter}, {"/rounds/sheet.pdf?day=2027-03-18", "en-CA", letter},
		{"/rounds/sheet.pdf?day=2027-03-18", "en-AU", a4}, {"/rounds/sheet.pdf?day=2027-03-18", "", a4},
		{"/properties/1/plan.pdf", "en-US", letter}, {"/properties/1/labels.pdf?site=http://127.0.0.1", "en-US,en;q=0.5", letter},
		{"/uses.pdf", "en-US", wideLetter},
	} {
		if got := paper(c.path, c.language); got != c.want {
			t.Errorf("%s for %q: %s, want %s", c.path, c.language, got, c.want)
		}
	}
	hour := func(language string) string {
		return h.server.StyleOf(t.Context(), language).Text(quantity.Hour(870))
	}
	if us, au, de := hour("en-US"), hour("en-AU"), hour("de-DE"); us != "2:30 pm" || au != "2:30 pm" || de != "14:30" {
		t.Errorf("half past two: %s, %s, %s", us, au, de)
	}
	firm := obj{"name": "Ours", "units": "metric", "week_start": 1, "rules": obj{}, "clock": "24", "paper": "A4", "day_order": "day", "version": 0}
	if f := ok[FirmOut](h, "PUT", "/firm", firm); f.Clock != "24" || f.Paper != "A4" || f.DayOrder != "day" {
		t.Errorf("kept: %+v", f)
	}
	if got := paper("/rounds/sheet.pdf?day=2027-03-18", "en-US"); got != a4 {
		t.Errorf("the firm prints on A4, and an American reader gets %s", got)
	}
	if got := hour("en-US"); got != "14:30" {
		t.Errorf("the firm's clock: %s", got)
	}
	if got := h.server.StyleOf(t.Context(), "en-US").MonthFirst; got {
		t.Error("the firm writes the day first")
	}
	firm["version"], firm["clock"] = 1, "13"
	if code, b := h.do("PUT", "/firm", firm); code != 422 || !strings.Contains(string(b), "clock") {
		t.Errorf("a clock of 13: %d %s", code, b)
	}
}
