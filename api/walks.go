package api

import (
	"context"
	"fmt"
	"strings"

	"github.com/danielgtaylor/huma/v2"

	"mezzadro/core/check"
	"mezzadro/core/day"
	"mezzadro/core/walk"
	"mezzadro/house/estate"
	"mezzadro/house/walks"
	"mezzadro/store"
)

func (s *Server) walkRoutes(a huma.API) {
	op(a, crew, post, "/walks", doc{"start-walk", "Walk", "Start a property's walk of a day", "There is one a day; " +
		"starting it twice gives the same.", adds, 0}, s.startWalk, `{"property_id": 1}`)
	op(a, crew, get, "/properties/{id}/along", doc{"taken-along", "Walk", "What a walk takes along", "The place, its weather of the " +
		"days that still matter and its plants with what was found and done on them: enough to judge its plants by the same rules " +
		"where the house cannot be reached.", readsOf, 0}, s.along)
	op(a, crew, get, "/walks/{id}", doc{"walk", "Walk", "One walk", "With what was found so far.", readsOf, 0}, s.walk)
	op(a, crew, put, "/walks/{id}/plants/{plant}/checks", doc{"keep-look", "Walk", "Keep what was found at a plant", "All checks and the note; answered with the verdict they form. Where another device has written meanwhile, 409 with what it wrote.", writes, 0}, s.keepLook, `{"checks": [{"kind": "scratch", "height_m": 0.5, "result": "green"}], "note": "Leaves brown at the top"}`)
	op(a, crew, get, "/walks/{id}/plants/{plant}/verdict", doc{"tell-look", "Walk", "The verdict on what was found at a " +
		"plant", "Judged today, by the day it was found on.", readsOf, 0}, s.tellLook)
	op(a, crew, post, "/walks/{id}/plants/{plant}/verdict", doc{"decide", "Walk", "Accept, overrule or put off a " +
		"verdict", "The work it asks for becomes jobs; those of earlier verdicts on the same trouble go.", writes, 0}, s.decide, `{"decision": "overruled", "kind": "cut back to live wood", "cut_m": 0.4, "note": "The client wants light"}`)
	op(a, crew, post, "/walks/{id}/plants/{plant}/photos", doc{"add-photo", "Walk", "Keep a picture taken at a plant", "JPEG, PNG, WebP or GIF; it is kept without any note of where or when, unless that is given.", files, -1}, s.addPhoto)
	op(a, crew, get, "/pictures/{hash}", doc{"picture", "Walk", "A picture", "As JPEG.", readsOf, 0}, s.picture)
	op(a, crew, remove, "/photos/{id}", doc{"remove-photo", "Walk", "Remove a photo", "It goes out of sight and can be " +
		"restored.", writes, 0}, s.removePhoto)
	op(a, crew, post, "/photos/{id}/restore", doc{"restore-photo", "Walk", "Bring a removed photo back", "As it was.", writes, 0}, s.restorePhoto)
	op(a, crew, get, "/plants/{id}/crown-counts", doc{"crown-counts", "Walk", "A plant's crown, counted on pictures", "The newest first, each beside the one before it from the same side.", readsOf, 0}, s.crownCounts)
	op(a, crew, post, "/plants/{id}/crown-counts", doc{"add-crown-count", "Walk", "Keep a crown counted on a picture", "By the colours of points that lie evenly in its outline: how much of it is brown or bare, with an interval. The picture itself stays on the device.", writes, 0}, s.addCrownCount,
		`{"side": "south", "colours": [`+strings.TrimSuffix(strings.Repeat("[96, 140, 50], [120, 82, 45], ", 15), ", ")+`]}`)
	op(a, crew, remove, "/crown-counts/{id}", doc{"remove-crown-count", "Walk", "Remove a crown count", "It goes out of sight and can be restored.", writes, 0}, s.removeCrownCount)
	op(a, crew, post, "/crown-counts/{id}/restore", doc{"restore-crown-count", "Walk", "Bring a removed crown count back", "As it was.", writes, 0}, s.restoreCrownCount)
	op(a, crew, remove, "/verdicts/{id}", doc{"undo-verdict", "Walk", "Take a plant's latest decision back", "Its jobs go, those it had dropped return.", writes, 0}, s.undoVerdict)
}

// InWalk names a plant on a walk.
type InWalk struct {
	ByID
	Plant int64 `path:"plant" minimum:"1" example:"1" doc:"Id of the plant"`
}

// onWalk is what is not there when a plant on a walk is not.
const onWalk = "plant on this walk"

func (s *Server) startWalk(ctx context.Context, in *struct {
	OnceKey
	Body struct {
		PropertyID int64   `json:"property_id"`
		Day        day.Day `json:"day,omitempty" format:"date" doc:"Of a walk that was noted elsewhere and is entered later; today when absent"`
		PlantID    int64   `json:"plant_id,omitempty" minimum:"1" doc:"Where it begins: with the verdict on this plant. With none when absent"`
	}
}) (*Out[walks.Walk], error) {
	w, err := s.Walks.StartWalk(ctx, keyOf(ctx), in.Body.PropertyID, in.Body.Day, in.Body.PlantID)
	return out(w), s.Problem(ctx, "property", err)
}

func (s *Server) along(ctx context.Context, in *ByID) (*Out[walk.Kit], error) {
	k, err := s.Walks.Along(ctx, in.ID)
	return out(k), s.Problem(ctx, "property", err)
}

func (s *Server) walk(ctx context.Context, in *ByID) (*Out[walks.Walk], error) {
	w, err := s.Walks.Walk(ctx, in.ID)
	return out(w), s.Problem(ctx, "walk", err)
}

func (s *Server) tellLook(ctx context.Context, in *InWalk) (*Out[walks.Found], error) {
	f, err := s.Walks.TellLook(ctx, in.ID, in.Plant)
	return out(f), s.Problem(ctx, onWalk, err)
}

// FoundIn is what was found at a plant.
type FoundIn struct {
	Checks []check.Check `json:"checks" maxItems:"500"`
	Note   string        `json:"note,omitempty" maxLength:"4000"`
	Base   *int          `json:"base,omitempty" doc:"The rev it is based on: refused where another device has written meanwhile. Whatever is kept is replaced when absent."`
}

func (s *Server) keepLook(ctx context.Context, in *struct {
	InWalk
	OnceKey
	Body FoundIn
}) (*Out[walks.Found], error) {
	f, err := s.Walks.KeepLook(
		ctx,
		keyOf(ctx),
		in.ID,
		in.Plant,
		walks.FoundIn{Checks: in.Body.Checks, Note: in.Body.Note, Base: in.Body.Base},
	)
	return out(f), s.Problem(ctx, onWalk, err)
}

func (s *Server) decide(ctx context.Context, in *struct {
	InWalk
	OnceKey
	Body walks.DecisionIn
}) (*Out[walks.Decided], error) {
	d, err := s.Walks.Decide(ctx, keyOf(ctx), in.ID, in.Plant, in.Body)
	return out(d), s.Problem(ctx, onWalk, err)
}

func (s *Server) undoVerdict(ctx context.Context, in *Write) (*struct{}, error) {
	return nil, s.Problem(ctx, "verdict", s.Walks.UndoVerdict(ctx, keyOf(ctx), in.ID))
}

func (s *Server) story(ctx context.Context, in *ByID) (*Out[walks.Story], error) {
	o, err := s.Walks.Story(ctx, in.ID)
	return out(o), s.Problem(ctx, fmt.Sprintf("plant %d", in.ID), err)
}

func (s *Server) addOutcome(ctx context.Context, in *struct {
	Write
	Body walks.OutcomeIn
}) (*Out[walks.Story], error) {
	o, err := s.Walks.AddOutcome(ctx, keyOf(ctx), in.ID, in.Body)
	return out(o), s.Problem(ctx, "verdict on this plant", err)
}

func (s *Server) undoOutcome(ctx context.Context, in *Write) (*struct{}, error) {
	return nil, s.Problem(ctx, "outcome", s.Walks.UndoOutcome(ctx, keyOf(ctx), in.ID))
}

// photoIn is a picture file as it comes. The body is read here, so that one that is too large is refused in words.
type photoIn struct {
	InWalk
	OnceKey
	Taken     string  `query:"taken" maxLength:"40" doc:"When it was taken, if that is to be kept"`
	Latitude  float64 `query:"latitude" minimum:"-90" maximum:"90" doc:"Where, if that is to be kept"`
	Longitude float64 `query:"longitude" minimum:"-180" maximum:"180"`
	Here      bool    `query:"here" doc:"The place is given and to be kept"`
	file      fileIn
}

// Resolve reads the picture.
func (p *photoIn) Resolve(c huma.Context) []error { return p.file.read(c) }

func (s *Server) addPhoto(ctx context.Context, in *photoIn) (*Out[estate.Photo], error) {
	jpeg, w, h, err := in.file.jpeg(ctx)
	if err != nil {
		return nil, s.Problem(ctx, onWalk, err)
	}
	p := estate.Photo{WalkID: in.ID, PlantID: in.Plant, Width: w, Height: h, Taken: in.Taken}
	if in.Here {
		p.Latitude, p.Longitude = &in.Latitude, &in.Longitude
	}
	p, err = s.Walks.AddPhoto(ctx, keyOf(ctx), p, jpeg)
	return out(p), s.Problem(ctx, onWalk, err)
}

// PictureOut is a picture's bytes.
type PictureOut struct {
	ContentType  string `header:"Content-Type"`
	CacheControl string `header:"Cache-Control"`
	Body         []byte
}

func (s *Server) picture(ctx context.Context, in *struct {
	Hash string `path:"hash" maxLength:"64" example:"e3b0c44298fc1c149afbf4c8996fb92427ae41e4649b934ca495991b7852b855" doc:"Of the photo"`
}) (*PictureOut, error) {
	shown, err := s.Estate.Store.PictureInSight(ctx, in.Hash)
	if err == nil && !shown {
		err = store.ErrNotFound
	}
	if err != nil {
		return nil, s.Problem(ctx, "photo", err)
	}
	b, err := s.Estate.Store.Picture(in.Hash)
	if err != nil {
		return nil, s.Problem(ctx, "photo", err)
	}
	return &PictureOut{"image/jpeg", "private, max-age=31536000, immutable", b}, nil
}

func (s *Server) removePhoto(ctx context.Context, in *Write) (*struct{}, error) {
	return nil, s.Problem(ctx, "photo", s.Walks.RemovePhoto(ctx, keyOf(ctx), in.ID, true))
}

func (s *Server) restorePhoto(ctx context.Context, in *Write) (*struct{}, error) {
	return nil, s.Problem(ctx, "photo", s.Walks.RemovePhoto(ctx, keyOf(ctx), in.ID, false))
}

func (s *Server) crownCounts(ctx context.Context, in *ByID) (*Out[Run[walks.CrownCount]], error) {
	list, err := s.Walks.CrownCounts(ctx, in.ID)
	return out(Run[walks.CrownCount]{Items: list}), s.Problem(ctx, "plant", err)
}

func (s *Server) addCrownCount(ctx context.Context, in *struct {
	Write
	Body walks.CrownIn
}) (*Out[walks.CrownCount], error) {
	c, err := s.Walks.AddCrownCount(ctx, keyOf(ctx), in.ID, in.Body)
	return out(c), s.Problem(ctx, "plant", err)
}

func (s *Server) removeCrownCount(ctx context.Context, in *Write) (*struct{}, error) {
	return nil, s.Problem(ctx, "crown count", s.Walks.RemoveCrownCount(ctx, keyOf(ctx), in.ID, true))
}

func (s *Server) restoreCrownCount(ctx context.Context, in *Write) (*struct{}, error) {
	return nil, s.Problem(ctx, "crown count", s.Walks.RemoveCrownCount(ctx, keyOf(ctx), in.ID, false))
}
