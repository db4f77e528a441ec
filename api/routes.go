package api

import (
	"context"
	"mezzadro/house/firm"
	"net/http"
	"slices"
	"time"

	"github.com/danielgtaylor/huma/v2"
)

// doc is what is said of an operation in the description.
type doc struct {
	id, tag, summary, text string
	problems               []int // statuses of the problems it may answer with, beside 500
	max                    int64 // largest body taken, bytes; 0 for the usual
}

// Problems that operations share.
var (
	reads   = []int{http.StatusUnprocessableEntity}
	asks    = []int{http.StatusBadRequest, http.StatusNotFound, http.StatusUnprocessableEntity} // what has a body and keeps nothing
	readsOf = []int{http.StatusNotFound, http.StatusUnprocessableEntity}
	adds    = []int{http.StatusBadRequest, http.StatusNotFound, http.StatusConflict, http.StatusUnprocessableEntity}
	writes  = []int{http.StatusBadRequest, http.StatusNotFound, http.StatusConflict, http.StatusUnprocessableEntity}
	outside = append(slices.Clone(writes), http.StatusBadGateway) // what asks the weather station
	files   = []int{http.StatusBadRequest, http.StatusNotFound, http.StatusConflict, http.StatusRequestEntityTooLarge, http.StatusUnprocessableEntity}
)

// bodyWithin is how long a body may take to come in. The connection keeps that deadline while the request is worked on and
// calls it off when it passes, so it is as long as the server's own.
const bodyWithin = 5 * time.Minute

// op registers an operation with the least role that it asks for, and what one sends to it as an example. The compiler
// makes one of it for each operation, so what all share stands apart.
func op[I, O any](api huma.API, least role, method, path string, d doc, f func(context.Context, *I) (*O, error), example ...string) {
	o := operation(least, method, path, d)
	huma.Register(api, o, f)
	exemplified(api, o, example)
}

// operation is one as it is described; a role that is none is a fault of the program and keeps it from starting.
func operation(least role, method, path string, d doc) huma.Operation {
	if least != anyone && !slices.Contains(firm.Roles, string(least)) {
		panic(d.id + ": an operation without a role: " + string(least))
	}
	o := huma.Operation{OperationID: d.id, Method: method, Path: "/api/v1" + path, Summary: d.summary, Description: d.text, Tags: []string{d.tag},
		Errors:   append(append([]int{}, d.problems...), http.StatusInternalServerError),
		Metadata: map[string]any{roleKey: least}, BodyReadTimeout: bodyWithin}
	if d.max != 0 {
		o.MaxBodyBytes = d.max
	}
	return o
}

// exemplified says what one sends, where an example is given: one that cannot be read keeps the program from starting.
func exemplified(api huma.API, o huma.Operation, example []string) {
	if len(example) > 0 {
		exemplify(api.OpenAPI(), o, example[0])
	}
}

// routes are all operations, by what they are about.
func (s *Server) routes(api huma.API) {
	s.firmRoutes(api)
	s.groundsRoutes(api)
	s.weatherRoutes(api)
	s.speciesRoutes(api)
	s.walkRoutes(api)
	s.orderRoutes(api)
	s.causeRoutes(api)
	s.cutRoutes(api)
	s.storeRoutes(api)
	s.learnRoutes(api)
	s.standingRoutes(api)
	s.roundRoutes(api)
	s.ledgerRoutes(api)
	s.reportRoutes(api)
	s.mailRoutes(api)
	s.siteRoutes(api)
	s.orderPhotoRoutes(api)
	s.reckonRoutes(api)
	s.accountRoutes(api)
}

const (
	get    = http.MethodGet
	post   = http.MethodPost
	put    = http.MethodPut
	remove = http.MethodDelete
)
