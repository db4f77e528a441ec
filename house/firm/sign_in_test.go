package firm

import (
	"testing"

	"github.com/alexedwards/argon2id"
)

// TestNobodysHash: the hash that a name is compared with that is not there is read and worked out like all others, and
// no password fits it: neither nothing nor what an empty one or zeros would be.
func TestNobodysHash(t *testing.T) {
	params, salt, key, err := argon2id.DecodeHash(unknown)
	if err != nil {
		t.Fatal(err)
	}
	if *params != *hashed || len(salt) != int(hashed.SaltLength) || len(key) != int(hashed.KeyLength) {
		t.Errorf("by %+v, %d bytes of salt and %d of key: want %+v", *params, len(salt), len(key), *hashed)
	}
	for _, password := range []string{"", "nobody", string(make([]byte, hashed.KeyLength))} {
		if ok, err := argon2id.ComparePasswordAndHash(password, unknown); ok || err != nil {
			t.Errorf("%q: fits %t, %v", password, ok, err)
		}
	}
}
