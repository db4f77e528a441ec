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
