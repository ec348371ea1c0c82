package standin

import (
	"context"
	"math"
	"strconv"
	"time"

	"dewcount/core/day"
	"dewcount/devices"
)

// A Store is a made-up cold store: it wavers with its cooler, and warms up while the door stands open in the morning.
type Store struct{ Clock func() time.Time }

// Celsius returns the temperature of now, in °C.
func (s Store) Celsius(context.Context) (float64, time.Time, error) {
	now := s.Clock()
	minutes := float64(now.Hour()*60 + now.Minute())
	const setC, wavesC, every, doorC = 4.0, 0.4, 25.0, 1.6
	celsius := setC + wavesC*math.Sin(2*math.Pi*minutes/every)
	if now.Hour() >= 7 && now.Hour() < 9 {
		celsius += doorC
	}
	return math.Round(celsius*10) / 10, now, nil
}

// A Post is a made-up post box with some letters to a farm.
type Post struct{ Today func() day.Day }

// Letters returns what lies in the box.
func (p Post) Letters(context.Context) ([]devices.Letter, error) {
	today := p.Today()
	var all []devices.Letter
	for i, l := range []struct {
		from, text string
		in         int
	}{
		{"The mill kitchen", "Could we have twelve small jars for the long table, anything that smells of summer?", 16},
		{"The florist at the bridge", "30 white snapdragons and 20 ammi on top of the bucket, please; twenty cosmos if you can.", 6},
		{"A neighbour", "Five bunches for a birthday, yellow if there is some.", 9},
	} {
		all = append(all, devices.Letter{ID: strconv.Itoa(i + 1), From: l.from, Text: l.text, DueOn: today.Add(l.in)})
	}
	return all, nil
}
