package main

import (
	"context"
	"flag"
	"net"
	"sync"
)

const playAddr = "127.0.0.1:8081" // beside the farm of one's own

// play starts a season that is played.
func (p program) play(ctx context.Context, fset *flag.FlagSet, args []string) error {
	seed := fset.Uint64("season", 1, "the `NUMBER` of a new season: the same number has the same weather, field and offers")
	return p.madeUp(ctx, fset, args, playAddr, "a played season", site{season: seed})
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
