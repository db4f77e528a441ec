package e2e

import (
	"fmt"
	"testing"
)

// TestCutBench: the cut line is moved by keys and shows what it costs; beyond what the plant bears it is said so; a wanted height
// gives the cut; the day pointed at on the ribbon tells its cost; it becomes one job, and undo takes it back.
func TestCutBench(t *testing.T) {
	t.Parallel()
	s := start(t, "demo", t.TempDir())
	b := open(t, s, 1280, 800)
	b.expect("422 ")
	b.visit("/#/plant/1")
	b.see("Today, Thu 18 March")
	b.press("link", "Cut bench")
	b.see("Evergreens that bloom on last year's wood")
	b.until("too early today", "/Too early/.test(document.querySelector('[data-testid=day-cost]').innerText)")
	b.accessible("the cut bench")
	for range 4 {
		b.key("ArrowDown")
	}
	b.until("the line", "document.querySelector('[data-testid=cut]').innerText .startsWith('1.9')")
	b.see("Next year:")
	x, y := b.at("document.querySelector('section[aria-label=\"How far\"] svg[role=img]')")
	b.drag(x, y-130, x, y-60, func() {
		b.until("the line follows the mouse, and what it costs is told", `/cut at 1\.[4-8]/.test(document.querySelector('section[aria-label="How far"]').innerText) &&
			document.querySelector('[data-testid=bloom]').innerText.length > 5`)
	})
	b.press("button", "Clear")
	b.until("no line", "document.querySelector('section[aria-label=\"How far\"]').innerText.includes('no height')")
	for range 4 {
		b.key("ArrowDown")
	}
	for range 14 {
		b.key("ArrowDown")
	}
	b.see("more than it bears at once: up to 33 %")
	b.press("button", "Clear")
	b.fill("Next year", "1.9")
	b.until("cut for it", "document.querySelector('[data-testid=cut]')?.innerText.startsWith('1.6')")
	b.fill("Next year", "12")
	b.see("above what it grows to")
	b.fill("Next year", "1.9")
	b.choose("What for", "renew old stems")
	b.press("button", "Clear")
	b.see("Take out the oldest third of the stems")
	b.press("button", "Make it a job")
	b.see("Renew Common camellia, 1 of 3 and 3 more: jobs.")
	job := s.orderOf("Renew Common camellia, 1 of 3")
	b.see("Stands as a job already")
	b.press("link", "Renew Common camellia, 1 of 3")
	b.until("the job", fmt.Sprintf("location.hash === '#/rounds/%d'", job))
	b.see("Take out the oldest third of the stems")
	b.see("Renew Common camellia, 2 of 3")
	b.press("link", "Cut card")
	b.see("to renew old stems")
	second, third := s.orderOf("Renew Common camellia, 2 of 3"), s.orderOf("Renew Common camellia, 3 of 3")
	b.visit(fmt.Sprintf("/#/rounds/%d", third))
	b.see("2029")
	b.visit(fmt.Sprintf("/#/rounds/%d", second))
	b.see("2028")
}

// TestCutNowInSpiteOfBloom: what is in the way before it blooms is cut on a day that costs much of the bloom; the cost is told, the job
// stands on that day, and undo takes it away.
func TestCutNowInSpiteOfBloom(t *testing.T) {
	t.Parallel()
	s := start(t, "demo", t.TempDir())
	b := open(t, s, 1280, 800)
	var plants struct {
		Items []struct {
			ID      int64  `json:"id"`
			Species string `json:"species"`
		} `json:"items"`
	}
	s.get("/api/v1/plants?property=2&limit=100", &plants)
	lilac := int64(0)
	for _, p := range plants.Items {
		if p.Species == "syringa-vulgaris" {
			lilac = p.ID
		}
	}
	b.visit(fmt.Sprintf("/#/cut/%d", lilac))
	b.choose("What for", "keep it smaller")
	b.until("what it costs in bloom", "/costs about [1-9][0-9] %/.test(document.querySelector('[data-testid=bloom]')?.innerText)")
	b.press("button", "On Thu 18 March, in spite of the bloom")
	b.see("Cut Common lilac: a job.")
	job := s.orderOf("Cut Common lilac")
	var o struct {
		Day     string `json:"day"`
		DayCost int    `json:"day_cost"`
	}
	s.get(fmt.Sprintf("/api/v1/orders/%d", job), &o)
	if o.Day != "2027-03-18" || o.DayCost < 30 {
		t.Errorf("it is on %s at %d", o.Day, o.DayCost)
	}
	stands := fmt.Sprintf("!!document.querySelector('main a[href=\"#/rounds/%d\"]')", job)
	b.until("the way to the job", stands)
	b.press("button", "Undo")
	b.until("taken away", "!"+stands) // another cut of it may stand
}

// TestPlanCuts: a property's year of cuts is proposed, one is struck out, the others become jobs on the year; undo takes them back.
func TestPlanCuts(t *testing.T) {
	t.Parallel()
	s := start(t, "demo", t.TempDir())
	b := open(t, s, 1280, 800)
	b.visit("/#/grounds/3")
	b.press("link", "Plan cuts")
	b.see("A year of cuts at Hillside terrace")
	b.accessible("a year of cuts")
	before, _ := b.eval("document.querySelectorAll('main input[type=checkbox]').length").(float64)
	b.press("checkbox", "Cut Climbing rose, Climbing rose, Gate arch")
	b.see(fmt.Sprintf("%.0f of %.0f cuts", before-1, before))
	b.press("button", "Keep them as jobs")
	b.see("jobs are saved")
	b.see("0 of 1 cuts")
	b.visit("/#/year/3")
	b.see("Cut Common camellia")
	b.visit("/#/cuts/3")
	b.see("stand as jobs already")
}
