package cause

import (
	"math/rand/v2"
	"testing"
)

// A mixed garden round, as it is walked from April to October.
var roundOfKinds = []string{"buxus-sempervirens", "rosa-bedding", "malus-domestica", "prunus-laurocerasus", "hydrangea-macrophylla",
	"camellia-japonica", "syringa-vulgaris", "acer-palmatum", "rhododendron-hybrid", "lavandula-angustifolia"}

// drawnFinds are finds of a firm: on kinds of the round the causes come as the book says, but for one that comes times
// as often.
func drawnFinds(t *testing.T, n int, cause string, times float64, seed uint64) []Confirmed {
	t.Helper()
	b, r := Built(), rand.New(rand.NewPCG(seed, 38))
	out := make([]Confirmed, n)
	for j := range out {
		out[j] = Confirmed{Species: kind(t, roundOfKinds[r.IntN(len(roundOfKinds))]), Month: 4 + r.IntN(7)}
		shares := b.sharesOf(Case{Species: out[j].Species, Month: out[j].Month})
		sum := 0.0
		for i := range shares {
			if b.Causes[i].ID == cause {
				shares[i] *= times
			}
			sum += shares[i]
		}
		u := r.Float64() * sum
		for i := range shares {
			if u -= shares[i]; u < 0 {
				out[j].Cause = b.Causes[i].ID
				break
			}
		}
	}
	return out
}

// TestOursWhereNothingIs: a firm that finds what the book says is told nothing, but in one case of twenty.
func TestOursWhereNothingIs(t *testing.T) {
	wrong := 0
	for seed := range uint64(200) {
		for _, o := range Built().Ours(drawnFinds(t, 120, "", 1, seed)) {
			if o.Beyond() {
				wrong++
				break
			}
		}
	}
	t.Logf("something told of %d firms of 200 in which nothing is", wrong)
	if wrong > 10 {
		t.Errorf("something told of %d firms of 200, want at most 10", wrong)
	}
}

// TestOursOftener: mildew that comes three times as often is found out by four hundred finds, and not made more of.
func TestOursOftener(t *testing.T) {
	told := 0
	for seed := range uint64(200) {
		for _, o := range Built().Ours(drawnFinds(t, 400, "powdery-mildew", 3, seed)) {
			if o.Cause != "powdery-mildew" {
				continue
			}
			if o.Beyond() {
				told++
			}
			if u := o.Used(); u < 1 || u > 3 {
				t.Fatalf("seed %d: used %g, want 1 to 3", seed, u)
			}
		}
	}
	t.Logf("told of %d firms of 200", told)
	if told < 180 {
		t.Errorf("told of %d firms of 200, want 180", told)
	}
}

// TestOursGrave: what kills is never taken for rarer, however seldom a firm found it; what is harmless does not count.
func TestOursGrave(t *testing.T) {
	list := make([]Confirmed, 400)
	for i := range list {
		list[i] = Confirmed{Cause: "root-rot", Species: kind(t, "malus-domestica"), Month: 6}
		if i%2 == 0 {
			list[i].Cause = "lichen-moss"
		}
	}
	for _, o := range Built().Ours(list) {
		if o.Grave && o.Used() < 1 {
			t.Errorf("a grave cause is taken for rarer: %+v", o)
		}
		if o.Cause == "lichen-moss" {
			t.Errorf("harmless, and counted: %+v", o)
		}
	}
}

// TestOursFew: below thirty finds nothing is said, however they come.
func TestOursFew(t *testing.T) {
	list := make([]Confirmed, 29)
	for i := range list {
		list[i] = Confirmed{Cause: "box-caterpillar", Species: kind(t, "buxus-sempervirens"), Month: 6}
	}
	if got := Built().Ours(list); len(got) != 0 {
		t.Errorf("of 29 finds: %+v", got)
	}
}

// TestOursWeighs: what the firm finds often goes up among look-alikes, says so, and never outweighs what is seen.
func TestOursWeighs(t *testing.T) {
	k := Case{Species: kind(t, "buxus-sempervirens"), Month: 6, Seen: []string{"leaf_drop"}}
	if err := Built().Validate(k); err != nil {
		t.Fatal(err)
	}
	place := func(k Case) (int, Named) {
		d, err := Built().Diagnose(k)
		if err != nil {
			t.Fatal(err)
		}
		for i, n := range d.Causes {
			if n.ID == "box-blight" {
				return i, n
			}
		}
		return 99, Named{}
	}
	_, before := place(k)
	k.Ours = map[string]float64{"box-blight": 3}
	_, after := place(k)
	if after.Chance <= before.Chance || after.Chance > 3*before.Chance+0.01 {
		t.Errorf("chance of box blight %g, with what the firm finds %g", before.Chance, after.Chance)
	}
	said := false
	for _, e := range after.Evidence {
		said = said || e.Record && e.Name == "Found by you more often than usual"
	}
	if !said {
		t.Errorf("not said: %+v", after.Evidence)
	}
	k.Near = map[string]float64{"box-blight": 4}
	if _, near := place(k); near.Chance <= after.Chance {
		t.Errorf("found nearby counts for more: %g, not %g", near.Chance, after.Chance)
	}
}
