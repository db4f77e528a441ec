package load

import (
	"testing"

	"mezzadro/core/catalogue"
	"mezzadro/core/job"
	"mezzadro/core/quantity"
)

func stock(t *testing.T, id string, count int, height, spread float64) Stock {
	t.Helper()
	e, err := catalogue.Built().Species(id)
	if err != nil {
		t.Fatal(err)
	}
	return Stock{Species: &e, Count: count, HeightM: height, SpreadM: spread}
}

// TestOf: what a gardener would put on the van for a job; ranges, since it is an estimate.
func TestOf(t *testing.T) {
	type want struct {
		name     string
		from, to float64
	}
	hydrangeas := stock(t, "hydrangea-macrophylla", 10, 1.2, 1.5)
	for _, c := range []struct {
		name string
		job  Job
		want []want
		none []string
	}{
		{"mulching ten hydrangeas: the better part of a cubic metre", Job{Kind: job.Mulch, Plants: []Stock{hydrangeas}},
			[]want{{"mulch", 700, 1000}, {"barrow", 0, 0}}, []string{"bags", "ladder"}},
		{"mulching one old oak goes round its foot, not under its crown", Job{Kind: job.Mulch, Plants: []Stock{stock(t, "quercus-robur", 1, 14, 12)}},
			[]want{{"mulch", 40, 150}}, nil},
		{"a new tree is staked and guarded", Job{Kind: job.Other, New: stock(t, "malus-domestica", 1, 2, 1).Species, Count: 1},
			[]want{{"Apple", 1, 1}, {"stakes", 1, 2}, {"guards", 1, 1}, {"mulch", 30, 100}, {"water", 8, 30}, {"spade", 0, 0}}, []string{"bags"}},
		{"five lavenders are not", Job{Kind: job.Other, New: stock(t, "lavandula-angustifolia", 1, 0.4, 0.4).Species, Count: 5},
			[]want{{"mulch", 30, 150}, {"water", 8, 40}}, []string{"stakes", "guards"}},
		{"a hedge: trimmer, a little fuel, some bags, and no ladder at two metres", Job{Kind: job.Prune, Params: job.Params{Purpose: "hedge"}, Minutes: 120,
			Plants: []Stock{stock(t, "carpinus-betulus", 20, 2, 0.8)}}, []want{{"hedge trimmer", 0, 0}, {"fuel", 0.3, 1.5}, {"bags", 1, 12}}, []string{"ladder", "loppers"}},
		{"a pear of four metres wants the ladder", Job{Kind: job.Prune, Params: job.Params{Purpose: "thin"}, Minutes: 60, Plants: []Stock{stock(t, "pyrus-communis", 1, 4, 3)}},
			[]want{{"ladder", 1, 1}, {"pruning saw", 0, 0}}, []string{"fuel"}},
		{"faded roses fill one bag", Job{Kind: job.Prune, Params: job.Params{Purpose: "deadhead"}, Plants: []Stock{stock(t, "rosa-bedding", 12, 0.8, 0.6)}},
			[]want{{"bags", 1, 1}, {"secateurs", 0, 0}}, []string{"loppers", "ladder"}},
		{"fleece round a camellia of a metre and a half", Job{Kind: job.Protect, Plants: []Stock{stock(t, "camellia-japonica", 1, 1.5, 1)}},
			[]want{{"fleece", 5, 8}}, []string{"spade"}},
		{"a guard each", Job{Kind: job.Guard, Plants: []Stock{stock(t, "malus-domestica", 7, 2, 1)}}, []want{{"guards", 7, 7}}, nil},
		{"taking out a dead cypress of six metres: a saw, fuel, loads", Job{Kind: job.Replace, Minutes: 180, Plants: []Stock{stock(t, "cupressus-sempervirens", 1, 6, 1.2)}},
			[]want{{"chainsaw, with helmet and trousers", 0, 0}, {"fuel", 0.5, 2}}, []string{"stakes"}},
		{"fleece named in the kit stands once, with its amount", Job{Kind: job.Protect, Kit: []string{"fleece", "pegs"}, Plants: []Stock{stock(t, "camellia-japonica", 1, 1.5, 1)}},
			[]want{{"fleece", 5, 8}, {"pegs", 0, 0}}, nil},
		{"feed, compost and mulch in one visit", Job{Kind: job.Feed, Title: "Feed, compost and mulch Garden peony", Plants: []Stock{stock(t, "paeonia-lactiflora", 3, 0.8, 0.8)}},
			[]want{{"compost", 20, 60}, {"mulch", 50, 120}, {"barrow", 0, 0}}, nil},
		{"a liquid feed in summer carries no compost", Job{Kind: job.Feed, Title: "Feed Bedding rose", Plants: []Stock{stock(t, "rosa-bedding", 12, 0.8, 0.6)}},
			[]want{{"gloves", 0, 0}}, []string{"compost", "mulch"}},
		{"one feeds a pot without compost", Job{Kind: job.Feed, Plants: []Stock{{Species: hydrangeas.Species, Count: 1, HeightM: 1, SpreadM: 1, PotL: 30}}},
			[]want{{"gloves", 0, 0}}, []string{"compost"}},
	} {
		got := map[string]Item{}
		for _, x := range Sum(Of(c.job)) {
			got[quantity.Metric.Text(x.Name)] = x
		}
		for _, w := range c.want {
			if x, there := got[w.name]; !there || x.Amount < w.from || x.Amount > w.to {
				t.Errorf("%s: %s is %+v, want %g to %g", c.name, w.name, x, w.from, w.to)
			}
		}
		for _, name := range c.none {
			if x, there := got[name]; there {
				t.Errorf("%s: takes %+v", c.name, x)
			}
		}
	}
}

// TestSum: over a day what is used up adds, one ladder and one trimmer do for all, and half bags make whole ones.
func TestSum(t *testing.T) {
	one := []Item{{Stuff, "mulch", 120.04, "L", 1, true}, {Waste, "bags", 0.4, "piece", 1, true}, {Ladders, "ladder", 1, "piece", 1, false}, {Tools, "rake", 0, "", 1, false}}
	got := Sum(one, one, []Item{{Plants, "Apple", 2, "piece", 1, true}})
	want := []Item{{Plants, "Apple", 2, "piece", 1, true}, {Stuff, "mulch", 240.1, "L", 2, true}, {Tools, "rake", 0, "", 2, false}, {Ladders, "ladder", 1, "piece", 2, false}, {Waste, "bags", 1, "piece", 2, true}}
	if len(got) != len(want) {
		t.Fatalf("%+v", got)
	}
	for i := range want {
		if got[i] != want[i] {
			t.Errorf("%d: %+v, want %+v", i, got[i], want[i])
		}
	}
}

// TestTextsOfBothSides: what is taken along is told as one buys it: mulch in litres or by the yard, products by the
// millilitre or the ounce.
func TestTextsOfBothSides(t *testing.T) {
	for _, c := range []struct {
		item         Item
		metric, feet string
	}{
		{Item{Stuff, "mulch", 1165, "L", 1, true}, "about 1165 L of mulch", "about 1.5 yd³ of mulch"},
		{Item{Stuff, "water", 40, "L", 1, false}, "about 40 L of water", "about 11 gal of water"},
		{Item{Stuff, "soap", 59.1, "mL", 1, true}, "59 mL of soap", "2 fl oz of soap"},
		{Item{Stuff, "sulphur", 142, "g", 1, true}, "142 g of sulphur", "5 oz of sulphur"},
		{Item{Stuff, "fleece", 18.6, "m2", 1, false}, "about 19 m² of fleece", "about 200 sq ft of fleece"},
		{Item{Tools, "rake", 0, "", 1, false}, "rake", "rake"},
	} {
		if got := quantity.Metric.Text(c.item.Text()); got != c.metric {
			t.Errorf("%q, want %q", got, c.metric)
		}
		if got := (quantity.Style{Imperial: true}).Text(c.item.Text()); got != c.feet {
			t.Errorf("%q, want %q", got, c.feet)
		}
	}
}
