package api

import (
	"context"
	"errors"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"mezzadro/core/invalid"
	"mezzadro/store"
)

// problem turns an error into a problem document that names the field and what was wrong. what says which thing was
// asked for. Errors nobody foresaw are logged and answered without their inside.
func (s *Server) problem(ctx context.Context, what string, err error) error {
	var fields invalid.Fields
	var stale store.Stale
	switch {
	case err == nil:
		return nil
	case errors.As(err, &fields):
		p := &huma.ErrorModel{Status: http.StatusUnprocessableEntity, Title: "Unprocessable Entity", Detail: fields.Error()}
		for _, f := range fields {
			p.Errors = append(p.Errors, &huma.ErrorDetail{Location: "body." + f.Path, Message: f.Problem, Value: f.Value})
		}
		return p
	case errors.As(err, &stale):
		return &huma.ErrorModel{Status: http.StatusConflict, Title: "Conflict", Detail: what + ": " + stale.Error(),
			Errors: []*huma.ErrorDetail{{Location: "body.version", Message: "the kept record, for comparison", Value: stale.Current}}}
	case errors.Is(err, store.ErrNotFound):
		return huma.Error404NotFound(what + " is not there, or was removed")
	}
	if refused, ok := store.IsRefused(err); ok {
		return huma.Error409Conflict(string(refused))
	}
	if errors.Is(err, context.Canceled) {
		return huma.NewError(499, "the request was called off")
	}
	s.Log.ErrorContext(ctx, "operation failed", "what", what, "error", err)
	return huma.Error500InternalServerError(what + ": something went wrong here; it has been logged, and nothing was changed")
}

// refuse is a problem with one field.
func refuse(path string, value any, text string) error {
	return invalid.Fields{{Path: path, Problem: text, Value: value}}
}

// Out is an answer with a JSON body.
type Out[T any] struct{ Body T }

func out[T any](v T) *Out[T] { return &Out[T]{v} }

// ByID names one record.
type ByID struct {
	ID int64 `path:"id" minimum:"1"`
}

// OnceKey is the key by which a repeated write is known.
type OnceKey struct {
	Key string `header:"Idempotency-Key" maxLength:"100" doc:"A repeat of the same write with the same key gets the same answer and writes nothing"`
}

// of is the key within one kind of write, so that a key used twice for different things does not mix them up.
func (k OnceKey) of(what string) string {
	if k.Key == "" {
		return ""
	}
	return what + ": " + k.Key
}

// Page is a stretch of a list.
type Page struct {
	Cursor int64 `query:"cursor" doc:"The next field of the answer before"`
	Limit  int   `query:"limit" default:"200" minimum:"1" maximum:"1000"`
}

// List is one page of a list; Next is the cursor of the following page, 0 at the end.
type List[T any] struct {
	Items []T   `json:"items"`
	Next  int64 `json:"next"`
}

// listed makes a page from up to limit+1 records.
func listed[T any](items []T, limit int, id func(T) int64) List[T] {
	if len(items) > limit {
		return List[T]{items[:limit], id(items[limit-1])}
	}
	return List[T]{Items: items}
}
