package day

import (
	"encoding/json"
	"testing"
	"time"
)

func TestParse(t *testing.T) {
	for _, c := range []struct {
		in   string
		want string
		ok   bool
	}{
		{"2027-03-18", "2027-03-18", true},
		{"2028-02-29", "2028-02-29", true},
		{"2027-02-30", "", false},
		{"18.3.2027", "", false},
		{"1969-12-31", "1969-12-31", true},
		{"", "", false},
		{"2027-02-29", "", false},
		{"2027-12-31", "2027-12-31", true},
		{"2027-13-01", "", false},
		{"2027-00-10", "", false},
		{"2027-04-00", "", false},
		{"2027-04-31", "", false},
		{"2027-4-01", "", false},
		{"2027-04-1x", "", false},
		{"2027-+4-01", "", false},
		{"2027-04--1", "", false},
		{"2027/04/01", "", false},
		{"2027-04-01T08:00", "", false},
		{"0001-01-01", "0001-01-01", true},
	} {
		d, err := Parse(c.in)
		if (err == nil) != c.ok {
			t.Errorf("Parse(%q): error %v, want ok %v", c.in, err, c.ok)
		}
		if d.String() != c.want {
			t.Errorf("Parse(%q) = %q, want %q", c.in, d, c.want)
		}
	}
}

func TestCalendar(t *testing.T) {
	d := Of(2027, time.March, 18)
	if d.Weekday() != time.Thursday || d.Words() != "18 March" || d.YearDay() != 77 {
		t.Errorf("18 March 2027: %v, %q, day %d", d.Weekday(), d.Words(), d.YearDay())
	}
	if got := Of(2027, time.January, 1).Sub(Of(2026, time.November, 1)); got != 61 {
		t.Errorf("1 November to 1 January: %d days, want 61", got)
	}
	for d := Of(1960, 1, 1); d < Of(2060, 1, 1); d += 13 {
		if FromTime(d.Time()) != d {
			t.Fatalf("%v does not come back from its time", d)
		}
		if f := d.YearFraction(); f <= 0 || f >= 1 {
			t.Fatalf("%v: year fraction %g", d, f)
		}
	}
	evening := time.Date(2027, 2, 26, 23, 30, 0, 0, time.FixedZone("", 3600))
	if got := FromTime(evening); got != Of(2027, 2, 26) {
		t.Errorf("half past eleven in the evening is %v", got)
	}
}

// TestGiven: a record without a day, and one that says there is none, have none.
func TestGiven(t *testing.T) {
	var absent Day
	if absent.Given() || None.Given() || !Of(2027, 3, 18).Given() || !Of(1969, 12, 31).Given() {
		t.Errorf("absent %v, none %v", absent.Given(), None.Given())
	}
}

func TestJSON(t *testing.T) {
	in := []Day{Of(2027, 4, 24), None}
	b, err := json.Marshal(in)
	if err != nil || string(b) != `["2027-04-24",""]` {
		t.Fatalf("%s, %v", b, err)
	}
	var out []Day
	if err := json.Unmarshal(b, &out); err != nil || out[0] != in[0] || out[1] != None {
		t.Fatalf("%v, %v", out, err)
	}
	if err := json.Unmarshal([]byte(`["2027-13-01"]`), &out); err == nil {
		t.Fatal("month 13 was taken")
	}
}

func FuzzParse(f *testing.F) {
	f.Add("2027-03-18")
	f.Add("0000-00-00")
	f.Fuzz(func(t *testing.T, s string) {
		d, err := Parse(s)
		if err == nil && d.String() != s {
			t.Errorf("%q came back as %q", s, d)
		}
	})
}
