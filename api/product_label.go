package api

import (
	"context"

	"github.com/danielgtaylor/huma/v2"

	"mezzadro/core/invalid"
	"mezzadro/exchange"
	"mezzadro/house/treat"
)

// labelIn is a label's picture or PDF.
type labelIn struct {
	Write
	file fileIn
}

// Resolve reads it.
func (l *labelIn) Resolve(c huma.Context) []error { return l.file.read(c) }

func (s *Server) keepLabel(ctx context.Context, in *labelIn) (*Out[treat.Product], error) {
	if err := in.file.within("label"); err != nil {
		return nil, err
	}
	file, is, err := exchange.ProductLabel(ctx, in.file.bytes)
	if err != nil {
		return nil, s.Problem(ctx, "product", invalid.Fields{{Path: "label", Problem: err.Error()}})
	}
	p, err := s.Treat.KeepLabel(ctx, keyOf(ctx), in.ID, file, is)
	return out(p), s.Problem(ctx, "product", err)
}

func (s *Server) label(ctx context.Context, in *ByID) (*PictureOut, error) {
	file, is, err := s.Treat.Label(ctx, in.ID)
	if err != nil {
		return nil, s.Problem(ctx, "label", err)
	}
	kind := map[string]string{"jpg": "image/jpeg", "pdf": "application/pdf"}[is]
	return &PictureOut{kind, "private, no-cache", file}, nil
}

func (s *Server) dropLabel(ctx context.Context, in *Write) (*Out[treat.Product], error) {
	p, err := s.Treat.KeepLabel(ctx, keyOf(ctx), in.ID, nil, "")
	return out(p), s.Problem(ctx, "product", err)
}
