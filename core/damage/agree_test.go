package damage

import (
	"math/rand/v2"
	"strings"
	"testing"

	"mezzadro/core/catalogue"
	"mezzadro/core/check"
	"mezzadro/core/day"
	"mezzadro/core/season"
)

// agrees holds a headline against the finds: nothing that was found living is denied, and nothing is told that nobody did.
func agrees(t *testing.T, name string, checks []check.Check, a Answer) {
	t.Helper()
	s := strings.ToLower(a.Verdict.Sentence)
	living, made := false, map[check.Kind]bool{}
	for _, c := range checks {
		made[c.Kind] = made[c.Kind] || c.Kind != check.NotLooked
		r := check.Of(c.Kind).Result(c.Result)
		living = living || r != nil && r.Sign == "living" || c.Kind == check.BudRub && c.Held > c.Broke ||
			c.Kind == check.Shoot && c.Leaf != "rootstock" && c.Leaf != "unknown"
	}
	looked := false
	for k := range made {
		looked = looked || k != check.Danger && k != check.Spot && k != check.Sample && k != check.Growth
	}
	deny := func(when bool, words ...string) {
		for _, w := range words {
			if when && strings.Contains(s, w) {
				t.Errorf("%s: says %q; found %v", name, a.Verdict.Sentence, checks)
			}
		}
	}
	deny(living, "nothing living", "nothing above it was found alive")
	deny(looked, "nothing has been checked")
	deny(!looked, "so far", "was found", "was seen", "as far as it was checked", "feels", "felt")
	deny(!made[check.Spear], "the spear came out", "the spear held")
	deny(!made[check.Crown], "the crown is firm", "the crown feels soft", "crown felt soft")
	deny(!made[check.BudRub], "buds held", "bud held")
	deny(!made[check.TipDead] && !made[check.Scratch] && !made[check.BudRub] && !made[check.LeafState] && !made[check.Shoot], "dead at ")
}

// TestHeadlinesAgreeWithFinds goes over all situations of the tables, and over plants of every form with any checks, in and
// out of season.
func TestHeadlinesAgreeWithFinds(t *testing.T) {
	y := season.NewYear(lake(t).Daily(), nil)
	tried := 0
	try := func(name string, q Question, set func(*Question)) {
		if set != nil {
			set(&q)
		}
		a, err := inWords(q)
		if err != nil {
			return // the table's own test says so
		}
		tried++
		agrees(t, name, q.Checks, a)
	}
	for _, c := range situations {
		try(c.name, ask(t, c.species, c.height, c.on, y, c.checks...), nil)
	}
	for _, c := range more {
		try(c.name, ask(t, c.species, c.height, c.on, y, c.checks...), c.set)
	}
	for _, c := range append(append([]situationAt{}, yearRound...), overClimates...) {
		cl, err := catalogue.Built().Climate(c.climate)
		if err != nil {
			t.Fatal(err)
		}
		try(c.name, ask(t, c.species, c.height, c.on, season.NewYear(cl.Climate.Daily(), nil), c.checks...), c.set)
	}
	r := rand.New(rand.NewPCG(3, 9))
	kinds := []string{"camellia-japonica", "hosta-hybrid", "trachycarpus-fortunei", "cycas-revoluta", "thuja-occidentalis", "wisteria-sinensis",
		"miscanthus-sinensis", "citrus-limon", "dahlia-pinnata", "quercus-robur"}
	for range 600 {
		id := kinds[r.IntN(len(kinds))]
		h := 0.5 + 2*r.Float64()
		any := []check.Check{scratch(h*r.Float64(), "green"), scratch(h*r.Float64(), "brown"), rub(h*r.Float64(), r.IntN(8), r.IntN(8)), shoot(h * r.Float64()),
			crown("soft"), crown("firm"), leaves(h*r.Float64(), "scorched_margin"), leaves(h*r.Float64(), "clinging"), tip(h * 0.2), foot("sound")}
		if catalogue.Palm == plant(t, id, h).Species.Form {
			any = []check.Check{spear("held"), spear("pulled"), head("browned"), head("collapsed"), head("green"), crown("firm"), crown("soft")}
		}
		r.Shuffle(len(any), func(i, j int) { any[i], any[j] = any[j], any[i] })
		try(id, ask(t, id, h, day.Of(2027, 1, 1)+day.Day(r.IntN(365)), y, any[:r.IntN(4)]...), nil)
	}
	if tried < 700 {
		t.Errorf("only %d headlines were read", tried)
	}
}
