package exchange

import (
	"bytes"
	"fmt"
	"io"

	"github.com/go-pdf/fpdf"
	"golang.org/x/image/font/gofont/gobold"
	"golang.org/x/image/font/gofont/goitalic"
	"golang.org/x/image/font/gofont/goregular"
	"rsc.io/qr"
)

// Label is one plant's label: a code that opens its page, and words for people.
type Label struct {
	URL    string
	Common string
	Latin  string
	Place  string // where it stands
	Owner  string // the property
}

// A sheet takes three by eight labels of 66 × 34 mm.
const (
	labelsAcross, labelsDown = 3, 8
	labelW, labelH           = 66.0, 34.0
	codeMM                   = 26.0
)

// WriteLabels prints labels to be cut out, as a PDF.
func WriteLabels(w io.Writer, paper Paper, title string, labels []Label) error {
	pdf := fpdf.New("P", "mm", string(paper), "")
	wide, high := pdf.GetPageSize()
	left, top := (wide-labelsAcross*labelW)/2, (high-labelsDown*labelH)/2
	pdf.SetTitle(legible(title), true)
	pdf.SetAutoPageBreak(false, 0)
	pdf.AddUTF8FontFromBytes("go", "", goregular.TTF)
	pdf.AddUTF8FontFromBytes("go", "B", gobold.TTF)
	pdf.AddUTF8FontFromBytes("go", "I", goitalic.TTF)
	for i, l := range labels {
		l.Common, l.Latin, l.Place, l.Owner = legible(l.Common), legible(l.Latin), legible(l.Place), legible(l.Owner)
		if i%(labelsAcross*labelsDown) == 0 {
			pdf.AddPage()
		}
		at := i % (labelsAcross * labelsDown)
		x, y := left+float64(at%labelsAcross)*labelW, top+float64(at/labelsAcross)*labelH
		code, err := qr.Encode(l.URL, qr.M)
		if err != nil {
			return fmt.Errorf("code of %s: %w", l.URL, err)
		}
		code.Scale = 8
		name := fmt.Sprintf("code%d", i)
		pdf.RegisterImageOptionsReader(name, fpdf.ImageOptions{ImageType: "PNG"}, bytes.NewReader(code.PNG()))
		pdf.ImageOptions(name, x+2, y+(labelH-codeMM)/2, codeMM, codeMM, false, fpdf.ImageOptions{ImageType: "PNG"}, 0, "")
		pdf.SetDrawColor(200, 200, 190)
		pdf.Rect(x, y, labelW, labelH, "D")
		line := func(style string, size, at float64, text string, lines int) {
			pdf.SetFont("go", style, size)
			pdf.SetXY(x+codeMM+4, y+at)
			for k, s := range pdf.SplitText(text, labelW-codeMM-6) {
				if k == lines {
					break
				}
				pdf.SetX(x + codeMM + 4)
				pdf.CellFormat(labelW-codeMM-6, size*0.45, s, "", 1, "L", false, 0, "")
			}
		}
		line("B", 10, 4, l.Common, 2)
		line("I", 7.5, 14, l.Latin, 2)
		line("", 8, 21, l.Place, 2)
		line("", 6.5, 29, l.Owner, 1)
	}
	if len(labels) == 0 {
		pdf.AddPage()
		pdf.SetFont("go", "", 12)
		pdf.Text(20, 30, "No plant is kept on this property yet.")
	}
	return pdf.Output(w)
}
