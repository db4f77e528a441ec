package estate

import (
	"fmt"

	"mezzadro/core/catalogue"
	"mezzadro/core/cold"
	"mezzadro/store"
)

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
	c := CaseOf(p, catalogue.Entry{}, store.Property{Value: 1})
	return c.Plant.Validate()
}

func PlantName(common, label string) string {
	if label == "" {
		return common
	}
	return common + ", " + label
}

// SpeciesNamed is the id of the species a plant file names by id, botanical or common name; what it does not know it gives
// back.
func SpeciesNamed(book *catalogue.Catalogue, name string) string {
	if id, _ := book.Named(name); id != "" {
		return id
	}
	return name
}

// PlantTitle is a plant's common name and where it stands.
func PlantTitle(book *catalogue.Catalogue, p store.Plant) string {
	title := EntryOf(book, p.Species).Common
	if p.Label != "" {
		title += ", " + p.Label
	}
	if p.Count > 1 {
		title += fmt.Sprintf(" × %d", p.Count)
	}
	return title
}
