package firm

import (
	"bytes"
	"context"
	"encoding/binary"
	"encoding/json"
	"fmt"
	"strings"
	"sync"
	"time"

	"github.com/go-webauthn/webauthn/protocol"
	"github.com/go-webauthn/webauthn/webauthn"

	"mezzadro/core/invalid"
	"mezzadro/house/estate"
	"mezzadro/store"
)

// Passkey is a device's key by which one signs in without a password.
type Passkey struct {
	ID   int64  `json:"id"`
	Name string `json:"name" doc:"Of the device, as its owner calls it"`
	Made string `json:"made" format:"date" doc:"Since when"`
	Used string `json:"used,omitempty" doc:"Day of the last sign-in by it"`
}

// Ceremony is what a browser needs to make or use a passkey.
type Ceremony struct {
	ID      string          `json:"id" doc:"Sent back with the answer, within five minutes"`
	Options json.RawMessage `json:"options" doc:"For the browser, as WebAuthn has them"`
}

// PasskeyIn is a browser's answer.
type PasskeyIn struct {
	Ceremony string          `json:"ceremony" maxLength:"100" doc:"The id that was given with the options"`
	Name     string          `json:"name,omitempty" maxLength:"80" doc:"Of the device, for a new one"`
	Response json.RawMessage `json:"response" doc:"What the browser gave, as WebAuthn has it"`
}

// Of ceremonies.
const (
	ceremonyFor   = 5 * time.Minute
	ceremonyMost  = 1024 // at once; beyond them the oldest are over
	passkeysEach  = 20   // of an account
	passkeyWanted = "this passkey is not known here, or took too long: sign in by password, and add it again"
)

// ceremonies are those begun and not ended, on this machine alone: they outlive no restart.
type ceremonies struct {
	mu   sync.Mutex
	open map[string]webauthn.SessionData
}

func (c *ceremonies) begin(s webauthn.SessionData) string {
	c.mu.Lock()
	defer c.mu.Unlock()
	now := time.Now()
	oldest := ""
	for id, o := range c.open {
		if now.After(o.Expires) {
			delete(c.open, id)
		} else if oldest == "" || o.Expires.Before(c.open[oldest].Expires) {
			oldest = id
		}
	}
	if len(c.open) >= ceremonyMost {
		delete(c.open, oldest)
	}
	if c.open == nil {
		c.open = map[string]webauthn.SessionData{}
	}
	s.Expires = now.Add(ceremonyFor)
	id, _ := estate.NewToken()
	c.open[id] = s
	return id
}

// end gives what was begun, once.
func (c *ceremonies) end(id string) (webauthn.SessionData, bool) {
	c.mu.Lock()
	defer c.mu.Unlock()
	s, there := c.open[id]
	delete(c.open, id)
	return s, there && time.Now().Before(s.Expires)
}

// Site is by which name a browser reached the program: passkeys belong to that.
type Site struct {
	Host   string // without a port
	Origin string // https://garden.example
}

func (s Site) ceremony() (*webauthn.WebAuthn, error) {
	return webauthn.New(&webauthn.Config{RPID: s.Host, RPDisplayName: "Mezzadro", RPOrigins: []string{s.Origin}})
}

// holder is an account with its passkeys, as the library takes it.
type holder struct {
	store.Account
	keys []webauthn.Credential
}

func (h holder) WebAuthnID() []byte                         { return binary.BigEndian.AppendUint64(nil, uint64(h.ID)) }
func (h holder) WebAuthnName() string                       { return h.Login }
func (h holder) WebAuthnDisplayName() string                { return h.Name }
func (h holder) WebAuthnCredentials() []webauthn.Credential { return h.keys }

func (h *Room) holder(ctx context.Context, account int64) (holder, error) {
	a, err := h.Store.Account(ctx, account)
	if err != nil {
		return holder{}, err
	}
	list, err := h.Store.Passkeys(ctx, account)
	if err != nil {
		return holder{}, err
	}
	out := holder{Account: a}
	for _, p := range list {
		var k webauthn.Credential
		if err := json.Unmarshal([]byte(p.Data), &k); err != nil {
			return out, fmt.Errorf("passkey %d: %w", p.ID, err)
		}
		out.keys = append(out.keys, k)
	}
	return out, nil
}

// Passkeys are those of an account.
func (h *Room) Passkeys(ctx context.Context, account int64) ([]Passkey, error) {
	list, err := h.Store.Passkeys(ctx, account)
	return estate.TellAll(list, func(p store.Passkey) Passkey { return Passkey{p.ID, p.Name, p.Made, p.Used} }), err
}

// BeginPasskey begins to make one for an account.
func (h *Room) BeginPasskey(ctx context.Context, site Site, account int64) (Ceremony, error) {
	who, err := h.holder(ctx, account)
	if err != nil {
		return Ceremony{}, err
	}
	if len(who.keys) >= passkeysEach {
		return Ceremony{}, store.Refused("you have as many passkeys as are kept: take one out first")
	}
	w, err := site.ceremony()
	if err != nil {
		return Ceremony{}, store.Refused("passkeys need the program to be reached by a name over TLS: " + err.Error())
	}
	var not []protocol.CredentialDescriptor
	for _, k := range who.keys {
		not = append(not, k.Descriptor())
	}
	options, session, err := w.BeginRegistration(who, webauthn.WithExclusions(not),
		webauthn.WithAuthenticatorSelection(protocol.AuthenticatorSelection{
			ResidentKey:        protocol.ResidentKeyRequirementRequired,
			RequireResidentKey: protocol.ResidentKeyRequired(),
			UserVerification:   protocol.VerificationRequired, // it stands in a password's place
		}))
	if err != nil {
		return Ceremony{}, err
	}
	return h.told(options.Response, session)
}

func (h *Room) told(options any, session *webauthn.SessionData) (Ceremony, error) {
	b, err := json.Marshal(options)
	return Ceremony{h.ceremonies.begin(*session), b}, err
}

// AddPasskey ends it, and keeps the key.
func (h *Room) AddPasskey(ctx context.Context, site Site, account int64, in PasskeyIn) ([]Passkey, error) {
	name := strings.TrimSpace(in.Name)
	if name == "" {
		return nil, invalid.One("name", in.Name, "is missing: such as My phone")
	}
	session, there := h.ceremonies.end(in.Ceremony)
	w, err := site.ceremony()
	if err != nil || !there {
		return nil, store.Refused(passkeyWanted)
	}
	who, err := h.holder(ctx, account)
	if err != nil {
		return nil, err
	}
	answer, err := protocol.ParseCredentialCreationResponseBytes(in.Response)
	if err != nil {
		return nil, invalid.One("response", nil, "is no answer of a browser: "+err.Error())
	}
	key, err := w.CreateCredential(who, session, answer)
	if err != nil {
		return nil, store.Refused(passkeyWanted)
	}
	data, err := json.Marshal(key)
	if err != nil {
		return nil, err
	}
	err = h.Store.Write(ctx, func(tx store.Tx) error {
		return tx.AddPasskey(ctx, store.Passkey{
			AccountID: account, KeyID: key.ID, Data: string(data), Name: name, Made: time.Now().Format(time.DateOnly),
		})
	})
	if err != nil {
		return nil, err
	}
	return h.Passkeys(ctx, account)
}

// RemovePasskey ends one of an account's.
func (h *Room) RemovePasskey(ctx context.Context, account, id int64) error {
	return h.Store.Write(ctx, func(tx store.Tx) error { return tx.RemovePasskey(ctx, account, id) })
}

// BeginPasskeySignIn begins to sign in by one; whose it is the device says.
func (h *Room) BeginPasskeySignIn(site Site) (Ceremony, error) {
	w, err := site.ceremony()
	if err != nil {
		return Ceremony{}, store.Refused("passkeys need the program to be reached by a name over TLS: " + err.Error())
	}
	options, session, err := w.BeginDiscoverableLogin(webauthn.WithUserVerification(protocol.VerificationRequired))
	if err != nil {
		return Ceremony{}, err
	}
	return h.told(options.Response, session)
}

// PasskeySignIn ends it, and says who it is.
func (h *Room) PasskeySignIn(ctx context.Context, site Site, in PasskeyIn) (store.Account, error) {
	session, there := h.ceremonies.end(in.Ceremony)
	w, err := site.ceremony()
	if err != nil || !there {
		return store.Account{}, store.Refused(passkeyWanted)
	}
	answer, err := protocol.ParseCredentialRequestResponseBytes(in.Response)
	if err != nil {
		return store.Account{}, invalid.One("response", nil, "is no answer of a browser: "+err.Error())
	}
	user, key, err := w.ValidatePasskeyLogin(func(_, handle []byte) (webauthn.User, error) {
		if len(handle) != 8 {
			return nil, store.ErrNotFound
		}
		return h.holder(ctx, int64(binary.BigEndian.Uint64(handle)))
	}, session, answer)
	if err != nil {
		h.Log.WarnContext(ctx, "a passkey was refused", "error", err)
		return store.Account{}, store.Refused(passkeyWanted)
	}
	who, known := user.(holder)
	if !known || key.Authenticator.CloneWarning {
		return store.Account{}, store.Refused(passkeyWanted)
	}
	data, err := json.Marshal(key)
	if err != nil {
		return store.Account{}, err
	}
	err = h.Store.WriteQuietly(ctx, func(tx store.Tx) error {
		return tx.UsedPasskey(ctx, bytes.Clone(key.ID), string(data), time.Now())
	})
	return who.Account, err
}
