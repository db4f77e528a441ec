package estate_test

import (
	"context"
	"testing"

	"mezzadro/core/day"
	"mezzadro/core/job"
	"mezzadro/house/estate"
	"mezzadro/house/garden"
	"mezzadro/house/housetest"
	"mezzadro/store"
)

// TestPlaceIsKeptUntilSomethingMoves: a property's season is worked out once, and anew on another day, in another book or
// under other rules.
func TestPlaceIsKeptUntilSomethingMoves(t *testing.T) {
	k := housetest.Open(t)
	ctx := context.Background()
	p := k.Property("Mill Race", "lake-foothills")
	place := func() *estate.Place {
		t.Helper()
		pl, err := k.Estate.Place(ctx, p.ID)
		return housetest.Must(t, pl, err)
	}
	first := place()
	if place().Year != first.Year {
		t.Error("it was worked out anew, though nothing moved")
	}
	k.On++
	second := place()
	if second.Year == first.Year || second.Today != k.On {
		t.Error("another day, and the same season")
	}
	in := garden.PropertyIn{Name: "Mill Race", ClimateType: "lake-foothills", Version: p.Version}
	in.Rules.Perennials = "at frost"
	if _, err := k.Garden.ChangeProperty(ctx, store.Key{}, p.ID, in); err != nil {
		in.Rules.Perennials = "stand"
		if _, err := k.Garden.ChangeProperty(ctx, store.Key{}, p.ID, in); err != nil {
			t.Fatal(err)
		}
	}
	if third := place(); third.Year == second.Year || third.Rules == second.Rules {
		t.Error("other house rules, and the same season")
	}
}

// TestSharedCurves: two orders that ask the same on one kind have one curve, and a span of it is the curve's own days.
func TestSharedCurves(t *testing.T) {
	k := housetest.Open(t)
	p := k.Property("Mill Race", "lake-foothills")
	pl, err := k.Estate.Place(context.Background(), p.ID)
	pl = housetest.Must(t, pl, err)
	o := job.Order{Kind: job.Prune, For: k.On, Params: job.Params{Purpose: "shape"}}
	one, other := pl.Shared(o, "rosa-bedding"), o
	other.Title, other.Params.CutM = "Another rose", 0.4
	if pl.Shared(other, "rosa-bedding") != one {
		t.Error("drawn twice: how far it is cut does not move its days")
	}
	if other.Params.Purpose = "deadhead"; pl.Shared(other, "rosa-bedding") == one || pl.Shared(o, "malus-domestica") == one {
		t.Error("another purpose or kind shares the curve")
	}
	costs, later := one.Span(k.On, 28)
	for d, c := range costs {
		if want := one.On(k.On + day.Day(d)).Int(); c != want {
			t.Errorf("day %d costs %d, want %d", d, c, want)
		}
	}
	if len(costs) != 28 || later > job.Never.Int() {
		t.Errorf("%d days, %d later", len(costs), later)
	}
}
