package damage

import (
	"slices"

	"mezzadro/core/day"
	"mezzadro/core/invalid"
)

// Ruling is what the gardener decides about a verdict.
type Ruling struct {
	Decision string  `json:"decision" enum:"accepted,overruled,not now"`
	Kind     string  `json:"kind,omitempty" doc:"overruled: the verdict in its place; accepted: the owner's choice among those the answer leaves open"`
	Until    day.Day `json:"until,omitempty" format:"date" doc:"overruled with wait until: the day; when leaf is due when absent"`
	CutM     float64 `json:"cut_m,omitempty" doc:"overruled with a cut: its height, m"`
	Note     string  `json:"note,omitempty" maxLength:"2000" doc:"overruled: why"`
}

// Decisions.
const (
	Accepted  = "accepted"
	Overruled = "overruled"
)

// Decide is the answer that stands after a decision, and the note that goes with it. Its error names the field that
// cannot be.
func Decide(q Question, in Ruling) (Answer, string, error) {
	note := in.Note
	if in.Decision == Overruled {
		switch {
		case note == "":
			return Answer{}, note, invalid.One("note", note, "is missing: say why the verdict is overruled")
		case in.Kind == "":
			return Answer{}, note, invalid.One("kind", in.Kind, "is missing: say which verdict stands in its place")
		}
		if in.Kind == Wait && in.Until.Given() && in.Until <= q.Today {
			return Answer{}, note, invalid.One("until", in.Until, "is not after today")
		}
		q.Overrule, q.OverruleCutM, q.OverruleUntil = in.Kind, in.CutM, in.Until
	}
	a, err := Judge(q)
	if err == nil && in.Decision == Accepted && in.Kind != "" {
		i := slices.IndexFunc(a.Choices, func(c Choice) bool { return c.Kind == in.Kind })
		if i < 0 {
			return a, note, invalid.One("kind", in.Kind, "is not among the choices this verdict leaves open")
		}
		if note == "" {
			note = a.Choices[i].Text
		}
		q.Overrule = in.Kind
		a, err = Judge(q)
	}
	if err == nil && in.Decision == Accepted && a.Verdict.Kind == Look && len(q.Checks) == 0 {
		err = invalid.One("decision", in.Decision, "nothing has been checked on this plant yet")
	}
	return a, note, err
}
