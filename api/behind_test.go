package api_test

import (
	"bytes"
	"context"
	"errors"
	"log/slog"
	"net/http"
	"net/http/httptest"
	"strings"
	"testing"

	. "mezzadro/api"
	"mezzadro/store"
)

// TestWhoAsksBehindAProxy: what a trusted proxy says of who asks counts, what others say does not.
func TestWhoAsksBehindAProxy(t *testing.T) {
	t.Parallel()
	trusted, err := Proxies([]string{"127.0.0.1", "10.0.0.0/8"})
	if err != nil {
		t.Fatal(err)
	}
	if _, err := Proxies([]string{"garden.example"}); err == nil || !strings.Contains(err.Error(), "garden.example") {
		t.Errorf("a name is no address: %v", err)
	}
	for _, c := range []struct{ from, says, want string }{
		{"127.0.0.1:900", "203.0.113.9", "203.0.113.9"},
		{"127.0.0.1:900", "198.51.100.1, 203.0.113.9", "203.0.113.9"}, // the last: what is before it, anybody can write
		{"127.0.0.1:900", "203.0.113.9, 10.1.1.1", "203.0.113.9"},     // through two proxies
		{"127.0.0.1:900", "", "127.0.0.1"},
		{"127.0.0.1:900", "no address", "127.0.0.1"},
		{"203.0.113.9:900", "198.51.100.1", "203.0.113.9"}, // a stranger names somebody else
	} {
		var got string
		h := Behind(http.HandlerFunc(func(_ http.ResponseWriter, r *http.Request) { got = r.RemoteAddr }), trusted)
		r := httptest.NewRequest("GET", "/", nil)
		r.RemoteAddr = c.from
		if c.says != "" {
			r.Header.Set("X-Forwarded-For", c.says)
		}
		h.ServeHTTP(httptest.NewRecorder(), r)
		if !strings.HasPrefix(got, c.want+":") {
			t.Errorf("from %s, for %q: counts as %s, want %s", c.from, c.says, got, c.want)
		}
	}
}

// TestNothingThroughAProxyUnguarded: while nobody has to sign in, what comes through a proxy gets nothing, and makes
// nobody the owner.
func TestNothingThroughAProxyUnguarded(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	for _, header := range []string{"X-Forwarded-For", "Forwarded", "X-Real-IP"} {
		code, _ := h.do("GET", "/properties", nil, header, "203.0.113.9")
		made, _ := h.do("POST", "/me/owner", obj{"login": "eve", "name": "Eve", "password": longWords}, header, "203.0.113.9")
		if code != 403 || made != 403 {
			t.Errorf("%s: read %d, owner %d", header, code, made)
		}
	}
	r := httptest.NewRequest("GET", "/api/v1/properties", nil) // who asks made the first one up, the proxy added the other
	r.Header.Add("X-Forwarded-For", "127.0.0.1")
	r.Header.Add("X-Forwarded-For", "203.0.113.9")
	w := httptest.NewRecorder()
	if h.site.ServeHTTP(w, r); w.Code != 403 {
		t.Errorf("two headers: %d", w.Code)
	}
	if code, b := h.do("GET", "/properties", nil, "X-Forwarded-For", "127.0.0.1"); code != 200 {
		t.Errorf("a proxy on this machine, for this machine: %d %s", code, b)
	}
	staff := h.staff() // entered on the machine itself
	if code, b := staff["owner"].do("GET", "/properties", nil); code != 200 {
		t.Errorf("the owner: %d %s", code, b)
	}
}

// TestCountersOfTheirOwn: who tries clients' links shuts nobody out of signing in; answers are not kept by who stands
// between; and the log tells no link.
func TestCountersOfTheirOwn(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	var log bytes.Buffer
	h.server.Estate.Log = slog.New(slog.NewJSONHandler(&log, nil))
	h.staff()
	last := 0
	for range TriesMost + 5 {
		last, _ = h.do("GET", "/client/a-secret-link", nil)
	}
	if last != http.StatusTooManyRequests {
		t.Errorf("tries of links: %d", last)
	}
	if code, b := h.do("POST", "/me/session", obj{"login": "ilda", "password": longWords}); code >= 300 {
		t.Errorf("signing in after that: %d %s", code, b)
	}
	if strings.Contains(log.String(), "a-secret-link") || !strings.Contains(log.String(), "/client/") {
		t.Error("the log tells a client's link, or nothing")
	}
	r := httptest.NewRequest("GET", "/api/v1/me", nil)
	w := httptest.NewRecorder()
	h.site.ServeHTTP(w, r)
	if w.Header().Get("Cache-Control") != "no-store" {
		t.Errorf("an answer may be kept: %q", w.Header().Get("Cache-Control"))
	}
}

// TestKeptIsNotCalledOff: a write that was kept is never told as called off, also where its asker left meanwhile.
func TestKeptIsNotCalledOff(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	ctx, leave := context.WithCancel(store.Watched(context.Background()))
	if err := h.server.Estate.Store.Write(ctx, func(store.Tx) error { return nil }); err != nil {
		t.Fatal(err)
	}
	leave()
	if err := h.server.Problem(ctx, "job", context.Canceled); err == nil || !strings.Contains(err.Error(), "it was kept") {
		t.Errorf("kept, and told as %v", err)
	}
	gone, leave := context.WithCancel(store.Watched(context.Background()))
	leave()
	err := h.server.Problem(gone, "job", errors.New("broke"))
	if err == nil || !strings.Contains(err.Error(), "called off") {
		t.Errorf("not kept, and told as %v", err)
	}
}
