package crews

import (
	"context"
	"time"

	"mezzadro/core/rounds"
	"mezzadro/store"
)

// Traffic is when ways take longer, by the hour.
func (h *Room) Traffic(ctx context.Context) ([]rounds.Traffic, error) {
	rows, err := h.Store.Traffic(ctx)
	out := make([]rounds.Traffic, len(rows))
	for i, r := range rows {
		out[i] = rounds.Traffic{From: r.From, To: r.To, Times: r.Times}
		for _, d := range r.Days.V {
			out[i].Days = append(out[i].Days, time.Weekday(d))
		}
	}
	return out, err
}

// SetTraffic keeps stretches in the place of those before.
func (h *Room) SetTraffic(ctx context.Context, key store.Key, list []rounds.Traffic) ([]rounds.Traffic, error) {
	if err := rounds.TrafficFaults(list).Err(); err != nil {
		return nil, err
	}
	rows := make([]store.Traffic, len(list))
	for i, t := range list {
		rows[i] = store.Traffic{From: t.From, To: t.To, Times: t.Times, Days: store.JSON[[]int]{V: []int{}}}
		for _, d := range t.Days {
			rows[i].Days.V = append(rows[i].Days.V, int(d))
		}
	}
	_, err := store.Once(ctx, h.Store, key, func(tx store.Tx) (struct{}, error) { return struct{}{}, tx.SetTraffic(ctx, rows) })
	if err != nil {
		return nil, err
	}
	return h.Traffic(ctx)
}
