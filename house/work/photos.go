package work

import (
	"context"

	"mezzadro/house/estate"
	"mezzadro/store"
)

// OrderPhoto is a picture taken at a job.
type OrderPhoto struct {
	ID      int64  `json:"id"`
	OrderID int64  `json:"order_id"`
	Hash    string `json:"hash" doc:"Read it by this"`
	Width   int    `json:"width"`
	Height  int    `json:"height"`
}

func TellOrderPhoto(p store.OrderPhoto) OrderPhoto { return OrderPhoto(p) }

// OrderPhotos are those of a job.
func (h *Room) OrderPhotos(ctx context.Context, order int64) ([]OrderPhoto, error) {
	if _, err := h.Order(ctx, order); err != nil {
		return nil, err
	}
	list, err := h.Store.OrderPhotos(ctx, order)
	return estate.TellAll(list, TellOrderPhoto), err
}

// AddOrderPhoto keeps a picture taken at a job. It is on the disk before the record says that it is.
func (h *Room) AddOrderPhoto(ctx context.Context, key store.Key, p OrderPhoto, jpeg []byte) (OrderPhoto, error) {
	var err error
	if p.Hash, err = h.Store.KeepPicture(jpeg); err != nil {
		return p, err
	}
	return store.Once(ctx, h.Store, key, func(tx store.Tx) (OrderPhoto, error) {
		kept, err := tx.AddOrderPhoto(ctx, store.OrderPhoto(p))
		return OrderPhoto(kept), err
	})
}

// RemoveOrderPhoto takes one out of sight, or brings it back.
func (h *Room) RemoveOrderPhoto(ctx context.Context, key store.Key, id int64, remove bool) error {
	_, err := store.Once(ctx, h.Store, key, func(tx store.Tx) (struct{}, error) {
		return struct{}{}, tx.RemoveOrderPhoto(ctx, id, remove)
	})
	return err
}
