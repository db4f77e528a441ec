package api

import (
	"reflect"
	"sync"

	"github.com/danielgtaylor/huma/v2"
)

// unpriced leaves out of an answer what things cost the firm, for those who may not read it: every field that is marked
// as money, wherever it stands. What others hold of the answer stays as it is.
func unpriced(c huma.Context, _ string, v any) (any, error) {
	if v == nil || mayPrices(c.Context()) {
		return v, nil
	}
	of := reflect.ValueOf(v)
	if !priced(of.Type()) {
		return v, nil
	}
	return withoutMoney(of).Interface(), nil
}

// pricedTypes are the types in which money stands, as far as they were asked for.
var pricedTypes sync.Map

// priced reports a type in which money stands somewhere.
func priced(t reflect.Type) bool {
	if known, ok := pricedTypes.Load(t); ok {
		return known.(bool)
	}
	pricedTypes.Store(t, false) // a type that holds itself
	is := false
	switch t.Kind() {
	case reflect.Pointer, reflect.Slice, reflect.Array, reflect.Map:
		is = priced(t.Elem())
	case reflect.Struct:
		for _, f := range reflect.VisibleFields(t) {
			is = is || f.IsExported() && (f.Tag.Get("money") == "true" || priced(f.Type))
		}
	}
	pricedTypes.Store(t, is)
	return is
}

// withoutMoney is a copy with nothing in the fields that are money.
func withoutMoney(v reflect.Value) reflect.Value {
	t := v.Type()
	if !priced(t) || v.IsZero() {
		return v
	}
	out := reflect.New(t).Elem()
	switch t.Kind() {
	case reflect.Pointer:
		out.Set(reflect.New(t.Elem()))
		out.Elem().Set(withoutMoney(v.Elem()))
	case reflect.Slice:
		out.Set(reflect.MakeSlice(t, v.Len(), v.Len()))
		fallthrough
	case reflect.Array:
		for i := range v.Len() {
			out.Index(i).Set(withoutMoney(v.Index(i)))
		}
	case reflect.Map:
		out.Set(reflect.MakeMapWithSize(t, v.Len()))
		for _, k := range v.MapKeys() {
			out.SetMapIndex(k, withoutMoney(v.MapIndex(k)))
		}
	case reflect.Struct:
		out.Set(v)
		for i := range t.NumField() {
			switch f := t.Field(i); {
			case !f.IsExported():
			case f.Tag.Get("money") == "true":
				out.Field(i).SetZero()
			default:
				out.Field(i).Set(withoutMoney(v.Field(i)))
			}
		}
	}
	return out
}
