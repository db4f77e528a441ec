package api_test

import (
	"context"
	"fmt"
	"strings"
	"testing"

	"mezzadro/core/catalogue"
	"mezzadro/core/damage"
	"mezzadro/core/day"
	"mezzadro/core/job"
	"mezzadro/house/estate"
	"mezzadro/house/garden"
	"mezzadro/house/overview"
	"mezzadro/house/walks"
	"mezzadro/house/work"
	"mezzadro/store"
)

// TestOrdersCostWhatTheirVerdictSaid: on the day of a verdict each of its orders costs day by day what the verdict showed.
func TestOrdersCostWhatTheirVerdictSaid(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	property, camellia := h.villa()
	pear := ok[estate.PlantOut](h, "POST", "/plants", obj{"property_id": property.ID, "species": "pyrus-communis", "height_m": 3})
	olive := ok[estate.PlantOut](h, "POST", "/plants", obj{"property_id": property.ID, "species": "olea-europaea", "height_m": 2.8})
	for _, c := range []struct {
		plant  int64
		checks []obj
	}{
		{camellia.ID, []obj{{"kind": "bud_rub", "height_m": 1.8, "broke": 6}, {"kind": "scratch", "height_m": 1.2, "result": "green"}}},
		{pear.ID, []obj{{"kind": "bark_ring", "height_m": 0.2, "result": "bridge", "amount": 0.7}}},
		{olive.ID, []obj{{"kind": "scratch", "height_m": 0.4, "result": "green"}, {"kind": "shoot", "height_m": 2.4}, {"kind": "tip_dead", "amount": 0.3}}},
	} {
		walk := ok[walks.Walk](h, "POST", "/walks", obj{"property_id": property.ID})
		at := fmt.Sprintf("/walks/%d/plants/%d", walk.ID, c.plant)
		a := ok[damage.Answer](h, "PUT", at+"/checks", obj{"checks": c.checks})
		d := ok[walks.Decided](h, "POST", at+"/verdict", obj{"decision": "accepted"})
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
			lane := ok[work.OrderDetail](h, "GET", fmt.Sprintf("/orders/%d", o.ID), nil)
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
	t.Parallel()
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
	bare, mulched := judge(obj{"pot_l": 40}), judge(obj{"pot_l": 40, "mulched": true})
	if bare.Verdict.Kind != damage.Lift {
		t.Fatalf("a lemon in October: %+v", bare.Verdict)
	}
	if mulched.Verdict.Kind == damage.Lift && mulched.Verdict.Sure >= bare.Verdict.Sure {
		t.Errorf("a mulch changes nothing: %+v, %+v", bare.Verdict, mulched.Verdict)
	}
}

// TestPropertyIsHeardInItsPlants: what is said of a whole property holds for each plant there that says nothing of its own.
// A wall that the sun warms spares a camellia; ground where water stands gives a rosemary more to bear.
func TestPropertyIsHeardInItsPlants(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	lost := func(name, species string, exposure obj) float64 {
		body := obj{"name": name, "climate_type": "lake-foothills", "elevation_m": 210}
		for k, v := range exposure {
			body[k] = v
		}
		p := ok[garden.PropertyOut](h, "POST", "/properties", body)
		x := ok[estate.PlantOut](h, "POST", "/plants", obj{"property_id": p.ID, "species": species, "height_m": 1.5})
		ok[overview.WeatherKept](h, "POST", fmt.Sprintf("/properties/%d/weather/read", p.ID), nil)
		x = ok[estate.PlantOut](h, "GET", fmt.Sprintf("/plants/%d", x.ID), nil)
		if x.Look == nil {
			t.Fatalf("%s, %s: no forecast after the freeze", name, species)
		}
		return x.Look.Severity
	}
	if open, wall := lost("open", "camellia-japonica", nil), lost("wall", "camellia-japonica", obj{"wall": true, "facing": "south"}); wall >= open {
		t.Errorf("a warm wall spares nothing: %.3f, in the open %.3f", wall, open)
	}
	h.today = day.Of(2027, 11, 5)
	if dry, wet := lost("dry", "salvia-rosmarinus", nil), lost("wet", "salvia-rosmarinus", obj{"wet": true}); wet <= dry {
		t.Errorf("standing water harms nothing: %.3f, drained %.3f", wet, dry)
	}
}

// TestCatalogueReadDuringAWrite: who asks for the catalogue while a correction is being kept sees the old one, and the
// corrected one afterwards: the old one is not kept for good.
func TestCatalogueReadDuringAWrite(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	ctx := context.Background()
	common := func() string {
		book, err := h.server.Estate.Book(ctx)
		if err != nil {
			t.Fatal(err)
		}
		e, err := book.Species("camellia-japonica")
		if err != nil {
			t.Fatal(err)
		}
		return e.Common
	}
	e, err := catalogue.Built().Species("camellia-japonica")
	if err != nil {
		t.Fatal(err)
	}
	before := e.Common
	e.Common = "Our camellia"
	err = h.server.Estate.Store.Write(ctx, func(tx store.Tx) error {
		if err := tx.KeepSpecies(ctx, e, 0); err != nil {
			return err
		}
		if now := common(); now != before {
			t.Errorf("before it is kept the catalogue says %q", now)
		}
		return nil
	})
	if err != nil {
		t.Fatal(err)
	}
	if now := common(); now != e.Common {
		t.Errorf("after it was kept the catalogue says %q", now)
	}
}
