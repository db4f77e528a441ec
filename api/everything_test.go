package api_test

import (
	"archive/zip"
	"bytes"
	"context"
	"crypto/sha256"
	"errors"
	"fmt"
	"io"
	"maps"
	"os"
	"path/filepath"
	"slices"
	"strings"
	"testing"
	"time"

	. "mezzadro/api"
	"mezzadro/core/quantity"
	"mezzadro/house/estate"
	"mezzadro/house/overview"
	"mezzadro/house/work"
	"mezzadro/store"
)

// contents are the hashes of what a zip of everything holds, without what says when it was made.
func contents(t testing.TB, b []byte) (out map[string]string) {
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
	t.Parallel()
	h := sampleHouse(t)
	plant := ok[estate.Plant](h, "POST", "/plants", obj{"property_id": 1, "species": "olea-europaea", "height_m": 2, "label": "=1+1 \"quoted\", café\n二", "note": `\N`})
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
	head, err := other.server.Estate.Store.TakeEverything(context.Background(), z)
	if err != nil || head.Rows["plant"] < 100 {
		t.Fatalf("taken: %+v %v", head, err)
	}
	other.today = h.today
	var again bytes.Buffer
	if err := other.server.Firm.GiveEverything(context.Background(), &again, quantity.Metric); err != nil {
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
	if back := ok[estate.Plant](other, "GET", fmt.Sprintf("/plants/%d", plant.ID), nil); back.Label != plant.Label || back.Note != plant.Note {
		t.Errorf("%q %q came back as %q %q", plant.Label, plant.Note, back.Label, back.Note)
	}
	if _, err := other.server.Estate.Store.TakeEverything(context.Background(), z); err == nil || !strings.Contains(err.Error(), "not empty") {
		t.Errorf("into a record that holds something: %v", err)
	}

	swap := func(table, was, is string) func(name string, b []byte) []byte {
		return func(name string, b []byte) []byte {
			if name != "tables/"+table+".csv" {
				return b
			}
			return bytes.Replace(b, []byte(was), []byte(is), 1)
		}
	}
	for what, change := range map[string]func(name string, b []byte) []byte{
		`the zone "Nowhere"`: swap("property", ",Europe/Rome,", ",Nowhere,"),
		`height_m is "Inf"`:  swap("plant", "Pots on the terrace,1.8,", "Pots on the terrace,1e999,"),
		`which is no day`:    swap("walk", "2027-", "2027-99-"),
		"hang on others, or rows are missing": func(name string, b []byte) []byte {
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
		if err == nil || readErr != nil || len(plants) > 0 || strings.Contains(what, " is ") && !strings.Contains(err.Error(), what) {
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

// BenchmarkRestore10000 backs up a record of 10,000 plants and 500 pictures, restores it, looks it through, and holds
// all that both give out against each other, byte for byte.
func BenchmarkRestore10000(b *testing.B) {
	h := newHouse(b)
	p := ok[estate.Property](h, "POST", "/properties", obj{"name": "Park", "climate_type": "lake-foothills"})
	for part := range 2 {
		var csv strings.Builder
		csv.WriteString("species,label,height_m\n")
		for i := range 5000 {
			fmt.Fprintf(&csv, "buxus-sempervirens,Edging %d,0.6\n", 5000*part+i)
		}
		if code, answer := h.do("POST", fmt.Sprintf("/properties/%d/plants", p.ID), csv.String()); code >= 300 {
			b.Fatalf("%d %.200s", code, answer)
		}
	}
	o := ok[work.OrderDetail](h, "POST", "/orders", obj{"property_id": p.ID, "title": "Look", "minutes": 5, "spans": []obj{{"from": h.today.String(), "to": (h.today + 9).String()}}})
	for i := range 500 {
		if err := h.server.Estate.Store.Write(context.Background(), func(tx store.Tx) error {
			hash, err := h.server.Estate.Store.KeepPicture(bytes.Repeat(fmt.Appendf(nil, "picture %d;", i), 20_000))
			if err == nil {
				_, err = tx.AddOrderPhoto(context.Background(), store.OrderPhoto{OrderID: o.ID, Hash: hash, Width: 1, Height: 1})
			}
			return err
		}); err != nil {
			b.Fatal(err)
		}
	}
	out := func(s *Server) map[string]string {
		var z bytes.Buffer
		if err := s.Firm.GiveEverything(context.Background(), &z, quantity.Metric); err != nil {
			b.Fatal(err)
		}
		all := contents(b, z.Bytes())
		delete(all, "jobs.ics") // stamped with the house's hour
		return all
	}
	out(h.server) // its calendar of jobs asks the station for the weather ahead, which the record then holds
	before := out(h.server)
	for b.Loop() {
		dir := b.TempDir()
		if _, err := store.BackupTo(context.Background(), h.folder, time.Now(), filepath.Join(dir, "b.tar.zst"), ""); err != nil {
			b.Fatal(err)
		}
		f, err := os.Open(filepath.Join(dir, "b.tar.zst"))
		if err != nil {
			b.Fatal(err)
		}
		_, err = store.Restore(context.Background(), f, filepath.Join(dir, "again"), store.How{})
		if err = errors.Join(err, f.Close()); err != nil {
			b.Fatal(err)
		}
		other := &opened{t: b, folder: filepath.Join(dir, "again"), today: h.today}
		other.open()
		if after := out(other.server); !maps.Equal(before, after) {
			b.Fatalf("%d files went in, %d came out, or they differ", len(before), len(after))
		}
	}
	b.ReportMetric(float64(len(before)), "files")
}

// TestTornRow: a row that cannot be read spoils its own page; the Lookout, the lists and everything else go on, and say
// which it is.
func TestTornRow(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	good, _ := h.villa()
	bad := ok[estate.Property](h, "POST", "/properties", obj{"name": "Priory", "climate_type": "lake-foothills"})
	nowhere := ok[estate.Property](h, "POST", "/properties", obj{"name": "Mill", "climate_type": "lake-foothills"})
	order := h.byHand(good.ID, "Rake the gravel", 20, nil)
	torn := h.byHand(good.ID, "Sweep the court", 20, nil)
	if err := h.server.Estate.Store.Write(context.Background(), func(tx store.Tx) error {
		if _, err := tx.Exec(`UPDATE property SET climate = '{"latitude": ' WHERE id = ?`, bad.ID); err != nil {
			return err
		}
		if _, err := tx.Exec(`UPDATE property SET zone = 'Atlantis/City' WHERE id = ?`, nowhere.ID); err != nil {
			return err
		}
		_, err := tx.Exec(`UPDATE job_order SET params = 'no JSON' WHERE id = ?`, torn.ID)
		return err
	}); err != nil {
		t.Fatal(err)
	}
	look := ok[overview.Lookout](h, "GET", "/lookout", nil)
	if len(look.Places) != 1 || !slices.ContainsFunc(look.Unreadable, func(s string) bool { return strings.Contains(s, fmt.Sprintf("Property %d", bad.ID)) }) {
		t.Errorf("the lookout: %+v %v", look.Places, look.Unreadable)
	}
	for _, path := range []string{"/frame", "/properties", "/plants", fmt.Sprintf("/properties/%d", good.ID), fmt.Sprintf("/orders/%d", order.ID), "/orders?list=standing", "/rounds?from=2027-03-15&days=7", "/find?q=rake", "/year"} {
		if code, b := h.do("GET", path, nil); code != 200 && code != 422 {
			t.Errorf("%s: %d %.200s", path, code, b)
		}
	}
	for _, path := range []string{fmt.Sprintf("/properties/%d", bad.ID), fmt.Sprintf("/properties/%d", nowhere.ID), fmt.Sprintf("/orders/%d", torn.ID)} {
		if code, _ := h.do("GET", path, nil); code != 500 {
			t.Errorf("its own page, %s: %d", path, code)
		}
	}
}
