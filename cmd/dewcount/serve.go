package main

import (
	"context"
	"errors"
	"flag"
	"fmt"
	"log/slog"
	"net"
	"net/http"
	"os"
	"path/filepath"
	"time"

	"dewcount/demo"
	"dewcount/farm"
	"dewcount/records"
	"dewcount/web"
)

const usualAddr = "127.0.0.1:8080"

func (p program) demo(ctx context.Context, fset *flag.FlagSet, args []string) error {
	addr := fset.String("addr", usualAddr, "listen on `ADDR`, of this machine alone")
	db := fset.String("db", "", "keep the demo farm in `FILE` (default: a fresh temporary one)")
	if err := parse(fset, args, 0); err != nil {
		return err
	}
	file := *db
	if file == "" {
		folder, err := os.MkdirTemp("", "dewcount-demo-")
		if err != nil {
			return fmt.Errorf("a place for the demo farm: %w", err)
		}
		defer os.RemoveAll(folder)
		file = filepath.Join(folder, "larkenfold.db")
	}
	return p.listen(ctx, *addr, file, true)
}

func (p program) serve(ctx context.Context, fset *flag.FlagSet, args []string) error {
	addr := fset.String("addr", usualAddr, "listen on `ADDR`, of this machine alone")
	db := database(fset)
	if err := parseWithDB(fset, args, 0, db); err != nil {
		return err
	}
	return p.listen(ctx, *addr, *db, false)
}

// listen serves a database until ctx ends.
func (p program) listen(ctx context.Context, addr, file string, asDemo bool) (err error) {
	listener, err := loopback(ctx, addr)
	if err != nil {
		return err
	}
	defer listener.Close()
	store, err := records.Open(ctx, file)
	if err != nil {
		return err
	}
	defer func() { err = errors.Join(err, store.Close()) }()
	options := web.Options{
		Hosts: web.LoopbackHosts(listener.Addr().(*net.TCPAddr).Port),
		Log:   slog.New(slog.NewTextHandler(p.stderr, &slog.HandlerOptions{Level: slog.LevelWarn})),
	}
	if asDemo {
		if err := demo.Fill(ctx, store); err != nil {
			return err
		}
		options.Step = func(ctx context.Context) error { return demo.Step(ctx, store) }
	}
	handler, err := web.New(farm.New(store, p.clock), options)
	if err != nil {
		return err
	}
	fmt.Fprintf(p.stdout, "Dew Count is at http://%s (stop it with Ctrl-C)\n", listener.Addr())
	return serveUntil(ctx, listener, handler)
}

// loopback listens on an address of this machine alone: who may come from elsewhere cannot be told apart yet.
func loopback(ctx context.Context, addr string) (net.Listener, error) {
	host, _, err := net.SplitHostPort(addr)
	if err != nil {
		return nil, fmt.Errorf("%q is no address: write it as %s", addr, usualAddr)
	}
	if ip := net.ParseIP(host); host != "localhost" && (ip == nil || !ip.IsLoopback()) {
		return nil, fmt.Errorf("%s is not of this machine alone, and nobody has to sign in yet: use %s", addr, usualAddr)
	}
	var config net.ListenConfig
	listener, err := config.Listen(ctx, "tcp", addr)
	if err != nil {
		return nil, &farm.Advice{Words: addr + " is in use or cannot be used: name another, such as --addr 127.0.0.1:8090", Err: err}
	}
	return listener, nil
}

// How long a request may take to arrive, and how long the last ones have when the program stops.
const (
	headerTime = 10 * time.Second
	farewell   = 5 * time.Second
)

func serveUntil(ctx context.Context, listener net.Listener, handler http.Handler) error {
	server := &http.Server{Handler: handler, ReadHeaderTimeout: headerTime}
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
