package damage

import (
	"mezzadro/core/quantity"

	"fmt"
	"math"
	"slices"

	"gonum.org/v1/gonum/stat"
	"gonum.org/v1/gonum/stat/distuv"
)

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
	Text   string  `json:"text"`
}

// Limits of the comparison.
const (
	fewest      = 3    // fellows under which nothing is compared
	sameAge     = 3    // years of planting apart up to which plants are alike
	beyond      = 0.05 // chance under which a difference is not put down to chance
	growSpread  = 0.30 // the same of a season's growth
	sizeSpread  = 0.15 // least spread of height among plants of a kind and age, as a logarithm: about 15 %
	damSpread   = 0.08 // least spread of the share of crown lost
	muchSmaller = 0.80 // a difference smaller than this is not worth a question
	muchMore    = 0.15
)

// compare tests a plant against its fellows: the chance that one more of them would come out so far below (or hurt so much
// more), by the t distribution of a single new value. Nil where too few can be compared.
func compare(q Question, e *evidence) *Comparison {
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
	out := &Comparison{Others: len(sizes), Own: q.Plant.HeightM, Usual: round(middle(heights), 0.01),
		Chance: round(asFar(math.Log(q.Plant.HeightM), sizes, sizeSpread, -1), 0.001)}
	if out.Chance < beyond && out.Own < muchSmaller*out.Usual {
		out.What = "size"
		out.Text = fmt.Sprintf("At %s it is much smaller than its %d fellows, about %s: by chance that happens once in %.0f.", quantity.Length(out.Own), out.Others, quantity.Length(out.Usual), 1/max(out.Chance, 0.001))
		return out
	}
	own := 0.0 // growth, the last measured
	for _, c := range q.Checks {
		if c.Kind == Growth {
			own = c.Amount
		}
	}
	if len(grown) >= fewest && own > 0 {
		c := round(asFar(math.Log(own), grown, growSpread, -1), 0.001)
		if usual := middle(lengths); c < beyond && own < muchSmaller*usual {
			*out = Comparison{Others: len(grown), What: "vigour", Own: own, Usual: round(usual, 0.01), Chance: c,
				Text: fmt.Sprintf("It grew %s last season, its %d fellows about %s: by chance that happens once in %.0f.", quantity.Length(own), len(grown), quantity.Length(usual), 1/max(c, 0.001))}
			return out
		}
	}
	if own := CrownAbove(q.Plant.Species.Form, e.belief.quantile(0.5)); len(hurts) >= fewest && e.stem {
		c := round(asFar(own, hurts, damSpread, 1), 0.001)
		if usual := middle(hurts); c < beyond && own > usual+muchMore {
			*out = Comparison{Others: len(hurts), What: "damage", Own: round(own, 0.01), Usual: round(usual, 0.01), Chance: c,
				Text: fmt.Sprintf("It lost %.0f %% of its crown, its %d fellows about %.0f %%: by chance that happens once in %.0f.", 100*own, len(hurts), 100*usual, 1/max(c, 0.001))}
			return out
		}
	}
	out.Text = fmt.Sprintf("Like its %d fellows of the kind here.", out.Others)
	return out
}

// asFar is the chance that one more of a few like values lies as far to one side as own does; least is the spread they are
// given at least.
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

// Rest is what a sample says of the rest of a group.
type Rest struct {
	Of     int    `json:"of" doc:"Plants kept as one"`
	Looked int    `json:"looked"`
	Alike  int    `json:"alike" doc:"Of those looked at, like the one that was checked"`
	Low    int    `json:"low" doc:"Of the rest, likely so: at least, four times in five"`
	High   int    `json:"high"`
	Text   string `json:"text"`
}

// rest joins the samples taken of a group. What the rest is like follows a Beta(½, ½) belief about the share that is alike,
// spread over those nobody looked at.
func rest(q Question) *Rest {
	out := Rest{Of: q.Plant.Count}
	for _, c := range q.Checks {
		if c.Kind == Sample {
			out.Looked, out.Alike = out.Looked+c.Held+c.Broke, out.Alike+c.Held
		}
	}
	if out.Looked == 0 {
		return nil
	}
	left := max(0, out.Of-out.Looked)
	if left == 0 {
		out.Text = fmt.Sprintf("All %d were looked at: %d are like the one checked.", out.Of, out.Alike)
		return &out
	}
	// Chance of each count among the rest: beta-binomial.
	a, b := float64(out.Alike)+0.5, float64(out.Looked-out.Alike)+0.5
	lbeta := func(x, y float64) float64 {
		lx, _ := math.Lgamma(x)
		ly, _ := math.Lgamma(y)
		lxy, _ := math.Lgamma(x + y)
		return lx + ly - lxy
	}
	sum, low := 0.0, -1
	for k := 0; k <= left; k++ {
		n, m := float64(left), float64(k)
		sum += math.Exp(-math.Log(n+1) - lbeta(n-m+1, m+1) + lbeta(a+m, b+n-m) - lbeta(a, b))
		if low < 0 && sum > 0.1 {
			low = k
		}
		out.High = k
		if sum >= 0.9 {
			break
		}
	}
	out.Low = low
	between := fmt.Sprintf("%d to %d", out.Low, out.High)
	if out.Low == out.High {
		between = fmt.Sprint(out.Low)
	}
	out.Text = fmt.Sprintf("%d of %d looked at are like the one checked: of the other %d, probably %s.", out.Alike, out.Looked, left, between)
	return &out
}
