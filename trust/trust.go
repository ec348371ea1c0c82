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
	"sync"
	"time"
)

// How long certificates hold: phones refuse long ones of a server. The server's is made anew, unasked, when it ends soon.
const (
	authorityYears = 10
	serverDays     = 397
	renewBefore    = 30 * 24 * time.Hour
)

// written is when this program was: no clock that is right shows an earlier time. A small machine without a battery starts in 1970, and would
// make certificates that no phone takes once the time is known.
var written = time.Date(2026, 11, 27, 0, 0, 0, 0, time.UTC)

// An Authority is a farm's own. It gives a certificate to this server, and another before that one ends, however long the server runs.
type Authority struct {
	Certificate []byte // of the authority, DER: what a phone must trust
	IsNew       bool   // phones do not know it yet

	folder string
	hosts  []string
	clock  func() time.Time
	root   tls.Certificate

	mu     sync.Mutex
	server tls.Certificate
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

// The files of an authority in its folder. A key and its certificate are one file, which is there whole or not at all; the certificate of the
// authority stands beside it once more, for phones to load.
const (
	authorityFile = "authority.pem"
	serverFile    = "server.pem"
	publicFile    = "authority.crt"
	oldKeyFile    = "authority-key.pem" // of earlier versions, beside publicFile
)

// loopback is what every authority vouches for beside the farm's hosts.
var loopback = []string{"localhost", "127.0.0.1", "::1"}

// Open returns the authority of a folder, which is made where it is missing, and has it give a certificate for the hosts: names or addresses
// without port. An authority that may not vouch for them is replaced, and phones must then trust the new one.
func Open(folder string, hosts []string, clock func() time.Time) (*Authority, error) {
	if err := os.MkdirAll(folder, 0o700); err != nil {
		return nil, fmt.Errorf("a place for the certificates: %w", err)
	}
	a := &Authority{folder: folder, hosts: withLoopback(hosts), clock: clock}
	var err error
	a.root, err = load(filepath.Join(folder, authorityFile), filepath.Join(folder, authorityFile))
	if errors.Is(err, fs.ErrNotExist) {
		a.root, err = load(filepath.Join(folder, publicFile), filepath.Join(folder, oldKeyFile))
	}
	switch {
	case err != nil && !errors.Is(err, fs.ErrNotExist):
		return nil, err
	case err != nil || !vouches(a.root.Leaf, a.hosts) || a.now().Add(renewBefore).After(a.root.Leaf.NotAfter):
		if a.root, err = newAuthority(a.hosts, a.now()); err != nil {
			return nil, err
		}
		a.IsNew = true
	}
	if err := keep(filepath.Join(folder, authorityFile), a.root); err != nil {
		return nil, err
	}
	public := pem.EncodeToMemory(&pem.Block{Type: "CERTIFICATE", Bytes: a.root.Leaf.Raw})
	if err := keepFile(filepath.Join(folder, publicFile), public, 0o644); err != nil {
		return nil, err
	}
	a.Certificate = a.root.Leaf.Raw
	a.server, _ = load(filepath.Join(folder, serverFile), filepath.Join(folder, serverFile)) // one that is not sound is made anew
	if _, err := a.Server(nil); err != nil {
		return nil, err
	}
	return a, nil
}

// Try tells whether an authority can be made for hosts, and vouch for them: before an address is kept that no phone could reach.
func Try(hosts []string) error {
	hosts = withLoopback(hosts)
	root, err := newAuthority(hosts, written)
	if err != nil {
		return err
	}
	server, err := newServer(root, hosts, written)
	if err != nil {
		return err
	}
	if !serves(server.Leaf, root.Leaf, hosts, written) {
		return fmt.Errorf("a certificate for %s would not be trusted", strings.Join(hosts, ", "))
	}
	return nil
}

func withLoopback(hosts []string) []string {
	hosts = append(slices.Clone(hosts), loopback...)
	slices.Sort(hosts)
	return slices.Compact(hosts)
}

// now returns the time that certificates are made for.
func (a *Authority) now() time.Time {
	now := a.clock()
	if now.Before(written) {
		return written
	}
	return now
}

// Server returns the certificate by which the server proves itself at this moment; it is what tls.Config.GetCertificate wants.
func (a *Authority) Server(*tls.ClientHelloInfo) (*tls.Certificate, error) {
	a.mu.Lock()
	defer a.mu.Unlock()
	now := a.now()
	if a.server.Leaf == nil || now.Before(a.server.Leaf.NotBefore) || now.Add(renewBefore).After(a.server.Leaf.NotAfter) || !serves(a.server.Leaf, a.root.Leaf, a.hosts, now) {
		server, err := newServer(a.root, a.hosts, now)
		if err != nil {
			return nil, err
		}
		if err := keep(filepath.Join(a.folder, serverFile), server); err != nil {
			return nil, err
		}
		a.server = server
	}
	shown := a.server
	shown.Certificate = append(shown.Certificate[:1:1], a.root.Leaf.Raw) // who trusts the authority finds it in the chain
	return &shown, nil
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
		if _, err := leaf.Verify(x509.VerifyOptions{Roots: roots, DNSName: h, CurrentTime: now}); err != nil {
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

func newAuthority(hosts []string, now time.Time) (tls.Certificate, error) {
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
	return sign(t, nil)
}

func newServer(root tls.Certificate, hosts []string, now time.Time) (tls.Certificate, error) {
	names, addresses := split(hosts)
	t := &x509.Certificate{
		SerialNumber: serial(), Subject: pkix.Name{CommonName: hosts[0]}, NotBefore: now.Add(-time.Hour), NotAfter: now.AddDate(0, 0, serverDays),
		KeyUsage: x509.KeyUsageDigitalSignature, ExtKeyUsage: []x509.ExtKeyUsage{x509.ExtKeyUsageServerAuth}, DNSNames: names, IPAddresses: addresses,
	}
	return sign(t, &root)
}

func serial() *big.Int {
	n, err := rand.Int(rand.Reader, new(big.Int).Lsh(big.NewInt(1), 120))
	if err != nil {
		panic("trust: no random numbers: " + err.Error()) // crypto/rand ends the program before
	}
	return n
}

// sign makes a key and a certificate for it, by a root or by itself.
func sign(t *x509.Certificate, root *tls.Certificate) (tls.Certificate, error) {
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
	leaf, err := x509.ParseCertificate(der)
	if err != nil {
		return tls.Certificate{}, fmt.Errorf("a certificate: %w", err)
	}
	return tls.Certificate{Certificate: [][]byte{der}, PrivateKey: key, Leaf: leaf}, nil
}

// keep writes a certificate and its key in one file, readable by this user alone.
func keep(path string, c tls.Certificate) error {
	secret, err := x509.MarshalPKCS8PrivateKey(c.PrivateKey)
	if err != nil {
		return fmt.Errorf("a key: %w", err)
	}
	text := pem.EncodeToMemory(&pem.Block{Type: "PRIVATE KEY", Bytes: secret})
	return keepFile(path, append(text, pem.EncodeToMemory(&pem.Block{Type: "CERTIFICATE", Bytes: c.Leaf.Raw})...), 0o600)
}

// keepFile writes a file whole or not at all, also when the power goes.
func keepFile(path string, text []byte, mode fs.FileMode) (err error) {
	defer func() {
		if err != nil {
			err = fmt.Errorf("keep %s: %w", path, err)
		}
	}()
	fresh := path + ".new"
	if err := os.Remove(fresh); err != nil && !errors.Is(err, fs.ErrNotExist) { // a mode is that of a file's making
		return err
	}
	file, err := os.OpenFile(fresh, os.O_WRONLY|os.O_CREATE|os.O_EXCL, mode)
	if err != nil {
		return err
	}
	_, err = file.Write(text)
	if err := errors.Join(err, file.Sync(), file.Close()); err != nil {
		return err
	}
	return os.Rename(fresh, path)
}

func load(file, keyFile string) (tls.Certificate, error) {
	c, err := tls.LoadX509KeyPair(file, keyFile)
	if err != nil {
		return c, fmt.Errorf("the certificate %s: %w", file, err)
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
