package learn_test

import (
	"context"
	"testing"
	"time"

	"mezzadro/core/weather"
	"mezzadro/house/housetest"
	"mezzadro/store"
)

// TestNightsOfTheRecord: what was told each morning is kept, and held against the hours that came: a station that
// tells each night two degrees too warm is seen to, and to miss the frost; what has not come yet is not counted.
func TestNightsOfTheRecord(t *testing.T) {
	k, ctx := housetest.Open(t), context.Background()
	p := k.Property("Villa Orba", "lake-foothills")
	first, days := k.On, []weather.DayMeasured{}
	for d := first; d < first+10; d++ {
		days = append(days, weather.DayMeasured{Day: d, MinC: 5, MaxC: 15, WindMS: 2, RHPct: 70})
	}
	days[6].MinC = -1
	for d := first; d < first+8; d++ {
		rows := []store.Outlook{}
		for _, m := range days[d-first : min(10, int(d-first)+5)] {
			rows = append(
				rows,
				store.Outlook{
					PropertyID: p.ID,
					Day:        m.Day.String(),
					ToldOn:     d.String(),
					MinC:       m.MinC + 2,
					MaxC:       15,
					Source:     "Station",
				},
			)
		}
		if err := k.Estate.Store.WriteQuietly(ctx, func(tx store.Tx) error { return tx.SetOutlook(ctx, p.ID, rows) }); err != nil {
			t.Fatal(err)
		}
	}
	hours := weather.OfDays(days, p.Climate.Latitude, p.Climate.Longitude, time.UTC)
	if _, err := k.Overview.TakeWeather(ctx, store.Key{}, p.ID, "Station", hours); err != nil {
		t.Fatal(err)
	}
	if out, err := k.Learn.Nights(ctx); err != nil || len(out.Scores) != 0 {
		t.Errorf("before any night has come: %+v, %v", out, err)
	}
	k.On = first + 12
	out, err := k.Learn.Nights(ctx)
	if out = housetest.Must(t, out, err); len(out.Scores) == 0 {
		t.Fatal("nothing is told of the nights")
	}
	missed := 0
	for _, s := range out.Scores {
		if s.BiasC < 1.4 || s.BiasC > 2.6 || s.Nights == 0 {
			t.Errorf("two degrees too warm: %+v", s)
		}
		missed += s.Missed
	}
	if out.Scores[0].From != 1 || out.Scores[0].Missed != 1 || missed < 3 {
		t.Errorf("the frost of the seventh day, told four times: %+v", out.Scores)
	}
}
