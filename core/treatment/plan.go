package treatment

import (
	"fmt"
	"slices"

	"mezzadro/core/cause"
	"mezzadro/core/day"
	"mezzadro/core/quantity"
	"mezzadro/core/rules"
)

// Offer is a rung of the ladder as it is told.
type Offer struct {
	Rung    string `json:"rung" enum:"none,habitat,hands,water,barriers,cutting,soft,strong,replace"`
	Do      string `json:"do"`
	Chosen  bool   `json:"chosen"`
	Allowed bool   `json:"allowed"`
	Why     string `json:"why,omitempty" doc:"Why it is not open, or what it would add"`
}

// Dated is a step with its days.
type Dated struct {
	N       int      `json:"n"`
	Do      string   `json:"do"`
	Who     string   `json:"who,omitempty" enum:"licensed arborist," doc:"Who alone may do it"`
	Use     string   `json:"use,omitempty" doc:"The means, by id"`
	UseName string   `json:"use_name,omitempty"`
	Where   string   `json:"where,omitempty"`
	Stage   string   `json:"stage,omitempty" doc:"Of the pest that it hits"`
	Day     day.Day  `json:"day" format:"date" doc:"The next time"`
	To      day.Day  `json:"to,omitempty" format:"date" doc:"Last day on which it still helps"`
	Every   int      `json:"every,omitempty" doc:"Days to the next time"`
	Most    int      `json:"most" doc:"Times at most"`
	Done    int      `json:"done" doc:"Times it was done, without what rain washed off"`
	Stop    string   `json:"stop,omitempty" doc:"What ends it"`
	Limits  []string `json:"limits"`
	Why     []string `json:"why" doc:"Why that day"`
	Amount  *Amount  `json:"amount,omitempty"`

	HarvestFrom day.Day `json:"harvest_from,omitempty" format:"date" doc:"From when it is eaten again after that time, by the card's label"`

	Seasonal bool `json:"-"` // the season sets its day, no gap, repeat or rain
}

// Answer is what is done, when, and what it takes.
type Answer struct {
	Text     string   `json:"text"`
	Rung     string   `json:"rung" enum:"none,habitat,hands,water,barriers,cutting,soft,strong,replace"`
	Ladder   []Offer  `json:"ladder"`
	Steps    []Dated  `json:"steps" doc:"That are still to come, in order"`
	Look     day.Day  `json:"look,omitempty" format:"date" doc:"When to look whether it helped"`
	Ends     string   `json:"ends,omitempty" enum:"done,helpers,not this year" doc:"Why there is nothing to do now"`
	Next     day.Day  `json:"next,omitempty" format:"date" doc:"Where the window of this year has passed: when the next opens"`
	Says     []string `json:"says"`
	Never    []string `json:"never"`
	Cautions []string `json:"cautions"`
	Rules    []string `json:"rules" doc:"House rules that spoke"`
	Treated  int      `json:"treated" doc:"How many plants"`
	Aims     bool     `json:"only_looks" doc:"It is ugly, not harmful: whether to act is a matter of taste"`
	Waits    []Wait   `json:"waits" doc:"That run on the day because of what was used"`
}

// Plan decides the least that works. Its error is a list of refused fields.
func (b *Book) Plan(a Ask) (Answer, error) {
	if err := a.Validate(); err != nil {
		return Answer{}, err
	}
	a.fill()
	c := cause.Built().Cause(a.Cause)
	p := b.programme(&a)
	if p == nil {
		p = plain(c, a)
	}
	s := &search{book: b, ask: &a, cause: c, programme: p, calendar: a.Place.Of(a.Species, a.Date)}
	out := Answer{
		Ladder:   []Offer{},
		Steps:    []Dated{},
		Says:     append([]string{}, p.Says...),
		Never:    append([]string{}, p.Never...),
		Cautions: []string{},
		Rules:    []string{},
		Treated:  a.treated(p),
		Aims:     c.Harm == "ugly" || c.Harm == "harmless",
		Waits:    b.Waits(a),
	}
	if a.Helpers && p.Helpers != "" && a.severity() < 2 {
		s.waits(&out)
		s.facts(&out)
		return out, nil
	}
	r := s.choose(&out)
	out.Rung = r.Rung
	s.date(r, &out)
	s.tell(r, &out)
	s.facts(&out)
	return out, nil
}

// plain is the programme of a cause that has none of its own: what the book of causes says is enough.
func plain(c *cause.Cause, a Ask) *Programme {
	act, do := c.Rung([]float64{0.05, 0.2, 0.6}[a.severity()])
	rung := map[string]string{"watch": "none", "cut": "cutting", "soft": "hands", "strong": "replace"}[act]
	if rung == "" {
		rung = act
	}
	p := &Programme{
		ID:    c.ID,
		Rungs: []Rung{{Rung: rung, Upto: "heavy", Steps: []Step{{Do: do, From: When{Now: true}, Look: 30}}}},
	}
	if act == "strong" {
		p.Says = []string{"This is for a licensed person; no spray of one's own."}
	}
	return p
}

// waits is the answer where helpers are seen.
func (s *search) waits(out *Answer) {
	out.Rung, out.Ends, out.Look = "none", "helpers", s.ask.Date+helpersWait
	out.Text = fmt.Sprintf(
		"Wait: helpers are at work. Look again %s; nothing is sprayed till then.",
		quantity.Day(out.Look),
	)
	out.Says = append([]string{s.programme.Helpers}, out.Says...)
	for _, r := range s.programme.Rungs {
		out.Ladder = append(
			out.Ladder,
			Offer{
				Rung:    r.Rung,
				Do:      r.does(),
				Chosen:  r.Rung == "none",
				Allowed: r.Rung == "none",
				Why:     "helpers are at work",
			},
		)
	}
}

// helpersWait is how long helpers are given, days.
const helpersWait = 14

// rungs are those that hold for the cause.
func (s *search) rungs() (out []Rung) {
	list := s.programme.Rungs
	if s.ask.Prevent {
		list = s.programme.Prevent
		if len(list) == 0 {
			list = notBefore
		}
	}
	for _, r := range list {
		if !slices.Contains(r.Not, s.cause.ID) && (len(r.Only) == 0 || slices.Contains(r.Only, s.cause.ID)) {
			out = append(out, r)
		}
	}
	return out
}

// choose takes the least rung that is enough and open, and tells the ladder.
func (s *search) choose(out *Answer) Rung {
	list, bad := s.rungs(), s.wants()
	pick, escalate := -1, false
	for i, r := range list {
		why := s.closed(r, out)
		o := Offer{Rung: r.Rung, Do: r.does(), Allowed: why == "", Why: why}
		if why == weakHidden {
			continue // not even named, by house rule
		}
		out.Ladder = append(out.Ladder, o)
		enough := r.Upto != "" && slices.Index(severities, r.Upto) >= bad
		if s.ask.Prevent { // a kind that resists it is not sprayed
			enough = r.Rung != "strong" && (r.Rung != "soft" || !s.resists())
		}
		switch {
		case pick >= 0 && !escalate:
		case why != "":
			escalate = escalate || enough && r.Rung != "strong" && pick < 0
		case enough || r.Rung == "strong" && s.stronger(list, bad):
			if pick < 0 || escalate {
				pick, escalate = i, false
			}
		}
	}
	if s.stronger(list, bad) && !s.ask.Prevent {
		for i, r := range list {
			if r.Rung == "strong" && s.closed(r, out) == "" {
				pick = i
			}
		}
	}
	if pick < 0 { // nothing that is enough is open: the most that is
		for i, r := range list {
			if s.closed(r, out) == "" {
				pick = i
			}
		}
	}
	if pick < 0 {
		pick = 0
	}
	chosen := list[pick]
	past := false
	for i := range out.Ladder {
		o := &out.Ladder[i]
		o.Chosen = !past && o.Rung == chosen.Rung && o.Do == chosen.does()
		past = past || o.Chosen
		if past && !o.Chosen && o.Allowed {
			o.Why = "more than is needed now; it comes next if this does not help"
		}
	}
	return chosen
}

// wants is the severity that has to be met: less where it is only ugly and the client can wait, or the plant hardly
// takes harm there.
func (s *search) wants() int {
	bad := s.ask.severity()
	if s.cause.Harm == "ugly" && s.ask.Value < 1 || s.programme.Sunny && s.ask.Shade {
		bad = max(0, bad-1)
	}
	if s.resists() {
		bad = 0
	}
	return bad
}

// resists reports a kind that seldom has it.
func (s *search) resists() bool {
	return s.programme.Resist && slices.Contains(s.cause.Way.Resists, s.ask.Species.ID)
}

// notBefore is what is done before a trouble is there that nothing keeps off.
var notBefore = []Rung{{Rung: "none", Steps: []Step{{
	Do: "Nothing is put on before it shows: keep the plant growing well, and look for it.", From: When{Now: true}, Look: 30}}}}

// stronger reports that a strong means is open: by house rule at once where most of the plant shows it, else only where
// soft ones were used in this garden year as often as they help, and it does more than look bad.
func (s *search) stronger(list []Rung, bad int) bool {
	if bad < 2 || s.ask.Rules.Control == rules.SoftOnly {
		return false
	}
	if s.ask.Rules.Control == rules.Conventional {
		return true
	}
	if s.cause.Harm == "ugly" || s.cause.Harm == "harmless" {
		return false
	}
	for _, r := range list {
		if r.Rung != "soft" {
			continue
		}
		for _, st := range r.Steps {
			if st.Use != "" && st.Use != "grease-band" && s.usesOf(st.Use) < max(1, st.Most) {
				return false
			}
		}
		return true
	}
	return false
}

const weakHidden = "by house rule repellents are not offered: the evidence for them is weak"

// closed says why a rung is not open; empty where it is.
func (s *search) closed(r Rung, out *Answer) string {
	note := func(rule string) {
		if !slices.Contains(out.Rules, rule) {
			out.Rules = append(out.Rules, rule)
		}
	}
	uses := slices.ContainsFunc(r.Steps, func(st Step) bool { return st.Use != "" })
	if r.Rung == "strong" && uses { // not a licensed hand that reports or fells
		switch s.ask.Rules.Control {
		case rules.SoftOnly:
			note("Soft means only")
			return "by house rule only soft means are used"
		case rules.Conventional:
			note("Conventional means are allowed from the start")
		default:
			note("Soft means first, stronger only past a threshold")
		}
	}
	for _, st := range r.Steps {
		a := s.book.active[st.Use]
		switch {
		case a == nil:
		case a.Weak && s.ask.Rules.Repellents != rules.Show:
			note("Repellents with weak evidence are hidden")
			return weakHidden
		case kitchen(s.ask.Species) && !a.Kitchen:
			return "not on what is eaten from the garden"
		case a.Most > 0 && s.usesInYear(a) >= a.Most:
			return fmt.Sprintf("%s was used %d times in this garden year: no more, or it stops working", a.Name, a.Most)
		case s.labelSpent(s.ask.card(a)):
			c := s.ask.card(a)
			return fmt.Sprintf("%s was used %d times within a year, the most by its label", c.Name, c.MostUses)
		}
	}
	if r.To.given() {
		if _, to, ok := s.window(Step{From: When{Now: true}, To: r.To}); !ok || to < s.ask.Date {
			if s.programme.Late != "" && !slices.Contains(out.Says, s.programme.Late) {
				out.Says = append(out.Says, s.programme.Late)
			}
			return "too late in the year"
		}
	}
	return ""
}
