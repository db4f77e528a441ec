package firm

import (
	"cmp"
	"context"
	"slices"
	"sync"
	"time"
)

// Of wrong passwords for one name.
const (
	freeTries   = 5                // that cost nothing
	slowestTry  = 5 * time.Second  // what one waits at most
	triesForget = 30 * time.Minute // after which they are forgotten
	triesNames  = 4096             // names that are remembered; beyond them those of longest ago go
	guessesFor  = 24 * time.Hour   // for which the owner is told of them
	guessesMost = 10               // names that the owner is told of
)

// Guesses are wrong passwords for one name within a day: somebody may be guessing.
type Guesses struct {
	Login string    `json:"login" doc:"By which somebody tried to sign in; there need not be such an account"`
	Count int       `json:"count" doc:"Wrong passwords, each less than a day after the one before"`
	Last  time.Time `json:"last" doc:"When the last of them was tried"`
}

// tries counts wrong passwords by name, of those that are there and those that are not alike.
type tries struct {
	mu      sync.Mutex
	of      map[string]tried
	guesses map[string]Guesses
}

type tried struct {
	count int
	last  time.Time
}

// pause is what the next try for a name waits.
func (t *tries) pause(login string, now time.Time) time.Duration {
	t.mu.Lock()
	defer t.mu.Unlock()
	was := t.of[login]
	if was.count < freeTries || now.Sub(was.last) > triesForget {
		return 0
	}
	return min(slowestTry, time.Second<<min(10, was.count-freeTries))
}

// wait waits as long as the next try for a name has to, or until its asker leaves.
func (t *tries) wait(ctx context.Context, login string, now time.Time) error {
	pause := t.pause(login, now)
	if pause == 0 {
		return nil
	}
	after := time.NewTimer(pause)
	defer after.Stop()
	select {
	case <-ctx.Done():
		return ctx.Err()
	case <-after.C:
		return nil
	}
}

// wrong notes a wrong password, and says how many there were.
func (t *tries) wrong(login string, now time.Time) int {
	t.mu.Lock()
	defer t.mu.Unlock()
	if t.of == nil {
		t.of = map[string]tried{}
	}
	was := t.of[login]
	if now.Sub(was.last) > triesForget {
		was.count = 0
	}
	if len(t.of) >= triesNames {
		t.drop()
	}
	t.of[login] = tried{was.count + 1, now}
	t.guess(login, now)
	return was.count + 1
}

// guess counts for the owner: a right password does not forget it.
func (t *tries) guess(login string, now time.Time) {
	g := t.guesses[login]
	if now.Sub(g.Last) > guessesFor {
		g.Count = 0
	}
	if t.guesses == nil {
		t.guesses = map[string]Guesses{}
	}
	if _, known := t.guesses[login]; !known && len(t.guesses) >= triesNames {
		t.dropGuess()
	}
	t.guesses[login] = Guesses{login, g.Count + 1, now}
}

// dropGuess forgets the name that was tried least: many names once each hide none that was tried often.
func (t *tries) dropGuess() {
	least := ""
	for name, g := range t.guesses {
		if o := t.guesses[least]; least == "" || g.Count < o.Count || g.Count == o.Count && g.Last.Before(o.Last) {
			least = name
		}
	}
	delete(t.guesses, least)
}

// guessed are the names with many wrong passwords within a day, the most tried first.
func (t *tries) guessed(now time.Time) []Guesses {
	t.mu.Lock()
	defer t.mu.Unlock()
	out := []Guesses{}
	for _, g := range t.guesses {
		if g.Count >= freeTries && now.Sub(g.Last) <= guessesFor {
			out = append(out, g)
		}
	}
	slices.SortFunc(out, func(a, b Guesses) int {
		return cmp.Or(cmp.Compare(b.Count, a.Count), cmp.Compare(a.Login, b.Login))
	})
	return out[:min(len(out), guessesMost)]
}

// drop forgets the name of longest ago.
func (t *tries) drop() {
	oldest, at := "", time.Time{}
	for name, x := range t.of {
		if oldest == "" || x.last.Before(at) {
			oldest, at = name, x.last
		}
	}
	delete(t.of, oldest)
}

// right forgets what was wrong before.
func (t *tries) right(login string) {
	t.mu.Lock()
	defer t.mu.Unlock()
	delete(t.of, login)
}
