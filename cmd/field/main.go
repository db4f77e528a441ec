//go:build js && wasm

// Command field is what the page takes along: it names causes on the device, by the same rules as the house, where the
// house cannot be reached. Built for the browser by the Makefile.
package main

import (
	"encoding/json"
	"syscall/js"

	"mezzadro/core/catalogue"
	"mezzadro/core/cause"
	"mezzadro/core/invalid"
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
	Warmth  float64            `json:"warmth"`
	Site    cause.Site         `json:"site"`
	Skipped []string           `json:"cannot_tell"`
}

// told is the answer: what it comes to, or the fields that cannot be.
type told struct {
	cause.Diagnosis
	Species string          `json:"species"`
	Known   map[string]bool `json:"known"`
	Refused invalid.Fields  `json:"refused,omitempty"`
}

func name(text string) (out told, err error) {
	var in asked
	if err := json.Unmarshal([]byte(text), &in); err != nil {
		return out, err
	}
	if in.Species != nil {
		out.Species = in.Species.Common
	}
	out.Known = in.Known
	out.Diagnosis, err = cause.Built().Diagnose(cause.Case{Species: in.Species, Month: in.Month, Seen: in.Seen, Absent: in.NotSeen, Share: in.Share,
		Known: in.Known, Near: in.Near, Warmth: in.Warmth, Site: in.Site, Skipped: in.Skipped})
	if bad, ok := err.(invalid.Fields); ok {
		out.Refused, err = bad, nil
	}
	return out, err
}

func main() {
	js.Global().Set("mezzadroCauses", js.FuncOf(func(_ js.Value, args []js.Value) any {
		out, err := name(args[0].String())
		if err == nil {
			var text []byte
			if text, err = json.Marshal(out); err == nil {
				return string(text)
			}
		}
		return js.Global().Get("Error").New(err.Error())
	}))
	select {} // stays to be asked
}
