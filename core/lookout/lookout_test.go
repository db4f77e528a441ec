package lookout

import (
	"testing"

	"mezzadro/core/day"
	"mezzadro/core/weather"
)

var feb = day.Of(2027, 2, 26)

func TestSettles(t *testing.T) {
	for _, c := range []struct {
		decision string
		on       day.Day
		want     bool
	}{{"accepted", feb, true}, {"accepted", feb + 10, true}, {"overruled", feb + 1, true}, {"accepted", feb - 1, false}, {PutOff, feb + 10, false}} {
		if got := Settles(c.decision, c.on, feb); got != c.want {
			t.Errorf("%s on %s settles a look after %s: %v", c.decision, c.on, feb, got)
		}
	}
	if StillTells(feb-1, feb) || !StillTells(feb, feb) || !StillTells(feb-100, day.None) {
		t.Error("what was found before an event still tells after it, or does not without one")
	}
}

func TestOneEvent(t *testing.T) {
	for _, c := range []struct {
		kind     string
		from, to day.Day
		want     bool
	}{{weather.Freeze, feb, feb + 1, true}, {weather.Freeze, feb + 1, feb + 3, true}, {weather.Freeze, feb + 2, feb + 3, false}, {weather.Gale, feb, feb, false}} {
		if got := OneEvent(weather.Freeze, feb-1, feb+1, c.kind, c.from, c.to); got != c.want {
			t.Errorf("%s from %s: %v", c.kind, c.from, got)
		}
	}
}

func TestOrder(t *testing.T) {
	events := []Struck{{weather.Gale, 22, feb, 3}, {weather.Freeze, -11, feb, 60}, {weather.Freeze, -3, feb + 15, 0}, {weather.LateFrost, -2, feb + 18, 40}}
	Order(events, feb+20, func(s Struck) Struck { return s })
	if events[0].Kind != weather.LateFrost || events[1].Hurt != 60 || events[3].Hurt != 0 {
		t.Errorf("%+v", events)
	}
	// A frost is deeper the colder it was, wind the stronger it blew.
	if Deeper(Struck{Kind: weather.Freeze, Value: -11}, Struck{Kind: weather.Freeze, Value: -9}) >= 0 ||
		Deeper(Struck{Kind: weather.Gale, Value: 25}, Struck{Kind: weather.Gale, Value: 20}) >= 0 {
		t.Error("the milder event comes first")
	}
}
