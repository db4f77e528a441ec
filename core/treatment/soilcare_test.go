package treatment

import (
	"math"
	"strings"
	"testing"

	"mezzadro/core/catalogue"
	"mezzadro/core/day"
	"mezzadro/core/quantity"
	"mezzadro/core/rules"
)

// TestSoilCare: what a feeding, a layer and a soil correction take, each worked out on paper; how much of a product
// only by its card.
func TestSoilCare(t *testing.T) {
	feed := Card{ID: 1, Name: "Liquid from the shed", Active: "organic-feed", Unit: "mL", Rates: []Rate{{Amount: 5, Per: "L"}}, Packs: []Pack{{1000, 9}}}
	pellets := Card{ID: 2, Name: "Pellets", Active: "organic-feed", Unit: "g", Rates: []Rate{{Amount: 80, Per: "m2"}}, Packs: []Pack{{5000, 12}}}
	lime := Card{ID: 3, Name: "Lime", Active: "lime", Unit: "g", Rates: []Rate{{Amount: 200, Per: "m2"}}, Packs: []Pack{{10000, 8}}}
	for _, c := range []struct {
		name, species string
		ask           FeedAsk
		what          string
		m3            float64
		product       float64 // once
		price         float64 // for all times
		says          string
	}{
		// 6 m² × 2 cm and × 5 cm
		{"roses in a bed", "rosa-bedding", FeedAsk{BedM2: 6}, "compost", 0.12, 0, 0, "6 m² × 20 mm"},
		{"their mulch", "rosa-bedding", FeedAsk{BedM2: 6}, "mulch", 0.3, 0, 0, ""},
		{"mulched deeper", "rosa-bedding", FeedAsk{BedM2: 6, MulchCM: 7}, "mulch", 0.42, 0, 0, "70 mm"},
		// 3 × 0.785 × 1.2² = 3.391 m²
		{"as wide as the crowns", "weigela-florida", FeedAsk{Count: 3, HeightM: 1.5, SpreadM: 1.2}, "compost", 0.068, 0, 0, ""},
		// a tenth of 40 L runs through: 4 L × 5 mL; ten times 200 mL, one bottle
		{"a pot", "nerium-oleander", FeedAsk{PotL: 40, Cards: []Card{feed}}, "feed", 0, 20, 9, "5 mL for a litre"},
		{"three pots", "nerium-oleander", FeedAsk{PotL: 40, Count: 3, Cards: []Card{feed}}, "feed", 0, 60, 9, ""},
		{"a pot without a card", "nerium-oleander", FeedAsk{PotL: 40}, "feed", 0, 0, 0, "enter the rate"},
		{"another active's card", "nerium-oleander", FeedAsk{PotL: 40, Cards: []Card{lime}}, "feed", 0, 0, 0, "enter the rate"},
		{"pellets on a bed", "rosa-bedding", FeedAsk{BedM2: 6, Cards: []Card{pellets}}, "feed", 0, 480, 12, ""},
		{"lime on a sour bed", "rosa-bedding", FeedAsk{BedM2: 6, PH: 5, Cards: []Card{lime}}, "lime", 0, 1200, 8, ""},
		{"no card for the lime", "rosa-bedding", FeedAsk{BedM2: 6, PH: 5}, "lime", 0, 0, 0, "enter the rate"},
		{"sulphur for azaleas", "azalea-evergreen", FeedAsk{BedM2: 2, PH: 7.4}, "sulphur", 0, 0, 0, "enter the rate"},
		// 0.65 × 2 × 1.5² = 2.925 m³ × 0.13 = 0.38 L
		{"leaves after frost", "camellia-japonica", FeedAsk{HeightM: 2, SpreadM: 1.5, Hurt: true, Cards: []Card{feed}}, "foliar", 0, 1.9, 9, ""},
		// trees find their own; they are mulched: 2 m² each at most
		{"a lime tree", "tilia-cordata", FeedAsk{HeightM: 9, SpreadM: 6}, "mulch", 0.1, 0, 0, ""},
	} {
		e, err := catalogue.Built().Species(c.species)
		if err != nil {
			t.Fatal(err)
		}
		c.ask.Species, c.ask.Place, c.ask.Date = &e, place(t, "lake-foothills"), day.Of(2027, 3, 18)
		if c.ask.PotL > 0 {
			c.ask.Date = day.Of(2027, 5, 10)
		}
		f, err := Feed(c.ask)
		if err != nil {
			t.Fatal(c.name, err)
		}
		var got *SoilAmount
		for i := range f.Amounts {
			if f.Amounts[i].What == c.what {
				got = &f.Amounts[i]
			}
		}
		if got == nil {
			t.Errorf("%s: no %s in %+v", c.name, c.what, f.Amounts)
			continue
		}
		price := 0.0
		if got.Buy != nil {
			price = got.Buy.Price
		}
		text := quantity.Style{}.Text(got.Formula)
		near := func(a, b float64) bool { return math.Abs(a-b) <= 0.05*b+1e-9 }
		if !near(got.M3, c.m3) || !near(got.Product, c.product) || !near(price, c.price) || !strings.Contains(text, c.says) {
			t.Errorf("%s: %.3f m³, %.2f, %.2f, %q; want %.3f, %.2f, %.2f, %q", c.name, got.M3, got.Product, price, text, c.m3, c.product, c.price, c.says)
		}
	}
}

// TestSoilCareNever: what lives on lean ground gets neither compost nor feed, pots no mulch by the bed, and no answer
// knows a dose by itself.
func TestSoilCareNever(t *testing.T) {
	at := place(t, "lake-foothills")
	for _, e := range catalogue.Built().Entries {
		for _, ask := range []FeedAsk{{}, {PotL: 30}, {PH: 5}, {PH: 8}, {Hurt: true}, {Rules: rules.House{Feeding: rules.AnyFeed}}} {
			ask.Species, ask.Place, ask.Date = &e, at, day.Of(2027, 4, 10)
			f, err := Feed(ask)
			if err != nil {
				t.Fatal(e.ID, err)
			}
			for _, a := range f.Amounts {
				if a.Product > 0 {
					t.Errorf("%s: %g of %s without a card", e.ID, a.Product, a.What)
				}
				if a.What == "feed" && f.None || a.What == "compost" && (f.None || ask.PotL > 0) || a.What == "mulch" && ask.PotL > 0 {
					t.Errorf("%s: %s, %s", e.ID, a.What, f.Text)
				}
				if a.What == "lime" && (e.Genus() == "Rhododendron" || e.Genus() == "Camellia") {
					t.Errorf("%s: lime", e.ID)
				}
			}
		}
	}
}

// TestFeedingOrder: a season's feeding is one job that comes again till its end; what is not fed asks for none.
func TestFeedingOrder(t *testing.T) {
	rose, err := catalogue.Built().Species("rosa-bedding")
	if err != nil {
		t.Fatal(err)
	}
	a := FeedAsk{Species: &rose, Place: place(t, "lake-foothills"), Date: day.Of(2027, 4, 20), Count: 12, BedM2: 6}
	f, err := Feed(a)
	if err != nil {
		t.Fatal(err)
	}
	o, due := f.Order(a)
	if !due || o.Title != "Feed "+rose.Common+" × 12" || o.Params.EveryDays != 30 || o.Params.Spans[0].To.Month() < 8 || o.Minutes < 20 || len(o.Cautions) == 0 {
		t.Errorf("roses: %+v", o)
	}
	vine, err := catalogue.Built().Species("wisteria-sinensis")
	if err != nil {
		t.Fatal(err)
	}
	a.Species = &vine
	if f, err = Feed(a); err != nil {
		t.Fatal(err)
	}
	if o, due := f.Order(a); due {
		t.Errorf("wisteria: %+v", o)
	}
}
