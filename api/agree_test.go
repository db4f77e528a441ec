package api

import (
	"fmt"
	"strings"
	"testing"

	"mezzadro/core/catalogue"
	"mezzadro/core/damage"
	"mezzadro/core/day"
	"mezzadro/core/job"
	"mezzadro/house"
)

// TestOrdersCostWhatTheirVerdictSaid: on the day of a verdict each of its orders costs day by day what the verdict showed.
func TestOrdersCostWhatTheirVerdictSaid(t *testing.T) {
	h := newHouse(t)
	property, camellia := h.villa()
	pear := ok[house.PlantOut](h, "POST", "/plants", obj{"property_id": property.ID, "species": "pyrus-communis", "height_m": 3})
	olive := ok[house.PlantOut](h, "POST", "/plants", obj{"property_id": property.ID, "species": "olea-europaea", "height_m": 4})
	for _, c := range []struct {
		plant  int64
		checks []obj
	}{
		{camellia.ID, []obj{{"kind": "bud_rub", "height_m": 1.8, "broke": 6}, {"kind": "scratch", "height_m": 1.2, "result": "green"}}},
		{pear.ID, []obj{{"kind": "bark_ring", "height_m": 0.2, "result": "bridge", "amount": 0.7}}},
		{olive.ID, []obj{{"kind": "scratch", "height_m": 0.4, "result": "green"}, {"kind": "shoot", "height_m": 3.4}, {"kind": "tip_dead", "amount": 0.3}}},
	} {
		walk := ok[house.Walk](h, "POST", "/walks", obj{"property_id": property.ID})
		at := fmt.Sprintf("/walks/%d/plants/%d", walk.ID, c.plant)
		a := ok[damage.Answer](h, "PUT", at+"/checks", obj{"checks": c.checks})
		d := ok[house.Decided](h, "POST", at+"/verdict", obj{"decision": "accepted"})
		said := map[string]job.Job{}
		for _, j := range a.Jobs {
			said[j.Title] = j
		}
		compared := 0
		for _, o := range from(d.Jobs, job.Verdict) {
			j, known := said[o.Title]
			if !known {
				t.Errorf("plant %d: the verdict did not ask for %q", c.plant, o.Title)
				continue
			}
			lane := ok[house.OrderDetail](h, "GET", fmt.Sprintf("/orders/%d", o.ID), nil)
			for i, cost := range lane.Costs {
				x := lane.Start + day.Day(i)
				if x < j.Curve.Start || x >= j.Curve.Start+day.Day(j.Curve.Days) {
					continue
				}
				if want := j.Curve.On(x); cost.Int() != want.Int() {
					t.Fatalf("plant %d, %s on %s: the order costs %d, the verdict said %d", c.plant, o.Title, x, cost.Int(), want.Int())
				}
				compared++
			}
		}
		if compared < 30 {
			t.Errorf("plant %d: only %d days compared (%s)", c.plant, compared, a.Verdict.Sentence)
		}
	}
}

// TestHowItStandsIsHeard: a pot and a mulch count with an inline climate, standing water and a warm wall of a property with its plants.
func TestHowItStandsIsHeard(t *testing.T) {
	h := newHouse(t)
	lake, err := catalogue.Built().Climate("lake-foothills")
	if err != nil {
		t.Fatal(err)
	}
	c := lake.Climate
	judge := func(more obj) damage.Answer {
		in := obj{"species": "citrus-limon", "date": "2027-10-12", "climate": c, "height_m": 1.5, "checks": []obj{}}
		for k, v := range more {
			in[k] = v
		}
		return ok[damage.Answer](h, "POST", "/reckon/damage", in)
	}
	if a := judge(obj{"pot_l": 40}); !strings.Contains(a.Verdict.Sentence, "pot") {
		t.Errorf("in a pot: %s", a.Verdict.Sentence)
	}
	if a := judge(nil); strings.Contains(a.Verdict.Sentence, "pot") {
		t.Errorf("in the ground: %s", a.Verdict.Sentence)
	}
	bare, mulched := judge(obj{"species": "salvia-tender", "height_m": 1.0}), judge(obj{"species": "salvia-tender", "height_m": 1.0, "mulched": true})
	if bare.Verdict.Kind == damage.Lift && mulched.Verdict.Kind == damage.Lift && mulched.Verdict.Sure >= bare.Verdict.Sure {
		t.Errorf("a mulch changes nothing: %+v, %+v", bare.Verdict, mulched.Verdict)
	}
}
