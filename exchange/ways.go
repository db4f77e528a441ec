package exchange

import (
	"encoding/csv"
	"fmt"
	"io"
	"strconv"
	"strings"

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
	in := csv.NewReader(r)
	in.FieldsPerRecord, in.TrimLeadingSpace = -1, true
	rows, err := in.ReadAll()
	if err != nil {
		return nil, invalid.Fields{{Path: "csv", Problem: err.Error()}}
	}
	if len(rows) == 0 || len(rows[0]) < 3 || !strings.EqualFold(strings.Join(rows[0][:3], ","), "from,to,minutes") {
		return nil, invalid.Fields{{Path: "csv", Problem: "want a first line with the columns from,to,minutes"}}
	}
	var bad invalid.Fields
	out := []WayLine{}
	for i, row := range rows[1:] {
		at := fmt.Sprintf("line %d", i+2)
		if len(row) < 3 {
			bad.Add(at, len(row), "has %d columns, want three", len(row))
			continue
		}
		text := strings.ReplaceAll(strings.TrimSpace(row[2]), ",", ".")
		if text == "" {
			continue
		}
		m, err := strconv.ParseFloat(text, 64)
		if err != nil || !(m >= 0 && m <= longestWay) {
			bad.Add(at+" minutes", row[2], "%q is no number of minutes up to %d", row[2], longestWay)
			continue
		}
		out = append(out, WayLine{strings.TrimSpace(row[0]), strings.TrimSpace(row[1]), m, i + 2})
	}
	return out, bad.Err()
}

// WriteWays writes them the same way.
func WriteWays(w io.Writer, list []WayLine) error {
	out := csv.NewWriter(w)
	rows := [][]string{{"from", "to", "minutes"}}
	for _, l := range list {
		rows = append(rows, []string{l.From, l.To, strconv.FormatFloat(l.Minutes, 'f', -1, 64)})
	}
	if err := out.WriteAll(rows); err != nil {
		return err
	}
	return out.Error()
}
