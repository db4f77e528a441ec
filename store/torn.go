package store

import (
	"fmt"
	"reflect"
	"slices"
	"sync"
	"sync/atomic"
)

// tornRead counts values that could not be read: most reads meet none, and look no further.
var tornRead atomic.Uint64

// tornRows are the rows that were left out of lists, as they are told.
var tornRows sync.Map

// Torn tells the rows that could not be read since the program started, and stand in no list.
func Torn() []string {
	out := []string{}
	tornRows.Range(func(k, _ any) bool {
		out = append(out, k.(string))
		return true
	})
	slices.Sort(out)
	return out
}

// tearable is a value of a row that may be torn.
type tearable interface{ isTorn() error }

// tornOf is what is wrong with a row, and its id; nil for one that is whole.
func tornOf(v reflect.Value) (id int64, err error) {
	if t, is := v.Interface().(tearable); is {
		return 0, t.isTorn()
	}
	if v.Kind() != reflect.Struct {
		return 0, nil
	}
	for i := range v.NumField() {
		f := v.Type().Field(i)
		if !f.IsExported() {
			continue
		}
		switch of, e := tornOf(v.Field(i)); {
		case f.Tag.Get("db") == "id" && v.Field(i).Kind() == reflect.Int64:
			id = v.Field(i).Int()
		default:
			if of != 0 {
				id = of
			}
			if e != nil && err == nil {
				err = e
			}
		}
	}
	return id, err
}

// whole leaves the torn rows out of a list, and keeps that they are.
func whole[T any](list []T) []T {
	return slices.DeleteFunc(list, func(row T) bool {
		v := reflect.ValueOf(row)
		id, err := tornOf(v)
		if err != nil {
			tornRows.Store(fmt.Sprintf("%s %d: %v", v.Type().Name(), id, err), nil)
		}
		return err != nil
	})
}
