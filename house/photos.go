package house

import (
	"context"

	"mezzadro/store"
)

// AddPhoto keeps a picture taken at a plant. It is on the disk before the record says that it is.
func (h *House) AddPhoto(ctx context.Context, key store.Key, p Photo, jpeg []byte) (Photo, error) {
	hash, err := h.Store.KeepPicture(jpeg)
	if err != nil {
		return p, err
	}
	p.Hash = hash
	return store.Once(ctx, h.Store, key, func(tx store.Tx) (Photo, error) {
		kept, err := tx.AddPhoto(ctx, store.Photo(p))
		return Photo(kept), err
	})
}

// RemovePhoto takes a photo out of sight, or brings it back.
func (h *House) RemovePhoto(ctx context.Context, key store.Key, id int64, remove bool) error {
	_, err := store.Once(
		ctx,
		h.Store,
		key,
		func(tx store.Tx) (struct{}, error) { return struct{}{}, tx.RemovePhoto(ctx, id, remove) },
	)
	return err
}
