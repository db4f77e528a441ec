package main

import (
	"bufio"
	"context"
	"crypto/tls"
	"errors"
	"fmt"
	"log/slog"
	"net"
	"net/http"
	"os"
	"strings"
	"sync"
	"time"

	"github.com/spf13/cobra"
	"golang.org/x/term"

	"mezzadro/api"
	"mezzadro/house/firm"
)

// loopback reports an address that only this machine reaches.
func (o options) loopback() bool {
	name, _, err := net.SplitHostPort(o.addr)
	if err != nil {
		return false
	}
	ip := net.ParseIP(name)
	return name == "localhost" || ip != nil && ip.IsLoopback()
}

// reachable refuses to open a record to other machines before somebody has to sign in for it: by its address, or by a
// name that only a proxy before it has.
func (o options) reachable(ctx context.Context, s *api.Server) error {
	if o.loopback() && len(o.hosts) == 0 && len(o.proxies) == 0 {
		return nil
	}
	guarded, err := s.Firm.HasAccounts(ctx)
	if err == nil && !guarded {
		where := o.addr
		if o.loopback() {
			where = strings.Join(append(o.hosts, o.proxies...), ", ")
		}
		err = fmt.Errorf("%s is reached from other machines, and nobody has to sign in yet: enter the owner first, with "+
			"mezzadro owner --data %s, or in the browser with --addr 127.0.0.1:8080 alone", where, o.data)
	}
	return err
}

// serve answers on the options' address, over TLS where there is a certificate.
func (o options) serve(ctx context.Context, h http.Handler, log *slog.Logger) error {
	if (o.cert == "") != (o.key == "") {
		return errors.New("--tls-cert and --tls-key go together")
	}
	var secret *tls.Config
	if o.cert != "" {
		p := &pair{cert: o.cert, key: o.key, log: log}
		if _, err := p.get(nil); err != nil {
			return fmt.Errorf("certificate: %w", err)
		}
		secret = &tls.Config{GetCertificate: p.get, MinVersion: tls.VersionTLS12, NextProtos: []string{"http/1.1"}}
	}
	trusted, err := api.Proxies(o.proxies)
	if err != nil {
		return fmt.Errorf("--trusted-proxy: %w", err)
	}
	return serve(ctx, o.addr, secret, api.Behind(o.guard(h), trusted), log, trusted)
}

// pair is a certificate with its key, read anew when one of the files changes.
type pair struct {
	cert, key string
	log       *slog.Logger

	mu   sync.Mutex
	read time.Time
	last *tls.Certificate
}

func (p *pair) get(*tls.ClientHelloInfo) (*tls.Certificate, error) {
	p.mu.Lock()
	defer p.mu.Unlock()
	newest := time.Time{}
	for _, f := range []string{p.cert, p.key} {
		if at, err := os.Stat(f); err == nil && at.ModTime().After(newest) {
			newest = at.ModTime()
		}
	}
	if p.last != nil && !newest.After(p.read) {
		return p.last, nil
	}
	c, err := tls.LoadX509KeyPair(p.cert, p.key)
	if err != nil {
		if p.last != nil { // one that is being written: the one before holds until it is whole
			p.log.Warn("the new certificate cannot be read", "error", err)
			return p.last, nil
		}
		return nil, err
	}
	p.last, p.read = &c, newest
	return p.last, nil
}

// asked reads a password: unseen from a terminal, else the first line of the input.
func asked(c *cobra.Command) (string, error) {
	if in := int(os.Stdin.Fd()); c.InOrStdin() == os.Stdin && term.IsTerminal(in) {
		if _, err := fmt.Fprint(c.ErrOrStderr(), "Password, ten characters at least: "); err != nil {
			return "", err
		}
		b, err := term.ReadPassword(in)
		_, _ = fmt.Fprintln(c.ErrOrStderr())
		return string(b), err
	}
	line, err := bufio.NewReader(c.InOrStdin()).ReadString('\n')
	if err != nil && line == "" {
		return "", err
	}
	return strings.TrimRight(line, "\r\n"), nil
}

func ownerCommand() *cobra.Command {
	var o options
	var login, name string
	c := &cobra.Command{
		Use:   "owner",
		Short: "Enter the firm's owner, with the password read from the input",
		Args:  cobra.NoArgs,
		RunE: func(c *cobra.Command, _ []string) error {
			s, err := o.open(c.Context(), nil)
			if err != nil {
				return err
			}
			defer s.Close()
			password, err := asked(c)
			if err != nil {
				return fmt.Errorf("password: %w", err)
			}
			a, err := s.Firm.FirstOwner(c.Context(), firm.OwnerIn{Login: login, Name: name, Password: password})
			if err != nil {
				return err
			}
			_, err = fmt.Fprintf(c.OutOrStdout(), "%s signs in as %s\n", a.Name, a.Login)
			return err
		},
	}
	c.Flags().StringVar(&o.data, "data", "data", "folder that holds the record")
	c.Flags().StringVar(&login, "login", "owner", "name to sign in by")
	c.Flags().StringVar(&name, "name", "The owner", "name as others read it")
	return c
}
