package letters

import (
	"cmp"
	"context"
	"errors"
	"fmt"
	"strings"
	"time"

	"mezzadro/core/day"
	"mezzadro/core/invalid"
	"mezzadro/core/letter"
	"mezzadro/house/estate"
	"mezzadro/store"
)

// Poster takes letters to clients and gives a receipt. Told the same number twice it sends one letter and gives the
// same receipt. ErrNotTaken, wrapped, is a letter that it will never take; any other error is the post's own trouble.
type Poster interface {
	Send(ctx context.Context, l Outgoing) (receipt string, err error)
}

// Outgoing is a letter as the post takes it.
type Outgoing struct {
	Number    int64
	Addressee string
	To        []string // addresses that mail goes to; none: it is simulated
	Subject   string
	Body      string
	Firm      string // who writes
	Calendar  string // an iCalendar file of the visit; empty: none goes along
}

// LetterIn is a letter as it was looked over.
type LetterIn struct {
	PropertyID int64   `json:"property_id" minimum:"1"`
	Day        day.Day `json:"day" format:"date" doc:"The day it tells of"`
	Off        bool    `json:"off,omitempty" doc:"It says that the day falls, and that there is no new one yet"`
	Text       string  `json:"text" maxLength:"20000"`
	FromMinute int     `json:"from_minute,omitempty" minimum:"0" maximum:"1439" doc:"The crew arrives from then on, minutes after midnight: for the client's calendar"`
	ToMinute   int     `json:"to_minute,omitempty" minimum:"0" maximum:"1439" doc:"The crew arrives until then"`
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
	Mail       []string  `json:"mail" doc:"Addresses that mail went to"`
	Waits      bool      `json:"waits" doc:"The post has not taken it yet"`
}

// lettersShown is how many letters are listed.
const lettersShown = 60

// SendLetter keeps a letter for the post with the note that its client knows the day of its jobs, both or neither, and
// gives it to the post after that: a slow post holds no write up. Where the post is out of order the letter waits and
// is sent later; of one that it will never take nothing is kept.
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
	about := letter.Coming
	if in.Off {
		about = letter.Off
	}
	row := store.Letter{PropertyID: p.ID, Addressee: cmp.Or(p.Client, p.Name), Day: in.Day.String(), Body: in.Text, Sent: h.Ledger.Now().Unix(),
		Subject: letter.Subject(p.Name, about), About: string(about), FromMinute: in.FromMinute, ToMinute: in.ToMinute}
	if err := h.addressed(ctx, &row, "days"); err != nil {
		return Letter{}, err
	}
	known := map[int64]string{} // what the client knew before
	id, err := store.Once(ctx, h.Store, key, func(tx store.Tx) (int64, error) {
		for _, order := range in.Orders {
			before, err := tx.ToldDay(ctx, order)
			if err != nil {
				return 0, err
			}
			known[order] = before
			if row.Visit == 0 && before != "" {
				if row.Visit, err = tx.VisitLetter(ctx, in.PropertyID, before); err != nil {
					return 0, err
				}
			}
			if in.Off {
				err = tx.SetToldDay(ctx, order, "")
			} else {
				err = tx.ToldOn(ctx, order, in.PropertyID, row.Day)
			}
			if err != nil {
				return 0, err
			}
		}
		return tx.AddLetter(ctx, row)
	})
	if err != nil {
		return Letter{}, err
	}
	if err := h.handed(ctx, key, id, known); err != nil {
		return Letter{}, err
	}
	row, err = h.Store.Letter(ctx, id)
	return tellLetter(row), err
}

// handed gives a letter that was just kept to the post. One that it will never take is taken out again, and its client
// knows what it knew before; any other trouble passes, and the letter waits.
func (h *Room) handed(ctx context.Context, key store.Key, id int64, known map[int64]string) error {
	err := h.post(ctx, id)
	if errors.Is(err, ErrNotTaken) {
		return errors.Join(store.Refused("the mail server did not take it: "+err.Error()), ErrNotTaken, h.unsend(ctx, key, id, known))
	}
	if err != nil {
		h.Log.WarnContext(ctx, "post", "letter", id, "error", err)
	}
	return nil
}

// unsend takes a letter out that was not taken: its client knows what it knew before.
func (h *Room) unsend(ctx context.Context, key store.Key, id int64, known map[int64]string) error {
	return h.Store.Write(ctx, func(tx store.Tx) error {
		for order, told := range known {
			if err := tx.SetToldDay(ctx, order, told); err != nil {
				return err
			}
		}
		return errors.Join(tx.DropLetter(ctx, id), tx.Unsay(ctx, key))
	})
}

// ErrNotTaken is the error of a letter that the post will never take.
var ErrNotTaken = errors.New("not taken")

// post gives one letter to the post, once, and notes the receipt.
func (h *Room) post(ctx context.Context, id int64) error {
	h.posting.Lock()
	defer h.posting.Unlock()
	l, err := h.Store.Letter(ctx, id)
	if err != nil || l.Receipt != "" {
		return err
	}
	firm, err := h.Store.Firm(ctx)
	if err != nil {
		return err
	}
	file, err := h.calendar(ctx, l, firm.Name)
	if err != nil {
		return err
	}
	receipt, err := h.Post.Send(ctx, Outgoing{l.ID, l.Addressee, l.To.V, l.Subject, l.Body, firm.Name, file})
	ctx = context.WithoutCancel(ctx) // it is on its way, whoever still listens
	if err != nil {
		noted := h.Store.Write(ctx, func(tx store.Tx) error { return tx.LetterRefused(ctx, l.ID, err.Error()) })
		return errors.Join(err, noted)
	}
	return h.Store.Write(ctx, func(tx store.Tx) error { return tx.LetterTaken(ctx, l.ID, receipt) })
}

// WatchPost reminds clients of visits and gives the letters that wait to the post, now and then again after each span,
// until the context ends.
func (h *Room) WatchPost(ctx context.Context, every time.Duration) {
	tick := time.NewTicker(every)
	defer tick.Stop()
	for {
		if err := errors.Join(h.Remind(ctx), h.SendWaiting(ctx)); err != nil && ctx.Err() == nil {
			h.Log.WarnContext(ctx, "post", "error", err)
		}
		select {
		case <-ctx.Done():
			return
		case <-tick.C:
		}
	}
}

// SendWaiting gives the letters that wait to the post: those of a program that was ended, or a post that was out of
// order. One that is not taken stops none behind it; a reminder that comes too late is dropped.
func (h *Room) SendWaiting(ctx context.Context) error {
	if h.Post == nil {
		return nil
	}
	list, err := h.Store.LettersWaiting(ctx)
	for _, l := range list {
		if l.About == string(letter.Reminder) && store.DayOf(&l.Day) <= h.Today() { // it says tomorrow
			err = errors.Join(err, h.Store.Write(ctx, func(tx store.Tx) error { return tx.DropLetter(ctx, l.ID) }))
			continue
		}
		err = errors.Join(err, h.post(ctx, l.ID))
	}
	return err
}

// Letters are the last that were given to the post.
func (h *Room) Letters(ctx context.Context) ([]Letter, error) {
	rows, err := h.Store.Letters(ctx, lettersShown)
	return estate.TellAll(rows, tellLetter), err
}

// notYet is told in place of a receipt.
const notYet = "Waits for the post, which has not taken it yet; it is tried again"

// waits tells of a letter that the post has not taken.
func waits(l store.Letter) string {
	if l.Trouble == "" {
		return notYet
	}
	return fmt.Sprintf("%s (try %d: %s)", notYet, l.Tried, l.Trouble)
}

func tellLetter(l store.Letter) Letter {
	return Letter{l.ID, l.PropertyID, l.Property, l.Addressee, store.DayOf(&l.Day), l.Body, time.Unix(l.Sent, 0).UTC(), cmp.Or(l.Receipt, waits(l)), append([]string{}, l.To.V...), l.Receipt == ""}
}
