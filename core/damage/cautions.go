package damage

import (
	"mezzadro/core/catalogue"
)

// inReach is the height up to which a gardener may make safe from the ground.
const inReach = 3.0

// licensed reports danger that a licensed arborist has to see.
func licensed(q Question, danger string) bool {
	return q.Plant.HeightM > inReach || danger == "fungus_at_base" || danger == "roots_lifted"
}

func cautions(q Question, d decision) []catalogue.Caution {
	out := append([]catalogue.Caution{}, q.Plant.Species.Cautions...)
	if d.kind == MakeSafe {
		return append([]catalogue.Caution{warn("falling")}, out...)
	}
	if d.kind == Leave {
		return out
	}
	if h := q.Plant.HeightM; h > 2.5 {
		out = append(out, warn("height"))
	}
	switch d.kind {
	case Lift:
		if q.Plant.PotL > 15 || q.Plant.HeightM > 1 {
			out = append(out, warn("lifting"))
		}
	case CutBack, CutToBase, TipBack, Replace:
		out = append(out, warn("tools"))
	}
	return out
}

func (a *Answer) cautionWords() []string {
	out := make([]string, 0, len(a.Cautions))
	for _, c := range a.Cautions {
		out = append(out, c.Text)
	}
	return out
}

func warn(kind string) catalogue.Caution {
	return catalogue.Caution{Kind: kind, Text: knowledge.Cautions[kind]}
}
