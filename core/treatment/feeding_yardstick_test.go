package treatment

import (
	"fmt"
	"strconv"
	"strings"
	"testing"

	"mezzadro/core/catalogue"
	"mezzadro/core/day"
	"mezzadro/core/moment"
	"mezzadro/yardstick"
)

// TestFeedingHolds: when and how often kinds are fed against what practitioners say, three weeks either way; it prints
// how many hold.
func TestFeedingHolds(t *testing.T) {
	places := map[string]*moment.Place{}
	rows, whole := 0, 0
	for _, r := range yardstick.Rows(t, "testdata/feeding.csv") {
		e, known := catalogue.Built().Entry(r["species"])
		if !known {
			continue
		}
		if places[r["climate"]] == nil {
			places[r["climate"]] = place(t, r["climate"])
		}
		a := FeedAsk{Species: e, Place: places[r["climate"]], Date: day.Of(2027, 1, 1), Hurt: strings.Contains(r["situation"], "freeze")}
		if strings.Contains(r["situation"], "pot") {
			a.PotL = 20
		}
		a.AfterCut, a.Young = r["situation"] == "after hard cut", r["situation"] == "young"
		for word, id := range map[string]string{"fire blight": "fire-blight", "root rot": "root-rot", "canker": "canker"} {
			if r["situation"] == "sick" && strings.Contains(r["note"], word) {
				a.Sick = append(a.Sick, id)
			}
		}
		never := r["from"] == "" || r["with"] == "none" || strings.HasPrefix(r["with"], "nothing")
		var from, to day.Day
		if !never {
			from, _ = day.Parse("2027-" + r["from"])
			to, _ = day.Parse("2027-" + r["to"])
			if to < from {
				to += 365
			}
			a.Date = from - 25
		}
		f, err := Feed(a)
		if err != nil {
			t.Errorf("%s in %s: %v", r["species"], r["climate"], err)
			continue
		}
		rows++
		const slack = 21
		low, _ := strconv.Atoi(r["every_days_low"])
		high, _ := strconv.Atoi(r["every_days_high"])
		var faults []string
		switch {
		case f.None && strings.Contains(r["with"], "none"): // no feed is as right
		case never != f.None:
			faults = append(faults, fmt.Sprintf("none %v, want %v", f.None, never))
		case f.None || never:
		case len(f.Days) == 0:
			faults = append(faults, "no day")
		default:
			if f.Days[0] < from-slack || f.Days[0] > to+slack {
				faults = append(faults, fmt.Sprintf("from %s, want %s", f.Days[0].String()[5:], r["from"]))
			}
			if last := f.Days[len(f.Days)-1]; last > to+slack {
				faults = append(faults, fmt.Sprintf("last %s, want to %s", last.String()[5:], r["to"]))
			}
			if len(f.Days) > 1 && low > 0 && (f.Every < low*2/3 || f.Every > high*3/2) {
				faults = append(faults, fmt.Sprintf("every %d, want %d to %d", f.Every, low, high))
			}
		}
		if len(faults) == 0 {
			whole++
			continue
		}
		t.Logf("%s | %s %s %s | %s..%s every %d..%d | %s | %s || %s", strings.Join(faults, "; "), r["species"], r["climate"], r["situation"], r["from"], r["to"], low, high, r["with"], r["note"], f.Class)
	}
	t.Logf("%d of %d feedings hold", whole, rows)
	if float64(whole) < 0.95*float64(rows) {
		t.Errorf("%d of %d feedings hold", whole, rows)
	}
}
