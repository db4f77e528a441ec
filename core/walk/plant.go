package walk

import (
	"mezzadro/core/catalogue"
	"mezzadro/core/cause"
	"mezzadro/core/check"
	"mezzadro/core/cold"
	"mezzadro/core/damage"
	"mezzadro/core/day"
)

// Plant is one on the walk, with what is known of it but for what its species tells.
type Plant struct {
	ID       int64         `json:"id"`
	Species  string        `json:"species" doc:"Id of its kind"`
	Label    string        `json:"label"`
	HeightM  float64       `json:"height_m" doc:"m"`
	SpreadM  float64       `json:"spread_m" doc:"m"`
	GraftM   float64       `json:"graft_m" doc:"Height of its graft, m; 0 without one or unknown"`
	BaseMM   float64       `json:"base_mm" doc:"Thickness of its stem at the base, mm; 0 unknown"`
	PotL     float64       `json:"pot_l" doc:"Litres of its pot; 0 in the ground"`
	Years    int           `json:"years" doc:"Since it was planted; 0 unknown"`
	Count    int           `json:"count" doc:"Plants, where a group is kept as one"`
	Mulched  bool          `json:"mulched"`
	Value    float64       `json:"value" doc:"The client's weight: 1 ordinary"`
	Shelter  float64       `json:"shelter" doc:"From wind: 0 open to 1 wholly sheltered"`
	Sun      float64       `json:"sun" doc:"0 shade to 1 sun all day"`
	Exposure cold.Exposure `json:"exposure" doc:"Its own, or its property's"`
	WarmWall bool          `json:"warm_wall" doc:"Before a wall that the sun warms"`
	MilderC  float64       `json:"milder_c" doc:"How much milder than reckoned its garden, its spot and its kind have shown to be, °C; below 0 colder, 0 nothing known"`

	Lost    *float64 `json:"lost,omitempty" doc:"Share of its crown found lost at its last verdict of the last months; absent without one"`
	GrowthM float64  `json:"growth_m" doc:"Its longest shoots of the last season, m; 0 not measured"`

	Earlier  []damage.Earlier `json:"earlier" doc:"What was found on its walks, day by day, the oldest first"`
	Cuts     []damage.Cut     `json:"cuts" doc:"What was cut off it, the oldest first"`
	MadeSafe day.Day          `json:"made_safe" format:"date" doc:"When what might fall was last made safe; empty never"`
	Finds    []damage.Find    `json:"finds" doc:"Causes that stand as found on it"`
}

// Checked is the plant as checks judge it.
func (p *Plant) Checked(e catalogue.Entry) check.Plant {
	return check.Plant{Species: e, HeightM: p.HeightM, GraftM: p.GraftM, Years: p.Years, PotL: p.PotL, Mulched: p.Mulched, Count: p.Count}
}

// Case is the plant as the cold meets it.
func (p *Plant) Case(e catalogue.Entry, south bool) cold.Case {
	return cold.Case{
		Plant: cold.Plant{
			Species:  e,
			HeightM:  p.HeightM,
			BaseMM:   p.BaseMM,
			PotL:     p.PotL,
			Shelter:  p.Shelter,
			Sun:      p.Sun,
			Mulched:  p.Mulched,
			Exposure: p.Exposure,
			South:    south,
			MilderC:  p.MilderC,
		},
		SpreadM: p.SpreadM,
		Count:   p.Count,
		Value:   p.Value,
	}
}

// Around is what its exposure and its property's tell of its spot.
func (p *Plant) Around() cause.Around {
	return cause.Around{Wet: p.Exposure.Wet, WarmWall: p.Exposure.Wall || p.WarmWall, Sun: p.Sun}
}

// fellow is the plant as others of its kind are compared with it.
func (p *Plant) fellow() cause.Fellow {
	f := cause.Fellow{Label: p.Label, HeightM: p.HeightM, Years: p.Years, GrowthM: p.GrowthM, Judged: p.Lost != nil}
	if f.Judged {
		f.CrownLost = *p.Lost
	}
	return f
}

// Book tells a species by its id; an unknown one is the zero entry.
type Book func(id string) catalogue.Entry

// Ask is the question about a plant among those of its property today: with what was found now, and what was found
// before a day; without a day all that was found counts.
func (g *Ground) Ask(p *Plant, here []Plant, book Book, checks []check.Check, before day.Day) damage.Question {
	e := book(p.Species)
	c := p.Case(e, g.Year.Normals.Climate.South())
	q := damage.Question{
		Plant:  p.Checked(e),
		Today:  g.Today,
		Year:   g.Year,
		Place:  g.Work,
		CutsAt: g.Cuts,
		Checks: checks,
		Finds:  p.Finds,
		Around: p.Around(),
	}
	if l, ok := g.Look(&c); ok {
		q.Forecast = &l.Outcome
	}
	for i := range here {
		o := &here[i]
		if o.ID == p.ID {
			continue
		}
		q.Around.Meet(book(o.Species), o.HeightM, o.SpreadM)
		if o.Species == p.Species && (o.PotL > 0) == (p.PotL > 0) {
			q.Fellows = append(q.Fellows, o.fellow())
		}
	}
	g.recall(&q, p, &c, before)
	return q
}

// recall puts into a question what was found at its plant before a day, and what has come to it since: cuts, what was
// made safe, the weather.
func (g *Ground) recall(q *damage.Question, p *Plant, c *cold.Case, before day.Day) {
	first := g.Today
	for _, l := range p.Earlier {
		if len(l.Checks) == 0 || l.Day > g.Today || before.Given() && l.Day >= before {
			continue
		}
		q.Earlier = append(q.Earlier, l)
		first = min(first, l.Day)
	}
	if len(q.Earlier) == 0 {
		return
	}
	q.Blows = g.blows(c, first)
	for _, cut := range p.Cuts {
		if cut.Day >= first {
			q.Cuts = append(q.Cuts, cut)
		}
	}
	if p.MadeSafe >= first {
		q.MadeSafe = p.MadeSafe
	}
}
