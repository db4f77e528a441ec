package store

import (
	"context"
	"encoding/json"
	"sync"

	"modernc.org/sqlite"
)

// All standing orders are asked for often, and a write changes few of them: they are kept as they were read last, with
// the rows that were written since. What is told of an order comes from these tables.
const (
	tableOrder    = "job_order"
	tablePlant    = "plant"
	tableProperty = "property"
	tableCrew     = "crew"
	tableStint    = "order_stint"
	tablePlants   = "order_plant"
)

// stands is standing for orders that are found by their ids: SQLite would rather go through all that stand (+).
const stands = `+o.in_sight = 1 AND +o.state IN ('waiting', 'on a day')`

// rowsAnew is from how many written rows on all are read anew.
const rowsAnew = 1000

// written are rows of the record that standing orders are told by: of the write under way, and since they were read.
type written struct {
	mu         sync.Mutex
	open, done map[string]map[int64]bool // by table; of what hangs on an order, the order's id
}

// hear keeps which row is written. It is called by the connection that writes, before each row.
func (w *written) hear(row sqlite.SQLitePreUpdateData) {
	table, ids := row.TableName, []int64{row.OldRowID, row.NewRowID}
	switch table {
	default:
		return
	case tableOrder, tablePlant, tableProperty, tableCrew:
	case tableStint:
		table, ids = tableOrder, columns(row, 1)
	case tablePlants:
		table, ids = tableOrder, columns(row, 0)
	}
	w.mu.Lock()
	defer w.mu.Unlock()
	if w.open == nil {
		w.open = map[string]map[int64]bool{}
	}
	if w.open[table] == nil {
		w.open[table] = map[int64]bool{}
	}
	for _, id := range ids {
		w.open[table][id] = true
	}
}

// columns are the numbers in a column of a row before and after the write.
func columns(row sqlite.SQLitePreUpdateData, at int) (out []int64) {
	for _, read := range []func(...any) error{row.Old, row.New} {
		dest := make([]any, at+1)
		if read(dest...) != nil {
			continue // there is none before a row that is added, nor after one that goes
		}
		if id, is := dest[at].(int64); is {
			out = append(out, id)
		}
	}
	return out
}

// ended takes what a write has written as kept, or forgets it.
func (w *written) ended(kept bool) {
	w.mu.Lock()
	defer w.mu.Unlock()
	if kept && w.done == nil {
		w.done = w.open
	} else if kept {
		for table, ids := range w.open {
			if w.done[table] == nil {
				w.done[table] = ids
				continue
			}
			for id := range ids {
				w.done[table][id] = true
			}
		}
	}
	w.open = nil
}

// take is what was written since it was taken last.
func (w *written) take() map[string]map[int64]bool {
	w.mu.Lock()
	defer w.mu.Unlock()
	out := w.done
	w.done = nil
	return out
}

// standingKept are the standing orders as they were read last, by id.
type standingKept struct {
	mu   sync.Mutex
	read bool
	list []*OrderFull
}

// StandingOrders are all that stand with all that they ask, by id. They are shared and read only: an order is the same
// one as long as nothing is written that it is told by, and then another.
func (s *Store) StandingOrders(ctx context.Context) ([]*OrderFull, error) {
	k := &s.standing
	k.mu.Lock()
	defer k.mu.Unlock()
	rows := s.written.take()
	count := 0
	for _, ids := range rows {
		count += len(ids)
	}
	if k.read && count == 0 {
		return k.list, nil
	}
	anew := !k.read || count > rowsAnew || len(rows[tableCrew]) > 0
	k.read = false // until it is read, whatever comes between
	query, args := selectFull+`WHERE `+standing+` ORDER BY o.id`, []any(nil)
	if !anew {
		query = selectFull + `WHERE o.id IN (SELECT value FROM json_each(?1)
				UNION SELECT x.id FROM json_each(?2) CROSS JOIN job_order x ON x.plant_id = value
				UNION SELECT x.id FROM json_each(?3) CROSS JOIN job_order x ON x.property_id = value)
			AND ` + stands + ` ORDER BY o.id`
		args = []any{idList(rows[tableOrder]), idList(rows[tablePlant]), idList(rows[tableProperty])}
	}
	rowsNow, err := many[OrderFull](ctx, s.read, query, args...)
	if err != nil {
		return nil, err
	}
	list := make([]*OrderFull, 0, len(rowsNow))
	for i := range rowsNow {
		list = append(list, &rowsNow[i])
	}
	if !anew {
		list = merged(k.list, list, func(o *OrderFull) bool {
			return rows[tableOrder][o.ID] || o.PlantID.Valid && rows[tablePlant][o.PlantID.Int64] || rows[tableProperty][o.PropertyID]
		})
	}
	k.list, k.read = list, true
	return list, nil
}

// merged is a list less what was written, with what that is now; both are in the order of their ids, as is what comes.
func merged(list, now []*OrderFull, written func(*OrderFull) bool) []*OrderFull {
	out := make([]*OrderFull, 0, len(list)+len(now))
	for _, k := range list {
		if written(k) {
			continue
		}
		for len(now) > 0 && now[0].ID < k.ID {
			out, now = append(out, now[0]), now[1:]
		}
		out = append(out, k)
	}
	return append(out, now...)
}

// idList are ids as SQLite reads a list of them.
func idList(ids map[int64]bool) string {
	list := make([]int64, 0, len(ids))
	for id := range ids {
		list = append(list, id)
	}
	text, _ := json.Marshal(list) // numbers can always be written
	return string(text)
}
