package walks

import (
	"context"

	"mezzadro/house/estate"
	"mezzadro/store"
)

// AddPhoto keeps a picture taken at a plant. It is on the disk before the record says that it is.
func (h *Room) AddPhoto(ctx context.Context, key store.Key, p estate.Photo, jpeg []byte) (estate.Photo, error) {
	hash, err := h.Store.KeepPicture(jpeg)
	if err != nil {
		return p, err
	}
	p.Hash = hash
	return store.Once(ctx, h.Store, key, func(tx store.Tx) (estate.Photo, error) {
		kept, err := tx.AddPhoto(ctx, store.Photo(p))
		return estate.Photo(kept), err
	})
}

// RemovePhoto takes a photo out of sight, or brings it back.
func (h *Room) RemovePhoto(ctx context.Context, key store.Key, id int64, remove bool) error {
	_, err := store.Once(
		ctx,
		h.Store,
		key,
		func(tx store.Tx) (struct{}, error) { return struct{}{}, tx.RemovePhoto(ctx, id, remove) },
	)
	return err
}
