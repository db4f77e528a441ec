package standin

import (
	"context"
	"errors"
	"fmt"
	"math"
	"net/http"
	"net/http/httptest"
	"slices"
	"strings"
	"testing"
	"time"

	"mezzadro/core/day"
	"mezzadro/exchange"
)

// TestOutlook: what is told of the days ahead comes true, to the tenth, and says that it is simulated; a storm that is
// written in shows on its day.
func TestOutlook(t *testing.T) {
	s := station(t)
	from := day.Of(2027, 5, 10)
	if err := s.Write(Event{Kind: "shift", From: from + 2, To: from + 2, Wind: 14, Rain: 30}); err != nil {
		t.Fatal(err)
	}
	srv := httptest.NewServer(s)
	defer srv.Close()
	ahead, source, err := exchange.Station{URL: srv.URL, Client: srv.Client()}.Outlook(context.Background(), 45.9, 0, 300, from, from+20)
	if err != nil || len(ahead) != outlookDays || !strings.Contains(source, "simulated") {
		t.Fatalf("%d days from %q: %v", len(ahead), source, err)
	}
	for _, d := range ahead {
		rain, low := 0.0, 99.0
		for _, h := range s.Hours(45.9, 0, 300, d.Day, d.Day) {
			rain += *h.RainMM
			low = min(low, *h.TempC)
		}
		if rain-d.RainMM > 0.11 || d.RainMM-rain > 0.11 || low != d.MinC || d.MaxC < d.MinC {
			t.Errorf("%s: told %+v, came rain %.1f, low %.1f", d.Day, d, rain, low)
		}
	}
	if storm, calm := ahead[2], ahead[6]; storm.RainMM < 25 || storm.WindMS < 14 || calm.WindMS > 12 {
		t.Errorf("the storm: %+v; calm: %+v", storm, calm)
	}
}

// TestNoOutlook: a station that only measures says so; one that tells what cannot be is refused by name.
func TestNoOutlook(t *testing.T) {
	ask := func(answer string, code int) error {
		srv := httptest.NewServer(http.HandlerFunc(func(w http.ResponseWriter, _ *http.Request) {
			w.WriteHeader(code)
			_, _ = w.Write([]byte(answer))
		}))
		defer srv.Close()
		d := day.Of(2027, 5, 10)
		_, _, err := exchange.Station{URL: srv.URL, Client: srv.Client()}.Outlook(context.Background(), 45.9, 8.6, 300, d, d+6)
		return err
	}
	if err := ask("not here", 404); !errors.Is(err, exchange.ErrNoOutlook) {
		t.Errorf("a station that only measures: %v", err)
	}
	for answer, says := range map[string]string{
		`{"days":[{"day":"2027-05-11","rain_mm":-999,"max_c":9}]}`: "rain_mm -999",
		`{"days":[{"day":"2027-05-11","min_c":9,"max_c":-3}]}`:     "max_c -3",
		`{"days":[{"day":"2027-06-11","max_c":9}]}`:                "not asked for",
		`<html>`: "cannot be read",
	} {
		if err := ask(answer, 200); err == nil || !strings.Contains(err.Error(), says) {
			t.Errorf("%s: %v", answer, err)
		}
	}
}

// TestItErrsAsRealOnesDo: the lows of the next day are told to a degree or so, those of nine days ahead to four or five;
// what is told gets better day by day, leans to neither side, misses some rain of the week's end and little of
// tomorrow's, and is the same when asked again.
func TestItErrsAsRealOnesDo(t *testing.T) {
	s := station(t)
	s.Errs = true
	const n = 300
	var square, sum [erringDays]float64
	var wet, missed [erringDays]int
	for from := day.Of(2026, 1, 1); from < day.Of(2026, 1, 1)+n; from++ {
		told, came := s.Outlook(45.9, 8.6, 300, from, from+20), s.truly(45.9, 8.6, 300, from, from+erringDays-1)
		if len(told) != erringDays {
			t.Fatalf("%d days are told", len(told))
		}
		for lead, d := range told {
			if d.Day != from+day.Day(lead) || d.MaxC < d.MinC || d.RainMM < 0 || d.WindMS < 0 {
				t.Fatalf("told of %s: %+v", from, d)
			}
			off := d.MinC - came[lead].MinC
			square[lead], sum[lead] = square[lead]+off*off, sum[lead]+off
			if came[lead].RainMM >= 4 {
				wet[lead]++
				if d.RainMM < 2 {
					missed[lead]++
				}
			}
		}
	}
	for lead := range square {
		sd, lean := math.Sqrt(square[lead]/n), sum[lead]/n
		t.Logf("%d days ahead: lows off by %.1f °C, %d of %d wet days missed", lead, sd, missed[lead], wet[lead])
		if math.Abs(lean) > 0.25*sd+0.1 {
			t.Errorf("%d days ahead lows lean by %.2f °C", lead, lean)
		}
		if lead > 0 && sd <= math.Sqrt(square[lead-1]/n) {
			t.Errorf("%d days ahead is told better than %d", lead, lead-1)
		}
	}
	if next := math.Sqrt(square[1] / n); next < 0.9 || next > 2 {
		t.Errorf("lows of the next day are off by %.1f °C", next)
	}
	if far := math.Sqrt(square[erringDays-1] / n); far < 3 || far > 5 {
		t.Errorf("lows of nine days ahead are off by %.1f °C", far)
	}
	if missed[1]*20 > wet[1] || missed[8]*10 < wet[8] {
		t.Errorf("missed %d of %d wet days tomorrow, %d of %d eight days ahead", missed[1], wet[1], missed[8], wet[8])
	}
	if a, b := s.Outlook(45.9, 8.6, 300, 20000, 20009), s.Outlook(45.9, 8.6, 300, 20000, 20009); !slices.Equal(a, b) {
		t.Error("asked again it tells something else")
	}
}

// TestOutlookByHour: a station that tells the hours to come is taken as well: days are summed up by the sun of the place, the
// wind of the working day counts, and a day of which half is told is left out.
func TestOutlookByHour(t *testing.T) {
	from := day.Of(2027, 5, 10)
	var told strings.Builder
	for i := range 60 { // two days and a half, from midnight of the sun at 90° east
		at := from.Time().Add(time.Duration(i-6) * time.Hour)
		wind := 2.0
		if i == 3 || i == 24+12 {
			wind = 9 // at three in the night, and at noon of the second day
		}
		fmt.Fprintf(&told, `,{"time": %q, "temp_c": %g, "rain_mm": 0.5, "wind_ms": %g}`, at.Format(time.RFC3339), 10+8*math.Sin(2*math.Pi*float64(i-9)/24), wind)
	}
	srv := httptest.NewServer(http.HandlerFunc(func(w http.ResponseWriter, _ *http.Request) {
		if _, err := w.Write([]byte(`{"simulated": true, "hours": [` + told.String()[1:] + `]}`)); err != nil {
			t.Error(err)
		}
	}))
	defer srv.Close()
	got, _, err := exchange.Station{URL: srv.URL, Client: srv.Client()}.Outlook(context.Background(), 45.9, 90, 300, from, from+9)
	if err != nil || len(got) != 2 {
		t.Fatalf("%+v, %v", got, err)
	}
	for i, d := range got {
		if d.Day != from+day.Day(i) || math.Abs(d.MinC-2) > 0.01 || math.Abs(d.MaxC-18) > 0.01 || math.Abs(d.RainMM-12) > 1e-9 {
			t.Errorf("day %d: %+v", i, d)
		}
	}
	if got[0].WindMS != 2 || got[1].WindMS != 9 {
		t.Errorf("wind: %+v", got)
	}
}
