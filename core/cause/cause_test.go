package cause

import (
	"testing"

	"mezzadro/core/check"
)

// TestEveryQuestionIsACheck: what is asked about the spot can be noted, and what can be noted is asked.
func TestEveryQuestionIsACheck(t *testing.T) {
	keys := check.Of(check.Spot).Keys()
	if len(keys) != len(questions) {
		t.Errorf("%d questions, %d can be noted", len(questions), len(keys))
	}
	for i, q := range questions {
		if keys[i] != q.key || Name(q.key) != q.name {
			t.Errorf("question %d is %s, the check %s", i, q.key, keys[i])
		}
	}
}
