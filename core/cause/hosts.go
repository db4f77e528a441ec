package cause

import (
	"slices"

	"mezzadro/core/catalogue"
)

// host is how likely a cause is on a plant by its kind, 1 on a host. Without a species nobody knows.
func (c *Cause) host(e *catalogue.Entry) float64 {
	if c.Hosts == nil {
		return c.Any
	}
	if e == nil {
		return max(c.Any, unknownHost)
	}
	h := c.Hosts
	if slices.Contains(c.Way.Resists, e.ID) {
		return max(c.Any, resisting)
	}
	if c.Prone(e) {
		return proneTo
	}
	switch {
	case slices.Contains(h.Genus, e.Genus()), slices.Contains(h.Family, e.Family), slices.Contains(h.Form, string(e.Form)),
		h.Leaf == "evergreen" && e.LeafSeason == catalogue.Evergreen, h.Fruit && e.Edible != "":
		return 1
	}
	return c.Any
}

// unknownHost is how likely a cause that keeps to its hosts is on a plant nobody has named.
const unknownHost = 0.3

const (
	resisting = 0.1 // of a host that seldom has it
	proneTo   = 1.5 // of a kind that has it again and again
)

// Prone reports a kind whose entry in the species' book names the trouble.
func (c *Cause) Prone(e *catalogue.Entry) bool {
	return slices.ContainsFunc(e.Pests, func(p string) bool {
		return p == c.ID || p == c.ID+"s" || slices.Contains(c.Way.Pests, p)
	})
}
