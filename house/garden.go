package house

import (
	"bytes"
	"cmp"
	"context"
	"fmt"
	"slices"
	"strings"
	"time"

	"mezzadro/core/catalogue"
	"mezzadro/core/cold"
	"mezzadro/core/invalid"
	"mezzadro/core/rules"
	"mezzadro/core/season"
	"mezzadro/exchange"
	"mezzadro/store"
)

// PropertyIn is what is entered of a property. The climate is a type moved to the place's height, or given in full.
type PropertyIn struct {
	Name        string          `json:"name" minLength:"1" maxLength:"300"`
	Client      string          `json:"client,omitempty" maxLength:"300"`
	Address     string          `json:"address,omitempty" maxLength:"300"`
	Note        string          `json:"note,omitempty" maxLength:"2000"`
	Zone        string          `json:"zone,omitempty" doc:"Time zone; the climate type's when absent"`
	ClimateType string          `json:"climate_type,omitempty"`
	ElevationM  *float64        `json:"elevation_m,omitempty" doc:"Moves the climate type to this height"`
	Latitude    *float64        `json:"latitude,omitempty"`
	Longitude   *float64        `json:"longitude,omitempty"`
	Climate     *season.Climate `json:"climate,omitempty" doc:"In place of a type, which it overrules: the property's own normals"`
	Site        season.Site     `json:"site,omitempty" doc:"How the place differs from the open country"`
	cold.Exposure
	Rules   rules.House `json:"rules,omitempty" doc:"House rules that are others here than the firm's"`
	Value   float64     `json:"value,omitempty" doc:"The client's weight: 1 ordinary (when absent), 2 first, 0.5 last"`
	Version int         `json:"version,omitempty" doc:"When changing: the version the change is based on"`
}

// PropertyOut is a property with its climate.
type PropertyOut struct {
	Property
	Climate season.Climate `json:"climate" doc:"Of the open country at its height"`
	Site    season.Site    `json:"site"`
	cold.Exposure
	Rules rules.House    `json:"rules" doc:"House rules that are others here than the firm's"`
	Here  season.Climate `json:"climate_here" doc:"The climate on its site"`
	Hardy string         `json:"hardiness_zone" doc:"Of the climate on its site"`
}

// TellProperty is a kept property with its climate.
func TellProperty(p store.Property) PropertyOut {
	here := ClimateOf(p)
	return PropertyOut{tellRecord(p), p.Climate.V, p.Site.V, p.Exposure.V, p.Rules.V, here, season.Zone(here.ExtremeMinC)}
}

// record checks what was entered and makes the record of it.
func (h *House) propertyRecord(in PropertyIn) (store.Property, error) {
	p := store.Property{
		Name:        strings.TrimSpace(in.Name),
		Client:      in.Client,
		Address:     in.Address,
		Note:        in.Note,
		Zone:        in.Zone,
		ClimateType: in.ClimateType,
		Value:       in.Value,
		Version:     in.Version,
	}
	p.Site.V, p.Exposure.V, p.Rules.V = in.Site, in.Exposure, in.Rules
	bad := fields(in.Exposure.Validate())
	bad.Below("rules", in.Rules.Validate())
	if in.Value == 0 {
		p.Value = 1
	} else {
		bad.Within("value", in.Value, 0.5, 2, "")
	}
	if p.Name == "" {
		bad.Add("name", in.Name, "is missing")
	}
	switch {
	case in.Climate != nil:
		bad.Below("climate", in.Climate.Validate())
		p.Climate.V, p.ClimateType = *in.Climate, ""
	case in.ClimateType != "":
		t, err := h.Catalogue.Climate(in.ClimateType)
		if err != nil {
			bad.Add("climate_type", in.ClimateType, "%v", err)
			break
		}
		c := t.Climate
		if in.ElevationM != nil {
			bad.Within("elevation_m", *in.ElevationM, -430, 5000, "m")
			c = c.AtElevation(*in.ElevationM)
		}
		if in.Latitude != nil {
			bad.Within("latitude", *in.Latitude, -66, 72, "°")
			if *in.Latitude*c.Latitude < 0 {
				bad.Add("latitude", *in.Latitude, "%g° is in the other hemisphere than the climate type", *in.Latitude)
			}
			c.Latitude = *in.Latitude
		}
		if in.Longitude != nil {
			bad.Within("longitude", *in.Longitude, -180, 180, "°")
			c.Longitude = *in.Longitude
		}
		p.Climate.V = c
		if p.Zone == "" {
			p.Zone = t.Zone
		}
	default:
		bad.Add("climate_type", nil, "is missing: choose a climate to start from, or give the twelve normals as "+
			"climate")
	}
	if p.Zone == "" {
		p.Zone = "UTC"
	}
	if _, err := time.LoadLocation(p.Zone); err != nil {
		bad.Add("zone", p.Zone, "%q is no time zone", p.Zone)
	}
	return p, bad.Err()
}

// Properties are a page of the firm's.
func (h *House) Properties(ctx context.Context, after int64, limit int) ([]PropertyOut, error) {
	list, err := h.Store.Properties(ctx, after, limit)
	out := make([]PropertyOut, len(list))
	for i, p := range list {
		out[i] = TellProperty(p)
	}
	return out, err
}

// Property reads one.
func (h *House) Property(ctx context.Context, id int64) (PropertyOut, error) {
	p, err := h.Store.Property(ctx, id)
	return TellProperty(p), err
}

// AddProperty keeps a new one.
func (h *House) AddProperty(ctx context.Context, key store.Key, in PropertyIn) (PropertyOut, error) {
	p, err := h.propertyRecord(in)
	if err != nil {
		return PropertyOut{}, err
	}
	id, err := store.Once(ctx, h.Store, key, func(tx store.Tx) (int64, error) {
		p, err := tx.AddProperty(ctx, p)
		return p.ID, err
	})
	if err != nil {
		return PropertyOut{}, err
	}
	return h.Property(ctx, id)
}

// ChangeProperty keeps new values; the windows of its orders follow.
func (h *House) ChangeProperty(ctx context.Context, key store.Key, id int64, in PropertyIn) (PropertyOut, error) {
	p, err := h.propertyRecord(in)
	if err != nil {
		return PropertyOut{}, err
	}
	p.ID = id
	_, err = store.Once(ctx, h.Store, key, func(tx store.Tx) (int64, error) {
		p, err := tx.ChangeProperty(ctx, p)
		return p.ID, stale(err, TellProperty)
	})
	if err != nil {
		return PropertyOut{}, err
	}
	return h.Property(ctx, id)
}

// RemoveProperty takes a property out of sight, or brings it back.
func (h *House) RemoveProperty(ctx context.Context, key store.Key, id int64, remove bool) error {
	_, err := store.Once(
		ctx,
		h.Store,
		key,
		func(tx store.Tx) (struct{}, error) { return struct{}{}, tx.RemoveProperty(ctx, id, remove) },
	)
	return err
}

// Standing is how a plant stands: what decides, beside its species, how an event meets it.
type Standing struct {
	BaseMM  float64  `json:"base_mm,omitempty" doc:"Stem thickness at the base, mm; what is usual for form and height when absent"`
	PotL    float64  `json:"pot_l,omitempty" doc:"Litres of the pot; in the ground when absent"`
	Shelter *float64 `json:"shelter,omitempty" doc:"From wind: 0 open to 1 wholly sheltered; 0.5 when absent"`
	Sun     *float64 `json:"sun,omitempty" doc:"0 shade to 1 sun all day; 0.6 when absent"`
	Mulched bool     `json:"mulched,omitempty"`
	cold.Exposure
}

// Set puts it on a plant.
func (st Standing) Set(p *store.Plant) {
	p.BaseMM, p.PotL, p.Mulched, p.Shelter, p.Sun, p.Exposure = st.BaseMM, st.PotL, st.Mulched, cold.UsualShelter, cold.UsualSun, st.Exposure
	if st.Shelter != nil {
		p.Shelter = *st.Shelter
	}
	if st.Sun != nil {
		p.Sun = *st.Sun
	}
}

// Validate checks it with the core's own limits; the height is checked apart.
func (st Standing) Validate() error {
	p := store.Plant{HeightM: 1}
	st.Set(&p)
	c := caseOf(p, catalogue.Entry{}, store.Property{Value: 1})
	return c.Plant.Validate()
}

// PlantIn is what is entered of a plant.
type PlantIn struct {
	PropertyID int64   `json:"property_id,omitempty" doc:"When adding"`
	Species    string  `json:"species" minLength:"1" doc:"Catalogue id"`
	Label      string  `json:"label,omitempty" maxLength:"300"`
	HeightM    float64 `json:"height_m" doc:"m"`
	SpreadM    float64 `json:"spread_m,omitempty" doc:"m; two thirds of the height when absent"`
	Count      int     `json:"count,omitempty" minimum:"0" maximum:"10000" doc:"1 when absent"`
	Standing
	Value   float64 `json:"value,omitempty" doc:"To the client: 1 ordinary (when absent), 2 dear, 0.5 hardly minded"`
	Stop    int     `json:"stop,omitempty" minimum:"0" maximum:"10000" doc:"Place on the way round the property, from the gate; after the others when absent"`
	GraftM  float64 `json:"graft_m,omitempty" doc:"Height of the graft, m"`
	Planted int     `json:"planted,omitempty" doc:"Year it was planted"`
	Note    string  `json:"note,omitempty" maxLength:"2000"`
	Version int     `json:"version,omitempty" doc:"When changing: the version the change is based on"`
}

// plantRecord checks what was entered, with species from the book, and makes the record of it.
func (h *House) plantRecord(in PlantIn, book *catalogue.Catalogue) (store.Plant, error) {
	p := store.Plant{
		PropertyID: in.PropertyID,
		Species:    in.Species,
		Label:      strings.TrimSpace(in.Label),
		HeightM:    in.HeightM,
		SpreadM:    in.SpreadM,
		Count:      max(1, in.Count),
		Value:      in.Value,
		Stop:       in.Stop,
		GraftM:     in.GraftM,
		Planted:    in.Planted,
		Note:       in.Note,
		Version:    in.Version,
	}
	in.Standing.Set(&p)
	bad := fields(in.Standing.Validate())
	if _, err := book.Species(in.Species); err != nil {
		bad.Add("species", in.Species, "%v", err)
	}
	if !(in.HeightM > 0 && in.HeightM <= catalogue.TallestM) {
		bad.Add("height_m", in.HeightM, "%g m: a plant's height must be above 0 and at most 60 m", in.HeightM)
	}
	if in.SpreadM == 0 {
		p.SpreadM = in.HeightM * 2 / 3
	} else if !(in.SpreadM > 0 && in.SpreadM <= 100) {
		bad.Add("spread_m", in.SpreadM, "%g m: a plant's spread must be above 0 and at most 100 m", in.SpreadM)
	}
	if in.Value == 0 {
		p.Value = 1
	} else {
		bad.Within("value", in.Value, 0.5, 2, "")
	}
	if !(in.GraftM >= 0 && in.GraftM <= max(in.HeightM, 0)) {
		bad.Add("graft_m", in.GraftM, "%g m: the graft must lie on the plant, from the ground to %g m", in.GraftM, in.HeightM)
	}
	if now := h.Today().Year(); in.Planted != 0 && (in.Planted < 1500 || in.Planted > now) {
		bad.Add("planted", in.Planted, "%d is no year from 1500 to %d", in.Planted, now)
	}
	return p, bad.Err()
}

// Plants are a page of plants, of one property or with 0 of all, with what is known of each now.
func (h *House) Plants(ctx context.Context, property, after int64, limit int) ([]PlantOut, error) {
	list, err := h.Store.Plants(ctx, property, after, limit)
	if err != nil {
		return nil, err
	}
	t, err := h.Triage(ctx)
	if err != nil {
		return nil, err
	}
	return t.Tell(list), nil
}

// Plant is one with what is known of it now.
func (h *House) Plant(ctx context.Context, id int64) (PlantOut, error) {
	p, err := h.Store.Plant(ctx, id)
	if err != nil {
		return PlantOut{}, err
	}
	t, err := h.Triage(ctx)
	if err != nil {
		return PlantOut{}, err
	}
	return t.Tell([]store.Plant{p})[0], nil
}

// keepPlant keeps a plant one way or another, once, and takes over what was kept.
func (h *House) keepPlant(
	ctx context.Context,
	key store.Key,
	p *store.Plant,
	way func(store.Tx, context.Context, store.Plant) (store.Plant, error),
) error {
	kept, err := store.Once(ctx, h.Store, key, func(tx store.Tx) (Plant, error) {
		kept, err := way(tx, ctx, *p)
		return Plant(kept), err
	})
	*p = store.Plant(kept)
	return stale(err, tellPlant)
}

// AddPlant keeps a new one.
func (h *House) AddPlant(ctx context.Context, key store.Key, in PlantIn) (PlantOut, error) {
	book, err := h.Book(ctx)
	if err != nil {
		return PlantOut{}, err
	}
	p, err := h.plantRecord(in, book)
	if err == nil && p.PropertyID == 0 {
		err = Refuse("property_id", nil, "is missing: say on which property it stands")
	}
	if err == nil {
		err = h.keepPlant(ctx, key, &p, store.Tx.AddPlant)
	}
	if err != nil {
		return PlantOut{}, err
	}
	return h.Plant(ctx, p.ID)
}

// ChangePlant keeps new values; the windows of its orders follow.
func (h *House) ChangePlant(ctx context.Context, key store.Key, id int64, in PlantIn) (PlantOut, error) {
	book, err := h.Book(ctx)
	if err != nil {
		return PlantOut{}, err
	}
	p, err := h.plantRecord(in, book)
	if err == nil {
		p.ID = id
		err = h.keepPlant(ctx, key, &p, store.Tx.ChangePlant)
	}
	if err == nil {
		err = h.refreshProperty(ctx, p.PropertyID)
	}
	if err != nil {
		return PlantOut{}, err
	}
	return h.Plant(ctx, id)
}

// RemovePlant takes a plant out of sight, or brings it back, with its orders.
func (h *House) RemovePlant(ctx context.Context, key store.Key, id int64, remove bool) error {
	_, err := store.Once(
		ctx,
		h.Store,
		key,
		func(tx store.Tx) (struct{}, error) { return struct{}{}, tx.RemovePlant(ctx, id, remove) },
	)
	return err
}

// PlantsTaken says what a plant file brought.
type PlantsTaken struct {
	Added    []int64  `json:"added" doc:"Ids of the new plants, in the order of the file"`
	Replaced []int64  `json:"replaced" doc:"Ids of plants that stood here and now are as the file says"`
	Lines    int      `json:"lines" doc:"Plants in the file"`
	Same     int      `json:"same" doc:"Plants of the file that stand here already: of the same kind at the same place"`
	Ask      bool     `json:"ask" doc:"Nothing was kept: say whether those are added again, replaced or left"`
	Passed   []string `json:"passed" doc:"Columns of the file that were passed over"`
}

// What is done with plants of a file that stand here already.
const (
	AskFirst  = "ask"
	AddAgain  = "add"
	ReplaceIt = "replace"
	LeaveIt   = "leave"
)

// TakePlants adds the plants of a CSV file: all of them, or with a fault anywhere none. Those that stand here already are
// asked about first, unless it is said what to do with them.
func (h *House) TakePlants(
	ctx context.Context,
	key store.Key,
	property int64,
	file []byte,
	standing string,
) (PlantsTaken, error) {
	t := PlantsTaken{Added: []int64{}, Replaced: []int64{}, Passed: []string{}}
	book, err := h.Book(ctx)
	if err != nil {
		return t, err
	}
	sheet, err := exchange.ReadPlants(bytes.NewReader(file))
	if err != nil {
		return t, err
	}
	plants, bad := h.plantRecords(property, sheet, book)
	if bad != nil {
		return t, bad
	}
	here, err := h.Store.Plants(ctx, property, 0, all)
	if err != nil {
		return t, err
	}
	t.Lines, t.Passed = len(plants), append(t.Passed, sheet.Passed...)
	same := standingHere(plants, here)
	t.Same = len(same)
	return store.Once(ctx, h.Store, key, func(tx store.Tx) (PlantsTaken, error) {
		if t.Ask = t.Same > 0 && standing == AskFirst; t.Ask {
			return t, nil
		}
		for i, p := range plants {
			old, stands := same[i]
			switch {
			case stands && standing == LeaveIt:
				continue
			case stands && standing == ReplaceIt:
				p.ID, p.Version = old.ID, old.Version
				if _, err := tx.ChangePlant(ctx, p); err != nil {
					return t, err
				}
				t.Replaced = append(t.Replaced, p.ID)
				continue
			}
			p, err := tx.AddPlant(ctx, p)
			if err != nil {
				return t, err
			}
			t.Added = append(t.Added, p.ID)
		}
		return t, nil
	})
}

// plantRecords makes the records of a file's plants, with every fault by line and by the file's own name of the column.
func (h *House) plantRecords(property int64, sheet exchange.PlantSheet, book *catalogue.Catalogue) ([]store.Plant, error) {
	bad := sheet.Faults
	plants := make([]store.Plant, 0, len(sheet.Lines))
	if len(sheet.Lines) > importLimit {
		bad.Add("file", len(sheet.Lines), "holds %d plants; at most %d are taken at once", len(sheet.Lines), importLimit)
	}
	for _, l := range sheet.Lines {
		p, err := h.plantRecord(
			PlantIn{
				PropertyID: property,
				Species:    named(book, l.Species),
				Label:      l.Label,
				HeightM:    l.HeightM,
				SpreadM:    l.SpreadM,
				Count:      l.Count,
				Standing:   Standing{l.BaseMM, l.PotL, &l.Shelter, &l.Sun, l.Mulched, l.Exposure},
				Value:      l.Value,
				Stop:       l.Stop,
				GraftM:     l.GraftM,
				Planted:    l.Planted,
				Note:       l.Note,
			},
			book,
		)
		for _, f := range fields(err) {
			if len(bad) < faultsTold {
				bad.Add(fmt.Sprintf("line %d", l.Line), f.Value, "%s: %s", sheet.Column(f.Path), f.Problem)
			}
		}
		plants = append(plants, p)
	}
	byLine := func(f invalid.Field) int {
		n := 0
		fmt.Sscanf(f.Path, "line %d", &n)
		return n
	}
	slices.SortStableFunc(bad, func(a, b invalid.Field) int { return cmp.Compare(byLine(a), byLine(b)) })
	return plants, bad.Err()
}

// standingHere finds, by their place in the file, the plants that stand on the property already: of the same kind at the
// same place, each taken once.
func standingHere(plants, here []store.Plant) map[int]store.Plant {
	at := func(p store.Plant) string { return p.Species + "\x00" + strings.ToLower(p.Label) }
	left := map[string][]store.Plant{}
	for _, p := range here {
		left[at(p)] = append(left[at(p)], p)
	}
	out := map[int]store.Plant{}
	for i, p := range plants {
		if l := left[at(p)]; len(l) > 0 {
			out[i], left[at(p)] = l[0], l[1:]
		}
	}
	return out
}

// faultsTold is how many faults of a file are told at once.
const faultsTold = 200

// PlantLines are a property's plants as a file holds them.
func (h *House) PlantLines(ctx context.Context, property int64) ([]exchange.PlantLine, error) {
	plants, err := h.Store.Plants(ctx, property, 0, all)
	lines := make([]exchange.PlantLine, len(plants))
	for i, p := range plants {
		lines[i] = exchange.PlantLine{
			Species:  p.Species,
			Label:    p.Label,
			HeightM:  p.HeightM,
			SpreadM:  p.SpreadM,
			Count:    p.Count,
			BaseMM:   p.BaseMM,
			PotL:     p.PotL,
			Shelter:  p.Shelter,
			Sun:      p.Sun,
			Mulched:  p.Mulched,
			Value:    p.Value,
			Stop:     p.Stop,
			GraftM:   p.GraftM,
			Planted:  p.Planted,
			Exposure: p.Exposure,
			Note:     p.Note,
		}
	}
	return lines, err
}

// Labels are a property's plants to be printed, with its name, in the order of the way round; site is where their
// codes lead.
func (h *House) Labels(ctx context.Context, property int64, site string) (name string, labels []exchange.Label, err error) {
	p, err := h.Place(ctx, property)
	if err != nil {
		return "", nil, err
	}
	plants, err := h.Store.Plants(ctx, property, 0, all)
	if err != nil {
		return "", nil, err
	}
	slices.SortStableFunc(
		plants,
		func(a, b store.Plant) int { return cmp.Compare(uint(a.Stop-1), uint(b.Stop-1)) },
	) // 0 comes last
	labels = make([]exchange.Label, len(plants))
	for i, x := range plants {
		e := entryOf(p.Book, x.Species)
		labels[i] = exchange.Label{
			URL:    fmt.Sprintf("%s/#/plant/%d", strings.TrimSuffix(site, "/"), x.ID),
			Common: e.Common,
			Latin:  e.Botanical,
			Place:  x.Label,
			Owner:  p.Property.Name,
		}
	}
	return p.Property.Name, labels, nil
}

// importLimit is how many plants a file may hold.
const importLimit = 5000

// named is the id of the species a plant file names by id, botanical or common name; what it does not know it gives
// back.
func named(book *catalogue.Catalogue, name string) string {
	for _, e := range book.Entries {
		if e.ID == name || strings.EqualFold(e.Botanical, name) || strings.EqualFold(e.Common, name) {
			return e.ID
		}
	}
	return name
}
