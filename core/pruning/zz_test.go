package pruning

import (
	"fmt"
	"os"
	"strings"
	"testing"
	"time"

	"mezzadro/core/day"
)

func TestZZ(t *testing.T) {
	for _, q := range strings.Split(os.Getenv("ZZ"), ";") {
		f := strings.Split(q, ",")
		if len(f) < 4 {
			continue
		}
		e := entry(t, f[0])
		p, err := For(Ask{Species: e, Place: year(t, f[1]), Date: day.Of(2027, 3, 1), Purpose: Purpose(f[2])})
		if err != nil {
			fmt.Println(err)
			continue
		}
		var m int
		fmt.Sscan(f[3], &m)
		fmt.Println(q, p.Class, p.Text)
		for d := p.Curve.Start; d < p.Curve.Start+day.Day(p.Curve.Days); d++ {
			if d.Month() == time.Month(m) && (d.DayOfMonth() == 8 || d.DayOfMonth() == 22) {
				s := []string{}
				for _, w := range p.Curve.Why(d) {
					s = append(s, fmt.Sprint(w))
				}
				fmt.Println("   ", d, p.Curve.On(d).Int(), s)
			}
		}
	}
}
