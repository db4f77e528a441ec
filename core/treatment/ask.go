package treatment

import (
	"mezzadro/core/catalogue"
	"mezzadro/core/cause"
	"mezzadro/core/day"
	"mezzadro/core/invalid"
	"mezzadro/core/moment"
	"mezzadro/core/rules"
)

// Use is a means that was used on a plant, or a step that was done without one.
type Use struct {
	Day    day.Day `json:"day" format:"date"`
	Active string  `json:"active,omitempty" doc:"By id; empty for work without a product"`
	Step   int     `json:"step,omitempty" minimum:"0" maximum:"20" doc:"Of the programme, from 1; 0: of another"`
	Rung   string  `json:"rung,omitempty" maxLength:"20" doc:"Of which that step is; of any when absent"`
	RainMM float64 `json:"rain_mm,omitempty" minimum:"0" maximum:"500" doc:"That fell within the hours in which rain washes it off"`
	Card   int64   `json:"card,omitempty" doc:"Id of the product card it was used from; the first of its means when absent"`
}

// Ahead is the weather of a day to come, as far as it is told.
type Ahead struct {
	Day    day.Day `json:"day" format:"date"`
	RainMM float64 `json:"rain_mm,omitempty" minimum:"0" maximum:"500"`
	WindMS float64 `json:"wind_ms,omitempty" minimum:"0" maximum:"60"`
	MaxC   float64 `json:"max_c,omitempty" minimum:"-50" maximum:"55" doc:"0 where nobody told"`
}

// Ask is a cause on a plant, with all that decides what is done.
type Ask struct {
	Cause    string
	Prevent  bool // it is not there yet
	Species  *catalogue.Entry
	Place    *moment.Place
	Date     day.Day
	Share    float64 // of the leaves or shoots that show it; 0: not told
	Count    int     // of a group kept as one; 0: one
	Affected int     // how many of them show it; 0: not told
	HeightM  float64 // 0: as tall as its kind grows
	SpreadM  float64
	RowM     float64 // length of the row or hedge a group stands in, m; 0: not measured
	BedM2    float64 // 0: as wide as the crowns
	Value    float64 // the client's weight, 1 ordinary
	Helpers  bool    // hunters or parasitised ones are seen
	Shade    bool    // it stands in shade
	Harvest  day.Day // when it is eaten from next; none: not told
	Uses     []Use
	Ahead    []Ahead // the days to come
	Cards    []Card
	Rules    rules.House

	guessed bool // its height is its kind's, as nobody told it
}

// Validate names what cannot be.
func (a Ask) Validate() error {
	var bad invalid.Fields
	if cause.Built().Cause(a.Cause) == nil {
		bad.Add("cause", a.Cause, "%q is no cause; GET /causes lists them", a.Cause)
	}
	bad.Within("share", a.Share, 0, 1, "")
	bad.Within("height_m", a.HeightM, 0, 60, "m")
	bad.Within("spread_m", a.SpreadM, 0, 40, "m")
	bad.Within("bed_m2", a.BedM2, 0, 100_000, "m²")
	if a.Count < 0 || a.Count > 10_000 {
		bad.Add("count", a.Count, "want up to 10,000 plants")
	}
	if a.Affected < 0 || a.Affected > max(1, a.Count) {
		bad.Add("affected", a.Affected, "is more than the %d plants there are", max(1, a.Count))
	}
	for i, u := range a.Uses {
		if u.Active != "" && Built().Active(u.Active) == nil {
			bad.Add(at("history", i)+"active", u.Active, "%q is no active", u.Active)
		}
		if u.Day > a.Date {
			bad.Add(at("history", i)+"day", u.Day.String(), "is after the day that is asked for, %s", a.Date)
		}
	}
	for i, c := range a.Cards {
		bad = append(bad, c.faults(at("cards", i))...)
	}
	return bad.Err()
}

func (a *Ask) fill() {
	m := a.Species.Mature
	if a.HeightM == 0 {
		a.HeightM, a.guessed = m.HeightM, true
	}
	if a.SpreadM == 0 {
		a.SpreadM = a.HeightM * m.SpreadM / m.HeightM
	}
	a.Count = max(1, a.Count)
	if a.Value == 0 {
		a.Value = 1
	}
	a.Rules = a.Rules.Or(rules.Usual)
}

// severity is how bad it is; what is not told counts as plain.
func (a Ask) severity() int {
	switch {
	case a.Share == 0:
		return 1
	case a.Share < 0.1:
		return 0
	case a.Share < 0.4:
		return 1
	}
	return 2
}

// kitchen reports a plant whose leaves or all of it are eaten within the year.
func kitchen(e *catalogue.Entry) bool {
	return e.Edible != "" && (e.Annual || e.Form == catalogue.Perennial || e.Form == catalogue.Subshrub)
}
