package site

import (
	"fmt"
	"math"
	"reflect"
	"runtime"
	"slices"
	"sync"
	"time"

	"mezzadro/core/catalogue"
	"mezzadro/core/day"
	"mezzadro/core/invalid"
	"mezzadro/core/season"
)

// Change is something done to a plan: a thing is cut, taken away or planted.
type Change struct {
	Thing   string  `json:"thing,omitempty" maxLength:"60" doc:"Id of what is cut or taken away"`
	Do      string  `json:"do" enum:"cut,remove,plant"`
	HeightM float64 `json:"height_m,omitempty" minimum:"0" maximum:"150" doc:"Of a cut: what it is cut to; as before when absent"`
	SpreadM float64 `json:"spread_m,omitempty" minimum:"0" maximum:"60"`
	ClearM  float64 `json:"clear_m,omitempty" minimum:"0" maximum:"60" doc:"Of a crown that is raised"`
	Add     *Thing  `json:"add,omitempty" doc:"What is planted"`
}

// Effect is what changes do to one plant.
type Effect struct {
	ID     string      `json:"id"`
	Name   string      `json:"name"`
	Before [12]float64 `json:"before" doc:"Hours a day by month"`
	After  [12]float64 `json:"after"`
	Was    string      `json:"class_before"`
	Is     string      `json:"class_after"`
	What   string      `json:"what" enum:"none,scorches,starves,gains,drought" doc:"scorches: more sun than its leaves are used to; starves: less than it wants; gains: it had too little before"`
	When   []int       `json:"when" doc:"Months in which that matters, 1 January"`
	Text   string      `json:"text"`
	Do     []string    `json:"do" doc:"What can be done"`
}

// How much a change of light matters, hours a day in summer.
const (
	gainMatters = 1.5
	lossMatters = 0.7
	scorchFrom  = 0.8 // hours more in a month that counts among those of the scorch
)

// With is the plan after changes. Its error is a list of refused fields.
func (p *Plan) With(changes []Change) (*Plan, error) {
	var bad invalid.Fields
	out := *p
	out.Things = slices.Clone(p.Things)
	for i, c := range changes {
		at := fmt.Sprintf("changes[%d].", i)
		k := slices.IndexFunc(out.Things, func(t Thing) bool { return t.ID == c.Thing })
		switch {
		case c.Do == "plant" && c.Add == nil:
			bad.Add(at+"add", nil, "say what is planted")
		case c.Do == "plant":
			out.Things = append(out.Things, *c.Add)
		case k < 0:
			bad.Add(at+"thing", c.Thing, "there is nothing of that id on the plan")
		case c.Do == "remove":
			out.Things = slices.Delete(out.Things, k, k+1)
		case c.Do == "cut" && c.HeightM == 0 && c.SpreadM == 0 && c.ClearM == 0:
			bad.Add(at+"height_m", c.HeightM, "say what it is cut to")
		case c.Do == "cut":
			out.Things[k].cut(c, at, &bad)
		default:
			bad.Add(at+"do", c.Do, "want cut, remove or plant")
		}
	}
	if bad != nil {
		return nil, bad
	}
	return &out, out.Validate()
}

func (t *Thing) cut(c Change, at string, bad *invalid.Fields) {
	if c.HeightM > t.HeightM || c.SpreadM > 2*t.radius() && t.crown() {
		bad.Add(at+"height_m", c.HeightM, "%s stands at %g m: a cut does not make it larger", named(t), t.HeightM)
		return
	}
	if c.HeightM > 0 {
		t.HeightM = c.HeightM
		t.ClearM = math.Min(t.ClearM, 0.7*t.HeightM)
	}
	if c.SpreadM > 0 {
		t.SpreadM = c.SpreadM
	}
	if c.ClearM > 0 {
		t.ClearM = c.ClearM
	}
}

// Effects are what changes do to the light of all plants that stand before and after, those that matter first.
func (p *Plan) Effects(changes []Change, year int) ([]Effect, error) {
	after, err := p.With(changes)
	if err != nil {
		return nil, err
	}
	before := p.northUp()
	by, high := before.differs(after.northUp())
	plants := []*Thing{}
	for i := range before.Things {
		if t := &before.Things[i]; t.Kind == Plant && t.HeightM > 0 && (!by.gone[t.ID] || high[t.ID] > 0) {
			plants = append(plants, t)
		}
	}
	out := make([]Effect, len(plants))
	onAllCores(len(plants), func(k int) { out[k] = before.effect(plants[k], high[plants[k].ID], &by, year) })
	slices.SortStableFunc(out, func(a, b Effect) int { return rank(b) - rank(a) })
	return out, nil
}

// effect is what changes do to one plant that has a height before and after.
func (p *Plan) effect(t *Thing, high float64, by *touch, year int) Effect {
	sky := p.SkyFrom(t.Points[0], 0.6*math.Min(t.HeightM, high), t.ID)
	was := sky.Year(year)
	is := was
	if then, where := sky.after(by, t.ID); then != nil {
		less, more := sky.year(year, where), then.year(year, where)
		for m := range is.Hours {
			is.Hours[m] += more.Hours[m] - less.Hours[m]
			is.Strong[m] += more.Strong[m] - less.Strong[m]
		}
	}
	e := Effect{ID: t.ID, Name: named(t), Before: was.Strong, After: is.Strong}
	e.judge(t, p.Latitude)
	for m := range e.Before {
		e.Before[m], e.After[m] = round(was.Hours[m]), round(is.Hours[m])
	}
	return e
}

// touch is what is not the same on two plans: what is gone or was otherwise, and what is new or is otherwise.
type touch struct {
	gone map[string]bool
	come []*Thing
}

// differs are the things that are not the same on another plan, and how high each is there.
func (p *Plan) differs(o *Plan) (by touch, high map[string]float64) {
	by.gone, high = map[string]bool{}, map[string]float64{}
	was := map[string]*Thing{}
	for i := range p.Things {
		was[p.Things[i].ID] = &p.Things[i]
		by.gone[p.Things[i].ID] = true
	}
	for i := range o.Things {
		t := &o.Things[i]
		high[t.ID] = t.HeightM
		if before := was[t.ID]; before != nil && reflect.DeepEqual(*before, *t) {
			delete(by.gone, t.ID)
		} else {
			by.come = append(by.come, t)
		}
	}
	return by, high
}

// northUp is the plan turned, so that north is up.
func (p *Plan) northUp() *Plan {
	out := *p.turned()
	out.NorthDeg = 0
	return &out
}

// onAllCores does n pieces of work that do not touch each other.
func onAllCores(n int, work func(i int)) {
	var wg sync.WaitGroup
	cores := runtime.GOMAXPROCS(0)
	for c := range cores {
		wg.Go(func() {
			for i := c; i < n; i += cores {
				work(i)
			}
		})
	}
	wg.Wait()
}

func rank(e Effect) int {
	return map[string]int{"scorches": 3, "starves": 2, "gains": 1}[e.What]
}

// burnsFrom is how high the sun stands at noon when it can burn leaves, degrees.
const burnsFrom = 45

// summer are the months in which leaves burn or starve: the six about midsummer, and others in which the sun stands
// high at noon; in the tropics all.
func summer(latitude float64) []int {
	half := []int{4, 5, 6, 7, 8, 9}
	if latitude < 0 {
		half = []int{10, 11, 12, 1, 2, 3}
	}
	out := []int{}
	for m := 1; m <= 12; m++ {
		decl := season.Declination(day.Of(2027, time.Month(m), 15)) * 180 / math.Pi
		if slices.Contains(half, m) || math.Abs(latitude) < tropics || 90-math.Abs(latitude-decl) >= burnsFrom {
			out = append(out, m)
		}
	}
	return out
}

// judge says what a change of hours does to a plant.
func (e *Effect) judge(t *Thing, latitude float64) {
	before, after := SummerHours(e.Before, latitude), SummerHours(e.After, latitude)
	e.Was, e.Is, e.What = Class(before), Class(after), "none"
	e.When, e.Do = []int{}, []string{}
	gain, loss := 0.0, 0.0
	for _, m := range summer(latitude) {
		d := e.After[m-1] - e.Before[m-1]
		gain, loss = math.Max(gain, d), math.Max(loss, -d)
	}
	least, bears := Wants(t.Light)
	used := math.Max(before+3, 4.5) // leaves bear so much more than they grew in
	switch {
	case gain >= gainMatters && (after > bears || t.Leaf != catalogue.Herbaceous && before < FullSun && after > used):
		e.scorch(t, latitude, before, after, after > bears)
	case loss >= lossMatters && after < least:
		e.What, e.Text = "starves", fmt.Sprintf("%s is left with %.1f hours of strong sun a day in summer; it wants %.1f at least: it grows thin and blooms little.", e.Name, after, least)
		e.Do = append(e.Do, "Keep what shades it lower or thinner, move the plant in its season, or put a kind there that bears shade.")
		e.months(latitude, -lossMatters)
	case gain >= gainMatters && before < least && after >= least:
		e.What, e.Text = "gains", fmt.Sprintf("%s had too little sun and gets enough: %.1f in place of %.1f hours a day in summer.", e.Name, after, before)
		e.months(latitude, gainMatters)
	default:
		e.Text = fmt.Sprintf("%s: %.1f hours of strong sun a day in summer, before %.1f.", e.Name, after, before)
	}
}

func (e *Effect) scorch(t *Thing, latitude, before, after float64, ever bool) {
	e.What = "scorches"
	e.months(latitude, scorchFrom)
	e.Text = fmt.Sprintf("The leaves of %s grew in %s and get %.1f hours of strong sun in place of %.1f: they scorch on the first hot days.", e.Name, e.Was, after, before)
	if ever {
		e.Text = fmt.Sprintf("%s wants %s and would stand in %.1f hours of strong sun, before %.1f: it scorches, and not in the first summer only.", e.Name, t.Light, after, before)
		e.Do = append(e.Do, "Leave part of the shade, or move it in its season to a place that stays shaded.")
	} else {
		e.Do = append(e.Do, "New leaves of the next flush bear it: shade it for the first summer and keep it watered.")
	}
	e.Do = append(e.Do, "Cut in autumn or late winter rather than in summer, so that its next leaves grow into the light.")
}

// months are those of the summer in which the change is that great.
func (e *Effect) months(latitude, least float64) {
	for _, m := range summer(latitude) {
		if d := e.After[m-1] - e.Before[m-1]; least > 0 && d >= least || least < 0 && d <= least {
			e.When = append(e.When, m)
		}
	}
}
