package catalogue

import (
	"math"
	"slices"
	"strconv"
	"strings"

	"mezzadro/core/invalid"
	"mezzadro/core/season"
)

// NewKind is a kind that is not in the book, in five fields. All else is taken from a kind that it is like.
type NewKind struct {
	Common     string     `json:"common" maxLength:"200" doc:"What it is called"`
	Botanical  string     `json:"botanical,omitempty" maxLength:"200" doc:"Its botanical name; the common one when absent"`
	Form       Form       `json:"form" enum:"tree,conifer,shrub,subshrub,climber,palm,perennial"`
	LeafSeason LeafSeason `json:"leaf_season" enum:"evergreen,semi-evergreen,deciduous,dies back in winter"`
	Zone       string     `json:"zone" example:"7a" maxLength:"4" doc:"The coldest hardiness zone it stands in, 1 to 13, with a or b for the half"`
	Like       string     `json:"like" maxLength:"100" example:"camellia-japonica" doc:"Id of the kind it is most like"`
}

// zoneLowC is the coldest night of a usual year at the cold end of a hardiness zone, °C: of its colder half where none is named.
func zoneLowC(zone string) (float64, bool) {
	number, half := strings.TrimRight(strings.ToLower(strings.TrimSpace(zone)), "ab"), 0.0
	n, err := strconv.Atoi(number)
	if err != nil || n < 1 || n > 13 || len(strings.TrimSpace(zone))-len(number) > 1 {
		return 0, false
	}
	if strings.HasSuffix(strings.ToLower(strings.TrimSpace(zone)), "b") {
		half = 5
	}
	return math.Round(((-60+10*float64(n-1)+half)-32)/1.8*10) / 10, true
}

// rootsFollow is how much of a difference in hardiness of the wood the roots share: an estimate, roots differ less than wood.
const rootsFollow = 0.5

// tenderRootsC is what the roots of a kind bear whose wood is tender, °C, unless its like's bear less.
const tenderRootsC = -3

// fallCooling is when leaves fall of a kind whose like keeps them.
const fallCooling = 300

// unlookedUp is the caution on a kind of which nobody has told whether it is poisonous.
var unlookedUp = Caution{Kind: "poisonous", Text: "Taken as poisonous until somebody has looked it up: wear gloves, and keep " +
	"children and animals from it."}

// leafDrop is the name of the anchor of falling leaves.
const leafDrop = "leaf_drop"

// Of is the entry of a new kind: a kind it is like but for what was told of it. What it rests on is said to be a guess,
// but for its hardiness. Its error names the fields that cannot be.
func (n NewKind) Of(like Entry) (Entry, error) {
	var bad invalid.Fields
	e := like
	e.Common, e.Botanical = strings.TrimSpace(n.Common), strings.TrimSpace(n.Botanical)
	if e.Botanical == "" {
		e.Botanical = e.Common
	}
	e.ID, e.Also, e.Like = slug(e.Botanical), nil, like.ID
	e.Form, e.LeafSeason = n.Form, n.LeafSeason
	if e.Form != like.Form {
		e.Stems = "" // as its form has it
	}
	switch {
	case e.LeafSeason == Evergreen:
		e.LeafDrop = nil
		if e.Bloom.Start.After == leafDrop {
			bad.Add("like", n.Like, "%s blooms by when its leaves fall, and this one keeps its own: choose another kind", like.Common)
		}
	case e.LeafDrop == nil:
		e.LeafDrop = &season.Anchor{Cooling: fallCooling}
	}
	// That its like harms nobody says nothing of it: it is taken as poisonous until it is looked up, and never as eaten.
	e.Pests, e.Edible = slices.Clone(like.Pests), ""
	e.Cautions = append(slices.Clone(like.Cautions), unlookedUp)
	if e.Poisonous == "no" {
		e.Poisonous = "mild"
	}
	if e.PetDanger == "none" {
		e.PetDanger = "mild"
	}
	e.Basis = map[string]string{}
	for _, f := range basisFields {
		e.Basis[f] = Guess
	}
	low, known := zoneLowC(n.Zone)
	if !known {
		bad.Add("zone", n.Zone, "%q is no hardiness zone: want 1 to 13, with a or b for its half", n.Zone)
	} else {
		e.Basis["hardiness_c"] = Usual
		roots := like.RootHardinessC + rootsFollow*(low-like.HardinessC)
		e.RootHardinessC = math.Max(-25, math.Min(math.Max(like.RootHardinessC, tenderRootsC), roots))
		if like.LeafHardinessC != 0 {
			e.LeafHardinessC = math.Max(-60, math.Min(5, like.LeafHardinessC+low-like.HardinessC))
		}
		e.HardinessC = math.Min(5, low)
	}
	bad = append(bad, invalid.Of(e.Validate())...)
	return e, bad.Err()
}

// slug is a name as an id: small letters, digits and hyphens.
func slug(name string) string {
	words := strings.FieldsFunc(plainName(name), func(r rune) bool { return !('0' <= r && r <= '9' || 'a' <= r && r <= 'z') })
	return strings.Join(words, "-")
}
