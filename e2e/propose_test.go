package e2e

import (
	"fmt"
	"image/color"
	"reflect"
	"strings"
	"testing"
	"time"
)

// TestProposeRounds: rounds are proposed, one reads why a job stands where it does and puts it elsewhere, the rest is
// found anew, what cannot be says why; all are put on their days and taken back; then the crew reads its day on a
// phone and ticks off.
func TestProposeRounds(t *testing.T) {
	t.Parallel()
	s := start(t, "demo", t.TempDir())
	b := open(t, s, 1280, 800)
	b.visit("/#/rounds")
	b.press("link", "Propose rounds")
	b.see("Nothing changes until you take it.")
	b.choose("Search time", "2 seconds")
	b.press("button", "Propose")
	b.see("jobs get a day")
	b.see("Nobody has: licensed arborist.")
	for _, other := range []string{"1", "2"} { // what needs three people is done by both crews together
		b.until("the pots with Crew "+other, fmt.Sprintf(`[...document.querySelectorAll('[data-row] button')].some((x) => x.getAttribute('aria-label')?.includes('Set out the terrace pots for the opening, with Crew %s'))`, other))
	}
	b.accessible("a proposal")
	b.eval(`[...document.querySelectorAll('button[aria-pressed]')].find((x) => x.getAttribute('aria-label')?.includes('Priory courtyard')).click()`)
	b.until("why", "document.querySelector('[data-testid=why]')?.textContent.length > 10")
	b.see("as it is")
	b.accessible("why a job stands there")
	before := b.text("[aria-label='Chosen visit']")
	b.eval(`[...document.querySelectorAll('section[aria-label="Why there"] button')].at(-1).click()`)
	b.see("One is pinned here: let go")
	if before == "" {
		t.Error("no visit was chosen")
	}
	// Dragged to another crew and day, all its jobs are pinned there; let go again, the rest is found as before.
	b.press("button", "One is pinned here: let go")
	b.until("let go", "!/pinned here/.test(document.body.innerText)")
	b.see("jobs get a day")
	b.settled()
	priory := `[...document.querySelectorAll('button[aria-pressed]')].find((x) => x.getAttribute('aria-label')?.includes('Priory courtyard'))`
	b.eval(priory + ".scrollIntoView({block: 'end'})")
	x, y := b.at(priory)
	free := `[...document.querySelectorAll('[data-row][data-crew="0"]')].filter((r) => r.dataset.day > '2027-03-21' && r.dataset.day < '2027-03-25').find((r) => ![...r.querySelectorAll('button')].some((x) => x.getAttribute('aria-label')?.includes('Priory courtyard')))`
	on, _ := b.eval(free + ".dataset.day").(string)
	row := fmt.Sprintf(`[data-row][data-crew="0"][data-day=%q]`, on)
	toX, toY := b.at(fmt.Sprintf("document.querySelector(`%s`)", row))
	b.drag(x, y, toX, toY, func() { b.see(strings.TrimPrefix(on[8:], "0") + " March, Crew 1") })
	b.see("pinned here: let go")
	b.until("it is there", fmt.Sprintf("[...document.querySelectorAll(`%s button`)].some((x) => x.getAttribute('aria-label')?.includes('Priory courtyard'))", row))
	b.eval(`[...document.querySelectorAll('button')].find((x) => x.textContent.includes('pinned here')).click()`)
	b.see("jobs get a day")
	// The weather of each day is told, and said to be simulated by the station's; a visit is wanted at an hour.
	b.see("as the station tells it")
	b.eval(`[...document.querySelectorAll('button[aria-pressed]')].find((x) => x.getAttribute('aria-label')?.includes('Priory courtyard')).click()`)
	b.see("Arrive at")
	b.eval(`((e) => { e.value = '11:00'; e.dispatchEvent(new Event('input', {bubbles: true})); })(document.querySelector('input[type=time]'))`)
	b.press("button", "Arrive then")
	b.see("pinned here: let go")
	b.until("it is come to at eleven", `[...document.querySelectorAll('[data-row] button')].some((x) => /^11:[012].*Priory courtyard/.test(x.getAttribute('aria-label') ?? ''))`)
	b.eval(`[...document.querySelectorAll('button')].find((x) => x.textContent.includes('pinned here')).click()`)
	b.see("jobs get a day")
	// It rains that day: what wants it dry finds another, and it can be taken back.
	b.eval(`[...document.querySelectorAll('button[aria-pressed]')].find((x) => x.getAttribute('aria-label')?.includes('Priory courtyard')).click()`)
	b.press("button", "It rains that day")
	b.see("Found again with as few moves as possible")
	b.eval(`[...document.querySelectorAll('button')].find((x) => x.textContent.includes('take it back')).click()`)
	b.until("taken back", "!document.body.innerText.includes('Found again with as few')")
	b.see("jobs get a day")
	stood := s.sheets()
	b.press("button", "Put them on their days")
	b.see("jobs are on their days.")
	after := s.sheets()
	on, crew, title := "", "", ""
	for _, d := range after {
		if len(d.Visits) > 0 && d.Visits[0].At != 0 && title == "" {
			on, crew, title = d.on, d.crew, d.Visits[0].Jobs[0].Title
		}
	}
	if title == "" || reflect.DeepEqual(stood, after) {
		t.Fatalf("the days of the crews: %+v", after)
	}

	phone := open(t, s, 390, 844)
	phone.visit(fmt.Sprintf("/#/day/%s/%d", on, crewIDs[crew]))
	phone.see("to do by " + crew)
	phone.see(title)
	phone.accessible("a day sheet")
	phone.visit("/#/day/2027-03-18/2")
	phone.see("Rental house at the weir")
	phone.press("button", "Done: Mend the stakes of the olives")
	phone.see("Minutes it took")
	phone.press("button", "Tick it off")
	phone.see("· done")

	b.press("button", "Undo")
	for deadline := time.Now().Add(patience); !reflect.DeepEqual(s.sheets(), stood); time.Sleep(50 * time.Millisecond) {
		if time.Now().After(deadline) {
			t.Fatalf("after it was taken back: %+v, before %+v", s.sheets(), stood)
		}
	}
	b.see("Put them on their days")
}

// daySheet is a crew's day.
type daySheet struct {
	on, crew string
	Visits   []struct {
		At   int
		Jobs []struct{ Title, State string }
	}
}

// crewIDs are the ids of the sample's crews.
var crewIDs = map[string]int{"Crew 1": 1, "Crew 2": 2}

// sheets are the days of both crews from tomorrow on.
func (s *server) sheets() (out []daySheet) {
	for d := 19; d <= 31; d++ {
		for _, crew := range []string{"Crew 1", "Crew 2"} {
			one := daySheet{on: fmt.Sprintf("2027-03-%02d", d), crew: crew}
			s.get(fmt.Sprintf("/api/v1/rounds/sheet?day=%s&crew=%d", one.on, crewIDs[crew]), &one)
			out = append(out, one)
		}
	}
	return out
}

// TestTellClients: the days that stand are drafted for each client, noted as known, and taken back.
func TestTellClients(t *testing.T) {
	t.Parallel()
	s := start(t, "demo", t.TempDir())
	b := open(t, s, 390, 844)
	b.visit("/#/tell")
	b.see("the post is simulated")
	b.see("Arvenna primary school")
	b.accessible("what clients are told")
	b.press("button", "They know: Arvenna primary school, Sat 20 March")
	b.see("Arvenna primary school: knows Sat 20 March.")
	b.until("it is known", "!document.body.innerText.includes('Draft for The head') && ![...document.querySelectorAll('li p')].some(p => p.innerText.includes('Arvenna primary school'))")
	b.press("button", "Undo")
	b.until("it is not known after all", "[...document.querySelectorAll('li p')].some(p => p.innerText.includes('Arvenna primary school'))")
	b.press("button", "Send: Arvenna primary school, Sat 20 March")
	b.see("delivered to nobody")
	b.until("it is among the sent", "document.querySelector('section[aria-label=Sent]')?.innerText.includes('told of Sat 20 March')")
	b.until("and no draft any more", "![...document.querySelectorAll('li p')].some(p => p.innerText.includes('Arvenna primary school'))")
}

// TestFirstCrew: an empty firm is led from Rounds to its people, its crew and the first proposal.
func TestFirstCrew(t *testing.T) {
	t.Parallel()
	s := garden(t, "2027-03-18")
	s.post("/api/v1/orders", `{"property_id": 1, "title": "Sweep the court", "minutes": 60, "spans": [{"from": "2027-03-18", "to": "2027-03-30"}]}`)
	b := open(t, s, 390, 844)
	b.expect("422 ")
	b.visit("/#/propose")
	b.see("There is no crew yet.")
	b.press("link", "Enter the people and a crew")
	b.see("Enter the people first")
	b.press("button", "Enter a person")
	b.fill("Name of the person", "Ilda")
	b.eval(`document.querySelector('form[aria-label="A person"] button[type=submit]').click()`)
	b.see("Ilda: saved.")
	b.press("button", "Enter a crew")
	b.eval(`document.querySelector('form[aria-label="A crew"] button[type=submit]').click()`)
	b.see("want 1 or more")
	b.press("checkbox", "Ilda")
	b.choose("The day begins at", "Priory")
	b.accessible("a crew")
	b.eval(`document.querySelector('form[aria-label="A crew"] button[type=submit]').click()`)
	b.see("Mon – Fri 08:00 – 17:00")
	b.visit("/#/propose")
	b.choose("Search time", "2 seconds")
	b.press("button", "Propose")
	b.see("1 job gets a day")
	b.press("button", "Put them on their days")
	b.see("One job is on their days.")
}

// TestDayWithoutSignal: the crew's day opens and is ticked off without a connection, outlives a closed page, and all
// ticks arrive once; what another phone ticked off meanwhile is told.
func TestDayWithoutSignal(t *testing.T) {
	t.Parallel()
	s := start(t, "demo", t.TempDir())
	b := openKept(t, s, 390, 844)
	b.expect("ERR_CONNECTION_REFUSED")
	b.expect("failed request")
	b.expect("409 ")
	b.visit("/#/day/2027-03-18/2")
	b.see("Rental house at the weir")
	b.until("the program is on the phone", "navigator.serviceWorker.controller")
	b.eval("location.reload()") // read once more, through the keeper of what was read
	b.see("Rental house at the weir")
	b.settled()
	s.kill()
	tick := func(job string) {
		b.press("button", "Done: "+job)
		b.see("Minutes it took")
		b.press("button", "Tick it off")
		b.see("It is kept on this device")
	}
	tick("Mend the stakes of the olives, Hillside terrace")
	tick("Rake the gravel and look over the fence for the agency, Rental house at the weir")
	b.upload("Picture", pictureFile(t, "gravel.jpg", 60, 40, color.White))
	b.see("The picture is kept on this device")
	b.see("2 to send.")
	b.eval("location.reload()")
	b.see("done: waits to be sent")
	b.see("2 to send.")
	// Another phone was there first with one of the two: at another address, where this one does not send.
	other := start(t, "demo", s.data)
	stakes := other.orderOf("Mend the stakes of the olives")
	var o struct{ Version int }
	other.get(fmt.Sprintf("/api/v1/orders/%d", stakes), &o)
	other.put(fmt.Sprintf("/api/v1/orders/%d/state", stakes), fmt.Sprintf(`{"state": "skipped", "note": "The client has mended them", "version": %d}`, o.Version))
	other.kill()
	s = s.again()
	b.until("sent", "!/2 to send/.test(document.body.innerText)")
	b.see("not taken")
	b.accessible("what was not taken")
	var sheet struct {
		Visits []struct {
			Jobs []struct {
				Title, State, Note string
				Photos             []struct{ ID int }
			}
		}
	}
	b.until("the picture is sent", "!document.querySelector('img[alt=\"Waits to be sent\"]')")
	s.get("/api/v1/rounds/sheet?day=2027-03-18&crew=2", &sheet)
	states, pictures := map[string]int{}, 0
	for _, v := range sheet.Visits {
		for _, j := range v.Jobs {
			states[j.State]++
			pictures += len(j.Photos)
		}
	}
	if states["done"] != 1 || states["skipped"] != 1 || pictures != 1 {
		t.Errorf("after the connection came back: %+v", sheet)
	}
	b.press("button", "Take it back: Mend the stakes of the olives")
	b.until("it is let go", "!/not taken/.test(document.body.innerText)")
}
