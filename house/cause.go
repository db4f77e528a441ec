package house

import (
	"context"
	"errors"

	"mezzadro/core/cause"
	"mezzadro/core/day"
	"mezzadro/core/invalid"
	"mezzadro/core/season"
	"mezzadro/store"
)

// CauseIn asks what may be wrong with a plant by what was seen on it.
type CauseIn struct {
	Species  string          `json:"species,omitempty" doc:"Catalogue id; empty where nobody knows the plant"`
	Date     day.Day         `json:"date,omitempty" format:"date" doc:"Today when absent"`
	Climate  *season.Climate `json:"climate,omitempty" doc:"For its hemisphere; the northern half when both are absent"`
	Property int64           `json:"property,omitempty" doc:"In place of a climate: a property's id"`
	Seen     []string        `json:"seen" maxItems:"60" doc:"Signs that are there, by id"`
	Absent   []string        `json:"not_seen,omitempty" maxItems:"60" doc:"Signs that were looked for and are not there; of all others nobody has looked"`
	Share    float64         `json:"share,omitempty" doc:"Of the leaves or shoots that show it, 0 to 1"`
}

// CauseOut is what it comes to.
type CauseOut struct {
	cause.Diagnosis
	Species string `json:"species" doc:"Common name; empty where nobody knows the plant"`
}

// ReckonCause names causes from inline values, storing nothing.
func (h *House) ReckonCause(ctx context.Context, in CauseIn) (CauseOut, error) {
	var bad invalid.Fields
	var out CauseOut
	k := cause.Case{Seen: in.Seen, Absent: in.Absent, Share: in.Share}
	if in.Species != "" {
		book, err := h.Book(ctx)
		if err != nil {
			return out, err
		}
		e, err := book.Species(in.Species)
		if err != nil {
			bad.Add("species", in.Species, "%v", err)
		}
		k.Species, out.Species = &e, e.Common
	}
	south := false
	if in.Climate != nil || in.Property != 0 {
		y, _, err := h.yearOf(ctx, in.Climate, in.Property)
		if errors.Is(err, store.ErrNotFound) {
			return out, err
		}
		bad = append(bad, fields(err)...)
		south = err == nil && y.Normals.Climate.South()
	}
	k.Month = northern(int(h.DateOr(in.Date).Month()), south)
	bad = append(bad, fields(cause.Built().Validate(k))...)
	if bad != nil {
		return out, bad
	}
	d, err := cause.Built().Diagnose(k)
	out.Diagnosis = d
	return out, err
}

// northern is the month of the northern year that a month stands for.
func northern(month int, south bool) int {
	if south {
		return (month+5)%12 + 1
	}
	return month
}

// Signs are all that can be seen, by part.
func (h *House) Signs() []cause.Sign { return cause.Built().Signs }
