package api

import (
	"context"
	"errors"
	"fmt"
	"slices"

	"mezzadro/core/cold"
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
		q.Plant.PotL, q.Plant.Mulched = stands.PotL, stands.Mulched
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

// WalkOut is a walk with what was found so far.
type WalkOut struct {
	store.Walk
	Looks  []store.Look  `json:"looks"`
	Photos []store.Photo `json:"photos"`
}

// WalkIn starts a walk.
type WalkIn struct {
	PropertyID int64   `json:"property_id"`
	Day        day.Day `json:"day,omitempty" format:"date" doc:"Of a walk that was noted elsewhere and is entered later; today when absent"`
}

// longAgo is how old a walk may be that is still entered.
const longAgo = 366

func (s *Server) startWalk(ctx context.Context, in *struct {
	OnceKey
	Body WalkIn
}) (*Out[WalkOut], error) {
	today := s.Today()
	d := s.dateOr(in.Body.Day)
	switch {
	case d > today:
		return nil, s.problem(ctx, "walk", refuse("day", d, fmt.Sprintf("%s is still to come: a walk is entered on its day or later", d.Words())))
	case d < today-longAgo:
		return nil, s.problem(ctx, "walk", refuse("day", d, fmt.Sprintf("%s is more than a year ago", d.Words())))
	}
	w, err := store.Once(ctx, s.Store, in.of("walk"), func(tx store.Tx) (store.Walk, error) {
		return tx.StartWalk(ctx, in.Body.PropertyID, d.String())
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
	o := WalkOut{Walk: w}
	if o.Looks, err = s.Store.Looks(ctx, w.ID); err == nil {
		o.Photos, err = s.Store.WalkPhotos(ctx, w.ID)
	}
	return out(o), s.problem(ctx, "walk", err)
}

// InWalk names a plant on a walk.
type InWalk struct {
	ByID
	Plant int64 `path:"plant" minimum:"1"`
}

// question joins a plant on a walk with its property's season.
func (s *Server) question(ctx context.Context, in InWalk, checks []damage.Check) (damage.Question, store.Walk, error) {
	w, err := s.Store.Walk(ctx, in.ID)
	if err != nil {
		return damage.Question{}, w, err
	}
	p, err := s.Store.Plant(ctx, in.Plant)
	if err != nil {
		return damage.Question{}, w, err
	}
	if p.PropertyID != w.PropertyID {
		return damage.Question{}, w, store.ErrNotFound
	}
	q, err := s.ask(ctx, p, checks)
	return q, w, err
}

// ask is the question about a plant where it stands, today.
func (s *Server) ask(ctx context.Context, p store.Plant, checks []damage.Check) (damage.Question, error) {
	pl, err := s.place(ctx, p.PropertyID)
	if err != nil {
		return damage.Question{}, err
	}
	e, err := pl.book.Species(p.Species)
	if err != nil {
		return damage.Question{}, refuse("species", p.Species, err.Error())
	}
	here, err := s.Store.Plants(ctx, p.PropertyID, 0, 1<<31)
	if err != nil {
		return damage.Question{}, err
	}
	lost, err := s.Store.CrownLost(ctx, p.PropertyID, (s.Today() - cold.Recent).String())
	if err != nil {
		return damage.Question{}, err
	}
	grown, err := s.Store.Grown(ctx, p.PropertyID, (s.Today() - longAgo).String())
	if err != nil {
		return damage.Question{}, err
	}
	q := damage.Question{Plant: damagePlant(p, e, s.years(p)),
		Today: s.Today(), Year: pl.year, Checks: checks, Forecast: pl.forecast(p, e)}
	q.Around = damage.Around{Wet: p.Wet, WarmWall: p.Wall || pl.property.Site.V.WarmWall, Sun: p.Sun}
	for _, o := range here {
		if o.ID == p.ID {
			continue
		}
		q.Around.Meet(entryOf(pl.book, o.Species), o.HeightM, o.SpreadM)
		if o.Species == p.Species && (o.PotL > 0) == (p.PotL > 0) {
			share, judged := lost[o.ID]
			q.Fellows = append(q.Fellows, damage.Fellow{Label: o.Label, HeightM: o.HeightM, Years: s.years(o), CrownLost: share, Judged: judged, GrowthM: grown[o.ID]})
		}
	}
	return q, nil
}

// years is how long a plant has stood; 0 where nobody knows.
func (s *Server) years(p store.Plant) int {
	if p.Planted == 0 {
		return 0
	}
	return max(1, s.Today().Year()-p.Planted)
}

// FoundIn is what was found at a plant.
type FoundIn struct {
	Checks []damage.Check `json:"checks" maxItems:"500"`
	Note   string         `json:"note,omitempty" maxLength:"4000"`
	Base   *int           `json:"base,omitempty" doc:"The rev it is based on: refused where another device has written meanwhile. Whatever is kept is replaced when absent."`
}

// FoundOut is the verdict what was found comes to.
type FoundOut struct {
	damage.Answer
	Rev   int            `json:"rev" doc:"The kept look's"`
	Found []damage.Check `json:"found" doc:"The checks that are kept"`
	Note  string         `json:"note"`
}

// tellLook is the verdict of what is kept of a plant on a walk.
func (s *Server) tellLook(ctx context.Context, in *InWalk) (*Out[FoundOut], error) {
	what := "plant on this walk"
	l, err := s.Store.Look(ctx, in.ID, in.Plant)
	if err != nil {
		return nil, s.problem(ctx, what, err)
	}
	q, _, err := s.question(ctx, *in, l.Checks)
	if err != nil {
		return nil, s.problem(ctx, what, err)
	}
	o := FoundOut{Rev: l.Rev, Found: l.Checks, Note: l.Note}
	o.Answer, err = damage.Judge(q)
	return out(o), s.problem(ctx, what, err)
}

// keepLook keeps what was found at a plant and answers the verdict it forms.
func (s *Server) keepLook(ctx context.Context, in *struct {
	InWalk
	OnceKey
	Body FoundIn
}) (*Out[FoundOut], error) {
	what := "plant on this walk"
	q, w, err := s.question(ctx, in.InWalk, in.Body.Checks)
	if err != nil {
		return nil, s.problem(ctx, what, err)
	}
	o := FoundOut{Found: in.Body.Checks, Note: in.Body.Note}
	if o.Answer, err = damage.Judge(q); err == nil {
		var l store.Look
		l, err = store.Once(ctx, s.Store, in.of(fmt.Sprintf("look at %d on %d", in.Plant, w.ID)), func(tx store.Tx) (store.Look, error) {
			return tx.KeepLook(ctx, store.Look{WalkID: w.ID, PlantID: in.Plant, Note: in.Body.Note, Checks: in.Body.Checks}, in.Body.Base)
		})
		o.Rev = l.Rev
	}
	return out(o), s.problem(ctx, what, err)
}

// DecisionIn is what the gardener decides about the verdict.
type DecisionIn struct {
	Decision string  `json:"decision" enum:"accepted,overruled,not now"`
	Kind     string  `json:"kind,omitempty" doc:"overruled: the verdict in its place; accepted: the owner's choice among those the answer leaves open"`
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
	l, err := s.Store.Look(ctx, in.ID, in.Plant)
	if err != nil {
		return nil, s.problem(ctx, what, err)
	}
	q, w, err := s.question(ctx, in.InWalk, l.Checks)
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
	if err == nil && b.Decision == "accepted" && b.Kind != "" {
		i := slices.IndexFunc(a.Choices, func(c damage.Choice) bool { return c.Kind == b.Kind })
		if i < 0 {
			return nil, s.problem(ctx, what, refuse("kind", b.Kind, "is not among the choices this verdict leaves open"))
		}
		if b.Note == "" {
			b.Note = a.Choices[i].Text
		}
		q.Overrule = b.Kind
		a, err = damage.Judge(q)
	}
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
