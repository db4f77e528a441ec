package overwinter

import (
	_ "embed"
	"sync"

	"mezzadro/core/written"
)

//go:embed data/kinds.yaml
var kindsYAML []byte

// kindsOf is what is known of single kinds beside their entries, by catalogue id.
type kindsOf struct {
	RootInWater map[string]int    `yaml:"root_in_water"` // weeks
	Forced      map[string]Forced `yaml:"forced"`
}

var book = sync.OnceValue(func() kindsOf {
	var out kindsOf
	if err := written.Read(kindsYAML, &out); err != nil {
		panic("core/overwinter/data/kinds.yaml: " + err.Error())
	}
	return out
})
