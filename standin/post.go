package standin

import (
	"context"
	"fmt"
	"strings"

	"mezzadro/house/firm"
)

// Post simulates the outgoing post: it takes a letter, gives a receipt, and delivers nothing.
type Post struct{}

// Send takes a letter. Its error is a letter without words.
func (Post) Send(_ context.Context, number int64, addressee, body string) (receipt string, err error) {
	if strings.TrimSpace(body) == "" {
		return "", fmt.Errorf("the letter has no words: %w", firm.ErrNotTaken)
	}
	return fmt.Sprintf("simulated post, letter %d to %s: delivered to nobody", number, addressee), nil
}
