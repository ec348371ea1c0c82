package farm

import (
	"context"
	"time"

	"dewcount/core/day"
)

// The devices outside that the program can hear. Each is a small interface, so that a real one and its stand-in are the same to it.

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

// A Box is the devices that a farm has; nil where it has none.
type Box struct {
	Thermometer Thermometer
	PostBox     PostBox
}
