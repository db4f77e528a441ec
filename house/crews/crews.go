package crews

import (
	"context"
	"fmt"
	"slices"
	"strings"

	"mezzadro/core/day"
	"mezzadro/core/invalid"
	"mezzadro/core/job"
	"mezzadro/core/rounds"
	"mezzadro/house/estate"
	"mezzadro/store"
)

// Crew is people who go together in one vehicle.
type Crew struct {
	ID      int64          `json:"id"`
	Name    string         `json:"name"`
	People  []Person       `json:"people"`
	Hours   [7]rounds.Span `json:"hours" doc:"By weekday, Sunday first, minutes after midnight; nothing: not at work"`
	Off     []day.Day      `json:"off" doc:"Days off"`
	Start   *rounds.Point  `json:"start,omitempty" doc:"Where the day begins and ends"`
	LoadM3  float64        `json:"load_m3" doc:"Loose waste the vehicle takes, m³; 0: no matter"`
	Break   *rounds.Break  `json:"break,omitempty" doc:"When they rest on a day that goes on past its hour; absent: their hours have no break"`
	Load    int            `json:"load_minutes" doc:"Minutes of loading before they set out; 0: none"`
	Tip     *rounds.Tip    `json:"tip,omitempty" doc:"Where waste is taken on the way; absent: it comes home"`
	Skills  []string       `json:"skills" doc:"Of any of them"`
	Version int            `json:"version"`
}

// CrewIn is what is entered of a crew.
type CrewIn struct {
	Name    string         `json:"name" maxLength:"80"`
	People  []int64        `json:"people" minItems:"1" maxItems:"20" doc:"By id"`
	Hours   [7]rounds.Span `json:"hours"`
	Off     []day.Day      `json:"off,omitempty" maxItems:"400"`
	Start   *rounds.Point  `json:"start,omitempty"`
	LoadM3  float64        `json:"load_m3,omitempty" minimum:"0" maximum:"200"`
	Break   *rounds.Break  `json:"break,omitempty" doc:"When they rest"`
	Load    int            `json:"load_minutes,omitempty" minimum:"0" maximum:"180" doc:"Minutes of loading before they set out"`
	Tip     *rounds.Tip    `json:"tip,omitempty" doc:"Where waste is taken on the way, when the next would not go on the vehicle"`
	Version int            `json:"version,omitempty" doc:"When changing: the version the change is based on"`
}

// Crews are the firm's.
func (h *Room) Crews(ctx context.Context) ([]Crew, error) {
	list, err := h.Store.Crews(ctx)
	if err != nil {
		return nil, err
	}
	people, err := h.People(ctx)
	if err != nil {
		return nil, err
	}
	return estate.TellAll(list, func(c store.Crew) Crew { return tellCrew(c, people) }), nil
}

// CrewName is the name of a crew; empty for none (0), and store.ErrNotFound for one that is not there.
func (h *Room) CrewName(ctx context.Context, id int64) (string, error) {
	if id == 0 {
		return "", nil
	}
	crews, err := h.Store.Crews(ctx)
	if err != nil {
		return "", err
	}
	i := slices.IndexFunc(crews, func(c store.Crew) bool { return c.ID == id })
	if i < 0 {
		return "", store.ErrNotFound
	}
	return crews[i].Name, nil
}

func tellCrew(c store.Crew, people []Person) Crew {
	out := Crew{
		ID:      c.ID,
		Name:    c.Name,
		People:  []Person{},
		Hours:   c.Body.V.Hours,
		Off:     append([]day.Day{}, c.Body.V.Off...),
		Start:   c.Body.V.Start,
		LoadM3:  c.Body.V.LoadM3,
		Break:   c.Body.V.Break,
		Load:    c.Body.V.Load,
		Tip:     c.Body.V.Tip,
		Skills:  []string{},
		Version: c.Version,
	}
	for _, p := range people {
		if !slices.Contains(c.People.V, p.ID) {
			continue
		}
		out.People = append(out.People, p)
		for _, s := range p.Skills {
			if !slices.Contains(out.Skills, s) {
				out.Skills = append(out.Skills, s)
			}
		}
	}
	return out
}

// Minutes is how long a crew works on a day, without its break and its loading; 0 on a day off.
func (c Crew) Minutes(on day.Day) float64 {
	h := c.Hours[on.Weekday()]
	if slices.Contains(c.Off, on) || h.To <= h.From {
		return 0
	}
	return max(0, float64(h.To-h.From-c.Load)-c.Break.Within(h))
}

// Core is a crew as rounds take it.
func (c Crew) Core() rounds.Crew {
	return rounds.Crew{
		Name:   c.Name,
		Size:   len(c.People),
		Skills: licensed(c.Skills),
		Hours:  c.Hours,
		Off:    c.Off,
		Start:  c.Start,
		LoadM3: c.LoadM3,
		Break:  c.Break,
		Load:   c.Load,
		Tip:    c.Tip,
	}
}

// KeepCrew keeps a new crew where the id is 0, else a changed one.
func (h *Room) KeepCrew(ctx context.Context, key store.Key, id int64, in CrewIn) (Crew, error) {
	people, err := h.People(ctx)
	if err != nil {
		return Crew{}, err
	}
	c := store.Crew{ID: id, Name: strings.TrimSpace(in.Name), Version: in.Version}
	c.People.V = append([]int64{}, in.People...)
	c.Body.V = store.CrewBody{Hours: in.Hours, Off: append([]day.Day{}, in.Off...), Start: in.Start, LoadM3: in.LoadM3, Break: in.Break, Load: in.Load, Tip: in.Tip}
	if err := in.faults(c.Name, people); err != nil {
		return Crew{}, err
	}
	return store.Once(ctx, h.Store, key, func(tx store.Tx) (Crew, error) {
		write := tx.ChangeCrew
		if id == 0 {
			write = tx.AddCrew
		}
		tell := func(c store.Crew) Crew { return tellCrew(c, people) }
		kept, err := write(ctx, c)
		return tell(kept), estate.Stale(err, tell)
	})
}

// faults names what a crew cannot be.
func (in CrewIn) faults(name string, people []Person) error {
	var bad invalid.Fields
	if name == "" {
		bad.Add("name", in.Name, "is missing")
	}
	for i, id := range in.People {
		if !slices.ContainsFunc(people, func(p Person) bool { return p.ID == id }) {
			bad.Add(fmt.Sprintf("people[%d]", i), id, "is not there, or was removed")
		}
	}
	if in.Hours == ([7]rounds.Span{}) {
		bad.Add("hours", nil, "%s has no hours on any day of the week", name)
	}
	one := rounds.Problem{
		From: 1,
		Days: 1,
		Crews: []rounds.Crew{{Name: name, Size: max(1, len(in.People)), Hours: in.Hours, Start: in.Start, LoadM3: in.LoadM3,
			Break: in.Break, Load: in.Load, Tip: in.Tip}},
	}
	for _, f := range invalid.Of(one.Validate()) {
		f.Path = strings.TrimPrefix(f.Path, "crews[0].")
		bad = append(bad, f)
	}
	return bad.Err()
}

// RemoveCrew takes one out of sight, or brings it back.
func (h *Room) RemoveCrew(ctx context.Context, key store.Key, id int64, remove bool) error {
	_, err := store.Once(
		ctx,
		h.Store,
		key,
		func(tx store.Tx) (struct{}, error) { return struct{}{}, tx.RemoveCrew(ctx, id, remove) },
	)
	return err
}

// licensed are skills with what the wider of two licences has in it.
func licensed(skills []string) []string {
	if slices.Contains(skills, job.Restricted) && !slices.Contains(skills, job.Spraying) {
		return append(slices.Clone(skills), job.Spraying)
	}
	return skills
}
