package outcome

import (
	"testing"
	"time"

	"mezzadro/core/catalogue"
	"mezzadro/core/day"
)

// TestDue: when somebody is to look how a plant turned out, as a gardener would: whether it lives by the day on which
// a living one would show leaf; whether it looks right at the end of each season in which it may; never again once it
// is right or dead; a plant that was taken out at once, so that not only those that live are counted.
func TestDue(t *testing.T) {
	spring, patience := day.Of(2027, 3, 18), day.Of(2027, 5, 20)
	slow := Given{Day: spring, Patience: patience, Prognosis: Prognosis{SeasonsLow: 1, SeasonsHigh: 2, Chance: 0.7}}
	lost := Given{Day: spring, Patience: patience}
	unhurt := Given{Day: spring, Prognosis: Prognosis{Chance: 1}}
	south := Given{
		Day:       day.Of(2027, 9, 20),
		Patience:  day.Of(2027, 11, 15),
		Prognosis: Prognosis{SeasonsLow: 1, SeasonsHigh: 1, Chance: 0.9},
	}
	gone := lost
	gone.Gone = day.Of(2027, 4, 2)
	alive := func(y int, m time.Month, d int) *Found { return &Found{day.Of(y, m, d), TurnedAlive} }
	for _, c := range []struct {
		what    string
		climate string
		given   Given
		last    *Found
		on      day.Day
		asks    string
	}{
		{"waited for, before its day", "lake-foothills", slow, nil, day.Of(2027, 5, 10), ""},
		{"waited for, on its day", "lake-foothills", slow, nil, day.Of(2027, 5, 20), Alive},
		{"found alive, the same summer", "lake-foothills", slow, alive(2027, 5, 25), day.Of(2027, 7, 20), ""},
		{"found alive, the first autumn", "lake-foothills", slow, alive(2027, 5, 25), day.Of(2027, 10, 5), Right},
		{"on its way in the first autumn, in winter", "lake-foothills", slow, alive(2027, 10, 6), day.Of(2028, 2, 1), ""},
		{"on its way in the first autumn, the second", "lake-foothills", slow, alive(2027, 10, 6), day.Of(2028, 10, 5), Right},
		{"on its way long after", "lake-foothills", slow, alive(2029, 11, 1), day.Of(2032, 10, 5), ""},
		{"never looked at, the first autumn", "lake-foothills", slow, nil, day.Of(2027, 10, 5), Right},
		{"right again", "lake-foothills", slow, &Found{day.Of(2027, 10, 6), TurnedRight}, day.Of(2028, 10, 5), ""},
		{"dead", "lake-foothills", slow, &Found{day.Of(2027, 6, 6), TurnedDead}, day.Of(2027, 10, 5), ""},
		{"to be replaced, still there in May", "lake-foothills", lost, nil, day.Of(2027, 5, 21), Alive},
		{"taken out", "lake-foothills", gone, nil, day.Of(2027, 4, 3), Alive},
		{"taken out, seen alive then", "lake-foothills", gone, alive(2027, 4, 2), day.Of(2027, 10, 5), ""},
		{"in autumn, by a day of the spring before", "lake-foothills", Given{Day: day.Of(2027, 10, 19), Patience: patience}, nil, day.Of(2027, 10, 20), ""},
		{"unhurt, in summer", "lake-foothills", unhurt, nil, day.Of(2027, 7, 1), ""},
		{"unhurt, in autumn", "lake-foothills", unhurt, nil, day.Of(2027, 10, 5), Right},
		{"in the south, its November", "south-africa-highveld", south, nil, day.Of(2027, 11, 16), Alive},
		{"in the south, its autumn", "south-africa-highveld", south, alive(2027, 11, 20), day.Of(2028, 4, 10), Right},
		{"in the south, its summer", "south-africa-highveld", south, alive(2027, 11, 20), day.Of(2028, 1, 10), ""},
	} {
		k, err := catalogue.Built().Climate(c.climate)
		if err != nil {
			t.Fatal(err)
		}
		ask, due := Due(k.Climate, c.given, c.last, c.on)
		if due != (c.asks != "") || due && (ask.What != c.asks || ask.Since > c.on) {
			t.Errorf("%s: asks %+v, want %q", c.what, ask, c.asks)
		}
	}
}
