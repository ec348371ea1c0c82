package growth

import (
	"math"
	"testing"

	"dewcount/core/climate"
	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/croptable"
)

// tulips returns a course of tulips set in autumn 2024 of which something was seen, and its run in a country's weather.
func tulips(c country, warmerC float64, seen func(*Planting)) (*Course, *Run, felt) {
	var p *crop.Profile
	for _, e := range croptable.Shipped() {
		if e.ID == "tulip" {
			p = e.Profile()
		}
	}
	planting := Planting{Profile: p, Market: p.Cut[crop.Market], Method: crop.Bulb, Plants: 40, Started: day.Must("2024-10-25")}
	seen(&planting)
	lengths := climate.DayLengthsAt(c.latitude)
	clock := Clocks(p, lengths, nil, c.weather().Warmer(warmerC, warmerC).Hourly(c.latitude))
	course := NewCourse(planting, Place{Latitude: c.latitude, Lengths: lengths, Bench: bench(p)}, BoxCd)
	return course, course.NewRun(clock, plainTraits), clock.as(plainTraits.Answer)
}

// No day of a winter 8 °C milder than usual is cold. Bulbs that come up, or stand in bud, have had their chill all the same.
func TestWhatIsSeenProvesTheChill(t *testing.T) {
	const milderC = 8
	_, run, _ := tulips(maritime, milderC, func(*Planting) {})
	if at, ok := run.FirstBud(); ok {
		t.Errorf("with no chill and nothing seen they bud on %v", day.On(at))
	}
	up := day.Must("2025-03-01")
	course, run, clock := tulips(maritime, milderC, func(p *Planting) { p.Emerged = up })
	if at, ok := run.FirstBud(); !ok || math.Abs(clock.warmth.At(at)-clock.warmth.At(up.At(12))-course.firstBudCd) > 1 {
		t.Errorf("up on %v they bud on %v (%v)", up, day.On(at), ok)
	}
	inBud := day.Must("2025-04-01")
	_, run, _ = tulips(maritime, milderC, func(p *Planting) { p.InBud = inBud })
	if at, ok := run.FirstBud(); !ok || math.Abs(at-inBud.At(12)) > 0.5 {
		t.Errorf("in bud on %v they are taken to be so on %v (%v)", inBud, day.On(at), ok)
	}
}

// Heads of last year that are cut in November prove nothing.
func TestWhatCannotHaveGrownProvesNoChill(t *testing.T) {
	_, run, _ := tulips(maritime, 8, func(p *Planting) { p.InBud = day.Must("2024-11-10") })
	if at, ok := run.FirstBud(); ok {
		t.Errorf("they bud on %v", day.On(at))
	}
}

// Where the chill was met in time, what was seen moves nothing: how early it was is for the pace to say.
func TestWhatIsSeenMovesNoChillThatWasMet(t *testing.T) {
	_, run, _ := tulips(maritime, 0, func(*Planting) {})
	usual, ok := run.FirstBud()
	if !ok {
		t.Fatal("they never bud")
	}
	for _, sooner := range []int{0, 5} {
		_, run, _ := tulips(maritime, 0, func(p *Planting) { p.InBud = day.On(usual).Add(-sooner) })
		if at, _ := run.FirstBud(); at != usual {
			t.Errorf("in bud %d days sooner than usual, the usual day moves by %.1f", sooner, at-usual)
		}
	}
}
