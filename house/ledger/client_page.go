package ledger

import (
	"cmp"
	"context"
	"slices"

	"mezzadro/core/cause"
	"mezzadro/core/day"
	"mezzadro/core/kinds"
	"mezzadro/core/lookout"
	"mezzadro/house/estate"
	"mezzadro/house/work"
	"mezzadro/store"
)

// ClientLink is a link that a client has.
type ClientLink struct {
	ID    int64   `json:"id"`
	Made  day.Day `json:"made" format:"date"`
	Until day.Day `json:"until" format:"date" doc:"Its last day"`
	Token string  `json:"token,omitempty" doc:"Shown once, when it is made"`
}

// linkDays is for how long one holds where nobody said.
const linkDays = 90

func tellLink(l store.ClientLink) ClientLink {
	return ClientLink{ID: l.ID, Made: store.DayOf(&l.Made), Until: store.DayOf(&l.Until)}
}

// ClientLinks are those of a property.
func (h *Room) ClientLinks(ctx context.Context, property int64) ([]ClientLink, error) {
	if _, err := h.Store.Property(ctx, property); err != nil {
		return nil, err
	}
	list, err := h.Store.ClientLinks(ctx, property)
	return estate.TellAll(list, tellLink), err
}

// AddClientLink makes one. Its token is kept as a hash alone: each call makes another.
func (h *Room) AddClientLink(ctx context.Context, property int64, days int) (ClientLink, error) {
	token, hash := estate.NewToken()
	today := h.Today()
	until := today + day.Day(cmp.Or(days, linkDays))
	var l store.ClientLink
	err := h.Store.Write(ctx, func(tx store.Tx) (err error) {
		l, err = tx.AddClientLink(ctx, store.ClientLink{PropertyID: property, Hash: hash, Made: today.String(), Until: until.String()})
		return err
	})
	out := tellLink(l)
	out.Token = token
	return out, err
}

// RevokeClientLink ends one for good.
func (h *Room) RevokeClientLink(ctx context.Context, key store.Key, id int64) error {
	_, err := store.Once(ctx, h.Store, key, func(tx store.Tx) (struct{}, error) { return struct{}{}, tx.RevokeClientLink(ctx, id) })
	return err
}

// ClientPage is what a client sees of their property.
type ClientPage struct {
	Firm     string        `json:"firm"`
	Property string        `json:"property"`
	Today    day.Day       `json:"today" format:"date" doc:"As it stands on this day"`
	Until    day.Day       `json:"until" format:"date" doc:"The link's last day"`
	Found    []ClientFound `json:"found"`
	Planned  []ClientWork  `json:"planned"`
	Done     []ClientWork  `json:"done" doc:"Of the last sixty days"`

	Reports   []Report   `json:"reports" doc:"That were sent within a year, the newest first"`
	Estimates []Estimate `json:"estimates" doc:"That were sent, the newest first: to be answered, and those of the last year"`
}

// AnswerAsClient keeps what a client said to a line of an estimate, by the link that was opened: of its property alone.
func (h *Room) AnswerAsClient(ctx context.Context, key store.Key, kept string, id int64, in AnswerIn) (Estimate, error) {
	l, err := h.Store.ClientLinkOf(ctx, kept, h.Today().String())
	if err != nil {
		return Estimate{}, err
	}
	e, err := h.Store.Estimate(ctx, id)
	if err == nil && e.PropertyID != l.PropertyID {
		err = store.ErrNotFound // another's estimate is not there for who asks by this link
	}
	if err != nil {
		return Estimate{}, err
	}
	return h.Answer(ctx, key, id, in, "link")
}

// ClientFound is something that was found on a plant.
type ClientFound struct {
	Day   day.Day `json:"day" format:"date"`
	Plant string  `json:"plant"`
	What  string  `json:"what"`
}

// ClientWork is a piece of work.
type ClientWork struct {
	Title string  `json:"title"`
	Plant string  `json:"plant"`
	Day   day.Day `json:"day" format:"date" doc:"It is on, or was done; empty while it has none"`
	From  day.Day `json:"from" format:"date" doc:"Of the days that are good for it"`
	To    day.Day `json:"to" format:"date"`
}

// doneShown is how far back a client reads what was done, days.
const doneShown = 60

// clientMost is how many pieces of work a client reads of each list.
const clientMost = 200

// ClientPage is what the link of a token shows. ErrNotFound for one that is over, revoked or was never given. Notes of
// the firm's own stay with the firm.
func (h *Room) ClientPage(ctx context.Context, token string) (ClientPage, error) {
	return h.ClientPageOf(ctx, estate.TokenHash(token))
}

// LinkKept is what of a link is kept with whoever opened it, in place of the link itself.
func LinkKept(token string) string { return estate.TokenHash(token) }

// ClientPageOf is the page of a link by what is kept of it.
func (h *Room) ClientPageOf(ctx context.Context, kept string) (ClientPage, error) {
	today := h.Today()
	l, err := h.Store.ClientLinkOf(ctx, kept, today.String())
	if err != nil {
		return ClientPage{}, err
	}
	p, err := h.Store.Property(ctx, l.PropertyID)
	if err != nil {
		return ClientPage{}, err
	}
	firm, err := h.Store.Firm(ctx)
	if err != nil {
		return ClientPage{}, err
	}
	out := ClientPage{Firm: firm.Name, Property: p.Name, Today: today, Until: store.DayOf(&l.Until), Found: []ClientFound{}, Planned: []ClientWork{}, Done: []ClientWork{}}
	if err := h.clientFound(ctx, &out, p.ID); err != nil {
		return out, err
	}
	if out.Estimates, err = h.Open(ctx, p.ID); err != nil {
		return out, err
	}
	if out.Reports, err = h.SentReports(ctx, p.ID); err != nil {
		return out, err
	}
	for _, list := range []struct {
		of store.OrderList
		to *[]ClientWork
	}{{store.ListStanding, &out.Planned}, {store.ListEnded, &out.Done}} {
		page, err := h.Work.Orders(ctx, list.of, p.ID, "", clientMost)
		if err != nil {
			return out, err
		}
		full, err := h.Store.OrdersFull(ctx, ids(page.Items))
		if err != nil {
			return out, err
		}
		for _, o := range page.Items {
			words, told := kinds.ForClient(o.Kind, full[o.ID].Params.V, o.Title)
			if !told || o.Agreed == "asked" && !o.Day.Given() { // what waits for their yes stands on the estimate
				continue
			}
			w := ClientWork{Title: words, Plant: estate.PlantName(o.Common, o.Label), Day: o.Day, From: o.From, To: o.To}
			if o.Hold != nil && o.Hold.Anyway == "" {
				w.Day = day.None // what waits for a look has no day yet
			}
			if o.Ended.Given() {
				if w.Day = o.Ended; o.Ended < today-doneShown || o.State != "done" {
					continue
				}
			}
			*list.to = append(*list.to, w)
		}
	}
	return out, nil
}

// ids are those of some orders.
func ids(list []work.Order) []int64 {
	out := make([]int64, len(list))
	for i, o := range list {
		out[i] = o.ID
	}
	return out
}

// clientFound gathers what was decided about the plants, and which causes are open on them.
func (h *Room) clientFound(ctx context.Context, out *ClientPage, property int64) error {
	plants, err := h.Store.Plants(ctx, property, 0, store.All)
	if err != nil {
		return err
	}
	book, err := h.Book(ctx)
	if err != nil {
		return err
	}
	names := map[int64]string{}
	for _, p := range plants {
		names[p.ID] = estate.PlantName(estate.EntryOf(book, p.Species).Common, p.Label)
	}
	verdicts, err := h.Store.Verdicts(ctx, property, (out.Today - 400).String())
	if err != nil {
		return err
	}
	for _, v := range verdicts {
		what := v.Sentence
		switch v.Decision {
		case lookout.PutOff:
			continue // nothing was decided
		case "overruled":
			what = v.Note // in the words of who saw it
		}
		out.Found = append(out.Found, ClientFound{store.DayOf(&v.Day), names[v.PlantID], what})
	}
	finds, err := h.Store.Finds(ctx, store.FindsOf{Property: property, Open: true, Limit: clientMost})
	if err != nil {
		return err
	}
	for _, f := range finds {
		if c := cause.Built().Cause(f.Cause); c != nil && !f.Prevent && !f.AlongOf.Valid { // what is kept off, or treated along, was not seen on it
			out.Found = append(out.Found, ClientFound{store.DayOf(&f.Day), names[f.PlantID.Int64], c.Name})
		}
	}
	slices.SortStableFunc(out.Found, func(a, b ClientFound) int { return cmp.Compare(b.Day, a.Day) })
	return nil
}
