package ledger

import (
	"cmp"
	"context"
	"slices"

	"mezzadro/core/catalogue"
	"mezzadro/core/day"
	"mezzadro/core/estimate"
	"mezzadro/core/invalid"
	"mezzadro/core/job"
	"mezzadro/core/load"
	"mezzadro/house/estate"
	"mezzadro/store"
)

// Done is the work that was done in some days, with what it comes to.
type Done struct {
	From     day.Day    `json:"from" format:"date"`
	To       day.Day    `json:"to" format:"date"`
	Items    []DoneWork `json:"items"`
	Sums     []DoneSum  `json:"sums" doc:"By property, person, kind of work and month"`
	Total    DoneSum    `json:"total"`
	Currency string     `json:"currency"`
	Digits   int        `json:"digits"`
}

// DoneWork is a job that was done.
type DoneWork struct {
	Order      int64           `json:"order"`
	Day        day.Day         `json:"day" format:"date"`
	PropertyID int64           `json:"property_id"`
	Property   string          `json:"property"`
	Plant      string          `json:"plant"`
	Title      string          `json:"title"`
	Kind       job.Kind        `json:"kind"`
	By         string          `json:"by" doc:"Who ticked it off; else the crew that it was on"`
	Planned    int             `json:"planned" doc:"Minutes of all its people"`
	Took       int             `json:"took" doc:"Minutes of all its people; 0 not noted"`
	Agreed     string          `json:"agreed,omitempty" enum:"asked,agreed,declined," doc:"With the client"`
	Amount     estimate.Amount `json:"amount" money:"true" doc:"Without the way and the visit, by the rates: as agreed, or by the time that it took"`
	Unpriced   bool            `json:"unpriced,omitempty" doc:"A part of it has no price: the amount lacks it"`
	Charged    int             `json:"charged,omitempty" doc:"The number it was charged under; absent while it was not"`

	line estimate.Line
}

// DoneSum is what some of the work comes to.
type DoneSum struct {
	By      string          `json:"by" enum:"property,person,kind,month,all" doc:"What is summed by"`
	Name    string          `json:"name"`
	Jobs    int             `json:"jobs"`
	Planned int             `json:"planned" doc:"Minutes of all people"`
	Took    int             `json:"took" doc:"Minutes of all people, of jobs where it was noted"`
	Noted   int             `json:"noted" doc:"Jobs where it was noted"`
	Of      int             `json:"of" doc:"Minutes planned of those jobs"`
	Amount  estimate.Amount `json:"amount" money:"true"`
	Open    estimate.Amount `json:"open" money:"true" doc:"Of it, what was not charged yet"`
}

// doneMost is the longest stretch that is told, days.
const doneMost = 800

// Done is the work from a day until another, of a property or with 0 of all.
func (h *Room) Done(ctx context.Context, property int64, from, to day.Day) (Done, error) {
	list, err := h.Store.Estimates(ctx, 0, store.All)
	if err != nil {
		return Done{}, err
	}
	return h.doneOf(ctx, property, from, to, list)
}

// doneOf is that work, with the estimates that were made.
func (h *Room) doneOf(ctx context.Context, property int64, from, to day.Day, estimates []store.Estimate) (Done, error) {
	out := Done{From: from, To: to, Items: []DoneWork{}, Sums: []DoneSum{}, Total: DoneSum{By: "all"}}
	if to < from || to > from+doneMost {
		return out, invalid.One("to", to.String(), "want a day from the first on, two years later at the latest")
	}
	rates, err := h.Rates(ctx)
	if err != nil {
		return out, err
	}
	out.Currency, out.Digits = rates.Currency, rates.Digits
	list, err := h.Store.DoneBetween(ctx, property, from.String(), to.String())
	if err != nil {
		return out, err
	}
	if out.Items, err = h.doneWork(ctx, list, rates.Rates, estimates); err != nil {
		return out, err
	}
	out.sum()
	return out, nil
}

// doneWork prices jobs that were done.
func (h *Room) doneWork(ctx context.Context, list []store.OrderFull, rates estimate.Rates, estimates []store.Estimate) ([]DoneWork, error) {
	book, err := h.Book(ctx)
	if err != nil {
		return nil, err
	}
	agreed := agreedLines(estimates)
	charged, err := h.Store.ChargedAs(ctx)
	if err != nil {
		return nil, err
	}
	parted, err := h.Store.PartedMinutes(ctx)
	if err != nil {
		return nil, err
	}
	used, err := h.used(ctx, list)
	if err != nil {
		return nil, err
	}
	jobs, err := h.jobs(ctx, list, rates, book, used)
	out := make([]DoneWork, 0, len(list))
	for i, j := range jobs {
		k := list[i]
		by, line := &rates, (*estimate.Line)(nil)
		first := cmp.Or(k.PartOf, k.ID)
		if a, was := agreed[first]; was {
			share := a.line.Of(k.Minutes*max(1, k.CrewSize), parted[first])
			by, line = &a.rates, &share
		}
		w := DoneWork{Order: k.ID, Day: store.DayOf(k.Ended), PropertyID: k.PropertyID, Property: k.Property, Plant: plantOf(k.Order, book),
			Title: k.Title, Kind: k.Kind, By: cmp.Or(k.By, k.Crew), Planned: k.Minutes * max(1, k.CrewSize),
			Took: k.Took * max(1, k.CrewSize), Agreed: k.Agreed, Charged: charged[k.ID], line: by.Done(j, k.Took, line)}
		w.line.Order, w.Amount = k.ID, w.line.Amount
		for _, p := range w.line.Parts {
			w.Unpriced = w.Unpriced || p.Unpriced
		}
		out = append(out, w)
	}
	return out, err
}

// used are the products that the use record has of jobs that were done, by job.
func (h *Room) used(ctx context.Context, list []store.OrderFull) (map[int64][]load.Item, error) {
	out := map[int64][]load.Item{}
	if len(list) == 0 {
		return out, nil
	}
	from, to := text(list[0].Ended), text(list[len(list)-1].Ended)
	uses, err := h.Store.UsesBetween(ctx, 0, min(from, to), max(from, to), store.All)
	for _, u := range uses {
		if u.OrderID.Valid && u.Amount > 0 {
			out[u.OrderID.Int64] = append(out[u.OrderID.Int64], load.Item{Group: load.Stuff, Name: u.Product, Amount: u.Amount, Unit: u.Unit, Buy: true})
		}
	}
	return out, err
}

func plantOf(k store.Order, book *catalogue.Catalogue) string {
	if !k.PlantID.Valid {
		return ""
	}
	return estate.PlantName(estate.EntryOf(book, k.Species).Common, k.Label)
}

// agreedLine is what a client said yes to, with the rates of that estimate.
type agreedLine struct {
	line  estimate.Line
	rates estimate.Rates
}

// agreedLines are what clients said yes to last, by job.
func agreedLines(list []store.Estimate) map[int64]agreedLine {
	out := map[int64]agreedLine{}
	for _, e := range list { // the newest first
		for _, l := range e.Body.V.Lines {
			if _, newer := out[l.Order]; l.Order != 0 && !newer && l.Answer != nil && l.Answer.Yes {
				out[l.Order] = agreedLine{l, e.Body.V.Rates}
			}
		}
	}
	return out
}

// sum adds the items up, by what they are told by.
func (d *Done) sum() {
	at := map[[2]string]int{}
	add := func(s *DoneSum, w DoneWork) {
		s.Jobs, s.Planned, s.Amount = s.Jobs+1, s.Planned+w.Planned, s.Amount+w.Amount
		if w.Took > 0 {
			s.Took, s.Noted, s.Of = s.Took+w.Took, s.Noted+1, s.Of+w.Planned
		}
		if w.Charged == 0 {
			s.Open += w.Amount
		}
	}
	for _, w := range d.Items {
		add(&d.Total, w)
		for _, by := range [][2]string{{"month", w.Day.String()[:7]}, {"property", w.Property}, {"person", w.By}, {"kind", string(w.Kind)}} {
			i, known := at[by]
			if !known {
				i = len(d.Sums)
				at[by] = i
				d.Sums = append(d.Sums, DoneSum{By: by[0], Name: by[1]})
			}
			add(&d.Sums[i], w)
		}
	}
	order := []string{"month", "property", "person", "kind"}
	slices.SortStableFunc(d.Sums, func(a, b DoneSum) int {
		if a.By != b.By || a.By == "month" {
			return cmp.Or(cmp.Compare(slices.Index(order, a.By), slices.Index(order, b.By)), cmp.Compare(a.Name, b.Name))
		}
		return cmp.Or(cmp.Compare(b.Planned, a.Planned), cmp.Compare(a.Name, b.Name))
	})
}
