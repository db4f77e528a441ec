package e2e

import (
	"fmt"
	"strings"
	"testing"
)

// findsOf are ids of finds by cause.
func (s *server) findOf(cause string) int64 {
	s.t.Helper()
	var list struct {
		Items []struct {
			ID    int64  `json:"id"`
			Cause string `json:"cause"`
		} `json:"items"`
	}
	s.get("/api/v1/finds?open=true", &list)
	for _, f := range list.Items {
		if f.Cause == cause {
			return f.ID
		}
	}
	s.t.Fatalf("no open find of %s", cause)
	return 0
}

// TestTreatAFind: from the find on a plant's page to the ladder; without a product card the label is asked for; a card with a rate of
// nothing is refused at its field; with it amounts and money are told; the jobs are kept, one is ticked off with what was used, more
// than is on hand is refused, and the record holds it.
func TestTreatAFind(t *testing.T) {
	t.Parallel()
	s := start(t, "demo", t.TempDir())
	b := open(t, s, 1280, 800)
	b.expect("422 ")
	s.post("/api/v1/finds", `{"plant_id": 1, "cause": "box-caterpillar", "certainty": 0.9, "share": 0.3}`)
	find := s.findOf("box-caterpillar")
	b.visit("/#/plant/1")
	b.press("link", "What to do: Box tree caterpillar")
	b.see("Wash them out on a sheet")
	b.see("no rate is told that is not on your label")
	b.see("From the least up")
	b.accessible("what to do about a find")

	b.visit("/#/stores")
	b.see("To buy for the next 6 weeks")
	b.accessible("the stores")
	b.press("button", "Enter a product")
	b.fill("Name on the label", "Caterpillar bacterium, 50 g")
	b.choose("What works in it", "a bacterium that kills only caterpillars")
	b.choose("Measured in", "g")
	b.fill("Rate on the label", "0")
	b.fill("Pack of", "50")
	b.fill("Price of it", "18")
	b.press("button", "Keep")
	b.see("enter the label's")
	b.accessible("a product card")
	b.fill("Rate on the label", "1")
	b.press("button", "Keep")
	b.see("Caterpillar bacterium, 50 g: kept.")

	b.visit(fmt.Sprintf("/#/treat/%d", find))
	b.see("of Caterpillar bacterium, 50 g")
	b.see("18.00 for all times")
	b.press("button", "Make it jobs")
	b.see("One job is kept.")
	b.press("button", "Done: Bacterium that kills only caterpillars on Common camellia")
	b.see("What was used")
	b.fill("How much (g)", "30")
	b.press("button", "Tick it off")
	b.see("is more than the 0 g on hand")
	b.press("button", "Back")
	b.visit("/#/stores")
	b.press("button", "Count in: Caterpillar bacterium, 50 g")
	b.fill("How much (g)", "50")
	b.press("button", "Count in")
	b.until("50 g on hand", "document.body.innerText.includes('50 g on hand')")
	b.visit(fmt.Sprintf("/#/treat/%d", find))
	b.press("button", "Done: Bacterium that kills only caterpillars on Common camellia")
	b.see("What was used")
	b.fill("How much (g)", "3")
	b.fill("Who did it", "Rosa")
	b.press("button", "Tick it off")
	b.see("Done on it this year")
	b.see("1 of 2 done")
	b.visit("/#/stores")
	b.see("Caterpillar bacterium, 50 g, 3 g")
	b.see("Rosa")
	if csv := s.fetch("/api/v1/uses.csv"); !strings.Contains(csv, "Caterpillar bacterium") || !strings.Contains(csv, "Rosa") {
		t.Errorf("the record as a file: %s", csv)
	}
	if pdf := s.fetch("/api/v1/uses.pdf"); !strings.HasPrefix(pdf, "%PDF") {
		t.Errorf("the record to print: %.20s", pdf)
	}
}

// TestMixOfTheDay: a treatment put on a day stands on its mix card with tanks that follow their size; a day without one says where to go.
func TestMixOfTheDay(t *testing.T) {
	t.Parallel()
	s := start(t, "demo", t.TempDir())
	b := open(t, s, 390, 844)
	b.visit("/#/mix")
	b.see("No treatment that takes a product is on this day.")
	job := s.orderOf("Wettable sulphur on Bedding rose")
	b.visit(fmt.Sprintf("/#/rounds/%d", job))
	b.press("button", "Put on Sun 21 March")
	b.see("On Sun 21 March")
	b.visit("/#/mix/2027-03-21")
	b.see("1 × 6 L of water with 18 g each")
	b.accessible("a mix card")
	b.fill("Tank", "4")
	b.see("1 × 4 L of water with 12 g each")
	if n := b.printed(); n != 1 {
		t.Errorf("the mixes print on %d pages", n)
	}
}

// TestSunnyOnesAlone: lace bugs on azaleas are treated where they stand in the sun; where they stand in shade less is enough.
func TestSunnyOnesAlone(t *testing.T) {
	t.Parallel()
	s := start(t, "demo", t.TempDir())
	b := open(t, s, 1280, 800)
	b.visit(fmt.Sprintf("/#/treat/%d", s.findOf("lace-bug")))
	b.see("Only plants in the sun, or with a history of it, are treated")
	b.see("From the least up")
	b.see("enough now")
}
