package overwinter

import (
	"regexp"
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
