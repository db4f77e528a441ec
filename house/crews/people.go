package crews

import (
	"context"
	"fmt"
	"slices"
	"strings"

	"mezzadro/core/invalid"
	"mezzadro/core/job"
	"mezzadro/house/estate"
	"mezzadro/store"
)

// Person is one who works for the firm.
type Person struct {
	ID      int64    `json:"id"`
	Name    string   `json:"name"`
	Skills  []string `json:"skills" doc:"What they may do: skills and licences"`
	Licence string   `json:"licence" doc:"Number of the licence for what is sprayed; empty where none was entered"`
	Version int      `json:"version"`
}

// PersonIn is what is entered of one.
type PersonIn struct {
	Name    string   `json:"name" maxLength:"200"`
	Skills  []string `json:"skills,omitempty" maxItems:"20"`
	Licence string   `json:"licence,omitempty" maxLength:"100" doc:"Number of the licence for what is sprayed"`
	Version int      `json:"version,omitempty" doc:"When changing: the version the change is based on"`
}

func tellPerson(p store.Person) Person {
	return Person{p.ID, p.Name, append([]string{}, p.Skills.V...), p.Licence, p.Version}
}

func (in PersonIn) record() (store.Person, error) {
	var bad invalid.Fields
	p := store.Person{Name: strings.TrimSpace(in.Name), Licence: strings.TrimSpace(in.Licence), Version: in.Version}
	if p.Name == "" {
		bad.Add("name", in.Name, "is missing")
	}
	for i, s := range in.Skills {
		if !slices.Contains(job.Skills, s) {
			bad.Add(fmt.Sprintf("skills[%d]", i), s, "want one of %q", job.Skills)
		}
	}
	p.Skills.V = append([]string{}, in.Skills...)
	return p, bad.Err()
}

// People are those who work for the firm, by name.
func (h *Room) People(ctx context.Context) ([]Person, error) {
	list, err := h.Store.People(ctx)
	out := make([]Person, len(list))
	for i, p := range list {
		out[i] = tellPerson(p)
	}
	return out, err
}

// KeepPerson keeps a new person where the id is 0, else a changed one.
func (h *Room) KeepPerson(ctx context.Context, key store.Key, id int64, in PersonIn) (Person, error) {
	p, err := in.record()
	if err != nil {
		return Person{}, err
	}
	p.ID = id
	return store.Once(ctx, h.Store, key, func(tx store.Tx) (Person, error) {
		others, err := tx.People(ctx)
		if err != nil {
			return Person{}, err
		}
		if slices.ContainsFunc(
			others,
			func(o store.Person) bool { return o.ID != id && strings.EqualFold(o.Name, p.Name) },
		) {
			return Person{}, invalid.One(
				"name",
				p.Name,
				"is there already: two of one name cannot be told apart in the record",
			)
		}
		write := tx.ChangePerson
		if id == 0 {
			write = tx.AddPerson
		}
		kept, err := write(ctx, p)
		return tellPerson(kept), estate.Stale(err, tellPerson)
	})
}

// RemovePerson takes one out of sight, or brings one back.
func (h *Room) RemovePerson(ctx context.Context, key store.Key, id int64, remove bool) error {
	_, err := store.Once(
		ctx,
		h.Store,
		key,
		func(tx store.Tx) (struct{}, error) { return struct{}{}, tx.RemovePerson(ctx, id, remove) },
	)
	return err
}
