package api

import (
	"context"
	"fmt"

	"github.com/danielgtaylor/huma/v2"

	"mezzadro/core/catalogue"
	"mezzadro/core/damage"
	"mezzadro/core/day"
	"mezzadro/core/season"
	"mezzadro/store"
)

// book is the catalogue with the firm's own and corrected entries.
func (s *Server) book(ctx context.Context) (*catalogue.Catalogue, error) {
	s.opening.Lock()
	defer s.opening.Unlock()
	if s.opened == nil {
		own, err := s.Store.OwnSpecies(ctx)
		if err != nil {
			return nil, err
		}
		entries := make([]catalogue.Entry, len(own))
		s.own = map[string]int{}
		for i, o := range own {
			entries[i], s.own[o.Entry.ID] = o.Entry, o.Version
		}
		s.opened = s.Catalogue.With(entries)
	}
	return s.opened, nil
}

// closeBook has the book read anew at the next look into it.
func (s *Server) closeBook() {
	s.opening.Lock()
	s.opened = nil
	s.opening.Unlock()
}

// SpeciesOut is an entry and whose it is.
type SpeciesOut struct {
	catalogue.Entry
	Source  string `json:"source" enum:"built,corrected,own" doc:"built in, built in and corrected by the firm, or the firm's own"`
	Version int    `json:"version" doc:"Of the firm's own or corrected entry; 0 for a built one"`
}

func (s *Server) tellSpecies(e catalogue.Entry) SpeciesOut {
	s.opening.Lock()
	version, own := s.own[e.ID]
	s.opening.Unlock()
	o := SpeciesOut{e, "built", version}
	if own {
		o.Source = "own"
		if _, err := s.Catalogue.Species(e.ID); err == nil {
			o.Source = "corrected"
		}
	}
	return o
}

func (s *Server) speciesList(ctx context.Context, _ *struct{}) (*Out[List[SpeciesOut]], error) {
	book, err := s.book(ctx)
	if err != nil {
		return nil, s.problem(ctx, "species", err)
	}
	l := List[SpeciesOut]{Items: make([]SpeciesOut, len(book.Entries))}
	for i, e := range book.Entries {
		l.Items[i] = s.tellSpecies(e)
	}
	return out(l), nil
}

// SpeciesDetail is an entry with what the firm changed of it.
type SpeciesDetail struct {
	SpeciesOut
	Original    *catalogue.Entry       `json:"original,omitempty" doc:"The built entry, where the firm corrected it"`
	Differences []catalogue.Difference `json:"differences" doc:"Where the firm's entry differs from the built one"`
	Troubles    []catalogue.Pest       `json:"troubles" doc:"What it is prone to, by name"`
}

// BySpecies names an entry.
type BySpecies struct {
	ID string `path:"id" maxLength:"100"`
}

func (s *Server) species(ctx context.Context, in *BySpecies) (*Out[SpeciesDetail], error) {
	book, err := s.book(ctx)
	if err != nil {
		return nil, s.problem(ctx, "species", err)
	}
	e, err := book.Species(in.ID)
	if err != nil {
		return nil, huma.Error404NotFound(err.Error())
	}
	d := SpeciesDetail{SpeciesOut: s.tellSpecies(e), Differences: []catalogue.Difference{}, Troubles: []catalogue.Pest{}}
	if built, err := s.Catalogue.Species(in.ID); err == nil && d.Source == "corrected" {
		d.Original, d.Differences = &built, catalogue.Differences(built, e)
	}
	for _, id := range e.Pests {
		d.Troubles = append(d.Troubles, catalogue.Pests()[id])
	}
	return out(d), nil
}

func (s *Server) keepSpecies(ctx context.Context, in *struct {
	BySpecies
	Version int `query:"version" minimum:"0" doc:"Of the entry the change is based on; 0 for a built or a new one"`
	Body    catalogue.Entry
}) (*Out[SpeciesDetail], error) {
	e := in.Body
	if e.ID != in.ID {
		return nil, s.problem(ctx, "species", refuse("id", e.ID, fmt.Sprintf("%q is not the entry that is changed, %q", e.ID, in.ID)))
	}
	err := e.Validate()
	if err == nil {
		err = s.Store.Write(ctx, func(tx store.Tx) error { return tx.KeepSpecies(ctx, e, in.Version) })
		s.closeBook()
	}
	if err != nil {
		return nil, s.problem(ctx, "species "+in.ID, err)
	}
	return s.species(ctx, &in.BySpecies)
}

// dropSpecies takes the firm's entry out: a corrected one is as built again, an own one is gone, unless plants are of it.
func (s *Server) dropSpecies(ctx context.Context, in *BySpecies) (*Out[catalogue.Entry], error) {
	var was catalogue.Entry
	err := s.Store.Write(ctx, func(tx store.Tx) error {
		var err error
		if was, err = tx.DropSpecies(ctx, in.ID); err != nil {
			return err
		}
		if _, err := s.Catalogue.Species(in.ID); err == nil {
			return nil
		}
		n, err := tx.SpeciesInUse(ctx, in.ID)
		if err == nil && n > 0 {
			err = store.Refused(fmt.Sprintf("%d plants or groups are of this species; give them another one first", n))
		}
		return err
	})
	s.closeBook()
	return out(was), s.problem(ctx, "an own or corrected entry "+in.ID, err)
}

// PackTaken says what a pack brought.
type PackTaken struct {
	Added   []string `json:"added" doc:"Ids that were not in the book"`
	Changed []string `json:"changed" doc:"Ids whose entry says something else now"`
	Same    []string `json:"same" doc:"Ids whose entry stood there already"`
}

func (s *Server) takePack(ctx context.Context, in *struct {
	RawBody []byte `contentType:"application/yaml"`
}) (*Out[PackTaken], error) {
	book, err := s.book(ctx)
	if err != nil {
		return nil, s.problem(ctx, "species", err)
	}
	entries, err := catalogue.ReadPack(in.RawBody)
	if err != nil {
		return nil, s.problem(ctx, "pack", err)
	}
	t := PackTaken{[]string{}, []string{}, []string{}}
	err = s.Store.Write(ctx, func(tx store.Tx) error {
		for _, e := range entries {
			old, err := book.Species(e.ID)
			switch {
			case err != nil:
				t.Added = append(t.Added, e.ID)
			case len(catalogue.Differences(old, e)) > 0:
				t.Changed = append(t.Changed, e.ID)
			default:
				t.Same = append(t.Same, e.ID)
				continue
			}
			if err := tx.KeepSpecies(ctx, e, -1); err != nil {
				return err
			}
		}
		return nil
	})
	s.closeBook()
	return out(t), s.problem(ctx, "pack", err)
}

func (s *Server) givePack(ctx context.Context, in *struct {
	Of string `query:"of" default:"firm" enum:"firm,all" doc:"firm: own and corrected entries; all: the whole book"`
}) (*File, error) {
	book, err := s.book(ctx)
	if err != nil {
		return nil, s.problem(ctx, "species", err)
	}
	list := []catalogue.Entry{}
	for _, e := range book.Entries {
		if in.Of == "all" || s.tellSpecies(e).Source != "built" {
			list = append(list, e)
		}
	}
	b, err := catalogue.WritePack(list)
	return &File{"application/yaml; charset=utf-8", `attachment; filename="species.yaml"`, b}, s.problem(ctx, "pack", err)
}

// SpeciesYear is an entry's own dates in this year at a place.
type SpeciesYear struct {
	LeafOut    *BandDays `json:"leaf_out" doc:"First leaves, or the new flush of an evergreen; null where the year never gets so warm"`
	LeafDrop   *BandDays `json:"leaf_drop" doc:"Leaves fall or die back; null for evergreens"`
	BloomStart *BandDays `json:"bloom_start"`
	BloomEnd   *BandDays `json:"bloom_end"`
	BudsSet    *BandDays `json:"buds_set" doc:"Next year's flower buds are formed; null where they are not formed the year before"`
	Patience   day.Day   `json:"patience_date" format:"date" doc:"By this day a hurt plant, if alive, would have shown leaf"`
	Zone       string    `json:"zone" doc:"The place's hardiness zone"`
	SpareC     float64   `json:"spare_c" doc:"How much colder than the place's coldest night of a year the wood bears in midwinter, °C; negative: too tender"`
	WoodNowC   float64   `json:"wood_now_c" doc:"What its wood bears today, hardened as this year's weather made it, °C"`
	BudsNowC   float64   `json:"buds_now_c"`
	Here       int       `json:"here" doc:"Plants or groups of it on the property"`
}

func (s *Server) speciesYear(ctx context.Context, in *struct {
	BySpecies
	Property int64 `query:"property" required:"true"`
}) (*Out[SpeciesYear], error) {
	p, err := s.place(ctx, in.Property)
	if err != nil {
		return nil, s.problem(ctx, "property", err)
	}
	e, err := p.book.Species(in.ID)
	if err != nil {
		return nil, huma.Error404NotFound(err.Error())
	}
	t, err := s.triage(ctx)
	if err != nil {
		return nil, s.problem(ctx, "plants", err)
	}
	d := e.Dates(p.year, p.today)
	told := func(b season.Band, ok bool) *BandDays {
		if !ok {
			return nil
		}
		return &BandDays{b.Early, b.Mid, b.Late}
	}
	patience, _ := damage.PatienceDate(e, p.year, p.today)
	coldest := p.normals.Climate.ExtremeMinC
	wood, buds := p.course.BearsNow(e, p.today)
	o := SpeciesYear{told(d.LeafOut, d.InLeaf), told(d.LeafDrop, d.Drops), told(d.BloomStart, d.Blooms), told(d.BloomEnd, d.Blooms), told(d.BudsSet, d.Sets),
		patience, season.Zone(coldest), tenth(coldest - e.HardinessC), tenth(wood), tenth(buds), 0}
	for _, x := range t.plants {
		if x.PropertyID == in.Property && x.Species == e.ID {
			o.Here++
		}
	}
	return out(o), nil
}
