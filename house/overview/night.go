package overview

import (
	"cmp"
	"context"
	"fmt"
	"math"
	"slices"
	"sync"

	"mezzadro/core/day"
	"mezzadro/core/job"
	"mezzadro/core/night"
	"mezzadro/core/rounds"
	"mezzadro/core/walk"
	"mezzadro/core/weather"
	"mezzadro/house/estate"
	"mezzadro/store"
)

// NightWatch is what is done before the cold nights that are told.
type NightWatch struct {
	Nights []Night `json:"nights" doc:"By property, the one first where most is saved in a minute of work; none where no cold night is told"`
	Told   int     `json:"told" doc:"Properties of which the station tells the nights ahead"`
}

// Night is a cold night to come at a property.
type Night struct {
	PropertyID int64      `json:"property_id"`
	Property   string     `json:"property"`
	Day        day.Day    `json:"day" format:"date" doc:"In whose morning it is coldest"`
	MinC       float64    `json:"min_c" doc:"As it is told, °C, at the station"`
	Minutes    int        `json:"minutes" doc:"For all of it: an estimate"`
	Acts       []NightAct `json:"acts" doc:"What saves most in a minute first"`
}

// NightAct is what is done for a plant before a night.
type NightAct struct {
	PlantID int64   `json:"plant_id"`
	Plant   string  `json:"plant"`
	Do      string  `json:"do" enum:"cover,carry in,mulch"`
	Minutes int     `json:"minutes"`
	Worst   string  `json:"worst" doc:"What is hurt worst as it stands"`
	Without float64 `json:"without" doc:"How badly the night likely hurts it as it stands, 0 unhurt to 1 lost: an estimate"`
	With    float64 `json:"with" doc:"And once that is done"`
}

// How far ahead nights are watched, and from which lowest temperature, as told, one is looked at.
const (
	watchDays = 2
	watchFrom = 4.0
)

// watched is what the nights were last worked out for.
type watched struct {
	mu   sync.Mutex
	of   string
	told NightWatch
}

// NightWatch says it: worked out once for a state of the record and a day.
func (h *Room) NightWatch(ctx context.Context) (NightWatch, error) {
	skies, err := h.SkiesAhead(ctx)
	if err != nil {
		return NightWatch{}, err
	}
	h.nights.mu.Lock()
	defer h.nights.mu.Unlock()
	of := fmt.Sprint(h.Today(), " ", h.Store.Rev(), " ", len(skies))
	if h.nights.of == of {
		return h.nights.told, nil
	}
	out, err := h.watch(ctx, skies)
	if err == nil {
		h.nights.of, h.nights.told = of, out
	}
	return out, err
}

func (h *Room) watch(ctx context.Context, skies estate.Skies) (NightWatch, error) {
	out := NightWatch{Nights: []Night{}, Told: len(skies)}
	t, err := h.Triage(ctx) // has all plants at hand
	if err != nil {
		return out, err
	}
	inside, err := h.inside(ctx)
	if err != nil {
		return out, err
	}
	outside := slices.DeleteFunc(slices.Clone(t.Kept), func(p store.Plant) bool { return inside[p.ID] })
	best := map[int64]float64{}
	for _, pl := range t.Places {
		n, saves, err := h.night(ctx, pl, skies[pl.Property.ID], outside)
		if err != nil {
			return out, err
		}
		if len(n.Acts) > 0 {
			out.Nights, best[n.PropertyID] = append(out.Nights, n), saves
		}
	}
	slices.SortStableFunc(
		out.Nights,
		func(a, b Night) int { return cmp.Compare(best[b.PropertyID], best[a.PropertyID]) },
	)
	return out, nil
}

// inside are the plants that were taken in and wait to be brought out again.
func (h *Room) inside(ctx context.Context) (map[int64]bool, error) {
	list, err := h.Store.StandingOrders(ctx)
	if err != nil {
		return nil, err
	}
	several, err := h.Store.SeveralPlants(ctx)
	out := map[int64]bool{}
	for _, kind := range []job.Kind{job.PlantOut, job.Lift} { // what is still to be lifted is outside
		for _, k := range list {
			if k.Kind != kind {
				continue
			}
			for _, id := range append(slices.Clone(several[k.ID]), k.PlantID.Int64) {
				out[id] = kind == job.PlantOut
			}
		}
	}
	return out, err
}

// night is the first of the nights ahead at a property that hurts something which can be helped, and what its first act
// saves in a minute.
func (h *Room) night(
	ctx context.Context,
	pl *estate.Place,
	sky map[day.Day]rounds.Sky,
	kept []store.Plant,
) (Night, float64, error) {
	today := h.Today()
	out := Night{PropertyID: pl.Property.ID, Property: pl.Property.Name}
	cold := false
	for d := today + 1; d <= today+watchDays; d++ {
		w, told := sky[d]
		cold = cold || told && w.MinC <= watchFrom
	}
	if !cold {
		return out, 0, nil
	}
	ground, err := h.groundAhead(ctx, pl, sky)
	if err != nil {
		return out, 0, err
	}
	for i := range ground.Course.Events {
		e := &ground.Course.Events[i]
		if !e.Cold() || e.Day <= today || e.Day > today+watchDays {
			continue
		}
		plants, names := []night.Plant{}, map[int64]string{}
		for _, p := range kept {
			if p.PropertyID != pl.Property.ID {
				continue
			}
			entry := estate.EntryOf(pl.Book, p.Species)
			c := pl.CaseOf(p, entry)
			plants = append(plants, night.Plant{ID: p.ID, Case: c, Stage: ground.Stage(&c.Species, e.Day)})
			names[p.ID] = estate.PlantName(entry.Common, p.Label)
		}
		out.Day, out.MinC = e.Day, sky[e.Day].MinC
		acts := night.Watch(e, plants)
		for _, a := range acts {
			out.Minutes += a.Minutes
			out.Acts = append(
				out.Acts,
				NightAct{a.Plant, names[a.Plant], a.Do, a.Minutes, a.Worst, round(a.Without), round(a.With)},
			)
		}
		if len(acts) > 0 {
			return out, acts[0].Saves / float64(acts[0].Minutes), nil
		}
	}
	return out, 0, nil
}

// groundAhead is a place worked out as if the days that are told had come.
func (h *Room) groundAhead(ctx context.Context, pl *estate.Place, sky map[day.Day]rounds.Sky) (*walk.Ground, error) {
	hours, err := h.HoursOf(ctx, pl)
	if err != nil {
		return nil, err
	}
	today, c := h.Today(), pl.Normals.Climate
	days := []weather.DayMeasured{}
	for d := today; d <= today+watchDays; d++ {
		if w, told := sky[d]; told {
			days = append(
				days,
				weather.DayMeasured{
					Day:    d,
					MinC:   w.MinC,
					MaxC:   w.MaxC,
					RainMM: w.RainMM,
					WindMS: w.WindMS,
					RHPct:  math.NaN(),
				},
			)
		}
	}
	ahead := weather.At(weather.OfDays(days, c.Latitude, c.Longitude, pl.Zone), pl.Property.Site.V, c.Longitude)
	for _, hour := range ahead {
		if len(hours) == 0 || hour.Time.After(hours[len(hours)-1].Time) {
			hours = append(hours, hour)
		}
	}
	return walk.At(pl.Normals, hours, pl.Zone, today+watchDays+1, pl.Rules), nil
}

func round(x float64) float64 { return math.Round(100*x) / 100 }
