package exchange

import (
	"encoding/csv"
	"io"
)

// WorkLine is a job that was done, as it goes out: minutes of all its people, its amount in whole units of the currency.
type WorkLine struct {
	Day, Property, Plant, Job, Kind, By, Planned, Took, Agreed, Amount, Currency, Charged string
}

var workColumns = []string{
	"day",
	"property",
	"plant",
	"job",
	"kind",
	"by",
	"planned_minutes",
	"took_minutes",
	"agreed",
	"amount",
	"currency",
	"charged_as",
}

// WriteWorkCSV gives work that was done out as CSV, a line a job.
func WriteWorkCSV(w io.Writer, lines []WorkLine) error {
	c := csv.NewWriter(w)
	if err := c.Write(workColumns); err != nil {
		return err
	}
	for _, l := range lines {
		if err := c.Write([]string{l.Day, inert(l.Property), inert(l.Plant), inert(l.Job), l.Kind, inert(l.By), l.Planned, l.Took, l.Agreed,
			l.Amount, l.Currency, l.Charged}); err != nil {
			return err
		}
	}
	c.Flush()
	return c.Error()
}
