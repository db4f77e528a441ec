package exchange

import (
	"bytes"
	"context"
	"encoding/binary"
	"errors"
	"fmt"
	"hash/crc32"
	"image"
	"image/png"
	"net/http"
	"net/http/httptest"
	"strings"
	"testing"
	"unicode/utf8"

	"mezzadro/core/day"
)

// TestStationNonsense: what stands for "not measured" is no frost, a figure that cannot be is left out with its hour
// and said, and a station that sends nothing else is refused.
func TestStationNonsense(t *testing.T) {
	answer := func(hours string) (int, string, error) {
		srv := httptest.NewServer(http.HandlerFunc(func(w http.ResponseWriter, _ *http.Request) {
			fmt.Fprintf(w, `{"hours": [%s]}`, hours)
		}))
		defer srv.Close()
		list, source, err := Station{srv.URL, srv.Client()}.Hours(context.Background(), 46, 9, 200, day.Of(2027, 3, 1), day.Of(2027, 3, 2))
		for _, h := range list {
			if !(h.TempC > -60 && h.TempC < 60) || h.WindMS < 0 || h.RainMM < 0 {
				t.Errorf("kept: %+v", h)
			}
		}
		return len(list), source, err
	}
	good := `{"time": "2027-03-01T01:00:00Z", "temp_c": 3.5, "wind_ms": 2}`
	for _, c := range []struct {
		hours string
		n     int
		says  string
	}{
		{good, 1, "weather station"},
		{good + `, {"time": "2027-03-01T02:00:00Z", "temp_c": -999}`, 1, "1 hours left out, the first hour 2, 2027-03-01T02:00:00Z: temp_c -999"},
		{good + `, {"time": "2027-03-01T02:00:00Z", "temp_c": 4, "wind_ms": -999, "rain_mm": -99}`, 2, "weather station"},
		{good + `, {"time": "2027-03-01T02:00:00Z", "temp_c": 4, "wind_ms": 400}`, 1, "wind_ms 400"},
		{good + `, ` + good, 1, "comes twice"},
		{good + `, {"time": "2031-03-01T02:00:00Z", "temp_c": 4}`, 1, "was not asked for"},
		{good + `, {"time": "2027-03-01T02:00:00Z"}`, 1, "no temperature"},
	} {
		n, source, err := answer(c.hours)
		if err != nil || n != c.n || !strings.Contains(source, c.says) {
			t.Errorf("%s: %d hours, %q, %v", c.hours, n, source, err)
		}
	}
	if _, _, err := answer(`{"time": "2027-03-01T02:00:00Z", "temp_c": -999}`); err == nil || !strings.Contains(err.Error(), "none of its 1 hours can be") {
		t.Errorf("nothing but nonsense: %v", err)
	}
	if _, _, err := answer(`{"time": "2027-03-01T02:00:00Z", "temp_c": 1e999}`); err == nil {
		t.Error("no number at all")
	}
}

// TestInert: what begins like a formula leaves as text and comes back as it was.
func TestInert(t *testing.T) {
	for _, text := range []string{"=1+1", "+39 055", "-dead", "@home", "\tx", "'=1", "''=", "plain", "", "'quoted'", "o'clock"} {
		out := inert(text)
		if out != "" && strings.ContainsRune("=+-@\t", rune(out[0])) {
			t.Errorf("%q leaves as %q", text, out)
		}
		if back := live(out); back != text {
			t.Errorf("%q comes back as %q by %q", text, back, out)
		}
	}
	var b bytes.Buffer
	if err := WritePlantsCSV(&b, []PlantLine{{Species: "olea-europaea", Label: "=cmd()", Note: "-3 last winter", HeightM: 2, Count: 1, Value: 1}}); err != nil {
		t.Fatal(err)
	}
	if !strings.Contains(b.String(), "'=cmd()") {
		t.Errorf("written: %s", b.String())
	}
	back, err := ReadPlantsCSV(&b)
	if err != nil || len(back) != 1 {
		t.Fatalf("%+v %v", back, err)
	}
	if back[0].Label != "=cmd()" || back[0].Note != "-3 last winter" {
		t.Errorf("read back: %+v", back)
	}
}

// TestTooMuch: files that are too large in one way or another are refused with the limit, and fast.
func TestTooMuch(t *testing.T) {
	for says, text := range map[string]string{
		"300 columns; at most 200": strings.Repeat("a,", 299) + "b\n1\n",
		"more than 200000 lines":   "time,temp_c\n" + strings.Repeat("2027-03-01T00:00Z,1\n", 200_002),
		"longer than 20000":        "time,temp_c\n2027-03-01T00:00Z," + strings.Repeat("1", 20_001) + "\n",
		"no number":                "time,temp_c\n" + strings.Repeat("2027-03-01T00:00Z,warm\n", 100_000),
		"want a header line":       "",
		"outside -60 to 60":        "time,temp_c\n2027-03-01T00:00Z,-999\n",
		"is no time":               "time,temp_c\nyesterday,1\n",
	} {
		_, err := ReadWeatherCSV(strings.NewReader(text))
		if err == nil || !strings.Contains(err.Error(), says) && says != "more than 200000 lines" || len(err.Error()) > 20_000 {
			t.Errorf("%s: %.200v", says, err)
		}
	}
}

// hugePNG says in its head that it is so large, and holds next to nothing.
func hugePNG(t *testing.T, w, h int) []byte {
	t.Helper()
	var b bytes.Buffer
	if err := png.Encode(&b, image.NewGray(image.Rect(0, 0, 1, 1))); err != nil {
		t.Fatal(err)
	}
	out := b.Bytes()
	for i, v := range []int{w, h} { // the head's two figures, with its checksum set right by none: decoders read them first
		for k := range 4 {
			out[16+4*i+k] = byte(v >> (24 - 8*k))
		}
	}
	return out
}

// deepPNG is a small file that takes eight bytes for each of its pixels when it is read.
func deepPNG(t *testing.T, w, h int) []byte {
	t.Helper()
	var b bytes.Buffer
	if err := png.Encode(&b, image.NewRGBA64(image.Rect(0, 0, 1, 1))); err != nil {
		t.Fatal(err)
	}
	out := b.Bytes()
	binary.BigEndian.PutUint32(out[16:], uint32(w))
	binary.BigEndian.PutUint32(out[20:], uint32(h))
	binary.BigEndian.PutUint32(out[29:], crc32.ChecksumIEEE(out[12:29]))
	return out
}

// TestPhotoBomb: a picture that says it is huge, or is a page in disguise, is refused before anything is made of it.
func TestPhotoBomb(t *testing.T) {
	for name, file := range map[string][]byte{
		"wide": hugePNG(t, 2_000_000_000, 1), "large": hugePNG(t, 60_000, 60_000), "page": []byte("<html><script>alert(1)</script></html>"),
		"sixteen bits": deepPNG(t, 5000, 5000), "nothing": {}, "cut": hugePNG(t, 1, 1)[:40],
	} {
		_, _, _, err := Photo(context.Background(), file)
		if err == nil || name == "sixteen bits" && !strings.Contains(err.Error(), "takes 190 MB to read") {
			t.Errorf("%s: %v", name, err)
		}
	}
	gone, end := context.WithCancel(context.Background())
	end()
	decoding <- struct{}{} // another is being read
	if _, _, _, err := Photo(gone, smallPNG(t)); !errors.Is(err, context.Canceled) {
		t.Errorf("whoever sent it is gone: %v", err)
	}
	<-decoding
}

// TestLegible: letters that the font has not are left out of what is printed, and nothing breaks.
func TestLegible(t *testing.T) {
	for in, want := range map[string]string{
		"Rose": "Rose", "Štěpánka’s ‘Café’": "Štěpánka’s ‘Café’", "Garden 🌳 of 庭 Ilda": "Garden of Ilda", "庭": "", "Ωμέγα": "Ωμέγα",
	} {
		if got := legible(in); got != want {
			t.Errorf("%q: %q, want %q", in, got, want)
		}
	}
	var b bytes.Buffer
	if err := WriteLabels(&b, A4, "庭 🌳", []Label{{URL: "http://127.0.0.1/#/plant/1", Common: "🌳 Olive", Latin: "Olea", Place: "庭", Owner: "Ilda 🌳"}}); err != nil || b.Len() < 1000 {
		t.Errorf("labels: %v, %d bytes", err, b.Len())
	}
}

// TestCalendarByTheLetter: lines of at most 75 octets that break no letter, each ended by CR LF, whatever is in a name;
// unfolded it is what it was.
func TestCalendarByTheLetter(t *testing.T) {
	title := "Cut 庭の木 🌳, " + strings.Repeat("ünd wéiter; ", 20) + "a\\b"
	text := Calendar("庭 🌳", day.Of(2027, 3, 18).Time(), []Entry{{ID: 1, Day: day.Of(2027, 3, 18), Title: title, Place: "Ilda, 🌳", Detail: []string{"one", "two"}, Minutes: 30, StartMinute: 480}})
	for line := range strings.SplitSeq(strings.TrimSuffix(text, "\r\n"), "\r\n") {
		if len(line) > 75 || !utf8.ValidString(line) || strings.ContainsAny(line, "\r\n") {
			t.Errorf("%d octets, whole letters %v: %q", len(line), utf8.ValidString(line), line)
		}
	}
	whole := strings.ReplaceAll(text, "\r\n ", "")
	escaped := strings.NewReplacer(`\`, `\\`, ",", `\,`, ";", `\;`).Replace(title)
	if !strings.Contains(whole, "SUMMARY:"+escaped) {
		t.Errorf("unfolded: %s", whole)
	}
}

func smallPNG(t *testing.T) []byte {
	t.Helper()
	var b bytes.Buffer
	if err := png.Encode(&b, image.NewGray(image.Rect(0, 0, 20, 20))); err != nil {
		t.Fatal(err)
	}
	return b.Bytes()
}
