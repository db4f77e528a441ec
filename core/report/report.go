// Package report writes what a client reads of their property: what weather or pests did, plant by plant what was found,
// what it may become, what is advised, what they can do and must not do, and when somebody comes.
package report

import (
	"cmp"
	"fmt"
	"math"
	"slices"
	"strings"

	"mezzadro/core/cold"
	"mezzadro/core/damage"
	"mezzadro/core/day"
	"mezzadro/core/outcome"
	"mezzadro/core/portrait"
	"mezzadro/core/quantity"
	"mezzadro/core/weather"
)

// Kinds of reports.
const (
	Event   = "event"   // after a freeze, a gale, a drought
	Walk    = "walk"    // what was found on the last walk
	Season  = "season"  // the year in the garden
	Insurer = "insurer" // what was lost by an event, for whoever pays for it
)

// Night is the lowest of a day, for the small picture of an event.
type Night struct {
	Day  day.Day `json:"day" format:"date" doc:"The day"`
	MinC float64 `json:"min_c" doc:"Its lowest, °C"`
}

// Weather is an event that the report is about.
type Weather struct {
	Kind    string
	Value   float64 // at its peak: °C, m/s of a gale, mm in a week of a wet spell
	Hours   int     // it lasted
	FallC   float64 // of a frost: how far the lowest fell within three days
	BeforeC float64 // of a frost: how much warmer than usual the fortnight before was; 0 where nobody knows
	Peak    day.Day
	Days    []Night
}

// hardest are kinds of events by how much they do to a garden.
var hardest = []string{weather.Freeze, weather.Gale, weather.LateFrost, cold.DryingWind, weather.Heat, weather.Wet}

// Hardest is the event that did most: by its kind, then by how hard it was; nil for none.
func Hardest(list []Weather) *Weather {
	if len(list) == 0 {
		return nil
	}
	w := slices.MinFunc(list, func(a, b Weather) int {
		return cmp.Or(
			cmp.Compare(slices.Index(hardest, a.Kind), slices.Index(hardest, b.Kind)),
			cmp.Compare(math.Abs(b.Value), math.Abs(a.Value)),
		)
	})
	return &w
}

// story tells what the weather did, in a client's words.
func (w *Weather) story() string {
	on := quantity.Day(w.Peak)
	switch w.Kind {
	case weather.Freeze, weather.LateFrost:
		out := "On " + on + " it froze to " + quantity.Temperature(w.Value)
		if w.FallC >= suddenC {
			out += ", " + quantity.Difference(w.FallC) + " colder than three days before"
		}
		if w.BeforeC >= warmC {
			return out + ". The fortnight before had been " + quantity.Difference(
				w.BeforeC,
			) + " too warm: plants were not ready for it."
		}
		if w.Kind == weather.LateFrost {
			return out + ". Plants had begun to grow."
		}
		return out + "."
	case cold.DryingWind:
		return fmt.Sprintf(
			"About %s the ground was frozen for %d hours while sun and wind dried the leaves.",
			on,
			w.Hours,
		)
	case weather.Heat:
		return "About " + on + " it was as hot as " + quantity.Temperature(w.Value) + "."
	case weather.Gale:
		return "On " + on + " the wind blew at up to " + quantity.Speed(w.Value) + "."
	}
	return "In the week of " + on + " it rained " + quantity.Rain(w.Value) + "."
}

// From where a fall within three days is sudden, and a fortnight warm enough to matter, °C.
const (
	suddenC = 8.0
	warmC   = 2.0
)

// Plant is one plant or group as the firm knows it.
type Plant struct {
	ID     int64
	Name   string
	Count  int
	Answer *damage.Answer // what was judged; nil where nothing was
	On     day.Day        // when
	Own    string         // the firm's own words, where it overruled
	Causes []string       // found on it besides
	Photos []Photo

	Form                   string // how it is built, for its picture; empty: none is drawn
	HeightM, SpreadM, RowM float64
}

// Photo is a picture with its day.
type Photo struct {
	Hash string  `json:"hash" maxLength:"64" doc:"It stands under this"`
	Day  day.Day `json:"day" format:"date" doc:"The day it was taken on"`
}

// Work is something that is planned or was done.
type Work struct {
	PlantID  int64
	Title    string
	Day      day.Day // it is on or was done; none: it has none yet
	From, To day.Day // else: its good days
	Done     bool
	Asked    bool // it waits for the client's yes
}

// Ask is what a report is written from.
type Ask struct {
	Kind     string
	Property string
	Today    day.Day
	From     day.Day // the first day that it looks at
	Weather  *Weather
	Plants   []Plant
	Work     []Work
	Cost     string // what an open estimate comes to, in words; empty without one
}

// Report is what is written: a summary, and a section for each plant that there is something to say of.
type Report struct {
	Title    string    `json:"title" maxLength:"300" doc:"What it is about"`
	Summary  []string  `json:"summary" maxItems:"40" doc:"The first page: a sentence or two each"`
	Nights   []Night   `json:"nights" maxItems:"120" doc:"Lowest of each day about the event; empty without one"`
	Sections []Section `json:"sections" maxItems:"600" doc:"Plant by plant, those that are worst first"`
}

// Section is what is said of one plant, or of the property.
type Section struct {
	PlantID int64   `json:"plant_id,omitempty" doc:"The plant; absent for the property itself"`
	Head    string  `json:"head" maxLength:"300" doc:"Its name"`
	State   string  `json:"state" enum:"lost,hurt,waiting,well,danger,found," doc:"How it stands"`
	Found   string  `json:"found" maxLength:"2000" doc:"What was found"`
	Becomes string  `json:"becomes" maxLength:"2000" doc:"What it may become, with the chance and when"`
	We      string  `json:"we" maxLength:"2000" doc:"What the firm does, and when"`
	You     string  `json:"you" maxLength:"2000" doc:"What the client can do"`
	Dont    string  `json:"dont" maxLength:"2000" doc:"What must not be done"`
	Drawn   *Drawn  `json:"drawn,omitempty" doc:"A small picture of what lives and what is dead; absent where nothing of it is dead"`
	Photos  []Photo `json:"photos" maxItems:"20" doc:"The first and the last of it"`
}

// Drawn is a plant in a small picture: alive up to one height, dead above another, in doubt between.
type Drawn struct {
	Form    string  `json:"form" maxLength:"20" doc:"How it is built; hedge of a row"`
	HeightM float64 `json:"height_m" minimum:"0" maximum:"120" doc:"m"`
	SpreadM float64 `json:"spread_m" minimum:"0" maximum:"120" doc:"m; of a row as much as is drawn of its length"`
	LowM    float64 `json:"low_m" minimum:"0" maximum:"120" doc:"Alive up to here, m"`
	HighM   float64 `json:"high_m" minimum:"0" maximum:"120" doc:"Dead from here on, m"`
	CutM    float64 `json:"cut_m,omitempty" minimum:"0" maximum:"120" doc:"Where it is cut, m; absent where it is not"`
}

// drawn is a plant's picture; nil where nothing of it is known to be dead, and where the firm says otherwise in its own
// words than what was judged.
func (p *Plant) drawn() *Drawn {
	b := p.Answer.Boundary
	if p.Form == "" || p.Own != "" || p.HeightM <= 0 || b.HighM >= p.HeightM {
		return nil
	}
	d := &Drawn{Form: p.Form, HeightM: p.HeightM, SpreadM: p.SpreadM, LowM: b.LowM, HighM: b.HighM, CutM: p.Answer.Verdict.CutM}
	if p.RowM > 0 {
		d.Form, d.SpreadM = portrait.Hedge, max(p.SpreadM, min(p.RowM, 2*p.HeightM))
	}
	return d
}

// States of plants, the worst first.
var states = []string{"danger", "lost", "hurt", "waiting", "found", "well"}

// StateOf is how a plant stands by its verdict: danger, lost, hurt, waiting or well.
func StateOf(kind string) string {
	switch kind {
	case damage.MakeSafe:
		return "danger"
	case damage.Replace, damage.Regraft:
		return "lost"
	case damage.Wait, damage.Look:
		return "waiting"
	case damage.Leave, damage.Lift:
		return "well"
	}
	return "hurt"
}

// Write writes a report.
func Write(a Ask) Report {
	out := Report{Title: a.title(), Summary: []string{}, Nights: []Night{}, Sections: []Section{}}
	counts := map[string]int{}
	for _, p := range a.Plants {
		if p.Answer == nil && len(p.Causes) == 0 {
			continue
		}
		s := a.section(p)
		if a.Kind == Insurer && s.State == "well" {
			continue
		}
		counts[s.State] += max(1, p.Count)
		out.Sections = append(out.Sections, s)
	}
	slices.SortStableFunc(out.Sections, func(x, y Section) int {
		return cmp.Compare(slices.Index(states, x.State), slices.Index(states, y.State))
	})
	if a.Weather != nil {
		out.Nights = append(out.Nights, a.Weather.Days...)
	}
	out.Summary = append(out.Summary, a.summary(counts)...)
	return out
}

func (a *Ask) title() string {
	switch {
	case a.Kind == Season:
		return "The year in your garden: " + a.Property
	case a.Kind == Insurer && a.Weather != nil:
		return "Damage by weather on " + quantity.Day(a.Weather.Peak) + ": " + a.Property
	case a.Weather != nil:
		return "What the weather of " + quantity.Day(a.Weather.Peak) + " did: " + a.Property
	}
	return "How your plants stand: " + a.Property
}

// summary is the first page.
func (a *Ask) summary(counts map[string]int) (out []string) {
	if a.Weather != nil {
		out = append(out, a.Weather.story())
	}
	var parts []string
	for _, s := range states {
		if n := counts[s]; n > 0 {
			parts = append(parts, countWords[s](n))
		}
	}
	if len(parts) > 0 {
		out = append(out, "Of what was looked at, "+listed(parts)+".")
	} else {
		out = append(out, "Nothing was looked at yet.")
	}
	if counts["danger"] > 0 {
		out = append(out, "Keep people away from what may fall until we have been there.")
	}
	if counts["waiting"] > 0 {
		out = append(out, "What waits is not given up: many plants that look dead in spring shoot again.")
	}
	done, next := 0, day.None
	for _, w := range a.Work {
		switch {
		case w.Done:
			done++
		case w.Day.Given() && w.Day >= a.Today && (!next.Given() || w.Day < next):
			next = w.Day
		}
	}
	if a.Kind == Season && done > 0 {
		out = append(out, fmt.Sprintf("We did %s for it.", counted(done, "one piece of work", "%d pieces of work")))
	}
	if next.Given() && a.Kind != Insurer {
		out = append(out, "We come next on "+quantity.Day(next)+".")
	}
	if a.Cost != "" && a.Kind != Insurer {
		out = append(out, a.Cost)
	}
	return out
}

// countWords say how many plants are in a state.
var countWords = map[string]func(n int) string{
	"danger":  func(n int) string { return counted(n, "one may fall on somebody", "%d may fall on somebody") },
	"lost":    func(n int) string { return counted(n, "one is lost", "%d are lost") },
	"hurt":    func(n int) string { return counted(n, "one is hurt and lives", "%d are hurt and live") },
	"waiting": func(n int) string { return counted(n, "one cannot be judged yet", "%d cannot be judged yet") },
	"found": func(n int) string {
		return counted(
			n,
			"one has a pest, a disease or another trouble",
			"%d have a pest, a disease or another trouble",
		)
	},
	"well": func(n int) string { return counted(n, "one came through well", "%d came through well") },
}

func counted(n int, one, many string) string {
	if n == 1 {
		return one
	}
	return fmt.Sprintf(many, n)
}

func listed(parts []string) string {
	if len(parts) == 1 {
		return parts[0]
	}
	return strings.Join(parts[:len(parts)-1], ", ") + " and " + parts[len(parts)-1]
}

// section is what is said of a plant.
func (a *Ask) section(p Plant) Section {
	s := Section{PlantID: p.ID, Head: p.Name, State: "found", Photos: endsOf(p.Photos)}
	if p.Count > 1 {
		s.Head += fmt.Sprintf(" × %d", p.Count)
	}
	var found []string
	if v := p.Answer; v != nil {
		s.State = StateOf(v.Verdict.Kind)
		found = append(found, foundBy(v))
		if p.Own != "" {
			found[0] = ended(p.Own)
		}
		s.Becomes = becomes(v.Prognosis, s.State)
		s.You, s.Dont = yours(v)
		s.Drawn = p.drawn()
	}
	if len(p.Causes) > 0 {
		found = append(found, "Found on it: "+listed(p.Causes)+".")
	}
	s.Found = strings.Join(found, " ")
	s.We = a.ours(p.ID)
	return s
}

// endsOf are the first and the last picture: before and after.
func endsOf(all []Photo) []Photo {
	out := []Photo{}
	if len(all) > 0 {
		out = append(out, all[0])
	}
	if len(all) > 1 {
		out = append(out, all[len(all)-1])
	}
	return out
}

// foundBy says what was found, in a client's words.
func foundBy(v *damage.Answer) string {
	lost := int(math.Round(100 * v.Boundary.CrownLost))
	switch v.Verdict.Kind {
	case damage.MakeSafe:
		return "Part of it hangs or leans and may come down."
	case damage.Replace:
		return "It is dead, or will not come again."
	case damage.Regraft:
		return "The grafted variety is dead; what lives is the rootstock."
	case damage.Wait:
		return "It looks dead in part, and cannot be judged before living wood would show leaf."
	case damage.Look:
		return "We could not tell yet, and look again."
	case damage.Leave:
		return "It lives to its tips, or near enough."
	case damage.Lift:
		return "It is sound, and does not bear winter where it stands."
	case damage.TipBack:
		return "Its tips are dead, the rest lives."
	case damage.CutToBase:
		return "Its top is dead; it lives at the base."
	}
	if lost > 0 && lost < 100 {
		return fmt.Sprintf("About %d in 100 of its crown are dead; below that it lives.", lost)
	}
	return "Its upper part is dead; below that it lives."
}

// becomes says what a plant may become, with the chance in tens and the seasons.
func becomes(p outcome.Prognosis, state string) string {
	if state == "danger" || state == "lost" || p.SeasonsHigh == 0 {
		return ""
	}
	tens := min(10, max(0, int(math.Round(10*p.Chance))))
	when := counted(
		p.SeasonsHigh,
		"by the end of the coming season",
		fmt.Sprintf("after %d to %%d seasons", p.SeasonsLow),
	)
	if p.SeasonsLow == p.SeasonsHigh && p.SeasonsHigh > 1 {
		when = fmt.Sprintf("after %d seasons", p.SeasonsHigh)
	}
	switch {
	case tens == 0:
		return "Few plants as hurt as this one come back."
	case tens >= 10:
		return "It will look right again " + when + "."
	}
	return fmt.Sprintf("Of ten plants like it %d look right again, %s.", tens, when)
}

// yours says what the client can do and must not do.
func yours(v *damage.Answer) (you, dont string) {
	switch v.Verdict.Kind {
	case damage.MakeSafe:
		return "Close the ground below it off, and keep children, guests and pets away.", "Nobody goes under it, and nobody but a trained person cuts it."
	case damage.Wait, damage.Look:
		you, dont = "Water it in dry weeks, no more than usual.", "Nobody cuts it or digs it out"
		if v.Verdict.Until.Given() {
			dont += " before " + quantity.Day(v.Verdict.Until)
		}
		return you, dont + ". No feed before it grows."
	case damage.CutBack, damage.CutToBase, damage.TipBack:
		return "Water it in dry weeks while it grows back.", "No feed before new shoots are a hand long."
	}
	return "", ""
}

// ours says what the firm did and does about a plant, and when.
func (a *Ask) ours(plant int64) string {
	var out []string
	ahead := 0
	for _, w := range a.Work {
		if w.PlantID != plant || w.PlantID == 0 {
			continue
		}
		if !w.Done { // what comes first is enough: the rest is told when it is near
			if ahead++; ahead > tellsAhead || !w.Day.Given() && w.From.Given() && w.From > a.Today+nearDays {
				continue
			}
		}
		switch {
		case w.Done:
			out = append(out, "Done on "+quantity.Day(w.Day)+": "+lower(w.Title)+".")
		case a.Kind == Insurer:
		case w.Day.Given():
			out = append(out, "On "+quantity.Day(w.Day)+": "+lower(w.Title)+".")
		case w.From.Given():
			out = append(out, once(w)+", best from "+quantity.Day(w.From)+" to "+quantity.Day(w.To)+".")
		default:
			out = append(out, once(w)+", when it is time.")
		}
	}
	return strings.Join(out, " ")
}

// once names a piece of work that has no day yet, and that it waits for the client where it does.
func once(w Work) string {
	if w.Asked {
		return "Once you agree: " + lower(w.Title)
	}
	return capital(w.Title)
}

// How many pieces of work are told of a plant, and from how near, days.
const (
	tellsAhead = 2
	nearDays   = 150
)

func ended(s string) string {
	if s == "" || strings.ContainsAny(s[len(s)-1:], ".!?") {
		return s
	}
	return s + "."
}

func lower(s string) string {
	if s == "" {
		return s
	}
	return strings.ToLower(s[:1]) + s[1:]
}

func capital(s string) string {
	if s == "" {
		return s
	}
	return strings.ToUpper(s[:1]) + s[1:]
}
