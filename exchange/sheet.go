package exchange

import (
	"encoding/csv"
	"errors"
	"fmt"
	"io"
	"slices"
	"strings"

	"mezzadro/core/invalid"
)

// line is one line of a CSV file under its header.
type line struct {
	number int
	cells  []string
	head   []string
	bad    *invalid.Fields
	faulty *bool
}

// cell is the trimmed text under a column's name; given is false where the file has no such column.
func (l line) cell(name string) (text string, given bool) {
	if i := slices.Index(l.head, name); i >= 0 {
		return strings.TrimSpace(l.cells[i]), true
	}
	return "", false
}

// refuse notes what is wrong with a cell.
func (l line) refuse(name string, value any, format string, args ...any) {
	l.bad.Add(fmt.Sprintf("line %d", l.number), value, "%s: %s", name, fmt.Sprintf(format, args...))
	*l.faulty = true
}

// most is how many faults of a file are told at once.
const most = 20

// sheet reads a CSV file with a header line, of which only known columns may be there and the required ones must, and
// gives each line to row. The error lists every broken line with its number, up to twenty; what names a line's content.
func sheet(r io.Reader, known, required []string, what string, row func(line)) error {
	in := csv.NewReader(r)
	in.TrimLeadingSpace = true
	in.FieldsPerRecord = -1
	head, err := in.Read()
	if errors.Is(err, io.EOF) {
		return invalid.Fields{
			{Path: "line 1", Problem: "the file is empty; want a header line with " + strings.Join(required, " and ")},
		}
	}
	if err != nil {
		return invalid.Fields{{Path: "line 1", Problem: err.Error()}}
	}
	var bad invalid.Fields
	for i, name := range head {
		head[i] = strings.ToLower(strings.TrimSpace(strings.TrimPrefix(name, "\ufeff")))
		switch {
		case !slices.Contains(known, head[i]):
			bad.Add("line 1", name, "%q is no column; want %s", head[i], strings.Join(known, ", "))
		case slices.Contains(head[:i], head[i]):
			bad.Add("line 1", name, "column %s stands there twice", head[i])
		}
	}
	for _, name := range required {
		if !slices.Contains(head, name) {
			bad.Add("line 1", nil, "column %s is missing", name)
		}
	}
	if bad != nil {
		return bad
	}
	lines := 0
	for len(bad) < most {
		cells, err := in.Read()
		if errors.Is(err, io.EOF) {
			break
		}
		if err != nil {
			where := "file"
			var pe *csv.ParseError
			if errors.As(err, &pe) {
				where, err = fmt.Sprintf("line %d", pe.Line), pe.Err
			}
			bad.Add(where, nil, "%v", err)
			break // what follows a broken quote cannot be trusted
		}
		lines++
		number, _ := in.FieldPos(0)
		if len(cells) != len(head) {
			bad.Add(fmt.Sprintf("line %d", number), nil, "has %d cells, the header %d", len(cells), len(head))
			continue
		}
		row(line{number, cells, head, &bad, new(bool)})
	}
	if bad == nil && lines == 0 {
		bad.Add("line 2", nil, "there is no %s after the header", what)
	}
	return bad.Err()
}
