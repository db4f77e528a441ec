package api

import (
	"context"
	"net/http"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"time"

	"github.com/alexedwards/scs/v2"
	"github.com/danielgtaylor/huma/v2"

	"mezzadro/house/firm"
	"mezzadro/store"
)

// anyone is what needs no sign-in.
const anyone = ""

// allowed is the least role that an operation asks for, by its id. Each operation stands here: a test goes through all.
var allowed = func() map[string]string {
	out := map[string]string{}
	for role, ids := range map[string]string{
		anyone: `me first-owner sign-in sign-out take-invitation client-page`,

		// Walks, day sheets and ticking off, with what one reads for them.
		firm.RoleCrew: `change-password sign-out-everywhere frame find lookout properties property plants plant story climates species-list species
			species-year signs skills picture season event known-here access plan bloom actives label causes cause call-sheet calls finds guards treatment
			add-find change-find look-for spread-watch year walk start-walk keep-look tell-look decide undo-verdict add-photo remove-photo
			restore-photo add-outcome undo-outcome orders order order-photos add-order-photo remove-order-photo restore-order-photo tick-order
			rounds sheet sheet-pdf route-geojson route-gpx calendar crews people mixes firm products uses propose-cuts winter
			reckon-cause reckon-damage reckon-feeding reckon-freeze reckon-normals reckon-pruning reckon-rounds reckon-season
			reckon-site reckon-treatment reckon-wintering`,

		firm.RolePlanner: `reckon-replacement add-call remove-call change-call restore-call add-crew remove-crew change-crew restore-crew remove-find restore-find keep-treatment
			kinds say-kind add-order drop-order change-order put-order next-year pin-order restore-order add-person remove-person change-person
			restore-person add-plant remove-plant change-plant keep-feeding restore-plant add-product remove-product change-product drop-label
			keep-label restore-product add-lot add-property remove-property change-property set-access keep-cuts labels give-normals set-plan give-plan
			take-plan plan-pdf add-underlay take-spots take-stops keep-planting take-plants give-plants restore-property take-weather give-weather
			read-weather keep-winter letters send-letter propose proposal accept-proposal proposal-progress stop-proposal take-back-proposal
			why-there rounds-season tellings told shopping take-pack give-pack drop-species keep-species move-today uses-csv uses-pdf take-ways
			give-ways client-links add-client-link revoke-client-link`,

		firm.RoleOwner: `everything backup back-up last-backup change-firm accounts add-account change-account remove-account restore-account invite-again end-sessions`,
	} {
		for _, id := range strings.Fields(ids) {
			out[id] = role
		}
	}
	return out
}()

// sessionFor is how long one stays signed in.
const sessionFor = 30 * 24 * time.Hour

// Keys of a session's data.
const (
	sessionAccount = "account"
	sessionEpoch   = "epoch"
)

// newSessions keeps sessions in the record. Their cookie is the browser's alone and goes to no other site.
func newSessions(s *store.Store, secure bool) *scs.SessionManager {
	m := scs.New()
	m.Store = store.Sessions{Store: s}
	m.HashTokenInStore = true
	m.Lifetime = sessionFor
	m.Cookie.Name = "mezzadro"
	m.Cookie.HttpOnly = true
	m.Cookie.SameSite = http.SameSiteLaxMode
	m.Cookie.Secure = secure
	return m
}

// signedIn is who sends a request; false for nobody.
func (s *Server) signedIn(ctx context.Context) (store.Account, bool, error) {
	id := s.sessions.GetInt64(ctx, sessionAccount)
	if id == 0 {
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
		id := c.Operation().OperationID
		need, known := allowed[id]
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
		case guarded && need != anyone:
			refuse(http.StatusUnauthorized, "sign in first: nothing you entered is lost")
			return
		}
		if signed && need != anyone && slices.Index(firm.Roles, who.Role) < slices.Index(firm.Roles, need) {
			refuse(http.StatusForbidden, "this is for "+map[string]string{firm.RolePlanner: "planners and owners", firm.RoleOwner: "owners"}[need]+" alone")
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
