package main

import (
	"crypto/ecdsa"
	"crypto/elliptic"
	"crypto/rand"
	"crypto/x509"
	"crypto/x509/pkix"
	"encoding/pem"
	"log/slog"
	"math/big"
	"os"
	"path/filepath"
	"testing"
	"time"
)

// certify writes a certificate with its key for a name.
func certify(t *testing.T, cert, key, name string, at time.Time) {
	t.Helper()
	k, err := ecdsa.GenerateKey(elliptic.P256(), rand.Reader)
	if err != nil {
		t.Fatal(err)
	}
	c := &x509.Certificate{SerialNumber: big.NewInt(at.UnixNano()), Subject: pkix.Name{CommonName: name}, DNSNames: []string{name}, NotBefore: at.Add(-time.Hour), NotAfter: at.Add(time.Hour)}
	der, err := x509.CreateCertificate(rand.Reader, c, c, &k.PublicKey, k)
	if err != nil {
		t.Fatal(err)
	}
	secret, err := x509.MarshalECPrivateKey(k)
	if err != nil {
		t.Fatal(err)
	}
	for file, block := range map[string]*pem.Block{cert: {Type: "CERTIFICATE", Bytes: der}, key: {Type: "EC PRIVATE KEY", Bytes: secret}} {
		if err := os.WriteFile(file, pem.EncodeToMemory(block), 0o600); err != nil {
			t.Fatal(err)
		}
		if err := os.Chtimes(file, at, at); err != nil {
			t.Fatal(err)
		}
	}
}

// TestCertificateReloads: a new certificate is taken without a restart; one that is half written leaves the one before.
func TestCertificateReloads(t *testing.T) {
	dir := t.TempDir()
	cert, key := filepath.Join(dir, "cert.pem"), filepath.Join(dir, "key.pem")
	now := time.Now()
	p := &pair{cert: cert, key: key, log: slog.New(slog.DiscardHandler)}
	if _, err := p.get(nil); err == nil {
		t.Error("there is none, and it is served")
	}
	name := func() string {
		c, err := p.get(nil)
		if err != nil {
			t.Fatal(err)
		}
		leaf, err := x509.ParseCertificate(c.Certificate[0])
		if err != nil {
			t.Fatal(err)
		}
		return leaf.DNSNames[0]
	}
	certify(t, cert, key, "one.example", now)
	if got := name(); got != "one.example" {
		t.Error(got)
	}
	if err := os.WriteFile(cert, []byte("-----BEGIN"), 0o600); err != nil {
		t.Fatal(err)
	}
	if err := os.Chtimes(cert, now.Add(time.Minute), now.Add(time.Minute)); err != nil {
		t.Fatal(err)
	}
	if got := name(); got != "one.example" {
		t.Errorf("half written: %s", got)
	}
	certify(t, cert, key, "two.example", now.Add(2*time.Minute))
	if got := name(); got != "two.example" {
		t.Errorf("the new one: %s", got)
	}
}

// TestLoopback: which addresses only this machine reaches.
func TestLoopback(t *testing.T) {
	for addr, want := range map[string]bool{
		"127.0.0.1:8080": true, "localhost:1": true, "[::1]:80": true, "127.9.9.9:1": true, "0.0.0.0:8080": false, ":8080": false, "192.168.1.4:80": false,
		"garden.example:80": false, "": false, "127.0.0.1": false,
	} {
		if got := (options{addr: addr}).loopback(); got != want {
			t.Errorf("%q: %v", addr, got)
		}
	}
}
