package api_test

import (
	"bytes"
	"compress/zlib"
	"context"
	"encoding/binary"
	"encoding/json"
	"fmt"
	"io"
	"maps"
	"regexp"
	"slices"
	"strings"
	"testing"
	"unicode/utf16"

	. "mezzadro/api"
	"mezzadro/core/day"
	"mezzadro/demo"
	"mezzadro/house/estate"
	"mezzadro/house/finds"
	"mezzadro/house/garden"
	"mezzadro/house/work"
)

// What no text of a region holds.
var (
	metricFigure   = regexp.MustCompile(`(?:^|[\s(–-])\d[\d.,]*[\s\x{a0}](?:m|cm|mm|km|L|mL|°C|m²|m³|kg|g|m/s|km/h|litres?|metres?)(?:$|[\s).,;:/×])`)
	imperialFigure = regexp.MustCompile(`(?:^|[\s(–-])\d[\d.,]*[\s\x{a0}](?:ft|yd³|mi|gal|fl oz|oz|lb|mph|°F|sq ft)(?:$|[\s).;:/×])`)
	dayFirst       = regexp.MustCompile(`\b\d{1,2} (?:January|February|March|April|May|June|July|August|September|October|November|December|Jan|Feb|Mar|Apr|Jun|Jul|Aug|Sep|Oct|Nov|Dec)\b`)
	monthFirstDay  = regexp.MustCompile(`\b(?:January|February|March|April|May|June|July|August|September|October|November|December) \d{1,2}\b`)
	by24           = regexp.MustCompile(`(?:^|[\s(])\d{1,2}:\d\d(?:$|[\s).,;])`)
	notWritten     = regexp.MustCompile(`Invalid|NaN|undefined|Infinity|-?58776|[\x{e000}\x{e001}]|%!`)
	byLabel        = regexp.MustCompile(`\d[\d.]* (?:mL|g) for (?:a litre|a square metre|a plant)[^;.]*`) // as the firm entered it
	ofTheClient    = regexp.MustCompile(`^Guests on the terrace`)                                         // the sample's own note
	fromCSV        = regexp.MustCompile(`\d{4}-\d\d-\d\dT?`)
)

// reader is a region whose people read the record.
type reader struct {
	climate, language, units string
	never                    []*regexp.Regexp
}

// TestSweepOfRegions: the sample moved to four regions of the world and read there, over all that the program answers and
// all its files and papers, at four days of the year: nobody meets the other side's units, the other order of day and
// month, the other clock, or what was never written out.
func TestSweepOfRegions(t *testing.T) {
	t.Parallel()
	for _, r := range []reader{
		{"great-lakes", "en-US", "imperial", []*regexp.Regexp{metricFigure, dayFirst, by24}},
		{"southern-coast", "en-AU", "metric", []*regexp.Regexp{imperialFigure, monthFirstDay, by24}},
		{"south-africa-highveld", "en-ZA", "metric", []*regexp.Regexp{imperialFigure, monthFirstDay}},
		{"lake-foothills", "en-GB", "metric", []*regexp.Regexp{imperialFigure, monthFirstDay}},
	} {
		t.Run(r.climate, func(t *testing.T) {
			t.Parallel()
			sweepRegion(t, r)
		})
	}
}

// sampleIn is the sample moved to a climate.
func sampleIn(t *testing.T, climate string) *opened {
	t.Helper()
	if climate == "lake-foothills" {
		return sampleHouse(t)
	}
	h := newHouse(t)
	h.moves()
	sample, err := demo.Read()
	if err == nil {
		sample, err = sample.In(climate)
	}
	if err == nil {
		err = sample.Load(context.Background(), h.site, h.server.Estate.SetToday)
	}
	if err != nil {
		t.Fatal(err)
	}
	return h
}

func sweepRegion(t *testing.T, r reader) {
	h := sampleIn(t, r.climate)
	h.measured(r.units)
	h.workFor(t)
	found, answers, said, printed := map[string]string{}, 0, 0, 0
	for n := range 4 {
		if n > 0 {
			h.today += 91
		}
		for _, path := range h.everyAnswer(n) {
			code, body := h.do("GET", path, nil, "Accept-Language", r.language)
			if code >= 500 {
				found[string(body)] = path
			}
			if code >= 300 {
				continue
			}
			answers++
			if bytes.HasPrefix(body, []byte("%PDF")) {
				printed += len(printedOn(body))
			}
			for _, text := range textsOf(body) {
				if said++; ofTheClient.MatchString(text) {
					continue
				}
				plain := byLabel.ReplaceAllString(fromCSV.ReplaceAllString(text, " "), "")
				for _, never := range append(r.never, notWritten) {
					if m := never.FindString(plain); m != "" {
						found[text] = fmt.Sprintf("%s, %s: %q", h.today, path, m)
					}
				}
			}
		}
	}
	t.Logf("%s: %d texts of %d answers, %d of them on paper", r.climate, said, answers, printed)
	if answers < 300 || said < 20_000 || printed < 200 {
		t.Errorf("%d answers with %d texts, %d on paper: the sweep looks at too little", answers, said, printed)
	}
	for _, text := range slices.Sorted(maps.Keys(found)) {
		t.Errorf("%s: %.200s", found[text], text)
	}
}

// measured sets the units of the firm.
func (h *opened) measured(units string) {
	h.t.Helper()
	firm := ok[obj](h, "GET", "/firm", nil)
	ok[obj](h, "PUT", "/firm", obj{"name": firm["name"], "units": units, "week_start": 1, "rules": firm["rules"], "version": firm["version"]})
}

// workFor gives the sample finds, treatments and jobs on days, so that sheets, letters and mixes have something to say.
func (h *opened) workFor(t *testing.T) {
	t.Helper()
	plants := ok[List[estate.PlantOut]](h, "GET", "/plants?limit=1000", nil).Items
	for i, p := range plants {
		for _, c := range []string{"aphids", "powdery-mildew", "soft-scale"} {
			if i%7 != 0 {
				continue
			}
			if code, b := h.do("POST", "/finds", obj{"plant_id": p.ID, "cause": c, "certainty": 0.9, "share": 0.3}); code < 300 {
				var f finds.Find
				if err := json.Unmarshal(b, &f); err != nil {
					t.Fatal(err)
				}
				h.do("POST", fmt.Sprintf("/finds/%d/treatment", f.ID), obj{})
			}
		}
	}
	for _, p := range ok[List[garden.PropertyOut]](h, "GET", "/properties", nil).Items {
		h.do("POST", fmt.Sprintf("/properties/%d/cuts", p.ID), obj{})
	}
	crews := ok[obj](h, "GET", "/crews", nil)["items"].([]any)
	if len(crews) == 0 {
		return
	}
	crew := crews[0].(obj)["id"]
	for i, o := range ok[Run[work.Order]](h, "GET", "/orders?list=standing&limit=60", nil).Items {
		h.do("PUT", fmt.Sprintf("/orders/%d/day", o.ID), obj{"day": (h.today + day.Day(i%3)).String(), "crew": crew, "version": o.Version})
	}
}

// everyAnswer are the paths of all that is read of the sample, a quarter of what belongs to a plant at a time.
func (h *opened) everyAnswer(quarter int) (out []string) {
	out = []string{"/actives", "/call-sheet", "/causes", "/climates", "/crews", "/find?text=rose", "/finds", "/firm", "/kinds", "/lookout",
		"/mixes", "/orders?limit=500", "/orders?list=standing&limit=500", "/people", "/plants?limit=500", "/products", "/properties", "/regions", "/removed",
		"/rounds", "/rounds/letters", "/rounds/load", "/rounds/lost", "/rounds/season", "/rounds/sheet", "/rounds/sheet.pdf", "/rounds/tellings",
		"/shopping", "/signs", "/skills", "/uses", "/uses.csv", "/uses.pdf", "/watch", "/year",
		fmt.Sprintf("/rounds.ics?from=%s&to=%s", h.today, h.today+28)}
	for ahead := range 3 {
		out = append(out, fmt.Sprintf("/rounds/sheet?day=%s", h.today+day.Day(ahead)), fmt.Sprintf("/rounds/sheet.pdf?day=%s", h.today+day.Day(ahead)))
	}
	for _, p := range ok[List[garden.PropertyOut]](h, "GET", "/properties", nil).Items {
		for _, of := range []string{"", "/bloom", "/cuts", "/holding", "/known", "/season", "/winter", "/plants.csv", "/plan", "/plan.pdf"} {
			out = append(out, fmt.Sprintf("/properties/%d%s", p.ID, of))
		}
	}
	for i, p := range ok[List[estate.PlantOut]](h, "GET", "/plants?limit=1000", nil).Items {
		if i%4 == quarter {
			out = append(out, fmt.Sprintf("/plants/%d", p.ID), fmt.Sprintf("/plants/%d/story", p.ID), fmt.Sprintf("/plants/%d/guards", p.ID))
		}
	}
	for i, o := range ok[Run[work.Order]](h, "GET", "/orders?list=standing&limit=500", nil).Items {
		if i%8 == quarter {
			out = append(out, fmt.Sprintf("/orders/%d", o.ID))
		}
	}
	for _, f := range ok[List[finds.Find]](h, "GET", "/finds", nil).Items {
		out = append(out, fmt.Sprintf("/finds/%d/treatment", f.ID))
	}
	return out
}

// textsOf are the texts of an answer: the strings of JSON, the lines of a file, what is written on a paper.
func textsOf(body []byte) (out []string) {
	if bytes.HasPrefix(body, []byte("%PDF")) {
		return printedOn(body)
	}
	var v any
	if json.Unmarshal(body, &v) != nil {
		return strings.Split(string(body), "\n")
	}
	var walk func(any)
	walk = func(v any) {
		switch v := v.(type) {
		case string:
			out = append(out, v)
		case []any:
			for _, x := range v {
				walk(x)
			}
		case map[string]any:
			for _, x := range v {
				walk(x)
			}
		}
	}
	walk(v)
	return out
}

var (
	streams = regexp.MustCompile(`(?s)stream\r?\n(.*?)\r?\nendstream`)
	shownAs = regexp.MustCompile(`(?s)\(((?:\\.|[^\\)])*)\) ?Tj`)
)

// printedOn is what is written on a PDF, a text for each time that something is put down.
func printedOn(file []byte) (out []string) {
	for _, s := range streams.FindAllSubmatch(file, -1) {
		z, err := zlib.NewReader(bytes.NewReader(s[1]))
		if err != nil {
			continue // no compressed stream: a picture or a font
		}
		page, err := io.ReadAll(z)
		if err != nil {
			continue
		}
		for _, m := range shownAs.FindAllSubmatch(page, -1) {
			out = append(out, utf16be(m[1]))
		}
	}
	return out
}

// utf16be reads a text as PDFs hold it, with its escapes.
func utf16be(raw []byte) string {
	var plain []byte
	for i := 0; i < len(raw); i++ {
		if raw[i] != '\\' || i+1 == len(raw) {
			plain = append(plain, raw[i])
			continue
		}
		i++
		plain = append(plain, map[byte]byte{'n': '\n', 'r': '\r', 't': '\t', 'b': '\b', 'f': '\f'}[raw[i]])
		if plain[len(plain)-1] == 0 {
			plain[len(plain)-1] = raw[i]
		}
	}
	codes := make([]uint16, 0, len(plain)/2)
	for i := 0; i+1 < len(plain); i += 2 {
		codes = append(codes, binary.BigEndian.Uint16(plain[i:]))
	}
	return string(utf16.Decode(codes))
}
