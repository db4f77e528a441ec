package ground

import (
	"cmp"
	"context"
	"fmt"
	"slices"

	"mezzadro/core/job"
	"mezzadro/core/quantity"
	"mezzadro/core/site"
	"mezzadro/exchange"
	"mezzadro/store"
)

// plantingKey names the jobs that a planting asked for.
const plantingKey = "planting"

// PlanPage is a property's plan to be printed: what stands where, by numbers in the order of the way round, and what is
// to be planted.
func (h *Room) PlanPage(ctx context.Context, property int64, style quantity.Style) (exchange.PlanPage, error) {
	out := exchange.PlanPage{Numbers: map[string]int{}, Feet: style.Imperial}
	p, err := h.Store.Property(ctx, property)
	if err != nil {
		return out, err
	}
	plan, err := h.PlanOf(ctx, property)
	if err != nil {
		return out, err
	}
	out.Plan = plan.Plan
	out.Title = p.Name + ": planting plan"
	out.Notes = []string{style.Text("As it stands on " + quantity.DayOfYear(h.Today()) + ". Crosses are where a plant died.")}
	plants, err := h.Store.Plants(ctx, property, 0, store.All)
	if err != nil {
		return out, err
	}
	size := func(t *site.Thing) string {
		return style.Text(quantity.Length(t.HeightM) + " tall, " + quantity.Length(t.SpreadM) + " wide")
	}
	for i, id := range out.Plan.WayRound() {
		t := out.Plan.Thing(id)
		out.Numbers[id] = i + 1
		line := exchange.PlanLine{No: i + 1, Name: t.Name, Detail: size(t)}
		if t.PlantID == 0 {
			out.Planned = append(out.Planned, line)
			continue
		}
		if k := slices.IndexFunc(plants, func(p store.Plant) bool { return p.ID == t.PlantID }); k >= 0 && plants[k].Count > 1 {
			line.Name = fmt.Sprintf("%d × %s", plants[k].Count, line.Name)
		}
		out.Stands = append(out.Stands, line)
	}
	for _, l := range plan.Loose {
		out.Stands = append(out.Stands, exchange.PlanLine{Name: l.Name, Detail: "without a place on the plan"})
	}
	orders, err := h.Store.StandingByKey(ctx, property, plantingKey)
	for _, o := range orders {
		when := "no day yet"
		if o.Day != nil {
			when = style.Text(quantity.Day(store.DayOf(o.Day)))
		}
		if o.State == string(job.Placed) || o.Day == nil {
			out.Planned = append(out.Planned, exchange.PlanLine{Name: style.Text(o.Title), Detail: when})
		}
	}
	slices.SortStableFunc(out.Planned, func(a, b exchange.PlanLine) int { return cmp.Compare(b.No, a.No) })
	return out, err
}
