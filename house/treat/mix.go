package treat

import (
	"cmp"
	"context"
	"fmt"
	"slices"

	"mezzadro/core/day"
	"mezzadro/core/quantity"
	"mezzadro/core/treatment"
	"mezzadro/store"
)

// MixCard is what is mixed for the treatments that are on a day.
type MixCard struct {
	Day   day.Day   `json:"day" format:"date"`
	TankL float64   `json:"tank_l" doc:"Size of the tank, L"`
	Mixes []DayMix  `json:"mixes"`
	Days  []day.Day `json:"days" doc:"On which treatments with a product stand, from today on"`
}

// DayMix is one product of the day.
type DayMix struct {
	Product  int64             `json:"product" doc:"Id of the card; 0 where there is none"`
	Name     string            `json:"name"`
	Unit     string            `json:"unit"`
	Spray    treatment.Mixed   `json:"spray"`
	Stops    []string          `json:"stops" doc:"Where it goes, in the order of the day"`
	Cautions []string          `json:"cautions"`
	Missing  string            `json:"missing,omitempty"`
	Active   *treatment.Active `json:"active"`
}

// Mixes are those of a day.
func (h *Room) Mixes(ctx context.Context, on day.Day, tankL float64) (MixCard, error) {
	out := MixCard{Day: on, TankL: tankL, Mixes: []DayMix{}, Days: []day.Day{}}
	t, list, err := h.taking(ctx)
	if err != nil {
		return out, err
	}
	by := map[string]*ShoppingLine{}
	stops := map[string][]string{}
	cautions := map[string][]string{}
	for _, k := range list {
		at := store.DayOf(k.Day)
		if k.Params.V.Use == "" || at == day.None {
			continue
		}
		if at >= h.Today() && !slices.Contains(out.Days, at) {
			out.Days = append(out.Days, at)
		}
		if at != on {
			continue
		}
		key, err := t.add(ctx, by, k, at, at)
		if err != nil {
			return out, err
		}
		stops[key] = append(stops[key], fmt.Sprintf("%s, %s: %s", k.Property, k.Label, k.Title))
		for _, c := range k.Body.V.Cautions {
			if !slices.Contains(cautions[key], c) {
				cautions[key] = append(cautions[key], c)
			}
		}
	}
	slices.Sort(out.Days)
	for key, l := range by {
		l.close(t.products)
		m := DayMix{
			Product:  l.Product,
			Name:     l.Name,
			Unit:     l.Unit,
			Spray:    treatment.Mix(l.SprayL, l.Needed, tankL),
			Stops:    stops[key],
			Cautions: cautions[key],
			Missing:  l.Missing,
			Active:   treatment.Built().Active(l.use),
		}
		if l.Needed > l.OnHand && m.Missing == "" {
			m.Missing = fmt.Sprintf("%g %s are missing on hand", quantity.Tenth(l.Needed-l.OnHand), l.Unit)
		}
		out.Mixes = append(out.Mixes, m)
	}
	slices.SortFunc(out.Mixes, func(x, y DayMix) int { return cmp.Compare(x.Name, y.Name) })
	return out, nil
}
