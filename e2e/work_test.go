package e2e

import (
	"fmt"
	"regexp"
	"strings"
	"testing"
)

// TestTickOff works through a day as a crew would: what is overdue is ticked off and taken back, a job is skipped with a
// reason, and one entered by hand is put on a day.
func TestTickOff(t *testing.T) {
	t.Parallel()
	s := start(t, "demo", t.TempDir())
	b := open(t, s, 1280, 800)
	b.expect("422 ")
	b.visit("/#/lookout")
	b.see("was to be done Tue 16 March")
	b.visit("/#/rounds")
	b.see("Overdue")
	late := s.orderOf("Keep fleece ready for Sweet orange")
	b.visit(fmt.Sprintf("/#/rounds/%d", late))
	b.see("was to be done Tue 16 March; today is best")
	b.press("button", "Done: Keep fleece ready for Sweet orange × 8, Hotel Belpoggio")
	b.fill("Minutes it took", "12")
	b.press("button", "Tick it off")
	b.see("Keep fleece ready for Sweet orange × 8: done.")
	b.until("nothing overdue", "!document.querySelector('ul[aria-label=Overdue]')")
	b.press("button", "Undo")
	b.until("overdue again", "document.querySelector('ul[aria-label=Overdue]')?.innerText.includes('Sweet orange')")

	// Gate locked: it goes back to the list with the reason; of the next time a part is left.
	end := func(how string) {
		b.press("button", "Not done: Keep fleece ready for Sweet orange × 8, Hotel Belpoggio")
		b.press("radio", how)
	}
	end("Not today back to the list")
	b.accessible("how a job ends")
	b.choose("Why not", "gate locked")
	b.press("button", "Keep it so")
	b.see("Thu 18 March: not today, gate locked")
	end("Partly done the rest stays a job")
	b.fill("Minutes that are left", "0")
	b.press("button", "Keep it so")
	b.see("say how much is left")
	b.fill("Minutes that are left", "5")
	b.press("button", "Keep it so")
	b.see("Thu 18 March: partly done")
	b.press("button", "Undo")
	b.until("as before", "!document.body.innerText.includes('Thu 18 March: partly done')")

	end("Not needed any more stands among the ended jobs")
	b.press("button", "Keep it so")
	b.see("say why it is not needed any more")
	b.fill("Why", "They stand under the roof.")
	b.press("button", "Keep it so")
	b.see("not needed, said Thu 18 March: They stand under the roof.")
	b.eval("document.querySelector('summary').click()")
	b.fill("With these words", "fleece orange")
	b.until("among the ended jobs", "document.querySelector('ul[aria-label=\"Ended jobs\"]')?.innerText.includes('under the roof')")
	b.accessible("a job that is not needed")

	b.press("button", "Job by hand")
	b.fill("What is to be done", "")
	b.press("button", "Save")
	b.see("say what is to be done")
	b.accessible("job by hand")
	b.fill("What is to be done", "Mend the gate")
	b.press("button", "Save")
	b.see("Mend the gate saved.")
	b.see("entered by hand")
	b.press("button", "Put on Thu 18 March")
	b.see("On Thu 18 March")
	// Done yesterday by the sample's crew.
	b.press("button", "Earlier")
	b.press("day", "Wed 17 Mar")
	b.see("Check the gate and the basin pump · done")
}

// TestWalkOnADay puts the walk of a property on a day from the Lookout: a day that is past is refused at its field and
// keeps nothing, another makes one job that starts the walk, and undo takes it away again.
func TestWalkOnADay(t *testing.T) {
	t.Parallel()
	s := start(t, "demo", t.TempDir())
	b := open(t, s, 1280, 800)
	b.expect("422 ")
	title := "Walk of Hotel Belpoggio"
	b.visit("/#/lookout")
	b.press("button", "On a day: the walk of Hotel Belpoggio")
	b.date("2027-03-17")
	b.press("button", "Put it on this day")
	b.until("the fault at the day", "document.querySelector('input[type=date][aria-invalid=true]')")
	b.date("2027-03-22")
	b.press("button", "Put it on this day")
	b.see("The walk of Hotel Belpoggio is on Mon 22 March")
	walk := s.orderOf(title)
	b.visit(fmt.Sprintf("/#/rounds/%d", walk))
	b.see("On Mon 22 March")
	b.press("link", "Start this walk")
	b.until("the walk", "location.hash.startsWith('#/walk/')")
	b.see("Hotel Belpoggio")
	b.visit("/#/lookout")
	b.press("button", "On a day: the walk of Hotel Belpoggio")
	b.press("button", "Put it on this day")
	b.see("The walk of Hotel Belpoggio is on Thu 18 March")
	b.press("button", "Undo")
	b.until("one walk only", fmt.Sprintf(`(async () => (await (await fetch('/api/v1/orders?limit=500')).json()).items.filter((o) => o.title === %q).length === 1)()`, title))
}

// TestSeasonMovesWindows moves the sample's time a month on: windows move with the weather, and the day's job is overdue.
func TestSeasonMovesWindows(t *testing.T) {
	t.Parallel()
	s := start(t, "demo", t.TempDir())
	look := s.orderOf("Look again at Bigleaf hydrangea")
	type order struct {
		Best    string `json:"best_day"`
		Overdue bool   `json:"overdue"`
	}
	read := func(id int64) (o order) {
		s.get(fmt.Sprintf("/api/v1/orders/%d", id), &o)
		return o
	}
	before := read(look)
	b := open(t, s, 1280, 800)
	b.visit("/#/lookout")
	b.see("Overdue")
	b.press("button", "Move the time")
	b.fill("Day", "2027-04-20")
	b.date("2027-04-20")
	b.press("button", "Go to this day")
	b.see("Tue 20 April")
	if after := read(look); after.Best == before.Best {
		t.Errorf("a month of weather later the look is still best on %s", after.Best)
	}
	if gravel := read(s.orderOf("Rake the gravel")); !gravel.Overdue {
		t.Error("what was on 18 March is not overdue on 20 April")
	}
}

// TestImperial turns the firm to imperial and back: lists, forms and verdicts follow, and what was measured stays.
func TestImperial(t *testing.T) {
	t.Parallel()
	s := start(t, "demo", t.TempDir())
	b := open(t, s, 1280, 800)
	b.visit("/#/lookout")
	b.see("−13.3 °C")
	b.press("link", "Tre Gelsi")
	b.choose("Units", "Imperial: ft, °F, in, gal")
	b.press("button", "Save")
	b.see("Settings saved.")
	b.visit("/#/lookout")
	b.see("8 °F")
	b.until("no metric temperature", "!/ °C/.test(document.querySelector('section[aria-label=Event]').innerText)")
	b.visit("/#/plant/9")
	b.see("13 ft")
	b.visit("/#/grounds/1")
	b.press("button", "Add a plant")
	b.fill("Species", "Oleander (Nerium oleander)")
	b.fill("Where it stands", "By the well")
	b.fill("Height (ft)", "6 ft 6")
	b.press("button", "Save")
	b.see("By the well")
	b.see("6 ft 6 in")
	b.visit("/#/settings")
	b.choose("Units", "Metric: m, °C, mm, L")
	b.press("button", "Save")
	b.see("Settings saved.")
	b.visit("/#/grounds/1")
	b.see("1.98 m")
}

// tooLow are the things on a screen that a finger has to hit and that are lower than it is wide.
const tooLow = `[...document.querySelectorAll('a, button, input, select, textarea, summary')]
	.filter((e) => e.offsetParent && !e.closest('svg') && !e.disabled)
	.map((e) => [e, (e.closest('label') && ['checkbox', 'radio', 'file'].includes(e.type) ? e.closest('label') : e).getBoundingClientRect()])
	.filter(([, r]) => r.width > 2 && r.height > 2 && r.height < 43.5)
	.map(([e, r]) => (e.getAttribute('aria-label') || e.textContent || e.name).trim().slice(0, 40) + ' ' + Math.round(r.height) + ' px').join('; ')`

// oneOf is what tells one screen of a kind from another: a number, or a species of the almanac.
var oneOf = regexp.MustCompile(`[0-9]+|(?:almanac/)[a-z-]+$`)

// TestFingersOnAPhone: on every screen of the sample, on a phone, whatever is pressed is at least 44 px high, and nothing is
// wider than the phone.
func TestFingersOnAPhone(t *testing.T) {
	t.Parallel()
	s := start(t, "demo", t.TempDir())
	b := open(t, s, 390, 844)
	seen := map[string]bool{}
	for _, at := range everyScreen(s, 1) {
		kind := oneOf.ReplaceAllString(at, "")
		if seen[kind] {
			continue
		}
		seen[kind] = true
		b.visit("/#/" + at)
		b.settled()
		if low, _ := b.eval(tooLow).(string); low != "" {
			t.Errorf("%s: %.400s", at, low)
		}
		if wide, _ := b.eval("document.documentElement.scrollWidth").(float64); wide > 390 {
			t.Errorf("%s is %g px wide", at, wide)
		}
	}
	b.visit("/#/grounds/1")
	b.see("Climbing rose")
	b.until("a long list", "document.documentElement.scrollHeight > 2000")
	b.eval("window.scrollTo(0, 900)")
	b.until("scrolled", "window.scrollY === 900")
	b.eval("location.hash = '#/plant/1'")
	b.see("How it turned out")
	b.until("another screen begins at its top", "window.scrollY === 0")
	b.eval("history.back()")
	b.until("the list where it was left", "Math.abs(window.scrollY - 900) < 2 && location.hash === '#/grounds/1'")
	b.eval(`document.body.insertAdjacentHTML('beforeend', '<a id=low class="inline-block" style="min-height:0">low</a>')`)
	if low, _ := b.eval(tooLow).(string); low == "" {
		t.Error("a link of one line is not found")
	}
}

// TestAlikeDays: what all days of a job are is said once; where they differ, each says its own.
func TestAlikeDays(t *testing.T) {
	t.Parallel()
	s := reading(t)
	b := open(t, s, 1280, 800)
	words := func(job string) string {
		b.visit(fmt.Sprintf("/#/rounds/%d", s.orderOf(job)))
		b.see(job)
		b.settled()
		got, _ := b.eval(`[...document.querySelectorAll('[aria-label=Days] span[title]')].map(e => e.innerText).join(' ')`).(string)
		return got
	}
	if got := words("Clear dead wood from Holm oak"); got != "" {
		t.Errorf("each day of a job for any day says %q", got)
	}
	b.see("all of these days are best.")
	if got := words("Tie in the vine on the refectory"); !strings.Contains(got, "best") || strings.Count(got, "best") == len(strings.Fields(got)) {
		t.Errorf("days that differ say %q", got)
	}
}

// TestNarrow: on a phone no place of work is wider than the phone.
func TestNarrow(t *testing.T) {
	t.Parallel()
	s := reading(t)
	b := open(t, s, 390, 844)
	for _, p := range []struct{ path, says string }{{"/#/rounds", "Overdue"}, {"/#/settings", "House rules"}, {"/#/lookout", "Overdue"},
		{fmt.Sprintf("/#/rounds/%d", s.orderOf("Look again at Sweet orange")), "being best"}, {"/#/plant/1", "How it turned out"}} {
		b.visit(p.path)
		b.see(p.says)
		b.settled()
		if wide, _ := b.eval("document.documentElement.scrollWidth").(float64); wide > 390 || wide < 100 {
			t.Errorf("%s is %g px wide", p.path, wide)
		}
		// A box as wide as a desk would be told: the measure can fail.
		b.eval("document.body.insertAdjacentHTML('beforeend', '<div id=wide style=\"width:900px;height:1px\"></div>')")
		if wide, _ := b.eval("document.documentElement.scrollWidth").(float64); wide < 900 {
			t.Errorf("%s: 900 px are measured as %g", p.path, wide)
		}
		b.eval("document.getElementById('wide').remove()")
	}
}

// TestNotOnTheList adds a plant on the walk that nobody had listed, and looks at it next; then orders work on two plants by hand
// that comes after another job.
func TestNotOnTheList(t *testing.T) {
	t.Parallel()
	s := start(t, "demo", t.TempDir())
	phone := open(t, s, 390, 844)
	phone.expect("422 ")
	phone.visit("/#/walk/1")
	phone.press("button", "Not on the list")
	phone.fill("Species", "Fig")
	phone.fill("Height (m)", "0")
	phone.press("button", "Save")
	phone.see("must be above 0")
	phone.fill("Height (m)", "1.8")
	phone.press("button", "Save")
	phone.see("Fig is on the list.")
	phone.until("the new plant", "document.querySelector('h1').innerText.includes('Fig')")
	phone.press("button", "Bark green")
	phone.until("sent", "!/to send/.test(document.body.innerText)")
	if p := s.plantOf(1, "ficus-carica"); p.ID == 0 {
		t.Error("the fig is not on the property")
	}

	b := open(t, s, 1280, 800)
	b.visit("/#/rounds")
	b.press("button", "Job by hand")
	b.fill("What is to be done", "Tie in two by the wall")
	b.choose("Plant", "Fig")
	b.choose("Plant", "Olive, Gravel court")
	b.choose("Comes after", "Check the gate and the basin pump")
	b.fill("Days between, at least", "3")
	b.accessible("a job on several plants after another")
	b.press("button", "Save")
	b.see("Tie in two by the wall saved.")
	var o struct {
		PlantIDs []int64 `json:"plant_ids"`
		After    []struct {
			MinDays int `json:"min_days"`
		} `json:"after"`
	}
	s.get(fmt.Sprintf("/api/v1/orders/%d", s.orderOf("Tie in two by the wall")), &o)
	if len(o.PlantIDs) != 2 || len(o.After) != 1 || o.After[0].MinDays != 3 {
		t.Errorf("kept as %+v", o)
	}
}

// TestTwoAtOneOrder: what one has done with a job the other is shown, and nothing is written over.
func TestTwoAtOneOrder(t *testing.T) {
	t.Parallel()
	s := start(t, "demo", t.TempDir())
	id := s.orderOf("Keep fleece ready for Sweet orange")
	a, b := open(t, s, 1280, 800), open(t, s, 1280, 800)
	b.expect("409 ")
	for _, x := range []*browser{a, b} {
		x.visit(fmt.Sprintf("/#/rounds/%d", id))
		x.see("was to be done Tue 16 March")
	}
	a.press("button", "Done: Keep fleece ready for Sweet orange × 8, Hotel Belpoggio")
	a.press("button", "Tick it off")
	a.see("Keep fleece ready for Sweet orange × 8: done.")
	b.press("button", "Not done: Keep fleece ready for Sweet orange × 8, Hotel Belpoggio")
	b.press("radio", "Not needed any more stands among the ended jobs")
	b.fill("Why", "Rain")
	b.press("button", "Keep it so")
	b.see("Another device has changed this job: it is done")
	b.see("done")
	var o struct {
		State string `json:"state"`
	}
	if s.get(fmt.Sprintf("/api/v1/orders/%d", id), &o); o.State != "done" {
		t.Errorf("the job is %q", o.State)
	}
}
