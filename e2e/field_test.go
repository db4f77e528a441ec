package e2e

import (
	"bytes"
	"encoding/json"
	"fmt"
	"image"
	"image/color"
	"image/jpeg"
	"image/png"
	"net/http"
	"os"
	"path/filepath"
	"strings"
	"testing"
	"time"
)

// pictureFile is a picture file of a plant, so to say: of a size, in a colour.
func pictureFile(t testing.TB, name string, w, h int, c color.Color) string {
	t.Helper()
	img := image.NewRGBA(image.Rect(0, 0, w, h))
	for y := range h {
		for x := range w {
			img.Set(x, y, c)
		}
	}
	return keptPicture(t, name, img)
}

// keptPicture is a file of a picture, PNG or JPEG by its name.
func keptPicture(t testing.TB, name string, img image.Image) string {
	t.Helper()
	var b bytes.Buffer
	var err error
	if strings.HasSuffix(name, ".png") {
		err = png.Encode(&b, img)
	} else {
		err = jpeg.Encode(&b, img, nil)
	}
	if err != nil {
		t.Fatal(err)
	}
	file := filepath.Join(t.TempDir(), name)
	if err := os.WriteFile(file, b.Bytes(), 0o600); err != nil {
		t.Fatal(err)
	}
	return file
}

// again starts the same program over the same folder on the same address, as after a power cut.
func (s *server) again() *server {
	s.t.Helper()
	return startAt(s.t, strings.TrimPrefix(s.url, "http://"), "demo", s.data)
}

// walkOf reads today's walk of a property.
func (s *server) walkOf(property int, into any) {
	s.t.Helper()
	res, err := http.Post(s.url+"/api/v1/walks", "application/json", strings.NewReader(fmt.Sprintf(`{"property_id": %d}`, property)))
	if err != nil {
		s.t.Fatal(err)
	}
	defer res.Body.Close()
	if err := json.NewDecoder(res.Body).Decode(into); err != nil || res.StatusCode != http.StatusOK {
		s.t.Fatalf("walk of %d: %s, %v", property, res.Status, err)
	}
}

type walkOut struct {
	ID    int64
	Looks []struct {
		PlantID int64 `json:"plant_id"`
		Rev     int
		Note    string
		Checks  []struct {
			Kind, Result string
			HeightM      float64 `json:"height_m"`
			Held, Broke  int
		}
	}
	Photos []struct {
		ID      int64
		PlantID int64 `json:"plant_id"`
		Hash    string
		Width   int
	}
}

// TestWalkWithoutSignal walks six plants on a phone. The house is gone from the third on; the page is even opened anew
// meanwhile; when the house is back, all checks, notes and photos arrive, each once.
func TestWalkWithoutSignal(t *testing.T) {
	t.Parallel()
	s := start(t, "demo", t.TempDir())
	b := openKept(t, s, 390, 844)
	b.expect("ERR_CONNECTION_REFUSED")
	b.expect("failed request")
	b.visit("/#/walk/1")
	b.see("Next:")
	b.until("the program is on the phone", "navigator.serviceWorker.controller")
	plants := []string{}
	presses := 0
	press := func(role, name string) {
		b.press(role, name)
		presses++
	}
	here := func() string {
		v, _ := b.eval("location.hash").(string)
		return v
	}
	for i := range 6 {
		if i == 2 {
			s.kill()
		}
		at := here()
		plants = append(plants, at)
		b.until("the buttons", quoted("button", "Bark green")+" || "+quoted("button", "Spear held"))
		from := presses
		press("button", "Bark brown")
		press("button", "Bark green")
		press("button", "Bud held")
		if presses-from+2 > 10 { // with accepting and going on
			t.Errorf("%d presses for a plant with three checks", presses-from+2)
		}
		if i == 1 || i == 3 || i == 4 {
			b.upload("Photo", pictureFile(t, fmt.Sprintf("plant%d.jpg", i), 2200, 1400, color.RGBA{uint8(40 * i), 120, 60, 255}))
			b.until("the photo", "document.querySelector('img')")
		}
		if i == 3 {
			b.press("button", "Note")
			b.until("the note", "document.querySelector('textarea')")
			b.eval("document.querySelector('textarea').focus()")
			b.typeText("moss on the north side")
			b.eval("document.querySelector('textarea').blur()")
		}
		if i >= 2 {
			b.see("No connection")
			b.until("kept on the phone", fmt.Sprintf("/%d to send/.test(document.body.innerText)", []int{0, 0, 1, 3, 5, 6}[i]))
		} else {
			b.until("sent", "!/to send/.test(document.body.innerText)")
		}
		if i == 3 { // the phone was put away, and the page is opened anew: nothing is lost
			b.visit("/#/lookout")
			b.visit("/" + at)
			b.eval("location.reload()")
			b.see("No connection")
			b.until("still there", "/3 to send/.test(document.body.innerText)")
		}
		if i < 5 {
			press("button", "Next plant")
			b.until("the next plant", fmt.Sprintf("location.hash !== %q", at))
		}
	}
	b.see("6 of 16 looked at")
	s = s.again()
	b.until("all is sent", "!/to send/.test(document.body.innerText) && !/No connection/.test(document.body.innerText)")
	var w walkOut
	s.walkOf(1, &w)
	if len(w.Looks) != 6 || len(w.Photos) != 3 {
		t.Fatalf("%d looks and %d photos arrived", len(w.Looks), len(w.Photos))
	}
	notes := 0
	for _, l := range w.Looks {
		held := 0
		for _, c := range l.Checks {
			held += c.Held
		}
		if len(l.Checks) != 3 || held != 1 || !strings.Contains(strings.Join(plants, " ")+" ", fmt.Sprintf("/%d ", l.PlantID)) {
			t.Errorf("plant %d: %+v", l.PlantID, l.Checks)
		}
		if l.Note == "moss on the north side" {
			notes++
		}
	}
	if notes != 1 {
		t.Errorf("%d notes arrived", notes)
	}
	for _, p := range w.Photos {
		if p.Width != 1600 {
			t.Errorf("photo %d is %d px wide", p.ID, p.Width)
		}
	}
	// Now all of it is judged.
	b.visit("/" + plants[4])
	b.see("Bark green at")
	b.press("button", "Accept")
	b.see("on the year")
}

// TestBrowseAndComeBack: who goes by a plant has not skipped it; what was put off and what nobody looked at stands at the end
// of the walk, one press away.
func TestBrowseAndComeBack(t *testing.T) {
	t.Parallel()
	s := start(t, "serve", t.TempDir(), "--today", "2027-03-18")
	s.post("/api/v1/properties", `{"name": "Boatyard", "climate_type": "lake-foothills"}`)
	for i := range 3 {
		s.post("/api/v1/plants", fmt.Sprintf(`{"property_id": 1, "species": "camellia-japonica", "label": "Jetty %d", "height_m": 2, "stop": %d}`, i+1, i+1))
	}
	b := openKept(t, s, 390, 844)
	b.visit("/#/walk/1")
	at := func(n int) { b.until(fmt.Sprintf("plant %d", n), fmt.Sprintf("location.hash === '#/walk/1/%d'", n)) }
	at(1)
	b.press("button", "Next plant")
	at(2)
	b.see("0 of 3 looked at")
	if gone, _ := b.eval("document.body.innerText.includes('skipped') || document.body.innerText.includes('put off')").(bool); gone {
		t.Error("going by a plant has skipped it")
	}
	for _, n := range []int{2, 3} {
		at(n)
		b.see("Next:")
		b.press("button", "Bark brown")
		b.see("Bark brown at")
		b.press("button", "Not now")
		b.see("put off.")
		b.press("button", "Next plant")
	}
	b.see("The walk of Boatyard")
	b.see("Checked, not decided")
	b.see("was not looked at")
	b.press("link", "Common camellia, Jetty 1")
	at(1)
	b.press("button", "Bark green")
	b.see("3 of 3 looked at")
}

// TestNextDayWithoutSignal: a walk that begins on another day without a connection is a walk of that day.
func TestNextDayWithoutSignal(t *testing.T) {
	t.Parallel()
	s := start(t, "serve", t.TempDir(), "--today", "2026-03-18") // before the day of the phone's own clock
	s.post("/api/v1/properties", `{"name": "Boatyard", "climate_type": "lake-foothills"}`)
	s.post("/api/v1/plants", `{"property_id": 1, "species": "camellia-japonica", "height_m": 2}`)
	b := openKept(t, s, 390, 844)
	b.expect("ERR_CONNECTION_REFUSED")
	b.expect("failed request")
	b.visit("/#/walk/1/1")
	b.see("Next:")
	b.until("the program is on the phone", "navigator.serviceWorker.controller")
	time.Sleep(time.Second) // the walk at hand is written after a rest
	s.kill()
	b.eval("location.reload()")
	b.see("No connection")
	today := time.Now()
	b.see("Walk of " + today.Format("Mon 2 January"))
	b.press("button", "Bark green")
	b.see("1 to send")
	startAt(t, strings.TrimPrefix(s.url, "http://"), "serve", s.data, "--today", today.AddDate(0, 0, 1).Format("2006-01-02"))
	b.until("sent", "!/to send/.test(document.body.innerText)")
	var story struct {
		Walks []struct {
			Day    string
			Checks []struct{ Result string }
		}
	}
	// "to send" is gone for a moment while the walk itself is begun: what counts is what the house has.
	for deadline := time.Now().Add(patience); time.Now().Before(deadline); time.Sleep(50 * time.Millisecond) {
		if s.get("/api/v1/plants/1/story", &story); len(story.Walks) > 0 && len(story.Walks[0].Checks) > 0 {
			break
		}
	}
	if len(story.Walks) != 1 || story.Walks[0].Day != today.Format("2006-01-02") || len(story.Walks[0].Checks) != 1 {
		t.Errorf("%+v", story.Walks)
	}
}

// TestTwoPhones: two phones look at one plant. The second is shown what the first kept, and keeps both.
func TestTwoPhones(t *testing.T) {
	t.Parallel()
	s := start(t, "demo", t.TempDir())
	a, b := openKept(t, s, 390, 844), openKept(t, s, 390, 844)
	b.expect("409 ")
	for _, x := range []*browser{a, b} {
		x.visit("/#/walk/1/1")
		x.see("Next:")
	}
	a.press("button", "Bark green")
	a.see("Bark green at")
	for deadline := time.Now().Add(patience); ; time.Sleep(20 * time.Millisecond) { // what is shown at once is sent a little later
		var w walkOut
		if s.walkOf(1, &w); len(w.Looks) > 0 {
			break
		}
		if time.Now().After(deadline) {
			t.Fatal("the first phone's check did not arrive")
		}
	}
	b.press("button", "Bark brown")
	b.see("Another device has looked at this")
	b.see("Added here")
	b.accessible("conflict")
	b.press("button", "Keep both (2 checks)")
	b.until("both", "/Bark green at/.test(document.body.innerText) && /Bark brown at/.test(document.body.innerText) && !/Another device|to send/.test(document.body.innerText)")
	var w walkOut
	s.walkOf(1, &w)
	if len(w.Looks) != 1 || len(w.Looks[0].Checks) != 2 || w.Looks[0].Rev != 2 {
		t.Errorf("%+v", w.Looks)
	}
}

// TestPhotosAndPlantPage takes photos, refuses what is none, and finds all of a plant's story on its page.
func TestPhotosAndPlantPage(t *testing.T) {
	t.Parallel()
	s := start(t, "demo", t.TempDir())
	b := open(t, s, 1280, 800)
	b.visit("/#/walk/1/1")
	check(b)
	words := filepath.Join(t.TempDir(), "letter.jpg")
	if err := os.WriteFile(words, []byte("Dear client"), 0o600); err != nil {
		t.Fatal(err)
	}
	b.upload("Photo", words)
	b.see("letter.jpg is no picture that can be read here.")
	// A picture of 40 MB is made small on the device and taken.
	large := pictureFile(t, "large.png", 40, 30, color.White)
	if f, err := os.OpenFile(large, os.O_APPEND|os.O_WRONLY, 0); err != nil {
		t.Fatal(err)
	} else if _, err = f.Write(make([]byte, 40<<20)); err != nil || f.Close() != nil {
		t.Fatal(err)
	}
	b.upload("Photo", large)
	b.until("one photo", "document.querySelectorAll('img[alt^=\"Taken on this walk\"]').length === 1")
	b.upload("Photo", pictureFile(t, "second.jpg", 900, 700, color.RGBA{30, 90, 40, 255}))
	b.until("two photos", "document.querySelectorAll('img[alt^=\"Taken on this walk\"]').length === 2")
	b.press("button", "Note")
	b.eval("document.querySelector('textarea').focus()")
	b.typeText("leans to the lake")
	b.press("button", "Accept")
	b.see("jobs on the year")
	b.visit("/#/plant/1")
	b.see("leans to the lake")
	b.see("Look again at Common camellia")
	b.until("photos side by side", "[...document.querySelectorAll('figure img')].filter((i) => i.complete && i.naturalWidth > 0).length === 2")
	b.accessible("plant page")
	b.press("button", "Note how it turned out")
	b.choose("It is", "alive, on its way")
	b.fill("Height now", "1.4")
	b.press("button", "Save")
	b.see("too early: Alive within the first season")
	b.press("button", "Undo")
	b.see("Nothing noted yet")
	b.eval("document.documentElement.classList.add('glare')")
	b.accessible("plant page, glare")
	b.visit("/#/plant/9999")
	b.expect("404 ")
	b.see("is not there, or was removed")
	res, err := http.Get(s.url + "/api/v1/properties/1/labels.pdf?site=" + s.url)
	if err != nil || res.StatusCode != http.StatusOK || res.Header.Get("Content-Type") != "application/pdf" {
		t.Errorf("labels: %v, %v", res, err)
	}
	res.Body.Close()
}

// TestMoreChecks enters every other check as a user would, over the forms that have them.
func TestMoreChecks(t *testing.T) {
	t.Parallel()
	s := start(t, "demo", t.TempDir())
	b := open(t, s, 390, 844)
	b.visit("/#/walk/1/1")
	b.see("Next:")
	b.press("button", "More checks")
	b.see("Bark gone round the stem")
	b.accessible("more checks")
	b.eval(`((e) => { e.value = '0.2'; e.dispatchEvent(new Event('input', {bubbles: true})); })(document.querySelector('input[aria-label="Height of the check"]'))`)
	b.until("the height", "/at 20 cm/.test(document.querySelector('dialog[open]').innerText)")
	b.press("button", "¾ round")
	b.press("button", "a bridge is left")
	b.press("button", "firm and sound")
	b.press("button", "edges scorched")
	b.press("button", "10 cm")
	b.press("button", "Done")
	b.see("bark gone over 75 %")
	b.see("a bridge is left")
	b.see("Guard the stem")
	b.see("Shoots dead over 10 cm from the tips")
	b.press("button", "Take back")
	b.until("the tips are taken back", "!/Shoots dead over/.test(document.body.innerText)")
	// What cannot be is refused in words, stays where it was entered, and can be taken back.
	b.expect("422 ")
	b.press("button", "More checks")
	b.fill("Length dead from the tips", "999")
	b.press("button", "Note it")
	b.press("button", "Done")
	b.see("9.99 m: want more than 0 and no more than the plant's 2.1 m")
	b.see("1 to send")
	b.press("button", "Take back")
	b.until("taken back and sent", "!/9.99 m|to send/.test(document.body.innerText)")
	b.eval("document.documentElement.classList.add('glare')")
	b.accessible("walk with more checks, glare")
	// A group kept as one, and what a sample says of the rest.
	box := s.plantOf(1, "buxus-sempervirens")
	b.visit(fmt.Sprintf("/#/walk/1/%d", box.ID))
	b.see("Next:")
	b.press("button", "More checks")
	b.fill("Looked at and alike", "9")
	b.fill("Looked at and not alike", "1")
	b.press("button", "Note it")
	b.press("button", "Done")
	b.press("button", "Bark green")
	b.see("9 of 10 looked at are like the one checked: of the other 50")
	// A palm.
	palm := s.plantOf(1, "trachycarpus-fortunei")
	b.visit(fmt.Sprintf("/#/walk/1/%d", palm.ID))
	b.press("button", "Spear came out")
	b.see("may still live")
	b.press("button", "More checks")
	b.see("Head of the palm")
	b.press("button", "leaves browned")
	b.press("button", "Done")
	b.see("Head of the palm browned")
}

// TestLiftInAutumn: in October a tender climber is to be lifted, without any check, and both jobs are on the year.
func TestLiftInAutumn(t *testing.T) {
	t.Parallel()
	s := start(t, "serve", t.TempDir(), "--today", "2027-10-12")
	s.post("/api/v1/properties", `{"name": "Villa Lumera", "climate_type": "lake-foothills", "elevation_m": 210}`)
	s.post("/api/v1/plants", `{"property_id": 1, "species": "bougainvillea-glabra", "label": "Balcony", "height_m": 2.2}`)
	b := open(t, s, 390, 844)
	b.visit("/#/walk/1")
	b.see("Lift and shelter it before the first frost")
	b.see("Cut it to about 30 cm")
	b.press("button", "Accept")
	b.see("jobs on the year")
	var year struct {
		Items []struct {
			Kind    string
			BestDay string `json:"best_day"`
		}
	}
	s.get("/api/v1/year", &year)
	best := map[string]string{}
	for _, l := range year.Items {
		best[l.Kind] = l.BestDay
	}
	if in, out := best["lift and shelter"], best["plant out"]; in < "2027-10-12" || in > "2027-11-20" || out < "2028-04-01" || out > "2028-06-15" {
		t.Errorf("in on %s, out on %s", in, out)
	}
}

// TestTheSpot: one of five of a kind is stunted, and the questions lead to the water it stands in.
func TestTheSpot(t *testing.T) {
	t.Parallel()
	s := start(t, "serve", t.TempDir(), "--today", "2027-08-12")
	s.post("/api/v1/properties", `{"name": "Hotel Belpoggio", "climate_type": "lake-foothills", "elevation_m": 210}`)
	for i, h := range []float64{2.5, 2.6, 2.4, 2.7, 1.2} {
		s.post("/api/v1/plants", fmt.Sprintf(`{"property_id": 1, "species": "prunus-lusitanica", "label": "Car park %d", "height_m": %g, "stop": %d}`, i, h, i+1))
	}
	b := open(t, s, 1280, 800)
	b.visit("/#/walk/1/5")
	b.see("Suspect the spot: its fellows thrive")
	b.see("Does water still stand there a day after rain")
	b.press("button", "Yes")
	b.see("Suspect the spot: standing water")
	b.press("button", "Living shoot")
	b.see("much smaller than its 4 fellows")
	b.see("Mend the spot first: standing water")
	b.see("How far is the trunk of the nearest big tree")
	b.fill("Distance to it", "30")
	b.press("button", "Note it")
	b.see("A big tree or hedge stands 30.0 m away")
	b.accessible("the spot")
}
