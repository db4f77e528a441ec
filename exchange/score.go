package exchange

import (
	"encoding/csv"
	"io"
)

// ScoreLine is a prognosis with what came of it, as it goes out.
type ScoreLine struct {
	Given, Property, Plant, Kind, Verdict, By, Overruled, Zone, Cause, Chance, SeasonsLow, SeasonsHigh, Seen, State, Seasons string
}

var scoreColumns = []string{
	"given",
	"property",
	"plant",
	"kind",
	"verdict",
	"by",
	"overruled",
	"zone",
	"cause",
	"chance",
	"seasons_low",
	"seasons_high",
	"seen",
	"state",
	"seasons",
}

// WriteScoreCSV gives prognoses out with what came of them, as CSV, a line each.
func WriteScoreCSV(w io.Writer, lines []ScoreLine) error {
	c := csv.NewWriter(w)
	if err := c.Write(scoreColumns); err != nil {
		return err
	}
	for _, l := range lines {
		if err := c.Write([]string{l.Given, inert(l.Property), inert(l.Plant), inert(l.Kind), l.Verdict, inert(l.By), l.Overruled, l.Zone, l.Cause, l.Chance,
			l.SeasonsLow, l.SeasonsHigh, l.Seen, l.State, l.Seasons}); err != nil {
			return err
		}
	}
	c.Flush()
	return c.Error()
}
