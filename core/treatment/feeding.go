package treatment

import (
	"fmt"
	"slices"
	"sync"

	"mezzadro/core/written"

	"mezzadro/core/catalogue"
	"mezzadro/core/cause"
	"mezzadro/core/day"
	"mezzadro/core/invalid"
	"mezzadro/core/moment"
	"mezzadro/core/quantity"
	"mezzadro/core/rules"
)

// feedClass is how some kinds are fed.
type feedClass struct {
	ID    string `yaml:"id"`
	Name  string `yaml:"name"`
	Match struct {
		Species  []string `yaml:"species"`
		Genus    []string `yaml:"genus"`
		Family   []string `yaml:"family"`
		Habit    []string `yaml:"habit"`
		Form     []string `yaml:"form"`
		NotGenus []string `yaml:"not_genus"`
		Fruit    bool     `yaml:"fruit"`
		Pot      bool     `yaml:"pot"`
	} `yaml:"match"`
	Cut     bool      `yaml:"cut"`
	None    string    `yaml:"none"`
	Compost bool      `yaml:"compost"`
	Bare    bool      `yaml:"bare"`
	From    When      `yaml:"from"`
	To      When      `yaml:"to"`
	Every   int       `yaml:"every"`
	Most    int       `yaml:"most"`
	Organic string    `yaml:"organic"`
	Any     string    `yaml:"any"`
	Says    []string  `yaml:"says"`
	PH      []float64 `yaml:"ph"`
}

// feeds are the classes that ship. It panics when the shipped data is broken: a test loads it.
var feeds = sync.OnceValue(func() []feedClass {
	text, err := data.ReadFile("data/feeding.yaml")
	var list []feedClass
	if err == nil {
		err = written.Read(text, &list)
	}
	if err != nil {
		panic(err)
	}
	return list
})

func (c *feedClass) fits(e *catalogue.Entry, pot bool) bool {
	m := c.Match
	for _, x := range []struct {
		of []string
		is string
	}{{m.Species, e.ID}, {m.Genus, e.Genus()}, {m.Family, e.Family}, {m.Habit, e.Bloom.Habit}, {m.Form, string(e.Form)}} {
		if len(x.of) > 0 && !slices.Contains(x.of, x.is) {
			return false
		}
	}
	return (!m.Pot || pot) && (!m.Fruit || e.GrownForFruit()) && !slices.Contains(m.NotGenus, e.Genus())
}

// feedClassOf is how a plant is fed: the first class that fits, or another after a hard cut.
func feedClassOf(a *FeedAsk) *feedClass {
	list := feeds()
	last := &list[len(list)-1] // fits all
	for i := range list {
		if c := &list[i]; c.fits(a.Species, a.PotL > 0) {
			if c.Cut && a.AfterCut {
				return last
			}
			return c
		}
	}
	return last
}

// FeedAsk is a plant that may be fed.
type FeedAsk struct {
	Species  *catalogue.Entry
	Place    *moment.Place
	Date     day.Day
	PotL     float64  // litres of its pot; 0 in the ground
	Hurt     bool     // by frost, and not in growth yet
	AfterCut bool     // it was cut hard before this growth
	Young    bool     // planted within the year
	Sick     []string // what was found on it and is not over: ids of causes
	PH       float64  // of its soil; 0: nobody measured
	Rules    rules.House

	Count     int     // of a group; 0: one
	HeightM   float64 // 0: as tall as its kind grows
	SpreadM   float64
	RowM      float64 // length of the row a group stands in, m; 0: not measured
	BedM2     float64 // 0: as wide as the crowns
	CompostCM float64 // how deep; 0: as usual
	MulchCM   float64
	Cards     []Card
}

// Feeding is when and with what a plant is fed.
type Feeding struct {
	Text   string    `json:"text"`
	Class  string    `json:"class" doc:"How its kind is fed"`
	None   bool      `json:"none" doc:"It is not fed"`
	Days   []day.Day `json:"days" doc:"Of the season that runs or comes next, from the date on"`
	To     day.Day   `json:"to,omitempty" format:"date" doc:"Last day of that season"`
	Every  int       `json:"every,omitempty"`
	With   string    `json:"with,omitempty" doc:"By house rule; how much is the label's"`
	Foliar []day.Day `json:"foliar" doc:"After frost: days on which the new leaves are wetted with a weak feed, to dripping"`
	Soil   string    `json:"soil,omitempty" doc:"What its pH asks for"`
	Says   []string  `json:"says"`
	Rules  []string  `json:"rules" doc:"House rules that spoke"`

	Amounts []SoilAmount `json:"amounts" doc:"What it takes: estimates; of a product only by the given cards"`
}

// After frost.
const (
	regrown     = 21 // days from leaf-out until roots feed growth again
	foliarEvery = 21
	foliarMost  = 3
	hurtEvery   = 40 // days between weak feeds
	hurtMost    = 2
	phSlack     = 0.3
	limyAbove   = 6.8 // what likes it limier is not soured
	sourBelow   = 6.0 // what likes it no limier is never limed
)

const anyFeedRule = "Any feed"

// Validate names what cannot be.
func (a FeedAsk) Validate() error {
	var bad invalid.Fields
	bad.Within("pot_l", a.PotL, 0, 5000, "L")
	if a.PH != 0 {
		bad.Within("ph", a.PH, 3, 10, "")
	}
	bad.Within("bed_m2", a.BedM2, 0, 100_000, "m²")
	bad.Within("compost_cm", a.CompostCM, 0, 30, "cm")
	bad.Within("mulch_cm", a.MulchCM, 0, 30, "cm")
	for i, c := range a.Cards {
		bad = append(bad, c.faults(at("cards", i))...)
	}
	return bad.Err()
}

// Feed tells when and with what a plant is fed. Its error is a list of refused fields.
func Feed(a FeedAsk) (Feeding, error) {
	if err := a.Validate(); err != nil {
		return Feeding{}, err
	}
	c := feedClassOf(&a)
	out := Feeding{
		Class:  c.Name,
		Days:   []day.Day{},
		Foliar: []day.Day{},
		Says:   append([]string{}, c.Says...),
		Rules:  []string{},
		Soil:   soil(c, a.PH),
	}
	if a.Rules.Or(rules.Usual).Feeding == rules.AnyFeed {
		out.With = c.Any
		out.Rules = append(out.Rules, anyFeedRule)
	} else {
		out.With = c.Organic
		out.Rules = append(out.Rules, "Organic feed only")
	}
	s := &search{
		book:      Built(),
		ask:       &Ask{Species: a.Species, Place: a.Place, Date: a.Date},
		programme: &Programme{},
		calendar:  a.Place.Of(a.Species, a.Date),
	}
	growth := day.None
	if a.Hurt {
		growth = s.calendar.Nearest(moment.When{Event: "leaf_out"}, a.Date) + regrown
		out.Says = append(
			out.Says,
			"Hurt by frost, it is not fed before it grows: roots take up nothing, and salt harms them.",
		)
		for n := range foliarMost {
			out.Foliar = append(out.Foliar, max(a.Date, growth)+day.Day(n*foliarEvery))
		}
	}
	if none := a.none(c); none != "" {
		out.None, out.Text, out.With, out.Rules = true, none, "", []string{}
		out.Amounts = a.amounts(c, &out)
		return out, nil
	}
	out.Every = c.Every
	if a.Hurt {
		out.Every, out.With = hurtEvery, out.With+", half of the label's at most"
		out.Says = append(out.Says, "Take fruit off this year: it has its strength to find again.")
	}
	out.Days, out.To = s.feedDays(c, growth)
	out.Amounts = a.amounts(c, &out)
	out.Text = feedText(&out, a.Date)
	return out, nil
}

// none says why a plant is not fed; empty where it is.
func (a *FeedAsk) none(c *feedClass) string {
	if ill := a.ill(); ill != "" {
		return "Not fed while it has " + ill + ": nitrogen makes soft growth that falls to it, and feed heals nothing. " +
			"Water and mulch, and treat that first."
	}
	if a.Young && a.PotL == 0 && c.Cut {
		return "Planted within the year: water and mulch, no feed yet."
	}
	return c.None
}

// fedNot are illnesses that do not kill and yet speak against nitrogen: they live in soft growth and in wounds.
var fedNot = []string{"canker", "blossom-wilt", "silver-leaf", "standing-water", "crown-gall-bacterium", "shot-hole"}

// ill is the first illness found that speaks against feeding; empty without one. What is only short of something, or
// has spots or mildew on its leaves, is fed as ever.
func (a *FeedAsk) ill() string {
	for _, id := range a.Sick {
		c := cause.Built().Cause(id)
		if c == nil {
			continue
		}
		deadly := c.Harm == "deadly" && slices.Contains([]string{"fungus", "bacterium", "virus"}, c.Group)
		if deadly || slices.Contains(fedNot, c.ID) {
			return c.Said()
		}
	}
	return ""
}

// feedDays are the days of the season that runs or comes next. After frost it is fed a little and often, from when it
// grows again, whatever its kind is used to.
func (s *search) feedDays(c *feedClass, growth day.Day) (out []day.Day, to day.Day) {
	from, to, ok := s.window(Step{From: c.From, To: c.To})
	if !ok {
		return []day.Day{}, 0
	}
	d, every, most := max(from, s.ask.Date), c.Every, max(1, c.Most)
	if growth.Given() {
		d, every, most = max(d, growth), hurtEvery, hurtMost
		to = max(to, d+hurtEvery*(hurtMost-1))
	}
	for range most {
		if d > to {
			break
		}
		out = append(out, d)
		if every == 0 {
			return out, to
		}
		d += day.Day(every)
	}
	if len(out) > 0 {
		to = out[len(out)-1]
	}
	return out, to
}

func feedText(f *Feeding, today day.Day) string {
	if len(f.Days) == 0 {
		return "No time for it is left this season; next spring again."
	}
	when := "Feed it now"
	if f.Days[0] > today {
		when = "Feed it from " + quantity.Day(f.Days[0])
	}
	if len(f.Days) > 1 {
		return fmt.Sprintf(
			"%s, every %d days to %s, with %s.",
			when,
			f.Every,
			quantity.Day(f.Days[len(f.Days)-1]),
			f.With,
		)
	}
	return fmt.Sprintf("%s, once, with %s.", when, f.With)
}

// soil is what the pH asks for.
func soil(c *feedClass, ph float64) string {
	lo, hi := c.PH[0], c.PH[1]
	switch {
	case ph == 0:
		return ""
	case ph < lo-phSlack && hi <= sourBelow:
		return fmt.Sprintf("At pH %.1f it is sour even for it (%.1f to %.1f): no lime; compost, and test again in a year.", ph, lo, hi)
	case ph < lo-phSlack:
		return fmt.Sprintf(
			"At pH %.1f it is too sour for it (%.1f to %.1f): lime in autumn by the soil test, never together with manure; test again in a year.",
			ph,
			lo,
			hi,
		)
	case ph > hi+phSlack && hi <= limyAbove:
		return quantity.Worded(fmt.Sprintf(
			"At pH %.1f it is too limy for it (%.1f to %.1f): sulphur by the soil test, leaf mould, rain water; or a pot or bed of sour soil.",
			ph,
			lo,
			hi,
		))
	case ph > hi+phSlack:
		return fmt.Sprintf("At pH %.1f it is limy: compost and iron by need; sulphur only by a soil test.", ph)
	}
	return fmt.Sprintf("pH %.1f suits it.", ph)
}
