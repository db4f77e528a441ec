package letters

import (
	"context"
	"fmt"
	"time"

	"mezzadro/core/letter"
	"mezzadro/exchange"
	"mezzadro/store"
)

// calendar is the file that goes along with a letter of a day: its visit, moved where another letter told of it before,
// or called off. Empty for letters about anything else, and for those that mail does not carry.
func (h *Room) calendar(ctx context.Context, l store.Letter, firm string) (string, error) {
	about := letter.About(l.About)
	if len(l.To.V) == 0 || about != letter.Coming && about != letter.Off {
		return "", nil
	}
	pl, err := h.Place(ctx, l.PropertyID)
	if err != nil {
		return "", err
	}
	visit := l.Visit
	if visit == 0 {
		visit = l.ID
	}
	v := exchange.VisitEntry{
		ID:      fmt.Sprintf("visit-%d@mezzadro", visit),
		Edition: int(l.ID),
		Day:     store.DayOf(&l.Day),
		From:    l.FromMinute,
		To:      l.ToMinute,
		Zone:    pl.Zone,
		Title:   firm + ": visit to " + l.Property,
		Place:   pl.Property.Name,
		Off:     about == letter.Off,
	}
	if pl.Property.Address != "" {
		v.Place += ", " + pl.Property.Address
	}
	return exchange.Visit(time.Unix(l.Sent, 0).UTC(), v), nil
}
