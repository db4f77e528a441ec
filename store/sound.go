package store

import (
	"context"
	"fmt"
	"regexp"
	"slices"
	"sync"
	"time"

	"github.com/jmoiron/sqlx"

	"mezzadro/core/season"
)

// Zone is the name of a time zone. One that is none is torn: it spoils its own row, as broken JSON does.
type Zone string

var zonesTried sync.Map // by name: error, or nil

// fault is why a zone is none; nil for one that is.
func (z Zone) fault() error {
	if known, tried := zonesTried.Load(z); tried {
		err, _ := known.(error)
		return err
	}
	var err error
	if z == "" {
		err = fmt.Errorf("the zone is empty")
	} else if _, e := time.LoadLocation(string(z)); e != nil {
		err = fmt.Errorf("the zone %q is none", string(z))
	}
	zonesTried.Store(z, err)
	return err
}

// Scan reads the kept name.
func (z *Zone) Scan(v any) error {
	s, _ := v.(string)
	*z = Zone(s)
	if z.fault() != nil {
		tornRead.Add(1)
	}
	return nil
}

func (z Zone) isTorn() error { return z.fault() }

// Most that any figure in a record is, and that any text is long.
const (
	mostFigure = 1e12
	mostText   = 4 << 20
)

// jsonColumns are columns of JSON, by table; a value there has to be read.
var jsonColumns = map[string][]string{
	"property":  {"climate", "site", "exposure", "rules"},
	"firm":      {"rules"},
	"crew":      {"people", "body"},
	"person":    {"skills"},
	"job_order": {"params", "body"},
	"site_plan": {"body"},
	"product":   {"card"},
	"species":   {"entry"},
	"find":      {"seen", "not_seen"},
	"verdict":   {"answer"},
}

var dayName = regexp.MustCompile(`(^|_)day$`)

// sounder gathers what cannot be in a record.
type sounder struct {
	ctx  context.Context
	db   sqlx.QueryerContext
	say  func(format string, a ...any)
	cols map[string][]column
}

type column struct {
	Name string `db:"name"`
	Type string `db:"type"`
}

// unsound tells what the rows of a record hold that entry would have refused: figures that are none, zones, normals
// and days that are none, JSON that cannot be read. It says them all.
func unsound(ctx context.Context, db sqlx.QueryerContext, say func(format string, a ...any)) error {
	s := &sounder{ctx, db, say, map[string][]column{}}
	for _, look := range []func() error{s.tables, s.figures, s.days, s.json, s.places, s.plants} {
		if err := look(); err != nil {
			return err
		}
	}
	return nil
}

// programs tells what a database would run by itself: a record of this program has none.
func programs(ctx context.Context, db sqlx.QueryerContext, say func(format string, a ...any)) error {
	var rows []struct {
		Type string `db:"type"`
		Name string `db:"name"`
	}
	err := sqlx.SelectContext(ctx, db, &rows, `SELECT type, name FROM sqlite_master WHERE type IN ('trigger', 'view')
		OR type = 'table' AND sql LIKE 'CREATE VIRTUAL%'`)
	for _, r := range rows {
		say("it holds a %s, %q, which no record of this program does", r.Type, r.Name)
	}
	return err
}

func (s *sounder) tables() error {
	names := []string{}
	err := sqlx.SelectContext(s.ctx, s.db, &names, `SELECT name FROM sqlite_master WHERE type = 'table' AND name NOT LIKE 'sqlite_%'
		AND name <> 'goose_db_version' AND sql NOT LIKE 'CREATE VIRTUAL%' ORDER BY name`)
	for _, name := range names {
		if err == nil {
			var of []column
			err = sqlx.SelectContext(s.ctx, s.db, &of, `SELECT name, type FROM pragma_table_info(?)`, name)
			s.cols[name] = of
		}
	}
	return err
}

// rows gives what tells a row and the value at fault of those that a condition holds for, up to five.
func (s *sounder) rows(table, col, where string, tell func(row, value string)) error {
	key := `'?'`
	if s.has(table, "id") {
		key = "id"
	}
	var list []struct {
		Row   string `db:"row"`
		Value string `db:"value"`
	}
	err := sqlx.SelectContext(s.ctx, s.db, &list, fmt.Sprintf(
		`SELECT CAST(%s AS TEXT) AS row, coalesce(substr(CAST("%s" AS TEXT), 1, 60), '') AS value FROM "%s" WHERE %s LIMIT 5`,
		key, col, table, where))
	for _, r := range list {
		tell(r.Row, r.Value)
	}
	return err
}

// has reports a column; records of older programs have fewer.
func (s *sounder) has(table, name string) bool {
	return slices.ContainsFunc(s.cols[table], func(c column) bool { return c.Name == name })
}

// figures are finite, and of no size that breaks a sum; texts are no longer than anybody writes.
func (s *sounder) figures() error {
	for table, cols := range s.cols {
		for _, c := range cols {
			where, what := "", ""
			switch c.Type {
			case "REAL", "INTEGER":
				where, what = fmt.Sprintf(`abs("%s") > %g`, c.Name, mostFigure), "which is no figure of a garden"
			case "TEXT":
				where, what = fmt.Sprintf(`length("%s") > %d`, c.Name, mostText), "which is too long"
			}
			if where == "" {
				continue
			}
			if err := s.rows(table, c.Name, where, func(row, value string) {
				s.say("%s %s: %s is %q, %s", table, row, c.Name, value, what)
			}); err != nil {
				return err
			}
		}
	}
	return nil
}

// days are days: those that are empty say that there is none.
func (s *sounder) days() error {
	for table, cols := range s.cols {
		for _, c := range cols {
			if c.Type != "TEXT" || !dayName.MatchString(c.Name) {
				continue
			}
			where := fmt.Sprintf(`"%[1]s" <> '' AND (date("%[1]s") IS NULL OR date("%[1]s") <> "%[1]s")`, c.Name)
			if err := s.rows(table, c.Name, where, func(row, value string) {
				s.say("%s %s: %s is %q, which is no day", table, row, c.Name, value)
			}); err != nil {
				return err
			}
		}
	}
	return nil
}

func (s *sounder) json() error {
	for table, cols := range jsonColumns {
		for _, c := range cols {
			if !s.has(table, c) {
				continue
			}
			if err := s.rows(table, c, fmt.Sprintf(`NOT json_valid("%s")`, c), func(row, value string) {
				s.say("%s %s: %s cannot be read: %q", table, row, c, value)
			}); err != nil {
				return err
			}
		}
	}
	return nil
}

// places have a zone and normals that days can be reckoned from.
func (s *sounder) places() error {
	var list []struct {
		ID      int64                `db:"id"`
		Zone    string               `db:"zone"`
		Climate JSON[season.Climate] `db:"climate"`
	}
	if !s.has("property", "zone") {
		return nil
	}
	if err := sqlx.SelectContext(s.ctx, s.db, &list, `SELECT id, zone, climate FROM property`); err != nil {
		return err
	}
	for _, p := range list {
		if err := Zone(p.Zone).fault(); err != nil {
			s.say("property %d: %v", p.ID, err)
		}
		if err := p.Climate.isTorn(); err != nil {
			s.say("property %d: climate: %v", p.ID, err)
		} else if err := p.Climate.V.Validate(); err != nil {
			s.say("property %d: climate: %v", p.ID, err)
		}
	}
	return nil
}

// Bounds of plants as entry has them.
const (
	tallestM = 60.0
	widestM  = 60.0
	mostPot  = 5000.0
)

func (s *sounder) plants() error {
	for _, of := range []struct {
		col string
		max float64
	}{{"height_m", tallestM}, {"spread_m", widestM}, {"pot_l", mostPot}, {"shelter", 1}, {"sun", 1}} {
		if !s.has("plant", of.col) {
			continue
		}
		if err := s.rows("plant", of.col, fmt.Sprintf(`%[1]s < 0 OR %[1]s > %[2]g AND %[1]s <= %[3]g`, of.col, of.max, mostFigure), func(row, value string) {
			s.say("plant %s: %s is %s, and at most %g", row, of.col, value, of.max)
		}); err != nil {
			return err
		}
	}
	return nil
}
