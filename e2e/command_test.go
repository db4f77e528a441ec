package e2e

import (
	"os/exec"
	"path/filepath"
	"strings"
	"syscall"
	"testing"
)

// TestCommandRefusals: what is wrong on the command line is said in a sentence, and nothing starts.
func TestCommandRefusals(t *testing.T) {
	t.Parallel()
	busy := start(t, "serve", t.TempDir())
	own := t.TempDir() // a record that is not the sample
	s := start(t, "serve", own)
	s.post("/api/v1/properties", `{"name":"Mill","climate_type":"prairie"}`)
	s.kill()
	for _, c := range []struct {
		args []string
		says string
	}{
		{[]string{"serve", "--data", t.TempDir(), "--today", "2027-02-30"}, "--today"},
		{[]string{"serve", "--data", t.TempDir(), "--addr", strings.TrimPrefix(busy.url, "http://")}, "address already in use"},
		{[]string{"serve", "--data", "/proc/nothing"}, "data folder"},
		{[]string{"demo", "--data", own, "--addr", freeAddress(t)}, "not the whole sample"},
		{[]string{"prune"}, "unknown command"},
	} {
		out, err := exec.Command(program, c.args...).CombinedOutput()
		if err == nil || !strings.Contains(string(out), c.says) {
			t.Errorf("%v: %v, %s", c.args, err, out)
		}
	}
}

// TestStopsGracefully: asked to stop, the program ends by itself and leaves a record that opens again.
func TestStopsGracefully(t *testing.T) {
	t.Parallel()
	data := filepath.Join(t.TempDir(), "record")
	s := start(t, "demo", data)
	if err := s.cmd.Process.Signal(syscall.SIGTERM); err != nil {
		t.Fatal(err)
	}
	if err := s.cmd.Wait(); err != nil {
		t.Errorf("ended with %v", err)
	}
	var frame struct {
		Counts struct {
			Grounds int `json:"grounds"`
		} `json:"counts"`
	}
	start(t, "demo", data).get("/api/v1/frame", &frame)
	if frame.Counts.Grounds != 8 {
		t.Errorf("%d properties after the restart", frame.Counts.Grounds)
	}
}

// TestBackupOnTheCommandLine: a record that is being served goes into one file, comes back into an empty folder and is
// served from there; what is no backup, and a folder that holds something, are refused.
func TestBackupOnTheCommandLine(t *testing.T) {
	t.Parallel()
	data, dir := t.TempDir(), t.TempDir()
	s := start(t, "serve", data)
	s.post("/api/v1/properties", `{"name":"Mill","climate_type":"prairie"}`)
	run := func(says string, good bool, args ...string) {
		t.Helper()
		out, err := exec.Command(program, args...).CombinedOutput()
		if (err == nil) != good || !strings.Contains(string(out), says) {
			t.Errorf("%v: %v, %s", args, err, out)
		}
	}
	file, other := filepath.Join(dir, "mill.tar.zst"), filepath.Join(dir, "other")
	run("1 properties", true, "backup", file, "--data", data)
	run("1 properties", true, "restore", file, "--data", other)
	run("is whole", true, "check", "--data", other)
	run("is not empty", false, "restore", file, "--data", other)
	run("cannot be restored", false, "restore", program, "--data", filepath.Join(dir, "third"))
	run("there is no record", false, "backup", filepath.Join(dir, "none"), "--data", t.TempDir())
	if left, err := filepath.Glob(filepath.Join(dir, "*.part")); err != nil || len(left) != 0 {
		t.Errorf("left behind: %v, %v", left, err)
	}
	var list struct{ Items []struct{ Name string } }
	again := start(t, "serve", other)
	again.get("/api/v1/properties", &list)
	if len(list.Items) != 1 || list.Items[0].Name != "Mill" {
		t.Errorf("served from the backup: %+v", list)
	}
}
