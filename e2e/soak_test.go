package e2e

import (
	"bytes"
	"context"
	"encoding/json"
	"errors"
	"flag"
	"fmt"
	"image"
	"image/color"
	"image/jpeg"
	"io"
	"math/rand/v2"
	"net/http"
	"os"
	"os/exec"
	"path/filepath"
	"slices"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/jmoiron/sqlx"

	"mezzadro/store"
)

// soakFor is how long the record is tried; a short cut of it is part of every test run.
var soakFor = flag.Duration("soak", 6*time.Second, "how long to kill, restart and count")

// Of a long soak; in other runs the drills are few.
var (
	kills  = flag.Int("kills", 0, "kill so often, however long it takes")
	drills = flag.Int("drills", 4, "how often a restore is killed")
)

// written is a write that went out: what it was, under which key, and whether it was acknowledged.
type written struct {
	kind, key, mark string
	path            string
	body            []byte
	file            string // content type, where the body is no JSON
	acknowledged    bool
}

// writer sends all kinds of writes to a server that may die at any moment.
type writer struct {
	t      *testing.T
	mu     sync.Mutex
	all    []*written
	status map[int]int
	n      int
}

// next is a write of some kind, with a mark by which it is found again.
func (w *writer) next(r *rand.Rand) *written {
	w.mu.Lock()
	w.n++
	n := w.n
	w.mu.Unlock()
	one := &written{key: fmt.Sprintf("soak-%d-%d", os.Getpid(), n), mark: fmt.Sprintf("mark %d.", n)}
	body := func(v map[string]any) {
		b, err := json.Marshal(v)
		if err != nil {
			w.t.Error(err)
		}
		one.body = b
	}
	switch r.IntN(5) {
	case 0:
		one.kind, one.path = "plant", "/plants"
		body(map[string]any{"property_id": 1, "species": "buxus-sempervirens", "height_m": 1, "label": one.mark})
	case 1:
		one.kind, one.path = "job", "/orders"
		body(map[string]any{"property_id": 1, "title": one.mark, "minutes": 10, "spans": []map[string]any{{"from": "2027-03-18", "to": "2027-04-18"}}})
	case 2:
		one.kind, one.path, one.file = "file", "/properties/1/plants", "text/csv"
		one.body = []byte("species,label,height_m\nbuxus-sempervirens," + one.mark + "a,1\nbuxus-sempervirens," + one.mark + "b,1\n")
	case 3:
		one.kind, one.path = "person", "/people"
		body(map[string]any{"name": one.mark, "skills": []string{}})
	default:
		one.kind, one.path, one.file = "picture", "/orders/1/photos", "image/jpeg"
		m := image.NewRGBA(image.Rect(0, 0, 40, 30))
		for i := range 300 { // no two are alike
			m.Set(i%40, i/40, color.RGBA{uint8(r.IntN(256)), uint8(r.IntN(256)), uint8(n), 255})
		}
		var b bytes.Buffer
		if err := jpeg.Encode(&b, m, nil); err != nil {
			w.t.Error(err)
		}
		one.body = b.Bytes()
	}
	return one
}

// send gives the status, 0 where no answer came.
func (w *writer) send(url string, one *written) int {
	req, err := http.NewRequest("POST", url+"/api/v1"+one.path, bytes.NewReader(one.body))
	if err != nil {
		w.t.Error(err)
		return 0
	}
	kind := one.file
	if kind == "" {
		kind = "application/json"
	}
	req.Header.Set("Content-Type", kind)
	req.Header.Set("Idempotency-Key", one.key)
	ctx, cancel := context.WithTimeout(context.Background(), 20*time.Second)
	defer cancel()
	res, err := http.DefaultClient.Do(req.WithContext(ctx))
	if err != nil {
		return 0
	}
	_, err = io.Copy(io.Discard, res.Body)
	res.Body.Close()
	if err != nil {
		return 0
	}
	return res.StatusCode
}

// storm writes from several sides until it is told to stop.
func (w *writer) storm(url string, seed uint64, stop <-chan struct{}) {
	var all sync.WaitGroup
	for k := range 4 {
		all.Go(func() {
			r := rand.New(rand.NewPCG(seed, uint64(k)))
			for {
				select {
				case <-stop:
					return
				default:
				}
				one := w.next(r)
				code := w.send(url, one)
				w.mu.Lock()
				w.status[code]++
				one.acknowledged = code >= 200 && code < 300
				w.all = append(w.all, one)
				w.mu.Unlock()
			}
		})
	}
	all.Wait()
}

// count goes through the record for every mark: what was acknowledged is there once, what was not at most once.
func (w *writer) count(folder string) (acknowledged, lost, doubled int) {
	st, err := store.Open(context.Background(), folder)
	if err != nil {
		w.t.Fatal(err)
	}
	defer st.Close()
	found := map[string]int{}
	plants, err := st.Plants(context.Background(), 1, 0, 1_000_000)
	if err != nil {
		w.t.Fatal(err)
	}
	for _, p := range plants {
		found[p.Label]++
	}
	orders, err := st.StandingOrders(context.Background())
	if err != nil {
		w.t.Fatal(err)
	}
	for _, o := range orders {
		found[o.Title]++
	}
	people, err := st.People(context.Background())
	if err != nil {
		w.t.Fatal(err)
	}
	for _, p := range people {
		found[p.Name]++
	}
	pictures, err := st.OrderPhotos(context.Background(), 1)
	if err != nil {
		w.t.Fatal(err)
	}
	sent, pictured, kept := 0, 0, len(pictures)
	for _, one := range w.all {
		if one.acknowledged {
			acknowledged++
		}
		marks := []string{one.mark}
		switch one.kind {
		case "picture":
			pictured++
			if one.acknowledged {
				sent++
			}
			continue
		case "file":
			marks = []string{one.mark + "a", one.mark + "b"}
			if found[marks[0]] != found[marks[1]] {
				w.t.Errorf("half of a file was kept: %s", one.mark)
			}
		}
		for _, m := range marks {
			if found[m] > 1 {
				doubled++
			}
			if one.acknowledged && found[m] == 0 {
				lost++
			}
		}
	}
	if kept < sent {
		lost += sent - kept
	}
	doubled += max(0, kept-pictured)
	return acknowledged, lost, doubled
}

// TestSoak: the program is killed again and again while all kinds of writes come in, backups are killed on the way, a
// second program is started beside it; no acknowledged write is lost, none is doubled when it is sent again, the record
// and every whole backup are in order. With -soak it goes on for longer.
func TestSoak(t *testing.T) {
	data := filepath.Join(t.TempDir(), "data")
	s := start(t, "serve", data, "--today", "2027-03-18")
	s.post("/api/v1/properties", `{"name": "Priory", "climate_type": "lake-foothills"}`)
	s.post("/api/v1/orders", `{"property_id": 1, "title": "Sweep", "minutes": 10, "spans": [{"from": "2027-03-18", "to": "2027-04-18"}]}`)
	w := &writer{t: t, status: map[int]int{}}
	r := rand.New(rand.NewPCG(7, uint64(time.Now().UnixNano())))
	cycles, backups := 0, 0
	for until := time.Now().Add(*soakFor); cycles < *kills || *kills == 0 && time.Now().Before(until); cycles++ {
		stop := make(chan struct{})
		var storm sync.WaitGroup
		storm.Go(func() { w.storm(s.url, r.Uint64(), stop) })
		time.Sleep(time.Duration(100+r.IntN(500)) * time.Millisecond)
		if cycles%3 == 1 {
			backups += s.backedUp(t, r)
		}
		if cycles%4 == 2 {
			out, err := exec.Command(program, "serve", "--addr", freeAddress(t), "--data", data).CombinedOutput()
			if err == nil || !strings.Contains(string(out), "is held by process") {
				t.Errorf("a second start: %v %s", err, out)
			}
		}
		s.kill()
		close(stop)
		storm.Wait()
		s = startAt(t, strings.TrimPrefix(s.url, "http://"), "serve", data, "--today", "2027-03-18")
		for _, one := range w.all { // what was not answered is sent again, as a phone does
			if !one.acknowledged {
				if code := w.send(s.url, one); code >= 200 && code < 300 {
					one.acknowledged = true
				} else if code != 0 {
					t.Errorf("%s sent again: %d", one.kind, code)
				}
			}
		}
	}
	s.kill()
	acknowledged, lost, doubled := w.count(data)
	t.Logf("%d kills, %d writes acknowledged, %d lost, %d doubled; %d whole backups; answers %v", cycles, acknowledged, lost, doubled, backups, w.status)
	if lost > 0 || doubled > 0 || acknowledged < 20 {
		t.Errorf("%d of %d acknowledged writes lost, %d doubled", lost, acknowledged, doubled)
	}
	if faults, err := store.Check(context.Background(), data); err != nil || len(faults) > 0 {
		t.Errorf("the record: %v %v", faults, err)
	}
	for code := range w.status {
		if code >= 500 {
			t.Errorf("%d answers with %d", w.status[code], code)
		}
	}
}

// backedUp writes a backup beside the storm, kills every other one, and restores what is whole; it counts those.
func (s *server) backedUp(t *testing.T, r *rand.Rand) int {
	t.Helper()
	file := filepath.Join(t.TempDir(), "b.tar.zst")
	cmd := exec.Command(program, "backup", file, "--data", s.data)
	if err := cmd.Start(); err != nil {
		t.Fatal(err)
	}
	if r.IntN(2) == 0 {
		time.Sleep(time.Duration(r.IntN(80)) * time.Millisecond)
		_ = cmd.Process.Kill()
	}
	failed := cmd.Wait()
	if _, err := os.Stat(file); err != nil {
		if failed == nil {
			t.Errorf("a backup that went well is not there: %v", err)
		}
		return 0
	}
	into := filepath.Join(t.TempDir(), "into")
	cut := exec.Command(program, "restore", file, "--data", into)
	if err := cut.Start(); err != nil {
		t.Fatal(err)
	}
	time.Sleep(time.Duration(r.IntN(60)) * time.Millisecond)
	_ = cut.Process.Kill()
	if cut.Wait() == nil { // it was done before
		return 1
	}
	if _, err := os.Stat(filepath.Join(into, "mezzadro.db")); err == nil { // renamed as the last thing: whole
		return 1
	}
	if out, err := exec.Command(program, "restore", file, "--data", into).CombinedOutput(); err != nil {
		t.Errorf("a whole backup does not restore: %v %s", err, out)
	}
	return 1
}

// TestRestoreDrills: a restore in the place of a record, plain and sealed, is killed at points spread over all it takes.
// What stands there afterwards is the record of before, or the backup's, whole; or the folder was just put aside and is
// whole beside it. Once let through, it is the backup's.
func TestRestoreDrills(t *testing.T) {
	t.Parallel()
	ctx := context.Background()
	data := filepath.Join(t.TempDir(), "data")
	s := start(t, "serve", data, "--today", "2027-03-18")
	s.post("/api/v1/properties", `{"name": "Priory", "climate_type": "lake-foothills"}`)
	for range 60 {
		s.post("/api/v1/plants", `{"property_id": 1, "species": "buxus-sempervirens", "height_m": 1}`)
	}
	s.kill()
	secret := filepath.Join(t.TempDir(), "passphrase")
	if err := os.WriteFile(secret, []byte("four quiet mulberry trees\n"), 0o600); err != nil {
		t.Fatal(err)
	}
	run := func(args ...string) error {
		out, err := exec.Command(program, args...).CombinedOutput()
		if err != nil {
			return fmt.Errorf("%s: %w: %s", args[0], err, out)
		}
		return nil
	}
	plain, sealed := filepath.Join(t.TempDir(), "b.tar.zst"), filepath.Join(t.TempDir(), "b.tar.zst.age")
	if err := errors.Join(run("backup", plain, "--data", data), run("backup", sealed, "--data", data, "--passphrase-file", secret)); err != nil {
		t.Fatal(err)
	}
	seen := map[string]int{}
	for n := range *drills {
		into := filepath.Join(t.TempDir(), "data")
		if err := os.CopyFS(into, os.DirFS(data)); err != nil {
			t.Fatal(err)
		}
		if err := os.WriteFile(filepath.Join(into, "of-before"), nil, 0o600); err != nil { // by which it is known
			t.Fatal(err)
		}
		args := []string{"restore", plain, "--replace", "--data", into}
		if n%2 == 1 {
			args = []string{"restore", sealed, "--replace", "--data", into, "--passphrase-file", secret}
		}
		cmd := exec.Command(program, args...)
		if err := cmd.Start(); err != nil {
			t.Fatal(err)
		}
		time.Sleep(time.Duration(n) * 600 * time.Millisecond / time.Duration(*drills))
		_ = cmd.Process.Kill()
		done := cmd.Wait() == nil
		stands := into
		if _, err := os.Stat(filepath.Join(into, "mezzadro.db")); err != nil {
			beside, _ := filepath.Glob(into + ".before-*")
			if len(beside) != 1 {
				t.Fatalf("killed at %d of %d: neither the record nor what was put aside is there: %v", n, *drills, beside)
			}
			stands = beside[0]
		}
		if faults, err := store.Check(ctx, stands); err != nil || len(faults) > 0 {
			t.Errorf("killed at %d of %d: %v %v", n, *drills, faults, err)
		}
		_, err := os.Stat(filepath.Join(into, "of-before"))
		seen[fmt.Sprintf("done %t, in place %t, of before %t", done, stands == into, err == nil)]++
		if stands != into { // put aside, and nothing in its place: as into a new folder
			args = slices.DeleteFunc(args, func(a string) bool { return a == "--replace" })
		}
		if err := run(args...); err != nil {
			t.Errorf("killed at %d of %d, and then: %v", n, *drills, err)
		}
		if _, err := os.Stat(filepath.Join(into, "of-before")); err == nil {
			t.Error("once let through, the record of before stands there still")
		}
	}
	t.Log(seen)
}

// startFull starts the program where no file may become larger than so many blocks of 1024 bytes.
func startFull(t *testing.T, data, today string, blocks int64) *server {
	t.Helper()
	addr := freeAddress(t)
	limited := fmt.Sprintf("trap '' XFSZ; ulimit -f %d; exec %q serve --addr %s --data %q --today %s", blocks, program, addr, data, today)
	cmd := exec.Command("bash", "-c", limited)
	if err := cmd.Start(); err != nil {
		t.Fatal(err)
	}
	t.Cleanup(func() { _ = cmd.Process.Kill(); _ = cmd.Wait() })
	s := &server{t: t, url: "http://" + addr, data: data}
	for deadline := time.Now().Add(patience); ; time.Sleep(20 * time.Millisecond) {
		if res, err := http.Get(s.url + "/api/v1/frame"); err == nil {
			res.Body.Close()
			return s
		}
		if time.Now().After(deadline) {
			t.Fatal("it does not answer")
		}
	}
}

// TestFullDisk: where no file may grow any more, writes are refused in plain words with nothing kept, and reads go on.
func TestFullDisk(t *testing.T) {
	t.Parallel()
	data := t.TempDir()
	s := start(t, "serve", data, "--today", "2027-03-18")
	s.post("/api/v1/properties", `{"name": "Priory", "climate_type": "lake-foothills"}`)
	s.kill()
	info, err := os.Stat(filepath.Join(data, "mezzadro.db"))
	if err != nil {
		t.Fatal(err)
	}
	full := startFull(t, data, "2027-03-18", info.Size()/1024+40)
	refused, kept := "", 0
	for i := range 400 {
		body := fmt.Sprintf(`{"property_id": 1, "species": "buxus-sempervirens", "height_m": 1, "note": %q}`, strings.Repeat("long ", 300)+fmt.Sprint(i))
		res, err := http.Post(full.url+"/api/v1/plants", "application/json", strings.NewReader(body))
		if err != nil {
			t.Fatal(err)
		}
		b, _ := io.ReadAll(res.Body)
		res.Body.Close()
		if res.StatusCode >= 300 {
			refused = fmt.Sprintf("%d %s", res.StatusCode, b)
			break
		}
		kept++
	}
	if !strings.HasPrefix(refused, "507 ") || !strings.Contains(refused, "nothing was changed") {
		t.Errorf("with a full disk, after %d plants: %s", kept, refused)
	}
	var plants struct{ Items []struct{ ID int64 } }
	full.get("/api/v1/plants?property=1&limit=1000", &plants)
	if len(plants.Items) != kept {
		t.Errorf("%d were acknowledged, %d are there", kept, len(plants.Items))
	}
}

// TestStartOnFullDisk: the program starts on a disk with room for some 40 kB, and takes nothing, on a later day; all is read, and it says that
// nothing can be kept.
func TestStartOnFullDisk(t *testing.T) {
	t.Parallel()
	data := t.TempDir()
	s := start(t, "serve", data, "--today", "2027-03-18")
	s.post("/api/v1/properties", `{"name": "Priory", "climate_type": "lake-foothills"}`)
	s.post("/api/v1/plants", `{"property_id": 1, "species": "buxus-sempervirens", "height_m": 1}`)
	s.post("/api/v1/orders", `{"property_id": 1, "title": "Clip the box", "minutes": 30, "plants": [1], "spans": [{"from": "2027-03-01", "to": "2027-06-30"}]}`)
	s.kill()
	full := startFull(t, data, "2027-05-20", 40) // room for the index of what was written last, and for nothing else
	var frame struct{ Trouble string }
	if full.get("/api/v1/frame", &frame); frame.Trouble == "" {
		t.Error("nobody is told that nothing can be kept")
	}
	for _, path := range []string{"lookout", "orders?list=standing", "plants?property=1", "plants/1/story", "properties/1/season", "year",
		"shopping", "uses", "find?text=box", "rounds/season?weeks=8"} {
		res, err := http.Get(full.url + "/api/v1/" + path)
		if err != nil {
			t.Fatal(err)
		}
		b, _ := io.ReadAll(res.Body)
		if res.Body.Close(); res.StatusCode != 200 {
			t.Errorf("%s: %d %.200s", path, res.StatusCode, b)
		}
	}
	res, err := http.Post(full.url+"/api/v1/orders", "application/json", strings.NewReader(`{"property_id": 1, "title": "Sweep", "minutes": 10, "spans": [{"from": "2027-05-20", "to": "2027-06-30"}]}`))
	if err != nil {
		t.Fatal(err)
	}
	if res.Body.Close(); res.StatusCode != 507 {
		t.Errorf("a write: %d", res.StatusCode)
	}
}

// TestStartOnDiskWithoutRoom: where there is no room even for the record's index, the start fails in words that say what
// to do, and the record is whole after.
func TestStartOnDiskWithoutRoom(t *testing.T) {
	t.Parallel()
	data := t.TempDir()
	s := start(t, "serve", data, "--today", "2027-03-18")
	s.post("/api/v1/properties", `{"name": "Priory", "climate_type": "lake-foothills"}`)
	s.kill()
	for _, blocks := range []int{0, 4, 12} {
		limited := fmt.Sprintf("trap '' XFSZ; ulimit -f %d; exec timeout 20 %q serve --addr %s --data %q --today 2027-05-20", blocks,
			program, freeAddress(t), data)
		out, err := exec.Command("bash", "-c", limited).CombinedOutput()
		if err == nil || !strings.Contains(string(out), "the disk is full") || !strings.Contains(string(out), "start again") {
			t.Errorf("with %d kB: %v %s", blocks, err, out)
		}
	}
	if faults, err := store.Check(context.Background(), data); err != nil || len(faults) > 0 {
		t.Errorf("the record: %v %v", faults, err)
	}
}

// TestCutUpgrade: an older record whose upgrade is killed again and again is whole when it is let through at last.
func TestCutUpgrade(t *testing.T) {
	t.Parallel()
	old, err := os.ReadFile("../store/testdata/record-before-orders.sql")
	if err != nil {
		t.Fatal(err)
	}
	data := t.TempDir()
	db, err := sqlx.Open("sqlite", "file:"+filepath.Join(data, "mezzadro.db"))
	if err != nil {
		t.Fatal(err)
	}
	if _, err := db.Exec(string(old)); err != nil {
		t.Fatal(err)
	}
	var plants int
	if err := errors.Join(db.Get(&plants, `SELECT count(*) FROM plant WHERE removed_at IS NULL`), db.Close()); err != nil {
		t.Fatal(err)
	}
	r := rand.New(rand.NewPCG(3, uint64(time.Now().UnixNano())))
	for range 8 {
		cmd := exec.Command(program, "serve", "--addr", freeAddress(t), "--data", data, "--today", "2027-03-18")
		if err := cmd.Start(); err != nil {
			t.Fatal(err)
		}
		time.Sleep(time.Duration(5+r.IntN(120)) * time.Millisecond)
		_ = cmd.Process.Kill()
		_ = cmd.Wait()
	}
	s := start(t, "serve", data, "--today", "2027-03-18")
	var list struct{ Items []struct{ ID int64 } }
	s.get("/api/v1/plants?limit=1000", &list)
	if len(list.Items) != plants || plants == 0 {
		t.Errorf("%d plants of %d are there", len(list.Items), plants)
	}
	s.kill()
	if faults, err := store.Check(context.Background(), data); err != nil || len(faults) > 0 {
		t.Errorf("the record: %v %v", faults, err)
	}
}
