package letters

import (
	"context"
	"net/mail"
	"slices"
	"strings"

	"mezzadro/core/invalid"
	"mezzadro/core/letter"
	"mezzadro/store"
)

// MailSet is how mail goes out, as it is told: without its password.
type MailSet struct {
	Host     string `json:"host" maxLength:"255" doc:"Server that takes mail; empty: none goes out, and letters are copied by hand"`
	Port     int    `json:"port" minimum:"0" maximum:"65535" doc:"587 or 465 as a rule"`
	Security string `json:"security" enum:"starttls,tls,none," doc:"How the way is secured; none is for a server on this machine"`
	User     string `json:"user" maxLength:"200" doc:"By which the program signs in; empty where it need not"`
	From     string `json:"from" maxLength:"200" doc:"Address that writes"`
	Kept     bool   `json:"kept" readOnly:"true" doc:"A password is kept"`
}

// MailIn is how mail is to go out.
type MailIn struct {
	Host     string `json:"host" maxLength:"255" doc:"Server that takes mail; empty: none goes out any more"`
	Port     int    `json:"port,omitempty" minimum:"0" maximum:"65535" doc:"587 or 465 as a rule"`
	Security string `json:"security,omitempty" enum:"starttls,tls,none," doc:"How the way is secured; starttls when absent"`
	User     string `json:"user,omitempty" maxLength:"200" doc:"By which the program signs in"`
	Password string `json:"password,omitempty" maxLength:"400" doc:"The one kept when absent; no answer tells it"`
	From     string `json:"from" maxLength:"200" doc:"Address that writes"`
}

// Mail is how it goes out.
func (h *Room) Mail(ctx context.Context) (MailSet, error) {
	m, err := h.Store.Mail(ctx)
	b := m.Body.V
	return MailSet{b.Host, b.Port, b.Security, b.User, b.From, b.Password != ""}, err
}

// SetMail keeps how it goes out.
func (h *Room) SetMail(ctx context.Context, key store.Key, in MailIn) (MailSet, error) {
	kept, err := h.Store.Mail(ctx)
	if err != nil {
		return MailSet{}, err
	}
	b := store.MailBody{
		Host:     strings.TrimSpace(in.Host),
		Port:     in.Port,
		Security: in.Security,
		User:     strings.TrimSpace(in.User),
		Password: in.Password,
		From:     strings.TrimSpace(in.From),
	}
	if b.Security == "" {
		b.Security = "starttls"
	}
	if b.Password == "" && b.User == kept.Body.V.User && b.Host == kept.Body.V.Host { // it goes to no other server
		b.Password = kept.Body.V.Password
	}
	var bad invalid.Fields
	if b.Host != "" {
		if a, err := mail.ParseAddress(b.From); err != nil || a.Address != b.From {
			bad.Add("from", in.From, "%q is no address that mail can come from", in.From)
		}
		if b.Port == 0 {
			b.Port = map[string]int{"tls": 465, "none": 25}[b.Security]
			if b.Port == 0 {
				b.Port = 587
			}
		}
		if strings.ContainsAny(b.Host, " /@") {
			bad.Add("host", in.Host, "%q is no name of a server, such as mail.example.com", in.Host)
		}
	}
	if err := bad.Err(); err != nil {
		return MailSet{}, err
	}
	_, err = store.Once(
		ctx,
		h.Store,
		key,
		func(tx store.Tx) (struct{}, error) { return struct{}{}, tx.SetMail(ctx, b) },
	)
	if err != nil {
		return MailSet{}, err
	}
	return h.Mail(ctx)
}

// TryMail sends a test letter at once, and says what the server said.
func (h *Room) TryMail(ctx context.Context, to string) (receipt string, err error) {
	if a, err := mail.ParseAddress(to); err != nil || a.Address != to {
		return "", invalid.One("to", to, "is no address that mail can go to")
	}
	set, err := h.Mail(ctx)
	if err != nil {
		return "", err
	}
	if set.Host == "" || h.Post == nil {
		return "", store.Refused("no mail server is entered")
	}
	firm, err := h.Store.Firm(ctx)
	if err != nil {
		return "", err
	}
	receipt, err = h.Post.Send(ctx, Outgoing{Addressee: to, To: []string{to}, Subject: "A test of " + firm.Name,
		Body: "Mail goes out. Nothing is to be done.", Firm: firm.Name})
	if err != nil {
		return "", store.Refused("the mail server did not take it: " + err.Error())
	}
	return receipt, nil
}

// addressed has a letter go to the clients of its property that get such things by mail, where mail goes out at all.
func (h *Room) addressed(ctx context.Context, l *store.Letter, gets string) error {
	l.To.V = []string{}
	set, err := h.Mail(ctx)
	if err != nil || set.Host == "" {
		return err
	}
	clients, err := h.Clients.Clients(ctx, l.PropertyID)
	if err != nil {
		return err
	}
	names := []string{}
	for _, c := range clients {
		for _, o := range c.Of {
			if o.PropertyID == l.PropertyID && c.Email != "" && slices.Contains(o.Gets, gets) {
				l.To.V, names = append(l.To.V, c.Email), append(names, c.Name)
			}
		}
	}
	if len(names) == 0 {
		return store.Refused(
			"no client of this property has an address for mail and gets " + gets + ": enter one in the Ledger, or copy the letter",
		)
	}
	l.Addressee = strings.Join(names, ", ")
	return nil
}

// NoticeIn is a letter to those clients of a property that get such things.
type NoticeIn struct {
	Gets    string `json:"gets" enum:"reports,estimates" doc:"To those who get these"`
	Subject string `json:"subject" minLength:"1" maxLength:"200" doc:"Of the letter"`
	Text    string `json:"text" minLength:"1" maxLength:"20000" doc:"The letter, with the link"`
}

// SendNotice writes to clients that a report or an estimate is there. Where mail does not go out it is refused: the
// words are copied then.
func (h *Room) SendNotice(ctx context.Context, key store.Key, property int64, in NoticeIn) (Letter, error) {
	p, err := h.Store.Property(ctx, property)
	if err != nil {
		return Letter{}, err
	}
	row := store.Letter{
		PropertyID: p.ID,
		Addressee:  p.Client,
		Day:        h.Today().String(),
		Body:       in.Text,
		Subject:    in.Subject,
		Sent:       h.Ledger.Now().Unix(),
		About:      string(letter.Notice),
	}
	if err := h.addressed(ctx, &row, in.Gets); err != nil {
		return Letter{}, err
	}
	if len(row.To.V) == 0 || h.Post == nil {
		return Letter{}, store.Refused("no mail server is entered in Settings: copy the letter and send it yourself")
	}
	return h.give(ctx, key, row)
}
