package letters_test

import (
	"context"
	"strings"
	"testing"

	"mezzadro/house/clients"
	"mezzadro/house/housetest"
	"mezzadro/house/letters"
	"mezzadro/store"
)

// heard is a post that keeps what it was given, and refuses while it is told to.
type heard struct {
	letters []letters.Outgoing
	fault   error
}

func (p *heard) Send(_ context.Context, l letters.Outgoing) (string, error) {
	if p.fault != nil {
		return "", p.fault
	}
	p.letters = append(p.letters, l)
	return "taken", nil
}

// TestMailGoesToWhoGetsIt: with a server entered a letter of a visit goes to those clients that get days and have an
// address, waits while the server is down and says why, and is refused where nobody has an address; the password is
// never told.
func TestMailGoesToWhoGetsIt(t *testing.T) {
	k, in := toTell(t, nil)
	p := &heard{}
	k.Letters.Post = p
	ctx := context.Background()
	for _, bad := range []letters.MailIn{{Host: "mail.example.com", From: "nobody"}, {Host: "a b", From: "garden@example.com"}} {
		if _, err := k.Letters.SetMail(ctx, store.Key{}, bad); err == nil {
			t.Errorf("%+v is taken", bad)
		}
	}
	set, err := k.Letters.SetMail(
		ctx,
		store.Key{},
		letters.MailIn{Host: "mail.example.com", User: "garden", Password: "made up", From: "garden@example.com"},
	)
	if set = housetest.Must(t, set, err); set.Port != 587 || set.Security != "starttls" || !set.Kept {
		t.Errorf("kept as %+v", set)
	}
	if _, err := k.Letters.SendLetter(ctx, store.Key{}, in); err == nil ||
		!strings.Contains(err.Error(), "no client of this property has an address") {
		t.Errorf("to nobody: %v", err)
	}
	for _, c := range []clients.ClientIn{
		{Name: "Noemi", Email: "noemi@example.com", Of: []clients.AtHome{{PropertyID: in.PropertyID, Role: "owner", Gets: []string{"days", "estimates"}}}},
		{Name: "Agency", Email: "agency@example.com", Of: []clients.AtHome{{PropertyID: in.PropertyID, Role: "agency", Gets: []string{"reports"}}}},
		{Name: "Housekeeper", Of: []clients.AtHome{{PropertyID: in.PropertyID, Role: "housekeeper", Gets: []string{"days"}}}},
	} {
		if _, err := k.Clients.KeepClient(ctx, store.Key{}, 0, c); err != nil {
			t.Fatal(err)
		}
	}
	p.fault = context.DeadlineExceeded
	l, err := k.Letters.SendLetter(ctx, store.Key{}, in)
	if l = housetest.Must(t, l, err); !l.Waits || !strings.Contains(l.Receipt, "try 1: ") {
		t.Errorf("a server that is down: %+v", l)
	}
	p.fault = nil
	if err := k.Letters.SendWaiting(ctx); err != nil {
		t.Fatal(err)
	}
	if len(p.letters) != 1 || len(p.letters[0].To) != 1 || p.letters[0].To[0] != "noemi@example.com" ||
		!strings.Contains(p.letters[0].Subject, "Old Mill") {
		t.Errorf("it went as %+v", p.letters)
	}
	if list, _ := k.Letters.Letters(ctx); len(list) != 1 || list[0].Waits || list[0].Receipt != "taken" {
		t.Errorf("kept as %+v", list)
	}
	if _, err := k.Letters.SendNotice(ctx, store.Key{}, in.PropertyID, letters.NoticeIn{Gets: "reports", Subject: "A report", Text: "Read it."}); err != nil ||
		p.letters[1].To[0] != "agency@example.com" {
		t.Errorf("a report goes to %+v, %v", p.letters, err)
	}
	p.fault = letters.ErrNotTaken
	if _, err := k.Letters.SendNotice(ctx, store.Key{}, in.PropertyID, letters.NoticeIn{Gets: "reports", Subject: "A report", Text: "Read it."}); err == nil {
		t.Error("what the server refuses is told as sent")
	}
	if list, _ := k.Letters.Letters(ctx); len(list) != 2 {
		t.Errorf("what was refused stays: %d letters", len(list))
	}
	set, err = k.Letters.SetMail(
		ctx,
		store.Key{},
		letters.MailIn{Host: "other.example.com", User: "garden", From: "garden@example.com"},
	)
	if set = housetest.Must(t, set, err); set.Kept {
		t.Error("the password goes along to another server")
	}
}
