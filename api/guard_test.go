package api_test

import (
	"net/http"
	"net/http/httptest"
	"strings"
	"testing"

	. "mezzadro/api"
)

// TestGuard: what another site tries is refused, and what one's own pages do is not.
func TestGuard(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	site := Guard(h.site, "garden.example")
	for _, c := range []struct {
		name, method, url, host string
		header                  map[string]string
		code                    int
	}{
		{"the machine itself", "GET", "/api/v1/frame", "127.0.0.1:8080", nil, 200},
		{"by name", "GET", "/api/v1/frame", "localhost:8080", nil, 200},
		{"by its IPv6 address", "GET", "/api/v1/frame", "[::1]:8080", nil, 200},
		{"a host that is listed", "GET", "/api/v1/frame", "Garden.example", nil, 200},
		{"a name that another site has pointed here", "GET", "/api/v1/frame", "evil.example:8080", nil, 421},
		{"a name that only begins like one's own", "GET", "/api/v1/frame", "localhost.evil.example", nil, 421},
		{"a form of another site", "POST", "/api/v1/properties", "127.0.0.1:8080", map[string]string{"Sec-Fetch-Site": "cross-site", "Origin": "https://evil.example"}, 403},
		{"an old browser's form of another site", "POST", "/api/v1/properties", "127.0.0.1:8080", map[string]string{"Origin": "https://evil.example"}, 403},
		{"one's own page", "POST", "/api/v1/properties", "127.0.0.1:8080", map[string]string{"Sec-Fetch-Site": "same-origin"}, 200},
		{"a program without a browser", "POST", "/api/v1/properties", "127.0.0.1:8080", nil, 200},
		{"the folder of files", "GET", "/assets/", "127.0.0.1:8080", nil, 404},
		{"a file in it", "GET", "/assets/a.js", "127.0.0.1:8080", nil, 200},
		{"the page", "GET", "/", "127.0.0.1:8080", nil, 200},
		{"a path that is no text", "GET", "/%ff", "127.0.0.1:8080", nil, 404},
	} {
		r := httptest.NewRequest(c.method, c.url, strings.NewReader(`{"name": "Priory", "climate_type": "lake-foothills"}`))
		r.Host = c.host
		r.Header.Set("Content-Type", "application/json")
		for k, v := range c.header {
			r.Header.Set(k, v)
		}
		w := httptest.NewRecorder()
		site.ServeHTTP(w, r)
		if w.Code != c.code {
			t.Errorf("%s: %d, want %d: %.100s", c.name, w.Code, c.code, w.Body)
		}
		head := w.Header()
		if head.Get("X-Content-Type-Options") != "nosniff" || !strings.Contains(head.Get("Content-Security-Policy"), "frame-ancestors 'none'") {
			t.Errorf("%s: headers %v", c.name, http.Header(head))
		}
	}
}
