package cause

import (
	"cmp"
	"maps"
	"math"
	"slices"

	"mezzadro/core/quantity"
)

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
	Chance   float64    `json:"chance" doc:"That it is there, 0 to 1; several may be there at once"`
	Harm     string     `json:"harm" enum:"harmless,ugly,weakening,deadly"`
	To       string     `json:"to" enum:"it,its kind,all" doc:"What else it takes"`
	Travels  string     `json:"travels" doc:"How it gets about, in words; empty where it does not"`
	Prone    bool       `json:"prone" doc:"The kind is known to have it again and again: expect it"`
	Mistaken []string   `json:"mistaken" doc:"Causes it is taken for, by id"`
	Act      string     `json:"act" enum:"none,watch,habitat,hands,water,cut,soft,strong,replace" doc:"The least that is enough"`
	Do       string     `json:"do"`
	Picture  [][]string `json:"picture" doc:"Drawings of the signs that tell it, the best first, each a part and the mark on it"`
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
	Settled  bool      `json:"settled" doc:"What is named is likely enough and nothing dangerous is left, or all that is left asks for the same"`
	Causes   []Named   `json:"causes" doc:"What matters most first: by chance, and what is harmless behind what is not; up to eight"`
	Also     []Named   `json:"also" doc:"What is likely there beside the first"`
	Unknown  float64   `json:"unknown" doc:"Chance of something that is not in the book"`
	Next     *NextSign `json:"next,omitempty"`
	Severity string    `json:"severity" enum:"not told,light,plain,heavy"`
	Act      string    `json:"act" enum:"none,watch,habitat,hands,water,cut,soft,strong,replace" doc:"What to do now"`
	Cautions []string  `json:"cautions"`
}

const (
	settledAt     = 0.8
	twice         = 2.0
	likely        = 0.1  // from where a cause still counts for what to do
	dangerFrom    = 0.05 // from where what can hurt people, or must be reported, is told
	dangerLeft    = 0.02 // up to where nothing dangerous is left
	shownCauses   = 8
	inTheSet      = 0.5  // from where a cause beside the first is taken to be there
	lookAlikeHost = 0.15 // how likely a host of what is taken for the first has it
	alsoCauses    = 3
)

// What a cause weighs beside others that are as likely, where causes are put in order.
const (
	weighsHelper   = 1.2 // who is at work says what to do
	weighsDanger   = 1.6 // to people, or to be reported, once it is likely enough
	weighsDeadly   = 1.1
	weighsUgly     = 0.9
	weighsHarmless = 0.3  // beside something that is not
	weighsNothing  = 0.02 // while something that can hurt people is not ruled out
	weighsOpen     = 0.6  // where something else is seen that it does not explain
	weighsAlone    = 0.95 // where it would be the only one
	weighsWeather  = 1.3  // what weather did that is known to have been
	leadsFrom      = 0.2  // chance from which danger comes first
	beside         = 0.2  // chance of what is there with the first
	lookAlike      = 0.06 // what is taken for the first comes next, unlikely as it is
)

// weightOf is how much a cause matters beside others that are as likely.
func (b *Book) weightOf(i int, p []float64, k Case, best *set) float64 {
	c := &b.Causes[i]
	switch {
	case c.Group == "helper" && b.preyed(p):
		return weighsHelper
	case (c.Danger != "" || c.Report) && p[i] >= leadsFrom:
		return weighsDanger
	case c.Group == "weather" && slices.ContainsFunc(k.Seen, func(id string) bool { return b.sign[id].condition() && c.Signs[id] >= hangsOn }):
		return weighsWeather
	case c.Harm == "deadly":
		return weighsDeadly
	case c.Harm == "harmless" && b.threatened(k, p):
		return weighsNothing
	case c.Harm == "harmless" && b.besideWorse(i, p, best):
		return weighsHarmless
	case c.Harm == "harmless" && b.leavesOpen(c, k):
		return weighsOpen
	case c.Harm == "harmless":
		return weighsAlone
	case c.Harm == "ugly":
		return weighsUgly
	}
	return 1
}

// threatened reports that something which can hurt people is likely enough to be told.
func (b *Book) threatened(k Case, p []float64) bool {
	for i := range b.Causes {
		if p[i] >= dangerFrom && b.Causes[i].threatens(k) {
			return true
		}
	}
	return false
}

// leavesOpen reports that something was seen on the plant which a cause does not explain.
func (b *Book) leavesOpen(c *Cause, k Case) bool {
	return slices.ContainsFunc(k.Seen, func(id string) bool {
		s := b.sign[id]
		return !s.condition() && !s.Pattern && c.Signs[id] < explains
	})
}

// preyed reports that something is there which helpers deal with.
func (b *Book) preyed(p []float64) bool {
	for i := range b.Causes {
		if b.Causes[i].Helpers && p[i] >= inTheSet {
			return true
		}
	}
	return false
}

// besideWorse reports that the likeliest set holds something that is not harmless beside a harmless cause.
func (b *Book) besideWorse(i int, p []float64, best *set) bool {
	for _, o := range best.of[:best.n] {
		if o != i && o < len(b.Causes) && b.Causes[o].Harm != "harmless" && p[o] >= likely {
			return true
		}
	}
	return false
}

// takenFor is how readily a cause is taken for another, 0 to 1: what the book names first most.
func (c *Cause) takenFor(o *Cause) float64 {
	if at := slices.Index(c.Mistaken, o.ID); at >= 0 {
		return max(0.4, 1-0.15*float64(at))
	}
	if slices.Contains(o.Mistaken, c.ID) {
		return 0.5
	}
	return 0
}

// order are the causes as they are named: by chance, the worse before the harmless, and what the first is taken for
// before what is as unlikely.
func (b *Book) order(k Case, p []float64, best *set) []int {
	out, score := make([]int, len(b.Causes)), make([]float64, len(b.Causes))
	for i := range out {
		out[i], score[i] = i, p[i]*b.weightOf(i, p, k, best)
	}
	first := slices.Index(score, slices.Max(score))
	for i := range b.Causes {
		c, top := &b.Causes[i], &b.Causes[first]
		if on := c.OnKind(k.Species); p[first] >= inTheSet && i != first && on >= lookAlikeHost && c.inSeason(k) {
			score[i] += lookAlike * min(1, on) * top.takenFor(c) // beside a first that stands; else they compete by what is seen
		}
	}
	for _, i := range best.of[:best.n] {
		if best.has(first) && i != first && i < len(b.Causes) && p[i] >= beside {
			score[i] = score[first] * (1 - 1/(1+1000*score[i])) // what is there with the first, before what competes with it
		}
	}
	slices.SortStableFunc(out, func(x, y int) int { return cmp.Compare(score[y], score[x]) })
	return out
}

// Diagnose names what may be the cause of what was seen. Its error is a list of refused fields.
func (b *Book) Diagnose(k Case) (Diagnosis, error) {
	if err := b.Validate(k); err != nil {
		return Diagnosis{}, err
	}
	sets := b.sets(k)
	p := b.present(sets)
	order := b.order(k, p, &sets[0])
	d := Diagnosis{
		Causes:   []Named{},
		Also:     []Named{},
		Unknown:  quantity.Round(p[len(b.Causes)], 0.001),
		Severity: severity(k.Share),
		Cautions: []string{},
	}
	for _, i := range order[:shownCauses] {
		d.Causes = append(d.Causes, b.named(i, p[i], k))
	}
	first := p[order[0]]
	d.Settled = len(k.Seen) > 0 && b.settled(order, p, &sets[0])
	d.Also = b.also(k, order, p, &sets[0])
	if s, gain := b.next(k, sets, p); s != nil && gain > leastGain && !(d.Settled && first > 0.95) {
		d.Next = &NextSign{Sign: s.on(k.Species), Why: b.parts(s, order, p)}
	}
	b.word(&d, k, order, p)
	return d, nil
}

// settled reports that what is named can be acted on: it is likely, nothing that competes with it comes near, and
// nothing dangerous is left beside what is taken to be there; or all that is likely asks for the same.
func (b *Book) settled(order []int, p []float64, best *set) bool {
	first := order[0]
	if p[first] >= settledAt {
		rival := p[len(b.Causes)]
		for i := range b.Causes {
			switch {
			case i == first || best.has(i) && p[i] >= inTheSet:
			case b.Causes[i].Danger != "" && p[i] > dangerLeft && b.Causes[first].Danger == "":
				return false
			default:
				rival = max(rival, p[i])
			}
		}
		return p[first] >= twice*rival
	}
	return b.sameAct(order, p)
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
	for i := range b.Causes {
		if b.Causes[i].Danger != "" && p[i] > dangerLeft && act != "strong" {
			return false
		}
	}
	return n >= settledAt && n <= 1.2
}

func (b *Book) named(i int, p float64, k Case) Named {
	c := &b.Causes[i]
	act, do := c.Rung(k.Share)
	n := Named{
		ID:       c.ID,
		Name:     c.Name,
		Group:    c.Group,
		Chance:   quantity.Round(p, 0.001),
		Harm:     c.Harm,
		Picture:  c.Picture,
		To:       c.To,
		Travels:  c.Travels(),
		Act:      act,
		Do:       do,
		Prone:    k.Species != nil && c.Prone(k.Species),
		Mistaken: append([]string{}, c.Mistaken...),
		Report:   c.Report,
		Evidence: []Evidence{},
	}
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
	slices.SortStableFunc(
		n.Evidence,
		func(x, y Evidence) int { return cmp.Compare(math.Abs(y.Weight), math.Abs(x.Weight)) },
	)
	return n
}

// recorded is what the record speaks for and against a cause.
func (b *Book) recorded(c *Cause, k Case) (out []Evidence) {
	for _, id := range slices.Sorted(maps.Keys(k.Known)) {
		if w := math.Log(c.known(id, k.Known[id])); w != 0 && !k.told(id) {
			out = append(out, Evidence{id, b.sign[id].Name, k.Known[id], quantity.Round(w, 0.001), true})
		}
	}
	switch f := k.oftener(c.ID); {
	case k.Near[c.ID] > 1:
		out = append(out, Evidence{"", "Found on plants nearby", true, quantity.Round(math.Log(f), 0.001), true})
	case f > 1:
		out = append(out, Evidence{"", "Found by you more often than usual", true, quantity.Round(math.Log(f), 0.001), true})
	case f < 1:
		out = append(out, Evidence{"", "Seldom found by you", true, quantity.Round(math.Log(f), 0.001), true})
	}
	return out
}

// also are causes beside the first that are taken to be there: members of the likeliest set, and what follows from the
// first.
func (b *Book) also(k Case, order []int, p []float64, best *set) []Named {
	out := []Named{}
	top := &b.Causes[order[0]]
	for _, i := range order[1:] {
		c := &b.Causes[i]
		follows := slices.Contains(c.Follows, top.ID) &&
			slices.ContainsFunc(k.Seen, func(id string) bool { return c.Signs[id] >= 0.85 && b.sign[id].Rare <= 0.05 })
		if p[i] >= inTheSet || best.has(i) && p[i] >= likely || follows && c.inSeason(k) {
			out = append(out, b.named(i, p[i], k))
		}
	}
	return out[:min(len(out), alsoCauses)]
}
