package overwinter

import (
	"testing"

	"mezzadro/core/catalogue"
	"mezzadro/core/check"
)

func plant(t testing.TB, id string, height float64) check.Plant {
	t.Helper()
	e, err := catalogue.Built().Species(id)
	if err != nil {
		t.Fatal(err)
	}
	return check.Plant{Species: e, HeightM: height}
}

// TestWinters: a milder place, a mulch and the ground rather than a pot never make it likelier that a plant is lost.
func TestWinters(t *testing.T) {
	for _, id := range []string{"bougainvillea-glabra", "pelargonium-zonal", "dahlia-pinnata", "salvia-tender", "agapanthus-africanus", "citrus-limon", "lantana-camara", "camellia-japonica"} {
		p := plant(t, id, 1)
		last := 0.0
		for _, c := range []float64{-25, -15, -10, -6, -3, 0} {
			bare, mulched, pot := p, p, p
			mulched.Mulched, pot.PotL = true, 20
			w := Winters(bare, c)
			if w < last || Winters(mulched, c) < w || Winters(pot, c) > w {
				t.Errorf("%s at %g °C: %.2f, mulched %.2f, in a pot %.2f; one step colder %.2f", id, c, w, Winters(mulched, c), Winters(pot, c), last)
			}
			last = w
		}
	}
	old, young := plant(t, "plumbago-auriculata", 2), plant(t, "plumbago-auriculata", 1)
	old.Years, young.Years = 10, 2
	if LiftedLives(old) >= LiftedLives(young) {
		t.Errorf("lifted, an old one lives with %.2f, a young one with %.2f", LiftedLives(old), LiftedLives(young))
	}
}
