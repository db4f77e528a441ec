package cause

import (
	"slices"
	"strings"

	"mezzadro/core/catalogue"
)

// OnKind is how likely a cause is on a plant by its kind, 1 on a host. Without a species nobody knows.
func (c *Cause) OnKind(e *catalogue.Entry) float64 {
	if c.Hosts == nil {
		return c.Any
	}
	if e == nil {
		return max(c.Any, unknownHost)
	}
	if slices.Contains(c.Way.Resists, e.ID) {
		return max(c.Any, resisting)
	}
	listed := c.lists(e)
	switch prone := c.Prone(e); {
	case prone && listed:
		return proneTo
	case prone: // the species' book names troubles more roughly than this one
		return max(c.Any, proneKind)
	case listed:
		return 1
	}
	return c.Any
}

// lists reports a kind among the hosts that are named.
func (c *Cause) lists(e *catalogue.Entry) bool {
	h := c.Hosts
	return slices.Contains(h.Genus, e.Genus()) || slices.Contains(h.Family, e.Family) || slices.Contains(h.Form, string(e.Form)) ||
		h.Leaf == "evergreen" && e.LeafSeason == catalogue.Evergreen || h.Fruit && e.Edible != ""
}

// unknownHost is how likely a cause that keeps to its hosts is on a plant nobody has named.
const unknownHost = 0.3

const (
	resisting = 0.1 // of a host that seldom has it
	proneTo   = 1.5 // of a host that has it again and again
	proneKind = 0.7 // of a kind whose entry names the like, and which is not among the hosts
)

// Prone reports a kind whose entry in the species' book names the trouble.
func (c *Cause) Prone(e *catalogue.Entry) bool {
	return slices.ContainsFunc(e.Pests, func(p string) bool {
		return p == c.ID || strings.TrimSuffix(p, "s") == c.ID || slices.Contains(c.Way.Pests, p)
	})
}
