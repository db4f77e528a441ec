package standing

import (
	"context"
	"fmt"

	"mezzadro/core/invalid"
	"mezzadro/store"
)

// Access is when one may be at a property, and what arriving takes.
type Access = store.Access

// AccessOf is a property's.
func (h *Room) AccessOf(ctx context.Context, property int64) (Access, error) {
	if _, err := h.Store.Property(ctx, property); err != nil {
		return Access{}, err
	}
	a, err := h.Store.AccessOf(ctx, property)
	if a.Shut == nil {
		a.Shut = []int{}
	}
	return a, err
}

// SetAccess keeps a property's.
func (h *Room) SetAccess(ctx context.Context, key store.Key, property int64, a Access) (Access, error) {
	var bad invalid.Fields
	for i, d := range a.Shut {
		if d < 0 || d > 6 {
			bad.Add(fmt.Sprintf("shut[%d]", i), d, "want 0 for Sunday to 6 for Saturday")
		}
	}
	for i, s := range a.Hours {
		if s.To < s.From {
			bad.Add(fmt.Sprintf("hours[%d]", i), s, "ends before it begins")
		}
	}
	if bad != nil {
		return a, bad
	}
	if _, err := h.Store.Property(ctx, property); err != nil {
		return a, err
	}
	_, err := store.Once(
		ctx,
		h.Store,
		key,
		func(tx store.Tx) (struct{}, error) { return struct{}{}, tx.SetAccess(ctx, property, a) },
	)
	if err != nil {
		return a, err
	}
	return h.AccessOf(ctx, property)
}
