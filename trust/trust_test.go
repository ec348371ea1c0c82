package trust

import (
	"crypto/ecdsa"
	"crypto/elliptic"
	"crypto/rand"
	"crypto/tls"
	"crypto/x509"
	"math/big"
	"net"
	"os"
	"path/filepath"
	"testing"
	"time"
)

var june = time.Date(2026, 6, 1, 5, 0, 0, 0, time.UTC)

func open(t *testing.T, folder string, now time.Time, hosts ...string) *Authority {
	t.Helper()
	a, err := Open(folder, hosts, now)
	if err != nil {
		t.Fatal(err)
	}
	return a
}

func verify(a *Authority, leaf *x509.Certificate, host string, now time.Time) error {
	root, err := x509.ParseCertificate(a.Certificate)
	if err != nil {
		return err
	}
	roots := x509.NewCertPool()
	roots.AddCert(root)
	_, err = leaf.Verify(x509.VerifyOptions{Roots: roots, DNSName: host, CurrentTime: now})
	return err
}

func TestItsServersAreTrustedForTheFarmsHosts(t *testing.T) {
	a := open(t, t.TempDir(), june, "dew.lan", "192.168.7.20")
	for _, host := range []string{"dew.lan", "192.168.7.20", "localhost", "127.0.0.1"} {
		if err := verify(a, a.Server.Leaf, host, june); err != nil {
			t.Errorf("for %s: %v", host, err)
		}
	}
	if err := verify(a, a.Server.Leaf, "other.lan", june); err == nil {
		t.Error("the certificate is good for other.lan, want it refused")
	}
	if days := a.Server.Leaf.NotAfter.Sub(june).Hours() / 24; days > 398 {
		t.Errorf("the certificate holds for %.0f days; phones refuse more than 398", days)
	}
}

// Who has stolen the authority's key cannot pass for a bank with it.
func TestTheAuthorityCannotVouchForOtherHosts(t *testing.T) {
	folder := t.TempDir()
	a := open(t, folder, june, "dew.lan")
	root, err := load(folder, authorityFile, authorityKey)
	if err != nil {
		t.Fatal(err)
	}
	key, err := ecdsa.GenerateKey(elliptic.P256(), rand.Reader)
	if err != nil {
		t.Fatal(err)
	}
	for host, forged := range map[string]*x509.Certificate{
		"bank.example": {SerialNumber: big.NewInt(7), DNSNames: []string{"bank.example"}, NotBefore: june, NotAfter: june.AddDate(1, 0, 0)},
		"10.0.0.1":     {SerialNumber: big.NewInt(8), IPAddresses: []net.IP{net.ParseIP("10.0.0.1")}, NotBefore: june, NotAfter: june.AddDate(1, 0, 0)},
	} {
		der, err := x509.CreateCertificate(rand.Reader, forged, root.Leaf, key.Public(), root.PrivateKey)
		if err != nil {
			t.Fatal(err)
		}
		leaf, err := x509.ParseCertificate(der)
		if err != nil {
			t.Fatal(err)
		}
		if err := verify(a, leaf, host, june.Add(time.Hour)); err == nil {
			t.Errorf("a certificate for %s by the farm's authority is trusted, want it refused", host)
		}
	}
}

func TestKeysAreReadableByTheirOwnerAlone(t *testing.T) {
	folder := t.TempDir()
	open(t, folder, june, "dew.lan")
	for _, file := range []string{authorityKey, serverKey} {
		info, err := os.Stat(filepath.Join(folder, file))
		if err != nil {
			t.Fatal(err)
		}
		if mode := info.Mode().Perm(); mode != 0o600 {
			t.Errorf("%s has mode %o, want 600", file, mode)
		}
	}
}

func TestPhonesTrustOnce(t *testing.T) {
	folder := t.TempDir()
	first := open(t, folder, june, "dew.lan")
	if !first.IsNew {
		t.Error("the first authority is not called new")
	}
	again := open(t, folder, june.AddDate(0, 1, 0), "dew.lan")
	if again.IsNew || again.Fingerprint() != first.Fingerprint() || !again.Server.Leaf.Equal(first.Server.Leaf) {
		t.Error("a month later the certificates are others, want the same")
	}
	later := open(t, folder, june.AddDate(1, 1, 0), "dew.lan")
	if later.IsNew || later.Server.Leaf.Equal(first.Server.Leaf) {
		t.Error("after a year the server's certificate must be made anew, by the same authority")
	}
	moved := open(t, folder, june, "dew.lan", "farm.example")
	if !moved.IsNew || verify(moved, moved.Server.Leaf, "farm.example", june) != nil {
		t.Error("another host needs another authority, and a certificate for it")
	}
}

func TestDamagedFilesAreNotPassedOver(t *testing.T) {
	folder := t.TempDir()
	open(t, folder, june, "dew.lan")
	if err := os.WriteFile(filepath.Join(folder, authorityFile), []byte("mud"), 0o644); err != nil {
		t.Fatal(err)
	}
	if _, err := Open(folder, []string{"dew.lan"}, june); err == nil {
		t.Error("a damaged authority is replaced unasked, want an error: phones trust the old one")
	}
}

func TestHosts(t *testing.T) {
	c := tls.Certificate{Leaf: &x509.Certificate{DNSNames: []string{"dew.lan"}, IPAddresses: []net.IP{net.ParseIP("10.1.2.3")}}}
	if got := Hosts(c); len(got) != 2 || got[0] != "dew.lan" || got[1] != "10.1.2.3" {
		t.Errorf("Hosts = %q, want dew.lan and 10.1.2.3", got)
	}
}
