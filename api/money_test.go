package api_test

import (
	"encoding/json"
	"fmt"
	"reflect"
	"regexp"
	"strings"
	"sync"
	"testing"

	. "mezzadro/api"
	"mezzadro/house/firm"
	"mezzadro/house/treat"
)

// priceTag finds what is a price by its name in an answer, with a figure above 0, and words of money in texts.
var priceTag = regexp.MustCompile(`"(price|per_plant)":(0\.[0-9]*[1-9]|[1-9])|` +
	`"takes":\{[^}]*"cost":(0\.[0-9]*[1-9]|[1-9])|[Pp]lants for [0-9.]+ at|8246|9137`)

// TestCrewReadsNoPrice goes through all that the crew may read of the sample, after the firm gave prices: no answer
// holds one, while the planner's do.
func TestCrewReadsNoPrice(t *testing.T) {
	t.Parallel()
	h := sampleHouse(t)
	staff := h.staff()
	planner, crew := staff[firm.RolePlanner], staff[firm.RoleCrew]
	planner.must("PUT", "/kinds/taxus-baccata", obj{"price": 8246.5, "banned": false})
	planner.must("POST", "/properties/1/planting", obj{"kinds": []obj{{"species": "taxus-baccata", "count": 3}}})
	var cards Run[treat.Product]
	if err := json.Unmarshal([]byte(planner.must("GET", "/products", nil)), &cards); err != nil || len(cards.Items) == 0 {
		t.Fatal(err)
	}
	told, read := 0, 0
	for path, item := range operations() {
		op := item["GET"]
		if op == nil || strings.Contains(path, "{token}") || strings.HasSuffix(path, ".zip") {
			continue
		}
		for id := range 40 {
			p := strings.TrimPrefix(path, "/api/v1")
			one := regexp.MustCompile(`\{[a-z_]+\}`).ReplaceAllString(p, fmt.Sprint(id+1))
			if one == p && id > 0 {
				break
			}
			if strings.Contains(one, "rounds") && !strings.Contains(one, "?") {
				one += "?day=" + h.today.String() + "&from=" + h.today.String()
			}
			code, body := crew.do("GET", one, nil)
			if code != 200 {
				continue
			}
			read++
			if m := priceTag.FindString(body); m != "" {
				t.Errorf("the crew reads a price: GET %s holds %q", one, m)
			}
			if _, body := planner.do("GET", one, nil); priceTag.MatchString(body) {
				told++
			}
		}
	}
	if read < 200 || told < 2 {
		t.Errorf("%d answers were read, %d hold prices for a planner", read, told)
	}
}

// purse is a type that holds itself, with money in it.
type purse struct {
	Inner *purse  `json:"inner"`
	Price float64 `json:"price" money:"true"`
	Name  string  `json:"name"`
}

// TestMoneyIsFoundAtOnce: also of a type that many ask for at once for the first time, and of one that holds itself.
func TestMoneyIsFoundAtOnce(t *testing.T) {
	t.Parallel()
	v := []purse{{Name: "outer", Price: 3, Inner: &purse{Name: "inner", Price: 4}}}
	var all sync.WaitGroup
	for range 50 {
		all.Go(func() {
			if got := WithoutMoney(reflect.ValueOf(v)).Interface().([]purse); got[0].Price != 0 || got[0].Inner.Price != 0 ||
				got[0].Name != "outer" || got[0].Inner.Name != "inner" {
				t.Errorf("left: %+v %+v", got[0], got[0].Inner)
			}
		})
	}
	all.Wait()
	if v[0].Price != 3 || v[0].Inner.Price != 4 {
		t.Errorf("what others hold was changed: %+v", v[0])
	}
}
