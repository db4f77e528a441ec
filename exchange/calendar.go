package exchange

import (
	"fmt"
	"strings"
	"time"

	ics "github.com/arran4/golang-ical"

	"mezzadro/core/day"
)

// Entry is one job on a day, for a calendar.
type Entry struct {
	ID          int64
	Day         day.Day
	Title       string
	Place       string // property and address
	Detail      []string
	Minutes     int
	StartMinute int // minutes after midnight, property time
}

// lineEnds makes one kind of line end of all: a bare carriage return would end a line of the file.
var lineEnds = strings.NewReplacer("\r\n", "\n", "\r", "\n")

// Calendar writes entries as an iCalendar file (RFC 5545). Times are local to whoever reads it: the crew is on site.
func Calendar(name string, made time.Time, entries []Entry) string {
	c := ics.NewCalendarFor("Mezzadro")
	c.SetMethod(ics.MethodPublish)
	c.SetName(lineEnds.Replace(name))
	for _, e := range entries {
		ev := c.AddEvent(fmt.Sprintf("job-%d@mezzadro", e.ID))
		ev.SetDtStampTime(made)
		start := e.Day.Time().Add(time.Duration(e.StartMinute) * time.Minute)
		const floating = "20060102T150405"
		ev.SetProperty(ics.ComponentPropertyDtStart, start.Format(floating))
		ev.SetProperty(ics.ComponentPropertyDtEnd, start.Add(time.Duration(e.Minutes)*time.Minute).Format(floating))
		ev.SetSummary(lineEnds.Replace(e.Title))
		ev.SetLocation(lineEnds.Replace(e.Place))
		ev.SetDescription(lineEnds.Replace(strings.Join(e.Detail, "\n")))
	}
	return c.Serialize(ics.WithNewLineWindows)
}
