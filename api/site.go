package api

import (
	"bytes"
	"context"

	"github.com/danielgtaylor/huma/v2"

	"mezzadro/core/overwinter"
	"mezzadro/exchange"
	"mezzadro/house"
)

func (s *Server) siteRoutes(a huma.API) {
	op(a, get, "/properties/{id}/plan", doc{"plan", "Grounds", "A property seen from above", "What stands where, in metres, and the plants without a place.", readsOf, 0}, s.plan)
	op(a, put, "/properties/{id}/plan", doc{"set-plan", "Grounds", "Draw a property", "The whole plan, based on a version; plants without a place stay usable.", writes, 0}, s.setPlan)
	op(a, get, "/properties/{id}/plan.geojson", doc{"give-plan", "Grounds", "A plan as GeoJSON", "In degrees, from where the property lies; sizes in metres among the properties.", readsOf, 0}, s.givePlan)
	op(a, post, "/properties/{id}/plan.geojson", doc{"take-plan", "Grounds", "Take a plan from GeoJSON", "In degrees about the property; it comes in the place of the plan of the version that is given, and plants that stood on it keep their places. All of it, or with a fault anywhere none.", files, maxCSV}, s.takePlan)
	op(a, post, "/properties/{id}/plan/spots", doc{"take-spots", "Grounds", "Take sun and shelter from the plan", "The plants' records say what the plan says, measured in place of guessed: verdicts, causes and forecasts follow. All in one write; what was changed is told, and can be set back.", writes, 0}, s.takeSpots)
	op(a, get, "/properties/{id}/winter", doc{"winter", "Grounds", "The winter to come", "What comes in, how and when, at what temperature and on how much floor, what may stand together; what is wrapped; and which bulbs can be forced.", readsOf, 0}, s.winter)
	op(a, post, "/properties/{id}/winter", doc{"keep-winter", "Grounds", "Make jobs of it", "The steps of some plants' winters become jobs, all in one write; those that stand already are left.", writes, 0}, s.keepWinter)
	op(a, post, "/reckon/wintering", doc{"reckon-wintering", "Reckon", "How a plant is brought through a winter", "Carried in, lifted, wrapped or left, with days, temperature, light and floor; or a bulb worked back from the day on which it is to bloom. Nothing is stored.", asks, 0}, s.reckonWintering)
	op(a, post, "/reckon/site", doc{"reckon-site", "Reckon", "Sun, shelter and what a change does", "From an inline plan: hours of direct sun by month for a plant or a point, shelter, walls, roots; what a cut, a fall or a planting changes for each plant. Nothing is stored.", asks, 0}, s.reckonSite)
	op(a, post, "/reckon/replacement", doc{"reckon-replacement", "Reckon", "What fits a spot", "Kinds ranked for a spot and a wish, minding what died there; those left out with their reasons; when and how each is planted. Nothing is stored.", asks, 0}, s.reckonReplacement)
}

func (s *Server) plan(ctx context.Context, in *ByID) (*Out[house.PlanOut], error) {
	p, err := s.PlanOf(ctx, in.ID)
	return out(p), s.problem(ctx, "property", err)
}

func (s *Server) setPlan(ctx context.Context, in *struct {
	Write
	Body house.PlanIn
}) (*Out[house.PlanOut], error) {
	p, err := s.SetPlan(ctx, keyOf(ctx), in.ID, in.Body)
	return out(p), s.problem(ctx, "property", err)
}

func (s *Server) givePlan(ctx context.Context, in *ByID) (*File, error) {
	p, err := s.Store.Property(ctx, in.ID)
	if err != nil {
		return nil, s.problem(ctx, "property", err)
	}
	plan, err := s.PlanOf(ctx, in.ID)
	var b bytes.Buffer
	if err == nil {
		c := p.Climate.V
		err = exchange.WritePlanGeoJSON(&b, plan.Plan, c.Latitude, c.Longitude)
	}
	return attached(p.Name, "plan.geojson", "application/geo+json", b.Bytes()), s.problem(ctx, "property", err)
}

func (s *Server) takePlan(ctx context.Context, in *struct {
	Write
	Version int    `query:"version" minimum:"0" doc:"That it is based on; 0 where there was none"`
	RawBody []byte `contentType:"application/geo+json"`
}) (*Out[house.PlanOut], error) {
	p, err := s.TakePlan(ctx, keyOf(ctx), in.ID, in.Version, in.RawBody)
	return out(p), s.problem(ctx, "property", err)
}

func (s *Server) takeSpots(ctx context.Context, in *struct {
	Write
	Body house.SpotsIn
}) (*Out[Run[house.SpotTaken]], error) {
	list, err := s.TakeSpots(ctx, keyOf(ctx), in.ID, in.Body)
	return out(Run[house.SpotTaken]{Items: list}), s.problem(ctx, "plant on this property", err)
}

func (s *Server) reckonSite(ctx context.Context, in *struct{ Body house.SiteIn }) (*Out[house.SiteOut], error) {
	o, err := s.ReckonSite(ctx, in.Body)
	return out(o), s.problem(ctx, "property", err)
}

func (s *Server) reckonReplacement(ctx context.Context, in *struct{ Body house.ReplacementIn }) (*Out[house.ReplacementOut], error) {
	o, err := s.ReckonReplacement(ctx, in.Body)
	return out(o), s.problem(ctx, "property", err)
}

func (s *Server) winter(ctx context.Context, in *ByID) (*Out[house.Winter], error) {
	w, err := s.WinterOf(ctx, in.ID)
	return out(w), s.problem(ctx, "property", err)
}

func (s *Server) keepWinter(ctx context.Context, in *struct {
	Write
	Body struct {
		Plants []int64 `json:"plants" minItems:"1" maxItems:"2000"`
	}
}) (*Out[Run[int64]], error) {
	list, err := s.KeepWinter(ctx, keyOf(ctx), in.ID, in.Body.Plants)
	return out(Run[int64]{Items: list}), s.problem(ctx, "property", err)
}

func (s *Server) reckonWintering(ctx context.Context, in *struct{ Body house.WinteringIn }) (*Out[overwinter.Wintering], error) {
	w, err := s.ReckonWintering(ctx, in.Body)
	return out(w), s.problem(ctx, "property", err)
}
