package ground

import (
	"cmp"
	"context"
	"errors"
	"fmt"
	"math"
	"slices"

	"mezzadro/core/catalogue"
	"mezzadro/core/check"
	"mezzadro/core/day"
	"mezzadro/core/invalid"
	"mezzadro/core/job"
	"mezzadro/core/overwinter"
	"mezzadro/core/season"
	"mezzadro/house/estate"
	"mezzadro/house/work"
	"mezzadro/store"
)

// WinteringIn asks how a plant is brought through a winter, or how a bulb is forced.
type WinteringIn struct {
	Species  string          `json:"species" minLength:"1" doc:"Catalogue id"`
	Climate  *season.Climate `json:"climate,omitempty"`
	Property int64           `json:"property,omitempty" doc:"In place of a climate: a property's id"`
	Date     day.Day         `json:"date,omitempty" format:"date" doc:"Today when absent: the winter to come counts"`
	PotL     float64         `json:"pot_l,omitempty" minimum:"0" maximum:"2000"`
	HeightM  float64         `json:"height_m,omitempty" minimum:"0" maximum:"60" doc:"As tall as its kind grows when absent"`
	SpreadM  float64         `json:"spread_m,omitempty" minimum:"0" maximum:"60"`
	Count    int             `json:"count,omitempty" minimum:"0" maximum:"10000"`
	Mulched  bool            `json:"mulched,omitempty"`
	Bloom    day.Day         `json:"bloom,omitempty" format:"date" doc:"Of a bulb that is forced: the day on which it is to bloom"`
	Taken    day.Day         `json:"cuttings_taken,omitempty" format:"date" doc:"Of cuttings in water: the day on which they are cut"`
}

// ReckonWintering works it out from inline values, storing nothing.
func (h *Room) ReckonWintering(ctx context.Context, in WinteringIn) (overwinter.Wintering, error) {
	var none overwinter.Wintering
	book, err := h.Book(ctx)
	if err != nil {
		return none, err
	}
	var bad invalid.Fields
	e, err := book.Species(in.Species)
	if err != nil {
		bad.Add("species", in.Species, "%v", err)
	}
	y, _, err := h.YearOf(ctx, in.Climate, in.Property)
	if errors.Is(err, store.ErrNotFound) {
		return none, err
	}
	if bad = append(bad, invalid.Of(err)...); bad != nil {
		return none, bad
	}
	if in.Bloom.Given() {
		w, err := overwinter.Force(in.Species, in.Bloom, y)
		if err != nil {
			return none, invalid.One("species", in.Species, err.Error())
		}
		return w, nil
	}
	if in.Taken.Given() {
		w, err := overwinter.Cuttings(&e, in.Taken, y)
		if err != nil {
			return none, invalid.One("species", in.Species, err.Error())
		}
		return w, nil
	}
	p := check.Plant{Species: e, HeightM: cmp.Or(in.HeightM, e.Mature.HeightM), PotL: in.PotL, Count: in.Count, Mulched: in.Mulched}
	return overwinter.Plan(p, cmp.Or(in.SpreadM, e.Mature.SpreadM*p.HeightM/e.Mature.HeightM), y, h.DateOr(in.Date)), nil
}

// Winter is what a property needs for the winter to come.
type Winter struct {
	Plants []WinterPlant     `json:"plants" doc:"Those that do not simply stay out, what comes in first"`
	Rooms  []overwinter.Room `json:"rooms" doc:"What may stand together"`
	M2     float64           `json:"m2" doc:"Floor that all take that come in"`
	KG     float64           `json:"kg" doc:"What all weigh that are carried: an estimate"`
	Loads  int               `json:"loads" doc:"Of a trolley, of those"`
	Bulbs  []WinterBulb      `json:"bulbs" doc:"Kinds that can be forced"`
	Slips  []WinterBulb      `json:"cuttings" doc:"Kinds that are grown from cuttings: those that stand here, then others that root in water"`
}

// WinterPlant is a plant with its winter.
type WinterPlant struct {
	ID   int64  `json:"id"`
	Name string `json:"name"`
	overwinter.Wintering
	Count int     `json:"count"`
	PotL  float64 `json:"pot_l,omitempty"`
	KG    float64 `json:"kg,omitempty" doc:"Of all that is carried: an estimate"`
	Asked bool    `json:"asked" doc:"Jobs for it stand already"`
}

// WinterBulb is a kind that can be forced.
type WinterBulb struct {
	Species string `json:"species"`
	Common  string `json:"common"`
}

// WinterOf is what all plants of a property need for the winter to come.
func (h *Room) WinterOf(ctx context.Context, property int64) (Winter, error) {
	out := Winter{Plants: []WinterPlant{}, Rooms: []overwinter.Room{}, Bulbs: []WinterBulb{}, Slips: []WinterBulb{}}
	pl, err := h.Place(ctx, property)
	if err != nil {
		return out, err
	}
	plants, err := h.Store.Plants(ctx, property, 0, store.All)
	if err != nil {
		return out, err
	}
	asked, err := h.winterAsked(ctx, property)
	if err != nil {
		return out, err
	}
	here := map[string]bool{}
	for _, p := range plants {
		e := estate.EntryOf(pl.Book, p.Species)
		if !here[e.ID] && overwinter.FromCuttings(&e) {
			here[e.ID] = true
			out.Slips = append(out.Slips, WinterBulb{e.ID, e.Common})
		}
		w := overwinter.Plan(estate.CheckedPlant(p, e, 0), p.SpreadM, pl.Year, pl.Today)
		if w.Way == overwinter.StaysOut {
			continue
		}
		x := WinterPlant{ID: p.ID, Name: winterName(e, p), Wintering: w, Count: p.Count, PotL: p.PotL, Asked: asked[p.ID]}
		if w.Keep != nil && w.Way != overwinter.Tubers {
			x.KG = overwinter.Load(p.PotL, p.Count)
			out.KG += x.KG
		}
		out.Plants = append(out.Plants, x)
	}
	slices.SortStableFunc(out.Plants, func(a, b WinterPlant) int { return cmp.Compare(a.first(), b.first()) })
	out.house()
	out.Loads = int(math.Ceil(out.KG / overwinter.Trolley))
	for _, e := range pl.Book.Entries {
		if overwinter.CanForce(e.ID) {
			out.Bulbs = append(out.Bulbs, WinterBulb{e.ID, e.Common})
		}
		if overwinter.RootsInWater(e.ID) && !here[e.ID] {
			out.Slips = append(out.Slips, WinterBulb{e.ID, e.Common})
		}
	}
	return out, nil
}

func winterName(e catalogue.Entry, p store.Plant) string {
	name := e.Common
	if p.Count > 1 {
		name = fmt.Sprintf("%s × %d", name, p.Count)
	}
	return estate.PlantName(name, p.Label)
}

// first is when something is first done; after all others where nothing is.
func (p WinterPlant) first() day.Day {
	if len(p.Steps) == 0 {
		return math.MaxInt32
	}
	return p.Steps[0].To
}

// house puts what comes in into houses.
func (w *Winter) house() {
	names, keeps := []string{}, []overwinter.Keep{}
	for _, p := range w.Plants {
		if p.Keep != nil {
			names, keeps = append(names, p.Name), append(keeps, *p.Keep)
		}
	}
	w.Rooms, w.M2 = overwinter.House(names, keeps)
}

// winterKey names the jobs that a winter plan asked for, and winterNote begins their titles.
const (
	winterKey  = "winter"
	winterNote = "For the winter: "
)

// winterAsked are the plants for which jobs of a winter plan stand.
func (h *Room) winterAsked(ctx context.Context, property int64) (map[int64]bool, error) {
	out := map[int64]bool{}
	list, err := h.Store.StandingByKey(ctx, property, winterKey)
	for _, k := range list {
		if k.PlantID != nil {
			out[*k.PlantID] = true
		}
	}
	return out, err
}

// KeepWinter makes jobs of the steps of some plants' winters, in one write; those that stand already are left.
func (h *Room) KeepWinter(ctx context.Context, key store.Key, property int64, ids []int64) ([]int64, error) {
	w, err := h.WinterOf(ctx, property)
	if err != nil {
		return nil, err
	}
	orders := []store.NewOrder{}
	for i, id := range ids {
		k := slices.IndexFunc(w.Plants, func(p WinterPlant) bool { return p.ID == id })
		if k < 0 {
			return nil, invalid.One(fmt.Sprintf("plants[%d]", i), id, "needs nothing for the winter, or is not on this property")
		}
		if w.Plants[k].Asked {
			continue
		}
		for _, s := range w.Plants[k].Steps {
			n, _, err := h.Work.OrderByHand(ctx, work.HandOrder{
				PropertyID: property, Plants: []int64{id}, Title: winterNote + s.Do, Minutes: job.WinterMinutes(w.Plants[k].pots()), CrewSize: 1,
				Note: s.Why, Spans: []work.SpanIn{{From: s.From, To: s.To}},
			}, 0)
			if err != nil {
				return nil, err
			}
			n.Order.Key = winterKey
			orders = append(orders, n)
		}
	}
	return store.Once(ctx, h.Store, key, func(tx store.Tx) ([]int64, error) {
		out := []int64{}
		for _, n := range orders {
			id, err := tx.AddOrder(ctx, n)
			if err != nil {
				return out, err
			}
			out = append(out, id)
		}
		return out, nil
	})
}

// pots are about how many there are to carry.
func (p WinterPlant) pots() int {
	if p.Keep == nil {
		return 1
	}
	return max(1, int(p.Keep.M2/0.5))
}
