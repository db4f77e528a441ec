package ledger

import (
	"context"

	"mezzadro/core/day"
	"mezzadro/core/estimate"
	"mezzadro/core/job"
	"mezzadro/core/outcome"
	"mezzadro/core/report"
	"mezzadro/store"
)

// Overview is what the ledger asks for now, and the month so far.
type Overview struct {
	Waiting  []Estimate    `json:"waiting" doc:"Sent, and not answered in full: the oldest first"`
	Drafts   []Estimate    `json:"drafts" doc:"Not sent yet"`
	Agreed   []Undone      `json:"agreed" doc:"Agreed with the client and not done yet"`
	Open     []Chargeable  `json:"open" doc:"Done and not charged, by property, of the last year"`
	Month    Done          `json:"month" doc:"Work done since the first of the month; its jobs are left out"`
	Losses   []Outcome     `json:"losses" doc:"What became of plants within a year, by property"`
	Causes   []CauseMonths `json:"causes" doc:"What was found within twelve months, the most frequent first"`
	Score    outcome.Score `json:"score" doc:"What verdicts foretold, and what came of it"`
	Clients  int           `json:"clients" doc:"How many are entered"`
	Rated    bool          `json:"rated" doc:"The firm has entered its rates"`
	Currency string        `json:"currency"`
	Digits   int           `json:"digits"`
}

// Undone is a job that was agreed and is not done.
type Undone struct {
	Order    int64   `json:"order"`
	Title    string  `json:"title"`
	Property string  `json:"property"`
	Plant    string  `json:"plant"`
	Day      day.Day `json:"day" format:"date" doc:"It is on; empty while it has none"`
	To       day.Day `json:"to" format:"date" doc:"The last of its good days; empty where there is none"`
}

// Chargeable is what was done at a property and not charged.
type Chargeable struct {
	PropertyID int64           `json:"property_id"`
	Property   string          `json:"property"`
	Jobs       int             `json:"jobs"`
	Since      day.Day         `json:"since" format:"date" doc:"The oldest of it"`
	Amount     estimate.Amount `json:"amount" money:"true"`
}

// Outcome is what became of a property's plants.
type Outcome struct {
	PropertyID int64  `json:"property_id"`
	Property   string `json:"property"`
	Lost       int    `json:"lost" doc:"Dead or to be replaced"`
	Hurt       int    `json:"hurt" doc:"Cut back, or may fall on somebody"`
	Waiting    int    `json:"waiting" doc:"Not to be judged yet"`
	Well       int    `json:"well" doc:"Left as they are"`
}

// Overview reads it.
func (h *Room) Overview(ctx context.Context) (Overview, error) {
	out := Overview{Waiting: []Estimate{}, Drafts: []Estimate{}, Agreed: []Undone{}, Open: []Chargeable{}, Losses: []Outcome{}, Causes: []CauseMonths{}}
	rates, err := h.Rates(ctx)
	if err != nil {
		return out, err
	}
	out.Rated, out.Currency, out.Digits = rates.Version > 0, rates.Currency, rates.Digits
	clients, err := h.Store.Clients(ctx)
	if err != nil {
		return out, err
	}
	out.Clients = len(clients)
	list, err := h.Store.Estimates(ctx, 0, store.All)
	if err != nil {
		return out, err
	}
	for i := len(list) - 1; i >= 0; i-- {
		switch e := h.tell(list[i]); {
		case e.State == draft:
			out.Drafts = append(out.Drafts, e)
		case e.State == sent && e.Answers == "open":
			out.Waiting = append(out.Waiting, e)
		}
	}
	if err := h.undone(ctx, &out); err != nil {
		return out, err
	}
	if err := h.causes(ctx, &out); err != nil {
		return out, err
	}
	score, err := h.Learn.Score(ctx)
	if err != nil {
		return out, err
	}
	out.Score = score.Score
	if err := h.money(ctx, &out, list); err != nil {
		return out, err
	}
	return out, h.losses(ctx, &out)
}

// undone are the jobs that were agreed and are not done.
func (h *Room) undone(ctx context.Context, out *Overview) error {
	book, err := h.Book(ctx)
	if err != nil {
		return err
	}
	list, err := h.Store.AgreedOrders(ctx)
	for _, k := range list {
		out.Agreed = append(out.Agreed, Undone{k.ID, k.Title, k.Property, plantOf(k, book), store.DayOf(k.Day), store.DayOf(k.WinTo)})
	}
	return err
}

// money is what was done and not charged, and the month so far.
func (h *Room) money(ctx context.Context, out *Overview, estimates []store.Estimate) error {
	today := h.Today()
	all, err := h.doneOf(ctx, 0, today-yearDays, today, estimates)
	if err != nil {
		return err
	}
	at := map[int64]int{}
	month := Done{From: day.Of(today.Year(), today.Month(), 1), To: today, Items: []DoneWork{}, Sums: []DoneSum{}, Total: DoneSum{By: "all"}, Currency: all.Currency, Digits: all.Digits}
	for _, w := range all.Items {
		if w.Day >= month.From {
			month.Items = append(month.Items, w)
		}
		if w.Charged != 0 || w.Kind == job.Look {
			continue
		}
		i, known := at[w.PropertyID]
		if !known {
			i = len(out.Open)
			at[w.PropertyID] = i
			out.Open = append(out.Open, Chargeable{PropertyID: w.PropertyID, Property: w.Property, Since: w.Day})
		}
		o := &out.Open[i]
		o.Jobs, o.Amount = o.Jobs+1, o.Amount+w.Amount
	}
	month.sum()
	month.Items = []DoneWork{}
	out.Month = month
	return nil
}

// losses are what was last decided of each plant within a year, by property.
func (h *Room) losses(ctx context.Context, out *Overview) error {
	names, err := h.Store.PropertyNames(ctx)
	if err != nil {
		return err
	}
	list, err := h.Store.LastVerdicts(ctx, (h.Today() - yearDays).String())
	at := map[int64]int{}
	for _, v := range list {
		i, known := at[v.PropertyID]
		if !known {
			i = len(out.Losses)
			at[v.PropertyID] = i
			out.Losses = append(out.Losses, Outcome{PropertyID: v.PropertyID, Property: names[v.PropertyID]})
		}
		o := &out.Losses[i]
		switch report.StateOf(v.Kind) {
		case "lost":
			o.Lost += v.Plants
		case "waiting":
			o.Waiting += v.Plants
		case "well":
			o.Well += v.Plants
		default:
			o.Hurt += v.Plants
		}
	}
	return err
}
