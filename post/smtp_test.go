package post_test

import (
	"context"
	"errors"
	"net"
	"strconv"
	"strings"
	"testing"

	"mezzadro/house/letters"
	"mezzadro/post"
	"mezzadro/standin"
	"mezzadro/store"
)

// box is a mailbox that listens, and the post that gives it letters.
func box(t *testing.T) (*standin.Mailbox, post.SMTP) {
	t.Helper()
	l, err := net.Listen("tcp", "127.0.0.1:0")
	if err != nil {
		t.Fatal(err)
	}
	t.Cleanup(func() { l.Close() })
	m := &standin.Mailbox{}
	go func() { _ = m.Serve(l) }() // it ends when the listener is closed
	_, port, _ := net.SplitHostPort(l.Addr().String())
	n, _ := strconv.Atoi(port)
	set := store.Mail{Version: 1}
	set.Body.V = store.MailBody{Host: "127.0.0.1", Port: n, Security: "none", From: "garden@example.com"}
	return m, post.SMTP{Settings: func(context.Context) (store.Mail, error) { return set, nil }, Else: standin.Post{}}
}

// TestALetterArrives: with its words, accents and all, to all its addresses.
func TestALetterArrives(t *testing.T) {
	m, p := box(t)
	receipt, err := p.Send(
		context.Background(),
		letters.Outgoing{Number: 7, To: []string{"noemi@example.com", "house@example.com"},
			Subject: "Our visit – Müller’s garden", Body: "We come on Thursday.\n.\nCafé", Firm: "Tre Gelsi",
			Calendar: "BEGIN:VCALENDAR\r\nSUMMARY:Müller’s garden\r\nEND:VCALENDAR\r\n"},
	)
	if err != nil || !strings.Contains(receipt, "2 addresses") {
		t.Fatalf("%q, %v", receipt, err)
	}
	got := m.Letters()
	if len(got) != 1 || len(got[0].To) != 2 || got[0].From != "garden@example.com" ||
		got[0].Subject != "Our visit – Müller’s garden" ||
		!strings.Contains(got[0].Body, "Thursday.\r\n.\r\nCafé") {
		t.Errorf("%+v", got)
	}
	if f := got[0].Files; len(f) != 1 || f[0].Name != "visit.ics" || !strings.Contains(f[0].Text, "SUMMARY:Müller’s garden\r\n") {
		t.Errorf("attached: %+v", f)
	}
}

// TestTroubleOfThePost: what passes is tried again, what is refused for good is not taken; a letter to nobody is simulated.
func TestTroubleOfThePost(t *testing.T) {
	m, p := box(t)
	l := letters.Outgoing{
		Number:    8,
		Addressee: "Noemi",
		To:        []string{"noemi@example.com"},
		Subject:   "Visit",
		Body:      "We come.",
		Firm:      "Tre Gelsi",
	}
	m.Fail("451 try again later")
	if _, err := p.Send(context.Background(), l); err == nil || errors.Is(err, letters.ErrNotTaken) {
		t.Errorf("try again later: %v", err)
	}
	m.Fail("550 no such mailbox here")
	if _, err := p.Send(context.Background(), l); !errors.Is(err, letters.ErrNotTaken) {
		t.Errorf("no such mailbox: %v", err)
	}
	m.Fail("")
	if _, err := p.Send(context.Background(), l); err != nil || len(m.Letters()) != 1 {
		t.Errorf("at last: %v, %d letters", err, len(m.Letters()))
	}
	l.To = nil
	if receipt, err := p.Send(context.Background(), l); err != nil || !strings.Contains(receipt, "simulated") {
		t.Errorf("to nobody: %q, %v", receipt, err)
	}
	down := post.SMTP{Settings: func(context.Context) (store.Mail, error) {
		var s store.Mail
		s.Body.V = store.MailBody{Host: "127.0.0.1", Port: 1, Security: "none", From: "garden@example.com"}
		return s, nil
	}}
	l.To = []string{"noemi@example.com"}
	if _, err := down.Send(context.Background(), l); err == nil || errors.Is(err, letters.ErrNotTaken) {
		t.Errorf("a server that is down: %v", err)
	}
}
