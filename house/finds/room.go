// Package finds is what ails plants: causes by signs, finds kept and followed, spread, and clients' calls.
package finds

import (
	"mezzadro/house/estate"
	"mezzadro/house/learn"
	"mezzadro/house/work"
)

// Room is what ails plants, with the estate and the rooms it leans on.
type Room struct {
	*estate.House
	Work  *work.Room
	Learn *learn.Room // what the firm finds oftener than the book says
}
