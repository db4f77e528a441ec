package api

import (
	"context"

	"github.com/danielgtaylor/huma/v2"

	"mezzadro/house/finds"
)

func (s *Server) unnamedRoutes(a huma.API) {
	op(a, crew, get, "/unnamed", doc{"unnamed", "Causes", "Finds without a name", "What was found and nobody could name yet, a page, the " +
		"oldest first.", reads, 0}, s.unnamed)
	op(a, crew, post, "/unnamed", doc{"add-unnamed", "Causes", "Keep a find without a name", "Words and signs of something none of the causes " +
		"fit, what was sent where, and when an answer is expected.", adds, 0}, s.addUnnamed,
		`{"plant_id": 1, "words": "Grey felt under the twigs, wipes off pink", "sent": "Two twigs", "sent_to": "The plant clinic", "answer_by": "2026-06-20"}`)
	op(a, crew, put, "/unnamed/{id}", doc{"change-unnamed", "Causes", "Change, close or reopen a find without a name", "All its words, based " +
		"on a version. Opened again after it was named, the find it became goes out of sight.", writes, 0}, s.changeUnnamed,
		`{"words": "Grey felt under the twigs, wipes off pink", "answer": "They ask for more of it", "state": "open", "version": 1}`)
	op(a, crew, post, "/unnamed/{id}/name", doc{"name-unnamed", "Causes", "Give a find its name", "It becomes a find with the same signs, of " +
		"the day on which it was seen.", writes, 0}, s.nameUnnamed, `{"cause": "soft-scale", "certainty": 0.9, "answer": "A felt scale", "version": 1}`)
	op(a, planner, remove, "/unnamed/{id}", doc{"remove-unnamed", "Causes", "Remove a find without a name", "It goes out of sight, and can be " +
		"restored.", writes, 0}, s.removeUnnamed)
	op(a, planner, post, "/unnamed/{id}/restore", doc{"restore-unnamed", "Causes", "Bring a removed find without a name back", "As it was.", writes, 0}, s.restoreUnnamed)
	op(a, crew, post, "/unnamed/{id}/photos", doc{"add-unnamed-photo", "Causes", "Keep a picture of a find without a name", "JPEG, PNG, WebP " +
		"or GIF; it is kept without any note of where or when.", files, -1}, s.addUnnamedPhoto)
	op(a, crew, remove, "/unnamed/{id}/photos/{hash}", doc{"remove-unnamed-photo", "Causes", "Take a picture off a find without a name", "Sent " +
		"again it is there again.", writes, 0}, s.removeUnnamedPhoto)
}

func (s *Server) unnamed(ctx context.Context, in *struct {
	Page
	Property int64 `query:"property" example:"1" doc:"Of one property; 0 for all"`
	Plant    int64 `query:"plant" example:"1" doc:"Of one plant; 0 for all"`
	Open     bool  `query:"open" doc:"None that have a name or are closed"`
}) (*Out[List[finds.Unnamed]], error) {
	list, err := s.Finds.Unnameds(ctx, finds.FindsOf{Property: in.Property, Plant: in.Plant, Open: in.Open, After: in.Cursor, Limit: in.Limit + 1})
	return out(listed(list, in.Limit, func(u finds.Unnamed) int64 { return u.ID })), s.Problem(ctx, "find", err)
}

func (s *Server) addUnnamed(ctx context.Context, in *struct {
	OnceKey
	Body finds.UnnamedIn
}) (*Out[finds.Unnamed], error) {
	u, err := s.Finds.AddUnnamed(ctx, keyOf(ctx), in.Body)
	return out(u), s.Problem(ctx, "plant", err)
}

func (s *Server) changeUnnamed(ctx context.Context, in *struct {
	Write
	Body finds.UnnamedChange
}) (*Out[finds.Unnamed], error) {
	u, err := s.Finds.ChangeUnnamed(ctx, keyOf(ctx), in.ID, in.Body)
	return out(u), s.Problem(ctx, "find", err)
}

func (s *Server) nameUnnamed(ctx context.Context, in *struct {
	Write
	Body finds.NameIt
}) (*Out[finds.Unnamed], error) {
	u, err := s.Finds.NameUnnamed(ctx, keyOf(ctx), in.ID, in.Body)
	return out(u), s.Problem(ctx, "find", err)
}

func (s *Server) removeUnnamed(ctx context.Context, in *Write) (*struct{}, error) {
	return nil, s.Problem(ctx, "find", s.Finds.RemoveUnnamed(ctx, keyOf(ctx), in.ID, true))
}

func (s *Server) restoreUnnamed(ctx context.Context, in *Write) (*struct{}, error) {
	return nil, s.Problem(ctx, "find", s.Finds.RemoveUnnamed(ctx, keyOf(ctx), in.ID, false))
}

func (s *Server) addUnnamedPhoto(ctx context.Context, in *orderPhotoIn) (*Out[finds.Unnamed], error) {
	jpeg, _, _, err := in.file.jpeg(ctx)
	if err != nil {
		return nil, s.Problem(ctx, "find", err)
	}
	u, err := s.Finds.AddPictureOf(ctx, keyOf(ctx), in.ID, jpeg)
	return out(u), s.Problem(ctx, "find", err)
}

func (s *Server) removeUnnamedPhoto(ctx context.Context, in *struct {
	Write
	Hash string `path:"hash" minLength:"64" maxLength:"64" example:"e3b0c44298fc1c149afbf4c8996fb92427ae41e4649b934ca495991b7852b855" doc:"Of the picture"`
}) (*Out[finds.Unnamed], error) {
	u, err := s.Finds.DropPictureOf(ctx, keyOf(ctx), in.ID, in.Hash)
	return out(u), s.Problem(ctx, "find", err)
}
