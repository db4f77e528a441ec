package e2e

import "testing"

// TestNightWatch: on the eve of the sample's hardest night the lookout says what to carry in and cover; it becomes a job for
// today, and is taken back; on a phone it reads as well.
func TestNightWatch(t *testing.T) {
	t.Parallel()
	s := start(t, "demo", t.TempDir())
	s.put("/api/v1/today", `{"day": "2027-02-25"}`)
	b := open(t, s, 1280, 800)
	b.visit("/#/lookout")
	b.see("Before a cold night")
	b.see("told for the morning of Fri 26 February")
	b.see("Carry in")
	b.accessible("the night watch")
	b.press("button", "Make it a job for today: Hotel Belpoggio")
	b.see("Hotel Belpoggio: a job for today.")
	b.until("it is not offered again", "!document.body.innerText.includes('Make it a job for today: Hotel Belpoggio')")
	if s.orderOf("Before the frost") == 0 {
		t.Error("there is no job of it")
	}
	b.press("button", "Undo")
	b.until("offered again", `[...document.querySelectorAll('[aria-label="Night watch"] button')].some((x) => x.innerText.includes('Hotel Belpoggio'))`)
	phone := open(t, s, 390, 844)
	phone.visit("/#/lookout")
	phone.see("Before a cold night")
	phone.accessible("the night watch on a phone")
}

// TestPace: the ledger shows how long work takes the firm against what is reckoned; it is not used, and used again, by a press.
func TestPace(t *testing.T) {
	t.Parallel()
	b := open(t, start(t, "demo", t.TempDir()), 1280, 800)
	b.visit("/#/ledger/work")
	b.see("Our pace")
	b.see("jobs whose minutes were noted. Rounds and estimates go by it where it differs beyond doubt.")
	b.accessible("our pace")
	b.press("button", "Go by the times as reckoned")
	b.see("Not used: rounds and estimates go by the times as reckoned.")
	b.press("button", "Undo")
	b.see("Rounds and estimates go by it where it differs beyond doubt.")
	b.visit("/#/ledger")
	b.see("Foretold, and what came")
}
