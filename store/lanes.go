package store

import (
	"context"

	"github.com/jmoiron/sqlx"

	"mezzadro/core/job"
)

// LanesOf says which standing jobs the year shows, in which order, and from where on.
type LanesOf struct {
	Property int64    // 0: of all
	Kind     job.Kind // empty: of all
	By       string   // time, property, plant or kind
	NoCare   bool     // none of after-care
	Today    string
	Closing  string   // only those that wait, with a running window that ends by this day; empty: all
	Words    []string // all in the title, the property's name or the plant's label
	From     int
	Limit    int
}

// LaneOrders are the orders that lanes may stand in.
var LaneOrders = map[string]string{
	"time":     "o.listed, o.id",
	"property": "o.property_id, o.listed, o.id",
	"plant":    "o.property_id, o.plant_id, o.listed, o.id",
	"kind":     "o.kind, o.listed, o.id",
}

// Lanes reads a stretch of the standing jobs with all that their curves are made from, and how many there are in all.
func (s *Store) Lanes(ctx context.Context, of LanesOf) (list []OrderFull, total int, err error) {
	where, args := standing, map[string]any{
		"property": of.Property,
		"kind":     of.Kind,
		"today":    of.Today,
		"closing":  of.Closing,
		"limit":    of.Limit,
		"from":     of.From,
	}
	from := ` FROM job_order o `
	if of.Property != 0 {
		where += ` AND o.property_id = :property`
	}
	if of.Kind != "" {
		where += ` AND o.kind = :kind`
	}
	if of.NoCare {
		where += ` AND o.origin <> 'after-care'`
	}
	if of.Closing != "" {
		where += ` AND o.state = 'waiting' AND o.win_to BETWEEN :today AND :closing AND o.win_from <= :today`
	}
	if len(of.Words) > 0 {
		from = orderFrom
	}
	for i, w := range of.Words {
		name := "word" + string(rune('a'+i))
		where += ` AND instr(lower(o.title || ' ' || p.name || ' ' || coalesce(t.label, '')), :` + name + `) > 0`
		args[name] = w
	}
	order := LaneOrders[of.By]
	ids := `SELECT o.id` + from + `WHERE ` + where + ` ORDER BY ` + order + ` LIMIT :limit OFFSET :from`
	query, values, err := sqlx.Named(selectFull+`WHERE o.id IN (`+ids+`) ORDER BY `+order, args)
	if err != nil {
		return nil, 0, err
	}
	if list, err = many[OrderFull](ctx, s.read, query, values...); err != nil {
		return nil, 0, err
	}
	if query, values, err = sqlx.Named(`SELECT count(*)`+from+`WHERE `+where, args); err != nil {
		return nil, 0, err
	}
	total, err = one[int](ctx, s.read, query, values...)
	return list, total, err
}
