// Package api is the door of the house: typed operations over HTTP, problem documents, and the front end's files. A
// handler decodes, asks the house and encodes; figures in texts are written out for their reader on the way out, and
// nowhere else.
package api

import (
	"io/fs"
	"log/slog"
	"mime"
	"net/http"
	"reflect"
	"regexp"
	"strings"
	"time"

	"github.com/alexedwards/scs/v2"
	"github.com/danielgtaylor/huma/v2"
	"github.com/danielgtaylor/huma/v2/adapters/humachi"
	"github.com/go-chi/chi/v5"
	"github.com/go-chi/chi/v5/middleware"

	"mezzadro/core/job"
	"mezzadro/house"
)

// Server answers the operations.
type Server struct {
	*house.House
	Files  fs.FS
	Secure bool // it is reached over TLS alone: cookies go no other way

	sessions *scs.SessionManager
}

func init() {
	huma.DefaultArrayNullable = false // ListsNeverNull sees to that
	_ = mime.AddExtensionType(".webmanifest", "application/manifest+json")
}

// Version is what the program answers for itself.
const Version = "0.2.0"

// Handler is the whole site.
func (s *Server) Handler() http.Handler {
	r := chi.NewRouter()
	s.sessions = newSessions(s.Estate.Store, s.Secure)
	r.Use(
		middleware.RequestID,
		s.logged,
		middleware.Recoverer,
		middleware.Compress(
			5,
			"text/html",
			"text/css",
			"text/javascript",
			"application/json",
			"application/wasm",
			"application/problem+json",
			"image/svg+xml",
		),
	)
	r.Use(http.NewCrossOriginProtection().Handler)
	r.Group(func(r chi.Router) {
		r.Use(notKept, slowly(), s.sessions.LoadAndSave, s.written, s.keyed)
		s.Register(r)
	})
	r.Handle("/api/*", http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		w.Header().Set("Content-Type", "application/problem+json")
		w.WriteHeader(http.StatusNotFound)
		_, _ = w.Write([]byte(`{"title":"Not Found","status":404,"detail":"there is no such operation"}`))
	}))
	r.Handle("/*", s.files())
	return r
}

// Register puts all operations on a router and returns their description.
func (s *Server) Register(r chi.Router) huma.API {
	config := huma.DefaultConfig("Mezzadro", Version)
	config.Info.Description = "Care of other people's trees, shrubs and perennials through the year. Figures in " +
		"texts are in the firm's units; all other figures are SI. " +
		"Days are civil days of the property. Writes take an Idempotency-Key; records carry a version, and a " +
		"write on a stale one gets 409 with the kept record."
	config.DocsPath, config.SchemasPath, config.CreateHooks = "", "", nil
	config.OpenAPIPath = "/api/v1/openapi"
	config.Components.Schemas = huma.NewMapRegistry("#/components/schemas/", schemaName)
	config.Components.Schemas.RegisterTypeAlias(reflect.TypeFor[job.Cost](), reflect.TypeFor[int]())
	config.Servers = []*huma.Server{{URL: "/", Description: "Where the program is served"}}
	config.Components.SecuritySchemes = map[string]*huma.SecurityScheme{sessionScheme: {Type: "apiKey", In: "cookie", Name: sessionCookie,
		Description: "A session, from sign-in. Asked for as soon as somebody has an account."}}
	config.Security = []map[string][]string{{sessionScheme: {}}, {}}
	config.Formats = map[string]huma.Format{"application/json": ListsNeverNull, "json": ListsNeverNull}
	config.Transformers = append(config.Transformers, unpriced)
	api := humachi.New(r, config)
	api.UseMiddleware(s.admit(api))
	s.routes(api)
	shareProblems(api.OpenAPI())
	describe(api.OpenAPI())
	return api
}

// schemaName puts the package before the names of core types, of which several packages have the same.
func schemaName(t reflect.Type, hint string) string {
	for t.Kind() == reflect.Pointer {
		t = t.Elem()
	}
	name := huma.DefaultSchemaNamer(t, hint)
	if pkg, core := strings.CutPrefix(
		t.PkgPath(),
		"mezzadro/core/",
	); core && t.Name() != "" &&
		!strings.HasPrefix(strings.ToLower(name), pkg) {
		pkg = pkg[strings.LastIndex(pkg, "/")+1:]
		return strings.ToUpper(pkg[:1]) + pkg[1:] + name
	}
	return name
}

// untold finds in a path what opens a client's page: no log tells it.
var untold = regexp.MustCompile(`(/client/)[^/]+`)

// notKept has nobody between keep what the record answers.
func notKept(next http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		w.Header().Set("Cache-Control", "no-store")
		next.ServeHTTP(w, r)
	})
}

// logged writes one line a request.
func (s *Server) logged(next http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		ww, begun := middleware.NewWrapResponseWriter(w, r.ProtoMajor), time.Now()
		next.ServeHTTP(ww, r)
		level := slog.LevelDebug
		if ww.Status() >= 500 {
			level = slog.LevelError
		} else if strings.HasPrefix(r.URL.Path, "/api/") {
			level = slog.LevelInfo
		}
		s.Estate.Log.Log(
			r.Context(),
			level,
			"request",
			"method",
			r.Method,
			"path",
			untold.ReplaceAllString(r.URL.Path, "$1…"),
			"status",
			ww.Status(),
			"bytes",
			ww.BytesWritten(),
			"ms",
			float64(time.Since(begun).Microseconds())/1000,
			"id",
			middleware.GetReqID(r.Context()),
		)
	})
}

// files serves the front end: named files for good, the page itself fresh each time.
func (s *Server) files() http.Handler {
	fileServer := http.FileServerFS(s.Files)
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		w.Header().
			Set("Content-Security-Policy", "default-src 'self'; script-src 'self' 'wasm-unsafe-eval'; img-src 'self' data: blob:; style-src 'self' "+
				"'unsafe-inline'; frame-ancestors 'none'")
		w.Header().Set("X-Content-Type-Options", "nosniff")
		if r.URL.Path != "/" && strings.HasSuffix(r.URL.Path, "/") {
			http.NotFound(w, r) // no folder is listed
			return
		}
		if strings.HasPrefix(r.URL.Path, "/assets/") {
			w.Header().Set("Cache-Control", "public, max-age=31536000, immutable")
		} else {
			w.Header().Set("Cache-Control", "no-cache")
		}
		fileServer.ServeHTTP(w, r)
	})
}
