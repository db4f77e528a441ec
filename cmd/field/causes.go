//go:build js && wasm

package main

import (
	"mezzadro/core/catalogue"
	"mezzadro/core/cause"
)

// asked is a case as the page tells it.
type asked struct {
	Species *catalogue.Entry   `json:"species"`
	Month   int                `json:"month"`
	Seen    []string           `json:"seen"`
	NotSeen []string           `json:"not_seen"`
	Share   float64            `json:"share"`
	Known   map[string]bool    `json:"known"`
	Near    map[string]float64 `json:"near"`
	Ours    map[string]float64 `json:"ours"`
	Warmth  float64            `json:"warmth"`
	Site    cause.Site         `json:"site"`
	Skipped []string           `json:"cannot_tell"`
}

// told is the answer: what it comes to, or the fields that cannot be.
type told struct {
	cause.Diagnosis
	Species string          `json:"species"`
	Known   map[string]bool `json:"known"`
	refused
}

func name(in asked) (out told, err error) {
	if in.Species != nil {
		out.Species = in.Species.Common
	}
	out.Known = in.Known
	out.Diagnosis, err = cause.Built().Diagnose(cause.Case{Species: in.Species, Month: in.Month, Seen: in.Seen, Absent: in.NotSeen, Share: in.Share,
		Known: in.Known, Near: in.Near, Ours: in.Ours, Warmth: in.Warmth, Site: in.Site, Skipped: in.Skipped})
	return out, out.fields(err)
}
