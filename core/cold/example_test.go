package cold_test

import (
	"fmt"

	"mezzadro/core/catalogue"
	"mezzadro/core/cold"
	"mezzadro/core/quantity"
)

// What a shrub that bears −17 °C in midwinter bears through the year.
func ExampleBears() {
	shrub := catalogue.Entry{HardinessC: -17, Form: catalogue.Shrub, LeafSeason: catalogue.Deciduous}
	for _, at := range []struct {
		when  string
		share float64
	}{{"in July", 0}, {"in a mild November", 0.5}, {"in January", 1}, {"after a warm February", 0.55}} {
		w, b := cold.Bears(&shrub, at.share)
		wood, buds := quantity.FineTemperature(w), quantity.FineTemperature(b)
		fmt.Println(quantity.Metric.Text(fmt.Sprintf("%s: wood %s, buds %s", at.when, wood, buds)))
	}
	// Output:
	// in July: wood −3.8 °C, buds −3.8 °C
	// in a mild November: wood −10.4 °C, buds −9.4 °C
	// in January: wood −17.0 °C, buds −15.0 °C
	// after a warm February: wood −11.1 °C, buds −10.0 °C
}
