package api

import (
	"bytes"
	"cmp"
	"context"
	"crypto/sha256"
	"encoding/hex"
	"io"
	"net/http"
	"slices"
	"strings"

	"golang.org/x/text/language"

	"mezzadro/core/quantity"
	"mezzadro/exchange"
	"mezzadro/store"
)

// monthFirst are the regions whose readers write the month before the day.
var monthFirst = []string{"US", "PH", "FM", "MH", "PW", "GU", "AS", "PR", "VI", "MP"}

// american are the regions that call the trade's things as North America does.
var american = []string{"US", "CA", "PR", "GU", "VI"}

// twelveHours and letterPaper are the regions that tell the hours of a day by twelve, and that print on letter paper.
var (
	twelveHours = strings.Fields("US CA AU NZ IN PK BD PH MY SG HK EG SA AE CO KR")
	letterPaper = strings.Fields("US CA MX PH CL CO VE PR GT CR PA SV NI DO GU VI AS MP")
)

// style is how the reader of a request wants figures: the firm's units, days as in the reader's own region.
func (s *Server) style(r *http.Request) quantity.Style {
	return s.StyleOf(r.Context(), r.Header.Get("Accept-Language"))
}

// StyleOf is how a reader of a region, as an Accept-Language header names it, wants figures and days written.
func (s *Server) StyleOf(ctx context.Context, accept string) quantity.Style {
	firm, region := s.notation(ctx), regionOf(accept)
	out := quantity.Style{Year: s.Estate.Today().Year(), Imperial: firm.Units == "imperial"}
	out.MonthFirst = cmp.Or(firm.DayOrder, first(slices.Contains(monthFirst, region), "month")) == "month"
	out.American = slices.Contains(american, region)
	out.Twelve = cmp.Or(firm.Clock, first(slices.Contains(twelveHours, region), "12")) == "12"
	return out
}

// notation is the firm, by which figures are written; where it cannot be read the reader's region decides.
func (s *Server) notation(ctx context.Context) store.Firm {
	firm, err := s.Estate.Firm(ctx)
	if err != nil {
		s.Estate.Log.ErrorContext(ctx, "how figures are written", "error", err)
	}
	return firm
}

// regionOf is the region of a reader, where the language that is read first names it.
func regionOf(accept string) string {
	tags, _, err := language.ParseAcceptLanguage(accept)
	if err != nil || len(tags) == 0 {
		return ""
	}
	region, sure := tags[0].Region()
	if sure != language.Exact {
		return ""
	}
	return region.String()
}

// first is a word where something holds.
func first(holds bool, word string) string {
	if holds {
		return word
	}
	return ""
}

// paper is what a reader prints on.
func (s *Server) paper(ctx context.Context, accept string) exchange.Paper {
	if cmp.Or(s.notation(ctx).Paper, first(slices.Contains(letterPaper, regionOf(accept)), "letter")) == "letter" {
		return exchange.Letter
	}
	return exchange.A4
}

// written writes out the figures that texts of an answer carry, in the reader's style. It is the one place where that
// is done for what goes out as JSON.
func (s *Server) written(next http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		held := &held{ResponseWriter: w}
		next.ServeHTTP(held, r)
		held.release(func() quantity.Style { return s.style(r) })
	})
}

// held is an answer in JSON that is held back until it is whole; others pass.
type held struct {
	http.ResponseWriter
	status int
	json   bool
	body   bytes.Buffer
}

func (h *held) WriteHeader(status int) {
	if h.status != 0 {
		return
	}
	h.status = status
	kind := h.Header().Get("Content-Type")
	h.json = strings.HasPrefix(kind, "application/json") || strings.HasPrefix(kind, "application/problem+json")
	if !h.json {
		h.ResponseWriter.WriteHeader(status)
	}
}

func (h *held) Write(b []byte) (int, error) {
	if h.status == 0 {
		h.WriteHeader(http.StatusOK)
	}
	if h.json {
		return h.body.Write(b)
	}
	return h.ResponseWriter.Write(b)
}

// Unwrap lets what is streamed be flushed.
func (h *held) Unwrap() http.ResponseWriter { return h.ResponseWriter }

func (h *held) release(style func() quantity.Style) {
	if !h.json {
		return
	}
	h.Header().Add("Vary", "Accept-Language")
	h.ResponseWriter.WriteHeader(h.status)
	_, _ = h.ResponseWriter.Write(style().Bytes(h.body.Bytes()))
}

type keyInContext struct{}

// keyHeader is the header by which a repeated write is known.
const keyHeader = "Idempotency-Key"

// keyed binds a write's idempotency key to what is sent under it: method, path, query and body. Nothing is read of what
// somebody sends who is not let in.
func (s *Server) keyed(next http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		key := r.Header.Get(keyHeader)
		if key == "" || s.outside(r.Context()) || r.Method == http.MethodGet || r.Method == http.MethodHead {
			next.ServeHTTP(w, r)
			return
		}
		body, err := io.ReadAll(io.LimitReader(r.Body, exchange.MaxPhotoBytes+1<<20))
		if err != nil {
			next.ServeHTTP(w, r) // the operation meets the same fault and says so
			return
		}
		r.Body = io.NopCloser(bytes.NewReader(body))
		sum := sha256.New()
		for _, part := range []string{r.Method, r.URL.Path, r.URL.RawQuery, string(body)} {
			sum.Write([]byte(part))
			sum.Write([]byte{0})
		}
		k := store.Key{Key: key, Hash: hex.EncodeToString(sum.Sum(nil))}
		next.ServeHTTP(w, r.WithContext(context.WithValue(r.Context(), keyInContext{}, k)))
	})
}

// keyOf is the key of the write under way; the zero key without one.
func keyOf(ctx context.Context) store.Key {
	k, _ := ctx.Value(keyInContext{}).(store.Key)
	return k
}
