package main

import (
	"context"
	"io"
	"log/slog"
	"net"
	"net/netip"
	"strings"
	"testing"

	"mezzadro/house/firm"
)

// faked is a listener whose connections come from addresses that are given.
type faked struct{ from chan string }

type far struct {
	net.Conn
	from net.Addr
}

func (f far) RemoteAddr() net.Addr { return f.from }

func (f faked) Accept() (net.Conn, error) {
	text, more := <-f.from
	if !more {
		return nil, io.EOF
	}
	here, _ := net.Pipe()
	return far{here, net.TCPAddrFromAddrPort(netip.MustParseAddrPort(text))}, nil
}
func (f faked) Close() error   { return nil }
func (f faked) Addr() net.Addr { return nil }

// TestNobodyTakesAllConnections: 530 connections of one address leave room for others; when one ends, the next comes
// in. Trusted proxies are not counted, nor is this machine where none is named.
func TestNobodyTakesAllConnections(t *testing.T) {
	const stranger, worker = "203.0.113.9:4000", "198.51.100.7:4000"
	from := make(chan string, 2000)
	l := &each{Listener: faked{from}, most: 64, open: map[netip.Addr]int{}}
	l.trusted = []netip.Prefix{netip.MustParsePrefix("10.0.0.0/8")}
	for range 530 {
		from <- stranger
	}
	from <- worker
	for range 200 {
		from <- "10.1.2.3:5000"
		from <- "127.0.0.1:5000"
	}
	close(from)
	in := map[string][]net.Conn{}
	for {
		c, err := l.Accept()
		if err != nil {
			break
		}
		in[c.RemoteAddr().String()] = append(in[c.RemoteAddr().String()], c)
	}
	proxy, here := len(in["10.1.2.3:5000"]), len(in["127.0.0.1:5000"])
	if len(in[stranger]) != 64 || len(in[worker]) != 1 || proxy != 200 || here != 64 {
		t.Errorf("strangers %d, worker %d, proxy %d, this machine %d", len(in[stranger]), len(in[worker]), proxy, here)
	}
	_ = in[stranger][0].Close()
	_ = in[stranger][0].Close() // twice gives one place back
	addr := netip.MustParseAddr("203.0.113.9")
	if !l.take(addr) || l.take(addr) {
		t.Error("one ended: one place is free")
	}
	if l.free(netip.MustParseAddr("127.0.0.1")) || !(&each{}).free(netip.MustParseAddr("127.0.0.1")) {
		t.Error("this machine is free where no proxy is trusted, and there alone")
	}
}

// TestNotOpenBehindAProxy: by a name of its own, behind a proxy or from other machines the record is not served before
// somebody has to sign in.
func TestNotOpenBehindAProxy(t *testing.T) {
	o := options{addr: "127.0.0.1:0", data: t.TempDir()}
	s, err := o.open(context.Background(), nil)
	if err != nil {
		t.Fatal(err)
	}
	defer s.Close()
	s.Estate.Log = slog.New(slog.DiscardHandler)
	outside := []options{
		{addr: "127.0.0.1:8080", hosts: []string{"garden.example"}}, {addr: "127.0.0.1:8080", proxies: []string{"127.0.0.1"}},
		{addr: "0.0.0.0:8080"}, {addr: ":8080"},
	}
	for _, x := range outside {
		err := x.reachable(context.Background(), s)
		if err == nil || !strings.Contains(err.Error(), "enter the owner first") {
			t.Errorf("%+v: %v", x, err)
		}
	}
	if err := (options{addr: "127.0.0.1:8080"}).reachable(context.Background(), s); err != nil {
		t.Errorf("on this machine alone: %v", err)
	}
	ilda := firm.OwnerIn{Login: "ilda", Name: "Ilda", Password: "four quiet mulberry trees"}
	if _, err := s.Firm.FirstOwner(context.Background(), ilda); err != nil {
		t.Fatal(err)
	}
	for _, x := range outside {
		if err := x.reachable(context.Background(), s); err != nil {
			t.Errorf("with an owner, %+v: %v", x, err)
		}
	}
}
