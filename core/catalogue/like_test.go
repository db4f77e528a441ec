package catalogue

import (
	"testing"

	"mezzadro/core/invalid"
)

// TestNewKinds: a kind in five fields stands by what was told of it; the rest is its like's and said to be a guess. What zones
// mean is by the scale: the cold end of zone 7 is 0 °F.
func TestNewKinds(t *testing.T) {
	book := Built()
	for _, c := range []struct {
		in             NewKind
		id             string
		woodC, atLeast float64 // roots bear at least so much
		drops          bool
	}{
		{NewKind{"Silky stewartia", "Stewartia malacodendron", Tree, Deciduous, "7a", "camellia-japonica"}, "stewartia-malacodendron", -17.8, -12, true},
		{NewKind{"Wall germander", "Teucrium × lucidrys", Subshrub, Evergreen, "5", "lavandula-angustifolia"}, "teucrium-lucidrys", -28.9, -20, false},
		{NewKind{"Pride of Madeira", "", Shrub, Evergreen, "9b", "lavandula-angustifolia"}, "pride-of-madeira", -3.9, -15, false},
		{NewKind{"Bitter orange of the woods", "", Tree, Evergreen, "9", "citrus-limon"}, "bitter-orange-of-the-woods", -6.7, -6, false},
		{NewKind{"Golden larch", "Pseudolarix amabilis", Conifer, Deciduous, "5b", "larix-decidua"}, "pseudolarix-amabilis", -26.1, -25, true},
	} {
		like, err := book.Species(c.in.Like)
		if err != nil {
			t.Fatal(err)
		}
		e, err := c.in.Of(like)
		if err != nil {
			t.Errorf("%s: %v", c.in.Common, err)
			continue
		}
		if e.ID != c.id || e.HardinessC != c.woodC || e.Form != c.in.Form || (e.LeafDrop != nil) != c.drops || e.Like != like.ID {
			t.Errorf("%s: %s bears %.1f °C, %s, falls %v, like %s", c.in.Common, e.ID, e.HardinessC, e.Form, e.LeafDrop, e.Like)
		}
		if e.RootHardinessC < c.atLeast || e.RootHardinessC > -2 || (e.HardinessC < like.HardinessC) != (e.RootHardinessC < like.RootHardinessC) {
			t.Errorf("%s: its roots bear %.1f °C, its like's %.1f", c.in.Common, e.RootHardinessC, like.RootHardinessC)
		}
		if e.Basis["hardiness_c"] != Usual || e.Basis["leaf_out"] != Guess || len(e.Also) > 0 {
			t.Errorf("%s rests on %v, also %v", c.in.Common, e.Basis, e.Also)
		}
		if last := e.Cautions[len(e.Cautions)-1]; last.Kind != "poisonous" || e.Poisonous == "no" || e.PetDanger == "none" || e.Edible != "" || len(e.Cautions) != len(like.Cautions)+1 {
			t.Errorf("%s: nobody looked up what it does to people: %+v, eaten %q", c.in.Common, e.Cautions, e.Edible)
		}
		if was, _ := book.Species(c.in.Like); was.Common != like.Common || len(was.Basis) != len(like.Basis) || was.Like != "" {
			t.Errorf("%s has changed its like", c.in.Common)
		}
	}
}

// TestNewKindsThatCannotBe names the field.
func TestNewKindsThatCannotBe(t *testing.T) {
	like, err := Built().Species("camellia-japonica")
	if err != nil {
		t.Fatal(err)
	}
	good := NewKind{"Silky stewartia", "", Tree, Deciduous, "7a", "camellia-japonica"}
	for field, spoil := range map[string]func(n *NewKind){
		"zone":        func(n *NewKind) { n.Zone = "7c" },
		"common":      func(n *NewKind) { n.Common = "  " },
		"form":        func(n *NewKind) { n.Form = "bonsai" },
		"leaf_season": func(n *NewKind) { n.LeafSeason = "sometimes" },
	} {
		n := good
		spoil(&n)
		_, err := n.Of(like)
		named := false
		for _, f := range invalid.Of(err) {
			named = named || f.Path == field
		}
		if !named {
			t.Errorf("%s spoilt: %v", field, err)
		}
	}
	for _, zone := range []string{"", "0", "14", "7aa", "b", "-3", "7 a"} {
		if c, ok := zoneLowC(zone); ok {
			t.Errorf("zone %q: %.1f °C", zone, c)
		}
	}
}
