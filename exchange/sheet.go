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
	named  []string // the columns as the file names them
	sep    rune
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

// figure is a cell that holds a number, with a point in it.
func (l line) figure(name string) (text string, given bool) {
	text, given = l.cell(name)
	return figure(text, l.sep), given
}

// words is a cell of text as it was before it was made safe for spreadsheets.
func (l line) words(name string) (text string, given bool) {
	text, given = l.cell(name)
	return live(text), given
}

// refuse notes what is wrong with a cell.
func (l line) refuse(name string, value any, format string, args ...any) {
	if i := slices.Index(l.head, name); i >= 0 {
		name = l.named[i]
	}
	l.bad.Add(fmt.Sprintf("line %d", l.number), value, "%s: %s", name, fmt.Sprintf(format, args...))
	*l.faulty = true
}

// Of what a file may hold: it is refused before anything of it is looked up.
const (
	columnsMost = 200
	linesMost   = 200_000
	cellMost    = 20_000 // characters
)

// most is how many faults of a file are told at once, where its layout says nothing else.
const most = 20

// layout is what columns a kind of file may have.
type layout struct {
	known, required []string
	also            map[string]string // other names for them
	others          bool              // columns of other names are passed over
	what            string            // a line's content
	faults          int               // how many are told at once; most when 0
}

// sheet reads a CSV file with a header line, of which only known columns may be there and the required ones must, and
// gives each line to row. It takes what spreadsheets write: other codes than UTF-8, semicolons or tabs between cells, decimal
// commas, empty lines and cells at the end. The error lists every broken line with its number; passed names the columns
// that were passed over.
func sheet(r io.Reader, c layout, row func(line)) (passed []string, err error) {
	b, err := io.ReadAll(r)
	if err != nil {
		return nil, err
	}
	text, err := readable(b)
	if err != nil {
		return nil, invalid.Fields{{Path: "file", Problem: "is no text that can be read: " + err.Error()}}
	}
	text, sep := separator(text)
	in := csv.NewReader(strings.NewReader(text))
	in.Comma, in.TrimLeadingSpace, in.FieldsPerRecord = sep, sep != '\t', -1
	named, err := in.Read()
	if errors.Is(err, io.EOF) {
		return nil, invalid.Fields{
			{Path: "line 1", Problem: "the file is empty; want a header line with " + strings.Join(c.required, " and ")},
		}
	}
	if err != nil {
		return nil, invalid.Fields{{Path: "line 1", Problem: err.Error()}}
	}
	if len(named) > columnsMost {
		return nil, invalid.Fields{{Path: "line 1", Problem: fmt.Sprintf("has %d columns; at most %d are read", len(named), columnsMost)}}
	}
	head, passed, bad := c.header(named)
	if bad != nil {
		return passed, bad
	}
	lines, told := 0, c.faults
	if told == 0 {
		told = most
	}
	for len(bad) < told {
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
		if !slices.ContainsFunc(cells, func(s string) bool { return strings.TrimSpace(s) != "" }) {
			continue
		}
		if lines++; lines > linesMost {
			bad.Add("file", nil, "has more than %d lines, which is the most that is read", linesMost)
			break
		}
		if k := slices.IndexFunc(cells, func(s string) bool { return len(s) > cellMost }); k >= 0 {
			n, _ := in.FieldPos(0)
			bad.Add(fmt.Sprintf("line %d", n), nil, "cell %d is longer than %d characters", k+1, cellMost)
			continue
		}
		number, _ := in.FieldPos(0)
		for len(cells) > len(head) && strings.TrimSpace(cells[len(cells)-1]) == "" {
			cells = cells[:len(cells)-1]
		}
		if len(cells) > len(head) {
			bad.Add(fmt.Sprintf("line %d", number), nil, "has %d cells, the header %d", len(cells), len(head))
			continue
		}
		for len(cells) < len(head) {
			cells = append(cells, "")
		}
		row(line{number, cells, head, named, sep, &bad, new(bool)})
	}
	if bad == nil && lines == 0 {
		bad.Add("line 2", nil, "there is no %s after the header", c.what)
	}
	return passed, bad.Err()
}

// header finds the columns by the names the file gives them.
func (c layout) header(named []string) (head, passed []string, bad invalid.Fields) {
	head = make([]string, len(named))
	has := func(name string) bool {
		return slices.ContainsFunc(named, func(n string) bool { return strings.EqualFold(strings.TrimSpace(n), name) })
	}
	for i, name := range named {
		named[i] = strings.TrimSpace(name)
		plain := strings.ToLower(named[i])
		if of, other := c.also[plain]; other {
			if has(of) || slices.Contains(head[:i], of) {
				passed = append(passed, named[i])
				continue
			}
			plain = of
		}
		switch {
		case plain == "": // an empty column at the end, as spreadsheets write them
		case !slices.Contains(c.known, plain) && c.others:
			passed = append(passed, named[i])
			continue
		case !slices.Contains(c.known, plain):
			bad.Add("line 1", name, "%q is no column; want %s", plain, strings.Join(c.known, ", "))
		case slices.Contains(head[:i], plain):
			bad.Add("line 1", name, "column %s stands there twice", named[i])
		}
		head[i] = plain
	}
	for _, name := range c.required {
		if !slices.Contains(head, name) {
			bad.Add("line 1", nil, "column %s is missing; the file has %s", name, strings.Join(named, ", "))
		}
	}
	return head, passed, bad
}
