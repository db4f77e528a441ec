package ground

import (
	"context"
	"math"
	"slices"
	"strconv"

	"mezzadro/core/invalid"
	"mezzadro/core/quantity"
	"mezzadro/core/site"
	"mezzadro/exchange"
	"mezzadro/house/estate"
	"mezzadro/store"
)

// PlanIn is a plan as it was drawn.
type PlanIn struct {
	Plan    site.Plan `json:"plan"`
	Version int       `json:"version" minimum:"0" doc:"That it is based on; 0 where there was none"`
}

// PlanOut is a property's plan.
type PlanOut struct {
	Plan    site.Plan    `json:"plan"`
	Version int          `json:"version" doc:"0: none was drawn yet"`
	Loose   []LoosePlant `json:"loose" doc:"Plants of the property that stand nowhere on the plan"`
}

// LoosePlant is a plant without a place.
type LoosePlant struct {
	ID      int64   `json:"id"`
	Species string  `json:"species"`
	Name    string  `json:"name"`
	HeightM float64 `json:"height_m"`
	SpreadM float64 `json:"spread_m"`
	Count   int     `json:"count" doc:"More than one for a group kept as one"`
}

// PlanOf is the plan of a property, with its plants as they are now and those that stand nowhere on it.
func (h *Room) PlanOf(ctx context.Context, property int64) (PlanOut, error) {
	p, err := h.Store.Property(ctx, property)
	if err != nil {
		return PlanOut{}, err
	}
	row, err := h.Store.Plan(ctx, property)
	if err != nil {
		return PlanOut{}, err
	}
	return h.tellPlanOf(ctx, p, row)
}

func (h *Room) tellPlanOf(ctx context.Context, p store.Property, row store.SitePlan) (PlanOut, error) {
	out := PlanOut{Plan: row.Body.V, Version: row.Version, Loose: []LoosePlant{}}
	out.Plan.Latitude = p.Climate.V.Latitude
	if out.Plan.Things == nil {
		out.Plan.Things = []site.Thing{}
	}
	plants, err := h.Store.Plants(ctx, p.ID, 0, store.All)
	if err != nil {
		return out, err
	}
	book, err := h.Book(ctx)
	if err != nil {
		return out, err
	}
	at := map[int64]int{}
	for i, t := range out.Plan.Things {
		if t.PlantID != 0 && t.Kind != site.Grave {
			at[t.PlantID] = i
		}
	}
	here := map[int64]bool{}
	for _, q := range plants {
		here[q.ID] = true
		e := estate.EntryOf(book, q.Species)
		i, stands := at[q.ID]
		if !stands {
			out.Loose = append(out.Loose, LoosePlant{q.ID, q.Species, estate.PlantName(e.Common, q.Label), q.HeightM, q.SpreadM, q.Count})
			continue
		}
		t := &out.Plan.Things[i]
		t.Species, t.Name, t.HeightM, t.SpreadM = q.Species, estate.PlantName(e.Common, q.Label), q.HeightM, q.SpreadM
		t.Fill(&e)
	}
	gone, err := h.Store.Gone(ctx, p.ID)
	if err != nil {
		return out, err
	}
	kept := out.Plan.Things[:0]
	for _, t := range out.Plan.Things { // what was removed since stands there no more: its grave does
		if t.PlantID != 0 && t.Kind != site.Grave && !here[t.PlantID] {
			k := slices.IndexFunc(gone, func(g store.GonePlant) bool { return g.ID == t.PlantID })
			if k < 0 {
				continue
			}
			g := gone[k]
			t = site.Thing{ID: t.ID, Kind: site.Grave, Points: []site.At{t.Midway()}, Species: g.Species, PlantID: g.ID, Cause: g.Cause, Year: g.Year,
				Name: estate.PlantName(estate.EntryOf(book, g.Species).Common, g.Label)}
		}
		if t.Kind == site.Grave && here[t.PlantID] { // it was brought back
			continue
		}
		kept = append(kept, t)
	}
	out.Plan.Things = kept
	return out, nil
}

// SetPlan keeps a plan.
func (h *Room) SetPlan(ctx context.Context, key store.Key, property int64, in PlanIn) (PlanOut, error) {
	p, err := h.Store.Property(ctx, property)
	if err != nil {
		return PlanOut{}, err
	}
	in.Plan.Latitude = p.Climate.V.Latitude
	var bad invalid.Fields
	bad.Below("plan", in.Plan.Validate())
	plants, err := h.Store.Plants(ctx, property, 0, store.All)
	if err != nil {
		return PlanOut{}, err
	}
	for i, t := range in.Plan.Things {
		here := func(p store.Plant) bool { return p.ID == t.PlantID }
		if t.PlantID != 0 && t.Kind != site.Grave && !slices.ContainsFunc(plants, here) {
			bad.Add("plan.things["+strconv.Itoa(i)+"].plant_id", t.PlantID, "no such plant stands on this property")
		}
	}
	if bad != nil {
		return PlanOut{}, bad
	}
	extents := measured(in.Plan.Things, plants)
	row, err := store.Once(ctx, h.Store, key, func(tx store.Tx) (store.SitePlan, error) {
		for plant, extent := range extents {
			if err := tx.SetExtent(ctx, plant, extent); err != nil {
				return store.SitePlan{}, err
			}
		}
		return tx.SetPlan(ctx, store.SitePlan{PropertyID: property, Body: store.JSON[site.Plan]{V: in.Plan}, Version: in.Version})
	})
	if err != nil {
		return PlanOut{}, estate.Stale(err, func(r store.SitePlan) PlanOut {
			return PlanOut{Plan: r.Body.V, Version: r.Version, Loose: []LoosePlant{}}
		})
	}
	return h.tellPlanOf(ctx, p, row)
}

// measured are the plants whose row, hedge or bed is drawn in another size than the record says, with it.
func measured(things []site.Thing, plants []store.Plant) map[int64]store.Extent {
	out := map[int64]store.Extent{}
	for i := range things {
		t := &things[i]
		if !t.Row() && !t.Filled() {
			continue
		}
		drawn := store.Extent{BedM2: quantity.Round(t.AreaM2(), 0.1)}
		if t.Row() {
			drawn = store.Extent{RowM: quantity.Round(t.LengthM(), 0.01)}
		}
		for _, p := range plants {
			if p.ID == t.PlantID && (math.Abs(p.RowM-drawn.RowM) > 0.01 || math.Abs(p.BedM2-drawn.BedM2) > 0.1) {
				out[p.ID] = drawn
			}
		}
	}
	return out
}

// TakePlan keeps a plan that came as GeoJSON; plants that stood on the one before keep their places.
func (h *Room) TakePlan(ctx context.Context, key store.Key, property int64, version int, b []byte) (PlanOut, error) {
	p, err := h.Store.Property(ctx, property)
	if err != nil {
		return PlanOut{}, err
	}
	c := p.Climate.V
	things, err := exchange.ReadPlanGeoJSON(b, c.Latitude, c.Longitude)
	if err != nil {
		return PlanOut{}, err
	}
	row, err := h.Store.Plan(ctx, property)
	if err != nil {
		return PlanOut{}, err
	}
	taken := map[string]bool{}
	for _, t := range things {
		taken[t.ID] = true
	}
	for _, t := range row.Body.V.Things {
		if t.PlantID == 0 || t.Kind == site.Grave {
			continue
		}
		if taken[t.ID] { // given out and back again: the record's plant stays the record's
			things = slices.DeleteFunc(things, func(o site.Thing) bool { return o.ID == t.ID })
		}
		things = append(things, t)
	}
	plan := row.Body.V      // the lie of the land stays
	if plan.NorthDeg != 0 { // what comes in degrees has north up
		plan.NorthDeg, plan.Underlay = 0, nil
	}
	plan.Latitude, plan.Things = c.Latitude, things
	return h.SetPlan(ctx, key, property, PlanIn{Plan: plan, Version: version})
}
