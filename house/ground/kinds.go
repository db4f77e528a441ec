package ground

import (
	"context"

	"mezzadro/core/replacement"
	"mezzadro/house/estate"
	"mezzadro/store"
)

// KindWord is what the firm says of a kind, and what became of it in its own record.
type KindWord struct {
	Species string  `json:"species" minLength:"1" doc:"Catalogue id"`
	Common  string  `json:"common"`
	Price   float64 `json:"price" money:"true" minimum:"0" maximum:"100000" doc:"For one plant; 0 where the firm has none"`
	Banned  bool    `json:"banned" doc:"Must not be planted in the firm's region"`
	Stood   int     `json:"stood" doc:"Plants of it in the record"`
	Lost    int     `json:"lost" doc:"Plants of it that died or were replaced"`
}

// KindWordIn is what a firm says of a kind.
type KindWordIn struct {
	Price  float64 `json:"price" money:"true" minimum:"0" maximum:"100000" doc:"For one plant; 0 takes it back"`
	Banned bool    `json:"banned" doc:"Must not be planted in the firm's region"`
}

// kinds are the firm's words and record of all kinds, by catalogue id.
func (h *Room) kinds(ctx context.Context) (map[string]KindWord, error) {
	out := map[string]KindWord{}
	words, err := h.Store.KindWords(ctx)
	if err != nil {
		return nil, err
	}
	record, err := h.Store.KindRecords(ctx)
	if err != nil {
		return nil, err
	}
	for _, r := range record {
		out[r.Species] = KindWord{Species: r.Species, Stood: r.Stood, Lost: r.Lost}
	}
	for _, w := range words {
		k := out[w.Species]
		k.Species, k.Price, k.Banned = w.Species, w.Price, w.Banned
		out[w.Species] = k
	}
	return out, nil
}

// Kinds are the kinds of which the firm says or has seen something, by name.
func (h *Room) Kinds(ctx context.Context) ([]KindWord, error) {
	known, err := h.kinds(ctx)
	if err != nil {
		return nil, err
	}
	book, err := h.Book(ctx)
	if err != nil {
		return nil, err
	}
	out := []KindWord{}
	for _, e := range book.Entries {
		if k, has := known[e.ID]; has {
			k.Common = e.Common
			out = append(out, k)
		}
	}
	return out, nil
}

// SayKind keeps a firm's price for a kind, and whether it must not be planted.
func (h *Room) SayKind(ctx context.Context, key store.Key, species string, in KindWordIn) (KindWord, error) {
	book, err := h.Book(ctx)
	if err != nil {
		return KindWord{}, err
	}
	e, err := book.Species(species)
	if err != nil {
		return KindWord{}, estate.NoSpecies{Err: err}
	}
	_, err = store.Once(ctx, h.Store, key, func(tx store.Tx) (struct{}, error) {
		return struct{}{}, tx.SetKindWord(ctx, store.KindWord{Species: species, Price: in.Price, Banned: in.Banned})
	})
	if err != nil {
		return KindWord{}, err
	}
	known, err := h.kinds(ctx)
	k := known[species]
	k.Species, k.Common = species, e.Common
	return k, err
}

// owns has a question of what fits minded by what the firm says and has seen.
func owns(ask *replacement.Ask, known map[string]KindWord) {
	ask.Own = map[string]replacement.Own{}
	for id, k := range known {
		ask.Own[id] = replacement.Own{Stood: k.Stood, Lost: k.Lost}
		if k.Banned {
			ask.Spot.Invasive = append(ask.Spot.Invasive, id)
		}
	}
}
