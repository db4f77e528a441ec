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
	return WithoutMoney(of).Interface(), nil
}

// pricedTypes says of types whether money stands in them. Only whole answers are kept: one that is half worked out
// would let a price through to whoever asks meanwhile.
var pricedTypes sync.Map

// priced reports a type in which money stands somewhere.
func priced(t reflect.Type) bool {
	if known, ok := pricedTypes.Load(t); ok {
		return known.(bool)
	}
	is := holdsMoney(t, map[reflect.Type]bool{})
	pricedTypes.Store(t, is)
	return is
}

// holdsMoney goes through a type; seen are those it goes through already, as a type may hold itself.
func holdsMoney(t reflect.Type, seen map[reflect.Type]bool) bool {
	if seen[t] {
		return false
	}
	seen[t] = true
	switch t.Kind() {
	case reflect.Pointer, reflect.Slice, reflect.Array, reflect.Map:
		return holdsMoney(t.Elem(), seen)
	case reflect.Struct:
		for _, f := range reflect.VisibleFields(t) {
			if f.IsExported() && (f.Tag.Get("money") == "true" || holdsMoney(f.Type, seen)) {
				return true
			}
		}
	}
	return false
}

// WithoutMoney is a copy with nothing in the fields that are money.
func WithoutMoney(v reflect.Value) reflect.Value {
	t := v.Type()
	if !priced(t) || v.IsZero() {
		return v
	}
	out := reflect.New(t).Elem()
	switch t.Kind() {
	case reflect.Pointer:
		out.Set(reflect.New(t.Elem()))
		out.Elem().Set(WithoutMoney(v.Elem()))
	case reflect.Slice:
		out.Set(reflect.MakeSlice(t, v.Len(), v.Len()))
		fallthrough
	case reflect.Array:
		for i := range v.Len() {
			out.Index(i).Set(WithoutMoney(v.Index(i)))
		}
	case reflect.Map:
		out.Set(reflect.MakeMapWithSize(t, v.Len()))
		for _, k := range v.MapKeys() {
			out.SetMapIndex(k, WithoutMoney(v.MapIndex(k)))
		}
	case reflect.Struct:
		out.Set(v)
		for i := range t.NumField() {
			switch f := t.Field(i); {
			case !f.IsExported():
			case f.Tag.Get("money") == "true":
				out.Field(i).SetZero()
			default:
				out.Field(i).Set(WithoutMoney(v.Field(i)))
			}
		}
	}
	return out
}
