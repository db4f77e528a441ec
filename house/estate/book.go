package estate

import (
	"context"

	"mezzadro/core/catalogue"
	"mezzadro/core/day"
	"mezzadro/core/quantity"
	"mezzadro/core/season"
	"mezzadro/store"
)

// book is the catalogue with the firm's own and corrected entries, and which state of the record it was made from.
type book struct {
	rev  uint64
	all  *catalogue.Catalogue
	own  map[string]int // versions
	from *catalogue.Catalogue
}

func (h *House) openBook(ctx context.Context) (*book, error) {
	h.opening.Lock()
	defer h.opening.Unlock()
	rev := h.Store.BookRev() // read before the entries: a write meanwhile has it made anew next time
	if b := h.opened; b != nil && b.rev == rev && b.from == h.Catalogue {
		return b, nil
	}
	own, err := h.Store.OwnSpecies(ctx)
	if err != nil {
		return nil, err
	}
	b := &book{rev: rev, own: map[string]int{}, from: h.Catalogue}
	entries := make([]catalogue.Entry, len(own))
	for i, o := range own {
		entries[i], b.own[o.Entry.ID] = o.Entry, o.Version
	}
	b.all = h.Catalogue.With(entries)
	names, err := h.Store.OwnNames(ctx)
	if err != nil {
		return nil, err
	}
	b.all.Call(names)
	h.opened = b
	return b, nil
}

// Book is the catalogue with the firm's own and corrected entries.
func (h *House) Book(ctx context.Context) (*catalogue.Catalogue, error) {
	b, err := h.openBook(ctx)
	if err != nil {
		return nil, err
	}
	return b.all, nil
}

// EntryOf is a species' entry; where it was taken out since, one that says no more than its id: the plant stays.
func EntryOf(book *catalogue.Catalogue, id string) catalogue.Entry {
	e, known := book.Entry(id) // without a search for what it may have meant
	if !known {
		return catalogue.Entry{ID: id, Common: id, Form: catalogue.Shrub, Graft: catalogue.Graft{Habit: "own roots"}}
	}
	return *e
}

// SpeciesOut is an entry and whose it is.
type SpeciesOut struct {
	catalogue.Entry
	Source  string `json:"source" enum:"built,corrected,own" doc:"built in, built in and corrected by the firm, or the firm's own"`
	Version int    `json:"version" doc:"Of the firm's own or corrected entry; 0 for a built one"`
}

// tellSpecies says whose an entry is.
func (h *House) tellSpecies(b *book, e catalogue.Entry) SpeciesOut {
	version, own := b.own[e.ID]
	o := SpeciesOut{e, "built", version}
	if own {
		o.Source = "own"
		if _, err := h.Catalogue.Species(e.ID); err == nil {
			o.Source = "corrected"
		}
	}
	return o
}

// AllSpecies is the whole book.
func (h *House) AllSpecies(ctx context.Context) ([]SpeciesOut, error) {
	b, err := h.openBook(ctx)
	if err != nil {
		return nil, err
	}
	out := make([]SpeciesOut, len(b.all.Entries))
	for i, e := range b.all.Entries {
		out[i] = h.tellSpecies(b, e)
	}
	return out, nil
}

// SpeciesDetail is an entry with what the firm changed of it.
type SpeciesDetail struct {
	SpeciesOut
	Original    *catalogue.Entry       `json:"original,omitempty" doc:"The built entry, where the firm corrected it"`
	Differences []catalogue.Difference `json:"differences" doc:"Where the firm's entry differs from the built one"`
	Troubles    []catalogue.Pest       `json:"troubles" doc:"What it is prone to, by name"`
}

// NoSpecies is answered for an entry that is not in the book.
type NoSpecies struct{ Err error }

func (n NoSpecies) Error() string { return n.Err.Error() }

// Species is one entry with what the firm changed of it.
func (h *House) Species(ctx context.Context, id string) (SpeciesDetail, error) {
	b, err := h.openBook(ctx)
	if err != nil {
		return SpeciesDetail{}, err
	}
	e, err := b.all.Species(id)
	if err != nil {
		return SpeciesDetail{}, NoSpecies{err}
	}
	d := SpeciesDetail{
		SpeciesOut:  h.tellSpecies(b, e),
		Differences: []catalogue.Difference{},
		Troubles:    []catalogue.Pest{},
	}
	if built, err := h.Catalogue.Species(id); err == nil && d.Source == "corrected" {
		d.Original, d.Differences = &built, catalogue.Differences(built, e)
	}
	for _, p := range e.Pests {
		d.Troubles = append(d.Troubles, catalogue.Pests()[p])
	}
	return d, nil
}

// PackTaken says what a pack brought.
type PackTaken struct {
	Added   []string `json:"added" doc:"Ids that were not in the book"`
	Changed []string `json:"changed" doc:"Ids whose entry says something else now"`
	Same    []string `json:"same" doc:"Ids whose entry stood there already"`
}

// TakePack takes entries from a YAML pack: all of them, or with a fault anywhere none.
func (h *House) TakePack(ctx context.Context, key store.Key, file []byte) (PackTaken, error) {
	book, err := h.Book(ctx)
	if err != nil {
		return PackTaken{}, err
	}
	entries, err := catalogue.ReadPack(file)
	if err != nil {
		return PackTaken{}, err
	}
	return store.Once(ctx, h.Store, key, func(tx store.Tx) (PackTaken, error) {
		t := PackTaken{[]string{}, []string{}, []string{}}
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
				return t, err
			}
		}
		return t, nil
	})
}

// Pack are the entries of a pack to give: the firm's own and corrected ones, or the whole book.
func (h *House) Pack(ctx context.Context, whole bool) ([]catalogue.Entry, error) {
	list, err := h.AllSpecies(ctx)
	out := []catalogue.Entry{}
	for _, e := range list {
		if whole || e.Source != "built" {
			out = append(out, e.Entry)
		}
	}
	return out, err
}

// SpeciesYear is an entry's own dates in this year at a place.
type SpeciesYear struct {
	LeafOut    *BandDays `json:"leaf_out" doc:"First leaves, or the new flush of an evergreen; null where the year never gets so warm"`
	LeafDrop   *BandDays `json:"leaf_drop" doc:"Leaves fall or die back; null for evergreens"`
	BloomStart *BandDays `json:"bloom_start" doc:"Null where nobody looks for its flowers, as of a pine"`
	BloomEnd   *BandDays `json:"bloom_end"`
	BudsSet    *BandDays `json:"buds_set" doc:"Next year's flower buds are formed; null where they are not formed the year before"`
	Patience   day.Day   `json:"patience_date" format:"date" doc:"By this day a hurt plant, if alive, would have shown leaf"`
	Zone       string    `json:"zone" doc:"The place's hardiness zone"`
	SpareC     float64   `json:"spare_c" doc:"How much colder than the place's coldest night of a year the wood bears in midwinter, °C; negative: too tender"`
	WoodNowC   float64   `json:"wood_now_c" doc:"What its wood bears today, hardened as this year's weather made it, °C"`
	BudsNowC   float64   `json:"buds_now_c"`
	Here       int       `json:"here" doc:"Plants or groups of it on the property"`
}

// SpeciesYear is that of an entry at a property.
func (h *House) SpeciesYear(ctx context.Context, id string, property int64) (SpeciesYear, error) {
	p, err := h.Place(ctx, property)
	if err != nil {
		return SpeciesYear{}, err
	}
	e, err := p.Book.Species(id)
	if err != nil {
		return SpeciesYear{}, NoSpecies{err}
	}
	t, err := h.Triage(ctx)
	if err != nil {
		return SpeciesYear{}, err
	}
	d := e.Dates(p.Year, p.Today)
	told := func(b season.Band, ok bool) *BandDays {
		if !ok {
			return nil
		}
		return &BandDays{b.Early, b.Mid, b.Late}
	}
	patience, _ := p.Work.Patience(&e, p.Today)
	coldest := p.Normals.Climate.ExtremeMinC
	wood, buds := p.Course.BearsNow(e, p.Today)
	o := SpeciesYear{
		told(d.LeafOut, d.InLeaf),
		told(d.LeafDrop, d.Drops),
		told(d.BloomStart, d.Blooms && e.FlowersSeen()),
		told(d.BloomEnd, d.Blooms && e.FlowersSeen()),
		told(d.BudsSet, d.Sets && e.FlowersSeen()),
		patience,
		season.Zone(coldest),
		quantity.Tenth(coldest - e.HardinessC),
		quantity.Tenth(wood),
		quantity.Tenth(buds),
		0,
	}
	for _, x := range t.Plants {
		if x.PropertyID == property && x.Species == e.ID {
			o.Here++
		}
	}
	return o, nil
}
