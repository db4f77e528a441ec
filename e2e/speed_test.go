package e2e

import (
	"net/http"
	"os/exec"
	"path/filepath"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
)

// scriptKB waits for the first page and gives the compressed script it took, in kB.
func (b *browser) scriptKB() float64 {
	b.t.Helper()
	b.visit("/")
	b.see("Which property first")
	b.settled()
	b.mu.Lock()
	defer b.mu.Unlock()
	sum := 0.0
	for _, n := range b.scripts {
		sum += n / 1000
	}
	return sum
}

// TestFirstPageIsLight keeps the first load small enough for a phone on a hillside.
func TestFirstPageIsLight(t *testing.T) {
	kb := open(t, start(t, "demo", t.TempDir()), 1280, 800).scriptKB()
	t.Logf("the first page takes %.0f kB of compressed script", kb)
	if kb < 20 || kb > 150 {
		t.Errorf("%.0f kB of script on the first page, want some and at most 150", kb)
	}
}

// BenchmarkStart measures from starting the program over an existing record to its first answer.
func BenchmarkStart(b *testing.B) {
	data := filepath.Join(b.TempDir(), "data")
	start(b, "demo", data).kill()
	for b.Loop() {
		start(b, "demo", data).kill()
	}
}

// BenchmarkFirstLoad measures from asking for the first page to seeing the look-list, in a browser with an empty cache.
func BenchmarkFirstLoad(b *testing.B) {
	s := start(b, "demo", b.TempDir())
	for b.Loop() {
		b.StopTimer()
		tab := open(b, s, 1280, 800)
		b.StartTimer()
		if err := chromedp.Do(tab.ctx, chromedp.Navigate(s.url+"/")); err != nil {
			b.Fatal(err)
		}
		tab.see("Which property first")
	}
	b.StopTimer()
	b.ReportMetric(open(b, s, 1280, 800).scriptKB(), "script-kB")
}

// TestWeatherOverHTTP serves the simulated station as a program of its own and reads it as a real one.
func TestWeatherOverHTTP(t *testing.T) {
	addr := freeAddress(t)
	station := exec.Command(program, "weather", "--addr", addr, "--seed", "9")
	if err := station.Start(); err != nil {
		t.Fatal(err)
	}
	t.Cleanup(func() { _ = station.Process.Kill(); _ = station.Wait() })
	up := false
	for deadline := time.Now().Add(patience); time.Now().Before(deadline); {
		if res, err := http.Get("http://" + addr + "/hours?latitude=45.9&longitude=8.6&elevation_m=210&from=2027-01-01&to=2027-01-02"); err == nil {
			up = res.StatusCode == 200
			res.Body.Close()
			break
		}
		time.Sleep(10 * time.Millisecond)
	}
	if !up {
		t.Fatal("the station does not answer")
	}
	s := start(t, "serve", t.TempDir(), "--today", "2027-03-18", "--weather", "http://"+addr)
	b := open(t, s, 1280, 800)
	b.visit("/#/grounds")
	b.press("button", "Add the first property")
	b.fill("Name", "Small orchard")
	b.choose("Climate to start from", "Lake in mild southern foothills")
	b.press("button", "Keep")
	b.see("No weather read yet")
	b.press("button", "Read the station")
	b.see("hours from the simulated weather station")
	b.see("Weather: simulated weather station, to Wed 17 March")

	// A day later the program reads on by itself.
	b.expect("failed request: net::ERR_") // the page may still ask the program that is killed here
	s.kill()
	next := start(t, "serve", s.data, "--today", "2027-03-19", "--weather", "http://"+addr)
	deadline := time.Now().Add(patience)
	for {
		var season struct {
			ObservedTo string `json:"observed_to"`
		}
		next.get("/api/v1/properties/1/season", &season)
		if season.ObservedTo == "2027-03-18" {
			break
		}
		if time.Now().After(deadline) {
			t.Fatalf("the weather was read only to %s", season.ObservedTo)
		}
		time.Sleep(50 * time.Millisecond)
	}
}
