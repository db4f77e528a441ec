package cause

import (
	"slices"
	"strings"
	"testing"

	"mezzadro/core/catalogue"
)

// hostOf is a kind that has a cause; nil where the book of species knows none.
func hostOf(c *Cause) *catalogue.Entry {
	all := catalogue.Built().Entries
	for _, tall := range []bool{true, false} {
		for i := range all {
			if e := &all[i]; c.OnKind(e) >= 0.7 && (!tall || hasTrunk(e)) && !strings.HasPrefix(e.ID, "unknown") {
				return e
			}
		}
	}
	return nil
}

// telling are the signs that one would see of a cause first: the strongest on the plant itself.
func (b *Book) telling(c *Cause, n int) []string {
	var out []string
	for _, s := range b.Page(c.ID).Signs {
		if sign := b.sign[s.ID]; !sign.condition() && !sign.Pattern && s.Chance >= 0.35 && len(out) < n {
			out = append(out, s.ID)
		}
	}
	return out
}

// monthOf is one in which a cause is at work.
func monthOf(c *Cause) int {
	for _, m := range []int{6, 7, 5, 8, 4, 9, 3, 10, 1} {
		if c.inMonth(m) {
			return m
		}
	}
	return 6
}

func named(d *Diagnosis, id string, first int) bool {
	for i, c := range append(slices.Clone(d.Causes), d.Also...) {
		if c.ID == id && (i < first || i >= len(d.Causes)) {
			return true
		}
	}
	return false
}

// TestDeadlyBesideHarmless: no lichen, froth, toadstool or gall takes the lead from what kills a tree or hurts people,
// nor its caution: it leads, or it is named and people are warned.
func TestDeadlyBesideHarmless(t *testing.T) {
	b := Built()
	harmless := []string{"lichen", "toadstools_mulch", "spittle", "galls_leaf", "tar_spots", "ivy_on_it", "slime_yellow", "half_moons", "foam_case"}
	tried, led, deadly := 0, 0, 0
	for i := range b.Causes {
		c := &b.Causes[i]
		e := hostOf(c)
		if c.Harm != "deadly" && c.Danger == "" || e == nil || c.Group == "helper" {
			continue
		}
		deadly++
		for _, also := range harmless {
			k := Case{Species: e, Month: monthOf(c), Seen: append(b.telling(c, 2), also)}
			if b.Validate(k) != nil || slices.Contains(b.telling(c, 2), also) {
				continue
			}
			d, err := b.Diagnose(k)
			if err != nil {
				t.Fatal(err)
			}
			tried++
			led += oneIf(d.Causes[0].ID == c.ID)
			warned := c.Danger == "" || !c.threatens(k) || slices.Contains(d.Cautions, dangers[c.Danger])
			if !named(&d, c.ID, shownCauses) || !warned || strings.Contains(d.Text, "harmless. Leave it") && d.Causes[0].Harm == "harmless" {
				t.Errorf("%s on %s with %s: %s, cautions %v", c.ID, e.ID, also, d.Text, d.Cautions)
			}
			if d.Causes[0].Harm == "harmless" {
				t.Errorf("%s on %s with %s (%v): led by %s", c.ID, e.ID, also, k.Seen, d.Causes[0].ID)
			}
		}
	}
	t.Logf("%d deadly causes, %d cases: it leads in %d", deadly, tried, led)
	if deadly < 26 || float64(led) < 0.85*float64(tried) {
		t.Errorf("%d deadly causes, %d cases: it leads in %d", deadly, tried, led)
	}
}

// TestTwoAtOnce: of two causes whose telling signs are seen on one plant both stand in the first three.
func TestTwoAtOnce(t *testing.T) {
	b := Built()
	tried, both := 0, 0
	for i := range b.Causes {
		c := &b.Causes[i]
		e := hostOf(c)
		if e == nil {
			continue
		}
		for j := i + 1 + i%3; j < len(b.Causes); j += 4 {
			o := &b.Causes[j]
			month := monthOf(c)
			if o.OnKind(e) < 0.5 || !o.inMonth(month) {
				continue
			}
			mine, theirs := b.telling(c, 2), b.telling(o, 2)
			k := Case{Species: e, Month: month, Seen: append(slices.Clone(mine), theirs...)}
			plain := func(of *Cause, signs []string) bool { // alone it would be known by them
				if len(signs) != 2 || of.Signs[signs[0]] < 0.6 || b.sign[signs[0]].Rare > 0.03 {
					return false
				}
				d, err := b.Diagnose(Case{Species: e, Month: month, Seen: signs})
				return err == nil && d.Causes[0].ID == of.ID
			}
			shared := slices.ContainsFunc(mine, func(s string) bool { return o.Signs[s] > 0.2 }) ||
				slices.ContainsFunc(theirs, func(s string) bool { return c.Signs[s] > 0.2 })
			if shared || !plain(c, mine) || !plain(o, theirs) || b.Validate(k) != nil {
				continue // one would not know that there are two
			}
			d, err := b.Diagnose(k)
			if err != nil {
				t.Fatal(err)
			}
			tried++
			if named(&d, c.ID, 3) && named(&d, o.ID, 3) {
				both++
			} else if tried-both < 9 {
				t.Logf("%s, %v: %s and %s, told %s %.2f, %s %.2f, %s %.2f", e.ID, k.Seen, c.ID, o.ID, d.Causes[0].ID, d.Causes[0].Chance, d.Causes[1].ID, d.Causes[1].Chance, d.Causes[2].ID, d.Causes[2].Chance)
			}
		}
	}
	t.Logf("two at once: %d cases, both in the first three in %d (%.0f %%)", tried, both, 100*float64(both)/float64(tried))
	if tried < 200 || float64(both) < 0.95*float64(tried) {
		t.Errorf("two at once: %d cases, both in the first three in %d", tried, both)
	}
}

// TestCannotTell: what nobody can tell is not asked again and weighs nothing; the next question is another.
func TestCannotTell(t *testing.T) {
	b := Built()
	k := kase(t, "quercus-robur", 7, "die_back_tips", "")
	first, err := b.Diagnose(k)
	if err != nil || first.Next == nil {
		t.Fatal(first.Text, err)
	}
	asked := map[string]bool{}
	for range 6 {
		d, err := b.Diagnose(k)
		if err != nil || d.Next == nil || asked[d.Next.ID] {
			t.Fatalf("after %v: %+v %v", k.Skipped, d.Next, err)
		}
		if d.Causes[0].Chance != first.Causes[0].Chance {
			t.Errorf("%v that nobody can tell moves %.3f to %.3f", k.Skipped, first.Causes[0].Chance, d.Causes[0].Chance)
		}
		asked[d.Next.ID] = true
		k.Skipped = append(k.Skipped, d.Next.ID)
	}
	k.Skipped = []string{"no_such"}
	if err := b.Validate(k); err == nil || !strings.Contains(err.Error(), "cannot_tell[0]") {
		t.Errorf("no such sign: %v", err)
	}
}

// TestNothingFits: signs that no cause explains together are said to be in no book, and nobody is sent to spray.
func TestNothingFits(t *testing.T) {
	b := Built()
	for _, x := range []struct {
		species string
		month   int
		seen    string
	}{{"hosta-hybrid", 6, "needle_bands"}, {"tulipa-hybrid", 4, "bark_soot"}, {"thymus-vulgaris", 6, "buds_bristled"}} {
		d, err := b.Diagnose(kase(t, x.species, x.month, x.seen, ""))
		if err != nil || d.Settled || d.Act != "watch" || !strings.Contains(d.Text, "Nothing in the book fits") {
			t.Errorf("%s with %s: %s (%s, unknown %.2f, first %s %.2f) %v", x.species, x.seen, d.Text, d.Act, d.Unknown, d.Causes[0].ID, d.Causes[0].Chance, err)
		}
	}
}

// TestRocksAndLichen: a tree that rocks is never told to be harmless, whatever grows on its bark, and says who stays
// away.
func TestRocksAndLichen(t *testing.T) {
	b := Built()
	for _, x := range []struct{ species, seen string }{
		{"quercus-ilex", "rocks lichen"}, {"quercus-robur", "rocks lichen galls_leaf"}, {"picea-abies", "rocks lichen"}, {"acer-platanoides", "rocks tar_spots"},
		{"trachycarpus-fortunei", "rocks lichen"}, {"salix-alba", "rocks spittle lichen"},
	} {
		for _, month := range []int{1, 3, 6, 9} {
			d, err := b.Diagnose(kase(t, x.species, month, x.seen, ""))
			if err != nil {
				t.Fatal(err)
			}
			if d.Settled || d.Act == "none" || strings.HasPrefix(d.Text, "Lichen") || d.Causes[0].Harm == "harmless" || !slices.Contains(d.Cautions, dangers["falls"]) {
				t.Errorf("%s, %s in month %d: %s (%s), cautions %v", x.species, x.seen, month, d.Text, d.Act, d.Cautions)
			}
		}
	}
}
