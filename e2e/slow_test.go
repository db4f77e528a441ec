package e2e

import (
	"fmt"
	"os/exec"
	"strings"
	"sync"
	"syscall"
	"testing"
	"time"
)

// Of slow machines.
const (
	slowTimes = 10                    // by how much a machine is slowed
	slowTurn  = 50 * time.Millisecond // in turns so long
	diskWait  = 60 * time.Millisecond // that every flush to a slow disk takes longer
)

// slowed lets a program run for a tenth of the time only, until it is told to stop.
func (s *server) slowed(stop <-chan struct{}) {
	for {
		_ = s.cmd.Process.Signal(syscall.SIGSTOP)
		time.Sleep(slowTurn * (slowTimes - 1) / slowTimes)
		_ = s.cmd.Process.Signal(syscall.SIGCONT)
		select {
		case <-stop:
			return
		case <-time.After(slowTurn / slowTimes):
		}
	}
}

// stormed writes for a while against a record that is slow, kills it, and counts what is kept.
func stormed(t *testing.T, s *server, data string, lasts time.Duration, slow func(stop <-chan struct{})) {
	t.Helper()
	s.post("/api/v1/properties", `{"name": "Priory", "climate_type": "lake-foothills"}`)
	s.post("/api/v1/orders", `{"property_id": 1, "title": "Sweep", "minutes": 10, "spans": [{"from": "2027-03-18", "to": "2027-04-18"}]}`)
	w := &writer{t: t, status: map[int]int{}}
	done, stop := make(chan struct{}), make(chan struct{})
	var all sync.WaitGroup
	all.Go(func() { slow(done) })
	all.Go(func() { w.storm(s.url, 7, stop) })
	time.Sleep(lasts)
	close(stop) // what is under way still ends
	for deadline := time.Now().Add(patience); time.Now().Before(deadline); time.Sleep(20 * time.Millisecond) {
		w.mu.Lock()
		ended := len(w.all) == w.n
		w.mu.Unlock()
		if ended {
			break
		}
	}
	close(done)
	all.Wait()
	s.kill()
	acknowledged, lost, doubled := w.count(data)
	t.Logf("%d writes, %d acknowledged, %d lost, %d doubled; answers %v", w.n, acknowledged, lost, doubled, w.status)
	if lost > 0 || doubled > 0 || acknowledged != w.n || acknowledged < 8 {
		t.Errorf("of %d writes %d were acknowledged, %d lost, %d doubled: %v", w.n, acknowledged, lost, doubled, w.status)
	}
}

// TestSlowMachine: on a machine that is ten times slower every write still ends, and is kept once.
func TestSlowMachine(t *testing.T) {
	t.Parallel()
	data := t.TempDir()
	s := startAt(t, freeAddress(t), "serve", data, "--today", "2027-03-18")
	stormed(t, s, data, *soakFor, s.slowed)
}

// TestSlowDisk: where every flush to disk takes long, every write still ends, and is kept once. It delays the program's
// flushes from outside, and is skipped where that is not possible.
func TestSlowDisk(t *testing.T) {
	t.Parallel()
	tracer, err := exec.LookPath("strace")
	if err != nil {
		t.Skip("nothing here delays a program's flushes: ", err)
	}
	data := t.TempDir()
	s := startAt(t, freeAddress(t), "serve", data, "--today", "2027-03-18")
	flushes := exec.Command(tracer, "-f", "-qq", "-o", "/dev/null", "-e", "trace=fsync,fdatasync",
		"-e", fmt.Sprintf("inject=fsync,fdatasync:delay_enter=%d", diskWait.Microseconds()), "-p", fmt.Sprint(s.cmd.Process.Pid))
	var told strings.Builder
	flushes.Stderr = &told
	if err := flushes.Start(); err != nil {
		t.Fatal(err)
	}
	time.Sleep(300 * time.Millisecond) // until it holds every thread
	if flushes.ProcessState != nil || strings.Contains(told.String(), "not permitted") {
		t.Skip("nothing here may delay a program's flushes: ", told.String())
	}
	stormed(t, s, data, *soakFor, func(stop <-chan struct{}) { <-stop })
	_ = flushes.Process.Signal(syscall.SIGINT)
	_ = flushes.Wait()
}
