package catalogue

import "embed"

// On a device the kind is told with the question: the book of species stays in the house.
var data embed.FS
