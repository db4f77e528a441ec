//go:build !js

package catalogue

import "embed"

// The book of species ships with the house.
//
//go:embed data
var data embed.FS
