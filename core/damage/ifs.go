package damage

import (
	"fmt"
	"strings"
)

// ifs are what outcomes of a check would lead to: by what follows, the outcomes that it follows from.
type ifs struct {
	then  []string
	after map[string][]string
}

// add notes an outcome, in words, and what follows from it.
func (f *ifs) add(outcome, then string) {
	if f.after == nil {
		f.after = map[string][]string{}
	}
	if f.after[then] == nil {
		f.then = append(f.then, then)
	}
	f.after[then] = append(f.after[then], outcome)
}

// tell is a sentence for each that follows, in a frame with room for the outcomes.
func (f *ifs) tell(frame string) (out []string) {
	for _, then := range f.then {
		out = append(out, fmt.Sprintf(frame+": %s.", strings.Join(f.after[then], " or "), then))
	}
	return out
}
