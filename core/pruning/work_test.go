package pruning

import (
	"slices"
	"strconv"
	"strings"
	"testing"

	"mezzadro/core/catalogue"
	"mezzadro/core/day"
	"mezzadro/yardstick"
)

// works are those of the yardstick that are cuts, in the words of the program.
var works = map[string]Purpose{"shape": Shape, "hedge both sides and top": Hedge, "fronds": Shape, "thin 20 %": Thin, "fruit tree winter cut": Shape,
	"fruit tree summer cut": Shape, "raise": Raise, "rose cut": Shape, "clear dead": Dead, "size": Size, "renew third": Renew,
	"cut down perennials": Shape, "cut to the ground": Shape, "cut down": Shape, "deadhead": Deadhead, "vine winter cut": Shape,
	"wisteria summer": Shape, "wisteria winter": Shape, "cut down fruited canes": Shape, "fell in pieces": ""}

// TestWorkHolds: how long cuts take, all people together, and what comes off, against what crews need; it prints how
// many hold.
func TestWorkHolds(t *testing.T) {
	y := year(t, "lake-foothills")
	rows, inside, inWaste := 0, 0, 0
	ratios := []float64{}
	for _, r := range yardstick.Rows(t, "testdata/work.csv") {
		purpose, cut := works[r["work"]]
		e, known := catalogue.Built().Entry(r["species"])
		if !cut || !known {
			continue
		}
		num := func(col string) float64 {
			v, err := strconv.ParseFloat(r[col], 64)
			if err != nil {
				t.Fatalf("%s of %v: %v", col, r, err)
			}
			return v
		}
		n := num("count")
		minutes, waste := FellMinutes(num("height_m"), num("spread_m")), n*Waste(e, num("height_m"), num("spread_m"), 1, Size)
		if purpose != "" {
			p, err := For(Ask{Species: e, Place: y, Date: day.Of(2027, 3, 1), Purpose: purpose, HeightM: num("height_m"), SpreadM: num("spread_m"), Count: int(n)})
			if err != nil {
				t.Errorf("%s: %v", r["species"], err)
				continue
			}
			minutes, waste = float64(p.Minutes), n*p.WasteM3
			if p.MinutesFrom > p.Minutes || p.MinutesTo < p.Minutes-5 || p.People < 1 {
				t.Errorf("%s: %d to %d, told %d; %d people", r["species"], p.MinutesFrom, p.MinutesTo, p.Minutes, p.People)
			}
		}
		lo, hi := num("person_minutes_low"), num("person_minutes_high")
		rows++
		ratios = append(ratios, minutes/((lo+hi)/2))
		if minutes >= lo-2 && minutes <= hi {
			inside++
		} else {
			t.Logf("%s %s × %s, %s × %.0f: %.0f min, want %.0f to %.0f", r["species"], r["height_m"], r["spread_m"], r["work"], n, minutes, lo, hi)
		}
		if wlo, whi := num("loose_waste_m3_low"), num("loose_waste_m3_high"); waste >= wlo*0.95 && waste <= whi*1.05 {
			inWaste++
		} else {
			t.Logf("%s %s × %s, %s × %.0f: %.2f m³, want %.2f to %.2f", r["species"], r["height_m"], r["spread_m"], r["work"], n, waste, wlo, whi)
		}
	}
	slices.Sort(ratios)
	median := ratios[len(ratios)/2]
	t.Logf("of %d works %d lie inside, waste of %d; median of the ratio to the middle %.2f", rows, inside, inWaste, median)
	if float64(inside) < 0.9*float64(rows) || median < 0.7 || median > 1.25 {
		t.Errorf("%d of %d inside, median %.2f", inside, rows, median)
	}
	if float64(inWaste) < 0.85*float64(rows) {
		t.Errorf("waste: %d of %d inside", inWaste, rows)
	}
}

// TestWorkGrowsWithSize: over all kinds and purposes a plant half as large again takes neither less nor more than three
// and a half times as long, and leaves no less.
func TestWorkGrowsWithSize(t *testing.T) {
	y := year(t, "cool-coast")
	for i := range catalogue.Built().Entries {
		e := &catalogue.Built().Entries[i]
		for _, purpose := range []Purpose{Shape, Dead, Raise, Thin, Hedge, Deadhead} {
			last := Plan{}
			for _, size := range []float64{0.3, 0.45, 0.68, 1} {
				p, err := For(Ask{Species: e, Place: y, Date: day.Of(2027, 3, 1), Purpose: purpose, HeightM: size * e.Mature.HeightM, SpreadM: size * e.Mature.SpreadM})
				if err != nil {
					t.Errorf("%s: %v", e.ID, err)
					continue
				}
				if last.Minutes > 0 && (p.Minutes < last.Minutes || float64(p.Minutes) > 3.6*float64(last.Minutes)+15 || p.WasteM3 < last.WasteM3-0.001) {
					t.Errorf("%s, %s at %.2f: %d min and %.3f m³ after %d and %.3f", e.ID, purpose, size, p.Minutes, p.WasteM3, last.Minutes, last.WasteM3)
				}
				last = p
			}
			if strings.Contains(last.WasteText, "e+") {
				t.Errorf("%s: %s", e.ID, last.WasteText)
			}
		}
	}
}
