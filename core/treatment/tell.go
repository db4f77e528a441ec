package treatment

import (
	"fmt"
	"slices"
	"strings"

	"mezzadro/core/quantity"
)

// words say what a moment is.
func (w When) words() string {
	if w.Warmth > 0 {
		return quantity.Warmth(w.Warmth) + " degree-days have come together"
	}
	name := map[string]string{"leaf_out": "it leafs out", "leaf_drop": "its leaves fall", "bloom_start": "it begins to bloom", "bloom_end": "its bloom is over",
		"buds_set": "its buds set", "midwinter": "it is midwinter", "last_frost": "the last frost is near", "last_hard": "hard frost is over",
		"first_frost": "the first frost is near", "ripening": "growth ends"}[w.Event]
	switch {
	case w.Off < 0:
		return fmt.Sprintf("%s in %d days", name, -w.Off)
	case w.Off > 0:
		return fmt.Sprintf("%s: %d days after", name, w.Off)
	}
	return name
}

// limits are the days and hours a means may be used in.
func limits(a *Active) []string {
	var out []string
	out = append(out, fmt.Sprintf("%s to %s by day", quantity.Temperature(a.MinC), quantity.Temperature(a.MaxC)))
	if a.WindMS > 0 {
		out = append(out, "wind up to "+quantity.Speed(a.WindMS)+", on dry leaves, out of the sun")
	}
	if a.RainH > 0 {
		out = append(out, fmt.Sprintf("no rain for %.0f hours after", a.RainH))
	}
	if a.Bees {
		out = append(out, "never on open flowers; in the evening, when bees have gone")
	}
	return out
}

// tell puts it into words, with what goes with it.
func (s *search) tell(r Rung, out *Answer) {
	used := map[string]bool{}
	for _, st := range out.Steps {
		a := s.book.active[st.Use]
		if a == nil || used[a.ID] {
			continue
		}
		used[a.ID] = true
		s.cautions(a, out)
	}
	p := s.programme
	switch p.Waste {
	case "bag":
		out.Says = append(
			out.Says,
			"Bag what is taken off, tight, and leave the bag in the sun for a week; never on the compost.",
		)
	case "burn":
		out.Says = append(out.Says, "Burn what is cut out where that is allowed, else bag it; never on the compost.")
	}
	if p.Tools {
		out.Says = append(out.Says, "Sound plants first; clean the blade after each cut.")
	}
	if p.Report || s.cause.Report {
		out.Says = append(out.Says, "It has to be reported in many places: ask before anything is moved.")
	}
	if s.resists() && (s.ask.severity() > 0 || s.ask.Prevent) {
		out.Says = append(out.Says, "This kind resists it: it outgrows it by itself.")
	}
	if s.aloft(r) {
		out.Says = append(
			out.Says,
			fmt.Sprintf("What is above %s is out of reach from the ground: it is left, or is a licensed arborist's.",
				quantity.Length(reachM)),
		)
	}
	if text := s.meanwhile(r, out); text != "" {
		out.Says = append([]string{"Until then: " + text}, out.Says...)
	}
	out.Text = s.sentence(r, out)
}

// reachM is how high is reached from the ground with a pole.
const reachM = 4.0

// aloft reports work on leaves and shoots of a plant that is taller than is reached from the ground.
func (s *search) aloft(r Rung) bool {
	if s.ask.HeightM <= reachM || s.ask.Prevent {
		return false
	}
	return slices.Contains([]string{"hands", "water", "cutting", "soft", "strong"}, r.Rung) &&
		slices.ContainsFunc(r.Steps, func(st Step) bool { a := s.book.active[st.Use]; return a == nil || !a.Ground })
}

// waitsLong is how long one waits for a step before something else is done meanwhile, days.
const waitsLong = 10

// meanwhile is what can be done at once where the chosen step has to wait: the nearest rung below it that needs no
// product.
func (s *search) meanwhile(r Rung, out *Answer) string {
	if len(out.Steps) == 0 || out.Steps[0].Day <= s.ask.Date+waitsLong || s.ask.Prevent {
		return ""
	}
	text := ""
	for _, lower := range s.rungs() {
		if lower.Rung == r.Rung && lower.Steps[0].Do == r.Steps[0].Do {
			break
		}
		if st := lower.Steps[0]; st.Use == "" && st.From.Now && lower.Rung != "none" && lower.Rung != "replace" {
			text = st.Do
		}
	}
	return text
}

// cautions are those of a means.
func (s *search) cautions(a *Active, out *Answer) {
	add := func(texts ...string) { out.Cautions = append(out.Cautions, texts...) }
	if a.Class != "barrier" {
		out.Cautions = []string{
			"The label is law: where, how much, how often, what to wear. No rate stands here that you did not enter from it.",
		}
	}
	if a.WindMS > 0 {
		add(
			"Children, pets and people stay away until it is dry, or as long as the label says; mind drift onto water, food and neighbours.",
		)
	}
	if a.Bees {
		add("Bees: never on open flowers, its own or those below it.")
	}
	if a.Kills != "" {
		add(strings.ToUpper(a.Kills[:1]) + a.Kills[1:] + ".")
	}
	if a.Licence {
		add("In many places only holders of a licence may buy and use it.")
	}
	if s.ask.Species.Edible != "" && a.Class != "barrier" {
		add("It is eaten from: only what the label names for this crop, and its wait to harvest.")
	}
	for _, c := range s.ask.Cards {
		if c.Active == a.ID && c.Licence != "" {
			add(c.Name + ": " + c.Licence + ".")
		}
		if c.Active == a.ID && c.BufferM > 0 {
			add(fmt.Sprintf("%s: keep %s from ponds, streams and drains by its label.", c.Name, quantity.Length(c.BufferM)))
		}
		if c.Active == a.ID && c.HarvestDays > 0 && s.ask.Species.Edible != "" {
			add(fmt.Sprintf("%s: %d days to harvest.", c.Name, c.HarvestDays))
		}
	}
}

// sentence says it in one or two.
func (s *search) sentence(r Rung, out *Answer) string {
	switch out.Ends {
	case "done":
		return fmt.Sprintf("What helps was done; look on %s whether it did.", quantity.Day(out.Look))
	case "not this year":
		return fmt.Sprintf(
			"Not this year: the time for it has passed. Next from %s: %s",
			quantity.Day(out.Next),
			out.Steps[0].Do,
		)
	}
	var parts []string
	for i, st := range out.Steps {
		text := st.Do
		switch {
		case st.Day > s.ask.Date && i == 0:
			text = fmt.Sprintf("From %s: %s", quantity.Day(st.Day), st.Do)
		case st.Day > s.ask.Date:
			text = fmt.Sprintf("Then, from %s: %s", quantity.Day(st.Day), st.Do)
		}
		parts = append(parts, text+again(st))
	}
	return strings.Join(parts, " ")
}

// again says how often a step comes again.
func again(st Dated) string {
	left := st.Most - st.Done
	if left <= 1 || st.Every == 0 {
		return ""
	}
	text := fmt.Sprintf(" Every %d days, %d times at most", st.Every, left)
	if st.Every == 1 {
		text = fmt.Sprintf(" Every day, %d times at most", left)
	}
	if st.Stop != "" {
		text += ", until " + st.Stop
	}
	return text + "."
}
