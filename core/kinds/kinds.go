// Package kinds is the register of kinds of work: what each is, said once. It answers what a day costs for an order
// (Curve), which orders ask the same of the year and so share one curve (AskOf), which can be asked for by hand, which
// goes before all else, and what weather the work wants (Weather). A kind that is added to core/job stands here too, or
// the tests say so.
package kinds

import (
	"fmt"
	"reflect"
	"slices"
	"strconv"

	"mezzadro/core/catalogue"
	"mezzadro/core/day"
	"mezzadro/core/job"
	"mezzadro/core/pruning"
	"mezzadro/core/rounds"
	"mezzadro/core/rules"
	"mezzadro/core/treatment"
)

// Place is a place's year as the kinds of work see it.
type Place struct {
	Work  *job.Place
	Cuts  *pruning.Place
	Rules rules.House
}

// Kind is what is said of a kind of work.
type Kind struct {
	Name   job.Kind
	ByHand bool        // can be asked for by hand
	Urgent bool        // goes before all else
	Wants  rounds.Work // weather that it wants; Weather says it of an order
	// Idle clears the parameters that the costs of its days do not hang on; nil: all count.
	Idle func(p *job.Params)
	// Curve is what each day costs on a plant of a species; nil: as core/job draws it.
	Curve func(at Place, o job.Order, e *catalogue.Entry) job.Curve
}

// all are the kinds, in the order in which they are told.
var all = []Kind{
	{Name: job.Other, ByHand: true},
	{Name: job.Walk, ByHand: true},
	{Name: job.Look, ByHand: true},
	{Name: job.CutBack, ByHand: true, Wants: rounds.Cut},
	{Name: job.TipBack, ByHand: true, Wants: rounds.Cut},
	{Name: job.CutToBase, ByHand: true, Wants: rounds.Cut},
	{Name: job.Feed, ByHand: true},
	{Name: job.Water, ByHand: true},
	{Name: job.Mulch, ByHand: true},
	{Name: job.Protect, ByHand: true},
	{Name: job.Guard, ByHand: true},
	{Name: job.Replace, ByHand: true, Wants: rounds.Earth},
	{Name: job.Prune, ByHand: true, Wants: rounds.Cut, Idle: pruneIdle, Curve: prune},
	{Name: job.Treat, Idle: treatIdle, Curve: treat},
	{Name: job.MakeSafe, Urgent: true},
	{Name: job.Shorten, Wants: rounds.Cut},
	{Name: job.Lift, Wants: rounds.Earth},
	{Name: job.PlantOut, Wants: rounds.Earth},
	{Name: job.Graft},
	{Name: job.Ask},
	{Name: job.Shade},
	{Name: job.Fruit},
	{Name: job.Care, Wants: rounds.Cut},
}

var byName = func() map[job.Kind]*Kind {
	out := map[job.Kind]*Kind{}
	for i := range all {
		out[all[i].Name] = &all[i]
	}
	return out
}()

// Of is what is said of a kind; false for one that is none.
func Of(name job.Kind) (Kind, bool) {
	k := byName[name]
	if k == nil {
		return Kind{Name: name}, false
	}
	return *k, true
}

// ByHand are the kinds that can be asked for by hand.
func ByHand() (out []job.Kind) {
	for _, k := range all {
		if k.ByHand {
			out = append(out, k.Name)
		}
	}
	return out
}

// Curve is what each day costs for an order on plants of some species, of which the costliest counts.
func (at Place) Curve(o job.Order, species []catalogue.Entry) job.Curve {
	k, _ := Of(o.Kind)
	curves := make([]job.Curve, 0, len(species))
	for i := range species {
		if k.Curve != nil {
			curves = append(curves, k.Curve(at, o, &species[i]))
			continue
		}
		curves = append(curves, at.Work.Curve(o, &species[i]))
	}
	if len(curves) == 1 {
		return curves[0]
	}
	return job.Together(curves)
}

func prune(at Place, o job.Order, e *catalogue.Entry) job.Curve {
	return pruning.Ahead(pruning.Ask{Species: e, Place: at.Cuts, Date: o.For, Purpose: pruning.Purpose(o.Params.Purpose), Rules: at.Rules})
}

// pruneIdle: how far and which third bear on the work, not on when it is best done.
func pruneIdle(p *job.Params) { p.CutM, p.Part, p.Spans = 0, 0, nil }

func treat(at Place, o job.Order, e *catalogue.Entry) job.Curve {
	of := treatment.Job{Cause: o.Params.Cause, Rung: o.Params.Rung, Step: o.Params.Step, Due: o.Params.Due, Made: o.For}
	return treatment.Built().Curve(treatment.Ask{Species: e, Place: at.Cuts.Place, Rules: at.Rules}, of)
}

// treatIdle: the means hangs on the rung and the step.
func treatIdle(p *job.Params) { p.Use = "" }

// Ask is what makes two orders at a place cost the same: equal asks have equal curves.
type Ask struct {
	kind    job.Kind
	species string
	made    day.Day
	params  string
}

// AskOf is what an order on a plant of a species asks of the year. All parameters count but those that its kind calls
// idle, so that a new one is never forgotten.
func AskOf(kind job.Kind, species string, made day.Day, p job.Params) Ask {
	p.Private, p.New, p.NewCount = false, "", 0 // they move no day
	if k, _ := Of(kind); k.Idle != nil {
		k.Idle(&p)
	}
	return Ask{kind, species, made, inText(p)}
}

// inText are the parameters that are given, in the order of their fields: equal ones have equal texts.
func inText(p job.Params) string {
	v, out := reflect.ValueOf(p), make([]byte, 0, 64)
	for i := range v.NumField() {
		f := v.Field(i)
		if f.IsZero() {
			continue
		}
		out = append(strconv.AppendInt(out, int64(i), 10), ' ')
		switch {
		case f.Kind() == reflect.String:
			out = strconv.AppendQuote(out, f.String())
		case f.CanInt():
			out = strconv.AppendInt(out, f.Int(), 10)
		case f.CanFloat():
			out = strconv.AppendFloat(out, f.Float(), 'g', -1, 64)
		default:
			out = fmt.Append(out, f.Interface()) // plain values all the way down
		}
	}
	return string(out)
}

// Weather is what weather an order wants: by its kind, what it uses and whether it is done aloft.
func Weather(kind job.Kind, use string, skills []string) rounds.Work {
	k, _ := Of(kind)
	aloft := slices.Contains(skills, job.Arborist) || slices.Contains(skills, job.Climbing)
	switch {
	case k.Name == job.Treat:
		if a := treatment.Built().Active(use); a != nil && a.WindMS > 0 {
			return rounds.Spray
		}
	case k.Wants == rounds.Cut && aloft:
		return rounds.Aloft
	}
	return k.Wants
}
