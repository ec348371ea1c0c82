package main

import (
	"bufio"
	"context"
	"crypto/tls"
	"crypto/x509"
	"encoding/pem"
	"io"
	"net/http"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"dewcount/farm"
	"dewcount/farm/book"
	"dewcount/people"
	"dewcount/records"
)

// serving starts the program and returns what it prints until it says where it is, that address, and what stops it.
func serving(t *testing.T, args ...string) (said, address string) {
	t.Helper()
	stopping, stop := context.WithCancel(ctx)
	read, write := io.Pipe()
	done := make(chan int, 1)
	go func() {
		done <- run(stopping, args, write, write, clock)
		write.Close()
	}()
	t.Cleanup(func() {
		stop()
		if status := <-done; status != 0 {
			t.Errorf("dewcount %v: stopped with %d", args, status)
		}
	})
	lines := bufio.NewScanner(read)
	for lines.Scan() {
		said += lines.Text() + "\n"
		if _, rest, ok := strings.Cut(lines.Text(), "Dew Count is at "); ok {
			address, _, _ = strings.Cut(rest, " ")
			break
		}
	}
	go io.Copy(io.Discard, read)
	return said, address
}

// ownedDB is the demo's database with an owner, and the farm's address where one is given.
func ownedDB(t *testing.T, address string) string {
	t.Helper()
	file := demoDB(t)
	store, err := records.Open(ctx, file)
	if err != nil {
		t.Fatal(err)
	}
	defer store.Close()
	if _, err := people.New(store, clock, "ABCD-2345").SetUp(ctx, "ABCD-2345", "Wren", "hedge bucket lantern", "test"); err != nil {
		t.Fatal(err)
	}
	if address != "" {
		if err := farm.New(store, clock).Set(ctx, "Wren", "", []book.Setting{{Key: "address", Value: address}}); err != nil {
			t.Fatal(err)
		}
	}
	return file
}

func TestBeyondThisMachineItWantsPeopleAndAnAddress(t *testing.T) {
	for what, c := range map[string]struct {
		args []string
		want string
	}{
		"no people":     {[]string{"serve", "--db", demoDB(t), "--addr", "0.0.0.0:0"}, "nobody is set up yet"},
		"no address":    {[]string{"serve", "--db", ownedDB(t, ""), "--addr", "0.0.0.0:0"}, "the farm's address"},
		"a demo":        {[]string{"demo", "--addr", "0.0.0.0:0"}, "signs everybody in"},
		"no such files": {[]string{"serve", "--db", ownedDB(t, ""), "--addr", "127.0.0.1:0", "--cert", "a", "--key", "b"}, "no certificate"},
	} {
		if status, _, stderr := call(c.args...); status != 1 || !strings.Contains(stderr, c.want) {
			t.Errorf("%s: exit %d, %q, want 1 and %q", what, status, stderr, c.want)
		}
	}
}

func TestItSpeaksHTTPSByItsOwnAuthorityAndNothingElse(t *testing.T) {
	file := ownedDB(t, "https://dew.lan:8443")
	said, address := serving(t, "serve", "--db", file, "--addr", "0.0.0.0:0")
	if !strings.Contains(said, "fingerprint") || !strings.HasPrefix(address, "https://") {
		t.Fatalf("it says %q", said)
	}
	text, err := os.ReadFile(filepath.Join(file+".tls", "authority.crt"))
	if err != nil {
		t.Fatal(err)
	}
	block, _ := pem.Decode(text)
	root, err := x509.ParseCertificate(block.Bytes)
	if err != nil {
		t.Fatal(err)
	}
	roots := x509.NewCertPool()
	roots.AddCert(root)
	port := address[strings.LastIndex(address, ":"):]
	client := &http.Client{Transport: &http.Transport{TLSClientConfig: &tls.Config{RootCAs: roots}}}
	answer, err := client.Get("https://127.0.0.1" + port + "/orders")
	if err != nil {
		t.Fatal(err)
	}
	body, _ := io.ReadAll(answer.Body)
	answer.Body.Close()
	if !strings.Contains(string(body), "Sign in") || strings.Contains(string(body), "Larkenfold") {
		t.Errorf("a stranger on the network sees more than the door: %d", answer.StatusCode)
	}
	if answer, err = http.Get("http://127.0.0.1" + port + "/"); err == nil {
		if answer.StatusCode < 400 {
			t.Errorf("plain http is answered with %d", answer.StatusCode)
		}
		answer.Body.Close()
	}
}

// An owner who has forgotten everything is let in by whoever can read the database.
func TestLetIn(t *testing.T) {
	file := ownedDB(t, "https://dew.lan:8443")
	status, stdout, stderr := call("let-in", "--db", file)
	_, secret, found := strings.Cut(stdout, "https://dew.lan:8443/join/")
	if status != 0 || !found || !strings.Contains(stdout, "Wren") {
		t.Fatalf("exit %d, %q, %q", status, stdout, stderr)
	}
	secret, _, _ = strings.Cut(secret, "\n")
	store, err := records.Open(ctx, file)
	if err != nil {
		t.Fatal(err)
	}
	defer store.Close()
	crew := people.New(store, clock, "")
	if who, err := crew.Join(ctx, secret, "", "quite another phrase", "here"); err != nil || who.Name != "Wren" || who.Role != people.Owner {
		t.Errorf("the link lets in %+v, %v", who, err)
	}
	for _, args := range [][]string{{"let-in", "--db", file, "--name", "Nobody"}, {"let-in", "--db", demoDB(t)}, {"let-in", "--db", filepath.Join(t.TempDir(), "missing.db")}} {
		if status, stdout, stderr := call(args...); status != 1 || stdout != "" || strings.Count(stderr, "\n") != 1 {
			t.Errorf("dewcount %v: exit %d, %q, %q", args, status, stdout, stderr)
		}
	}
}

func TestAFirstStartPrintsTheCode(t *testing.T) {
	stopping, stop := context.WithCancel(ctx)
	read, write := io.Pipe()
	done := make(chan int, 1)
	go func() {
		done <- run(stopping, []string{"serve", "--db", demoDB(t), "--addr", "127.0.0.1:0"}, write, write, clock)
	}()
	lines := bufio.NewScanner(read)
	lines.Scan()
	lines.Scan()
	if !strings.Contains(lines.Text(), "/first") || !strings.Contains(lines.Text(), "code ") {
		t.Errorf("the second line is %q, want the way to the first owner and the code", lines.Text())
	}
	stop()
	if status := <-done; status != 0 {
		t.Errorf("stopped with %d", status)
	}
}
