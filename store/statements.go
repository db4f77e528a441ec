package store

import (
	"context"
	"database/sql"
	"database/sql/driver"
	"errors"

	"github.com/jmoiron/sqlx"
	"modernc.org/sqlite"
)

// The texts of the record's queries are few and asked over and over, and to read one takes SQLite as long as to answer
// it. So each connection keeps the statements that it has made, up to so many.
const statementsKept = 250

// openKept opens a record whose connections keep their statements; where somebody hears, he is told of each row before it
// is written.
func openKept(dsn string, hear func(sqlite.SQLitePreUpdateData)) (*sqlx.DB, error) {
	base, err := sqlite.NewConnector(dsn)
	if err != nil {
		return nil, err
	}
	return sqlx.NewDb(sql.OpenDB(keeping{base, hear}), "sqlite"), nil
}

type keeping struct {
	driver.Connector
	hear func(sqlite.SQLitePreUpdateData)
}

func (k keeping) Connect(ctx context.Context) (driver.Conn, error) {
	c, err := k.Connector.Connect(ctx)
	if err != nil {
		return nil, err
	}
	base, is := c.(connection)
	if !is {
		return nil, errors.Join(errors.New("the driver's connections lack what the record asks of them"), c.Close())
	}
	if k.hear != nil {
		base.RegisterPreUpdateHook(k.hear)
	}
	return &keeper{connection: base, free: map[string]statement{}}, nil
}

// connection is what the driver's own can do.
type connection interface {
	driver.Conn
	driver.ConnBeginTx
	driver.ConnPrepareContext
	driver.ExecerContext
	driver.QueryerContext
	driver.Pinger
	driver.SessionResetter
	driver.Validator
	RegisterPreUpdateHook(callback sqlite.PreUpdateHookFn)
}

type statement interface {
	driver.Stmt
	driver.StmtExecContext
	driver.StmtQueryContext
}

// keeper is a connection with the statements that nobody reads from at the moment, by their text.
type keeper struct {
	connection
	free map[string]statement
}

// Unwrap is the driver's own connection.
func (k *keeper) Unwrap() driver.Conn { return k.connection }

// take is a statement for a text; whoever has it alone uses it, until it is given back.
func (k *keeper) take(ctx context.Context, query string) (statement, error) {
	if s, kept := k.free[query]; kept {
		delete(k.free, query)
		return s, nil
	}
	s, err := k.PrepareContext(ctx, query)
	if err != nil {
		return nil, err
	}
	own, is := s.(statement)
	if !is {
		return nil, errors.Join(errors.New("the driver's statements lack what the record asks of them"), s.Close())
	}
	return own, nil
}

func (k *keeper) give(query string, s statement) error {
	if _, twice := k.free[query]; twice {
		return s.Close()
	}
	var err error
	if len(k.free) >= statementsKept {
		err = k.drop()
	}
	k.free[query] = s
	return err
}

func (k *keeper) drop() error {
	var errs []error
	for query, s := range k.free {
		errs = append(errs, s.Close())
		delete(k.free, query)
	}
	return errors.Join(errs...)
}

func (k *keeper) Close() error { return errors.Join(k.drop(), k.connection.Close()) }

func (k *keeper) ExecContext(ctx context.Context, query string, args []driver.NamedValue) (driver.Result, error) {
	s, err := k.take(ctx, query)
	if err != nil {
		return nil, err
	}
	res, err := s.ExecContext(ctx, args)
	if err != nil {
		return nil, errors.Join(err, s.Close())
	}
	return res, k.give(query, s)
}

func (k *keeper) QueryContext(ctx context.Context, query string, args []driver.NamedValue) (driver.Rows, error) {
	s, err := k.take(ctx, query)
	if err != nil {
		return nil, err
	}
	rows, err := s.QueryContext(ctx, args)
	if err != nil {
		return nil, errors.Join(err, s.Close())
	}
	return &read{rows, func() error { return k.give(query, s) }}, nil
}

// read are rows that give their statement back when they are closed.
type read struct {
	driver.Rows
	done func() error
}

func (r *read) Close() error {
	err := r.Rows.Close()
	if done := r.done; done != nil {
		r.done = nil
		err = errors.Join(err, done())
	}
	return err
}
