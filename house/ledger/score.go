package ledger

import (
	"context"

	"mezzadro/core/outcome"
	"mezzadro/house/estate"
	"mezzadro/store"
)

// score holds what verdicts foretold against what came, over all the record.
func (h *Room) score(ctx context.Context) (outcome.Score, error) {
	list, err := h.Store.ToldOutcomes(ctx)
	if err != nil {
		return outcome.Score{}, err
	}
	told, places := []outcome.Foretold{}, map[int64]*estate.Place{}
	for _, o := range list {
		pl := places[o.PropertyID]
		if pl == nil {
			if pl, err = h.Place(ctx, o.PropertyID); err != nil {
				return outcome.Score{}, err
			}
			places[o.PropertyID] = pl
		}
		p := o.Prognosis.V
		since := p.Against(pl.Normals.Climate, store.DayOf(&o.Given), store.DayOf(&o.Day), o.State)
		told = append(
			told,
			outcome.Foretold{
				Chance:  p.Chance,
				Low:     p.SeasonsLow,
				High:    p.SeasonsHigh,
				Seasons: since.Seasons,
				State:   o.State,
			},
		)
	}
	return outcome.ScoreOf(told), nil
}
