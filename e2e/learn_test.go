package e2e

import (
	"fmt"
	"testing"
)

// TestLearns: after plants of a garden were found alive that its station would have had dead, the ledger says that the
// garden is warmer, and it can be set aside; in June it is asked how they turned out, told by one press and taken
// back.
func TestLearns(t *testing.T) {
	t.Parallel()
	s := start(t, "demo", t.TempDir())
	var walk struct{ ID int64 }
	s.walkOf(3, &walk)
	for _, p := range s.plants(3) {
		if p.Form != "shrub" && p.Form != "tree" && p.Form != "climber" && p.Form != "subshrub" {
			continue
		}
		checks := ""
		for _, x := range []float64{0.1, 0.4, 0.7, 0.95} {
			checks += fmt.Sprintf(`{"kind": "scratch", "height_m": %.2f, "result": "green"},`, x*p.HeightM)
		}
		at := fmt.Sprintf("/api/v1/walks/%d/plants/%d/", walk.ID, p.ID)
		s.put(at+"checks", `{"checks": [`+checks[:len(checks)-1]+`]}`)
		s.post(at+"verdict", `{"decision": "overruled", "kind": "wait until", "note": "To see what comes"}`)
	}
	b := open(t, s, 1280, 800)
	b.visit("/#/ledger")
	b.see("What freezes have shown of gardens and kinds")
	b.until(
		"it is warmer",
		`[...document.querySelectorAll('tr')].some((r) => /Hillside terrace.*runs .* warmer/s.test(r.innerText))`,
	)
	b.accessible("what freezes have shown")
	b.press("button", "Do not use: Hillside terrace")
	b.see("Not used any more: Hillside terrace")
	b.press("button", "Undo")
	b.until("used again", `[...document.querySelectorAll('button')].some((x) => x.innerText.startsWith('Do not use'))`)
	b.press("button", "Go by stations and book alone")
	b.see("Not used: forecasts go by stations and book alone.")

	s.put("/api/v1/today", `{"day": "2027-06-25"}`)
	phone := open(t, s, 390, 844)
	phone.visit("/#/lookout")
	phone.see("How did they turn out?")
	phone.accessible("how they turned out")
	many := phone.text("[aria-label='How did they turn out'] p")
	phone.eval(
		`[...document.querySelectorAll('[aria-label="How did they turn out"] button')].find((x) => x.innerText.startsWith('Alive')).click()`,
	)
	phone.see(": alive.")
	phone.until(
		"one less",
		fmt.Sprintf(`document.querySelector('[aria-label="How did they turn out"] p')?.innerText !== %q`, many),
	)
	phone.press("button", "Undo")
	phone.until(
		"asked again",
		fmt.Sprintf(`document.querySelector('[aria-label="How did they turn out"] p')?.innerText === %q`, many),
	)
}

// TestPractice: a made-up garden is gone through on a phone: plants are checked and decided on, the truth is told at
// the end, the score is kept, and the record is as it was.
func TestPractice(t *testing.T) {
	t.Parallel()
	s := start(t, "demo", t.TempDir())
	before := len(s.plants(1))
	b := open(t, s, 390, 844)
	b.visit("/#/walk")
	b.press("link", "Practise on a made-up garden")
	b.see("Nothing of it gets into your record")
	b.choose("Climate", "Lake in mild southern foothills")
	b.press("button", "Begin")
	b.see("went down to")
	for n := range 6 {
		b.press("button", "Scratch the bark")
		b.until("it shows something", `document.querySelectorAll('main li, li.border-b').length > 6`)
		b.press("button", "Rub ten buds there")
		b.press(
			"button",
			[]string{"Leave it as it is", "Wait", "Cut back to live wood", "Replace it", "Cut to the base", "Leave it as it is"}[n],
		)
		if n == 2 {
			b.accessible("a plant of a made-up garden")
		}
		if n < 5 {
			b.press("button", "Next plant")
		}
	}
	b.press("button", "See how you did")
	b.see("of what was to be saved")
	b.see("By the same checks the program would have saved")
	b.accessible("how one did")
	b.press("button", "Another garden")
	b.see("6 to decide")
	b.choose("Practise on", "What ails plants")
	b.press("button", "Begin")
	for n := range 6 {
		b.see("Press what you look for")
		b.eval(`document.querySelector('h3 + div button').click()`)
		b.until("it is looked for", `/: (not )?there/.test(document.querySelector('h3 + div button').innerText)`)
		if n == 1 {
			b.accessible("an ailing plant that is made up")
		}
		b.eval(`document.querySelector('fieldset button').click()`)
		if n < 5 {
			b.press("button", "Next plant")
		}
	}
	b.press("button", "See how you did")
	b.see("of what mistakes cost was spared")
	b.accessible("how one named")
	b.visit("/#/lookout")
	b.see("Which property first")
	b.visit("/#/practice")
	b.see("How it went")
	b.see("What ails plants")
	if now := len(s.plants(1)); now != before {
		t.Errorf("%d plants in the record, %d before", now, before)
	}
}
