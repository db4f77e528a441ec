package exchange

import (
	"encoding/csv"
	"io"
	"strconv"

	"mezzadro/core/invalid"
)

// WayLine is a timed way between two names.
type WayLine struct {
	From, To string
	Minutes  float64
	Line     int
}

// longestWay is the longest that is taken in, minutes.
const longestWay = 600

// ReadWays reads timed ways from a CSV file with the columns from, to, minutes. Lines without minutes are holes: the
// way is estimated. Its error is a list of refused fields, by line.
func ReadWays(r io.Reader) ([]WayLine, error) {
	out := []WayLine{}
	columns := []string{"from", "to", "minutes"}
	_, err := sheet(r, layout{known: columns, required: columns, others: true, what: "way"}, func(l line) {
		text, _ := l.figure("minutes")
		if text == "" {
			return
		}
		m, err := strconv.ParseFloat(text, 64)
		if err != nil || !(m >= 0 && m <= longestWay) {
			l.refuse("minutes", text, "%q is no number of minutes up to %d", text, longestWay)
			return
		}
		from, _ := l.words("from")
		to, _ := l.words("to")
		out = append(out, WayLine{from, to, m, l.number})
	})
	if err == nil && len(out) == 0 {
		err = invalid.Fields{{Path: "file", Problem: "there is no way with minutes in it"}}
	}
	return out, err
}

// WriteWays writes them the same way.
func WriteWays(w io.Writer, list []WayLine) error {
	out := csv.NewWriter(w)
	rows := [][]string{{"from", "to", "minutes"}}
	for _, l := range list {
		rows = append(rows, []string{inert(l.From), inert(l.To), strconv.FormatFloat(l.Minutes, 'f', -1, 64)})
	}
	if err := out.WriteAll(rows); err != nil {
		return err
	}
	return out.Error()
}
