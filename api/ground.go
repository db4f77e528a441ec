package api

import (
	"bytes"
	"context"

	"github.com/danielgtaylor/huma/v2"

	"mezzadro/core/overwinter"
	"mezzadro/core/replacement"
	"mezzadro/exchange"
	"mezzadro/house/ground"
)

func (s *Server) siteRoutes(a huma.API) {
	op(a, crew, get, "/properties/{id}/plan", doc{"plan", "Grounds", "A property seen from above", "What stands where, in metres, and the plants without a place.", readsOf, 0}, s.plan)
	op(a, planner, put, "/properties/{id}/plan", doc{"set-plan", "Grounds", "Draw a property", "The whole plan, based on a version; plants without a place stay usable.", writes, 0}, s.setPlan, `{"version": 0, "plan": {"latitude": 45.9, "things": [{"id": "house", "kind": "building", "height_m": 6, "points": [{"x": 0, "y": 0}, {"x": 12, "y": 0}, {"x": 12, "y": 8}, {"x": 0, "y": 8}]}]}}`)
	op(a, planner, get, "/properties/{id}/plan.geojson", doc{"give-plan", "Grounds", "A plan as GeoJSON", "In degrees, from where the property lies; sizes in metres among the properties.", readsOf, 0}, s.givePlan)
	op(a, planner, post, "/properties/{id}/plan.geojson", doc{"take-plan", "Grounds", "Take a plan from GeoJSON", "In degrees about the property; it comes in the place of the plan of the version that is given, and plants that stood on it keep their places. All of it, or with a fault anywhere none.", files, maxCSV}, s.takePlan, `{"type":"FeatureCollection","features":[{"type":"Feature","geometry":{"type":"Point","coordinates":[8.6,45.9]},"properties":{"kind":"tree","height_m":9}}]}`)
	op(a, planner, post, "/properties/{id}/plan/spots", doc{"take-spots", "Grounds", "Take sun and shelter from the plan", "The plants' records say what the plan says, measured in place of guessed: verdicts, causes and forecasts follow. All in one write; what was changed is told, and can be set back.", writes, 0}, s.takeSpots, `{"set": [{"plant_id": 1, "sun": 0.6, "shelter": 0.4, "wall": false}]}`)
	op(a, planner, post, "/properties/{id}/plan/stops", doc{"take-stops", "Grounds", "Take the way round from the plan",
		"The plants' records stand in the order in which one goes round from the gate. All in one write; what stood before is told, and can be set back.", writes, 0}, s.takeStops, `{"set": [{"plant_id": 1, "stop": 10}]}`)
	op(a, planner, post, "/properties/{id}/plan/picture", doc{"add-underlay", "Grounds", "Keep a picture to lie under a plan",
		"JPEG, PNG, WebP or GIF; it is shown under the plan once the plan says where and how large.", files, -1}, s.addUnderlay)
	op(a, planner, get, "/properties/{id}/plan.pdf", doc{"plan-pdf", "Grounds", "A planting plan as PDF",
		"To a scale, with its list: what stands where, and what is to be planted.", readsOf, 0}, s.planPDF)
	op(a, crew, get, "/properties/{id}/bloom", doc{"bloom", "Grounds", "What blooms on a property through the year",
		"By this year's season, with the months in which nothing does, or insects find nothing.", readsOf, 0}, s.bloom)
	op(a, planner, post, "/properties/{id}/planting", doc{"keep-planting", "Grounds", "Have something planted",
		"Jobs: each kind in its season, and the water of the first season after it. All in one write.", writes, 0}, s.keepPlanting, `{"kinds": [{"species": "syringa-vulgaris", "count": 2}], "where": "Top bed"}`)
	op(a, planner, get, "/kinds", doc{"kinds", "Almanac", "What the firm says of kinds", "Prices, what must not be planted, and how many stood and were lost in its record.", reads, 0}, s.kinds)
	op(a, planner, put, "/kinds/{id}", doc{"say-kind", "Almanac", "Say a kind's price, or that it must not be planted", "Whatever stood there.", writes, 0}, s.sayKind, `{"price": 24.5, "banned": false}`)
	op(a, crew, get, "/properties/{id}/winter", doc{"winter", "Grounds", "The winter to come", "What comes in, how and when, at what temperature and on how much floor, what may stand together; what is wrapped; and which bulbs can be forced.", readsOf, 0}, s.winter)
	op(a, planner, post, "/properties/{id}/winter", doc{"keep-winter", "Grounds", "Make jobs of it", "The steps of some plants' winters become jobs, all in one write; those that stand already are left.", writes, 0}, s.keepWinter, `{"plants": [1]}`)
	op(a, crew, post, "/reckon/wintering", doc{"reckon-wintering", "Reckon", "How a plant is brought through a winter", "Carried in, lifted, wrapped or left, with days, temperature, light and floor; or a bulb worked back from the day on which it is to bloom. Nothing is stored.", asks, 0}, s.reckonWintering, `{"property": 1, "species": "citrus-limon", "date": "2027-09-10", "pot_l": 60, "height_m": 1.8, "spread_m": 1.3, "count": 6}`)
	op(a, crew, post, "/reckon/site", doc{"reckon-site", "Reckon", "Sun, shelter and what a change does", "From an inline plan: hours of direct sun by month for a plant or a point, shelter, walls, roots; what a cut, a fall or a planting changes for each plant. Nothing is stored.", asks, 0}, s.reckonSite, `{"plan": {"latitude": 45.9, "things": [{"id": "hedge", "kind": "hedge", "height_m": 3, "spread_m": 1, "points": [{"x": -10, "y": -1}, {"x": 10, "y": -1}]},
		{"id": "ivy", "kind": "plant", "species": "hedera-helix", "height_m": 0.5, "spread_m": 1, "points": [{"x": 0, "y": 0.6}]}]}, "plant": "ivy", "changes": [{"thing": "hedge", "do": "cut", "height_m": 1}]}`)
	op(a, planner, post, "/reckon/replacement", doc{"reckon-replacement", "Reckon", "What fits a spot", "Kinds ranked for a spot and a wish, minding what died there; those left out with their reasons; when and how each is planted. Nothing is stored.", asks, 0}, s.reckonReplacement, `{"property": 1, "spot": {"light": "part shade", "soil_water": "even", "height_m": 2.5}, "died": {"species": "buxus-sempervirens", "cause": "box-blight"},
		"wish": {"evergreen": true}, "limit": 5}`)
}

func (s *Server) plan(ctx context.Context, in *ByID) (*Out[ground.PlanOut], error) {
	p, err := s.Ground.PlanOf(ctx, in.ID)
	return out(p), s.Problem(ctx, "property", err)
}

func (s *Server) setPlan(ctx context.Context, in *struct {
	Write
	Body ground.PlanIn
}) (*Out[ground.PlanOut], error) {
	p, err := s.Ground.SetPlan(ctx, keyOf(ctx), in.ID, in.Body)
	return out(p), s.Problem(ctx, "property", err)
}

func (s *Server) givePlan(ctx context.Context, in *ByID) (*File, error) {
	p, err := s.Estate.Store.Property(ctx, in.ID)
	if err != nil {
		return nil, s.Problem(ctx, "property", err)
	}
	plan, err := s.Ground.PlanOf(ctx, in.ID)
	var b bytes.Buffer
	if err == nil {
		c := p.Climate.V
		err = exchange.WritePlanGeoJSON(&b, plan.Plan, c.Latitude, c.Longitude)
	}
	return attached(p.Name, "plan.geojson", "application/geo+json", b.Bytes()), s.Problem(ctx, "property", err)
}

func (s *Server) takePlan(ctx context.Context, in *struct {
	Write
	Version int    `query:"version" minimum:"0" doc:"That it is based on; 0 where there was none"`
	RawBody []byte `contentType:"application/geo+json"`
}) (*Out[ground.PlanOut], error) {
	p, err := s.Ground.TakePlan(ctx, keyOf(ctx), in.ID, in.Version, in.RawBody)
	return out(p), s.Problem(ctx, "property", err)
}

func (s *Server) takeSpots(ctx context.Context, in *struct {
	Write
	Body ground.SpotsIn
}) (*Out[Run[ground.SpotTaken]], error) {
	list, err := s.Ground.TakeSpots(ctx, keyOf(ctx), in.ID, in.Body)
	return out(Run[ground.SpotTaken]{Items: list}), s.Problem(ctx, "plant on this property", err)
}

func (s *Server) reckonSite(ctx context.Context, in *struct{ Body ground.SiteIn }) (*Out[ground.SiteOut], error) {
	o, err := s.Ground.ReckonSite(ctx, in.Body)
	return out(o), s.Problem(ctx, "property", err)
}

func (s *Server) reckonReplacement(ctx context.Context, in *struct{ Body ground.ReplacementIn }) (*Out[ground.ReplacementOut], error) {
	o, err := s.Ground.ReckonReplacement(ctx, in.Body)
	return out(o), s.Problem(ctx, "property", err)
}

func (s *Server) winter(ctx context.Context, in *ByID) (*Out[ground.Winter], error) {
	w, err := s.Ground.WinterOf(ctx, in.ID)
	return out(w), s.Problem(ctx, "property", err)
}

func (s *Server) keepWinter(ctx context.Context, in *struct {
	Write
	Body struct {
		Plants []int64 `json:"plants" minItems:"1" maxItems:"2000"`
	}
}) (*Out[Run[int64]], error) {
	list, err := s.Ground.KeepWinter(ctx, keyOf(ctx), in.ID, in.Body.Plants)
	return out(Run[int64]{Items: list}), s.Problem(ctx, "property", err)
}

func (s *Server) reckonWintering(ctx context.Context, in *struct{ Body ground.WinteringIn }) (*Out[overwinter.Wintering], error) {
	w, err := s.Ground.ReckonWintering(ctx, in.Body)
	return out(w), s.Problem(ctx, "property", err)
}

func (s *Server) takeStops(ctx context.Context, in *struct {
	Write
	Body ground.StopsIn
}) (*Out[Run[ground.StopSet]], error) {
	list, err := s.Ground.TakeStops(ctx, keyOf(ctx), in.ID, in.Body)
	return out(Run[ground.StopSet]{Items: list}), s.Problem(ctx, "plant on this property", err)
}

// Picture is one that is kept.
type Picture struct {
	Hash   string `json:"hash" doc:"Read it by this"`
	Width  int    `json:"width"`
	Height int    `json:"height"`
}

func (s *Server) addUnderlay(ctx context.Context, in *orderPhotoIn) (*Out[Picture], error) {
	if _, err := s.Estate.Store.Property(ctx, in.ID); err != nil {
		return nil, s.Problem(ctx, "property", err)
	}
	jpeg, w, h, err := in.file.jpeg(ctx)
	if err != nil {
		return nil, s.Problem(ctx, "property", err)
	}
	hash, err := s.Estate.Store.KeepPicture(jpeg) // the same picture has the same hash: sent again, it is kept once
	return out(Picture{hash, w, h}), s.Problem(ctx, "property", err)
}

func (s *Server) planPDF(ctx context.Context, in *struct {
	ByID
	Language string `header:"Accept-Language"`
}) (*File, error) {
	page, err := s.Ground.PlanPage(ctx, in.ID, s.StyleOf(ctx, in.Language))
	var b bytes.Buffer
	if err == nil {
		err = exchange.WritePlanPage(&b, s.paper(ctx, in.Language), page)
	}
	return attached(page.Title, "plan.pdf", "application/pdf", b.Bytes()), s.Problem(ctx, "property", err)
}

func (s *Server) bloom(ctx context.Context, in *ByID) (*Out[replacement.Calendar], error) {
	c, err := s.Ground.Bloom(ctx, in.ID)
	return out(c), s.Problem(ctx, "property", err)
}

func (s *Server) keepPlanting(ctx context.Context, in *struct {
	Write
	Body ground.PlantingIn
}) (*Out[ground.Planted], error) {
	p, err := s.Ground.KeepPlanting(ctx, keyOf(ctx), in.ID, in.Body)
	return out(p), s.Problem(ctx, "property", err)
}

func (s *Server) kinds(ctx context.Context, _ *struct{}) (*Out[Run[ground.KindWord]], error) {
	list, err := s.Ground.Kinds(ctx)
	return out(Run[ground.KindWord]{Items: list}), s.Problem(ctx, "kinds", err)
}

func (s *Server) sayKind(ctx context.Context, in *struct {
	BySpecies
	OnceKey
	Body ground.KindWordIn
}) (*Out[ground.KindWord], error) {
	k, err := s.Ground.SayKind(ctx, keyOf(ctx), in.ID, in.Body)
	return out(k), s.Problem(ctx, "species", err)
}
