package outcome

import (
	"testing"

	"mezzadro/core/catalogue"
	"mezzadro/core/day"
)

func TestAgainstThePrognosis(t *testing.T) {
	lake, err := catalogue.Built().Climate("lake-foothills")
	if err != nil {
		t.Fatal(err)
	}
	c := lake.Climate
	verdict := day.Of(2027, 3, 18)
	two := Prognosis{SeasonsLow: 2, SeasonsHigh: 3, Chance: 0.8}
	for _, x := range []struct {
		name  string
		p     Prognosis
		on    day.Day
		state string
		as    string
		n     int
	}{
		{"right after one", two, day.Of(2027, 10, 1), TurnedRight, "better", 1},
		{"right after two", two, day.Of(2028, 9, 1), TurnedRight, "as foretold", 2},
		{"right after five", two, day.Of(2031, 9, 1), TurnedRight, "slower", 5},
		{"alive in the first", two, day.Of(2027, 5, 1), TurnedAlive, "too early", 0},
		{"alive, not right, after five", two, day.Of(2031, 9, 1), TurnedAlive, "slower", 5},
		{"dead against the odds", two, day.Of(2027, 9, 1), TurnedDead, "worse", 1},
		{"dead as feared", Prognosis{SeasonsLow: 2, SeasonsHigh: 3, Chance: 0.2}, day.Of(2027, 9, 1), TurnedDead, "as feared", 1},
		{"given up, and it came", Prognosis{}, day.Of(2027, 9, 1), TurnedAlive, "better", 1},
	} {
		if got := x.p.Against(c, verdict, x.on, x.state); got.As != x.as || got.Seasons != x.n || got.Text == "" {
			t.Errorf("%s: %+v, want %s after %d", x.name, got, x.as, x.n)
		}
	}
}
