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

// TestStepsOfOtherRungs: what was washed four times is not yet sprayed: the soft rung begins at its first time.
func TestStepsOfOtherRungs(t *testing.T) {
	e, err := catalogue.Built().Species("azalea-evergreen")
	if err != nil {
		t.Fatal(err)
	}
	on := day.Of(2027, 6, 20)
	a := Ask{Cause: "lace-bug", Species: &e, Place: place(t, "lake-foothills"), Date: on, Share: 0.6}
	for i := range 4 {
		a.Uses = append(a.Uses, Use{Day: on - 20 + day.Day(4*i), Step: 1, Rung: "water"})
	}
	o, err := Built().Plan(a)
	if err != nil || o.Rung != "soft" || o.Ends != "" || len(o.Steps) == 0 || o.Steps[0].Done != 0 {
		t.Errorf("washed before: %s, %+v, %v", o.Text, o.Steps, err)
	}
	a.Uses = append(a.Uses, Use{Day: on - 2, Step: 1, Rung: "soft", Active: "soap"})
	if o, err = Built().Plan(a); err != nil || o.Steps[0].Done != 1 || o.Steps[0].Day != on+8 {
		t.Errorf("sprayed once: %s, %+v, %v", o.Text, o.Steps, err)
	}
}
