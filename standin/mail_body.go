package standin

import (
	"encoding/base64"
	"errors"
	"io"
	"mime"
	"mime/multipart"
	"mime/quotedprintable"
	"net/mail"
	"strings"
)

// read takes a letter's words and what is attached from a message.
func (l *Letter) read(m *mail.Message) {
	kind, with, err := mime.ParseMediaType(m.Header.Get("Content-Type"))
	if err != nil || !strings.HasPrefix(kind, "multipart/") {
		l.Body = decoded(m.Body, m.Header.Get("Content-Transfer-Encoding"))
		return
	}
	for parts := multipart.NewReader(m.Body, with["boundary"]); ; {
		p, err := parts.NextRawPart()
		if errors.Is(err, io.EOF) {
			return
		}
		if err != nil {
			l.Body += err.Error()
			return
		}
		text := decoded(p, p.Header.Get("Content-Transfer-Encoding"))
		if name := p.FileName(); name != "" {
			l.Files = append(l.Files, Attached{name, text})
		} else {
			l.Body = text
		}
	}
}

// decoded is a text as it was before it went out.
func decoded(from io.Reader, how string) string {
	switch strings.ToLower(how) {
	case "quoted-printable":
		from = quotedprintable.NewReader(from)
	case "base64":
		from = base64.NewDecoder(base64.StdEncoding, from)
	}
	b, err := io.ReadAll(from)
	if err != nil {
		return err.Error()
	}
	return string(b)
}
