package api_test

import (
	"testing"

	"mezzadro/house/rounds"
)

// TestSeasonSaysWhatItIsMadeOf: each week of the season names its work by kind and its longest jobs, and they add up to
// what it says of itself.
func TestSeasonSaysWhatItIsMadeOf(t *testing.T) {
	t.Parallel()
	h := sampleHouse(t)
	season := ok[rounds.WeeksAhead](h, "GET", "/rounds/season?weeks=26", nil)
	busy, kinds := 0, map[string]int{}
	for _, w := range season.Weeks {
		jobs, minutes := 0, 0
		for i, k := range w.Kinds {
			jobs, minutes = jobs+k.Jobs, minutes+k.Minutes
			kinds[string(k.Kind)] += k.Jobs
			if i > 0 && k.Minutes > w.Kinds[i-1].Minutes {
				t.Errorf("week from %s: %s before %s", w.From, w.Kinds[i-1].Kind, k.Kind)
			}
		}
		if jobs != w.Jobs || minutes < w.Load-len(w.Kinds) || minutes > w.Load+len(w.Kinds) {
			t.Errorf("week from %s: %d jobs of %d min by kind, %d of %d in all", w.From, jobs, minutes, w.Jobs, w.Load)
		}
		if len(w.Most) != min(8, w.Jobs) {
			t.Errorf("week from %s: %d of %d jobs named", w.From, len(w.Most), w.Jobs)
		}
		for i := 1; i < len(w.Most); i++ {
			if a, b := w.Most[i-1], w.Most[i]; a.Minutes*max(1, a.CrewSize) < b.Minutes*max(1, b.CrewSize) {
				t.Errorf("week from %s: %s is shorter than %s", w.From, a.Title, b.Title)
			}
		}
		if w.Jobs > 0 {
			busy++
		}
	}
	if busy < 4 || kinds["feed"] == 0 || kinds["prune"]+kinds["cut back"] == 0 {
		t.Errorf("%d weeks with work, kinds %v", busy, kinds)
	}
}
