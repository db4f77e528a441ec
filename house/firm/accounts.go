package firm

import (
	"context"
	"errors"
	"strings"
	"time"
	"unicode/utf8"

	"github.com/trustelem/zxcvbn"

	"mezzadro/core/invalid"
	"mezzadro/house/estate"
	"mezzadro/store"
)

// Roles, from the one that may least.
const (
	RoleCrew    = "crew"    // walks, day sheets, ticking off
	RolePlanner = "planner" // all of the work
	RoleOwner   = "owner"   // and who may sign in, and the firm's settings
)

// Roles are all of them, from the one that may least.
var Roles = []string{RoleCrew, RolePlanner, RoleOwner}

// Account is somebody who may sign in.
type Account struct {
	ID      int64  `json:"id"`
	Login   string `json:"login" doc:"By which one signs in"`
	Name    string `json:"name"`
	Role    string `json:"role" enum:"crew,planner,owner"`
	Waiting bool   `json:"waiting" doc:"The invitation was not taken yet"`
	Version int    `json:"version"`
}

// AccountIn is what is entered of one.
type AccountIn struct {
	Login   string `json:"login,omitempty" maxLength:"80" doc:"When adding: by which one signs in; a name or an address"`
	Name    string `json:"name" maxLength:"80"`
	Role    string `json:"role" enum:"crew,planner,owner"`
	Version int    `json:"version,omitempty" doc:"When changing: the version the change is based on"`
}

// Invited is an account with a one-time link that is passed on.
type Invited struct {
	Account Account   `json:"account"`
	Token   string    `json:"token" doc:"Of the link, shown once: whoever has it sets the password"`
	Until   time.Time `json:"until"`
}

// OwnerIn is the firm's first account.
type OwnerIn struct {
	Login    string `json:"login" maxLength:"80"`
	Name     string `json:"name" maxLength:"80"`
	Password string `json:"password" maxLength:"200"`
}

// Of passwords and links.
const (
	passwordLeast   = 10  // characters: length is what makes one hard to guess
	passwordGuesses = 1e8 // how many guesses one has to stand at least
	passwordLooked  = 72  // bytes of it that are looked at: more is hard enough
	inviteFor       = 7 * 24 * time.Hour
)

func tellAccount(a store.Account) Account {
	return Account{a.ID, a.Login, a.Name, a.Role, a.Hash == "", a.Version}
}

// Accounts are all who may sign in.
func (h *Room) Accounts(ctx context.Context) ([]Account, error) {
	list, err := h.Store.Accounts(ctx)
	return estate.TellAll(list, tellAccount), err
}

// HasAccounts reports that somebody may sign in: then nobody gets in who did not.
func (h *Room) HasAccounts(ctx context.Context) (bool, error) {
	if h.guarded.Load() {
		return true, nil
	}
	list, err := h.Store.Accounts(ctx)
	if err == nil && len(list) > 0 {
		h.guarded.Store(true) // the last owner cannot be removed
	}
	return len(list) > 0, err
}

func loginOf(text string) string { return strings.ToLower(strings.TrimSpace(text)) }

// checkPassword refuses what is short, and what is guessed soon: common ones, names, dates, rows of keys.
func checkPassword(bad *invalid.Fields, password string, about ...string) {
	if utf8.RuneCountInString(password) < passwordLeast {
		bad.Add("password", nil, "want %d characters at least; some words in a row are easy to keep in mind", passwordLeast)
		return
	}
	tried := password[:min(len(password), passwordLooked)]
	words := append(strings.Fields(strings.ToLower(strings.Join(about, " "))), "mezzadro")
	if zxcvbn.PasswordStrength(tried, words).Guesses < passwordGuesses {
		bad.Add("password", nil, "is among the first that anybody would try; some words in a row that do not belong together are not")
	}
}

// FirstOwner enters the firm's owner; only while nobody may sign in yet, and not in the sample.
func (h *Room) FirstOwner(ctx context.Context, in OwnerIn) (Account, error) {
	var bad invalid.Fields
	login := loginOf(in.Login)
	if login == "" {
		bad.Add("login", in.Login, "is missing")
	}
	if strings.TrimSpace(in.Name) == "" {
		bad.Add("name", in.Name, "is missing")
	}
	checkPassword(&bad, in.Password, login, in.Name)
	if bad != nil {
		return Account{}, bad
	}
	firm, err := h.Store.Firm(ctx)
	if err != nil {
		return Account{}, err
	}
	if firm.Sample {
		return Account{}, store.Refused("the sample needs no sign-in")
	}
	if guarded, err := h.HasAccounts(ctx); err != nil || guarded {
		return Account{}, errors.Join(err, errOwned)
	}
	hash, err := hashOf(in.Password)
	if err != nil {
		return Account{}, err
	}
	var a store.Account
	err = h.Store.Write(ctx, func(tx store.Tx) error {
		n, err := tx.CountAccounts(ctx, "")
		if err != nil {
			return err
		}
		if n > 0 {
			return errOwned
		}
		a, err = tx.AddAccount(ctx, store.Account{Login: login, Name: strings.TrimSpace(in.Name), Role: RoleOwner, Hash: hash})
		return err
	})
	return tellAccount(a), err
}

// errOwned is answered for a second first owner.
var errOwned = store.Refused("there is an owner already: sign in")

// AddAccount enters somebody who may sign in, and gives a one-time link by which they set their password.
func (h *Room) AddAccount(ctx context.Context, key store.Key, in AccountIn) (Invited, error) {
	var bad invalid.Fields
	login := loginOf(in.Login)
	if login == "" {
		bad.Add("login", in.Login, "is missing")
	}
	if strings.TrimSpace(in.Name) == "" {
		bad.Add("name", in.Name, "is missing")
	}
	if bad != nil {
		return Invited{}, bad
	}
	a, err := store.Once(ctx, h.Store, key, func(tx store.Tx) (Account, error) {
		a, err := tx.AddAccount(ctx, store.Account{Login: login, Name: strings.TrimSpace(in.Name), Role: in.Role})
		return tellAccount(a), err
	})
	if err != nil {
		return Invited{}, err
	}
	return h.Invite(ctx, a.ID)
}

// Invite gives a one-time link by which somebody sets a password: the first one, or a new one. Links before it are
// over. The token is kept as a hash alone, so it is made anew each time.
func (h *Room) Invite(ctx context.Context, account int64) (Invited, error) {
	token, hash := estate.NewToken()
	out := Invited{Token: token, Until: time.Now().Add(inviteFor).UTC().Truncate(time.Second)}
	err := h.Store.Write(ctx, func(tx store.Tx) error {
		a, err := tx.Account(ctx, account)
		if err != nil {
			return err
		}
		out.Account = tellAccount(a)
		return tx.AddInvitation(ctx, account, hash, out.Until)
	})
	return out, err
}

// lastOwner refuses what would leave the firm without an owner.
var errLastOwner = store.Refused("this is the last owner: make somebody else one first")

// ChangeAccount keeps a name and a role.
func (h *Room) ChangeAccount(ctx context.Context, key store.Key, id int64, in AccountIn) (Account, error) {
	if strings.TrimSpace(in.Name) == "" {
		return Account{}, invalid.One("name", in.Name, "is missing")
	}
	a, err := store.Once(ctx, h.Store, key, func(tx store.Tx) (Account, error) {
		if err := keepsOwner(ctx, tx, id, in.Role); err != nil {
			return Account{}, err
		}
		a, err := tx.ChangeAccount(ctx, store.Account{ID: id, Name: strings.TrimSpace(in.Name), Role: in.Role, Version: in.Version})
		return tellAccount(a), err
	})
	return a, estate.Stale(err, tellAccount)
}

// RemoveAccount takes somebody out, or brings them back.
func (h *Room) RemoveAccount(ctx context.Context, key store.Key, id int64, remove bool) error {
	_, err := store.Once(ctx, h.Store, key, func(tx store.Tx) (struct{}, error) {
		if remove {
			if err := keepsOwner(ctx, tx, id, ""); err != nil {
				return struct{}{}, err
			}
		}
		return struct{}{}, tx.RemoveAccount(ctx, id, remove)
	})
	return err
}

// keepsOwner refuses to take the last owner's role.
func keepsOwner(ctx context.Context, tx store.Tx, id int64, role string) error {
	a, err := tx.Account(ctx, id)
	if err != nil || a.Role != RoleOwner || role == RoleOwner {
		return err
	}
	n, err := tx.CountAccounts(ctx, RoleOwner)
	if err == nil && n < 2 {
		return errLastOwner
	}
	return err
}
