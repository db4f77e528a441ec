package finds

import (
	"context"
	"database/sql"
	"fmt"
	"strings"

	"mezzadro/core/cause"
	"mezzadro/core/day"
	"mezzadro/core/invalid"
	"mezzadro/store"
)

// Find is a cause that was found on a plant, or somewhere on a property.
type Find struct {
	ID         int64    `json:"id"`
	PropertyID int64    `json:"property_id"`
	Property   string   `json:"property"`
	PlantID    int64    `json:"plant_id" doc:"0 where only the property is known"`
	Plant      string   `json:"plant" doc:"Common name and where it stands; empty without a plant"`
	Species    string   `json:"species" doc:"Catalogue id; empty where nobody knows"`
	Day        day.Day  `json:"day" format:"date"`
	Cause      string   `json:"cause" doc:"Id in the book of causes"`
	Name       string   `json:"name"`
	Harm       string   `json:"harm" enum:"harmless,ugly,weakening,deadly"`
	Act        string   `json:"act" enum:"none,watch,habitat,hands,water,cut,soft,strong,replace" doc:"The least that is enough at this share"`
	Do         string   `json:"do"`
	Report     bool     `json:"report" doc:"Reportable in many places: ask the plant health office"`
	Travels    string   `json:"travels" doc:"How it gets about; empty where it does not"`
	Certainty  float64  `json:"certainty" doc:"0 to 1"`
	Share      float64  `json:"share" doc:"Of the leaves or shoots that show it; 0 where nobody said"`
	Seen       []string `json:"seen" doc:"Signs that were there, by id"`
	NotSeen    []string `json:"not_seen" doc:"Signs that were looked for and not there"`
	How        string   `json:"how" enum:"look,walk,call" doc:"At the plant, on a walk, or from what a client said"`
	Note       string   `json:"note"`
	State      string   `json:"state" enum:"open,closed"`
	Closed     day.Day  `json:"closed,omitempty" format:"date"`
	Ending     string   `json:"ending" doc:"How it ended"`
	Version    int      `json:"version"`
	Prevent    bool     `json:"prevent" doc:"A wish: it is not there and is to be kept off"`
	Affected   int      `json:"affected" doc:"How many of a group show it; 0 where nobody said"`
	Harvest    day.Day  `json:"harvest,omitempty" format:"date" doc:"When it is eaten from next"`
	BedM2      float64  `json:"bed_m2" doc:"Of the bed it is in; 0 where nobody measured"`
	AlongOf    int64    `json:"along_of,omitempty" doc:"The find it is treated along with: it was not found by itself"`
	Helped     string   `json:"helped" enum:",gone,less,same" doc:"What the last look found: whether it is gone, less or the same; empty where nobody looked again"`
	HelpedOn   day.Day  `json:"helped_on,omitempty" format:"date" doc:"The day of that look"`
}

// FindIn is a find to keep.
type FindIn struct {
	PropertyID int64    `json:"property_id,omitempty" doc:"May be left out where a plant is named"`
	PlantID    int64    `json:"plant_id,omitempty"`
	Species    string   `json:"species,omitempty" maxLength:"100" doc:"Catalogue id, where no plant is named"`
	Day        day.Day  `json:"day,omitempty" format:"date" doc:"Today when absent"`
	Cause      string   `json:"cause" maxLength:"60" doc:"Id in the book of causes"`
	Certainty  float64  `json:"certainty" doc:"0 to 1"`
	Share      float64  `json:"share,omitempty" doc:"Of the leaves or shoots that show it, 0 to 1"`
	Seen       []string `json:"seen,omitempty" maxItems:"60"`
	NotSeen    []string `json:"not_seen,omitempty" maxItems:"60"`
	How        string   `json:"how,omitempty" enum:"look,walk,call" doc:"look when absent"`
	Note       string   `json:"note,omitempty" maxLength:"4000"`
	Prevent    bool     `json:"prevent,omitempty" doc:"A wish: it is not there and is to be kept off"`
	Affected   int      `json:"affected,omitempty" minimum:"0" doc:"How many of a group show it"`
	Harvest    day.Day  `json:"harvest,omitempty" format:"date" doc:"When it is eaten from next"`
	BedM2      float64  `json:"bed_m2,omitempty" minimum:"0" maximum:"100000" doc:"Of the bed it is in"`
}

// FindChange corrects or closes a find.
type FindChange struct {
	Cause     string   `json:"cause" maxLength:"60"`
	Certainty float64  `json:"certainty"`
	Share     float64  `json:"share,omitempty"`
	Seen      []string `json:"seen,omitempty" maxItems:"60"`
	NotSeen   []string `json:"not_seen,omitempty" maxItems:"60"`
	Note      string   `json:"note,omitempty" maxLength:"4000"`
	State     string   `json:"state" enum:"open,closed"`
	Ending    string   `json:"ending,omitempty" maxLength:"2000" doc:"How it ended; when it is closed"`
	Version   int      `json:"version" doc:"The version the change is based on"`
	Affected  int      `json:"affected,omitempty" minimum:"0" doc:"How many of a group show it"`
	Harvest   day.Day  `json:"harvest,omitempty" format:"date" doc:"When it is eaten from next"`
	BedM2     float64  `json:"bed_m2,omitempty" minimum:"0" maximum:"100000" doc:"Of the bed it is in"`
	Helped    *string  `json:"helped,omitempty" enum:",gone,less,same" doc:"Looked at again: gone, less or the same; as it was when absent"`
}

// validFind names what a find cannot be.
func validFind(causeID string, certainty float64, k cause.Case) invalid.Fields {
	k.Month = 6
	bad := invalid.Of(cause.Built().Validate(k))
	if cause.Built().Cause(causeID) == nil {
		bad.Add("cause", causeID, "%q is no cause in the book", causeID)
	}
	bad.Within("certainty", certainty, 0, 1, "")
	return bad
}

// findRecord checks a find and joins it with its plant and property.
func (h *Room) findRecord(ctx context.Context, in FindIn) (store.Find, error) {
	bad := validFind(in.Cause, in.Certainty, cause.Case{Seen: in.Seen, Absent: in.NotSeen, Share: in.Share})
	on := h.DateOr(in.Day)
	if !cause.Enterable(on, h.Today()) {
		bad.Add("day", on.String(), "want a day of the last year, today at the latest")
	}
	f := store.Find{PropertyID: in.PropertyID, Species: in.Species, Day: on.String(), Cause: in.Cause, Certainty: in.Certainty, Share: in.Share,
		Seen: store.JSON[[]string]{V: append([]string{}, in.Seen...)}, NotSeen: store.JSON[[]string]{V: append([]string{}, in.NotSeen...)},
		How: in.How, Note: strings.TrimSpace(in.Note), Prevent: in.Prevent, Affected: in.Affected, Harvest: dayText(in.Harvest), BedM2: in.BedM2}
	if in.Prevent && in.PlantID == 0 {
		bad.Add("plant_id", in.PlantID, "is missing: a plant is guarded, not a property")
	}
	if f.How == "" {
		f.How = "look"
	}
	return f, h.standsOn(ctx, in.PlantID, &f.PropertyID, &f.PlantID, &f.Species, bad)
}

// standsOn fills in property and species from a plant, or checks those that were named; it returns all that is wrong.
func (h *Room) standsOn(ctx context.Context, plant int64, property *int64, kept *sql.NullInt64, species *string, bad invalid.Fields) error {
	if plant != 0 {
		p, err := h.Store.Plant(ctx, plant)
		there, err := store.There(err)
		switch {
		case err != nil:
			return err
		case !there:
			bad.Add("plant_id", plant, "is not there, or was removed")
		case *property != 0 && *property != p.PropertyID:
			bad.Add("plant_id", plant, "stands on another property")
		default:
			*property, *species, *kept = p.PropertyID, p.Species, sql.NullInt64{Int64: plant, Valid: true}
		}
		return bad.Err()
	}
	if *property == 0 {
		bad.Add("property_id", *property, "is missing: name the plant or the property")
	} else {
		_, err := h.Store.Property(ctx, *property)
		there, err := store.There(err)
		if err != nil {
			return err
		}
		if !there {
			bad.Add("property_id", *property, "is not there, or was removed")
		}
	}
	if *species != "" {
		book, err := h.Book(ctx)
		if err != nil {
			return err
		}
		if _, err := book.Species(*species); err != nil {
			bad.Add("species", *species, "%v", err)
		}
	}
	return bad.Err()
}

// AddFind keeps a find.
func (h *Room) AddFind(ctx context.Context, key store.Key, in FindIn) (Find, error) {
	f, err := h.findRecord(ctx, in)
	if err == nil {
		err = h.validAffected(ctx, f)
	}
	if err != nil {
		return Find{}, err
	}
	f, err = store.Once(ctx, h.Store, key, func(tx store.Tx) (store.Find, error) { return tx.AddFind(ctx, f) })
	if err != nil {
		return Find{}, err
	}
	return h.OneFind(ctx, f.ID)
}

// validAffected refuses more plants that show it than the group has.
func (h *Room) validAffected(ctx context.Context, f store.Find) error {
	if f.Affected == 0 || !f.PlantID.Valid {
		return nil
	}
	p, err := h.Store.Plant(ctx, f.PlantID.Int64)
	if err != nil {
		return err
	}
	if f.Affected > p.Count {
		return invalid.One("affected", f.Affected, fmt.Sprintf("%d is more than the %d of the group", f.Affected, p.Count))
	}
	return nil
}

// dayText is a day as it is kept; empty where none is given.
func dayText(d day.Day) string {
	if !d.Given() {
		return ""
	}
	return d.String()
}

// OneFind reads one find.
func (h *Room) OneFind(ctx context.Context, id int64) (Find, error) {
	f, err := h.Store.Find(ctx, id)
	if err != nil {
		return Find{}, err
	}
	list, err := h.tellFinds(ctx, []store.Find{f})
	if err != nil {
		return Find{}, err
	}
	return list[0], nil
}

// ChangeFind corrects a find, closes it, or opens it again.
func (h *Room) ChangeFind(ctx context.Context, key store.Key, id int64, in FindChange) (Find, error) {
	f, err := h.Store.Find(ctx, id)
	if err != nil {
		return Find{}, err
	}
	bad := validFind(in.Cause, in.Certainty, cause.Case{Seen: in.Seen, Absent: in.NotSeen, Share: in.Share})
	if bad != nil {
		return Find{}, bad
	}
	f.Cause, f.Certainty, f.Share, f.Note, f.Version = in.Cause, in.Certainty, in.Share, strings.TrimSpace(in.Note), in.Version
	f.Seen.V, f.NotSeen.V = append([]string{}, in.Seen...), append([]string{}, in.NotSeen...)
	f.Affected, f.Harvest, f.BedM2 = in.Affected, dayText(in.Harvest), in.BedM2
	if err := h.validAffected(ctx, f); err != nil {
		return Find{}, err
	}
	if in.Helped != nil && *in.Helped == "gone" {
		in.State = "closed" // what is gone does not stand open
	}
	switch {
	case in.State == "open":
		if f.Helped == "gone" && in.Helped == nil { // it is back, or never went
			f.Helped, f.HelpedDay, f.HelpedBy = "", "", 0
		}
		f.Closed, f.Ending = "", ""
	case f.State == "open":
		f.Closed, f.Ending = h.Today().String(), strings.TrimSpace(in.Ending)
	default:
		f.Ending = strings.TrimSpace(in.Ending)
	}
	f.State = in.State
	if in.Helped != nil && *in.Helped != f.Helped {
		f.Helped, f.HelpedDay, f.HelpedBy = *in.Helped, "", 0
		if f.Helped != "" {
			f.HelpedDay = h.Today().String()
		}
	}
	f, err = store.Once(ctx, h.Store, key, func(tx store.Tx) (store.Find, error) { return tx.ChangeFind(ctx, f) })
	if err != nil {
		return Find{}, h.staleFind(ctx, err)
	}
	return h.OneFind(ctx, f.ID)
}

// RemoveFind takes a find out of sight, or brings it back.
func (h *Room) RemoveFind(ctx context.Context, key store.Key, id int64, remove bool) error {
	_, err := store.Once(ctx, h.Store, key, func(tx store.Tx) (struct{}, error) { return struct{}{}, tx.RemoveFind(ctx, id, remove) })
	return err
}

// FindsOf asks for finds.
type FindsOf = store.FindsOf

// Finds lists finds, the oldest first.
func (h *Room) Finds(ctx context.Context, of FindsOf) ([]Find, error) {
	rows, err := h.Store.Finds(ctx, of)
	if err != nil {
		return nil, err
	}
	return h.tellFinds(ctx, rows)
}
