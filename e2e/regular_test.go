package e2e

import (
	"fmt"
	"testing"
)

// TestRegularAndLongWork: a visit that comes again is entered and stands on its days; a crew loads first and tips on the
// way; work that no day holds is proposed for days running, and stands on the crew's phone as such.
func TestRegularAndLongWork(t *testing.T) {
	t.Parallel()
	s := start(t, "demo", t.TempDir())
	b := open(t, s, 1280, 800)
	b.expect("422")
	b.visit("/#/grounds/2")
	b.press("button", "Regular visits")
	b.press("button", "Enter a regular visit")
	b.choose("How often", "every week")
	b.choose("On", "Tuesday")
	b.choose("Crew that the client knows", "Crew 2")
	b.fill("General care, minutes", "0")
	b.press("button", "Save")
	b.see("want 1 or more")
	b.fill("General care, minutes", "75")
	b.fill("What is done", "Sweep the cloister")
	b.accessible("a regular visit")
	b.press("button", "Save")
	b.see("Every Tuesday: Sweep the cloister, 1 h 15 min, Crew 2")
	b.see("Next: 23 Mar, 30 Mar, 6 Apr")
	b.press("button", "Remove: Every Tuesday")
	b.see("None. A visit that comes")
	b.press("button", "Undo")
	b.see("Next: 23 Mar")

	b.visit("/#/settings")
	b.press("button", "Change: Crew 1")
	b.fill("Loading before setting out, minutes", "20")
	b.fill("Latitude of the tip", "45.91")
	b.fill("Longitude of the tip", "8.63")
	b.eval(`document.querySelector('form[aria-label="A crew"]').requestSubmit()`)
	b.see("20 min of loading first · tips on the way")
	b.press("button", "Change rush hours")
	b.eval(`(() => { const s = document.querySelector('select[aria-label="Ways take"]'); s.value = '2'; s.dispatchEvent(new Event('change', {bubbles: true})) })()`)
	b.accessible("rush hours")
	b.eval(`document.querySelector('form[aria-label="Rush hours"]').requestSubmit()`)
	b.see("twice as long")
	b.press("button", "Undo")
	b.see("the road is free at all hours")

	s.post("/api/v1/orders", `{"property_id": 2, "title": "Clear the moat", "minutes": 2100, "spans": [{"from": "2027-03-18", "to": "2027-03-31"}]}`)
	b.visit("/#/propose")
	b.choose("Search time", "2 seconds")
	b.press("button", "Propose")
	b.see("jobs get a day")
	for n := 1; n <= 2; n++ {
		b.until("day "+fmt.Sprint(n), fmt.Sprintf(`[...document.querySelectorAll('[data-row] button')].some((x) => x.getAttribute('aria-label')?.includes('Clear the moat, day %d of'))`, n))
	}
	b.until("regular", `[...document.querySelectorAll('[data-row][data-day="2027-03-23"] button')].some((x) => x.getAttribute('aria-label')?.includes('Sweep the cloister'))`)
	b.press("button", "Put them on their days")
	b.see("jobs are on their days.")
	seen := map[string]bool{}
	for _, d := range s.sheets() {
		for _, v := range d.Visits {
			for _, j := range v.Jobs {
				if seen[j.Title] && j.Title != "Sweep the cloister" && len(j.Title) > 14 && j.Title[:14] == "Clear the moat" {
					t.Errorf("%q stands twice", j.Title)
				}
				seen[j.Title] = true
			}
		}
	}
	if !seen["Clear the moat, day 2 of 3"] || !seen["Clear the moat, day 3 of 3"] || !seen["Sweep the cloister"] {
		t.Errorf("on the sheets stand %v", seen)
	}
	phone := open(t, s, 390, 844)
	phone.visit("/#/day/2027-03-23/2")
	phone.see("Sweep the cloister")
	phone.accessible("a day with a regular visit")
}
