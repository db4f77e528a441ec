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
	Cuttings    struct {
		Soft     []string `yaml:"soft"`
		Late     []string `yaml:"late"`
		HalfRipe []string `yaml:"half ripe"`
		Wood     []string `yaml:"wood"`
		Foot     []string `yaml:"foot"`
		Layer    []string `yaml:"layer"`
		None     []string `yaml:"none"`
	} `yaml:"cuttings"`
}

var book = sync.OnceValue(func() kindsOf {
	var out kindsOf
	if err := written.Read(kindsYAML, &out); err != nil {
		panic("core/overwinter/data/kinds.yaml: " + err.Error())
	}
	return out
})
