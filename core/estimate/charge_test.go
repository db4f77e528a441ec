package estimate

import (
	"testing"

	"mezzadro/core/job"
)

// TestWhatWasDone: what is charged for work that was agreed from–to, at one price, or not at all, by how long it took.
func TestWhatWasDone(t *testing.T) {
	cut := Job{Kind: job.Prune, Title: "Cut", Minutes: 90} // 60.00 at 40.00 an hour, 48.00 to 72.00
	agreed := lake.LineOf(cut)
	dear := fixed.LineOf(cut) // 135.00
	for _, c := range []struct {
		name   string
		rates  *Rates
		took   int
		agreed *Line
		want   Amount
	}{
		{"as long as planned", &lake, 90, &agreed, 6000},
		{"sooner", &lake, 60, &agreed, 4000},
		{"longer, within what was agreed", &lake, 105, &agreed, 7000},
		{"much longer: no more than was agreed", &lake, 240, &agreed, 7200},
		{"nobody noted how long", &lake, 0, &agreed, 6000},
		{"at one price it is that", &fixed, 240, &dear, 13500},
		{"not agreed: by the time", &lake, 240, nil, 16000},
		{"not agreed and not noted: as planned", &lake, 0, nil, 6000},
	} {
		l := c.rates.Done(cut, c.took, c.agreed)
		if l.Amount != c.want || l.From != c.want || l.To != c.want {
			t.Errorf("%s: %d (%d–%d), want %d", c.name, l.Amount, l.From, l.To, c.want)
		}
	}
	if agreed.From != 4800 || agreed.Parts[0].From != 4800 {
		t.Error("what was agreed was changed by charging it")
	}
}

// TestSharesOfWhatWasAgreed: the parts of a job that was done on days running cost together what was agreed, however they
// are cut, and nothing where their minutes are not known costs more.
func TestSharesOfWhatWasAgreed(t *testing.T) {
	agreed := fixed.LineOf(Job{Kind: job.Other, Title: "Clear the bank", Minutes: 1200})
	for _, cut := range [][]int{{600, 600}, {540, 540, 120}, {1200}} {
		var sum, most Amount
		for _, m := range cut {
			l := agreed.Of(m, 1200)
			sum, most = sum+fixed.Done(Job{Kind: job.Other, Minutes: m}, m, &l).Amount, most+l.To
		}
		if sum != agreed.Amount || most != agreed.To {
			t.Errorf("cut into %v it costs %d, at most %d; agreed were %d, at most %d", cut, sum, most, agreed.Amount, agreed.To)
		}
	}
	if l := agreed.Of(300, 0); l.Amount != agreed.Amount {
		t.Errorf("a job that is not parted costs %d of %d", l.Amount, agreed.Amount)
	}
}
