package replacement

import (
	"fmt"
	"regexp"
	"slices"
	"strings"
	"testing"

	"mezzadro/core/catalogue"
	"mezzadro/core/day"
	"mezzadro/core/rules"
	"mezzadro/yardstick"
)

// said is whether a situation has one of some words.
func said(text string, words ...string) bool {
	return slices.ContainsFunc(words, func(w string) bool { return strings.Contains(text, w) })
}

// killers are the causes that situations name, by a word of theirs.
var killers = [][2]string{
	{"honey fungus", "honey-fungus"}, {"root rot", "root-rot"}, {"wilt fungus", "wilt"}, {"fire blight", "fire-blight"},
	{"ash borer", "ash-borer"}, {"ash dieback", "ash-dieback"}, {"elm disease", "elm-disease"}, {"oak wilt", "fast-wilt"},
	{"palm weevil", "palm-weevil"}, {"greening", "citrus-greening"}, {"rosette", "rose-rosette"}, {"canker", "canker"},
	{"box blight", "box-blight"}, {"adelgid", "adelgid"}, {"needle cast", "needle-cast"}, {"froze", "frost-in-winter"},
	{"heat and drought", "drought"}, {"wet clay", "standing-water"}, {"new roses fail", "replant-sickness"},
	{"deer", "deer"}, {"eaten by caterpillars", "box-caterpillar"},
}

// spotOf is a situation in words as a spot, what died there and what it should be.
func spotOf(species, s string) (Spot, Died, Wish) {
	var spot Spot
	var died Died
	var wish Wish
	switch {
	case said(s, "half shade", "half sun"):
		spot.Light = "part shade"
	case said(s, "shade", "north side"):
		spot.Light = "shade"
	case said(s, "sun", "street", "car park", "yard", "field"):
		spot.Light = "full sun"
	}
	switch {
	case said(s, "wet", "pond", "stream"):
		spot.Water, spot.Stands = "moist", said(s, "wet clay", "natural pond", "stream")
	case said(s, "dry shade", "dry sunny", "little water", "dry,", "deep shade, dry", "paved"):
		spot.Water = "dry"
	}
	spot.Children, spot.Pets = said(s, "children"), said(s, "dogs", "cats")
	spot.Salt, spot.Fire, wish.Tame = said(s, "salt"), said(s, "fire country"), said(s, "not invasive", "keep it native")
	if said(s, "limy") {
		spot.PH = 7.8
	}
	spot.Windy = said(s, "wind", "storm")
	spot.People, spot.Paving = said(s, "street", "car park"), said(s, "paved", "street", "car park")
	if said(s, "2 m from a house") {
		spot.HouseM = 2
	}
	if said(s, "hedge", "screen") {
		wish.ScreenM = 1.5
	}
	died.Species = species // of an unnamed one, its form and leaf
	for _, k := range killers {
		if said(s, k[0]) && died.Cause == "" {
			died.Cause = k[1]
		}
	}
	switch {
	case strings.HasSuffix(species, "-tree"):
		wish.Forms = []catalogue.Form{catalogue.Tree, catalogue.Conifer, catalogue.Palm, catalogue.Shrub}
	case strings.HasSuffix(species, "-perennial"):
		wish.MaxM = 2
	}
	return spot, died, wish
}

// TestReplacementYardstick: what gardeners of a region would plant there, and what not. It prints how many kinds named
// as good may stand there, how many named as bad may not or stand far down, and in how many places a good one is among
// the first twenty.
func TestReplacementYardstick(t *testing.T) {
	good, may, bad, not, rows, first := 0, 0, 0, 0, 0, 0
	for _, r := range yardstick.Rows(t, "testdata/winter-planting.csv") {
		if r["topic"] != "replacement" {
			continue
		}
		a := ask(t, r["climate"])
		a.Spot, a.Died, a.Wish = spotOf(r["species"], r["situation"])
		ranked, err := a.Rank()
		if err != nil {
			t.Fatalf("%s in %s, %s: %v", r["species"], r["climate"], r["situation"], err)
		}
		place := func(id string) int { return slices.IndexFunc(ranked.Best, func(f Fit) bool { return f.Species == id }) }
		why := func(id string) []string {
			i := slices.IndexFunc(ranked.Out, func(f Fit) bool { return f.Species == id })
			if i < 0 {
				return nil
			}
			return ranked.Out[i].Out
		}
		rows++
		near := len(ranked.Best)
		for _, id := range strings.Split(r["accept"], "|") {
			if _, known := catalogue.Built().Entry(id); !known {
				continue
			}
			good++
			if at := place(id); at >= 0 {
				may++
				near = min(near, at)
			} else {
				t.Logf("%s, %s, %s: %s is out: %q", r["species"], r["climate"], r["situation"], id, why(id))
			}
		}
		if near < 20 {
			first++
		} else {
			t.Logf("%s, %s, %s: the first good one is at %d of %d", r["species"], r["climate"], r["situation"], near+1,
				len(ranked.Best))
		}
		for _, id := range strings.Split(r["reject"], "|") {
			if _, known := catalogue.Built().Entry(id); !known {
				continue
			}
			bad++
			if at := place(id); at < 0 || at > len(ranked.Best)/2 {
				not++
			} else {
				t.Logf("%s, %s, %s: %s stands at %d of %d", r["species"], r["climate"], r["situation"], id, at+1, len(ranked.Best))
			}
		}
	}
	t.Logf("%d of %d good ones may stand there; %d of %d bad ones may not or stand in the lower half; "+
		"in %d of %d places a good one is among the first twenty",
		may, good, not, bad, first, rows)
	if may < 346 || not < 330 || first < 50 {
		t.Error("fewer than before")
	}
}

// acts are the spans of days, as MM-DD..MM-DD, that a note says to act in; the year is the one asked in, or the next.
func acts(t *testing.T, note string, asked day.Day) (out []Window) {
	t.Helper()
	at := func(s string) day.Day {
		d, err := day.Parse(fmt.Sprintf("%d-%s", asked.Year(), s))
		if err != nil {
			t.Fatal(err)
		}
		return d
	}
	for _, span := range regexp.MustCompile(`\d\d-\d\d\.\.\d\d-\d\d`).FindAllString(note, -1) {
		w := Window{at(span[:5]), at(span[7:])}
		if w.To < w.From {
			w.To += 365
		}
		for w.To < asked {
			w.From, w.To = w.From+365, w.To+365
		}
		if w.To-asked > 365 {
			w.From, w.To = w.From-365, w.To-365
		}
		out = append(out, w)
	}
	return out
}

// TestPlantingTimes: when gardeners of a region plant a kind, in pots, as bulbs or with bare roots; it prints how many
// best days lie in their span, and how many of their spans the program's good days cover by half.
func TestPlantingTimes(t *testing.T) {
	rows, best, covered := 0, 0, 0
	for _, r := range yardstick.Rows(t, "testdata/winter-planting.csv") {
		if r["topic"] != "planting time" {
			continue
		}
		e, known := catalogue.Built().Entry(r["species"])
		if !known {
			continue
		}
		a := ask(t, r["climate"])
		asked, err := day.Parse("2026-" + r["date_asked"])
		if err != nil {
			t.Fatal(err)
		}
		spans := acts(t, r["note"], asked)
		p := a.PlantingOf(e, asked, rules.House{})
		windows, on := p.Windows, p.Best
		if said(r["situation"], "bare root") && p.Bare != nil {
			windows, on = []Window{*p.Bare}, max(asked, p.Bare.From)
		}
		in := func(d day.Day, ws []Window) bool {
			return slices.ContainsFunc(ws, func(w Window) bool {
				return d >= w.From && d <= w.To || d+365 >= w.From && d+365 <= w.To || d-365 >= w.From && d-365 <= w.To
			})
		}
		days, both := 0, 0
		for _, w := range spans {
			for d := w.From; d <= w.To; d++ {
				days++
				if in(d, windows) {
					both++
				}
			}
		}
		rows++
		good, wide := in(on, spans), 2*both >= days
		if good {
			best++
		}
		if wide {
			covered++
		}
		if !good || !wide {
			t.Logf("%s, %s, %s, asked %s: best %s, good days %v, bare %v; they plant %v (%d of %d days covered)", r["species"],
				r["climate"], r["situation"], asked, on, p.Windows, p.Bare, spans, both, days)
		}
	}
	t.Logf("%d of %d best days in their span, %d of %d spans covered by half", best, rows, covered, rows)
	if best < 24 || covered < 25 {
		t.Error("fewer than before")
	}
}
