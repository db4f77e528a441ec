package store

import (
	"context"
	"errors"
	"fmt"
	"math/rand/v2"
	"reflect"
	"sync"
	"testing"

	"mezzadro/core/job"
)

// aGarden is a property with plants, orders on them and a crew, by ids from 1.
func aGarden(t *testing.T, s *Store, plants int) {
	t.Helper()
	err := s.Write(ctx, func(tx Tx) error {
		p, err := tx.AddProperty(ctx, Property{Name: "Weir", ClimateType: "lake-foothills", Value: 1})
		if err != nil {
			return err
		}
		if _, err := tx.AddCrew(ctx, Crew{Name: "Ilda"}); err != nil {
			return err
		}
		for range plants {
			plant, err := tx.AddPlant(ctx, Plant{PropertyID: p.ID, Species: "olea-europaea", HeightM: 2, SpreadM: 1, Count: 1, Value: 1})
			if err != nil {
				return err
			}
			o := job.Order{Key: "hand", Kind: job.Prune, Title: "Shape", Origin: job.Hand, For: 20_000, Minutes: 30, Crew: 1}
			if _, err := tx.AddOrder(ctx, NewOrder{PropertyID: p.ID, Plants: []int64{plant.ID}, Order: o}); err != nil {
				return err
			}
		}
		return nil
	})
	if err != nil {
		t.Fatal(err)
	}
}

// oneOf is a write of any of the tables that a standing order is told by, to rows with ids up to n.
func oneOf(r *rand.Rand, n int) string {
	id, other := r.IntN(n)+1, r.IntN(n)+1
	all := []string{
		`UPDATE job_order SET minutes = minutes + 1 WHERE id = %d`,
		`UPDATE job_order SET state = 'done', ended = '2027-03-01' WHERE id = %d`,
		`UPDATE job_order SET state = 'waiting', ended = NULL WHERE id = %d`,
		`UPDATE job_order SET in_sight = 1 - in_sight WHERE id = %d`,
		`UPDATE job_order SET crew_id = 1, day = '2027-03-02', state = 'on a day' WHERE id = %d`,
		`UPDATE job_order SET plant_id = NULL WHERE id = %d`,
		`UPDATE plant SET label = label || 'x' WHERE id = %d`,
		`UPDATE property SET name = name || 'x' WHERE id = 1 AND %d > 0`,
		`UPDATE crew SET name = name || 'x' WHERE id = 1 AND %d > 0`,
		`INSERT INTO order_stint (order_id, kind, day, reason, was_minutes) VALUES (%d, 'not today', '2027-03-01', 'rain', 30)`,
		`UPDATE order_stint SET undone = 1 WHERE order_id = %d`,
		`DELETE FROM order_stint WHERE order_id = %d`,
		`INSERT INTO order_plant (order_id, plant_id) VALUES (%d, ` + fmt.Sprint(other) + `) ON CONFLICT DO NOTHING`,
		`DELETE FROM order_plant WHERE order_id = %d`,
		`INSERT INTO job_order (property_id, origin, kind, title, for_day, minutes) SELECT 1, 'hand', 'prune', 'Thin', '2027-01-01', 9 WHERE %d > 0`,
	}
	return fmt.Sprintf(all[r.IntN(len(all))], id)
}

// TestStandingOrdersAreAsWritten: what is kept of them is what the record says, after any write and after one that came to nothing.
func TestStandingOrdersAreAsWritten(t *testing.T) {
	const plants = 12
	s := open(t, t.TempDir())
	aGarden(t, s, plants)
	r := rand.New(rand.NewPCG(1, 1))
	came := errors.New("it came to nothing")
	for n := range 600 {
		write := s.Write
		if n%3 == 0 {
			write = s.WriteQuietly
		}
		err := write(ctx, func(tx Tx) error {
			for range 1 + r.IntN(3) {
				if _, err := tx.ExecContext(ctx, oneOf(r, plants+4)); err != nil && r.IntN(2) == 0 {
					return err
				}
			}
			if n%7 == 0 {
				return came
			}
			return nil
		})
		if n%7 == 0 && err == nil {
			t.Fatal("the write that was to come to nothing was kept")
		}
		if n%4 != 0 {
			asWritten(t, s)
		}
		if t.Failed() {
			t.Fatalf("after write %d", n)
		}
	}
	gone, cancel := context.WithCancel(ctx)
	cancel()
	if err := s.Write(ctx, func(tx Tx) error {
		_, err := tx.ExecContext(ctx, `UPDATE job_order SET minutes = minutes + 1`)
		return err
	}); err != nil {
		t.Fatal(err)
	}
	if _, err := s.StandingOrders(gone); err == nil {
		t.Error("read although nobody waits for it any more")
	}
	asWritten(t, s)
}

func asWritten(t *testing.T, s *Store) {
	t.Helper()
	got, err := s.StandingOrders(ctx)
	want, fault := many[OrderFull](ctx, s.read, selectFull+`WHERE `+standing+` ORDER BY o.id`)
	if err = errors.Join(err, fault); err != nil {
		t.Fatal(err)
	}
	if len(got) != len(want) {
		t.Errorf("%d stand, want %d", len(got), len(want))
		return
	}
	for i := range want {
		if !reflect.DeepEqual(*got[i], want[i]) {
			t.Errorf("order %d is kept as\n%+v, want\n%+v", want[i].ID, *got[i], want[i])
		}
	}
}

// TestStandingOrdersBesideWrites: read while others write, they come to what is written; what was read before stays as it was.
func TestStandingOrdersBesideWrites(t *testing.T) {
	s := open(t, t.TempDir())
	aGarden(t, s, 6)
	first, err := s.StandingOrders(ctx)
	if err != nil {
		t.Fatal(err)
	}
	minutes := first[0].Minutes
	var wg sync.WaitGroup
	for worker := range 4 {
		wg.Go(func() {
			r := rand.New(rand.NewPCG(2, uint64(worker)))
			for range 40 {
				if worker%2 == 0 {
					_, err := s.StandingOrders(ctx)
					if err != nil {
						t.Error(err)
					}
					continue
				}
				err := s.Write(ctx, func(tx Tx) error { _, err := tx.ExecContext(ctx, oneOf(r, 6)); return err })
				if err != nil {
					t.Error(err)
				}
			}
		})
	}
	wg.Wait()
	asWritten(t, s)
	if first[0].Minutes != minutes {
		t.Error("a list that was read before has changed")
	}
}
