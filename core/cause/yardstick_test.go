package cause

import (
	"slices"
	"strconv"
	"strings"
	"testing"

	"mezzadro/core/catalogue"
	"mezzadro/core/day"
	"mezzadro/core/season"
	"mezzadro/yardstick"
)

func ids(s string) []string {
	if s == "" {
		return nil
	}
	return strings.Split(s, "|")
}

// caseOf is a row of the yardstick as it is asked: the month by the place's half of the earth, the warmth of its usual
// year.
func caseOf(t *testing.T, r map[string]string) (k Case, known bool) {
	t.Helper()
	e, known := catalogue.Built().Entry(r["species"])
	c, err := catalogue.Built().Climate(r["climate"])
	if err != nil || !known {
		return k, false
	}
	month, _ := strconv.Atoi(r["month"])
	y := season.NewYear(c.Climate.Daily(), nil)
	on := day.Of(2027, 1, 15) + day.Day(30*(month-1))
	return Case{Site: SiteOf(y.Normals, on), Species: e, Month: Northern(month, c.Climate.South()), Seen: ids(r["seen"]), Absent: ids(r["not_seen"]),
		Warmth: y.DegreeDays(on)}, true
}

// wrongOf is what a diagnosis says against a row of the yardstick, by kind of fault.
func wrongOf(d *Diagnosis, r map[string]string) (faults []string) {
	lead, also := ids(r["lead"]), ids(r["also"])
	if len(d.Causes) == 0 || !slices.Contains(lead, d.Causes[0].ID) {
		faults = append(faults, "lead")
	}
	first := map[string]bool{}
	for i, c := range d.Causes {
		first[c.ID] = i < 3
	}
	for _, c := range d.Also {
		first[c.ID] = true
	}
	missed := 0
	for _, id := range also {
		if !first[id] {
			missed++
		}
	}
	all := strings.HasPrefix(r["note"], "two") // two that are as bad: both
	for _, id := range also {
		all = all && slices.Contains(lead, id)
	}
	if missed > 0 && (all || missed == len(also)) {
		faults = append(faults, "first three")
	}
	if r["sure"] == "low" && (d.Settled || len(d.Causes) > 0 && d.Causes[0].Chance > 0.75) {
		faults = append(faults, "too sure")
	}
	cautions := strings.ToLower(strings.Join(d.Cautions, " "))
	if r["danger"] == "yes" && !strings.Contains(cautions, "keep people") && !strings.Contains(cautions, "nobody") {
		faults = append(faults, "danger not said")
	}
	if r["danger"] == "no" && r["report"] == "no" && r["harmless"] == "yes" && (d.Act == "strong" || d.Act == "replace") {
		faults = append(faults, "harmless not said")
	}
	return faults
}

// TestCausesHold: what ails it, in many situations, against what practitioners say; it prints how many hold, and how
// often a chance that was told came true.
func TestCausesHold(t *testing.T) {
	var rows, whole, reported, toReport int
	bad := map[string]int{}
	var bins [5]struct{ n, right int }
	for _, r := range yardstick.Rows(t, "testdata/causes.csv") {
		k, known := caseOf(t, r)
		if !known {
			continue
		}
		d, err := Built().Diagnose(k)
		if err != nil {
			t.Errorf("%s %s: %v", r["species"], r["seen"], err)
			continue
		}
		rows++
		faults := wrongOf(&d, r)
		for _, f := range faults {
			bad[f]++
		}
		if r["report"] == "yes" {
			toReport++
			if strings.Contains(strings.Join(d.Cautions, " "), "report") {
				reported++
			}
		}
		b := &bins[min(4, int(5*d.Causes[0].Chance))]
		b.n++
		if slices.Contains(ids(r["lead"]), d.Causes[0].ID) {
			b.right++
		}
		if len(faults) == 0 {
			whole++
			continue
		}
		said := ""
		for _, c := range d.Causes[:4] {
			said += " " + c.ID + " " + strconv.FormatFloat(c.Chance, 'f', 2, 64)
		}
		t.Logf("%s | %s %s | %s | not %s | want %s, with %s, %s || %s:%s (unknown %.2f, settled %v)", strings.Join(faults, ", "), r["species"], r["month"], r["seen"],
			r["not_seen"], r["lead"], r["also"], r["note"], r["climate"], said, d.Unknown, d.Settled)
	}
	for i, b := range bins {
		t.Logf("told %.1f to %.1f: %d, right %d", 0.2*float64(i), 0.2*float64(i+1), b.n, b.right)
	}
	t.Logf("%d of %d rows hold; faults %v; to be reported and said so: %d of %d", whole, rows, bad, reported, toReport)
	if float64(whole) < 0.95*float64(rows) || bad["danger not said"] > 0 || bad["harmless not said"] > 0 || bins[4].right < bins[4].n*9/10 {
		t.Errorf("%d of %d rows hold; faults %v; of %d told for sure %d right", whole, rows, bad, bins[4].n, bins[4].right)
	}
}

// TestHostsHold: what a diagnostician has in mind for a host is in the book, and the host is taken for one; what comes
// first counts.
func TestHostsHold(t *testing.T) {
	b := Built()
	all, held := 0, 0
	lacks := map[string][]string{}
	for _, r := range yardstick.Rows(t, "testdata/hosts.csv") {
		e, known := catalogue.Built().Entry(r["species"])
		if !known {
			continue
		}
		for _, id := range ids(r["causes"]) {
			c := b.Cause(id)
			if c == nil {
				t.Errorf("%s: %s is not in the book", e.ID, id)
				continue
			}
			all++
			if c.OnKind(e) >= 0.3 {
				held++
			} else {
				lacks[id] = append(lacks[id], e.ID)
			}
		}
	}
	for id, of := range lacks {
		t.Logf("%s is not thought of on %s", id, strings.Join(of, " "))
	}
	t.Logf("%d of %d causes of hosts are thought of", held, all)
	if float64(held) < 0.95*float64(all) {
		t.Errorf("%d of %d causes of hosts are thought of", held, all)
	}
}
