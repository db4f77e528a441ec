// Package invalid is how the core refuses an input: it names the field and says what was wrong with it,
// so that every door (the API, a file, a form) can point at the same place.
package invalid

import (
	"errors"
	"fmt"
	"strings"
)

// Field is one refused value. Path is the field as the user's data names it, e.g. "checks[2].height_m".
type Field struct {
	Path    string
	Problem string
	Value   any
}

func (f Field) Error() string { return f.Path + ": " + f.Problem }

// Fields is a list of refused values; a nil list is no error.
type Fields []Field

func (fs Fields) Error() string {
	parts := make([]string, len(fs))
	for i, f := range fs {
		parts[i] = f.Error()
	}
	return strings.Join(parts, "; ")
}

// Add notes a refused value.
func (fs *Fields) Add(path string, value any, format string, args ...any) {
	*fs = append(*fs, Field{path, fmt.Sprintf(format, args...), value})
}

// Within notes value when it lies outside lo to hi (or is no number).
func (fs *Fields) Within(path string, value, lo, hi float64, unit string) {
	if !(value >= lo && value <= hi) {
		fs.Add(path, value, "%g %s is outside %g to %g %s", value, unit, lo, hi, unit)
	}
}

// Below takes over the refusals of a part, with the part's path put before theirs.
func (fs *Fields) Below(path string, err error) {
	var inner Fields
	switch {
	case err == nil:
	case errors.As(err, &inner):
		for _, f := range inner {
			f.Path = path + "." + f.Path
			*fs = append(*fs, f)
		}
	default:
		fs.Add(path, nil, "%v", err)
	}
}

// most is how many faults are told at once.
const most = 20

// Bounded is the list with the first twenty, and how many there are besides.
func (fs Fields) Bounded() Fields {
	if len(fs) <= most {
		return fs
	}
	return append(fs[:most:most], Field{"and", fmt.Sprintf("%d more", len(fs)-most), nil})
}

// Err is the list as an error, nil when nothing was refused.
func (fs Fields) Err() error {
	if len(fs) == 0 {
		return nil
	}
	return fs
}

// One is the refusal of a single value.
func One(path string, value any, problem string) error {
	return Fields{{Path: path, Problem: problem, Value: value}}
}

// Of are the refused values of an error, nil for any other error.
func Of(err error) Fields {
	f, _ := err.(Fields)
	return f
}

// Under puts the refusals of a part below the part's path; nil stays nil.
func Under(path string, err error) error {
	var fs Fields
	fs.Below(path, err)
	return fs.Err()
}
