package treatment

import (
	"testing"

	"mezzadro/core/catalogue"
	"mezzadro/core/day"
	"mezzadro/core/job"
)

// TestCurve: a spray is due on its day, forbidden on open flowers, dear in heat and missed once its time is over.
func TestCurve(t *testing.T) {
	sp := func(id string) *catalogue.Entry {
		e, err := catalogue.Built().Species(id)
		if err != nil {
			t.Fatal(err)
		}
		return &e
	}
	made := day.Of(2027, 4, 1)
	roses := Built().Curve(Ask{Species: sp("rosa-shrub"), Place: place(t, "lake-foothills")}, Job{Cause: "aphids", Rung: "soft", Step: 1, Made: made})
	if !roses.On(day.Of(2027, 6, 5)).Forbids() || roses.On(made+2).Over(job.Acceptable) {
		t.Errorf("roses: %v in bloom, %v at once", roses.On(day.Of(2027, 6, 5)), roses.On(made+2))
	}
	gall := Built().Curve(Ask{Species: sp("acer-palmatum"), Place: place(t, "lake-foothills")}, Job{Cause: "gall-mite", Rung: "soft", Step: 2, Due: made + 21, Made: made})
	if !gall.On(made+5).Over(job.Acceptable) || gall.On(made+22).Over(job.Acceptable) || !gall.On(made+80).Over(job.Acceptable) {
		t.Errorf("three weeks on: %v, %v, %v", gall.On(made+5), gall.On(made+22), gall.On(made+80))
	}
	citrus := Built().Curve(Ask{Species: sp("citrus-limon"), Place: place(t, "hot-desert")}, Job{Cause: "soft-scale", Rung: "soft", Step: 2, Made: day.Of(2027, 6, 1)})
	if best, _ := citrus.Best(day.Of(2027, 6, 1)); citrus.On(day.Of(2027, 7, 15)).Int() < 50 || best.Month() < 6 {
		t.Errorf("oil in the desert's July costs %v", citrus.On(day.Of(2027, 7, 15)))
	}
	weevil := Built().Curve(Ask{Species: sp("rhododendron-hybrid"), Place: place(t, "cool-coast")}, Job{Cause: "weevil", Rung: "soft", Step: 1, Made: day.Of(2027, 5, 1)})
	if o := weevil.Outlook(day.Of(2027, 5, 1)); o.Window.From.Month() < 7 || o.Window.To.Month() > 11 {
		t.Errorf("nematodes: %v", o.Window)
	}
}
