package e2e

import (
	"flag"
	"fmt"
	"path/filepath"
	"testing"
)

var pictures = flag.String("pictures", "", "folder to write the pictures of the main views to")

// TestPictures takes one picture of each main view on the demo data. It runs only when asked for: make screenshots.
func TestPictures(t *testing.T) {
	t.Parallel()
	if *pictures == "" {
		t.Skip("asked for with -pictures")
	}
	s := start(t, "demo", t.TempDir())
	desk := open(t, s, 1280, 800)
	take := func(b *browser, name string) {
		b.eval(`document.querySelectorAll('[aria-label="Close message"]').forEach((e) => e.click())`)
		b.shot(filepath.Join(*pictures, name+".png"))
	}

	desk.visit("/#/lookout")
	desk.see("Which property first")
	desk.see("before half of it dies")
	take(desk, "lookout")
	desk.visit("/#/grounds/1")
	desk.see("By the boathouse steps")
	take(desk, "grounds")
	desk.visit("/#/ledger")
	desk.see("Waits on a client")
	take(desk, "ledger")
	desk.visit("/#/walk/1/1")
	check(desk)
	take(desk, "walk")
	desk.press("button", "Accept")
	desk.see("jobs on the year")
	for _, plant := range []string{"1/6", "2/25", "3/35"} { // an oleander row, a camellia, another oleander
		desk.visit("/#/walk/" + plant)
		check(desk)
		desk.press("button", "Accept")
		desk.settled()
	}
	desk.visit("/#/plant/1")
	desk.see("Walks and verdicts")
	take(desk, "plant")
	desk.visit("/#/year")
	desk.see("Look again")
	desk.see("as it was entered by hand") // what the chosen job's day costs comes after its lane
	take(desk, "year")
	desk.visit("/#/propose")
	desk.choose("Search time", "2 seconds")
	desk.press("button", "Propose")
	desk.see("jobs get a day")
	desk.eval(`[...document.querySelectorAll('button[aria-pressed]')].find((x) => x.getAttribute('aria-label')?.includes('Priory courtyard')).click()`)
	desk.until("why", "document.querySelector('[data-testid=why]')")
	take(desk, "rounds")

	desk.visit("/#/almanac/hydrangea-macrophylla")
	desk.see("Hardy here")
	take(desk, "almanac")

	desk.visit("/#/ails/4")
	desk.press("button", "Upper side of leaves")
	desk.press("button", "Seen: Fine pale speckles")
	desk.until("the next question", "document.querySelector('[aria-label=\"The next question\"]')")
	take(desk, "ails")
	desk.visit("/#/almanac/cause/lace-bug")
	desk.see("Kinds you keep that take it")
	desk.eval("window.scrollTo(0, 420)")
	take(desk, "cause")
	desk.visit("/#/call/2")
	desk.press("button", "Wet, and it hangs all the same")
	desk.press("button", "This one alone")
	desk.press("button", "A picture to be sent")
	desk.eval("window.scrollTo(0, 0)")
	take(desk, "call")

	desk.visit("/#/cut/1")
	desk.see("better when the bloom is over")
	for range 8 {
		desk.press("button", "Lower")
	}
	desk.press("button", "Next year:")
	take(desk, "cut")
	desk.visit("/#/grounds/1/plan")
	cedar := `[...document.querySelectorAll('svg[aria-label^=Plan] g[role=button]')].find((x) => x.getAttribute('aria-label') === 'Cedar')`
	desk.until("the plan", cedar+" !== undefined")
	desk.eval(`(() => { const e = document.querySelector('input[type=range]'); e.value = 16; e.dispatchEvent(new Event('input', {bubbles: true})); })()`)
	desk.clickAt(desk.at(cedar))
	desk.press("button", "It is gone")
	desk.see("would feel it")
	desk.eval("window.scrollTo(0, 0)")
	take(desk, "plan")
	desk.visit("/#/replace/1/7")
	desk.choose("It died of", "Winter freeze of buds and wood")
	desk.see("kinds may stand there")
	desk.eval("window.scrollTo(0, 0)")
	take(desk, "replace")
	desk.visit(fmt.Sprintf("/#/treat/%d", s.findOf("armoured-scale")))
	desk.see("Enough now")
	take(desk, "treat")
	desk.visit("/#/stores")
	desk.see("Use record")
	take(desk, "stores")

	phone := open(t, s, 390, 844)
	var link struct{ Token string }
	s.postFor("/api/v1/properties/2/client-links", `{"days": 30}`, &link)
	phone.visit("/#/client/" + link.Token)
	phone.see("Say yes or no to each line")
	take(phone, "client-phone")
	phone.visit("/#/walk/3/38")
	check(phone)
	take(phone, "walk-phone")
	phone.visit("/#/day/2027-03-18/2")
	phone.see("to do by Crew 2")
	take(phone, "day-phone")
}

// check makes three checks, as a gardener would, that leave the top of the plant in doubt: buds rubbed where it is
// suggested, then bark scratched lower down.
func check(b *browser) {
	b.t.Helper()
	b.see("Nothing has been checked yet")
	for range 3 {
		b.press("button", "Bud broke")
	}
	b.see("0 of 3 buds held")
	for range 3 {
		b.press("button", "Lower")
	}
	b.press("button", "Bark green")
	b.see("Bark green at")
}
