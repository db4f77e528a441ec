package exchange

import (
	"io"

	"github.com/go-pdf/fpdf"
	"golang.org/x/image/font/gofont/gobold"
	"golang.org/x/image/font/gofont/goregular"
)

// DaySheet is a crew's day, in words, to be printed.
type DaySheet struct {
	Title   string
	Morning []string // what to take, who is needed
	Visits  []SheetVisit
}

// SheetVisit is a property of the day.
type SheetVisit struct {
	Head string
	Mind []string // address, gate, people and pets
	Jobs []SheetJob
}

// SheetJob is a job with room to tick it off and to note how long it took.
type SheetJob struct {
	Title  string
	Detail string
	Mind   []string // why, and cautions
}

// Paper is a size of paper, as the library of PDFs names it.
type Paper string

// Papers.
const (
	A4     Paper = "A4"
	Letter Paper = "Letter"
)

// Of an upright page, mm. Letter paper is wider by 6 mm, and has that as a margin.
const (
	pageMargin = 15.0
	pageWidth  = 210 - 2*pageMargin
	tickBox    = 5.0
	tookWidth  = 34.0
)

// WriteDaySheet prints a crew's day as a PDF.
func WriteDaySheet(w io.Writer, paper Paper, sheet DaySheet) error {
	p := titled(paper, sheet.Title)
	for _, m := range sheet.Morning {
		p.text("", 10, 0, m)
	}
	if len(sheet.Visits) == 0 {
		p.text("", 11, 0, "Nothing is on this day.")
	}
	for _, v := range sheet.Visits {
		p.visit(v)
	}
	return p.Output(w)
}

type page struct{ *fpdf.Fpdf }

// titled begins an upright page with a title.
func titled(paper Paper, title string) page {
	pdf := fpdf.New("P", "mm", string(paper), "")
	pdf.SetTitle(legible(title), true)
	pdf.SetLang("en")
	pdf.SetMargins(pageMargin, pageMargin, pageMargin)
	pdf.SetAutoPageBreak(true, pageMargin)
	pdf.AddUTF8FontFromBytes("go", "", goregular.TTF)
	pdf.AddUTF8FontFromBytes("go", "B", gobold.TTF)
	pdf.AddPage()
	p := page{pdf}
	p.text("B", 16, 0, title)
	return p
}

// text writes a paragraph so far from the margin.
func (p page) text(style string, size, from float64, text string) {
	p.SetFont("go", style, size)
	p.SetX(pageMargin + from)
	p.MultiCell(pageWidth-from, size*0.46, legible(text), "", "L", false)
}

func (p page) visit(v SheetVisit) {
	p.Ln(3)
	p.room(30)
	p.text("B", 12, 0, v.Head)
	p.Line(pageMargin, p.GetY()+0.5, pageMargin+pageWidth, p.GetY()+0.5)
	p.Ln(1.5)
	for _, m := range v.Mind {
		p.text("", 9.5, 0, m)
	}
	for _, j := range v.Jobs {
		p.job(j)
	}
}

// job has a box to tick, and a line for the time it took.
func (p page) job(j SheetJob) {
	p.Ln(1.5)
	p.room(16)
	y := p.GetY()
	p.Rect(pageMargin, y, tickBox, tickBox, "D")
	p.SetFont("go", "", 8)
	p.SetXY(pageMargin+pageWidth-tookWidth, y)
	p.CellFormat(tookWidth, 4, "took ................ min", "", 0, "R", false, 0, "")
	p.SetXY(pageMargin+tickBox+2, y)
	p.SetFont("go", "B", 10.5)
	p.MultiCell(pageWidth-tickBox-2-tookWidth, 4.8, legible(j.Title), "", "L", false)
	p.text("", 9, tickBox+2, j.Detail)
	for _, m := range j.Mind {
		p.text("", 9, tickBox+2, "– "+m)
	}
}

// room begins a page where less is left on this one.
func (p page) room(mm float64) {
	if _, high := p.GetPageSize(); p.GetY()+mm > high-pageMargin {
		p.AddPage()
	}
}
