package api

import (
	"archive/zip"
	"bytes"
	"context"
	"crypto/sha256"
	"fmt"
	"io"
	"path/filepath"
	"strings"
	"testing"

	"mezzadro/core/quantity"
	"mezzadro/house"
	"mezzadro/store"
)

// contents are the hashes of what a zip of everything holds, without what says when it was made.
func contents(t *testing.T, b []byte) (out map[string]string) {
	t.Helper()
	z, err := zip.NewReader(bytes.NewReader(b), int64(len(b)))
	if err != nil {
		t.Fatal(err)
	}
	out = map[string]string{}
	for _, f := range z.File {
		r, err := f.Open()
		if err != nil {
			t.Fatal(err)
		}
		all, err := io.ReadAll(r)
		if err != nil {
			t.Fatal(err)
		}
		if f.Name != "everything.json" {
			out[f.Name] = fmt.Sprintf("%x", sha256.Sum256(all))
		}
	}
	return out
}

// TestEverythingOutAndIn: the sample's whole record goes out in open formats and comes back into an empty one, byte for
// byte; a zip that was tampered with, or comes into a record that holds something, leaves nothing.
func TestEverythingOutAndIn(t *testing.T) {
	h := sampleHouse(t)
	plant := ok[house.Plant](h, "POST", "/plants", obj{"property_id": 1, "species": "olea-europaea", "height_m": 2, "label": "=1+1 \"quoted\", café\n二", "note": `\N`})
	code, b := h.do("GET", "/everything.zip", nil)
	if code != 200 {
		t.Fatalf("%d %.200s", code, b)
	}
	before := contents(t, b)
	for _, name := range []string{"README.txt", "jobs.ics", "tables/plant.csv", "properties/1/plants.csv", "properties/1/weather.csv", "properties/1/plan.geojson"} {
		if before[name] == "" {
			t.Errorf("%s is missing", name)
		}
	}
	for name := range before {
		if strings.Contains(name, "account") || strings.Contains(name, "session") || strings.Contains(name, "invitation") {
			t.Errorf("%s goes out", name)
		}
	}
	other := newHouse(t)
	z, err := zip.NewReader(bytes.NewReader(b), int64(len(b)))
	if err != nil {
		t.Fatal(err)
	}
	head, err := other.server.Store.TakeEverything(context.Background(), z)
	if err != nil || head.Rows["plant"] < 100 {
		t.Fatalf("taken: %+v %v", head, err)
	}
	other.today = h.today
	var again bytes.Buffer
	if err := other.server.GiveEverything(context.Background(), &again, quantity.Metric); err != nil {
		t.Fatal(err)
	}
	after := contents(t, again.Bytes())
	for name, sum := range before {
		if after[name] != sum && name != "jobs.ics" { // its stamp is that of the house
			t.Errorf("%s came back as something else", name)
		}
	}
	if len(after) != len(before) {
		t.Errorf("%d files went out, %d came back", len(before), len(after))
	}
	if back := ok[house.Plant](other, "GET", fmt.Sprintf("/plants/%d", plant.ID), nil); back.Label != plant.Label || back.Note != plant.Note {
		t.Errorf("%q %q came back as %q %q", plant.Label, plant.Note, back.Label, back.Note)
	}
	if _, err := other.server.Store.TakeEverything(context.Background(), z); err == nil || !strings.Contains(err.Error(), "not empty") {
		t.Errorf("into a record that holds something: %v", err)
	}

	for what, change := range map[string]func(name string, b []byte) []byte{
		"hang on others": func(name string, b []byte) []byte {
			return map[bool][]byte{true: firstLine(b), false: b}[name == "tables/property.csv"]
		},
		"has 0 rows": func(name string, b []byte) []byte {
			return map[bool][]byte{true: firstLine(b), false: b}[name == "tables/plant.csv"]
		},
		"is missing": func(name string, b []byte) []byte {
			return map[bool][]byte{true: nil, false: b}[name == "everything.json"]
		},
		"there is no col": func(name string, b []byte) []byte {
			return map[bool][]byte{true: append([]byte("x"), b...), false: b}[name == "tables/plant.csv"]
		},
	} {
		empty, err := store.Open(context.Background(), filepath.Join(t.TempDir(), "data"))
		if err != nil {
			t.Fatal(err)
		}
		defer empty.Close()
		_, err = empty.TakeEverything(context.Background(), rewritten(t, z, change))
		plants, readErr := empty.Plants(context.Background(), 0, 0, 10)
		if err == nil || readErr != nil || len(plants) > 0 {
			t.Errorf("%s: %v, and %d plants", what, err, len(plants))
		}
	}
}

func firstLine(b []byte) []byte { return b[:bytes.IndexByte(b, '\n')+1] }

// rewritten is a zip with some files changed; nil takes one out.
func rewritten(t *testing.T, z *zip.Reader, change func(name string, b []byte) []byte) *zip.Reader {
	t.Helper()
	var out bytes.Buffer
	w := zip.NewWriter(&out)
	for _, f := range z.File {
		r, err := f.Open()
		if err != nil {
			t.Fatal(err)
		}
		b, err := io.ReadAll(r)
		if err != nil {
			t.Fatal(err)
		}
		if b = change(f.Name, b); b == nil {
			continue
		}
		to, err := w.Create(f.Name)
		if err == nil {
			_, err = to.Write(b)
		}
		if err != nil {
			t.Fatal(err)
		}
	}
	if err := w.Close(); err != nil {
		t.Fatal(err)
	}
	changed, err := zip.NewReader(bytes.NewReader(out.Bytes()), int64(out.Len()))
	if err != nil {
		t.Fatal(err)
	}
	return changed
}
