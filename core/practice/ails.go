package practice

import (
	"fmt"
	"math"
	"math/rand/v2"
	"slices"
	"strings"

	"mezzadro/core/catalogue"
	"mezzadro/core/cause"
	"mezzadro/core/day"
	"mezzadro/core/invalid"
	"mezzadro/core/season"
)

// Ails is a round of made-up plants with something wrong, to practise naming causes on.
type Ails struct {
	Seed    uint64        `json:"seed" doc:"The number it is made from"`
	Climate string        `json:"climate" doc:"Type of climate, by id"`
	Today   day.Day       `json:"today" format:"date"`
	Plants  []AilingPlant `json:"plants"`

	truth []cause.MadeUp
	cases []cause.Case
}

// AilingPlant is one of its plants.
type AilingPlant struct {
	Species string         `json:"species" doc:"Its kind, by id"`
	Common  string         `json:"common"`
	Form    catalogue.Form `json:"form" doc:"How it grows"`
	First   Named          `json:"first" doc:"What is seen at once"`
	Signs   []Named        `json:"signs" doc:"What one may look for, by part of the plant"`
	Causes  []Named        `json:"causes" doc:"What it may be"`
}

// Named is a sign or a cause by its id.
type Named struct {
	ID   string `json:"id"`
	Name string `json:"name"`
	Part string `json:"part,omitempty" doc:"Of a sign: where one looks"`
	How  string `json:"how,omitempty" doc:"Of a sign: how one looks, where that is not plain"`
}

const (
	choices    = 7    // causes that are offered
	misseen    = 0.03 // how often a sign is overlooked, or taken for there
	growsFrom  = 90   // days after midwinter from which plants are made up to ail,
	growsUntil = 300  // and until when
)

// MakeAils makes a round up in a climate. Bad input is invalid.Fields.
func MakeAils(book *catalogue.Catalogue, climate catalogue.ClimateType, seed uint64) (*Ails, error) {
	r := rand.New(rand.NewPCG(seed, 38+uint64(climate.Climate.Latitude*100)^uint64(len(climate.ID))))
	n := climate.Climate.Daily()
	winter := climate.Climate.Midwinter(day.Of(2027, 6, 1))
	a := &Ails{Seed: seed, Climate: climate.ID, Today: winter + growsFrom + day.Day(r.IntN(growsUntil-growsFrom))}
	causes := cause.Built()
	met := map[string]bool{}
	for _, i := range r.Perm(len(book.Entries)) {
		e := book.Entries[i]
		if len(a.Plants) == plants || e.HardinessC > climate.Climate.ExtremeMinC || strings.HasPrefix(e.ID, "unknown-") {
			continue
		}
		k := a.caseOf(&e, n)
		m, ok := causes.MakeUp(k, r.Float64)
		if !ok || met[m.Cause] {
			continue
		}
		met[m.Cause] = true
		a.add(causes, &e, k, m)
	}
	if len(a.Plants) < plants {
		return nil, invalid.One("climate", climate.ID, "too few kinds of the book live there to practise on")
	}
	return a, nil
}

// caseOf is what is known of a plant of a kind before anything is looked for.
func (a *Ails) caseOf(e *catalogue.Entry, n *season.Normals) cause.Case {
	return cause.Case{Species: e, Month: cause.Northern(int(a.Today.Month()), n.Climate.South()), Site: cause.SiteOf(n, a.Today)}
}

func (a *Ails) add(causes *cause.Book, e *catalogue.Entry, k cause.Case, m cause.MadeUp) {
	p := AilingPlant{Species: e.ID, Common: e.Common, Form: e.Form, Signs: []Named{}, Causes: []Named{}}
	first := causes.Sign(m.First)
	p.First = Named{ID: first.ID, Name: first.Name, Part: first.Part}
	among := causes.Offered(k, m, choices)
	for _, s := range causes.ToLookFor(k, m, among) {
		p.Signs = append(p.Signs, Named{ID: s.ID, Name: s.Name, Part: s.Part, How: s.How})
	}
	for _, c := range among {
		p.Causes = append(p.Causes, Named{ID: c.ID, Name: c.Name})
	}
	a.Plants, a.truth, a.cases = append(a.Plants, p), append(a.truth, m), append(a.cases, k)
}

// Look tells whether a sign is there; ok is false where there is no such plant, or it is not one to look for.
func (a *Ails) Look(plant int, sign string) (there, ok bool) {
	if plant < 0 || plant >= len(a.Plants) {
		return false, false
	}
	i := slices.IndexFunc(a.Plants[plant].Signs, func(s Named) bool { return s.ID == sign })
	if i < 0 {
		return false, false
	}
	r := rand.New(rand.NewPCG(a.Seed, uint64(plant)<<16|uint64(i)))
	there = a.truth[plant].Shows[sign]
	if r.Float64() < misseen {
		there = !there
	}
	return there, true
}

// NamedIt is what somebody took a plant's trouble for, after the looks they took.
type NamedIt struct {
	Looked []string `json:"looked" maxItems:"40" doc:"Signs that were looked for, by id"`
	Cause  string   `json:"cause" maxLength:"60" doc:"What they took it for, by id; empty where they would rather ask"`
}

// HeldName is what somebody took a plant's trouble for, held against the truth.
type HeldName struct {
	NamedIt
	Is          string  `json:"is" doc:"What it was"`
	IsID        string  `json:"is_id" doc:"The same by its id in the book"`
	Took        string  `json:"took" doc:"What they took it for; empty where they would rather ask"`
	Program     string  `json:"program" doc:"What the program took it for by the same looks"`
	Right       bool    `json:"right" doc:"It was that"`
	Lost        float64 `json:"lost" doc:"What the mistake costs, 0 nothing to 1 the plant, or worse"`
	ProgramLost float64 `json:"program_lost" doc:"What the program's would have cost"`
	Says        string  `json:"says" doc:"What comes of it, in words"`
	Tell        string  `json:"tell" doc:"Which look tells the two apart; empty where it was right"`
}

// HoldNames holds names against the truth, plant by plant.
func (a *Ails) HoldNames(list []NamedIt) []HeldName {
	out := []HeldName{}
	for i, n := range list {
		if i < len(a.Plants) {
			out = append(out, a.holdName(i, n))
		}
	}
	return out
}

// Losses are what the name and the program's cost.
func (h HeldName) Losses() (own, program float64) { return h.Lost, h.ProgramLost }

func (a *Ails) holdName(i int, n NamedIt) HeldName {
	b := cause.Built()
	is, took := b.Cause(a.truth[i].Cause), b.Cause(n.Cause)
	h := HeldName{NamedIt: n, Is: is.Name, IsID: is.ID, Right: took == is}
	if h.Looked == nil {
		h.Looked = []string{}
	}
	if took != nil {
		h.Took = took.Name
	}
	h.Lost, h.Says = mistook(is, took)
	theirs := a.program(i, n.Looked)
	h.Program = "something that is not in the book"
	if theirs != nil {
		h.Program = theirs.Name
	}
	h.ProgramLost, _ = mistook(is, theirs)
	if !h.Right {
		h.Tell = telling(b, is, took, a.Plants[i].Signs)
	}
	return h
}

// program is what the program says by the same looks; nil where it would rather ask.
func (a *Ails) program(i int, looked []string) *cause.Cause {
	k := a.cases[i]
	k.Seen = []string{a.truth[i].First}
	for _, id := range looked {
		there, ok := a.Look(i, id)
		switch {
		case ok && there:
			k.Seen = append(k.Seen, id)
		case ok:
			k.Absent = append(k.Absent, id)
		}
	}
	d, err := cause.Built().Diagnose(k)
	if err != nil || len(d.Causes) == 0 {
		return nil
	}
	return cause.Built().Cause(d.Causes[0].ID)
}

// What mistakes cost: 0 nothing, 1 the plant, or somebody's health.
const (
	asked     = 0.1 // to ask somebody, or to come again
	alike     = 0.1 // another name, and the same is done
	needless  = 0.35
	tooLittle = 0.25
)

// shortage is the group of causes that are a want of something.
const shortage = "shortage"

// idle reports an act that is none: it is left alone, or watched.
func idle(act string) bool { return act == "none" || act == "watch" }

// mistook is what comes of taking one cause for another; took is nil where somebody would rather ask.
func mistook(is, took *cause.Cause) (lost float64, says string) {
	harm := map[string]float64{"harmless": 0, "ugly": tooLittle, "weakening": 2 * tooLittle, "deadly": 4 * tooLittle}[is.Harm]
	switch {
	case took == is:
		return 0, "That was it."
	case took == nil:
		return asked, "To ask is no shame; it costs another visit."
	case is.Danger != "" && took.Danger == "":
		return 1, "It can hurt people, and nobody was warned."
	case is.Report && !took.Report:
		return 1, "In many places it must be reported, and it was not."
	case is.Group == shortage && took.Group == shortage:
		return tooLittle, "It was fed what it did not lack, and it went on."
	case idle(is.Act) && idle(took.Act):
		return alike, "Neither asks for more than to be watched."
	case took.Act == is.Act:
		return alike, "What is done about the two is much the same."
	case is.Harm == "harmless":
		return needless, "It is harmless: all that was done was for nothing."
	case idle(is.Act):
		return needless, "It asked for nothing but to be watched: what was done was for nothing."
	case idle(took.Act):
		return harm, "Nothing was done, and it went on."
	case slices.Contains([]string{"soft", "strong", "replace"}, took.Act):
		return math.Min(1, needless+harm/2), "The wrong means was used, and it went on."
	}
	return harm * 0.75, "Something else was done, and it went on."
}

// telling is which of the looks that were offered tells two causes apart best, in words.
func telling(b *cause.Book, is, took *cause.Cause, offered []Named) string {
	if took == nil {
		return ""
	}
	for _, p := range b.PartedBy(is, took) {
		if slices.ContainsFunc(offered, func(s Named) bool { return s.ID == p.ID }) {
			return fmt.Sprintf("What tells: %s, seen with %s %s, with %s %s.", lower(p.Name), lower(is.Name), share(p.Mine),
				lower(took.Name), share(p.Theirs))
		}
	}
	return ""
}

func lower(name string) string { return strings.ToLower(name[:1]) + name[1:] }

func share(p float64) string {
	switch {
	case p < 0.03:
		return "hardly ever"
	case p > 0.94:
		return "nearly always"
	}
	if n := math.Max(1, math.Round(10*p)); n > 1 {
		return fmt.Sprintf("in %.0f cases of 10", n)
	}
	return "in one case of 10"
}
