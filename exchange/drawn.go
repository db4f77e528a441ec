package exchange

import (
	"github.com/go-pdf/fpdf"

	"mezzadro/core/portrait"
	"mezzadro/core/report"
)

// Of a plant's small picture on paper, mm.
const (
	drawnWide = 26.0
	drawnHigh = 32.0
)

// drawn is a plant in little, where the pen stands: what lives is filled, what is in doubt pale, what is dead hatched;
// the cut a red line.
func (p page) drawn(d report.Drawn) {
	left, foot := pageMargin, p.GetY()+drawnHigh
	half := max(d.SpreadM, 0.35*d.HeightM) / 2
	scale := min((drawnHigh-1)/d.HeightM, drawnWide/2/half)
	mid := left + drawnWide/2
	at := func(q portrait.Point) fpdf.PointType {
		return fpdf.PointType{X: mid + q[0]*half*scale, Y: foot - q[1]*d.HeightM*scale}
	}
	shape := portrait.Of(d.Form)
	var outline []fpdf.PointType
	for _, q := range shape.Outline {
		outline = append(outline, at(q))
	}
	y := func(m float64) float64 { return foot - min(m, d.HeightM)*scale }
	p.SetDrawColor(200, 200, 195)
	p.Line(left, foot, left+drawnWide, foot)
	p.strokes(shape.Back, at)
	p.ClipPolygon(outline, false)
	band := func(from, to float64, r, g, b int) {
		p.SetFillColor(r, g, b)
		p.Rect(left-2, y(to), drawnWide+4, y(from)-y(to), "F")
	}
	band(0, d.LowM, 169, 195, 160)
	band(d.LowM, d.HighM, 238, 240, 226)
	band(d.HighM, d.HeightM, 239, 233, 220)
	p.SetDrawColor(107, 86, 64)
	for x := left - drawnHigh; d.HighM < d.HeightM && x < left+drawnWide; x += 1.6 {
		p.Line(x, y(d.HighM), x+y(d.HighM)-y(d.HeightM), y(d.HeightM))
	}
	p.SetDrawColor(90, 90, 85)
	p.strokes(shape.Lines, at)
	p.ClipEnd()
	p.SetDrawColor(30, 35, 30)
	p.Polygon(outline, "D")
	if d.CutM > 0 {
		p.SetDrawColor(160, 40, 30)
		p.SetLineWidth(0.5)
		p.Line(left, y(d.CutM), left+drawnWide, y(d.CutM))
		p.SetLineWidth(0.2)
	}
	p.SetDrawColor(0, 0, 0)
	p.SetY(foot - drawnHigh)
}

// strokes are drawn through their points.
func (p page) strokes(all [][]portrait.Point, at func(portrait.Point) fpdf.PointType) {
	for _, l := range all {
		for i := 1; i < len(l); i++ {
			a, b := at(l[i-1]), at(l[i])
			p.Line(a.X, a.Y, b.X, b.Y)
		}
	}
}
