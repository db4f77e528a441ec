package firm

import (
	"context"
	"strings"

	"mezzadro/core/invalid"
	"mezzadro/core/rules"
	"mezzadro/store"
)

// FirmIn is what is entered in Settings.
type FirmIn struct {
	Name      string      `json:"name" minLength:"1" maxLength:"300"`
	Units     string      `json:"units" enum:"metric,imperial" doc:"How figures are shown and entered"`
	WeekStart int         `json:"week_start" enum:"0,1,6" doc:"First day of the week: 0 Sunday, 1 Monday, 6 Saturday"`
	DayOrder  string      `json:"day_order,omitempty" enum:"day,month," doc:"What stands first in a date; empty: as each reader's region has it"`
	Clock     string      `json:"clock,omitempty" enum:"24,12," doc:"Hours of a day; empty: as each reader's region has it"`
	Paper     string      `json:"paper,omitempty" enum:"A4,letter," doc:"Size of what is printed; empty: as each reader's region has it"`
	Rules     rules.House `json:"rules" doc:"House rules"`
	Version   int         `json:"version" doc:"The version the change is based on"`
}

// ChangeFirm keeps new settings. Windows follow the house rules.
func (h *Room) ChangeFirm(ctx context.Context, key store.Key, in FirmIn) (store.Firm, error) {
	in.Name = strings.TrimSpace(in.Name)
	if in.Name == "" {
		return store.Firm{}, invalid.One("name", in.Name, "is missing")
	}
	if err := invalid.Under("rules", in.Rules.Validate()); err != nil {
		return store.Firm{}, err
	}
	f, err := store.Once(ctx, h.Store, key, func(tx store.Tx) (store.Firm, error) {
		return tx.ChangeFirm(
			ctx,
			store.Firm{
				Name:      in.Name,
				Units:     in.Units,
				WeekStart: in.WeekStart,
				DayOrder:  in.DayOrder,
				Clock:     in.Clock,
				Paper:     in.Paper,
				Rules:     store.JSON[rules.House]{V: in.Rules},
				Version:   in.Version,
			},
		)
	})
	if err != nil {
		return f, err
	}
	return f, h.Work.RefreshWindows(ctx)
}
