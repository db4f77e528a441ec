package exchange

import (
	"encoding/csv"
	"fmt"
	"io"
	"slices"

	"github.com/go-pdf/fpdf"
	"golang.org/x/image/font/gofont/gobold"
	"golang.org/x/image/font/gofont/goregular"
)

// UseLine is one line of the use record as it goes out.
type UseLine struct {
	Day, Property, Plant, Reason, Product, Active, Amount, Spray, Who, Weather, Note string
}

var useColumns = []string{
	"day",
	"property",
	"plant",
	"reason",
	"product",
	"means",
	"amount",
	"spray",
	"who",
	"weather",
	"note",
}

func (u UseLine) cells() []string {
	return []string{
		u.Day,
		u.Property,
		u.Plant,
		u.Reason,
		u.Product,
		u.Active,
		u.Amount,
		u.Spray,
		u.Who,
		u.Weather,
		u.Note,
	}
}

// WriteUses writes the use record as CSV.
func WriteUses(w io.Writer, lines []UseLine) error {
	out := csv.NewWriter(w)
	if err := out.Write(useColumns); err != nil {
		return err
	}
	for _, l := range lines {
		cells := l.cells()
		for i, c := range cells {
			cells[i] = inert(c)
		}
		if err := out.Write(cells); err != nil {
			return err
		}
	}
	out.Flush()
	return out.Error()
}

// widths of the columns on a sheet of A4 laid wide, mm; the note has what is left.
var useWidths = []float64{20, 30, 38, 26, 34, 28, 18, 16, 22, 20, 25}

// PrintUses prints the use record as a PDF.
func PrintUses(w io.Writer, paper Paper, title string, lines []UseLine) error {
	pdf := fpdf.New("L", "mm", string(paper), "")
	wide, high := pdf.GetPageSize()
	useWidths := slices.Clone(useWidths)
	for i := range useWidths {
		useWidths[i] *= (wide - 20) / (297 - 20)
	}
	title = legible(title)
	pdf.SetTitle(title, true)
	pdf.SetMargins(10, 12, 10)
	pdf.SetAutoPageBreak(false, 12)
	pdf.AddUTF8FontFromBytes("go", "", goregular.TTF)
	pdf.AddUTF8FontFromBytes("go", "B", gobold.TTF)
	row, bottom := 4.2, high-14
	head := func() {
		pdf.AddPage()
		pdf.SetFont("go", "B", 13)
		pdf.CellFormat(0, 8, title, "", 1, "L", false, 0, "")
		pdf.SetFont("go", "B", 7.5)
		for i, c := range useColumns {
			pdf.CellFormat(useWidths[i], 6, c, "B", 0, "L", false, 0, "")
		}
		pdf.Ln(7)
		pdf.SetFont("go", "", 7.5)
	}
	head()
	for _, l := range lines {
		split, most := make([][]string, len(useColumns)), 1
		for i, c := range l.cells() {
			split[i] = pdf.SplitText(c, useWidths[i]-2)
			most = max(most, len(split[i]))
		}
		if pdf.GetY()+float64(most)*row > bottom {
			head()
		}
		x, y := pdf.GetXY()
		for i, texts := range split {
			for n, text := range texts {
				pdf.SetXY(x, y+float64(n)*row)
				pdf.CellFormat(useWidths[i], row, text, "", 0, "L", false, 0, "")
			}
			x += useWidths[i]
		}
		pdf.SetXY(10, y+float64(most)*row+1)
		pdf.Line(10, pdf.GetY()-0.5, wide-10, pdf.GetY()-0.5)
	}
	if len(lines) == 0 {
		pdf.CellFormat(0, 6, "Nothing was used in this time.", "", 1, "L", false, 0, "")
	}
	if err := pdf.Output(w); err != nil {
		return fmt.Errorf("use record: %w", err)
	}
	return nil
}
