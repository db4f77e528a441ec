package pruning

import (
	"fmt"
	"slices"
	"strconv"
	"strings"
	"testing"
	"time"

	"mezzadro/core/catalogue"
	"mezzadro/core/day"
	"mezzadro/yardstick"
)

// asked are purposes of the yardstick in the words of the program.
var asked = map[string]Purpose{"fruit": Shape, "cut down": Shape, "fronds": Shape}

// monthCost is what a share of the days of a month in a plan's year costs at most; -1 where it has none.
func monthCost(p *Plan, month time.Month, share float64) int {
	costs := []int{}
	for d := p.Curve.Start; d < p.Curve.Start+day.Day(p.Curve.Days); d++ {
		if d.Month() == month && d.DayOfMonth()%4 == 0 {
			costs = append(costs, p.Curve.On(d).Int())
		}
	}
	if len(costs) == 0 {
		return -1
	}
	slices.Sort(costs)
	return costs[int(share*float64(len(costs)))]
}

func split(s string) []string {
	if s == "" {
		return nil
	}
	return strings.Split(s, "|")
}

// faults are what a plan says against a row: months, how much, bloom lost.
func faults(p, winter *Plan, tree bool, r map[string]string) (months, wrong, share, bloom []string) {
	const good = 30
	bestOf := 999
	for _, m := range split(r["best_months"]) {
		n, _ := strconv.Atoi(m)
		bestOf = min(bestOf, monthCost(p, time.Month(n), 0.34))
	}
	if bestOf > good && bestOf != 999 {
		months = append(months, fmt.Sprintf("best %s costs %d", r["best_months"], bestOf))
	}
	for _, m := range split(r["bad_months"]) {
		n, _ := strconv.Atoi(m)
		if c := monthCost(p, time.Month(n), 0.5); c >= 0 && c <= good {
			wrong = append(wrong, fmt.Sprintf("wrong %s costs %d", m, c))
		}
	}
	if most, err := strconv.ParseFloat(r["max_share"], 64); err == nil {
		if p.Share > most+0.101 || p.Most < most-0.101 || p.Most > most+0.101 {
			share = append(share, fmt.Sprintf("share %.2f, most %.2f, want %.2f", p.Share, p.Most, most))
		}
	}
	is := map[bool]string{true: "none", false: "some"}[winter.BloomLoss < 0.1*max(0.3, winter.Share)]
	switch l := winter.BloomLoss / max(0.05, winter.Share); {
	case l >= 0.9:
		is = "all"
	case l >= 0.5:
		is = "most"
	}
	near := map[string]string{"all": "most", "most": "all"}
	// a tree on one trunk bears no hard cut: what it loses may be told of what is cut, or of the whole tree
	of := split(r["bloom_loss_winter"])
	whole := tree && winter.BloomLoss > 0.02 && slices.Contains(of, "some")
	if len(of) > 0 && !slices.Contains(of, is) && !slices.Contains(of, near[is]) && !whole {
		bloom = append(bloom, fmt.Sprintf("winter bloom %s (%.2f of %.2f), want %s", is, winter.BloomLoss, winter.Share, r["bloom_loss_winter"]))
	}
	return months, wrong, share, bloom
}

// TestCutsHold: cuts in many climates against what practitioners say; it prints how many hold.
func TestCutsHold(t *testing.T) {
	places := map[string]*Place{}
	var rows, whole int
	bad := map[string]int{}
	for _, r := range yardstick.Rows(t, "testdata/pruning.csv") {
		e, known := catalogue.Built().Entry(r["species"])
		if !known {
			continue // not in the book
		}
		at := places[r["climate"]]
		if at == nil {
			at = year(t, r["climate"])
			places[r["climate"]] = at
		}
		purpose := Purpose(r["purpose"])
		if to, is := asked[r["purpose"]]; is {
			purpose = to
		}
		a := Ask{Species: e, Place: at, Date: day.Of(2027, 3, 1), Purpose: purpose}
		p, err := For(a)
		if err != nil {
			t.Errorf("%s %s %s: %v", r["species"], r["climate"], purpose, err)
			continue
		}
		w := a
		w.Date = day.Of(2027, 1, 15)
		if at.Year.Normals.Climate.South() {
			w.Date = day.Of(2027, 7, 15)
		}
		{
			w.Purpose = Size
		}
		winter, err := For(w)
		if err != nil {
			t.Errorf("%s %s in winter: %v", r["species"], r["climate"], err)
			continue
		}
		rows++
		m, x, s, b := faults(&p, &winter, e.Form == catalogue.Tree, r)
		for name, list := range map[string][]string{"months": m, "wrong": x, "share": s, "bloom": b} {
			if len(list) > 0 {
				bad[name]++
			}
		}
		if all := slices.Concat(m, x, s, b); len(all) > 0 {
			t.Logf("%s | %s | %s | %s || %s", r["species"], r["climate"], r["purpose"], p.Class, strings.Join(all, "; "))
		} else {
			whole++
		}
	}
	t.Logf("%d of %d rows hold; faults %v", whole, rows, bad)
	if float64(whole) < 0.95*float64(rows) || float64(bad["months"]) > 0.03*float64(rows) || float64(bad["wrong"]) > 0.05*float64(rows) {
		t.Errorf("%d of %d rows hold; faults %v", whole, rows, bad)
	}
}
