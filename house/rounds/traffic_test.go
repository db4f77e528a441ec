package rounds_test

import (
	"context"
	"errors"
	"testing"

	"mezzadro/core/invalid"
	round "mezzadro/core/rounds"
	"mezzadro/house/housetest"
	"mezzadro/store"
)

// TestTrafficIsKept: rush hours are kept and read by the hour, others come in their place, none takes them away; what
// lies over each other is named and nothing of it is kept.
func TestTrafficIsKept(t *testing.T) {
	k, ctx := housetest.Open(t), context.Background()
	evening, morning := round.Traffic{From: 990, To: 1080, Times: 2}, round.Traffic{From: 420, To: 540, Times: 1.5}
	list, err := k.Team.SetTraffic(ctx, store.Key{}, []round.Traffic{evening, morning})
	if list = housetest.Must(t, list, err); len(list) != 2 || list[0].From != 420 || list[1].Times != 2 || len(list[0].Days) != 0 {
		t.Errorf("kept: %+v", list)
	}
	var bad invalid.Fields
	if _, err := k.Team.SetTraffic(ctx, store.Key{}, []round.Traffic{morning, {From: 500, To: 600, Times: 2}}); !errors.As(err, &bad) ||
		bad[0].Path != "traffic[1].from" {
		t.Errorf("over each other: %v", err)
	}
	if list, err = k.Team.Traffic(ctx); err != nil || len(list) != 2 {
		t.Errorf("after what was refused: %+v, %v", list, err)
	}
	if list, err = k.Team.SetTraffic(ctx, store.Key{}, nil); err != nil || len(list) != 0 {
		t.Errorf("taken away: %+v, %v", list, err)
	}
}
