package api

import (
	"encoding/json"
	"io"

	"github.com/danielgtaylor/huma/v2"
	jsonv2 "github.com/go-json-experiment/json"
	"github.com/go-json-experiment/json/jsontext"
	jsonv1 "github.com/go-json-experiment/json/v1"
)

// ListsNeverNull writes JSON as encoding/json does, but for lists that nobody made: they are empty, never null.
var ListsNeverNull = huma.Format{
	Marshal: func(w io.Writer, v any) error {
		return jsonv2.MarshalWrite(w, v, jsonv1.DefaultOptionsV1(), jsonv2.FormatNilSliceAsNull(false), jsontext.EscapeForHTML(false))
	},
	Unmarshal: json.Unmarshal,
}
