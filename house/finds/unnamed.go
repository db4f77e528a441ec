package finds

import (
	"context"
	"database/sql"
	"slices"
	"strings"

	"mezzadro/core/catalogue"
	"mezzadro/core/cause"
	"mezzadro/core/day"
	"mezzadro/core/invalid"
	"mezzadro/core/lookout"
	"mezzadro/house/estate"
	"mezzadro/store"
)

// Unnamed is something found that nobody could name yet: words and pictures of it, what was sent where, and the answer
// that is awaited.
type Unnamed struct {
	ID         int64   `json:"id"`
	PropertyID int64   `json:"property_id"`
	Property   string  `json:"property"`
	PlantID    int64   `json:"plant_id" doc:"0 where only the property is known"`
	Plant      string  `json:"plant" doc:"Common name and where it stands; empty without a plant"`
	Day        day.Day `json:"day" format:"date"`
	UnnamedWords
	Pictures []string `json:"pictures" doc:"Hashes of its pictures; read them by these"`
	State    string   `json:"state" enum:"open,named,closed"`
	FindID   int64    `json:"find_id" doc:"The find it became; 0 until it is named"`
	Version  int      `json:"version"`
}

// UnnamedWords is what is told of something unnamed, and can be changed.
type UnnamedWords struct {
	Words    string   `json:"words" minLength:"1" maxLength:"4000" doc:"What is seen, in own words"`
	Seen     []string `json:"seen" required:"false" maxItems:"60" doc:"Signs that were there, by id"`
	NotSeen  []string `json:"not_seen" required:"false" maxItems:"60" doc:"Signs that were looked for and not there"`
	Share    float64  `json:"share" required:"false" minimum:"0" maximum:"1" doc:"Of the leaves or shoots that show it; 0 where nobody said"`
	Sent     string   `json:"sent" required:"false" maxLength:"300" doc:"What was sent: leaves, a picture, soil; empty where nothing was"`
	SentTo   string   `json:"sent_to" required:"false" maxLength:"300" doc:"To whom"`
	SentOn   day.Day  `json:"sent_on,omitempty" format:"date" doc:"When it was sent; today where it was sent and no day is given"`
	AnswerBy day.Day  `json:"answer_by,omitempty" format:"date" doc:"When an answer is expected"`
	Answer   string   `json:"answer" required:"false" maxLength:"4000" doc:"What came back"`
}

// UnnamedIn is something to keep.
type UnnamedIn struct {
	PropertyID int64 `json:"property_id,omitempty" doc:"May be left out where a plant is named"`
	PlantID    int64 `json:"plant_id,omitempty"`
	UnnamedWords
}

// UnnamedChange changes all its words; a state of open on one that was named takes its find back.
type UnnamedChange struct {
	UnnamedWords
	State   string `json:"state" enum:"open,closed"`
	Version int    `json:"version" doc:"The version the change is based on"`
}

// NameIt names something that was unnamed.
type NameIt struct {
	Cause     string  `json:"cause" maxLength:"60" doc:"Id in the book of causes"`
	Certainty float64 `json:"certainty" doc:"0 to 1"`
	Answer    string  `json:"answer,omitempty" maxLength:"4000" doc:"What came back"`
	Version   int     `json:"version" doc:"The version this is based on"`
}

// check names what the words cannot be.
func (w *UnnamedWords) check(today day.Day) invalid.Fields {
	bad := invalid.Of(cause.Built().Validate(cause.Case{Month: 6, Seen: w.Seen, Absent: w.NotSeen, Share: w.Share}))
	w.Words, w.Sent, w.SentTo, w.Answer = strings.TrimSpace(w.Words), strings.TrimSpace(w.Sent), strings.TrimSpace(w.SentTo), strings.TrimSpace(w.Answer)
	if w.Words == "" {
		bad.Add("words", w.Words, "is missing: say what is seen")
	}
	if w.SentOn.Given() && w.SentOn > today {
		bad.Add("sent_on", w.SentOn.String(), "is still to come")
	}
	if w.SentTo != "" && w.Sent == "" {
		bad.Add("sent", w.Sent, "is missing: say what was sent")
	}
	if w.AnswerBy.Given() && w.SentOn.Given() && w.AnswerBy < w.SentOn {
		bad.Add("answer_by", w.AnswerBy.String(), "is before it was sent")
	}
	return bad
}

// put writes the words into a row.
func (w UnnamedWords) put(u *store.Unnamed, today day.Day) {
	if w.Sent != "" && !w.SentOn.Given() {
		w.SentOn = today
	}
	u.Words, u.Share, u.Sent, u.SentTo, u.Answer = w.Words, w.Share, w.Sent, w.SentTo, w.Answer
	u.Seen.V, u.NotSeen.V = append([]string{}, w.Seen...), append([]string{}, w.NotSeen...)
	u.SentOn, u.AnswerBy = dayText(w.SentOn), dayText(w.AnswerBy)
}

// AddUnnamed keeps something that nobody could name.
func (h *Room) AddUnnamed(ctx context.Context, key store.Key, in UnnamedIn) (Unnamed, error) {
	bad := in.check(h.Today())
	u := store.Unnamed{PropertyID: in.PropertyID, Day: h.Today().String(), Pictures: store.JSON[[]string]{V: []string{}}}
	in.put(&u, h.Today())
	if err := h.standsOn(ctx, in.PlantID, &u.PropertyID, &u.PlantID, &u.Species, bad); err != nil {
		return Unnamed{}, err
	}
	return h.keepUnnamed(ctx, key, func(tx store.Tx) (store.Unnamed, error) { return tx.AddUnnamed(ctx, u) })
}

// keepUnnamed writes and tells what was kept.
func (h *Room) keepUnnamed(ctx context.Context, key store.Key, f func(tx store.Tx) (store.Unnamed, error)) (Unnamed, error) {
	tell, err := h.tellUnnamed(ctx)
	if err != nil {
		return Unnamed{}, err
	}
	u, err := store.Once(ctx, h.Store, key, f)
	if err != nil {
		return Unnamed{}, estate.Stale(err, tell)
	}
	return tell(u), nil
}

// ChangeUnnamed changes one, closes it, or opens it again; the find that one named became goes out of sight with that.
func (h *Room) ChangeUnnamed(ctx context.Context, key store.Key, id int64, in UnnamedChange) (Unnamed, error) {
	if err := in.check(h.Today()).Err(); err != nil {
		return Unnamed{}, err
	}
	u, err := h.Store.Unnamed(ctx, id)
	if err != nil {
		return Unnamed{}, err
	}
	in.put(&u, h.Today())
	was := u.FindID
	if u.Version, u.State = in.Version, in.State; was.Valid && in.State == "closed" {
		u.State = "named" // it has its name, and is closed by that
	} else {
		u.FindID = sql.NullInt64{}
	}
	return h.keepUnnamed(ctx, key, func(tx store.Tx) (store.Unnamed, error) {
		kept, err := tx.ChangeUnnamed(ctx, u)
		if err == nil && was.Valid && !u.FindID.Valid {
			_, err = store.There(tx.RemoveFind(ctx, was.Int64, true)) // it may be removed already
		}
		return kept, err
	})
}

// NameUnnamed gives one its name: it becomes a find with the same signs, of the day on which it was seen.
func (h *Room) NameUnnamed(ctx context.Context, key store.Key, id int64, in NameIt) (Unnamed, error) {
	u, err := h.Store.Unnamed(ctx, id)
	if err != nil {
		return Unnamed{}, err
	}
	if u.State == "named" {
		return Unnamed{}, invalid.One("cause", in.Cause, "it has its name already: correct the find")
	}
	if bad := validFind(in.Cause, in.Certainty, cause.Case{}); bad != nil {
		return Unnamed{}, bad
	}
	f := store.Find{PropertyID: u.PropertyID, PlantID: u.PlantID, Species: u.Species, Day: u.Day, Cause: in.Cause, Certainty: in.Certainty,
		Share: u.Share, Seen: u.Seen, NotSeen: u.NotSeen, How: "look", Note: u.Words}
	if in.Answer = strings.TrimSpace(in.Answer); in.Answer != "" {
		u.Answer = in.Answer
	}
	if u.Answer != "" {
		f.Note += "\nAnswer: " + u.Answer
	}
	u.Version, u.State = in.Version, "named"
	return h.keepUnnamed(ctx, key, func(tx store.Tx) (store.Unnamed, error) {
		f, err := tx.AddFind(ctx, f)
		if err != nil {
			return u, err
		}
		u.FindID = sql.NullInt64{Int64: f.ID, Valid: true}
		return tx.ChangeUnnamed(ctx, u)
	})
}

// RemoveUnnamed takes one out of sight, or brings it back; a find that it became stays.
func (h *Room) RemoveUnnamed(ctx context.Context, key store.Key, id int64, remove bool) error {
	_, err := store.Once(ctx, h.Store, key, func(tx store.Tx) (struct{}, error) { return struct{}{}, tx.RemoveUnnamed(ctx, id, remove) })
	return err
}

// AddPictureOf keeps a picture of something unnamed: on the disk before the record says so.
func (h *Room) AddPictureOf(ctx context.Context, key store.Key, id int64, jpeg []byte) (Unnamed, error) {
	hash, err := h.Store.KeepPicture(jpeg)
	if err != nil {
		return Unnamed{}, err
	}
	return h.repicture(ctx, key, id, func(list []string) []string {
		if slices.Contains(list, hash) {
			return list
		}
		return append(list, hash)
	})
}

// DropPictureOf takes a picture of something unnamed out of sight; the file stays, and added again it is there.
func (h *Room) DropPictureOf(ctx context.Context, key store.Key, id int64, hash string) (Unnamed, error) {
	return h.repicture(ctx, key, id, func(list []string) []string {
		return slices.DeleteFunc(list, func(x string) bool { return x == hash })
	})
}

func (h *Room) repicture(ctx context.Context, key store.Key, id int64, f func([]string) []string) (Unnamed, error) {
	u, err := h.Store.Unnamed(ctx, id)
	if err != nil {
		return Unnamed{}, err
	}
	u.Pictures.V = f(slices.Clone(u.Pictures.V))
	return h.keepUnnamed(ctx, key, func(tx store.Tx) (store.Unnamed, error) { return tx.ChangeUnnamed(ctx, u) })
}

// Unnameds lists what nobody could name, the oldest first.
func (h *Room) Unnameds(ctx context.Context, of FindsOf) ([]Unnamed, error) {
	rows, err := h.Store.Unnameds(ctx, of)
	return h.tellUnnameds(ctx, rows, err)
}

// Awaited are those of which an answer is awaited within a fortnight, or should have come; the most pressing first.
func (h *Room) Awaited(ctx context.Context) ([]Unnamed, error) {
	rows, err := h.Store.AwaitedBy(ctx, (h.Today() + lookout.Soon).String())
	return h.tellUnnameds(ctx, rows, err)
}

func (h *Room) tellUnnameds(ctx context.Context, rows []store.Unnamed, err error) ([]Unnamed, error) {
	if err != nil || len(rows) == 0 {
		return []Unnamed{}, err
	}
	tell, err := h.tellUnnamed(ctx)
	if err != nil {
		return nil, err
	}
	return estate.TellAll(rows, tell), nil
}

// tellUnnamed tells rows with the names of their plants and properties.
func (h *Room) tellUnnamed(ctx context.Context) (func(u store.Unnamed) Unnamed, error) {
	book, err := h.Book(ctx)
	if err != nil {
		return nil, err
	}
	names, titles, err := h.standing(ctx)
	return func(u store.Unnamed) Unnamed {
		o := Unnamed{ID: u.ID, PropertyID: u.PropertyID, Property: names[u.PropertyID], PlantID: u.PlantID.Int64, Day: store.DayOf(&u.Day),
			Pictures: u.Pictures.V, State: u.State, FindID: u.FindID.Int64, Version: u.Version,
			UnnamedWords: UnnamedWords{Words: u.Words, Seen: u.Seen.V, NotSeen: u.NotSeen.V, Share: u.Share, Sent: u.Sent, SentTo: u.SentTo, Answer: u.Answer}}
		if u.SentOn != "" {
			o.SentOn = store.DayOf(&u.SentOn)
		}
		if u.AnswerBy != "" {
			o.AnswerBy = store.DayOf(&u.AnswerBy)
		}
		if u.PlantID.Valid {
			o.Plant = titleOf(book, titles, u.PlantID.Int64, u.Species)
		}
		return o
	}, err
}

// standing are the names of all properties, and all plants in sight.
func (h *Room) standing(ctx context.Context) (map[int64]string, map[int64]*store.Plant, error) {
	t, err := h.Triage(ctx) // has all plants and properties at hand
	if err != nil {
		return nil, nil, err
	}
	names, plants := map[int64]string{}, byID(t.Kept)
	for _, pl := range t.Places {
		names[pl.Property.ID] = pl.Property.Name
	}
	return names, plants, nil
}

// titleOf is what a plant is called; one that was removed says so.
func titleOf(book *catalogue.Catalogue, plants map[int64]*store.Plant, id int64, species string) string {
	if p, there := plants[id]; there {
		return estate.PlantTitle(book, *p)
	}
	return estate.EntryOf(book, species).Common + ", removed"
}
