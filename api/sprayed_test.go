package api_test

import (
	"encoding/csv"
	"fmt"
	"slices"
	"strings"
	"testing"
	"time"

	. "mezzadro/api"
	"mezzadro/core/job"
	"mezzadro/house/crews"
	"mezzadro/house/garden"
	"mezzadro/house/treat"
	"mezzadro/house/work"
)

// TestSprayedAsItWas: what was sprayed is recorded with its hours, area, weather of that time and the numbers an
// inspector asks for, as they were that day; more than the shelf was entered with is kept, and the shelf is counted
// after.
func TestSprayedAsItWas(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	here, _, find := h.gall()
	oil := h.oil(40)
	oil = ok[treat.Product](h, "PUT", fmt.Sprintf("/products/%d", oil.ID), obj{"name": oil.Name, "active": oil.Active, "unit": oil.Unit, "rates": oil.Rates,
		"packs": oil.Packs, "registration": "R-0419", "reentry_h": 12, "version": oil.Version})
	ok[crews.Person](h, "POST", "/people", obj{"name": "Rosa", "skills": []string{job.Restricted}, "licence": "L 77"})
	path := fmt.Sprintf("/finds/%d/treatment", find.ID)
	ok[treat.Treatment](h, "POST", path, nil)
	jobs := ok[treat.Treatment](h, "GET", path, nil).Jobs
	ok[work.OrderDetail](h, "PUT", fmt.Sprintf("/orders/%d/state", jobs[0].ID), obj{"state": "done", "version": jobs[0].Version})
	spray := ok[treat.Treatment](h, "GET", path, nil).Jobs[0]
	h.today = spray.BestDay
	// 8 °C and 1 m/s in the small hours, 14 °C and 3 m/s from six on: it was put on from half past six to ten past seven.
	zone, err := time.LoadLocation(here.Zone)
	if err != nil {
		t.Fatal(err)
	}
	y, m, d := spray.BestDay.Time().Date()
	hours := "time,temp_c,wind_ms\n"
	for i := range 24 {
		values := ",8,1\n"
		if i >= 6 {
			values = ",14,3\n"
		}
		hours += time.Date(y, m, d, i, 0, 0, 0, zone).Format(time.RFC3339) + values
	}
	if code, b := h.do("POST", fmt.Sprintf("/properties/%d/weather", here.ID), hours, "Content-Type", "text/csv"); code != 200 {
		t.Fatalf("weather: %d %s", code, b)
	}
	done := ok[work.OrderDetail](h, "PUT", fmt.Sprintf("/orders/%d/state", spray.ID), obj{"state": "done", "version": spray.Version, "use": obj{
		"product_id": oil.ID, "amount": 60, "spray_l": 3, "who": "Rosa", "begun": "06:30", "ended": "07:10", "area_m2": 18, "wind_from": "west"}})
	if done.State != "done" {
		t.Fatalf("%+v", done)
	}
	u := ok[Run[treat.Used]](h, "GET", "/uses", nil).Items[0]
	if u.Begun != "06:30" || u.Ended != "07:10" || u.AreaM2 != 18 || u.WindFrom != "west" || u.Licence != "L 77" || u.Registration != "R-0419" || u.ReentryH != 12 {
		t.Errorf("the record: %+v", u)
	}
	if u.TempC == nil || *u.TempC != 14 || u.WindMS == nil || *u.WindMS != 3 {
		t.Errorf("the weather of those hours: %v, %v", u.TempC, u.WindMS)
	}
	if p := ok[Run[treat.Product]](h, "GET", "/products", nil).Items[0]; p.OnHand != -20 {
		t.Errorf("on hand %g, want 20 less than nothing", p.OnHand)
	}
	// The card changes, the record does not; the shelf is counted.
	oil = ok[Run[treat.Product]](h, "GET", "/products", nil).Items[0]
	ok[treat.Product](h, "PUT", fmt.Sprintf("/products/%d", oil.ID), obj{"name": oil.Name, "active": oil.Active, "unit": oil.Unit, "rates": oil.Rates,
		"packs": oil.Packs, "registration": "R-2000", "version": oil.Version})
	if p := ok[treat.Product](h, "POST", fmt.Sprintf("/products/%d/stock", oil.ID), obj{"amount": 150, "shelf": true}); p.OnHand != 150 {
		t.Errorf("counted: %g on hand, want 150", p.OnHand)
	}
	if p := ok[treat.Product](h, "POST", fmt.Sprintf("/products/%d/stock", oil.ID), obj{"amount": 0, "shelf": true}); p.OnHand != 0 {
		t.Errorf("the shelf is empty: %g on hand", p.OnHand)
	}
	_, file := h.do("GET", "/uses.csv", nil)
	rows, err := csv.NewReader(strings.NewReader(string(file))).ReadAll()
	if err != nil || len(rows) != 3 {
		t.Fatalf("the file: %v\n%s", err, file)
	}
	for column, want := range map[string]string{"hours": "06:30 to 07:10", "area": "18 m²", "registration": "R-0419", "licence": "L 77",
		"weather": "14 °C 3 m/s from west", "re-entry after": "12 h", "amount": "60 mL", "who": "Rosa"} {
		if i := slices.Index(rows[0], column); i < 0 || rows[1][i] != want {
			t.Errorf("%s is not %q: %q", column, want, rows[1])
		}
	}
}

// TestAnySprayWantsItsHolder: where whatever is sprayed for hire needs a licence, the record takes no other name for it.
func TestAnySprayWantsItsHolder(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	here, _, find := h.gall()
	ok[garden.PropertyOut](h, "PUT", fmt.Sprintf("/properties/%d", here.ID), obj{"name": here.Name, "climate_type": "great-lakes", "region": "US-MI", "version": here.Version})
	oil := h.oil(400)
	ok[crews.Person](h, "POST", "/people", obj{"name": "Rosa", "skills": []string{job.Spraying}})
	ok[crews.Person](h, "POST", "/people", obj{"name": "Bruno"})
	path := fmt.Sprintf("/finds/%d/treatment", find.ID)
	ok[treat.Treatment](h, "POST", path, nil)
	for range 2 {
		o := ok[treat.Treatment](h, "GET", path, nil).Jobs[0]
		if o.BestDay > h.today {
			h.today = o.BestDay
		}
		tick := func(use obj) (int, string) {
			code, b := h.do("PUT", fmt.Sprintf("/orders/%d/state", o.ID), obj{"state": "done", "version": o.Version, "use": use})
			return code, string(b)
		}
		if detail := ok[work.OrderDetail](h, "GET", fmt.Sprintf("/orders/%d", o.ID), nil); detail.Params.Use == "" {
			tick(nil)
			continue
		}
		for _, who := range []string{"", "Bruno"} {
			if code, b := tick(obj{"product_id": oil.ID, "amount": 60, "who": who}); code != 422 || !strings.Contains(b, "body.use.who") || !strings.Contains(b, "Licensed: Rosa") {
				t.Errorf("by %q: %d %s", who, code, b)
			}
		}
		if code, b := tick(obj{"product_id": oil.ID, "amount": 60, "who": "Rosa"}); code != 200 {
			t.Errorf("by its holder: %d %s", code, b)
		}
		return
	}
	t.Error("no step takes a product")
}
