package e2e

import (
	"fmt"
	"strings"
	"testing"
)

// TestCausesAreDrawn: each cause of the book has its drawing in the list of all, and so has each that a plant may have.
func TestCausesAreDrawn(t *testing.T) {
	t.Parallel()
	s := reading(t)
	b := open(t, s, 1280, 800)
	b.visit("/#/almanac/cause")
	b.until("the list", "document.querySelectorAll('[aria-label=Causes] li').length > 150")
	if bare, _ := b.eval(`[...document.querySelectorAll('[aria-label=Causes] li')].filter((li) => !li.querySelector('svg path')).map((li) => li.innerText.trim()).join(', ')`).(string); bare != "" {
		t.Errorf("without a drawing: %s", bare)
	}
	b.press("link", "Rust")
	b.until("its page", "document.querySelector('article header svg path')")
}

// TestPlantsYearIsDrawn: a plant's year shows its flowers, when it is cut and the jobs that stand, and none that is done;
// each leads to its job. The season names what a week is made of.
func TestPlantsYearIsDrawn(t *testing.T) {
	t.Parallel()
	s := reading(t)
	b := open(t, s, 1280, 900)
	orange := s.plantOf(5, "citrus-sinensis").ID
	b.visit(fmt.Sprintf("/#/plant/%d", orange))
	b.until("its year", `document.querySelector('section[aria-label="Its year"] dl')`)
	b.until("when it is cut", `/Cut, were it sound|Time to cut/.test(document.querySelector('section[aria-label="Its year"]').innerText)`)
	text := b.text(`section[aria-label="Its year"]`)
	for _, want := range []string{"In bloom", "Take the small fruit off", "Feed Sweet orange"} {
		if !strings.Contains(text, want) {
			t.Errorf("%q is not in its year:\n%s", want, text)
		}
	}
	if strings.Contains(text, "Grease band") {
		t.Error("what is done stands in the year")
	}
	b.accessible("a plant's year")
	b.press("link", "Feed Sweet orange × 8")
	b.until("the job", "location.hash.startsWith('#/rounds/')")

	b.visit("/#/propose")
	b.see("The season in weeks")
	first := `document.querySelector('section[aria-label="The season in weeks"] ol li')`
	b.until("what the first week is made of", first+".querySelectorAll('ul a').length >= 4")
	if kinds, _ := b.eval(first + ".innerText").(string); !strings.Contains(kinds, "Treat") || !strings.Contains(kinds, "Feed") {
		t.Errorf("the first week says %q", kinds)
	}
	b.press("button", "Show all 26 weeks")
	b.until("half a year", `document.querySelectorAll('section[aria-label="The season in weeks"] ol > li').length === 26`)
	b.accessible("the season in weeks")
}
