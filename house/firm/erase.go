package firm

import (
	"context"

	"mezzadro/core/catalogue"
	"mezzadro/core/invalid"
	"mezzadro/store"
)

// Removed is something that is out of sight: it may be brought back, or erased for good.
type Removed struct {
	Kind string `json:"kind" enum:"property,plant,photo,order-photo,person,client,account"`
	ID   int64  `json:"id"`
	Name string `json:"name"`
	Of   string `json:"of,omitempty" doc:"The property it was of"`
	At   string `json:"at" doc:"When it was removed"`
}

// Erased is what went out of the record for good.
type Erased struct {
	Rows     int    `json:"rows" doc:"Rows of the record, with all that hung on it"`
	Plants   int    `json:"plants,omitempty" doc:"Plants among them"`
	Jobs     int    `json:"jobs,omitempty" doc:"Jobs among them"`
	Uses     int    `json:"uses,omitempty" doc:"Entries of what was sprayed and spread among them"`
	Pictures int    `json:"pictures" doc:"Files of pictures"`
	Backups  string `json:"backups" doc:"What is said of backups"`
}

// mostRemoved is how many removed things are listed.
const mostRemoved = 500

// Removed lists what is out of sight, the latest first.
func (h *Room) Removed(ctx context.Context) ([]Removed, error) {
	list, err := h.Store.Removed(ctx, mostRemoved)
	out := make([]Removed, 0, len(list))
	for _, r := range list {
		name := r.Name
		if r.Kind == "plant" || r.Kind == "photo" { // begins with the kind's id
			name = spoken(name)
		}
		out = append(out, Removed{r.Kind, r.ID, name, r.Of, r.At})
	}
	return out, err
}

// spoken puts the name of a kind in the place of its id, which a name begins with.
func spoken(name string) string {
	id, rest := name, ""
	for i, c := range name {
		if c == ',' {
			id, rest = name[:i], name[i:]
			break
		}
	}
	if e, known := catalogue.Built().Entry(id); known {
		return e.Common + rest
	}
	return name
}

// Erase takes what was removed out of the record for good, with all that hangs on it.
func (h *Room) Erase(ctx context.Context, kind string, id int64) (Erased, error) {
	if _, known := store.Erasable[kind]; !known {
		return Erased{}, invalid.One("kind", kind, "want property, plant, photo, order-photo, person, client or account")
	}
	e, err := h.Store.Erase(ctx, kind, id)
	out := Erased{Plants: e.Rows["plant"], Jobs: e.Rows["job_order"], Uses: e.Rows["product_use"], Pictures: e.Pictures,
		Backups: "Backups written before hold it still, until they are removed themselves; those to come do not."}
	for _, n := range e.Rows {
		out.Rows += n
	}
	return out, err
}
