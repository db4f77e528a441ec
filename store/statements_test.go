package store

import (
	"context"
	"fmt"
	"os"
	"path/filepath"
	"testing"
)

// keptBy is how many statements a connection of the record keeps, told from inside it.
func keptBy(t testing.TB, s *Store) (n int) {
	t.Helper()
	c, err := s.write.Conn(ctx)
	if err != nil {
		t.Fatal(err)
	}
	defer c.Close()
	if err := c.Raw(func(conn any) error { n = len(conn.(*keeper).free); return nil }); err != nil {
		t.Fatal(err)
	}
	return n
}

// TestStatementsAreKept: a text that is asked again needs no reading; another one does; and no connection keeps more than so many.
func TestStatementsAreKept(t *testing.T) {
	s := open(t, t.TempDir())
	ask := func(of, want int) {
		t.Helper()
		var got int
		if err := s.write.GetContext(ctx, &got, fmt.Sprintf(`SELECT ? + %d`, of), 1); err != nil || got != want {
			t.Errorf("1 + %d is %d, %v", of, got, err)
		}
	}
	before := keptBy(t, s)
	for range 3 {
		ask(1, 2)
	}
	if n := keptBy(t, s); n != before+1 {
		t.Errorf("%d statements more are kept of one text", n-before)
	}
	for n := range 2 * statementsKept {
		ask(n, n+1)
	}
	if n := keptBy(t, s); n > statementsKept {
		t.Errorf("%d statements are kept", n)
	}
}

// TestStatementsWithinEachOther: the same text is asked while the rows of the first are still read, each with its own values.
func TestStatementsWithinEachOther(t *testing.T) {
	s := open(t, t.TempDir())
	const text = `SELECT n FROM (SELECT 1 AS n UNION ALL SELECT 2 UNION ALL SELECT 3) WHERE n >= ? ORDER BY n`
	var seen []int
	err := s.Write(ctx, func(tx Tx) error {
		rows, err := tx.QueryContext(ctx, text, 1)
		if err != nil {
			return err
		}
		for rows.Next() {
			var n int
			if err := rows.Scan(&n); err != nil {
				return err
			}
			var inner []int
			if err := tx.SelectContext(ctx, &inner, text, n); err != nil {
				return err
			}
			seen = append(seen, len(inner))
		}
		return rows.Close()
	})
	if err != nil || fmt.Sprint(seen) != "[3 2 1]" {
		t.Errorf("%v, %v", seen, err)
	}
}

// TestStatementsAfterAFault: one that was refused, called off, or whose table has changed since answers as a new one does.
func TestStatementsAfterAFault(t *testing.T) {
	s := open(t, t.TempDir())
	p, _ := grounds(t, s)
	const text = `INSERT INTO note_of (id) VALUES (?)`
	exec := func(query string, args ...any) error { _, err := s.write.ExecContext(ctx, query, args...); return err }
	if err := exec(`CREATE TABLE note_of (id INTEGER PRIMARY KEY)`); err != nil {
		t.Fatal(err)
	}
	if err := exec(text, p.ID); err != nil {
		t.Fatal(err)
	}
	if err := exec(text, p.ID); err == nil {
		t.Error("the same number twice is accepted")
	}
	if err := exec(text, p.ID+1); err != nil {
		t.Errorf("after a refusal: %v", err)
	}
	over, cancel := context.WithCancel(ctx)
	cancel()
	if _, err := s.write.ExecContext(over, text, p.ID+2); err == nil {
		t.Error("what was called off is written")
	}
	var before, after []struct {
		ID   int64
		Text *string
	}
	const all = `SELECT * FROM note_of ORDER BY id`
	if err := s.write.SelectContext(ctx, &before, all); err != nil || len(before) != 2 {
		t.Errorf("%d, %v", len(before), err)
	}
	if err := exec(`ALTER TABLE note_of ADD COLUMN text TEXT DEFAULT 'new'`); err != nil {
		t.Fatal(err)
	}
	if err := s.write.SelectContext(ctx, &after, all); err != nil || len(after) != 2 || after[0].Text == nil {
		t.Errorf("after the table has a column more: %+v, %v", after, err)
	}
}

// TestStatementsLetGo: a record that is closed leaves nothing open, so that its log is folded into its file.
func TestStatementsLetGo(t *testing.T) {
	folder := t.TempDir()
	s := open(t, folder)
	grounds(t, s)
	if _, err := s.Properties(ctx, 0, 10); err != nil {
		t.Fatal(err)
	}
	if err := s.Close(); err != nil {
		t.Fatal(err)
	}
	if _, err := os.Stat(filepath.Join(folder, recordFile+"-wal")); !os.IsNotExist(err) {
		t.Errorf("the log is still there: %v", err)
	}
}

// BenchmarkAskAgain asks the same of one plant, with the statement kept and without.
func BenchmarkAskAgain(b *testing.B) {
	s := open(b, b.TempDir())
	_, plant := grounds(b, s)
	for _, kept := range []bool{true, false} {
		b.Run(fmt.Sprintf("kept=%v", kept), func(b *testing.B) {
			for b.Loop() {
				if !kept {
					c, err := s.read.Conn(ctx)
					if err == nil {
						err = c.Raw(func(conn any) error { return conn.(interface{ drop() error }).drop() })
					}
					if err != nil || c.Close() != nil {
						b.Fatal(err)
					}
				}
				if _, err := s.Plant(ctx, plant.ID); err != nil {
					b.Fatal(err)
				}
			}
		})
	}
}
