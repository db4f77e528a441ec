package learn

import (
	"context"

	"mezzadro/core/cause"
	"mezzadro/core/day"
	"mezzadro/core/outcome"
	"mezzadro/core/season"
	"mezzadro/house/estate"
	"mezzadro/store"
)

// ScoreTold is what was foretold against what came, of all and by what they have in common.
type ScoreTold struct {
	outcome.Score
	Ends   outcome.Within  `json:"ends" doc:"After freezes: where life was found to end up the stem, against where the forecast had it end four times in five"`
	Groups []outcome.Group `json:"groups" doc:"By kind of plant, verdict, hardiness zone, person and cause, of at least three that can be judged; those with the most first"`
}

// Told is one prognosis with what came of it.
type Told struct {
	outcome.Case
	Property string
	Plant    string
	Given    day.Day // of the verdict
	Day      day.Day // when it was last seen what came
	Overrule bool    // the gardener's own verdict
}

// Score holds what verdicts foretold against what came, over all the record.
func (h *Room) Score(ctx context.Context) (ScoreTold, error) {
	list, err := h.Told(ctx)
	if err != nil {
		return ScoreTold{}, err
	}
	cases, told := make([]outcome.Case, len(list)), make([]outcome.Foretold, len(list))
	for i, t := range list {
		cases[i], told[i] = t.Case, t.Foretold
	}
	rows, err := h.Store.AllShown(ctx)
	if err != nil {
		return ScoreTold{}, err
	}
	ends := make([]outcome.Ends, len(rows))
	for i, r := range rows {
		ends[i] = outcome.Ends{Low: r.Low, High: r.High, Found: r.Ends}
	}
	return ScoreTold{outcome.ScoreOf(told), outcome.WithinOf(ends), outcome.Groups(cases)}, nil
}

// Told are all prognoses of which something is known.
func (h *Room) Told(ctx context.Context) ([]Told, error) {
	list, err := h.Store.ToldOutcomes(ctx)
	if err != nil {
		return nil, err
	}
	book, err := h.Book(ctx)
	if err != nil {
		return nil, err
	}
	out, places := make([]Told, 0, len(list)), map[int64]*estate.Place{}
	for _, o := range list {
		pl := places[o.PropertyID]
		if pl == nil {
			if pl, err = h.Place(ctx, o.PropertyID); err != nil {
				return nil, err
			}
			places[o.PropertyID] = pl
		}
		p, e := o.Prognosis.V, estate.EntryOf(book, o.Species)
		t := Told{
			Property: o.Property,
			Plant:    estate.PlantName(e.Common, o.Label),
			Given:    store.DayOf(&o.Given),
			Day:      store.DayOf(&o.Day),
			Overrule: o.Decision == "overruled",
		}
		t.Foretold = outcome.Foretold{Chance: p.Chance, Low: p.SeasonsLow, High: p.SeasonsHigh, State: o.State,
			Seasons: p.Against(pl.Normals.Climate, t.Given, t.Day, o.State).Seasons}
		t.Kind, t.Verdict, t.Person = e.Common, o.Kind, o.By
		t.Zone = season.Zone(pl.Normals.Climate.ExtremeMinC)
		if t.Cause = cause.NameOf(o.Cause); o.Frozen && o.Cause == "" {
			t.Cause = "Freeze"
		}
		out = append(out, t)
	}
	return out, nil
}
