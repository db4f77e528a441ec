package pruning

import (
	"fmt"
	"math/rand/v2"
	"regexp"
	"strings"
	"testing"

	"mezzadro/core/catalogue"
	"mezzadro/core/day"
)

var badText = regexp.MustCompile(`NaN|Inf|[0-9]e[+-]\d|%!|<nil>`)

// TestSweep: over all kinds, sizes, purposes and eight climates no tree is topped, no single trunk is cut at the
// ground, no bare wood of what does not shoot from it is cut into, and nothing is said that figures deny. It prints
// some to be read.
func TestSweep(t *testing.T) {
	r := rand.New(rand.NewPCG(29, 4))
	plans := 0
	for _, climate := range []string{"lake-foothills", "oceanic-lowland", "prairie", "gulf-coast", "hot-desert", "cool-coast", "pampas", "great-lakes"} {
		y := year(t, climate)
		for i := range catalogue.Built().Entries {
			e := &catalogue.Built().Entries[i]
			for _, size := range []float64{0.25, 0.5, 0.8, 1} {
				a := Ask{Species: e, Place: y, Date: day.Of(2027, 1, 15) + day.Day(r.IntN(360)), Purpose: Purposes[r.IntN(len(Purposes))], HeightM: size * e.Mature.HeightM}
				if a.Purpose == Size {
					a.WantedM = a.HeightM * (0.3 + 0.6*r.Float64())
				}
				p, err := For(a)
				if err != nil {
					t.Errorf("%s in %s, %s: %v", e.ID, climate, a.Purpose, err)
					continue
				}
				plans++
				swept(t, e, a, &p)
				if r.IntN(150) == 0 {
					t.Logf("%s %.1f m, %s, %s on %s | %s | %s | %s %v | %d min, %d people, %s | %v", e.ID, a.HeightM, climate, a.Purpose, a.Date, p.Class, p.Text, p.Where, p.Steps, p.Minutes, p.People, p.WasteText, p.Cautions)
				}
			}
		}
	}
	if plans < 14_000 {
		t.Errorf("only %d plans were looked at", plans)
	}
}

// swept says what a plan has against what is known of its kind.
func swept(t *testing.T, e *catalogue.Entry, a Ask, p *Plan) {
	t.Helper()
	name := fmt.Sprintf("%s of %.1f m, %s", e.ID, a.HeightM, a.Purpose)
	all := strings.Join(append(append([]string{p.Text, p.Where, p.BloomText, p.WasteText}, p.Steps...), p.Cautions...), " | ")
	for _, s := range p.Years {
		all += " | " + s.Text
	}
	tree := (e.Form == catalogue.Tree || e.Form == catalogue.Conifer) && e.Standing() == catalogue.SingleTrunk
	low := ClassOf(e).Most >= 0.6
	if tree && !low && a.HeightM > 5 && p.CutM > 0 && p.CutM < 0.79*a.HeightM && !fruits[ClassOf(e).ID] {
		t.Errorf("%s is topped at %.2f m: %s", name, p.CutM, p.Text)
	}
	if tree && !low && strings.Contains(all, "stems") && strings.Contains(all, "at the ground") && !fruits[ClassOf(e).ID] && ClassOf(e).ID != "hazel" {
		t.Errorf("%s: a trunk is cut at the ground: %s", name, all)
	}
	if e.FromOldWood() == "no" && e.Form == catalogue.Conifer && p.CutM > 0 && p.CutM < 0.69*a.HeightM {
		t.Errorf("%s is cut into bare wood at %.2f m", name, p.CutM)
	}
	if strings.Contains(p.BloomText, "costs no bloom") && p.BloomLoss >= 0.05 {
		t.Errorf("%s: %q, and %.2f goes", name, p.BloomText, p.BloomLoss)
	}
	if badText.MatchString(all) || p.Minutes <= 0 || p.WasteM3 < 0 || p.Share < 0 || p.Share > 1 {
		t.Errorf("%s: %d min, %.3f m³, share %.2f, %s", name, p.Minutes, p.WasteM3, p.Share, all)
	}
	if none := strings.Contains(p.Text, "nothing to take off"); none && (len(p.Steps)+len(p.Skills) > 0 || p.People != 1 || p.WasteM3 > 0) {
		t.Errorf("%s: %s, and yet %v by %d people, %v", name, p.Text, p.Steps, p.People, p.Skills)
	}
	if p.People == 1 && strings.Contains(all, "second person") {
		t.Errorf("%s: one goes, and a second person is asked for: %v", name, p.Cautions)
	}
	if e.Annual && strings.Contains(all, "late winter") {
		t.Errorf("%s: an annual in late winter: %s", name, all)
	}
}
