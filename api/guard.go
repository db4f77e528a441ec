package api

import (
	"net"
	"net/http"
	"slices"
	"strings"
	"unicode/utf8"
)

// loopback are the names of this machine to itself.
var loopback = []string{"localhost", "127.0.0.1", "::1"}

// By which a browser is told to come by TLS alone from then on, for a year.
const (
	onlyTLS   = "Strict-Transport-Security"
	yearOfTLS = "max-age=31536000"
)

// Guard stands before all that is served: a request for a host that is not listed is refused, so that no page of
// another site can have its own name point here and read the record; no other site may frame a page or send a form;
// and nothing is taken for another kind than it says. hosts are names without ports, beside those of the machine
// itself.
func Guard(next http.Handler, hosts ...string) http.Handler {
	known := slices.Concat(loopback, hosts)
	own := http.NewCrossOriginProtection().Handler(next)
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		h := w.Header()
		h.Set("X-Content-Type-Options", "nosniff")
		h.Set("X-Frame-Options", "DENY")
		h.Set("Referrer-Policy", "same-origin")
		h.Set("Content-Security-Policy", "default-src 'none'; frame-ancestors 'none'") // pages set their own
		if r.TLS != nil {
			h.Set(onlyTLS, yearOfTLS)
		}
		switch {
		case !slices.ContainsFunc(known, func(k string) bool { return strings.EqualFold(k, hostOf(r.Host)) }):
			http.Error(w, "This host is not listed: start the program with --host "+hostOf(r.Host)+" if it is yours.", http.StatusMisdirectedRequest)
		case !utf8.ValidString(r.URL.Path):
			http.NotFound(w, r)
		default:
			own.ServeHTTP(w, r)
		}
	})
}

// hostOf is a host without its port and brackets.
func hostOf(host string) string {
	if name, _, err := net.SplitHostPort(host); err == nil {
		host = name
	}
	return strings.Trim(host, "[]")
}
