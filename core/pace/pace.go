// Package pace is how long work takes a firm against what is reckoned: by kind of work, crew and size of the job,
// drawn from the minutes that were noted. The logarithm of took against reckoned is taken as a sum of parts, each
// drawn towards nothing where little is known (a normal linear model with known priors, Gelman et al. 2013), so that
// few jobs say little.
package pace

import (
	"cmp"
	"math"
	"slices"

	"gonum.org/v1/gonum/mat"
)

// Done is a job that was done, with minutes as they were reckoned and as they were noted.
type Done struct {
	Kind     string
	Crew     string
	Reckoned float64
	Took     float64
}

// Where jobs are short and long, minutes reckoned.
const (
	Short = 30
	Long  = 120
)

// What is taken for granted before anything is known: standard deviations of logarithms.
const (
	firmSD   = 0.25 // of the firm as a whole
	kindSD   = 0.2  // of a kind of work from the firm
	crewSD   = 0.15 // of a crew from the others
	sizeSD   = 0.15 // of short, usual and long jobs
	jobSD    = 0.35 // of a job from what it should take
	jobKnown = 10.0 // jobs that this is worth
	farthest = 1.4  // took four times as long, or a fourth: beyond, it was noted wrong, or is another story
	fewest   = 8    // jobs before anything is said
)

// Factor is how many times as long work takes as is reckoned.
type Factor struct {
	Name   string  `json:"name,omitempty" doc:"Kind of work, crew or size that it is of"`
	Times  float64 `json:"times" doc:"How many times as long as reckoned"`
	Low    float64 `json:"low" doc:"95 % interval: from"`
	High   float64 `json:"high" doc:"Until"`
	Spread float64 `json:"spread" doc:"How far a single job differs from that, a standard deviation as a share"`
	Jobs   int     `json:"jobs" doc:"That it was drawn from"`
}

// Used is the factor as it is reckoned with: 1 as long as what is reckoned may well be right.
func (f Factor) Used() float64 {
	if f.Low > 1 || f.High < 1 {
		return f.Times
	}
	return 1
}

// Pace is what is known of a firm's.
type Pace struct {
	kinds, crews []string
	count        map[string]int // jobs by kind, crew ("crew:…") and size ("size:…")
	jobs         int
	mean         *mat.VecDense
	cov          mat.Symmetric
	sd           float64
}

// Of draws the pace from jobs that were done; those without minutes are left out.
func Of(list []Done) *Pace {
	p := &Pace{count: map[string]int{}, sd: jobSD}
	used := slices.DeleteFunc(slices.Clone(list), func(d Done) bool { return d.Reckoned <= 0 || d.Took <= 0 })
	p.jobs = len(used)
	for _, d := range used {
		for _, name := range []string{"kind:" + d.Kind, "crew:" + d.Crew, "size:" + sizeOf(d.Reckoned)} {
			p.count[name]++
		}
		if !slices.Contains(p.kinds, d.Kind) {
			p.kinds = append(p.kinds, d.Kind)
		}
		if d.Crew != "" && !slices.Contains(p.crews, d.Crew) {
			p.crews = append(p.crews, d.Crew)
		}
	}
	slices.Sort(p.kinds)
	slices.Sort(p.crews)
	if p.Known() {
		for range 4 { // how far jobs differ, and what follows from it, in turn
			if !p.fit(used) {
				p.mean = nil
				return p
			}
		}
	}
	return p
}

// Known reports that there are jobs enough to say anything.
func (p *Pace) Known() bool { return p != nil && p.jobs >= fewest }

// Jobs is how many were looked at.
func (p *Pace) Jobs() int { return p.jobs }

// sizes are those of jobs, by name.
var sizes = []string{"short", "usual", "long"}

func sizeOf(minutes float64) string {
	switch {
	case minutes <= Short:
		return sizes[0]
	case minutes > Long:
		return sizes[2]
	}
	return sizes[1]
}

// width is how many parts the model has: the firm, its kinds, its crews, the sizes.
func (p *Pace) width() int { return 1 + len(p.kinds) + len(p.crews) + len(sizes) }

// parts are the indices of those that a job has; of what is not known there is none.
func (p *Pace) parts(kind, crew string, minutes float64) []int {
	out := []int{0}
	if i := slices.Index(p.kinds, kind); i >= 0 {
		out = append(out, 1+i)
	}
	if i := slices.Index(p.crews, crew); i >= 0 {
		out = append(out, 1+len(p.kinds)+i)
	}
	return append(out, 1+len(p.kinds)+len(p.crews)+slices.Index(sizes, sizeOf(minutes)))
}

// prior is the standard deviation of a part before anything is known.
func (p *Pace) prior(i int) float64 {
	switch {
	case i == 0:
		return firmSD
	case i <= len(p.kinds):
		return kindSD
	case i <= len(p.kinds)+len(p.crews):
		return crewSD
	}
	return sizeSD
}

// fit works out the parts by how far jobs differ, then how far they differ by the parts.
func (p *Pace) fit(list []Done) bool {
	n := p.width()
	precision, right := mat.NewSymDense(n, nil), mat.NewVecDense(n, nil)
	for i := range n {
		precision.SetSym(i, i, 1/(p.prior(i)*p.prior(i)))
	}
	weight := 1 / (p.sd * p.sd)
	for _, d := range list {
		at := p.parts(d.Kind, d.Crew, d.Reckoned)
		y := ratio(d)
		for _, i := range at {
			right.SetVec(i, right.AtVec(i)+weight*y)
			for _, k := range at {
				if k >= i {
					precision.SetSym(i, k, precision.At(i, k)+weight)
				}
			}
		}
	}
	var chol mat.Cholesky
	if !chol.Factorize(precision) {
		return false
	}
	mean, cov := mat.NewVecDense(n, nil), mat.NewSymDense(n, nil)
	if chol.SolveVecTo(mean, right) != nil || chol.InverseTo(cov) != nil {
		return false
	}
	p.mean, p.cov = mean, cov
	squares := jobKnown * jobSD * jobSD
	for _, d := range list {
		m, v := p.at(p.parts(d.Kind, d.Crew, d.Reckoned))
		squares += (ratio(d)-m)*(ratio(d)-m) + v
	}
	p.sd = math.Sqrt(squares / (jobKnown + float64(len(list))))
	return true
}

// ratio is the logarithm of took against reckoned, as far as it is believed.
func ratio(d Done) float64 { return max(-farthest, min(farthest, math.Log(d.Took/d.Reckoned))) }

// at is the sum of some parts and its variance.
func (p *Pace) at(parts []int) (mean, variance float64) {
	for _, i := range parts {
		mean += p.mean.AtVec(i)
		for _, k := range parts {
			variance += p.cov.At(i, k)
		}
	}
	return mean, variance
}

// For is how many times as long a job takes; 1 where too little is known.
func (p *Pace) For(kind, crew string, minutes float64) Factor {
	if p == nil || p.mean == nil {
		return Factor{Times: 1, Low: 1, High: 1, Spread: jobSD}
	}
	parts, doubt := p.parts(kind, crew, minutes), 0.0
	if !slices.Contains(p.kinds, kind) {
		doubt += kindSD * kindSD
	}
	if crew != "" && !slices.Contains(p.crews, crew) {
		doubt += crewSD * crewSD
	}
	f := p.factor(parts, doubt)
	f.Jobs = p.count["kind:"+kind]
	return f
}

// Minutes is how long a job is expected to take that is reckoned at so many: to five minutes where the firm's pace
// differs.
func (p *Pace) Minutes(kind string, reckoned int) int {
	if !p.Known() {
		return reckoned
	}
	times := p.For(kind, "", float64(reckoned)).Used()
	if times == 1 {
		return reckoned
	}
	return max(5, 5*int(math.Round(float64(reckoned)*times/5)))
}

func (p *Pace) factor(parts []int, doubt float64) Factor {
	const z = 1.959964
	m, v := p.at(parts)
	half := z * math.Sqrt(v+doubt)
	return Factor{
		Times:  round(math.Exp(m)),
		Low:    round(math.Exp(m - half)),
		High:   round(math.Exp(m + half)),
		Spread: round(p.sd),
	}
}

func round(x float64) float64 { return math.Round(1000*x) / 1000 }

// Kinds is the pace of each kind of work with the crews that did it, those with the most jobs first.
func (p *Pace) Kinds() []Factor {
	return p.each("kind:", p.kinds, func(i int) []int { return []int{0, 1 + i} })
}

// Crews is the pace of each crew, against the others.
func (p *Pace) Crews() []Factor {
	if p == nil {
		return []Factor{}
	}
	return p.each("crew:", p.crews, func(i int) []int { return []int{1 + len(p.kinds) + i} })
}

// Crew is how many times as long work takes a crew as the firm as a whole; 1 where that is not known beyond doubt.
func (p *Pace) Crew(name string) float64 {
	if i := slices.IndexFunc(p.Crews(), func(f Factor) bool { return f.Name == name }); i >= 0 {
		return p.Crews()[i].Used()
	}
	return 1
}

// Sizes is the pace of short, usual and long jobs, against each other.
func (p *Pace) Sizes() []Factor {
	return p.each("size:", sizes, func(i int) []int { return []int{1 + len(p.kinds) + len(p.crews) + i} })
}

func (p *Pace) each(prefix string, names []string, parts func(i int) []int) []Factor {
	out := []Factor{}
	if p == nil || p.mean == nil {
		return out
	}
	for i, name := range names {
		n := p.count[prefix+name]
		if n == 0 {
			continue
		}
		f := p.factor(parts(i), 0)
		f.Name, f.Jobs = name, n
		out = append(out, f)
	}
	slices.SortStableFunc(out, func(a, b Factor) int { return cmp.Compare(b.Jobs, a.Jobs) })
	return out
}
