package walks

import (
	"context"
	"errors"
	"fmt"
	"math"
	"strings"
	"time"

	"mezzadro/core/catalogue"
	"mezzadro/core/cold"
	"mezzadro/core/day"
	"mezzadro/core/invalid"
	"mezzadro/core/quantity"
	"mezzadro/core/season"
	"mezzadro/core/walk"
	"mezzadro/core/weather"
	"mezzadro/exchange"
	"mezzadro/house/estate"
	"mezzadro/store"
)

// FreezeIn asks what weather did to plants, from inline values. The climate is given in full, or a property's is used;
// the weather is given as hours or as CSV, or is the property's own.
type FreezeIn struct {
	Date       day.Day                `json:"date,omitempty" format:"date" doc:"The day after which nothing is known yet; the last day of the weather when absent"`
	Climate    *season.Climate        `json:"climate,omitempty"`
	Property   int64                  `json:"property,omitempty" doc:"In place of a climate: a property's id"`
	Hours      []exchange.StationHour `json:"hours,omitempty" doc:"Hourly weather; the weeks before the freeze belong to it, for they hardened the plants or woke them"`
	WeatherCSV string                 `json:"weather_csv,omitempty" doc:"The same as the text of a CSV file"`
	Plants     []FreezePlant          `json:"plants" minItems:"1" maxItems:"2000"`
}

// FreezePlant is one plant asked about.
type FreezePlant struct {
	Species string  `json:"species" doc:"Catalogue id"`
	HeightM float64 `json:"height_m,omitempty" doc:"Its mature height when absent, m"`
	estate.Standing
}

// FreezeOut is what each event found in the weather did to each plant: an estimate to look by.
type FreezeOut struct {
	Events   []FreezeEvent `json:"events" doc:"Oldest first"`
	Reasons  []string      `json:"reasons"`
	Cautions []string      `json:"cautions"`
}

// FreezeEvent is one event and what it did.
type FreezeEvent struct {
	estate.Event
	Plants []FreezeHurt `json:"plants" doc:"In the order they were asked about"`
}

// FreezeHurt is what an event is expected to have done to a plant.
type FreezeHurt struct {
	Species      string        `json:"species"`
	WoodKillC    float64       `json:"wood_kill_c" doc:"Temperature at which half the thin wood dies on that day, °C"`
	BudKillC     float64       `json:"bud_kill_c"`
	Organs       []cold.Injury `json:"organs"`
	ThickestMM   float64       `json:"thickest_mm" doc:"Thickest wood half of which is killed, mm; 0 where not even tips are"`
	Dieback      float64       `json:"dieback" doc:"Expected share of the height lost from the tips"`
	DryingKPAH   float64       `json:"drying_kpa_h" doc:"Drying dose over frozen soil, kPa·h"`
	DryingBorne  float64       `json:"drying_borne_kpa_h" doc:"What the species bears of it"`
	DryingInjury float64       `json:"drying_injury" doc:"Expected share of leaves or buds dried"`
	BaseAlive    float64       `json:"base_alive" doc:"Chance that the lowest twentieth of the stem lives"`
	Severity     float64       `json:"severity" doc:"0 unhurt to 1 lost"`
	Reasons      []string      `json:"reasons"`
}

// ReckonFreeze says what each event found in some weather did to some plants, storing nothing.
func (h *Room) ReckonFreeze(ctx context.Context, b FreezeIn) (FreezeOut, error) {
	y, at, err := h.YearOf(ctx, b.Climate, b.Property)
	if errors.Is(err, store.ErrNotFound) {
		return FreezeOut{}, err
	}
	bad := invalid.Of(err)
	if err != nil && bad == nil {
		return FreezeOut{}, err
	}
	hours, err := b.weather(at)
	bad = append(bad, invalid.Of(err)...)
	book, err := h.Book(ctx)
	if err != nil {
		return FreezeOut{}, err
	}
	plants := make([]cold.Plant, len(b.Plants))
	for i, p := range b.Plants {
		path := fmt.Sprintf("plants[%d]", i)
		e, err := book.Species(p.Species)
		if err != nil {
			bad.Add(path+".species", p.Species, "%v", err)
			continue
		}
		stands := store.Plant{HeightM: p.HeightM}
		if p.HeightM == 0 {
			stands.HeightM = e.Mature.HeightM
		}
		p.Standing.Set(&stands)
		plants[i] = estate.CaseOf(stands, e, store.Property{Value: 1}).Plant
		bad.Below(path, plants[i].Validate())
	}
	if bad != nil {
		return FreezeOut{}, bad
	}
	zone := time.UTC
	course := (*cold.Course)(nil)
	switch {
	case hours == nil:
		course, zone = at.Course, at.Zone
	default:
		n := y.Normals
		if at != nil {
			zone = at.Zone
		}
		last := day.FromTime(hours[len(hours)-1].Time.In(zone))
		d := last
		if b.Date.Given() {
			d = b.Date
		}
		seen := weather.Daily(hours, zone)
		course = cold.Follow(season.NewYear(n, seen), hours, zone, max(d, last))
	}
	for i := range plants {
		plants[i].South = course.Year.Normals.Climate.South()
	}
	known := &estate.Place{Ground: &walk.Ground{Course: course}, Zone: zone, Normals: course.Year.Normals}
	if at != nil {
		known.Property = at.Property
	}
	o := FreezeOut{
		Events:   []FreezeEvent{},
		Cautions: []string{"An estimate from weather and species, not a finding: look before anything is cut."},
		Reasons: []string{
			"Hardening follows daylength and the warmth of the weeks before; tissue lags the air by its thickness.",
		},
	}
	for i := range course.Events {
		e := &course.Events[i]
		fe := FreezeEvent{Event: known.TellEvent(e), Plants: []FreezeHurt{}}
		for k := range plants {
			fe.Plants = append(fe.Plants, hurtBy(e, &plants[k], plants[k].Species.Stages(course.Year, e.Day)(e.Day)))
		}
		o.Events = append(o.Events, fe)
	}
	if len(o.Events) == 0 {
		o.Reasons = append(o.Reasons, "Nothing in this weather counts as an event in this climate.")
	}
	return o, nil
}

// weather is what was given of hours; nil where the property's own are to be used.
func (b FreezeIn) weather(at *estate.Place) ([]weather.Hour, error) {
	switch {
	case len(b.Hours) > 0 && b.WeatherCSV != "":
		return nil, invalid.One("weather_csv", nil, "is given beside hours; want one of the two")
	case len(b.Hours) > 0:
		return exchange.HoursOf("hours", b.Hours)
	case b.WeatherCSV != "":
		hours, err := exchange.ReadWeatherCSV(strings.NewReader(b.WeatherCSV))
		var bad invalid.Fields
		bad.Below("weather_csv", err)
		return hours, bad.Err()
	case at == nil:
		return nil, invalid.One(
			"hours",
			nil,
			"is missing: give hourly weather as hours or weather_csv, or a property whose weather is known",
		)
	}
	return nil, nil
}

func hurtBy(e *cold.Struck, p *cold.Plant, stage catalogue.Stage) FreezeHurt {
	o := e.Meet(p, stage)
	r := func(v float64) float64 { return math.Round(1000*v) / 1000 }
	h := FreezeHurt{
		Species:     p.Species.ID,
		WoodKillC:   quantity.Tenth(o.WoodKillC),
		BudKillC:    quantity.Tenth(o.BudKillC),
		Organs:      []cold.Injury{},
		ThickestMM:  quantity.Tenth(o.ThickestMM),
		Dieback:     r(o.Dieback),
		DryingKPAH:  quantity.Tenth(o.Dose),
		DryingBorne: p.Species.DryingKPAH,
		BaseAlive:   r(o.AliveAt(0.05)),
		Severity:    r(o.Severity),
		Reasons:     []string{o.Reason()},
	}
	for _, i := range o.Organs {
		i.Share, i.TissueC, i.KillC = r(i.Share), quantity.Tenth(i.TissueC), quantity.Tenth(i.KillC)
		h.Organs = append(h.Organs, i)
		if i.By == cold.ByDrying {
			h.DryingInjury = i.Share
		}
	}
	return h
}
