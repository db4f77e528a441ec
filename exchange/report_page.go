package exchange

import (
	"bytes"
	"io"
	"math"

	"github.com/go-pdf/fpdf"

	"mezzadro/core/report"
)

// ReportPage is a report to be printed. Texts are written out.
type ReportPage struct {
	report.Report
	Firm    string
	Day     string
	Degrees func(c float64) string            // a temperature as the reader has it
	When    func(n report.Night) string       // a day, short
	Picture func(hash string) ([]byte, error) // as JPEG
}

// Of a printed report, mm.
const (
	graphHigh = 32.0
	photoWide = 80.0
	photoHigh = 60.0
)

// WriteReport prints a report as a PDF: its first page is the summary.
func WriteReport(w io.Writer, paper Paper, r ReportPage) error {
	p := titled(paper, r.Title)
	p.text("", 10, 0, r.Firm+", "+r.Day)
	p.Ln(4)
	for _, t := range r.Summary {
		p.text("", 11.5, 0, t)
		p.Ln(1.5)
	}
	if len(r.Nights) > 2 {
		p.nights(r)
	}
	for i, s := range r.Sections {
		if i == 0 {
			p.AddPage()
		}
		if err := p.section(s, r); err != nil {
			return err
		}
	}
	return p.Output(w)
}

// section is what is said of one plant.
func (p page) section(s report.Section, r ReportPage) error {
	p.room(28)
	from, below := 0.0, 0.0
	if s.Drawn != nil {
		p.room(drawnHigh + 6)
		below, from = p.GetY()+drawnHigh+2, drawnWide+5
		p.drawn(*s.Drawn)
	}
	p.text("B", 12, from, s.Head)
	for _, part := range [][2]string{{"", s.Found}, {"", s.Becomes}, {"We: ", s.We}, {"You: ", s.You}, {"Please not: ", s.Dont}} {
		if part[1] != "" {
			p.text("", 10.5, from, part[0]+part[1])
		}
	}
	p.SetY(max(p.GetY(), below))
	if len(s.Photos) > 0 {
		p.room(photoHigh + 4)
	}
	y := p.GetY() + 1
	for i, f := range s.Photos[:min(2, len(s.Photos))] {
		b, err := r.Picture(f.Hash)
		if err != nil {
			return err
		}
		options := fpdf.ImageOptions{ImageType: "JPG"}
		info := p.RegisterImageOptionsReader(f.Hash, options, bytes.NewReader(b))
		if info == nil || p.Err() {
			return p.Error()
		}
		wide, high := photoWide, photoWide*info.Height()/info.Width()
		if high > photoHigh {
			wide, high = photoHigh*info.Width()/info.Height(), photoHigh
		}
		p.ImageOptions(f.Hash, pageMargin+float64(i)*(photoWide+6), y, wide, high, false, options, 0, "")
	}
	if len(s.Photos) > 0 {
		p.SetY(y + photoHigh)
	}
	p.Ln(3)
	return nil
}

// nights draws the lowest of each day about an event.
func (p page) nights(r ReportPage) {
	p.room(graphHigh + 16)
	low, high := 0.0, 0.0
	for _, n := range r.Nights {
		low, high = math.Min(low, n.MinC), math.Max(high, n.MinC)
	}
	top, step := p.GetY()+6, pageWidth/float64(len(r.Nights)-1)
	y := func(c float64) float64 { return top + graphHigh*(high-c)/math.Max(1, high-low) }
	p.SetDrawColor(150, 150, 150)
	p.Line(pageMargin, y(0), pageMargin+pageWidth, y(0))
	p.SetDrawColor(40, 80, 120)
	p.SetLineWidth(0.6)
	coldest := 0
	for i, n := range r.Nights {
		if n.MinC < r.Nights[coldest].MinC {
			coldest = i
		}
		if i > 0 {
			p.Line(pageMargin+step*float64(i-1), y(r.Nights[i-1].MinC), pageMargin+step*float64(i), y(n.MinC))
		}
	}
	p.SetLineWidth(0.2)
	p.SetDrawColor(0, 0, 0)
	n := r.Nights[coldest]
	p.SetFont("go", "", 9)
	p.SetXY(math.Min(pageMargin+step*float64(coldest)+2, pageMargin+pageWidth-50), y(n.MinC)+1)
	p.CellFormat(50, 4, legible(r.Degrees(n.MinC)+", "+r.When(n)), "", 0, "L", false, 0, "")
	p.SetXY(pageMargin, top+graphHigh+7)
	p.text(
		"",
		9,
		0,
		"Lowest of each day, "+r.When(r.Nights[0])+" to "+r.When(r.Nights[len(r.Nights)-1])+"; the line is freezing.",
	)
}
