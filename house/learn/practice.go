package learn

import (
	"context"
	"sync"

	"mezzadro/core/check"
	"mezzadro/core/invalid"
	"mezzadro/core/practice"
	"mezzadro/store"
)

// PracticeOf names a made-up garden.
type PracticeOf struct {
	Climate string `json:"climate" query:"climate" required:"true" maxLength:"60" doc:"Type of climate, by id"`
	Seed    uint64 `json:"seed" query:"seed" maximum:"9007199254740991" doc:"The number it is made from"`
}

// gardens are the last made-up ones, so that each look need not make one anew.
type gardens struct {
	mu   sync.Mutex
	last []*practice.Garden
	ails []*practice.Ails
}

const gardensKept = 8

// garden is a made-up one.
func (h *Room) garden(of PracticeOf) (*practice.Garden, error) {
	c, err := h.Catalogue.Climate(of.Climate)
	if err != nil {
		return nil, invalid.One("climate", of.Climate, "there is no such type of climate")
	}
	h.practice.mu.Lock()
	defer h.practice.mu.Unlock()
	for _, g := range h.practice.last {
		if g.Climate == of.Climate && g.Seed == of.Seed {
			return g, nil
		}
	}
	g, err := practice.Make(h.Catalogue, c, of.Seed)
	if err == nil {
		h.practice.last = lastOf(h.practice.last, g)
	}
	return g, err
}

// lastOf are the last of a list with a new one.
func lastOf[T any](list []T, more T) []T {
	list = append(list, more)
	return list[max(0, len(list)-gardensKept):]
}

// PracticeGarden makes one up.
func (h *Room) PracticeGarden(of PracticeOf) (practice.Garden, error) {
	g, err := h.garden(of)
	if err != nil {
		return practice.Garden{}, err
	}
	return *g, nil
}

// PracticeLook is one look at one of its plants.
type PracticeLook struct {
	PracticeOf
	Plant   int        `json:"plant" query:"plant" minimum:"0" maximum:"20" doc:"Which, from 0"`
	Kind    check.Kind `json:"kind" query:"kind" enum:"scratch,bud_rub,shoot"`
	HeightM float64    `json:"height_m" query:"height_m" doc:"Where, m above ground"`
	Look    int        `json:"look" query:"look" minimum:"0" maximum:"200" doc:"How many were made before: a look again at the same place may show something else"`
}

// PracticeSeen is what a look shows.
func (h *Room) PracticeSeen(in PracticeLook) (check.Check, error) {
	g, err := h.garden(in.PracticeOf)
	if err != nil {
		return check.Check{}, err
	}
	c, ok := g.Look(in.Plant, in.Kind, in.HeightM, in.Look)
	if !ok {
		return c, invalid.One("height_m", in.HeightM, "there is no such plant, or it is not that tall")
	}
	return c, nil
}

// PracticeIn is what somebody decided of each plant of a made-up garden.
type PracticeIn struct {
	PracticeOf
	Plants []practice.Decided `json:"plants" minItems:"1" maxItems:"20" doc:"Plant by plant"`
}

// PracticeOut is how they did.
type PracticeOut struct {
	Score   float64         `json:"score" doc:"How much was saved of what was to be saved, 0 to 100"`
	Program float64         `json:"program" doc:"What the program would have saved by the same checks"`
	Right   int             `json:"right" doc:"Decisions that were right, or nearly"`
	Plants  []practice.Held `json:"plants"`
}

// PracticeEnd holds what was decided against the truth, and keeps the score of who it was.
func (h *Room) PracticeEnd(ctx context.Context, key store.Key, in PracticeIn) (PracticeOut, error) {
	g, err := h.garden(in.PracticeOf)
	if err != nil {
		return PracticeOut{}, err
	}
	if len(in.Plants) != len(g.Plants) {
		return PracticeOut{}, invalid.One("plants", len(in.Plants), "decide on each plant of the garden")
	}
	out := PracticeOut{Plants: g.Hold(in.Plants)}
	row := store.Practice{Climate: in.Climate, Plants: len(out.Plants), About: "freeze"}
	for _, p := range out.Plants {
		if p.Right {
			out.Right++
		}
		row.Checks += len(p.Checks)
	}
	out.Score, out.Program = practice.Score(out.Plants)
	row.Right, row.Score = out.Right, out.Score
	return out, h.keepPractice(ctx, key, row)
}

// keepPractice keeps how somebody did.
func (h *Room) keepPractice(ctx context.Context, key store.Key, row store.Practice) error {
	row.Day = h.Today().String()
	_, err := store.Once(
		ctx,
		h.Store,
		key,
		func(tx store.Tx) (struct{}, error) { return struct{}{}, tx.KeepPractice(ctx, row) },
	)
	return err
}

// Practised is how somebody did in one garden.
type Practised struct {
	By      string  `json:"by"`
	Day     string  `json:"day" format:"date"`
	Climate string  `json:"climate" doc:"Type of climate, by name"`
	Plants  int     `json:"plants"`
	Right   int     `json:"right" doc:"Decisions that were right, or nearly"`
	Score   float64 `json:"score" doc:"0 to 100"`
	Checks  int     `json:"checks" doc:"How many they made"`
	About   string  `json:"about" enum:"freeze,causes" doc:"What a freeze did, or what ails plants"`
}

const practisedShown = 60

// Practised are the last gardens that were gone through, the newest first.
func (h *Room) Practised(ctx context.Context) ([]Practised, error) {
	rows, err := h.Store.Practices(ctx, practisedShown)
	out := make([]Practised, len(rows))
	for i, r := range rows {
		name := r.Climate
		if c, err := h.Catalogue.Climate(r.Climate); err == nil {
			name = c.Name
		}
		out[i] = Practised{r.By, r.Day, name, r.Plants, r.Right, r.Score, r.Checks, r.About}
	}
	return out, err
}
