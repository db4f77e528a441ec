package learn

import (
	"context"
	"fmt"
	"slices"
	"strconv"
	"strings"
	"sync"

	"mezzadro/core/invalid"
	"mezzadro/core/offset"
	"mezzadro/house/estate"
	"mezzadro/store"
)

// ourGardens names all that gardens and kinds have shown among what can be switched off; one garden or kind is named
// by its part of the shifts.
const ourGardens = "gardens"

// shifts are what gardens and kinds have shown, as last drawn.
type shifts struct {
	mu   sync.Mutex
	rev  uint64 // of the record when it was looked at last
	of   string
	all  *offset.Offsets
	used *offset.Offsets
}

// Shown is what gardens and kinds have shown, as it is used; nil where that is switched off. The same value as before
// is returned as long as nothing is reckoned otherwise for it.
func (h *Room) Shown(ctx context.Context) (*offset.Offsets, error) {
	_, used, err := h.shifts(ctx)
	return used, err
}

func (h *Room) shifts(ctx context.Context) (all, used *offset.Offsets, err error) {
	s := &h.shown
	s.mu.Lock()
	defer s.mu.Unlock()
	rev := h.Store.Rev()
	if s.all != nil && s.rev == rev {
		return s.all, s.used, nil
	}
	of, err := h.Store.ShownRev(ctx)
	if err != nil {
		return nil, nil, err
	}
	of = fmt.Sprint(of, " ", h.Store.PlantRev())
	if s.all == nil || s.of != of {
		if err := h.draw(ctx); err != nil {
			return nil, nil, err
		}
	}
	s.rev, s.of = rev, of
	return s.all, s.used, nil
}

// draw draws them anew; the lock is held.
func (h *Room) draw(ctx context.Context) error {
	rows, err := h.Store.AllShown(ctx)
	if err != nil {
		return err
	}
	off, err := h.Store.LearntOff(ctx)
	if err != nil {
		return err
	}
	last := map[int64]offset.Seen{} // of each plant the last word: what it has of its own would else count again and again
	order := []int64{}
	for _, r := range rows {
		if _, seen := last[r.PlantID]; !seen {
			order = append(order, r.PlantID)
		}
		last[r.PlantID] = offset.Seen{
			Garden: strconv.FormatInt(r.PropertyID, 10),
			Spot:   r.Spot,
			Kind:   r.Species,
			Here:   r.Here,
			Logs:   r.Logs.V,
		}
	}
	list := make([]offset.Seen, len(order))
	for i, plant := range order {
		list[i] = last[plant]
	}
	s := &h.shown
	s.all = offset.Of(list)
	used := s.all.Without(off)
	if off[ourGardens] {
		used = nil
	}
	if !used.Same(s.used) {
		s.used = used
	}
	return nil
}

// ShownTold is what gardens and kinds have shown, as it is read.
type ShownTold struct {
	On      bool         `json:"on" doc:"It is used in forecasts and in what to look at"`
	Gardens []GardenTold `json:"gardens" doc:"Against what the weather of their stations tells, the farthest off first"`
	Kinds   []KindTold   `json:"kinds" doc:"Against what the book says they bear, the farthest off first"`
}

// GardenTold is a garden against its station.
type GardenTold struct {
	offset.Shift
	PropertyID int64  `json:"property_id"`
	Property   string `json:"property"`
	Beyond     bool   `json:"beyond" doc:"It is beyond its doubt"`
	On         bool   `json:"on" doc:"It was not switched off for this garden"`
}

// KindTold is a kind against the book.
type KindTold struct {
	offset.Shift
	Common string `json:"common"`
	Beyond bool   `json:"beyond" doc:"It is beyond its doubt"`
	On     bool   `json:"on" doc:"It was not switched off for this kind"`
}

// fewestShown is from how many plants on a shift is told.
const fewestShown = 3

// ShownTold tells it, whether it is used or not.
func (h *Room) ShownTold(ctx context.Context) (ShownTold, error) {
	out := ShownTold{Gardens: []GardenTold{}, Kinds: []KindTold{}}
	all, _, err := h.shifts(ctx)
	if err != nil {
		return out, err
	}
	off, err := h.Store.LearntOff(ctx)
	if err != nil {
		return out, err
	}
	out.On = !off[ourGardens]
	props, err := h.Store.Properties(ctx, 0, store.All)
	if err != nil {
		return out, err
	}
	book, err := h.Book(ctx)
	if err != nil {
		return out, err
	}
	for _, g := range all.Gardens() {
		id, _ := strconv.ParseInt(g.Name, 10, 64) // ours
		i := slices.IndexFunc(props, func(p store.Property) bool { return p.ID == id })
		if i >= 0 && g.Plants >= fewestShown {
			out.Gardens = append(out.Gardens, GardenTold{g, id, props[i].Name, g.Used() != 0, !off["garden:"+g.Name]})
		}
	}
	for _, k := range all.Kinds() {
		if e := estate.EntryOf(book, k.Name); e.Botanical != "" && k.Plants >= fewestShown {
			out.Kinds = append(out.Kinds, KindTold{k, e.Common, k.Used() != 0, !off["kind:"+k.Name]})
		}
	}
	return out, nil
}

// SetShown has what was learnt be used, or not: of all ("gardens"), of a garden ("garden:1") or of a kind ("kind:bay").
func (h *Room) SetShown(ctx context.Context, key store.Key, what string, on bool) (ShownTold, error) {
	kind, id, _ := strings.Cut(what, ":")
	_, number := strconv.ParseInt(id, 10, 64)
	if what != ourGardens && (kind != "kind" || id == "") && (kind != "garden" || number != nil) {
		return ShownTold{}, invalid.One(
			"what",
			what,
			"want gardens for all, garden: with the id of a property, or kind: with that of a species",
		)
	}
	_, err := store.Once(ctx, h.Store, key, func(tx store.Tx) (struct{}, error) {
		return struct{}{}, tx.SetLearntOff(ctx, what, !on)
	})
	if err != nil {
		return ShownTold{}, err
	}
	return h.ShownTold(ctx)
}
