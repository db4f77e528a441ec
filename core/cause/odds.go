package cause

import (
	"cmp"
	"fmt"
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
}

// Evidence is what a sign speaks, in natural log-odds against what is seen where nothing known is the cause.
type Evidence struct {
	Sign   string  `json:"sign"`
	Name   string  `json:"name"`
	Seen   bool    `json:"seen"`
	Weight float64 `json:"weight" doc:"Above 0 speaks for the cause, below 0 against it"`
}

// Named is a cause with its chance and what speaks for and against it.
type Named struct {
	ID       string     `json:"id"`
	Name     string     `json:"name"`
	Group    string     `json:"group" doc:"Weather, place, work, shortage, insect, mite, fungus, bacterium, virus, plant, animal or helper"`
	Chance   float64    `json:"chance" doc:"0 to 1; all causes with what is not in the book come to 1"`
	Harm     string     `json:"harm" enum:"harmless,ugly,weakening,deadly"`
	To       string     `json:"to" enum:"it,its kind,all" doc:"What else it takes"`
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
)

// Validate names signs that are none, and those said to be both there and not there.
func (b *Book) Validate(c Case) error {
	var bad invalid.Fields
	for name, list := range map[string][]string{"seen": c.Seen, "not_seen": c.Absent} {
		for i, id := range list {
			at := fmt.Sprintf("%s[%d]", name, i)
			if b.sign[id] == nil {
				bad.Add(at, id, "%q is no sign; near it: %s", id, strings.Join(b.near(id), ", "))
			} else if name == "seen" && slices.Contains(c.Absent, id) {
				bad.Add(at, id, "%s is said to be there and not to be there", b.sign[id].Name)
			}
		}
	}
	bad.Within("share", c.Share, 0, 1, "")
	bad.Within("month", float64(c.Month), 1, 12, "")
	return bad.Err()
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

// inSeason reports whether a cause can be at work in a month of the northern year.
func (c *Cause) inSeason(month int) bool {
	if len(c.When) == 0 {
		return true
	}
	if c.When[0] <= c.When[1] {
		return month >= c.When[0] && month <= c.When[1]
	}
	return month >= c.When[0] || month <= c.When[1]
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
	for i := range b.Causes {
		c := &b.Causes[i]
		w := c.Prior * c.host(k.Species)
		now := c.inSeason(k.Month)
		if !now {
			w *= outOfSeason
			if slices.ContainsFunc(k.Seen, func(id string) bool { return b.sign[id].Lasts && c.Signs[id] >= 0.5 }) {
				w *= lastingSeen / outOfSeason
			}
		}
		for id, f := range c.Brings {
			if _, told := c.Signs[id]; !told && slices.Contains(k.Seen, id) {
				w *= f
			}
		}
		l := math.Log(w)
		for _, id := range k.Seen {
			l += math.Log(b.shows(c, b.sign[id], now))
		}
		for _, id := range k.Absent {
			l += math.Log(1 - sureAbsent*b.shows(c, b.sign[id], now))
		}
		out[i] = l
	}
	l := math.Log(unknownPrior)
	for _, id := range k.Seen {
		l += math.Log(max(unknownShows, b.sign[id].Rare))
	}
	for _, id := range k.Absent {
		l += math.Log(1 - sureAbsent*max(unknownShows, b.sign[id].Rare))
	}
	out[len(b.Causes)] = l
	return out
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
	for i := range b.Signs {
		s := &b.Signs[i]
		if slices.Contains(k.Seen, s.ID) || slices.Contains(k.Absent, s.ID) {
			continue
		}
		for j := range p {
			q := max(unknownShows, s.Rare)
			if j < len(b.Causes) {
				c := &b.Causes[j]
				q = b.shows(c, s, c.inSeason(k.Month))
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
		d.Next = &NextSign{Sign: *s, Why: b.parts(s, order, p)}
	}
	b.word(&d, k, top, first)
	return d, nil
}

// sameAct reports that all that is likely asks for the same thing, so that it need not be known which it is.
func (b *Book) sameAct(order []int, p []float64) bool {
	act, n := b.Causes[order[0]].Act, 0.0
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
	n := Named{ID: c.ID, Name: c.Name, Group: c.Group, Chance: quantity.Round(p, 0.001), Harm: c.Harm, To: c.To, Act: c.Act, Do: c.Do, Report: c.Report, Evidence: []Evidence{}}
	now := c.inSeason(k.Month)
	add := func(id string, seen bool) {
		s := b.sign[id]
		q, r := b.shows(c, s, now), max(unknownShows, s.Rare)
		w := math.Log(q / r)
		if !seen {
			w = math.Log((1 - sureAbsent*q) / (1 - sureAbsent*r))
		}
		n.Evidence = append(n.Evidence, Evidence{id, s.Name, seen, quantity.Round(w, 0.001)})
	}
	for _, id := range k.Seen {
		add(id, true)
	}
	for _, id := range k.Absent {
		add(id, false)
	}
	slices.SortStableFunc(n.Evidence, func(x, y Evidence) int { return cmp.Compare(math.Abs(y.Weight), math.Abs(x.Weight)) })
	return n
}

// also are causes beside the first that explain a sign which it leaves open, and what follows from it.
func (b *Book) also(k Case, first int, p []float64) []Named {
	out := []Named{}
	top := &b.Causes[first]
	for i := range b.Causes {
		c := &b.Causes[i]
		if i == first || c.host(k.Species) < 0.1 || !c.inSeason(k.Month) {
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

// parts says which of the likeliest causes a sign parts.
func (b *Book) parts(s *Sign, order []int, p []float64) string {
	var with, without []string
	for _, i := range order {
		if p[i] < 0.03 || len(with)+len(without) >= 4 {
			break
		}
		c := &b.Causes[i]
		if c.Signs[s.ID] >= 0.4 {
			with = append(with, small(c.Name))
		} else {
			without = append(without, small(c.Name))
		}
	}
	switch {
	case len(with) == 0:
		return "It tells little of what is likely, and most of what is left."
	case len(without) == 0:
		return "It goes with " + strings.Join(with, " and ") + "."
	}
	return "It goes with " + strings.Join(with, " and ") + ", not with " + strings.Join(without, " or ") + "."
}

func severity(share float64) string {
	switch {
	case share == 0:
		return "not told"
	case share < 0.1:
		return "light"
	case share < 0.4:
		return "plain"
	}
	return "heavy"
}

// word says what it comes to, and what goes with it.
func (b *Book) word(d *Diagnosis, k Case, top *Cause, first float64) {
	d.Act = top.Act
	helped := slices.ContainsFunc(k.Seen, func(id string) bool { return id == "stalked_eggs" || id == "helpers_larvae" || id == "mummies" })
	switch {
	case len(k.Seen) == 0:
		d.Act = "watch"
		d.Text = "Cannot tell yet: look at the undersides of leaves, the bark at the foot, and what stands beside it."
	case !d.Settled && first < 0.5:
		d.Act = "watch"
		d.Text = "Cannot tell yet. Likeliest so far: " + top.Name + "."
	case !d.Settled:
		d.Text = "Probably " + small(top.Name) + "; one more look would tell."
	default:
		d.Text = top.Name + ". " + top.Do
	}
	if top.Harm == "harmless" && len(k.Seen) > 0 && first >= 0.5 {
		d.Text = top.Name + ": harmless. " + top.Do
		d.Act = "none"
	}
	if helped && top.Helpers {
		d.Act = "watch"
		d.Text = top.Name + ", with helpers at work: wait a fortnight, and look again."
	}
	if top.Act == "soft" || top.Act == "strong" {
		d.Cautions = append(d.Cautions, "Any product: by its label alone, never on open flowers that bees visit; some only for a licensed person.")
	}
	if top.Report && first >= likely {
		d.Cautions = append(d.Cautions, "In many places this must be reported: ask the plant health office before cutting or moving anything.")
	}
	if k.Species != nil && k.Species.Edible != "" && top.Harm != "harmless" {
		d.Cautions = append(d.Cautions, "It is eaten: nothing on it that must not be, and keep the waiting time of the label.")
	}
	if top.Act == "strong" || top.ID == "butt-rot" || top.ID == "root-damage" {
		d.Cautions = append(d.Cautions, "It may fail: keep people out from under it, and have a licensed arborist look.")
	}
}

// small is a name as it stands within a sentence.
func small(name string) string { return strings.ToLower(name[:1]) + name[1:] }
