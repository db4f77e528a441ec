package walks

import (
	"cmp"
	"context"
	"slices"

	"mezzadro/core/cause"
	"mezzadro/core/cold"
	"mezzadro/core/damage"
	"mezzadro/core/day"
	"mezzadro/core/job"
	"mezzadro/core/walk"
	"mezzadro/house/estate"
	"mezzadro/store"
)

// standing are the plants of a place, with what their verdicts and checks of the last months tell of each as a fellow.
func (h *Room) standing(ctx context.Context, pl *estate.Place) ([]walk.Plant, error) {
	here, err := h.Store.Plants(ctx, pl.Property.ID, 0, store.All)
	if err != nil {
		return nil, err
	}
	lost, err := h.Store.CrownLost(ctx, pl.Property.ID, (h.Today() - cold.Recent).String())
	if err != nil {
		return nil, err
	}
	grown, err := h.Store.Grown(ctx, pl.Property.ID, (h.Today() - longAgo).String())
	out := make([]walk.Plant, len(here))
	for i, p := range here {
		out[i] = pl.OnWalk(p, h.YearsStood(p))
		out[i].GrowthM = grown[p.ID]
		if share, judged := lost[p.ID]; judged {
			out[i].Lost = &share
		}
	}
	return out, err
}

// recall puts to plants of a place what was found and done on them: on one, or (0) on all.
func (h *Room) recall(ctx context.Context, pl *estate.Place, plant int64, of []walk.Plant) error {
	at := make(map[int64]*walk.Plant, len(of))
	for i := range of {
		at[of[i].ID] = &of[i]
	}
	looks, err := h.looksAt(ctx, pl.Property.ID, plant)
	if err != nil {
		return err
	}
	days, err := h.walkDays(ctx, pl.Property.ID)
	if err != nil {
		return err
	}
	for _, l := range looks {
		if p := at[l.PlantID]; p != nil && len(l.Checks) > 0 {
			p.Earlier = append(p.Earlier, damage.Earlier{Day: days[l.WalkID], Checks: l.Checks})
		}
	}
	done, err := h.Store.DeedsOn(ctx, pl.Property.ID, plant, "")
	if err != nil {
		return err
	}
	for _, d := range done {
		p, ended := at[d.Plant], store.DayOf(&d.Ended)
		switch {
		case p == nil:
		case d.Kind == job.MakeSafe:
			p.MadeSafe = max(p.MadeSafe, ended)
		case d.CutM > 0:
			p.Cuts = append(p.Cuts, damage.Cut{Day: ended, ToM: d.CutM})
		}
	}
	return h.found(ctx, pl.Property.ID, plant, at)
}

func (h *Room) looksAt(ctx context.Context, property, plant int64) ([]store.Look, error) {
	if plant != 0 {
		return h.Store.PlantLooks(ctx, plant)
	}
	return h.Store.LooksAt(ctx, property)
}

// found puts to plants the causes that stand as found on them, the newest first; what is treated along with another was not.
func (h *Room) found(ctx context.Context, property, plant int64, at map[int64]*walk.Plant) error {
	of := store.FindsOf{Property: property, Plant: plant, Open: true, Limit: store.All}
	finds, err := h.Store.Finds(ctx, of)
	if err != nil {
		return err
	}
	for _, f := range slices.Backward(finds) {
		if p := at[f.PlantID.Int64]; p != nil && !f.AlongOf.Valid {
			p.Finds = append(p.Finds, damage.Find{Name: cause.NameOf(f.Cause), Day: store.DayOf(&f.Day)})
		}
	}
	unnamed, err := h.Store.Unnameds(ctx, of)
	for _, u := range slices.Backward(unnamed) {
		if p := at[u.PlantID.Int64]; p != nil {
			p.Finds = append(p.Finds, damage.Find{Name: "Something without a name yet", Day: store.DayOf(&u.Day)})
		}
	}
	return err
}

// EndOfLife is where life ended on a plant on a day, by all that was found until then.
type EndOfLife struct {
	Day  day.Day `json:"day" format:"date"`
	TopM float64 `json:"top_m" doc:"How tall it was, m"`
	damage.Boundary
}

// ends are where life ended on the plant of a question on each day on which it was looked at, and today; the oldest first.
func ends(q damage.Question, now damage.Answer) []EndOfLife {
	out := []EndOfLife{}
	looks := q.Earlier
	if len(q.Checks) > 0 {
		looks = append(slices.Clone(looks), damage.Earlier{Day: q.Found, Checks: q.Checks})
	}
	slices.SortStableFunc(looks, func(a, b damage.Earlier) int { return cmp.Compare(a.Day, b.Day) })
	for i, l := range looks {
		then := q
		then.Today, then.Found, then.Checks, then.Earlier = l.Day, l.Day, l.Checks, looks[:i]
		if a, err := damage.Judge(then); err == nil { // a check that does not fit the plant of today tells of another one
			out = append(out, EndOfLife{l.Day, then.Tall(), a.Boundary})
		}
	}
	if len(out) > 0 && out[len(out)-1].Day < q.Today {
		out = append(out, EndOfLife{q.Today, q.Tall(), now.Boundary})
	}
	return out
}

// walkDays are the days of a property's walks.
func (h *Room) walkDays(ctx context.Context, property int64) (map[int64]day.Day, error) {
	walks, err := h.Store.Walks(ctx, property)
	days := make(map[int64]day.Day, len(walks))
	for _, w := range walks {
		days[w.ID] = store.DayOf(&w.Day)
	}
	return days, err
}
