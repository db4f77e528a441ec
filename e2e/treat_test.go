package e2e

import (
	"fmt"
	"net/http"
	"os"
	"path/filepath"
	"strings"
	"testing"
	"time"
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
// nothing is refused at its field; with it amounts and money are told; the jobs are kept, one is ticked off with what was used and
// when, though more than the record has on hand; what was typed survives leaving; the shelf is counted after.
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
	b.fill("Price", "18")
	b.press("button", "Save")
	b.see("enter the label's")
	b.accessible("a product card")
	b.fill("Rate on the label", "1")
	b.press("button", "Save")
	b.see("Caterpillar bacterium, 50 g: saved.")

	b.visit(fmt.Sprintf("/#/treat/%d", find))
	b.see("of Caterpillar bacterium, 50 g")
	b.see("18.00 for all times")
	b.press("button", "Make it jobs")
	b.see("One job is saved.")
	b.press("button", "Done: Bacterium that kills only caterpillars on Common camellia")
	b.see("What was used")
	b.fill("How much (g)", "3")
	b.hour("Begun at", "07:10")
	b.hour("Ended at", "06:50")
	b.fill("Ground or bed (m²)", "12")
	b.choose("Who did it", "Bruno")
	b.see("That is more than the record has on hand")
	b.press("button", "Back")
	b.until("it is closed", "!document.querySelector('dialog[open]')")
	b.settled()
	// What was typed is there again.
	b.press("button", "Done: Bacterium that kills only caterpillars on Common camellia")
	b.until("the hour that was typed", `[...document.querySelectorAll('input[type=time]')].some((i) => i.value === '07:10')`)
	b.press("button", "Tick it off")
	b.see("is before it was begun, at 07:10")
	b.hour("Ended at", "07:40")
	b.press("button", "Tick it off")
	b.see("Done on it this year")
	b.see("1 of 2 done")
	b.visit("/#/stores")
	b.see("3 g more used than entered: count the shelf")
	b.see("07:10 to 07:40")
	b.see("Caterpillar bacterium, 50 g, 3 g")
	b.see("Bruno")
	b.press("button", "Count in: Caterpillar bacterium, 50 g")
	b.fill("How much (g)", "47")
	b.accessible("a shelf that is counted")
	b.press("button", "Count in")
	b.until("47 g on hand", "document.body.innerText.includes('47 g on hand')")
	if csv := s.fetch("/api/v1/uses.csv"); !strings.Contains(csv, "Caterpillar bacterium") || !strings.Contains(csv, "Bruno") {
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
	b := openKept(t, s, 390, 844)
	b.visit("/#/mix")
	b.see("No treatment that takes a product is on this day.")
	job := s.orderOf("Wettable sulphur on Bedding rose")
	b.visit(fmt.Sprintf("/#/rounds/%d", job))
	b.press("button", "Take it off")
	b.until("it can be put on a day", `[...document.querySelectorAll('button')].some((x) => x.textContent.trim().startsWith('Put on ') && !x.disabled)`)
	b.eval(`[...document.querySelectorAll('button')].find((x) => x.textContent.trim().startsWith('Put on ')).click()`)
	b.see("Take it off")
	var put struct{ Day string }
	s.get(fmt.Sprintf("/api/v1/orders/%d", job), &put)
	b.visit("/#/mix/" + put.Day)
	b.see("1 × 6 L of water with 18 g each")
	b.accessible("a mix card")
	b.fill("Tank", "4")
	b.see("1 × 4 L of water with 12 g each")
	if n := b.printed(); n != 1 {
		t.Errorf("the mixes print on %d pages", n)
	}
}

// garden is an empty record with one property, on a day.
func garden(t *testing.T, today string) *server {
	t.Helper()
	s := start(t, "serve", t.TempDir(), "--today", today)
	s.post("/api/v1/properties", `{"name": "Priory", "climate_type": "lake-foothills"}`)
	return s
}

// on has the program start anew on another day.
func (s *server) on(day string) {
	s.t.Helper()
	s.kill()
	*s = *startAt(s.t, strings.TrimPrefix(s.url, "http://"), "serve", s.data, "--today", day)
}

// TestSunnyOnesAlone: lace bugs on azaleas are treated along where they stand in the sun, those in shade are left; the money of both is shown, and
// follows what is ticked.
func TestSunnyOnesAlone(t *testing.T) {
	t.Parallel()
	s := garden(t, "2027-06-20")
	for i, sun := range []float64{0.9, 0.8, 0.1} {
		s.post("/api/v1/plants", fmt.Sprintf(`{"property_id": 1, "species": "azalea-evergreen", "label": %q, "height_m": 2, "spread_m": 1.5, "count": 4, "sun": %g}`,
			[]string{"Steps", "Gate", "Below the cedar"}[i], sun))
	}
	s.post("/api/v1/finds", `{"plant_id": 1, "cause": "lace-bug", "certainty": 0.9, "share": 0.6}`)
	s.post("/api/v1/products", `{"name": "Soft soap", "active": "soap", "unit": "mL", "rates": [{"amount": 20, "per": "L"}], "packs": [{"size": 1000, "price": 15}]}`)
	b := open(t, s, 1280, 800)
	b.visit("/#/treat/1")
	b.see("Only plants in the sun, or with a history of it, are treated")
	b.see("it stands in the sun; 1.37")
	b.see("in shade it hardly takes harm; 1.37")
	b.see("1.37; all of them would be 4.11") // nobody saw it on the others: none of them is ticked
	b.accessible("others treated along")
	b.press("checkbox", "Evergreen azalea, Gate × 4")
	b.see("2.74; all of them would be 4.11")
	b.press("checkbox", "Evergreen azalea, Below the cedar × 4")
	b.see("4.11; all of them would be 4.11")
	b.press("checkbox", "Evergreen azalea, Below the cedar × 4")
	b.press("button", "Make it jobs")
	b.see("The same on one other.")
	b.see("has a treatment of its own")
	var jobs struct{ Items []struct{ Label string } }
	s.get("/api/v1/orders", &jobs)
	if len(jobs.Items) != 2 {
		t.Errorf("jobs: %+v", jobs)
	}
	b.fill("On how many of 4", "9")
	b.expect("422 ")
	b.press("button", "Work it out again")
	b.see("9 is more than the 4 of the group")
	b.fill("On how many of 4", "2")
	b.press("button", "Work it out again")
	b.see("2 plants are treated")
}

// TestGallMite: from the find over two sprays three weeks apart, with rain between that washes the first off, to the look whether it helped.
func TestGallMite(t *testing.T) {
	t.Parallel()
	s := garden(t, "2027-04-22") // its bloom is over
	s.post("/api/v1/plants", `{"property_id": 1, "species": "acer-palmatum", "label": "Basin", "height_m": 1.5, "count": 12}`)
	s.post("/api/v1/finds", `{"plant_id": 1, "cause": "gall-mite", "certainty": 0.9, "share": 0.3}`)
	s.post("/api/v1/products", `{"name": "Oil, 1 L", "active": "oil", "unit": "mL", "rates": [{"amount": 20, "per": "L"}], "packs": [{"size": 1000, "price": 14}]}`)
	s.post("/api/v1/products/1/stock", `{"amount": 1000}`)
	spray := "Done: Horticultural oil on"
	tick := func(job string) {
		b := open(t, s, 1280, 800)
		b.expect("ERR_CONNECTION")
		b.visit("/#/treat/1")
		b.press("button", job)
		b.see("Who did it")
		b.fill("Who did it", "Ilda")
		if strings.HasPrefix(job, spray) || strings.Contains(job, "Again") {
			b.until("it is filled in", "document.querySelector('[role=dialog], dialog')?.innerText.includes('In how much spray') || document.body.innerText.includes('In how much spray')")
		}
		b.press("button", "Tick it off")
		b.until("ticked", "!document.body.innerText.includes('Tick it off')")
		b.settled()
	}
	b := open(t, s, 1280, 800)
	b.expect("ERR_CONNECTION")
	b.visit("/#/treat/1")
	b.see("All plants of the kind in the bed are treated")
	b.see("Bag what is taken off, tight")
	b.press("button", "Make it jobs")
	b.see("2 jobs are saved.")
	tick("Done: Cut out every gall into a bag: Japanese maple × 12")
	s.on("2027-04-23")
	tick(spray)
	// That night it rains.
	csv := "time,temp_c,rain_mm\n"
	for i := range 24 {
		csv += fmt.Sprintf("%s,11,1.5\n", time.Date(2027, 4, 23, 16+i, 0, 0, 0, time.UTC).Format(time.RFC3339))
	}
	s.on("2027-04-26")
	if res, err := http.Post(s.url+"/api/v1/properties/1/weather", "text/csv", strings.NewReader(csv)); err != nil || res.StatusCode != 200 {
		t.Fatalf("weather: %v, %v", res, err)
	}
	b = open(t, s, 1280, 800)
	b.expect("ERR_CONNECTION")
	b.visit("/#/treat/1")
	b.see("washed off")
	tick("Done: Again: Horticultural oil on")
	s.on("2027-05-17")
	b = open(t, s, 1280, 800)
	b.visit("/#/treat/1")
	b.see("1 of 2 done")
	tick(spray)
	b = open(t, s, 1280, 800)
	b.visit("/#/treat/1")
	b.see("What helps was done")
	b.see("Look whether it helped")
	if csv := s.fetch("/api/v1/uses.csv"); strings.Count(csv, "Oil, 1 L") != 3 || strings.Count(csv, "Ilda") != 4 {
		t.Errorf("the record: %s", csv)
	}
	if pdf := s.fetch("/api/v1/uses.pdf"); !strings.HasPrefix(pdf, "%PDF") {
		t.Errorf("the record to print: %.20s", pdf)
	}
}

// TestKitchenHerbs: herbs of the kitchen are never offered an insecticide that is not for them, whatever the house rule; a pick that is due comes
// first, and after the spray the page says from when it is eaten again.
func TestKitchenHerbs(t *testing.T) {
	t.Parallel()
	s := garden(t, "2027-06-10")
	s.post("/api/v1/plants", `{"property_id": 1, "species": "ocimum-basilicum", "label": "Kitchen door", "height_m": 0.4, "count": 6}`)
	s.post("/api/v1/finds", `{"plant_id": 1, "cause": "aphids", "certainty": 0.9, "share": 0.7}`)
	s.post("/api/v1/products", `{"name": "Soft soap", "active": "soap", "unit": "mL", "harvest_days": 3, "rates": [{"amount": 20, "per": "L"}], "packs": [{"size": 1000, "price": 15}]}`)
	b := open(t, s, 390, 844)
	b.visit("/#/treat/1")
	b.see("Not on what is eaten from the garden")
	for _, never := range []string{"yrethrin", "systemic", "Azadirachtin"} {
		b.until("no "+never, fmt.Sprintf("!document.body.innerText.includes(%q)", never))
	}
	b.see("Nothing is eaten from it before Sun 13 June")
	b.eval(`(() => { const e = [...document.querySelectorAll('input[type=date]')][0]; e.value = '2027-06-12'; e.dispatchEvent(new Event('input', {bubbles: true})) })()`)
	b.press("button", "Work it out again")
	b.see("After it is picked: 3 days to harvest by its label")
	b.see("Nothing is eaten from it before Wed 16 June")
}

// TestGuardFeedLicence: a plant is guarded before anything is there, fed by a job that is kept once, a label is kept with its card, and a product
// that needs a licence goes only to who holds it.
func TestGuardFeedLicence(t *testing.T) {
	t.Parallel()
	s := start(t, "demo", t.TempDir())
	b := open(t, s, 1280, 800)
	b.expect("422 ")
	b.visit("/#/plant/77") // bedding roses
	b.choose("Guard it against", "Powdery mildew")
	b.press("button", "See what that takes")
	b.see("Not there: to be kept off")
	b.see("from mildew weather on")
	b.press("button", "Make it jobs")
	b.see("One job is saved.")
	b.visit("/#/plant/77")
	b.see("Guarded against powdery mildew")
	b.press("button", "Soil, bed, depth")
	b.fill("Soil pH", "5")
	b.see("lime in autumn")
	b.accessible("a plant that is guarded and fed")
	b.press("button", "Make it a job")
	b.see("saved as a job.")
	b.until("once", "![...document.querySelectorAll('button')].some(b => b.textContent === 'Make it a job')")

	file := filepath.Join(t.TempDir(), "label.pdf")
	if err := os.WriteFile(file, []byte("%PDF-1.4\n1 0 obj\n<<>>\nendobj\n%%EOF\n"), 0o600); err != nil {
		t.Fatal(err)
	}
	b.visit("/#/stores")
	b.see("Soft soap, 1 L")
	b.upload("Keep its label", file)
	b.see("its label is saved.")
	b.press("link", "Label: Soft soap, 1 L")

	b.visit("/#/settings")
	b.press("button", "Enter a person")
	b.fill("Name of the person", "Tea")
	b.see("May do")
	b.accessible("people")
	b.eval(`document.querySelector('form[aria-label="A person"] button[type=submit]').click()`)
	b.see("is there already")
}
