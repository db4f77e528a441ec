package exchange

import (
	"math"
	"strings"
	"testing"
	"time"
)

func zoneOf(t *testing.T, name string) *time.Location {
	t.Helper()
	z, err := time.LoadLocation(name)
	if err != nil {
		t.Fatal(err)
	}
	return z
}

// TestWeatherTables: hours as loggers and spreadsheets of several regions write them, all made up, come out as what was
// measured: -5 °C at six in the morning of 27 February by the garden's clock, and no other hour or day.
func TestWeatherTables(t *testing.T) {
	chicago, melbourne, rome := "America/Chicago", "Australia/Melbourne", "Europe/Rome"
	for _, c := range []struct {
		what, zone string
		monthFirst bool
		text       string
		at         string // UTC
		temp       float64
		wind, rain float64 // NaN: not measured
		told       string
	}{
		{"a logger with its name above, Fahrenheit, twelve hours", chicago, true, "\"Garden north, serial 1042\"\n\"Date Time\",\"Temperature (°F)\",\"Dew Point (°F)\"\n" +
			"\"02/26/2027 11:00:00 PM\",\"25.0\",\"20\"\n\"02/27/2027 06:00:00 AM\",\"23.0\",\"19\"\n", "2027-02-27T12:00:00Z", -5, math.NaN(), math.NaN(), "Dew Point"},
		{"date and time apart, mph and inches", chicago, true, "Date,Time,Temp F,Wind mph,Rain in\n2/27/2027,6:00,23,10,0.10\n2/27/2027,7:00,24,10,0\n", "2027-02-27T12:00:00Z", -5, 4.4704, 2.54, "wind"},
		{"days first though the reader writes months first, as 27 can be no month", melbourne, true, "Date,Temp (C),Wind (km/h)\n27/02/2027 06:00,-5,18\n28/02/2027 06:00,-4,18\n", "2027-02-26T19:00:00Z", -5, 5, math.NaN(), "day before month"},
		{"semicolons and decimal commas", rome, false, "Zeit;Temp (°C)\n", "", 0, 0, 0, ""},
		{"semicolons and decimal commas, dots in dates", rome, false, "Date time;Temperature °C;Humidity %\n27.02.2027 06:00;-5,0;80\n27.02.2027 07:00;-4,5;80\n", "2027-02-27T05:00:00Z", -5, math.NaN(), math.NaN(), "Europe/Rome"},
		{"every quarter of an hour", rome, false, "Timestamp,Temp_C,Rain_mm\n2027-02-27 06:00,-5.2,0.5\n2027-02-27 06:15,-5.1,0.5\n2027-02-27 06:30,-4.9,0\n2027-02-27 06:45,-4.8,0\n", "2027-02-27T05:00:00Z", -5, math.NaN(), 1, "4 readings an hour"},
		{"a clock that says its zone", rome, false, "Date Time (GMT-06:00),Temp °C\n2027-02-27 06:00:00,-5\n", "2027-02-27T12:00:00Z", -5, math.NaN(), math.NaN(), "GMT-06:00"},
		{"tabs, UTC said", chicago, false, "time (UTC)\ttemp (°F)\n2027-02-27 06:00\t23\n", "2027-02-27T06:00:00Z", -5, math.NaN(), math.NaN(), "UTC"},
		{"the unit in words", rome, false, "Date,Temperature in °C,Rain in inches,RH\n2027-02-27 06:00,-5,0.1,80\n", "2027-02-27T05:00:00Z", -5, math.NaN(), 2.54, "RH: taken as humidity"},
		{"months as words", chicago, true, "Date & Time,Outdoor Temperature (F),Indoor Temperature (F)\n\"Feb 27, 2027 6:00 AM\",23,68\n", "2027-02-27T12:00:00Z", -5, math.NaN(), math.NaN(), "Indoor Temperature"},
	} {
		hours, read, err := ReadWeather(strings.NewReader(c.text), Clock{Zone: zoneOf(t, c.zone), MonthFirst: c.monthFirst})
		if c.at == "" {
			if err == nil {
				t.Errorf("%s: taken as %v", c.what, hours)
			}
			continue
		}
		if err != nil {
			t.Errorf("%s: %v", c.what, err)
			continue
		}
		want, _ := time.Parse(time.RFC3339, c.at)
		found := false
		for _, h := range hours {
			if !h.Time.Equal(want) {
				continue
			}
			found = true
			same := func(got, want float64) bool {
				return math.IsNaN(got) && math.IsNaN(want) || math.Abs(got-want) < 1e-3
			}
			if !same(h.TempC, c.temp) || !same(h.WindMS, c.wind) || !same(h.RainMM, c.rain) {
				t.Errorf("%s: %+v", c.what, h)
			}
		}
		if !found {
			t.Errorf("%s: no hour %s, but %v", c.what, c.at, hours)
		}
		if all := strings.Join(read, "\n"); !strings.Contains(all, c.told) {
			t.Errorf("%s: it is told %q, and not %q", c.what, all, c.told)
		}
	}
}

// TestWeatherTableRefused: what could be read two ways is not read in one of them in silence.
func TestWeatherTableRefused(t *testing.T) {
	for says, text := range map[string]string{
		"does not say":     "Date,Time,Temperature\n2027-02-27,06:00,-5\n",
		"no column of tem": "Date,Rain (mm)\n2027-02-27 06:00,2\n",
		"no column of tim": "Temp (°C),Rain (mm)\n-5,2\n",
		"is no time":       "Date,Temp (°C)\nyesterday,2\n",
		"is no number":     "Date,Temp (°C)\n2027-02-27 06:00,cold\n",
		"is outside":       "Date,Temp (°C)\n2027-02-27 06:00,233\n",
		"by days":          "Date,Temp (°C)\n2027-02-27,2\n2027-02-28,3\n",
	} {
		_, _, err := ReadWeather(strings.NewReader(text), Clock{Zone: time.UTC})
		if err == nil || !strings.Contains(err.Error(), says) {
			t.Errorf("%q: %v, want it to say %q", text, err, says)
		}
	}
	for _, text := range []string{"time,temp_c\n2027-02-27T05:00Z,-5\n", "time;temp_c\n2027-02-27T05:00;-5,0\n", "TEMP_C,Time,rh_pct\n-5,2027-02-27T05:00,80\n"} {
		hours, read, err := ReadWeather(strings.NewReader(text), Clock{Zone: zoneOf(t, "Australia/Melbourne")})
		if err != nil || len(hours) != 1 || hours[0].Time.Hour() != 5 || len(read) != 0 {
			t.Errorf("the program's own form, %q: %v %v %v", text, hours, read, err)
		}
	}
}

// TestWeatherByDays: tables of days, as official stations and spreadsheets write them, all made up, come out as hours that
// keep each day's lowest and highest by the garden's clock, and it is said that they are made up.
func TestWeatherByDays(t *testing.T) {
	for what, c := range map[string]struct {
		zone, text string
		low, high  float64
	}{
		"min and max, metric":          {"Europe/Rome", "Date;Tmin (°C);Tmax (°C);Rain (mm)\n26.02.2027;-11,0;-2,0;0\n27.02.2027;-8,5;1,5;0\n", -11, -2},
		"lows and highs, Fahrenheit":   {"America/Chicago", "Date,High (°F),Low (°F),Precip (in)\n2/26/2027,28.4,12.2,0\n2/27/2027,30,17,0\n", -11, -2},
		"the longest words":            {"Australia/Melbourne", "Day,Minimum temperature (°C),Maximum temperature (°C)\n2027-02-26,-11,-2\n2027-02-27,-8,1\n", -11, -2},
		"with the mean of the day":     {"Europe/Rome", "date,mean temp (°C),min temp (°C),max temp (°C)\n2027-02-26,-7,-11,-2\n2027-02-27,-3,-8,1\n", -11, -2},
		"a dew point and a low for it": {"Europe/Rome", "Date,Low dew point (°C),Low (°C),High (°C)\n2027-02-26,-20,-11,-2\n2027-02-27,-20,-8,1\n", -11, -2},
	} {
		zone := zoneOf(t, c.zone)
		hours, read, err := ReadWeather(strings.NewReader(c.text), Clock{Zone: zone, MonthFirst: c.zone == "America/Chicago", Latitude: 45, Longitude: 9})
		if err != nil || len(hours) != 48 {
			t.Errorf("%s: %d hours, %v", what, len(hours), err)
			continue
		}
		low, high := math.Inf(1), math.Inf(-1)
		for _, h := range hours {
			if local := h.Time.In(zone); local.Day() == 26 {
				low, high = min(low, h.TempC), max(high, h.TempC)
			}
		}
		if math.Abs(low-c.low) > 0.01 || math.Abs(high-c.high) > 0.01 || !strings.Contains(strings.Join(read, "; "), "made up, an estimate") {
			t.Errorf("%s: %.2f to %.2f °C, %q", what, low, high, read)
		}
	}
}

// TestColumnsToldByHand: a table whose names say nothing is read as it was told, in its units and by its clock; what cannot
// be is named, and the next file with such a header is known.
func TestColumnsToldByHand(t *testing.T) {
	file := "Station 7\nLogged;A1;A2;Wet\n27.02.2027 06:00;23;10;0,1\n27.02.2027 07:00;24;10;0\n"
	asked, err := AskColumns([]byte(file))
	if err != nil || len(asked.Names) != 4 || len(asked.Samples) != 2 || asked.Samples[0][1] != "23" {
		t.Fatalf("%+v, %v", asked, err)
	}
	told := Matching{[]string{"when", "temp_f", "wind_mph", "rain_in"}, "UTC"}
	clock := Clock{Zone: zoneOf(t, "America/Chicago"), Match: func(header string) *Matching {
		if header == asked.Header {
			return &told
		}
		return nil
	}}
	hours, read, err := ReadWeather(strings.NewReader(file), clock)
	if err != nil || len(hours) != 2 {
		t.Fatalf("%v, %v", hours, err)
	}
	if h := hours[0]; h.Time.Hour() != 6 || math.Abs(h.TempC+5) > 1e-3 || math.Abs(h.WindMS-4.4704) > 1e-3 || math.Abs(h.RainMM-2.54) > 1e-3 {
		t.Errorf("%+v", h)
	}
	if !strings.Contains(strings.Join(read, "; "), "told by hand") {
		t.Errorf("it is told %q", read)
	}
	for says, m := range map[string]Matching{
		"the date and time":     {[]string{"-", "temp_c", "-", "-"}, ""},
		"holds the temperature": {[]string{"when", "low_c", "-", "-"}, ""},
		"and the file has 4":    {[]string{"when", "temp_c"}, ""},
		"already, as temp_c":    {[]string{"when", "temp_c", "temp_f", "-"}, ""},
		"can hold":              {[]string{"when", "temp_c", "pressure", "-"}, ""},
	} {
		if err := m.Validate(4); err == nil || !strings.Contains(err.Error(), says) {
			t.Errorf("%v: %v, want it to say %q", m.Columns, err, says)
		}
	}
	// What names say is filled in, and a temperature without its scale is proposed to be looked at.
	if a, err := AskColumns([]byte("Date,Temperature,Wind (km/h),Tmin,Note\n2027-02-27,-5,18,-7,x\n")); err != nil || strings.Join(a.Columns, " ") != "when temp_c wind_kmh low_c -" {
		t.Errorf("%v, %v", a.Columns, err)
	}
	if _, err := AskColumns([]byte("27.02.2027;1;2\n28.02.2027;1;2\n")); err == nil {
		t.Error("a table without names is asked about")
	}
}
