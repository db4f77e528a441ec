package walks

import (
	"cmp"
	"context"
	"slices"

	"mezzadro/core/catalogue"
	"mezzadro/core/cause"
	"mezzadro/core/damage"
	"mezzadro/core/day"
	"mezzadro/core/job"
	"mezzadro/house/estate"
	"mezzadro/store"
)

// recall puts into a question what was found at its plant before a day, and what has come to it since: cuts, what was made
// safe, the weather. Without a day all that was found counts.
func (h *Room) recall(
	ctx context.Context,
	q *damage.Question,
	pl *estate.Place,
	p store.Plant,
	e catalogue.Entry,
	before day.Day,
) error {
	looks, err := h.Store.PlantLooks(ctx, p.ID)
	if err != nil {
		return err
	}
	days, err := h.walkDays(ctx, p.PropertyID)
	if err != nil {
		return err
	}
	first := pl.Today
	for _, l := range looks {
		on := days[l.WalkID]
		if len(l.Checks) == 0 || on > pl.Today || before.Given() && on >= before {
			continue
		}
		q.Earlier = append(q.Earlier, damage.Earlier{Day: on, Checks: l.Checks})
		first = min(first, on)
	}
	if err := h.found(ctx, q, p); err != nil || len(q.Earlier) == 0 {
		return err
	}
	q.Blows = pl.Blows(p, e, first)
	done, err := h.Store.DeedsOn(ctx, p.ID, first.String())
	for _, d := range done {
		switch ended := store.DayOf(&d.Ended); {
		case d.Kind == job.MakeSafe:
			q.MadeSafe = max(q.MadeSafe, ended)
		case d.CutM > 0:
			q.Cuts = append(q.Cuts, damage.Cut{Day: ended, ToM: d.CutM})
		}
	}
	return err
}

// found are the causes that stand as found on a plant; what is treated along with another was not.
func (h *Room) found(ctx context.Context, q *damage.Question, p store.Plant) error {
	finds, err := h.Store.Finds(ctx, store.FindsOf{Property: p.PropertyID, Plant: p.ID, Open: true, Limit: store.All})
	for _, f := range slices.Backward(finds) {
		if !f.AlongOf.Valid {
			q.Finds = append(q.Finds, damage.Find{Name: cause.NameOf(f.Cause), Day: store.DayOf(&f.Day)})
		}
	}
	if err != nil {
		return err
	}
	unnamed, err := h.Store.Unnameds(ctx, store.FindsOf{Property: p.PropertyID, Plant: p.ID, Open: true, Limit: store.All})
	for _, u := range slices.Backward(unnamed) {
		q.Finds = append(q.Finds, damage.Find{Name: "Something without a name yet", Day: store.DayOf(&u.Day)})
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
