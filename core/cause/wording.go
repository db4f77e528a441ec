package cause

import (
	"maps"
	"slices"
	"strings"

	"mezzadro/core/catalogue"
)

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
		return "It goes with " + joined(with) + "."
	}
	return "It goes with " + joined(with) + ", not with " + strings.Join(without, " or ") + "."
}

// Shares of the leaves or shoots from which on it is no longer light, and from which on it is heavy.
const (
	plainFrom = 0.1
	heavyFrom = 0.4
)

func severity(share float64) string {
	switch {
	case share == 0:
		return "not told"
	case share < plainFrom:
		return "light"
	case share < heavyFrom:
		return "plain"
	}
	return "heavy"
}

// Rung is what is enough at a share that shows it: little of what is only ugly is left alone, and of what weakens
// watched.
func (c *Cause) Rung(share float64) (act, do string) {
	act, do = c.Act, c.Do
	switch severity(share) {
	case "light":
		if c.Way.Light != "" {
			do = c.Way.Light
		}
		if c.Report || c.Harm == "deadly" {
			return act, do
		}
		switch act {
		case "soft", "strong", "cut", "replace":
			act = "hands"
			if c.Harm == "ugly" {
				act = "watch"
			}
		case "hands", "water":
			if c.Harm == "ugly" && !strings.HasPrefix(do, "Pick") && !strings.HasPrefix(do, "Scrape") {
				act = "watch"
			}
		}
	case "heavy":
		if c.Way.Heavy != "" {
			do = c.Way.Heavy
		}
	}
	return act, do
}

// word says what it comes to, and what goes with it.
func (b *Book) word(d *Diagnosis, k Case, order []int, p []float64) {
	top, first := &b.Causes[order[0]], p[order[0]]
	act, do := top.Rung(k.Share)
	d.Act = act
	helped := slices.ContainsFunc(
		k.Seen,
		func(id string) bool { return id == "stalked_eggs" || id == "helpers_larvae" || id == "mummies" },
	)
	preyed := helped && slices.ContainsFunc(order[:3], func(i int) bool { return b.Causes[i].Helpers && p[i] >= inTheSet })
	switch {
	case len(k.Seen) == 0:
		d.Act = "watch"
		d.Text = "Cannot tell yet: look at the undersides of leaves, the bark at the foot, and what stands beside it."
	case preyed:
		d.Act = "watch"
		d.Text = b.helpedAgainst(order, p) + ", with helpers at work: wait a fortnight, and look again."
	case !d.Settled && first < 0.25 && p[len(b.Causes)] >= first:
		d.Act = "watch"
		d.Text = "Nothing in the book fits well. Note when it began and how it spreads, take pictures of both sides of a leaf and of the foot, and ask a laboratory or the extension service."
	case !d.Settled && first < 0.5:
		d.Act = "watch"
		d.Text = "Cannot tell yet. Likeliest so far: " + top.Name + "."
	case !d.Settled:
		d.Text = "Probably " + small(top.Name) + "; one more look would tell."
	case first < settledAt && len(d.Causes) > 1 && d.Causes[1].Chance >= likely:
		d.Text = top.Name + " or " + small(d.Causes[1].Name) + ". Either way: " + do
	default:
		d.Text = top.Name + ". " + do
	}
	if top.Harm == "harmless" && len(k.Seen) > 0 && first >= 0.5 && !preyed {
		d.Text = top.Name + ": harmless. " + do
		d.Act = "none"
	}
	if len(k.Seen) > 0 {
		b.beside(d, k, order, p)
		b.careful(d, k, order, p)
	}
}

// helpedAgainst names what helpers are at work on.
func (b *Book) helpedAgainst(order []int, p []float64) string {
	at := order[0]
	for _, i := range order[:3] {
		if b.Causes[i].Helpers && p[i] >= inTheSet {
			at = i
		}
	}
	return b.Causes[at].Name
}

// beside tells what is there beside the first, and what has to be ruled out.
func (b *Book) beside(d *Diagnosis, k Case, order []int, p []float64) {
	var open []string
	for _, i := range order[1:] {
		c := &b.Causes[i]
		is := slices.ContainsFunc(d.Also, func(n Named) bool { return n.ID == c.ID })
		switch {
		case is && c.Harm == "harmless" && p[i] >= inTheSet:
			d.Text += " " + c.Name + " beside it: harmless by itself."
		case is && p[i] >= settledAt:
			_, do := c.Rung(k.Share)
			d.Text += " With it " + small(c.Name) + ". " + do
		case c.threatens(k) && p[i] >= dangerFrom && p[i] < settledAt:
			open = append(open, small(c.Name))
		}
	}
	if n := len(open); n > 0 {
		d.Text += " To be ruled out: " + joined(open[:min(n, openTold)]) + "."
	}
	for _, danger := range slices.Sorted(maps.Keys(keepOff)) {
		if slices.ContainsFunc(order, func(i int) bool {
			return b.Causes[i].Danger == danger && b.Causes[i].threatens(k) && p[i] >= dangerFrom
		}) {
			d.Text += " " + keepOff[danger]
		}
	}
}

// keepOff is what is told at once of a danger, where only a line is read.
var keepOff = map[string]string{
	"falls": "Nobody stays under it until a licensed arborist has looked.",
	"hairs": "Touch nothing; keep people and dogs away.",
	"dust":  "Keep people away, upwind.",
}

// openTold is how many dangers are named in the text; the causes list them all.
const openTold = 2

// joined names things in a sentence.
func joined(names []string) string {
	if len(names) < 2 {
		return strings.Join(names, "")
	}
	return strings.Join(names[:len(names)-1], ", ") + " and " + names[len(names)-1]
}

// threatens reports a cause that can hurt people on such a plant.
func (c *Cause) threatens(k Case) bool {
	return c.Danger != "" && (c.Danger != "falls" || hasTrunk(k.Species))
}

// Cautions by what can hurt people.
var dangers = map[string]string{
	"falls": "It may fail: keep people out from under it, and have a licensed arborist look.",
	"hairs": "Its hairs burn skin, eyes and lungs, old nests too: keep people and dogs away; only a licensed person with protection touches it.",
	"dust":  "Its dust harms lungs: keep people away, and nobody saws it without a mask and a licensed person.",
}

// careful adds the cautions of all that is likely enough, whatever leads.
func (b *Book) careful(d *Diagnosis, k Case, order []int, p []float64) {
	say := func(text string) {
		if !slices.Contains(d.Cautions, text) {
			d.Cautions = append(d.Cautions, text)
		}
	}
	if hasTrunk(k.Species) && k.Species != nil && slices.Contains(k.Seen, "rocks") {
		say(dangers["falls"])
	}
	for _, i := range order {
		if c := &b.Causes[i]; c.threatens(k) && p[i] >= dangerFrom {
			say(dangers[c.Danger])
		}
	}
	for _, i := range order {
		if b.Causes[i].Report && p[i] >= dangerFrom {
			say("In many places this must be reported: ask the plant health office before cutting or moving anything.")
		}
	}
	top := &b.Causes[order[0]]
	if act, _ := top.Rung(k.Share); act == "soft" || act == "strong" {
		say("Any product: by its label alone, never on open flowers that bees visit; some only for a licensed person.")
	}
	if k.Species != nil && k.Species.Edible != "" && top.Harm != "harmless" {
		say("It is eaten: nothing on it that must not be, and keep the waiting time of the label.")
	}
}

// small is a name as it stands within a sentence.
func small(name string) string { return strings.ToLower(name[:1]) + name[1:] }

// Said is the cause's name as it stands within a sentence.
func (c *Cause) Said() string { return small(c.Name) }

// on is a sign as it is asked of a kind: where there are stems and no trunk, it says so.
func (s *Sign) on(e *catalogue.Entry) Sign {
	out := *s
	if hasTrunk(e) {
		return out
	}
	stems := strings.NewReplacer(
		"up the trunk", "up a stem",
		"of the trunk", "of the stems",
		"the trunk", "the stems",
		"trunks", "stems",
		"trunk", "stems",
	)
	out.Ask, out.How, out.Part = stems.Replace(out.Ask), stems.Replace(out.How), stems.Replace(out.Part)
	return out
}
