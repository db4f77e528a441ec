package treatment

import (
	"fmt"
	"math"
	"slices"

	"mezzadro/core/day"
	"mezzadro/core/moment"
	"mezzadro/core/quantity"
)

// Wait is a span in which something must not be done because of what was used.
type Wait struct {
	What string  `json:"what" enum:"harvest,re-entry,gap"`
	From day.Day `json:"from" format:"date" doc:"The day it was used on"`
	To   day.Day `json:"to" format:"date" doc:"Last day of the wait"`
	Text string  `json:"text"`
	Use  string  `json:"use,omitempty" doc:"gap: the means that waits, by id"`
}

// card is the firm's own for a means: one with a rate for the cause before one without; nil where there is none.
func (a *Ask) card(act *Active) *Card {
	var named *Card
	for i := range a.Cards {
		c := &a.Cards[i]
		switch {
		case c.Active != act.ID:
		case c.rate(a.Cause) != nil:
			return c
		case named == nil:
			named = c
		}
	}
	return named
}

// cardOf is the card of something that was used: the one it was used from, or the firm's own for its means.
func (a *Ask) cardOf(u Use, act *Active) *Card {
	for i := range a.Cards {
		if c := &a.Cards[i]; u.Card != 0 && c.ID == u.Card {
			return c
		}
	}
	return a.card(act)
}

// ClosedDays is for how many days after the day of a spray nobody goes in: what is put on in the evening keeps the
// next day closed for a wait of 24 hours.
func (c *Card) ClosedDays() int { return int(math.Ceil(c.ReentryH / 24)) }

// harvestDays is the label's wait to harvest where the plant is eaten from; 0 where there is none or no card tells.
func (a *Ask) harvestDays(c *Card) day.Day {
	if c == nil || a.Species.Edible == "" {
		return 0
	}
	return day.Day(c.HarvestDays)
}

// Waits are those that run on the day of the ask: to harvest, to re-entry, and to what may not follow yet.
func (b *Book) Waits(a Ask) []Wait {
	out := []Wait{}
	for _, u := range a.Uses {
		act := b.active[u.Active]
		if act == nil || u.Day > a.Date {
			continue
		}
		c := a.cardOf(u, act)
		if n := a.harvestDays(c); n > 0 && u.Day+n > a.Date {
			out = append(
				out,
				Wait{
					What: "harvest",
					From: u.Day,
					To:   u.Day + n - 1,
					Text: fmt.Sprintf("%s was put on %s: nothing is eaten from it before %s", act.Name,
						quantity.Day(u.Day), quantity.Day(u.Day+n)),
				},
			)
		}
		if c != nil && c.ReentryH > 0 {
			if end := u.Day + day.Day(c.ClosedDays()) + 1; end > a.Date {
				out = append(
					out,
					Wait{
						What: "re-entry",
						From: u.Day,
						To:   end - 1,
						Text: fmt.Sprintf("%s was put on %s: nobody goes in for %g hours", act.Name,
							quantity.Day(u.Day), c.ReentryH),
					},
				)
			}
		}
		for _, other := range b.Actives {
			if n := day.Day(b.declared(act, &other)); n > 0 && u.Day+n > a.Date {
				out = append(
					out,
					Wait{
						What: "gap",
						Use:  other.ID,
						From: u.Day,
						To:   u.Day + n - 1,
						Text: fmt.Sprintf("no %s before %s: %s was put on %s", other.Name,
							quantity.Day(u.Day+n), act.Name, quantity.Day(u.Day)),
					},
				)
			}
		}
	}
	return out
}

// declared is the gap that either of two means asks for by name.
func (b *Book) declared(a, other *Active) int { return max(a.Gaps[other.ID], other.Gaps[a.ID]) }

// Breaks names what speaks against a means having been used on a day: a wait that ran, flowers that were open, too
// many uses.
func (b *Book) Breaks(a Ask, active string, on day.Day) []string {
	act := b.active[active]
	if act == nil {
		return nil
	}
	a.fill()
	s := &search{book: b, ask: &a, programme: &Programme{}, calendar: a.Place.Of(a.Species, on)}
	out := s.gapsBroken(act, on)
	if act.Bees && visited(a.Species) {
		end, blooms := s.calendar.Next(moment.On("bloom_end", 0), on)
		if start := s.calendar.Before("bloom_start", end); blooms && start.Given() && on >= start &&
			end-start < evergreenBloom {
			out = append(
				out,
				fmt.Sprintf(
					"its flowers are usually open then (%s to %s), and %s harms bees",
					quantity.Day(start),
					quantity.Day(end),
					act.Name,
				),
			)
		}
	}
	if n := a.harvestDays(a.card(act)); n > 0 && a.Harvest.Given() && on <= a.Harvest && on+n > a.Harvest {
		out = append(
			out,
			fmt.Sprintf("%d days to harvest by its label, and it is picked on %s", n, quantity.Day(a.Harvest)),
		)
	}
	s.ask.Date = on
	before := slices.DeleteFunc(slices.Clone(a.Uses), func(u Use) bool { return u.Day > on })
	s.ask.Uses = before
	if act.Most > 0 && s.usesInYear(act) >= act.Most {
		out = append(out, fmt.Sprintf("it was used %d times in that garden year already, which is the most", act.Most))
	}
	if c := a.card(act); s.labelSpent(c) {
		out = append(out, fmt.Sprintf("%s was used on it %d times within a year, which is the most by its label", c.Name, c.MostUses))
	}
	return out
}

// labelSpent reports a product that was used on the plant as often within a year as its label lets it.
func (s *search) labelSpent(c *Card) bool {
	if c == nil || c.MostUses == 0 {
		return false
	}
	n := 0
	for _, u := range s.ask.Uses {
		if u.Active == c.Active && (u.Card == 0 || u.Card == c.ID) && u.Day > s.ask.Date-365 {
			n++
		}
	}
	return n >= c.MostUses
}

// byLabel is a step no oftener and no sooner again than the label of what it takes lets it.
func (s *search) byLabel(st Step, act *Active) Step {
	if act == nil {
		return st
	}
	c := s.ask.card(act)
	if c == nil {
		return st
	}
	if c.MostUses > 0 {
		st.Most = min(max(1, st.Most), c.MostUses)
	}
	if st.Every > 0 {
		st.Every = max(st.Every, c.IntervalD)
	}
	return st
}

// gap is how many days lie between two means: by what they are, and between two uses of one by its label.
func (s *search) gap(act, other *Active) int {
	if c := s.ask.card(act); c != nil && act == other {
		return c.IntervalD
	}
	return s.book.gap(act, other)
}

// evergreenBloom is how long a bloom lasts from which it has no end to wait for, days.
const evergreenBloom = 250

// gapsBroken names the gaps to what was used before and after a day.
func (s *search) gapsBroken(act *Active, on day.Day) (out []string) {
	for _, u := range s.ask.Uses {
		other := s.book.active[u.Active]
		gap := day.Day(s.gap(act, other))
		apart := max(on-u.Day, u.Day-on)
		if gap == 0 || apart >= gap {
			continue
		}
		out = append(
			out,
			fmt.Sprintf(
				"%s was put on %s: there have to be %d days between them",
				other.Name,
				quantity.Day(u.Day),
				gap,
			),
		)
	}
	return out
}

// pastHarvest moves a day past a pick that its wait would run into.
func (s *search) pastHarvest(a *Active, on day.Day, because func(string)) day.Day {
	n, pick := s.ask.harvestDays(s.ask.card(a)), s.ask.Harvest
	if n == 0 || !pick.Given() || on > pick || on+n <= pick {
		return on
	}
	because(fmt.Sprintf("after it is picked: %d days to harvest by its label", n))
	return pick + 1
}
