package learn

import (
	"cmp"
	"context"
	"slices"
	"strings"
	"sync"

	"mezzadro/core/catalogue"
	"mezzadro/core/cause"
	"mezzadro/core/season"
	"mezzadro/core/treatment"
	"mezzadro/house/estate"
	"mezzadro/store"
)

// ourCauses names what the firm finds often among what can be switched off.
const ourCauses = "causes"

// Which finds count: the newest, and those that somebody was rather sure of.
const (
	causeFinds = 3000
	ratherSure = 0.6
)

// counts are how often the firm finds causes, as last drawn.
type counts struct {
	mu    sync.Mutex
	rev   uint64 // of the record when it was looked at last
	of    string
	finds int
	list  []cause.Often
	used  map[string]float64
}

// Ours is how much oftener the firm finds causes than the book lets expect, where that is beyond chance; empty where it
// is switched off.
func (h *Room) Ours(ctx context.Context) (map[string]float64, error) {
	c, err := h.counted(ctx)
	if err != nil {
		return nil, err
	}
	return c.used, nil
}

// counted draws the counts, once for a state of the finds. What it returns is not changed any more.
func (h *Room) counted(ctx context.Context) (*counts, error) {
	c := &h.causes
	c.mu.Lock()
	defer c.mu.Unlock()
	rev := h.Store.Rev()
	if c.used != nil && c.rev == rev {
		return &counts{finds: c.finds, list: c.list, used: c.used}, nil
	}
	of, err := h.Store.FindsRev(ctx)
	if err != nil {
		return nil, err
	}
	if c.used == nil || c.of != of {
		if err := h.count(ctx); err != nil {
			return nil, err
		}
	}
	c.rev, c.of = rev, of
	return &counts{finds: c.finds, list: c.list, used: c.used}, nil
}

// count counts anew; the lock is held.
func (h *Room) count(ctx context.Context) error {
	rows, err := h.Store.ConfirmedFinds(ctx, ratherSure, causeFinds)
	if err != nil {
		return err
	}
	book, err := h.Book(ctx)
	if err != nil {
		return err
	}
	props, err := h.Store.Properties(ctx, 0, store.All)
	if err != nil {
		return err
	}
	off, err := h.Store.LearntOff(ctx)
	if err != nil {
		return err
	}
	normals := map[int64]*season.Normals{}
	for _, p := range props {
		normals[p.ID] = h.NormalsOf(p)
	}
	kinds := map[string]*catalogue.Entry{}
	list := make([]cause.Confirmed, 0, len(rows))
	for _, r := range rows {
		if _, read := kinds[r.Species]; !read && r.Species != "" {
			e := estate.EntryOf(book, r.Species)
			kinds[r.Species] = &e
		}
		n, on := normals[r.PropertyID], store.DayOf(&r.Day)
		list = append(list, cause.Confirmed{
			Cause:   r.Cause,
			Species: kinds[r.Species],
			Month:   cause.Northern(int(on.Month()), n.Climate.South()),
			Site:    cause.SiteOf(n, on),
		})
	}
	c := &h.causes
	c.finds, c.list, c.used = len(list), cause.Built().Ours(list), map[string]float64{}
	for _, o := range c.list {
		if u := o.Used(); u != 1 && !off[ourCauses] {
			c.used[o.Cause] = u
		}
	}
	return nil
}

// CausesTold is what the firm finds, and what helped, as it is read.
type CausesTold struct {
	On     bool          `json:"on" doc:"What is found oftener than the book lets expect is taken for likelier"`
	Finds  int           `json:"finds" doc:"That were looked at and sure: the newest 3000"`
	Causes []CauseOften  `json:"causes" doc:"Against the book, those farthest from it first; none below thirty finds"`
	Helped []HelpedCause `json:"helped" doc:"What was done and looked at again, by cause: counts, no proof"`
}

// CauseOften is a cause against the book.
type CauseOften struct {
	cause.Often
	Beyond bool `json:"beyond" doc:"Chance does not explain it"`
}

// HelpedCause is what came of what was done about a cause.
type HelpedCause struct {
	Cause string `json:"cause" doc:"Id in the book of causes"`
	Name  string `json:"name"`
	Rung  string `json:"rung" enum:",none,habitat,hands,water,barriers,cutting,soft,strong,replace" doc:"The strongest that was done; empty where nothing was"`
	Gone  int    `json:"gone" doc:"Looks that found nothing of it"`
	Less  int    `json:"less" doc:"Looks that found less than before"`
	Same  int    `json:"same" doc:"Looks that found as much, or more"`
}

// Looks is how often it was looked at again.
func (h HelpedCause) Looks() int { return h.Gone + h.Less + h.Same }

// fewestOften is from how many finds on a cause is shown against the book.
const fewestOften = 3

// CausesTold tells it, whether it is used or not.
func (h *Room) CausesTold(ctx context.Context) (CausesTold, error) {
	out := CausesTold{Causes: []CauseOften{}, Helped: []HelpedCause{}}
	off, err := h.Store.LearntOff(ctx)
	if err != nil {
		return out, err
	}
	c, err := h.counted(ctx)
	if err != nil {
		return out, err
	}
	out.On, out.Finds = !off[ourCauses], c.finds
	for _, o := range c.list {
		if o.Found >= fewestOften || o.Beyond() {
			out.Causes = append(out.Causes, CauseOften{o, o.Beyond()})
		}
	}
	rows, err := h.Store.HelpedFinds(ctx)
	out.Helped = helpedOf(rows)
	return out, err
}

// helpedOf counts looks by cause and by the strongest that was done.
func helpedOf(rows []store.HelpedFind) []HelpedCause {
	out := []HelpedCause{}
	for _, r := range rows {
		rung := treatment.Strongest(strings.Split(r.Rungs.String, ","))
		i := slices.IndexFunc(out, func(o HelpedCause) bool { return o.Cause == r.Cause && o.Rung == rung })
		if i < 0 {
			i = len(out)
			out = append(out, HelpedCause{Cause: r.Cause, Name: cause.NameOf(r.Cause), Rung: rung})
		}
		switch r.Helped {
		case "gone":
			out[i].Gone++
		case "less":
			out[i].Less++
		case "same":
			out[i].Same++
		}
	}
	looks := map[string]int{}
	for _, o := range out {
		looks[o.Cause] += o.Looks()
	}
	slices.SortStableFunc(out, func(a, b HelpedCause) int {
		return cmp.Or(-cmp.Compare(looks[a.Cause], looks[b.Cause]), cmp.Compare(a.Name, b.Name), -cmp.Compare(a.Looks(), b.Looks()))
	})
	return out
}

// SetCauses has what the firm finds be used, or not.
func (h *Room) SetCauses(ctx context.Context, key store.Key, on bool) (CausesTold, error) {
	_, err := store.Once(ctx, h.Store, key, func(tx store.Tx) (struct{}, error) {
		return struct{}{}, tx.SetLearntOff(ctx, ourCauses, !on)
	})
	if err != nil {
		return CausesTold{}, err
	}
	return h.CausesTold(ctx)
}
