package rounds

import (
	"cmp"
	"context"
	"math"
	"slices"

	"mezzadro/core/cause"
	"mezzadro/core/day"
	"mezzadro/core/estimate"
	"mezzadro/core/job"
	"mezzadro/core/kinds"
	"mezzadro/core/pace"
	"mezzadro/core/rounds"
	"mezzadro/core/treatment"
	"mezzadro/house/crews"
	"mezzadro/house/estate"
	"mezzadro/house/work"
	"mezzadro/store"
)

// planned is a span of days as the core plans it, with the orders that its jobs stand for.
type planned struct {
	problem *rounds.Problem
	orders  []*store.OrderFull // not changed here: others read them too
	curves  []job.Curve
	costs   []int        // of each job's day, of a plan that was kept; curves are nil then
	parts   map[int]part // of jobs that are done in parts, by index
	crews   []crews.Crew
	places  []int64 // ids of properties
	access  map[int64]store.Access
	ahead   estate.Skies
	several map[int64][]int64 // plants of orders that have several
	teller  *work.Teller
	pace    *pace.Pace        // nil: all times are as reckoned
	plans   string            // which work is planned as far as it is agreed: all, answered, agreed
	waiting []store.OrderFull // that wait for their client's yes
	beyond  int               // jobs that have a day in the span and are more than are planned at once
	held    []store.OrderFull // that wait for what is not known yet of their plants
	knows   map[int64]int64   // crews that clients know from standing visits, by property
	sick    map[int64]bool    // properties with a find that tools or soil carry on
}

// plannedMax is how many jobs are planned at once.
const plannedMax = 5000

// heldShown is how many jobs a proposal names that wait for what is not known yet of their plants.
const heldShown = 200

// problemOf gathers what is to be planned in a span: what stands on its days, and what waits and has a day in it.
// anew: what stands may move, unless it is pinned or was told. weekly: weeks are planned, not days.
func (h *Room) problemOf(ctx context.Context, from day.Day, days int, anew, weekly bool) (*planned, error) {
	if err := h.Standing.Ahead(ctx); err != nil {
		return nil, err
	}
	if err := h.Work.CurrentWindows(ctx); err != nil {
		return nil, err
	}
	out := &planned{problem: &rounds.Problem{From: from, Days: days}}
	var err error
	if out.crews, err = h.Team.Crews(ctx); err != nil {
		return nil, err
	}
	for _, c := range out.crews {
		out.problem.Crews = append(out.problem.Crews, c.Core())
	}
	list, err := h.Store.StandingOrders(ctx)
	if err != nil {
		return nil, err
	}
	cards, err := h.Cards(ctx)
	if err != nil {
		return nil, err
	}
	if out.teller, err = h.Work.Teller(ctx); err != nil {
		return nil, err
	}
	if out.access, err = h.Store.Accesses(ctx); err != nil {
		return nil, err
	}
	if out.pace, err = h.Learn.Pace(ctx); err != nil {
		return nil, err
	}
	for i, c := range out.crews {
		out.problem.Crews[i].Pace = out.pace.Crew(c.Name)
	}
	if out.knows, err = h.Standing.Knows(ctx); err != nil {
		return nil, err
	}
	if out.sick, err = h.sick(ctx); err != nil {
		return nil, err
	}
	rates, err := h.Store.Rates(ctx)
	if err != nil {
		return nil, err
	}
	out.plans = rates.Body.V.Plans
	if out.ahead, err = h.SkiesAhead(ctx); err != nil {
		return nil, err
	}
	if out.several, err = h.Store.SeveralPlants(ctx); err != nil {
		return nil, err
	}
	if err := out.addAll(ctx, h, list, cards, anew); err != nil {
		return nil, err
	}
	if !weekly {
		out.trim(plannedMax)
	}
	if weekly {
		return out, out.gaps(ctx, h)
	}
	if err := out.waste(ctx, h); err != nil {
		return nil, err
	}
	out.part()
	if err := out.gaps(ctx, h); err != nil {
		return nil, err
	}
	if err := out.ways(ctx, h); err != nil {
		return nil, err
	}
	return out, h.light(ctx, out.problem)
}

// addAll adds orders as jobs.
func (o *planned) addAll(
	ctx context.Context,
	h *Room,
	list []*store.OrderFull,
	cards []treatment.Card,
	anew bool,
) error {
	at := map[int64]int{}
	places := map[int64]*estate.Place{}
	o.problem.Jobs, o.orders = make([]rounds.Job, 0, len(list)), make([]*store.OrderFull, 0, len(list))
	o.curves = make([]job.Curve, 0, len(list))
	for _, k := range list {
		if of := k.PropertyID; places[of] == nil {
			pl, err := h.Place(ctx, of)
			if err != nil {
				return err
			}
			places[of] = pl
		}
	}
	costs, err := h.curves(ctx, list, places, o.problem.From, o.problem.Days)
	if err != nil {
		return err
	}
	for i, k := range list {
		o.add(k, costs[i].curve, places[k.PropertyID], at, cards, anew)
	}
	return nil
}

// add adds an order as a job, if it has a day in the span.
func (o *planned) add(
	k *store.OrderFull,
	c *estate.Shared,
	pl *estate.Place,
	at map[int64]int,
	cards []treatment.Card,
	anew bool,
) {
	p := o.problem
	on := store.DayOf(k.Day)
	inSpan := on.Given() && on >= p.From && on < p.From+day.Day(p.Days)
	if on.Given() && on >= p.From && !inSpan {
		return // it stands on a day after the span
	}
	costs, later := c.Span(p.From, p.Days)
	if o.unagreed(k) && !on.Given() {
		if rounds.WorthPlanning(costs) {
			o.waiting = append(o.waiting, *k)
		}
		return
	}
	if by := o.teller.Waits(k.Order); by != nil {
		if !by.Until.Given() || by.Until >= p.From+day.Day(p.Days) {
			if inSpan || on.Given() || rounds.WorthPlanning(costs) {
				o.held = append(o.held, *k)
			}
			return
		}
		costs = slices.Clone(costs)
		for d := range int(by.Until - p.From) {
			costs[d] = rounds.Forbidden
		}
	}
	if !rounds.WorthPlanning(costs) && !inSpan && !on.Given() {
		return
	}
	if inSpan {
		costs = slices.Clone(costs) // where it stands changes them
	}
	place, known := at[k.PropertyID]
	if !known {
		place = o.place(pl)
		at[k.PropertyID] = place
	}
	kind, _ := kinds.Of(k.Kind)
	j := rounds.Job{
		Title:   k.Title,
		Place:   place,
		Minutes: math.Max(1, float64(k.Minutes)),
		People:  k.CrewSize,
		Skills:  grantable(k.Body.V.Skills),
		Costs:   costs,
		Later:   later,
		Weight:  cmp.Or(pl.Property.Value, 1),
		Urgent:  kind.Urgent,
		Work:    kinds.Weather(k.Kind, k.Params.V.Use, k.Body.V.Skills),
		Told:    k.Told != "" || k.Kind == job.Care, // a client counts on the day, whoever said so
	}
	if estimate.Unsure(k.Kind) {
		j.Spread = unsureSpread
	}
	if o.pace.Known() {
		f := o.pace.For(string(k.Kind), "", j.Minutes)
		j.Minutes, j.Spread = j.Minutes*f.Used(), f.Spread
	}
	if j.Kit = rounds.Bulky(j.Work, k.Body.V.Kit); k.PlantID.Valid {
		j.Plants = []int64{k.PlantID.Int64}
	} else {
		j.Plants = o.several[k.ID]
	}
	if k.Kind == job.Treat {
		j.Closes = treatment.ClosedDays(k.Params.V.Use, cards)
	}
	if inSpan {
		o.stands(&j, k, int(on-p.From), anew)
	}
	p.Jobs, o.orders, o.curves = append(p.Jobs, j), append(o.orders, k), append(o.curves, c.Curve)
}

// unsureSpread is how far work differs from what is reckoned whose time shows only when one is at it.
const unsureSpread = 0.35

// unagreed reports a job that the firm does not plan before its client has said yes. What makes safe waits for nobody.
func (o *planned) unagreed(k *store.OrderFull) bool {
	if kind, _ := kinds.Of(k.Kind); kind.Urgent {
		return false
	}
	return o.plans == "answered" && k.Agreed == "asked" || o.plans == "agreed" && k.Agreed != "agreed"
}

// grantable are the skills that a person can be entered with; others are told on the day sheet alone.
func grantable(skills []string) (out []string) {
	for _, s := range skills {
		if slices.Contains(job.Skills, s) {
			out = append(out, s)
		}
	}
	return out
}

// stands has a job stay where it stands, or count from there.
func (o *planned) stands(j *rounds.Job, k *store.OrderFull, d int, anew bool) {
	crew := slices.IndexFunc(o.crews, func(c crews.Crew) bool { return c.ID == k.CrewID })
	switch {
	case crew < 0: // by nobody yet: the day holds, if it is not to be found anew
		if !anew || k.Pinned {
			for i := range j.Costs {
				if i != d {
					j.Costs[i] = rounds.Forbidden
				}
			}
		}
	case anew && !k.Pinned:
		j.Was = &rounds.Pin{Crew: crew, Day: d}
	default:
		j.Pin = &rounds.Pin{Crew: crew, Day: d}
		j.Costs[d] = min(j.Costs[d], 100)
	}
}

// sick are the properties with an open find that tools or soil carry to the next.
func (h *Room) sick(ctx context.Context) (map[int64]bool, error) {
	finds, err := h.Store.Finds(ctx, store.FindsOf{Open: true, Limit: store.All})
	out := map[int64]bool{}
	for _, f := range finds {
		if x := cause.Built().Cause(f.Cause); x != nil && x.OnTools() {
			out[f.PropertyID] = true
		}
	}
	return out, err
}
