package overwinter

import (
	"fmt"

	"mezzadro/core/day"
	"mezzadro/core/quantity"
	"mezzadro/core/season"
)

// Forced is a kind of bulb that blooms early in a pot when it has had its cold.
type Forced struct {
	Cold int `yaml:"cold"` // weeks of cold that it needs
	Cool int `yaml:"cool"` // weeks in the cold house, until the shoots stand a finger high
	Warm int `yaml:"warm"` // weeks in a warm light room until it blooms
}

// CanForce reports a kind that is forced.
func CanForce(id string) bool {
	_, ok := book().Forced[id]
	return ok
}

// coldC is up to what mean outside air gives the cold that bulbs need, °C.
const coldC = 9.0

// Force works back from the day on which a bulb is to bloom. Its error is a kind that is not forced.
func Force(id string, bloom day.Day, y *season.Year) (Wintering, error) {
	f, ok := book().Forced[id]
	if !ok {
		return Wintering{}, fmt.Errorf("%s is no bulb that is forced", id)
	}
	warm := bloom - day.Day(7*f.Warm)
	cool := warm - day.Day(7*f.Cool)
	pot := cool - day.Day(7*f.Cold)
	out := Wintering{
		Way:    CarryIn,
		Chance: 0.9,
		Steps:  []Step{},
		Keep:   &Keep{LeastC: 5, MostC: 10, Light: "bright", M2: 0.05, Water: "Even."},
		How:    []string{},
		Never:  []string{},
	}
	enough := 0
	for d := pot; d < cool; d++ {
		if y.Normals.Mean(d) <= coldC {
			enough++
		}
	}
	where := "outside under leaves or sand, out of the rain"
	if enough < int(cool-pot)*3/4 {
		where = fmt.Sprintf("in a refrigerator or cold store at %s to %s, away from fruit: it is too warm outside",
			quantity.Temperature(4), quantity.Temperature(8))
	}
	out.step(
		"Pot them closely, tips just showing, and set them "+where,
		pot,
		pot+7,
		fmt.Sprintf("%d weeks of cold before they may grow", f.Cold),
	)
	out.step(
		fmt.Sprintf("Into the cold house, light, %s to %s", quantity.Temperature(5), quantity.Temperature(10)),
		cool,
		cool+4,
		"when the shoots stand a finger high and the roots show",
	)
	out.step(fmt.Sprintf("Into a warm light room, %s to %s", quantity.Temperature(15), quantity.Temperature(18)), warm, warm+3, fmt.Sprintf("%d weeks to bloom", f.Warm))
	out.step("In bloom", bloom, bloom+10, "longer where it is cool")
	out.Why = "Too little cold gives short stems and blind buds: rather a week more than one less."
	return out, nil
}
