package api

import (
	"context"
	"fmt"
	"io"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"mezzadro/core/invalid"
	"mezzadro/exchange"
	"mezzadro/house/work"
)

func (s *Server) orderPhotoRoutes(a huma.API) {
	op(a, crew, get, "/orders/{id}/photos", doc{"order-photos", "Work", "Pictures taken at a job", "The oldest first.", readsOf, 0}, s.orderPhotos)
	op(a, crew, post, "/orders/{id}/photos", doc{"add-order-photo", "Work", "Keep a picture taken at a job", "JPEG, PNG, WebP or GIF; it is kept without any note of where or when.", files, -1}, s.addOrderPhoto)
	op(a, crew, remove, "/order-photos/{id}", doc{"remove-order-photo", "Work", "Remove a picture of a job", "Out of sight, and can be restored.", writes, 0}, s.removeOrderPhoto)
	op(a, crew, post, "/order-photos/{id}/restore", doc{"restore-order-photo", "Work", "Bring a removed picture of a job back", "As it was.", writes, 0}, s.restoreOrderPhoto)
}

// fileIn is a picture or a PDF as it comes. The body is read here, so that one that is too large is refused in words.
type fileIn struct {
	bytes []byte
	large bool
}

func (p *fileIn) read(c huma.Context) []error {
	b, err := io.ReadAll(io.LimitReader(c.BodyReader(), exchange.MaxPhotoBytes+1))
	if err != nil {
		return []error{err}
	}
	p.bytes, p.large = b, len(b) > exchange.MaxPhotoBytes
	return nil
}

// within refuses a file that is too large; what names it.
func (p *fileIn) within(what string) error {
	if !p.large {
		return nil
	}
	text := fmt.Sprintf("%s: the file is larger than %d MB, which is the most that is taken", what, exchange.MaxPhotoBytes>>20)
	return huma.NewError(http.StatusRequestEntityTooLarge, text)
}

// jpeg is the picture small and upright, with its size.
func (p *fileIn) jpeg(ctx context.Context) ([]byte, int, int, error) {
	if err := p.within("photo"); err != nil {
		return nil, 0, 0, err
	}
	jpeg, w, h, err := exchange.Photo(ctx, p.bytes)
	if err != nil {
		return nil, 0, 0, invalid.Fields{{Path: "photo", Problem: err.Error()}}
	}
	return jpeg, w, h, nil
}

// orderPhotoIn is a picture for a job.
type orderPhotoIn struct {
	Write
	file fileIn
}

// Resolve reads the picture.
func (p *orderPhotoIn) Resolve(c huma.Context) []error { return p.file.read(c) }

func (s *Server) orderPhotos(ctx context.Context, in *ByID) (*Out[Run[work.OrderPhoto]], error) {
	list, err := s.Work.OrderPhotos(ctx, in.ID)
	return out(Run[work.OrderPhoto]{Items: list}), s.Problem(ctx, "job", err)
}

func (s *Server) addOrderPhoto(ctx context.Context, in *orderPhotoIn) (*Out[work.OrderPhoto], error) {
	jpeg, w, h, err := in.file.jpeg(ctx)
	if err != nil {
		return nil, s.Problem(ctx, "job", err)
	}
	p, err := s.Work.AddOrderPhoto(ctx, keyOf(ctx), work.OrderPhoto{OrderID: in.ID, Width: w, Height: h}, jpeg)
	return out(p), s.Problem(ctx, "job", err)
}

func (s *Server) removeOrderPhoto(ctx context.Context, in *Write) (*struct{}, error) {
	return nil, s.Problem(ctx, "photo", s.Work.RemoveOrderPhoto(ctx, keyOf(ctx), in.ID, true))
}

func (s *Server) restoreOrderPhoto(ctx context.Context, in *Write) (*struct{}, error) {
	return nil, s.Problem(ctx, "photo", s.Work.RemoveOrderPhoto(ctx, keyOf(ctx), in.ID, false))
}
