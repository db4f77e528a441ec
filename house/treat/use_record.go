package treat

import (
	"cmp"
	"context"

	"mezzadro/core/cause"
	"mezzadro/core/day"
	"mezzadro/core/treatment"
	"mezzadro/house/estate"
	"mezzadro/store"
)

// Used is one line of the use record.
type Used struct {
	ID       int64    `json:"id"`
	Property string   `json:"property"`
	PlantID  int64    `json:"plant_id"`
	Plant    string   `json:"plant"`
	Day      day.Day  `json:"day" format:"date"`
	Who      string   `json:"who"`
	Product  string   `json:"product" doc:"Empty for work without one"`
	Active   string   `json:"active"`
	Cause    string   `json:"cause" doc:"In words: why it was used"`
	Amount   float64  `json:"amount"`
	Unit     string   `json:"unit"`
	SprayL   float64  `json:"spray_l"`
	Plants   int      `json:"plants"`
	TempC    *float64 `json:"temp_c" doc:"That day, from the station or as noted; null where nobody knows"`
	WindMS   *float64 `json:"wind_ms"`
	RainMM   float64  `json:"rain_mm" doc:"That fell within the hours in which rain washes it off"`
	Note     string   `json:"note"`

	Begun        string  `json:"begun" doc:"Hour of the day, as 06:30; empty where none was told"`
	Ended        string  `json:"ended" doc:"Hour of the day; empty where none was told"`
	AreaM2       float64 `json:"area_m2" doc:"Ground or bed it was put on; 0 where not told"`
	WindFrom     string  `json:"wind_from" doc:"Whence it blew; empty where not told"`
	Licence      string  `json:"licence" doc:"Number of the licence of who used it; empty where none was entered"`
	Registration string  `json:"registration" doc:"Of the product, as its card had it that day"`
	ReentryH     float64 `json:"reentry_h" doc:"Wait until people and pets went in again, hours; 0: until it was dry"`
	HarvestDays  int     `json:"harvest_days" doc:"Wait to harvest, days"`
}

// usesShown is how many lines of the use record are told at most.
const usesShown = 5000

// Uses is the use record of a span of days, the newest first.
func (h *Room) Uses(ctx context.Context, property int64, from, to day.Day) ([]Used, error) {
	list, err := h.Store.UsesBetween(ctx, property, from.String(), to.String(), usesShown)
	if err != nil {
		return nil, err
	}
	book, err := h.Book(ctx)
	if err != nil {
		return nil, err
	}
	out := make([]Used, len(list))
	for i, u := range list {
		out[i] = Used{
			ID:       u.ID,
			Property: u.Property,
			PlantID:  u.PlantID.Int64,
			Day:      store.DayOf(&u.Day),
			Who:      u.Who,
			Product:  u.Product,
			Active:   u.Active,
			Cause:    cmp.Or(cause.NameOf(u.Cause), "Feeding"),
			Amount:   u.Amount,
			Unit:     u.Unit,
			SprayL:   u.SprayL,
			Plants:   u.Plants,
			Note:     u.Note,

			Begun:        u.Details.V.Begun,
			Ended:        u.Details.V.Ended,
			AreaM2:       u.Details.V.AreaM2,
			WindFrom:     u.Details.V.WindFrom,
			Licence:      u.Details.V.Licence,
			Registration: u.Details.V.Registration,
			ReentryH:     u.Details.V.ReentryH,
			HarvestDays:  u.Details.V.HarvestDays,
		}
		if u.Species != "" {
			out[i].Plant = estate.PlantTitle(book, store.Plant{Species: u.Species, Label: u.Label})
		}
		if a := treatment.Built().Active(u.Active); a != nil {
			out[i].Active = a.Name
		}
		if u.TempC.Valid {
			out[i].TempC = &u.TempC.Float64
		}
		if u.WindMS.Valid {
			out[i].WindMS = &u.WindMS.Float64
		}
	}
	return out, nil
}
