package standin

import (
	"encoding/base64"
	"io"
	"mime/quotedprintable"
	"net/mail"
	"strings"
)

// bodyOf is the text of a letter, decoded.
func bodyOf(m *mail.Message) string {
	var from io.Reader = m.Body
	switch strings.ToLower(m.Header.Get("Content-Transfer-Encoding")) {
	case "quoted-printable":
		from = quotedprintable.NewReader(m.Body)
	case "base64":
		from = base64.NewDecoder(base64.StdEncoding, m.Body)
	}
	b, err := io.ReadAll(from)
	if err != nil {
		return err.Error()
	}
	return string(b)
}
