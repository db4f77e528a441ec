package cause

import (
	"cmp"
	"fmt"
	"maps"
	"math"
	"slices"
	"strings"

	"gonum.org/v1/gonum/floats"
	"gonum.org/v1/gonum/stat"

	"mezzadro/core/catalogue"
	"mezzadro/core/invalid"
	"mezzadro/core/quantity"
)

// Case is a plant with what was seen on it, what was looked for and not found, and what nobody has looked at yet.
type Case struct {
	Species *catalogue.Entry // nil where nobody knows
	Month   int              // 1 to 12, of the northern year: half a year on in the south
	Seen    []string
	Absent  []string
	Share   float64 // of the leaves or shoots that show it, 0 to 1; 0 where nobody said

	Known  map[string]bool    // signs of weather, work and place that the record tells: there, or not there
	Near   map[string]float64 // by cause: how often more it is met than elsewhere, as it was found nearby; above 1
	Warmth float64            // degree-days over 10 °C since midwinter; 0 where nobody knows
}

// Evidence is what a sign speaks, in natural log-odds against what is seen where nothing known is the cause.
type Evidence struct {
	Sign   string  `json:"sign"`
	Name   string  `json:"name"`
	Seen   bool    `json:"seen"`
	Weight float64 `json:"weight" doc:"Above 0 speaks for the cause, below 0 against it"`
	Record bool    `json:"record,omitempty" doc:"Told by the record of weather, place, work and finds, not by a look"`
}

// Named is a cause with its chance and what speaks for and against it.
type Named struct {
	ID       string     `json:"id"`
	Name     string     `json:"name"`
	Group    string     `json:"group" doc:"Weather, place, work, shortage, insect, mite, fungus, bacterium, virus, plant, animal or helper"`
	Chance   float64    `json:"chance" doc:"0 to 1; all causes with what is not in the book come to 1"`
	Harm     string     `json:"harm" enum:"harmless,ugly,weakening,deadly"`
	To       string     `json:"to" enum:"it,its kind,all" doc:"What else it takes"`
	Travels  string     `json:"travels" doc:"How it gets about, in words; empty where it does not"`
	Prone    bool       `json:"prone" doc:"The kind is known to have it again and again: expect it"`
	Mistaken []string   `json:"mistaken" doc:"Causes it is taken for, by id"`
	Act      string     `json:"act" enum:"none,watch,habitat,hands,water,cut,soft,strong,replace" doc:"The least that is enough"`
	Do       string     `json:"do"`
	Report   bool       `json:"report" doc:"Reportable in many places: ask the plant health office"`
	Evidence []Evidence `json:"evidence" doc:"The weightiest first"`
}

// NextSign is the question that parts the causes best for the time it takes.
type NextSign struct {
	Sign
	Why string `json:"why"`
}

// Diagnosis is what a case comes to.
type Diagnosis struct {
	Text     string    `json:"text"`
	Settled  bool      `json:"settled" doc:"One cause stands at 0.8 and twice the next, or all that is left asks for the same"`
	Causes   []Named   `json:"causes" doc:"The likeliest first; up to eight"`
	Also     []Named   `json:"also" doc:"What is likely there beside the first"`
	Unknown  float64   `json:"unknown" doc:"Chance of something that is not in the book"`
	Next     *NextSign `json:"next,omitempty"`
	Severity string    `json:"severity" enum:"not told,light,plain,heavy"`
	Act      string    `json:"act" enum:"none,watch,habitat,hands,water,cut,soft,strong,replace" doc:"What to do now"`
	Cautions []string  `json:"cautions"`
}

const (
	unknownPrior = 0.25 // weight of what is not in the book, where an ordinary cause on its host has 1
	unknownShows = 0.06 // how often it shows a sign that is no rarer anyway
	outOfSeason  = 0.04 // of a cause that cannot be at work now
	lastingSeen  = 0.5  // the same where a sign of it that lasts was seen
	settledAt    = 0.8
	twice        = 2.0
	likely       = 0.1 // from where a cause still counts for what to do
	shownCauses  = 8
	sureAbsent   = 0.97 // a sign that is there may still be missed
	toldNot      = 0.35 // weight of a cause that hangs on weather or work which the record says was not
	explains     = 0.1  // chance of a sign from which on a cause explains it
	besides      = 0.05 // weight of a cause that explains nothing of what is seen
	hangsOn      = 0.6  // chance of a sign from which on a cause hangs on it
)

// Validate names signs that are none, and those said to be both there and not there.
func (b *Book) Validate(c Case) error {
	var bad invalid.Fields
	for _, told := range []struct {
		name string
		list []string
	}{{"seen", c.Seen}, {"not_seen", c.Absent}} {
		name := told.name
		for i, id := range told.list {
			at := fmt.Sprintf("%s[%d]", name, i)
			if b.sign[id] == nil {
				bad.Add(at, id, "%q is no sign; near it: %s", id, strings.Join(b.near(id), ", "))
			} else if name == "seen" && slices.Contains(c.Absent, id) {
				bad.Add(at, id, "%s is said to be there and not to be there", b.sign[id].Name)
			}
		}
	}
	b.contradictions(c, &bad)
	bad.Within("share", c.Share, 0, 1, "")
	bad.Within("month", float64(c.Month), 1, 12, "")
	return bad.Err()
}

// contradictions names signs that cannot be seen together.
func (b *Book) contradictions(c Case, bad *invalid.Fields) {
	for _, id := range c.Seen {
		s := b.sign[id]
		if s == nil {
			continue
		}
		for i, other := range c.Seen {
			if o := b.sign[other]; o != nil && o != s && (slices.Contains(s.NeverWith, o.ID) || slices.Contains(s.NeverWith, o.Part)) {
				bad.Add(fmt.Sprintf("seen[%d]", i), other, "%s cannot be seen together with %s", small(o.Name), small(s.Name))
			}
		}
	}
}

// near are signs whose id or name holds a part of a word.
func (b *Book) near(id string) []string {
	var out []string
	for _, w := range strings.FieldsFunc(strings.ToLower(id), func(r rune) bool { return r == '_' || r == '-' || r == ' ' }) {
		for _, s := range b.Signs {
			if len(w) > 2 && (strings.Contains(s.ID, w) || strings.Contains(strings.ToLower(s.Name), w)) && !slices.Contains(out, s.ID) {
				out = append(out, s.ID)
			}
		}
	}
	return out[:min(len(out), 5)]
}

// inMonth reports whether a cause can be at work in a month of the northern year.
func (c *Cause) inMonth(month int) bool {
	if len(c.When) == 0 {
		return true
	}
	if c.When[0] <= c.When[1] {
		return month >= c.When[0] && month <= c.When[1]
	}
	return month >= c.When[0] || month <= c.When[1]
}

// inSeason reports whether a cause can be at work: by the warmth that woke it where that is known, and by the month.
// Warmth counts in the first half of the year alone; in autumn all are awake until their months end.
func (c *Cause) inSeason(k Case) bool {
	if c.Way.Warmth > 0 && k.Warmth > 0 && k.Month <= 6 {
		last := 12
		if len(c.When) == 2 && c.When[0] <= c.When[1] {
			last = c.When[1]
		}
		return k.Warmth >= c.Way.Warmth && k.Month <= last
	}
	return c.inMonth(k.Month)
}

// canShow reports whether a sign can be told now: a leaf tells nothing on a plant that has none in winter.
func (s *Sign) canShow(k Case) bool {
	if !s.OnLeaves() {
		return true
	}
	bare := k.Species != nil && (k.Month == 12 || k.Month <= 2) &&
		(k.Species.LeafSeason == catalogue.Deciduous || k.Species.LeafSeason == catalogue.Herbaceous)
	return !bare && !slices.Contains(k.Seen, "leafless")
}

// shows is the chance of a sign where a cause is at work. Out of season what does not last cannot be told from what is not there.
func (b *Book) shows(c *Cause, s *Sign, now bool) float64 {
	p, listed := c.Signs[s.ID]
	switch {
	case !listed:
		return s.Rare
	case now || s.Lasts:
		return p
	}
	return s.Rare
}

// state is the weights of all causes in logs, the last of what is not in the book.
func (b *Book) state(k Case) []float64 {
	out := make([]float64, len(b.Causes)+1)
	known := slices.Sorted(maps.Keys(k.Known)) // a sum over a map differs in its last bits from run to run
	for i := range b.Causes {
		c := &b.Causes[i]
		w := c.Prior * c.OnKind(k.Species)
		now := c.inSeason(k)
		w *= max(1, k.Near[c.ID])
		if !now {
			w *= outOfSeason
			if slices.ContainsFunc(k.Seen, func(id string) bool { return b.sign[id].Lasts && c.Signs[id] >= 0.5 }) {
				w *= lastingSeen / outOfSeason
			}
		}
		for _, id := range slices.Sorted(maps.Keys(c.Brings)) {
			f := c.Brings[id]
			if _, told := c.Signs[id]; !told && slices.Contains(k.Seen, id) {
				w *= f
			}
		}
		l := math.Log(w)
		for _, id := range known {
			if !k.told(id) {
				l += math.Log(c.known(id, k.Known[id]))
			}
		}
		for _, id := range k.Seen {
			l += math.Log(b.shows(c, b.sign[id], now))
		}
		if b.explainsNothing(c, k, now) {
			l += math.Log(besides)
		}
		for _, id := range k.Absent {
			if s := b.sign[id]; s.canShow(k) {
				l += math.Log(1 - sureAbsent*b.shows(c, s, now))
			}
		}
		out[i] = l
	}
	l := math.Log(unknownPrior)
	for _, id := range k.Seen {
		l += math.Log(max(unknownShows, b.sign[id].Rare))
	}
	for _, id := range k.Absent {
		if s := b.sign[id]; s.canShow(k) {
			l += math.Log(1 - sureAbsent*max(unknownShows, s.Rare))
		}
	}
	out[len(b.Causes)] = l
	return out
}

// explainsNothing reports a cause that shows none of what was seen on the plant: it may be there, but it is not what
// somebody asks about.
func (b *Book) explainsNothing(c *Cause, k Case, now bool) bool {
	any := false
	for _, id := range k.Seen {
		if s := b.sign[id]; !s.FromRecord() {
			if c.Signs[id] >= explains && (now || s.Lasts) {
				return false
			}
			any = true
		}
	}
	return any
}

// told reports a sign that somebody has looked at.
func (k Case) told(id string) bool {
	return slices.Contains(k.Seen, id) || slices.Contains(k.Absent, id)
}

// known is the factor on a cause's odds by what the record tells of weather, work and place. It is milder than a look:
// frost is known of most winters, and means little for most of what is seen after it.
func (c *Cause) known(id string, is bool) float64 {
	p := c.Signs[id]
	switch {
	case is && c.Brings[id] > 0 && strings.HasPrefix(id, "was_"):
		return math.Sqrt(c.Brings[id]) // weather that was, and not to this plant alone
	case is && c.Brings[id] > 0:
		return c.Brings[id]
	case is:
		return 1 + 2*p
	case p >= hangsOn || c.Brings[id] >= 5:
		return toldNot
	}
	return 1
}

// chances makes chances of weights in logs; they come to one.
func chances(logs []float64) []float64 {
	all := floats.LogSumExp(logs)
	out := make([]float64, len(logs))
	for i, l := range logs {
		out[i] = math.Exp(l - all)
	}
	return out
}

// next is the sign nobody has looked at whose answer parts the causes best, by the fall of entropy a minute.
func (b *Book) next(k Case, p []float64) (*Sign, float64) {
	var best *Sign
	most := 0.0
	before := stat.Entropy(p)
	yes, no := make([]float64, len(p)), make([]float64, len(p))
	now := make([]bool, len(b.Causes))
	for j := range b.Causes {
		now[j] = b.Causes[j].inSeason(k)
	}
	for i := range b.Signs {
		s := &b.Signs[i]
		if _, known := k.Known[s.ID]; known || k.told(s.ID) || !s.canShow(k) || b.never(k, s) || s.Trunk && !hasTrunk(k.Species) {
			continue
		}
		for j := range p {
			q := max(unknownShows, s.Rare)
			if j < len(b.Causes) {
				c := &b.Causes[j]
				q = b.shows(c, s, now[j])
			}
			yes[j], no[j] = p[j]*q, p[j]*(1-sureAbsent*q)
		}
		py, pn := floats.Sum(yes), floats.Sum(no)
		floats.Scale(1/py, yes)
		floats.Scale(1/pn, no)
		total := py + pn
		gain := (before - (py*stat.Entropy(yes)+pn*stat.Entropy(no))/total) / math.Sqrt(s.Minutes)
		if gain > most {
			best, most = s, gain
		}
	}
	return best, most
}

// hasTrunk reports a kind with a trunk, or one that nobody knows.
func hasTrunk(e *catalogue.Entry) bool {
	if e == nil {
		return true
	}
	switch e.Form {
	case catalogue.Tree, catalogue.Conifer, catalogue.Palm:
		return true
	}
	return false
}

// never reports a sign that cannot be seen, by what was seen already.
func (b *Book) never(k Case, s *Sign) bool {
	return slices.ContainsFunc(k.Seen, func(id string) bool {
		o := b.sign[id]
		return slices.Contains(o.NeverWith, s.ID) || slices.Contains(o.NeverWith, s.Part) || slices.Contains(s.NeverWith, id)
	})
}

// Diagnose names what may be the cause of what was seen. Its error is a list of refused fields.
func (b *Book) Diagnose(k Case) (Diagnosis, error) {
	if err := b.Validate(k); err != nil {
		return Diagnosis{}, err
	}
	p := chances(b.state(k))
	order := make([]int, len(b.Causes))
	for i := range order {
		order[i] = i
	}
	slices.SortStableFunc(order, func(x, y int) int { return cmp.Compare(p[y], p[x]) })
	d := Diagnosis{Causes: []Named{}, Also: []Named{}, Unknown: quantity.Round(p[len(b.Causes)], 0.001), Severity: severity(k.Share), Cautions: []string{}}
	for _, i := range order[:shownCauses] {
		d.Causes = append(d.Causes, b.named(i, p[i], k))
	}
	first, second := p[order[0]], max(p[order[1]], p[len(b.Causes)])
	top := &b.Causes[order[0]]
	d.Settled = len(k.Seen) > 0 && (first >= settledAt && first >= twice*second || b.sameAct(order, p))
	d.Also = b.also(k, order[0], p)
	if s, gain := b.next(k, p); s != nil && gain > 0.005 && !(d.Settled && first > 0.95) {
		d.Next = &NextSign{Sign: s.on(k.Species), Why: b.parts(s, order, p)}
	}
	b.word(&d, k, top, first)
	return d, nil
}

// sameAct reports that all that is likely asks for the same thing, so that it need not be known which it is: to leave
// it, to watch it, or to call somebody who may touch it. Where hands, water or blades come in, it matters which.
func (b *Book) sameAct(order []int, p []float64) bool {
	act, n := b.Causes[order[0]].Act, 0.0
	if act != "none" && act != "watch" && act != "strong" {
		return false
	}
	for _, i := range order {
		if p[i] < likely {
			break
		}
		if b.Causes[i].Act != act {
			return false
		}
		n += p[i]
	}
	return n >= settledAt
}

func (b *Book) named(i int, p float64, k Case) Named {
	c := &b.Causes[i]
	act, do := c.Rung(k.Share)
	n := Named{ID: c.ID, Name: c.Name, Group: c.Group, Chance: quantity.Round(p, 0.001), Harm: c.Harm, To: c.To, Travels: c.Travels(), Act: act, Do: do,
		Prone: k.Species != nil && c.Prone(k.Species), Mistaken: append([]string{}, c.Mistaken...), Report: c.Report, Evidence: []Evidence{}}
	now := c.inSeason(k)
	add := func(id string, seen bool) {
		s := b.sign[id]
		q, r := b.shows(c, s, now), max(unknownShows, s.Rare)
		w := math.Log(q / r)
		if !seen {
			w = math.Log((1 - sureAbsent*q) / (1 - sureAbsent*r))
		}
		n.Evidence = append(n.Evidence, Evidence{Sign: id, Name: s.Name, Seen: seen, Weight: quantity.Round(w, 0.001)})
	}
	for _, id := range k.Seen {
		add(id, true)
	}
	for _, id := range k.Absent {
		if b.sign[id].canShow(k) {
			add(id, false)
		}
	}
	n.Evidence = append(n.Evidence, b.recorded(c, k)...)
	slices.SortStableFunc(n.Evidence, func(x, y Evidence) int { return cmp.Compare(math.Abs(y.Weight), math.Abs(x.Weight)) })
	return n
}

// recorded is what the record speaks for and against a cause.
func (b *Book) recorded(c *Cause, k Case) (out []Evidence) {
	for _, id := range slices.Sorted(maps.Keys(k.Known)) {
		if w := math.Log(c.known(id, k.Known[id])); w != 0 && !k.told(id) {
			out = append(out, Evidence{id, b.sign[id].Name, k.Known[id], quantity.Round(w, 0.001), true})
		}
	}
	if f := k.Near[c.ID]; f > 1 {
		out = append(out, Evidence{"", "Found on plants nearby", true, quantity.Round(math.Log(f), 0.001), true})
	}
	return out
}

// also are causes beside the first that explain a sign which it leaves open, and what follows from it.
func (b *Book) also(k Case, first int, p []float64) []Named {
	out := []Named{}
	top := &b.Causes[first]
	for i := range b.Causes {
		c := &b.Causes[i]
		if i == first || c.OnKind(k.Species) < 0.1 || !c.inSeason(k) {
			continue
		}
		follows := slices.Contains(c.Follows, top.ID)
		for _, id := range k.Seen {
			opens := b.sign[id].Rare <= 0.05 && c.Signs[id] >= 0.85 && (top.Signs[id] <= 0.1 || follows)
			if opens && !slices.ContainsFunc(c.absent(k), func(p float64) bool { return p >= 0.8 }) {
				out = append(out, b.named(i, p[i], k))
				break
			}
		}
	}
	return out[:min(len(out), 3)]
}

// absent are the chances of its own signs that were looked for and not found.
func (c *Cause) absent(k Case) (out []float64) {
	for _, id := range k.Absent {
		out = append(out, c.Signs[id])
	}
	return out
}
