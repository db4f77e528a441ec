package cold_test

import (
	"fmt"

	"mezzadro/core/cold"
	"mezzadro/core/quantity"
)

// What a shrub that bears −17 °C in midwinter bears through the year.
func ExampleWoodKillC() {
	for _, at := range []struct {
		when  string
		share float64
	}{{"in July", 0}, {"in a mild November", 0.3}, {"in January", 1}, {"after a warm February", 0.55}} {
		wood, buds := quantity.FineTemperature(cold.WoodKillC(-17, at.share)), quantity.FineTemperature(cold.BudKillC(-17, at.share))
		fmt.Println(quantity.Metric.Text(fmt.Sprintf("%s: wood %s, buds %s", at.when, wood, buds)))
	}
	// Output:
	// in July: wood −2.5 °C, buds −1.0 °C
	// in a mild November: wood −6.8 °C, buds −4.8 °C
	// in January: wood −17.0 °C, buds −15.0 °C
	// after a warm February: wood −10.5 °C, buds −8.5 °C
}
