// Package post sends letters to clients by mail.
package post

import (
	"context"
	"errors"
	"fmt"
	"strings"
	"time"

	"github.com/wneessen/go-mail"

	"mezzadro/house/letters"
	"mezzadro/store"
)

// patience is how long a server may take.
const patience = 20 * time.Second

// SMTP sends by the server that the firm has entered. A letter that goes to no address is given to Else, which simulates.
type SMTP struct {
	Settings func(ctx context.Context) (store.Mail, error)
	Else     letters.Poster
}

// Send gives a letter to the server. A letter that the server refuses for good is not taken; any other trouble passes.
func (p SMTP) Send(ctx context.Context, l letters.Outgoing) (receipt string, err error) {
	if len(l.To) == 0 {
		return p.Else.Send(ctx, l)
	}
	set, err := p.Settings(ctx)
	if err != nil {
		return "", err
	}
	b := set.Body.V
	if b.Host == "" {
		return "", errors.New("no mail server is entered any more")
	}
	m := mail.NewMsg()
	if err := errors.Join(m.FromFormat(l.Firm, b.From), m.To(l.To...)); err != nil {
		return "", fmt.Errorf("%w: %w", letters.ErrNotTaken, err)
	}
	m.Subject(l.Subject)
	m.SetDate()
	if l.Number > 0 { // the same letter twice is the same to whoever reads it
		m.SetMessageIDWithValue(fmt.Sprintf("letter-%d@%s", l.Number, b.Host))
	}
	m.SetBodyString(mail.TypeTextPlain, l.Body)
	if l.Calendar != "" {
		kind := mail.WithFileContentType("text/calendar; charset=utf-8")
		if err := m.AttachReader("visit.ics", strings.NewReader(l.Calendar), kind); err != nil {
			return "", fmt.Errorf("attach the calendar: %w", err)
		}
	}
	c, err := client(b)
	if err != nil {
		return "", err
	}
	ctx, cancel := context.WithTimeout(ctx, patience)
	defer cancel()
	if err := c.DialAndSendWithContext(ctx, m); err != nil {
		var refused *mail.SendError
		if errors.As(err, &refused) && !refused.IsTemp() && refused.ErrorCode() >= 500 {
			return "", fmt.Errorf("%w: %w", letters.ErrNotTaken, err)
		}
		return "", err
	}
	return fmt.Sprintf(
		"Taken by %s for %d %s",
		b.Host,
		len(l.To),
		map[bool]string{true: "address", false: "addresses"}[len(l.To) == 1],
	), nil
}

// client is a way to a server.
func client(b store.MailBody) (*mail.Client, error) {
	options := []mail.Option{mail.WithPort(b.Port), mail.WithTimeout(patience)}
	switch b.Security {
	case "tls":
		options = append(options, mail.WithSSL())
	case "none":
		options = append(options, mail.WithTLSPolicy(mail.NoTLS))
	default:
		options = append(options, mail.WithTLSPolicy(mail.TLSMandatory))
	}
	if b.User != "" {
		auth := mail.SMTPAuthAutoDiscover
		if b.Security == "none" {
			auth = mail.SMTPAuthPlainNoEnc
		}
		options = append(options, mail.WithSMTPAuth(auth), mail.WithUsername(b.User), mail.WithPassword(b.Password))
	}
	return mail.NewClient(b.Host, options...)
}
