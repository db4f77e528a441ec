// Package cause points to what may be wrong: how a plant compares with its fellows of the kind on the property, and
// what the spot it grows in may be doing to it.
package cause

import (
	"fmt"
	"math"
	"slices"

	"gonum.org/v1/gonum/stat"
	"gonum.org/v1/gonum/stat/distuv"

	"mezzadro/core/check"
	"mezzadro/core/quantity"
)

// Question is a plant with what is known of it, of its fellows and of the place.
type Question struct {
	Plant     check.Plant
	Checks    []check.Check
	Fellows   []Fellow
	Around    Around
	CrownLost float64 // share of its own crown that the checks call lost, 0 to 1
	Stem      bool    // the checks tell CrownLost
}

// Fellow is another plant of the same kind on the property.
type Fellow struct {
	Label     string
	HeightM   float64
	Years     int     // since planted; 0 unknown
	CrownLost float64 // found at its last verdict, 0 to 1
	GrowthM   float64 // its longest shoots of the last season, m; 0 not measured
	Judged    bool    // a verdict of the last months tells CrownLost
}

// Comparison is how a plant compares with its kind on the property.
type Comparison struct {
	Others int     `json:"others" doc:"Plants it was compared with"`
	What   string  `json:"what" enum:"size,vigour,damage," doc:"In what it differs beyond chance; empty where it does not"`
	Own    float64 `json:"own" doc:"Its height or growth, m, or the share of its crown that is lost"`
	Usual  float64 `json:"usual" doc:"The same of its fellows: the middle one"`
	Chance float64 `json:"chance" doc:"That a sound plant among these would differ as much, 0 to 1"`
	Ask    bool    `json:"ask" doc:"The difference in size is plain, but may be chance: worth a question"`
	Text   string  `json:"text"`
}

// Limits of the comparison.
const (
	fewest         = 3    // fellows under which nothing is compared
	sameAge        = 3    // years of planting apart up to which plants are alike
	beyond         = 0.05 // chance under which a difference is not put down to chance
	growSpread     = 0.30 // the same of a season's growth
	sizeSpread     = 0.15 // least spread of height among plants of a kind and age, as a logarithm: about 15 %
	damSpread      = 0.08 // least spread of the share of crown lost
	plainlySmaller = 0.70 // from about a third less on a question is worth it, chance or not
	muchSmaller    = 0.80 // a difference smaller than this is not worth a question
	muchMore       = 0.15
)

// Compare tests a plant against its fellows: the chance that one more of them would come out so far below (or hurt so
// much more), by the t distribution of a single new value. Nil where too few can be compared.
func Compare(q Question) *Comparison {
	var sizes, hurts, grown, heights, lengths []float64
	for _, f := range q.Fellows {
		if q.Plant.Years > 0 && f.Years > 0 && max(f.Years-q.Plant.Years, q.Plant.Years-f.Years) > sameAge || !(f.HeightM > 0) {
			continue
		}
		sizes, heights = append(sizes, math.Log(f.HeightM)), append(heights, f.HeightM)
		if f.GrowthM > 0 {
			grown, lengths = append(grown, math.Log(f.GrowthM)), append(lengths, f.GrowthM)
		}
		if f.Judged {
			hurts = append(hurts, f.CrownLost)
		}
	}
	if len(sizes) < fewest {
		return nil
	}
	out := &Comparison{Others: len(sizes), Own: q.Plant.HeightM, Usual: quantity.Round(middle(heights), 0.01),
		Chance: quantity.Round(asFar(math.Log(q.Plant.HeightM), sizes, sizeSpread, -1), 0.001)}
	if out.Chance < beyond && out.Own < muchSmaller*out.Usual {
		out.What = "size"
		out.Text = fmt.Sprintf("At %s it is much smaller than its %d fellows, about %s: by chance that happens "+
			"once in %.0f.", quantity.Length(out.Own), out.Others, quantity.Length(out.Usual), 1/max(out.Chance, 0.001))
		return out
	}
	own := 0.0 // growth, the last measured
	for _, c := range q.Checks {
		if c.Kind == check.Growth {
			own = c.Amount
		}
	}
	if len(grown) >= fewest && own > 0 {
		c := quantity.Round(asFar(math.Log(own), grown, growSpread, -1), 0.001)
		if usual := middle(lengths); c < beyond && own < muchSmaller*usual {
			*out = Comparison{Others: len(grown), What: "vigour", Own: own, Usual: quantity.Round(usual, 0.01), Chance: c,
				Text: fmt.Sprintf("It grew %s last season, its %d fellows about %s: by chance that happens once "+
					"in %.0f.", quantity.Length(own), len(grown), quantity.Length(usual), 1/max(c, 0.001))}
			return out
		}
	}
	if own := q.CrownLost; len(hurts) >= fewest && q.Stem {
		c := quantity.Round(asFar(own, hurts, damSpread, 1), 0.001)
		if usual := middle(hurts); c < beyond && own > usual+muchMore {
			*out = Comparison{Others: len(hurts), What: "damage", Own: quantity.Round(own, 0.01), Usual: quantity.Round(usual, 0.01), Chance: c,
				Text: fmt.Sprintf("It lost %.0f %% of its crown, its %d fellows about %.0f %%: by chance that "+
					"happens once in %.0f.", 100*own, len(hurts), 100*usual, 1/max(c, 0.001))}
			return out
		}
	}
	if out.Own < plainlySmaller*out.Usual {
		out.Ask = true
		out.Text = fmt.Sprintf("At %s against about %s of its %d fellows: was it planted later, or is something "+
			"wrong where it stands?", quantity.Length(out.Own),
			quantity.Length(out.Usual), out.Others)
		return out
	}
	out.Text = fmt.Sprintf("Like its %d fellows of the kind here.", out.Others)
	return out
}

// asFar is the chance that one more of a few like values lies as far to one side as own does; least is the spread
// they are given at least.
func asFar(own float64, others []float64, least, side float64) float64 {
	n := float64(len(others))
	mean, sd := stat.MeanStdDev(others, nil)
	t := side * (own - mean) / (max(sd, least) * math.Sqrt(1+1/n))
	return 1 - distuv.StudentsT{Mu: 0, Sigma: 1, Nu: n - 1}.CDF(t)
}

func middle(v []float64) float64 {
	s := slices.Sorted(slices.Values(v))
	return (s[(len(s)-1)/2] + s[len(s)/2]) / 2
}
