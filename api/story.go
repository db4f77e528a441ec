package api

import (
	"cmp"
	"context"
	"fmt"
	"slices"

	"mezzadro/core/damage"
	"mezzadro/core/day"
	"mezzadro/store"
)

// Story is all that is known of a plant: how it stands now, what was found and decided, and how it turned out.
type Story struct {
	Plant  PlantOut       `json:"plant"`
	Now    damage.Answer  `json:"now" doc:"What was found last, judged today; without any check what the weather leads to expect"`
	Walks  []StoryWalk    `json:"walks" doc:"The newest first"`
	Turned []StoryOutcome `json:"turned" doc:"How it turned out, the newest first"`
	Jobs   []Lane         `json:"jobs" doc:"That stand"`
}

// StoryWalk is what a walk found at the plant and what was decided there.
type StoryWalk struct {
	store.Look
	Day      day.Day        `json:"day" format:"date"`
	Photos   []store.Photo  `json:"photos"`
	Verdicts []StoryVerdict `json:"verdicts"`
}

// StoryVerdict is a decision with the prognosis it came with.
type StoryVerdict struct {
	store.Decision
	Boundary  damage.Boundary  `json:"boundary"`
	Prognosis damage.Prognosis `json:"prognosis"`
	Care      []damage.Care    `json:"care"`
}

// StoryOutcome is how the plant turned out after a verdict, against its prognosis.
type StoryOutcome struct {
	store.Outcome
	Kind string `json:"kind" doc:"The verdict"`
	damage.Turned
}

func (s *Server) story(ctx context.Context, in *ByID) (*Out[Story], error) {
	o, err := s.tellStory(ctx, in.ID)
	return out(o), s.problem(ctx, fmt.Sprintf("plant %d", in.ID), err)
}

func (s *Server) tellStory(ctx context.Context, id int64) (Story, error) {
	o := Story{Walks: []StoryWalk{}, Turned: []StoryOutcome{}, Jobs: []Lane{}}
	p, err := s.Store.Plant(ctx, id)
	if err != nil {
		return o, err
	}
	t, err := s.triage(ctx)
	if err != nil {
		return o, err
	}
	o.Plant = t.tell([]store.Plant{p})[0]
	pl, err := s.place(ctx, p.PropertyID)
	if err != nil {
		return o, err
	}
	looks, err := s.Store.PlantLooks(ctx, id)
	if err != nil {
		return o, err
	}
	photos, err := s.Store.PlantPhotos(ctx, id)
	if err != nil {
		return o, err
	}
	verdicts, err := s.Store.PlantVerdicts(ctx, id)
	if err != nil {
		return o, err
	}
	at := func(walk int64) *StoryWalk {
		i := slices.IndexFunc(o.Walks, func(w StoryWalk) bool { return w.WalkID == walk })
		if i < 0 {
			i = len(o.Walks)
			o.Walks = append(o.Walks, StoryWalk{Look: store.Look{WalkID: walk, PlantID: id, Checks: []damage.Check{}}, Photos: []store.Photo{}, Verdicts: []StoryVerdict{}})
		}
		return &o.Walks[i]
	}
	for _, l := range looks {
		if len(l.Checks) > 0 || l.Note != "" {
			at(l.WalkID).Look = l
		}
	}
	for _, f := range photos {
		w := at(f.WalkID)
		w.Photos = append(w.Photos, f)
	}
	answers, err := s.Store.PlantAnswers(ctx, id)
	if err != nil {
		return o, err
	}
	given := map[int64]StoryVerdict{}
	for _, v := range verdicts {
		a := answers[v.ID]
		if a.Prognosis.Heights == nil { // kept before they were foretold
			a.Prognosis.Heights = []float64{}
		}
		sv := StoryVerdict{v, a.Boundary, a.Prognosis, append([]damage.Care{}, a.Care...)}
		given[v.ID] = sv
		w := at(v.WalkID)
		w.Verdicts = append(w.Verdicts, sv)
	}
	walks, err := s.Store.Walks(ctx, p.PropertyID)
	if err != nil {
		return o, err
	}
	for _, w := range walks {
		if i := slices.IndexFunc(o.Walks, func(x StoryWalk) bool { return x.WalkID == w.ID }); i >= 0 {
			if o.Walks[i].Day, err = day.Parse(w.Day); err != nil {
				return o, err
			}
		}
	}
	slices.SortStableFunc(o.Walks, func(a, b StoryWalk) int { return cmp.Compare(b.Day, a.Day) })
	outcomes, err := s.Store.Outcomes(ctx, id)
	if err != nil {
		return o, err
	}
	for _, x := range slices.Backward(outcomes) {
		v, stands := given[x.VerdictID]
		if !stands {
			continue // its verdict was taken back
		}
		from, err := day.Parse(v.Day)
		if err != nil {
			return o, err
		}
		on, err := day.Parse(x.Day)
		if err != nil {
			return o, err
		}
		o.Turned = append(o.Turned, StoryOutcome{x, v.Kind, v.Prognosis.Against(pl.normals.Climate, from, on, x.State)})
	}
	// What was found last still tells how it stands, as long as no event came after it.
	var found []damage.Check
	if len(o.Walks) > 0 && (o.Plant.Look == nil || o.Walks[0].Day >= o.Plant.Look.Day) {
		found = o.Walks[0].Checks
	}
	if _, err := pl.book.Species(p.Species); err == nil {
		q, err := s.ask(ctx, p, found)
		if err != nil {
			return o, err
		}
		if o.Now, err = damage.Judge(q); err != nil {
			q.Checks = nil // the plant was changed since, and what was found does not fit it any more
			if o.Now, err = damage.Judge(q); err != nil {
				return o, err
			}
		}
	}
	jobs, err := s.Store.Jobs(ctx, p.PropertyID)
	if err != nil {
		return o, err
	}
	o.Jobs, err = s.lanesOf(ctx, slices.DeleteFunc(jobs, func(j store.JobRecord) bool { return j.PlantID != id }))
	return o, err
}

// OutcomeIn is how a plant turned out.
type OutcomeIn struct {
	VerdictID int64   `json:"verdict_id" minimum:"1"`
	State     string  `json:"state" enum:"right,alive,dead" doc:"right: looks right again or crops; alive: on its way"`
	HeightM   float64 `json:"height_m,omitempty" doc:"How tall it is, m, if measured"`
	Note      string  `json:"note,omitempty" maxLength:"2000"`
}

func (s *Server) addOutcome(ctx context.Context, in *struct {
	ByID
	OnceKey
	Body OutcomeIn
}) (*Out[Story], error) {
	what := "verdict on this plant"
	b := in.Body
	if !(b.HeightM >= 0 && b.HeightM <= 60) {
		return nil, s.problem(ctx, what, refuse("height_m", b.HeightM, fmt.Sprintf("%g m: a plant's height must be from 0 to 60 m", b.HeightM)))
	}
	_, err := store.Once(ctx, s.Store, in.of("outcome"), func(tx store.Tx) (store.Outcome, error) {
		return tx.KeepOutcome(ctx, store.Outcome{VerdictID: b.VerdictID, PlantID: in.ID, Day: s.Today().String(), State: b.State, HeightM: b.HeightM, Note: b.Note})
	})
	if err != nil {
		return nil, s.problem(ctx, what, err)
	}
	return s.story(ctx, &in.ByID)
}

func (s *Server) undoOutcome(ctx context.Context, in *ByID) (*struct{}, error) {
	return nil, s.problem(ctx, "outcome", s.Store.Write(ctx, func(tx store.Tx) error { return tx.UndoOutcome(ctx, in.ID) }))
}
