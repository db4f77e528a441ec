package store

import (
	"bufio"
	"errors"
	"fmt"
	"io"
	"os"
	"strings"
	"unicode/utf8"

	"filippo.io/age"
)

// Sealing of backups: with a passphrase, in the age format, which its own tools open too. A copy elsewhere tells nothing
// without it; and nobody opens it again who has lost it.
const (
	sealBegins    = "age-encryption.org/"
	passphraseMin = 12   // characters
	passphraseMax = 4096 // bytes of the file it stands in
)

// SealEnding is how the name of a sealed backup ends.
const SealEnding = ".age"

// PassphraseOf reads a passphrase from a file: its first line.
func PassphraseOf(file string) (string, error) {
	if file == "" {
		return "", nil
	}
	f, err := os.Open(file)
	if err != nil {
		return "", fmt.Errorf("passphrase: %w", err)
	}
	defer f.Close()
	b, err := io.ReadAll(io.LimitReader(f, passphraseMax))
	if err != nil {
		return "", fmt.Errorf("passphrase: %w", err)
	}
	line, _, _ := strings.Cut(string(b), "\n")
	line = strings.TrimRight(line, "\r")
	if utf8.RuneCountInString(line) < passphraseMin {
		return "", fmt.Errorf("passphrase: the first line of %s holds fewer than %d characters", file, passphraseMin)
	}
	return line, nil
}

// sealed writes what is written to it sealed into w; without a passphrase as it is. Closing it does not close w.
func sealed(w io.Writer, passphrase string) (io.WriteCloser, error) {
	if passphrase == "" {
		return plain{w}, nil
	}
	to, err := age.NewScryptRecipient(passphrase)
	if err != nil {
		return nil, err
	}
	return age.Encrypt(w, to)
}

type plain struct{ io.Writer }

func (plain) Close() error { return nil }

// ErrSealed is answered for a sealed backup without a passphrase.
var ErrSealed = errors.New("it is sealed with a passphrase: say --passphrase-file, a file whose first line it is")

// opened reads what may be sealed.
func opened(r io.Reader, passphrase string) (io.Reader, error) {
	b := bufio.NewReader(r)
	head, err := b.Peek(len(sealBegins))
	if err != nil || string(head) != sealBegins {
		return b, nil // what it is its reader says
	}
	if passphrase == "" {
		return nil, ErrSealed
	}
	id, err := age.NewScryptIdentity(passphrase)
	if err != nil {
		return nil, err
	}
	in, err := age.Decrypt(b, id)
	var none *age.NoIdentityMatchError
	if errors.As(err, &none) {
		return nil, errors.New("it is sealed with another passphrase")
	}
	return in, err
}
