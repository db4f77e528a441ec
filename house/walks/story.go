package walks

import (
	"cmp"
	"context"
	"fmt"
	"slices"
	"time"

	"mezzadro/core/catalogue"
	"mezzadro/core/check"
	"mezzadro/core/damage"
	"mezzadro/core/day"
	"mezzadro/core/invalid"
	"mezzadro/core/lookout"
	"mezzadro/core/outcome"
	"mezzadro/house/estate"
	"mezzadro/house/work"
	"mezzadro/store"
)

// Story is all that is known of a plant: how it stands now, what was found and decided, and how it turned out.
type Story struct {
	Plant  estate.PlantOut `json:"plant"`
	Now    damage.Answer   `json:"now" doc:"What was found last, judged today; without any check what the weather leads to expect"`
	Ends   []EndOfLife     `json:"ends" doc:"Where life ended on it, look by look, the oldest first"`
	Walks  []StoryWalk     `json:"walks" doc:"The newest first"`
	Turned []StoryOutcome  `json:"turned" doc:"How it turned out, the newest first"`
	Jobs   []work.Order    `json:"jobs" doc:"All but the dropped ones: what is still to be done, what was done and what was skipped"`
	Deeds  []Deed          `json:"deeds" doc:"Who did what about it, the latest first; empty where nobody has to sign in"`
}

// Deed is something that somebody did.
type Deed struct {
	At   time.Time `json:"at"`
	Name string    `json:"name"`
	Did  string    `json:"did"`
}

// deedsShown is how many a story tells.
const deedsShown = 60

// StoryWalk is what a walk found at the plant and what was decided there.
type StoryWalk struct {
	estate.Look
	Day      day.Day        `json:"day" format:"date"`
	Photos   []estate.Photo `json:"photos"`
	Verdicts []StoryVerdict `json:"verdicts"`
}

// StoryVerdict is a decision with the prognosis it came with.
type StoryVerdict struct {
	estate.Decision
	Boundary  damage.Boundary   `json:"boundary"`
	Prognosis outcome.Prognosis `json:"prognosis"`
	Care      []damage.Care     `json:"care"`
}

// StoryOutcome is how the plant turned out after a verdict, against its prognosis.
type StoryOutcome struct {
	estate.Outcome
	Kind string `json:"kind" doc:"The verdict"`
	outcome.Turned
}

// Story tells it.
func (h *Room) Story(ctx context.Context, id int64) (Story, error) {
	o := Story{Ends: []EndOfLife{}, Walks: []StoryWalk{}, Turned: []StoryOutcome{}, Jobs: []work.Order{}, Deeds: []Deed{}}
	p, err := h.Store.Plant(ctx, id)
	if err != nil {
		return o, err
	}
	t, err := h.Triage(ctx)
	if err != nil {
		return o, err
	}
	o.Plant = t.Tell([]store.Plant{p})[0]
	pl, err := h.Place(ctx, p.PropertyID)
	if err != nil {
		return o, err
	}
	given, err := h.storyWalks(ctx, &o, p)
	if err != nil {
		return o, err
	}
	if err := h.storyOutcomes(ctx, &o, pl, given); err != nil {
		return o, err
	}
	if _, err := pl.Book.Species(p.Species); err == nil {
		if o.Now, err = h.storyNow(ctx, &o, p); err != nil {
			return o, err
		}
	}
	if err := h.Work.CurrentWindows(ctx); err != nil {
		return o, err
	}
	orders, err := h.Store.PlantOrders(ctx, id)
	if err != nil {
		return o, err
	}
	if o.Jobs, err = h.Work.Listed(ctx, orders); err != nil {
		return o, err
	}
	deeds, err := h.Store.Deeds(ctx, id, deedsShown)
	for _, d := range deeds {
		at, _ := time.Parse(time.RFC3339, d.At) // the record wrote it so
		o.Deeds = append(o.Deeds, Deed{at, d.Name, d.Did})
	}
	return o, err
}

// storyWalks gathers what was found, taken and decided, walk by walk, and the verdicts by id.
func (h *Room) storyWalks(ctx context.Context, o *Story, p store.Plant) (map[int64]StoryVerdict, error) {
	looks, err := h.Store.PlantLooks(ctx, p.ID)
	if err != nil {
		return nil, err
	}
	photos, err := h.Store.PlantPhotos(ctx, p.ID)
	if err != nil {
		return nil, err
	}
	verdicts, err := h.Store.PlantVerdicts(ctx, p.ID)
	if err != nil {
		return nil, err
	}
	answers, err := h.Store.PlantAnswers(ctx, p.ID)
	if err != nil {
		return nil, err
	}
	days, err := h.walkDays(ctx, p.PropertyID)
	if err != nil {
		return nil, err
	}
	at := func(walk int64) *StoryWalk {
		i := slices.IndexFunc(o.Walks, func(w StoryWalk) bool { return w.WalkID == walk })
		if i < 0 {
			i = len(o.Walks)
			o.Walks = append(
				o.Walks,
				StoryWalk{
					Look:     estate.Look{WalkID: walk, PlantID: p.ID, Checks: []check.Check{}},
					Day:      days[walk],
					Photos:   []estate.Photo{},
					Verdicts: []StoryVerdict{},
				},
			)
		}
		return &o.Walks[i]
	}
	for _, l := range looks {
		if len(l.Checks) > 0 || l.Note != "" {
			at(l.WalkID).Look = estate.Look(l)
		}
	}
	for _, f := range photos {
		w := at(f.WalkID)
		w.Photos = append(w.Photos, estate.Photo(f))
	}
	given := map[int64]StoryVerdict{}
	for _, v := range verdicts {
		a := answers[v.ID]
		if a.Prognosis.Heights == nil { // kept before they were foretold
			a.Prognosis.Heights = []float64{}
		}
		sv := StoryVerdict{estate.Decision(v), a.Boundary, a.Prognosis, append([]damage.Care{}, a.Care...)}
		given[v.ID] = sv
		w := at(v.WalkID)
		w.Verdicts = append(w.Verdicts, sv)
	}
	slices.SortStableFunc(o.Walks, func(a, b StoryWalk) int { return cmp.Compare(b.Day, a.Day) })
	return given, nil
}

// storyOutcomes holds how it turned out against what was foretold.
func (h *Room) storyOutcomes(ctx context.Context, o *Story, pl *estate.Place, given map[int64]StoryVerdict) error {
	outcomes, err := h.Store.Outcomes(ctx, o.Plant.ID)
	if err != nil {
		return err
	}
	for _, x := range slices.Backward(outcomes) {
		v, stands := given[x.VerdictID]
		if !stands {
			continue // its verdict was taken back
		}
		from, on := store.DayOf(&v.Day), store.DayOf(&x.Day)
		o.Turned = append(o.Turned, StoryOutcome{estate.Outcome(x), v.Kind, v.Prognosis.Against(pl.Normals.Climate, from, on, x.State)})
	}
	return nil
}

// storyNow judges what was found last, as long as it still tells; without any check it is what the weather leads to
// expect.
func (h *Room) storyNow(ctx context.Context, o *Story, p store.Plant) (damage.Answer, error) {
	event := day.None
	if o.Plant.Look != nil {
		event = o.Plant.Look.Day
	}
	var found []check.Check
	on := day.None // before it, or at all
	for _, w := range o.Walks {
		if len(w.Checks) > 0 {
			if lookout.StillTells(w.Day, event) {
				found, on = w.Checks, w.Day
			}
			break
		}
	}
	q, err := h.ask(ctx, p, found, on)
	if err != nil {
		return damage.Answer{}, err
	}
	q.Found = on
	a, err := damage.Judge(q)
	if err != nil {
		q.Checks, q.Earlier = nil, nil // the plant was changed since, and what was found does not fit it any more
		a, err = damage.Judge(q)
	}
	o.Ends = ends(q, a)
	return a, err
}

// OutcomeIn is how a plant turned out.
type OutcomeIn struct {
	VerdictID int64   `json:"verdict_id" minimum:"1"`
	State     string  `json:"state" enum:"right,alive,dead" doc:"right: looks right again or crops; alive: on its way"`
	HeightM   float64 `json:"height_m,omitempty" doc:"How tall it is, m, if measured"`
	Note      string  `json:"note,omitempty" maxLength:"2000"`
}

// AddOutcome keeps how a plant turned out after one of its verdicts. Work that was to help one found dead ends with it.
func (h *Room) AddOutcome(ctx context.Context, key store.Key, plant int64, in OutcomeIn) (Story, error) {
	if !(in.HeightM >= 0 && in.HeightM <= catalogue.TallestM) {
		return Story{}, invalid.One(
			"height_m",
			in.HeightM,
			fmt.Sprintf("%g m: a plant's height must be from 0 to %g m", in.HeightM, catalogue.TallestM),
		)
	}
	_, err := store.Once(ctx, h.Store, key, func(tx store.Tx) (estate.Outcome, error) {
		o, err := tx.KeepOutcome(ctx, store.Outcome{
			VerdictID: in.VerdictID,
			PlantID:   plant,
			Day:       h.Today().String(),
			State:     in.State,
			HeightM:   in.HeightM,
			Note:      in.Note,
		})
		if err == nil && in.State == "dead" {
			err = tx.EndOrders(ctx, plant, o.ID)
		}
		return estate.Outcome(o), err
	})
	if err != nil {
		return Story{}, err
	}
	if err := h.heldAnew(ctx, in.VerdictID); err != nil {
		return Story{}, err
	}
	return h.Story(ctx, plant)
}

// UndoOutcome takes one back.
func (h *Room) UndoOutcome(ctx context.Context, key store.Key, id int64) error {
	_, err := store.Once(
		ctx,
		h.Store,
		key,
		func(tx store.Tx) (struct{}, error) { return struct{}{}, tx.UndoOutcome(ctx, id) },
	)
	if err != nil {
		return err
	}
	verdict, err := h.Store.VerdictOfOutcome(ctx, id)
	if err != nil {
		return err
	}
	return h.heldAnew(ctx, verdict)
}
