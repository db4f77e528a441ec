package clients_test

import (
	"context"
	"testing"

	"mezzadro/house/clients"
	"mezzadro/house/housetest"
	"mezzadro/store"
)

// TestKeepClient: who is entered is told by property; what cannot be is refused, and a changed one has its new properties; out
// of sight they can be brought back.
func TestKeepClient(t *testing.T) {
	k := housetest.Open(t)
	ctx := context.Background()
	here, there := k.Property("Old Mill", "lake-foothills"), k.Property("Weir House", "lake-foothills")
	for _, in := range []clients.ClientIn{{Name: " "}, {Name: "A", Email: "nowhere"}, {Name: "A", Phone: "call me"},
		{Name: "A", Of: []clients.AtHome{{PropertyID: 77, Role: "owner"}}},
		{Name: "A", Of: []clients.AtHome{{PropertyID: here.ID, Role: "owner", Gets: []string{"presents"}}}}} {
		if _, err := k.Clients.KeepClient(ctx, store.Key{}, 0, in); err == nil {
			t.Errorf("%+v is taken", in)
		}
	}
	told := func(property int64) int {
		t.Helper()
		list, err := k.Clients.Clients(ctx, property)
		return len(housetest.Must(t, list, err))
	}
	in := clients.ClientIn{Name: "Noemi", Email: "noemi@example.com", Of: []clients.AtHome{{PropertyID: here.ID, Role: "owner", Gets: []string{"reminders"}}}}
	c, err := k.Clients.KeepClient(ctx, store.Key{}, 0, in)
	c = housetest.Must(t, c, err)
	if told(0) != 1 || told(here.ID) != 1 || told(there.ID) != 0 {
		t.Errorf("entered: %d, %d, %d", told(0), told(here.ID), told(there.ID))
	}
	in.Of[0].PropertyID, in.Version = there.ID, c.Version
	c, err = k.Clients.KeepClient(ctx, store.Key{}, c.ID, in)
	if c = housetest.Must(t, c, err); told(here.ID) != 0 || told(there.ID) != 1 || c.Of[0].Gets[0] != "reminders" {
		t.Errorf("moved: %+v", c)
	}
	for _, gone := range []bool{true, false} {
		if err := k.Clients.RemoveClient(ctx, store.Key{}, c.ID, gone); err != nil || (told(0) == 0) != gone {
			t.Errorf("out of sight %v: %d, %v", gone, told(0), err)
		}
	}
}
