package estate_test

import (
	"context"
	"encoding/json"
	"fmt"
	"net/http"
	"net/http/httptest"
	"sync"
	"testing"
	"time"

	"mezzadro/core/day"
	"mezzadro/exchange"
	"mezzadro/house/housetest"
)

// TestSkiesOfMany: a station is asked for the weather ahead of many properties at once, but not of all together; what it
// told is not asked for again that day; and where it fails for one, it is not asked for all the others.
func TestSkiesOfMany(t *testing.T) {
	const properties = 30
	k := housetest.Open(t)
	ctx := context.Background()
	for i := range properties {
		k.Property(fmt.Sprintf("Mill Race %d", i), "lake-foothills")
	}
	var mu sync.Mutex
	asked, now, most, fails := 0, 0, 0, true
	station := httptest.NewServer(http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		mu.Lock()
		asked, now = asked+1, now+1
		most = max(most, now)
		broken := fails
		mu.Unlock()
		time.Sleep(20 * time.Millisecond)
		mu.Lock()
		now--
		mu.Unlock()
		if broken {
			http.Error(w, "out of order", http.StatusInternalServerError)
			return
		}
		on, _ := day.Parse(r.URL.Query().Get("from"))
		_ = json.NewEncoder(w).Encode(exchange.OutlookReply{Days: []exchange.OutlookDay{{Day: on, RainMM: 7, MinC: 2, MaxC: 9}}})
	}))
	defer station.Close()
	k.Estate.Station = &exchange.Station{URL: station.URL, Client: station.Client()}
	skies := func() int {
		t.Helper()
		s, err := k.Estate.SkiesAhead(ctx)
		return len(housetest.Must(t, s, err))
	}
	if n := skies(); n != 0 || asked >= properties {
		t.Errorf("a station that is out of order was asked %d times and told of %d properties", asked, n)
	}
	asked, most, fails = 0, 0, false // those that were called off may still be in hand
	if n := skies(); n != properties || asked != properties || most < 2 || most > 16 {
		t.Errorf("asked %d times for %d properties, %d at once; %d were told", asked, properties, most, n)
	}
	if n := skies(); n != properties || asked != properties {
		t.Errorf("asked %d times for %d properties on one day", asked, properties)
	}
}
