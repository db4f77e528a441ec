package crews

import (
	"slices"
	"testing"

	"mezzadro/core/job"
)

// TestWiderLicence: who may use restricted products may spray for hire too, and not the other way round; the crew itself
// is told as it was entered.
func TestWiderLicence(t *testing.T) {
	c := Crew{Name: "Ilda", Skills: []string{job.Ladder, job.Restricted}}
	if got := c.Core().Skills; !slices.Contains(got, job.Spraying) || len(c.Skills) != 2 {
		t.Errorf("rounds take %v of %v", got, c.Skills)
	}
	c.Skills = []string{job.Spraying}
	if got := c.Core().Skills; slices.Contains(got, job.Restricted) || len(got) != 1 {
		t.Errorf("the narrower licence: %v", got)
	}
}
