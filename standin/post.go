package standin

import (
	"context"
	"fmt"
	"strings"

	"mezzadro/house/letters"
)

// Post simulates the outgoing post: it takes a letter, gives a receipt, and delivers nothing.
type Post struct{}

// Send takes a letter. Its error is a letter without words.
func (Post) Send(_ context.Context, l letters.Outgoing) (receipt string, err error) {
	if strings.TrimSpace(l.Body) == "" {
		return "", fmt.Errorf("the letter has no words: %w", letters.ErrNotTaken)
	}
	return fmt.Sprintf("simulated post, letter %d to %s: delivered to nobody", l.Number, l.Addressee), nil
}
