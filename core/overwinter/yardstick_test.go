package overwinter

import (
	"regexp"
	"strconv"
	"strings"
	"testing"

	"mezzadro/core/catalogue"
	"mezzadro/core/check"
	"mezzadro/core/day"
	"mezzadro/core/season"
	"mezzadro/yardstick"
)

// ideas are words that say an idea of the yardstick; others are looked for as they are.
var ideas = map[string]string{
	"leave": `leave it|leave the|nothing is needed|stays out`, "carry in": `carry it in|comes in|carried in`, "lift and store": `lift(ed)? .*(stor|dry)|lifted and stored`,
	"wrap": `wrap`, "wrap the pot": `wrap the pot`, "carry in for hard frost": `carr`, "leave the stems": `leave (the )?stems`, "leave with mulch": `mulch`, "carry in only": `carry it in`,
	"lift only": `lift it`, "leave outside": `stays out`, "leave outside unprotected": `nothing is needed`, "leave unprotected": `nothing is needed`, "plastic wrap": `plastic wrap`,
	"leave in the ground": `stays out`, "lift and pot": `lift it and pot|lifted and potted`, "feed": `feed it`, "hard cut in autumn": `cut it hard`, "heated room": `heated room`,
}

func says(text, idea string) bool {
	pattern := ideas[idea]
	if pattern == "" {
		pattern = regexp.QuoteMeta(strings.Fields(idea)[0])
	}
	return regexp.MustCompile("(?i)" + pattern).MatchString(text)
}

// TestWinteringHolds: what is done for the winter against what practitioners do; it prints how many hold.
func TestWinteringHolds(t *testing.T) {
	rows, whole := 0, 0
	for _, r := range yardstick.Rows(t, "testdata/winter-planting.csv") {
		e, known := catalogue.Built().Entry(r["species"])
		if !known || r["topic"] != "wintering ground" && r["topic"] != "wintering pot" && r["topic"] != "lift" {
			continue
		}
		c, err := catalogue.Built().Climate(r["climate"])
		if err != nil {
			t.Fatal(err)
		}
		today, err := day.Parse("2027-" + r["date_asked"])
		if err != nil {
			t.Fatal(err)
		}
		p := check.Plant{Species: *e, HeightM: min(2, e.Mature.HeightM)}
		if strings.Contains(r["topic"], "pot") {
			p.PotL, p.HeightM = 40, min(1.5, e.Mature.HeightM)
		}
		if strings.Contains(r["situation"], "grafted") {
			p.GraftM = 0.05
		}
		w := Plan(p, 1, season.NewYear(c.Climate.Daily(), nil), today)
		text := string(w.Way) + ". " + w.Why + " " + strings.Join(w.How, " ")
		for _, s := range w.Steps {
			text += " " + s.Do
		}
		rows++
		accepted, rejected := false, ""
		for _, idea := range strings.Split(r["accept"], "|") {
			accepted = accepted || says(text, idea)
		}
		for _, idea := range strings.Split(r["reject"], "|") {
			if idea != "" && ideas[idea] != "" && says(text, idea) && !says(r["accept"], idea) {
				rejected = idea
			}
		}
		if accepted && rejected == "" {
			whole++
			continue
		}
		t.Logf("%s %s %s %s | accept %s | says rejected %q || %s", r["topic"], r["species"], r["climate"], r["situation"], r["accept"], rejected, text)
	}
	t.Logf("%d of %d winterings hold", whole, rows)
	if float64(whole) < 0.95*float64(rows) {
		t.Errorf("%d of %d winterings hold", whole, rows)
	}
}

// spans are the days, as MM-DD..MM-DD, that a note says to act in, of the year asked in, last and next.
func spans(t *testing.T, note string, asked day.Day) (out [][2]day.Day) {
	t.Helper()
	if strings.Contains(note, "act all year") {
		return [][2]day.Day{{asked - 365, asked + 365}}
	}
	if _, after, ok := strings.Cut(note, "act "); ok {
		note = after
	}
	note, _, _ = strings.Cut(note, ", ")
	for _, s := range regexp.MustCompile(`\d\d-\d\d\.\.\d\d-\d\d`).FindAllString(note, -1) {
		for year := asked.Year() - 1; year <= asked.Year()+1; year++ {
			from, err := day.Parse(strconv.Itoa(year) + "-" + s[:5])
			if err != nil {
				t.Fatal(err)
			}
			to, err := day.Parse(strconv.Itoa(year) + "-" + s[7:])
			if err != nil {
				t.Fatal(err)
			}
			if to < from {
				to += 365
			}
			out = append(out, [2]day.Day{from, to})
		}
	}
	return out
}

// TestCuttingsHold: when and how growers take cuttings and force bulbs; it prints how many hold: what is done first
// falls into their days, and one of their ways is named.
func TestCuttingsHold(t *testing.T) {
	rows, whole := 0, 0
	for _, r := range yardstick.Rows(t, "testdata/winter-planting.csv") {
		e, known := catalogue.Built().Entry(r["species"])
		if !known || r["topic"] != "cuttings" && r["topic"] != "bulb forcing" {
			continue
		}
		c, err := catalogue.Built().Climate(r["climate"])
		if err != nil {
			t.Fatal(err)
		}
		today, err := day.Parse("2027-" + r["date_asked"])
		if err != nil {
			t.Fatal(err)
		}
		y := season.NewYear(c.Climate.Daily(), nil)
		var w Wintering
		if r["topic"] == "cuttings" {
			w, err = Cuttings(e, today, y)
		} else {
			w, err = Force(e.ID, today+day.Day(7*18), y)
		}
		rows++
		if err != nil {
			t.Logf("%s %s: %v", r["topic"], r["species"], err)
			continue
		}
		text := w.Why + " " + strings.Join(w.How, " ") + " " + strings.Join(w.Never, " ")
		for _, s := range w.Steps {
			text += " " + s.Do + " " + s.Why
		}
		first, in, said := w.Steps[0].From, false, false
		for _, s := range spans(t, r["note"], today) {
			in = in || first >= s[0] && first <= s[1]
		}
		for _, way := range strings.Split(r["accept"], "|") {
			said = said || says(strings.ToLower(strings.ReplaceAll(text, "-", " ")), strings.ToLower(regexp.MustCompile(` \d.*`).ReplaceAllString(way, "")))
		}
		if in && said {
			whole++
			continue
		}
		t.Logf("%s %s %s, asked %s: first %s (in %v), accept %q (said %v), note %q || %s", r["topic"], r["species"], r["climate"], today, first, in,
			r["accept"], said, r["note"], text)
	}
	t.Logf("%d of %d cuttings and forcings hold", whole, rows)
	if whole < rows-1 {
		t.Errorf("want all but one")
	}
}
