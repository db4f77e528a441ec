// Package day gives civil days: a date on the calendar without a time or a zone,
// which is what the season, windows and rounds are counted in.
package day

import (
	"fmt"
	"time"
)

// Day counts civil days from 1 January 1970 in the Gregorian calendar. The zero value is that day.
type Day int

// None stands for "no day known"; it formats as the empty string.
const None Day = -1 << 31

// Of is the given date. Months and days outside their range carry over, as in time.Date.
func Of(year int, month time.Month, dayOfMonth int) Day {
	return FromTime(time.Date(year, month, dayOfMonth, 0, 0, 0, 0, time.UTC))
}

// FromTime is the date that the clock shows at t in t's own zone.
func FromTime(t time.Time) Day {
	_, east := t.Zone()
	sec := t.Unix() + int64(east)
	n := sec / 86400
	if sec%86400 < 0 {
		n--
	}
	return Day(n)
}

// Cycle is the length of four years with one leap year, days: from 1901 to 2099 the calendar repeats after it.
const Cycle = 4*365 + 1

// InCycle is the day's place in its four years, 0 for 1 January 1970. ok is false outside 1901 to 2099.
func (d Day) InCycle() (n int, ok bool) {
	const first, last = -25202, 47481 // 1 January 1901, 31 December 2099
	n = int(d) % Cycle
	if n < 0 {
		n += Cycle
	}
	return n, d >= first && d <= last
}

// Parse reads YYYY-MM-DD. It refuses dates that are not on the calendar, such as 2027-02-30.
func Parse(s string) (Day, error) {
	if len(s) == len(time.DateOnly) && s[4] == '-' && s[7] == '-' {
		year, month, date := digits(s[:4]), digits(s[5:7]), digits(s[8:])
		t := time.Date(year, time.Month(month), date, 0, 0, 0, 0, time.UTC)
		if min(year, month, date) >= 0 && t.Month() == time.Month(month) && t.Day() == date { // else it carried over
			return FromTime(t), nil
		}
	}
	return None, fmt.Errorf("date %q: want a day of the calendar as YYYY-MM-DD", s)
}

// digits is the number that a text of nothing but digits stands for; -1: it is none.
func digits(s string) (n int) {
	for _, c := range []byte(s) {
		if c < '0' || c > '9' {
			return -1
		}
		n = 10*n + int(c-'0')
	}
	return n
}

// Time is midnight UTC at the start of the day.
func (d Day) Time() time.Time { return time.Unix(int64(d)*86400, 0).UTC() }

// Year is the calendar year.
func (d Day) Year() int { return d.Time().Year() }

// Month is the calendar month.
func (d Day) Month() time.Month { return d.Time().Month() }

// DayOfMonth is 1 to 31.
func (d Day) DayOfMonth() int { return d.Time().Day() }

// YearDay is 1 on 1 January and 365 or 366 on 31 December.
func (d Day) YearDay() int { return d.Time().YearDay() }

// YearFraction runs from 0 at the start of 1 January to 1 at the end of the year, taken at noon.
func (d Day) YearFraction() float64 {
	t := d.Time()
	y, length := t.Year(), 365.0
	if y%4 == 0 && (y%100 != 0 || y%400 == 0) {
		length = 366
	}
	return (float64(t.YearDay()) - 0.5) / length
}

// Sub is the number of days from e to d.
func (d Day) Sub(e Day) int { return int(d - e) }

// Weekday is the day of the week.
func (d Day) Weekday() time.Weekday { return d.Time().Weekday() }

// String is YYYY-MM-DD.
func (d Day) String() string {
	if d == None {
		return ""
	}
	return d.Time().Format(time.DateOnly)
}

// Words is the day as it is written in a sentence: "24 April".
func (d Day) Words() string {
	if d == None {
		return "no date"
	}
	return d.Time().Format("2 January")
}

// MarshalText writes YYYY-MM-DD, so that a Day is a string in JSON.
func (d Day) MarshalText() ([]byte, error) { return []byte(d.String()), nil }

// Given reports a day that was told: neither None nor the zero a record has where its field is absent.
func (d Day) Given() bool { return d != 0 && d != None }

// UnmarshalText reads YYYY-MM-DD; the empty text is None.
func (d *Day) UnmarshalText(b []byte) error {
	if len(b) == 0 {
		*d = None
		return nil
	}
	p, err := Parse(string(b))
	if err != nil {
		return err
	}
	*d = p
	return nil
}

// Midnight is the moment at which the day begins in a zone.
func (d Day) Midnight(zone *time.Location) time.Time {
	return time.Date(d.Year(), d.Month(), d.DayOfMonth(), 0, 0, 0, 0, zone)
}
