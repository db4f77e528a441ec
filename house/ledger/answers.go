package ledger

import (
	"context"
	"slices"
	"strings"
	"time"

	"mezzadro/core/day"
	"mezzadro/core/estimate"
	"mezzadro/core/job"
	"mezzadro/house/estate"
	"mezzadro/store"
)

// AnswerIn is what a client says to a line.
type AnswerIn struct {
	Line    int    `json:"line" minimum:"1"`
	Edition int    `json:"edition" minimum:"1" doc:"That was read: another one may have come meanwhile"`
	Yes     bool   `json:"yes" doc:"It is agreed; else it is declined"`
	Name    string `json:"name" maxLength:"120" doc:"Who says it"`
	Remark  string `json:"remark,omitempty" maxLength:"1000"`
}

// Answer keeps what a client said to a line of an estimate, by the property's link or told the firm: the job is agreed, or
// it goes, and with it the rest of its course. An answer can be given anew while the estimate holds.
func (h *Room) Answer(ctx context.Context, key store.Key, id int64, in AnswerIn, way string) (Estimate, error) {
	var property int64
	out, err := store.Once(ctx, h.Store, key, func(tx store.Tx) (Estimate, error) {
		e, err := tx.Estimate(ctx, id)
		if err != nil {
			return Estimate{}, err
		}
		property = e.PropertyID
		switch {
		case e.State != sent:
			return Estimate{}, store.Refused("this estimate is being changed or was withdrawn: it cannot be answered now")
		case in.Edition != e.Edition:
			return Estimate{}, store.Refused("the estimate was changed meanwhile: read it again")
		case store.DayOf(&e.Until) < h.Today():
			return Estimate{}, store.Refused("this estimate is over: ask for a new one")
		}
		a := estimate.Answer{Yes: in.Yes, Name: strings.TrimSpace(in.Name), Remark: strings.TrimSpace(in.Remark), On: h.Today(), Way: way}
		lines := slices.Clone(e.Body.V.Lines)
		if err := estimate.Said(lines, in.Line, a); err != nil {
			return Estimate{}, err
		}
		k := slices.IndexFunc(lines, func(l estimate.Line) bool { return l.ID == in.Line })
		e.Body.V.Lines = lines
		kept, err := tx.ChangeEstimate(ctx, e)
		if err != nil {
			return Estimate{}, err
		}
		if err := tx.AddAnswer(ctx, kept, in.Line, lines[k].Order, *lines[k].Answer, h.Now().Unix()); err != nil {
			return Estimate{}, err
		}
		said, why := "agreed", ""
		if !in.Yes {
			said, why = "declined", "Declined by "+a.Name
			if a.Remark != "" {
				why += ": " + a.Remark
			}
		}
		return h.tell(kept), h.agree(ctx, tx, lines[k], said, why)
	})
	if err != nil || property == 0 {
		return out, err
	}
	return out, h.Work.RefreshProperty(ctx, property)
}

// agree notes how far the job of a line is agreed. One that is declined goes, with what its course holds beside it; one
// that was declined and is asked for or agreed anew comes back. What is done stays done.
func (h *Room) agree(ctx context.Context, tx store.Tx, l estimate.Line, said, why string) error {
	if l.Order == 0 {
		return nil
	}
	k, err := tx.Order(ctx, l.Order)
	if err == store.ErrNotFound {
		return nil // it was dropped meanwhile: there is nothing to agree on
	}
	if err != nil || k.State == job.Done {
		return err
	}
	was := k.Agreed
	if err := tx.SetAgreed(ctx, k.ID, said); err != nil {
		return err
	}
	switch {
	case said == "declined" && k.State != job.Skipped:
		return h.declined(ctx, tx, k, why)
	case said != "declined" && was == "declined" && k.State == job.Skipped:
		return h.back(ctx, tx, k)
	}
	return nil
}

// declined ends a job that its client does not want, and what stands of its course.
func (h *Room) declined(ctx context.Context, tx store.Tx, k store.OrderFull, why string) error {
	list := []store.OrderFull{k}
	if k.Origin == job.Programme {
		course, err := tx.Programme(ctx, k.OriginID)
		if err != nil {
			return err
		}
		for _, o := range course {
			if o.ID != k.ID && o.Agreed != "agreed" {
				list = append(list, o)
			}
		}
	}
	today := h.Today().String()
	for _, o := range list {
		if _, err := tx.SetStand(ctx, o.ID, o.Version, store.Stand{State: job.Skipped, Day: o.Day, Crew: o.Crew, CrewID: o.CrewID,
			Place: o.Place, DayCost: o.DayCost, Ended: &today, Note: why}); err != nil {
			return err
		}
		if err := tx.SetAgreed(ctx, o.ID, "declined"); err != nil {
			return err
		}
	}
	return nil
}

// back has a job stand again that had gone with a no, and what of its course went with it.
func (h *Room) back(ctx context.Context, tx store.Tx, k store.OrderFull) error {
	list := []store.OrderFull{k}
	if k.Origin == job.Programme {
		course, err := tx.Declined(ctx, k.OriginID, k.Note)
		if err != nil {
			return err
		}
		for _, o := range course {
			if o.ID != k.ID {
				list = append(list, o)
			}
		}
	}
	for _, o := range list {
		if _, err := tx.SetStand(ctx, o.ID, o.Version, store.Stand{State: job.Waiting, DayCost: job.Never.Int()}); err != nil {
			return err
		}
		if o.ID != k.ID {
			if err := tx.SetAgreed(ctx, o.ID, ""); err != nil {
				return err
			}
		}
	}
	return nil
}

// Open are the estimates of a property that its clients can answer, and those that they have answered within a year.
func (h *Room) Open(ctx context.Context, property int64) ([]Estimate, error) {
	all, err := h.Estimates(ctx, property)
	if err != nil {
		return nil, err
	}
	return slices.DeleteFunc(all, func(e Estimate) bool { return e.State != sent || e.Until < h.Today()-day.Day(yearDays) }), nil
}

const yearDays = 365

// Now is the time: the clock's, or the early morning of the sample's day.
func (h *Room) Now() time.Time {
	if h.Clock != nil {
		return h.Clock()
	}
	return h.Today().Time().Add(estate.Morning)
}
