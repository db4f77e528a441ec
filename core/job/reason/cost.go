// Package reason holds why a day is a good or a bad one for a piece of work: the cost of a day, and the named reasons
// that all who ask for work share, so that frost to come weighs the same on a cut as on a planting.
//
// A cost is points from 0, the best day, to 100, the worst that is allowed, or Never. Points add up and stop at 100;
// no sum of them forbids a day.
package reason

import (
	"fmt"
	"strconv"

	"mezzadro/core/day"
)

// Cost is what doing the work on a day costs. The zero value is the best day.
type Cost struct {
	points uint8
	never  bool
}

// Never forbids a day.
var Never = Cost{never: true}

// Worst is the highest cost of an allowed day, Acceptable the cost up to which a day counts as part of a window.
var (
	Worst      = Points(100)
	Acceptable = Points(30)
)

// forbidden is how Never is written where a cost is a plain number.
const forbidden = 101

// Points is a cost of so many points, rounded and kept within 0 to 100. No number is Worst.
func Points(v float64) Cost {
	switch {
	case v <= 0:
		return Cost{}
	case v < 100:
		return Cost{points: uint8(v + 0.5)}
	}
	return Cost{points: 100} // no number, too
}

// Days is a cost of so many points for each day that d lies after from; 0 before.
func Days(each float64, d, from day.Day) Cost { return Points(each * float64(d-from)) }

// Plus adds a cost: at most Worst, and Never only where one of the two is.
func (c Cost) Plus(o Cost) Cost {
	if c.never || o.never {
		return Never
	}
	return Cost{points: min(100, c.points+o.points)} // two of up to 100 fit into a byte
}

// Free reports a day that nothing speaks against.
func (c Cost) Free() bool { return c == Cost{} }

// Forbids reports Never.
func (c Cost) Forbids() bool { return c.never }

// Over reports a cost above a limit; Never lies above all others.
func (c Cost) Over(limit Cost) bool { return c.Int() > limit.Int() }

// Int is the cost as a plain number: 0 to 100, 101 for Never.
func (c Cost) Int() int {
	if c.never {
		return forbidden
	}
	return int(c.points)
}

// FromInt reads what Int wrote.
func FromInt(n int) Cost {
	if n >= forbidden {
		return Never
	}
	return Points(float64(n))
}

func (c Cost) String() string {
	if c.never {
		return "never"
	}
	return strconv.Itoa(int(c.points))
}

// MarshalJSON writes 0 to 100, or 101 for Never.
func (c Cost) MarshalJSON() ([]byte, error) { return strconv.AppendInt(nil, int64(c.Int()), 10), nil }

// UnmarshalJSON reads what MarshalJSON wrote.
func (c *Cost) UnmarshalJSON(b []byte) error {
	n, err := strconv.Atoi(string(b))
	if err != nil || n < 0 || n > forbidden {
		return fmt.Errorf("cost %s: want a whole number from 0 to 100, or %d for a forbidden day", b, forbidden)
	}
	*c = FromInt(n)
	return nil
}

// Costs is a run of costs, a day each.
type Costs []Cost

// MarshalJSON writes the run in one go: a year of them stands in each lane of a page.
func (c Costs) MarshalJSON() ([]byte, error) {
	out := append(make([]byte, 0, 2+3*len(c)), '[')
	for i, v := range c {
		if i > 0 {
			out = append(out, ',')
		}
		out = strconv.AppendInt(out, int64(v.Int()), 10)
	}
	return append(out, ']'), nil
}
