package exchange

import (
	"bytes"
	"fmt"
	"image"
	"image/jpeg"
	"strings"
	"testing"

	"mezzadro/core/day"
	"mezzadro/core/estimate"
	"mezzadro/core/report"
)

// lacking names what a paper lacks for readers that speak it aloud or copy from it: its title, its language, and the
// letters themselves.
func lacking(pdf []byte) (lacks []string) {
	for what, part := range map[string]string{"a title": "/Title", "a language": "/Lang", "its fonts": "/FontFile2", "the letters of its text": "/ToUnicode", "an end": "%%EOF"} {
		if !bytes.Contains(pdf, []byte(part)) {
			lacks = append(lacks, what)
		}
	}
	return lacks
}

// TestPapersForClients: reports with pictures and papers with prices come out in both sizes of paper, readable by machines;
// a picture that cannot be read is told, and no paper comes of it.
func TestPapersForClients(t *testing.T) {
	var picture bytes.Buffer
	if err := jpeg.Encode(&picture, image.NewRGBA(image.Rect(0, 0, 40, 60)), nil); err != nil {
		t.Fatal(err)
	}
	march := day.Of(2027, 3, 18)
	r := ReportPage{Firm: "Tre Gelsi", Day: "18 March", Degrees: func(c float64) string { return fmt.Sprintf("%.0f °C", c) },
		When: func(n report.Night) string { return n.Day.String() }, Picture: func(string) ([]byte, error) { return picture.Bytes(), nil }}
	r.Title, r.Summary = "What the weather did", []string{"It froze."}
	for i := range 20 {
		r.Nights = append(r.Nights, report.Night{Day: march + day.Day(i), MinC: float64(i%7) - 4})
		r.Sections = append(r.Sections, report.Section{Head: fmt.Sprintf("Bay laurel %d", i), Found: strings.Repeat("It lives below. ", 12), Dont: "Nobody cuts it.",
			Drawn:  &report.Drawn{Form: []string{"shrub", "tree", "palm", "hedge"}[i%4], HeightM: 2, SpreadM: 1.4, LowM: 0.8, HighM: 1.1, CutM: 0.8},
			Photos: []report.Photo{{Hash: "a", Day: march}, {Hash: "b", Day: march + 9}}})
	}
	rates := estimate.Rates{Currency: "EUR", Digits: 2, Hour: 4000, Visit: 2500, Tax: 2200, ValidDays: 30}
	o := Offer{Title: "Estimate 1", From: []string{"Tre Gelsi"}, To: []string{"Noemi"}, TaxLabel: "VAT 22 %", Currency: "EUR", Digits: 2, Visit: rates.Visits(1)}
	for i := range 60 {
		l := rates.LineOf(estimate.Job{Title: "Pruning", Plant: "Bay laurel", Minutes: 60 + i, Waits: "The good days for it end on 7 April."})
		l.Answer = &estimate.Answer{Yes: i%2 == 0, Name: "Noemi"}
		o.Lines = append(o.Lines, l)
	}
	o.Total = rates.Total(o.Lines, o.Visit)
	for _, paper := range []Paper{A4, Letter} {
		for name, write := range map[string]func(*bytes.Buffer) error{
			"report": func(b *bytes.Buffer) error { return WriteReport(b, paper, r) }, "estimate": func(b *bytes.Buffer) error { return WriteOffer(b, paper, o) }} {
			var b bytes.Buffer
			if err := write(&b); err != nil {
				t.Fatalf("%s on %s: %v", name, paper, err)
			}
			if lacks := lacking(b.Bytes()); len(lacks) > 0 {
				t.Errorf("%s on %s lacks %v", name, paper, lacks)
			}
			if pages := bytes.Count(b.Bytes(), []byte("/Type /Page\n")); pages < 3 {
				t.Errorf("%s on %s has %d pages", name, paper, pages)
			}
		}
	}
	if lacks := lacking([]byte("%PDF-1.3")); len(lacks) != 5 {
		t.Errorf("an empty paper lacks only %v", lacks)
	}
	r.Picture = func(string) ([]byte, error) { return []byte("no picture"), nil }
	var b bytes.Buffer
	if err := WriteReport(&b, A4, r); err == nil {
		t.Error("a picture that is none went unnoticed")
	}
}

// TestWorkCSV: work done goes out a line a job; a name that a table would reckon with is made inert.
func TestWorkCSV(t *testing.T) {
	var b bytes.Buffer
	if err := WriteWorkCSV(&b, []WorkLine{{Day: "2027-03-17", Property: "=1+1", Job: "Water, twice", Planned: "15", Took: "20", Amount: "10.50", Currency: "EUR"}}); err != nil {
		t.Fatal(err)
	}
	want := "2027-03-17,'=1+1,,\"Water, twice\",,,15,20,,10.50,EUR,\n"
	if got := b.String(); !strings.HasPrefix(got, "day,property,") || !strings.HasSuffix(got, want) {
		t.Errorf("%q", got)
	}
}

// TestScoreCSV: prognoses go out a line each under their columns; a name that a table would reckon with is made inert.
func TestScoreCSV(t *testing.T) {
	var b bytes.Buffer
	line := ScoreLine{Given: "2026-03-17", Property: "@home", Plant: "Olive", Kind: "Olive", Verdict: "cut back", Chance: "0.7", State: "right", Seasons: "2"}
	if err := WriteScoreCSV(&b, []ScoreLine{line}); err != nil {
		t.Fatal(err)
	}
	rows := strings.Split(strings.TrimSpace(b.String()), "\n")
	if len(rows) != 2 || strings.Count(rows[0], ",") != strings.Count(rows[1], ",") || !strings.HasPrefix(rows[1], "2026-03-17,'@home,Olive,Olive,cut back,") {
		t.Errorf("%q", rows)
	}
}
