package api

import (
	"context"
	"fmt"
	"io"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"mezzadro/core/invalid"
	"mezzadro/exchange"
	"mezzadro/house"
)

// labelIn is a label's picture or PDF as it comes. The body is read here, so that one that is too large is refused in words.
type labelIn struct {
	Write
	file []byte
}

// Resolve reads it.
func (l *labelIn) Resolve(c huma.Context) []error {
	b, err := io.ReadAll(io.LimitReader(c.BodyReader(), exchange.MaxPhotoBytes+1))
	if err != nil {
		return []error{err}
	}
	l.file = b
	return nil
}

func (s *Server) keepLabel(ctx context.Context, in *labelIn) (*Out[house.Product], error) {
	if len(in.file) > exchange.MaxPhotoBytes {
		return nil, huma.NewError(
			http.StatusRequestEntityTooLarge,
			fmt.Sprintf(
				"label: the file is larger than %d MB, which is the most that is taken",
				exchange.MaxPhotoBytes>>20,
			),
		)
	}
	file, is, err := exchange.ProductLabel(in.file)
	if err != nil {
		return nil, s.problem(ctx, "product", invalid.Fields{{Path: "label", Problem: err.Error()}})
	}
	p, err := s.KeepLabel(ctx, keyOf(ctx), in.ID, file, is)
	return out(p), s.problem(ctx, "product", err)
}

func (s *Server) label(ctx context.Context, in *ByID) (*PictureOut, error) {
	file, is, err := s.Label(ctx, in.ID)
	if err != nil {
		return nil, s.problem(ctx, "label", err)
	}
	kind := map[string]string{"jpg": "image/jpeg", "pdf": "application/pdf"}[is]
	return &PictureOut{kind, "private, no-cache", file}, nil
}

func (s *Server) dropLabel(ctx context.Context, in *Write) (*Out[house.Product], error) {
	p, err := s.KeepLabel(ctx, keyOf(ctx), in.ID, nil, "")
	return out(p), s.problem(ctx, "product", err)
}
