package store

import (
	"context"
	"errors"
	"fmt"
	"io/fs"
	"math"
	"os"
	"path/filepath"
	"strings"
	"sync"
	"testing"
	"time"

	"mezzadro/core/catalogue"
	"mezzadro/core/check"
	"mezzadro/core/damage"
	"mezzadro/core/job"
	"mezzadro/core/season"
	"mezzadro/core/weather"
)

var ctx = context.Background()

func open(t testing.TB, folder string) *Store {
	t.Helper()
	s, err := Open(ctx, folder)
	if err != nil {
		t.Fatal(err)
	}
	t.Cleanup(func() { _ = s.Close() })
	return s
}

func write[T any](t testing.TB, s *Store, f func(tx Tx) (T, error)) T {
	t.Helper()
	out, err := Once(ctx, s, Key{}, f)
	if err != nil {
		t.Fatal(err)
	}
	return out
}

func grounds(t testing.TB, s *Store) (Property, Plant) {
	t.Helper()
	c, err := catalogue.Built().Climate("lake-foothills")
	if err != nil {
		t.Fatal(err)
	}
	p := write(t, s, func(tx Tx) (Property, error) {
		return tx.AddProperty(ctx, Property{Name: "Villa Lumera", Zone: "UTC", Climate: JSON[season.Climate]{V: c.Climate}})
	})
	return p, write(t, s, func(tx Tx) (Plant, error) {
		return tx.AddPlant(ctx, Plant{PropertyID: p.ID, Species: "olea-europaea", HeightM: 3, SpreadM: 2, Count: 1})
	})
}

func TestReopenKeepsAll(t *testing.T) {
	folder := filepath.Join(t.TempDir(), "new", "record")
	s := open(t, folder)
	p, plant := grounds(t, s)
	if err := s.Close(); err != nil {
		t.Fatal(err)
	}
	s = open(t, folder)
	got, err := s.Property(ctx, p.ID)
	if err != nil || got.Name != p.Name || len(got.Climate.V.Normals) != 12 || got.Plants != 1 {
		t.Errorf("%+v, %v", got, err)
	}
	if again, err := s.Plant(ctx, plant.ID); err != nil || again != plant {
		t.Errorf("%+v, %v", again, err)
	}
	if _, err := s.Plant(ctx, 77); !errors.Is(err, ErrNotFound) {
		t.Errorf("a plant that is not there: %v", err)
	}
}

func TestWriteIsAllOrNothing(t *testing.T) {
	s := open(t, t.TempDir())
	p, _ := grounds(t, s)
	broken := errors.New("broken off")
	err := s.Write(ctx, func(tx Tx) error {
		if _, err := tx.AddPlant(ctx, Plant{PropertyID: p.ID, Species: "x", HeightM: 1, SpreadM: 1, Count: 1}); err != nil {
			return err
		}
		return broken
	})
	if !errors.Is(err, broken) {
		t.Errorf("error %v", err)
	}
	if list, _ := s.Plants(ctx, 0, 0, 10); len(list) != 1 {
		t.Errorf("%d plants after a write that broke off", len(list))
	}
	// The record itself refuses what cannot be, whatever the door let through.
	if err := s.Write(ctx, func(tx Tx) error {
		_, err := tx.AddPlant(ctx, Plant{PropertyID: p.ID, Species: "x", HeightM: -1, SpreadM: 1, Count: 1})
		return err
	}); err == nil {
		t.Error("a plant of height -1 was kept")
	}
}

func TestOnceUnderContention(t *testing.T) {
	s := open(t, t.TempDir())
	p, _ := grounds(t, s)
	var wg sync.WaitGroup
	for i := range 40 {
		wg.Go(func() {
			_, err := Once(ctx, s, Key{Key: fmt.Sprintf("key-%d", i%10)}, func(tx Tx) (Plant, error) {
				return tx.AddPlant(ctx, Plant{PropertyID: p.ID, Species: "x", Label: fmt.Sprint(i % 10), HeightM: 1, SpreadM: 1, Count: 1})
			})
			if err != nil {
				t.Error(err)
			}
		})
	}
	wg.Wait()
	if list, _ := s.Plants(ctx, p.ID, 0, 100); len(list) != 11 {
		t.Errorf("%d plants, want the first and one for each of ten keys", len(list))
	}
}

func TestStale(t *testing.T) {
	s := open(t, t.TempDir())
	_, plant := grounds(t, s)
	plant.Label = "first"
	write(t, s, func(tx Tx) (Plant, error) { return tx.ChangePlant(ctx, plant) })
	plant.Label = "second"
	_, err := Once(ctx, s, Key{}, func(tx Tx) (Plant, error) { return tx.ChangePlant(ctx, plant) })
	var stale Stale
	if !errors.As(err, &stale) || stale.Current.(Plant).Label != "first" || stale.Yours != 1 {
		t.Errorf("second change on the first version: %v", err)
	}
}

func TestWeatherRoundTrip(t *testing.T) {
	s := open(t, t.TempDir())
	p, _ := grounds(t, s)
	at := time.Date(2027, 2, 26, 5, 0, 0, 0, time.UTC)
	in := []weather.Hour{{Time: at, TempC: -11, WindMS: 6, RainMM: math.NaN(), RHPct: 60, Sun: 0}, {Time: at.Add(time.Hour), TempC: -10, WindMS: 5, RainMM: 0, RHPct: 61, Sun: math.NaN()}}
	keep := func(property int64) (fresh int, err error) {
		err = s.Write(ctx, func(tx Tx) error {
			fresh, err = tx.KeepWeather(ctx, property, SourceIn{Name: "station", Rank: OfTheRegion}, in)
			return err
		})
		return fresh, err
	}
	for _, want := range []int{2, 0} { // the same hours twice are the same hours, and nothing new
		if fresh, err := keep(p.ID); err != nil || fresh != want {
			t.Fatalf("%d hours are new, want %d (%v)", fresh, want, err)
		}
	}
	out, err := s.Weather(ctx, p.ID, at, at.Add(24*time.Hour))
	for i := range out {
		out[i].Source = 0
	}
	if err != nil || fmt.Sprint(out) != fmt.Sprint(in) {
		t.Errorf("%v came back as %v (%v)", in, out, err)
	}
	if got, _ := s.Property(ctx, p.ID); got.WeatherRev != 1 || got.WeatherSource != "station" {
		t.Errorf("%+v", got)
	}
	in[1].TempC = -9.5
	if fresh, err := keep(p.ID); err != nil || fresh != 1 {
		t.Errorf("one hour was corrected, %d are new (%v)", fresh, err)
	}
	if _, err := keep(99); !errors.Is(err, ErrNotFound) {
		t.Errorf("weather of no property: %v", err)
	}
}

func TestChecksBelongToTheirProperty(t *testing.T) {
	s := open(t, t.TempDir())
	p, plant := grounds(t, s)
	_, elsewhere := grounds(t, s)
	w := write(t, s, func(tx Tx) (Walk, error) { return tx.StartWalk(ctx, p.ID, "2027-03-18") })
	checks := []check.Check{{Kind: check.BudRub, HeightM: 1, Held: 2, Broke: 1}, {Kind: check.Crown, Result: "firm"},
		{Kind: check.BarkRing, HeightM: 0.2, Amount: 0.75, Result: "bridge"}, {Kind: check.Spot, Result: "water_stands", Seen: "yes"}}
	keep := func(plant int64) error {
		return s.Write(ctx, func(tx Tx) error {
			_, err := tx.KeepLook(ctx, Look{WalkID: w.ID, PlantID: plant, Note: "seen", Checks: checks}, nil)
			return err
		})
	}
	if err := keep(plant.ID); err != nil {
		t.Fatal(err)
	}
	if err := keep(elsewhere.ID); !errors.Is(err, ErrNotFound) {
		t.Errorf("checks of a plant elsewhere: %v", err)
	}
	got, err := s.Looks(ctx, w.ID)
	if err != nil || len(got) != 1 || fmt.Sprint(got[0].Checks) != fmt.Sprint(checks) || got[0].Rev != 1 || got[0].Note != "seen" {
		t.Errorf("%v, %v", got, err)
	}
}

// TestTwoWritersOfOneLook: a write that is based on what another has replaced is refused with what is kept now.
func TestTwoWritersOfOneLook(t *testing.T) {
	s := open(t, t.TempDir())
	p, plant := grounds(t, s)
	w := write(t, s, func(tx Tx) (Walk, error) { return tx.StartWalk(ctx, p.ID, "2027-03-18") })
	keep := func(note string, base int) (Look, error) {
		var l Look
		err := s.Write(ctx, func(tx Tx) (err error) {
			l, err = tx.KeepLook(ctx, Look{WalkID: w.ID, PlantID: plant.ID, Note: note, Checks: []check.Check{{Kind: check.Crown, Result: "firm"}}}, &base)
			return err
		})
		return l, err
	}
	if l, err := keep("first", 0); err != nil || l.Rev != 1 {
		t.Fatalf("%+v, %v", l, err)
	}
	_, err := keep("second phone", 0)
	var stale Stale
	if !errors.As(err, &stale) || stale.Current.(Look).Note != "first" || stale.Current.(Look).Rev != 1 {
		t.Errorf("based on nothing, over the first: %v", err)
	}
	if l, err := keep("second phone, joined", 1); err != nil || l.Rev != 2 {
		t.Errorf("based on the first: %+v, %v", l, err)
	}
}

func TestPictures(t *testing.T) {
	folder := t.TempDir()
	s := open(t, folder)
	a, err := s.KeepPicture([]byte("a picture"))
	if err != nil {
		t.Fatal(err)
	}
	if b, err := s.KeepPicture([]byte("a picture")); err != nil || a != b {
		t.Errorf("the same picture twice: %s, %s, %v", a, b, err)
	}
	if got, err := s.Picture(a); err != nil || string(got) != "a picture" {
		t.Errorf("%q, %v", got, err)
	}
	for _, bad := range []string{"", "../mezzadro.db", strings.Repeat("0", 64), strings.Repeat("g", 64)} {
		if _, err := s.Picture(bad); !errors.Is(err, ErrNotFound) {
			t.Errorf("picture %q: %v", bad, err)
		}
	}
	files, err := filepath.Glob(filepath.Join(folder, "photos", "*", "*"))
	if err != nil || len(files) != 1 {
		t.Errorf("files %v, %v", files, err)
	}
}

func BenchmarkKeepVerdict(b *testing.B) {
	s := open(b, b.TempDir())
	p, plant := grounds(b, s)
	w := write(b, s, func(tx Tx) (Walk, error) { return tx.StartWalk(ctx, p.ID, "2027-03-18") })
	answer := damage.Answer{Jobs: []job.Job{{Order: job.Order{Key: "look", Kind: "look", Title: "Look again", Minutes: 10}}}}
	for b.Loop() {
		write(b, s, func(tx Tx) (Decision, error) {
			return tx.KeepVerdict(ctx, Decision{WalkID: w.ID, PlantID: plant.ID, Day: "2027-03-18", Decision: "accepted", Kind: "wait until"}, answer)
		})
	}
}

// TestPrivate: nobody but its owner reads the record, not even in a folder that others may enter, nor what is written
// beside it.
func TestPrivate(t *testing.T) {
	folder := t.TempDir()
	if err := os.Chmod(folder, 0o755); err != nil {
		t.Fatal(err)
	}
	s, err := Open(context.Background(), folder)
	if err != nil {
		t.Fatal(err)
	}
	defer s.Close()
	if _, err := s.KeepPicture([]byte("a picture")); err != nil {
		t.Fatal(err)
	}
	files := 0
	err = filepath.WalkDir(folder, func(path string, e fs.DirEntry, err error) error {
		if err != nil || e.IsDir() {
			return err
		}
		info, err := e.Info()
		if files++; err == nil && info.Mode().Perm()&0o077 != 0 {
			t.Errorf("%s: %v", filepath.Base(path), info.Mode())
		}
		return err
	})
	if err != nil || files < 3 {
		t.Errorf("%d files, %v", files, err)
	}
}

// TestPasskeysEnd: who is signed out everywhere, and who begins anew by a link, has no passkey left; another has.
func TestPasskeysEnd(t *testing.T) {
	ctx := context.Background()
	st, err := Open(ctx, t.TempDir())
	if err != nil {
		t.Fatal(err)
	}
	defer st.Close()
	var ids [3]int64
	write := func(do func(tx Tx) error) {
		t.Helper()
		if err := st.Write(ctx, do); err != nil {
			t.Fatal(err)
		}
	}
	write(func(tx Tx) error {
		for i := range ids {
			a, err := tx.AddAccount(ctx, Account{Login: fmt.Sprint("somebody ", i), Name: "Somebody", Role: "crew", Hash: "x"})
			ids[i] = a.ID
			key := Passkey{AccountID: a.ID, KeyID: []byte{byte(i)}, Data: "{}", Name: "Phone", Made: "2027-03-18"}
			if err = errors.Join(err, tx.AddPasskey(ctx, key)); err != nil {
				return err
			}
		}
		return tx.AddInvitation(ctx, ids[1], "hash", time.Now().Add(time.Hour))
	})
	write(func(tx Tx) error { return tx.EndSessions(ctx, ids[0]) })
	write(func(tx Tx) error {
		_, err := tx.TakeInvitation(ctx, "hash", time.Now())
		return err
	})
	for i, want := range []int{0, 0, 1} {
		if list, err := st.Passkeys(ctx, ids[i]); err != nil || len(list) != want {
			t.Errorf("somebody %d: %d passkeys, want %d, %v", i, len(list), want, err)
		}
	}
}
