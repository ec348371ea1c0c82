// Command dewcount starts Dew Count on a farm's database or on the demo farm, moves notebooks in and out, and prints forecasts.
package main

import (
	"context"
	"os"
	"os/signal"
	"runtime/debug"
	"syscall"
	"time"
	_ "time/tzdata" // a farm's zone must be known on a machine that has no table of them
)

// usualMemory is what the program tries to keep its memory within, in bytes, unless GOMEMLIMIT says otherwise: the largest plan fits twice.
const usualMemory = 240 << 20

func main() {
	if os.Getenv("GOMEMLIMIT") == "" {
		debug.SetMemoryLimit(usualMemory)
	}
	ctx, stop := signal.NotifyContext(context.Background(), os.Interrupt, syscall.SIGTERM)
	defer stop()
	os.Exit(run(ctx, os.Args[1:], os.Stdout, os.Stderr, time.Now)) // 0 done, 1 failed, 2 called wrongly
}
