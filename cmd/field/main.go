//go:build js && wasm

// Command field is what the page takes along: it names causes, judges plants and counts crowns on the device, by the same rules as the
// house, where the house cannot be reached. Built for the browser by the Makefile.
package main

import (
	"encoding/json"
	"syscall/js"
	_ "time/tzdata" // a browser has no zones to read

	"mezzadro/core/invalid"
	"mezzadro/core/quantity"
)

func main() {
	answers("mezzadroCauses", name)
	answers("mezzadroTake", take)
	answers("mezzadroJudge", judge)
	answers("mezzadroLay", lay)
	answers("mezzadroCount", count)
	select {} // stays to be asked
}

// refused are the fields of a question that cannot be.
type refused struct {
	Refused invalid.Fields `json:"refused,omitempty"`
}

// fields keeps what was refused as part of the answer; any other error stays one.
func (r *refused) fields(err error) error {
	bad, ok := err.(invalid.Fields)
	if ok {
		r.Refused, err = bad, nil
	}
	return err
}

// answers is a function of the page that takes a question and gives an answer, both as JSON, or an Error. What the page
// says beside the question is how its reader wants figures written.
func answers[Q, A any](name string, f func(Q) (A, error)) {
	js.Global().Set(name, js.FuncOf(func(_ js.Value, args []js.Value) any {
		text, err := answered([]byte(args[0].String()), []byte(args[1].String()), f)
		if err != nil {
			return js.Global().Get("Error").New(err.Error())
		}
		return string(text)
	}))
}

func answered[Q, A any](question, reader []byte, f func(Q) (A, error)) ([]byte, error) {
	var q Q
	if err := json.Unmarshal(question, &q); err != nil {
		return nil, err
	}
	var style quantity.Style
	if err := json.Unmarshal(reader, &style); err != nil {
		return nil, err
	}
	a, err := f(q)
	if err != nil {
		return nil, err
	}
	text, err := json.Marshal(a)
	return style.Bytes(text), err
}
