package api

import (
	"context"
	"errors"
	"fmt"

	"mezzadro/core/damage"
	"mezzadro/core/day"
	"mezzadro/core/invalid"
	"mezzadro/core/season"
	"mezzadro/store"
)

// DamageIn asks for a verdict from inline values. The climate is given in full, or a property's is used, with the
// weather observed there.
type DamageIn struct {
	Species  string          `json:"species" doc:"Catalogue id"`
	Date     day.Day         `json:"date,omitempty" format:"date" doc:"Today when absent"`
	Climate  *season.Climate `json:"climate,omitempty"`
	Property int64           `json:"property,omitempty" doc:"In place of a climate: a property's id"`
	HeightM  float64         `json:"height_m" doc:"The plant's height before the damage, m"`
	GraftM   float64         `json:"graft_m,omitempty" doc:"Height of the graft, m"`
	Years    int             `json:"years,omitempty" minimum:"0" maximum:"2000" doc:"Since it was planted"`
	Standing
	Checks []damage.Check `json:"checks" maxItems:"500"`
}

func (s *Server) reckonDamage(ctx context.Context, in *struct{ Body DamageIn }) (*Out[damage.Answer], error) {
	b := in.Body
	var bad invalid.Fields
	book, err := s.book(ctx)
	if err != nil {
		return nil, s.problem(ctx, "species", err)
	}
	e, err := book.Species(b.Species)
	if err != nil {
		bad.Add("species", b.Species, "%v", err)
	}
	q := damage.Question{Plant: damage.Plant{Species: e, HeightM: b.HeightM, GraftM: b.GraftM, Years: b.Years}, Today: s.dateOr(b.Date), Checks: b.Checks}
	var at *place
	q.Year, at, err = s.yearOf(ctx, b.Climate, b.Property)
	if errors.Is(err, store.ErrNotFound) {
		return nil, s.problem(ctx, "property", err)
	} else if err != nil {
		bad = append(bad, fields(err)...)
	}
	bad = append(bad, fields(b.Standing.validate())...)
	if at != nil && bad == nil && q.Today == at.today {
		stands := store.Plant{HeightM: b.HeightM, SpreadM: b.HeightM * 2 / 3, Count: 1, Value: 1}
		b.Standing.set(&stands)
		q.Forecast = at.forecast(stands, e)
	}
	bad = append(bad, fields(q.Validate())...)
	if bad != nil {
		return nil, s.problem(ctx, "damage", bad)
	}
	a, err := damage.Judge(q)
	return out(a), s.problem(ctx, "damage", err)
}

func fields(err error) invalid.Fields {
	f, _ := err.(invalid.Fields)
	return f
}

// WalkOut is a walk with what was checked so far.
type WalkOut struct {
	store.Walk
	Checks []PlantChecks `json:"checks"`
}

// PlantChecks are one plant's checks on a walk.
type PlantChecks struct {
	PlantID int64          `json:"plant_id"`
	Checks  []damage.Check `json:"checks"`
}

func (s *Server) startWalk(ctx context.Context, in *struct {
	OnceKey
	Body struct {
		PropertyID int64 `json:"property_id"`
	}
}) (*Out[WalkOut], error) {
	w, err := store.Once(ctx, s.Store, in.of("walk"), func(tx store.Tx) (store.Walk, error) {
		return tx.StartWalk(ctx, in.Body.PropertyID, s.Today().String())
	})
	if err != nil {
		return nil, s.problem(ctx, "property", err)
	}
	return s.walk(ctx, &ByID{w.ID})
}

func (s *Server) walk(ctx context.Context, in *ByID) (*Out[WalkOut], error) {
	w, err := s.Store.Walk(ctx, in.ID)
	if err != nil {
		return nil, s.problem(ctx, "walk", err)
	}
	checks, err := s.Store.Checks(ctx, w.ID)
	if err != nil {
		return nil, s.problem(ctx, "walk", err)
	}
	o := WalkOut{Walk: w, Checks: []PlantChecks{}}
	for id, c := range checks {
		o.Checks = append(o.Checks, PlantChecks{id, c})
	}
	return out(o), nil
}

// InWalk names a plant on a walk.
type InWalk struct {
	ByID
	Plant int64 `path:"plant" minimum:"1"`
}

// question joins a plant on a walk with its property's season.
func (s *Server) question(ctx context.Context, in InWalk, checks []damage.Check) (damage.Question, store.Walk, error) {
	var q damage.Question
	w, err := s.Store.Walk(ctx, in.ID)
	if err != nil {
		return q, w, err
	}
	p, err := s.Store.Plant(ctx, in.Plant)
	if err != nil {
		return q, w, err
	}
	if p.PropertyID != w.PropertyID {
		return q, w, store.ErrNotFound
	}
	pl, err := s.place(ctx, p.PropertyID)
	if err != nil {
		return q, w, err
	}
	e, err := pl.book.Species(p.Species)
	if err != nil {
		return q, w, refuse("species", p.Species, err.Error())
	}
	years := 0
	if p.Planted > 0 {
		years = max(1, s.Today().Year()-p.Planted)
	}
	return damage.Question{Plant: damage.Plant{Species: e, HeightM: p.HeightM, GraftM: p.GraftM, Years: years}, Today: s.Today(), Year: pl.year, Checks: checks, Forecast: pl.forecast(p, e)}, w, nil
}

// keepChecks keeps a plant's checks and answers the verdict they form.
func (s *Server) keepChecks(ctx context.Context, in *struct {
	InWalk
	Body struct {
		Checks []damage.Check `json:"checks" maxItems:"500"`
	}
}) (*Out[damage.Answer], error) {
	q, w, err := s.question(ctx, in.InWalk, in.Body.Checks)
	if err != nil {
		return nil, s.problem(ctx, "plant on this walk", err)
	}
	a, err := damage.Judge(q)
	if err == nil {
		err = s.Store.Write(ctx, func(tx store.Tx) error { return tx.KeepChecks(ctx, w.ID, in.Plant, in.Body.Checks) })
	}
	return out(a), s.problem(ctx, "plant on this walk", err)
}

// DecisionIn is what the gardener decides about the verdict.
type DecisionIn struct {
	Decision string  `json:"decision" enum:"accepted,overruled,not now"`
	Kind     string  `json:"kind,omitempty" doc:"overruled: the verdict in its place"`
	CutM     float64 `json:"cut_m,omitempty" doc:"overruled with a cut: its height, m"`
	Note     string  `json:"note,omitempty" maxLength:"2000" doc:"overruled: why"`
}

// DecisionOut is what was kept.
type DecisionOut struct {
	Verdict store.Decision    `json:"verdict"`
	Jobs    []store.JobRecord `json:"jobs"`
}

func (s *Server) decide(ctx context.Context, in *struct {
	InWalk
	OnceKey
	Body DecisionIn
}) (*Out[DecisionOut], error) {
	what := "plant on this walk"
	checks, err := s.Store.Checks(ctx, in.ID)
	if err != nil {
		return nil, s.problem(ctx, what, err)
	}
	q, w, err := s.question(ctx, in.InWalk, checks[in.Plant])
	if err != nil {
		return nil, s.problem(ctx, what, err)
	}
	b := in.Body
	if b.Decision == "overruled" {
		if b.Note == "" {
			return nil, s.problem(ctx, what, refuse("note", b.Note, "is missing: say why the verdict is overruled"))
		}
		q.Overrule, q.OverruleCutM = b.Kind, b.CutM
		if b.Kind == "" {
			return nil, s.problem(ctx, what, refuse("kind", b.Kind, "is missing: say which verdict stands in its place"))
		}
	}
	a, err := damage.Judge(q)
	if err == nil && b.Decision == "accepted" && a.Verdict.Kind == damage.Look && len(q.Checks) == 0 {
		err = refuse("decision", b.Decision, "nothing has been checked on this plant yet")
	}
	if err != nil {
		return nil, s.problem(ctx, what, err)
	}
	v, err := store.Once(ctx, s.Store, in.of(fmt.Sprintf("verdict on %d", in.Plant)), func(tx store.Tx) (store.Decision, error) {
		return tx.KeepVerdict(ctx, store.Decision{WalkID: w.ID, PlantID: in.Plant, Day: s.Today().String(), Decision: b.Decision,
			Kind: a.Verdict.Kind, Sentence: a.Verdict.Sentence, Note: b.Note}, a)
	})
	if err != nil {
		return nil, s.problem(ctx, what, err)
	}
	jobs, err := s.Store.Siblings(ctx, v.ID)
	return out(DecisionOut{v, jobs}), s.problem(ctx, fmt.Sprintf("verdict %d", v.ID), err)
}

func (s *Server) undoVerdict(ctx context.Context, in *ByID) (*struct{}, error) {
	return nil, s.problem(ctx, "verdict", s.Store.Write(ctx, func(tx store.Tx) error { return tx.UndoVerdict(ctx, in.ID) }))
}
