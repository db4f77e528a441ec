package e2e

import (
	"fmt"
	"net"
	"strings"
	"testing"
	"time"

	"mezzadro/standin"
)

// TestEstimateToCharge: a firm enters its rates and a client, drafts an estimate, puts a price in, sends it; the client says
// yes to two of three lines on a phone; what was declined is gone, what was agreed is done and charged.
func TestEstimateToCharge(t *testing.T) {
	t.Parallel()
	s := garden(t, "2027-03-18")
	var bay struct{ ID int64 }
	s.postFor("/api/v1/plants", `{"property_id": 1, "species": "laurus-nobilis", "label": "Porch", "height_m": 3}`, &bay)
	jobs := map[string]int64{}
	for title, body := range map[string]string{"Wash the paving": `"minutes": 90`, "Mend the trellis": `"minutes": 60, "crew_size": 2`, "Tie in the rose": `"minutes": 30`} {
		var o struct{ ID int64 }
		s.postFor("/api/v1/orders", fmt.Sprintf(`{"property_id": 1, "title": %q, %s, "spans": [{"from": "2027-03-15", "to": "2027-04-30"}]}`, title, body), &o)
		jobs[title] = o.ID
	}
	b := open(t, s, 1280, 900)
	b.expect("422 ")
	b.visit("/#/ledger")
	b.see("Enter what you ask for your work first")
	b.accessible("an empty ledger")
	b.press("link", "Rates")
	b.fill("Currency, by its three letters", "QQQ")
	b.fill("An hour of one person", "40")
	b.fill("A visit: way and setting up", "25.50")
	b.fill("Tax (%)", "22")
	b.press("button", "Save the rates")
	b.see("is no currency by its three letters")
	b.fill("Currency, by its three letters", "EUR")
	b.press("button", "Save the rates")
	b.see("Rates saved.")
	b.accessible("rates")
	b.visit("/#/ledger/clients")
	b.press("button", "Enter a client")
	b.fill("Name", "Noemi Tarsello")
	b.fill("Telephone", "+39 0555 010 010")
	b.fill("E-mail", "noemi@example.com")
	b.press("button", "Add a property")
	b.choose("Property", "Priory")
	b.press("button", "Save")
	b.see("owner of Priory")
	b.accessible("clients")
	b.visit("/#/ledger")
	b.press("button", "New estimate")
	b.choose("Of the jobs of", "Priory")
	b.press("button", "Draft it")
	b.see("Estimate 1: Priory")
	b.see("Mend the trellis")
	b.accessible("a draft")
	b.fill("Words to the client", "For the spring.")
	b.press("button", "Send")
	b.see("0 of 3 answered")
	letters := s.mailbox(t)
	letters.Fail("451 try again later")
	b.press("button", "Write to them with a link")
	b.see("To noemi@example.com")
	b.accessible("a letter with a link")
	b.press("button", "Send by mail")
	b.see("Waits for the post")
	var link struct{ Token string }
	s.postFor("/api/v1/properties/1/client-links", `{"days": 30}`, &link)
	phone := open(t, s, 390, 844)
	phone.visit("/#/client/" + link.Token)
	phone.see("For the spring.")
	phone.accessible("an estimate on a client's phone")
	phone.press("button", "Yes, do it: Wash the paving")
	phone.see("write your name above")
	phone.fill("Your name", "Noemi")
	phone.press("button", "Yes, do it: Wash the paving")
	phone.press("button", "Yes, do it: Mend the trellis")
	phone.see("Of it agreed")
	phone.press("button", "No: Tie in the rose")
	phone.see("All of it is answered.")
	b.visit("/#/ledger")
	b.see("Agreed and not done")
	var o struct {
		State, Note, Agreed string
		Version             int
	}
	s.get(fmt.Sprintf("/api/v1/orders/%d", jobs["Tie in the rose"]), &o)
	if o.State != "skipped" || o.Note != "Declined by Noemi" {
		t.Errorf("declined it is %+v", o)
	}
	s.get(fmt.Sprintf("/api/v1/orders/%d", jobs["Wash the paving"]), &o)
	if o.Agreed != "agreed" {
		t.Errorf("agreed it is %+v", o)
	}
	s.put(fmt.Sprintf("/api/v1/orders/%d/state", jobs["Wash the paving"]), fmt.Sprintf(`{"state": "done", "took_minutes": 60, "version": %d}`, o.Version))
	b.visit("/#/almanac")
	b.settled()
	b.visit("/#/ledger")
	b.see("Done and not charged")
	b.press("link", "Priory one job since")
	b.see("Choose all 1")
	b.accessible("work to be charged")
	b.press("button", "Choose all 1")
	b.press("button", "Charge one job")
	b.see("Invoice draft 1 is saved: €79.91.") // 40.00 and 25.50, 22 % on them
	var done struct {
		Total struct{ Amount, Open int }
	}
	s.get("/api/v1/work-done?from=2027-03-01", &done)
	if done.Total.Amount != 4000 || done.Total.Open != 0 {
		t.Errorf("charged, it is %+v", done.Total)
	}
	for path, holds := range map[string]string{"/api/v1/estimates/1/estimate.pdf": "%PDF", "/api/v1/charges/1/charge.pdf": "%PDF", "/api/v1/work-done.csv?from=2027-03-01": "Wash the paving"} {
		if got := s.fetch(path); len(got) < 100 || !strings.Contains(got, holds) {
			t.Errorf("%s: %.80q", path, got)
		}
	}
	letters.Fail("")
	s.on("2027-03-19") // the program starts anew: what waits goes out
	for deadline := time.Now().Add(patience); len(letters.Letters()) == 0 && time.Now().Before(deadline); {
		time.Sleep(50 * time.Millisecond)
	}
	if got := letters.Letters(); len(got) != 1 || got[0].To[0] != "noemi@example.com" || !strings.Contains(got[0].Body, "#/client/") {
		t.Errorf("the mailbox holds %+v", got)
	}
}

// mailbox is a mail server of made-up letters that the firm's mail goes to.
func (s *server) mailbox(t *testing.T) *standin.Mailbox {
	t.Helper()
	l, err := net.Listen("tcp", "127.0.0.1:0")
	if err != nil {
		t.Fatal(err)
	}
	t.Cleanup(func() { l.Close() })
	m := &standin.Mailbox{}
	go func() { _ = m.Serve(l) }() // it ends when the listener is closed
	_, port, _ := net.SplitHostPort(l.Addr().String())
	s.put("/api/v1/mail", fmt.Sprintf(`{"host": "127.0.0.1", "port": %s, "security": "none", "from": "garden@example.com"}`, port))
	return m
}

// TestReportToClient: a report of the frost is written, gone over and sent; the client reads it by the link on a phone, and
// nothing of it once it is taken back.
func TestReportToClient(t *testing.T) {
	t.Parallel()
	s := start(t, "demo", t.TempDir())
	b := open(t, s, 1280, 900)
	b.visit("/#/ledger")
	b.see("Waits on a client")
	b.accessible("the ledger")
	b.press("button", "New report")
	b.choose("For", "Arvenna primary school")
	b.press("button", "Write it")
	b.see("Lemon verbena, Herb spiral")
	b.accessible("a report")
	b.press("button", "Change its words")
	b.fill("Paragraph 2", "The herb spiral was hit hardest.")
	b.press("button", "Leave it out: Sweet cherry, Pupils' orchard")
	b.accessible("a report that is changed")
	b.press("button", "Send")
	b.see("the client’s link shows it")
	var link struct{ Token string }
	s.postFor("/api/v1/properties/4/client-links", `{"days": 30}`, &link)
	phone := open(t, s, 390, 844)
	phone.visit("/#/client/" + link.Token)
	phone.see("The herb spiral was hit hardest.")
	phone.see("Please not:")
	phone.accessible("a report on a client's phone")
	if text := phone.text("body"); strings.Contains(text, "Sweet cherry") && strings.Contains(text, "needs attention") {
		t.Error("what was left out is shown")
	}
	b.press("button", "Take back")
	b.see("Change its words")
	var page struct{ Reports []struct{ Title string } }
	s.get("/api/v1/client/"+link.Token, &page)
	if len(page.Reports) != 0 {
		t.Errorf("taken back it is shown still: %v", page.Reports)
	}
}
