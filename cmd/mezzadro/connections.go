package main

import (
	"net"
	"net/netip"
	"slices"
	"sync"
)

// each is a listener that keeps no more than so many connections open of one address, so that nobody takes them all:
// one more is closed at once. Trusted proxies, behind which many are, are not counted; nor is this machine where none is
// named.
type each struct {
	net.Listener
	most    int
	trusted []netip.Prefix

	mu   sync.Mutex
	open map[netip.Addr]int
}

// Accept waits for the next connection of an address that has not too many.
func (l *each) Accept() (net.Conn, error) {
	for {
		c, err := l.Listener.Accept()
		if err != nil {
			return nil, err
		}
		from, err := netip.ParseAddrPort(c.RemoteAddr().String())
		if err != nil {
			return c, nil // no address of a network
		}
		addr := from.Addr().Unmap()
		if l.free(addr) {
			return c, nil
		}
		if !l.take(addr) {
			_ = c.Close() // it has its share
			continue
		}
		return &counted{Conn: c, done: sync.OnceFunc(func() { l.leave(addr) })}, nil
	}
}

// free reports an address that is not counted.
func (l *each) free(a netip.Addr) bool {
	return len(l.trusted) == 0 && a.IsLoopback() || slices.ContainsFunc(l.trusted, func(p netip.Prefix) bool { return p.Contains(a) })
}

func (l *each) take(a netip.Addr) bool {
	l.mu.Lock()
	defer l.mu.Unlock()
	if l.open[a] >= l.most {
		return false
	}
	l.open[a]++
	return true
}

func (l *each) leave(a netip.Addr) {
	l.mu.Lock()
	defer l.mu.Unlock()
	if l.open[a]--; l.open[a] == 0 {
		delete(l.open, a)
	}
}

// counted is a connection that gives its place back when it ends.
type counted struct {
	net.Conn
	done func()
}

// Close ends it.
func (c *counted) Close() error {
	defer c.done()
	return c.Conn.Close()
}
