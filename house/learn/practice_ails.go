package learn

import (
	"context"
	"fmt"
	"slices"

	"mezzadro/core/invalid"
	"mezzadro/core/practice"
	"mezzadro/store"
)

// ailing is a made-up round of plants with something wrong.
func (h *Room) ailing(of PracticeOf) (*practice.Ails, error) {
	c, err := h.Catalogue.Climate(of.Climate)
	if err != nil {
		return nil, invalid.One("climate", of.Climate, "there is no such type of climate")
	}
	h.practice.mu.Lock()
	defer h.practice.mu.Unlock()
	for _, a := range h.practice.ails {
		if a.Climate == of.Climate && a.Seed == of.Seed {
			return a, nil
		}
	}
	a, err := practice.MakeAils(h.Catalogue, c, of.Seed)
	if err == nil {
		h.practice.ails = lastOf(h.practice.ails, a)
	}
	return a, err
}

// PracticeAils makes one up.
func (h *Room) PracticeAils(of PracticeOf) (practice.Ails, error) {
	a, err := h.ailing(of)
	if err != nil {
		return practice.Ails{}, err
	}
	return *a, nil
}

// PracticeSign is one look for a sign on one of its plants.
type PracticeSign struct {
	PracticeOf
	Plant int    `json:"plant" query:"plant" minimum:"0" maximum:"20" doc:"Which, from 0"`
	Sign  string `json:"sign" query:"sign" required:"true" maxLength:"60" doc:"What is looked for, by id: one of those that are offered"`
}

// SignSeen tells whether it is there.
type SignSeen struct {
	There bool `json:"there" doc:"It is seen; now and then it is overlooked, or taken for there"`
}

// PracticeSignSeen is what such a look shows.
func (h *Room) PracticeSignSeen(in PracticeSign) (SignSeen, error) {
	a, err := h.ailing(in.PracticeOf)
	if err != nil {
		return SignSeen{}, err
	}
	there, ok := a.Look(in.Plant, in.Sign)
	if !ok {
		return SignSeen{}, invalid.One("sign", in.Sign, "is not offered to be looked for on that plant")
	}
	return SignSeen{there}, nil
}

// PracticeNamesIn is what somebody took each plant's trouble for.
type PracticeNamesIn struct {
	PracticeOf
	Plants []practice.NamedIt `json:"plants" minItems:"1" maxItems:"20" doc:"Plant by plant"`
}

// PracticeNamesOut is how they did.
type PracticeNamesOut struct {
	Score   float64             `json:"score" doc:"How much was not lost by mistakes, 0 to 100"`
	Program float64             `json:"program" doc:"The same of what the program says by the same looks"`
	Right   int                 `json:"right" doc:"Causes that were named rightly"`
	Plants  []practice.HeldName `json:"plants"`
}

// PracticeNames holds the names against the truth, and keeps the score of who it was.
func (h *Room) PracticeNames(ctx context.Context, key store.Key, in PracticeNamesIn) (PracticeNamesOut, error) {
	a, err := h.ailing(in.PracticeOf)
	if err != nil {
		return PracticeNamesOut{}, err
	}
	if len(in.Plants) != len(a.Plants) {
		return PracticeNamesOut{}, invalid.One("plants", len(in.Plants), "name what ails each plant of the round, or ask")
	}
	for i, n := range in.Plants {
		offers := func(c practice.Named) bool { return c.ID == n.Cause }
		if n.Cause != "" && !slices.ContainsFunc(a.Plants[i].Causes, offers) {
			return PracticeNamesOut{}, invalid.One(fmt.Sprintf("plants[%d].cause", i), n.Cause, "is not offered for that plant")
		}
	}
	out := PracticeNamesOut{Plants: a.HoldNames(in.Plants)}
	row := store.Practice{Climate: in.Climate, Plants: len(out.Plants), About: "causes"}
	for _, p := range out.Plants {
		if p.Right {
			out.Right++
		}
		row.Checks += len(p.Looked)
	}
	out.Score, out.Program = practice.Score(out.Plants)
	row.Right, row.Score = out.Right, out.Score
	return out, h.keepPractice(ctx, key, row)
}
