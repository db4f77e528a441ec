package walks

import (
	"context"

	"mezzadro/core/catalogue"
	"mezzadro/core/walk"
)

// Along is what a device takes along of a property, to judge its plants where the house cannot be reached.
func (h *Room) Along(ctx context.Context, property int64) (walk.Kit, error) {
	pl, err := h.Place(ctx, property)
	if err != nil {
		return walk.Kit{}, err
	}
	k := walk.Kit{Property: property, Today: pl.Today, Zone: string(pl.Property.Zone), Climate: pl.Normals.Climate, Rules: pl.Rules,
		Species: []catalogue.Entry{}}
	hours, err := h.HoursOf(ctx, pl)
	if err != nil {
		return k, err
	}
	k.Weather = walk.Packed(hours)
	if k.Plants, err = h.standing(ctx, pl); err != nil {
		return k, err
	}
	taken := map[string]bool{}
	for _, p := range k.Plants {
		e, err := pl.Book.Species(p.Species)
		if err == nil && !taken[p.Species] {
			taken[p.Species] = true
			k.Species = append(k.Species, e)
		}
	}
	return k, h.recall(ctx, pl, 0, k.Plants)
}
