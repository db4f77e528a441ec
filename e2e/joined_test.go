package e2e

import (
	"fmt"
	"testing"
)

// hand is a job by hand on a plant of the sample, put on a day.
func (s *server) hand(property, plant int64, kind, title, on string) int64 {
	s.t.Helper()
	var o struct {
		ID      int64
		Version int
	}
	s.postFor("/api/v1/orders", fmt.Sprintf(`{"property_id": %d, "plants": [%d], "kind": %q, "title": %q, "minutes": 30, "crew_size": 1}`, property, plant, kind, title), &o)
	s.put(fmt.Sprintf("/api/v1/orders/%d/day", o.ID), fmt.Sprintf(`{"day": %q, "crew": "Crew 2", "version": %d}`, on, o.Version))
	return o.ID
}

// TestJoined: what one part knows binds the others, at the desk and on the phone: a verdict to wait holds the cut that stood
// before it; a visit is cancelled and stands again; a call opens its plant with what was told ticked as told, and what
// nobody can name is kept and named later.
func TestJoined(t *testing.T) {
	t.Parallel()
	s := start(t, "demo", t.TempDir())
	for _, at := range []struct {
		name          string
		width, height int64
		property      int64
		place         string
		species       string
	}{
		{"desk", 1280, 800, 3, "Hillside terrace", "prunus-laurocerasus"},
		{"phone", 390, 844, 7, "Rental house at the weir", "viburnum-bodnantense"},
	} {
		plant := int64(s.plantOf(int(at.property), at.species).ID)
		b := open(t, s, at.width, at.height)
		b.expect("422 ")
		title := "Cut it at the " + at.name
		id := s.hand(at.property, plant, "cut to the base", title, "2027-03-19")
		b.letItWait(s, at.property, plant, id, title)
		b.cancels(at.place, title)
		b.fromCallToName(s, at.property, plant, at.species)
	}
}

// letItWait: a verdict to wait is made after the cut was put on a day: it is flagged, let wait, and overruled with a reason.
func (b *browser) letItWait(s *server, property, plant, id int64, title string) {
	b.t.Helper()
	var walk struct{ ID int64 }
	s.postFor("/api/v1/walks", fmt.Sprintf(`{"property_id": %d}`, property), &walk)
	s.post(fmt.Sprintf("/api/v1/walks/%d/plants/%d/verdict", walk.ID, plant), `{"decision": "overruled", "kind": "wait until", "until": "2027-06-01", "note": "Hard frost"}`)
	b.visit("/#/lookout")
	b.see("On a day, and to wait")
	b.press("button", "Let it wait: "+title)
	b.see(title + ": off its day, and waits.")
	b.press("button", "Undo")
	b.see("on Fri 19 March")
	b.visit("/#/day/2027-03-19")
	b.press("button", "All the same …: "+title)
	b.fill("Why it is done anyway", "The owners move in")
	b.press("button", "Do it anyway")
	b.see("Done all the same: “The owners move in”")
	b.accessible("a day sheet with what waits")
	b.visit(fmt.Sprintf("/#/rounds/%d", id))
	b.see("Done all the same: “The owners move in”")
}

// cancels: a client cancels the visit, and it stands as it did when that is taken back.
func (b *browser) cancels(place, title string) {
	b.t.Helper()
	b.visit("/#/day/2027-03-19")
	b.see("Take along")
	b.press("button", "Change the visit: "+place)
	b.accessible("a visit that changes")
	b.fill("Why it is cancelled", "Guests in the garden")
	b.press("button", "Cancelled by the client")
	b.see(place + ": one job cancelled.")
	b.until("it is off the day", fmt.Sprintf("![...document.querySelectorAll('main section h2')].some((e) => e.innerText.includes(%q))", place))
	b.press("button", "Undo")
	b.until("it stands again", fmt.Sprintf("[...document.querySelectorAll('main li a')].some((e) => e.innerText === %q)", title))
}

// fromCallToName: a call, its visit, the plant with what was told, a find without a name, and its name.
func (b *browser) fromCallToName(s *server, property, plant int64, species string) {
	b.t.Helper()
	var call struct {
		Order int64 `json:"order_id"`
	}
	s.postFor("/api/v1/calls", fmt.Sprintf(`{"plant_id": %d, "caller": "The housekeeper", "seen": ["pale_all_over"], "not_seen": ["many_kinds"], "ending": "visit", "said": "We come and look.", "visit_on": "2027-03-22"}`, plant), &call)
	b.visit(fmt.Sprintf("/#/rounds/%d", call.Order))
	b.press("link", "Look at it now")
	b.see("A call from The housekeeper")
	b.press("button", "A call from The housekeeper")
	b.see("Ticked as told by The housekeeper")
	b.accessible("what was told")
	b.eval("[...document.querySelectorAll('button')].find((e) => e.innerText === 'It is so').click()")
	b.until("one sign is left to confirm", "[...document.querySelectorAll('button')].filter((e) => e.innerText === 'It is so').length === 1")
	b.press("button", "None of these")
	b.press("button", "Save it without a name")
	b.see("say what is seen")
	b.fill("What is seen", "Yellow rings with a brown rim")
	b.fill("What was sent", "Six leaves")
	b.fill("To whom", "the plant clinic")
	b.press("button", "In a fortnight")
	b.accessible("a find without a name")
	b.press("button", "Save it without a name")
	b.see("Kept without a name")
	b.visit(fmt.Sprintf("/#/plant/%d", plant))
	b.see("Six leaves sent to the plant clinic")
	b.see("An answer is expected by Thu 1 April")
	b.press("button", "Give it its name")
	b.choose("It is", "Virus")
	b.fill("What came back", "A virus; no cure")
	b.press("button", "Save the name")
	b.see("It has its name")
	b.until("a find", "document.querySelector('section[aria-label=Finds]')")
	if f := s.findsOn(plant); len(f) == 0 || f[len(f)-1].Cause != "virus" || len(f[len(f)-1].Seen) != 1 {
		b.t.Errorf("%s: %+v", species, f)
	}
}
