package cause

import (
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
		return "It goes with " + strings.Join(with, " and ") + "."
	}
	return "It goes with " + strings.Join(with, " and ") + ", not with " + strings.Join(without, " or ") + "."
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

// Rung is what is enough at a share that shows it: little of what is only ugly is left alone, and of what weakens watched.
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
func (b *Book) word(d *Diagnosis, k Case, top *Cause, first float64) {
	act, do := top.Rung(k.Share)
	d.Act = act
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
	case first < settledAt && len(d.Causes) > 1 && d.Causes[1].Chance >= likely:
		d.Text = top.Name + " or " + small(d.Causes[1].Name) + ". Either way: " + do
	default:
		d.Text = top.Name + ". " + do
	}
	if top.Harm == "harmless" && len(k.Seen) > 0 && first >= 0.5 {
		d.Text = top.Name + ": harmless. " + do
		d.Act = "none"
	}
	if helped && top.Helpers {
		d.Act = "watch"
		d.Text = top.Name + ", with helpers at work: wait a fortnight, and look again."
	}
	if act == "soft" || act == "strong" {
		d.Cautions = append(d.Cautions, "Any product: by its label alone, never on open flowers that bees visit; some only for a licensed person.")
	}
	if top.Report && first >= likely {
		d.Cautions = append(d.Cautions, "In many places this must be reported: ask the plant health office before cutting or moving anything.")
	}
	if k.Species != nil && k.Species.Edible != "" && top.Harm != "harmless" {
		d.Cautions = append(d.Cautions, "It is eaten: nothing on it that must not be, and keep the waiting time of the label.")
	}
	if act == "strong" || top.ID == "butt-rot" || top.ID == "root-damage" {
		d.Cautions = append(d.Cautions, "It may fail: keep people out from under it, and have a licensed arborist look.")
	}
}

// small is a name as it stands within a sentence.
func small(name string) string { return strings.ToLower(name[:1]) + name[1:] }

// on is a sign as it is asked of a kind: where there are stems and no trunk, it says so.
func (s *Sign) on(e *catalogue.Entry) Sign {
	out := *s
	if hasTrunk(e) {
		return out
	}
	stems := strings.NewReplacer("up the trunk", "up a stem", "of the trunk", "of the stems", "the trunk", "the stems", "trunks", "stems", "trunk", "stems")
	out.Ask, out.How, out.Part = stems.Replace(out.Ask), stems.Replace(out.How), stems.Replace(out.Part)
	return out
}
