package api

import (
	"context"
	"fmt"
	"io"
	"net/http"
	"path/filepath"
	"regexp"
	"strings"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/go-chi/httprate"

	"mezzadro/house/firm"
	"mezzadro/house/ledger"
)

// Tries at names, passwords and links that one address has.
const (
	TriesMost = 20 // in triesIn
	triesIn   = time.Minute
)

func (s *Server) accountRoutes(a huma.API) {
	op(a, anyone, get, "/me", doc{"me", "Firm", "Who is signed in", "And whether anybody has to be.", reads, 0}, s.me)
	op(a, anyone, post, "/me/owner", doc{"first-owner", "Firm", "Enter the firm's owner", "While nobody has an account; from then on nobody gets in without one.", writes, 0}, s.firstOwner, `{"login": "ilda", "name": "Ilda", "password": "four quiet mulberry trees"}`)
	op(a, anyone, post, "/me/session", doc{"sign-in", "Firm", "Sign in", "A few tries a minute.", writes, 0}, s.signInOp, `{"login": "ilda", "password": "four quiet mulberry trees"}`)
	op(a, anyone, remove, "/me/session", doc{"sign-out", "Firm", "Sign out", "On this device.", writes, 0}, s.signOut)
	op(a, crew, remove, "/me/sessions", doc{"sign-out-everywhere", "Firm", "Sign out everywhere", "All of one's sessions end, this one too, and all passkeys.", writes, 0}, s.signOutEverywhere)
	op(a, crew, put, "/me/password", doc{"change-password", "Firm", "Change one's password", "All other sessions end.", writes, 0}, s.changePassword, `{"old": "four quiet mulberry trees", "password": "five loud plane trees"}`)
	op(a, crew, get, "/me/passkeys", doc{"passkeys", "Firm", "One's passkeys", "Keys of devices that sign in without a password.", reads, 0}, s.passkeys)
	op(a, crew, post, "/me/passkeys/begin", doc{"begin-passkey", "Firm", "Begin to make a passkey", "What the browser needs for it (WebAuthn).", writes, 0}, s.beginPasskey)
	op(a, crew, post, "/me/passkeys", doc{"add-passkey", "Firm", "Keep a passkey", "With the browser's answer; the private half never leaves the device.", writes, 0}, s.addPasskey, `{"ceremony": "nobody-began-this", "name": "My phone", "response": {}}`)
	op(a, crew, remove, "/me/passkeys/{id}", doc{"remove-passkey", "Firm", "Take a passkey out", "That device signs in by password again.", writes, 0}, s.removePasskey)
	op(a, anyone, post, "/me/passkey/begin", doc{"begin-passkey-sign-in", "Firm", "Begin to sign in by a passkey", "What the browser needs for it; whose it is the device says.", writes, 0}, s.beginPasskeySignIn)
	op(a, anyone, post, "/me/passkey", doc{"passkey-sign-in", "Firm", "Sign in by a passkey", "With the browser's answer.", writes, 0}, s.passkeySignIn, `{"ceremony": "nobody-began-this", "response": {}}`)
	op(a, anyone, post, "/me/invitation", doc{"take-invitation", "Firm", "Set a password by a one-time link", "The link is used up, and one is signed in.", writes, 0}, s.takeInvitation, `{"token": "nobody-gave-this", "password": "five loud plane trees"}`)
	op(a, owner, get, "/accounts", doc{"accounts", "Firm", "Who may sign in", "By name.", reads, 0}, s.accounts)
	op(a, owner, get, "/accounts/guesses", doc{"guesses", "Firm", "Many wrong passwords", "Names for which many wrong passwords were tried within a day, since the program started; the most tried first.", reads, 0}, s.guesses)
	op(a, owner, post, "/accounts", doc{"add-account", "Firm", "Let somebody sign in", "Gives a one-time link that is passed on; whoever has it sets the password.", writes, 0}, s.addAccount, `{"login": "bruno", "name": "Bruno", "role": "crew"}`)
	op(a, owner, put, "/accounts/{id}", doc{"change-account", "Firm", "Change a name or a role", "Based on a version; the last owner stays one.", writes, 0}, s.changeAccount, `{"name": "Bruno", "role": "planner", "version": 1}`)
	op(a, owner, remove, "/accounts/{id}", doc{"remove-account", "Firm", "Take somebody out", "Their sessions and links end at once; can be restored.", writes, 0}, s.removeAccount)
	op(a, owner, post, "/accounts/{id}/restore", doc{"restore-account", "Firm", "Let somebody sign in again", "With the password as it was.", writes, 0}, s.restoreAccount)
	op(a, owner, post, "/accounts/{id}/invitation", doc{"invite-again", "Firm", "Give a new one-time link", "For a new password; links before it are over.", writes, 0}, s.inviteAgain)
	op(a, owner, remove, "/accounts/{id}/sessions", doc{"end-sessions", "Firm", "Sign somebody out everywhere", "Such as when a phone is lost: their passkeys end too.", writes, 0}, s.endSessions)
	op(a, owner, get, "/backup", doc{"backup", "Firm", "How the record stands with its backups", "When the last one was written whole, where they go and how often.", reads, 0}, s.backup)
	op(a, owner, post, "/backup", doc{"back-up", "Firm", "Write a backup now", "Of the record with its pictures; whole, or not at all.", writes, 0}, s.backUp)
	op(a, owner, get, "/backup/last.tar.zst", doc{"last-backup", "Firm", "The last backup", "To be put away elsewhere; restore it with the command.", readsOf, 0}, s.lastBackup)
	op(a, owner, get, "/everything.zip", doc{"everything", "Firm", "The whole record in open formats", "All tables as CSV, pictures, and plants, plans, weather and jobs for other programs; the command import fills an empty folder from it.", reads, 0}, s.everything)
	op(a, planner, get, "/properties/{id}/client-links", doc{"client-links", "Grounds", "Links that clients have", "Those that were not revoked.", readsOf, 0}, s.clientLinks)
	op(a, planner, post, "/properties/{id}/client-links", doc{"add-client-link", "Grounds", "Give a client a link", "To what was found and what is planned there; nothing can be changed by it.", writes, 0}, s.addClientLink, `{"days": 90}`)
	op(a, planner, remove, "/client-links/{id}", doc{"revoke-client-link", "Grounds", "Revoke a client's link", "For good.", writes, 0}, s.revokeClientLink)
	op(a, anyone, post, "/client", doc{"open-client-page", "Grounds", "Open a client's link", "From then on the page is read without the link, which stands in no address.", writes, 0}, s.openClientPage, `{"token": "nobody-gave-this"}`)
	op(a, anyone, get, "/client", doc{"opened-client-page", "Grounds", "The client's page that was opened", "By the link that this browser opened last.", readsOf, 0}, s.openedClientPage)
	op(a, anyone, get, "/client/{token}", doc{"client-page", "Grounds", "What a client sees of their property", "What was found, and what is planned.", readsOf, 0}, s.clientPage)
}

// slowly bounds how often an address may try names, passwords and links.
func slowly() func(http.Handler) http.Handler {
	keys := httprate.WithKeyFuncs(httprate.KeyByIP, ofItsOwn)
	limit := httprate.Limit(TriesMost, triesIn, keys, httprate.WithLimitHandler(
		func(w http.ResponseWriter, _ *http.Request) {
			w.Header().Set("Content-Type", "application/problem+json")
			w.WriteHeader(http.StatusTooManyRequests)
			_, _ = w.Write([]byte(`{"title":"Too Many Requests","status":429,"detail":"too many tries: wait a minute"}`))
		}))
	return func(next http.Handler) http.Handler {
		slow := limit(next)
		return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
			if tried.MatchString(r.Method + " " + r.URL.Path) {
				slow.ServeHTTP(w, r)
				return
			}
			next.ServeHTTP(w, r)
		})
	}
}

// ofItsOwn keeps signing in, invitations and clients' pages on counters of their own, so that none shuts out the
// others.
func ofItsOwn(r *http.Request) (string, error) {
	if strings.HasPrefix(r.URL.Path+"/", "/api/v1/client/") {
		return "client", nil
	}
	return r.URL.Path, nil
}

// tried are the requests by which one could guess.
var tried = regexp.MustCompile(`^(POST /api/v1/me/(owner|session|invitation|passkey(/begin)?)|` +
	`PUT /api/v1/me/password|(GET|POST) /api/v1/client(/[^/]*)?)$`)

// Me is who is signed in.
type Me struct {
	Needs   string        `json:"needs" enum:"nothing,owner,sign-in" doc:"owner: nobody has an account yet, and one can be entered; sign-in: nothing goes without"`
	Account *firm.Account `json:"account,omitempty"`
}

func (s *Server) me(ctx context.Context, _ *struct{}) (*Out[Me], error) {
	told := Me{Needs: "nothing"}
	guarded, err := s.Firm.HasAccounts(ctx)
	if err != nil {
		return nil, s.Problem(ctx, "accounts", err)
	}
	if !guarded {
		firm, err := s.Estate.Store.Firm(ctx)
		if err != nil {
			return nil, s.Problem(ctx, "firm", err)
		}
		if !firm.Sample {
			told.Needs = "owner"
		}
		return out(told), nil
	}
	a, signed := whoOf(ctx)
	if !signed {
		told.Needs = "sign-in"
		return out(told), nil
	}
	self := firm.Account{ID: a.ID, Login: a.Login, Name: a.Name, Role: a.Role, Version: a.Version}
	told.Account = &self
	return out(told), nil
}

func (s *Server) firstOwner(ctx context.Context, in *struct {
	OnceKey
	Body firm.OwnerIn
}) (*Out[firm.Account], error) {
	a, err := s.Firm.FirstOwner(ctx, in.Body)
	if err != nil {
		return nil, s.Problem(ctx, "owner", err)
	}
	kept, err := s.Estate.Store.Account(ctx, a.ID)
	if err == nil {
		err = s.signIn(ctx, kept)
	}
	return out(a), s.Problem(ctx, "owner", err)
}

func (s *Server) signInOp(ctx context.Context, in *struct {
	OnceKey
	Body firm.SignInIn
}) (*struct{}, error) {
	a, err := s.Firm.SignIn(ctx, in.Body)
	if err == nil {
		err = s.signIn(ctx, a)
	}
	return nil, s.Problem(ctx, "sign-in", err)
}

func (s *Server) signOut(ctx context.Context, _ *OnceKey) (*struct{}, error) {
	return nil, s.Problem(ctx, "session", s.sessions.Destroy(ctx))
}

func (s *Server) signOutEverywhere(ctx context.Context, _ *OnceKey) (*struct{}, error) {
	a, signed := whoOf(ctx)
	if !signed {
		return nil, huma.Error409Conflict("nobody has to sign in here")
	}
	if err := s.Firm.EndSessions(ctx, keyOf(ctx), a.ID); err != nil {
		return nil, s.Problem(ctx, "account", err)
	}
	return nil, s.Problem(ctx, "session", s.sessions.Destroy(ctx))
}

func (s *Server) changePassword(ctx context.Context, in *struct {
	OnceKey
	Body struct {
		Old      string `json:"old" maxLength:"200"`
		Password string `json:"password" maxLength:"200" doc:"10 characters at least"`
	}
}) (*struct{}, error) {
	who, signed := whoOf(ctx)
	if !signed {
		return nil, huma.Error409Conflict("nobody has to sign in here")
	}
	a, err := s.Firm.ChangePassword(ctx, who.ID, in.Body.Old, in.Body.Password)
	if err == nil {
		err = s.signIn(ctx, a)
	}
	return nil, s.Problem(ctx, "password", err)
}

func (s *Server) takeInvitation(ctx context.Context, in *struct {
	OnceKey
	Body struct {
		Token    string `json:"token" minLength:"1" maxLength:"100"`
		Password string `json:"password" maxLength:"200" doc:"10 characters at least"`
	}
}) (*struct{}, error) {
	a, err := s.Firm.TakeInvitation(ctx, in.Body.Token, in.Body.Password)
	if err == nil {
		err = s.signIn(ctx, a)
	}
	return nil, s.Problem(ctx, "link", err)
}

func (s *Server) accounts(ctx context.Context, _ *struct{}) (*Out[Run[firm.Account]], error) {
	list, err := s.Firm.Accounts(ctx)
	return out(Run[firm.Account]{Items: list}), s.Problem(ctx, "accounts", err)
}

func (s *Server) guesses(context.Context, *struct{}) (*Out[Run[firm.Guesses]], error) {
	return out(Run[firm.Guesses]{Items: s.Firm.Guessed()}), nil
}

func (s *Server) addAccount(ctx context.Context, in *struct {
	OnceKey
	Body firm.AccountIn
}) (*Out[firm.Invited], error) {
	if _, signed := whoOf(ctx); !signed {
		return nil, huma.Error409Conflict("enter the owner first: from then on everybody signs in")
	}
	i, err := s.Firm.AddAccount(ctx, keyOf(ctx), in.Body)
	return out(i), s.Problem(ctx, "account", err)
}

func (s *Server) changeAccount(ctx context.Context, in *struct {
	Write
	Body firm.AccountIn
}) (*Out[firm.Account], error) {
	a, err := s.Firm.ChangeAccount(ctx, keyOf(ctx), in.ID, in.Body)
	return out(a), s.Problem(ctx, "account", err)
}

func (s *Server) removeAccount(ctx context.Context, in *Write) (*struct{}, error) {
	return nil, s.Problem(ctx, "account", s.Firm.RemoveAccount(ctx, keyOf(ctx), in.ID, true))
}

func (s *Server) restoreAccount(ctx context.Context, in *Write) (*struct{}, error) {
	return nil, s.Problem(ctx, "account", s.Firm.RemoveAccount(ctx, keyOf(ctx), in.ID, false))
}

func (s *Server) inviteAgain(ctx context.Context, in *Write) (*Out[firm.Invited], error) {
	i, err := s.Firm.Invite(ctx, in.ID)
	return out(i), s.Problem(ctx, "account", err)
}

func (s *Server) endSessions(ctx context.Context, in *Write) (*struct{}, error) {
	return nil, s.Problem(ctx, "account", s.Firm.EndSessions(ctx, keyOf(ctx), in.ID))
}

func (s *Server) clientLinks(ctx context.Context, in *ByID) (*Out[Run[ledger.ClientLink]], error) {
	list, err := s.Ledger.ClientLinks(ctx, in.ID)
	return out(Run[ledger.ClientLink]{Items: list}), s.Problem(ctx, "property", err)
}

func (s *Server) addClientLink(ctx context.Context, in *struct {
	Write
	Body struct {
		Days int `json:"days,omitempty" minimum:"0" maximum:"800" doc:"For how long it holds; 90 when absent"`
	}
}) (*Out[ledger.ClientLink], error) {
	l, err := s.Ledger.AddClientLink(ctx, in.ID, in.Body.Days)
	return out(l), s.Problem(ctx, "property", err)
}

func (s *Server) revokeClientLink(ctx context.Context, in *Write) (*struct{}, error) {
	return nil, s.Problem(ctx, "link", s.Ledger.RevokeClientLink(ctx, keyOf(ctx), in.ID))
}

// sessionClient is the key of what is kept of a client's link.
const sessionClient = "client"

func (s *Server) openClientPage(ctx context.Context, in *struct {
	OnceKey
	Body struct {
		Token string `json:"token" minLength:"1" maxLength:"100" doc:"Of the link"`
	}
}) (*Out[ledger.ClientPage], error) {
	p, err := s.Ledger.ClientPage(ctx, in.Body.Token)
	if err == nil {
		s.sessions.Put(ctx, sessionClient, ledger.LinkKept(in.Body.Token))
	}
	return out(p), s.Problem(ctx, "link", err)
}

func (s *Server) openedClientPage(ctx context.Context, _ *struct{}) (*Out[ledger.ClientPage], error) {
	p, err := s.Ledger.ClientPageOf(ctx, s.sessions.GetString(ctx, sessionClient))
	return out(p), s.Problem(ctx, "link", err)
}

func (s *Server) clientPage(ctx context.Context, in *struct {
	Token string `path:"token" maxLength:"100"`
}) (*Out[ledger.ClientPage], error) {
	p, err := s.Ledger.ClientPage(ctx, in.Token)
	return out(p), s.Problem(ctx, "link", err)
}

func (s *Server) backup(ctx context.Context, _ *struct{}) (*Out[firm.BackupState], error) {
	b, err := s.Firm.BackupState(ctx)
	return out(b), s.Problem(ctx, "backup", err)
}

func (s *Server) backUp(ctx context.Context, _ *OnceKey) (*Out[firm.BackupState], error) {
	b, err := s.Firm.BackUp(ctx)
	return out(b), s.Problem(ctx, "backup", err)
}

func (s *Server) lastBackup(ctx context.Context, _ *struct{}) (*huma.StreamResponse, error) {
	f, err := s.Firm.LastBackupFile(ctx)
	if err != nil {
		return nil, s.Problem(ctx, "a backup", err)
	}
	return &huma.StreamResponse{Body: func(c huma.Context) {
		defer f.Close()
		c.SetHeader("Content-Type", "application/zstd")
		c.SetHeader("Content-Disposition", fmt.Sprintf("attachment; filename=%q", filepath.Base(f.Name())))
		if _, err := io.Copy(c.BodyWriter(), f); err != nil && c.Context().Err() == nil {
			s.Estate.Log.Error("sending a backup", "error", err)
		}
	}}, nil
}

func (s *Server) everything(_ context.Context, in *struct {
	Language string `header:"Accept-Language"`
}) (*huma.StreamResponse, error) {
	return &huma.StreamResponse{Body: func(c huma.Context) {
		c.SetHeader("Content-Type", "application/zip")
		c.SetHeader("Content-Disposition", fmt.Sprintf("attachment; filename=%q", "mezzadro-"+s.Estate.Today().String()+".zip"))
		// What breaks off leaves a zip without its end, which no program takes for whole.
		if err := s.Firm.GiveEverything(c.Context(), c.BodyWriter(), s.StyleOf(c.Context(), in.Language)); err != nil && c.Context().Err() == nil {
			s.Estate.Log.Error("giving everything", "error", err)
		}
	}}, nil
}
