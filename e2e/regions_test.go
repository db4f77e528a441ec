package e2e

import (
	"fmt"
	"os"
	"path/filepath"
	"strings"
	"testing"
	"time"
)

// TestFirmInTheMidwest: a firm of the northern United States begins with nothing and comes to a day sheet in its own units,
// hours and words for places; what one plant has is not the next one's.
func TestFirmInTheMidwest(t *testing.T) {
	t.Parallel()
	s := start(t, "serve", filepath.Join(t.TempDir(), "data"), "--today", "2027-03-18")
	b := open(t, s, 1280, 800)
	b.visit("/#/settings")
	b.choose("Units", "Imperial: ft, °F, in, gal")
	b.press("button", "Save")
	b.see("Settings saved.")
	b.visit("/#/grounds")
	b.press("button", "Add the first property")
	b.fill("Name", "Lakeshore lot")
	b.fill("Find the climate by a town, a region or in words", "madison")
	b.press("button", "Madison Snowy lakeland, zone 6b")
	b.fill("Height (ft)", "1,050")
	b.fill("Latitude", `43°04'23"N, 89°24'04"W`)
	b.fill("Name", "Lakeshore lot")
	b.see("America/Chicago")
	b.see("At 1050 ft")
	b.choose("State or province", "Wisconsin")
	b.press("button", "Save")
	b.see("Nothing grows here yet")
	var property struct {
		Zone    string
		Climate struct {
			ElevationM float64 `json:"elevation_m"`
			Longitude  float64
		}
	}
	s.get("/api/v1/properties/1", &property)
	if c := property.Climate; property.Zone != "America/Chicago" || c.ElevationM < 319.9 || c.ElevationM > 320.2 || c.Longitude > -89 {
		t.Errorf("it is kept as %+v", property)
	}
	b.eval("[...document.querySelectorAll('summary')].find((s) => s.innerText.includes('Rules and permits')).click()")
	b.see("while the beetles of oak wilt fly")
	b.see("within 10 ft of a power line")
	// A potted lemon, then a rose in the ground.
	b.press("button", "Add a plant")
	b.fill("Species", "Lemon (Citrus limon)")
	b.fill("Height (ft)", "5'6\"")
	b.eval("document.querySelector('form details').open = true")
	b.fill("Pot (gal)", "15")
	b.see("in a pot of 15 gal")
	b.press("button", "Save")
	b.see("another like it, or another species")
	b.fill("Species", "Panicle hydrangea (Hydrangea paniculata)")
	b.until("nothing of the pot is left", "document.querySelector('form summary').innerText.includes('in the ground')")
	b.fill("Height (ft)", "6 ft")
	b.press("button", "Save")
	b.see("Panicle hydrangea added")
	var plants struct {
		Items []struct {
			Species string
			HeightM float64 `json:"height_m"`
			PotL    float64 `json:"pot_l"`
			Count   int
		}
	}
	s.get("/api/v1/plants?property=1", &plants)
	if len(plants.Items) != 2 || plants.Items[0].PotL < 56 || plants.Items[1].PotL != 0 || plants.Items[1].HeightM < 1.82 || plants.Items[1].HeightM > 1.84 {
		t.Errorf("they are kept as %+v", plants.Items)
	}
	// Its logger writes Fahrenheit by the garden's clock.
	text := "\"Made-up logger\"\n\"Date Time\",\"Temp (°F)\"\n"
	for h := range 24 * 14 {
		at := time.Date(2027, 3, 1, h, 0, 0, 0, time.UTC)
		f := 40
		if at.Day() == 9 && at.Hour() < 9 {
			f = 5
		}
		text += fmt.Sprintf("\"%s\",\"%d\"\n", at.Format("01/02/2006 03:04 PM"), f)
	}
	file := filepath.Join(t.TempDir(), "logger.csv")
	if err := os.WriteFile(file, []byte(text), 0o600); err != nil {
		t.Fatal(err)
	}
	b.upload("Weather from a file", file)
	b.see("How logger.csv was read")
	b.see("by the clock of America/Chicago")
	b.visit("/#/lookout")
	b.see("5 °F")
	// Its cuts come onto a day, and the sheet is in feet.
	var cuts struct{ Items []struct{ ID int64 } }
	s.postFor("/api/v1/properties/1/cuts", `{"cuts": [{"plant_id": 2}]}`, &cuts)
	s.put(fmt.Sprintf("/api/v1/orders/%d/day", cuts.Items[0].ID), `{"day": "2027-03-19", "version": 1}`)
	b.visit("/#/day/2027-03-19")
	b.see("Panicle hydrangea")
	b.settled()
	page := b.eval(allText).(string)
	for _, line := range strings.Split(page, "\n") {
		if m := metric.FindString(line); m != "" {
			t.Errorf("the sheet says %q in %.120q", m, line)
		}
	}
}

// TestFirmNearMelbourne: a firm of inland Victoria begins with nothing: its garden keeps Melbourne's hours, its roses are
// cut in August of this year and not in next year's, and no screen of its mild winter breaks.
func TestFirmNearMelbourne(t *testing.T) {
	t.Parallel()
	s := start(t, "serve", filepath.Join(t.TempDir(), "data"), "--today", "2027-08-20")
	b := open(t, s, 1280, 800)
	b.visit("/#/grounds")
	b.press("button", "Add the first property")
	b.fill("Name", "Stringybark")
	b.fill("Find the climate by a town, a region or in words", "bendigo")
	b.press("button", "Bendigo Inland southern plains with frosts, zone 9b")
	b.fill("Latitude", "-36.76, 144.28")
	b.fill("Name", "Stringybark")
	b.see("Australia/Melbourne")
	b.press("button", "Save")
	b.see("Nothing grows here yet")
	for _, plant := range []string{`"species": "rosa-bedding", "height_m": 1.2, "count": 6`, `"species": "citrus-limon", "height_m": 1.5, "pot_l": 60`,
		`"species": "grevillea-shrubby", "height_m": 6`} {
		s.post("/api/v1/plants", `{"property_id": 1, `+plant+`}`)
	}
	var property struct{ Zone string }
	if s.get("/api/v1/properties/1", &property); property.Zone != "Australia/Melbourne" {
		t.Errorf("it keeps the hours of %s", property.Zone)
	}
	var cuts struct {
		Items []struct {
			Title string
			From  string `json:"window_from"`
			To    string `json:"window_to"`
			Best  string `json:"best_day"`
		}
	}
	s.postFor("/api/v1/properties/1/cuts", `{"cuts": [{"plant_id": 1}]}`, &cuts)
	for _, c := range cuts.Items {
		if c.Best < c.From || c.Best > c.To || !strings.HasPrefix(c.Best, "2027-") {
			t.Errorf("%s: from %s to %s, best %s", c.Title, c.From, c.To, c.Best)
		}
	}
	for _, at := range []string{"lookout", "grounds/1", "grounds/1/climate", "grounds/1/winter", "grounds/1/plan", "year/1", "rounds", "cuts/1", "plant/1",
		"plant/2", "walk/1/1", "cut/1", "replace/1", "almanac/rosa-bedding", "day/2027-08-20"} {
		b.visit("/#/" + at)
		b.settled()
		for _, line := range strings.Split(b.eval(allText).(string), "\n") {
			if m := broken.FindString(line); m != "" {
				t.Errorf("%s says %q in %.120q", at, m, line)
			}
		}
	}
}
