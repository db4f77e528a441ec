// Package crews is who works for the firm: people with their skills and licences, crews with their hours and vehicle,
// and the ways that somebody has timed.
package crews

import "mezzadro/house/estate"

// Room is the firm's people and crews, with the estate.
type Room struct {
	*estate.House
}
