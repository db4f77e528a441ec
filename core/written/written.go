// Package written reads what people write by hand and correct: YAML, strictly.
package written

import (
	"bytes"
	"cmp"
	"errors"
	"fmt"
	"io"
	"maps"
	"reflect"
	"regexp"
	"strconv"
	"strings"

	"go.yaml.in/yaml/v3"

	"mezzadro/core/quantity"
)

// Fault is what is wrong with a text, and where.
type Fault struct {
	Line    int // from 1; 0 where it is not known
	Problem string
}

func (f *Fault) Error() string {
	if f.Line == 0 {
		return f.Problem
	}
	return fmt.Sprintf("line %d: %s", f.Line, f.Problem)
}

// Read decodes one YAML document into what into points at: every field must be known, and a whole number whole. Its
// error is a *Fault, the first in the text. An empty text leaves into as it is. Where into takes anything, a day must
// be quoted to stay a text.
func Read(text []byte, into any) error {
	text = []byte(quantity.Markup(string(text))) // figures in braces read in the units of whoever reads them
	d := yaml.NewDecoder(bytes.NewReader(text))
	var n yaml.Node
	if err := d.Decode(&n); errors.Is(err, io.EOF) {
		return nil
	} else if err != nil {
		return faultOf(err)
	}
	aliased, f := tooWide(&n)
	if f != nil { // before the reader holds each name against each other
		return f
	}
	odd := (fields{}).broken(&n, reflect.TypeOf(into))
	if err := decode(text, &n, aliased, into); err != nil {
		if f := faultOf(err); odd == nil || f.Line <= odd.Line {
			return f
		}
		return odd
	}
	if odd != nil {
		return odd
	}
	if err := d.Decode(new(yaml.Node)); !errors.Is(err, io.EOF) {
		return &Fault{Problem: "holds more than one document"}
	}
	return nil
}

// decode decodes a text that was read once already; with aliases it is read again, as the reader alone follows them safely.
func decode(text []byte, n *yaml.Node, aliased bool, into any) error {
	if !aliased {
		return n.Decode(into)
	}
	d := yaml.NewDecoder(bytes.NewReader(text))
	d.KnownFields(true)
	return d.Decode(into)
}

// mostNames is how many names may stand beside each other.
const mostNames = 2000

// tooWide is a list of names that is longer than anybody writes; aliased reports a text that refers to parts of itself.
func tooWide(n *yaml.Node) (aliased bool, f *Fault) {
	if n.Kind == yaml.AliasNode {
		return true, nil
	}
	if n.Kind == yaml.MappingNode && len(n.Content) > 2*mostNames {
		return false, &Fault{n.Line, fmt.Sprintf("holds more than %d fields", mostNames)}
	}
	for _, c := range n.Content {
		a, f := tooWide(c)
		if f != nil {
			return aliased, f
		}
		aliased = aliased || a
	}
	return aliased, nil
}

// fields are the types of a type's fields by their names; known ones are kept.
type fields map[reflect.Type]map[string]reflect.Type

// of are those of a struct.
func (k fields) of(t reflect.Type) map[string]reflect.Type {
	if known, ok := k[t]; ok {
		return known
	}
	out := map[string]reflect.Type{}
	for i := range t.NumField() {
		f := t.Field(i)
		name, how, _ := strings.Cut(f.Tag.Get("yaml"), ",")
		switch {
		case how == "inline":
			maps.Copy(out, k.of(f.Type))
		case f.IsExported():
			out[cmp.Or(name, strings.ToLower(f.Name))] = f.Type
		}
	}
	k[t] = out
	return out
}

// broken is what the reader would pass over in silence: a field that is not known, a number with a fraction where a
// whole one is wanted.
func (k fields) broken(n *yaml.Node, t reflect.Type) *Fault {
	for t.Kind() == reflect.Pointer {
		t = t.Elem()
	}
	switch {
	case n.Kind == yaml.DocumentNode:
		return k.broken(n.Content[0], t)
	case n.Kind == yaml.ScalarNode && t.Kind() == reflect.Int && n.Tag == "!!float":
		return &Fault{n.Line, n.Value + ": want a whole number"}
	case n.Kind == yaml.SequenceNode && (t.Kind() == reflect.Slice || t.Kind() == reflect.Array):
		for _, c := range n.Content {
			if f := k.broken(c, t.Elem()); f != nil {
				return f
			}
		}
	case n.Kind == yaml.MappingNode && (t.Kind() == reflect.Map || t.Kind() == reflect.Struct):
		for i := 0; i+1 < len(n.Content); i += 2 {
			below := reflect.Type(nil)
			if t.Kind() == reflect.Map {
				below = t.Elem()
			} else if below = k.of(t)[n.Content[i].Value]; below == nil {
				return &Fault{n.Content[i].Line, fmt.Sprintf("there is no field %q", n.Content[i].Value)}
			}
			if f := k.broken(n.Content[i+1], below); f != nil {
				return f
			}
		}
	}
	return nil
}

var (
	lined   = regexp.MustCompile(`^(?:yaml: )?line (\d+): (.*)$`)
	unknown = regexp.MustCompile(`^field (.+) not found in type .*$`)
	unfit   = regexp.MustCompile("^cannot unmarshal !!\\w+ (?:(`.*`) )?into (.*)$")
	twice   = regexp.MustCompile(`^mapping key "?(.*?)"? already defined at line (\d+)$`)
)

// kindsOf are the program's types in words; lists begin with brackets, all others are fields with values.
var kindsOf = map[string]string{
	"float64": "a number", "int": "a whole number", "string": "a text", "bool": "true or false",
}

// faultOf tells a fault of the reader in words of ours.
func faultOf(err error) *Fault {
	text := err.Error()
	var of *yaml.TypeError
	if errors.As(err, &of) {
		text = of.Errors[0]
	}
	f := &Fault{Problem: strings.TrimPrefix(text, "yaml: ")}
	if m := lined.FindStringSubmatch(text); m != nil {
		f.Line, _ = strconv.Atoi(m[1]) // digits
		f.Problem = m[2]
	}
	if m := unknown.FindStringSubmatch(f.Problem); m != nil {
		f.Problem = fmt.Sprintf("there is no field %q", m[1])
	} else if m := unfit.FindStringSubmatch(f.Problem); m != nil {
		f.Problem = unfitWords(m[1], m[2])
	} else if m := twice.FindStringSubmatch(f.Problem); m != nil {
		f.Problem = fmt.Sprintf("field %q stands in line %s already", m[1], m[2])
	}
	return f
}

// unfitWords says that a value is not what its field takes; what stands there may be empty, as for a list or fields.
func unfitWords(value, into string) string {
	want := kindsOf[into]
	switch {
	case want != "":
	case strings.HasPrefix(into, "[]"):
		want = "a list"
	default:
		want = "fields with values"
	}
	if value == "" {
		return "want " + want
	}
	return strings.Trim(value, "`") + ": want " + want
}

// Write encodes a value as YAML that Read reads back to the same.
func Write(v any) ([]byte, error) {
	var out bytes.Buffer
	e := yaml.NewEncoder(&out)
	e.SetIndent(2)
	err := errors.Join(e.Encode(v), e.Close())
	return []byte(quantity.Braced(out.String())), err
}
