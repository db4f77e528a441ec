package kinds

import (
	"strings"
	"testing"

	"mezzadro/core/job"
)

// TestWordsForClients: a client reads what is done to their plants, in words of theirs, and nothing of the firm's own.
func TestWordsForClients(t *testing.T) {
	for _, c := range []struct {
		name   string
		kind   job.Kind
		params job.Params
		title  string
		want   string
		told   bool
	}{
		{"a cut", job.Prune, job.Params{Purpose: "shape"}, "Cut Lilac to 2 m", "Pruning", true},
		{"dead wood", job.Prune, job.Params{Purpose: "clear dead"}, "Clear dead wood from Holm oak", "Clearing dead wood", true},
		{"a treatment says against what, not with what", job.Treat, job.Params{Cause: "lace-bug", Use: "horticultural-oil"}, "Horticultural oil on Azalea", "Treatment against lace bugs", true},
		{"a look", job.Look, job.Params{}, "Look again at Camellia", "A check on how it is doing", true},
		{"fleece ready is the firm's own", job.Protect, job.Params{}, "Keep fleece ready for Camellia", "", false},
		{"a word with the client is no work", job.Ask, job.Params{}, "Settle with the client", "", false},
		{"by hand, as it was written", job.Other, job.Params{}, "Sweep the court", "Sweep the court", true},
		{"by hand, and not for the client", job.Other, job.Params{Private: true}, "Look whether they feed the foxes", "", false},
		{"a cut that is not for the client", job.Prune, job.Params{Private: true}, "Cut", "", false},
	} {
		got, told := ForClient(c.kind, c.params, c.title)
		if told != c.told || c.want != "" && got != c.want {
			t.Errorf("%s: %q, %v", c.name, got, told)
		}
	}
	for _, k := range all {
		if words, told := ForClient(k.Name, job.Params{}, "a title"); told && words == "" {
			t.Errorf("%s has no words for clients", k.Name)
		}
	}
}

// TestWhatAClientPrepares: before a spray windows are shut and washing comes in, before work high up cars go; before mulch
// nothing is asked.
func TestWhatAClientPrepares(t *testing.T) {
	for _, c := range []struct {
		kind   job.Kind
		use    string
		skills []string
		want   string
	}{
		{job.Treat, "oil", nil, "windows"}, {job.Treat, "grease-band", nil, ""}, {job.MakeSafe, "", nil, "from below the tree"},
		{job.CutBack, "", []string{job.Climbing}, "high up"}, {job.CutBack, "", nil, ""}, {job.Mulch, "", nil, ""},
	} {
		got := Prepare(c.kind, job.Params{Use: c.use}, c.skills)
		if c.want == "" && got != "" || !strings.Contains(got, c.want) {
			t.Errorf("%s %s %v: %q, want %q", c.kind, c.use, c.skills, got, c.want)
		}
	}
}
