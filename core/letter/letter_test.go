package letter

import (
	"strings"
	"testing"

	"mezzadro/core/day"
	"mezzadro/core/quantity"
)

var friday = day.Of(2027, 3, 19)

func visit() Visit {
	return Visit{Client: "Noemi", Property: "Old Mill", Firm: "Tre Gelsi", Day: friday, Before: day.None, Next: day.None,
		Jobs: []string{"Pruning: Bay laurel", "Spraying: Box hedge"}, Prepare: []string{"Please shut the windows."}}
}

// TestLetters: each says the day as the client reads it, what is done, and what they are to do; none says what is not so.
func TestLetters(t *testing.T) {
	moved, off, early, after := visit(), visit(), visit(), visit()
	moved.Before = friday - 2
	off.Day, off.Before = day.None, friday
	early.Hours = Arriving(8*60 + 45)
	after.Next = friday + 30
	owners := visit()
	owners.Client = "The owners of the old mill"
	for name, c := range map[string]struct {
		text       string
		has, lacks []string
	}{
		"a day":           {visit().Draft(), []string{"Dear Noemi,", "on Friday, 19 March. Planned:", "- Pruning: Bay laurel", "shut the windows", "gate clear", "Tre Gelsi"}, []string{"arriving", "new day", "not 1"}},
		"with its hours":  {early.Draft(), []string{"Friday, 19 March, arriving between 08:30 and 10:30."}, nil},
		"to several":      {owners.Draft(), []string{"Dear owners of the old mill,"}, nil},
		"a new day":       {moved.Draft(), []string{"a new day: Friday, 19 March, not Wednesday, 17 March as we told you"}, nil},
		"no day any more": {off.Draft(), []string{"cannot come to Old Mill on Friday, 19 March", "Still to do:\n- Pruning"}, []string{"Planned", "windows", "gate"}},
		"the evening":     {early.Reminder(), []string{"tomorrow, Friday, 19 March, arriving between 08:30 and 10:30", "shut the windows"}, nil},
		"after":           {after.Thanks(), []string{"We were at Old Mill on Friday, 19 March. Done:\n- Pruning", "next visit is on Sunday, 18 April", "Thank you"}, []string{"windows", "gate", "Planned"}},
		"to nobody": {Visit{Property: "Old Mill", Firm: "Tre Gelsi", Day: friday, Before: day.None, Jobs: []string{"Mowing"}}.Draft(),
			[]string{"We are coming"}, []string{"Dear"}},
	} {
		got := quantity.Style{Year: 2027}.Text(c.text)
		for _, w := range c.has {
			if !strings.Contains(got, w) {
				t.Errorf("%s lacks %q:\n%s", name, w, got)
			}
		}
		for _, w := range c.lacks {
			if strings.Contains(got, w) {
				t.Errorf("%s says %q:\n%s", name, w, got)
			}
		}
	}
}

// TestArriving: two hours from the half hour on in which one plans to come, so that nobody is told of an hour before the gate
// opens; the planned minute lies in them; none of an unknown one.
func TestArriving(t *testing.T) {
	for _, m := range []int{1, 29, 420, 455, 480, 617, 1020, 1439} {
		h := Arriving(m)
		if h.From > m || h.To < m || h.To-h.From > 120 || h.From%30 != 0 || m-h.From >= 30 {
			t.Errorf("planned at %d: %+v", m, h)
		}
	}
	if Arriving(0).given() {
		t.Error("hours of an unknown minute")
	}
}

// TestSubjects: each kind of letter can be told apart in a list of mail.
func TestSubjects(t *testing.T) {
	seen := map[string]bool{}
	for _, a := range []About{Coming, Off, Reminder, Thanks} {
		s := Subject("Old Mill", a)
		if seen[s] || !strings.Contains(s, "Old Mill") {
			t.Errorf("%s: %q", a, s)
		}
		seen[s] = true
	}
}
