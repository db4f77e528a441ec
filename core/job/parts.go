package job

import "fmt"

// RunningMost is how many days may lie between two parts of a job that is done on days running: a weekend, and a day off.
const RunningMost = 4

// DayTitle is the title of the part of a job that is done on one of the days running it takes, n from 1.
func DayTitle(title string, n, of int) string { return fmt.Sprintf("%s, day %d of %d", title, n, of) }

// WithTitle is the title of a job that two crews do together, for one of them.
func WithTitle(title, other string) string { return title + ", with " + other }
