package damage

import (
	_ "embed"
	"fmt"
	"math"
	"slices"
	"strings"

	"mezzadro/core/written"

	"mezzadro/core/catalogue"
	"mezzadro/core/job"
	"mezzadro/core/pruning"
	"mezzadro/core/quantity"
)

//go:embed data/advice.yaml
var adviceFile []byte

// words are what to do and what not to do.
type words struct {
	Do   []string `yaml:"do"`
	Dont []string `yaml:"dont"`
}

// labour is a kind of work: what it is called, how long it takes, how many do it with what.
type labour struct {
	Title   string   `yaml:"title"`
	Minutes float64  `yaml:"minutes"`
	Each    float64  `yaml:"each"` // minutes more for each metre of height
	Crew    int      `yaml:"crew"`
	Skills  []string `yaml:"skills"`
	Kit     []string `yaml:"kit"`
}

// knowledge is what is known in words, not in rules: advice, dangers, cautions, work.
var knowledge = must(read(adviceFile))

type handbook struct {
	Verdicts map[string]words  `yaml:"verdicts"`
	Cases    map[string]words  `yaml:"cases"`
	Also     map[string]string `yaml:"also"`
	Cautions map[string]string `yaml:"cautions"`
	Work     map[string]labour `yaml:"work"`
}

func must(h handbook, err error) handbook {
	if err != nil {
		panic(err) // it ships with the program, and a test reads it
	}
	return h
}

// read reads the handbook and says what is missing in it.
func read(file []byte) (handbook, error) {
	var h handbook
	if err := written.Read(file, &h); err != nil {
		return h, fmt.Errorf("advice.yaml: %w", err)
	}
	for _, v := range verdicts {
		if w, known := h.Verdicts[v]; !known || len(w.Do) == 0 || len(w.Dont) == 0 {
			return h, fmt.Errorf("advice.yaml: verdicts: %q: want what to do and what not to do", v)
		}
	}
	for name, l := range h.Work {
		if l.Title == "" || l.Minutes <= 0 {
			return h, fmt.Errorf("advice.yaml: work: %q: want a title and minutes above 0", name)
		}
	}
	return h, nil
}

// takes is how long work of a kind takes each who does it, and how many they are: by the handbook, and where a tree is cut
// from a rope or a platform by what such a cut takes.
func (q Question) takes(l labour, k job.Kind, p job.Params, each float64) (minutes, people int) {
	const step = 5 // minutes are rounded up to
	m, n := l.Minutes+l.Each*q.Plant.HeightM*each, max(1, l.Crew)
	if e := &q.Plant.Species; q.Plant.HeightM > aloftM && (k == job.CutBack || k == job.TipBack) && (e.Form == catalogue.Tree || e.Form == catalogue.Conifer) {
		cut, who := pruning.CutMinutes(e, q.Plant.HeightM, max(p.CutM, 0.8*q.Plant.HeightM), q.Plant.Count)
		n = max(n, who)
		m = max(m, cut/float64(n))
	}
	return int(math.Ceil(m/step) * step), n
}

// aloftM is the height from which a tree is cut from a rope or a platform.
const aloftM = 5

// ask makes an order of a kind of work on the plant.
func (q Question) ask(
	work string,
	k job.Kind,
	key string,
	p job.Params,
	why string,
	cautions []string,
	after ...job.Gap,
) job.Order {
	l, known := knowledge.Work[work]
	if !known {
		panic(fmt.Sprintf("advice.yaml: work: %q is missing", work)) // a constant of the code
	}
	name, each := q.Plant.Species.Common, 1.0
	if n := q.Plant.Count; n > 1 {
		name, each = fmt.Sprintf("%s × %d", name, n), float64(n)
	}
	title := strings.NewReplacer("{plant}", name, "{cut}", quantity.Length(p.CutM)).Replace(l.Title)
	minutes, people := q.takes(l, k, p, each)
	return job.Order{
		Key:     key,
		Kind:    k,
		Title:   title,
		Origin:  job.Verdict,
		For:     q.Today,
		Params:  p,
		Minutes: minutes,
		Crew:    people,
		Skills:  append([]string{}, l.Skills...),
		Kit: append(
			[]string{},
			l.Kit...),
		After:    append([]job.Gap{}, after...),
		Reasons:  []string{why},
		Cautions: slices.Clone(cautions),
	}
}
