package learn

import (
	"context"
	"slices"

	"mezzadro/core/day"
	"mezzadro/core/outcome"
	"mezzadro/house/estate"
	"mezzadro/store"
)

// DuePlant is a plant of which it is to be told how it turned out.
type DuePlant struct {
	outcome.Ask
	PlantID    int64   `json:"plant_id"`
	PropertyID int64   `json:"property_id"`
	Property   string  `json:"property"`
	Plant      string  `json:"plant"`
	Gone       bool    `json:"gone" doc:"It was taken out since"`
	VerdictID  int64   `json:"verdict_id"`
	Given      day.Day `json:"given" format:"date" doc:"Day of the verdict"`
	Sentence   string  `json:"sentence" doc:"The verdict"`
	Foretold   string  `json:"foretold" doc:"What was foretold"`
}

// DueList is what is to be told, of all properties.
type DueList struct {
	Plants []DuePlant `json:"plants" doc:"The longest due first; up to 200"`
	All    int        `json:"all" doc:"How many there are"`
}

const (
	dueBack  = 6 * 366 // days back to which verdicts are asked after
	dueShown = 200
	sureOf   = 0.95 // chance from which on nobody has to look whether it lives
)

// Due is what is to be told of how plants turned out: whether they live, and whether they look right.
func (h *Room) Due(ctx context.Context) (DueList, error) {
	out, today := DueList{Plants: []DuePlant{}}, h.Today()
	rows, err := h.Store.DecidedPlants(ctx, (today - dueBack).String())
	if err != nil {
		return out, err
	}
	book, err := h.Book(ctx)
	if err != nil {
		return out, err
	}
	places := map[int64]*estate.Place{}
	for _, r := range rows {
		pl := places[r.PropertyID]
		if pl == nil {
			if pl, err = h.Place(ctx, r.PropertyID); err != nil {
				return out, err
			}
			places[r.PropertyID] = pl
		}
		p := r.Prognosis.V
		v := outcome.Given{Day: store.DayOf(&r.Given), Gone: day.None, Patience: day.None, Prognosis: p}
		if r.Gone != "" {
			v.Gone = min(store.DayOf(&r.Gone), today) // the sample's day may lie before the clock's
		}
		if r.Patience != nil && p.Chance < sureOf {
			v.Patience = store.DayOf(r.Patience)
		}
		var last *outcome.Found
		if r.Seen != nil {
			last = &outcome.Found{Day: store.DayOf(r.Seen), State: *r.State}
		}
		ask, due := outcome.Due(pl.Normals.Climate, v, last, today)
		if !due {
			continue
		}
		out.Plants = append(out.Plants, DuePlant{
			Ask: ask, PlantID: r.PlantID, PropertyID: r.PropertyID, Property: r.Property, Gone: r.Gone != "",
			Plant: estate.PlantName(estate.EntryOf(book, r.Species).Common, r.Label), VerdictID: r.VerdictID,
			Given: v.Day, Sentence: r.Sentence, Foretold: p.Text,
		})
	}
	slices.SortStableFunc(out.Plants, func(a, b DuePlant) int { return int(a.Since - b.Since) })
	out.All = len(out.Plants)
	out.Plants = out.Plants[:min(dueShown, out.All)]
	return out, nil
}
