package garden

import (
	"bytes"
	"cmp"
	"context"
	"fmt"
	"slices"
	"strings"

	"mezzadro/core/catalogue"
	"mezzadro/core/invalid"
	"mezzadro/exchange"
	"mezzadro/house/estate"
	"mezzadro/store"
)

// PlantsTaken says what a plant file brought.
type PlantsTaken struct {
	Added    []int64  `json:"added" doc:"Ids of the new plants, in the order of the file"`
	Replaced []int64  `json:"replaced" doc:"Ids of plants that stood here and now are as the file says"`
	Lines    int      `json:"lines" doc:"Plants in the file"`
	Same     int      `json:"same" doc:"Plants of the file that stand here already: of the same kind at the same place"`
	Ask      bool     `json:"ask" doc:"Nothing was kept: say whether those are added again, replaced or left"`
	Passed   []string `json:"passed" doc:"Columns of the file that were passed over"`
	Unknown  []NoKind `json:"unknown" doc:"Names of the file that are no kind's: nothing was kept; say once which kind each is, or leave its lines out"`
	LeftOut  int      `json:"left_out" doc:"Lines that were left out as asked"`
}

// What is done with plants of a file that stand here already.
const (
	AskFirst  = "ask"
	AddAgain  = "add"
	ReplaceIt = "replace"
	LeaveIt   = "leave"
)

// TakePlants adds the plants of a CSV file: all of them, or with a fault anywhere none. Names that are no kind's are asked
// about first, each once, and kept once they are told; so are plants that stand here already, unless it is said what to
// do with them.
func (h *Room) TakePlants(
	ctx context.Context,
	key store.Key,
	property int64,
	file []byte,
	how Taking,
) (PlantsTaken, error) {
	t := PlantsTaken{Added: []int64{}, Replaced: []int64{}, Passed: []string{}, Unknown: []NoKind{}}
	book, err := h.Book(ctx)
	if err != nil {
		return t, err
	}
	sheet, err := exchange.ReadPlants(bytes.NewReader(file))
	if err != nil {
		return t, err
	}
	if t.LeftOut, err = how.settle(&sheet, book); err != nil {
		return t, err
	}
	if t.Unknown = unknown(sheet, book); len(t.Unknown) > 0 && sheet.Faults == nil {
		t.Lines = len(sheet.Lines)
		return t, nil
	}
	t.Unknown = []NoKind{} // with other faults they are told among those
	plants, bad := h.plantRecords(property, sheet, book)
	if bad != nil {
		return t, bad
	}
	here, err := h.Store.Plants(ctx, property, 0, store.All)
	if err != nil {
		return t, err
	}
	t.Lines, t.Passed = len(plants), append(t.Passed, sheet.Passed...)
	same := standingHere(plants, here)
	t.Same = len(same)
	return store.Once(ctx, h.Store, key, func(tx store.Tx) (PlantsTaken, error) {
		for name, id := range how.Called {
			if id == "" {
				continue
			}
			if err := tx.KeepOwnName(ctx, name, id); err != nil {
				return t, err
			}
		}
		if t.Ask = t.Same > 0 && how.Standing == AskFirst; t.Ask {
			return t, nil
		}
		for i, p := range plants {
			old, stands := same[i]
			switch {
			case stands && how.Standing == LeaveIt:
				continue
			case stands && how.Standing == ReplaceIt:
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
func (h *Room) plantRecords(property int64, sheet exchange.PlantSheet, book *catalogue.Catalogue) ([]store.Plant, error) {
	bad := sheet.Faults
	plants := make([]store.Plant, 0, len(sheet.Lines))
	if len(sheet.Lines) > importLimit {
		bad.Add("file", len(sheet.Lines), "holds %d plants; at most %d are taken at once", len(sheet.Lines), importLimit)
	}
	for _, l := range sheet.Lines {
		kind := l.Species
		if id, more := book.Named(l.Species); id != "" {
			kind, l.Note = id, withCultivar(l.Note, more)
		}
		p, err := h.plantRecord(
			PlantIn{
				PropertyID: property,
				Species:    kind,
				Label:      l.Label,
				HeightM:    l.HeightM,
				SpreadM:    l.SpreadM,
				Count:      l.Count,
				Standing:   estate.Standing{BaseMM: l.BaseMM, PotL: l.PotL, Shelter: &l.Shelter, Sun: &l.Sun, Mulched: l.Mulched, Exposure: l.Exposure},
				Value:      l.Value,
				Stop:       l.Stop,
				GraftM:     l.GraftM,
				Planted:    l.Planted,
				RowM:       l.RowM,
				BedM2:      l.BedM2,
				Note:       l.Note,
			},
			book,
		)
		for _, f := range invalid.Of(err) {
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
func (h *Room) PlantLines(ctx context.Context, property int64) ([]exchange.PlantLine, error) {
	plants, err := h.Store.Plants(ctx, property, 0, store.All)
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
			RowM:     p.RowM,
			BedM2:    p.BedM2,
			Exposure: p.Exposure,
			Note:     p.Note,
		}
	}
	return lines, err
}

// Labels are a property's plants to be printed, with its name, in the order of the way round; site is where their
// codes lead.
func (h *Room) Labels(ctx context.Context, property int64, site string) (name string, labels []exchange.Label, err error) {
	p, err := h.Place(ctx, property)
	if err != nil {
		return "", nil, err
	}
	plants, err := h.Store.Plants(ctx, property, 0, store.All)
	if err != nil {
		return "", nil, err
	}
	slices.SortStableFunc(
		plants,
		func(a, b store.Plant) int { return cmp.Compare(uint(a.Stop-1), uint(b.Stop-1)) },
	) // 0 comes last
	labels = make([]exchange.Label, len(plants))
	for i, x := range plants {
		e := estate.EntryOf(p.Book, x.Species)
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
