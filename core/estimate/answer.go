package estimate

import (
	"fmt"
	"slices"

	"mezzadro/core/day"
	"mezzadro/core/invalid"
)

// Answer is what a client said to a line, with the words and the price as they stood then.
type Answer struct {
	Yes     bool    `json:"yes" doc:"It is agreed; else it is declined"`
	Name    string  `json:"name" maxLength:"120" doc:"Who said it"`
	Remark  string  `json:"remark,omitempty" maxLength:"1000"`
	On      day.Day `json:"on" format:"date" doc:"The day it was said"`
	Wording string  `json:"wording" maxLength:"1000" doc:"What was said yes or no to"`
	Said    Range   `json:"said" doc:"What it was to cost then"`
	Way     string  `json:"way,omitempty" enum:"link,told," doc:"By the client's link, or told the firm"`
}

// Wording is what a client says yes or no to.
func (l *Line) Wording() string {
	if l.Plant == "" {
		return l.Title
	}
	return l.Title + ": " + l.Plant
}

// holds reports that an answer still answers the line: in words and price as they stood when it was given.
func (a *Answer) holds(l *Line) bool { return a.Wording == l.Wording() && a.Said == l.Range }

// Revise is a new state of an estimate's lines over the kept one: amounts are summed anew, an answer stays where the line
// is as it was answered, and is asked for again where it is not. It says which lines are asked anew, by id.
func Revise(kept, next []Line) (lines []Line, anew []int, err error) {
	var bad invalid.Fields
	lines = slices.Clone(next)
	seen := map[int]bool{}
	for i := range lines {
		l := &lines[i]
		at := fmt.Sprintf("lines[%d].", i)
		if l.ID < 1 || seen[l.ID] {
			bad.Add(at+"id", l.ID, "is missing or stands twice")
		}
		seen[l.ID] = true
		if l.Title == "" {
			bad.Add(at+"title", l.Title, "is missing: say what it is for")
		}
		for k, p := range l.Parts {
			if p.From > p.Amount || p.Amount > p.To {
				bad.Add(
					fmt.Sprintf("%sparts[%d].amount", at, k),
					p.Amount,
					"%s: the amount must lie between from and to",
					p.Text,
				)
			}
		}
		l.add()
		l.Answer = nil
		if k := slices.IndexFunc(kept, func(o Line) bool { return o.ID == l.ID }); k >= 0 && kept[k].Answer != nil {
			if a := kept[k].Answer; a.holds(l) {
				l.Answer = a
			} else {
				anew = append(anew, l.ID)
			}
		}
	}
	return lines, anew, bad.Err()
}

// Said keeps a client's answer to a line. Its error names what is missing.
func Said(lines []Line, id int, a Answer) error {
	k := slices.IndexFunc(lines, func(l Line) bool { return l.ID == id })
	if k < 0 {
		return invalid.One("line", id, "this line is not on the estimate any more")
	}
	if a.Name == "" {
		return invalid.One("name", a.Name, "is missing: say who answers")
	}
	a.Wording, a.Said = lines[k].Wording(), lines[k].Range
	lines[k].Answer = &a
	return nil
}

// State is how far the answers to an estimate are: open, agreed, partly agreed, declined.
func State(lines []Line) string {
	yes, no := 0, 0
	for _, l := range lines {
		switch {
		case l.Answer == nil:
		case l.Answer.Yes:
			yes++
		default:
			no++
		}
	}
	switch {
	case len(lines) == 0 || yes+no < len(lines):
		return "open"
	case no == 0:
		return "agreed"
	case yes == 0:
		return "declined"
	}
	return "partly agreed"
}
