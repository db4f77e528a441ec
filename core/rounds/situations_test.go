package rounds

import (
	"fmt"
	"math"
	"strings"
	"testing"
	"time"

	"mezzadro/core/day"
	"mezzadro/core/quantity"
)

// The firm of the situations: two crews from one yard; a property ten minutes away, one far out, one that is sick, a
// school.
const (
	near = iota
	far_
	sick
	school
)

func yard() *Problem {
	home := &Point{45.90, 8.60}
	p := &Problem{From: monday, Days: 12, Crews: []Crew{
		{Name: "Ilda and Tea", Size: 2, Hours: week(8, 17), Start: home, Skills: []string{"licence"}},
		{Name: "Bruno", Size: 1, Hours: week(8, 17), Start: home, Skills: []string{"climbing"}},
	}, Places: []Place{
		{Name: "Villa", At: &Point{45.91, 8.62}},
		{Name: "Far orchard", At: &Point{46.10, 8.90}},
		{Name: "Sick garden", At: &Point{45.91, 8.63}, Sick: true},
		{Name: "School", At: &Point{45.905, 8.61}, Access: week(15, 19)},
	}}
	return p
}

// costs of twelve days: the same on each.
func flat(c int) (out []int) {
	for range 12 {
		out = append(out, c)
	}
	return out
}

// rising costs more each day, only from and to are forbidden on the days around.
func rising(each int) (out []int) {
	for d := range 12 {
		out = append(out, min(100, d*each))
	}
	return out
}

func only(days ...int) []int {
	out := flat(Forbidden)
	for _, d := range days {
		out[d] = 0
	}
	return out
}

func work(place int, minutes float64, costs []int) Job {
	return Job{Title: "Work", Place: place, Minutes: minutes, Costs: costs, Later: Forbidden}
}

// skies are mild dry days that are told, but for some.
func skies(but map[int]Sky) (out []Sky) {
	for d := range 12 {
		w, other := but[d]
		if !other {
			w = Sky{}
		}
		if w.MinC == 0 && w.MaxC == 0 {
			w.MinC, w.MaxC = 6, 15
		}
		w.Day, w.Told = monday+day.Day(d), true
		out = append(out, w)
	}
	return out
}

// told is what a plan says, for the checks of situations.
type told struct {
	t    *testing.T
	name string
	p    *Problem
	plan Plan
}

// of is the visit a job is in; it fails where there is none.
func (o told) of(j int) Visit {
	for _, v := range o.plan.Visits {
		for _, k := range v.Jobs {
			if k == j {
				return v
			}
		}
	}
	o.t.Errorf("%s: job %d has no day: %+v", o.name, j, o.plan.Left)
	return Visit{Day: -1, Crew: -1}
}

func (o told) must(ok bool, what string) {
	if !ok {
		o.t.Errorf("%s: %s; visits %+v, left %+v", o.name, what, o.plan.Visits, o.plan.Left)
	}
}

// left is why a job has no day.
func (o told) left(j int, says string) {
	for _, l := range o.plan.Left {
		if l.Job == j {
			o.must(
				strings.Contains(l.Why+" "+l.Takes, says),
				fmt.Sprintf("left for %q, want %q", l.Why+" "+l.Takes, says),
			)
			return
		}
	}
	o.must(false, "it has a day")
}

// TestSituations: what those who plan rounds by hand do, each written before it was tried.
func TestSituations(t *testing.T) {
	for _, c := range []struct {
		name  string
		set   func(p *Problem)
		check func(o told)
	}{
		{"rain on the day of the spray", func(p *Problem) { p.Jobs = []Job{work(near, 60, only(0, 3))}; p.Jobs[0].Costs[0] = Forbidden },
			func(o told) { o.must(o.of(0).Day == 3, "it waits for the dry day") }},
		{"seven days between", func(p *Problem) {
			p.Jobs = []Job{work(near, 30, rising(1)), work(near, 30, rising(1))}
			p.Jobs[1].After = []Gap{{Job: 0, Min: 7}}
		}, func(o told) { o.must(o.of(1).Day-o.of(0).Day >= 7, "the gap holds") }},
		{"seven days after what was done last week", func(p *Problem) {
			p.Jobs = []Job{work(near, 30, rising(1))}
			p.Jobs[0].After = []Gap{{Job: -1, Day: -4, Min: 7}}
		}, func(o told) { o.must(o.of(0).Day == 3, "on Thursday") }},
		{"not more than three days after", func(p *Problem) {
			p.Jobs = []Job{work(near, 30, only(0)), work(near, 30, rising(0))}
			p.Jobs[1].After = []Gap{{Job: 0, Min: 2, Max: 3}}
			p.Jobs[1].Costs[2] = 60
		}, func(o told) { o.must(o.of(1).Day == 3, "within the gap, on the better day") }},
		{"a licence that one crew holds", func(p *Problem) {
			p.Jobs = []Job{work(near, 60, flat(0))}
			p.Jobs[0].Skills = []string{"licence"}
		}, func(o told) { o.must(o.of(0).Crew == 0, "with Ilda") }},
		{"nobody grafts", func(p *Problem) {
			p.Jobs = []Job{work(near, 60, flat(0)), work(near, 20, flat(0))}
			p.Jobs[0].Skills = []string{"grafting"}
		}, func(o told) { o.left(0, "Nobody has: grafting"); o.of(1) }},
		{"three people are needed", func(p *Problem) {
			p.Jobs = []Job{work(near, 60, flat(0))}
			p.Jobs[0].People = 3
		}, func(o told) { o.left(0, "needs 3 people") }},
		{"two go where two are needed", func(p *Problem) {
			p.Jobs = []Job{work(near, 60, flat(0))}
			p.Jobs[0].People = 2
		}, func(o told) { o.must(o.of(0).Crew == 0, "with the two") }},
		{"the sick garden comes last", func(p *Problem) {
			p.Crews = p.Crews[:1]
			p.Jobs = []Job{work(sick, 60, only(0)), work(near, 60, only(0)), work(school, 30, only(0))}
			p.Places[school].Access = [7]Span{}
		}, func(o told) {
			o.must(o.of(0).From > o.of(1).From && o.of(0).From > o.of(2).From, "after the clean ones")
		}},
		{"sick plants after sound ones in one garden", func(p *Problem) {
			p.Jobs = []Job{work(near, 30, only(0)), work(near, 30, only(0))}
			p.Jobs[0].Sick = true
		}, func(o told) { v := o.of(0); o.must(len(v.Jobs) == 2 && v.Jobs[1] == 0, "the sick one second") }},
		{"the school in the afternoon", func(p *Problem) { p.Jobs = []Job{work(school, 60, flat(0))} },
			func(o told) { o.must(o.of(0).From >= 15*60, "not in its hours") }},
		{"the hotel not on Saturday", func(p *Problem) {
			p.Crews[0].Hours[6] = Span{480, 960}
			p.Jobs = []Job{work(near, 60, only(5, 7))}
			p.Places[near].Shut = []time.Weekday{time.Saturday}
			p.Jobs[0].Costs[7] = 60
		}, func(o told) { o.must(o.of(0).Day == 7, "on Monday") }},
		{"one visit takes all that is within its window", func(p *Problem) {
			for i := range 4 {
				j := work(far_, 40, flat(30))
				for d := i; d < i+7 && d < 12; d++ {
					j.Costs[d] = 4 * max(d-i, i-d)
				}
				p.Jobs = append(p.Jobs, j)
			}
		}, func(o told) { o.must(len(o.plan.Visits) == 1 && len(o.of(0).Jobs) == 4, "one drive to the orchard") }},
		{"two visits where one day is forbidden to one of them", func(p *Problem) {
			p.Jobs = []Job{work(far_, 40, only(0, 1)), work(far_, 40, only(8, 9))}
		}, func(o told) { o.must(o.of(0).Day <= 1 && o.of(1).Day >= 8, "each in its window") }},
		{"make safe first", func(p *Problem) {
			p.Crews = p.Crews[1:]
			p.Jobs = []Job{work(near, 400, rising(4)), work(far_, 300, rising(4))}
			p.Jobs[1].Urgent = true
		}, func(o told) { o.must(o.of(1).Day == 0 && o.of(0).Day > 0, "the urgent one today") }},
		{"nothing that long fits into a day", func(p *Problem) { p.Jobs = []Job{work(near, 1500, flat(0))} },
			func(o told) { o.left(0, "is full") }},
		{"better later", func(p *Problem) {
			p.Jobs = []Job{work(far_, 60, flat(70))}
			p.Jobs[0].Later = 0
		}, func(o told) { o.left(0, "Later is better") }},
		{"late, but never otherwise", func(p *Problem) { p.Jobs = []Job{work(far_, 60, flat(80))} }, func(o told) { o.of(0) }},
		{"no day is allowed", func(p *Problem) { p.Jobs = []Job{work(near, 60, flat(Forbidden))} }, func(o told) { o.left(0, "Its time passes") }},
		{"a day that was told stays", func(p *Problem) {
			p.Jobs = []Job{work(near, 60, flat(40))}
			p.Jobs[0].Costs[2] = 0
			p.Jobs[0].Was, p.Jobs[0].Told = &Pin{Crew: 0, Day: 7}, true
		}, func(o told) { o.must(o.of(0).Day == 7, "as the client knows it") }},
		{"a day that was told, and rains off", func(p *Problem) {
			p.Jobs = []Job{work(near, 60, only(8, 9))}
			p.Jobs[0].Was, p.Jobs[0].Told = &Pin{Crew: 0, Day: 7}, true
		}, func(o told) { o.must(o.of(0).Day >= 8, "it moves, since it must") }},
		{"what stands moves for much, not for little", func(p *Problem) {
			p.Jobs = []Job{work(near, 60, flat(50)), work(near, 60, flat(8))}
			for j := range p.Jobs {
				p.Jobs[j].Costs[3] = 0
				p.Jobs[j].Was, p.Jobs[j].Skills = &Pin{Crew: j, Day: 7}, []string{[]string{"licence", "climbing"}[j]}
			}
		}, func(o told) { o.must(o.of(0).Day == 3 && o.of(1).Day == 7, "one moves, one stays") }},
		{"a pin stays", func(p *Problem) {
			p.Jobs = []Job{work(near, 60, flat(0))}
			p.Jobs[0].Costs[4], p.Jobs[0].Pin = 90, &Pin{Crew: 1, Day: 4}
		}, func(o told) { v := o.of(0); o.must(v.Day == 4 && v.Crew == 1, "where it is pinned") }},
		{"pinned to a day off", func(p *Problem) {
			p.Jobs = []Job{work(near, 60, flat(0))}
			p.Jobs[0].Pin = &Pin{Crew: 0, Day: 5} // a Saturday
		}, func(o told) { o.left(0, "Ilda and Tea is not at work") }},
		{"of days that are alike the first", func(p *Problem) { p.Jobs = []Job{work(near, 60, flat(0)), work(sick, 60, flat(0))} },
			func(o told) { o.must(o.of(0).Day == 0 && o.of(1).Day == 0, "today") }},
		{"a circle of gaps", func(p *Problem) {
			p.Jobs = []Job{work(near, 30, flat(0)), work(near, 30, flat(0)), work(near, 30, flat(0))}
			p.Jobs[0].After, p.Jobs[1].After = []Gap{{Job: 1, Min: 2}}, []Gap{{Job: 0, Min: 2}}
		}, func(o told) { o.left(0, "circle"); o.left(1, "circle"); o.of(2) }},
		{"a day off", func(p *Problem) {
			p.Crews = p.Crews[:1]
			p.Crews[0].Off = []day.Day{monday}
			p.Jobs = []Job{work(near, 60, only(0, 1))}
		}, func(o told) { o.must(o.of(0).Day == 1, "the day after") }},
		{"nobody cuts where it was sprayed yesterday", func(p *Problem) {
			p.Jobs = []Job{work(near, 30, only(1)), work(near, 30, only(2, 3, 4))}
			p.Jobs[0].Plants, p.Jobs[1].Plants, p.Jobs[0].Closes = []int64{7}, []int64{7, 8}, 2
		}, func(o told) { o.must(o.of(1).Day == 4, "after the label's days") }},
		{"on one day the spray comes last", func(p *Problem) {
			p.Jobs = []Job{work(near, 30, only(1)), work(near, 30, only(1))}
			p.Jobs[0].Plants, p.Jobs[1].Plants, p.Jobs[0].Closes = []int64{7}, []int64{7}, 2
		}, func(o told) { v := o.of(0); o.must(len(v.Jobs) == 2 && v.Jobs[1] == 0, "cut, then spray") }},
		{"first the cut, then the burning of what was cut", func(p *Problem) {
			p.Jobs = []Job{work(near, 30, flat(0)), work(near, 30, flat(0))}
			p.Jobs[0].After = []Gap{{Job: 1}}
		}, func(o told) { v := o.of(0); o.must(v.Day == o.of(1).Day && v.Jobs[0] == 1, "one visit, in order") }},
		{"there is no crew", func(p *Problem) { p.Crews, p.Jobs = nil, []Job{work(near, 30, flat(0))} }, func(o told) { o.left(0, "no crew") }},
		{"a property nobody has put on the map", func(p *Problem) {
			p.Places[near].At = nil
			p.Jobs = []Job{work(near, 30, flat(0)), work(far_, 30, flat(0))}
		}, func(o told) {
			o.of(0)
			o.must(len(o.plan.Notes) == 1 && strings.Contains(o.plan.Notes[0], "Villa"), "it is said")
		}},
		{"two loads are two days", func(p *Problem) {
			p.Crews = p.Crews[:1]
			p.Crews[0].LoadM3 = 3
			p.Jobs = []Job{work(near, 60, rising(1)), work(school, 60, rising(1))}
			p.Places[school].Access = [7]Span{}
			p.Jobs[0].WasteM3, p.Jobs[1].WasteM3 = 3, 3
		}, func(o told) { o.must(o.of(0).Day != o.of(1).Day, "each load by itself") }},
		{"no overtime where tomorrow is as good", func(p *Problem) {
			p.Crews = p.Crews[1:]
			p.Jobs = []Job{work(near, 290, rising(3)), work(sick, 290, rising(3))}
		}, func(o told) { o.must(o.of(0).Day != o.of(1).Day && o.plan.Score.Overtime == 0, "two days") }},
		{"only by daylight", func(p *Problem) {
			p.Crews = p.Crews[1:]
			for range 12 {
				p.Light = append(p.Light, Span{8*60 + 30, 15 * 60})
			}
			p.Jobs = []Job{work(near, 500, flat(0)), work(near, 300, flat(0))}
		}, func(o told) {
			o.left(0, "full")
			v := o.of(1)
			o.must(v.From >= 8*60+30 && v.To <= 15*60, "between sunrise and sunset")
		}},
		{"more hands share the work", func(p *Problem) {
			p.Crews = p.Crews[:1]
			p.Jobs = []Job{work(near, 120, flat(0))}
		}, func(o told) { v := o.of(0); o.must(v.To-v.From == 60, "an hour for two") }},
		{"the way that was timed counts", func(p *Problem) {
			p.Jobs = []Job{work(near, 30, flat(0))}
			p.Ways = []Known{{From: -1, To: near, Minutes: 50}, {From: -2, To: near, Minutes: 45}}
		}, func(o told) { o.must(o.of(0).Crew == 1 && o.of(0).Travel == 45, "45 minutes with Bruno") }},
		{"the shorter round", func(p *Problem) {
			p.Crews = p.Crews[:1]
			p.Places[school].Access, p.Places[sick].Sick = [7]Span{}, false
			p.Jobs = []Job{work(far_, 60, only(0)), work(near, 60, only(0)), work(school, 60, only(0)), work(sick, 60, only(0))}
		}, func(o told) {
			f := o.of(0).From
			o.must(f < o.of(1).From == (f < o.of(2).From) || f > o.of(1).From, "no zigzag")
		}},
		{"a heavy client's day weighs more", func(p *Problem) {
			p.Crews = p.Crews[1:]
			p.Jobs = []Job{work(near, 400, rising(5)), work(sick, 400, rising(5))}
			p.Jobs[1].Weight = 3
		}, func(o told) { o.must(o.of(1).Day < o.of(0).Day, "the weightier first") }},
		{"what two days cost the same for is done where one is anyway", func(p *Problem) {
			p.Jobs = []Job{work(far_, 60, only(4)), work(far_, 60, flat(0))}
		}, func(o told) { o.must(o.of(1).Day == 4, "with the other") }},
		{"a crew without a start", func(p *Problem) {
			p.Crews = p.Crews[:1]
			p.Crews[0].Start = nil
			p.Jobs = []Job{work(near, 60, flat(0))}
		}, func(o told) { o.must(o.of(0).Travel == 0 && len(o.plan.Notes) == 1, "no way, and it is said") }},
		{"rain is told for the day of the spray, and for the day after the next", func(p *Problem) {
			p.Jobs = []Job{work(near, 60, rising(2))}
			p.Jobs[0].Work = Spray
			p.Sky = skies(map[int]Sky{0: {RainMM: 8}, 2: {RainMM: 9}})
		}, func(o told) { o.must(o.of(0).Day == 3, "dry, and dry after") }},
		{"wind keeps from climbing, not from looking", func(p *Problem) {
			p.Jobs = []Job{work(near, 60, rising(2)), work(near, 20, rising(2))}
			p.Jobs[0].Work, p.Jobs[0].Skills = Aloft, []string{"climbing"}
			p.Sky = skies(map[int]Sky{0: {WindMS: 14}, 1: {WindMS: 12}})
		}, func(o told) { o.must(o.of(0).Day == 2 && o.of(1).Day <= 2, "aloft when it is calm") }},
		{"no planting in frozen ground", func(p *Problem) {
			p.Jobs = []Job{work(near, 60, rising(2))}
			p.Jobs[0].Work = Earth
			p.Sky = skies(map[int]Sky{0: {MinC: -6, MaxC: 0}})
		}, func(o told) { o.must(o.of(0).Day == 1, "the next day") }},
		{"a frosty night before a mild day", func(p *Problem) {
			p.Jobs = []Job{work(near, 60, rising(9))}
			p.Jobs[0].Work = Earth
			p.Sky = skies(map[int]Sky{0: {MinC: -2, MaxC: 9}})
		}, func(o told) { o.must(o.of(0).Day == 0, "it thaws by noon") }},
		{"too hot to spray all week", func(p *Problem) {
			p.Days = 5
			p.Jobs = []Job{work(near, 60, flat(0))}
			p.Jobs[0].Work = Spray
			hot := map[int]Sky{}
			for d := range 5 {
				hot[d] = Sky{MinC: 22, MaxC: 34}
			}
			p.Sky = skies(hot)
		}, func(o told) { o.left(0, "heat of") }},
		{"a likely wet day is dearer, not forbidden", func(p *Problem) {
			p.Jobs = []Job{work(near, 60, only(0, 1))}
			p.Jobs[0].Work = Spray
			p.Sky = []Sky{{Day: monday, Chance: 0.6, MinC: 8, MaxC: 16}, {Day: monday + 1, Chance: 0.1, MinC: 8, MaxC: 16}}
		}, func(o told) { o.must(o.of(0).Day == 1, "the likelier dry day") }},
		{"a crew without hours", func(p *Problem) {
			p.Crews[1].Hours = [7]Span{}
			p.Jobs = []Job{work(near, 60, flat(0))}
		}, func(o told) {
			o.must(o.of(0).Crew == 0, "the rest still plans")
			o.must(strings.Contains(strings.Join(o.plan.Notes, " "), "Bruno has no hours"), "it is named")
		}},
		{"the client is at home at two", func(p *Problem) {
			p.Jobs = []Job{work(near, 60, flat(0)), work(far_, 60, flat(0)), work(school, 30, flat(0))}
			p.Jobs[0].Pin = &Pin{Crew: 0, Day: 1, At: 14 * 60}
		}, func(o told) {
			v := o.of(0)
			o.must(v.Day == 1 && v.Crew == 0 && v.From >= 14*60 && v.From <= 14*60+20, "somebody comes at two")
		}},
		{"two clients at the same hour, far apart", func(p *Problem) {
			p.Jobs = []Job{work(near, 60, flat(0)), work(far_, 60, flat(0))}
			for j := range p.Jobs {
				p.Jobs[j].Pin = &Pin{Crew: 0, Day: 1, At: 10 * 60}
			}
		}, func(o told) {
			o.must(len(o.plan.Left) == 1, "one of the two cannot be")
			o.left(o.plan.Left[0].Job, quantity.Hour(600))
		}},
		{"the sprayer is taken out on one day", func(p *Problem) {
			p.Crews = p.Crews[:1]
			p.Places[school].Access = [7]Span{}
			for _, place := range []int{near, school} {
				spray := work(place, 20, only(0, 1))
				spray.Kit = []string{"sprayer"}
				p.Jobs = append(p.Jobs, spray, work(place, 20, only(0)), work(place, 20, only(1)))
			}
		}, func(o told) { o.must(o.of(0).Day == o.of(3).Day, "both sprays ride together") }},
		{"two crews share a long day", func(p *Problem) {
			p.Crews[0].Size = 1
			for range 4 {
				p.Places = append(p.Places, Place{Name: "Garden", At: &Point{45.91, 8.62}})
				p.Jobs = append(p.Jobs, work(len(p.Places)-1, 120, only(0)))
			}
		}, func(o told) {
			crews := map[int]int{}
			for _, v := range o.plan.Visits {
				crews[v.Crew]++
			}
			o.must(crews[0] == 2 && crews[1] == 2, "two each")
		}},
		{"it rains at one place and not at the other", func(p *Problem) {
			p.Jobs = []Job{work(near, 60, only(0, 4)), work(far_, 60, only(0))}
			for j := range p.Jobs {
				p.Jobs[j].Work = Spray
			}
			p.Places[near].Sky = skies(map[int]Sky{0: {RainMM: 9}})
			p.Places[far_].Sky = skies(nil)
		}, func(o told) { o.must(o.of(0).Day == 4 && o.of(1).Day == 0, "each by its own weather") }},
		{"nothing to do", func(*Problem) {}, func(o told) {
			o.must(len(o.plan.Visits)+len(o.plan.Left) == 0 && o.plan.Score.Total == 0, "an empty plan")
		}},
	} {
		p := yard()
		c.set(p)
		plan, err := Make(p, 1, Rounds(60))
		if err != nil {
			t.Errorf("%s: %v", c.name, err)
			continue
		}
		c.check(told{t, c.name, p, plan})
	}
}

// TestExplain: for a job each other day says what it costs more, part by part, or why it cannot be.
func TestExplain(t *testing.T) {
	p := yard()
	p.Jobs = []Job{work(far_, 60, only(2)), work(far_, 60, rising(3))}
	p.Jobs[1].Costs[5], p.Jobs[1].Skills = Forbidden, []string{"licence"}
	plan, err := Make(p, 1, Rounds(60))
	if err != nil {
		t.Fatal(err)
	}
	before := fmt.Sprintf("%+v", plan.Score)
	w := plan.Explain(1)
	if len(w.Others) != 12 || !strings.Contains(w.Text, "other work") {
		t.Fatalf("%+v", w)
	}
	on := w.Others[2]
	if on.More > 0.5 || w.Others[0].More < 20 || w.Others[0].Own >= 0 || w.Others[0].Way <= 0 {
		t.Errorf("its own day %+v, the first %+v", on, w.Others[0])
	}
	if w.Others[5].Crew != -1 || !strings.Contains(w.Others[5].Why, "forbidden") ||
		!strings.Contains(w.Others[5].Why, "Bruno") {
		t.Errorf("the forbidden day: %+v", w.Others[5])
	}
	if !strings.Contains(w.Others[6].Why, "not at work") { // Sunday
		t.Errorf("Sunday: %+v", w.Others[6])
	}
	again := plan.search.plan(0)
	if fmt.Sprintf("%+v", again.Score) != before {
		t.Errorf("asking has changed the plan: %s, then %+v", before, again.Score)
	}
}

// TestBadInput: each fault is named by its field.
func TestBadInput(t *testing.T) {
	for says, set := range map[string]func(p *Problem){
		"crews[1].size":            func(p *Problem) { p.Crews[1].Size = 0 },
		"crews[0].hours[1]":        func(p *Problem) { p.Crews[0].Hours[1] = Span{900, 800} },
		"crews[0].start.latitude":  func(p *Problem) { p.Crews[0].Start = &Point{Latitude: 95} },
		"places[1].at.longitude":   func(p *Problem) { p.Places[1].At = &Point{Longitude: 200} },
		"places[0].access[2]":      func(p *Problem) { p.Places[0].Access[2] = Span{900, 100} },
		"jobs[0].place":            func(p *Problem) { p.Jobs[0].Place = 9 },
		"jobs[0].minutes":          func(p *Problem) { p.Jobs[0].Minutes = 0 },
		"jobs[0].costs[3]":         func(p *Problem) { p.Jobs[0].Costs[3] = 140 },
		"jobs[0].after[0].job":     func(p *Problem) { p.Jobs[0].After = []Gap{{Job: 4}} },
		"jobs[0].after[0].max_day": func(p *Problem) { p.Jobs[0].After = []Gap{{Job: -1, Min: 5, Max: 3}} },
		"jobs[0].pin":              func(p *Problem) { p.Jobs[0].Pin = &Pin{Crew: 5, Day: 0} },
		"ways[0]":                  func(p *Problem) { p.Ways = []Known{{From: 7, To: 0, Minutes: 5}} },
		"ways[0].minutes":          func(p *Problem) { p.Ways = []Known{{From: 1, To: 0, Minutes: -5}} },
		"days":                     func(p *Problem) { p.Days = 0 },
		"light[1]":                 func(p *Problem) { p.Light = []Span{{420, 1080}, {1080, 420}} },
		"places[0].shut[0]":        func(p *Problem) { p.Places[0].Shut = []time.Weekday{9} },
		"places[1].at: ":           func(p *Problem) { p.Places[1].At = &Point{} },
		"weather[0].min_c":         func(p *Problem) { p.Sky = []Sky{{Day: monday, MinC: 12, MaxC: 4}} },
		"weather[1].day":           func(p *Problem) { p.Sky = []Sky{{Day: monday, MaxC: 9}, {Day: monday, MaxC: 8}} },
		"places[0].weather[0].day": func(p *Problem) { p.Places[0].Sky = []Sky{{MaxC: 9}} },
	} {
		p := yard()
		p.Jobs = []Job{work(near, 60, flat(0))}
		set(p)
		if _, err := Make(p, 1, Rounds(1)); err == nil || !strings.Contains(err.Error(), says) {
			t.Errorf("%s: %v", says, err)
		}
	}
}

// TestMinutes: ways as they are driven: across a village, to the next town, a long one.
func TestMinutes(t *testing.T) {
	for _, c := range []struct {
		name     string
		km       float64
		from, to float64
	}{
		{"next door", 0.01, 0, 0},
		{"across the village", 1, 4, 8},
		{"the next town", 8, 15, 25},
		{"an hour's drive", 45, 50, 75},
	} {
		a := Point{45.9, 8.6}
		b := Point{45.9 + c.km/111.19, 8.6}
		if got := Minutes(a, b); got < c.from || got > c.to {
			t.Errorf("%s: %.1f minutes for %.2f km", c.name, got, Distance(a, b))
		}
	}
}

// TestBreaks: a day of work that fills the hours runs over by the break; a crew rests while it waits before a gate; a half day
// that ends before the hour has none; the plan says when.
func TestBreaks(t *testing.T) {
	noon := &Break{From: 12 * 60, Minutes: 45}
	of := func(b *Break, hours [7]Span, gate Span, jobs ...float64) Plan {
		p := &Problem{From: monday, Days: 1, Crews: []Crew{{Name: "North", Size: 1, Hours: hours, Break: b}}}
		for i, m := range jobs {
			p.Places = append(p.Places, Place{Name: fmt.Sprint(i), At: &Point{45.9, 8.6}})
			p.Jobs = append(p.Jobs, Job{Place: i, Minutes: m, Costs: []int{0}, Later: Forbidden})
		}
		if gate != (Span{}) {
			for d := range 7 {
				p.Places[len(jobs)-1].Access[d] = gate
			}
		}
		plan, err := Make(p, 1, Rounds(60))
		if err != nil {
			t.Fatal(err)
		}
		return plan
	}
	free, held := of(nil, week(8, 16), Span{}, 230, 230), of(noon, week(8, 16), Span{}, 230, 230)
	if free.Score.Overtime != 0 || math.Abs(held.Score.Overtime-overEach*(45-(480-460-free.Score.Travel))) > 1 || len(held.Breaks) != 1 || held.Breaks[0].From != 720 {
		t.Errorf("a full day: overtime %g and %g, breaks %+v", free.Score.Overtime, held.Score.Overtime, held.Breaks)
	}
	if last := held.Visits[len(held.Visits)-1]; last.To-last.From < 230 || len(held.Visits) != 2 {
		t.Errorf("%+v", held.Visits)
	}
	// The second garden opens at one: who comes there before noon waits, and rests meanwhile.
	if gated := of(noon, week(8, 17), Span{13 * 60, 17 * 60}, 200, 100); gated.Score.Idle > 0.5*(60-45)+idleEach*45 || len(gated.Breaks) != 1 || gated.Visits[1].From != 13*60 {
		t.Errorf("before a gate: idle %g, %+v, %+v", gated.Score.Idle, gated.Breaks, gated.Visits)
	}
	if half := of(noon, week(8, 12), Span{}, 120); len(half.Breaks) != 0 {
		t.Errorf("a half day: %+v", half.Breaks)
	}
}
