package exchange

import (
	"bytes"
	"io"
	"net/http"
)

// Local is an HTTP client whose requests are answered by a handler in the same process: the same door, no network.
func Local(h http.Handler) *http.Client { return &http.Client{Transport: local{h}} }

type local struct{ handler http.Handler }

// RoundTrip hands the request to the handler and gathers its answer.
func (l local) RoundTrip(r *http.Request) (*http.Response, error) {
	if r.Body == nil {
		r.Body = http.NoBody
	}
	w := &gathered{header: http.Header{}, status: http.StatusOK}
	l.handler.ServeHTTP(w, r)
	return &http.Response{
		StatusCode:    w.status,
		Status:        http.StatusText(w.status),
		Proto:         "HTTP/1.1",
		ProtoMajor:    1,
		ProtoMinor:    1,
		Header:        w.header,
		Body:          io.NopCloser(&w.body),
		ContentLength: int64(w.body.Len()),
		Request:       r,
	}, nil
}

type gathered struct {
	header http.Header
	status int
	body   bytes.Buffer
}

func (g *gathered) Header() http.Header         { return g.header }
func (g *gathered) WriteHeader(status int)      { g.status = status }
func (g *gathered) Write(b []byte) (int, error) { return g.body.Write(b) }
