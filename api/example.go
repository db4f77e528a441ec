package api

import (
	"encoding/json"

	"github.com/danielgtaylor/huma/v2"
)

// exemplify puts what one sends to an operation into the description: as it is where the body is a file, else as JSON.
// The contract test sends each of them.
func exemplify(api *huma.OpenAPI, o huma.Operation, example string) {
	item := api.Paths[o.Path]
	for _, op := range []*huma.Operation{item.Put, item.Post} {
		if op == nil || op.OperationID != o.OperationID || op.RequestBody == nil {
			continue
		}
		for kind, content := range op.RequestBody.Content {
			if kind != "application/json" {
				content.Example = example
				continue
			}
			var v any
			if err := json.Unmarshal([]byte(example), &v); err != nil {
				panic(o.OperationID + ": its example: " + err.Error())
			}
			content.Example = v
		}
	}
}
