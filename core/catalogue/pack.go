package catalogue

import (
	"bytes"
	"encoding/json"
	"fmt"
	"reflect"
	"regexp"
	"strings"

	"mezzadro/core/written"

	"mezzadro/core/invalid"
)

// ReadPack reads species entries from YAML, the form of the built files: a list of entries, each with every field. The
// error lists each fault with its entry and field; nothing of a pack with faults is given back.
func ReadPack(b []byte) ([]Entry, error) {
	if err := bounded(b); err != nil {
		return nil, err
	}
	entries, err := decode[Entry](b, "pack")
	if err != nil {
		return nil, err
	}
	var bad invalid.Fields
	if len(entries) == 0 {
		bad.Add("pack", nil, "holds no entry; want a YAML list of species")
	}
	seen, faulty := map[string]bool{}, 0
	for i, e := range entries {
		if faulty >= packFaulty {
			bad.Add("pack", nil, "has faults in more than %d entries; those after entry %d were not looked at", packFaulty, i)
			break
		}
		before := len(bad)
		at := fmt.Sprintf("entry %q", e.ID)
		if e.ID == "" {
			at = fmt.Sprintf("entry %d", i+1)
		}
		bad.Below(at, e.Validate())
		if seen[e.ID] {
			bad.Add(at+".id", e.ID, "is in the pack twice")
		}
		if len(bad) > before {
			faulty++
		}
		seen[e.ID] = true
	}
	if bad != nil {
		return nil, bad
	}
	return entries, nil
}

// Of a pack: it is refused before it is read where it could only spoil something.
const (
	packBytes  = 4 << 20
	packLines  = 60_000
	packMarks  = 40_000 // brackets and commas
	packMost   = 3000   // entries
	packFaulty = 50     // entries whose faults are told
	packDepth  = 24     // brackets within brackets
	packIndent = 80     // columns before a line begins
	packLine   = 8000   // characters
)

// anchored finds anchors and aliases, by which a small file grows without end.
var anchored = regexp.MustCompile(`(?m)(?:^|[:\-\[,{])[ \t]*[&*][A-Za-z0-9_]`)

// bounded refuses a pack that is too large or too deep. Its error is a list of refused fields.
func bounded(b []byte) error {
	bad := func(format string, a ...any) error {
		return invalid.Fields{{Path: "pack", Problem: fmt.Sprintf(format, a...)}}
	}
	if len(b) > packBytes {
		return bad("is larger than %d MB, which is the most that is read", packBytes>>20)
	}
	depth, lines, entries, marks := 0, 0, 0, 0
	for line := range bytes.Lines(b) {
		if bytes.HasPrefix(line, []byte("- ")) {
			entries++
		}
		if entries > packMost {
			return bad("has more than %d entries, which is the most that is read at once", packMost)
		}
		if lines++; lines > packLines {
			return bad("has more than %d lines, which is the most that is read", packLines)
		}
		if len(line) > packLine {
			return bad("line %d is longer than %d characters", lines, packLine)
		}
		if n := len(line) - len(bytes.TrimLeft(line, " \t-?:")); n > packIndent {
			return bad("line %d is set in by %d columns; at most %d are read", lines, n, packIndent)
		}
		for _, c := range line {
			switch c {
			case '[', '{':
				depth++
				marks++
			case ']', '}':
				depth = max(0, depth-1)
			case ',':
				marks++
			}
			if marks > packMarks {
				return bad("line %d: there are more than %d brackets and commas, which is the most that is read", lines, packMarks)
			}
			if depth > packDepth {
				return bad("line %d: brackets lie %d deep in each other; at most %d are read", lines, depth, packDepth)
			}
		}
	}
	if at := anchored.FindIndex(b); at != nil {
		return bad("line %d: anchors and aliases are not read: write it out", 1+bytes.Count(b[:at[0]], []byte("\n")))
	}
	return nil
}

// WritePack writes entries as YAML that ReadPack reads back to the same.
func WritePack(entries []Entry) ([]byte, error) {
	return written.Write(entries)
}

// Difference is a field in which an entry was corrected.
type Difference struct {
	Field string `json:"field"`
	Built string `json:"built"`
	Yours string `json:"yours"`
}

// Differences are the fields in which yours says something else than the built entry, in the order of the format.
func Differences(built, yours Entry) []Difference {
	out := []Difference{}
	a, b := reflect.ValueOf(built), reflect.ValueOf(yours)
	for i := range a.NumField() {
		x, y := plain(a.Field(i)), plain(b.Field(i))
		if x != y {
			out = append(out, Difference{strings.Split(a.Type().Field(i).Tag.Get("json"), ",")[0], x, y})
		}
	}
	return out
}

// plain writes a field's value short enough to read beside another.
func plain(v reflect.Value) string {
	if v.Kind() == reflect.String {
		return v.String()
	}
	b, err := json.Marshal(v.Interface())
	if err != nil {
		return fmt.Sprint(v.Interface())
	}
	return strings.NewReplacer(`"`, "", ",", ", ", ":", ": ", "{", "", "}", "", "[]", "none", "null", "none").
		Replace(string(b))
}
