// Package trust makes a farm's own certificate authority, so that phones reach the program by https without asking anybody outside.
//
// The authority vouches for the farm's own hosts and this machine's loopback names alone (name constraints, RFC 5280 section 4.2.1.10):
// whoever stole its key could not pass for any other site to the phones that trust it.
package trust

import (
	"crypto"
	"crypto/ecdsa"
	"crypto/elliptic"
	"crypto/rand"
	"crypto/sha256"
	"crypto/tls"
	"crypto/x509"
	"crypto/x509/pkix"
	"encoding/hex"
	"encoding/pem"
	"errors"
	"fmt"
	"io/fs"
	"math/big"
	"net"
	"os"
	"path/filepath"
	"slices"
	"strings"
	"time"
)

// How long certificates hold: phones refuse long ones of a server. The server's is made anew, unasked, when it ends soon.
const (
	authorityYears = 10
	serverDays     = 397
	renewBefore    = 30 * 24 * time.Hour
)

// An Authority is a farm's own, with a certificate that it has given to this server.
type Authority struct {
	Server      tls.Certificate
	Certificate []byte // of the authority, DER: what a phone must trust
	IsNew       bool   // phones do not know it yet
}

// Fingerprint returns the SHA-256 of the authority's certificate as phones show it, in pairs of digits.
func (a *Authority) Fingerprint() string {
	sum := sha256.Sum256(a.Certificate)
	pairs := make([]string, len(sum))
	for i, b := range sum {
		pairs[i] = hex.EncodeToString([]byte{b})
	}
	return strings.ToUpper(strings.Join(pairs, ":"))
}

// The files of an authority in its folder.
const (
	authorityFile = "authority.crt"
	authorityKey  = "authority-key.pem"
	serverFile    = "server.crt"
	serverKey     = "server-key.pem"
)

// loopback is what every authority vouches for beside the farm's hosts.
var loopback = []string{"localhost", "127.0.0.1", "::1"}

// Open returns the authority of a folder, which is made where it is missing, and a certificate for the hosts: names or addresses without
// port. An authority that may not vouch for them is replaced, and phones must then trust the new one.
func Open(folder string, hosts []string, now time.Time) (*Authority, error) {
	if err := os.MkdirAll(folder, 0o700); err != nil {
		return nil, fmt.Errorf("a place for the certificates: %w", err)
	}
	hosts = append(slices.Clone(hosts), loopback...)
	slices.Sort(hosts)
	hosts = slices.Compact(hosts)
	root, err := load(folder, authorityFile, authorityKey)
	isNew := false
	switch {
	case err != nil && !errors.Is(err, fs.ErrNotExist):
		return nil, err
	case err != nil || !vouches(root.Leaf, hosts) || now.Add(renewBefore).After(root.Leaf.NotAfter):
		if root, err = newAuthority(folder, hosts, now); err != nil {
			return nil, err
		}
		isNew = true
	}
	server, err := load(folder, serverFile, serverKey)
	if err != nil || !serves(server.Leaf, root.Leaf, hosts, now) {
		if server, err = newServer(folder, root, hosts, now); err != nil {
			return nil, err
		}
	}
	server.Certificate = append(server.Certificate[:1:1], root.Leaf.Raw) // who trusts the authority finds it in the chain
	return &Authority{Server: server, Certificate: root.Leaf.Raw, IsNew: isNew}, nil
}

// vouches tells whether an authority may give a certificate for all hosts, and for no others.
func vouches(root *x509.Certificate, hosts []string) bool {
	names, addresses := split(hosts)
	if !slices.Equal(root.PermittedDNSDomains, names) || len(root.PermittedIPRanges) != len(addresses) {
		return false
	}
	for i, ip := range addresses {
		if !root.PermittedIPRanges[i].IP.Equal(ip) {
			return false
		}
	}
	return true
}

func serves(leaf, root *x509.Certificate, hosts []string, now time.Time) bool {
	roots := x509.NewCertPool()
	roots.AddCert(root)
	for _, h := range hosts {
		if _, err := leaf.Verify(x509.VerifyOptions{Roots: roots, DNSName: h, CurrentTime: now.Add(renewBefore)}); err != nil {
			return false
		}
	}
	return true
}

// split parts hosts into names and addresses.
func split(hosts []string) (names []string, addresses []net.IP) {
	for _, h := range hosts {
		if ip := net.ParseIP(h); ip != nil {
			addresses = append(addresses, ip)
		} else {
			names = append(names, h)
		}
	}
	return names, addresses
}

func newAuthority(folder string, hosts []string, now time.Time) (tls.Certificate, error) {
	names, addresses := split(hosts)
	t := &x509.Certificate{
		SerialNumber: serial(), Subject: pkix.Name{CommonName: "Dew Count of this farm"}, NotBefore: now.Add(-time.Hour), NotAfter: now.AddDate(authorityYears, 0, 0),
		IsCA: true, BasicConstraintsValid: true, MaxPathLenZero: true, KeyUsage: x509.KeyUsageCertSign, ExtKeyUsage: []x509.ExtKeyUsage{x509.ExtKeyUsageServerAuth},
		PermittedDNSDomainsCritical: true, PermittedDNSDomains: names,
	}
	for _, ip := range addresses {
		bits := 8 * len(ip)
		if v4 := ip.To4(); v4 != nil {
			ip, bits = v4, 32
		}
		t.PermittedIPRanges = append(t.PermittedIPRanges, &net.IPNet{IP: ip, Mask: net.CIDRMask(bits, bits)})
	}
	return sign(folder, authorityFile, authorityKey, t, nil)
}

func newServer(folder string, root tls.Certificate, hosts []string, now time.Time) (tls.Certificate, error) {
	names, addresses := split(hosts)
	t := &x509.Certificate{
		SerialNumber: serial(), Subject: pkix.Name{CommonName: hosts[0]}, NotBefore: now.Add(-time.Hour), NotAfter: now.AddDate(0, 0, serverDays),
		KeyUsage: x509.KeyUsageDigitalSignature, ExtKeyUsage: []x509.ExtKeyUsage{x509.ExtKeyUsageServerAuth}, DNSNames: names, IPAddresses: addresses,
	}
	return sign(folder, serverFile, serverKey, t, &root)
}

func serial() *big.Int {
	n, err := rand.Int(rand.Reader, new(big.Int).Lsh(big.NewInt(1), 120))
	if err != nil {
		panic("trust: no random numbers: " + err.Error()) // crypto/rand ends the program before
	}
	return n
}

// sign makes a key and a certificate for it, by a root or by itself, and keeps both; the key is readable by this user alone.
func sign(folder, file, keyFile string, t *x509.Certificate, root *tls.Certificate) (tls.Certificate, error) {
	key, err := ecdsa.GenerateKey(elliptic.P256(), rand.Reader)
	if err != nil {
		return tls.Certificate{}, fmt.Errorf("a key: %w", err)
	}
	parent, signer := t, crypto.PrivateKey(key)
	if root != nil {
		parent, signer = root.Leaf, root.PrivateKey
	}
	der, err := x509.CreateCertificate(rand.Reader, t, parent, key.Public(), signer)
	if err != nil {
		return tls.Certificate{}, fmt.Errorf("a certificate: %w", err)
	}
	secret, err := x509.MarshalPKCS8PrivateKey(key)
	if err != nil {
		return tls.Certificate{}, fmt.Errorf("a key: %w", err)
	}
	if err := keep(filepath.Join(folder, keyFile), "PRIVATE KEY", secret, 0o600); err != nil {
		return tls.Certificate{}, err
	}
	if err := keep(filepath.Join(folder, file), "CERTIFICATE", der, 0o644); err != nil {
		return tls.Certificate{}, err
	}
	return load(folder, file, keyFile)
}

// keep writes a file whole or not at all.
func keep(path, kind string, der []byte, mode fs.FileMode) error {
	fresh := path + ".new"
	if err := os.Remove(fresh); err != nil && !errors.Is(err, fs.ErrNotExist) { // a mode is that of a file's making
		return fmt.Errorf("keep %s: %w", path, err)
	}
	if err := os.WriteFile(fresh, pem.EncodeToMemory(&pem.Block{Type: kind, Bytes: der}), mode); err != nil {
		return fmt.Errorf("keep %s: %w", path, err)
	}
	if err := os.Rename(fresh, path); err != nil {
		return fmt.Errorf("keep %s: %w", path, err)
	}
	return nil
}

func load(folder, file, keyFile string) (tls.Certificate, error) {
	c, err := tls.LoadX509KeyPair(filepath.Join(folder, file), filepath.Join(folder, keyFile))
	if err != nil {
		return c, fmt.Errorf("the certificate %s: %w", filepath.Join(folder, file), err)
	}
	return c, nil
}

// Hosts returns the hosts that a certificate is for.
func Hosts(c tls.Certificate) []string {
	hosts := slices.Clone(c.Leaf.DNSNames)
	for _, ip := range c.Leaf.IPAddresses {
		hosts = append(hosts, ip.String())
	}
	return hosts
}
