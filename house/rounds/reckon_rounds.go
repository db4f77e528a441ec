package rounds

import (
	"cmp"
	"fmt"
	"time"

	"mezzadro/core/invalid"
	"mezzadro/core/rounds"
)

// ReckonRoundsIn is a problem of rounds with inline values.
type ReckonRoundsIn struct {
	rounds.Problem
	Seconds float64 `json:"seconds,omitempty" minimum:"0" maximum:"30" doc:"How long it may look; 1 when absent"`
	Rounds  int     `json:"rounds,omitempty" minimum:"0" maximum:"100000" doc:"In place of seconds: how often parts are torn down and built up again; the same seed and number give the same plan"`
	Seed    uint64  `json:"seed,omitempty"`
	Explain []int   `json:"explain,omitempty" maxItems:"50" doc:"Indices of jobs of which every other day is asked"`
}

// ReckonRoundsOut is the plan, and what was asked of it.
type ReckonRoundsOut struct {
	rounds.Plan
	Why []rounds.Why `json:"why" doc:"Of the jobs that were asked for, in that order"`
}

// reckonedFloor is how many rounds a bound is looked for at most where the number of rounds is given.
const reckonedFloor = 60

// ReckonRounds plans from inline values, storing nothing.
func (h *Room) ReckonRounds(in ReckonRoundsIn) (ReckonRoundsOut, error) {
	goOn, floorOn := rounds.Rounds(in.Rounds), rounds.Rounds(min(in.Rounds, reckonedFloor))
	if in.Rounds == 0 {
		from, span := time.Now(), time.Duration(cmp.Or(in.Seconds, 1)*float64(time.Second))
		goOn = func(int, float64) (float64, bool) {
			done := min(1, float64(time.Since(from))/float64(span))
			return done, done < 1
		}
		floorOn = goOn
	}
	out := ReckonRoundsOut{Why: []rounds.Why{}}
	var bad invalid.Fields
	for i, j := range in.Explain {
		if j < 0 || j >= len(in.Jobs) {
			bad.Add(fmt.Sprintf("explain[%d]", i), j, "there is no job of that number")
		}
	}
	if bad != nil {
		return out, bad
	}
	floor := make(chan float64, 1)
	go func() {
		least, err := rounds.Floor(&in.Problem, floorOn)
		if err != nil {
			least = 0 // the plan says what is wrong
		}
		floor <- least
	}()
	var err error
	out.Plan, err = rounds.Make(&in.Problem, in.Seed, goOn)
	if out.Raise(<-floor); err != nil {
		return out, err
	}
	for _, j := range in.Explain {
		out.Why = append(out.Why, out.Plan.Explain(j))
	}
	return out, nil
}
