package api

import (
	"context"
	"crypto/tls"
	"net"

	"github.com/danielgtaylor/huma/v2"

	"mezzadro/house/firm"
)

// atSite is by which name a browser asks: passkeys belong to it.
type atSite struct {
	host string
	tls  *tls.ConnectionState
}

// Resolve takes it from the request.
func (a *atSite) Resolve(c huma.Context) []error {
	a.host, a.tls = c.Host(), c.TLS()
	return nil
}

func (s *Server) siteOf(a atSite) firm.Site {
	scheme, name := "http://", a.host
	if a.tls != nil || s.Secure {
		scheme = "https://"
	}
	if host, _, err := net.SplitHostPort(a.host); err == nil {
		name = host
	}
	return firm.Site{Host: name, Origin: scheme + a.host}
}

// errOpen is answered where nobody has to sign in.
var errOpen = huma.Error409Conflict("nobody has to sign in here")

func (s *Server) passkeys(ctx context.Context, _ *struct{}) (*Out[Run[firm.Passkey]], error) {
	who, signed := whoOf(ctx)
	if !signed {
		return out(Run[firm.Passkey]{Items: []firm.Passkey{}}), nil
	}
	list, err := s.Firm.Passkeys(ctx, who.ID)
	return out(Run[firm.Passkey]{Items: list}), s.Problem(ctx, "passkeys", err)
}

func (s *Server) beginPasskey(ctx context.Context, in *struct {
	OnceKey
	atSite
}) (*Out[firm.Ceremony], error) {
	who, signed := whoOf(ctx)
	if !signed {
		return nil, errOpen
	}
	c, err := s.Firm.BeginPasskey(ctx, s.siteOf(in.atSite), who.ID)
	return out(c), s.Problem(ctx, "passkey", err)
}

func (s *Server) addPasskey(ctx context.Context, in *struct {
	OnceKey
	atSite
	Body firm.PasskeyIn
}) (*Out[Run[firm.Passkey]], error) {
	who, signed := whoOf(ctx)
	if !signed {
		return nil, errOpen
	}
	list, err := s.Firm.AddPasskey(ctx, s.siteOf(in.atSite), who.ID, in.Body)
	return out(Run[firm.Passkey]{Items: list}), s.Problem(ctx, "passkey", err)
}

func (s *Server) removePasskey(ctx context.Context, in *Write) (*struct{}, error) {
	who, signed := whoOf(ctx)
	if !signed {
		return nil, errOpen
	}
	return nil, s.Problem(ctx, "passkey", s.Firm.RemovePasskey(ctx, who.ID, in.ID))
}

func (s *Server) beginPasskeySignIn(ctx context.Context, in *struct {
	OnceKey
	atSite
}) (*Out[firm.Ceremony], error) {
	c, err := s.Firm.BeginPasskeySignIn(s.siteOf(in.atSite))
	return out(c), s.Problem(ctx, "passkey", err)
}

func (s *Server) passkeySignIn(ctx context.Context, in *struct {
	OnceKey
	atSite
	Body firm.PasskeyIn
}) (*struct{}, error) {
	a, err := s.Firm.PasskeySignIn(ctx, s.siteOf(in.atSite), in.Body)
	if err == nil {
		err = s.signIn(ctx, a)
	}
	return nil, s.Problem(ctx, "passkey", err)
}
