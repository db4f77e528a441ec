package pruning

import (
	"fmt"
	"strings"

	"mezzadro/core/catalogue"
	"mezzadro/core/day"
	"mezzadro/core/job"
	"mezzadro/core/quantity"
)

// Step is what is cut in one year of several.
type Step struct {
	Year int     `json:"year" doc:"1 this year"`
	CutM float64 `json:"cut_m,omitempty" doc:"Height after the cut; 0 where stems are taken out, not shortened"`
	Text string  `json:"text"`
}

// Plan is when and how far a plant is cut, and what that costs.
type Plan struct {
	Text        string       `json:"text"`
	Class       string       `json:"class" doc:"How its kind is cut"`
	Purpose     Purpose      `json:"purpose" enum:"shape,size,renew,clear dead,frost damage,raise,thin,deadhead,hedge,train,sanitation,storm preparation,before lifting"`
	Windows     []job.Window `json:"windows" doc:"Days of the garden year on which to cut"`
	Best        day.Day      `json:"best" format:"date" doc:"The cheapest day of the garden year"`
	Cost        job.Cost     `json:"cost" doc:"Of the date: 0 best to 100 worst, 101 never"`
	Why         []job.Part   `json:"why" doc:"What makes up the cost of the date"`
	Curve       job.Curve    `json:"curve" doc:"The garden year of the date, by reasons"`
	Share       float64      `json:"share" doc:"Of the living crown that this cut takes, 0 to 1"`
	Most        float64      `json:"most" doc:"Of the living crown that may go at once"`
	BloomLoss   float64      `json:"bloom_loss" doc:"Share of the next bloom that a cut on the date takes, 0 to 1"`
	BloomText   string       `json:"bloom_text"`
	CutM        float64      `json:"cut_m" doc:"Height to cut to; 0 where nothing is shortened"`
	Heights     []Height     `json:"heights" doc:"After this cut, by season: an estimate"`
	TooMuch     bool         `json:"too_much" doc:"More is asked for than it bears at once"`
	TooBig      bool         `json:"too_big" doc:"It is simply too big for its place: no cuts keep it so low"`
	Years       []Step       `json:"years" doc:"How the rest is spread over the years"`
	Where       string       `json:"where" doc:"Where the blade goes"`
	Steps       []string     `json:"steps" doc:"In order"`
	Minutes     int          `json:"minutes" doc:"Of all people together, clearing up included, for all plants of a group: an estimate"`
	MinutesFrom int          `json:"minutes_from" doc:"The same where all goes well"`
	MinutesTo   int          `json:"minutes_to" doc:"The same where it does not"`
	People      int          `json:"people" doc:"Who go"`
	WasteM3     float64      `json:"waste_m3" doc:"Of one plant, loose, m³: an estimate"`
	Bags        int          `json:"bags" doc:"Of a quarter of a cubic metre"`
	WasteText   string       `json:"waste_text" doc:"Of all plants of the group, in bags or trailer loads"`
	Skills      []string     `json:"skills"`
	Cautions    []string     `json:"cautions"`
	Rules       []string     `json:"rules" doc:"House rules that the result hangs on"`
	Draw        string       `json:"draw" enum:"pair,bud,collar,sideshoot,stems,canes,ground,spur,whips,shear,taper,frond,green,mound,crown,faded" doc:"The drawing of where the blade goes"`
	flush       day.Day      // leaf-out nearest to the best day
	Together    []Follow     `json:"together" doc:"What belongs to it and is done in the same visit"`
}

// For plans a cut; its curve is the garden year of the date. Its error is a list of refused fields.
func For(a Ask) (Plan, error) { return a.plan(false) }

// Coming is For with the year from the date on for its curve: what a plan of the work ahead asks.
func Coming(a Ask) (Plan, error) { return a.plan(true) }

func (a Ask) plan(ahead bool) (Plan, error) {
	if err := a.Validate(); err != nil {
		return Plan{}, err
	}
	c, spoke := a.ruled()
	a.fill(c)
	a.calendar = a.Place.Of(a.Species, a.Date)
	p := Plan{
		Rules:    spoke,
		Draw:     a.draw(c),
		Together: []Follow{},
		Class:    c.Name,
		Purpose:  a.Purpose,
		Most:     c.Most,
		Years:    []Step{},
		Skills:   []string{},
		Cautions: []string{},
	}
	where, how := a.done(c)
	p.Where, p.Steps = where, append([]string{}, how...)
	if c.wound != "" {
		p.Steps = append(p.Steps, c.wound)
	}
	a.howFar(c, &p)
	a.tooMuch(c, &p)
	if ahead {
		p.Curve = a.coming(c, a.calendar)
	} else {
		p.Curve = a.curve(c, a.calendar)
	}
	p.Windows = p.Curve.Windows(job.Acceptable)
	p.Best, _ = p.Curve.Best(p.Curve.Start)
	p.Cost, p.Why = p.Curve.On(a.Date), p.Curve.Why(a.Date)
	p.Share = quantity.Round(a.Share, 0.01)
	p.BloomLoss = quantity.Round(a.bloomShare(c, a.calendar, a.Date), 0.01)
	p.BloomText = bloomText(p.BloomLoss, c)
	a.work(&p)
	for _, x := range a.carriersOf() {
		if x.caution != "" && a.Purpose != Deadhead {
			p.Cautions = append(p.Cautions, x.caution)
		}
	}
	a.together(c, &p)
	a.shade(&p)
	p.Text = a.text(c, &p)
	return p, nil
}

// tooMuch says that more is asked for than the kind bears at once: a caution and a cost, and no refusal.
func (a *Ask) tooMuch(c *Class, p *Plan) {
	if a.Share <= c.Most+0.005 || a.Purpose == Dead || p.TooBig {
		return
	}
	p.TooMuch = true
	if a.single() && a.CutM > 0 {
		p.Cautions = append(
			p.Cautions,
			"That is topping: the tree answers with weak shoots and rot. Back to side branches by a fifth at most, or thin, raise or replace it.",
		)
	}
	p.Cautions = append(
		p.Cautions,
		fmt.Sprintf(
			"%.0f %% is more than it bears at once: up to %.0f %%, the rest over the years.",
			100*a.Share,
			100*c.Most,
		),
	)
}

// Thirds are the parts of a renewal over three years.
var Thirds = []string{"the oldest third of the stems", "the next third", "the last third of the old stems"}

// sides are the same of a conifer that comes again from bare wood.
var sides = []string{"one side", "the other side", "the top, and what is left"}

// draw is the drawing of where the blade goes for the purpose.
func (a *Ask) draw(c *Class) string {
	tree := a.Species.Form == catalogue.Tree || a.Species.Form == catalogue.Conifer
	switch {
	case c.Draw == "frond" || c.Draw == "crown":
		return c.Draw
	case a.Purpose == Hedge && !a.pastHedge():
		return "taper"
	case a.Purpose == Deadhead && !c.Spares:
		return "faded"
	case a.Purpose == Renew && !tree:
		return "stems"
	case tree && (a.Purpose == Dead || a.Purpose == Raise || a.Purpose == Thin || a.Purpose == Storm):
		return "collar"
	}
	return c.Draw
}

// howFar works out the height to cut to, what follows, and how it is spread over the years.
func (a *Ask) howFar(c *Class, p *Plan) {
	if a.Purpose == Renew && Renewable(a.Species) {
		a.renewed(p)
		return
	}
	if a.CutM > 0 {
		p.CutM, p.Heights = a.CutM, heights(a.Species, a.HeightM, a.CutM)
		a.Share = 1 - a.CutM/a.HeightM
		return
	}
	if a.WantedM == 0 || a.WantedM >= a.HeightM+grows(a.Species, 0, 1) {
		p.Heights = heights(a.Species, a.HeightM, a.HeightM)
		return
	}
	if a.single() {
		a.reduced(p)
		return
	}
	least := max(leastHeight(a.Species, a.HeightM), a.GraftM+0.1*boolTo(a.GraftM > 0))
	h, kept := a.HeightM, a.HeightM
	for year := 1; year <= 4; year++ {
		want := cutFor(a.Species, h, a.WantedM)
		to := max(want, h*(1-c.Most), least)
		p.Years = append(p.Years, Step{Year: year, CutM: quantity.Round(to, 0.01),
			Text: fmt.Sprintf("Cut to %s.", quantity.Length(to))})
		if year == 1 {
			kept = to
		}
		if want >= 0 && to <= want+0.01 {
			break
		}
		next := to + grows(a.Species, 1-to/h, 1)
		if next >= h-0.01 || year == 4 {
			p.TooBig = true
			break
		}
		h = next
	}
	if len(p.Years) == 1 && !p.TooBig {
		p.Years = []Step{}
	}
	p.CutM = quantity.Round(kept, 0.01)
	p.Heights = heights(a.Species, a.HeightM, kept)
	a.Share = min(1, 1-kept/a.HeightM)
}

// renewed spreads a renewal over three years: stems at the ground, or, where there is one trunk, what stands on it.
func (a *Ask) renewed(p *Plan) {
	for n, part := range Thirds[max(0, a.Part-1):] {
		text := "Take out " + part + " at the ground, or at a strong young shoot."
		switch {
		case a.Species.Form == catalogue.Conifer:
			text = "Cut " + sides[max(0, a.Part-1)+n] + " back to short side shoots near the trunk."
		case a.Species.Standing() == catalogue.SingleTrunk || a.Species.Standing() == catalogue.Climbing:
			text = "Take " + limbs[max(0, a.Part-1)+n] + " back to young shoots near the frame; the trunk stays."
		}
		p.Years = append(p.Years, Step{Year: n + 1, Text: text})
	}
	a.Share = min(a.Share, 1.0/3)
	p.Heights = heights(a.Species, a.HeightM, a.HeightM) // stems come out whole: it stands as tall as before
}

// limbs are the thirds of a renewal of what stands on one trunk.
var limbs = []string{"the oldest third of the branches", "the next third", "the last third of the old branches"}

// reduced makes a tree smaller to side branches, by a fifth at most; it is not topped, whatever is wanted.
func (a *Ask) reduced(p *Plan) {
	floor := a.HeightM * (1 - treeShare)
	to := cutFor(a.Species, a.HeightM, a.WantedM)
	if a.WantedM >= floor {
		to = max(to, floor)
	}
	if to < floor-0.01 {
		p.TooBig = true
		p.Heights = heights(a.Species, a.HeightM, a.HeightM)
		a.Share = 0
		return
	}
	p.CutM = quantity.Round(to, 0.01)
	p.Heights = heights(a.Species, a.HeightM, to)
	a.Share = min(1, 1-to/a.HeightM)
	if p.Heights[1].M > 1.1*a.WantedM { // it grows past the line: the same each year
		for n := 1; n <= 2; n++ {
			p.Years = append(p.Years, Step{Year: n, CutM: p.CutM, Text: "Back to side branches at " + quantity.Length(to) + "."})
		}
	}
}

func boolTo(is bool) float64 {
	if is {
		return 1
	}
	return 0
}

func bloomText(loss float64, c *Class) string {
	switch {
	case loss >= 0.02 && c.ID == "spring-bulb":
		return "It costs bloom next year: the green leaves still feed the bulb."
	case loss < 0.02 && c.Spares:
		return "Cut above the first live pair of buds it costs no bloom; one pair further down costs that stem's bloom."
	case loss < 0.02:
		return "It costs no bloom."
	}
	return fmt.Sprintf("It costs about %.0f %% of the next bloom; the plant takes no harm by that.", 100*loss)
}

// text says it in a sentence or two.
func (a *Ask) text(c *Class, p *Plan) string {
	if none := a.headless(); none != "" {
		return none
	}
	var out string
	switch {
	case len(p.Windows) == 0:
		out = "No day of this garden year is good for it; the least bad is " + quantity.Day(p.Best) + "."
	case p.Windows[0].To-p.Windows[0].From > longest:
		out = "Any time of the year."
	default:
		for i, w := range p.Windows[:min(2, len(p.Windows))] {
			if i > 0 {
				out += ", or "
			}
			out += quantity.Day(w.From) + " to " + quantity.Day(w.To)
		}
		out = "Cut " + out + "."
	}
	if a.Purpose == Renew && !Renewable(a.Species) {
		why := "it does not come again from old wood"
		if a.Species.HardPruning == catalogue.FromBase || a.Species.HardPruning == catalogue.OldWood {
			why = "it stands on one trunk"
		}
		out = "It cannot be renewed: " + why + ". A light trim only: " +
			strings.ToLower(out[:1]) + out[1:] + " Once bare it wants replacing."
	}
	if a.pastHedge() {
		out = "At " + quantity.Length(
			a.HeightM,
		) + " it is a tree, not a hedge: no line is cut along its top. Its sides back to green side shoots. " + out
	}
	if p.TooMuch {
		out += fmt.Sprintf(" It is more than it bears at once: up to %.0f %%, the rest over the years.", 100*c.Most)
	}
	if p.TooBig && a.single() {
		return "It is too big for its place: no cut keeps it at " + quantity.Length(
			a.WantedM,
		) + ". A tree is not topped: it answers with weak shoots and rot. To " +
			quantity.Length(
				a.HeightM*(1-treeShare),
			) + " at most, back to side branches; else thin it, raise it, or replace it by one that stays smaller."
	}
	if p.TooBig {
		out += " It is too big for its place: no cut keeps it at " + quantity.Length(
			a.WantedM,
		) + ". Move it, replace it, or give it room."
	} else if p.CutM > 0 && a.CutM == 0 {
		out += " Cut to " + quantity.Length(p.CutM) + "."
	}
	return out
}
