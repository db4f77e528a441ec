package walks

import (
	"context"
	"math"

	"mezzadro/core/damage"
	"mezzadro/core/offset"
	"mezzadro/store"
)

// shown is what the checks of a plant tell of how mild its garden is and what its kind bears, where they follow a
// freeze; nil where they tell nothing of that.
func (h *Room) shown(ctx context.Context, q damage.Question, plant int64) (*store.FreezeShown, error) {
	sight, ok := damage.Shown(q)
	if !ok {
		return nil, nil
	}
	p, err := h.Store.Plant(ctx, plant)
	if err != nil {
		return nil, err
	}
	pl, err := h.Place(ctx, p.PropertyID)
	if err != nil {
		return nil, err
	}
	logs, on := offset.Logs(q.Forecast, sight.Found, sight.Before), q.Forecast.Event.Day
	for i, l := range logs {
		logs[i] = math.Round(1000*l) / 1000
	}
	out := &store.FreezeShown{
		EventDay: on.String(),
		Here:     pl.SeenBy[on] == store.OfTheGarden,
		Spot:     offset.SpotOf(p.Exposure.Or(pl.Property.Exposure.V), p.PotL),
		Low:      math.Round(1000*sight.Low) / 1000,
		High:     math.Round(1000*sight.High) / 1000,
		Ends:     math.Round(1000*sight.Ends) / 1000,
	}
	out.Logs.V = logs
	return out, nil
}
