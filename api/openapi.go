package api

import (
	"bytes"
	"encoding/json"

	"github.com/go-chi/chi/v5"
)

// Describe is the OpenAPI description of all operations, indented, as kept in openapi.json.
func Describe() ([]byte, error) {
	b, err := (&Server{}).Register(chi.NewRouter()).OpenAPI().MarshalJSON()
	if err != nil {
		return nil, err
	}
	var out bytes.Buffer
	if err := json.Indent(&out, b, "", "  "); err != nil {
		return nil, err
	}
	out.WriteByte('\n')
	return out.Bytes(), nil
}
