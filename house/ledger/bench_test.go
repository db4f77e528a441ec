package ledger_test

import (
	"context"
	"fmt"
	"testing"

	"mezzadro/core/estimate"
	"mezzadro/core/quantity"
	"mezzadro/house/garden"
	"mezzadro/house/housetest"
	"mezzadro/house/ledger"
	"mezzadro/house/work"
	"mezzadro/store"
)

// BenchmarkOverview: the ledger of 200 properties with ten jobs done and one estimate sent each.
func BenchmarkOverview(b *testing.B) {
	k := housetest.Open(b)
	ctx := context.Background()
	r := ledger.Rates{Rates: estimate.Rates{Currency: "EUR", Hour: 4000, Visit: 2500, WasteM3: 2800, Tax: 2200, ValidDays: 30, Plans: "all"}}
	if _, err := k.Ledger.SetRates(ctx, store.Key{}, r); err != nil {
		b.Fatal(err)
	}
	for n := range 200 {
		p, err := k.Garden.AddProperty(ctx, store.Key{}, garden.PropertyIn{Name: fmt.Sprint("Garden ", n), ClimateType: "lake-foothills"})
		p = housetest.Must(b, p, err)
		for i := range 11 {
			o, err := k.Work.AddOrder(ctx, store.Key{}, work.HandOrder{PropertyID: p.ID, Title: fmt.Sprint("Job ", i), Minutes: 40, Spans: []work.SpanIn{{From: k.On, To: k.On + 30}}})
			o = housetest.Must(b, o, err)
			if i == 10 {
				break
			}
			if _, err := k.Work.TickOff(ctx, store.Key{}, o.ID, work.TickOffIn{State: "done", Took: 35, Version: o.Version}); err != nil {
				b.Fatal(err)
			}
		}
		e, err := k.Ledger.AddEstimate(ctx, store.Key{}, ledger.EstimateIn{PropertyID: p.ID}, quantity.Metric)
		e = housetest.Must(b, e, err)
		if _, err := k.Ledger.Send(ctx, store.Key{}, e.ID, e.Version); err != nil {
			b.Fatal(err)
		}
	}
	for b.Loop() {
		if o, err := k.Ledger.Overview(ctx); err != nil || len(o.Waiting) != 200 || len(o.Open) != 200 {
			b.Fatal(len(o.Waiting), len(o.Open), err)
		}
	}
}
