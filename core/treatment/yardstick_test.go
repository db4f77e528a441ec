package treatment

import (
	"encoding/json"
	"fmt"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"testing"
	"time"

	"mezzadro/core/catalogue"
	"mezzadro/core/cause"
	"mezzadro/core/day"
	"mezzadro/core/moment"
	"mezzadro/yardstick"
)

// rungsOf are the rungs of the program that stand for a word of the yardstick.
var rungsOf = map[string][]string{"none": {"none"}, "watch": {"none"}, "hands": {"hands"}, "cutting out": {"cutting"}, "soft means": {"soft"}, "water": {"water"},
	"place and care": {"habitat"}, "replace": {"replace"}, "barrier": {"barriers"}, "trap": {"barriers", "hands"}, "helpers": {"none", "soft"}, "licensed": {"strong"}, "stronger means": {"strong"}}

// against is what a treatment says against a row: the rung, or when it begins.
func against(t *testing.T, o *Answer, today day.Day, r map[string]string) (out []string) {
	t.Helper()
	var good []string
	for _, w := range strings.Split(r["rung"], "|") {
		good = append(good, rungsOf[w]...)
	}
	if !slices.Contains(good, o.Rung) {
		out = append(out, fmt.Sprintf("%s, want %s", o.Rung, r["rung"]))
	}
	if r["first_from"] == "" || o.Rung == "none" || len(o.Steps) == 0 || len(r["first_from"]) != 5 || len(r["first_to"]) != 5 {
		return out
	}
	next := func(from day.Day, monthDay string) day.Day {
		for d := from; d < from+370; d++ {
			if d.String()[5:] == monthDay {
				return d
			}
		}
		return from
	}
	const slack = 21
	to := next(today, r["first_to"])
	from := to
	for from > to-366 && from.String()[5:] != r["first_from"] {
		from--
	}
	if first := o.Steps[0].Day; (first > to+slack || first < from-slack) && first+366 > today {
		out = append(out, fmt.Sprintf("from %s, want %s..%s", first, r["first_from"], r["first_to"]))
	}
	return out
}

// saysIdea reports that a text says an idea: all longer words of one of its wordings, by their beginnings.
func saysIdea(text, idea string) bool {
	return slices.ContainsFunc(strings.Split(strings.ToLower(idea), "/"), func(wording string) bool {
		return !slices.ContainsFunc(strings.Fields(wording), func(w string) bool {
			return len(w) > 3 && !strings.Contains(text, w[:min(5, len(w))])
		})
	})
}

// TestTreatmentsHold: what is done about causes on hosts at places against what practitioners say; it prints how many
// hold.
func TestTreatmentsHold(t *testing.T) {
	places := map[string]*moment.Place{}
	rows, rungs, whole := 0, 0, 0
	ideas, said := 0, 0
	for _, r := range yardstick.Rows(t, "testdata/treatment.csv") {
		e, known := catalogue.Built().Entry(r["species"])
		if !known || cause.Built().Cause(r["cause"]) == nil {
			continue
		}
		if places[r["climate"]] == nil {
			places[r["climate"]] = place(t, r["climate"])
		}
		month, _ := strconv.Atoi(r["month"])
		a := Ask{Cause: r["cause"], Species: e, Place: places[r["climate"]], Date: day.Of(2027, time.Month(month), 10), Helpers: r["helpers"] == "yes", Shade: strings.Contains(r["place"], "shade")}
		a.Share, _ = strconv.ParseFloat(r["share"], 64)
		a.Count, _ = strconv.Atoi(r["count"])
		a.HeightM, _ = strconv.ParseFloat(r["height_m"], 64)
		o, err := Built().Plan(a)
		if err != nil {
			t.Errorf("%s on %s: %v", r["cause"], r["species"], err)
			continue
		}
		rows++
		told, err := json.Marshal(o)
		if err != nil {
			t.Fatal(err)
		}
		text := strings.ToLower(string(told) + cause.Built().Cause(r["cause"]).Do)
		for _, idea := range strings.Split(r["must_say"], "|") {
			if idea == "" {
				continue
			}
			if ideas++; saysIdea(text, idea) {
				said++
			} else {
				t.Logf("%s on %s: does not say %q", r["cause"], r["species"], idea)
			}
		}
		faults := against(t, &o, a.Date, r)
		if len(faults) == 0 {
			whole++
		}
		if len(faults) == 0 || strings.HasPrefix(faults[0], "from") {
			rungs++
		}
		if len(faults) > 0 {
			t.Logf("%s | %s on %s, month %s, %s, share %s × %s, %s m, %s helpers %s | %s | %s || %s", strings.Join(faults, "; "), r["cause"], r["species"], r["month"], r["climate"], r["share"],
				r["count"], r["height_m"], r["place"], r["helpers"], r["first_step"], r["note"], o.Text)
		}
	}
	t.Logf("of %d treatments the rung is right in %d, rung and beginning in %d", rows, rungs, whole)
	t.Logf("of %d things to be said %d are", ideas, said)
	if float64(said) < 0.93*float64(ideas) {
		t.Errorf("of %d things to be said %d are", ideas, said)
	}
	if float64(whole) < 0.95*float64(rows) {
		t.Errorf("of %d treatments the rung is right in %d, rung and beginning in %d", rows, rungs, whole)
	}
}

// TestFacts: each is of causes that there are, and says one thing or a few, in whole sentences, without a dose.
func TestFacts(t *testing.T) {
	dose := regexp.MustCompile(`\d\s?(ml|g|kg|l)\b|%`)
	for _, f := range facts() {
		for _, id := range f.Causes {
			if cause.Built().Cause(id) == nil {
				t.Errorf("%q: there is no cause %s", f.Say, id)
			}
		}
		if len(f.Causes) == 0 || len(f.Say) < 12 || len(f.Say) > 260 || !strings.HasSuffix(f.Say, ".") || dose.MatchString(f.Say) {
			t.Errorf("%v: %q", f.Causes, f.Say)
		}
	}
}
