package walks

import (
	"context"

	"mezzadro/core/cause"
	"mezzadro/core/crown"
	"mezzadro/core/day"
	"mezzadro/core/invalid"
	"mezzadro/store"
)

// CrownIn is a crown counted on a picture, to be kept.
type CrownIn struct {
	Day  day.Day `json:"day,omitempty" format:"date" doc:"Today when absent"`
	Side string  `json:"side,omitempty" enum:",north,north-east,east,south-east,south,south-west,west,north-west,above" doc:"Where it was looked at from"`
	crown.Asked
}

// CrownCount is a crown that was counted.
type CrownCount struct {
	ID      int64   `json:"id"`
	PlantID int64   `json:"plant_id"`
	Day     day.Day `json:"day" format:"date"`
	Side    string  `json:"side" enum:",north,north-east,east,south-east,south,south-west,west,north-west,above" doc:"Where it was looked at from; empty where nobody said"`
	Points  int     `json:"points" doc:"That show the plant"`
	Green   int     `json:"green" doc:"Points of living leaf"`
	Brown   int     `json:"brown" doc:"Points of dead leaf"`
	Bare    int     `json:"bare" doc:"Points of wood without leaf"`
	Sky     int     `json:"sky" doc:"Points through which one sees what is behind"`
	Share   float64 `json:"share" doc:"Brown or bare, of what is crown, 0 to 1: an estimate"`
	Low     float64 `json:"low" doc:"Where the true share lies as often as sure says: from"`
	High    float64 `json:"high" doc:"Until"`
	Sure    float64 `json:"sure" doc:"How often the interval holds: 0.8 as the colours say, 0.95 where every point was looked at"`
	Since   day.Day `json:"since,omitempty" format:"date" doc:"The day on which it was counted from the same side before"`
	Before  float64 `json:"before,omitempty" doc:"The share of that day"`
	Change  string  `json:"change" enum:",more,less" doc:"Against that day, beyond chance: more or less is gone"`
}

// CrownCounts are a plant's, the newest first, each beside the one before it from the same side.
func (h *Room) CrownCounts(ctx context.Context, plant int64) ([]CrownCount, error) {
	if _, err := h.Store.Plant(ctx, plant); err != nil {
		return nil, err
	}
	rows, err := h.Store.CrownCounts(ctx, plant)
	if err != nil {
		return nil, err
	}
	out := make([]CrownCount, len(rows))
	last := map[string]store.CrownCount{}
	for i, r := range rows {
		c := CrownCount{
			ID:      r.ID,
			PlantID: r.PlantID,
			Day:     store.DayOf(&r.Day),
			Side:    r.Side,
			Points:  r.Green + r.Brown + r.Bare,
			Green:   r.Green,
			Brown:   r.Brown,
			Bare:    r.Bare,
			Sky:     r.Sky,
			Share:   r.Share,
			Low:     r.Low,
			High:    r.High,
			Sure:    r.Sure,
		}
		if before, counted := last[r.Side]; counted {
			c.Since, c.Before = store.DayOf(&before.Day), before.Share
			c.Change = crown.Change(countOf(before), countOf(r))
		}
		last[r.Side] = r
		out[len(rows)-1-i] = c
	}
	return out, nil
}

func countOf(r store.CrownCount) crown.Count {
	return crown.Count{Share: r.Share, Low: r.Low, High: r.High, Sure: r.Sure}
}

// AddCrownCount counts a crown by its points and keeps it.
func (h *Room) AddCrownCount(ctx context.Context, key store.Key, plant int64, in CrownIn) (CrownCount, error) {
	if _, err := h.Store.Plant(ctx, plant); err != nil {
		return CrownCount{}, err
	}
	on := h.DateOr(in.Day)
	var bad invalid.Fields
	if !cause.Enterable(on, h.Today()) {
		bad.Add("day", on.String(), "want a day of the last year, today at the latest")
	}
	c, err := crown.Read(in.Asked)
	bad = append(bad, invalid.Of(err)...)
	if err := bad.Err(); err != nil {
		return CrownCount{}, err
	}
	row := store.CrownCount{
		PlantID: plant,
		Day:     on.String(),
		Side:    in.Side,
		Points:  store.JSON[crown.Asked]{V: in.Asked},
		Green:   c.Green,
		Brown:   c.Brown,
		Bare:    c.Bare,
		Sky:     c.Sky,
		Share:   c.Share,
		Low:     c.Low,
		High:    c.High,
		Sure:    c.Sure,
	}
	id, err := store.Once(ctx, h.Store, key, func(tx store.Tx) (int64, error) { return tx.AddCrownCount(ctx, row) })
	if err != nil {
		return CrownCount{}, err
	}
	list, err := h.CrownCounts(ctx, plant)
	if err != nil {
		return CrownCount{}, err
	}
	for _, c := range list {
		if c.ID == id {
			return c, nil
		}
	}
	return CrownCount{}, store.ErrNotFound
}

// RemoveCrownCount takes one out of sight, or brings it back.
func (h *Room) RemoveCrownCount(ctx context.Context, key store.Key, id int64, remove bool) error {
	_, err := store.Once(ctx, h.Store, key, func(tx store.Tx) (struct{}, error) { return struct{}{}, tx.RemoveCrownCount(ctx, id, remove) })
	return err
}
