package store

import (
	"archive/zip"
	"bufio"
	"context"
	"encoding/csv"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"io/fs"
	"os"
	"path"
	"path/filepath"
	"slices"
	"strconv"
	"strings"
	"time"
	"unicode/utf8"
)

// Of a whole record in open formats.
const (
	everythingFormat = 1
	everythingHead   = "everything.json"
	tablesFolder     = "tables/"
	picturesFolder   = "photos/"
	noValue          = `\N` // as databases write what is not there
)

// kept apart are tables of who gets in: passwords, sessions and links stay with the machine they were made on.
var keptApart = []string{"account", "invitation", "passkey", "session", "client_link", "mail", "deed", "once", "backup_done", "goose_db_version", "sqlite_sequence"}

// Everything says what a zip of a whole record holds.
type Everything struct {
	Format  int            `json:"format"`
	Made    time.Time      `json:"made"`
	Version int64          `json:"version"` // of the tables
	Rows    map[string]int `json:"rows"`
}

// GiveEverything writes all tables of the record as CSV, with all pictures, into a zip that others have begun. Nothing
// of who may sign in goes out.
func (s *Store) GiveEverything(ctx context.Context, made time.Time, z *zip.Writer) (Everything, error) {
	out := Everything{Format: everythingFormat, Made: made.UTC(), Rows: map[string]int{}}
	tx, err := s.read.BeginTxx(ctx, nil) // one moment of the record
	if err != nil {
		return out, err
	}
	defer func() { _ = tx.Rollback() }() // it only read
	t := Tx{tx, &touches{}}
	if out.Version, err = one[int64](ctx, t, `SELECT max(version_id) FROM goose_db_version WHERE is_applied = 1`); err != nil {
		return out, err
	}
	names, err := t.tables(ctx)
	for _, name := range names {
		if err == nil {
			out.Rows[name], err = t.giveTable(ctx, z, name)
		}
	}
	if err == nil {
		err = s.givePictures(z)
	}
	if err != nil {
		return out, err
	}
	head, err := json.MarshalIndent(out, "", " ")
	if err != nil {
		return out, err
	}
	w, err := z.Create(everythingHead)
	if err == nil {
		_, err = w.Write(head)
	}
	return out, err
}

// tables are those that go out, by name.
func (tx Tx) tables(ctx context.Context) ([]string, error) {
	names, err := many[string](ctx, tx, `SELECT name FROM sqlite_master WHERE type = 'table' ORDER BY name`)
	return slices.DeleteFunc(names, func(n string) bool { return slices.Contains(keptApart, n) || strings.HasPrefix(n, "sqlite_") }), err
}

func (tx Tx) giveTable(ctx context.Context, z *zip.Writer, name string) (int, error) {
	w, err := z.Create(tablesFolder + name + ".csv")
	if err != nil {
		return 0, err
	}
	rows, err := tx.QueryxContext(ctx, `SELECT * FROM "`+name+`"`)
	if err != nil {
		return 0, err
	}
	defer rows.Close()
	columns, err := rows.Columns()
	if err != nil {
		return 0, err
	}
	out, n := csv.NewWriter(w), 0
	err = out.Write(columns)
	for err == nil && rows.Next() {
		var values []any
		if values, err = rows.SliceScan(); err != nil {
			break
		}
		cells := make([]string, len(values))
		for i, v := range values {
			cells[i] = cellOf(v)
		}
		err = out.Write(cells)
		n++
	}
	out.Flush()
	return n, errors.Join(err, rows.Err(), out.Error())
}

// formulas are the first letters by which a spreadsheet takes a cell for a formula.
const formulas = "=+-@\t"

// cellOf is a value as it stands in a cell, and reads back to the same: a text that begins with a backslash or like a
// formula, or holds what CSV does not keep, stands quoted after a backslash.
func cellOf(v any) string {
	switch v := v.(type) {
	case nil:
		return noValue
	case []byte:
		return cellOf(string(v))
	case string:
		risky := strings.HasPrefix(v, `\`) || v != "" && strings.Contains(formulas, v[:1])
		if risky || strings.Contains(v, "\r") || !utf8.ValidString(v) {
			return `\` + strconv.Quote(v)
		}
		return v
	case float64:
		return strconv.FormatFloat(v, 'g', -1, 64)
	}
	return fmt.Sprint(v)
}

func (s *Store) givePictures(z *zip.Writer) error {
	root := filepath.Join(s.folder, "photos")
	err := filepath.WalkDir(root, func(file string, d fs.DirEntry, err error) error {
		if err != nil || d.IsDir() || strings.HasPrefix(d.Name(), "new-") {
			return err
		}
		w, err := z.CreateHeader(&zip.FileHeader{Name: picturesFolder + d.Name(), Method: zip.Store})
		if err != nil {
			return err
		}
		f, err := os.Open(file)
		if err != nil {
			return err
		}
		_, err = io.Copy(w, f)
		return errors.Join(err, f.Close())
	})
	if errors.Is(err, fs.ErrNotExist) {
		return nil // there are no pictures
	}
	return err
}

// TakeEverything fills an empty record from such a zip: all of it, or nothing. It is checked before it is kept; it has
// to be of the same tables as this program's.
func (s *Store) TakeEverything(ctx context.Context, z *zip.Reader) (Everything, error) {
	var head Everything
	if err := readHead(z, &head); err != nil {
		return head, err
	}
	pictures := []*zip.File{}
	for _, f := range z.File {
		if strings.HasPrefix(f.Name, picturesFolder) {
			pictures = append(pictures, f)
		}
	}
	for _, f := range pictures { // on the disk before the record tells of them
		if err := s.takePicture(f); err != nil {
			return head, err
		}
	}
	err := s.Write(ctx, func(tx Tx) error {
		tx.touched.plants, tx.touched.book, tx.touched.firm, tx.touched.weather = true, true, true, true
		if err := tx.emptyAndAlike(ctx, head); err != nil {
			return err
		}
		if _, err := tx.ExecContext(ctx, `PRAGMA defer_foreign_keys = ON`); err != nil {
			return err
		}
		names, err := tx.tables(ctx)
		for _, name := range names {
			if err == nil {
				err = tx.takeTable(ctx, z, name, head.Rows[name])
			}
		}
		if err != nil {
			return err
		}
		torn, err := many[string](ctx, tx, `SELECT "table" FROM pragma_foreign_key_check LIMIT 5`)
		if err == nil && len(torn) > 0 {
			err = fmt.Errorf("rows of %s hang on others that are not there", strings.Join(slices.Compact(torn), ", "))
		}
		if err != nil {
			return err
		}
		var faults []string
		err = unsound(ctx, tx, func(format string, a ...any) { faults = append(faults, fmt.Sprintf(format, a...)) })
		if err == nil && len(faults) > 0 {
			err = fmt.Errorf("what it holds cannot be:\n%s", strings.Join(faults, "\n"))
		}
		return err
	})
	return head, err
}

func readHead(z *zip.Reader, head *Everything) error {
	f, err := z.Open(everythingHead)
	if err != nil {
		return fmt.Errorf("it holds no %s: is it a whole record of this program?", everythingHead)
	}
	defer f.Close()
	if err := json.NewDecoder(io.LimitReader(f, 1<<20)).Decode(head); err != nil {
		return fmt.Errorf("%s: %w", everythingHead, err)
	}
	if head.Format != everythingFormat {
		return fmt.Errorf("its format is %d; this program knows %d", head.Format, everythingFormat)
	}
	return nil
}

// emptyAndAlike refuses a record that holds something, or has other tables.
func (tx Tx) emptyAndAlike(ctx context.Context, head Everything) error {
	version, err := one[int64](ctx, tx, `SELECT max(version_id) FROM goose_db_version WHERE is_applied = 1`)
	if err != nil {
		return err
	}
	if version != head.Version {
		return fmt.Errorf("it was written by another version of the program (step %d; this one is at %d): use that one", head.Version, version)
	}
	n, err := one[int](ctx, tx, `SELECT (SELECT count(*) FROM property) + (SELECT count(*) FROM species) + (SELECT count(*) FROM product)`)
	if err == nil && n > 0 {
		err = errors.New("this record is not empty: give another folder")
	}
	return err
}

func (s *Store) takePicture(f *zip.File) error {
	r, err := f.Open()
	if err != nil {
		return err
	}
	defer r.Close()
	b, err := io.ReadAll(io.LimitReader(r, 64<<20))
	if err != nil {
		return fmt.Errorf("%s: %w", f.Name, err)
	}
	ending := path.Ext(f.Name)
	hash, err := s.KeepFile(b, strings.TrimPrefix(ending, "."))
	if err == nil && picturesFolder+hash+ending != f.Name {
		err = fmt.Errorf("%s is not what it was", f.Name)
	}
	return err
}

// mostRow is the longest that a row of a table may be, bytes: a cell without end would fill the memory.
const mostRow = 32 << 20

// boundedRows reads a table, and gives up on a row without end.
type boundedRows struct {
	r     io.Reader
	since int // bytes read since the last row
}

func (b *boundedRows) Read(p []byte) (int, error) {
	n, err := b.r.Read(p)
	if b.since += n; b.since > mostRow {
		return 0, fmt.Errorf("a row is longer than %d MB", mostRow>>20)
	}
	return n, err
}

// takeTable puts the rows of one table in. A table that the zip does not hold stays empty.
func (tx Tx) takeTable(ctx context.Context, z *zip.Reader, name string, rows int) error {
	f, err := z.Open(tablesFolder + name + ".csv")
	if errors.Is(err, fs.ErrNotExist) && rows == 0 {
		return nil
	}
	if err != nil {
		return fmt.Errorf("table %s: %w", name, err)
	}
	defer f.Close()
	bound := &boundedRows{r: f}
	in := csv.NewReader(bufio.NewReader(bound))
	columns, err := in.Read()
	if err != nil {
		return fmt.Errorf("table %s: %w", name, err)
	}
	known, err := many[string](ctx, tx, `SELECT name FROM pragma_table_info(?)`, name)
	if err != nil {
		return err
	}
	for _, c := range columns {
		if !slices.Contains(known, c) {
			return fmt.Errorf("table %s: there is no column %q", name, c)
		}
	}
	if _, err := tx.ExecContext(ctx, `DELETE FROM "`+name+`"`); err != nil { // such as the firm's one row
		return err
	}
	st, err := tx.PrepareContext(ctx, `INSERT INTO "`+name+`" ("`+strings.Join(columns, `", "`)+`") VALUES (?`+strings.Repeat(", ?", len(columns)-1)+`)`)
	if err != nil {
		return err
	}
	defer st.Close()
	n := 0
	for ; ; n++ {
		bound.since = 0
		cells, err := in.Read()
		if errors.Is(err, io.EOF) {
			break
		}
		values := make([]any, len(cells))
		for i, c := range cells {
			switch rest, escaped := strings.CutPrefix(c, `\`); {
			case c == noValue:
				values[i] = nil
			case escaped:
				if values[i], err = strconv.Unquote(rest); err != nil {
					return fmt.Errorf("table %s, row %d: %q cannot be read", name, n+1, c)
				}
			default:
				values[i] = c
			}
		}
		if err == nil {
			_, err = st.ExecContext(ctx, values...)
		}
		if err != nil {
			return fmt.Errorf("table %s, row %d: %w", name, n+1, err)
		}
	}
	if n != rows {
		return fmt.Errorf("table %s has %d rows, and not %d as %s says", name, n, rows, everythingHead)
	}
	return nil
}
