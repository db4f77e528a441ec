package e2e

import (
	"testing"

	"github.com/chromedp/cdproto/input"
	"github.com/chromedp/chromedp"
)

// clickAt presses the mouse at a point of the page.
func (b *browser) clickAt(x, y float64) {
	b.t.Helper()
	for _, kind := range []input.DispatchMouseEventType{"mousePressed", "mouseReleased"} {
		p := input.DispatchMouseEventParams{Type: kind, X: x, Y: y, Button: "left", Buttons: 1, ClickCount: 1}
		if _, err := chromedp.Call(b.ctx, input.DispatchMouseEvent, p); err != nil {
			b.t.Fatal(err)
		}
	}
}

// tapAt touches a point of the page with a finger.
func (b *browser) tapAt(x, y float64) {
	b.t.Helper()
	touch := []*input.TouchPoint{{X: x, Y: y}}
	if _, err := chromedp.Call(b.ctx, input.DispatchTouchEvent, input.DispatchTouchEventParams{Type: "touchStart", TouchPoints: touch}); err != nil {
		b.t.Fatal(err)
	}
	if _, err := chromedp.Call(b.ctx, input.DispatchTouchEvent, input.DispatchTouchEventParams{Type: "touchEnd", TouchPoints: []*input.TouchPoint{}}); err != nil {
		b.t.Fatal(err)
	}
}

// thing is the thing on a plan whose name holds some words.
func thing(words string) string {
	return `[...document.querySelectorAll('svg[aria-label^=Plan] g[role=button]')].find((x) => x.getAttribute('aria-label').includes('` + words + `'))`
}

// TestDrawPlan: a small property is drawn by mouse, a plant is placed, its sun is read; the hedge cut back shows what
// it does; a step is taken back; all is kept; then the same by touch on a phone.
func TestDrawPlan(t *testing.T) {
	t.Parallel()
	s := garden(t, "2027-03-18")
	s.post("/api/v1/plants", `{"property_id": 1, "species": "hydrangea-macrophylla", "label": "Gate", "height_m": 1.2, "spread_m": 1.2}`)
	b := open(t, s, 1280, 800)
	b.visit("/#/grounds/1")
	b.press("link", "Plan")
	b.see("Nothing is drawn yet.")
	b.accessible("an empty plan")
	plan := `document.querySelector('svg[aria-label^=Plan]')`
	x, y := b.at(plan)
	b.choose("Draw", "House")
	for _, c := range [][2]float64{{-120, -160}, {120, -160}, {120, -60}, {-120, -60}} {
		b.clickAt(x+c[0], y+c[1])
	}
	b.press("button", "Done")
	b.see("Kept")
	b.choose("Draw", "Hedge")
	b.clickAt(x-200, y+60)
	b.clickAt(x+200, y+60)
	b.press("button", "Done")
	b.until("the hedge is picked", "document.querySelector('[aria-label=\"What is picked\"]')?.innerText.includes('Hedge')")
	b.fill("Height (m)", "4")
	b.eval(`document.activeElement.blur()`)
	b.until("a place for plants", "[...document.querySelectorAll('button')].some(x => /^Place plants/.test(x.textContent))")
	b.eval(`[...document.querySelectorAll('button')].find(x => /^Place plants/.test(x.textContent)).click()`)
	b.clickAt(x, y+45)
	b.until("its sun", "/hours of strong sun a day in summer/.test(document.querySelector('[aria-label=\"Its spot\"]')?.innerText)")
	b.accessible("a plant's sun")
	b.until("kept", "[...document.querySelectorAll('[role=status]')].some((x) => x.innerText === 'Kept')")
	var kept struct {
		Version int
		Plan    struct {
			Things []struct {
				Kind   string
				Height float64 `json:"height_m"`
			}
		}
	}
	s.get("/api/v1/properties/1/plan", &kept)
	if len(kept.Plan.Things) != 3 || kept.Plan.Things[1].Height != 4 {
		t.Fatalf("kept: %+v", kept)
	}
	b.press("button", "Pick and move")
	hx, hy := b.at(thing("Hedge"))
	b.clickAt(hx, hy)
	b.until("the hedge again", "document.querySelector('[aria-label=\"What is picked\"]')?.innerText.includes('Hedge')")
	b.press("button", "It is gone")
	b.until("what it does", "/gone: (no plant|[0-9]+ plants?) would feel it/.test(document.querySelector('[aria-label=\"Before and after\"]').innerText)")
	b.press("button", "Take off the plan")
	b.see("Hedge is off the plan.")
	b.press("button", "Undo")
	b.until("it is back", thing("Hedge")+" !== undefined")
	b.until("kept again", "[...document.querySelectorAll('[role=status]')].some((x) => x.innerText === 'Kept')")

	phone := open(t, s, 390, 844)
	phone.visit("/#/grounds/1/plan")
	phone.until("drawn", thing("Hedge")+" !== undefined")
	phone.accessible("a plan on a phone")
	px, py := phone.at(plan)
	phone.choose("Draw", "Tree")
	phone.tapAt(px-60, py+80)
	phone.until("a tree", "document.querySelector('[aria-label=\"What is picked\"]')?.innerText.includes('Tree')")
}

// TestReplaceByFit: a plant that froze is replaced: kinds are ranked with reasons, those left out say why, two stand
// side by side, and the planting becomes a job with its water.
func TestReplaceByFit(t *testing.T) {
	t.Parallel()
	s := start(t, "demo", t.TempDir())
	b := open(t, s, 1280, 800)
	b.visit("/#/replace/1/7")
	b.see("What to plant in place of Lemon")
	b.see("kinds may stand there")
	b.accessible("what fits")
	b.choose("It died of", "Winter freeze of buds and wood")
	b.until("the lemon is left out", "[...document.querySelectorAll('details li')].some(x => /^Lemon/.test(x.textContent) && /froze|bear/.test(x.textContent))")
	b.press("checkbox", "Evergreen")
	b.press("button", "Rank kinds for it")
	b.until("only evergreens", "[...document.querySelectorAll('details li')].some(x => /not evergreen/.test(x.textContent))")
	b.eval(`[...document.querySelectorAll('button')].filter(x => x.textContent.startsWith('Side by side')).slice(0, 2).forEach(x => x.click())`)
	b.until("side by side", "document.querySelectorAll('section[aria-label=\"Side by side\"] svg').length === 2")
	b.accessible("two side by side")
	b.eval(`[...document.querySelectorAll('button')].find(x => x.textContent.startsWith('Plant it')).click()`)
	b.see("with its water after it")
	b.until("the job", "location.hash.startsWith('#/rounds/')")
	b.see("for Lemon")
}

// TestWinterToCome: what comes in is listed against the room there is, becomes jobs in one go, and a bulb is worked
// back from its bloom.
func TestWinterToCome(t *testing.T) {
	t.Parallel()
	s := garden(t, "2027-09-10")
	s.post("/api/v1/plants", `{"property_id": 1, "species": "citrus-limon", "label": "Court", "height_m": 1.8, "spread_m": 1.3, "pot_l": 60, "count": 6}`)
	s.post("/api/v1/plants", `{"property_id": 1, "species": "dahlia-pinnata", "height_m": 0.9, "spread_m": 0.6, "count": 12}`)
	b := open(t, s, 1280, 800)
	b.visit("/#/grounds/1")
	b.press("link", "Winter")
	b.see("of floor for what comes in")
	b.see("Lemon × 6, Court")
	b.see("Tubers lifted and stored dry")
	b.accessible("the winter to come")
	b.fill("Cold house has (m²)", "3")
	b.see("too much: keep the dear ones")
	b.press("button", "Make jobs of it for 2")
	b.see("jobs stand for the winter")
	b.see("its jobs stand")
	b.choose("Kind", "Daffodil")
	b.eval(`(() => { const e = document.querySelector('input[type=date]'); e.value = '2028-02-20'; e.dispatchEvent(new Event('input', {bubbles: true})); })()`)
	b.press("button", "Work back")
	b.until("worked back", "document.querySelectorAll('[data-testid=forced] li').length === 4")
}
