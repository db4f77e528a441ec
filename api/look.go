package api

import (
	"bytes"
	"cmp"
	"context"
	"fmt"
	"io"
	"net/http"
	"net/url"
	"slices"
	"strings"

	"github.com/danielgtaylor/huma/v2"

	"mezzadro/core/invalid"
	"mezzadro/exchange"
	"mezzadro/store"
)

// photoIn is a picture file as it comes. The body is read here, so that one that is too large is refused in words.
type photoIn struct {
	InWalk
	OnceKey
	Taken     string  `query:"taken" maxLength:"40" doc:"When it was taken, if that is to be kept"`
	Latitude  float64 `query:"latitude" minimum:"-90" maximum:"90" doc:"Where, if that is to be kept"`
	Longitude float64 `query:"longitude" minimum:"-180" maximum:"180"`
	Here      bool    `query:"here" doc:"The place is given and to be kept"`
	file      []byte
	large     bool
}

// Resolve reads the picture.
func (p *photoIn) Resolve(c huma.Context) []error {
	b, err := io.ReadAll(io.LimitReader(c.BodyReader(), exchange.MaxPhotoBytes+1))
	if err != nil {
		return []error{err}
	}
	p.file, p.large = b, len(b) > exchange.MaxPhotoBytes
	return nil
}

func (s *Server) addPhoto(ctx context.Context, in *photoIn) (*Out[store.Photo], error) {
	what := "plant on this walk"
	if in.large {
		return nil, huma.NewError(http.StatusRequestEntityTooLarge, fmt.Sprintf("photo: the file is larger than %d MB, which is the most that is taken", exchange.MaxPhotoBytes>>20))
	}
	jpeg, w, h, err := exchange.Photo(in.file)
	if err != nil {
		return nil, s.problem(ctx, what, invalid.Fields{{Path: "photo", Problem: err.Error()}})
	}
	p := store.Photo{WalkID: in.ID, PlantID: in.Plant, Width: w, Height: h, Taken: in.Taken}
	if in.Here {
		p.Latitude, p.Longitude = &in.Latitude, &in.Longitude
	}
	// The picture is on the disk before the record says that it is.
	if p.Hash, err = s.Store.KeepPicture(jpeg); err == nil {
		p, err = store.Once(ctx, s.Store, in.of(fmt.Sprintf("photo of %d on %d", in.Plant, in.ID)), func(tx store.Tx) (store.Photo, error) { return tx.AddPhoto(ctx, p) })
	}
	return out(p), s.problem(ctx, what, err)
}

// PictureOut is a picture's bytes.
type PictureOut struct {
	ContentType  string `header:"Content-Type"`
	CacheControl string `header:"Cache-Control"`
	Body         []byte
}

func (s *Server) picture(ctx context.Context, in *struct {
	Hash string `path:"hash"`
}) (*PictureOut, error) {
	b, err := s.Store.Picture(in.Hash)
	if err != nil {
		return nil, s.problem(ctx, "photo", err)
	}
	return &PictureOut{"image/jpeg", "private, max-age=31536000, immutable", b}, nil
}

func (s *Server) removePhoto(ctx context.Context, in *ByID) (*struct{}, error) {
	return nil, s.problem(ctx, "photo", s.Store.Write(ctx, func(tx store.Tx) error { return tx.RemovePhoto(ctx, in.ID, true) }))
}

func (s *Server) restorePhoto(ctx context.Context, in *ByID) (*struct{}, error) {
	return nil, s.problem(ctx, "photo", s.Store.Write(ctx, func(tx store.Tx) error { return tx.RemovePhoto(ctx, in.ID, false) }))
}

// labels is the property's plants as labels to print, in the order of the way round.
func (s *Server) labels(ctx context.Context, in *struct {
	ByID
	Site string `query:"site" required:"true" maxLength:"200" doc:"Address this program is reached at from the garden; the codes open it"`
}) (*File, error) {
	u, err := url.Parse(in.Site)
	if err != nil || u.Host == "" || u.Scheme != "http" && u.Scheme != "https" {
		return nil, s.problem(ctx, "labels", refuse("site", in.Site, fmt.Sprintf("%q is no address: want http:// or https:// and a name", in.Site)))
	}
	p, err := s.place(ctx, in.ID)
	if err != nil {
		return nil, s.problem(ctx, "property", err)
	}
	plants, err := s.Store.Plants(ctx, in.ID, 0, 1<<31)
	if err != nil {
		return nil, s.problem(ctx, "plants", err)
	}
	slices.SortStableFunc(plants, func(a, b store.Plant) int { return cmp.Compare(uint(a.Stop-1), uint(b.Stop-1)) }) // 0 comes last
	labels := make([]exchange.Label, len(plants))
	for i, x := range plants {
		e := entryOf(p.book, x.Species)
		labels[i] = exchange.Label{URL: fmt.Sprintf("%s/#/plant/%d", strings.TrimSuffix(in.Site, "/"), x.ID), Common: e.Common, Latin: e.Botanical, Place: x.Label, Owner: p.property.Name}
	}
	var b bytes.Buffer
	if err := exchange.WriteLabels(&b, "Labels, "+p.property.Name, labels); err != nil {
		return nil, s.problem(ctx, "labels", err)
	}
	return attached(p.property, "labels.pdf", "application/pdf", b.Bytes()), nil
}
