package api_test

import (
	"context"
	"fmt"
	"math/rand/v2"
	"regexp"
	"slices"
	"strings"
	"testing"
	"time"

	. "mezzadro/api"
	"mezzadro/core/catalogue"
	"mezzadro/core/damage"
	"mezzadro/core/day"
	"mezzadro/core/job"
	"mezzadro/core/season"
	"mezzadro/core/weather"
	"mezzadro/house/crews"
	"mezzadro/house/cuts"
	"mezzadro/house/days"
	"mezzadro/house/estate"
	"mezzadro/house/garden"
	"mezzadro/house/ledger"
	"mezzadro/house/letters"
	"mezzadro/house/overview"
	"mezzadro/house/walks"
	"mezzadro/house/work"
	"mezzadro/store"
)

// contradiction is something that one answer says and another denies.
type contradiction struct{ rule, what string }

// sweeper reads the API's answers and looks for contradictions.
type sweeper struct {
	h     *opened
	found []contradiction
	seen  map[int64]map[string]bool // by property: plants on which something was found or decided, as clients read them
	read  map[string]int            // how often each rule had something to look at
}

func (s *sweeper) say(rule string, wrong bool, format string, args ...any) {
	s.read[rule]++
	if wrong {
		s.found = append(s.found, contradiction{rule, fmt.Sprintf(format, args...)})
	}
}

// bindable is what takes living wood, feeds or takes out.
var bindable = []job.Kind{job.CutBack, job.TipBack, job.CutToBase, job.Feed, job.Replace, job.Graft}

var badFigure = regexp.MustCompile(`NaN|Inf|[0-9]e[+-]\d|%!|\bnil\b`)

// plant looks at all that is said of one plant.
func (s *sweeper) plant(p estate.PlantOut, held map[int64]work.Order) {
	story := ok[walks.Story](s.h, "GET", fmt.Sprintf("/plants/%d/story", p.ID), nil)
	now, name := story.Now, fmt.Sprintf("plant %d (%s)", p.ID, p.Common)
	b := now.Boundary
	top := p.HeightM
	if n := len(story.Ends); n > 0 {
		top = story.Ends[n-1].TopM
	}
	s.say("life ends within its own interval", b.LowM > b.BestM+1e-9 || b.BestM > b.HighM+1e-9, "%s: %+v", name, b)
	s.say("life ends on the plant", b.HighM > max(top, p.HeightM)+0.011, "%s: %+v of %.2f m", name, b, top)
	s.say("the crown lost is a share", b.CrownLost < 0 || b.CrownLost > 1, "%s: %+v", name, b)
	s.say("alive to the tips means it", strings.Contains(now.Verdict.Sentence, "alive to the tips") && p.Form != "palm" && b.BestM < 0.85*top, "%s: %q, and life ends at %.2f of %.2f m", name, now.Verdict.Sentence, b.BestM, top)
	looked := len(story.Walks) > 0 && len(story.Walks[0].Checks) > 0
	s.say("what was checked is not unchecked", looked && strings.Contains(now.Verdict.Sentence, "Nothing has been checked") && now.Known != "", "%s: %q beside %q", name, now.Verdict.Sentence, now.Known)
	s.say("a cut is on the plant", now.Verdict.CutM > p.HeightM+1e-9, "%s: cut at %.2f of %.2f m", name, now.Verdict.CutM, p.HeightM)
	s.say("a verdict to wait has its day", now.Verdict.Kind == damage.Wait && !now.Verdict.Until.Given(), "%s: %q", name, now.Verdict.Sentence)
	for _, text := range append([]string{now.Verdict.Sentence, now.Known, now.Prognosis.Text}, now.Do...) {
		s.say("figures are figures", badFigure.MatchString(text), "%s: %q", name, text)
	}
	decided := slices.ContainsFunc(story.Walks, func(w walks.StoryWalk) bool { return len(w.Verdicts) > 0 })
	if decided || len(now.Finds) > 0 {
		if s.seen[p.PropertyID] == nil {
			s.seen[p.PropertyID] = map[string]bool{}
		}
		s.seen[p.PropertyID][estate.PlantName(p.Common, p.Label)] = true
	}
	if story.Plant.Verdict != nil {
		v := story.Plant.Verdict
		for _, o := range story.Jobs {
			if o.State != job.Waiting && o.State != job.Placed {
				continue
			}
			own := o.OriginID == v.ID && (o.Origin == job.Verdict || o.Origin == job.AfterCare)
			binds := slices.Contains(bindable, o.Kind) && !own
			waits := v.Decision != "not now" && v.Kind == damage.Wait && v.Until > s.h.server.Estate.Today().String()
			s.say("a verdict to wait binds cuts and feeding", waits && binds && o.Hold == nil, "%s: %q is not held by %q", name, o.Title, v.Sentence)
			if hold := o.Hold; hold != nil && hold.Until.Given() {
				s.say("what is held until a day is not due before it", hold.Anyway == "" && o.From.Given() && o.From < hold.Until, "%s: %q from %s, held until %s", name, o.Title, o.From, hold.Until)
			}
			gone := v.Decision != "not now" && v.Kind == damage.Replace && o.Origin != job.Hand
			s.say("a plant that is replaced is not tended", gone && !own && job.GoesWith(o.State, o.Kind), "%s: %q stands beside %q", name, o.Title, v.Sentence)
		}
	}
	for _, o := range story.Jobs {
		if o.Hold != nil {
			held[o.ID] = o
		}
	}
}

// property looks at what is said of a property's plants by different screens.
func (s *sweeper) property(p garden.PropertyOut, held map[int64]work.Order) {
	for _, c := range ok[cuts.CutsProposed](s.h, "GET", fmt.Sprintf("/properties/%d/cuts", p.ID), nil).Cuts {
		bench := ok[cuts.PruningOut](s.h, "POST", "/reckon/pruning", obj{"plant": c.PlantID, "purpose": c.Purpose})
		s.say("the year of cuts and the bench hold the same", (c.Hold == nil) != (bench.Hold == nil), "%s: %q and %q", c.Plant, c.Why, bench.Text)
		if c.Hold != nil && bench.Hold != nil {
			s.say("and in one wording", c.Hold.Why != bench.Hold.Why, "%q and %q", c.Hold.Why, bench.Hold.Why)
			s.say("a cut is not proposed before the day it waits for", c.Hold.Until.Given() && c.From < c.Hold.Until, "%s: from %s, held until %s", c.Plant, c.From, c.Hold.Until)
		}
	}
	for id, o := range held {
		d := ok[work.OrderDetail](s.h, "GET", fmt.Sprintf("/orders/%d", id), nil)
		s.say("a job says the same everywhere", d.Hold == nil || d.Hold.Why != o.Hold.Why, "%q: %+v and %+v", o.Title, o.Hold, d.Hold)
	}
}

// whole looks at what is said over all properties.
func (s *sweeper) whole(held map[int64]work.Order) {
	look := ok[overview.Lookout](s.h, "GET", "/lookout", nil)
	waits := map[int64]bool{}
	for _, o := range look.Waits {
		waits[o.ID] = true
		s.say("what Lookout flags is held", o.Hold == nil || o.Hold.Anyway != "" || !o.Day.Given(), "%q: %+v", o.Title, o.Hold)
	}
	for _, o := range held {
		s.say("Lookout flags what is held on a day", o.Day.Given() && o.Hold.Anyway == "" && !waits[o.ID] && len(look.Waits) < 60, "%q on %s", o.Title, o.Day)
	}
	for _, g := range look.Groups {
		for _, p := range g.Looks {
			s.say("what is decided is not on the look-list", p.Decided, "%s", p.Common)
		}
	}
	for n := range 14 {
		on := s.h.server.Estate.Today() + day.Day(n)
		for _, v := range ok[days.Sheet](s.h, "GET", "/rounds/sheet?day="+on.String(), nil).Visits {
			for _, j := range v.Jobs {
				want, is := held[j.ID]
				s.say("a crew sheet flags what is held", is && j.State == job.Placed && (j.Hold == nil || j.Hold.Why != want.Hold.Why), "%s: %q", on, j.Title)
			}
		}
	}
}

// told looks at what clients read: pages and letters.
func (s *sweeper) told(held map[int64]work.Order, found map[int64]map[string]bool) {
	ours := regexp.MustCompile(`(?i)fleece ready|settle with|not for the client|look at the gate`)
	for _, p := range ok[List[garden.PropertyOut]](s.h, "GET", "/properties?limit=100", nil).Items {
		link := ok[ledger.ClientLink](s.h, "POST", fmt.Sprintf("/properties/%d/client-links", p.ID), obj{"days": 5})
		page := ok[ledger.ClientPage](s.h, "GET", "/client/"+link.Token, nil)
		for _, f := range page.Found {
			s.say("a client reads of what was found, on the plant it was found on", f.Plant != "" && !found[p.ID][f.Plant], "%s: %q on %q", p.Name, f.What, f.Plant)
			s.say("a client's figures are figures", badFigure.MatchString(f.What) || f.What == "", "%s: %q", p.Name, f.What)
		}
		for _, w := range append(page.Planned, page.Done...) {
			s.say("housekeeping is not the client's", ours.MatchString(w.Title), "%s: %q", p.Name, w.Title)
		}
	}
	for _, l := range ok[Run[letters.Telling]](s.h, "GET", "/rounds/tellings", nil).Items {
		for _, id := range l.Orders {
			o, is := held[id]
			s.say("no letter tells a day of what waits", is && o.Hold.Anyway == "" && l.Day.Given(), "%s on %s: %q", l.Property, l.Day, o.Title)
		}
		s.say("a letter names its day", l.Day.Given() && !strings.Contains(l.Text, fmt.Sprint(l.Day.DayOfMonth())) || badFigure.MatchString(l.Text), "%s: %q", l.Property, l.Text)
	}
}

// proposal looks at rounds that are proposed.
func (s *sweeper) proposal(held map[int64]work.Order) {
	p := s.h.proposed(obj{"days": 14, "seconds": 0.2})
	for _, v := range p.Visits {
		for _, o := range v.Jobs {
			h, is := held[o.ID]
			s.say("rounds leave out what waits", is && h.Hold.Anyway == "", "%s on %s: %q", v.Property, v.Day, o.Title)
		}
	}
}

// randomGarden enters plants of all kinds with random weather behind them, checks, decisions and jobs.
func randomGarden(h *opened, climate string, plants int, r *rand.Rand) {
	h.t.Helper()
	ctx := context.Background()
	property := ok[garden.PropertyOut](h, "POST", "/properties", obj{"name": climate, "climate_type": climate})
	today := h.server.Estate.Today()
	if err := h.server.Estate.Store.Write(ctx, func(tx store.Tx) error {
		_, err := tx.KeepWeather(ctx, property.ID, store.SourceIn{Name: "made up", Rank: store.OfTheRegion}, randomWinter(property.Climate, today, r))
		return err
	}); err != nil {
		h.t.Fatal(err)
	}
	type grown struct {
		id     int64
		kind   catalogue.Entry
		height float64
	}
	book := catalogue.Built().Entries
	all := make([]grown, plants)
	if err := h.server.Estate.Store.Write(ctx, func(tx store.Tx) error {
		for i := range all {
			e := book[r.IntN(len(book))]
			all[i] = grown{kind: e, height: quarter(0.3 + r.Float64()*min(e.Mature.HeightM, 8))}
			p, err := tx.AddPlant(ctx, store.Plant{PropertyID: property.ID, Species: e.ID, HeightM: all[i].height, SpreadM: 1, Count: 1, Value: 1, Shelter: 0.5, Sun: 0.6})
			if err != nil {
				return err
			}
			all[i].id = p.ID
			if err := randomJobs(ctx, tx, p, today, r); err != nil {
				return err
			}
		}
		return nil
	}); err != nil {
		h.t.Fatal(err)
	}
	if err := h.server.Work.RefreshWindows(ctx); err != nil {
		h.t.Fatal(err)
	}
	walk := ok[walks.Walk](h, "POST", "/walks", obj{"property_id": property.ID})
	early := ok[walks.Walk](h, "POST", "/walks", obj{"property_id": property.ID, "day": (today - day.Day(5+r.IntN(40))).String()})
	for _, g := range all {
		for _, w := range []int64{early.ID, walk.ID} {
			if r.IntN(2) == 0 {
				continue
			}
			at := fmt.Sprintf("/walks/%d/plants/%d", w, g.id)
			if code, _ := h.do("PUT", at+"/checks", obj{"checks": randomChecks(g.kind, g.height, r)}); code == 200 && r.IntN(3) > 0 {
				decide := obj{"decision": "accepted"}
				switch r.IntN(6) {
				case 0:
					decide = obj{"decision": "overruled", "kind": "wait until", "note": "I know it"}
				case 1:
					decide = obj{"decision": "not now"}
				}
				h.do("POST", at+"/verdict", decide)
			}
		}
	}
}

// randomJobs asks for some work on a plant, and puts half of it on days.
func randomJobs(ctx context.Context, tx store.Tx, p store.Plant, today day.Day, r *rand.Rand) error {
	for _, kind := range []job.Kind{job.Prune, job.Feed, job.CutToBase, job.Water} {
		if r.IntN(3) > 0 {
			continue
		}
		o := job.Order{Key: "hand", Kind: kind, Title: string(kind), Origin: job.Hand, For: today, Minutes: 20, Crew: 1}
		if kind == job.Prune {
			o.Params.Purpose = "shape"
		}
		id, err := tx.AddOrder(ctx, store.NewOrder{PropertyID: p.PropertyID, Plants: []int64{p.ID}, Order: o})
		if err != nil {
			return err
		}
		if r.IntN(2) == 0 {
			on := (today + day.Day(r.IntN(14))).String()
			if _, err := tx.SetStand(ctx, id, 1, store.Stand{State: job.Placed, Day: &on}); err != nil {
				return err
			}
		}
	}
	return nil
}

func quarter(m float64) float64 { return max(0.3, float64(int(4*m))/4) }

// randomChecks are some of what can be found on a kind.
func randomChecks(e catalogue.Entry, height float64, r *rand.Rand) []obj {
	out := []obj{}
	if e.Form == catalogue.Palm {
		return append(out, obj{"kind": "head", "result": []string{"green", "browned", "collapsed"}[r.IntN(3)]})
	}
	for range 1 + r.IntN(5) {
		x := height * (0.05 + 0.95*r.Float64())
		switch r.IntN(6) {
		case 0:
			n := r.IntN(7)
			out = append(out, obj{"kind": "bud_rub", "height_m": x, "held": n, "broke": 7 - n})
		case 1:
			out = append(out, obj{"kind": "crown", "result": []string{"firm_buds", "firm", "soft"}[r.IntN(3)]})
		case 2:
			out = append(out, obj{"kind": "danger", "result": []string{"none", "hanging_limb"}[r.IntN(2)]})
		case 3:
			out = append(out, obj{"kind": "shoot", "height_m": x})
		default:
			out = append(out, obj{"kind": "scratch", "height_m": x, "result": []string{"green", "brown", "unclear"}[r.IntN(3)]})
		}
	}
	return out
}

// randomWinter is the last months as usual, with warm spells and hard nights.
func randomWinter(c season.Climate, today day.Day, r *rand.Rand) []weather.Hour {
	n, from := c.Daily(), today-200
	daily := make([]season.Weather, today-from)
	for i := range daily {
		d := from + day.Day(i)
		daily[i] = season.Weather{MinC: n.TMin.At(d), MaxC: n.TMax.At(d)}
	}
	for range 3 {
		at, off := r.IntN(len(daily)-5), -16*r.Float64()
		for i := range 4 {
			daily[at+i].MinC, daily[at+i].MaxC = daily[at+i].MinC+off, daily[at+i].MaxC+off
		}
	}
	var out []weather.Hour
	for i, temp := range season.Hourly(c.Latitude, from, daily) {
		out = append(out, weather.Hour{Time: from.Time().Add(time.Duration(i) * time.Hour), TempC: temp, WindMS: 3, RHPct: 75, Sun: 0.3})
	}
	return out
}

// sweep goes over all plants, properties and lists of a record, and says what it found.
func sweep(t *testing.T, h *opened, plants, held int) {
	t.Helper()
	s := &sweeper{h: h, read: map[string]int{}, seen: map[int64]map[string]bool{}}
	waits := map[int64]work.Order{}
	list := ok[List[estate.PlantOut]](h, "GET", "/plants?limit=1000", nil).Items
	for _, p := range list {
		s.plant(p, waits)
	}
	for _, p := range ok[List[garden.PropertyOut]](h, "GET", "/properties?limit=100", nil).Items {
		s.property(p, waits)
	}
	s.whole(waits)
	s.told(waits, s.seen)
	if len(ok[Run[crews.Crew]](h, "GET", "/crews", nil).Items) == 0 {
		h.crewOf("Ilda", "ladder")
	}
	s.proposal(waits)
	if len(list) < plants || len(waits) < held || len(s.read) < 15 {
		t.Errorf("%d plants, %d jobs that wait, %d rules looked at: too little to tell", len(list), len(waits), len(s.read))
	}
	for rule, n := range s.read {
		t.Logf("%6d times: %s", n, rule)
	}
	for i, c := range s.found {
		if i == 20 {
			t.Errorf("and %d more", len(s.found)-i)
			break
		}
		t.Errorf("%s: %s", c.rule, c.what)
	}
}

// TestNothingDeniesAnother: over plants with random weather, checks, verdicts and jobs in five climates, no screen says what
// another denies.
func TestNothingDeniesAnother(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	r := rand.New(rand.NewPCG(28, 1))
	for _, climate := range []string{"lake-foothills", "prairie", "gulf-coast", "hot-desert", "southern-foothills"} {
		randomGarden(h, climate, 100, r)
	}
	sweep(t, h, 500, 20)
}

// TestSampleDeniesNothing: the same over the sample and its story.
func TestSampleDeniesNothing(t *testing.T) {
	t.Parallel()
	sweep(t, sampleHouse(t), 60, 3)
}
