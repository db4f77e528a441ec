// Package clients is who the firm works for: how they are reached, what they have to do with, what they get.
package clients

import (
	"context"
	"fmt"
	"net/mail"
	"slices"
	"strings"

	"mezzadro/core/invalid"
	"mezzadro/house/estate"
	"mezzadro/store"
)

// Room keeps clients.
type Room struct{ *estate.House }

// Client is somebody that the firm works for, with the properties that they have to do with.
type Client struct {
	ID      int64    `json:"id"`
	Name    string   `json:"name"`
	Phone   string   `json:"phone"`
	Email   string   `json:"email"`
	Address string   `json:"address" doc:"Where letters go"`
	Units   string   `json:"units" enum:"metric,imperial," doc:"What they read; empty: as the firm"`
	Note    string   `json:"note" doc:"The firm's own: no client reads it"`
	Of      []AtHome `json:"of" doc:"Properties that they have to do with"`
	Version int      `json:"version"`
}

// AtHome is what a client is at a property, and what they get of it.
type AtHome struct {
	PropertyID int64    `json:"property_id" minimum:"1"`
	Property   string   `json:"property,omitempty" doc:"Its name; told, not taken"`
	Role       string   `json:"role" enum:"owner,tenant,agency,housekeeper,other"`
	Gets       []string `json:"gets,omitempty" maxItems:"4" doc:"What they are sent: days, reports, estimates, reminders"`
}

// What a client may get.
var gettable = []string{"days", "reports", "estimates", "reminders"}

// ClientIn is what is entered of one.
type ClientIn struct {
	Name    string   `json:"name" maxLength:"200"`
	Phone   string   `json:"phone,omitempty" maxLength:"60"`
	Email   string   `json:"email,omitempty" maxLength:"200"`
	Address string   `json:"address,omitempty" maxLength:"400" doc:"Where letters go"`
	Units   string   `json:"units,omitempty" enum:"metric,imperial,"`
	Note    string   `json:"note,omitempty" maxLength:"2000"`
	Of      []AtHome `json:"of,omitempty" maxItems:"200"`
	Version int      `json:"version,omitempty" doc:"When changing: the version the change is based on"`
}

func tellClient(c store.Client) Client {
	return Client{ID: c.ID, Name: c.Name, Phone: c.Phone, Email: c.Email, Address: c.Address, Units: c.Units, Note: c.Note,
		Of: []AtHome{}, Version: c.Version}
}

func (in ClientIn) record() (store.Client, []store.ClientOf, error) {
	var bad invalid.Fields
	c := store.Client{Name: strings.TrimSpace(in.Name), Phone: strings.TrimSpace(in.Phone), Email: strings.TrimSpace(in.Email),
		Address: strings.TrimSpace(in.Address), Units: in.Units, Note: strings.TrimSpace(in.Note), Version: in.Version}
	if c.Name == "" {
		bad.Add("name", in.Name, "is missing")
	}
	if c.Email != "" {
		if a, err := mail.ParseAddress(c.Email); err != nil || a.Name != "" || a.Address != c.Email {
			bad.Add("email", in.Email, "%q is no address that mail can go to", in.Email)
		}
	}
	if digits := strings.Trim(c.Phone, "+0123456789 ()-/.extEXT#"); digits != "" {
		bad.Add("phone", in.Phone, "%q cannot be dialled: want figures, spaces and a plus", in.Phone)
	}
	var of []store.ClientOf
	seen := map[int64]bool{}
	for i, o := range in.Of {
		if seen[o.PropertyID] {
			bad.Add(fmt.Sprintf("of[%d].property_id", i), o.PropertyID, "stands twice")
		}
		seen[o.PropertyID] = true
		for k, g := range o.Gets {
			if !slices.Contains(gettable, g) {
				bad.Add(fmt.Sprintf("of[%d].gets[%d]", i, k), g, "want one of %q", gettable)
			}
		}
		row := store.ClientOf{PropertyID: o.PropertyID, Role: o.Role}
		row.Gets.V = append([]string{}, o.Gets...)
		of = append(of, row)
	}
	return c, of, bad.Err()
}

// Clients are all, by name, with their properties; with a property those of it alone.
func (h *Room) Clients(ctx context.Context, property int64) ([]Client, error) {
	list, err := h.Store.Clients(ctx)
	if err != nil {
		return nil, err
	}
	of, err := h.Store.ClientsOf(ctx)
	if err != nil {
		return nil, err
	}
	names, err := h.Store.PropertyNames(ctx)
	if err != nil {
		return nil, err
	}
	at := map[int64][]AtHome{}
	for _, o := range of {
		at[o.ClientID] = append(at[o.ClientID], AtHome{o.PropertyID, names[o.PropertyID], o.Role, append([]string{}, o.Gets.V...)})
	}
	out := []Client{}
	for _, c := range list {
		told := tellClient(c)
		told.Of = append(told.Of, at[c.ID]...)
		if property == 0 || slices.ContainsFunc(told.Of, func(a AtHome) bool { return a.PropertyID == property }) {
			out = append(out, told)
		}
	}
	return out, nil
}

// KeepClient keeps a new client where the id is 0, else a changed one, with their properties.
func (h *Room) KeepClient(ctx context.Context, key store.Key, id int64, in ClientIn) (Client, error) {
	c, of, err := in.record()
	if err != nil {
		return Client{}, err
	}
	c.ID = id
	kept, err := store.Once(ctx, h.Store, key, func(tx store.Tx) (store.Client, error) {
		write := tx.ChangeClient
		if id == 0 {
			write = tx.AddClient
		}
		kept, err := write(ctx, c)
		if err != nil {
			return kept, estate.Stale(err, tellClient)
		}
		return kept, tx.SetClientOf(ctx, kept.ID, of)
	})
	if err != nil {
		return Client{}, err
	}
	all, err := h.Clients(ctx, 0)
	for _, c := range all {
		if c.ID == kept.ID {
			return c, err
		}
	}
	return tellClient(kept), err
}

// RemoveClient takes one out of sight, or brings one back.
func (h *Room) RemoveClient(ctx context.Context, key store.Key, id int64, remove bool) error {
	_, err := store.Once(ctx, h.Store, key, func(tx store.Tx) (struct{}, error) {
		return struct{}{}, tx.RemoveClient(ctx, id, remove)
	})
	return err
}
