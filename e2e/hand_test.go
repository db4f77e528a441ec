package e2e

import (
	"fmt"
	"strings"
	"testing"

	"github.com/chromedp/chromedp"
)

// covers is a page's own answer to whether two things on it lie over each other.
const covers = `(a, b) => { const x = a.getBoundingClientRect(), y = b.getBoundingClientRect();
	return x.width && y.width && x.left < y.right - 1 && y.left < x.right - 1 && x.top < y.bottom - 1 && y.top < x.bottom - 1; }`

// TestNothingUnderTheThumb: a message stands over no control, its undo where no button stood, and what was undone is
// said.
func TestNothingUnderTheThumb(t *testing.T) {
	t.Parallel()
	s := start(t, "demo", t.TempDir())
	b := open(t, s, 390, 844)
	b.visit("/#/walk/1/2")
	b.see("Next:")
	b.press("button", "Bark brown")
	b.see("Bark brown at")
	b.eval(`window.stood = [...document.querySelectorAll('main button, main select, nav a')].filter(e => e.offsetParent).map(e => {
		const r = e.getBoundingClientRect(); return {left: r.left, right: r.right, top: r.top, bottom: r.bottom, name: e.innerText}; })`)
	hidden := fmt.Sprintf(`(() => { const over = %s, bar = document.querySelector('.bar');
		return [...document.querySelectorAll('main button, main a, nav a, main select')].filter(e => !bar.contains(e) && e.offsetParent && over(bar, e)); })()`, covers)
	b.eval("window.under = " + hidden)
	b.press("button", "Accept")
	b.see("Common camellia, accepted")
	b.until("the way on", "[...document.querySelectorAll('button')].some(e => e.innerText === 'Next plant')")
	over, _ := b.eval(hidden + ".filter(e => !window.under.includes(e)).map(e => e.innerText).join(', ')").(string)
	if over != "" {
		t.Errorf("the message lies over %s", over)
	}
	undo, _ := b.eval(`(() => { const u = [...document.querySelectorAll('button')].find(e => e.innerText === 'Undo').getBoundingClientRect();
		const x = (u.left + u.right) / 2, y = (u.top + u.bottom) / 2;
		return window.stood.filter(s => x > s.left && x < s.right && y > s.top && y < s.bottom).map(s => s.name).join(', '); })()`).(string)
	if strings.Contains(undo, "Next plant") || strings.Contains(undo, "Accept") || strings.Contains(undo, "Bark") {
		t.Errorf("the undo stands where %q stood", undo)
	}
	b.press("button", "Undo")
	b.see("Taken back: common camellia, accepted")
}

// TestTypingIsTyping: what is opened for typing has the cursor, and no key acts on the walk while it is open.
func TestTypingIsTyping(t *testing.T) {
	t.Parallel()
	s := start(t, "demo", t.TempDir())
	b := open(t, s, 1280, 800)
	b.visit("/#/walk/1/2")
	b.see("Next:")
	b.press("button", "Note")
	b.until("the cursor in the note", "document.activeElement.tagName === 'TEXTAREA'")
	b.typeText("grr, t3 buds")
	b.until("what was typed", "document.querySelector('textarea').value === 'grr, t3 buds'")
	// The cursor elsewhere: the note is still open, and its keys do nothing to the walk.
	b.eval("document.activeElement.blur()")
	b.key("g")
	b.key("t")
	b.key("2")
	b.settled()
	if at, _ := b.eval("location.hash + document.querySelector('dialog[open]')").(string); at != "#/walk/1/2null" {
		t.Errorf("keys pressed beside an open note lead to %s", at)
	}
	if made, _ := b.eval("document.querySelector('[data-testid=progress]').innerText").(string); !strings.HasPrefix(made, "0 of") {
		t.Errorf("a key pressed beside an open note made a check: %s", made)
	}
	b.key("Escape")
	b.until("the note is closed", "!document.querySelector('textarea')")
	if at, _ := b.eval("location.hash").(string); at != "#/walk/1/2" {
		t.Errorf("Escape leads to %s", at)
	}
	b.press("button", "Note ✓")
	b.until("what was typed is kept", "document.querySelector('textarea').value === 'grr, t3 buds'")
}

// TestOwnVerdictComesFirst: a verdict of one's own is the headline, with its day; what the finds say stands below,
// small.
func TestOwnVerdictComesFirst(t *testing.T) {
	t.Parallel()
	s := start(t, "demo", t.TempDir())
	b := open(t, s, 1280, 800)
	b.visit("/#/walk/1/2")
	b.see("Next:")
	b.press("button", "Bark brown")
	b.see("Bark brown at")
	b.press("button", "Overrule")
	b.choose("Your verdict", "wait until")
	b.date("2027-06-20")
	b.fill("Why", "It came in June in other years.")
	b.press("button", "Keep my verdict")
	b.see("your verdict: wait until")
	b.until("the own verdict as the headline", "document.querySelector('[data-testid=sentence]').innerText.includes('Wait until 20 June')")
	b.see("It came in June in other years.")
	b.until("the estimate below it", "document.querySelector('[data-testid=estimate]').innerText.startsWith('By what was found')")
}

// TestSaidWithoutSignal: without a connection the phone says what was kept, and not that nothing was checked.
func TestSaidWithoutSignal(t *testing.T) {
	t.Parallel()
	s := start(t, "demo", t.TempDir())
	b := openKept(t, s, 390, 844)
	b.expect("ERR_CONNECTION_REFUSED")
	b.expect("failed request")
	b.visit("/#/walk/1/2")
	b.see("Next:")
	s.kill()
	b.press("button", "Bark brown")
	b.see("Bark brown kept; judged when back.")
	if said, _ := b.eval("document.querySelector('.bar').innerText").(string); strings.Contains(said, "Nothing has been checked") {
		t.Errorf("after a check it says %s", said)
	}
}

// TestAnswersInReach: on the phone the answers of the check that is asked for lie above the bar without scrolling,
// whatever the form of the plant, and magnified twice none lies under a bar that stays.
func TestAnswersInReach(t *testing.T) {
	t.Parallel()
	s := start(t, "demo", t.TempDir())
	var plants struct {
		Items []struct {
			ID         int64  `json:"id"`
			PropertyID int64  `json:"property_id"`
			Form       string `json:"form"`
			Common     string `json:"common"`
		} `json:"items"`
	}
	s.get("/api/v1/plants?limit=1000", &plants)
	b := open(t, s, 390, 844)
	seen := map[string]int{}
	for _, p := range plants.Items {
		if seen[p.Form]++; seen[p.Form] > 1 {
			continue
		}
		b.visit(fmt.Sprintf("/#/walk/%d/%d", p.PropertyID, p.ID))
		b.see(p.Common)
		b.until("the bar", "document.querySelector('.bar')")
		b.settled()
		hidden, _ := b.eval(`(() => { const bar = document.querySelector('.bar').getBoundingClientRect();
			const group = document.querySelector('[aria-label="Answers of the check that is asked for"]') ?? document.querySelector('[aria-label="Checks at this height"]');
			if (!group) return 'no answers';
			return [...group.querySelectorAll('button')].filter(e => { const r = e.getBoundingClientRect(); return r.top < 0 || r.bottom > bar.top; }).map(e => e.innerText).join(', '); })()`).(string)
		if hidden != "" {
			t.Errorf("%s (%s): out of reach: %s", p.Common, p.Form, hidden)
		}
	}
	if len(seen) < 6 {
		t.Errorf("only %d forms in the sample", len(seen))
	}
	small := open(t, s, 195, 422) // what a phone of 390 × 844 shows at 200 %
	small.visit("/#/walk/1/2")
	small.see("Next:")
	small.settled()
	under, _ := small.eval(`(() => { const nav = document.querySelector('nav[aria-label=Places]').getBoundingClientRect();
		return [...document.querySelectorAll('[aria-label="Checks at this height"] button')].filter(e => { e.scrollIntoView({block: 'center'}); const r = e.getBoundingClientRect();
			const x = (r.left + r.right) / 2, y = (r.top + r.bottom) / 2; return !e.contains(document.elementFromPoint(x, y)) && y < nav.top; }).map(e => e.innerText).join(', '); })()`).(string)
	if under != "" {
		t.Errorf("magnified twice, under a bar: %s", under)
	}
}

// TestEightForms walks eight plants of different forms on the phone, without a signal in the middle: the answers asked
// for lie above the bar, and each plant is done with few presses.
func TestEightForms(t *testing.T) {
	t.Parallel()
	s := start(t, "serve", t.TempDir(), "--today", "2027-03-18")
	s.post("/api/v1/properties", `{"name": "Boatyard", "climate_type": "lake-foothills"}`)
	for i, p := range []string{
		`"species": "viburnum-tinus", "height_m": 1.8`, `"species": "trachycarpus-fortunei", "height_m": 3`, `"species": "rosa-standard", "height_m": 1.5, "graft_m": 1`,
		`"species": "prunus-laurocerasus", "height_m": 1.6, "count": 14`, `"species": "hydrangea-macrophylla", "height_m": 1.2`,
		`"species": "citrus-limon", "height_m": 1.5, "pot_l": 60`, `"species": "thuja-occidentalis", "height_m": 2.2`, `"species": "hosta-hybrid", "height_m": 0.4`,
	} {
		s.post("/api/v1/plants", fmt.Sprintf(`{"property_id": 1, "stop": %d, %s}`, i+1, p))
	}
	b := openKept(t, s, 390, 844)
	b.expect("ERR_CONNECTION_REFUSED")
	b.expect("failed request")
	b.visit("/#/walk/1")
	for i := range 8 {
		b.until(fmt.Sprintf("plant %d", i+1), fmt.Sprintf("location.hash === '#/walk/1/%d'", i+1))
		if i < 3 {
			b.see("Next:")
		}
		b.settled()
		group := `(document.querySelector('[aria-label="Answers of the check that is asked for"]') ?? document.querySelector('[aria-label="Checks at this height"]'))`
		b.until("answers", group)
		hidden, _ := b.eval(`[...` + group + `.querySelectorAll('button')].filter(e => { const r = e.getBoundingClientRect();
			return r.top < 0 || r.bottom > document.querySelector('.bar').getBoundingClientRect().top; }).map(e => e.innerText).join(', ')`).(string)
		if hidden != "" {
			t.Errorf("plant %d: out of reach: %s", i+1, hidden)
		}
		presses := 0
		for range 3 {
			b.eval(group + "?.querySelector('button').click()")
			presses++
			b.settled()
		}
		if i == 2 {
			s.kill()
		}
		if i >= 3 {
			b.see("kept; judged when back")
		}
		b.press("button", "Next plant")
		if presses++; presses > 10 {
			t.Errorf("plant %d took %d presses", i+1, presses)
		}
	}
	b.see("The walk of Boatyard")
	b.see("still to send")
	startAt(t, strings.TrimPrefix(s.url, "http://"), "serve", s.data, "--today", "2027-03-18")
	b.until("all is sent", "!/still to send/.test(document.body.innerText)")
}

// TestTakeBackEverywhere: what was found on a palm, and beside the stem, is taken back like any other find; no answer
// of a check looks chosen before it is, and a sum that cannot be is refused where it is made.
func TestTakeBackEverywhere(t *testing.T) {
	t.Parallel()
	s := start(t, "serve", t.TempDir(), "--today", "2027-03-18")
	s.post("/api/v1/properties", `{"name": "Boatyard", "climate_type": "lake-foothills"}`)
	s.post("/api/v1/plants", `{"property_id": 1, "species": "trachycarpus-fortunei", "height_m": 3}`)
	s.post("/api/v1/plants", `{"property_id": 1, "species": "prunus-lusitanica", "height_m": 1.5, "count": 8}`)
	b := open(t, s, 390, 844)
	b.visit("/#/walk/1/1")
	b.press("button", "Spear came out")
	b.see("spear came out")
	b.press("button", "Take back")
	b.until("the spear is taken back", "!document.body.innerText.includes('the spear came out')")
	b.visit("/#/walk/1/2")
	b.see("Next:")
	b.press("button", "More checks")
	b.until("the kinds of check", "document.querySelector('dialog[open] [data-check=bark_ring]')")
	if chosen, _ := b.eval("document.querySelectorAll('dialog[open] [data-check=bark_ring] [aria-pressed=true]').length").(float64); chosen != 0 {
		t.Error("a share of the girth looks chosen before it is")
	}
	if open, _ := b.eval("[...document.querySelectorAll('dialog[open] [data-check=bark_ring] button')].filter(e => /bridge/.test(e.innerText)).some(e => !e.disabled)").(bool); open {
		t.Error("a ring can be noted without saying how far round it goes")
	}
	b.fill("Looked at and alike", "6")
	b.fill("Looked at and not alike", "3")
	b.see("9 looked at, but only 8 stand here.")
	if open, _ := b.eval("!document.querySelector('dialog[open] [data-check=sample] button:last-of-type').disabled").(bool); open {
		t.Error("a sum that cannot be can be noted")
	}
}

// TestEscapeClosesTheInnermost: it keeps a draft of what was typed, gives the focus back, and never leaves the place.
func TestEscapeClosesTheInnermost(t *testing.T) {
	t.Parallel()
	s := start(t, "demo", t.TempDir())
	b := open(t, s, 1280, 800)
	b.visit("/#/grounds/1")
	b.see("By the boathouse steps")
	b.press("button", "Add a plant")
	b.until("the form", "document.querySelector('form[aria-label=\"Add a plant\"]')")
	b.fill("Where it stands", "Behind the pump house")
	b.key("Escape")
	b.until("the form is closed", "!document.querySelector('form[aria-label=\"Add a plant\"]')")
	b.key("Escape")
	b.key("Escape")
	b.settled()
	if at, _ := b.eval("location.hash").(string); at != "#/grounds/1" {
		t.Errorf("Escape leads to %s", at)
	}
	b.press("button", "Add a plant")
	b.see("What you typed last time is here again.")
	b.until("the draft", "[...document.querySelectorAll('form input')].some(e => e.value === 'Behind the pump house')")
	b.press("button", "Start again")
	b.until("a clean form", "![...document.querySelectorAll('form input')].some(e => e.value === 'Behind the pump house')")
	// A fault puts the cursor where it can be put right, in the form's own words.
	b.expect("422 ")
	b.fill("Species", "Common camellia (Camellia japonica)")
	b.press("button", "Save")
	b.until("the cursor at the fault", "document.activeElement.getAttribute('aria-invalid') === 'true'")
	b.see("Height: 0 m")
}

// TestSpeciesByPart: part of a name offers the kinds to press.
func TestSpeciesByPart(t *testing.T) {
	t.Parallel()
	s := reading(t)
	b := open(t, s, 390, 844)
	b.visit("/#/grounds/1")
	b.see("By the boathouse steps")
	b.press("button", "Add a plant")
	b.until("the form", "document.querySelector('input[role=combobox]')")
	b.fill("Species", "camelli")
	b.until("three camellias or more", "document.querySelectorAll('[role=option]').length >= 2")
	b.see("stands here already")
	b.eval("[...document.querySelectorAll('[role=option] button')].find(e => e.innerText.startsWith('Common camellia')).click()")
	b.until("the one chosen", "document.querySelector('input[role=combobox]').value === 'Common camellia (Camellia japonica)'")
}

// cut are the texts that are clipped with no way to read the rest. The headline above the thumb stands whole in the
// slip.
const cut = `[...document.querySelectorAll('main *')].filter(e => /hidden|clip/.test(getComputedStyle(e).overflow) &&
	e.clientWidth > 1 && !e.title && !e.closest('[aria-hidden]') && (e.innerText ?? '').trim() &&
	(e.scrollWidth > e.clientWidth + 1 || e.scrollHeight > e.clientHeight + 1)).map(e => e.innerText).join(' | ')`

// outside names texts that lie beyond the right edge, but for those in a part that is meant to be moved sideways.
const outside = `[...document.querySelectorAll('main p, main h1, main h2, main h3, main button, main a, main td, main dd, main label, main input, main select')]
	.filter(e => e.getClientRects().length && e.getBoundingClientRect().right > innerWidth + 1 && !e.closest('[class*=overflow-x-auto], .sr-only'))
	.map(e => e.tagName + ' ' + (e.innerText ?? '').slice(0, 60)).slice(0, 5).join(' | ')`

// TestNothingIsCut: at every width, magnified twice and with names as long as they may be, no place is wider than the
// screen and no text is clipped.
func TestNothingIsCut(t *testing.T) {
	t.Parallel()
	s := start(t, "demo", t.TempDir())
	long := strings.Repeat("Long terrace by the lower basin ", 10)
	s.post("/api/v1/plants", fmt.Sprintf(`{"property_id": 1, "species": "camellia-japonica", "label": %q, "height_m": 2, "stop": 1}`, long[:300]))
	s.post("/api/v1/properties", fmt.Sprintf(`{"name": %q, "climate_type": "lake-foothills"}`, strings.ReplaceAll(long, " ", "")[:260]))
	s.post("/api/v1/orders", fmt.Sprintf(`{"property_id": 1, "kind": "other", "title": %q, "minutes": 30, "spans": [{"from": "2027-03-18", "to": "2027-04-18", "cost": 0}]}`, long[:300]))
	phone := []screen{{390, 844, false}, {195, 422, false}, {390, 844, true}}
	desk := []screen{{1280, 800, false}, {768, 1024, false}, {1280, 800, true}}
	for _, sizes := range [][]screen{phone, desk} {
		t.Run(fmt.Sprint(sizes[0]), func(t *testing.T) {
			t.Parallel()
			nothingIsCut(t, s, sizes)
		})
	}
}

// screen is a size at which places are looked at, and whether in full-sun reading.
type screen struct {
	w, h  int64
	glare bool
}

// nothingIsCut goes through all places at some sizes: each is opened at the first, and turned to the others.
func nothingIsCut(t *testing.T, s *server, sizes []screen) {
	b := open(t, s, sizes[0].w, sizes[0].h)
	for _, p := range []string{"/#/lookout", "/#/grounds/1", "/#/walk", "/#/walk/1/1", "/#/walk/1/end", "/#/plant/1", "/#/year", "/#/rounds", "/#/almanac", "/#/almanac/camellia-japonica", "/#/ails", "/#/ails/4", "/#/almanac/cause/lace-bug", "/#/call/1", "/#/cut/1", "/#/cuts/1", "/#/card/1", "/#/treat/12", "/#/stores", "/#/mix", "/#/propose", "/#/tell", "/#/day/2027-03-19", "/#/plant/77", "/#/settings", "/#/grounds/1/climate"} {
		for n, size := range sizes {
			if err := chromedp.Do(b.ctx, chromedp.EmulateViewport(size.w, size.h)); err != nil {
				t.Fatal(err)
			}
			if n == 0 {
				b.visit(p)
				b.until("something to read", "document.querySelector('main h1')")
			}
			b.eval(fmt.Sprintf("document.documentElement.classList.toggle('glare', %v)", size.glare))
			b.settled()
			if wide, _ := b.eval("document.documentElement.scrollWidth").(float64); wide > float64(size.w)+1 {
				t.Errorf("%s at %v is %g px wide", p, size, wide)
			}
			if out := b.eval(outside); out != "" {
				t.Errorf("%s at %v goes beyond the screen: %v", p, size, out)
			}
			if text := b.eval(cut); text != "" {
				t.Errorf("%s at %v is cut: %v", p, size, text)
			}
		}
	}
}
