package estate

import (
	"context"

	"mezzadro/core/hold"
	"mezzadro/store"
)

// holdsBack is for how long a verdict that says to wait or to make safe holds work, days.
const holdsBack = 400

// holds are why work waits, by plant: for the verdict that stands, and for weather that nobody has decided on since.
func (h *House) holds(ctx context.Context, t *Triaged, verdicts []store.Decision) (map[int64]*hold.Hold, error) {
	from := (t.Today - holdsBack).String()
	settled, err := h.Store.Settled(ctx, from)
	if err != nil {
		return nil, err
	}
	told := make(map[int64]bool, len(settled))
	for _, v := range settled {
		told[v] = true
	}
	safe, err := h.Store.MadeSafe(ctx, from)
	if err != nil {
		return nil, err
	}
	of := make(map[int64]store.Decision, len(verdicts))
	for _, v := range verdicts {
		of[v.PlantID] = v
	}
	out := map[int64]*hold.Hold{}
	for i := range t.Plants {
		p := &t.Plants[i]
		v, made := of[p.ID], safe[p.ID]
		k := hold.Plant{
			Verdict: v.ID, Decision: v.Decision, Kind: v.Kind, On: store.DayOf(&v.Day), Until: store.DayOf(&v.Until),
			Settled: told[v.ID], MadeSafe: store.DayOf(&made),
		}
		if p.Look != nil && p.Look.Worth {
			k.Struck, k.StruckOn = p.Look.Event, p.Look.Day
		}
		if w := hold.Of(k, t.Today); w != nil {
			out[p.ID] = w
		}
	}
	return out, nil
}
