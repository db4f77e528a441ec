package estate

import (
	"context"

	"mezzadro/store"
)

// settings are the firm's, as last read.
type settings struct {
	read bool
	rev  uint64
	firm store.Firm
}

// Firm is the firm with its settings.
func (h *House) Firm(ctx context.Context) (store.Firm, error) {
	h.settling.Lock()
	defer h.settling.Unlock()
	rev := h.Store.FirmRev()
	if h.settled.read && h.settled.rev == rev {
		return h.settled.firm, nil
	}
	f, err := h.Store.Firm(ctx)
	if err == nil {
		h.settled = settings{true, rev, f}
	}
	return f, err
}
