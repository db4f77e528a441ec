package hold

import (
	"strings"
	"testing"

	"mezzadro/core/damage"
	"mezzadro/core/day"
	"mezzadro/core/job"
	"mezzadro/core/quantity"
)

var (
	feb   = day.Of(2027, 2, 26) // a hard freeze
	march = day.Of(2027, 3, 18)
	june  = day.Of(2027, 6, 3) // leaf is due by then
)

// TestWhatWaits: plants as a foreman knows them, and the work that he would stop or let go.
func TestWhatWaits(t *testing.T) {
	froze := Plant{Struck: "freeze", StruckOn: feb}
	waits := Plant{Verdict: 7, Decision: "accepted", Kind: damage.Wait, On: march - 7, Until: june}
	cutBack := Plant{Verdict: 7, Decision: "accepted", Kind: damage.CutBack, On: march - 7}
	hung := Plant{Verdict: 7, Decision: "accepted", Kind: damage.MakeSafe, On: march - 7}
	with := func(p Plant, change func(*Plant)) Plant { change(&p); return p }
	shape, feed := Work{Kind: job.Prune, Purpose: "shape"}, Work{Kind: job.Feed}
	for _, c := range []struct {
		name  string
		plant Plant
		today day.Day
		work  Work
		waits bool
		says  string
	}{
		{"a sound plant is pruned", Plant{}, march, shape, false, ""},
		{"frozen and not looked at: not shaped", froze, march, shape, true, "26 February likely hurt it"},
		{"nor fed", froze, march, feed, true, "look"},
		{"nor cleared of dead wood that nobody has told from living", froze, march, Work{Kind: job.Prune, Purpose: "clear dead"}, true, "look"},
		{"nor taken out", froze, march, Work{Kind: job.Replace}, true, "look"},
		{"but watered and mulched", froze, march, Work{Kind: job.Water}, false, ""},
		{"and faded flowers taken off", froze, march, Work{Kind: job.Prune, Purpose: "deadhead"}, false, ""},
		{"and looked at", froze, march, Work{Kind: job.Look}, false, ""},
		{"looked at since and to be left: pruned", with(froze, func(p *Plant) { p.Verdict, p.Decision, p.Kind, p.On = 7, "accepted", damage.Leave, march-7 }), march, shape, false, ""},
		{"looked at and put off: still waits", with(froze, func(p *Plant) { p.Verdict, p.Decision, p.Kind, p.On = 7, "not now", damage.Leave, march-7 }), march, shape, true, "look"},
		{"judged before the freeze: waits", with(froze, func(p *Plant) { p.Verdict, p.Decision, p.Kind, p.On = 7, "accepted", damage.Leave, feb-20 }), march, shape, true, "look"},
		{"to wait till June: a hard cut in March waits", waits, march, Work{Kind: job.CutToBase, Origin: job.Hand}, true, "3 June"},
		{"on the day itself it waits for the look", waits, june, shape, true, "look"},
		{"a week later too", waits, june + 7, shape, true, "nobody has looked since"},
		{"its own follow-up cut has its own days", waits, march, Work{Kind: job.CutBack, Origin: job.Verdict, Of: 7}, false, ""},
		{"one of an earlier verdict does not", waits, march, Work{Kind: job.CutBack, Origin: job.Verdict, Of: 3}, true, "3 June"},
		{"told since that it is right again", with(waits, func(p *Plant) { p.Settled = true }), march, shape, false, ""},
		{"overruled to leave", with(waits, func(p *Plant) { p.Decision, p.Kind = "overruled", damage.Leave }), march, shape, false, ""},
		{"checked, not settled", with(waits, func(p *Plant) { p.Kind = damage.Look }), march, feed, true, "not told yet"},
		{"to be cut back: shaped along", cutBack, march, shape, false, ""},
		{"a hanging limb: nobody waters beneath it", hung, march, Work{Kind: job.Water}, true, "made safe"},
		{"it is made safe", hung, march, Work{Kind: job.MakeSafe}, false, ""},
		{"made safe since: watered", with(hung, func(p *Plant) { p.MadeSafe = march - 2 }), march, Work{Kind: job.Water}, false, ""},
	} {
		h := Of(c.plant, c.today)
		if got := h.Binds(c.work); got != c.waits {
			t.Errorf("%s: waits %v (%+v)", c.name, got, h)
			continue
		}
		if c.waits && !strings.Contains(quantity.Style{}.Text(h.Why), c.says) {
			t.Errorf("%s: says %q, want %q in it", c.name, h.Why, c.says)
		}
	}
}
