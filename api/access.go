package api

import (
	"context"
	"net/http"
	"regexp"
	"slices"
	"strconv"
	"time"

	"github.com/alexedwards/scs/v2"
	"github.com/danielgtaylor/huma/v2"

	"mezzadro/house/firm"
	"mezzadro/store"
)

// role is the least that an operation asks for: those of accounts, or anyone.
type role string

// Roles of operations.
const (
	anyone  role = "anyone" // needs no sign-in
	crew    role = firm.RoleCrew
	planner role = firm.RolePlanner
	owner   role = firm.RoleOwner
)

// roleKey is where an operation keeps its role.
const roleKey = "role"

// RoleOf is the least role that an operation asks for, or that anyone may ask it; false where it says nothing.
func RoleOf(o *huma.Operation) (least string, said bool) {
	r, said := o.Metadata[roleKey].(role)
	return string(r), said
}

// sessionFor is how long one stays signed in.
const sessionFor = 30 * 24 * time.Hour

// idleFor is how many days a session lasts that nobody uses: a phone that was lost in the shed signs nobody in.
const idleFor = 14

// The cookie of a session, and what the description calls it.
const (
	sessionCookie = "mezzadro"
	sessionScheme = "session"
)

// Keys of a session's data.
const (
	sessionAccount = "account"
	sessionEpoch   = "epoch"
	sessionUsed    = "used" // day of its last use, since 1970
)

// idle ends a session that was not used for long, and notes that it is used, once a day.
func (s *Server) idle(ctx context.Context, today int64) bool {
	used := s.sessions.GetInt64(ctx, sessionUsed)
	if used != 0 && today-used > idleFor {
		s.sessions.Remove(ctx, sessionAccount)
		return true
	}
	if used != today {
		s.sessions.Put(ctx, sessionUsed, today)
	}
	return false
}

// newSessions keeps sessions in the record. Their cookie is the browser's alone and goes to no other site.
func newSessions(s *store.Store, secure bool) *scs.SessionManager {
	m := scs.New()
	m.Store = store.Sessions{Store: s}
	m.HashTokenInStore = true
	m.Lifetime = sessionFor
	m.Cookie.Name = sessionCookie
	m.Cookie.HttpOnly = true
	m.Cookie.SameSite = http.SameSiteLaxMode
	m.Cookie.Secure = secure
	return m
}

// signedIn is who sends a request; false for nobody.
func (s *Server) signedIn(ctx context.Context) (store.Account, bool, error) {
	id := s.sessions.GetInt64(ctx, sessionAccount)
	if id == 0 || s.idle(ctx, time.Now().Unix()/86400) {
		return store.Account{}, false, nil
	}
	a, err := s.Estate.Store.Account(ctx, id)
	if err == store.ErrNotFound {
		return a, false, nil
	}
	return a, err == nil && a.Epoch == s.sessions.GetInt64(ctx, sessionEpoch), err
}

// outside reports that who sends a request has to sign in, and has no session: the operation says so.
func (s *Server) outside(ctx context.Context) bool {
	guarded, err := s.Firm.HasAccounts(ctx)
	return err == nil && guarded && s.sessions.GetInt64(ctx, sessionAccount) == 0
}

// signIn begins a session under a new token, so that one that was set before is worth nothing.
func (s *Server) signIn(ctx context.Context, a store.Account) error {
	if err := s.sessions.RenewToken(ctx); err != nil {
		return err
	}
	s.sessions.Put(ctx, sessionAccount, a.ID)
	s.sessions.Put(ctx, sessionEpoch, a.Epoch)
	return nil
}

// admit lets an operation go on for those who may: for all while nobody has an account, which is on this machine alone.
func (s *Server) admit(api huma.API) func(huma.Context, func(huma.Context)) {
	return func(c huma.Context, next func(huma.Context)) {
		asked, known := RoleOf(c.Operation())
		need := role(asked)
		refuse := func(status int, text string) {
			if err := huma.WriteErr(api, c, status, text); err != nil {
				s.Estate.Log.Error("a refusal could not be written", "error", err)
			}
		}
		if !known {
			refuse(http.StatusForbidden, "nobody may do this")
			return
		}
		ctx := store.Watched(c.Context())
		guarded, err := s.Firm.HasAccounts(ctx)
		var who store.Account
		var signed bool
		if err == nil && guarded {
			who, signed, err = s.signedIn(ctx)
		}
		switch {
		case err != nil:
			s.Estate.Log.ErrorContext(ctx, "who sends a request", "error", err)
			refuse(http.StatusInternalServerError, "who you are could not be read; it has been logged")
			return
		case signed:
			ctx = store.As(context.WithValue(ctx, whoKey{}, who), actor(c, who))
		case !guarded && forwarded(c.EachHeader):
			refuse(http.StatusForbidden, "a proxy stands before the program, and nobody has to sign in yet: enter the owner on "+
				"the machine itself first")
			return
		case guarded && need != anyone:
			refuse(http.StatusUnauthorized, "sign in first: nothing you entered is lost")
			return
		}
		if signed && need != anyone && slices.Index(firm.Roles, who.Role) < slices.Index(firm.Roles, string(need)) {
			refuse(http.StatusForbidden, "this is for "+map[role]string{planner: "planners and owners", owner: "owners"}[need]+" alone")
			return
		}
		next(huma.WithContext(c, ctx))
	}
}

type whoKey struct{}

// whoOf is who sends the request under way; false where nobody has to sign in.
func whoOf(ctx context.Context) (store.Account, bool) {
	a, is := ctx.Value(whoKey{}).(store.Account)
	return a, is
}

// about finds the plant and the job that a path is about.
var (
	aboutPlant = regexp.MustCompile(`/plants/(\d+)`)
	aboutOrder = regexp.MustCompile(`/orders/(\d+)`)
)

// actor is who writes what, for the record.
func actor(c huma.Context, who store.Account) store.Actor {
	path := c.URL().Path
	id := func(r *regexp.Regexp) int64 {
		m := r.FindStringSubmatch(path)
		if m == nil {
			return 0
		}
		n, _ := strconv.ParseInt(m[1], 10, 64) // digits only; what overflows is about nothing
		return n
	}
	return store.Actor{Account: who.ID, Name: who.Name, Did: c.Operation().Summary, Path: path, Plant: id(aboutPlant), Order: id(aboutOrder)}
}

// mayPrices reports whether who asks may read what things cost the firm: all but the crew.
func mayPrices(ctx context.Context) bool {
	a, signed := whoOf(ctx)
	return !signed || a.Role != firm.RoleCrew
}
