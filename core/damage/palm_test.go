package damage

import (
	"slices"
	"strings"
	"testing"
	"time"

	"mezzadro/core/check"
	"mezzadro/core/cold"
	"mezzadro/core/day"
	"mezzadro/core/job"
	"mezzadro/core/season"
	"mezzadro/core/weather"
)

// burnt is a Canary palm at the lake after a night at a temperature, on 9 March 2027.
func burnt(t *testing.T, holdC float64, on day.Day, checks ...check.Check) Answer {
	t.Helper()
	c := lake(t)
	night := day.Of(2027, 3, 9) // twenty hours: thick hearts follow slowly
	n := c.Daily()
	var hours []weather.Hour
	for d := night - 150; d <= on; d++ {
		for h := range 24 {
			temp := n.Mean(d)
			if d == night && h < 20 {
				temp = holdC
			}
			at := d.Time().Add(time.Duration(h) * time.Hour)
			hours = append(hours, weather.Hour{Time: at, TempC: temp, WindMS: 1.5, RHPct: 75})
		}
	}
	y := season.NewYear(n, weather.Daily(hours, time.UTC))
	q := ask(t, "phoenix-canariensis", 4, on, y, checks...)
	course := cold.Follow(y, hours, time.UTC, on)
	p := cold.Plant{Species: q.Plant.Species, HeightM: 4, Shelter: cold.UsualShelter, Sun: cold.UsualSun}
	stages := q.Plant.Species.Stages(y, on)
	for i := range course.Events {
		if s := &course.Events[i]; s.Cold() && s.Day >= night-1 {
			o := s.Meet(&p, stages(s.Day))
			q.Forecast = &o
		}
	}
	if q.Forecast == nil {
		t.Fatalf("%.0f °C is no event", holdC)
	}
	a, err := inWords(q)
	if err != nil {
		t.Fatal(err)
	}
	return a
}

// TestSpearIsPulledAgain: a spear that holds six days after a hard frost proves little; it is pulled every three to
// four weeks into summer. After a light frost, or in summer, it is believed.
func TestSpearIsPulledAgain(t *testing.T) {
	held, browned := spear("held"), check.Check{Kind: check.Head, Result: "browned"}
	six := day.Of(2027, 3, 15)
	hard := burnt(t, -9, six, held)
	if in := hard.LookAgain - six; hard.Verdict.Kind != Leave || in < 20 || in > 29 {
		t.Errorf("after -9: %s %q, again %s", hard.Verdict.Kind, hard.Verdict.Sentence, hard.LookAgain)
	}
	again := func(j job.Job) bool { return j.Kind == job.Look && j.Params.Due == hard.LookAgain }
	if !slices.ContainsFunc(hard.Jobs, again) {
		t.Errorf("after -9: no job to look again: %+v", hard.Jobs)
	}
	if hard.Prognosis.SeasonsHigh < 2 || strings.Contains(hard.Prognosis.Text, "right by summer") {
		t.Errorf("after -9: %q", hard.Prognosis.Text)
	}
	worse := burnt(t, -9, six, held, browned)
	if worse.Verdict.Sure >= hard.Verdict.Sure {
		t.Errorf("a browned head is no worse: %.2f and %.2f", worse.Verdict.Sure, hard.Verdict.Sure)
	}
	colder := burnt(t, -13, six, held)
	if colder.Verdict.Sure >= hard.Verdict.Sure {
		t.Errorf("-13 is no worse than -9: %.2f and %.2f", colder.Verdict.Sure, hard.Verdict.Sure)
	}
	if light := burnt(t, -5, six, held); light.LookAgain.Given() || !strings.Contains(light.Verdict.Sentence, "lives") {
		t.Errorf("after -5: %q, again %s", light.Verdict.Sentence, light.LookAgain)
	}
	if summer := burnt(t, -9, day.Of(2027, 7, 12), held); summer.LookAgain.Given() {
		t.Errorf("in July: %q, again %s", summer.Verdict.Sentence, summer.LookAgain)
	}
}
