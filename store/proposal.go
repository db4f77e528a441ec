package store

import "context"

// Proposal is rounds as they were proposed: what they are made of is the rounds' own.
type Proposal struct {
	ID   int64  `db:"id"`
	Body string `db:"body"`
}

// proposalsMost is how many are kept.
const proposalsMost = 8

// NewProposal takes a number for one that is yet to be found.
func (tx Tx) NewProposal(ctx context.Context) (int64, error) {
	res, err := tx.ExecContext(ctx, `INSERT INTO proposal (body) VALUES ('')`)
	if err != nil {
		return 0, err
	}
	return res.LastInsertId()
}

// KeepProposal keeps what one is made of, and lets those go that are long past.
func (tx Tx) KeepProposal(ctx context.Context, id int64, body string) error {
	if _, err := tx.ExecContext(ctx, `UPDATE proposal SET body = ? WHERE id = ?`, body, id); err != nil {
		return err
	}
	_, err := tx.ExecContext(ctx, `DELETE FROM proposal WHERE id <= ? - ?`, id, proposalsMost)
	return err
}

// Proposal is one that was found; ErrNotFound where its search never ended.
func (s *Store) Proposal(ctx context.Context, id int64) (Proposal, error) {
	return one[Proposal](ctx, s.read, `SELECT id, body FROM proposal WHERE id = ? AND body <> ''`, id)
}

// LastProposal is the last that was found; ErrNotFound without any.
func (s *Store) LastProposal(ctx context.Context) (Proposal, error) {
	return one[Proposal](ctx, s.read, `SELECT id, body FROM proposal WHERE body <> '' ORDER BY id DESC LIMIT 1`)
}
