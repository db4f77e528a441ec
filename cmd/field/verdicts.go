//go:build js && wasm

package main

import (
	"errors"

	"mezzadro/core/check"
	"mezzadro/core/damage"
	"mezzadro/core/day"
	"mezzadro/core/walk"
)

// taken is the property that was last taken along; opened is it worked out for the day it was last asked for.
var (
	taken  walk.Kit
	opened *walk.Opened
)

// take keeps a property to be asked about.
func take(k walk.Kit) (int, error) {
	taken, opened = k, nil
	return len(k.Plants), nil
}

// found is what was found at a plant of the property on a day, and maybe what is decided about it.
type found struct {
	Property int64          `json:"property"`
	Plant    int64          `json:"plant"`
	Today    day.Day        `json:"today"`
	Day      day.Day        `json:"day"`
	Checks   []check.Check  `json:"checks"`
	Ruling   *damage.Ruling `json:"ruling"`
}

// judged is the answer that stands, or the fields that cannot be.
type judged struct {
	Answer *damage.Answer `json:"answer,omitempty"`
	Note   string         `json:"note,omitempty"`
	refused
}

func judge(in found) (out judged, err error) {
	if in.Property != taken.Property {
		return out, errors.New("the property was not taken along")
	}
	if opened == nil || opened.Today != max(in.Today, taken.Today) {
		if opened, err = taken.Open(in.Today); err != nil {
			return out, err
		}
	}
	q, err := opened.Of(in.Plant, in.Checks, in.Day)
	if err != nil {
		return out, err
	}
	var a damage.Answer
	if in.Ruling == nil {
		a, err = damage.Judge(q)
	} else {
		a, out.Note, err = damage.Decide(q, *in.Ruling)
	}
	if err = out.fields(err); err == nil && out.Refused == nil {
		out.Answer = &a
	}
	return out, err
}
