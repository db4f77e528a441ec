package damage

import (
	"fmt"
	"math"

	"gonum.org/v1/gonum/mathext"

	"mezzadro/core/check"
)

// Rest is what a sample says of the rest of a group.
type Rest struct {
	Of     int    `json:"of" doc:"Plants kept as one"`
	Looked int    `json:"looked"`
	Alike  int    `json:"alike" doc:"Of those looked at, like the one that was checked"`
	Low    int    `json:"low" doc:"Of the rest, likely so: at least, four times in five"`
	High   int    `json:"high"`
	Text   string `json:"text"`
}

// rest joins the samples taken of a group. What the rest is like follows a Beta(½, ½) belief about the share that is
// alike, spread over those nobody looked at.
func rest(q Question) *Rest {
	out := Rest{Of: q.Plant.Count}
	for _, c := range q.Checks {
		if c.Kind == check.Sample {
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
	sum, low := 0.0, -1
	for k := 0; k <= left; k++ {
		n, m := float64(left), float64(k)
		sum += math.Exp(-math.Log(n+1) - mathext.Lbeta(n-m+1, m+1) + mathext.Lbeta(a+m, b+n-m) - mathext.Lbeta(a, b))
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
	out.Text = fmt.Sprintf(
		"%d of %d looked at are like the one checked: of the other %d, probably %s.",
		out.Alike,
		out.Looked,
		left,
		between,
	)
	return &out
}
