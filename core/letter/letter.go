// Package letter writes to clients in their own words: when the crew comes and what it does, that a day falls, a
// reminder the evening before, and thanks after. Figures and days are marked, and read in the units of whoever reads
// them.
package letter

import (
	"fmt"
	"strings"

	"mezzadro/core/day"
	"mezzadro/core/quantity"
)

// Visit is what a letter tells of: the work of one day at one property.
type Visit struct {
	Client   string // name, as one is addressed; empty: nobody is
	Property string
	Firm     string
	Day      day.Day  // of the visit; None where it falls and there is no new day
	Before   day.Day  // the day that was told before; None where none was
	Hours    Hours    // when the crew arrives
	Jobs     []string // in the client's words
	Prepare  []string // what the client gets ready, in sentences
	Next     day.Day  // the visit after it, where the client knows of one
}

// Hours are those between which a crew arrives, minutes after midnight; zero where nobody knows.
type Hours struct{ From, To int }

// How wide the hours are in which a crew arrives: work before it may take longer, and so may the road.
const (
	halfHour = 30
	width    = 120 // minutes
)

// Arriving are the hours between which one comes who plans to come at a minute after midnight. An estimate.
func Arriving(minute int) Hours {
	if minute <= 0 {
		return Hours{}
	}
	from := minute / halfHour * halfHour // no earlier: a gate may open then, and days run late rather than early
	return Hours{from, min(from+width, 24*60-1)}
}

// given reports that hours are known.
func (h Hours) given() bool { return h.To > h.From }

// named is a day with its weekday.
func named(d day.Day) string { return d.Time().Weekday().String() + ", " + quantity.Day(d) }

// when are a day and the hours one comes in, as they follow "on".
func (v Visit) when() string {
	if !v.Hours.given() {
		return named(v.Day)
	}
	return fmt.Sprintf(
		"%s, arriving between %s and %s",
		named(v.Day),
		quantity.Hour(v.Hours.From),
		quantity.Hour(v.Hours.To),
	)
}

// Draft is the letter before the visit: its day, a new day in place of an old one, or that the day falls.
func (v Visit) Draft() string {
	switch {
	case !v.Day.Given():
		return v.letter(
			fmt.Sprintf(
				"We cannot come to %s on %s after all. We will tell you the new day as soon as we have one. Still to do:",
				v.Property,
				named(v.Before),
			)+v.list(
				v.Jobs,
			),
			"We are sorry for the trouble.",
		)
	case v.Before.Given():
		return v.letter(fmt.Sprintf("We are coming to %s on a new day: %s, not %s as we told you. Planned:",
			v.Property, v.when(), named(v.Before))+v.list(v.Jobs), v.ready())
	}
	return v.letter(fmt.Sprintf("We are coming to %s on %s. Planned:", v.Property, v.when())+v.list(v.Jobs), v.ready())
}

// Reminder is the letter of the evening before.
func (v Visit) Reminder() string {
	text := fmt.Sprintf("A reminder: we are coming to %s tomorrow, %s. Planned:", v.Property, v.when())
	return v.letter(text+v.list(v.Jobs), v.ready())
}

// Thanks is the letter after a visit whose work is done.
func (v Visit) Thanks() string {
	text := fmt.Sprintf("We were at %s on %s. Done:", v.Property, named(v.Day)) + v.list(v.Jobs)
	last := "Thank you. If anything looks wrong to you, please ring or write to us."
	if v.Next.Given() {
		last += fmt.Sprintf(" Our next visit is on %s.", named(v.Next))
	}
	return v.letter(text, last)
}

// Subject is the line over a letter of a day.
func Subject(property string, about About) string {
	switch about {
	case Off:
		return "Our visit to " + property + " is put off"
	case Reminder:
		return "Tomorrow at " + property
	case Thanks:
		return "Done at " + property
	default:
		return "Our visit to " + property
	}
}

// About is what a letter is about.
type About string

// The letters there are.
const (
	Coming   About = "visit"
	Off      About = "off"
	Reminder About = "reminder"
	Thanks   About = "thanks"
	Notice   About = "notice" // a report or an estimate is there
)

// ready is what the client gets ready, and what is asked of everybody.
func (v Visit) ready() string {
	lines := append([]string{}, v.Prepare...)
	lines = append(
		lines,
		"Please leave the gate clear, and keep children and pets away from the work. If the weather stops us, we will tell you.",
	)
	return strings.Join(lines, "\n")
}

// list are jobs one below the other.
func (v Visit) list(jobs []string) string {
	var b strings.Builder
	for _, j := range jobs {
		b.WriteString("\n- " + j)
	}
	return b.String()
}

// letter puts parts between the name of who reads and of who writes.
func (v Visit) letter(parts ...string) string {
	all := append([]string{}, parts...)
	if v.Client != "" {
		all = append([]string{"Dear " + strings.TrimPrefix(v.Client, "The ") + ","}, all...)
	}
	return strings.Join(append(all, v.Firm), "\n\n")
}
