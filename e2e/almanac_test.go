package e2e

import (
	"encoding/json"
	"testing"
)

// TestAlmanac searches the book and reads a species in a property's own dates.
func TestAlmanac(t *testing.T) {
	s := start(t, "demo", t.TempDir())
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
	before := b.text("article p.border-l-4")
	b.choose("In the dates of", "Hillside terrace")
	b.until("the other place's figures", "document.querySelector('article p.border-l-4') && document.querySelector('article p.border-l-4').innerText !== "+string(must(json.Marshal(before))))
	b.accessible("almanac")
	b.key("/")
	b.until("the search", "document.querySelector('dialog[open] input') === document.activeElement")
	b.typeText("crape species")
	b.see("Crape myrtle")
	b.key("Enter")
	b.until("its page", "location.hash === '#/almanac/lagerstroemia-indica'")
	b.see("Crape myrtle")
}

// TestOutlook opens the simulated outlook of a property.
func TestOutlook(t *testing.T) {
	s := start(t, "demo", t.TempDir())
	b := open(t, s, 1280, 800)
	b.visit("/#/grounds/3")
	b.see("Stair wall")
	b.press("button", "Outlook of this garden year")
	b.see("Zone 8b")
	b.see("300 simulated years")
	b.see("Weather observed to 17 March is taken as it was")
	b.accessible("outlook")
	b.press("link", "Villa Lumera")
	b.see("By the boathouse steps")
	b.see("Zone 9a")
}
