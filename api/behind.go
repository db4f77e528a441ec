package api

import (
	"fmt"
	"net/http"
	"net/netip"
	"slices"
	"strings"
)

// Proxies reads addresses or networks of proxies that stand before the program. Its error names the one that is none.
func Proxies(texts []string) (out []netip.Prefix, err error) {
	for _, t := range texts {
		if p, err := netip.ParsePrefix(t); err == nil {
			out = append(out, p)
			continue
		}
		a, err := netip.ParseAddr(t)
		if err != nil {
			return nil, fmt.Errorf("%q is no address and no network; want one such as 127.0.0.1 or 10.0.0.0/8", t)
		}
		out = append(out, netip.PrefixFrom(a, a.BitLen()))
	}
	return out, nil
}

// forwards are the headers in which proxies tell for whom they ask.
var forwards = []string{"X-Forwarded-For", "X-Real-Ip"}

// forwarded reports that a proxy stands before the program and asks for somebody on another machine. each gives every
// header there is: one that a proxy added counts beside one of the same name that its asker made up.
func forwarded(each func(func(name, value string))) (is bool) {
	each(func(name, value string) {
		if name = http.CanonicalHeaderKey(name); name == "Forwarded" {
			is = true
		} else if slices.Contains(forwards, name) {
			is = is || slices.ContainsFunc(strings.Split(value, ","), elsewhere)
		}
	})
	return is
}

// elsewhere reports an address that is not this machine's, or none.
func elsewhere(hop string) bool {
	a, err := netip.ParseAddr(strings.TrimSpace(hop))
	return err != nil || !a.Unmap().IsLoopback()
}

// Behind has requests of trusted proxies count as those of whom they ask for: the last address in X-Forwarded-For that
// is no trusted proxy's. What others write there is worth nothing.
func Behind(next http.Handler, trusted []netip.Prefix) http.Handler {
	known := func(text string) (netip.Addr, bool) {
		a, err := netip.ParseAddr(strings.TrimSpace(text))
		return a, err == nil && slices.ContainsFunc(trusted, func(p netip.Prefix) bool { return p.Contains(a.Unmap()) })
	}
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		from, err := netip.ParseAddrPort(r.RemoteAddr)
		if err == nil {
			if _, is := known(from.Addr().Unmap().String()); is {
				if r.Header.Get("X-Forwarded-Proto") == "https" {
					w.Header().Set(onlyTLS, yearOfTLS)
				}
				hops := strings.Split(strings.Join(r.Header.Values("X-Forwarded-For"), ","), ",")
				for _, hop := range slices.Backward(hops) {
					a, proxy := known(hop)
					if !a.IsValid() {
						break
					}
					if !proxy {
						r.RemoteAddr = netip.AddrPortFrom(a.Unmap(), 0).String()
						break
					}
				}
			}
		}
		next.ServeHTTP(w, r)
	})
}
