package firm

import (
	"context"
	"errors"
	"fmt"
	"slices"
	"testing"
	"time"
)

// TestTriesSlowDown: the first wrong passwords for a name cost nothing, then each waits longer, up to a bound; another
// name is not touched, a right one and half an hour forget them, and who leaves waits no more.
func TestTriesSlowDown(t *testing.T) {
	var k tries
	at := time.Date(2027, 3, 18, 8, 0, 0, 0, time.UTC)
	last := time.Duration(0)
	for n := range 20 {
		p := k.pause("ilda", at)
		if n < freeTries && p != 0 || p < last || p > slowestTry {
			t.Errorf("after %d wrong ones: waits %s", n, p)
		}
		last = p
		k.wrong("ilda", at)
	}
	if last != slowestTry || k.pause("bruno", at) != 0 {
		t.Errorf("ilda waits %s, bruno %s", last, k.pause("bruno", at))
	}
	if k.pause("ilda", at.Add(31*time.Minute)) != 0 {
		t.Error("half an hour later they still count")
	}
	gone, leave := context.WithCancel(context.Background())
	leave()
	if err := k.wait(gone, "ilda", at); !errors.Is(err, context.Canceled) {
		t.Errorf("who left waits: %v", err)
	}
	if g := k.guessed(at); len(g) != 1 || g[0].Login != "ilda" || g[0].Count != 20 || !g[0].Last.Equal(at) {
		t.Errorf("the owner is told %+v", g)
	}
	k.right("ilda")
	k.wrong("bruno", at)
	if g := k.guessed(at.Add(23 * time.Hour)); len(g) != 1 || g[0].Login != "ilda" {
		t.Errorf("the owner is told %+v once the guess was right", g)
	}
	if g := k.guessed(at.Add(25 * time.Hour)); len(g) != 0 {
		t.Errorf("the owner is told %+v a day later", g)
	}
	if k.pause("ilda", at) != 0 {
		t.Error("a right password forgets nothing")
	}
	for range freeTries {
		k.wrong("carla", at)
	}
	for n := range triesNames + 50 {
		k.wrong(fmt.Sprint("name ", n), at.Add(time.Duration(n)*time.Millisecond))
	}
	if g := k.guessed(at.Add(time.Hour)); !slices.ContainsFunc(g, func(g Guesses) bool { return g.Login == "carla" }) {
		t.Errorf("behind thousands of names tried once one tried often is told no more: %v", g)
	}
	if len(k.of) > triesNames || len(k.guesses) > triesNames {
		t.Errorf("%d names are remembered, %d told", len(k.of), len(k.guesses))
	}
}
