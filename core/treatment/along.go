package treatment

import (
	"cmp"
	"slices"

	"mezzadro/core/catalogue"
	"mezzadro/core/cause"
	"mezzadro/core/day"
)

// Fellow is whether another plant is treated along with the one that shows a trouble.
type Fellow struct {
	Treat bool   `json:"treat"`
	Why   string `json:"why"`
	Look  bool   `json:"look" doc:"Only those that show it are treated: it is looked at, not treated along"`
}

// Along says it of a plant that can have the trouble too; false where the kind does not take it. Where the programme
// treats none but those that show it, it is looked at. had: the record knows it on that plant from before.
func (b *Book) Along(id string, e *catalogue.Entry, shade, had bool) (Fellow, bool) {
	p, c := b.programme(&Ask{Cause: id, Species: e, HeightM: e.Mature.HeightM, guessed: true}), cause.Built().Cause(id)
	if p == nil || c == nil || c.OnKind(e) < 1 {
		return Fellow{}, false
	}
	switch {
	case !p.Bed && !p.Sunny && had:
		return Fellow{Why: "it had it before; only those that show it are treated", Look: true}, true
	case !p.Bed && !p.Sunny:
		return Fellow{Why: "only those that show it are treated", Look: true}, true
	case p.Bed:
		return Fellow{Treat: true, Why: "all plants of the kind in the bed are treated"}, true
	case had:
		return Fellow{Treat: true, Why: "it had it before"}, true
	case shade:
		return Fellow{Why: "in shade it hardly takes harm"}, true
	}
	return Fellow{Treat: true, Why: "it stands in the sun"}, true
}

// Guards are the causes that a kind is prone to, or is a host of, and that can be kept off before they are there: what
// it has again and again first.
func (b *Book) Guards(e *catalogue.Entry) []string {
	likely := map[string]float64{}
	out := []string{}
	for i := range b.Programmes {
		p := &b.Programmes[i]
		if len(p.Prevent) == 0 {
			continue
		}
		for _, id := range p.Causes {
			if v := cause.Built().Cause(id).OnKind(e); v >= 1 && likely[id] == 0 { // a cause may have several programmes
				likely[id] = v
				out = append(out, id)
			}
		}
	}
	slices.SortStableFunc(out, func(x, y string) int { return cmp.Compare(likely[y], likely[x]) })
	return out
}

// Times is how often a job's step falls due from a day on until another, the first time counted; done: how often it was
// done already.
func (b *Book) Times(a Ask, j Job, done int, due, until day.Day) int {
	if due > until {
		return 0
	}
	a.Cause, a.Date, a.Uses = j.Cause, j.Made, nil
	a.fill()
	s := &search{book: b, ask: &a, programme: b.programme(&a)}
	st, known := s.stepOf(j)
	if !known || st.Every == 0 {
		return 1
	}
	st = s.byLabel(st, b.active[st.Use])
	end := until
	if st.To.given() {
		s.calendar = a.Place.Of(a.Species, a.Date)
		if _, to, ok := s.window(st); ok {
			end = min(end, to)
		}
	}
	left := max(1, st.Most-done)
	return max(1, min(left, 1+int(end-due)/st.Every))
}
