package letters_test

import (
	"context"
	"fmt"
	"strings"
	"testing"
	"time"

	"mezzadro/core/day"
	"mezzadro/core/job"
	"mezzadro/core/quantity"
	"mezzadro/house/clients"
	"mezzadro/house/housetest"
	"mezzadro/house/letters"
	"mezzadro/house/work"
	"mezzadro/store"
)

var bg = context.Background()

// mailed is a property whose owner is written to and reminded, and whose housekeeper is not, with a job in two days.
func mailed(t *testing.T) (*housetest.Kit, letters.LetterIn, *heard) {
	t.Helper()
	k, in := toTell(t, nil)
	p := &heard{}
	k.Letters.Post = p
	set, err := k.Letters.SetMail(bg, store.Key{}, letters.MailIn{Host: "mail.example.com", From: "garden@example.com"})
	housetest.Must(t, set, err)
	for name, gets := range map[string][]string{"Noemi": {"days", "reminders"}, "Housekeeper": {"days"}} {
		c, err := k.Clients.KeepClient(bg, store.Key{}, 0, clients.ClientIn{Name: name, Email: strings.ToLower(name) + "@example.com",
			Of: []clients.AtHome{{PropertyID: in.PropertyID, Role: "owner", Gets: gets}}})
		housetest.Must(t, c, err)
	}
	return k, in, p
}

// at sets the clock: a day, and the hour of a garden by the lake, which is two hours before the world's in summer and
// one before the end of March.
func at(k *housetest.Kit, d day.Day, hour int) {
	k.On = d
	k.Estate.Clock = func() time.Time { return d.Time().Add(time.Duration(hour-1) * time.Hour) }
}

// TestReminders: on the evening before, once, to who wants them, of a day that the client knows; not earlier, not
// later, not of a day nobody told them, not without mail.
func TestReminders(t *testing.T) {
	k, in, p := mailed(t)
	on := in.Day
	at(k, on-1, 18)
	remind := func(want int, why string) {
		t.Helper()
		if err := k.Letters.Remind(bg); err != nil || len(p.letters) != want {
			t.Fatalf("%s: %d letters, %v, want %d", why, len(p.letters), err, want)
		}
	}
	remind(0, "nobody told them the day")
	at(k, on-2, 18)
	l, err := k.Letters.SendLetter(bg, store.Key{}, in)
	housetest.Must(t, l, err)
	remind(1, "two evenings before")
	at(k, on-1, 16)
	remind(1, "in the afternoon")
	at(k, on-1, 17)
	remind(2, "the evening before")
	remind(2, "a minute later")
	last := p.letters[1]
	if fmt.Sprint(last.To) != "[noemi@example.com]" || !strings.Contains(last.Body, "tomorrow, Saturday, 20 March") ||
		!strings.Contains(last.Body, "Sweep the court") || last.Calendar != "" {
		t.Errorf("reminded by %+v", last)
	}
	at(k, on, 9)
	remind(2, "on the day")
}

// TestReminderTooLate: one that the post refuses is tried once; one that waited for the post over the day is dropped,
// since it says tomorrow.
func TestReminderTooLate(t *testing.T) {
	k, in, p := mailed(t)
	l, err := k.Letters.SendLetter(bg, store.Key{}, in)
	housetest.Must(t, l, err)
	at(k, in.Day-1, 18)
	p.fault = letters.ErrNotTaken
	if err := k.Letters.Remind(bg); err == nil {
		t.Error("what the post refuses is told to nobody")
	}
	p.fault = nil
	if err := k.Letters.Remind(bg); err != nil || len(p.letters) != 1 {
		t.Errorf("tried again: %d letters, %v", len(p.letters), err)
	}
	k, in, p = mailed(t)
	l, err = k.Letters.SendLetter(bg, store.Key{}, in)
	housetest.Must(t, l, err)
	at(k, in.Day-1, 18)
	p.fault = context.DeadlineExceeded
	if err := k.Letters.Remind(bg); err != nil {
		t.Fatal(err)
	}
	at(k, in.Day, 8)
	p.fault = nil
	if err := k.Letters.SendWaiting(bg); err != nil || len(p.letters) != 1 {
		t.Errorf("on the day itself: %d letters, %v", len(p.letters), err)
	}
	if list, err := k.Letters.Letters(bg); err != nil || len(list) != 1 {
		t.Errorf("kept: %d, %v", len(list), err)
	}
}

// TestCalendarGoesAlong: a letter of a day carries it for the client's calendar; one of another day moves the same
// entry, one that the day falls calls it off. A letter after the visit carries none.
func TestCalendarGoesAlong(t *testing.T) {
	k, in, p := mailed(t)
	in.FromMinute, in.ToMinute = 8*60, 10*60
	send := func(l letters.LetterIn) string {
		t.Helper()
		got, err := k.Letters.SendLetter(bg, store.Key{}, l)
		housetest.Must(t, got, err)
		return p.letters[len(p.letters)-1].Calendar
	}
	first := send(in)
	o, err := k.Work.Order(bg, in.Orders[0])
	o = housetest.Must(t, o, err)
	moved, err := k.Work.PutOnDay(bg, store.Key{}, o.ID, work.PutIn{Day: in.Day + 3, Version: o.Version})
	housetest.Must(t, moved, err)
	later := in
	later.Day, later.FromMinute, later.ToMinute = in.Day+3, 0, 0
	second := send(later)
	off := later
	off.Off = true
	third := send(off)
	id := lineOf(first, "UID:")
	for name, c := range map[string]struct {
		text string
		has  []string
	}{
		"told":       {first, []string{"DTSTART:20270320T070000Z", "DTEND:20270320T090000Z", "METHOD:PUBLISH", "Old Mill"}},
		"moved":      {second, []string{"DTSTART;VALUE=DATE:20270323", "METHOD:PUBLISH"}},
		"called off": {third, []string{"METHOD:CANCEL", "STATUS:CANCELLED"}},
	} {
		if got := lineOf(c.text, "UID:"); got != id || id == "" {
			t.Errorf("%s: %s, and the first was %s", name, got, id)
		}
		for _, w := range c.has {
			if !strings.Contains(c.text, w) {
				t.Errorf("%s lacks %s:\n%s", name, w, c.text)
			}
		}
	}
	if !(lineOf(first, "SEQUENCE:") < lineOf(second, "SEQUENCE:") && lineOf(second, "SEQUENCE:") < lineOf(third, "SEQUENCE:")) {
		t.Error("an edition is not later than the one before")
	}
}

func lineOf(text, begins string) string {
	for l := range strings.SplitSeq(text, "\r\n") {
		if strings.HasPrefix(l, begins) {
			return l
		}
	}
	return ""
}

// TestThanks: a visit whose work is done may be written of once; none while a job of it is left, none of what is long
// past.
func TestThanks(t *testing.T) {
	k, in, p := mailed(t)
	thanks := func() []letters.Telling {
		t.Helper()
		list, err := k.Letters.Thanks(bg, quantity.Style{Year: 2027})
		return housetest.Must(t, list, err)
	}
	other, err := k.Work.AddOrder(bg, store.Key{}, work.HandOrder{PropertyID: in.PropertyID, Title: "Rake the gravel", Minutes: 20, Day: in.Day,
		Spans: []work.SpanIn{{From: k.On, To: k.On + 30}}})
	other = housetest.Must(t, other, err)
	at(k, in.Day, 15)
	done := func(id int64) {
		t.Helper()
		o, err := k.Work.Order(bg, id)
		o = housetest.Must(t, o, err)
		o, err = k.Work.TickOff(bg, store.Key{}, id, work.TickOffIn{Version: o.Version, State: job.Done})
		housetest.Must(t, o, err)
	}
	done(in.Orders[0])
	if l := thanks(); len(l) != 0 {
		t.Errorf("half of it is done, and they are told: %s", l[0].Text)
	}
	done(other.ID)
	l := thanks()
	if len(l) != 1 || !strings.Contains(l[0].Text, "Done:\n- Sweep the court\n- Rake the gravel") {
		t.Fatalf("%+v", l)
	}
	sent, err := k.Letters.SendThanks(bg, store.Key{}, letters.ThanksIn{PropertyID: in.PropertyID, Day: l[0].Day, Text: l[0].Text})
	housetest.Must(t, sent, err)
	if len(thanks()) != 0 || len(p.letters) != 1 || p.letters[0].Calendar != "" || !strings.HasPrefix(p.letters[0].Subject, "Done at") {
		t.Errorf("after sending: %+v", p.letters)
	}
	at(k, in.Day+6, 9)
	if len(thanks()) != 0 {
		t.Error("of a visit a week ago")
	}
}
