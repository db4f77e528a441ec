package crews

import (
	"bytes"
	"context"
	"fmt"
	"strings"

	"mezzadro/core/invalid"
	"mezzadro/core/quantity"
	"mezzadro/core/rounds"
	"mezzadro/exchange"
	"mezzadro/store"
)

// WaysTaken is how many timed ways were taken in.
type WaysTaken struct {
	Ways int `json:"ways"`
}

// TakeWays keeps timed ways from a file in the place of those before: between properties, and from crews to
// properties, by name.
func (h *Room) TakeWays(ctx context.Context, key store.Key, file []byte) (WaysTaken, error) {
	lines, err := exchange.ReadWays(bytes.NewReader(file))
	if err != nil {
		return WaysTaken{}, err
	}
	props, crews, err := h.wayEnds(ctx)
	if err != nil {
		return WaysTaken{}, err
	}
	var bad invalid.Fields
	list := []store.Way{}
	for _, l := range lines {
		at := fmt.Sprintf("line %d", l.Line)
		from, to := strings.ToLower(l.From), strings.ToLower(l.To)
		if crews[to] != 0 { // ways count either way
			from, to = to, from
		}
		w := store.Way{FromCrew: crews[from], FromProperty: props[from], ToProperty: props[to], Minutes: l.Minutes}
		switch {
		case w.ToProperty == 0:
			bad.Add(at+" to", l.To, "there is no property %q", l.To)
		case w.FromCrew != 0:
			w.FromProperty = 0
		case w.FromProperty == 0:
			bad.Add(at+" from", l.From, "there is no property and no crew %q", l.From)
		case w.FromProperty == w.ToProperty:
			bad.Add(at, l.From, "leads from %q to itself", l.From)
		}
		list = append(list, w)
	}
	if bad != nil {
		return WaysTaken{}, bad
	}
	_, err = store.Once(
		ctx,
		h.Store,
		key,
		func(tx store.Tx) (struct{}, error) { return struct{}{}, tx.SetWays(ctx, list) },
	)
	return WaysTaken{len(list)}, err
}

// wayEnds are the properties and crews by name.
func (h *Room) wayEnds(ctx context.Context) (props, crews map[string]int64, err error) {
	props, crews = map[string]int64{}, map[string]int64{}
	list, err := h.Store.Properties(ctx, 0, store.All)
	if err != nil {
		return props, crews, err
	}
	for _, p := range list {
		props[strings.ToLower(p.Name)] = p.ID
	}
	all, err := h.Store.Crews(ctx)
	for _, c := range all {
		crews[strings.ToLower(c.Name)] = c.ID
	}
	return props, crews, err
}

// GiveWays are all ways between crews and properties as they are reckoned with: timed, or estimated.
func (h *Room) GiveWays(ctx context.Context) ([]exchange.WayLine, error) {
	props, err := h.Store.Properties(ctx, 0, store.All)
	if err != nil {
		return nil, err
	}
	all, err := h.Crews(ctx)
	if err != nil {
		return nil, err
	}
	kept, err := h.Store.Ways(ctx)
	if err != nil {
		return nil, err
	}
	known := map[[3]int64]float64{}
	for _, w := range kept {
		known[[3]int64{w.FromCrew, w.FromProperty, w.ToProperty}] = w.Minutes
		if w.FromCrew == 0 {
			known[[3]int64{0, w.ToProperty, w.FromProperty}] = w.Minutes
		}
	}
	point := func(p store.Property) rounds.Point {
		return rounds.Point{Latitude: p.Climate.V.Latitude, Longitude: p.Climate.V.Longitude}
	}
	out := []exchange.WayLine{}
	add := func(key [3]int64, from, to string, otherwise float64) {
		m, timed := known[key]
		if !timed {
			m = quantity.Tenth(otherwise)
		}
		out = append(out, exchange.WayLine{From: from, To: to, Minutes: m})
	}
	for _, c := range all {
		for _, p := range props {
			if c.Start != nil {
				add([3]int64{c.ID, 0, p.ID}, c.Name, p.Name, rounds.Minutes(*c.Start, point(p)))
			}
		}
	}
	for i, p := range props {
		for _, q := range props[i+1:] {
			add([3]int64{0, p.ID, q.ID}, p.Name, q.Name, rounds.Minutes(point(p), point(q)))
		}
	}
	return out, nil
}
