package catalogue

import (
	"fmt"
	"io/fs"
	"maps"
	"slices"

	"mezzadro/core/written"

	"mezzadro/core/invalid"
)

// What a figure rests on.
const (
	Measured = "measured" // trials or records of the species are known
	Usual    = "usual"    // widely agreed among growers and gardens
	Guess    = "guess"    // reckoned from kin and habit
)

// basisFields are the figures of an entry that say what they rest on.
var basisFields = []string{
	"hardiness_c", "root_hardiness_c", "drying_kpa_h", "lateness_days", "leaf_out", "bloom", "growth_cm_year", "regrowth_cm",
}

// bases are the classes of the built entries: what each field usually rests on, and the species that differ.
type bases struct {
	Usual    map[string]string   `yaml:"usual"`
	Measured map[string][]string `yaml:"measured"`
	Guess    map[string][]string `yaml:"guess"`
}

// setBases gives each entry the class of each of its figures. A list that names no entry or no field is a fault.
func setBases(files fs.FS, entries []Entry) error {
	b, err := fs.ReadFile(files, "data/basis.yaml")
	if err != nil {
		return err
	}
	var of bases
	if err := written.Read(b, &of); err != nil {
		return fmt.Errorf("data/basis.yaml: %w", err)
	}
	var bad invalid.Fields
	at := make(map[string]int, len(entries))
	for i := range entries {
		at[entries[i].ID] = i
		entries[i].Basis = maps.Clone(of.Usual)
	}
	for class, lists := range map[string]map[string][]string{Measured: of.Measured, Guess: of.Guess} {
		for field, ids := range lists {
			if !slices.Contains(basisFields, field) {
				bad.Add("basis."+class, field, "%q is no figure of an entry", field)
			}
			for _, id := range ids {
				i, known := at[id]
				if !known {
					bad.Add("basis."+class+"."+field, id, "%q is no entry", id)
					continue
				}
				entries[i].Basis[field] = class
			}
		}
	}
	return bad.Err()
}
