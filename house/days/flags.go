package days

import (
	"context"
	"fmt"
	"slices"

	"mezzadro/core/day"
	"mezzadro/core/job"
	"mezzadro/core/kinds"
	"mezzadro/core/quantity"
	"mezzadro/core/rounds"
	"mezzadro/house/estate"
	crews "mezzadro/house/rounds"
	"mezzadro/store"
)

// flag says on a sheet what cannot be where it stands: a day off, a shut gate, weather that the work cannot bear, more than
// the hours of who goes.
func (h *Room) flag(ctx context.Context, s *Sheet, list []store.OrderFull) error {
	all, err := h.Crew.Crews(ctx)
	if err != nil {
		return err
	}
	access, err := h.Store.Accesses(ctx)
	if err != nil {
		return err
	}
	minutes := map[int64]int{}
	for _, k := range list {
		if k.State == job.Placed {
			minutes[k.CrewID] += k.Minutes
		}
	}
	for _, c := range all {
		if n := minutes[c.ID]; n > 0 {
			s.Flags = append(s.Flags, crewFlags(c, s.Day, n)...)
		}
	}
	skies, err := h.SkiesAhead(ctx)
	if err != nil {
		return err
	}
	for i := range s.Visits {
		v := &s.Visits[i]
		if v.Flags = append(v.Flags, gateFlags(access[v.PropertyID], s.Day, v.At)...); !v.open() {
			v.Flags = []string{}
			continue
		}
		pl, err := h.Place(ctx, v.PropertyID)
		if err != nil {
			return err
		}
		v.Flags = append(v.Flags, skyFlags(skies, pl, *v, s.Day)...)
	}
	return nil
}

// open reports that something of a visit is still to be done.
func (v SheetVisit) open() bool {
	return slices.ContainsFunc(v.Jobs, func(j SheetJob) bool { return j.State == job.Placed })
}

// crewFlags are what speaks against a crew's day with so many minutes of work.
func crewFlags(c crews.Crew, on day.Day, minutes int) []string {
	h := c.Hours[on.Weekday()]
	has := int(h.To-h.From) * max(1, len(c.People))
	switch {
	case slices.Contains(c.Off, on):
		return []string{c.Name + " has this day off."}
	case h.To <= h.From:
		return []string{c.Name + " does not work on this day."}
	case minutes > has:
		return []string{fmt.Sprintf("%s: %s of work, without the ways, is over the %s that they have.", c.Name, hoursOf(minutes), hoursOf(has))}
	}
	return nil
}

// hoursOf is a length of time in hours.
func hoursOf(minutes int) string { return fmt.Sprintf("%d:%02d h", minutes/60, minutes%60) }

// gateFlags are what speaks against being at a place on a day, or at an hour of it.
func gateFlags(a store.Access, on day.Day, at int) []string {
	h := a.Hours[on.Weekday()]
	switch {
	case slices.Contains(a.Shut, int(on.Weekday())):
		return []string{"It is shut on this day of the week."}
	case at > 0 && h.To > h.From && (float64(at) < float64(h.From) || float64(at) >= float64(h.To)):
		return []string{"Outside the hours in which one may be there."}
	}
	return nil
}

// skyFlags are what the weather as it is told forbids of a visit's work.
func skyFlags(skies estate.Skies, pl *estate.Place, v SheetVisit, on day.Day) (out []string) {
	sky := skies.Of(pl, on, 1)
	for _, j := range v.Jobs {
		if j.State != job.Placed {
			continue
		}
		if why := rounds.Against(kinds.Weather(j.Kind, j.Params.Use, j.Skills), sky[0], sky[1]); why != "" {
			out = append(out, j.Title+": "+why+" on "+quantity.Day(on)+".")
		}
	}
	return out
}
