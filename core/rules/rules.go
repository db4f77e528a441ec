// Package rules holds the house rules: a firm's own choices where good practitioners differ.
package rules

import (
	"slices"

	"mezzadro/core/invalid"
)

// House are the choices. What is empty is chosen elsewhere: by the firm for a property, by the default for the firm.
type House struct {
	Perennials string  `json:"perennials,omitempty" enum:"stand,at frost" doc:"Frosted perennials: stand till late winter (when absent), or are cut back at the first killing frost and mulched"`
	Roses      string  `json:"roses,omitempty" enum:"bud swell,winter" doc:"Repeat-flowering roses: cut at bud swell (when absent), or in winter, shortened against wind rock"`
	InTheWay   string  `json:"in_the_way,omitempty" enum:"wait,cut anyway" doc:"Spring bloomers in the way before bloom: wait (when absent), or are cut anyway and the bloom is lost"`
	Natives    string  `json:"natives,omitempty" enum:"natural form,clip" doc:"Native and naturalistic shrubs: keep their natural form and are thinned only (when absent), or are clipped to shape"`
	Wounds     string  `json:"wounds,omitempty" enum:"bare,seal,compost" doc:"Large pruning wounds: stay bare (when absent), are sealed from a width on, or are rubbed with compost"`
	Control    string  `json:"control,omitempty" enum:"soft first,soft only,conventional" doc:"Against pests and diseases: soft first, stronger only past a threshold (when absent), soft only, or conventional allowed from the start"`
	Feeding    string  `json:"feeding,omitempty" enum:"organic,any" doc:"Feeding: organic only (when absent), or any"`
	Repellents string  `json:"repellents,omitempty" enum:"hide,show" doc:"Repellents with weak evidence: hidden (when absent), or shown and marked weak"`
	SealFromCM float64 `json:"seal_from_cm,omitempty" minimum:"0" maximum:"60" doc:"Wounds this wide and wider are sealed, cm; 5 when absent"`
}

// Choices.
const (
	AtFrost      = "at frost"
	InWinter     = "winter"
	CutAnyway    = "cut anyway"
	Clip         = "clip"
	Bare         = "bare"
	SoftOnly     = "soft only"
	Conventional = "conventional"
	AnyFeed      = "any"
	Show         = "show"
	Seal         = "seal"
	Compost      = "compost"
	usualSealCM  = 5
)

// Usual are the defaults.
var Usual = House{Perennials: "stand", Roses: "bud swell", InTheWay: "wait", Natives: "natural form", Wounds: Bare, Control: "soft first", Feeding: "organic", Repellents: "hide", SealFromCM: usualSealCM}

// question is one choice with what may be chosen, the default first.
type question struct {
	name    string
	of      func(*House) *string
	choices []string
}

var questions = []question{
	{"perennials", func(h *House) *string { return &h.Perennials }, []string{"stand", AtFrost}},
	{"roses", func(h *House) *string { return &h.Roses }, []string{"bud swell", InWinter}},
	{"in_the_way", func(h *House) *string { return &h.InTheWay }, []string{"wait", CutAnyway}},
	{"natives", func(h *House) *string { return &h.Natives }, []string{"natural form", Clip}},
	{"wounds", func(h *House) *string { return &h.Wounds }, []string{Bare, Seal, Compost}},
	{"control", func(h *House) *string { return &h.Control }, []string{"soft first", SoftOnly, Conventional}},
	{"feeding", func(h *House) *string { return &h.Feeding }, []string{"organic", AnyFeed}},
	{"repellents", func(h *House) *string { return &h.Repellents }, []string{"hide", Show}},
}

// Or takes from another what is not chosen here.
func (h House) Or(other House) House {
	for _, q := range questions {
		if mine := q.of(&h); *mine == "" {
			*mine = *q.of(&other)
		}
	}
	if h.SealFromCM == 0 {
		h.SealFromCM = other.SealFromCM
	}
	return h
}

// Validate names choices that there are none of.
func (h House) Validate() error {
	var bad invalid.Fields
	for _, q := range questions {
		if is := *q.of(&h); is != "" && !slices.Contains(q.choices, is) {
			bad.Add(q.name, is, "%q is no choice here; want one of %q", is, q.choices)
		}
	}
	bad.Within("seal_from_cm", h.SealFromCM, 0, 60, "cm")
	return bad.Err()
}
