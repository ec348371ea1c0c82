// Package devices is what the program can hear of the world outside. Each device is a small interface, so that a real one and its stand-in are
// the same to it.
package devices

import (
	"context"
	"time"

	"dewcount/core/day"
)

// A Thermometer hangs in the store.
type Thermometer interface {
	// Celsius returns the store's temperature in °C and when it was read. An error says what to do.
	Celsius(ctx context.Context) (float64, time.Time, error)
}

// A PostBox is where orders come in.
type PostBox interface {
	// Letters returns what lies in the box, the newest first. An error says what to do.
	Letters(ctx context.Context) ([]Letter, error)
}

// A Letter is an order that somebody has sent, as far as it could be read.
type Letter struct {
	ID, From, Text string
	DueOn          day.Day // zero where it names no day
}

// A Set is the devices that a farm has; nil where it has none.
type Set struct {
	Thermometer Thermometer
	PostBox     PostBox
}
