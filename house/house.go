// Package house is the firm at work with its record, in rooms: each joins what is stored with what the core works out
// for one part of the job, and leans only on rooms that stand before it. They know no HTTP and no SQL; they take plain
// values and give plain values back. Errors are invalid.Fields for what was entered wrong, store.Stale, store.Refused
// and store.ErrNotFound for the rest that a user can mend.
package house

import (
	"mezzadro/house/clients"
	"mezzadro/house/crews"
	"mezzadro/house/cuts"
	"mezzadro/house/days"
	"mezzadro/house/estate"
	"mezzadro/house/finds"
	"mezzadro/house/firm"
	"mezzadro/house/garden"
	"mezzadro/house/ground"
	"mezzadro/house/learn"
	"mezzadro/house/ledger"
	"mezzadro/house/letters"
	"mezzadro/house/overview"
	"mezzadro/house/rounds"
	"mezzadro/house/standing"
	"mezzadro/house/treat"
	"mezzadro/house/walks"
	"mezzadro/house/work"
)

// House is all rooms, in the order in which they may lean on each other.
type House struct {
	Estate   *estate.House
	Learn    *learn.Room
	Team     *crews.Room
	Work     *work.Room
	Garden   *garden.Room
	Walks    *walks.Room
	Finds    *finds.Room
	Cuts     *cuts.Room
	Treat    *treat.Room
	Ground   *ground.Room
	Standing *standing.Room
	Rounds   *rounds.Room
	Days     *days.Room
	Clients  *clients.Room
	Ledger   *ledger.Room
	Letters  *letters.Room
	Firm     *firm.Room
	Overview *overview.Room
}

// Open opens the rooms of an estate.
func Open(e *estate.House) *House {
	h := &House{Estate: e}
	h.Learn = &learn.Room{House: e}
	e.Shown = h.Learn.Shown
	h.Team = &crews.Room{House: e}
	h.Work = work.New(e)
	h.Garden = &garden.Room{House: e, Work: h.Work}
	h.Walks = &walks.Room{House: e, Work: h.Work}
	h.Finds = &finds.Room{House: e, Work: h.Work, Learn: h.Learn}
	h.Cuts = &cuts.Room{House: e, Work: h.Work}
	h.Treat = treat.New(e, h.Work, h.Finds, h.Cuts)
	h.Ground = &ground.Room{House: e, Work: h.Work, Cuts: h.Cuts}
	h.Standing = &standing.Room{House: e, Work: h.Work}
	h.Rounds = rounds.New(e, h.Team, h.Work, h.Treat, h.Standing, h.Learn)
	h.Days = &days.Room{House: e, Work: h.Work, Crew: h.Team, Treat: h.Treat}
	h.Clients = &clients.Room{House: e}
	h.Ledger = &ledger.Room{House: e, Work: h.Work, Days: h.Days, Learn: h.Learn}
	h.Letters = &letters.Room{House: e, Work: h.Work, Ledger: h.Ledger, Clients: h.Clients}
	h.Firm = &firm.Room{House: e, Work: h.Work, Garden: h.Garden, Ground: h.Ground, Days: h.Days, Ledger: h.Ledger}
	h.Overview = &overview.Room{House: e, Work: h.Work, Treat: h.Treat, Firm: h.Firm}
	return h
}

// Close ends what is under way and closes the record.
func (h *House) Close() error {
	h.Rounds.Close()
	return h.Estate.Store.Close()
}
