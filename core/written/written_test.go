package written

import (
	"strings"
	"testing"
)

type leaf struct {
	Name  string   `yaml:"name"`
	Area  float64  `yaml:"area"`
	Count int      `yaml:"count"`
	Tags  []string `yaml:"tags"`
	Edge  struct {
		Kind string `yaml:"kind"`
	} `yaml:"edge"`
}

func TestFaultsNameTheirLine(t *testing.T) {
	for _, c := range []struct {
		what, text string
		line       int
		says       string
	}{
		{"an unknown field", "- name: oak\n  colour: green\n", 2, `there is no field "colour"`},
		{"a text for a number", "- name: oak\n- name: elm\n  area: wide\n", 3, "wide: want a number"},
		{"a share for a whole number", "- count: 1.5\n", 1, "want a whole number"},
		{"a text for a list", "- tags: soft\n", 1, "soft: want a list"},
		{"a list for fields", "- edge: [a, b]\n", 1, "want fields with values"},
		{"a field twice", "- name: oak\n  name: elm\n", 2, `field "name" stands in line 1 already`},
		{"no list", "name: oak\n", 1, "want a list"},
		{"a tab before a field", "- name: oak\n\tarea: 2\n", 2, "tab"},
		{"two documents", "- name: oak\n---\n- name: elm\n", 0, "more than one document"},
	} {
		var out []leaf
		err := Read([]byte(c.text), &out)
		f, ok := err.(*Fault)
		if !ok || f.Line != c.line || !strings.Contains(err.Error(), c.says) {
			t.Errorf("%s: %v, want line %d and %q", c.what, err, c.line, c.says)
		}
	}
}

func TestWhatIsWrittenReadsTheSame(t *testing.T) {
	in := []leaf{{Name: "yes: no", Area: 0.25, Count: 3, Tags: []string{"a", "2027-03-01", "1e3", ""}}, {Name: "élan"}}
	text, err := Write(in)
	if err != nil {
		t.Fatal(err)
	}
	var out []leaf
	if err := Read(text, &out); err != nil {
		t.Fatalf("%v in\n%s", err, text)
	}
	if len(out) != 2 || out[0].Name != in[0].Name || strings.Join(out[0].Tags, "|") != strings.Join(in[0].Tags, "|") ||
		out[0].Area != 0.25 || out[1].Name != in[1].Name {
		t.Errorf("%+v from\n%s", out, text)
	}
	kept := []leaf{{Name: "kept"}}
	if err := Read(nil, &kept); err != nil || len(kept) != 1 {
		t.Errorf("an empty text: %v, %+v", err, kept)
	}
}
