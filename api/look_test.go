package api_test

import (
	"bytes"
	"encoding/binary"
	"fmt"
	"image"
	"image/color"
	"image/jpeg"
	"image/png"
	"math"
	"net/http/httptest"
	"strings"
	"testing"

	. "mezzadro/api"
	"mezzadro/core/catalogue"
	"mezzadro/core/cause"
	"mezzadro/core/damage"
	"mezzadro/core/day"
	"mezzadro/core/job"
	"mezzadro/house/estate"
	"mezzadro/house/finds"
	"mezzadro/house/garden"
	"mezzadro/house/overview"
	"mezzadro/house/walks"
)

// picture is a picture file of a size, with a bright upper left corner.
func picture(t testing.TB, w, h int, as string) []byte {
	t.Helper()
	img := image.NewRGBA(image.Rect(0, 0, w, h))
	for y := range h / 2 {
		for x := range w / 2 {
			img.Set(x, y, color.White)
		}
	}
	var b bytes.Buffer
	var err error
	if as == "png" {
		err = png.Encode(&b, img)
	} else {
		err = jpeg.Encode(&b, img, nil)
	}
	if err != nil {
		t.Fatal(err)
	}
	return b.Bytes()
}

// turned puts a note into a JPEG that it was taken with the camera turned (orientation 6), and where.
func turned(file []byte) []byte {
	var tiff bytes.Buffer
	tiff.WriteString("MM\x00\x2a")
	_ = binary.Write(&tiff, binary.BigEndian, []uint32{8})
	_ = binary.Write(&tiff, binary.BigEndian, []uint16{1, 0x0112, 3})
	_ = binary.Write(&tiff, binary.BigEndian, []uint32{1})
	_ = binary.Write(&tiff, binary.BigEndian, []uint16{6, 0})
	_ = binary.Write(&tiff, binary.BigEndian, []uint32{0})
	note := append([]byte("Exif\x00\x00"), tiff.Bytes()...)
	note = append(note, []byte("GPS: at the client's gate")...)
	out := []byte{0xff, 0xd8, 0xff, 0xe1}
	out = binary.BigEndian.AppendUint16(out, uint16(len(note)+2))
	return append(append(out, note...), file[2:]...)
}

// send posts a file.
func (h *opened) send(path string, file []byte, headers ...string) (int, []byte) {
	h.t.Helper()
	req := httptest.NewRequest("POST", "/api/v1"+path, bytes.NewReader(file))
	req.Header.Set("Content-Type", "image/jpeg")
	for i := 0; i+1 < len(headers); i += 2 {
		req.Header.Set(headers[i], headers[i+1])
	}
	w := httptest.NewRecorder()
	h.site.ServeHTTP(w, req)
	return w.Code, w.Body.Bytes()
}

func TestPhotos(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	property, plant := h.villa()
	walk := ok[walks.Walk](h, "POST", "/walks", obj{"property_id": property.ID})
	at := fmt.Sprintf("/walks/%d/plants/%d/photos", walk.ID, plant.ID)
	photos := func() []estate.Photo { return ok[walks.Walk](h, "GET", fmt.Sprintf("/walks/%d", walk.ID), nil).Photos }

	file := turned(picture(t, 2400, 1200, "jpeg"))
	for range 2 { // the second is a repeat after a lost answer
		if code, b := h.send(at, file, "Idempotency-Key", "a"); code != 200 {
			t.Fatalf("%d %s", code, b)
		}
	}
	got := photos()
	if len(got) != 1 || got[0].Width != 800 || got[0].Height != 1600 || got[0].Taken != "" || got[0].Latitude != nil {
		t.Fatalf("photos %+v", got)
	}
	code, b := h.do("GET", "/pictures/"+got[0].Hash, nil)
	img, _, err := image.Decode(bytes.NewReader(b))
	if code != 200 || err != nil || bytes.Contains(b, []byte("Exif")) || bytes.Contains(b, []byte("gate")) {
		t.Fatalf("picture: %d, %v, %d bytes", code, err, len(b))
	}
	// Turned upright, the bright corner is at the upper right.
	if r, _, _, _ := img.At(700, 100).RGBA(); r < 0xf000 {
		t.Errorf("upper right: %v", img.At(700, 100))
	}
	if r, _, _, _ := img.At(100, 100).RGBA(); r > 0x1000 {
		t.Errorf("upper left: %v", img.At(100, 100))
	}
	// Place and time are kept only where they are wanted.
	if code, b := h.send(at+"?here=true&latitude=45.9&longitude=8.6&taken=2027-03-18T07:40:00Z", picture(t, 60, 40, "png")); code != 200 {
		t.Fatalf("%d %s", code, b)
	}
	if got = photos(); len(got) != 2 || got[1].Latitude == nil || *got[1].Latitude != 45.9 || got[1].Taken == "" {
		t.Errorf("with place: %+v", got)
	}
	huge := picture(t, 30, 20, "png")
	binary.BigEndian.PutUint32(huge[16:], 100_000) // says it is 100,000 px wide
	for _, c := range []struct {
		name string
		file []byte
		code int
		says string
	}{
		{"no picture", []byte("Dear client, the camellia"), 422, "this is no picture"},
		{"nothing", nil, 422, "this is no picture"},
		{"40 MB", bytes.Repeat([]byte{7}, 40<<20), 413, "larger than 25 MB"},
		{"broken", picture(t, 400, 400, "jpeg")[:900], 422, "photo"},
		{"a bomb", huge, 422, "photo"},
	} {
		if code, b := h.send(at, c.file); code != c.code || !strings.Contains(string(b), c.says) {
			t.Errorf("%s: %d %.200s", c.name, code, b)
		}
	}
	if n := len(photos()); n != 2 {
		t.Errorf("%d photos after the refusals", n)
	}
	one := fmt.Sprintf("/photos/%d", got[0].ID)
	ok[struct{}](h, "DELETE", one, nil)
	if n := len(photos()); n != 1 {
		t.Errorf("%d photos after one was removed", n)
	}
	ok[struct{}](h, "POST", one+"/restore", nil)
	if n := len(photos()); n != 2 {
		t.Errorf("%d photos after it came back", n)
	}
	if code, _ := h.send(fmt.Sprintf("/walks/%d/plants/999/photos", walk.ID), picture(t, 9, 9, "png")); code != 404 {
		t.Errorf("photo of no plant: %d", code)
	}
	if code, _ := h.do("GET", "/pictures/..%2fmezzadro.db", nil); code != 404 {
		t.Errorf("a path for a hash: %d", code)
	}
}

// TestTwoPhonesOnePlant: what another device kept meanwhile is shown, never overwritten unseen.
func TestTwoPhonesOnePlant(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	property, plant := h.villa()
	walk := ok[walks.Walk](h, "POST", "/walks", obj{"property_id": property.ID})
	at := fmt.Sprintf("/walks/%d/plants/%d/checks", walk.ID, plant.ID)
	green := obj{"kind": "scratch", "height_m": 0.6, "result": "green"}
	brown := obj{"kind": "scratch", "height_m": 1.8, "result": "brown"}
	first := ok[walks.Found](h, "PUT", at, obj{"checks": []obj{green}, "note": "lower half fine", "base": 0}, "Idempotency-Key", "one")
	if first.Rev != 1 || first.Verdict.Kind == "" {
		t.Fatalf("%+v", first)
	}
	// The answer was lost: the same write again is the same write.
	if again := ok[walks.Found](h, "PUT", at, obj{"checks": []obj{green}, "note": "lower half fine", "base": 0}, "Idempotency-Key", "one"); again.Rev != 1 {
		t.Errorf("repeat: rev %d", again.Rev)
	}
	code, b := h.do("PUT", at, obj{"checks": []obj{brown}, "base": 0}, "Idempotency-Key", "two")
	if code != 409 || !strings.Contains(string(b), "lower half fine") || !strings.Contains(string(b), `"rev":1`) {
		t.Errorf("the second phone: %d %s", code, b)
	}
	if l := ok[walks.Walk](h, "GET", fmt.Sprintf("/walks/%d", walk.ID), nil).Looks; len(l) != 1 || len(l[0].Checks) != 1 || l[0].Checks[0].Result != "green" {
		t.Errorf("after the refusal: %+v", l)
	}
	both := ok[walks.Found](h, "PUT", at, obj{"checks": []obj{green, brown}, "base": 1}, "Idempotency-Key", "three")
	if both.Rev != 2 || len(both.Reasons) < 2 {
		t.Errorf("joined: %+v", both)
	}
	if code, b := h.do("POST", "/walks", obj{"property_id": property.ID, "day": "2027-05-01"}); code != 422 || !strings.Contains(string(b), "body.day") || !strings.Contains(string(b), "still to come") {
		t.Errorf("a walk in May: %d %s", code, b)
	}
	if w := ok[walks.Walk](h, "POST", "/walks", obj{"property_id": property.ID, "day": "2027-03-10"}); w.Day != "2027-03-10" || w.ID == walk.ID {
		t.Errorf("a walk entered later: %+v", w)
	}
}

func TestStory(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	property, plant := h.villa()
	walk := ok[walks.Walk](h, "POST", "/walks", obj{"property_id": property.ID})
	at := fmt.Sprintf("/walks/%d/plants/%d", walk.ID, plant.ID)
	path := fmt.Sprintf("/plants/%d", plant.ID)
	if s := ok[walks.Story](h, "GET", path+"/story", nil); len(s.Walks) != 0 || s.Now.Verdict.Kind != damage.Look || s.Plant.Look == nil {
		t.Fatalf("before any walk: %+v", s)
	}
	ok[walks.Found](h, "PUT", at+"/checks", obj{"checks": []obj{{"kind": "scratch", "height_m": 1.1, "result": "green"}, {"kind": "scratch", "height_m": 1.15, "result": "green"}, {"kind": "bud_rub", "height_m": 1.1, "held": 6},
		{"kind": "scratch", "height_m": 1.3, "result": "brown"}, {"kind": "scratch", "height_m": 1.25, "result": "brown"}, {"kind": "bud_rub", "height_m": 1.4, "broke": 6}}, "note": "bark peels on the south side"})
	d := ok[walks.Decided](h, "POST", at+"/verdict", obj{"decision": "accepted"})
	if d.Verdict.Kind != damage.CutBack {
		t.Fatalf("%+v", d.Verdict)
	}
	h.send(at+"/photos", picture(t, 60, 40, "png"))
	s := ok[walks.Story](h, "GET", path+"/story", nil)
	if len(s.Walks) != 1 || s.Walks[0].Note == "" || len(s.Walks[0].Photos) != 1 || len(s.Walks[0].Verdicts) != 1 || len(from(s.Jobs, job.Verdict)) != 2 || s.Now.Verdict.Kind != damage.CutBack {
		t.Fatalf("story: %+v", s)
	}
	v := s.Walks[0].Verdicts[0]
	if n := len(v.Prognosis.Heights); n == 0 || v.Prognosis.Heights[n-1] <= v.Boundary.BestM || v.Prognosis.SeasonsHigh == 0 {
		t.Errorf("foretold: %+v", v.Prognosis)
	}
	h.today = day.Of(2030, 9, 1)
	turnedOut := ok[walks.Story](h, "POST", path+"/outcomes", obj{"verdict_id": d.Verdict.ID, "state": "right", "height_m": 1.9}, "Idempotency-Key", "o")
	if len(turnedOut.Turned) != 1 || turnedOut.Turned[0].Seasons != 4 || turnedOut.Turned[0].As == "" || turnedOut.Turned[0].Kind != damage.CutBack {
		t.Errorf("turned out: %+v", turnedOut.Turned)
	}
	for _, c := range []struct {
		body obj
		code int
		says string
	}{{obj{"verdict_id": d.Verdict.ID, "state": "fine"}, 422, "state"}, {obj{"verdict_id": d.Verdict.ID, "state": "right", "height_m": -1}, 422, "height_m"}, {obj{"verdict_id": 99, "state": "dead"}, 404, "verdict"}} {
		if code, b := h.do("POST", path+"/outcomes", c.body); code != c.code || !strings.Contains(string(b), c.says) {
			t.Errorf("%v: %d %s", c.body, code, b)
		}
	}
	ok[struct{}](h, "DELETE", fmt.Sprintf("/outcomes/%d", turnedOut.Turned[0].Outcome.ID), nil)
	// Found dead, nobody feeds it any more; taken back, all stands as before.
	jobs := func(s walks.Story) (standing int) {
		for _, j := range s.Jobs {
			if j.State == job.Waiting || j.State == job.Placed {
				standing++
			}
		}
		return standing
	}
	was := jobs(ok[walks.Story](h, "GET", path+"/story", nil))
	dead := ok[walks.Story](h, "POST", path+"/outcomes", obj{"verdict_id": d.Verdict.ID, "state": "dead"})
	if n := jobs(dead); was == 0 || n != 0 {
		t.Errorf("found dead, %d of %d jobs still stand", n, was)
	}
	ok[struct{}](h, "DELETE", fmt.Sprintf("/outcomes/%d", dead.Turned[0].Outcome.ID), nil)
	if n := jobs(ok[walks.Story](h, "GET", path+"/story", nil)); n != was {
		t.Errorf("the finding taken back, %d of %d jobs stand", n, was)
	}
	if s := ok[walks.Story](h, "GET", path+"/story", nil); len(s.Turned) != 0 {
		t.Errorf("taken back: %+v", s.Turned)
	}
	// A plant that was cut since, so that checks lie above it, still tells its story.
	ok[estate.PlantOut](h, "PUT", path, obj{"species": plant.Species, "height_m": 1, "version": plant.Version})
	if s := ok[walks.Story](h, "GET", path+"/story", nil); len(s.Walks[0].Checks) != 6 {
		t.Errorf("after it was cut: %+v", s.Walks)
	}
}

// TestFellowsAndChoices: the plants of a kind on the property are compared, and the owner's choice can be accepted.
func TestFellowsAndChoices(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	property, _ := h.villa()
	add := func(species string, height, spread float64, more obj) estate.PlantOut {
		body := obj{"property_id": property.ID, "species": species, "height_m": height, "spread_m": spread}
		for k, v := range more {
			body[k] = v
		}
		return ok[estate.PlantOut](h, "POST", "/plants", body)
	}
	for _, x := range []float64{2.5, 2.6, 2.4, 2.7} {
		add("prunus-lusitanica", x, 1.5, nil)
	}
	small := add("prunus-lusitanica", 1.2, 0.8, obj{"wet": true, "soil": "clay", "facing": "north"})
	if small.Soil != "clay" || !small.Wet || small.Facing != "north" {
		t.Errorf("exposure: %+v", small.Exposure)
	}
	add("platanus-hispanica", 14, 12, nil)
	walk := ok[walks.Walk](h, "POST", "/walks", obj{"property_id": property.ID})
	at := fmt.Sprintf("/walks/%d/plants/%d", walk.ID, small.ID)
	a := ok[walks.Found](h, "PUT", at+"/checks", obj{"checks": []obj{{"kind": "scratch", "height_m": 1.1, "result": "green"}}})
	if a.Fellows == nil || a.Fellows.What != "size" || a.Fellows.Others != 4 || a.Spot == nil || a.Spot.Next == nil {
		t.Fatalf("%+v, %+v", a.Fellows, a.Spot)
	}
	a = ok[walks.Found](h, "PUT", at+"/checks", obj{"checks": []obj{{"kind": "scratch", "height_m": 1.1, "result": "green"}, {"kind": "spot", "result": "water_stands", "seen": "no"}}})
	if a.Spot.Next == nil || !a.Spot.Next.Distance || math.Abs(a.Spot.Next.ReachM) < 12 || !strings.Contains(a.Spot.Next.Text, "plane") {
		t.Errorf("asks %+v", a.Spot.Next)
	}

	lemon := add("citrus-limon", 1.8, 1.2, obj{"graft_m": 0.15, "planted": 2010})
	h.today = day.Of(2027, 8, 12)
	walk = ok[walks.Walk](h, "POST", "/walks", obj{"property_id": property.ID})
	at = fmt.Sprintf("/walks/%d/plants/%d", walk.ID, lemon.ID)
	a = ok[walks.Found](h, "PUT", at+"/checks", obj{"checks": []obj{{"kind": "scratch", "height_m": 1.4, "result": "brown"}, {"kind": "scratch", "height_m": 0.7, "result": "brown"}, {"kind": "scratch", "height_m": 0.3, "result": "brown"},
		{"kind": "shoot", "height_m": 0.1, "leaf": "rootstock"}}})
	if a.Verdict.Kind != damage.Regraft || len(a.Choices) != 3 {
		t.Fatalf("%+v, %+v", a.Verdict, a.Choices)
	}
	if code, b := h.do("POST", at+"/verdict", obj{"decision": "accepted", "kind": "wait until"}); code != 422 || !strings.Contains(string(b), "body.kind") {
		t.Errorf("a choice that is none: %d %s", code, b)
	}
	d := ok[walks.Decided](h, "POST", at+"/verdict", obj{"decision": "accepted", "kind": "replace"})
	if d.Verdict.Kind != damage.Replace || d.Verdict.Decision != "accepted" || d.Verdict.Note != "Replace it" || len(from(d.Jobs, job.Verdict)) != 1 || from(d.Jobs, job.Verdict)[0].Kind != job.Replace {
		t.Errorf("%+v, %+v", d.Verdict, d.Jobs)
	}
}

func TestLabels(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	property, _ := h.villa()
	for i := range 30 {
		ok[estate.PlantOut](h, "POST", "/plants", obj{"property_id": property.ID, "species": "olea-europaea", "label": fmt.Sprintf("Row %d, č ž", i), "height_m": 3})
	}
	code, b := h.do("GET", fmt.Sprintf("/properties/%d/labels.pdf?site=http://garden.example:8080/", property.ID), nil)
	if code != 200 || !bytes.HasPrefix(b, []byte("%PDF")) || !bytes.Contains(b, []byte("/Count 2")) {
		t.Errorf("labels: %d, %d bytes", code, len(b))
	}
	for _, bad := range []string{"", "?site=garden", "?site=javascript:alert(1)"} {
		if code, b := h.do("GET", fmt.Sprintf("/properties/%d/labels.pdf%s", property.ID, bad), nil); code != 422 {
			t.Errorf("site %q: %d %s", bad, code, b)
		}
	}
}

// TestOverruledWithADay: a gardener who knows the plant waits for a day of their own; the follow-up hangs on it.
func TestOverruledWithADay(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	property, plant := h.villa()
	walk := ok[walks.Walk](h, "POST", "/walks", obj{"property_id": property.ID})
	at := fmt.Sprintf("/walks/%d/plants/%d", walk.ID, plant.ID)
	ok[damage.Answer](h, "PUT", at+"/checks", obj{"checks": doubt})
	own := obj{"decision": "overruled", "kind": damage.Wait, "note": "It was as bad in 2019, and came in June.", "until": "2027-06-20"}
	if code, b := h.do("POST", at+"/verdict", obj{"decision": "overruled", "kind": damage.Wait, "note": "so", "until": "2027-03-01"}); code != 422 || !strings.Contains(string(b), "until") {
		t.Errorf("a day that is past: %d %s", code, b)
	}
	d := ok[walks.Decided](h, "POST", at+"/verdict", own)
	if !strings.Contains(d.Verdict.Sentence, "20 June") {
		t.Errorf("kept as %q", d.Verdict.Sentence)
	}
	looked := false
	for _, j := range d.Jobs {
		if j.Kind == job.Look {
			looked = j.BestDay == day.Of(2027, 6, 20)
		}
	}
	if !looked {
		t.Errorf("no follow-up on the day given: %+v", d.Jobs)
	}
}

// TestPropertiesInTheMorning: all properties stand in the order one would visit them, and count what a walk there is for.
func TestPropertiesInTheMorning(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	quiet := ok[garden.PropertyOut](h, "POST", "/properties", obj{"name": "Quiet yard", "climate_type": "lake-foothills", "elevation_m": 210})
	property, plant := h.villa()
	l := ok[overview.Lookout](h, "GET", "/lookout", nil)
	if len(l.Places) != 2 || l.Places[0].PropertyID != property.ID || l.Places[0].Looks != 1 || l.Places[0].Minutes == 0 ||
		!strings.Contains(l.Places[0].Why, "likely hurt") {
		t.Fatalf("in the morning: %+v", l.Places)
	}
	if p := l.Places[1]; p.PropertyID != quiet.ID || p.Looks != 0 || p.Why != "asks nothing today" {
		t.Errorf("the quiet one: %+v", p)
	}
	walk := ok[walks.Walk](h, "POST", "/walks", obj{"property_id": property.ID})
	at := fmt.Sprintf("/walks/%d/plants/%d", walk.ID, plant.ID)
	ok[damage.Answer](h, "PUT", at+"/checks", obj{"checks": doubt})
	ok[walks.Decided](h, "POST", at+"/verdict", obj{"decision": "accepted"})
	if p := ok[overview.Lookout](h, "GET", "/lookout", nil).Places[0]; p.Looks != 0 {
		t.Errorf("decided, it still asks: %+v", p)
	}
	h.today = day.Of(2027, 5, 20)
	if p := ok[overview.Lookout](h, "GET", "/lookout", nil).Places[0]; p.PropertyID != property.ID || p.Due != 1 || p.Looks != 1 || p.Nearest > h.today {
		t.Errorf("when the follow-up is due: %+v", p)
	}
}

// TestReckonCause: signs in, causes with the next question out; a sign that is none, or that is both there and not there, is
// named; in the south the month is half a year on.
func TestReckonCause(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	property, _ := h.villa()
	d := ok[finds.CauseOut](h, "POST", "/reckon/cause", obj{"species": "rosa-bedding", "date": "2027-07-10", "property": property.ID,
		"seen": []string{"stippled", "webbing"}, "not_seen": []string{"dark_specks_below"}})
	if d.Causes[0].ID != "spider-mite" || len(d.Causes[0].Evidence) != 3 || d.Species == "" {
		t.Errorf("a rose with webs: %+v", d.Causes[0])
	}
	asked := ok[finds.CauseOut](h, "POST", "/reckon/cause", obj{"species": "azalea-evergreen", "date": "2027-07-10", "seen": []string{"stippled"}})
	if asked.Settled || asked.Next == nil || asked.Next.Ask == "" {
		t.Errorf("speckles alone: %+v", asked)
	}
	for _, c := range []struct {
		body obj
		says string
	}{
		{obj{"seen": []string{"speckled"}}, "seen[0]"},
		{obj{"seen": []string{"webbing"}, "not_seen": []string{"webbing"}}, "is said to be there and not to be there"},
		{obj{"seen": []string{"webbing"}, "share": 2}, "share"},
		{obj{"species": "triffid", "seen": []string{"webbing"}}, "species"},
	} {
		if code, b := h.do("POST", "/reckon/cause", c.body); code != 422 || !strings.Contains(string(b), c.says) {
			t.Errorf("%v: %d %s", c.body, code, b)
		}
	}
	south, err := catalogue.Built().Climate("pampas")
	if err != nil {
		t.Fatal(err)
	}
	if d := ok[finds.CauseOut](h, "POST", "/reckon/cause", obj{"species": "prunus-persica", "date": "2027-11-10", "climate": south.Climate, "seen": []string{"puckered_red"}}); d.Causes[0].ID != "leaf-curl" {
		t.Errorf("a peach in November in the south: %+v", d.Causes[0])
	}
	if signs := ok[Run[cause.Sign]](h, "GET", "/signs", nil); len(signs.Items) < 180 {
		t.Errorf("%d signs", len(signs.Items))
	}
}
