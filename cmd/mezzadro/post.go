package main

import (
	"context"
	"errors"
	"fmt"
	"net"
	"net/http"
	"time"

	"github.com/spf13/cobra"

	"mezzadro/standin"
)

// postCommand serves a mailbox that takes mail and shows it on a page: for trying out, it delivers to nobody.
func postCommand() *cobra.Command {
	var smtp, page string
	c := &cobra.Command{
		Use:   "post",
		Short: "Serve a mailbox of made-up letters: it takes mail and delivers to nobody",
		Args:  cobra.NoArgs,
		RunE: func(c *cobra.Command, _ []string) error {
			l, err := net.Listen("tcp", smtp)
			if err != nil {
				return err
			}
			m := &standin.Mailbox{}
			s := &http.Server{Addr: page, Handler: m, ReadHeaderTimeout: 10 * time.Second}
			context.AfterFunc(c.Context(), func() {
				_ = l.Close()
				_ = s.Close()
			})
			go func() { _ = m.Serve(l) }() // it ends when the listener is closed
			fmt.Fprintf(c.ErrOrStderr(), "takes mail on %s without security, shows it on http://%s\n", l.Addr(), page)
			if err := s.ListenAndServe(); !errors.Is(err, http.ErrServerClosed) {
				return err
			}
			return nil
		},
	}
	c.Flags().StringVar(&smtp, "smtp", "127.0.0.1:8025", "address that takes mail")
	c.Flags().StringVar(&page, "addr", "127.0.0.1:8026", "address of the page that shows it")
	return c
}
