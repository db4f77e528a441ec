package e2e

import (
	"bytes"
	"fmt"
	"image"
	"image/color"
	"image/jpeg"
	"io"
	"math/rand/v2"
	"net/http"
	"os"
	"path/filepath"
	"slices"
	"strings"
	"sync"
	"testing"
	"time"

	"mezzadro/core/catalogue"
)

// BenchmarkFiftyClients has fifty clients read and write the sample for a minute: how long the slowest answers take,
// how many are faults, and whether a write is lost.
func BenchmarkFiftyClients(b *testing.B) {
	s := start(b, "demo", b.TempDir())
	const clients, span = 50, time.Minute
	var mu sync.Mutex
	took, faults, added := []time.Duration{}, 0, 0
	for b.Loop() {
		until := time.Now().Add(span)
		var all sync.WaitGroup
		for k := range clients {
			all.Go(func() {
				r := rand.New(rand.NewPCG(uint64(k), 5))
				for time.Now().Before(until) {
					from, code, write := time.Now(), 0, false
					switch r.IntN(8) {
					case 0:
						write = true
						body := fmt.Sprintf(`{"property_id": %d, "species": "buxus-sempervirens", "height_m": 1, "label": "load"}`, 1+r.IntN(8))
						code = post(s.url+"/api/v1/plants", body)
					case 1:
						code = fetched(s.url + "/api/v1/lookout")
					case 2:
						code = fetched(s.url + "/api/v1/orders?list=standing&limit=50")
					case 3:
						code = fetched(fmt.Sprintf("%s/api/v1/plants/%d/story", s.url, 1+r.IntN(100)))
					case 4:
						code = fetched(s.url + "/api/v1/rounds?from=2027-03-15&days=7")
					default:
						code = fetched(fmt.Sprintf("%s/api/v1/plants?property=%d&limit=100", s.url, 1+r.IntN(8)))
					}
					mu.Lock()
					took = append(took, time.Since(from))
					if code == 0 || code >= 500 {
						faults++
					} else if write && code < 300 {
						added++
					}
					mu.Unlock()
					time.Sleep(time.Duration(100+r.IntN(400)) * time.Millisecond) // a person looks at it
				}
			})
		}
		all.Wait()
	}
	var list struct{ Items []struct{ Label string } }
	kept := 0
	for p := range 8 {
		s.get(fmt.Sprintf("/api/v1/plants?property=%d&limit=1000", p+1), &list)
		for _, x := range list.Items {
			if x.Label == "load" {
				kept++
			}
		}
	}
	slices.Sort(took)
	b.ReportMetric(float64(took[len(took)/2].Milliseconds()), "p50-ms")
	b.ReportMetric(float64(took[len(took)*99/100].Milliseconds()), "p99-ms")
	b.ReportMetric(float64(len(took))/span.Seconds()/float64(b.N), "answers/s")
	b.ReportMetric(float64(faults), "faults")
	b.ReportMetric(float64(added-kept), "lost")
}

func post(url, body string) int {
	res, err := http.Post(url, "application/json", strings.NewReader(body))
	if err != nil {
		return 0
	}
	_, _ = io.Copy(io.Discard, res.Body)
	res.Body.Close()
	return res.StatusCode
}

func fetched(url string) int {
	res, err := http.Get(url)
	if err != nil {
		return 0
	}
	_, _ = io.Copy(io.Discard, res.Body)
	res.Body.Close()
	return res.StatusCode
}

// BenchmarkImports gives the program the largest files of each kind that it takes, and reports the most memory that it
// ever held.
func BenchmarkImports(b *testing.B) {
	s := start(b, "serve", b.TempDir(), "--today", "2027-03-18")
	s.post("/api/v1/properties", `{"name": "Priory", "climate_type": "lake-foothills"}`)
	var plants, hours strings.Builder
	plants.WriteString("species,label,height_m\n")
	for i := range 5000 {
		fmt.Fprintf(&plants, "buxus-sempervirens,Edging %d,0.6\n", i)
	}
	hours.WriteString("time,temp_c,wind_ms,rain_mm,rh_pct,sun\n")
	for i := range 3 * 365 * 24 {
		fmt.Fprintf(&hours, "%s,%.1f,2,0,70,0\n", time.Date(2024, 3, 20, i, 0, 0, 0, time.UTC).Format(time.RFC3339), 8+float64(i%17)/2)
	}
	pack, err := catalogue.WritePack(catalogue.Built().Entries)
	if err != nil {
		b.Fatal(err)
	}
	m := image.NewRGBA(image.Rect(0, 0, 8000, 6000))
	for i := range 40_000 {
		m.Set(i*7%8000, i*13%6000, color.RGBA{uint8(i), uint8(i >> 3), 90, 255})
	}
	var picture bytes.Buffer
	if err := jpeg.Encode(&picture, m, nil); err != nil {
		b.Fatal(err)
	}
	before := s.peakMB(b)
	b.ReportMetric(before, "start-MB")
	for b.Loop() {
		for _, f := range []struct{ name, path, kind, body string }{
			{"plants", "/properties/1/plants", "text/csv", plants.String()},
			{"weather", "/properties/1/weather", "text/csv", hours.String()},
			{"pack", "/species", "application/yaml", string(pack)},
			{"picture", "/properties/1/plan/picture", "image/jpeg", picture.String()},
		} {
			res, err := http.Post(s.url+"/api/v1"+f.path, f.kind, strings.NewReader(f.body))
			if err != nil {
				b.Fatal(err)
			}
			answer, _ := io.ReadAll(res.Body)
			res.Body.Close()
			if res.StatusCode >= 300 {
				b.Fatalf("%s: %d %.200s", f.name, res.StatusCode, answer)
			}
			b.ReportMetric(s.peakMB(b), f.name+"-MB")
		}
	}
}

// peakMB is the most memory that the program has held so far.
func (s *server) peakMB(b *testing.B) float64 {
	b.Helper()
	status, err := os.ReadFile(filepath.Join("/proc", fmt.Sprint(s.cmd.Process.Pid), "status"))
	if err != nil {
		b.Fatal(err)
	}
	for line := range strings.Lines(string(status)) {
		if rest, is := strings.CutPrefix(line, "VmHWM:"); is {
			kb := 0.0
			if _, err := fmt.Sscan(rest, &kb); err != nil {
				b.Fatal(err)
			}
			return kb / 1024
		}
	}
	return 0
}
