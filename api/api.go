// Package api is the door of the house: typed operations over HTTP, problem documents, and the front end's files.
package api

import (
	"io/fs"
	"log/slog"
	"mime"
	"net/http"
	"reflect"
	"strings"
	"sync"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/danielgtaylor/huma/v2/adapters/humachi"
	"github.com/danielgtaylor/huma/v2/validation"
	"github.com/go-chi/chi/v5"
	"github.com/go-chi/chi/v5/middleware"

	"mezzadro/core/catalogue"
	"mezzadro/core/day"
	"mezzadro/exchange"
	"mezzadro/store"
)

// Server answers the operations.
type Server struct {
	Store     *store.Store
	Catalogue *catalogue.Catalogue
	Today     func() day.Day // the one clock
	SetToday  func(day.Day)  // moves the sample's day; nil where the day is the clock's
	Home      day.Day        // the day the sample starts at
	Station   *exchange.Station
	Files     fs.FS
	Log       *slog.Logger

	places sync.Map // property id → *place

	triaging sync.Mutex
	triaged  *triaged

	opening sync.Mutex
	opened  *catalogue.Catalogue // the built catalogue with the firm's own entries
	own     map[string]int       // their versions
}

func init() {
	// The words of refusals, for people.
	validation.MsgExpectedRFC3339Date = "want a day of the calendar as YYYY-MM-DD"
	_ = mime.AddExtensionType(".webmanifest", "application/manifest+json")
}

// Version is what the program answers for itself.
const Version = "0.1.0"

// Handler is the whole site.
func (s *Server) Handler() http.Handler {
	r := chi.NewRouter()
	r.Use(middleware.RequestID, s.logged, middleware.Recoverer, middleware.Compress(5, "text/html", "text/css", "text/javascript", "application/json", "application/problem+json", "image/svg+xml"))
	r.Use(http.NewCrossOriginProtection().Handler)
	s.Register(r)
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
	config.DocsPath, config.SchemasPath, config.CreateHooks = "", "", nil
	config.OpenAPIPath = "/api/v1/openapi"
	config.Components.Schemas = huma.NewMapRegistry("#/components/schemas/", schemaName)
	api := humachi.New(r, config)

	huma.Get(api, "/api/v1/frame", s.frame)
	huma.Put(api, "/api/v1/today", s.moveToday)
	huma.Get(api, "/api/v1/species", s.speciesList)
	huma.Get(api, "/api/v1/species.yaml", s.givePack)
	huma.Register(api, huma.Operation{OperationID: "post-species-pack", Method: http.MethodPost, Path: "/api/v1/species",
		Summary: "Take species entries from a YAML pack", MaxBodyBytes: maxCSV}, s.takePack)
	huma.Get(api, "/api/v1/species/{id}", s.species)
	huma.Put(api, "/api/v1/species/{id}", s.keepSpecies)
	huma.Delete(api, "/api/v1/species/{id}", s.dropSpecies)
	huma.Get(api, "/api/v1/species/{id}/year", s.speciesYear)
	huma.Get(api, "/api/v1/climates", s.climates)
	huma.Get(api, "/api/v1/lookout", s.lookout)

	huma.Get(api, "/api/v1/properties", s.properties)
	huma.Post(api, "/api/v1/properties", s.addProperty)
	huma.Get(api, "/api/v1/properties/{id}", s.property)
	huma.Put(api, "/api/v1/properties/{id}", s.changeProperty)
	huma.Delete(api, "/api/v1/properties/{id}", s.removeProperty)
	huma.Post(api, "/api/v1/properties/{id}/restore", s.restoreProperty)
	huma.Get(api, "/api/v1/properties/{id}/season", s.season)
	huma.Get(api, "/api/v1/properties/{id}/event", s.eventChart)
	huma.Get(api, "/api/v1/properties/{id}/weather.csv", s.giveWeather)
	huma.Get(api, "/api/v1/properties/{id}/plants.csv", s.givePlants)
	huma.Register(api, huma.Operation{OperationID: "post-plants-csv", Method: http.MethodPost, Path: "/api/v1/properties/{id}/plants",
		Summary: "Take plants from a CSV file", MaxBodyBytes: maxCSV}, s.takePlants)
	huma.Get(api, "/api/v1/properties/{id}/normals.csv", s.giveNormals)
	huma.Post(api, "/api/v1/properties/{id}/weather/read", s.readWeather)
	huma.Register(api, huma.Operation{OperationID: "post-weather-csv", Method: http.MethodPost, Path: "/api/v1/properties/{id}/weather",
		Summary: "Take hourly weather from a CSV file", MaxBodyBytes: maxCSV}, s.weatherCSV)

	huma.Get(api, "/api/v1/plants", s.plants)
	huma.Post(api, "/api/v1/plants", s.addPlant)
	huma.Get(api, "/api/v1/plants/{id}", s.plant)
	huma.Put(api, "/api/v1/plants/{id}", s.changePlant)
	huma.Delete(api, "/api/v1/plants/{id}", s.removePlant)
	huma.Post(api, "/api/v1/plants/{id}/restore", s.restorePlant)
	huma.Get(api, "/api/v1/plants/{id}/story", s.story)
	huma.Post(api, "/api/v1/plants/{id}/outcomes", s.addOutcome)
	huma.Delete(api, "/api/v1/outcomes/{id}", s.undoOutcome)
	huma.Get(api, "/api/v1/properties/{id}/labels.pdf", s.labels)

	huma.Post(api, "/api/v1/reckon/season", s.reckonSeason)
	huma.Register(api, huma.Operation{OperationID: "post-reckon-freeze", Method: http.MethodPost, Path: "/api/v1/reckon/freeze",
		Summary: "What weather did to plants, from inline values", MaxBodyBytes: maxCSV}, s.reckonFreeze)
	huma.Register(api, huma.Operation{OperationID: "post-reckon-normals", Method: http.MethodPost, Path: "/api/v1/reckon/normals",
		Summary: "Read monthly normals from a CSV file, without storing them", MaxBodyBytes: 1 << 16}, s.reckonNormals)
	huma.Post(api, "/api/v1/reckon/damage", s.reckonDamage)
	huma.Post(api, "/api/v1/walks", s.startWalk)
	huma.Get(api, "/api/v1/walks/{id}", s.walk)
	huma.Put(api, "/api/v1/walks/{id}/plants/{plant}/checks", s.keepLook)
	huma.Get(api, "/api/v1/walks/{id}/plants/{plant}/verdict", s.tellLook)
	huma.Post(api, "/api/v1/walks/{id}/plants/{plant}/verdict", s.decide)
	huma.Register(api, huma.Operation{OperationID: "post-photo", Method: http.MethodPost, Path: "/api/v1/walks/{id}/plants/{plant}/photos",
		Summary: "Keep a picture taken at a plant", MaxBodyBytes: -1}, s.addPhoto)
	huma.Get(api, "/api/v1/pictures/{hash}", s.picture)
	huma.Delete(api, "/api/v1/photos/{id}", s.removePhoto)
	huma.Post(api, "/api/v1/photos/{id}/restore", s.restorePhoto)
	huma.Delete(api, "/api/v1/verdicts/{id}", s.undoVerdict)

	huma.Get(api, "/api/v1/year", s.year)
	huma.Get(api, "/api/v1/jobs/{id}", s.job)
	huma.Put(api, "/api/v1/jobs/{id}/day", s.putJob)
	huma.Get(api, "/api/v1/rounds", s.rounds)
	huma.Get(api, "/api/v1/rounds.ics", s.calendar)
	return api
}

// schemaName puts the package before the names of core types, of which several packages have the same.
func schemaName(t reflect.Type, hint string) string {
	for t.Kind() == reflect.Pointer {
		t = t.Elem()
	}
	name := huma.DefaultSchemaNamer(t, hint)
	if pkg, core := strings.CutPrefix(t.PkgPath(), "mezzadro/core/"); core && t.Name() != "" && !strings.HasPrefix(strings.ToLower(name), pkg) {
		return strings.ToUpper(pkg[:1]) + pkg[1:] + name
	}
	return name
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
		s.Log.Log(r.Context(), level, "request", "method", r.Method, "path", r.URL.Path, "status", ww.Status(),
			"bytes", ww.BytesWritten(), "ms", float64(time.Since(begun).Microseconds())/1000, "id", middleware.GetReqID(r.Context()))
	})
}

// files serves the front end: named files for good, the page itself fresh each time.
func (s *Server) files() http.Handler {
	fileServer := http.FileServerFS(s.Files)
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		w.Header().Set("Content-Security-Policy", "default-src 'self'; img-src 'self' data: blob:; style-src 'self' 'unsafe-inline'")
		w.Header().Set("X-Content-Type-Options", "nosniff")
		if strings.HasPrefix(r.URL.Path, "/assets/") {
			w.Header().Set("Cache-Control", "public, max-age=31536000, immutable")
		} else {
			w.Header().Set("Cache-Control", "no-cache")
		}
		fileServer.ServeHTTP(w, r)
	})
}
