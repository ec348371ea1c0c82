package main

import (
	"context"
	"crypto/tls"
	"errors"
	"flag"
	"fmt"
	"log/slog"
	"net"
	"net/http"
	"net/url"
	"os"
	"path/filepath"
	"strconv"
	"sync"
	"time"

	"dewcount/demo"
	"dewcount/farm"
	"dewcount/farm/look"
	"dewcount/farm/market"
	"dewcount/fault"
	"dewcount/people"
	"dewcount/play"
	"dewcount/records"
	"dewcount/trust"
	"dewcount/web"
	"dewcount/web/page"
	played "dewcount/web/play"

	"golang.org/x/net/netutil"
)

const usualAddr = "127.0.0.1:8080"

// A site is what a server is asked to be.
type site struct {
	addr, file string
	cert, key  string // files of a certificate and its key; empty for none
	https      bool   // also on the loopback
	isDemo     bool
	season     *uint64              // that is played; nil on other farms
	ready      func(address string) // told instead of printed where the farm is reached; nil: it is printed
}

func (p program) demo(ctx context.Context, fset *flag.FlagSet, args []string) error {
	return p.madeUp(ctx, fset, args, usualAddr, "the demo", site{isDemo: true})
}

// madeUp starts a farm that is made up, which signs everybody in and so is of this machine alone: in a file that is named, or in a fresh one that is gone afterwards.
func (p program) madeUp(ctx context.Context, fset *flag.FlagSet, args []string, usual, what string, at site) error {
	fset.StringVar(&at.addr, "addr", usual, "listen on `ADDR`, of this machine alone")
	fset.StringVar(&at.file, "db", "", "keep the farm in `FILE` (default: a fresh temporary one)")
	if err := parse(fset, args, 0); err != nil {
		return err
	}
	switch alone, err := isLoopback(at.addr); {
	case err != nil:
		return err
	case !alone:
		return fmt.Errorf("%s is not of this machine alone, and %s signs everybody in: use %s", at.addr, what, usual)
	}
	if at.file == "" {
		folder, err := os.MkdirTemp("", "dewcount-")
		if err != nil {
			return fmt.Errorf("a place for %s: %w", what, err)
		}
		defer os.RemoveAll(folder)
		at.file = filepath.Join(folder, "farm.db")
	}
	return p.listen(ctx, at)
}

func (p program) serve(ctx context.Context, fset *flag.FlagSet, args []string) error {
	addr := fset.String("addr", usualAddr, "listen on `ADDR`; beyond this machine by https alone, once an owner is set up")
	db := database(fset)
	cert := fset.String("cert", "", "the certificate `FILE` for https, with --key (default: the farm makes its own)")
	key := fset.String("key", "", "the `FILE` with the certificate's key")
	https := fset.Bool("https", false, "use https on this machine alone too")
	if err := parseWithDB(fset, args, 0, db); err != nil {
		return err
	}
	if (*cert == "") != (*key == "") {
		return wrong(fset, "--cert and --key go together")
	}
	return p.listen(ctx, site{addr: *addr, file: *db, cert: *cert, key: *key, https: *https})
}

// listen serves a database until ctx ends.
func (p program) listen(ctx context.Context, at site) (err error) {
	alone, err := isLoopback(at.addr)
	if err != nil {
		return err
	}
	nobody := fmt.Errorf("nobody is set up yet, and %s can be reached by others: start with --addr %s, set up the owner there, then come back to this address", at.addr, usualAddr)
	if _, err := os.Stat(at.file); err != nil && !alone {
		return nobody
	}
	store, err := records.Open(ctx, at.file)
	if err != nil {
		return err
	}
	defer func() { err = errors.Join(err, store.Close()) }()
	if at.isDemo {
		if err := errors.Join(demo.Fill(ctx, store), demo.Let(ctx, store)); err != nil {
			return err
		}
	}
	if at.season != nil {
		if err := errors.Join(play.Fill(ctx, store, *at.season), play.Let(ctx, store)); err != nil {
			return err
		}
	}
	code := people.NewCode()
	crew := people.New(store, p.clock, code)
	any, err := crew.Any(ctx)
	if err != nil {
		return err
	}
	if !alone && !any {
		return nobody
	}
	var config *tls.Config
	options := page.Options{People: crew, Log: slog.New(slog.NewTextHandler(p.stderr, &slog.HandlerOptions{Level: slog.LevelWarn}))}
	farmHost, err := farmAddress(ctx, store)
	if err != nil {
		return err
	}
	hosts := []string{"127.0.0.1", "localhost", "::1"}
	if !alone || at.https || at.cert != "" {
		if farmHost == nil && !alone && at.cert == "" {
			return errors.New("phones need the farm's address, such as https://dew.lan:8443: start on this machine alone, write it down on the page Farm, then come back")
		}
		config, hosts, err = p.certificates(at, farmHost, &options)
		if err != nil {
			return err
		}
	}
	listener, err := listenOn(ctx, at.addr, config)
	if err != nil {
		return err
	}
	defer listener.Close()
	port := listener.Addr().(*net.TCPAddr).Port
	options.Hosts = withPort(hosts, port)
	if farmHost != nil {
		options.Hosts = append(options.Hosts, farmHost.Host)
	}
	options.Secure = config != nil
	options.Address = map[bool]string{false: "http://", true: "https://"}[config != nil] + reachable(listener.Addr().(*net.TCPAddr), hosts)
	sessions, err := store.OpenSessions(ctx)
	if err != nil {
		return err
	}
	defer func() { err = errors.Join(err, sessions.Close()) }()
	options.Sessions = sessions
	if at.isDemo {
		options.Visitor, options.Name = demo.Visitor, "dewcount_demo"
		options.Box = demo.Box(store, p.clock)
		options.Step = func(ctx context.Context) error { return demo.Step(ctx, store) }
	}
	if alone && at.season == nil {
		options.Season = p.seasonBeside(ctx, at)
	}
	var more []func(*page.Site) page.View
	if at.season != nil {
		options.Visitor, options.Name, options.Played = play.Player, "dewcount_season", true
		options.Step = func(ctx context.Context) error { return play.Pass(ctx, store) }
		more = append(more, func(s *page.Site) page.View { return played.View(s, store) })
	}
	field := farm.New(store, p.clock)
	field.Warm = func(s *look.Snapshot) { market.PromisesOf(s) } // the morning, the orders, the sheet and the store all ask for them
	handler, err := web.New(field, options, more...)
	if err != nil {
		return err
	}
	ready, leave := context.WithCancel(ctx)
	var keeping sync.WaitGroup
	defer keeping.Wait() // the store is closed after it
	defer leave()
	keeping.Go(func() { field.KeepReady(ready, wakes) })
	if at.ready != nil {
		at.ready(options.Address)
		return serveUntil(ctx, listener, handler)
	}
	fmt.Fprintf(p.stdout, "Dew Count is at %s (stop it with Ctrl-C)\n", options.Address)
	if !any {
		fmt.Fprintf(p.stdout, "To let phones and helpers in, open %s/first and set up the owner with the code %s\n", options.Address, code)
	}
	return serveUntil(ctx, listener, handler)
}

// certificates returns how the server proves itself, and the hosts for which it can.
func (p program) certificates(at site, farmHost *url.URL, o *page.Options) (*tls.Config, []string, error) {
	if at.cert != "" {
		c, err := tls.LoadX509KeyPair(at.cert, at.key)
		if err != nil {
			return nil, nil, &fault.Advice{Words: fmt.Sprintf("%s and %s are no certificate and key that belong together: name other files", at.cert, at.key), Err: err}
		}
		return serverConfig(func(*tls.ClientHelloInfo) (*tls.Certificate, error) { return &c, nil }), trust.Hosts(c), nil
	}
	var hosts []string
	if farmHost != nil {
		hosts = append(hosts, farmHost.Hostname())
	}
	authority, err := trust.Open(at.file+".tls", hosts, p.clock)
	if err != nil {
		return nil, nil, err
	}
	o.Certificate = authority.Certificate
	if authority.IsNew {
		fmt.Fprintf(p.stdout, "This farm has made an authority of its own in %s. A phone trusts it once it has loaded authority.crt from there, or from the page People, as a CA certificate; its fingerprint is\n  %s\n",
			at.file+".tls", authority.Fingerprint())
	}
	now, err := authority.Server(nil)
	if err != nil {
		return nil, nil, err
	}
	return serverConfig(authority.Server), trust.Hosts(*now), nil
}

func serverConfig(prove func(*tls.ClientHelloInfo) (*tls.Certificate, error)) *tls.Config {
	return &tls.Config{GetCertificate: prove, MinVersion: tls.VersionTLS12}
}

// farmAddress returns the address that the farm has written down for its phones, nil if none.
func farmAddress(ctx context.Context, store farm.Store) (*url.URL, error) {
	book, _, err := store.Load(ctx)
	if err != nil {
		return nil, err
	}
	place, err := book.Place()
	if err != nil || place.Address == "" { // a new farm has no settings yet
		return nil, nil
	}
	return url.Parse(place.Address)
}

func withPort(hosts []string, port int) []string {
	var all []string
	for _, h := range hosts {
		all = append(all, net.JoinHostPort(h, strconv.Itoa(port)))
		if port == 443 || port == 80 {
			all = append(all, h)
		}
	}
	return all
}

// reachable returns a host and port at which a listener is reached: one of its hosts where it listens everywhere.
func reachable(at *net.TCPAddr, hosts []string) string {
	if at.IP.IsUnspecified() && len(hosts) > 0 {
		return net.JoinHostPort(hosts[0], strconv.Itoa(at.Port))
	}
	return at.String()
}

// isLoopback tells whether an address is of this machine alone.
func isLoopback(addr string) (bool, error) {
	host, _, err := net.SplitHostPort(addr)
	if err != nil {
		return false, fmt.Errorf("%q is no address: write it as %s", addr, usualAddr)
	}
	ip := net.ParseIP(host)
	return host == "localhost" || ip != nil && ip.IsLoopback(), nil
}

func listenOn(ctx context.Context, addr string, config *tls.Config) (net.Listener, error) {
	var listening net.ListenConfig
	listener, err := listening.Listen(ctx, "tcp", addr)
	if err != nil {
		return nil, &fault.Advice{Words: addr + " is in use or cannot be used: name another, such as --addr 127.0.0.1:8090", Err: err}
	}
	listener = netutil.LimitListener(listener, mostConnections)
	if config == nil {
		return listener, nil
	}
	config.NextProtos = []string{"h2", "http/1.1"}
	return tls.NewListener(listener, config), nil
}

// How long a request may take to arrive and its answer to be fetched, how long a quiet connection stays, and how long the last ones have when the program stops.
const (
	headerTime = 10 * time.Second
	readTime   = time.Minute
	writeTime  = 2 * time.Minute
	idleTime   = 2 * time.Minute
	farewell   = 5 * time.Second
)

const (
	mostHeader      = 64 << 10
	mostConnections = 400 // a crew's phones have some each; more are strangers, and wait
)

// wakes is how often the farm is looked at unasked, for a new day that has begun.
const wakes = time.Minute

func serveUntil(ctx context.Context, listener net.Listener, handler http.Handler) error {
	server := &http.Server{Handler: handler, ReadHeaderTimeout: headerTime, ReadTimeout: readTime, WriteTimeout: writeTime, IdleTimeout: idleTime, MaxHeaderBytes: mostHeader}
	stopped := make(chan error, 1)
	go func() {
		<-ctx.Done()
		end, cancel := context.WithTimeout(context.WithoutCancel(ctx), farewell)
		defer cancel()
		stopped <- server.Shutdown(end)
	}()
	if err := server.Serve(listener); !errors.Is(err, http.ErrServerClosed) {
		return fmt.Errorf("serve: %w", err)
	}
	return <-stopped
}
