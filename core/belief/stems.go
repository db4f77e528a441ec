package belief

import "mezzadro/core/cold"

// Stems are two beliefs that the same sights move: that of the stem that is looked at, by which one decides where to
// cut, and that of All of the plant, whose stems differ. Who cuts goes from stem to stem and stops at live wood; who
// tells how much is lost speaks of the whole.
type Stems struct {
	Belief
	All Belief
}

// StemsFrom starts both from what is held before any check.
func StemsFrom(b Belief) Stems {
	all := b
	all.patchy = true
	return Stems{b, all}
}

// Update weighs both beliefs with a sight, as Belief.Update does.
func (s *Stems) Update(x, alive, dead float64) float64 {
	s.All.Update(x, alive, dead)
	return s.Belief.Update(x, alive, dead)
}

// Weigh weighs both with the logarithms of the chances.
func (s *Stems) Weigh(x, alive, dead float64) float64 {
	s.All.Weigh(x, alive, dead)
	return s.Belief.Weigh(x, alive, dead)
}

// Then moves both past an event.
func (s *Stems) Then(o *cold.Outcome) {
	s.All.Then(o)
	s.Belief.Then(o)
}

// Rot weighs both with a rotten crown.
func (s *Stems) Rot(misread float64) {
	s.All.Rot(misread)
	s.Belief.Rot(misread)
}
