package exchange

import (
	"time"

	ics "github.com/arran4/golang-ical"

	"mezzadro/core/day"
)

// VisitEntry is a visit for a client's calendar. The same visit on another day has the same ID and a later edition.
type VisitEntry struct {
	ID       string
	Edition  int
	Day      day.Day
	From, To int // the crew arrives between, minutes after midnight; 0: on that day
	Zone     *time.Location
	Title    string
	Place    string
	Off      bool // it is called off
}

// Visit writes one as an iCalendar file (RFC 5545, 5546): an appointment, its change, or that it falls.
func Visit(made time.Time, v VisitEntry) string {
	c := ics.NewCalendarFor("Mezzadro")
	ev := c.AddEvent(v.ID)
	ev.SetDtStampTime(made)
	ev.SetSequence(v.Edition)
	ev.SetSummary(lineEnds.Replace(v.Title))
	ev.SetLocation(lineEnds.Replace(v.Place))
	if start := v.Day.Time(); v.To > v.From {
		y, m, d := start.Date()
		ev.SetStartAt(time.Date(y, m, d, v.From/60, v.From%60, 0, 0, v.Zone).UTC())
		ev.SetEndAt(time.Date(y, m, d, v.To/60, v.To%60, 0, 0, v.Zone).UTC())
		ev.SetDescription("The crew arrives in these hours.")
	} else {
		ev.SetAllDayStartAt(start)
		ev.SetAllDayEndAt(start.AddDate(0, 0, 1))
	}
	c.SetMethod(ics.MethodPublish)
	if v.Off {
		c.SetMethod(ics.MethodCancel)
		ev.SetStatus(ics.ObjectStatusCancelled)
	}
	return c.Serialize(ics.WithNewLineWindows)
}
