package catalogue

import (
	"bytes"
	"encoding/json"
	"fmt"
	"reflect"
	"strings"

	"github.com/goccy/go-yaml"

	"mezzadro/core/invalid"
)

// ReadPack reads species entries from YAML, the form of the built files: a list of entries, each with every field. The
// error lists each fault with its entry and field; nothing of a pack with faults is given back.
func ReadPack(b []byte) ([]Entry, error) {
	entries, err := decode[Entry](b, "pack")
	if err != nil {
		return nil, err
	}
	var bad invalid.Fields
	if len(entries) == 0 {
		bad.Add("pack", nil, "holds no entry; want a YAML list of species")
	}
	seen := map[string]bool{}
	for i, e := range entries {
		at := fmt.Sprintf("entry %q", e.ID)
		if e.ID == "" {
			at = fmt.Sprintf("entry %d", i+1)
		}
		bad.Below(at, e.Validate())
		if seen[e.ID] {
			bad.Add(at+".id", e.ID, "is in the pack twice")
		}
		seen[e.ID] = true
	}
	if bad != nil {
		return nil, bad
	}
	return entries, nil
}

// WritePack writes entries as YAML that ReadPack reads back to the same.
func WritePack(entries []Entry) ([]byte, error) {
	var out bytes.Buffer
	err := yaml.NewEncoder(&out, yaml.Indent(2), yaml.UseJSONMarshaler()).Encode(entries)
	return out.Bytes(), err
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
