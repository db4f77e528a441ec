package firm

import (
	"context"
	"encoding/base64"
	"errors"
	"fmt"
	"sync"
	"sync/atomic"
	"time"

	"github.com/alexedwards/argon2id"
	"golang.org/x/crypto/argon2"

	"mezzadro/core/invalid"
	"mezzadro/house/estate"
	"mezzadro/store"
)

// SignInIn is who one says to be.
type SignInIn struct {
	Login    string `json:"login" maxLength:"80"`
	Password string `json:"password" maxLength:"200"`
}

// unknown stands for the password of nobody, so that a name that is not there takes as long as a wrong password: its
// hash is all zeros, and none comes to that.
var unknown = fmt.Sprintf("$argon2id$v=%d$m=%d,t=%d,p=%d$%s$%s", argon2.Version, hashed.Memory, hashed.Iterations,
	hashed.Parallelism, zeros(hashed.SaltLength), zeros(hashed.KeyLength))

func zeros(n uint32) string { return base64.RawStdEncoding.EncodeToString(make([]byte, n)) }

// hashed is how passwords are hashed: 64 MB once over, above the usual least of 46 MB, by one thread, so that a core
// is left for who works while somebody guesses.
var hashed = &argon2id.Params{Memory: 64 * 1024, Iterations: 1, Parallelism: 1, SaltLength: 16, KeyLength: 32}

// hashing is done one at a time: each takes 64 MB for a moment. No more than queueMost wait for it.
var (
	hashing sync.Mutex
	queued  atomic.Int32
)

const queueMost = 16

// errBusy is answered while too many wait to have a password looked at.
var errBusy = store.Refused("too many are signing in at this moment: try again in a minute")

// inTurn does something to a password when it is its turn.
func inTurn[T any](do func() (T, error)) (T, error) {
	if queued.Add(1) > queueMost {
		queued.Add(-1)
		return *new(T), errBusy
	}
	defer queued.Add(-1)
	hashing.Lock()
	defer hashing.Unlock()
	return do()
}

func hashOf(password string) (string, error) {
	return inTurn(func() (string, error) { return argon2id.CreateHash(password, hashed) })
}

func matches(password, hash string) (bool, error) {
	return inTurn(func() (bool, error) { return argon2id.ComparePasswordAndHash(password, hash) })
}

// errWrong is answered for a wrong name and for a wrong password alike.
var errWrong = invalid.One("password", nil, "this name and this password do not go together")

// SignIn checks who somebody is. After some wrong passwords for a name each more waits a little longer, up to
// slowestTry: guesses become slow, and nobody can shut another out.
func (h *Room) SignIn(ctx context.Context, in SignInIn) (store.Account, error) {
	login := loginOf(in.Login)
	if err := h.tries.wait(ctx, login, time.Now()); err != nil {
		return store.Account{}, err
	}
	a, err := h.signIn(ctx, login, in)
	var wrong invalid.Fields
	switch {
	case err == nil:
		h.tries.right(login)
	case errors.As(err, &wrong):
		if n := h.tries.wrong(login, time.Now()); n == freeTries {
			h.Log.Warn("many wrong passwords for one name", "login", login)
		}
	}
	return a, err
}

// Guessed are the names for which many wrong passwords were tried within a day, since the program started: told to
// owners alone.
func (h *Room) Guessed() []Guesses { return h.tries.guessed(time.Now()) }

func (h *Room) signIn(ctx context.Context, login string, in SignInIn) (store.Account, error) {
	a, err := h.Store.AccountOf(ctx, login)
	if err != nil && !errors.Is(err, store.ErrNotFound) {
		return a, err
	}
	hash := a.Hash
	if hash == "" {
		hash = unknown
	}
	right, err := matches(in.Password, hash)
	if err != nil {
		return a, err
	}
	if !right || a.Hash == "" {
		return store.Account{}, errWrong
	}
	return a, nil
}

// TakeInvitation sets a password by a one-time link.
func (h *Room) TakeInvitation(ctx context.Context, token, password string) (store.Account, error) {
	var bad invalid.Fields
	checkPassword(&bad, password, "")
	if bad != nil {
		return store.Account{}, bad
	}
	hash, err := hashOf(password)
	if err != nil {
		return store.Account{}, err
	}
	var a store.Account
	err = h.Store.Write(ctx, func(tx store.Tx) error {
		if a, err = tx.TakeInvitation(ctx, estate.TokenHash(token), time.Now()); err != nil {
			return err
		}
		if err = tx.SetPassword(ctx, a.ID, hash); err != nil {
			return err
		}
		a, err = tx.Account(ctx, a.ID)
		return err
	})
	if errors.Is(err, store.ErrNotFound) {
		return a, store.Refused("this link was used, is over, or was never given: ask for a new one")
	}
	return a, err
}

// ChangePassword sets one's own, and ends all other sessions.
func (h *Room) ChangePassword(ctx context.Context, account int64, old, password string) (store.Account, error) {
	a, err := h.Store.Account(ctx, account)
	if err != nil {
		return a, err
	}
	if right, err := matches(old, a.Hash); err != nil || !right {
		return a, errors.Join(err, invalid.One("old", nil, "is not your password"))
	}
	var bad invalid.Fields
	if checkPassword(&bad, password, a.Login); bad != nil {
		return a, bad
	}
	hash, err := hashOf(password)
	if err != nil {
		return a, err
	}
	err = h.Store.Write(ctx, func(tx store.Tx) error {
		if err := tx.SetPassword(ctx, account, hash); err != nil {
			return err
		}
		a, err = tx.Account(ctx, account)
		return err
	})
	return a, err
}

// EndSessions signs somebody out everywhere.
func (h *Room) EndSessions(ctx context.Context, key store.Key, account int64) error {
	_, err := store.Once(ctx, h.Store, key, func(tx store.Tx) (struct{}, error) { return struct{}{}, tx.EndSessions(ctx, account) })
	return err
}
