package exchange

import (
	"encoding/csv"
	"fmt"
	"io"

	"github.com/go-pdf/fpdf"
	"golang.org/x/image/font/gofont/gobold"
	"golang.org/x/image/font/gofont/goregular"
)

// UseLine is one line of the use record as it goes out.
type UseLine struct {
	Day, Hours, Property, Plant, Area, Reason, Product, Registration, Active, Amount, Spray, Who, Licence, Weather string

	Reentry, Harvest, Note string // hours until anyone went in, the first day of harvest
}

var useColumns = []string{
	"day",
	"hours",
	"property",
	"plant",
	"area",
	"reason",
	"product",
	"registration",
	"means",
	"amount",
	"spray",
	"who",
	"licence",
	"weather",
	"re-entry after",
	"harvest from",
	"note",
}

func (u UseLine) cells() []string {
	return []string{
		u.Day,
		u.Hours,
		u.Property,
		u.Plant,
		u.Area,
		u.Reason,
		u.Product,
		u.Registration,
		u.Active,
		u.Amount,
		u.Spray,
		u.Who,
		u.Licence,
		u.Weather,
		u.Reentry,
		u.Harvest,
		u.Note,
	}
}

// usePrinted are the columns of the record on paper: what belongs together stands in one.
var usePrinted = []struct {
	head  string
	width float64 // on a sheet of A4 laid wide, mm
	cell  func(UseLine) []string
}{
	{"day, hours", 24, func(u UseLine) []string { return []string{u.Day, u.Hours} }},
	{"property", 30, func(u UseLine) []string { return []string{u.Property} }},
	{"plant, area", 38, func(u UseLine) []string { return []string{u.Plant, u.Area} }},
	{"reason", 26, func(u UseLine) []string { return []string{u.Reason} }},
	{"product, registration, means", 44, func(u UseLine) []string { return []string{u.Product, u.Registration, u.Active} }},
	{"amount, spray", 22, func(u UseLine) []string { return []string{u.Amount, u.Spray} }},
	{"who, licence", 26, func(u UseLine) []string { return []string{u.Who, u.Licence} }},
	{"weather", 20, func(u UseLine) []string { return []string{u.Weather} }},
	{"re-entry, harvest", 27, func(u UseLine) []string { return []string{after(u.Reentry), from(u.Harvest)} }},
	{"note", 20, func(u UseLine) []string { return []string{u.Note} }},
}

func after(hours string) string {
	if hours == "" {
		return ""
	}
	return "in again after " + hours
}

func from(on string) string {
	if on == "" {
		return ""
	}
	return "eaten from " + on
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

// PrintUses prints the use record as a PDF.
func PrintUses(w io.Writer, paper Paper, title string, lines []UseLine) error {
	pdf := fpdf.New("L", "mm", string(paper), "")
	wide, high := pdf.GetPageSize()
	width := func(i int) float64 { return usePrinted[i].width * (wide - 20) / (297 - 20) }
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
		for i, c := range usePrinted {
			pdf.CellFormat(width(i), 6, c.head, "B", 0, "L", false, 0, "")
		}
		pdf.Ln(7)
		pdf.SetFont("go", "", 7.5)
	}
	head()
	for _, l := range lines {
		split, most := make([][]string, len(usePrinted)), 1
		for i, c := range usePrinted {
			for _, text := range c.cell(l) {
				if text != "" {
					split[i] = append(split[i], pdf.SplitText(legible(text), width(i)-2)...)
				}
			}
			most = max(most, len(split[i]))
		}
		if pdf.GetY()+float64(most)*row > bottom {
			head()
		}
		x, y := pdf.GetXY()
		for i, texts := range split {
			for n, text := range texts {
				pdf.SetXY(x, y+float64(n)*row)
				pdf.CellFormat(width(i), row, text, "", 0, "L", false, 0, "")
			}
			x += width(i)
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
