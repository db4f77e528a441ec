package e2e

import (
	"encoding/json"
	"fmt"
	"os"
	"regexp"
	"slices"
	"strings"
	"testing"
)

// TestHelpOfEachScreen: each screen has a page of five lines, and each of these a place in its picture.
func TestHelpOfEachScreen(t *testing.T) {
	t.Parallel()
	type page struct {
		ID, At, Name string
		Lines        []struct {
			Say string
			Box [4]float64
		}
	}
	var pages []page
	text, err := os.ReadFile("../web/src/overview/help.json")
	if err == nil {
		err = json.Unmarshal(text, &pages)
	}
	if err != nil {
		t.Fatal(err)
	}
	app, err := os.ReadFile("../web/src/App.svelte")
	if err != nil {
		t.Fatal(err)
	}
	routes := regexp.MustCompile(`(?m)^    '(/[^']*)': `).FindAllStringSubmatch(string(app), -1)
	if len(routes) < 30 {
		t.Fatalf("only %d screens", len(routes))
	}
	outside := regexp.MustCompile(`^/(owner|invite|client)`) // before somebody is in
	for _, r := range routes {
		path := regexp.MustCompile(`:\w+\??`).ReplaceAllString(r[1], "7")
		found := slices.ContainsFunc(pages, func(p page) bool { return p.At != "" && regexp.MustCompile(p.At).MatchString(path) })
		if !found && !outside.MatchString(path) {
			t.Errorf("%s has no help", path)
		}
	}
	for _, p := range pages {
		if len(p.Lines) != 5 || p.Name == "" {
			t.Errorf("%s: %d lines", p.ID, len(p.Lines))
		}
		for _, l := range p.Lines {
			if b := l.Box; b[0] < 0 || b[1] < 0 || b[2] < 8 || b[3] < 5 || b[0]+b[2] > 160 || b[1]+b[3] > 100 {
				t.Errorf("%s: %q at %v", p.ID, l.Say, b)
			}
		}
	}
}

// TestHelp: help is reached by a key, from the phone and from the search, and what is looked for is found in all pages.
func TestHelp(t *testing.T) {
	t.Parallel()
	s := reading(t)
	b := open(t, s, 1280, 800)
	lines := "document.querySelectorAll('dialog[open] [aria-label=\"This screen\"] li').length"
	b.visit("/#/rounds")
	b.settled()
	b.key("?")
	b.until("help with rounds", lines+" === 5")
	b.accessible("help")
	b.fill("Search all help", "graft")
	b.until("one page has it", "document.querySelectorAll('[aria-label=\"Pages of help\"] li').length === 1")
	b.press("button", "The drawing of a plant")
	b.see("below it another plant begins")
	b.fill("Search all help", "zeppelin")
	b.see("No page of help has these words.")
	b.press("button", "Close")
	b.until("help closed", "!document.querySelector('dialog[open]')")
	b.key("/")
	b.until("the search", "document.activeElement.tagName === 'INPUT'")
	b.typeText("satnav")
	b.see("help · Print it")
	b.key("Enter")
	b.see("Help: Day sheet")

	phone := open(t, s, 390, 844)
	phone.visit("/#/walk")
	phone.see("Practise on a made-up garden")
	phone.press("button", "More")
	phone.press("button", "Help on this screen")
	phone.see("Press what you find.")
	phone.accessible("help on the phone")
}

// TestSixTasks: what a newcomer wants first takes no more presses than the screens need, counted.
func TestSixTasks(t *testing.T) {
	t.Parallel()
	s := start(t, "demo", t.TempDir())
	c := &counted{browser: open(t, s, 1280, 800)}
	task := func(name string, most int, do func()) {
		t.Helper()
		c.visit("/#/lookout")
		c.see("Which property first")
		c.presses, c.keys = 0, 0
		do()
		t.Logf("%s: %d presses", name, c.presses)
		if c.presses > most {
			t.Errorf("%s: %d presses, want %d", name, c.presses, most)
		}
	}
	task("find the worst property", 0, func() { c.see("Hotel Belpoggio") })
	task("decide a plant", 3, func() {
		c.press("link", "Start walk at Villa Lumera")
		c.see("Nothing has been checked yet")
		c.press("button", "Bark green")
		c.see("Bark green at")
		c.press("button", "Accept")
		c.see("jobs on the year")
	})
	task("save a find", 5, func() {
		c.press("link", "Start walk at Villa Lumera")
		c.see("Nothing has been checked yet")
		c.press("button", "What do you see?")
		c.press("button", "Upper side of leaves")
		c.press("button", "Seen: Fine pale speckles")
		c.press("button", first(c.browser, "Keep: "))
		c.see("saved")
	})
	task("put a job on Friday", 4, func() {
		c.press("link", "Rounds")
		c.press("link", first(c.browser, "Mulch Lemon verbena"))
		c.press("day", "Fri 19 Mar")
		c.press("button", "Put on Fri 19 March")
		c.see("On Fri 19 March")
	})
	task("tell the client", 3, func() {
		c.press("link", "Rounds")
		c.press("link", "Tell clients")
		first(c.browser, "They know: ")
		const letters = "[...document.querySelectorAll('button')].filter((e) => e.textContent.startsWith('They know')).length"
		before, _ := c.eval(letters).(float64)
		c.press("button", first(c.browser, "They know: "))
		c.until("one letter less", fmt.Sprintf("%s === %g", letters, before-1))
	})
	task("see what to buy", 1, func() {
		c.press("link", "Stores")
		c.see("To buy for the next 6 weeks")
	})
}

// first is the whole name of the first button or link in sight that begins with a text.
func first(b *browser, begins string) string {
	b.t.Helper()
	text, _ := json.Marshal(begins)
	find := fmt.Sprintf(`[...document.querySelectorAll('button, a')].map((e) => (e.getAttribute('aria-label') ?? e.textContent).trim().replace(/\s+/g, ' ')).find((n) => n.startsWith(%s))`, text)
	b.until("something that begins with "+begins, find+" !== undefined")
	name, _ := b.eval(find).(string)
	return name
}

var sentenceEnds = regexp.MustCompile(`[.!?]\s+`)

// twice are sentences of four words and more that stand on a page more than once, each with how often.
func twice(page string) map[string]int {
	out := map[string]int{}
	for _, line := range strings.Split(page, "\n") {
		said := sentenceEnds.Split(line+" ", -1)
		for _, s := range said[:len(said)-1] { // what stands after the last is a label
			if len(strings.Fields(s)) >= 4 {
				out[s]++
			}
		}
	}
	for s, n := range out {
		if n < 2 {
			delete(out, s)
		}
	}
	return out
}

// TestNothingSaidTwice: no sentence stands twice on a screen, but for what is true of each row of a list and is read
// there: what each plant wants for the winter, what each kind has to spare, what each cut waits for.
func TestNothingSaidTwice(t *testing.T) {
	t.Parallel()
	b := open(t, start(t, "demo", t.TempDir()), 1280, 800)
	for _, path := range []string{"lookout", "grounds/1", "grounds/2", "grounds/1/climate", "grounds/1/plan", "walk", "walk/1", "walk/1/6", "practice",
		"plant/6", "plant/4", "plant/40", "plant/10", "cut/10", "cut/12", "year", "rounds", "propose", "tell", "ails/6", "call/1", "almanac",
		"almanac/cause", "almanac/cause/lace-bug", "almanac/buxus-sempervirens", "stores", "mix", "treat/1", "treat/2", "treat/3", "settings", "ledger",
		"ledger/clients", "ledger/rates"} {
		b.visit("/#/" + path)
		b.settled()
		text, _ := b.eval("document.querySelector('main').innerText.replaceAll('\\u00a0', ' ')").(string)
		if len(text) < 40 {
			t.Errorf("%s: nothing to read: %q", path, text)
		}
		for s, n := range twice(text) {
			t.Errorf("%s: %d times: %s", path, n, s)
		}
	}
}
