package standing

import (
	"context"
	"database/sql"
	"slices"
	"time"

	"mezzadro/core/day"
	"mezzadro/core/job"
	"mezzadro/core/rounds"
	"mezzadro/house/estate"
	"mezzadro/house/work"
	"mezzadro/store"
)

// aheadDays is how far ahead jobs are made of standing visits: as far as rounds are planned.
const aheadDays = 62

// Ahead makes the jobs of all days that have come near since, and ends those that nobody did before the next time came.
func (h *Room) Ahead(ctx context.Context) error {
	today := h.Today()
	missed, err := h.Store.StandingMissed(ctx, today.String())
	if err != nil {
		return err
	}
	list, err := h.Store.StandingVisits(ctx, 0)
	if err != nil {
		return err
	}
	rows, err := h.Store.StandingDays(ctx, (today - aheadDays).String())
	if err != nil {
		return err
	}
	short := slices.DeleteFunc(list, func(v store.StandingVisit) bool {
		every := v.Body.V.Visits(today, today+aheadDays, func(day.Day) bool { return true })
		return !slices.ContainsFunc(every, func(d job.Visit) bool { return !made(rows, v, d.Regular) })
	})
	if len(missed)+len(short) == 0 {
		return nil
	}
	at := make([]where, len(short))
	for i, v := range short {
		if at[i], err = h.where(ctx, v.PropertyID, v.CrewID); err != nil {
			return err
		}
	}
	return h.Store.Write(ctx, func(tx store.Tx) error {
		for _, k := range missed {
			if err := h.missed(ctx, tx, k); err != nil {
				return err
			}
		}
		for i, v := range short {
			if err := h.make(ctx, tx, v.ID, at[i]); err != nil {
				return err
			}
		}
		return nil
	})
}

// missed ends a visit that nobody made.
func (h *Room) missed(ctx context.Context, tx store.Tx, k store.OrderFull) error {
	today := h.Today().String()
	_, err := tx.SetStand(
		ctx,
		k.ID,
		k.Version,
		store.Stand{State: job.Skipped, Day: k.Day, Crew: k.Crew, CrewID: k.CrewID, Place: k.Place,
			DayCost: k.DayCost, Ended: &today, Note: "Nobody was there before the next time came."},
	)
	return err
}

// Watch makes jobs as days go by, until the context ends.
func (h *Room) Watch(ctx context.Context, every time.Duration) {
	tick := time.NewTicker(every)
	defer tick.Stop()
	for {
		if err := h.Ahead(ctx); err != nil && ctx.Err() == nil {
			h.Log.ErrorContext(ctx, "standing visits", "error", err)
		}
		select {
		case <-ctx.Done():
			return
		case <-tick.C:
		}
	}
}

// clear drops the jobs to come of a standing visit, but for those that somebody pinned; their days are made anew.
func (h *Room) clear(ctx context.Context, tx store.Tx, id int64) error {
	rows, err := tx.DaysOfStanding(ctx, id, h.Today().String())
	if err != nil {
		return err
	}
	for _, d := range rows {
		if d.OrderID.Valid {
			k, err := tx.Order(ctx, d.OrderID.Int64)
			stands, err := store.There(err)
			if err != nil {
				return err
			}
			if stands && (k.State == job.Done || k.State == job.Skipped || k.Pinned) {
				continue
			}
			if stands && k.State != job.Dropped {
				if err := tx.DropOrder(ctx, k.ID, k.Version); err != nil {
					return err
				}
			}
		}
		if err := tx.ForgetStandingDay(ctx, d); err != nil {
			return err
		}
	}
	return nil
}

// made reports that a day of a standing visit was made a job already, or lies near one that was.
func made(rows []store.StandingDay, v store.StandingVisit, regular day.Day) bool {
	near := day.Day(7*v.Body.V.Every+1) / 2
	return slices.ContainsFunc(rows, func(d store.StandingDay) bool {
		off := store.DayOf(&d.Day) - regular
		return d.StandingID == v.ID && max(off, -off) < near
	})
}

// make makes the jobs of a standing visit's next days that have none, but near those that are pinned or done.
func (h *Room) make(ctx context.Context, tx store.Tx, id int64, at where) error {
	v, err := tx.StandingVisit(ctx, id)
	if err != nil {
		return err
	}
	rows, err := tx.DaysOfStanding(ctx, id, (h.Today() - aheadDays).String())
	if err != nil {
		return err
	}
	today := h.Today()
	for _, c := range v.Body.V.Visits(today, today+aheadDays, at.open) {
		if made(rows, v, c.Regular) {
			continue
		}
		row := store.StandingDay{StandingID: id, Day: c.Regular.String()}
		if c.On.Given() {
			order, err := h.order(ctx, tx, v, c, at.place)
			if err != nil {
				return err
			}
			row.OrderID = sql.NullInt64{Int64: order, Valid: true}
		}
		if err := tx.SetStandingDay(ctx, row); err != nil {
			return err
		}
	}
	return nil
}

// where is what making the jobs of a standing visit needs to know of its property and its crew.
type where struct {
	place *estate.Place
	open  func(day.Day) bool // the crew works, and the property is open
}

func (h *Room) where(ctx context.Context, property, crew int64) (where, error) {
	crews, err := h.Store.Crews(ctx)
	if err != nil {
		return where{}, err
	}
	access, err := h.Store.AccessOf(ctx, property)
	if err != nil {
		return where{}, err
	}
	pl, err := h.Place(ctx, property)
	i := slices.IndexFunc(crews, func(c store.Crew) bool { return c.ID == crew })
	return where{pl, func(on day.Day) bool {
		if i < 0 {
			return false // the crew was removed
		}
		b, weekday := crews[i].Body.V, on.Weekday()
		if b.Hours[weekday].To <= b.Hours[weekday].From || slices.Contains(b.Off, on) ||
			slices.Contains(access.Shut, int(weekday)) {
			return false
		}
		return access.Hours == [7]rounds.Span{} || access.Hours[weekday].To > access.Hours[weekday].From
	}}, err
}

// order makes the job of a day and puts it there.
func (h *Room) order(
	ctx context.Context,
	tx store.Tx,
	v store.StandingVisit,
	c job.Visit,
	pl *estate.Place,
) (int64, error) {
	b := v.Body.V
	n := store.NewOrder{PropertyID: v.PropertyID, OriginID: v.ID, Order: job.Order{
		Key: "standing", Kind: job.Care, Title: b.Title, Origin: job.Plan, For: c.Regular, Minutes: b.Minutes, Crew: b.People,
		Params: job.Params{
			Spans: b.Spans(c.Regular),
		}, Skills: []string{}, Kit: []string{}, Reasons: []string{}, Cautions: []string{},
	}}
	curve := pl.Curve(n.Order, []string{""})
	n.Outlook = curve.Outlook(pl.Today)
	id, err := tx.AddOrder(ctx, n)
	if err != nil {
		return 0, err
	}
	on := c.On.String()
	if _, err := work.PutOn(ctx, tx, id, 1, store.Stand{State: job.Placed, Day: &on, Crew: v.Crew, CrewID: v.CrewID, DayCost: curve.On(c.On).Int()}); err != nil {
		return 0, err
	}
	if err := tx.SetAgreed(ctx, id, "agreed"); err != nil { // the client has asked for it, once and for all
		return 0, err
	}
	if b.Known && c.On == c.Regular {
		return id, tx.Told(ctx, id, true)
	}
	return id, nil
}
