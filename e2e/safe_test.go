package e2e

import (
	"fmt"
	"slices"
	"strings"
	"testing"
)

// TestSafeFirst: what hangs over people is said at the top while nobody may do it, and is the first visit of today
// once somebody may; nobody works on roses while another crew sprays them, nor before they may be entered again; the
// program is begun anew before the proposal is taken, and it is still there, from another start of the page too.
func TestSafeFirst(t *testing.T) {
	t.Parallel()
	s := start(t, "demo", t.TempDir())
	var walk struct{ ID int64 }
	s.walkOf(8, &walk)
	locust := fmt.Sprintf("/api/v1/walks/%d/plants/%d/", walk.ID, s.plantOf(8, "robinia-pseudoacacia").ID)
	s.put(locust+"checks", `{"checks": [{"kind": "danger", "result": "hanging_limb"}]}`)
	s.post(locust+"verdict", `{"decision": "accepted"}`)
	s.post("/api/v1/orders", `{"property_id": 5, "plants": [77], "title": "Tie the bedding roses in", "minutes": 40,
		"spans": [{"from": "2027-03-24", "to": "2027-03-25"}, {"from": "2027-03-26", "to": "2027-03-31", "cost": 40}]}`)
	b := open(t, s, 1280, 800)
	b.visit("/#/propose")
	b.choose("Search time", "2 seconds")
	b.press("button", "Propose")
	b.see("jobs get a day")
	limb := `[...document.querySelectorAll('[role=alert]')].some((x) => x.innerText.includes('Nobody can make this safe') && x.innerText.includes('Make Black locust × 2 safe') && x.innerText.includes('rope it off'))`
	b.until("it is said at the top", limb)
	b.accessible("a limb that nobody may take down")

	b.visit("/#/settings")
	b.press("button", "Change: Bruno")
	b.press("checkbox", "Licensed arborist")
	b.eval(`document.querySelector('form[aria-label="A person"]').requestSubmit()`)
	b.see("climbing, chainsaw, ladder, licensed arborist")
	b.settled()
	b.visit("/#/propose")
	b.press("button", "Propose")
	b.see("jobs get a day")
	b.until("nothing is said any more", "!"+limb)
	first := `[...document.querySelectorAll('[data-row][data-day="2027-03-18"] button')].map((x) => x.getAttribute('aria-label')).filter((x) => x?.includes('Make Black locust × 2 safe')).length`
	if b.eval(first) != 2.0 { // it takes two, and who may do it is alone: both crews come together
		t.Errorf(
			"today stand %v",
			b.eval(
				`[...document.querySelectorAll('[data-row][data-day="2027-03-18"] button')].map((x) => x.getAttribute('aria-label'))`,
			),
		)
	}

	s.kill()
	s.again()
	b.visit("/#/lookout")
	b.see("Which property first")
	b.visit("/#/propose")
	b.see("14 days from Thu 18 March")
	b.press("button", "Open the last proposal")
	b.see("Put them on their days")
	b.press("button", "Put them on their days")
	b.see("jobs are on their days.")
	for crew := 1; crew <= 2; crew++ {
		today := daySheet{on: "2027-03-18"}
		s.get(fmt.Sprintf("/api/v1/rounds/sheet?day=2027-03-18&crew=%d", crew), &today)
		if len(today.Visits) == 0 || !strings.HasPrefix(today.Visits[0].Jobs[0].Title, "Make Black locust × 2 safe") {
			t.Errorf("the day of crew %d begins with %+v", crew, today.Visits)
		}
	}
	tied, sprayed := "", ""
	for _, d := range s.sheets() {
		for _, v := range d.Visits {
			tie := slices.IndexFunc(
				v.Jobs,
				func(j struct{ Title, State string }) bool { return j.Title == "Tie the bedding roses in" },
			)
			spray := slices.IndexFunc(v.Jobs, func(j struct{ Title, State string }) bool {
				return strings.Contains(j.Title, "Wettable sulphur on Bedding rose")
			})
			if tie >= 0 && spray >= 0 && tie > spray {
				t.Errorf("in one visit they are tied in after the spraying: %+v", v.Jobs)
			}
			if tie >= 0 {
				tied = d.on + " " + d.crew
			}
			if spray >= 0 {
				sprayed = d.on + " " + d.crew
			}
		}
	}
	if tied == "" || sprayed == "" {
		t.Fatalf("tied in on %q, sprayed on %q", tied, sprayed)
	}
	if tied[:10] == sprayed[:10] && tied != sprayed || tied[:10] == nextDay(sprayed[:10]) {
		t.Errorf("tied in on %s, sprayed on %s", tied, sprayed)
	}
}

// nextDay is the day after one of March.
func nextDay(on string) string {
	var d int
	_, _ = fmt.Sscanf(on, "2027-03-%d", &d)
	return fmt.Sprintf("2027-03-%02d", d+1)
}
