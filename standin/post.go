package standin

import (
	"context"
	"errors"
	"fmt"
	"strings"
	"sync/atomic"
)

// Post simulates the outgoing post: it takes a letter, gives a receipt, and delivers nothing.
type Post struct{ taken atomic.Int64 }

// Send takes a letter. Its error is a letter without words.
func (p *Post) Send(_ context.Context, addressee, body string) (receipt string, err error) {
	if strings.TrimSpace(body) == "" {
		return "", errors.New("the letter has no words")
	}
	return fmt.Sprintf("simulated post, letter %d to %s: delivered to nobody", p.taken.Add(1), addressee), nil
}
