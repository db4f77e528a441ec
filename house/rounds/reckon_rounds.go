package rounds

import (
	"cmp"
	"context"
	"fmt"
	"runtime/debug"
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

// longestReckoned ends a search whatever number of rounds was asked for.
const longestReckoned = 30 * time.Second

// ReckonRounds plans from inline values, storing nothing. It ends with the context: nobody waits for it any more.
func (h *Room) ReckonRounds(ctx context.Context, in ReckonRoundsIn) (ReckonRoundsOut, error) {
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
	span, from := time.Duration(cmp.Or(in.Seconds, 1)*float64(time.Second)), time.Now()
	if in.Rounds > 0 {
		span = longestReckoned
	}
	until := func(rounds int, share float64) func(int, float64) (float64, bool) {
		return func(n int, _ float64) (float64, bool) {
			passed := min(1, float64(time.Since(from))/(share*float64(span)))
			done := passed
			if rounds > 0 { // the clock only ends it: the same number of rounds is to give the same plan
				done = float64(n) / float64(rounds)
			}
			return done, done < 1 && passed < 1 && ctx.Err() == nil
		}
	}
	floor := make(chan float64, 1)
	go func() {
		defer close(floor) // what breaks gives no floor
		defer func() {
			if broke := recover(); broke != nil {
				h.Log.ErrorContext(ctx, "rounds", "panic", broke, "stack", string(debug.Stack()))
			}
		}()
		goOn := until(min(in.Rounds, reckonedFloor), floorShare(&in.Problem))
		if least, err := rounds.Floor(&in.Problem, goOn); err == nil { // else the plan says what is wrong
			floor <- least
		}
	}()
	var err error
	out.Plan, err = rounds.Make(&in.Problem, in.Seed, until(in.Rounds, 1))
	if out.Raise(<-floor); err != nil {
		return out, err
	}
	for _, j := range in.Explain {
		out.Why = append(out.Why, out.Plan.Explain(j))
	}
	return out, ctx.Err()
}
