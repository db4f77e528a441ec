package e2e

import (
	"encoding/json"
	"os"
	"path/filepath"
	"strings"
	"testing"
)

// TestAlmanac searches the book and reads a species in a property's own dates.
func TestAlmanac(t *testing.T) {
	t.Parallel()
	s := reading(t)
	b := open(t, s, 1280, 800)
	b.visit("/#/almanac")
	b.fill("Search the almanac", "hydrangea panicle")
	b.until("one species found", "document.querySelectorAll('section[aria-label=Species] li').length === 1")
	b.press("link", "Panicle hydrangea")
	b.see("Hardy here (zone 9a)")
	b.see("new wood")
	b.see("In bloom")
	b.fill("Search the almanac", "lemon")
	b.press("link", "Lemon")
	b.see("Too tender to stay out here")
	before := b.text("[data-testid=hardy]")
	b.choose("In the dates of", "Hillside terrace")
	b.until("the other place's figures", "document.querySelector('[data-testid=hardy]') && document.querySelector('[data-testid=hardy]').innerText !== "+string(must(json.Marshal(before))))
	b.accessible("almanac")
	b.key("/")
	b.until("the search", "document.querySelector('dialog[open] input') === document.activeElement")
	b.typeText("crape species")
	b.see("Crape myrtle")
	b.key("Enter")
	b.until("its page", "location.hash === '#/almanac/lagerstroemia-indica'")
	b.see("Crape myrtle")
}

// TestOwnEntries corrects an entry, adds one of the firm's own, takes a pack back in, and goes back to the built one.
func TestOwnEntries(t *testing.T) {
	t.Parallel()
	s := start(t, "demo", t.TempDir())
	b := open(t, s, 1280, 800)
	b.expect("422 ")
	b.visit("/#/almanac/olea-europaea")
	b.see("Hardy here")
	b.press("button", "Correct")
	b.fill("Wood bears in midwinter (°C)", "-38")
	b.press("button", "Save")
	b.see("outside what the genus Olea is known for")
	b.fill("Wood bears in midwinter (°C)", "-8")
	b.press("button", "Save")
	b.see("Corrected by us")
	b.see("hardiness c")
	b.press("button", "Undo")
	b.until("the built entry", "!document.body.innerText.includes('Corrected by us')")
	b.press("button", "Correct")
	b.fill("Wood bears in midwinter (°C)", "-8")
	b.press("button", "Save")
	b.see("Corrected by us")
	b.choose("Only", "Only corrected or added by us")
	b.until("the one corrected", "document.querySelectorAll('section[aria-label=Species] li').length === 1")

	b.press("button", "Add a species")
	b.fill("Common name", "Weeping olive")
	b.fill("Botanical name", "Olea europaea pendula")
	b.press("button", "Save")
	b.until("its page", "location.hash === '#/almanac/olea-europaea-pendula'")
	b.see("Our own entry")
	pack := s.fetch("/api/v1/species.yaml?of=firm")
	if !strings.Contains(pack, "id: olea-europaea-pendula") || strings.Count(pack, "- id:") != 2 {
		t.Errorf("the pack:\n%s", pack)
	}
	b.press("button", "Take it out of the book")
	b.see("Weeping olive taken out")
	b.press("button", "Undo")
	b.until("it is back", "location.hash === '#/almanac/olea-europaea-pendula'")
	b.visit("/#/almanac/olea-europaea")
	b.press("button", "Back to the built entry")
	b.see("as built again")

	file := filepath.Join(t.TempDir(), "ours.yaml")
	if err := os.WriteFile(file, []byte(pack), 0o600); err != nil {
		t.Fatal(err)
	}
	b.upload("Take a pack", file)
	b.see("ours.yaml: 0 new, 1 corrected, 1 as they were")
	broken := filepath.Join(t.TempDir(), "broken.yaml")
	if err := os.WriteFile(broken, []byte(strings.Replace(pack, "hardiness_c: -8", "hardiness_c: mild", 1)), 0o600); err != nil {
		t.Fatal(err)
	}
	b.upload("Take a pack", broken)
	b.see(`field "hardiness_c"`)
}

// TestWhatAilsIt goes from speckled leaves to the right cause by following the questions, on the phone.
func TestWhatAilsIt(t *testing.T) {
	t.Parallel()
	s := reading(t)
	b := open(t, s, 390, 844)
	b.visit("/#/plant/4")
	b.press("link", "What ails it?")
	b.see("What ails the evergreen azalea")
	b.see("Cannot tell yet")
	b.press("button", "Upper side of leaves")
	b.press("button", "Seen: Fine pale speckles")
	b.see("Turn a leaf over: are there dark shiny specks?")
	b.press("button", "Yes")
	b.until("the cause", "document.querySelector('[data-testid=diagnosis]').innerText.startsWith('Lace bugs.')")
	b.accessible("what ails it")
	b.press("button", "Take back: Dark varnish specks below")
	b.see("Turn a leaf over: are there dark shiny specks?")
	b.press("button", "No, looked")
	b.until("another cause", "!document.querySelector('[data-testid=diagnosis]').innerText.includes('Lace bugs')")
}
