package finds

import (
	"context"

	"mezzadro/core/cause"
	"mezzadro/house/estate"
	"mezzadro/store"
)

// staleFind gives the kept find as it is told, not as it is stored.
func (h *Room) staleFind(ctx context.Context, err error) error {
	var fault error
	told := estate.Stale(err, func(f store.Find) Find {
		list, e := h.tellFinds(ctx, []store.Find{f})
		if fault = e; e != nil {
			return Find{}
		}
		return list[0]
	})
	if fault != nil {
		return fault
	}
	return told
}

// tellFinds joins finds with what the book says of their causes, and the names of plants and properties.
func (h *Room) tellFinds(ctx context.Context, rows []store.Find) ([]Find, error) {
	book, err := h.Book(ctx)
	if err != nil {
		return nil, err
	}
	names, plants, err := h.standing(ctx)
	if err != nil {
		return nil, err
	}
	out := make([]Find, len(rows))
	for i, f := range rows {
		o := Find{ID: f.ID, PropertyID: f.PropertyID, PlantID: f.PlantID.Int64, Species: f.Species, Day: store.DayOf(&f.Day), Cause: f.Cause, Name: f.Cause,
			Certainty: f.Certainty, Share: f.Share, Seen: f.Seen.V, NotSeen: f.NotSeen.V, How: f.How, Note: f.Note, State: f.State, Ending: f.Ending,
			Version: f.Version, Harm: "ugly", Act: "watch", Prevent: f.Prevent, Affected: f.Affected, AlongOf: f.AlongOf.Int64, BedM2: f.BedM2,
			Helped: f.Helped}
		if f.HelpedDay != "" {
			o.HelpedOn = store.DayOf(&f.HelpedDay)
		}
		if f.Harvest != "" {
			o.Harvest = store.DayOf(&f.Harvest)
		}
		if f.Closed != "" {
			o.Closed = store.DayOf(&f.Closed)
		}
		if c := cause.Built().Cause(f.Cause); c != nil {
			o.Name, o.Harm, o.Report, o.Travels = c.Name, c.Harm, c.Report, c.Travels()
			o.Act, o.Do = c.Rung(f.Share)
		}
		o.Property = names[f.PropertyID]
		if f.PlantID.Valid {
			o.Plant = titleOf(book, plants, f.PlantID.Int64, f.Species)
		}
		out[i] = o
	}
	return out, nil
}
