package house

import (
	"context"
	"fmt"
	"slices"

	"mezzadro/core/cause"
	"mezzadro/core/check"
	"mezzadro/core/cold"
	"mezzadro/core/damage"
	"mezzadro/core/day"
	"mezzadro/core/lookout"
	"mezzadro/core/quantity"
	"mezzadro/store"
)

// Walk is a walk with what was found so far.
type Walk struct {
	WalkDay
	Looks  []Look  `json:"looks"`
	Photos []Photo `json:"photos"`
}

// longAgo is how old a walk may be that is still entered.
const longAgo = 366

// StartWalk is the property's walk of a day; one that was noted elsewhere may be entered up to a year later.
func (h *House) StartWalk(ctx context.Context, key store.Key, property int64, on day.Day) (Walk, error) {
	today := h.Today()
	d := h.DateOr(on)
	switch {
	case d > today:
		return Walk{}, Refuse(
			"day",
			d,
			fmt.Sprintf("%s is still to come: a walk is entered on its day or later", quantity.Day(d)),
		)
	case d < today-longAgo:
		return Walk{}, Refuse("day", d, fmt.Sprintf("%s is more than a year ago", quantity.Day(d)))
	}
	w, err := store.Once(
		ctx,
		h.Store,
		key,
		func(tx store.Tx) (WalkDay, error) {
			w, err := tx.StartWalk(ctx, property, d.String())
			return WalkDay(w), err
		},
	)
	if err != nil {
		return Walk{}, err
	}
	return h.Walk(ctx, w.ID)
}

// Walk reads one.
func (h *House) Walk(ctx context.Context, id int64) (Walk, error) {
	w, err := h.Store.Walk(ctx, id)
	if err != nil {
		return Walk{}, err
	}
	o := Walk{WalkDay: WalkDay(w)}
	looks, err := h.Store.Looks(ctx, w.ID)
	if err != nil {
		return o, err
	}
	photos, err := h.Store.WalkPhotos(ctx, w.ID)
	o.Looks, o.Photos = tellAll(looks, tellLookRow), tellAll(photos, tellPhoto)
	return o, err
}

// question joins a plant on a walk with its property's season. What was found is judged by the day it was found on.
func (h *House) question(
	ctx context.Context,
	walk, plant int64,
	checks []check.Check,
) (damage.Question, store.Walk, error) {
	w, err := h.Store.Walk(ctx, walk)
	if err != nil {
		return damage.Question{}, w, err
	}
	p, err := h.Store.Plant(ctx, plant)
	if err != nil {
		return damage.Question{}, w, err
	}
	if p.PropertyID != w.PropertyID {
		return damage.Question{}, w, store.ErrNotFound
	}
	q, err := h.ask(ctx, p, checks)
	if len(checks) > 0 {
		q.Found = parsed(&w.Day)
	}
	return q, w, err
}

// ask is the question about a plant where it stands, today.
func (h *House) ask(ctx context.Context, p store.Plant, checks []check.Check) (damage.Question, error) {
	pl, err := h.Place(ctx, p.PropertyID)
	if err != nil {
		return damage.Question{}, err
	}
	e, err := pl.Book.Species(p.Species)
	if err != nil {
		return damage.Question{}, Refuse("species", p.Species, err.Error())
	}
	here, err := h.Store.Plants(ctx, p.PropertyID, 0, all)
	if err != nil {
		return damage.Question{}, err
	}
	lost, err := h.Store.CrownLost(ctx, p.PropertyID, (h.Today() - cold.Recent).String())
	if err != nil {
		return damage.Question{}, err
	}
	grown, err := h.Store.Grown(ctx, p.PropertyID, (h.Today() - longAgo).String())
	if err != nil {
		return damage.Question{}, err
	}
	q := damage.Question{
		Plant:    damagePlant(p, e, h.years(p)),
		Today:    h.Today(),
		Year:     pl.Year,
		Place:    pl.Work,
		Checks:   checks,
		Forecast: pl.forecast(p, e),
	}
	q.Around = around(p, pl.Property)
	for _, o := range here {
		if o.ID == p.ID {
			continue
		}
		q.Around.Meet(entryOf(pl.Book, o.Species), o.HeightM, o.SpreadM)
		if o.Species == p.Species && (o.PotL > 0) == (p.PotL > 0) {
			share, judged := lost[o.ID]
			q.Fellows = append(
				q.Fellows,
				cause.Fellow{
					Label:     o.Label,
					HeightM:   o.HeightM,
					Years:     h.years(o),
					CrownLost: share,
					Judged:    judged,
					GrowthM:   grown[o.ID],
				},
			)
		}
	}
	return q, nil
}

// around is what a plant's exposure and its property's tell of its spot.
func around(p store.Plant, at store.Property) cause.Around {
	e := p.Exposure.Or(at.Exposure.V)
	return cause.Around{Wet: e.Wet, WarmWall: e.Wall || at.Site.V.WarmWall, Sun: p.Sun}
}

// years is how long a plant has stood; 0 where nobody knows.
func (h *House) years(p store.Plant) int {
	if p.Planted == 0 {
		return 0
	}
	return max(1, h.Today().Year()-p.Planted)
}

// Found is the verdict that what was found comes to.
type Found struct {
	damage.Answer
	Rev   int           `json:"rev" doc:"The kept look's"`
	Found []check.Check `json:"found" doc:"The checks that are kept"`
	Note  string        `json:"note"`
}

// TellLook is the verdict of what is kept of a plant on a walk.
func (h *House) TellLook(ctx context.Context, walk, plant int64) (Found, error) {
	l, err := h.Store.Look(ctx, walk, plant)
	if err != nil {
		return Found{}, err
	}
	q, _, err := h.question(ctx, walk, plant, l.Checks)
	if err != nil {
		return Found{}, err
	}
	o := Found{Rev: l.Rev, Found: l.Checks, Note: l.Note}
	o.Answer, err = damage.Judge(q)
	return o, err
}

// FoundIn is what was found at a plant.
type FoundIn struct {
	Checks []check.Check
	Note   string
	Base   *int // the rev it is based on; nil replaces whatever is kept
}

// KeepLook keeps what was found at a plant and answers the verdict it forms.
func (h *House) KeepLook(ctx context.Context, key store.Key, walk, plant int64, in FoundIn) (Found, error) {
	q, w, err := h.question(ctx, walk, plant, in.Checks)
	if err != nil {
		return Found{}, err
	}
	o := Found{Found: in.Checks, Note: in.Note}
	if o.Answer, err = damage.Judge(q); err != nil {
		return o, err
	}
	l, err := store.Once(ctx, h.Store, key, func(tx store.Tx) (Look, error) {
		l, err := tx.KeepLook(ctx, store.Look{WalkID: w.ID, PlantID: plant, Note: in.Note, Checks: in.Checks}, in.Base)
		return Look(l), err
	})
	o.Rev = l.Rev
	return o, stale(err, tellLookRow)
}

// DecisionIn is what the gardener decides about the verdict.
type DecisionIn struct {
	Decision string  `json:"decision" enum:"accepted,overruled,not now"`
	Kind     string  `json:"kind,omitempty" doc:"overruled: the verdict in its place; accepted: the owner's choice among those the answer leaves open"`
	Until    day.Day `json:"until,omitempty" format:"date" doc:"overruled with wait until: the day; when leaf is due when absent"`
	CutM     float64 `json:"cut_m,omitempty" doc:"overruled with a cut: its height, m"`
	Note     string  `json:"note,omitempty" maxLength:"2000" doc:"overruled: why"`
	Rev      *int    `json:"rev,omitempty" minimum:"0" doc:"Of the checks that were seen: where others have come in since, nothing is decided; whatever is kept when absent"`
}

// Decided is what was kept.
type Decided struct {
	Verdict Decision `json:"verdict"`
	Jobs    []Order  `json:"jobs" doc:"The work it asks for, with its after-care"`
}

// Decide keeps what the gardener decided and asks for the work that follows. Work that earlier verdicts on the same
// trouble asked for goes, unless it is done; work of any other origin stays.
func (h *House) Decide(ctx context.Context, key store.Key, walk, plant int64, in DecisionIn) (Decided, error) {
	l, err := h.Store.Look(ctx, walk, plant)
	if err != nil {
		return Decided{}, err
	}
	if in.Rev != nil && *in.Rev != l.Rev {
		return Decided{}, stale(store.Stale{Yours: *in.Rev, Current: l}, tellLookRow)
	}
	q, w, err := h.question(ctx, walk, plant, l.Checks)
	if err != nil {
		return Decided{}, err
	}
	a, note, err := decided(q, in)
	if err != nil {
		return Decided{}, err
	}
	on := h.Today()
	v, err := store.Once(ctx, h.Store, key, func(tx store.Tx) (Decision, error) {
		if err := tx.StillAt(ctx, l); err != nil {
			return Decision{}, stale(err, tellLookRow)
		}
		kept, err := tx.KeepVerdict(ctx, store.Decision{WalkID: w.ID, PlantID: plant, Day: on.String(), Decision: in.Decision,
			Kind: a.Verdict.Kind, Sentence: a.Verdict.Sentence, Note: note}, a)
		v := Decision(kept)
		if err != nil || in.Decision == lookout.PutOff {
			return v, err
		}
		if err := tx.DropReplaced(ctx, plant, v.ID, a.Trouble); err != nil {
			return v, err
		}
		return v, h.askFor(ctx, tx, v.ID, w.PropertyID, plant, q, a)
	})
	if err != nil {
		return Decided{}, err
	}
	orders, err := h.Store.OrdersOfVerdict(ctx, v.ID)
	if err != nil {
		return Decided{}, err
	}
	jobs, err := h.listed(ctx, orders)
	return Decided{v, jobs}, err
}

// decided is the answer that stands, and the note that goes with it.
func decided(q damage.Question, in DecisionIn) (damage.Answer, string, error) {
	note := in.Note
	if in.Decision == "overruled" {
		switch {
		case note == "":
			return damage.Answer{}, note, Refuse("note", note, "is missing: say why the verdict is overruled")
		case in.Kind == "":
			return damage.Answer{}, note, Refuse("kind", in.Kind, "is missing: say which verdict stands in its place")
		}
		if in.Kind == damage.Wait && in.Until.Given() && in.Until <= q.Today {
			return damage.Answer{}, note, Refuse("until", in.Until, "is not after today")
		}
		q.Overrule, q.OverruleCutM, q.OverruleUntil = in.Kind, in.CutM, in.Until
	}
	a, err := damage.Judge(q)
	if err == nil && in.Decision == "accepted" && in.Kind != "" {
		i := slices.IndexFunc(a.Choices, func(c damage.Choice) bool { return c.Kind == in.Kind })
		if i < 0 {
			return a, note, Refuse("kind", in.Kind, "is not among the choices this verdict leaves open")
		}
		if note == "" {
			note = a.Choices[i].Text
		}
		q.Overrule = in.Kind
		a, err = damage.Judge(q)
	}
	if err == nil && in.Decision == "accepted" && a.Verdict.Kind == damage.Look && len(q.Checks) == 0 {
		err = Refuse("decision", in.Decision, "nothing has been checked on this plant yet")
	}
	return a, note, err
}

// askFor keeps the orders of a verdict, with the gaps between them.
func (h *House) askFor(
	ctx context.Context,
	tx store.Tx,
	verdict, property, plant int64,
	q damage.Question,
	a damage.Answer,
) error {
	at := map[string]int64{}
	orders := a.Orders()
	for _, o := range orders {
		c := q.Place.Curve(o, &q.Plant.Species)
		id, err := tx.AddOrder(
			ctx,
			store.NewOrder{
				PropertyID: property,
				Plants:     []int64{plant},
				OriginID:   verdict,
				Trouble:    a.Trouble,
				Order:      o,
				Outlook:    c.Outlook(q.Today),
			},
		)
		if err != nil {
			return err
		}
		at[o.Key] = id
	}
	for _, o := range orders {
		for _, g := range o.After {
			if of, known := at[g.Job]; known {
				if err := tx.AddGap(
					ctx,
					store.GapRow{OrderID: at[o.Key], OfID: of, MinDays: g.MinDays, MaxDays: g.MaxDays, Why: g.Why},
				); err != nil {
					return err
				}
			}
		}
	}
	return nil
}

// UndoVerdict takes a plant's latest decision back.
func (h *House) UndoVerdict(ctx context.Context, key store.Key, id int64) error {
	_, err := store.Once(
		ctx,
		h.Store,
		key,
		func(tx store.Tx) (struct{}, error) { return struct{}{}, tx.UndoVerdict(ctx, id) },
	)
	return err
}
