package api

import (
	"context"

	"github.com/danielgtaylor/huma/v2"

	"mezzadro/house/letters"
)

func (s *Server) mailRoutes(a huma.API) {
	op(a, planner, get, "/mail", doc{"mail", "Firm", "How mail goes out", "Without its password.", reads, 0}, s.mail)
	op(a, owner, put, "/mail", doc{"set-mail", "Firm", "Say how mail goes out", "Server, security, who writes. Without a host none goes out, and letters are copied by hand.", writes, 0}, s.setMail,
		`{"host": "mail.example.com", "port": 587, "security": "starttls", "user": "garden", "password": "made up", "from": "garden@example.com"}`)
	op(a, owner, post, "/mail/test", doc{"try-mail", "Firm", "Send a test letter", "At once: the answer is what the server said.", writes, 0}, s.tryMail, `{"to": "noemi@example.com"}`)
	op(a, planner, post, "/properties/{id}/notices", doc{"send-notice", "Ledger", "Write to clients that something is there", "A letter with a link, to those of the property's clients that get reports or estimates.", writes, 0}, s.sendNotice,
		`{"gets": "estimates", "subject": "Estimate 1", "text": "Please read and answer it: https://garden.example/#/client/made-up"}`)
}

func (s *Server) mail(ctx context.Context, _ *struct{}) (*Out[letters.MailSet], error) {
	m, err := s.Letters.Mail(ctx)
	return out(m), s.Problem(ctx, "mail", err)
}

func (s *Server) setMail(ctx context.Context, in *struct {
	OnceKey
	Body letters.MailIn
}) (*Out[letters.MailSet], error) {
	m, err := s.Letters.SetMail(ctx, keyOf(ctx), in.Body)
	return out(m), s.Problem(ctx, "mail", err)
}

// Receipt is what a mail server said.
type Receipt struct {
	Receipt string `json:"receipt" doc:"What the server said"`
}

func (s *Server) tryMail(ctx context.Context, in *struct {
	OnceKey
	Body struct {
		To string `json:"to" maxLength:"200" doc:"Address that the test goes to"`
	}
}) (*Out[Receipt], error) {
	r, err := s.Letters.TryMail(ctx, in.Body.To)
	return out(Receipt{r}), s.Problem(ctx, "mail", err)
}

func (s *Server) sendNotice(ctx context.Context, in *struct {
	Write
	Body letters.NoticeIn
}) (*Out[letters.Letter], error) {
	l, err := s.Letters.SendNotice(ctx, keyOf(ctx), in.ID, in.Body)
	return out(l), s.Problem(ctx, "property", err)
}
