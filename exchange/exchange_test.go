package exchange

import (
	"bytes"
	"context"
	"fmt"
	"math"
	"net/http"
	"net/http/httptest"
	"strings"
	"testing"
	"time"

	ics "github.com/arran4/golang-ical"

	"mezzadro/core/day"
)

const good = "time,temp_c,wind_ms\n2027-02-26T05:00Z,-10.8,4\n2027-02-26T04:00:00+01:00,-9,\n"

func TestReadWeatherCSV(t *testing.T) {
	hours, err := ReadWeatherCSV(strings.NewReader(strings.ReplaceAll(good, "05:00Z", "05:00")))
	if err != nil {
		t.Fatal(err)
	}
	if len(hours) != 2 || hours[0].TempC != -9 || hours[0].Time.Hour() != 3 || hours[1].WindMS != 4 ||
		!math.IsNaN(hours[0].WindMS) || !math.IsNaN(hours[1].Sun) {
		t.Errorf("%+v", hours)
	}
	for _, c := range []struct{ name, in, want string }{
		{"empty", "", "line 1: the file is empty"},
		{"header only", "time,temp_c\n", "line 2: there is no hour"},
		{"no temperature column", "time,wind_ms\n2027-02-26T05:00,3\n", "line 1: column temp_c is missing"},
		{"unknown column", "time,temp_c,mood\n", `"mood" is no column`},
		{"broken number", "time,temp_c\n2027-02-26T05:00,-9\n2027-02-26T06:00,cold\n", `line 3: temp_c: "cold" is no number`},
		{"no number", "time,temp_c\n2027-02-26T05:00,NaN\n", "line 2: temp_c: NaN"},
		{"hot", "time,temp_c\n2027-02-26T05:00,99\n", "line 2: temp_c: 99 °C is outside"},
		{"a date that is none", "time,temp_c\n2027-02-30T05:00,-9\n", `line 2: time: "2027-02-30T05:00" is no time`},
		{"cell missing", "time,temp_c\n2027-02-26T05:00\n", "line 2: has 1 cells, the header 2"},
		{"temperature missing", "time,temp_c\n2027-02-26T05:00,\n", "line 2: temp_c: is missing"},
		{"hour twice", "time,temp_c\n2027-02-26T05:00,-9\n2027-02-26T05:20,-9\n", "line 3: time: the hour"},
		{"open quote", "time,temp_c\n\"2027-02-26T05:00,-9\n", "line"},
	} {
		hours, err := ReadWeatherCSV(strings.NewReader(c.in))
		if err == nil || !strings.Contains(err.Error(), c.want) || hours != nil {
			t.Errorf("%s: %v, %v", c.name, hours, err)
		}
	}
	many := "time,temp_c\n" + strings.Repeat("x,y\n", 100)
	if _, err := ReadWeatherCSV(strings.NewReader(many)); strings.Count(err.Error(), "line ") > 25 {
		t.Errorf("a hundred broken lines make a message of %d bytes", len(err.Error()))
	}
}

func TestWeatherCSVRoundTrip(t *testing.T) {
	hours, err := ReadWeatherCSV(strings.NewReader(good))
	if err != nil {
		t.Fatal(err)
	}
	var b bytes.Buffer
	if err := WriteWeatherCSV(&b, hours); err != nil {
		t.Fatal(err)
	}
	again, err := ReadWeatherCSV(&b)
	if err != nil || fmt.Sprint(again) != fmt.Sprint(hours) {
		t.Errorf("%v came back as %v (%v)", hours, again, err)
	}
}

func FuzzReadWeatherCSV(f *testing.F) {
	f.Add(good)
	f.Add("time,temp_c\n\"")
	f.Fuzz(func(t *testing.T, s string) {
		hours, err := ReadWeatherCSV(strings.NewReader(s))
		if (err == nil) == (len(hours) == 0) {
			t.Errorf("%d hours with error %v", len(hours), err)
		}
		for i, h := range hours {
			if math.IsNaN(h.TempC) || h.TempC < -60 || h.TempC > 60 || i > 0 && !h.Time.After(hours[i-1].Time) {
				t.Errorf("hour %d: %+v", i, h)
			}
		}
	})
}

func TestStation(t *testing.T) {
	for _, c := range []struct {
		name, reply string
		status      int
		want        string
	}{
		{"good", `{"simulated":true,"hours":[{"time":"2027-02-26T05:00:00Z","temp_c":-10.8}]}`, 200, ""},
		{"down", "under repair", 503, "503"},
		{"nonsense", `<html>`, 200, "cannot be read"},
		{"no temperature", `{"hours":[{"time":"2027-02-26T05:00:00Z"}]}`, 200, "hour 1"},
	} {
		srv := httptest.NewServer(http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
			if r.URL.Path != "/hours" || r.URL.Query().Get("from") != "2027-02-26" || r.URL.Query().Get("elevation_m") != "210" {
				t.Errorf("asked for %s", r.URL)
			}
			w.WriteHeader(c.status)
			fmt.Fprint(w, c.reply)
		}))
		hours, source, err := Station{srv.URL, srv.Client()}.Hours(context.Background(), 45.9, 8.6, 210, day.Of(2027, 2, 26), day.Of(2027, 2, 26))
		srv.Close()
		if c.want == "" {
			if err != nil || len(hours) != 1 || hours[0].TempC != -10.8 || !strings.Contains(source, "simulated") {
				t.Errorf("%s: %v, %q, %v", c.name, hours, source, err)
			}
		} else if err == nil || !strings.Contains(err.Error(), c.want) {
			t.Errorf("%s: %v", c.name, err)
		}
	}
}

func TestCalendar(t *testing.T) {
	text := Calendar("Round", time.Date(2027, 3, 18, 6, 0, 0, 0, time.UTC), []Entry{
		{ID: 7, Day: day.Of(2027, 4, 24), Title: "Look again at Common camellia; Villa", Place: "Villa Arvenna, lake road", Detail: []string{"10 min", "Kit: knife"}, Minutes: 10, StartMinute: 480},
	})
	c, err := ics.ParseCalendar(strings.NewReader(text))
	if err != nil || len(c.Events()) != 1 {
		t.Fatalf("%v\n%s", err, text)
	}
	for _, want := range []string{"DTSTART:20270424T080000\r\n", "DTEND:20270424T081000\r\n", "UID:job-7@mezzadro", `SUMMARY:Look again at Common camellia\; Villa`, `10 min\nKit: knife`} {
		if !strings.Contains(text, want) {
			t.Errorf("the calendar lacks %q:\n%s", want, text)
		}
	}
}
