package ground

import (
	"context"
	"math"

	"mezzadro/core/site"
	"mezzadro/store"
)

// SpotSet is what a plant's record says of its spot.
type SpotSet struct {
	PlantID int64   `json:"plant_id" minimum:"1"`
	Sun     float64 `json:"sun" minimum:"0" maximum:"1" doc:"0 shade to 1 sun all day"`
	Shelter float64 `json:"shelter" minimum:"0" maximum:"1" doc:"From wind: 0 open to 1 wholly sheltered"`
	Wall    bool    `json:"wall" doc:"Within reach of a wall that the sun warms"`
}

// SpotTaken is a plant whose record now says what the plan says.
type SpotTaken struct {
	Name   string  `json:"name"`
	Before SpotSet `json:"before"`
	After  SpotSet `json:"after"`
}

// SpotsIn asks for spots to be taken into the record.
type SpotsIn struct {
	Set []SpotSet `json:"set,omitempty" maxItems:"5000" doc:"Values to be set instead, such as those of before; as the plan says when absent"`
}

// spotMatters is the least by which a plan and the record differ, as shares.
const spotMatters = 0.05

// TakeSpots has the plants of a property stand in the record as its plan says: sun, shelter and warm walls, measured
// in place of guessed. All in one write; it gives what was changed.
func (h *Room) TakeSpots(ctx context.Context, key store.Key, property int64, in SpotsIn) ([]SpotTaken, error) {
	plan, err := h.PlanOf(ctx, property)
	if err != nil {
		return nil, err
	}
	sets := in.Set
	if len(sets) == 0 {
		sets = h.spotsOf(&plan.Plan)
	}
	names := map[int64]string{}
	for _, t := range plan.Plan.Things {
		names[t.PlantID] = t.Name
	}
	byID, err := h.plantsByID(ctx, property)
	if err != nil {
		return nil, err
	}
	taken, err := store.Once(ctx, h.Store, key, func(tx store.Tx) ([]SpotTaken, error) {
		out := []SpotTaken{}
		for _, s := range sets {
			p, here := byID[s.PlantID]
			if !here {
				return out, store.ErrNotFound
			}
			before := SpotSet{p.ID, p.Sun, p.Shelter, p.Wall}
			if math.Abs(s.Sun-p.Sun) < spotMatters && math.Abs(s.Shelter-p.Shelter) < spotMatters && s.Wall == p.Wall {
				continue
			}
			p.Sun, p.Shelter, p.Wall = s.Sun, s.Shelter, s.Wall
			if _, err := tx.ChangePlant(ctx, p); err != nil {
				return out, err
			}
			out = append(out, SpotTaken{names[p.ID], before, s})
		}
		return out, nil
	})
	if err != nil {
		return nil, err
	}
	return taken, h.Work.RefreshProperty(ctx, property)
}

// spotsOf are the spots of all plants on a plan.
func (h *Room) spotsOf(p *site.Plan) (out []SpotSet) {
	year := h.Today().Time().Year()
	for _, t := range p.Things {
		if t.PlantID == 0 {
			continue
		}
		s := p.SpotAt(t.Midway(), t.LitAt(), year, t.ID)
		out = append(out, SpotSet{t.PlantID, s.Sun, s.Shelter, s.WarmWall})
	}
	return out
}

// StopSet is a plant's place on the way round its property.
type StopSet struct {
	PlantID int64 `json:"plant_id" minimum:"1"`
	Stop    int   `json:"stop" minimum:"0" maximum:"10000" doc:"From the gate; 0: after the others"`
}

// StopsIn asks for the way round to be taken into the record.
type StopsIn struct {
	Set []StopSet `json:"set,omitempty" maxItems:"5000" doc:"Places to be set instead, such as those of before; by the plan when absent"`
}

// stopsApart leaves room between two stops for plants that come later.
const stopsApart = 10

// TakeStops has the plants of a property stand in the order in which one goes round by its plan, from the gate; those
// without a place come after. All in one write; it gives where they stood before.
func (h *Room) TakeStops(ctx context.Context, key store.Key, property int64, in StopsIn) ([]StopSet, error) {
	plan, err := h.PlanOf(ctx, property)
	if err != nil {
		return nil, err
	}
	sets := in.Set
	if len(sets) == 0 {
		for i, id := range plan.Plan.WayRound() {
			if t := plan.Plan.Thing(id); t.PlantID != 0 {
				sets = append(sets, StopSet{t.PlantID, stopsApart * (i + 1)})
			}
		}
	}
	byID, err := h.plantsByID(ctx, property)
	if err != nil {
		return nil, err
	}
	return store.Once(ctx, h.Store, key, func(tx store.Tx) ([]StopSet, error) {
		out := []StopSet{}
		for _, s := range sets {
			p, here := byID[s.PlantID]
			if !here {
				return out, store.ErrNotFound
			}
			if p.Stop == s.Stop {
				continue
			}
			out = append(out, StopSet{p.ID, p.Stop})
			p.Stop = s.Stop
			if _, err := tx.ChangePlant(ctx, p); err != nil {
				return out, err
			}
		}
		return out, nil
	})
}

// plantsByID are the plants of a property.
func (h *Room) plantsByID(ctx context.Context, property int64) (map[int64]store.Plant, error) {
	plants, err := h.Store.Plants(ctx, property, 0, store.All)
	byID := make(map[int64]store.Plant, len(plants))
	for _, p := range plants {
		byID[p.ID] = p
	}
	return byID, err
}
