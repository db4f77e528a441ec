package api

import (
	_ "embed"
	"encoding/json"
	"net/http"
	"strconv"
	"strings"

	"github.com/danielgtaylor/huma/v2"
)

// typesJSON is what the program's own comments say of its types and their fields, by package and name: made by
// make generate.
//
//go:embed types.json
var typesJSON []byte

// wordsJSON is what fields of one name mean wherever they stand, where no type says more of its own.
//
//go:embed words.json
var wordsJSON []byte

// sharedProblem is the one answer that tells what was wrong.
const sharedProblem = "Problem"

// shareProblems has all operations point at one problem response instead of saying it each.
func shareProblems(o *huma.OpenAPI) {
	if o.Components.Responses == nil {
		o.Components.Responses = map[string]*huma.Response{}
	}
	for _, path := range o.Paths {
		for _, op := range []*huma.Operation{path.Get, path.Put, path.Post, path.Delete} {
			if op == nil {
				continue
			}
			for code, r := range op.Responses {
				if n, err := strconv.Atoi(code); err != nil || n < http.StatusBadRequest || r.Content["application/problem+json"] == nil {
					continue
				}
				if o.Components.Responses[sharedProblem] == nil {
					o.Components.Responses[sharedProblem] = &huma.Response{
						Description: "A problem document (RFC 9457): what was wrong, and with which field. 400 unreadable, 401 sign in, 403 not " +
							"allowed, 404 not there, 409 changed meanwhile or refused as things stand, 413 too large, 422 a field is wrong, 500 a fault of the program.",
						Content: r.Content,
					}
				}
				op.Responses[code] = &huma.Response{Ref: "#/components/responses/" + sharedProblem}
			}
		}
	}
}

// describe says of every schema and field what it means: by its own tag, by the comment where it is declared, or by what
// fields of its name mean everywhere. A test holds that none is left out.
func describe(o *huma.OpenAPI) {
	types, words := map[string]string{}, map[string]string{}
	for _, from := range []struct {
		text []byte
		into *map[string]string
	}{{typesJSON, &types}, {wordsJSON, &words}} {
		if err := json.Unmarshal(from.text, from.into); err != nil {
			panic("api: descriptions: " + err.Error()) // files of the program
		}
	}
	schemas := o.Components.Schemas.Map()
	for name, s := range schemas {
		if t := o.Components.Schemas.TypeFromRef(refPrefix + name); t != nil && s.Description == "" {
			s.Description = types[t.PkgPath()+"."+t.Name()]
		}
		if s.Description == "" {
			s.Description = words["schema "+name]
		}
		if op, sent := strings.CutSuffix(name, "Request"); sent && s.Description == "" {
			s.Description = "What is sent to " + strings.ToLower(op[:1]) + op[1:] + "."
		}
		if of, list := strings.CutPrefix(name, "List"); list && s.Description == "" {
			s.Description = "A page of a list: " + of + "."
		}
		if of, list := strings.CutPrefix(name, "Run"); list && s.Description == "" {
			s.Description = "A whole list: " + of + "."
		}
	}
	for name, s := range schemas {
		t := o.Components.Schemas.TypeFromRef(refPrefix + name)
		for field, p := range s.Properties {
			if p.Description == "" && t != nil {
				p.Description = types[t.PkgPath()+"."+t.Name()+"."+field]
			}
			if p.Description == "" {
				p.Description = words[field]
			}
			if p.Description == "" {
				p.Description = ofWhat(schemas, p)
			}
		}
	}
}

const refPrefix = "#/components/schemas/"

// ofWhat is what the schema that a field points at, alone or as a list, says of itself.
func ofWhat(schemas map[string]*huma.Schema, p *huma.Schema) string {
	ref := p.Ref
	if ref == "" && p.Items != nil {
		ref = p.Items.Ref
	}
	if s := schemas[strings.TrimPrefix(ref, refPrefix)]; s != nil && ref != "" {
		return s.Description
	}
	return ""
}
