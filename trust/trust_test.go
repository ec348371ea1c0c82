package trust

import (
	"crypto/ecdsa"
	"crypto/elliptic"
	"crypto/rand"
	"crypto/tls"
	"crypto/x509"
	"encoding/pem"
	"math/big"
	"net"
	"os"
	"path/filepath"
	"testing"
	"time"
)

var june = time.Date(2027, 6, 1, 5, 0, 0, 0, time.UTC)

func open(t *testing.T, folder string, now time.Time, hosts ...string) *Authority {
	t.Helper()
	a, err := Open(folder, hosts, func() time.Time { return now })
	if err != nil {
		t.Fatal(err)
	}
	return a
}

// leaf returns the server's certificate as it is shown now.
func (a *Authority) leaf(t *testing.T) *x509.Certificate {
	t.Helper()
	c, err := a.Server(nil)
	if err != nil {
		t.Fatal(err)
	}
	return c.Leaf
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
		if err := verify(a, a.leaf(t), host, june); err != nil {
			t.Errorf("for %s: %v", host, err)
		}
	}
	if err := verify(a, a.leaf(t), "other.lan", june); err == nil {
		t.Error("the certificate is good for other.lan, want it refused")
	}
	if days := a.leaf(t).NotAfter.Sub(june).Hours() / 24; days > 398 {
		t.Errorf("the certificate holds for %.0f days; phones refuse more than 398", days)
	}
}

// Who has stolen the authority's key cannot pass for a bank with it.
func TestTheAuthorityCannotVouchForOtherHosts(t *testing.T) {
	folder := t.TempDir()
	a := open(t, folder, june, "dew.lan")
	root, err := load(filepath.Join(folder, authorityFile), filepath.Join(folder, authorityFile))
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
	for _, file := range []string{authorityFile, serverFile} {
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
	if again.IsNew || again.Fingerprint() != first.Fingerprint() || !again.leaf(t).Equal(first.leaf(t)) {
		t.Error("a month later the certificates are others, want the same")
	}
	later := open(t, folder, june.AddDate(1, 1, 0), "dew.lan")
	if later.IsNew || later.leaf(t).Equal(first.leaf(t)) {
		t.Error("after a year the server's certificate must be made anew, by the same authority")
	}
	moved := open(t, folder, june, "dew.lan", "farm.example")
	if !moved.IsNew || verify(moved, moved.leaf(t), "farm.example", june) != nil {
		t.Error("another host needs another authority, and a certificate for it")
	}
}

func TestDamagedFilesAreNotPassedOver(t *testing.T) {
	folder := t.TempDir()
	open(t, folder, june, "dew.lan")
	if err := os.WriteFile(filepath.Join(folder, authorityFile), []byte("mud"), 0o644); err != nil {
		t.Fatal(err)
	}
	if _, err := Open(folder, []string{"dew.lan"}, time.Now); err == nil {
		t.Error("a damaged authority is replaced unasked, want an error: phones trust the old one")
	}
}

// A server that runs for years, on a clock that begins in 1970, always shows a certificate that phones take.
func TestAServerThatNeverStopsIsTrusted(t *testing.T) {
	folder, now := t.TempDir(), time.Unix(0, 0)
	a, err := Open(folder, []string{"dew.lan"}, func() time.Time { return now })
	if err != nil {
		t.Fatal(err)
	}
	for _, real := range []time.Time{written.AddDate(0, 1, 0), written.AddDate(0, 0, 400), written.AddDate(0, 0, 800), written.AddDate(5, 0, 0)} {
		if now.Year() == 1970 {
			if err := verify(a, a.leaf(t), "dew.lan", real); err != nil {
				t.Errorf("with a clock at 1970: %v", err)
			}
		}
		now = real
		if err := verify(a, a.leaf(t), "dew.lan", real); err != nil {
			t.Errorf("on %s: %v", real.Format("2 January 2006"), err)
		}
	}
	now = time.Unix(0, 0) // the battery is empty again
	if again := open(t, folder, now, "dew.lan"); again.IsNew || verify(again, again.leaf(t), "dew.lan", written.AddDate(0, 1, 0)) != nil {
		t.Error("back at 1970 another authority is made, or a certificate that nobody takes")
	}
}

// What a power cut leaves between two files is mended: the authority is in one, the server's is made anew.
func TestAPowerCutBetweenTwoFiles(t *testing.T) {
	folder := t.TempDir()
	first := open(t, folder, june, "dew.lan")
	for _, cut := range []string{publicFile, serverFile} {
		if err := os.WriteFile(filepath.Join(folder, cut+".new"), []byte("half a"), 0o600); err != nil {
			t.Fatal(err)
		}
		if err := os.Remove(filepath.Join(folder, cut)); err != nil {
			t.Fatal(err)
		}
	}
	again := open(t, folder, june, "dew.lan")
	if again.IsNew || verify(again, again.leaf(t), "dew.lan", june) != nil || again.Fingerprint() != first.Fingerprint() {
		t.Error("after a power cut phones must trust another authority")
	}
	if _, err := os.Stat(filepath.Join(folder, publicFile)); err != nil {
		t.Error(err)
	}
}

// The two files of earlier versions are taken over.
func TestAnAuthorityOfEarlierVersionsIsKept(t *testing.T) {
	folder := t.TempDir()
	first := open(t, folder, june, "dew.lan")
	text, err := os.ReadFile(filepath.Join(folder, authorityFile))
	if err != nil {
		t.Fatal(err)
	}
	if err := os.Rename(filepath.Join(folder, authorityFile), filepath.Join(folder, oldKeyFile)); err != nil {
		t.Fatal(err)
	}
	key, rest := pem.Decode(text)
	if err := os.WriteFile(filepath.Join(folder, oldKeyFile), pem.EncodeToMemory(key), 0o600); err != nil || len(rest) == 0 {
		t.Fatal(err)
	}
	if again := open(t, folder, june, "dew.lan"); again.IsNew || again.Fingerprint() != first.Fingerprint() {
		t.Error("phones must trust another authority")
	}
}

func TestTry(t *testing.T) {
	for _, host := range []string{"dew.lan", "192.168.7.20", "fd00::7", "xn--tau-0ma.example"} {
		if err := Try([]string{host}); err != nil {
			t.Errorf("%s: %v", host, err)
		}
	}
	for _, host := range []string{"täu.example", "a b", "dew..lan"} {
		if err := Try([]string{host}); err == nil {
			t.Errorf("%q can have a certificate, want an error", host)
		}
	}
}

func TestHosts(t *testing.T) {
	c := tls.Certificate{Leaf: &x509.Certificate{DNSNames: []string{"dew.lan"}, IPAddresses: []net.IP{net.ParseIP("10.1.2.3")}}}
	if got := Hosts(c); len(got) != 2 || got[0] != "dew.lan" || got[1] != "10.1.2.3" {
		t.Errorf("Hosts = %q, want dew.lan and 10.1.2.3", got)
	}
}
