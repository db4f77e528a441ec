package letters_test

import (
	"context"
	"errors"
	"fmt"
	"strings"
	"testing"
	"time"

	"mezzadro/core/day"
	"mezzadro/core/quantity"
	"mezzadro/house/housetest"
	"mezzadro/house/letters"
	"mezzadro/house/work"
	"mezzadro/store"
)

// line is a post that a test can have be slow, out of order, or refuse.
type line struct {
	asked  chan struct{} // one for each letter that is on its way
	goOn   chan struct{} // closed: at once
	fault  error
	letter []int64
}

func (l *line) Send(_ context.Context, out letters.Outgoing) (string, error) {
	select {
	case l.asked <- struct{}{}:
	default:
	}
	<-l.goOn
	if l.fault != nil {
		return "", l.fault
	}
	l.letter = append(l.letter, out.Number)
	return fmt.Sprint("receipt ", out.Number), nil
}

// toTell is a property with a job on the day after tomorrow, and the letter that tells its client.
func toTell(t *testing.T, l *line) (*housetest.Kit, letters.LetterIn) {
	t.Helper()
	k := housetest.Open(t)
	k.Letters.Post = l
	p := k.Property("Old Mill", "lake-foothills")
	on := k.On + 2
	o, err := k.Work.AddOrder(context.Background(), store.Key{}, work.HandOrder{PropertyID: p.ID, Title: "Sweep the court", Minutes: 30, Day: on,
		Spans: []work.SpanIn{{From: k.On, To: k.On + 30}}})
	o = housetest.Must(t, o, err)
	return k, letters.LetterIn{PropertyID: p.ID, Day: on, Text: "We come on Saturday.", Orders: []int64{o.ID}}
}

func tellings(t *testing.T, k *housetest.Kit) int {
	t.Helper()
	list, err := k.Letters.Tellings(context.Background(), 14, quantity.Style{})
	return len(housetest.Must(t, list, err))
}

// TestSlowPostHoldsNoWriteUp: while a letter is on its way others keep what they found.
func TestSlowPostHoldsNoWriteUp(t *testing.T) {
	l := &line{asked: make(chan struct{}, 1), goOn: make(chan struct{})}
	k, in := toTell(t, l)
	sent := make(chan error, 1)
	go func() {
		_, err := k.Letters.SendLetter(context.Background(), store.Key{}, in)
		sent <- err
	}()
	<-l.asked
	soon, stop := context.WithTimeout(context.Background(), 5*time.Second)
	defer stop()
	err := k.Estate.Store.Write(soon, func(tx store.Tx) error { return nil })
	close(l.goOn)
	if err != nil {
		t.Errorf("a write beside a slow post: %v", err)
	}
	if err := <-sent; err != nil {
		t.Errorf("the letter: %v", err)
	}
}

// TestPostOutOfOrder: the letter waits, says so, its client counts as told once, and it goes out once when the post is
// back, though it was tried in between.
func TestPostOutOfOrder(t *testing.T) {
	l := &line{goOn: make(chan struct{}), fault: errors.New("the line is dead")}
	close(l.goOn)
	k, in := toTell(t, l)
	ctx := context.Background()
	kept, err := k.Letters.SendLetter(ctx, store.Key{Key: "press", Hash: "a"}, in)
	if err != nil || !strings.Contains(kept.Receipt, "Waits for the post") || tellings(t, k) != 0 {
		t.Fatalf("%+v, %v; %d to tell", kept, err, tellings(t, k))
	}
	if err := k.Letters.SendWaiting(ctx); err == nil {
		t.Error("a dead line is no error")
	}
	l.fault = nil
	if again, err := k.Letters.SendLetter(ctx, store.Key{Key: "press", Hash: "a"}, in); err != nil || again.ID != kept.ID || again.Receipt != "receipt 1" {
		t.Errorf("pressed again: %+v, %v", again, err)
	}
	if err := k.Letters.SendWaiting(ctx); err != nil || len(l.letter) != 1 {
		t.Errorf("sent %v, %v", l.letter, err)
	}
}

// TestPostRefuses: of a letter that the post will never take nothing is kept, the client knows what it knew, and the
// same press goes through once it takes it.
func TestPostRefuses(t *testing.T) {
	l := &line{goOn: make(chan struct{}), fault: fmt.Errorf("no such address: %w", letters.ErrNotTaken)}
	close(l.goOn)
	k, in := toTell(t, l)
	ctx, key := context.Background(), store.Key{Key: "press", Hash: "a"}
	if _, err := k.Letters.SendLetter(ctx, key, in); err == nil || !strings.Contains(err.Error(), "no such address") {
		t.Errorf("%v", err)
	}
	list, err := k.Letters.Letters(ctx)
	if err != nil || len(list) != 0 || tellings(t, k) != 1 {
		t.Errorf("kept %+v, %v; %d to tell", list, err, tellings(t, k))
	}
	l.fault = nil
	if sent, err := k.Letters.SendLetter(ctx, key, in); err != nil || sent.Receipt == "" || tellings(t, k) != 0 {
		t.Errorf("%+v, %v", sent, err)
	}
	var none day.Day
	in.Day = none
	if _, err := k.Letters.SendLetter(ctx, store.Key{}, in); err == nil {
		t.Error("a letter of a day on which the job does not stand was sent")
	}
}
