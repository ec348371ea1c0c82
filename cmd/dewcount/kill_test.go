package main

import (
	"bufio"
	"bytes"
	"context"
	"encoding/json"
	"fmt"
	"io"
	"math/rand/v2"
	"net/http"
	"net/http/cookiejar"
	"net/url"
	"os"
	"os/exec"
	"regexp"
	"strings"
	"testing"
	"time"

	"dewcount/records"
)

// serveArgs names the variable with which the test starts itself anew as the program, so that it can be killed.
const serveArgs = "DEWCOUNT_TEST_SERVE"

func TestMain(m *testing.M) {
	if db := os.Getenv(serveArgs); db != "" {
		os.Exit(run(context.Background(), []string{"serve", "--db", db, "--addr", "127.0.0.1:0"}, os.Stdout, os.Stderr, time.Now))
	}
	os.Exit(m.Run())
}

// A victim is a server process and where it is.
type victim struct {
	process *exec.Cmd
	address string
}

func startVictim(t *testing.T, db string) victim {
	t.Helper()
	c := exec.Command(os.Args[0])
	c.Env = append(os.Environ(), serveArgs+"="+db)
	out, err := c.StdoutPipe()
	if err != nil {
		t.Fatal(err)
	}
	if err := c.Start(); err != nil {
		t.Fatal(err)
	}
	line, err := bufio.NewReader(out).ReadString('\n')
	if err != nil {
		t.Fatalf("the server said nothing: %v", err)
	}
	_, rest, _ := strings.Cut(line, "Dew Count is at ")
	address, _, _ := strings.Cut(rest, " ")
	return victim{c, address}
}

var formToken = regexp.MustCompile(`name="csrf" value="([^"]+)"`)

// A phone sends records as the page does: a fresh token, then the record, until it is acknowledged.
type phone struct{ client *http.Client }

func (p phone) signIn(address string) error {
	answer, err := p.client.Get(address + "/signin")
	if err != nil {
		return err
	}
	page, err := io.ReadAll(answer.Body)
	answer.Body.Close()
	if err != nil {
		return err
	}
	answer, err = p.client.PostForm(address+"/signin", url.Values{"csrf": {string(formToken.FindSubmatch(page)[1])}, "name": {"Wren"}, "password": {"hedge bucket lantern"}})
	if err != nil {
		return err
	}
	return answer.Body.Close()
}

// send reports whether a record was acknowledged; false stands for no answer.
func (p phone) send(address string, body []byte) (bool, error) {
	request, err := http.NewRequest(http.MethodGet, address+"/token", nil)
	if err != nil {
		return false, err
	}
	request.Header.Set("Accept", "application/json")
	answer, err := p.client.Do(request)
	if err != nil {
		return false, nil
	}
	var token struct{ Token string }
	err = json.NewDecoder(answer.Body).Decode(&token)
	answer.Body.Close()
	if err != nil {
		return false, nil
	}
	if request, err = http.NewRequest(http.MethodPost, address+"/field", bytes.NewReader(body)); err != nil {
		return false, err
	}
	request.Header.Set("Accept", "application/json")
	request.Header.Set("X-CSRF-Token", token.Token)
	if answer, err = p.client.Do(request); err != nil {
		return false, nil
	}
	defer answer.Body.Close()
	text, err := io.ReadAll(answer.Body)
	if err != nil {
		return false, nil
	}
	if answer.StatusCode != http.StatusOK {
		return false, fmt.Errorf("refused with %d: %s", answer.StatusCode, text)
	}
	return true, nil
}

// Fifty times the server dies somewhere in the middle of taking records. What it has acknowledged is there, all of it is there in the
// end, and nothing is there twice.
func TestAKilledServerLosesAndDoublesNothing(t *testing.T) {
	const kills = 50
	db := ownedDB(t, "")
	jar, err := cookiejar.New(nil)
	if err != nil {
		t.Fatal(err)
	}
	sender := phone{&http.Client{Jar: jar, Timeout: 2 * time.Minute}}
	random := rand.New(rand.NewPCG(7, 9))
	sent, signedIn := 0, false
	send := func(v victim) bool {
		body := fmt.Sprintf(`{"kind": "events", "fields": {"id": "note-%d", "planting": "ZC1", "event": "note %d", "on": "2026-07-09"}}`, sent, sent)
		ok, err := sender.send(v.address, []byte(body))
		if err != nil {
			t.Fatal(err)
		}
		if ok {
			sent++
		}
		return ok
	}
	for range kills {
		v := startVictim(t, db)
		if !signedIn {
			if err := sender.signIn(v.address); err != nil {
				t.Fatal(err)
			}
			signedIn = true
		}
		for !send(v) { // it lives
		}
		dead := make(chan struct{})
		go func() {
			time.Sleep(time.Duration(random.IntN(150)) * time.Millisecond)
			v.process.Process.Kill()
			v.process.Wait()
			close(dead)
		}()
		for send(v) {
		}
		<-dead
	}
	v := startVictim(t, db)
	for !send(v) { // the one that the last kill interrupted
	}
	v.process.Process.Kill()
	v.process.Wait()
	store, err := records.OpenExisting(ctx, db)
	if err != nil {
		t.Fatal(err)
	}
	defer store.Close()
	book, _, err := store.Load(ctx)
	if err != nil {
		t.Fatal(err)
	}
	seen := make(map[string]int)
	for _, e := range book.Events {
		if strings.HasPrefix(e.ID, "note-") {
			seen[e.Event]++
		}
	}
	for i := range sent {
		if n := seen[fmt.Sprintf("note %d", i)]; n != 1 {
			t.Errorf("note %d was acknowledged and is there %d times", i, n)
		}
	}
	if len(seen) != sent || sent < 2*kills {
		t.Errorf("%d records are there and %d were acknowledged", len(seen), sent)
	}
	t.Logf("%d records over %d kills", sent, kills)
}
