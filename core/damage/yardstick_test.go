package damage

import (
	"fmt"
	"os"
	"regexp"
	"slices"
	"strings"
	"testing"

	"mezzadro/core/written"

	"mezzadro/core/catalogue"
	"mezzadro/core/check"
	"mezzadro/core/day"
	"mezzadro/core/season"
)

// yardRow is what practitioners would say of a plant on a day.
type yardRow struct {
	ID      string  `yaml:"id"`
	Species string  `yaml:"species"`
	Climate string  `yaml:"climate"`
	Date    string  `yaml:"date"`
	HeightM float64 `yaml:"height_m"`
	Years   int     `yaml:"years"`
	GraftM  float64 `yaml:"graft_m"`
	PotL    float64 `yaml:"pot_l"`
	Count   int     `yaml:"count"`
	Story   string  `yaml:"story"`
	Checks  []struct {
		Kind    check.Kind `yaml:"kind"`
		HeightM float64    `yaml:"height_m"`
		Held    int        `yaml:"held"`
		Broke   int        `yaml:"broke"`
		Leaf    string     `yaml:"leaf"`
		Result  string     `yaml:"result"`
		Amount  float64    `yaml:"amount"`
		Seen    string     `yaml:"seen"`
	} `yaml:"checks"`
	Accept      []string  `yaml:"accept"`
	UntilFrom   string    `yaml:"until_from"`
	UntilBy     string    `yaml:"until_by"`
	CutM        []float64 `yaml:"cut_m"`
	Say         string    `yaml:"say"`
	Never       string    `yaml:"never"`
	SeasonsMost *float64  `yaml:"seasons_at_most"`
	RefusedFine bool      `yaml:"refused_is_fine"`
	Why         string    `yaml:"why"`
}

// onDay is the first day with a month and a day from another on.
func onDay(t *testing.T, from day.Day, monthDay string) day.Day {
	t.Helper()
	for d := from; d < from+366; d++ {
		if d.String()[5:] == monthDay {
			return d
		}
	}
	t.Fatalf("%q is no month and day", monthDay)
	return 0
}

// against is what a verdict says against a row.
func (r *yardRow) against(t *testing.T, a *Answer, today day.Day) (out []string) {
	v := a.Verdict
	if !slices.Contains(r.Accept, v.Kind) {
		out = append(out, fmt.Sprintf("%s, want %s", v.Kind, strings.Join(r.Accept, " | ")))
	}
	if v.Kind == Wait && r.UntilFrom != "" {
		from, by := onDay(t, today, r.UntilFrom), onDay(t, today, r.UntilBy)
		if v.Until < from || v.Until > by {
			out = append(out, fmt.Sprintf("until %s, want %s..%s", v.Until, r.UntilFrom, r.UntilBy))
		}
	}
	if cuts := v.Kind == CutBack || v.Kind == CutToBase || v.Kind == TipBack; cuts && len(r.CutM) == 2 && v.CutM > 0 {
		if base := v.Kind == CutToBase && r.CutM[0] < 0.2; !base && (v.CutM < r.CutM[0]-0.001 || v.CutM > r.CutM[1]+0.001) {
			out = append(out, fmt.Sprintf("cut at %.2f, want %.2f..%.2f", v.CutM, r.CutM[0], r.CutM[1]))
		}
	}
	words := v.Sentence + " " + a.Prognosis.Text + " " + strings.Join(a.Do, " ") + " " + strings.Join(a.Dont, " ") + " " + strings.Join(a.Changes, " ")
	for _, x := range a.Reasons {
		words += " " + x.Text
	}
	for _, x := range a.Cautions {
		words += " " + x.Text
	}
	if r.Say != "" && !regexp.MustCompile("(?i)"+r.Say).MatchString(words) {
		out = append(out, "does not say "+r.Say)
	}
	if r.Never != "" {
		if hit := regexp.MustCompile("(?i)" + r.Never).FindString(v.Sentence + " " + strings.Join(a.Do, " ")); hit != "" {
			out = append(out, "says "+hit)
		}
	}
	if r.SeasonsMost != nil && a.Prognosis.SeasonsLow > int(*r.SeasonsMost) {
		out = append(out, fmt.Sprintf("%d seasons, at most %.0f", a.Prognosis.SeasonsLow, *r.SeasonsMost))
	}
	return out
}

// TestVerdictsHold: plants after frost, wind, snow and gnawing against what practitioners would say of them; it prints
// how many hold.
func TestVerdictsHold(t *testing.T) {
	text, err := os.ReadFile("testdata/verdicts.yaml")
	if err != nil {
		t.Fatal(err)
	}
	var all []yardRow
	if err := written.Read(text, &all); err != nil {
		t.Fatal(err)
	}
	rows, whole := 0, 0
	for i := range all {
		r := &all[i]
		e, known := catalogue.Built().Entry(r.Species)
		c, err := catalogue.Built().Climate(r.Climate)
		if !known || err != nil {
			t.Errorf("%s: %s in %s is in no book", r.ID, r.Species, r.Climate)
			continue
		}
		today, err := day.Parse(r.Date)
		if err != nil {
			t.Fatal(r.ID, err)
		}
		q := Question{Plant: check.Plant{Species: *e, HeightM: r.HeightM, GraftM: r.GraftM, Years: r.Years, PotL: r.PotL, Count: max(1, r.Count)},
			Today: today, Year: season.NewYear(c.Climate.Daily(), nil)}
		for _, x := range r.Checks {
			q.Checks = append(q.Checks, check.Check{Kind: x.Kind, HeightM: x.HeightM, Held: x.Held, Broke: x.Broke, Leaf: x.Leaf, Result: x.Result, Amount: x.Amount, Seen: x.Seen})
		}
		rows++
		a, err := Judge(q)
		if err != nil {
			if r.RefusedFine {
				whole++
			} else {
				t.Logf("%s: refused: %v", r.ID, err)
			}
			continue
		}
		if faults := r.against(t, &a, today); len(faults) > 0 {
			t.Logf("%s | %s %s %s %.1f m | %s | %+v || %s || %s || %s", strings.Join(faults, "; "), r.ID, r.Climate, r.Date, r.HeightM, r.Story, r.Checks, r.Why, a.Verdict.Sentence, a.Patience)
		} else {
			whole++
		}
	}
	t.Logf("%d of %d verdicts hold", whole, rows)
	if float64(whole) < 0.95*float64(rows) {
		t.Errorf("%d of %d verdicts hold", whole, rows)
	}
}
