package estate

import (
	"crypto/rand"
	"crypto/sha256"
	"encoding/hex"
)

// NewToken is one that nobody guesses, with the hash under which it is kept.
func NewToken() (token, hash string) {
	token = rand.Text() + rand.Text()
	return token, TokenHash(token)
}

// TokenHash is what of a token is kept.
func TokenHash(token string) string {
	sum := sha256.Sum256([]byte(token))
	return hex.EncodeToString(sum[:])
}
