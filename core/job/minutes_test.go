package job

import "testing"

// TestMinutes: what somebody who has done it would reckon with.
func TestMinutes(t *testing.T) {
	for _, c := range []struct {
		what      string
		got       int
		low, high int
	}{
		{"one shrub planted", PlantingMinutes(1), 30, 60},
		{"ten perennials planted", PlantingMinutes(10), 100, 200},
		{"five hundred bulbs are more than a day", PlantingMinutes(500), 480, 960},
		{"twenty litres given", WateringMinutes(20), 8, 20},
		{"a new hedge of thirty watered", WateringMinutes(600), 90, 240},
		{"one pot brought in", WinterMinutes(1), 5, 15},
		{"twelve pots brought in", WinterMinutes(12), 60, 120},
		{"one rose looked at", LookJobMinutes(1), 3, 10},
		{"forty roses looked at", LookJobMinutes(40), 60, 180},
		{"a visit after a call", VisitMinutes(), 15, 40},
	} {
		if c.got < c.low || c.got > c.high {
			t.Errorf("%s: %d minutes, want %d to %d", c.what, c.got, c.low, c.high)
		}
	}
	for n := 1; n < 200; n++ {
		if PlantingMinutes(n+1) < PlantingMinutes(n) || WinterMinutes(n+1) < WinterMinutes(n) || LookJobMinutes(n+1) < LookJobMinutes(n) {
			t.Fatalf("%d take longer than %d", n, n+1)
		}
	}
}
