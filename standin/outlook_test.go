package standin

import (
	"context"
	"errors"
	"net/http"
	"net/http/httptest"
	"strings"
	"testing"

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
