package demo

import (
	"context"
	"time"

	"dewcount/core/day"
	"dewcount/devices"
	"dewcount/farm"
	"dewcount/standin"
)

// Box returns the demo farm's devices, all made up. The wall clock moves the store's thermometer, the demo's day the letters.
func Box(store farm.Store, clock func() time.Time) devices.Set {
	today := func() day.Day {
		book, _, err := store.Load(context.Background())
		if err != nil {
			return FirstDay
		}
		place, err := book.Place()
		if err != nil || place.DemoDay.IsZero() {
			return FirstDay
		}
		return place.DemoDay
	}
	return devices.Set{Thermometer: standin.Store{Clock: clock}, PostBox: standin.Post{Today: today}}
}
