package main

import (
	"context"
	"flag"
	"fmt"
	"net"
	"os"
	"path/filepath"
	"sync"
)

const playAddr = "127.0.0.1:8081" // beside the farm of one's own

// play starts a season that is played.
func (p program) play(ctx context.Context, fset *flag.FlagSet, args []string) error {
	addr := fset.String("addr", playAddr, "listen on `ADDR`, of this machine alone")
	db := fset.String("db", "", "keep the season in `FILE` (default: a fresh temporary one)")
	seed := fset.Uint64("season", 1, "the `NUMBER` of a new season: the same number has the same weather, field and offers")
	if err := parse(fset, args, 0); err != nil {
		return err
	}
	switch alone, err := isLoopback(*addr); {
	case err != nil:
		return err
	case !alone:
		return fmt.Errorf("%s is not of this machine alone, and a played season signs everybody in: use %s", *addr, playAddr)
	}
	file := *db
	if file == "" {
		folder, err := os.MkdirTemp("", "dewcount-season-")
		if err != nil {
			return fmt.Errorf("a place for the season: %w", err)
		}
		defer os.RemoveAll(folder)
		file = filepath.Join(folder, "season.db")
	}
	return p.listen(ctx, site{addr: *addr, file: file, season: seed})
}

// seasonBeside returns what starts a season to be played beside a farm, in a file of its own beside the farm's, and returns the address of its first page. It is started once.
func (p program) seasonBeside(ctx context.Context, farm site) func() (string, error) {
	var lock sync.Mutex
	var address string
	return func() (string, error) {
		lock.Lock()
		defer lock.Unlock()
		if address != "" {
			return address, nil
		}
		host, _, err := net.SplitHostPort(farm.addr)
		if err != nil {
			return "", err
		}
		seed := uint64(1)
		ready, failed := make(chan string, 1), make(chan error, 1)
		beside := site{addr: net.JoinHostPort(host, "0"), file: farm.file + ".season", season: &seed, ready: func(address string) { ready <- address }}
		go func() { failed <- p.listen(ctx, beside) }()
		select {
		case address = <-ready:
			return address, nil
		case err := <-failed:
			return "", err
		}
	}
}
