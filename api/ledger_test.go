package api_test

import (
	"encoding/json"
	"strings"
	"testing"

	"mezzadro/house/firm"
	"mezzadro/house/ledger"
)

// TestMoneyOfTheLedger: the crew reads clients and no money; planners neither till the owner says so; the client answers by
// the link of their own property and no other's, and never a line of another's estimate.
func TestMoneyOfTheLedger(t *testing.T) {
	t.Parallel()
	h := sampleHouse(t)
	staff := h.staff()
	owner, planner, crew := staff[firm.RoleOwner], staff[firm.RolePlanner], staff[firm.RoleCrew]
	money := []string{
		"/ledger",
		"/rates",
		"/estimates",
		"/estimates/1",
		"/estimates/1/estimate.pdf",
		"/work-done",
		"/work-done.csv",
		"/charges",
		"/charges/1/charge.pdf",
	}
	for _, path := range money {
		for who, asks := range map[string]*visitor{"the crew": crew, "a planner": planner} {
			if code, body := asks.do("GET", path, nil); code != 403 {
				t.Errorf("%s reads %s: %d %.80s", who, path, code, body)
			}
		}
		owner.must("GET", path, nil)
	}
	if body := crew.must("GET", "/clients?property=1", nil); !strings.Contains(body, "Noemi Tarsello") {
		t.Errorf("whom to call at the villa: %s", body)
	}
	var rates ledger.Rates
	if err := json.Unmarshal([]byte(owner.must("GET", "/rates", nil)), &rates); err != nil {
		t.Fatal(err)
	}
	rates.Planners = true
	owner.must("PUT", "/rates", rates)
	for _, path := range money {
		planner.must("GET", path, nil)
		if code, _ := crew.do("GET", path, nil); code != 403 {
			t.Errorf("the crew reads %s: %d", path, code)
		}
	}
	var link ledger.ClientLink
	if err := json.Unmarshal([]byte(planner.must("POST", "/properties/1/client-links", obj{"days": 30})), &link); err != nil {
		t.Fatal(err)
	}
	answer := obj{"line": 2, "edition": 1, "yes": true, "name": "Noemi"}
	client := staff[""]
	if code, _ := client.do("POST", "/client/estimates/1/answers", answer); code != 404 {
		t.Errorf("answered without a link: %d", code)
	}
	client.must("POST", "/client", obj{"token": link.Token})
	if code, _ := client.do("POST", "/client/estimates/1/answers", answer); code != 404 { // it is the priory's
		t.Errorf("another's estimate was answered: %d", code)
	}
	if code, _ := client.do("GET", "/estimates/1", nil); code != 401 {
		t.Errorf("the firm's own page of an estimate: %d", code)
	}
	if err := json.Unmarshal([]byte(planner.must("POST", "/properties/2/client-links", obj{"days": 30})), &link); err != nil {
		t.Fatal(err)
	}
	client.must("POST", "/client", obj{"token": link.Token})
	var e ledger.Estimate
	if err := json.Unmarshal([]byte(client.must("POST", "/client/estimates/1/answers", answer)), &e); err != nil ||
		e.Lines[1].Answer == nil ||
		e.Lines[1].Answer.Way != "link" {
		t.Errorf("answered: %+v, %v", e.Lines, err)
	}
}

// TestWhatWasForetold: the sample's ledger holds its prognoses against what came, each once, and counts what was found by
// month, each find once; taking an outcome back takes it off the score.
func TestWhatWasForetold(t *testing.T) {
	h := sampleHouse(t)
	o := ok[ledger.Overview](h, "GET", "/ledger", nil)
	if o.Score.Judged < 2 || len(o.Score.Bins) == 0 {
		t.Fatalf("the score: %+v", o.Score)
	}
	n := 0
	for _, b := range o.Score.Bins {
		n += b.Of
		if b.Came > b.Of || b.Told < b.From || b.Told > b.To || b.Low > b.High {
			t.Errorf("%+v", b)
		}
	}
	if n != o.Score.Judged {
		t.Errorf("%d in bins, %d judged", n, o.Score.Judged)
	}
	for _, c := range o.Causes {
		sum := 0
		for _, m := range c.Months {
			sum += m
		}
		if sum != c.Finds || c.Finds == 0 || c.Name == c.Cause {
			t.Errorf("%+v", c)
		}
	}
	if len(o.Causes) < 8 {
		t.Errorf("%d causes in a year of the sample", len(o.Causes))
	}
}
