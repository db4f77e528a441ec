package report

import (
	"strings"
	"testing"

	"mezzadro/core/damage"
	"mezzadro/core/day"
	"mezzadro/core/outcome"
	"mezzadro/core/quantity"
)

var march = day.Of(2027, 3, 18)

func judged(kind string, chance float64, low, high int) *damage.Answer {
	a := &damage.Answer{Prognosis: outcome.Prognosis{Chance: chance, SeasonsLow: low, SeasonsHigh: high}}
	a.Verdict.Kind = kind
	a.Boundary.CrownLost = 0.4
	if kind == damage.Wait {
		a.Verdict.Until = march + 60
	}
	return a
}

// freeze is a garden after a freeze: one of each fate, with work on some.
func freeze(kind string) Report {
	return Write(Ask{Kind: kind, Property: "Weir House", Today: march, From: march - 60,
		Weather: &Weather{Kind: "freeze", Value: -11, Hours: 30, FallC: 14, BeforeC: 4, Peak: march - 20, Days: []Night{{march - 21, -2}, {march - 20, -11}}},
		Plants: []Plant{
			{ID: 1, Name: "Bay laurel, Porch", Count: 1, Answer: judged(damage.CutBack, 0.7, 2, 3), Photos: []Photo{{"a", march - 18}, {"b", march - 9}, {"c", march}}},
			{ID: 2, Name: "Oleander", Count: 6, Answer: judged(damage.Wait, 0.5, 1, 2)},
			{ID: 3, Name: "Yew", Count: 1, Answer: judged(damage.Leave, 1, 0, 0)},
			{ID: 4, Name: "Lemon", Count: 1, Answer: judged(damage.Replace, 0, 0, 0), Own: "Split to the ground"},
			{ID: 5, Name: "Black locust", Count: 1, Answer: judged(damage.MakeSafe, 0.5, 1, 1)},
			{ID: 6, Name: "Azalea", Count: 3, Causes: []string{"lace bugs", "chlorosis"}},
			{ID: 7, Name: "Never looked at", Count: 1},
		},
		Work: []Work{{PlantID: 5, Title: "Taking down a limb", Day: march + 1}, {PlantID: 1, Title: "Pruning", Day: day.None, From: march + 20, To: march + 50},
			{PlantID: 2, Title: "Feeding", Day: day.None, From: march + 70, To: march + 90, Asked: true},
			{PlantID: 4, Title: "Digging it out", Day: march - 3, Done: true}},
		Cost: "What we advise comes to EUR 300.00–420.00."})
}

// TestAfterAFreeze: the first page counts what became of the plants, the worst first; what may fall is warned of, what
// waits is not given up and nobody cuts it before its day; what was never looked at is not told.
func TestAfterAFreeze(t *testing.T) {
	r := freeze(Event)
	all := strings.Join(r.Summary, " ")
	for _, want := range []string{quantity.Temperature(-11), "too warm: plants were not ready", "one may fall on somebody, one is lost, one is hurt and lives, 6 cannot be judged yet, 3 have a pest", "and one came through well",
		"Keep people away", "not given up", "We come next on " + quantity.Day(march+1), "EUR 300.00"} {
		if !strings.Contains(all, want) {
			t.Errorf("the first page does not say %q: %s", want, all)
		}
	}
	var heads []string
	by := map[string]Section{}
	for _, s := range r.Sections {
		heads = append(heads, s.Head)
		by[s.Head] = s
	}
	if got := strings.Join(heads, "; "); got != "Black locust; Lemon; Bay laurel, Porch; Oleander × 6; Azalea × 3; Yew" {
		t.Errorf("in the order %s", got)
	}
	for head, want := range map[string][]string{
		"Black locust":      {"may come down", "On " + quantity.Day(march+1) + ": taking down a limb.", "keep children", "Nobody goes under it"},
		"Lemon":             {"Split to the ground.", "Done on " + quantity.Day(march-3) + ": digging it out."},
		"Bay laurel, Porch": {"About 40 in 100 of its crown", "Of ten plants like it 7 look right again, after 2 to 3 seasons", "Pruning, best from"},
		"Oleander × 6":      {"cannot be judged", "before " + quantity.Day(march+60), "Of ten plants like it 5", "Once you agree: feeding, best from"},
		"Azalea × 3":        {"Found on it: lace bugs and chlorosis."},
		"Yew":               {"It lives to its tips"},
	} {
		s := by[head]
		text := strings.Join([]string{s.Found, s.Becomes, s.We, s.You, s.Dont}, " ")
		for _, w := range want {
			if !strings.Contains(text, w) {
				t.Errorf("%s does not say %q: %s", head, w, text)
			}
		}
	}
	if p := by["Bay laurel, Porch"].Photos; len(p) != 2 || p[0].Hash != "a" || p[1].Hash != "c" {
		t.Errorf("before and after are %v", p)
	}
	if by["Lemon"].Becomes != "" || by["Black locust"].Becomes != "" {
		t.Error("what is lost or hangs is promised a future")
	}
}

// TestDrawn: what is dead at its top is drawn, cut where it is cut; what lives to its tips is not, nor what has no size. A row
// is drawn as a hedge, no longer than twice its height.
func TestDrawn(t *testing.T) {
	p := Plant{Form: "tree", HeightM: 2, SpreadM: 1, Answer: judged(damage.CutBack, 0.7, 2, 3)}
	p.Answer.Boundary.LowM, p.Answer.Boundary.HighM, p.Answer.Verdict.CutM = 0.9, 1.2, 0.8
	if d := p.drawn(); d == nil || *d != (Drawn{"tree", 2, 1, 0.9, 1.2, 0.8}) {
		t.Errorf("%+v", d)
	}
	p.RowM = 30
	if d := p.drawn(); d == nil || d.Form != "hedge" || d.SpreadM != 4 {
		t.Errorf("a row of 30 m: %+v", d)
	}
	p.Answer.Boundary.HighM = 2
	if d := p.drawn(); d != nil {
		t.Errorf("it lives to its tips: %+v", d)
	}
	p.Answer.Boundary.HighM, p.Own = 1.2, "Split to the ground"
	if d := p.drawn(); d != nil {
		t.Errorf("the firm says it is split to the ground: %+v", d)
	}
	p.Own = ""
	p.Answer.Boundary.HighM, p.HeightM = 0, 0
	if d := p.drawn(); d != nil {
		t.Errorf("of no size: %+v", d)
	}
}

// TestForAnInsurer: only what was hurt is told, without the firm's advice of what is to come and without its prices.
func TestForAnInsurer(t *testing.T) {
	r := freeze(Insurer)
	all := strings.Join(r.Summary, " ")
	for _, s := range r.Sections {
		if s.Head == "Yew" {
			t.Error("what came through is claimed")
		}
		all += " " + s.We
	}
	if strings.Contains(all, "EUR") || strings.Contains(all, "We come next") || !strings.Contains(all, "Done on") || !strings.Contains(r.Title, "Damage by weather") {
		t.Errorf("%s: %s", r.Title, all)
	}
}

// TestNothingYet: without a walk it says so, and promises nothing.
func TestNothingYet(t *testing.T) {
	r := Write(Ask{Kind: Season, Property: "Weir House", Today: march, Work: []Work{{Title: "Mowing", Day: march - 5, Done: true}}})
	if got := strings.Join(r.Summary, " "); got != "Nothing was looked at yet. We did one piece of work for it." || len(r.Sections) != 0 {
		t.Errorf("%q, %v", got, r.Sections)
	}
}

// TestChanceInTens: chances are told in tens, and no chance is told as certain that is not.
func TestChanceInTens(t *testing.T) {
	for _, c := range []struct {
		chance    float64
		low, high int
		want      string
	}{
		{0.02, 1, 3, "Few plants as hurt as this one come back."},
		{0.34, 2, 4, "Of ten plants like it 3 look right again, after 2 to 4 seasons."},
		{0.9, 1, 1, "Of ten plants like it 9 look right again, by the end of the coming season."},
		{0.99, 2, 2, "It will look right again after 2 seasons."},
		{0.8, 0, 0, ""},
	} {
		if got := becomes(outcome.Prognosis{Chance: c.chance, SeasonsLow: c.low, SeasonsHigh: c.high}, "hurt"); got != c.want {
			t.Errorf("%g, %d–%d: %q, want %q", c.chance, c.low, c.high, got, c.want)
		}
	}
}

// TestHardest: a freeze is told before the drying wind that followed it, and of two freezes the harder.
func TestHardest(t *testing.T) {
	list := []Weather{{Kind: "drying wind", Value: 17, Peak: march - 19}, {Kind: "freeze", Value: -7, Peak: march - 60}, {Kind: "freeze", Value: -11, Peak: march - 20}, {Kind: "heat", Value: 38, Peak: march - 1}}
	if w := Hardest(list); w == nil || w.Peak != march-20 {
		t.Errorf("%+v", w)
	}
	if Hardest(nil) != nil {
		t.Error("there was none")
	}
}
