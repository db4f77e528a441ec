package exchange

import (
	"fmt"
	"io"
	"math"

	"github.com/go-pdf/fpdf"

	"mezzadro/core/site"
)

// PlanPage is a property's plan to be printed, with its list. Texts are written out.
type PlanPage struct {
	Title   string
	Feet    bool     // its scale is one of feet to the inch
	Notes   []string // about the sun, the slope, the day
	Plan    site.Plan
	Numbers map[string]int // by which things on the plan stand in the list
	Stands  []PlanLine
	Planned []PlanLine
}

// PlanLine is a line of the list.
type PlanLine struct {
	No     int // 0: without a place on the plan
	Name   string
	Detail string
}

// Of the drawing, mm.
const (
	planWide = pageWidth
	planHigh = 150.0
	dotSize  = 5.5 // pt
)

// scales that drawings are made at, in metres, and in feet to the inch.
var (
	scales     = []float64{20, 50, 100, 200, 250, 500, 1000, 2000, 5000}
	feetScales = []float64{24, 60, 120, 240, 360, 480, 600, 1200, 2400, 6000}
)

const footM = 0.3048

// WritePlanPage prints a plan to a scale, what stands on it by numbers, and what is to be planted.
func WritePlanPage(w io.Writer, paper Paper, sheet PlanPage) error {
	p := titled(paper, sheet.Title)
	for _, n := range sheet.Notes {
		p.text("", 9.5, 0, n)
	}
	if len(sheet.Plan.Things) == 0 {
		p.text("", 11, 0, "Nothing is drawn yet.")
	} else {
		p.plan(sheet)
	}
	p.lines("To be planted", sheet.Planned)
	p.lines("What stands there", sheet.Stands)
	return p.Output(w)
}

func (p page) lines(head string, list []PlanLine) {
	if len(list) == 0 {
		return
	}
	p.Ln(3)
	p.room(20)
	p.text("B", 12, 0, head)
	for _, l := range list {
		p.room(6)
		y := p.GetY()
		if l.No > 0 {
			p.SetFont("go", "B", 9.5)
			p.SetXY(pageMargin, y)
			p.CellFormat(9, 4.6, fmt.Sprint(l.No), "", 0, "R", false, 0, "")
		}
		p.SetXY(pageMargin+11, y)
		p.SetFont("go", "", 9.5)
		text := l.Name
		if l.Detail != "" {
			text += ": " + l.Detail
		}
		p.MultiCell(pageWidth-11, 4.6, legible(text), "", "L", false)
	}
}

// drawn puts metres of a plan onto the page.
type drawn struct {
	page
	x0, y1     float64 // metres at the upper left
	left, top  float64 // mm of it
	mm         float64 // a metre
	numbers    map[string]int
	wide, high float64
}

func (d drawn) at(q site.At) (x, y float64) {
	return d.left + (q.X-d.x0)*d.mm, d.top + (d.y1-q.Y)*d.mm
}

func (p page) plan(of PlanPage) {
	x0, x1, y0, y1 := extent(of.Plan.Things)
	scales := scales
	if of.Feet {
		scales = feetScales
	}
	scale := scales[len(scales)-1]
	for i := len(scales) - 1; i >= 0; i-- {
		if (x1-x0)*1000/scales[i] <= planWide && (y1-y0)*1000/scales[i] <= planHigh {
			scale = scales[i]
		}
	}
	mm := 1000 / scale
	d := drawn{page: p, x0: x0, y1: y1, left: pageMargin + (planWide-(x1-x0)*mm)/2, top: p.GetY() + 3, mm: mm, numbers: of.Numbers,
		wide: (x1 - x0) * mm, high: (y1 - y0) * mm}
	for _, layer := range [][]site.Kind{
		{site.Ground, site.Lawn, site.Bed, site.Hollow, site.Water}, {site.Path, site.Drain, site.Building},
		{site.Wall, site.Fence, site.Hedge}, {site.Tree, site.Plant, site.Grave}, {site.Wire, site.Door, site.Gate, site.Window, site.Sprinkler},
	} {
		for i := range of.Plan.Things {
			for _, k := range layer {
				if of.Plan.Things[i].Kind == k {
					d.thing(&of.Plan.Things[i])
				}
			}
		}
	}
	d.ruler(scale, of.Plan.NorthDeg, of.Feet)
	p.SetTextColor(0, 0, 0)
	p.SetDrawColor(0, 0, 0)
	p.SetXY(pageMargin, d.top+d.high+9)
}

// extent is the least frame round all things, m.
func extent(things []site.Thing) (x0, x1, y0, y1 float64) {
	x0, x1, y0, y1 = math.Inf(1), math.Inf(-1), math.Inf(1), math.Inf(-1)
	for i := range things {
		r := 0.0
		if k := things[i].Kind; k == site.Plant || k == site.Tree {
			r = things[i].SpreadM / 2
		}
		for _, q := range things[i].Points {
			x0, x1, y0, y1 = math.Min(x0, q.X-r), math.Max(x1, q.X+r), math.Min(y0, q.Y-r), math.Max(y1, q.Y+r)
		}
	}
	return x0 - 0.5, x1 + 0.5, y0 - 0.5, y1 + 0.5
}

// thing draws one, in greys that copy well; its number stands in it.
func (d drawn) thing(t *site.Thing) {
	d.SetDashPattern([]float64{}, 0)
	d.SetDrawColor(60, 60, 60)
	d.SetLineWidth(0.2)
	switch site.Kinds[t.Kind] {
	case "area":
		d.area(t)
	case "line":
		d.line(t)
	default:
		d.point(t)
	}
	d.SetDashPattern([]float64{}, 0)
}

func (d drawn) area(t *site.Thing) {
	points := make([]fpdf.PointType, len(t.Points))
	for i, q := range t.Points {
		points[i].X, points[i].Y = d.at(q)
	}
	style := "D"
	switch t.Kind {
	case site.Building:
		d.SetFillColor(215, 215, 215)
		style = "FD"
	case site.Lawn:
		d.SetFillColor(240, 244, 236)
		style = "F"
	case site.Bed:
		d.SetFillColor(248, 246, 240)
		style = "FD"
	case site.Hollow, site.Water, site.Ground:
		d.SetDashPattern([]float64{1.5, 1}, 0)
	}
	d.Polygon(points, style)
	x, y := d.at(middle(t.Points))
	if n := d.numbers[t.ID]; n > 0 {
		d.label(x, y, fmt.Sprint(n), dotSize+1.5, "B")
	} else if t.Name != "" && (t.Kind == site.Building || t.Kind == site.Bed) {
		d.label(x, y, t.Name, 6.5, "")
	}
}

func (d drawn) line(t *site.Thing) {
	width := map[site.Kind]float64{site.Wall: 0.7, site.Fence: 0.4, site.Path: 0.3, site.Wire: 0.2, site.Drain: 0.2}[t.Kind]
	switch t.Kind {
	case site.Hedge:
		width = math.Max(0.8, t.SpreadM*d.mm)
		d.SetDrawColor(150, 165, 145)
	case site.Path:
		d.SetDrawColor(190, 190, 190)
		width = math.Max(0.6, d.mm)
	case site.Fence, site.Wire, site.Drain:
		d.SetDashPattern([]float64{1.2, 0.8}, 0)
	}
	d.SetLineWidth(width)
	for i := range len(t.Points) - 1 {
		ax, ay := d.at(t.Points[i])
		bx, by := d.at(t.Points[i+1])
		d.Line(ax, ay, bx, by)
	}
	d.SetLineWidth(0.2)
	if n := d.numbers[t.ID]; n > 0 {
		x, y := d.at(middle(t.Points))
		d.label(x, y, fmt.Sprint(n), dotSize+1.5, "B")
	}
}

func (d drawn) point(t *site.Thing) {
	x, y := d.at(t.Points[0])
	switch t.Kind {
	case site.Plant, site.Tree:
		r := math.Max(0.8, t.SpreadM/2*d.mm)
		if t.Kind == site.Plant && t.PlantID == 0 { // to be planted
			d.SetLineWidth(0.5)
		}
		d.Circle(x, y, r, "D")
		d.Circle(x, y, 0.3, "F")
	case site.Grave:
		d.Line(x-1, y-1, x+1, y+1)
		d.Line(x-1, y+1, x+1, y-1)
	default:
		d.Rect(x-0.9, y-0.9, 1.8, 1.8, "D")
	}
	if n := d.numbers[t.ID]; n > 0 {
		d.label(x+1.6, y-1.4, fmt.Sprint(n), dotSize+1.5, "B")
	}
}

// label writes a short text about a place, on white.
func (d drawn) label(x, y float64, text string, size float64, style string) {
	d.SetFont("go", style, size)
	text = legible(text)
	wide := d.GetStringWidth(text) + 1
	d.SetFillColor(255, 255, 255)
	d.SetXY(x-wide/2, y-size*0.2)
	d.CellFormat(wide, size*0.4, text, "", 0, "C", style == "B", 0, "")
}

// ruler draws the scale and where north is.
func (d drawn) ruler(scale, northDeg float64, feet bool) {
	each, unit := 1.0, 1.0
	if feet {
		unit = footM
	}
	for _, n := range []float64{1, 2, 5, 10, 20, 50, 100, 200} {
		if each = n * unit; each*d.mm >= 15 {
			break
		}
	}
	told := fmt.Sprintf("%g m, 1 : %.0f", each, scale)
	if feet {
		told = fmt.Sprintf("%.0f ft, 1 in to %.0f ft", each/unit, scale/12)
	}
	y := d.top + d.high + 4
	d.SetDrawColor(0, 0, 0)
	d.SetLineWidth(0.6)
	d.Line(pageMargin, y, pageMargin+each*d.mm, y)
	d.SetLineWidth(0.2)
	d.SetFont("go", "", 8)
	d.SetXY(pageMargin+each*d.mm+1, y-2)
	d.CellFormat(60, 4, told, "", 0, "L", false, 0, "")
	sin, cos := math.Sincos(-northDeg * math.Pi / 180)
	nx, ny := pageMargin+planWide-6, y-2
	d.Line(nx-3*sin, ny+3*cos, nx+3*sin, ny-3*cos)
	d.Polygon([]fpdf.PointType{{X: nx + 4.5*sin, Y: ny - 4.5*cos}, {X: nx + 2*sin - 1.2*cos, Y: ny - 2*cos - 1.2*sin},
		{X: nx + 2*sin + 1.2*cos, Y: ny - 2*cos + 1.2*sin}}, "F")
	d.SetXY(nx-2+6.2*sin, ny-2-6.2*cos)
	d.CellFormat(4, 4, "N", "", 0, "C", false, 0, "")
}

func middle(points []site.At) (q site.At) {
	for _, p := range points {
		q.X, q.Y = q.X+p.X/float64(len(points)), q.Y+p.Y/float64(len(points))
	}
	return q
}
