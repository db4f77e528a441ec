package store

import (
	"context"
	"errors"
	"fmt"
	"io/fs"
	"os"
	"slices"
)

// Removed is something that was taken out of sight, and may come back or be erased for good.
type Removed struct {
	Kind string `db:"kind"`
	ID   int64  `db:"id"`
	Name string `db:"name"`
	Of   string `db:"of"` // the property it was of; empty for a property and for people
	At   string `db:"at"`
}

// Erasable are the kinds of what can be erased for good, with their tables.
var Erasable = map[string]string{
	"property": "property", "plant": "plant", "photo": "photo", "order-photo": "order_photo", "person": "person", "account": "account", "client": "client",
}

// Removed lists what is out of sight, the latest first. What hangs on a property that is removed is not told beside it.
func (s *Store) Removed(ctx context.Context, limit int) ([]Removed, error) {
	return many[Removed](ctx, s.read, `
		SELECT 'property' AS kind, id, name, '' AS of, removed_at AS at FROM property WHERE removed_at IS NOT NULL
		UNION ALL SELECT 'plant', t.id, t.species || CASE t.label WHEN '' THEN '' ELSE ', ' || t.label END, p.name, t.removed_at
			FROM plant t JOIN property p ON p.id = t.property_id WHERE t.removed_at IS NOT NULL AND p.removed_at IS NULL
		UNION ALL SELECT 'photo', f.id, t.species || ', ' || w.day, p.name, f.removed_at
			FROM photo f JOIN walk w ON w.id = f.walk_id JOIN plant t ON t.id = f.plant_id JOIN property p ON p.id = t.property_id
			WHERE f.removed_at IS NOT NULL AND t.removed_at IS NULL AND p.removed_at IS NULL
		UNION ALL SELECT 'order-photo', f.id, o.title, p.name, f.removed_at
			FROM order_photo f JOIN job_order o ON o.id = f.order_id JOIN property p ON p.id = o.property_id
			WHERE f.removed_at IS NOT NULL AND p.removed_at IS NULL
		UNION ALL SELECT 'person', id, name, '', removed_at FROM person WHERE removed_at IS NOT NULL AND name <> ?1
		UNION ALL SELECT 'client', id, name, '', removed_at FROM client WHERE removed_at IS NOT NULL AND name <> ?1
		UNION ALL SELECT 'account', id, name, '', removed_at FROM account WHERE removed_at IS NOT NULL AND name <> ?1
		ORDER BY at DESC, id DESC LIMIT ?2`, erasedName, limit)
}

// erasedName stands for a person whose name was erased: what they did stays, told of nobody.
const erasedName = "(erased)"

// ErrInSight is answered for what stands in the record still.
var ErrInSight = Refused("it is in sight still: remove it first")

// Erased tells what went out of the record.
type Erased struct {
	Rows     map[string]int
	Pictures int
}

// Erase takes out of the record for good what was removed, with all that hangs on it: rows, and pictures that nothing
// else tells of. Of people only the names go: what they did is the firm's record.
func (s *Store) Erase(ctx context.Context, kind string, id int64) (Erased, error) {
	out := Erased{Rows: map[string]int{}}
	table, known := Erasable[kind]
	if !known {
		return out, ErrNotFound
	}
	var before []string
	err := s.Write(ctx, func(tx Tx) error {
		tx.touched.plants, tx.touched.firm = true, true
		gone, err := one[int](ctx, tx, `SELECT removed_at IS NOT NULL FROM `+table+` WHERE id = ?`, id)
		if err != nil {
			return err
		}
		if gone == 0 {
			return ErrInSight
		}
		if before, err = pictures(ctx, tx); err != nil {
			return err
		}
		if err := tx.forget(ctx); err != nil {
			return err
		}
		if kind == "client" {
			return tx.unnameClient(ctx, id)
		}
		if kind == "person" || kind == "account" {
			return tx.unname(ctx, kind, id)
		}
		if kind == "plant" {
			if err := tx.ordersOfOne(ctx, id, out.Rows); err != nil {
				return err
			}
		}
		return tx.erase(ctx, table, "id = ?", []any{id}, out.Rows)
	})
	if err != nil {
		return out, err
	}
	for _, q := range []string{`VACUUM`, `PRAGMA wal_checkpoint(TRUNCATE)`} { // deleted rows lie in the file until it is written anew
		if _, err := s.write.ExecContext(ctx, q); err != nil {
			return out, fmt.Errorf("it is out of the record; the file could not be written anew: %w", err)
		}
	}
	left, err := pictures(ctx, s.read)
	if err != nil {
		return out, err
	}
	out.Pictures, err = s.dropPictures(before, left)
	return out, err
}

// forget drops the answers kept for retries and the rounds that were proposed, which tell of anything.
func (tx Tx) forget(ctx context.Context) error {
	for _, q := range []string{`DELETE FROM once`, `DELETE FROM proposal`} {
		if _, err := tx.ExecContext(ctx, q); err != nil {
			return err
		}
	}
	return nil
}

// unname takes a name away, and what signs in by it.
func (tx Tx) unname(ctx context.Context, kind string, id int64) error {
	for _, q := range map[string][]string{
		"person": {`UPDATE person SET name = '` + erasedName + `', skills = '[]' WHERE id = ?`},
		"account": {
			`DELETE FROM practice WHERE by_name = (SELECT name FROM account WHERE id = ?)`,
			`DELETE FROM invitation WHERE account_id = ?`,
			`DELETE FROM passkey WHERE account_id = ?`,
			`UPDATE deed SET name = '` + erasedName + `' WHERE account_id = ?`,
			`UPDATE account SET name = '` + erasedName + `', login = 'erased-' || id, hash = '' WHERE id = ?`,
		},
	}[kind] {
		if _, err := tx.ExecContext(ctx, q, id); err != nil {
			return err
		}
	}
	return nil
}

// unnameClient takes away who a client was and how they were reached, wherever it stands: what they were offered and charged
// stays, told of nobody.
func (tx Tx) unnameClient(ctx context.Context, id int64) error {
	list, err := many[Estimate](ctx, tx, selectEstimate+`WHERE e.client_id = ?`, id)
	if err != nil {
		return err
	}
	for _, e := range list {
		for _, l := range e.Body.V.Lines {
			if l.Answer != nil {
				l.Answer.Name, l.Answer.Remark = erasedName, ""
			}
		}
		if _, err := tx.ExecContext(ctx, `UPDATE estimate SET body = ? WHERE id = ?`, e.Body, e.ID); err != nil {
			return err
		}
	}
	for _, q := range []string{
		`UPDATE client_answer SET body = json_set(body, '$.name', '` + erasedName + `', '$.remark', '')
			WHERE estimate_id IN (SELECT id FROM estimate WHERE client_id = ?)`,
		`DELETE FROM estimate_sent WHERE estimate_id IN (SELECT id FROM estimate WHERE client_id = ?)`,
		`UPDATE letter SET addressee = '` + erasedName + `', mail_to = '[]', body = '', subject = ''
			WHERE receipt <> '' AND EXISTS (SELECT 1 FROM client c WHERE c.id = ? AND c.email <> '' AND instr(letter.mail_to, c.email) > 0)`,
		`UPDATE job_order SET note = 'Declined' WHERE agreed = 'declined' AND property_id IN (SELECT property_id FROM client_of WHERE client_id = ?)`,
		`DELETE FROM client_of WHERE client_id = ?`,
		`UPDATE client SET name = '` + erasedName + `', phone = '', email = '', address = '', note = '' WHERE id = ?`,
	} {
		if _, err := tx.ExecContext(ctx, q, id); err != nil {
			return err
		}
	}
	return nil
}

// ordersOfOne erases the jobs that were on one plant alone, and has those on several begin with another.
func (tx Tx) ordersOfOne(ctx context.Context, plant int64, rows map[string]int) error {
	if err := tx.erase(ctx, "job_order", `id IN (SELECT order_id FROM order_plant WHERE plant_id = ?1)
		AND id NOT IN (SELECT order_id FROM order_plant WHERE plant_id <> ?1)`, []any{plant}, rows); err != nil {
		return err
	}
	_, err := tx.ExecContext(ctx, `UPDATE job_order SET plant_id = (SELECT min(plant_id) FROM order_plant
		WHERE order_id = job_order.id AND plant_id <> ?1) WHERE plant_id = ?1`, plant)
	return err
}

type reference struct {
	Table string `db:"table"`
	From  string `db:"from"`
	To    string `db:"to"`
	Must  bool   `db:"must"`
}

// owning are the columns by which a row is of something, and goes with it; by others it only points at it.
var owning = []string{"property_id", "plant_id", "walk_id"}

// erase deletes rows of a table, after what hangs on them: rows that are theirs go too, others forget what they point at.
func (tx Tx) erase(ctx context.Context, table, where string, args []any, rows map[string]int) error {
	refs, err := many[reference](ctx, tx, `SELECT m.name AS "table", f."from", f."to", c."notnull" AS must
		FROM sqlite_master m, pragma_foreign_key_list(m.name) f JOIN pragma_table_info(m.name) c ON c.name = f."from"
		WHERE m.type = 'table' AND f."table" = ?`, table)
	if err != nil {
		return err
	}
	for _, r := range refs {
		hangs := fmt.Sprintf(`"%s" IN (SELECT "%s" FROM "%s" WHERE %s)`, r.From, r.To, table, where)
		switch {
		case r.Table == table || !r.Must && !slices.Contains(owning, r.From):
			_, err = tx.ExecContext(ctx, fmt.Sprintf(`UPDATE "%s" SET "%s" = NULL WHERE %s`, r.Table, r.From, hangs), args...)
		default:
			err = tx.erase(ctx, r.Table, hangs, args, rows)
		}
		if err != nil {
			return fmt.Errorf("%s.%s: %w", r.Table, r.From, err)
		}
	}
	if table == "plant" || table == "job_order" { // deeds point at them without being bound
		column := map[string]string{"plant": "plant_id", "job_order": "order_id"}[table]
		if _, err := tx.ExecContext(ctx, fmt.Sprintf(`UPDATE deed SET %s = NULL WHERE %s IN (SELECT id FROM "%s" WHERE %s)`,
			column, column, table, where), args...); err != nil {
			return err
		}
	}
	done, err := tx.ExecContext(ctx, fmt.Sprintf(`DELETE FROM "%s" WHERE %s`, table, where), args...)
	if err != nil {
		return fmt.Errorf("%s: %w", table, err)
	}
	n, err := done.RowsAffected()
	if n > 0 {
		rows[table] += int(n)
	}
	return err
}

// dropPictures removes the files of pictures that were told of before and are by nothing now.
func (s *Store) dropPictures(before, left []string) (n int, err error) {
	slices.Sort(before)
	for _, hash := range slices.Compact(before) {
		if !hashed.MatchString(hash) || slices.Contains(left, hash) {
			continue
		}
		switch e := os.Remove(s.file(hash, "jpg")); {
		case e == nil:
			n++
		case !errors.Is(e, fs.ErrNotExist):
			err = errors.Join(err, e)
		}
	}
	return n, err
}

// PictureInSight reports a picture that something in sight tells of, or nothing yet: one that was removed is neither.
func (s *Store) PictureInSight(ctx context.Context, hash string) (bool, error) {
	return one[bool](ctx, s.read, `SELECT NOT (EXISTS (SELECT 1 FROM photo WHERE hash = ?1) OR EXISTS (SELECT 1 FROM order_photo WHERE hash = ?1))
		OR EXISTS (SELECT 1 FROM photo WHERE hash = ?1 AND removed_at IS NULL)
		OR EXISTS (SELECT 1 FROM order_photo WHERE hash = ?1 AND removed_at IS NULL)
		OR EXISTS (SELECT 1 FROM unnamed u, json_each(u.pictures) p WHERE p.value = ?1)
		OR EXISTS (SELECT 1 FROM site_plan WHERE json_extract(body, '$.underlay.photo') = ?1)`, hash)
}
