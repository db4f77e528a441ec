package standin

import (
	"context"
	"fmt"
	"math"
	"net/http"
	"net/http/httptest"
	"strings"
	"testing"
	"time"

	"mezzadro/core/catalogue"
	"mezzadro/core/day"
	"mezzadro/core/season"
	"mezzadro/core/weather"
	"mezzadro/exchange"
)

func station(t testing.TB) *WeatherStation {
	t.Helper()
	s := &WeatherStation{Seed: 5}
	for _, c := range catalogue.Built().Climates {
		s.Climates = append(s.Climates, c.Climate)
	}
	return s
}

func read(t testing.TB, s http.Handler, elevation float64, from, to day.Day) []weather.Hour {
	t.Helper()
	srv := httptest.NewServer(s)
	defer srv.Close()
	hours, _, err := exchange.Station{URL: srv.URL, Client: srv.Client()}.Hours(context.Background(), 45.9, 8.6, elevation, from, to)
	if err != nil {
		t.Fatal(err)
	}
	return hours
}

func TestRepeatsBySeedAndDay(t *testing.T) {
	s := station(t)
	if err := s.Write(Event{Kind: "freeze", From: day.Of(2027, 2, 25), To: day.Of(2027, 2, 26), Value: -11, Wind: 5}); err != nil {
		t.Fatal(err)
	}
	long := read(t, s, 210, day.Of(2026, 11, 1), day.Of(2027, 3, 18))
	if len(long) != 138*24 {
		t.Fatalf("%d hours for 138 days", len(long))
	}
	byTime := map[time.Time]weather.Hour{}
	for _, h := range long {
		byTime[h.Time] = h
	}
	for _, h := range read(t, s, 210, day.Of(2027, 2, 24), day.Of(2027, 2, 28)) {
		if o := byTime[h.Time]; math.Abs(o.TempC-h.TempC) > 0.11 || o.Sun != h.Sun {
			t.Fatalf("%s: %+v, asked in a longer stretch %+v", h.Time, h, o)
		}
	}
}

func TestWrittenFreezeIsFound(t *testing.T) {
	s := station(t)
	normals := s.nearest(45.9, 8.6).Daily()
	span := func(s *WeatherStation, elevation float64) (found []weather.Event) {
		for _, e := range weather.Find(read(t, s, elevation, day.Of(2027, 2, 10), day.Of(2027, 3, 18)), normals, time.UTC, weather.LimitsOf(normals)) {
			if e.Cold() {
				found = append(found, e)
			}
		}
		return found
	}
	before := len(span(s, 210))
	if err := s.Write(Event{Kind: "freeze", From: day.Of(2027, 2, 25), To: day.Of(2027, 2, 26), Value: -11, Wind: 5}); err != nil {
		t.Fatal(err)
	}
	found := span(s, 210)
	if len(found) != before+1 {
		t.Fatalf("%d freezes, %d before", len(found), before)
	}
	f := found[len(found)-1]
	if math.Abs(f.Value+11) > 0.15 || f.FallC < 6 {
		t.Errorf("written -11 °C, found %+v", f)
	}
	if high := span(s, 480); math.Abs(high[len(high)-1].Value-(-11-0.27*season.LapsePerKm)) > 0.15 {
		t.Errorf("270 m higher the freeze is %.1f °C", high[len(high)-1].Value)
	}
}

func TestEventsStayInTheirCountry(t *testing.T) {
	s := station(t)
	far := func() float64 {
		low := 99.0
		for _, h := range s.Hours(30, -90, 5, day.Of(2027, 2, 24), day.Of(2027, 2, 28)) {
			low = min(low, *h.TempC)
		}
		return low
	}
	before := far()
	e := Event{Kind: "freeze", From: day.Of(2027, 2, 25), To: day.Of(2027, 2, 26), Value: -11, Near: &Near{45.9, 8.6, 300}}
	if err := s.Write(e); err != nil {
		t.Fatal(err)
	}
	if after := far(); after != before {
		t.Errorf("a freeze in the foothills changes the gulf coast from %.1f to %.1f °C", before, after)
	}
	e.Near = nil
	if err := s.Write(e); err != nil {
		t.Fatal(err)
	}
	if after := far(); after >= before {
		t.Errorf("a freeze everywhere leaves the gulf coast at %.1f °C", after)
	}
	if d := apart(0, 0, 0, 90); math.Abs(d-10007.5) > 1 {
		t.Errorf("a quarter of the way round is %.1f km", d)
	}
}

func TestBadRequests(t *testing.T) {
	srv := httptest.NewServer(station(t))
	defer srv.Close()
	for query, want := range map[string]string{
		"":                       "latitude",
		"latitude=x&longitude=1": "latitude",
		"latitude=80&longitude=1&elevation_m=0&from=2027-01-01&to=2027-01-02": "no gardens",
		"latitude=45&longitude=8&elevation_m=0&from=2027-02-30&to=2027-03-01": "from",
		"latitude=45&longitude=8&elevation_m=0&from=2027-03-01&to=2027-02-01": "to",
	} {
		res, err := http.Get(srv.URL + "/hours?" + query)
		if err != nil {
			t.Fatal(err)
		}
		b := make([]byte, 200)
		n, _ := res.Body.Read(b)
		res.Body.Close()
		if res.StatusCode != 400 || !strings.Contains(string(b[:n]), want) {
			t.Errorf("%q: %s %s", query, res.Status, b[:n])
		}
	}
	for body, want := range map[string]int{
		`{"kind":"freeze","from":"2027-02-25","to":"2027-02-26","value_c":-9}`:                         204,
		`{"kind":"snow","from":"2027-02-25","to":"2027-02-26","value_c":-9}`:                           400,
		`{"kind":"shift","from":"2027-02-25","to":"2027-01-26","value_c":-9}`:                          400,
		`{"kind":"shift","from":"2027-07-25","to":"2027-07-26","value_c":9,"wind_ms":12,"rain_mm":40}`: 204,
		`{"kind":"shift","from":"2027-07-25","to":"2027-07-26","value_c":9,"rain_mm":4000}`:            400,
		`{"kind":`: 400,
	} {
		res, err := http.Post(srv.URL+"/events", "application/json", strings.NewReader(body))
		if err != nil {
			t.Fatal(err)
		}
		res.Body.Close()
		if res.StatusCode != want {
			t.Errorf("%s: %s", body, res.Status)
		}
	}
}

func BenchmarkHoursOfAYear(b *testing.B) {
	s := station(b)
	for b.Loop() {
		if n := len(s.Hours(45.9, 8.6, 210, day.Of(2026, 1, 1), day.Of(2026, 12, 31))); n != 8760 {
			b.Fatal(fmt.Sprint(n))
		}
	}
}
