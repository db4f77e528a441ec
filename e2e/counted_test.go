package e2e

import (
	"fmt"
	"os"
	"path/filepath"
	"strings"
	"testing"
)

// counted is a browser whose presses and keys are counted: a press into a field is one, a list two, a file two.
type counted struct {
	*browser
	presses, keys int
}

func (c *counted) press(role, name string) {
	c.t.Helper()
	c.browser.press(role, name)
	c.presses++
}
func (c *counted) fill(name, text string) {
	c.t.Helper()
	c.browser.fill(name, text)
	c.presses, c.keys = c.presses+1, c.keys+len(text)
}
func (c *counted) choose(name, option string) {
	c.t.Helper()
	c.browser.choose(name, option)
	c.presses += 2
}
func (c *counted) upload(name, path string) {
	c.t.Helper()
	c.browser.upload(name, path)
	c.presses += 2
}

// typed types into the field that has the focus; Tab and Enter are keys too.
func (c *counted) typed(keys ...string) {
	c.t.Helper()
	for _, k := range keys {
		switch k {
		case "Enter":
			c.key(k)
			c.keys++
		case "Tab":
			c.eval(`(() => { const all = [...document.querySelectorAll('input, select, textarea, button, a[href], summary')].filter((e) => !e.disabled && e.tabIndex >= 0 && e.offsetParent);
				all[all.indexOf(document.activeElement) + 1]?.focus(); return 1; })()`)
			c.keys++
		default:
			c.typeText(k)
			c.keys += len(k)
		}
	}
}

// TestSetUpInFewPresses: a new firm with its owner enters two gardens with weather from files and 36 plants, thirty from files and
// six by hand, in at most 60 presses and 200 keys; a plant on the walk then takes at most 6 presses.
func TestSetUpInFewPresses(t *testing.T) {
	t.Parallel()
	s := start(t, "serve", t.TempDir(), "--today", "2027-03-18")
	c := &counted{browser: open(t, s, 1280, 800)}
	file := func(name, text string) string {
		p := filepath.Join(t.TempDir(), name)
		if err := os.WriteFile(p, []byte(text), 0o600); err != nil {
			t.Fatal(err)
		}
		return p
	}
	days := "Date,Tmin (°C),Tmax (°C)\n"
	for d := range 60 {
		low := 1
		if d == 40 {
			low = -13
		}
		days += fmt.Sprintf("2027-01-%02d,%d,9\n", d%28+1, low)
		if d == 27 {
			break
		}
	}
	days = strings.Replace(days, "2027-01-20,1", "2027-01-20,-13", 1)
	plants := "species,label,height_m\n" + strings.Repeat("Common camellia,Drive,2\nOlive,Court,3\nBay laurel,Gate,1.8\nLavender,Steps,0.5\nCommon box,Edge,0.4\n", 3)
	for i := range strings.Count(plants, "Drive") {
		plants = strings.Replace(plants, "Drive", fmt.Sprintf("Drive%d", i+1), 1)
	}

	c.visit("/")
	c.press("link", "Enter the owner")
	c.fill("Your name", "Ilda")
	c.fill("Name you sign in by", "il")
	c.fill("Password, ten", "alder kite")
	c.fill("The same again", "alder kite")
	c.press("button", "I am the owner")
	c.see("You are signed in.")
	c.press("link", "Grounds")
	for i, name := range []string{"Weir", "Mill"} {
		if i == 0 {
			c.press("button", "Add the first property")
		} else {
			c.press("button", "Add")
		}
		c.fill("Name", name)
		c.fill("Find the climate", "Milan")
		c.until("a climate that is found", "document.querySelector('[aria-label=\"Climates found\"] button')")
		c.eval("document.querySelector('[aria-label=\"Climates found\"] button').click()")
		c.presses++
		c.press("button", "Save")
		c.see("Nothing grows here yet")
		c.upload("Weather from a file", file("days.csv", days))
		c.see("hours taken from days.csv")
		c.upload("Plants from a file", file("plants.csv", plants))
		if i == 0 { // asked about once, in the first file
			c.choose("Lavender is", "Common lavender (Lavandula angustifolia)")
			c.press("button", "Take the 15 plants")
		}
		c.see("plants or groups added")
	}
	c.press("button", "Add a plant")
	for i, kind := range []string{"nerium", "ficus c", "rosmar", "hydr m", "wist s", "acer pal"} {
		c.until("the form", "document.activeElement?.getAttribute('role') === 'combobox'")
		c.typed(kind)
		c.until("a kind that is found", "document.querySelector('[role=option]')")
		c.typed("Enter", "Tab", fmt.Sprintf("B%d", i+1), "Tab", "1.5", "Enter")
		c.see(fmt.Sprintf("B%d added", i+1))
	}
	n, _ := c.eval(`(() => { const r = new XMLHttpRequest(); r.open('GET', '/api/v1/plants?limit=100', false); r.send(); return JSON.parse(r.responseText).items.length; })()`).(float64)
	t.Logf("%.0f plants in %d presses and %d keys", n, c.presses, c.keys)
	if n != 36 || c.presses > 60 || c.keys > 200 {
		t.Errorf("%.0f plants in %d presses and %d keys", n, c.presses, c.keys)
	}
	// A plant on the walk: two checks, accepted, and on to the next.
	c.visit("/#/walk/1")
	c.see("Next:")
	c.presses = 0
	at, _ := c.eval("location.hash").(string)
	c.press("button", "Bark green")
	c.until("the verdict", "[...document.querySelectorAll('button')].some((x) => x.textContent.trim() === 'Accept' && !x.disabled)")
	c.press("button", "Accept")
	c.press("button", "Next plant")
	c.until("the next plant", fmt.Sprintf("location.hash !== %q", at))
	if c.presses > 6 {
		t.Errorf("%d presses for a plant on the walk", c.presses)
	}
}
