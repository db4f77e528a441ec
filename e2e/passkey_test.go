package e2e

import (
	"strings"
	"testing"

	"github.com/chromedp/cdproto/webauthn"
	"github.com/chromedp/chromedp"
)

// TestPasskey: a device whose key is kept signs in by its finger, and no more once its key was taken out. The device is
// one that the browser plays.
func TestPasskey(t *testing.T) {
	t.Parallel()
	s := start(t, "serve", owned(t), "--today", "2027-03-18")
	s.url = strings.Replace(s.url, "127.0.0.1", "localhost", 1) // passkeys belong to a name
	b := open(t, s, 1280, 800)
	b.expect("401 ")
	if _, err := chromedp.Call(b.ctx, webauthn.Enable, webauthn.EnableParams{}); err != nil {
		t.Fatal(err)
	}
	finger := webauthn.VirtualAuthenticatorOptions{Protocol: "ctap2", Transport: "internal", HasResidentKey: true, HasUserVerification: true,
		IsUserVerified: true, AutomaticPresenceSimulation: true}
	if _, err := chromedp.Call(b.ctx, webauthn.AddVirtualAuthenticator, webauthn.AddVirtualAuthenticatorParams{Options: &finger}); err != nil {
		t.Fatal(err)
	}
	b.visit("/#/settings")
	b.fill("Name you sign in by", "ilda")
	b.fill("Password", ownersWords)
	b.press("button", "Sign in")
	b.see("Without a password")
	b.fill("Name of this device", "Ilda’s phone")
	b.press("button", "Add a passkey")
	b.see("Ilda’s phone signs in without a password")
	b.see("not used yet")
	b.press("button", "Sign out")
	b.see("Sign in. What was entered before waits")
	b.press("button", "Sign in with a passkey")
	b.see("last used")
	b.see("Ilda, owner, signed in as ilda.")
	b.press("button", "Take out: Ilda’s phone")
	b.until("it is gone", "!document.body.innerText.includes('last used')")
	b.press("button", "Sign out")
	b.see("Sign in. What was entered before waits")
	b.expect("409 ")
	b.press("button", "Sign in with a passkey")
	b.see("this passkey is not known here")
}
