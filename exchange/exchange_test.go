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
	"unicode/utf16"

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
		{"cell missing", "time,temp_c\n2027-02-26T05:00\n", "line 2: temp_c: is missing"},
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
		if table, _, err := ReadWeather(strings.NewReader(s), Clock{Zone: time.UTC}); err == nil && len(table) == 0 {
			t.Errorf("%q: no hour, and no fault", s)
		}
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

func TestReadPlantsCSV(t *testing.T) {
	got, err := ReadPlantsCSV(strings.NewReader("Species, HEIGHT_M,note,count,mulched,pot_l\nOlive,3.5,\"By the \"\"old\"\" gate\",2,yes,40\nacer-palmatum,1,,,,\n"))
	if err != nil {
		t.Fatal(err)
	}
	want := []PlantLine{
		{Species: "Olive", HeightM: 3.5, Count: 2, PotL: 40, Shelter: 0.5, Sun: 0.6, Mulched: true, Value: 1, Note: `By the "old" gate`, Line: 2},
		{Species: "acer-palmatum", HeightM: 1, Count: 1, Shelter: 0.5, Sun: 0.6, Value: 1, Line: 3},
	}
	if fmt.Sprint(got) != fmt.Sprint(want) {
		t.Errorf("%+v", got)
	}
	for _, c := range []struct{ name, in, want string }{
		{"empty", "", "line 1: the file is empty; want a header line with species and height_m"},
		{"no height", "species\nOlive\n", "line 1: column height_m is missing"},
		{"a column twice", "species,height_m,height_m\nOlive,1,1\n", "column height_m stands there twice"},
		{"no species", "species,height_m\n,1\n", "line 2: species: is missing"},
		{"too tall", "species,height_m\nOlive,400\n", "line 2: height_m: 400 is outside what a plant may have"},
		{"half a plant", "species,height_m,count\nOlive,1,0.5\n", `line 2: count: "0.5" is no whole number`},
		{"none", "species,height_m,count\nOlive,1,0\n", `line 2: count: "0" is no whole number`},
		{"mulched by half", "species,height_m,mulched\nOlive,1,half\n", "line 2: mulched"},
		{"sun at night", "species,height_m,sun\nOlive,1,1.4\n", "line 2: sun: 1.4 is outside 0 to 1"},
	} {
		if got, err := ReadPlantsCSV(strings.NewReader(c.in)); err == nil || !strings.Contains(err.Error(), c.want) || got != nil {
			t.Errorf("%s: %v, %v", c.name, got, err)
		}
	}
}

func TestReadNormalsCSV(t *testing.T) {
	rows := "month,tmin_c,tmax_c\n"
	for m := 12; m >= 1; m-- { // in any order
		rows += fmt.Sprintf("%d,%d,%d\n", m, m-5, m+5)
	}
	n, err := ReadNormalsCSV(strings.NewReader(rows))
	if err != nil || n[0].TMinC != -4 || n[11].TMaxC != 17 || n[4].RHPct != 75 || n[4].RainMM != 60 {
		t.Errorf("%v, %v", n, err)
	}
	var b bytes.Buffer
	if err := WriteNormalsCSV(&b, n); err != nil {
		t.Fatal(err)
	}
	if again, err := ReadNormalsCSV(&b); err != nil || fmt.Sprint(again) != fmt.Sprint(n) {
		t.Errorf("came back as %v (%v)", again, err)
	}
	for want, in := range map[string]string{
		"month 12 is missing":                     strings.Replace(rows, "12,7,17\n", "", 1),
		"month 5 was already given":               rows + "5,0,1\n",
		`"13" is no month`:                        rows + "13,0,1\n",
		"tmax_c: the mean day":                    strings.Replace(rows, "6,1,11\n", "6,11,1\n", 1),
		`tmin_c: "mild" is no number`:             strings.Replace(rows, "6,1,11\n", "6,mild,11\n", 1),
		"line 1: column tmax_c is missing":        "month,tmin_c\n1,2\n",
		"line 2: there is no month after the hea": "month,tmin_c,tmax_c\n",
	} {
		if n, err := ReadNormalsCSV(strings.NewReader(in)); err == nil || !strings.Contains(err.Error(), want) || n != nil {
			t.Errorf("want %q: %v, %v", want, n, err)
		}
	}
}

func FuzzReadPlantsCSV(f *testing.F) {
	f.Add("species,height_m,label,stop\nOlive,2,\"a, b\",4\n")
	f.Add("species,height_m\nx,NaN\n")
	f.Fuzz(func(t *testing.T, s string) {
		plants, err := ReadPlantsCSV(strings.NewReader(s))
		if (err == nil) == (len(plants) == 0) {
			t.Fatalf("%d plants with error %v", len(plants), err)
		}
		for i := range plants {
			p := &plants[i]
			if !(p.HeightM >= 0.02 && p.HeightM <= 60) || p.Count < 1 || p.Species == "" || !(p.Sun >= 0 && p.Sun <= 1) {
				t.Errorf("%+v", *p)
			}
			p.Line = i + 2
		}
		if err != nil {
			return
		}
		var b bytes.Buffer
		if err := WritePlantsCSV(&b, plants); err != nil {
			t.Fatal(err)
		}
		again, err := ReadPlantsCSV(&b)
		for i := range again {
			again[i].Line = i + 2 // a line break in a cell moves the lines that follow
		}
		if err != nil || fmt.Sprint(again) != fmt.Sprint(plants) {
			t.Errorf("%+v came back as %+v (%v)", plants, again, err)
		}
	})
}

func FuzzReadNormalsCSV(f *testing.F) {
	f.Add("month,tmin_c,tmax_c,rain_mm\n1,0,5,60\n")
	f.Fuzz(func(t *testing.T, s string) {
		n, err := ReadNormalsCSV(strings.NewReader(s))
		if (err == nil) != (len(n) == 12) {
			t.Fatalf("%d months with error %v", len(n), err)
		}
		for m, x := range n {
			if !(x.TMaxC >= x.TMinC) || !(x.RHPct >= 1) {
				t.Errorf("month %d: %+v", m+1, x)
			}
		}
	})
}

// TestOddPlantsReadBack: what the record may hold comes back from its own file: a seedling, and notes in letters that take
// more than one byte each.
func TestOddPlantsReadBack(t *testing.T) {
	in := []PlantLine{{Species: "olea-europaea", HeightM: 0.01, SpreadM: 0.005, Count: 1, Value: 1, Shelter: 0.5, Sun: 0.6, Label: strings.Repeat("è", 200), Note: strings.Repeat("č", 2000)}}
	var b bytes.Buffer
	if err := WritePlantsCSV(&b, in); err != nil {
		t.Fatal(err)
	}
	out, err := ReadPlantsCSV(&b)
	if err != nil || len(out) != 1 {
		t.Fatalf("%d plants, %v", len(out), err)
	}
	out[0].Line = 0
	if out[0] != in[0] {
		t.Errorf("%+v came back as %+v", in[0], out[0])
	}
	for _, bad := range []string{"0", "-1", "61"} {
		if _, err := ReadPlantsCSV(strings.NewReader("species,height_m\nolea-europaea," + bad + "\n")); err == nil {
			t.Errorf("a height of %s was taken", bad)
		}
	}
}

// TestPlantsOfThreeSpreadsheets: the same two plants as a spreadsheet of western Europe, one that writes UTF-16 with tabs, and
// one with commas write them, with columns of their own names and some that nobody asked for.
func TestPlantsOfThreeSpreadsheets(t *testing.T) {
	utf16 := func(s string) string {
		b := []byte{0xFF, 0xFE}
		for _, u := range utf16.Encode([]rune(s)) {
			b = append(b, byte(u), byte(u>>8))
		}
		return string(b)
	}
	for name, file := range map[string]string{
		"semicolons and decimal commas, one byte a letter": "Plant;Where;Height (m);How many;Planted in;Owner;\r\nOlive;\"Cour d'\xe9t\xe9\";3,5;2;12/04/2019;M;\r\n" +
			"Lemon;Steps;1,25;;;;\r\n;;;;;;\r\n",
		"tabs, two bytes a letter": utf16("Species\tLocation\tHeight\tQty\tYear\r\nOlive\tCour d'été\t3.5\t2\t2019\r\nLemon\tSteps\t1.25\r\n"),
		"commas and a byte-order mark": "\ufeffname,position,height_m,count,planted,remarks about light\nOlive,Cour d'été,3.5,2,2019-04-12,sun\n" +
			"Lemon,Steps,1.25,,,\n",
		"a separator it names itself": "sep=;\nspecies;label;height_m;count;planted\nOlive;Cour d'été;3,5;2;2019\nLemon;Steps;1,25;;\n",
	} {
		s, err := ReadPlants(strings.NewReader(file))
		if err != nil || s.Faults != nil || len(s.Lines) != 2 {
			t.Errorf("%s: %+v, %v", name, s, err)
			continue
		}
		a, b := s.Lines[0], s.Lines[1]
		if a.Species != "Olive" || a.Label != "Cour d'été" || a.HeightM != 3.5 || a.Count != 2 || a.Planted != 2019 {
			t.Errorf("%s: first %+v", name, a)
		}
		if b.Species != "Lemon" || b.Label != "Steps" || b.HeightM != 1.25 || b.Count != 1 || b.Planted != 0 {
			t.Errorf("%s: second %+v", name, b)
		}
	}
	s, err := ReadPlants(strings.NewReader("Plant;Height;Sun;Colour\nOlive;tall;0,5;green\nLemon;1,2;bright;yellow\n;;;\nFig;0;0,2;\n"))
	if err != nil || fmt.Sprint(s.Passed) != "[Colour]" {
		t.Errorf("passed over %v, %v", s.Passed, err)
	}
	for _, want := range []string{`line 2: Height: "tall" is no number`, `line 3: Sun: "bright" is no number`, "line 5: Height: 0 is outside"} {
		if !strings.Contains(fmt.Sprint(s.Faults), want) {
			t.Errorf("not told: %s in %v", want, s.Faults)
		}
	}
}

// TestPlantsInFeet: a list that a firm keeps in feet, inches and gallons is taken as it is meant.
func TestPlantsInFeet(t *testing.T) {
	s, err := ReadPlants(strings.NewReader("Species,Height (ft),Spread (in),Pot (gal),Stem (in),Count\nLemon,6,48,15,1.5,2\n"))
	if err != nil || s.Faults != nil || len(s.Lines) != 1 || len(s.Passed) != 0 {
		t.Fatalf("%+v %v", s, err)
	}
	p := s.Lines[0]
	for _, c := range []struct{ got, want float64 }{{p.HeightM, 1.8288}, {p.SpreadM, 1.2192}, {p.PotL, 56.7812}, {p.BaseMM, 38.1}, {float64(p.Count), 2}} {
		if math.Abs(c.got-c.want) > 1e-3 {
			t.Errorf("%+v: %g, want %g", p, c.got, c.want)
		}
	}
	if s, _ := ReadPlants(strings.NewReader("species,height_ft\nlemon,900\n")); s.Faults == nil {
		t.Error("a lemon of 900 ft is taken")
	}
}
