package exchange

import (
	"io"

	"mezzadro/core/estimate"
)

// Offer is a paper with prices: an estimate, or a draft of an invoice. Texts are written out.
type Offer struct {
	Title    string   // what it is, with its number
	From     []string // the firm
	To       []string // who gets it
	Facts    []string // days, property
	Words    string
	Lines    []estimate.Line
	Visit    estimate.Part
	Total    estimate.Sum
	TaxLabel string // with its per cents; empty without tax
	Included bool
	Currency string
	Digits   int
	Ends     []string // below the sum
}

// Of a paper with prices, mm.
const (
	priceWide = 46.0
	lineRoom  = 18.0
)

// WriteOffer prints a paper with prices as a PDF.
func WriteOffer(w io.Writer, paper Paper, o Offer) error {
	p := titled(paper, o.Title)
	for _, t := range o.From {
		p.text("", 10, 0, t)
	}
	p.Ln(3)
	for _, t := range o.To {
		p.text("", 11, 0, t)
	}
	p.Ln(3)
	for _, t := range o.Facts {
		p.text("", 10, 0, t)
	}
	if o.Words != "" {
		p.Ln(2)
		p.text("", 10.5, 0, o.Words)
	}
	p.Ln(3)
	for _, l := range o.Lines {
		p.offered(l, o.Currency, o.Digits)
	}
	if o.Visit.Amount != 0 {
		p.priced("", 10.5, 0, o.Visit.Text+", "+o.Visit.Of, o.Visit.Range.Text(o.Currency, o.Digits))
	}
	p.Ln(2)
	p.room(30)
	for _, s := range sums(o) {
		p.priced(s.style, 11, 60, s.label, s.of.Text(o.Currency, o.Digits))
	}
	p.Ln(3)
	for _, t := range o.Ends {
		p.text("", 9.5, 0, t)
	}
	return p.Output(w)
}

type sumLine struct {
	label, style string
	of           estimate.Range
}

// sums are the lines below the prices.
func sums(o Offer) []sumLine {
	switch {
	case o.TaxLabel == "":
		return []sumLine{{"In all", "B", o.Total.Gross}}
	case o.Included:
		return []sumLine{{"In all", "B", o.Total.Gross}, {"of it " + o.TaxLabel, "", o.Total.Tax}}
	}
	return []sumLine{{"Without tax", "", o.Total.Net}, {o.TaxLabel, "", o.Total.Tax}, {"In all", "B", o.Total.Gross}}
}

// offered is one line, with its parts where it has several.
func (p page) offered(l estimate.Line, currency string, digits int) {
	p.room(lineRoom)
	title := l.Title
	if l.Plant != "" {
		title += ": " + l.Plant
	}
	p.priced("B", 10.5, 0, title, l.Range.Text(currency, digits))
	for _, part := range l.Parts {
		text := part.Text
		if part.Of != "" {
			text += ", " + part.Of
		}
		amount := part.Range.Text("", digits)
		if len(l.Parts) == 1 {
			amount = ""
		}
		p.priced("", 9, 5, text, amount)
	}
	waits := l.Waits
	if l.Answer != nil && l.Answer.Yes {
		waits = ""
	}
	for _, t := range []string{l.Note, waits} {
		if t != "" {
			p.text("", 9, 5, t)
		}
	}
	if a := l.Answer; a != nil {
		said := "Declined by " + a.Name
		if a.Yes {
			said = "Agreed by " + a.Name
		}
		p.text("B", 9, 5, said)
	}
	p.Ln(1.5)
}

// priced is a text with an amount at the right margin of its last line.
func (p page) priced(style string, size, from float64, text, amount string) {
	p.SetFont("go", style, size)
	p.SetX(pageMargin + from)
	p.MultiCell(pageWidth-from-priceWide, size*0.46, legible(text), "", "L", false)
	if amount == "" {
		return
	}
	y := p.GetY()
	p.SetXY(pageMargin+pageWidth-priceWide, y-size*0.46)
	p.CellFormat(priceWide, size*0.46, legible(amount), "", 0, "R", false, 0, "")
	p.SetXY(pageMargin, y)
}
