// Command mezzadro serves the working record of a landscape maintenance firm.
package main

import (
	"context"
	"crypto/tls"
	"encoding/json"
	"errors"
	"fmt"
	"log/slog"
	"net"
	"net/http"
	"net/netip"
	"os"
	"os/signal"
	"path/filepath"
	"sync"
	"sync/atomic"
	"syscall"
	"time"
	_ "time/tzdata" // a machine without time zones still knows them

	"github.com/spf13/cobra"
	"golang.org/x/net/netutil"

	"mezzadro/api"
	"mezzadro/core/catalogue"
	"mezzadro/core/check"
	"mezzadro/core/day"
	"mezzadro/core/portrait"
	"mezzadro/demo"
	"mezzadro/exchange"
	"mezzadro/house"
	"mezzadro/house/estate"
	"mezzadro/house/firm"
	"mezzadro/post"
	"mezzadro/standin"
	"mezzadro/store"
	"mezzadro/web"
)

func main() {
	ctx, stop := signal.NotifyContext(context.Background(), os.Interrupt, syscall.SIGTERM)
	defer stop()
	if err := root().ExecuteContext(ctx); err != nil {
		fmt.Fprintln(os.Stderr, "mezzadro:", err)
		os.Exit(1)
	}
}

func root() *cobra.Command {
	r := &cobra.Command{
		Use:           "mezzadro",
		Short:         "Care of other people's trees, shrubs and perennials, through the year",
		SilenceUsage:  true,
		SilenceErrors: true,
		Version:       api.Version,
	}
	r.AddCommand(serveCommand(), demoCommand(), weatherCommand(), postCommand(), openapiCommand(), checksCommand(), formsCommand(), backupCommand(), restoreCommand(), checkCommand(), ownerCommand(), exportCommand(), importCommand())
	return r
}

// options are the flags that serve and demo share.
type options struct {
	addr, data, today, weather string
	hosts, proxies             []string
	cert, key                  string
	backups                    firm.Backups
	secret                     string // file with the passphrase of backups
}

func (o *options) flags(c *cobra.Command, data string) {
	c.Flags().StringVar(&o.addr, "addr", "127.0.0.1:8080", "address to serve on")
	c.Flags().StringVar(&o.data, "data", data, "folder that holds the record")
	c.Flags().StringSliceVar(&o.hosts, "host", nil, "a name by which browsers call this machine, beside localhost; may be given again")
	c.Flags().StringSliceVar(&o.proxies, "trusted-proxy", nil, "address of a proxy before the program, such as "+
		"127.0.0.1: whom it names as asking counts; may be given again")
	c.Flags().StringVar(&o.cert, "tls-cert", "", "certificate, with --tls-key: serve over TLS; read anew when it changes")
	c.Flags().StringVar(&o.key, "tls-key", "", "its key")
	c.Flags().StringVar(&o.today, "today", "", "take this day (YYYY-MM-DD) for today")
}

// guard lets only those in who call this machine by a name of its own.
func (o options) guard(h http.Handler) http.Handler {
	hosts := o.hosts
	if name, _, err := net.SplitHostPort(o.addr); err == nil && name != "" {
		if ip := net.ParseIP(name); ip == nil || !ip.IsUnspecified() {
			hosts = append(hosts, name)
		}
	}
	return api.Guard(h, hosts...)
}

// clock is today's date, or the day given.
func (o options) clock() (func() day.Day, error) {
	if o.today == "" {
		return func() day.Day { return day.FromTime(time.Now()) }, nil
	}
	d, err := day.Parse(o.today)
	if err != nil {
		return nil, fmt.Errorf("--today: %w", err)
	}
	return func() day.Day { return d }, nil
}

// open makes the server over the record.
func (o options) open(ctx context.Context, station *exchange.Station) (*api.Server, error) {
	today, err := o.clock()
	if err != nil {
		return nil, err
	}
	st, err := store.Open(ctx, o.data)
	if err != nil {
		return nil, err
	}
	h := house.Open(&estate.House{
		Store:     st,
		Catalogue: catalogue.Built(),
		Today:     today,
		Station:   station,
		Log:       slog.New(slog.NewJSONHandler(os.Stderr, nil)),
	})
	h.Letters.Post = post.SMTP{Settings: st.Mail, Else: standin.Post{}}
	if o.today == "" {
		h.Estate.Clock = time.Now
	}
	h.Firm.Backups = o.backups
	if h.Firm.Backups.Secret, err = store.PassphraseOf(o.secret); err != nil {
		return nil, err
	}
	return &api.Server{House: h, Files: web.Files(), Secure: o.cert != "" || len(o.proxies) > 0}, nil
}

func serveCommand() *cobra.Command {
	var o options
	c := &cobra.Command{
		Use:   "serve",
		Short: "Serve your own record",
		Args:  cobra.NoArgs,
		RunE: func(c *cobra.Command, _ []string) error {
			var station *exchange.Station
			if o.weather != "" {
				station = &exchange.Station{URL: o.weather, Client: &http.Client{Timeout: 30 * time.Second}}
			}
			s, err := o.open(c.Context(), station)
			if err != nil {
				return err
			}
			defer s.Close()
			if err := o.reachable(c.Context(), s); err != nil {
				return err
			}
			var watches sync.WaitGroup
			watches.Go(func() { s.Firm.WatchBackups(c.Context()) })
			watches.Go(func() { s.Work.Watch(c.Context(), time.Minute) })
			watches.Go(func() { s.Standing.Watch(c.Context(), time.Minute) })
			watches.Go(func() { s.Letters.WatchPost(c.Context(), time.Minute) })
			if station != nil {
				watches.Go(func() { s.Overview.WatchWeather(c.Context(), 6*time.Hour) })
			}
			err = o.serve(c.Context(), s.Handler(), s.Estate.Log)
			if c.Context().Err() != nil {
				watches.Wait() // the record is closed after its last write
			}
			return err
		},
	}
	o.flags(c, "data")
	c.Flags().StringVar(&o.weather, "weather", "", "base URL of a weather station")
	c.Flags().StringVar(&o.backups.Folder, "backups", "", "folder that backups go to; beside the record when absent")
	c.Flags().DurationVar(&o.backups.Every, "every", 0, "write a backup so often, such as 24h")
	c.Flags().StringVar(&o.secret, "passphrase-file", "", passphraseHelp)
	c.Flags().IntVar(&o.backups.Keep, "keep", 14, "how many backups stay; 0: all")
	return c
}

func demoCommand() *cobra.Command {
	var o options
	var climate string
	c := &cobra.Command{
		Use:   "demo",
		Short: "Serve the made-up sample firm",
		Args:  cobra.NoArgs,
		RunE: func(c *cobra.Command, _ []string) error {
			sample, err := demo.Read()
			if err != nil {
				return err
			}
			if climate != "" {
				if sample, err = sample.In(climate); err != nil {
					return err
				}
			}
			if o.today == "" {
				o.today = sample.Today
			}
			station, err := sample.Station()
			if err != nil {
				return err
			}
			if err := anew(o.data); err != nil {
				return err
			}
			if !o.loopback() || len(o.hosts) > 0 || len(o.proxies) > 0 {
				return errors.New("the sample has no sign-in and is served to this machine alone: give --addr 127.0.0.1 with a port")
			}
			s, err := o.open(c.Context(), station)
			if err != nil {
				return err
			}
			defer s.Close()
			if err := movable(c.Context(), s, c.Flags().Changed("today")); err != nil {
				return err
			}
			site := s.Handler()
			if err := filled(c.Context(), s, sample, site, o.data); err != nil {
				return err
			}
			return o.serve(c.Context(), site, s.Estate.Log)
		},
	}
	o.flags(c, "demo-data")
	c.Flags().
		StringVar(&climate, "climate", "", "move the sample to a built climate, such as prairie, gulf-coast or "+
			"hot-desert; for an empty folder")
	return c
}

// movable lets the sample's day be moved; it stays where it was moved to, unless a day is asked for.
func movable(ctx context.Context, s *api.Server, asked bool) error {
	firm, err := s.Estate.Store.Firm(ctx)
	if err != nil {
		return err
	}
	var today atomic.Int64
	s.Estate.Home = s.Estate.Today()
	today.Store(int64(s.Estate.Home))
	s.Estate.Today, s.Estate.SetToday = func() day.Day { return day.Day(today.Load()) }, func(d day.Day) { today.Store(int64(d)) }
	if firm.Today != "" && !asked {
		d, err := day.Parse(firm.Today)
		if err != nil {
			return fmt.Errorf("the day the sample stands at: %w", err)
		}
		s.Estate.SetToday(d)
	}
	return nil
}

// filled loads the sample into an empty record. The mark is set last: a load that broke off starts over on an empty
// folder only.
func filled(ctx context.Context, s *api.Server, sample demo.Scenario, site http.Handler, folder string) error {
	firm, err := s.Estate.Store.Firm(ctx)
	if err != nil || firm.Sample {
		return err
	}
	if props, err := s.Estate.Store.Properties(ctx, 0, 1); err != nil {
		return err
	} else if len(props) > 0 {
		return fmt.Errorf(
			"the folder %s holds a record that is not the whole sample; give another with --data, or remove it",
			folder,
		)
	}
	unfinished := filepath.Join(folder, loadingFile)
	if err := os.WriteFile(unfinished, nil, 0o600); err != nil {
		return err
	}
	log := s.Estate.Log
	s.Estate.Log = slog.New(slog.DiscardHandler)
	err = sample.Load(ctx, site, s.Estate.SetToday)
	s.Estate.Log = log
	if err != nil {
		return err
	}
	s.Estate.SetToday(s.Estate.Home)
	err = s.Estate.Store.Write(
		ctx,
		func(tx store.Tx) error { return tx.SetFirm(ctx, store.Firm{Name: sample.Firm, Sample: true}) },
	)
	return errors.Join(err, os.Remove(unfinished))
}

// loadingFile marks a folder in which the sample is not whole yet.
const loadingFile = "sample-is-loading"

// anew empties a folder in which a first start of the sample broke off, so that it begins anew. Others stay as they are.
func anew(folder string) error {
	if _, err := os.Stat(filepath.Join(folder, loadingFile)); err != nil {
		return nil // whole, or never begun
	}
	entries, err := os.ReadDir(folder)
	for _, e := range entries {
		if e.Name() != loadingFile {
			err = errors.Join(err, os.RemoveAll(filepath.Join(folder, e.Name())))
		}
	}
	return errors.Join(err, os.Remove(filepath.Join(folder, loadingFile)))
}

func weatherCommand() *cobra.Command {
	var addr string
	var seed uint64
	var errs bool
	c := &cobra.Command{
		Use:   "weather",
		Short: "Serve a simulated weather station",
		Args:  cobra.NoArgs,
		RunE: func(c *cobra.Command, _ []string) error {
			w := &standin.WeatherStation{Seed: seed, Errs: errs}
			for _, t := range catalogue.Built().Climates {
				w.Climates = append(w.Climates, t.Climate)
			}
			return serve(c.Context(), addr, nil, w, slog.New(slog.NewJSONHandler(os.Stderr, nil)), nil)
		},
	}
	c.Flags().StringVar(&addr, "addr", "127.0.0.1:8090", "address to serve on")
	c.Flags().Uint64Var(&seed, "seed", 1, "which weather: the same seed gives the same")
	c.Flags().BoolVar(&errs, "errs", true, "tell the weather ahead as real stations do, the farther ahead the less truly; else it comes true")
	return c
}

func openapiCommand() *cobra.Command {
	return &cobra.Command{
		Use:   "openapi",
		Short: "Write the description of the operations",
		Args:  cobra.NoArgs,
		RunE: func(c *cobra.Command, _ []string) error {
			b, err := api.Describe()
			if err == nil {
				_, err = c.OutOrStdout().Write(b)
			}
			return err
		},
	}
}

// checksCommand tells the front end the kinds of check, so that it knows them without signal.
func checksCommand() *cobra.Command {
	return &cobra.Command{
		Use:   "checks",
		Short: "Write the kinds of check",
		Args:  cobra.NoArgs,
		RunE: func(c *cobra.Command, _ []string) error {
			e := json.NewEncoder(c.OutOrStdout())
			e.SetIndent("", "  ")
			e.SetEscapeHTML(false)
			return e.Encode(check.Kinds())
		},
	}
}

// formsCommand tells the front end how plants are drawn, by their forms.
func formsCommand() *cobra.Command {
	return &cobra.Command{
		Use:   "forms",
		Short: "Write the outlines of plants, by form",
		Args:  cobra.NoArgs,
		RunE: func(c *cobra.Command, _ []string) error {
			return json.NewEncoder(c.OutOrStdout()).Encode(portrait.Forms())
		},
	}
}

// Of connections: how many at once, and for how long what is sent may come in: a picture over a bad line takes its time.
const (
	connections  = 512
	ofOneAddress = 64 // of which so many from one address, but for trusted proxies and this machine
	readWithin   = 5 * time.Minute
)

// serve answers until the context ends, then lets requests under way finish.
func serve(
	ctx context.Context, addr string, secret *tls.Config, h http.Handler, log *slog.Logger, trusted []netip.Prefix,
) error {
	l, err := net.Listen("tcp", addr)
	if err != nil {
		return err
	}
	shared := &each{Listener: l, most: ofOneAddress, trusted: trusted, open: map[netip.Addr]int{}}
	l = netutil.LimitListener(shared, connections)
	scheme := "http://"
	if secret != nil {
		l, scheme = tls.NewListener(l, secret), "https://"
	}
	srv := &http.Server{Handler: h, ReadHeaderTimeout: 10 * time.Second, ReadTimeout: readWithin, IdleTimeout: 2 * time.Minute, MaxHeaderBytes: 64 << 10}
	failed := make(chan error, 1)
	go func() { failed <- srv.Serve(l) }()
	log.Info("serving", "url", scheme+l.Addr().String())
	select {
	case err := <-failed:
		return err
	case <-ctx.Done():
	}
	log.Info("stopping")
	late, cancel := context.WithTimeout(context.WithoutCancel(ctx), 10*time.Second)
	defer cancel()
	if err := srv.Shutdown(late); err != nil && !errors.Is(err, http.ErrServerClosed) {
		return err
	}
	return nil
}
