package e2e

import (
	"fmt"
	"testing"

	"github.com/chromedp/cdproto/input"
	"github.com/chromedp/chromedp"
)

// drag presses at one place of the page, moves over others in steps, runs something while the button is held, and lets go.
func (b *browser) drag(fromX, fromY, toX, toY float64, held func()) {
	b.t.Helper()
	mouse := func(kind input.DispatchMouseEventType, x, y float64) {
		b.t.Helper()
		p := input.DispatchMouseEventParams{Type: kind, X: x, Y: y, Button: "left", Buttons: 1, ClickCount: 1}
		if _, err := chromedp.Call(b.ctx, input.DispatchMouseEvent, p); err != nil {
			b.t.Fatal(err)
		}
	}
	mouse("mousePressed", fromX, fromY)
	for i := 1; i <= 8; i++ {
		mouse("mouseMoved", fromX+(toX-fromX)*float64(i)/8, fromY+(toY-fromY)*float64(i)/8)
	}
	held()
	mouse("mouseReleased", toX, toY)
}

// at is where something stands on the page.
func (b *browser) at(expression string) (x, y float64) {
	b.t.Helper()
	b.until(expression, "!!("+expression+")")
	pair, ok := b.eval("(() => { const r = (" + expression + ").getBoundingClientRect(); return [r.left + r.width / 2, r.top + r.height / 2]; })()").([]any)
	if !ok || len(pair) != 2 {
		b.t.Fatalf("%s stands nowhere", expression)
	}
	return pair[0].(float64), pair[1].(float64)
}

// TestYearInFull: lanes by kind and filtered by word; a job dragged sideways shows what each day costs and is put on the one it is let
// go at; undo takes it off again; keys do the same.
func TestYearInFull(t *testing.T) {
	t.Parallel()
	s := start(t, "demo", t.TempDir())
	b := open(t, s, 1280, 800)
	b.visit("/#/year/2")
	b.see("Clear dead wood from Common yew")
	b.accessible("the year")
	b.choose("Work", "cut")
	b.until("cuts alone", "!document.querySelector('[aria-label=Lanes]').innerText.includes('Tie in the vine')")
	b.fill("Words", "camellia")
	b.see("one job")
	lane := `[...document.querySelectorAll('[data-i]')].find((e) => e.innerText.includes('Cut Common camellia'))`
	x, y := b.at(lane)
	b.drag(x-300, y+10, x+60, y+10, func() {
		b.until("the cost while it moves", "/June|May/.test(document.querySelector('[aria-label=\"What this day costs\"]').innerText)")
		b.until("why", "document.querySelector('[data-testid=year-cost]').innerText.length > 2")
	})
	b.see("Cut Common camellia: on ")
	job := s.orderOf("Cut Common camellia")
	day := func() string {
		var o struct {
			Day string `json:"day"`
		}
		s.get(fmt.Sprintf("/api/v1/orders/%d", job), &o)
		return o.Day
	}
	if day() == "" {
		t.Error("it is on no day")
	}
	b.press("button", "Undo")
	b.until("off its day", "!document.querySelector('[aria-label=\"What this day costs\"]').innerText.includes('\\nOn ')")
	if on := day(); on != "" {
		t.Errorf("after undo it is still on %s", on)
	}
	b.eval("document.activeElement?.blur()")
	b.key("ArrowRight")
	b.key("p")
	b.see("Cut Common camellia: on ")
	b.fill("Words", "nothing like that")
	b.press("button", "Show all")
	b.see("Cut Rosemary")
	b.press("checkbox", "Closes in 21 days")
	b.until("fewer", "!document.querySelector('[aria-label=Lanes]')?.innerText.includes('Cut Rosemary')")
}

// TestHouseRuleMovesTheYear: a rule changed in Settings moves what hangs on it, and the cut's slip says which rule spoke; a property may
// choose otherwise.
func TestHouseRuleMovesTheYear(t *testing.T) {
	t.Parallel()
	s := start(t, "demo", t.TempDir())
	b := open(t, s, 1280, 800)
	best := func() string {
		var p struct {
			Best string `json:"best"`
		}
		s.postFor("/api/v1/reckon/pruning", `{"species": "rosa-bedding", "property": 5, "date": "2027-11-20"}`, &p)
		return p.Best
	}
	if m := best()[5:7]; m > "04" || m < "02" {
		t.Fatalf("at bud swell: %s", best())
	}
	b.visit("/#/settings")
	b.choose("Repeat-flowering roses", "are cut in winter, shortened against wind rock")
	b.press("button", "Save")
	b.see("Settings saved.")
	if m := best()[5:7]; m != "11" && m != "12" && m != "01" {
		t.Errorf("in winter: %s", best())
	}
	b.visit("/#/grounds/5")
	b.press("button", "More for")
	b.press("button", "Change property")
	b.press("button", "House rules that are others here")
	b.choose("Repeat-flowering roses", "are cut at bud swell")
	b.press("button", "Save")
	b.until("kept", "!document.querySelector('form[aria-label=\"Change the property\"]')")
	if m := best()[5:7]; m > "04" || m < "02" {
		t.Errorf("here at bud swell: %s", best())
	}
}

// TestCutCard: the card tells the crew when, where and how, with a drawing, fits a phone, and prints without the frame round it.
func TestCutCard(t *testing.T) {
	t.Parallel()
	s := reading(t)
	b := open(t, s, 390, 844)
	b.visit("/#/card/1?purpose=size&cut=1.9")
	b.see("to keep it smaller")
	b.see("Broken lines go.")
	b.see("Nests in use are protected")
	b.accessible("a cut card")
	if wide, _ := b.eval("document.documentElement.scrollWidth > 390").(bool); wide {
		t.Error("the card is wider than the phone")
	}
	if n := b.printed(); n != 1 {
		t.Errorf("the card prints on %d pages, want one", n)
	}
}
