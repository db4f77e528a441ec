package exchange

import (
	"fmt"
	"strings"

	"rsc.io/qr"
)

// Scan is a code that a telephone's camera reads, as a drawing of squares.
type Scan struct {
	Size int    `json:"size" doc:"Squares along a side, without the white that has to be left around"`
	Path string `json:"path" doc:"The dark squares as an SVG path, a unit each"`
}

// ScanOf is the code of a text.
func ScanOf(text string) (Scan, error) {
	code, err := qr.Encode(text, qr.M)
	if err != nil {
		return Scan{}, fmt.Errorf("code of a text of %d letters: %w", len(text), err)
	}
	var path strings.Builder
	for y := range code.Size {
		for x := 0; x < code.Size; x++ {
			from := x
			for x < code.Size && code.Black(x, y) {
				x++
			}
			if x > from {
				fmt.Fprintf(&path, "M%d %dh%dv1h-%dz", from, y, x-from, x-from)
			}
		}
	}
	return Scan{code.Size, path.String()}, nil
}
