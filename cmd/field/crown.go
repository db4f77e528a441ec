//go:build js && wasm

package main

import "mezzadro/core/crown"

// outlined is a crown as it was drawn round on a picture.
type outlined struct {
	Outline []crown.Point `json:"outline"`
	Want    int           `json:"want"`
}

// laid are the points to be read in it, or what is wrong with the outline.
type laid struct {
	Points []crown.Point `json:"points"`
	refused
}

func lay(in outlined) (out laid, err error) {
	out.Points, err = crown.Lay(in.Outline, in.Want)
	return out, out.fields(err)
}

// counted is what the points come to.
type counted struct {
	crown.Count
	refused
}

func count(in crown.Asked) (out counted, err error) {
	out.Count, err = crown.Read(in)
	return out, out.fields(err)
}
