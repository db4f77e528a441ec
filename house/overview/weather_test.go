package overview_test

import (
	"context"
	"math"
	"testing"
	"time"

	"mezzadro/core/day"
	"mezzadro/core/weather"
	"mezzadro/house/garden"
	"mezzadro/house/housetest"
	"mezzadro/store"
)

// told is a run of hours of one temperature from the first hour of a day on.
func told(from day.Day, hours int, tempC float64, here bool) []weather.Hour {
	out := make([]weather.Hour, hours)
	for i := range out {
		out[i] = weather.Hour{Time: from.Time().Add(time.Duration(i) * time.Hour), TempC: tempC, WindMS: 3, RainMM: 0, RHPct: 80, Sun: math.NaN(), Here: here}
		if here {
			out[i].WindMS = math.NaN() // a logger has no wind
		}
	}
	return out
}

// TestStationBesideLogger: a freeze that the garden's own logger measured stays when the station is read after it; the station
// fills what the logger did not measure; taken back, what lies beneath counts again.
func TestStationBesideLogger(t *testing.T) {
	k := housetest.Open(t)
	ctx := context.Background()
	p := k.Property("Dune Row", "lake-foothills")
	feb := day.Of(2027, 2, 26)
	logger, err := k.Overview.TakeWeather(ctx, store.Key{}, p.ID, "logger.csv", told(feb, 24, -9, true))
	housetest.Must(t, logger, err)
	station := store.SourceIn{Name: "station", Rank: store.OfTheRegion}
	read := func() {
		if err := k.Estate.Store.Write(ctx, func(tx store.Tx) error {
			_, err := tx.KeepWeather(ctx, p.ID, station, told(feb-2, 96, 1, false))
			return err
		}); err != nil {
			t.Fatal(err)
		}
	}
	read()
	hours := func() []weather.Hour {
		_, h, err := k.Estate.Hours(ctx, p.ID)
		return housetest.Must(t, h, err)
	}
	got := hours()
	if len(got) != 96 {
		t.Fatalf("%d hours, want the station's four days", len(got))
	}
	for _, h := range got {
		d := day.FromTime(h.Time)
		switch {
		case d == feb && (h.TempC != -9 || !h.Here):
			t.Fatalf("the station wrote over the garden's freeze: %+v", h)
		case d == feb && h.WindMS != 3:
			t.Fatalf("the station does not fill the wind: %+v", h)
		case d != feb && (h.TempC != 1 || h.Here):
			t.Fatalf("outside the logger's day: %+v", h)
		}
	}
	pl, err := k.Estate.Place(ctx, p.ID)
	housetest.Must(t, pl, err)
	if s := pl.TellSeason(); len(s.Sources) != 2 || s.Sources[0].Name != "logger.csv" || s.Sources[0].Rank != 2 || s.Sources[1].Hours != 96 ||
		s.SeenBy[feb-s.From] != 2 || s.SeenBy[feb-s.From-1] != 1 || s.SeenBy[0] != 0 {
		t.Errorf("told: %+v", s.Sources)
	}
	id := pl.Sources[0].ID
	if err := k.Overview.TakeBackSource(ctx, store.Key{}, p.ID, id, false); err != nil {
		t.Fatal(err)
	}
	for _, h := range hours() {
		if h.TempC != 1 {
			t.Fatalf("the logger's file was taken back: %+v", h)
		}
	}
	if err := k.Overview.TakeBackSource(ctx, store.Key{}, p.ID, id, true); err != nil {
		t.Fatal(err)
	}
	read()
	if h := hours(); h[48].TempC != -9 {
		t.Errorf("brought back: %+v", h[48])
	}
	if err := k.Overview.TakeBackSource(ctx, store.Key{}, p.ID+1, id, false); err == nil {
		t.Error("a source of another property is taken back")
	}
}

// TestMovedProperty: what the station told of the old place is no weather of the new one; what was measured in the garden is.
func TestMovedProperty(t *testing.T) {
	k := housetest.Open(t)
	ctx := context.Background()
	p := k.Property("Dune Row", "lake-foothills")
	feb := day.Of(2027, 2, 26)
	if _, err := k.Overview.TakeWeather(ctx, store.Key{}, p.ID, "", told(feb, 24, -9, true)); err != nil {
		t.Fatal(err)
	}
	if err := k.Estate.Store.Write(ctx, func(tx store.Tx) error {
		_, err := tx.KeepWeather(ctx, p.ID, store.SourceIn{Name: "station", Rank: store.OfTheRegion}, told(feb-2, 96, 1, false))
		return err
	}); err != nil {
		t.Fatal(err)
	}
	change := func(lat float64) int {
		now, err := k.Garden.Property(ctx, p.ID)
		housetest.Must(t, now, err)
		now, err = k.Garden.ChangeProperty(ctx, store.Key{}, p.ID, garden.PropertyIn{Name: "Dune Row", ClimateType: "lake-foothills", Latitude: &lat, Version: now.Version})
		housetest.Must(t, now, err)
		_, hours, err := k.Estate.Hours(ctx, p.ID)
		return len(housetest.Must(t, hours, err))
	}
	if n := change(p.Climate.Latitude + 0.001); n != 96 {
		t.Errorf("corrected by a hundred metres: %d hours are left, want 96", n)
	}
	if n := change(p.Climate.Latitude + 0.5); n != 24 {
		t.Errorf("moved: %d hours are left, want the garden's own 24", n)
	}
}
