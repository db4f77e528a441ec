package e2e

import (
	"context"
	"crypto/tls"
	"fmt"
	"io"
	"log"
	"net"
	"net/http"
	"net/http/cookiejar"
	"net/http/httptest"
	"net/http/httputil"
	"net/url"
	"os/exec"
	"path/filepath"
	"slices"
	"strings"
	"sync"
	"testing"
	"time"
)

const ownersWords = "four quiet mulberry trees"

// proxied is the program behind a proxy that adds TLS, as the README's small server with one before it.
type proxied struct {
	t     *testing.T
	site  *httptest.Server
	inner *server
}

// owned is the folder of a record with its owner, who was entered by the command.
func owned(t *testing.T) string {
	t.Helper()
	data := filepath.Join(t.TempDir(), "data")
	owner := exec.Command(program, "owner", "--data", data, "--login", "ilda", "--name", "Ilda")
	owner.Stdin = strings.NewReader(ownersWords + "\n")
	if out, err := owner.CombinedOutput(); err != nil {
		t.Fatalf("owner: %v %s", err, out)
	}
	return data
}

// behindProxy enters an owner with the command, and serves the record behind a proxy under a name of its own.
func behindProxy(t *testing.T) *proxied {
	t.Helper()
	data := owned(t)
	inner := start(t, "serve", data, "--today", "2027-03-18", "--host", "garden.example", "--trusted-proxy", "127.0.0.1")
	to, err := url.Parse(inner.url)
	if err != nil {
		t.Fatal(err)
	}
	through := &httputil.ReverseProxy{ErrorLog: log.New(io.Discard, "", 0), Rewrite: func(r *httputil.ProxyRequest) {
		r.SetURL(to)
		r.Out.Host = r.In.Host
		r.SetXForwarded()
	}}
	p := &proxied{t: t, inner: inner, site: httptest.NewUnstartedServer(through)}
	p.site.Listener.Close()
	if p.site.Listener, err = net.Listen("tcp", "0.0.0.0:0"); err != nil {
		t.Fatal(err)
	}
	p.site.StartTLS()
	t.Cleanup(p.site.Close)
	return p
}

// from is a browser at an address of this machine that calls the program by its name.
func (p *proxied) from(address string) *http.Client {
	jar, _ := cookiejar.New(nil) // it never fails
	dial := net.Dialer{LocalAddr: &net.TCPAddr{IP: net.ParseIP(address)}}
	_, port, _ := net.SplitHostPort(p.site.Listener.Addr().String())
	return &http.Client{Jar: jar, Timeout: 30 * time.Second, Transport: &http.Transport{
		TLSClientConfig: &tls.Config{InsecureSkipVerify: true}, // the test's own certificate
		DialContext: func(ctx context.Context, network, _ string) (net.Conn, error) {
			return dial.DialContext(ctx, network, net.JoinHostPort("127.0.0.1", port))
		}}}
}

// ask sends a request by the program's name, and gives its answer.
func (p *proxied) ask(c *http.Client, method, path, body string) (*http.Response, string) {
	p.t.Helper()
	r, err := http.NewRequest(method, "https://garden.example"+path, strings.NewReader(body))
	if err != nil {
		p.t.Fatal(err)
	}
	r.Header.Set("Content-Type", "application/json")
	res, err := c.Do(r)
	if err != nil {
		p.t.Errorf("%s %s: %v", method, path, err)
		return &http.Response{}, ""
	}
	defer res.Body.Close()
	b, err := io.ReadAll(res.Body)
	if err != nil {
		p.t.Errorf("%s %s: %v", method, path, err)
	}
	return res, string(b)
}

// TestBehindAProxy: behind a proxy with TLS the owner signs in by the program's name with a cookie that goes no other
// way; who does not is shown nothing, and no other name is served.
func TestBehindAProxy(t *testing.T) {
	t.Parallel()
	p := behindProxy(t)
	ilda, stranger := p.from("127.0.0.8"), p.from("127.0.0.9")
	if res, b := p.ask(stranger, "GET", "/", ""); res.StatusCode != 200 || !strings.Contains(b, "<html") {
		t.Errorf("the page: %d %.80s", res.StatusCode, b)
	}
	for _, path := range []string{"/api/v1/frame", "/api/v1/properties", "/api/v1/everything.zip"} {
		if res, _ := p.ask(stranger, "GET", path, ""); res.StatusCode != 401 {
			t.Errorf("a stranger at %s: %d", path, res.StatusCode)
		}
	}
	if res, _ := p.ask(stranger, "POST", "/api/v1/me/owner", `{"login": "eve", "name": "Eve", "password": "five loud plane trees"}`); res.StatusCode != 409 {
		t.Errorf("a second owner: %d", res.StatusCode)
	}
	res, b := p.ask(ilda, "POST", "/api/v1/me/session", fmt.Sprintf(`{"login": "ilda", "password": %q}`, ownersWords))
	if res.StatusCode != 200 && res.StatusCode != 204 {
		t.Fatalf("the owner: %d %s", res.StatusCode, b)
	}
	for _, c := range res.Cookies() {
		if !c.Secure || !c.HttpOnly || c.SameSite != http.SameSiteLaxMode {
			t.Errorf("the cookie goes elsewhere: %v", c)
		}
	}
	if res.Header.Get("Strict-Transport-Security") == "" {
		t.Error("the browser is not told to come by TLS alone")
	}
	if res, b := p.ask(ilda, "POST", "/api/v1/properties", `{"name": "Priory", "climate_type": "lake-foothills"}`); res.StatusCode != 200 {
		t.Errorf("the owner's property: %d %s", res.StatusCode, b)
	}
	r, _ := http.NewRequest("GET", p.inner.url+"/api/v1/frame", nil)
	r.Host = "other.example"
	if res, err := http.DefaultClient.Do(r); err != nil || res.StatusCode < 400 {
		t.Errorf("by another name: %v %v", res, err)
	}
}

// TestNobodyShutsOut: while one address holds hundreds of connections and tries a hundred passwords a second, for the
// owner's name too, the owner at another goes on working, unhindered; and is told.
func TestNobodyShutsOut(t *testing.T) {
	t.Parallel()
	p := behindProxy(t)
	ilda, thief := p.from("127.0.0.8"), p.from("127.0.0.9")
	if res, b := p.ask(ilda, "POST", "/api/v1/me/session", fmt.Sprintf(`{"login": "ilda", "password": %q}`, ownersWords)); res.StatusCode >= 300 {
		t.Fatalf("the owner: %d %s", res.StatusCode, b)
	}
	inside := strings.TrimPrefix(p.inner.url, "http://")
	for range 530 { // idle ones, past the proxy
		if c, err := (&net.Dialer{LocalAddr: &net.TCPAddr{IP: net.ParseIP("127.0.0.9")}, Timeout: time.Second}).Dial("tcp", inside); err == nil {
			t.Cleanup(func() { _ = c.Close() })
		}
	}
	ctx, stop := context.WithCancel(context.Background())
	var tries sync.WaitGroup
	codes := make(chan int, 10_000)
	guess := func(n int) {
		r, _ := http.NewRequestWithContext(ctx, "POST", "https://garden.example/api/v1/me/session",
			strings.NewReader(fmt.Sprintf(`{"login": "ilda", "password": "guess %d"}`, n)))
		r.Header.Set("Content-Type", "application/json")
		if res, err := thief.Do(r); err == nil { // else the thief was called away
			res.Body.Close()
			codes <- res.StatusCode
		}
	}
	tick := time.NewTicker(10 * time.Millisecond)
	defer tick.Stop()
	tries.Go(func() {
		for n := 0; ctx.Err() == nil; n++ {
			<-tick.C
			tries.Go(func() { guess(n) })
		}
	})
	var took []time.Duration
	for n := range 300 {
		began := time.Now()
		path, body, method := "/api/v1/frame", "", "GET"
		if n%3 == 0 {
			method, path, body = "POST", "/api/v1/properties", fmt.Sprintf(`{"name": "No. %d", "climate_type": "lake-foothills"}`, n)
		}
		if res, b := p.ask(ilda, method, path, body); res.StatusCode != 200 {
			t.Errorf("the owner's %s %s: %d %.200s", method, path, res.StatusCode, b)
		}
		took = append(took, time.Since(began))
	}
	stop()
	tries.Wait()
	close(codes)
	counts := map[int]int{}
	for c := range codes {
		counts[c]++
	}
	slices.Sort(took)
	t.Logf("the owner's answers: half within %v, 99 of 100 within %v, the slowest within %v; the thief's: %v", took[len(took)/2],
		took[len(took)*99/100-1], took[len(took)-1], counts)
	if slowest := took[len(took)-1]; slowest > 5*time.Second { // she waited for the thief's connections to end
		t.Errorf("the owner waited %v", slowest)
	}
	if counts[429] == 0 || counts[204]+counts[200] > 0 {
		t.Errorf("the thief's answers: %v", counts)
	}
	if _, b := p.ask(ilda, "GET", "/api/v1/accounts/guesses", ""); !strings.Contains(b, `"login":"ilda"`) {
		t.Errorf("the owner is told %s", b)
	}
	if res, b := p.ask(p.from("127.0.0.7"), "POST", "/api/v1/me/session", fmt.Sprintf(`{"login": "ilda", "password": %q}`, ownersWords)); res.StatusCode >= 300 {
		t.Errorf("the owner at another device: %d %s", res.StatusCode, b)
	}
}
