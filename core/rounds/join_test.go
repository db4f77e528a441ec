package rounds

import (
	"testing"
)

// TestJoins: what needs more people than any crew has is done by two crews who come at the same time, first thing in the
// day that suits it best; where they cannot, nobody is sent.
func TestJoins(t *testing.T) {
	at, hill := &Point{45.9, 8.5}, &Point{45.95, 8.6}
	pair := func() []Crew {
		return []Crew{
			{Name: "A", Size: 2, Hours: week(8, 17), Start: at},
			{Name: "B", Size: 2, Hours: week(7, 16), Start: hill, Skills: []string{"climbing"}},
			{Name: "C", Size: 1, Hours: week(8, 17), Start: at},
		}
	}
	cases := []struct {
		name   string
		job    Job
		change func(p *Problem)
		day    int // -1: they do not join
	}{
		{
			"four people: A and B, on its best day",
			Job{Minutes: 120, People: 4, Costs: []int{30, 10, 0, 20, 40}},
			nil,
			2,
		},
		{
			"three people: a crew that is too few joins one that is nearly enough",
			Job{Minutes: 120, People: 3, Costs: []int{0, 0, 0, 0, 0}},
			nil,
			0,
		},
		{"two people: one crew is enough", Job{Minutes: 120, People: 2, Costs: []int{0, 0, 0, 0, 0}}, nil, -1},
		{"five people: two crews are not enough", Job{Minutes: 120, People: 6, Costs: []int{0, 0, 0, 0, 0}}, nil, -1},
		{
			"one of them climbs",
			Job{Minutes: 120, People: 4, Skills: []string{"climbing"}, Costs: []int{0, 0, 0, 0, 0}},
			nil,
			0,
		},
		{
			"two people, and who climbs is alone",
			Job{Minutes: 120, People: 2, Skills: []string{"grafting"}, Costs: []int{0, 0, 0, 0, 0}},
			func(p *Problem) { p.Crews[2].Skills = []string{"grafting"} },
			0,
		},
		{
			"skills that no crew has together",
			Job{Minutes: 120, People: 1, Skills: []string{"climbing", "chainsaw"}, Costs: []int{0, 0, 0, 0, 0}},
			func(p *Problem) { p.Crews[2].Skills = []string{"chainsaw"} },
			-1,
		},
		{
			"nobody of them is licensed",
			Job{Minutes: 120, People: 4, Skills: []string{"licence"}, Costs: []int{0, 0, 0, 0, 0}},
			nil,
			-1,
		},
		{"a day on which one is off does not do", Job{Minutes: 120, People: 4, Costs: []int{0, 5, 9, 9, 9}},
			func(p *Problem) { p.Crews[1].Hours[1] = Span{} }, 1},
		{"longer than the hours they share", Job{Minutes: 560, People: 4, Costs: []int{0, 0, 0, 0, 0}}, nil, -1},
		{
			"a shut property",
			Job{Minutes: 60, People: 4, Costs: []int{0, 0, 0, 0, 0}},
			func(p *Problem) { p.Places[0].Access[1] = Span{600, 700} },
			0,
		},
	}
	for _, c := range cases {
		p := &Problem{
			From:   monday,
			Days:   5,
			Crews:  pair(),
			Places: []Place{{Name: "G", At: &Point{45.92, 8.53}}},
			Jobs:   []Job{c.job},
		}
		if c.change != nil {
			c.change(p)
		}
		got, joined := p.Joins()[0]
		if !joined || c.day < 0 {
			if joined != (c.day >= 0) {
				t.Errorf("%s: joined %v", c.name, joined)
			}
			continue
		}
		if got.Day != c.day {
			t.Errorf("%s: on day %d, want %d", c.name, got.Day, c.day)
		}
		// Both are there when it begins, and it is ended before either has to go home.
		whole := p
		whole.Jobs = []Job{}
		for _, crew := range got.Crews {
			half := c.job
			half.Minutes, half.People, half.Skills = got.Minutes, p.Crews[crew].Size, nil
			half.Pin = &Pin{Crew: crew, Day: got.Day, At: got.At}
			whole.Jobs = append(whole.Jobs, half)
		}
		plan, err := Make(whole, 1, Rounds(10))
		if err != nil || len(plan.Visits) != 2 || len(plan.Left) > 0 || plan.Visits[0].From != plan.Visits[1].From ||
			plan.Score.Overtime > 0 {
			t.Errorf("%s: %+v %+v %v", c.name, plan.Visits, plan.Left, err)
		}
	}
}

// TestSafeJoinsFirst: of two jobs for both crews what makes safe has the first morning, whichever was entered first.
func TestSafeJoinsFirst(t *testing.T) {
	at := &Point{45.9, 8.5}
	p := &Problem{From: monday, Days: 5, Places: []Place{{Name: "G", At: at}},
		Crews: []Crew{{Name: "A", Size: 1, Hours: week(8, 17), Start: at}, {Name: "B", Size: 1, Hours: week(8, 17), Start: at}},
		Jobs:  []Job{{Minutes: 60, People: 2, Costs: []int{0, 0, 0, 0, 0}}, {Minutes: 60, People: 2, Urgent: true, Costs: []int{0, 0, 0, 0, 0}}}}
	if got := p.Joins(); got[1].Day != 0 || got[0].Day != 1 {
		t.Errorf("the limb on day %d, the other on day %d", got[1].Day, got[0].Day)
	}
}
