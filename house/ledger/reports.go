package ledger

import (
	"cmp"
	"context"
	"slices"

	"mezzadro/core/cause"
	"mezzadro/core/day"
	"mezzadro/core/invalid"
	"mezzadro/core/kinds"
	"mezzadro/core/quantity"
	"mezzadro/core/report"
	"mezzadro/core/weather"
	"mezzadro/house/estate"
	"mezzadro/store"
)

// Report is what a client reads of what happened at their property.
type Report struct {
	ID         int64   `json:"id"`
	PropertyID int64   `json:"property_id"`
	Property   string  `json:"property"`
	Kind       string  `json:"kind" enum:"event,walk,season,insurer"`
	Day        day.Day `json:"day" format:"date" doc:"The day it was written on"`
	State      string  `json:"state" enum:"draft,sent"`
	report.Report
	Version int `json:"version"`
}

func tellReport(r store.Report) Report {
	return Report{r.ID, r.PropertyID, r.Property, r.Kind, store.DayOf(&r.Day), r.State, r.Body.V, r.Version}
}

// ReportIn asks for a report to be written.
type ReportIn struct {
	PropertyID int64  `json:"property_id" minimum:"1"`
	Kind       string `json:"kind" enum:"event,walk,season,insurer" doc:"Of the last hard weather, of the last walk, of the year, or for whoever insures"`
}

// Reports are those of a property, or with 0 of all, the newest first.
func (h *Room) Reports(ctx context.Context, property int64) ([]Report, error) {
	list, err := h.Store.Reports(ctx, property, estimatesShown)
	return estate.TellAll(list, tellReport), err
}

// Report is one.
func (h *Room) Report(ctx context.Context, id int64) (Report, error) {
	r, err := h.Store.Report(ctx, id)
	if err != nil {
		return Report{}, err
	}
	return tellReport(r), nil
}

// How far back a report looks, days.
const (
	eventWithin  = 150 // for the weather that it is about
	nightsAround = 12
)

// AddReport writes a report of a property, as a draft to be gone over.
func (h *Room) AddReport(ctx context.Context, key store.Key, in ReportIn) (Report, error) {
	if err := h.Work.CurrentWindows(ctx); err != nil {
		return Report{}, err
	}
	pl, err := h.Place(ctx, in.PropertyID)
	if err != nil {
		return Report{}, err
	}
	ask := report.Ask{Kind: in.Kind, Property: pl.Property.Name, Today: pl.Today, From: pl.Today - yearDays}
	if in.Kind == report.Walk {
		walks, err := h.Store.Walks(ctx, in.PropertyID)
		if err != nil {
			return Report{}, err
		}
		if len(walks) == 0 {
			return Report{}, invalid.One("kind", in.Kind, "nobody has walked here yet")
		}
		ask.From = store.DayOf(&walks[len(walks)-1].Day)
	}
	if in.Kind == report.Event || in.Kind == report.Insurer {
		if ask.Weather = h.lastEvent(pl); ask.Weather == nil {
			return Report{}, invalid.One("kind", in.Kind, "no hard weather was here within five months; write the year instead")
		}
		ask.From = ask.Weather.Peak
	}
	if err := h.plantsFor(ctx, &ask, pl); err != nil {
		return Report{}, err
	}
	if err := h.workFor(ctx, &ask, in.PropertyID); err != nil {
		return Report{}, err
	}
	if err := h.costFor(ctx, &ask, in.PropertyID); err != nil {
		return Report{}, err
	}
	row := store.Report{PropertyID: in.PropertyID, Kind: in.Kind, Day: pl.Today.String(), State: draft}
	row.Body.V = report.Write(ask)
	return store.Once(ctx, h.Store, key, func(tx store.Tx) (Report, error) {
		kept, err := tx.AddReport(ctx, row)
		return tellReport(kept), err
	})
}

// lastEvent is the event of the last months that did most; nil for none.
func (h *Room) lastEvent(pl *estate.Place) *report.Weather {
	var list []report.Weather
	for _, e := range pl.TellEvents() {
		if e.Peak < pl.Today-eventWithin || e.Peak > pl.Today {
			continue
		}
		w := report.Weather{Kind: e.Kind, Value: e.Value, Hours: e.Hours, FallC: e.FallC, Peak: e.Peak}
		if e.BeforeOffC != nil {
			w.BeforeC = *e.BeforeOffC
		}
		list = append(list, w)
	}
	w := report.Hardest(list)
	if w == nil || w.Kind != weather.Freeze && w.Kind != weather.LateFrost {
		return w
	}
	for d := w.Peak - nightsAround; d <= min(pl.Today, w.Peak+nightsAround); d++ {
		if x, seen := pl.Year.Extremes(d); seen {
			w.Days = append(w.Days, report.Night{Day: d, MinC: quantity.Tenth(x.Min)})
		}
	}
	return w
}

// plantsFor are what is known of the property's plants since a day.
func (h *Room) plantsFor(ctx context.Context, ask *report.Ask, pl *estate.Place) error {
	plants, err := h.Store.Plants(ctx, pl.Property.ID, 0, store.All)
	if err != nil {
		return err
	}
	judged, err := h.Store.JudgedSince(ctx, pl.Property.ID, ask.From.String())
	if err != nil {
		return err
	}
	finds, err := h.Store.Finds(ctx, store.FindsOf{Property: pl.Property.ID, Open: true, Limit: store.All})
	if err != nil {
		return err
	}
	photos, err := h.Store.PhotosSince(ctx, pl.Property.ID, ask.From.String())
	if err != nil {
		return err
	}
	for _, p := range plants {
		out := report.Plant{ID: p.ID, Name: estate.PlantName(estate.EntryOf(pl.Book, p.Species).Common, p.Label), Count: p.Count,
			Form: string(estate.EntryOf(pl.Book, p.Species).Form), HeightM: p.HeightM, SpreadM: p.SpreadM, RowM: p.RowM}
		for i := range judged {
			if v := &judged[i]; v.PlantID == p.ID {
				out.Answer, out.On = &v.Answer.V, store.DayOf(&v.Day)
				if v.Decision == "overruled" {
					out.Own = v.Note
				}
			}
		}
		for _, f := range finds {
			if c := cause.Built().Cause(f.Cause); f.PlantID.Int64 == p.ID && c != nil && !f.Prevent && !f.AlongOf.Valid && ask.Kind != report.Insurer {
				out.Causes = append(out.Causes, c.Name)
			}
		}
		for _, f := range photos {
			if f.PlantID == p.ID {
				out.Photos = append(out.Photos, report.Photo{Hash: f.Hash, Day: store.DayOf(&f.Day)})
			}
		}
		ask.Plants = append(ask.Plants, out)
	}
	return nil
}

// workFor is what was done since a day and what is planned, in the client's words.
func (h *Room) workFor(ctx context.Context, ask *report.Ask, property int64) error {
	done, err := h.Store.DoneBetween(ctx, property, ask.From.String(), ask.Today.String())
	if err != nil {
		return err
	}
	standing, err := h.Store.StandingAt(ctx, property)
	if err != nil {
		return err
	}
	for _, k := range append(done, standing...) {
		words, told := kinds.ForClient(k.Kind, k.Params.V, k.Title)
		if !told {
			continue
		}
		w := report.Work{PlantID: k.PlantID.Int64, Title: words, Day: store.DayOf(k.Day), From: store.DayOf(k.WinFrom), To: store.DayOf(k.WinTo),
			Asked: k.Agreed == "asked"}
		if k.Ended != nil {
			w.Day, w.Done = store.DayOf(k.Ended), true
		}
		ask.Work = append(ask.Work, w)
	}
	return nil
}

// costFor is what the estimate that waits for an answer comes to.
func (h *Room) costFor(ctx context.Context, ask *report.Ask, property int64) error {
	list, err := h.Open(ctx, property)
	for _, e := range list {
		if e.Answers == "open" && !e.Over {
			ask.Cost = "What we advise comes to " + e.Total.Gross.Text(e.Currency, e.Digits) + ": say yes or no to each line of the estimate."
			break
		}
	}
	return err
}

// ReportChange is a report as the firm has gone over it.
type ReportChange struct {
	report.Report
	Version int `json:"version"`
}

// ChangeReport keeps a draft as it was gone over.
func (h *Room) ChangeReport(ctx context.Context, key store.Key, id int64, in ReportChange, style quantity.Style) (Report, error) {
	return h.turnReport(ctx, key, id, in.Version, func(r *store.Report) error {
		if r.State == sent {
			return store.Refused("it was sent: take it back before it is changed")
		}
		if in.Title == "" {
			return invalid.One("title", in.Title, "is missing")
		}
		r.Body.V = asWritten(r.Body.V, in.Report, style)
		return nil
	})
}

// SendReport has the client's link show a report, or takes it back.
func (h *Room) SendReport(ctx context.Context, key store.Key, id int64, version int, send bool) (Report, error) {
	return h.turnReport(ctx, key, id, version, func(r *store.Report) error {
		if r.State = draft; send {
			r.State = sent
		}
		return nil
	})
}

func (h *Room) turnReport(ctx context.Context, key store.Key, id int64, version int, f func(*store.Report) error) (Report, error) {
	r, err := h.Store.Report(ctx, id)
	if err != nil {
		return Report{}, err
	}
	fault := f(&r)
	r.Version = version
	return store.Once(ctx, h.Store, key, func(tx store.Tx) (Report, error) {
		if fault != nil {
			return Report{}, fault
		}
		kept, err := tx.ChangeReport(ctx, r)
		return tellReport(kept), estate.Stale(err, tellReport)
	})
}

// RemoveReport takes a draft out.
func (h *Room) RemoveReport(ctx context.Context, key store.Key, id int64) error {
	_, err := store.Once(ctx, h.Store, key, func(tx store.Tx) (struct{}, error) { return struct{}{}, tx.RemoveReport(ctx, id) })
	return err
}

// SentPicture is a picture of a report that a link shows; ErrNotFound for any other.
func (h *Room) SentPicture(ctx context.Context, kept, hash string) ([]byte, error) {
	l, err := h.Store.ClientLinkOf(ctx, kept, h.Today().String())
	if err != nil {
		return nil, err
	}
	sent, err := h.SentReports(ctx, l.PropertyID)
	for _, r := range sent {
		for _, s := range r.Sections {
			if slices.ContainsFunc(s.Photos, func(f report.Photo) bool { return f.Hash == hash }) {
				return h.Store.Picture(hash)
			}
		}
	}
	return nil, cmp.Or(err, store.ErrNotFound)
}

// SentReports are those that a client reads by the link: of a year.
func (h *Room) SentReports(ctx context.Context, property int64) ([]Report, error) {
	all, err := h.Reports(ctx, property)
	return slices.DeleteFunc(all, func(r Report) bool { return r.State != sent || r.Day < h.Today()-yearDays }), err
}
