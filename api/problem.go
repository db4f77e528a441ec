package api

import (
	"context"
	"errors"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"mezzadro/core/invalid"
	"mezzadro/house/estate"
	"mezzadro/store"
)

// brief is a refused value as it is told: what is long is cut.
func brief(v any) any {
	if s, is := v.(string); is && len(s) > valueMost {
		return s[:valueMost] + " …"
	}
	return v
}

// valueMost is how much of a refused value is told, bytes.
const valueMost = 200

// Problem turns an error into a problem document that names the field and what was wrong. what says which thing was
// asked for. Errors nobody foresaw are logged and answered without their inside.
func (s *Server) Problem(ctx context.Context, what string, err error) error {
	var fields invalid.Fields
	var stale store.Stale
	var noSpecies estate.NoSpecies
	switch {
	case err == nil:
		return nil
	case errors.As(err, &fields):
		p := &huma.ErrorModel{Status: http.StatusUnprocessableEntity, Title: "Unprocessable Entity", Detail: fields.Bounded().Error()}
		for _, f := range fields.Bounded() {
			p.Errors = append(p.Errors, &huma.ErrorDetail{Location: "body." + f.Path, Message: f.Problem, Value: brief(f.Value)})
		}
		return p
	case errors.Is(err, store.OtherBody):
		return &huma.ErrorModel{Status: http.StatusUnprocessableEntity, Title: "Unprocessable Entity", Detail: err.Error(),
			Errors: []*huma.ErrorDetail{{Location: "header." + keyHeader, Message: err.Error()}}}
	case errors.As(err, &stale):
		return &huma.ErrorModel{
			Status: http.StatusConflict,
			Title:  "Conflict",
			Detail: what + ": " + stale.Error(),
			Errors: []*huma.ErrorDetail{
				{Location: "body.version", Message: "the kept record, for comparison", Value: stale.Current},
			},
		}
	case errors.As(err, &noSpecies):
		return huma.Error404NotFound(noSpecies.Error())
	case errors.Is(err, store.ErrNotFound):
		return huma.Error404NotFound(what + " is not there, or was removed")
	}
	var said huma.StatusError
	if errors.As(err, &said) { // a problem document already
		return err
	}
	var station estate.StationFault
	if errors.As(err, &station) && ctx.Err() == nil {
		return huma.NewError(http.StatusBadGateway, station.Error()+"; what is kept stays as it is")
	}
	if refused, ok := store.IsRefused(err); ok {
		return huma.Error409Conflict(string(refused))
	}
	if text := store.Trouble(err); text != "" {
		s.Estate.Log.ErrorContext(ctx, "the record", "what", what, "error", err)
		return huma.NewError(http.StatusInsufficientStorage, text)
	}
	if store.Committed(ctx) {
		s.Estate.Log.ErrorContext(ctx, "kept, and not answered", "what", what, "error", err)
		return huma.Error500InternalServerError(what + ": it was kept, but what came of it could not be read; look at it again. The fault has been logged")
	}
	if errors.Is(err, context.Canceled) || ctx.Err() != nil { // whatever broke for it
		s.Estate.Log.InfoContext(ctx, "called off", "what", what, "error", err, "context", ctx.Err())
		return huma.NewError(499, "the request was called off")
	}
	s.Estate.Log.ErrorContext(ctx, "operation failed", "what", what, "error", err)
	return huma.Error500InternalServerError(
		what + ": something went wrong here; it has been logged, and nothing was changed",
	)
}
