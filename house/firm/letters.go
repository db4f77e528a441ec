package firm

import (
	"context"
	"strings"
	"time"

	"mezzadro/core/day"
	"mezzadro/core/invalid"
	"mezzadro/house/estate"
	"mezzadro/store"
)

// Poster takes letters to clients and gives a receipt.
type Poster interface {
	Send(ctx context.Context, addressee, body string) (receipt string, err error)
}

// LetterIn is a letter as it was looked over.
type LetterIn struct {
	PropertyID int64   `json:"property_id" minimum:"1"`
	Day        day.Day `json:"day" format:"date" doc:"The day it tells of"`
	Text       string  `json:"text" maxLength:"20000"`
	Orders     []int64 `json:"orders" minItems:"1" maxItems:"500" doc:"Jobs on that day that the client knows of then"`
}

// Letter is what was given to the post.
type Letter struct {
	ID         int64     `json:"id"`
	PropertyID int64     `json:"property_id"`
	Property   string    `json:"property"`
	To         string    `json:"to"`
	Day        day.Day   `json:"day" format:"date"`
	Text       string    `json:"text"`
	Sent       time.Time `json:"sent"`
	Receipt    string    `json:"receipt" doc:"The post's; says so where it is simulated"`
}

// lettersShown is how many letters are listed.
const lettersShown = 60

// SendLetter gives a letter to the post and notes that the client knows the day of its jobs, both or neither.
func (h *Room) SendLetter(ctx context.Context, key store.Key, in LetterIn) (Letter, error) {
	if strings.TrimSpace(in.Text) == "" {
		return Letter{}, invalid.One("text", in.Text, "the letter has no words")
	}
	if h.Post == nil {
		return Letter{}, store.Refused("no outgoing post is set up")
	}
	p, err := h.Store.Property(ctx, in.PropertyID)
	if err != nil {
		return Letter{}, err
	}
	return store.Once(ctx, h.Store, key, func(tx store.Tx) (Letter, error) {
		for _, id := range in.Orders {
			if err := tx.ToldOn(ctx, id, in.PropertyID, in.Day.String()); err != nil {
				return Letter{}, err
			}
		}
		to := p.Client
		if to == "" {
			to = p.Name
		}
		row := store.Letter{PropertyID: p.ID, Property: p.Name, Addressee: to, Day: in.Day.String(), Body: in.Text, Sent: h.now().Unix()}
		if row.Receipt, err = h.Post.Send(ctx, to, in.Text); err != nil { // last, so that nothing is sent that is not kept
			return Letter{}, store.Refused("the post did not take it: " + err.Error())
		}
		row.ID, err = tx.AddLetter(ctx, row)
		return tellLetter(row), err
	})
}

// Letters are the last that were sent.
func (h *Room) Letters(ctx context.Context) ([]Letter, error) {
	rows, err := h.Store.Letters(ctx, lettersShown)
	return estate.TellAll(rows, tellLetter), err
}

func tellLetter(l store.Letter) Letter {
	return Letter{l.ID, l.PropertyID, l.Property, l.Addressee, store.DayOf(&l.Day), l.Body, time.Unix(l.Sent, 0).UTC(), l.Receipt}
}

// now is the time: the clock's, or the early morning of the sample's day.
func (h *Room) now() time.Time {
	if h.Clock != nil {
		return h.Clock()
	}
	return h.Today().Time().Add(estate.Morning)
}
