package standin

import (
	"math"
	"time"

	"dewcount/core/crop"
	"dewcount/core/day"
)

// rest lets a lasting row die back and start its year anew.
func (f *row) rest() {
	f.stems, f.dead, f.first = nil, false, 0
	for i := range f.plants {
		p := &f.plants[i]
		*p = plant{need: f.Profile.EmergeCd * f.pace * lognormal(f.random, emergeSD), speed: p.speed, vigour: p.vigour, bloom: p.bloom, barren: p.barren}
	}
}

// set tells whether the row was grown plants when it was set.
func (f *row) set() bool { return f.Method == crop.Established || f.Method == crop.Division }

// turns tells whether a day is the first of a month in the north, or of that half a year later in the south.
func (f *row) turns(d day.Day, month time.Month) bool {
	if f.south {
		month = (month+5)%12 + 1
	}
	_, m, date := d.Date()
	return m == month && date == 1
}

// moves tells whether a plant's way goes on at all today: chill may hold it back, or the long days of a steered crop.
func (f *row) moves(d day.Day, p *plant) bool {
	const longDays = 18
	switch {
	case d.Before(f.wakes):
		return false
	case f.needsCold && f.cold < float64(f.Profile.ChillDays):
		return f.Method.Sown() && !p.emerged
	case f.Profile.Steered() && p.emerged:
		return d.Sub(f.Out) >= longDays
	default:
		return true
	}
}

// season is what the cold and the year's turns do to the row before a day begins.
func (f *row) season(d day.Day, weather Day) {
	if f.lasts && f.turns(d, time.October) {
		f.cold = 0
	}
	if f.lasts && f.turns(d, time.January) && (f.set() || d.Sub(f.Started) > 120) {
		f.rest()
	}
	if !d.Before(f.Out) {
		f.cold += 1 / (1 + math.Exp((weather.TminC+weather.TmaxC)/2+f.WarmerC-9)) // a soft edge at 9 °C
	}
	up, budded := 0, 0
	for _, p := range f.plants {
		if p.emerged {
			up++
		}
		if p.budded {
			budded++
		}
	}
	tops := up
	if f.Profile.Overwinters || f.lasts {
		tops = budded
	}
	if !d.Before(f.Out) && 2*tops > len(f.plants) && weather.TminC+f.WarmerC <= f.Profile.FrostKillC {
		f.dead = true
	}
}
