package standin

import (
	"fmt"
	"math"
	"testing"

	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/croptable"
)

func habit(id string) (*crop.Profile, crop.Window) {
	for _, e := range croptable.Shipped() {
		if e.ID == id {
			p := e.Profile()
			market, _ := p.Window(crop.Market, "")
			return p, market
		}
	}
	panic("no crop " + id)
}

// The level of vigour is such that a plant gives the season it is meant to, or lies at its bounds where none would.
func TestLevelGivesTheSeason(t *testing.T) {
	p, market := habit("zinnia-tall")
	for _, bend := range []float64{0.7, 1, 2} {
		for _, season := range []float64{10, 16, 22} {
			level := levelFor(p, market, bend, season)
			got := seasonOf(p, market, bend, level)
			if within := level > 0.601 && level < 1.799; within && math.Abs(got-season) > 0.01*season {
				t.Errorf("bend %v: %.1f stems at level %.2f, want %v", bend, got, level, season)
			}
		}
	}
	if low, high := seasonOf(p, market, 1, 0.8), seasonOf(p, market, 1, 1.2); low >= high {
		t.Errorf("%.1f stems at a level of 0.8, %.1f at 1.2", low, high)
	}
}

// Each habit changes what a field gives: none is drawn in vain.
func TestEveryHabitMatters(t *testing.T) {
	p, market := habit("zinnia-tall")
	out := day.Must("2026-05-10")
	row := Row{Planting: "Z", Variety: "red", Profile: p, Method: crop.Direct, Market: market, Plants: 60, Started: out, Out: out, Pinched: out.Add(25), PinchedShare: 1}
	grow := func(change func(*habits)) string {
		f := NewField(7, NewWeather(Valley, 7, newYear), 46.9, []Row{row}, nil, out)
		change(&f.rows[0].habits)
		for i := range f.rows[0].plants { // as they were drawn from these
			f.rows[0].plants[i].bloom = p.Yield.FloweringCd * (1 + f.rows[0].habits.bloomSD*math.Sin(float64(i)))
			f.rows[0].plants[i].barren = float64(i) < f.rows[0].habits.lost*60
		}
		said := ""
		for range 190 {
			ready := len(f.rows[0].ready())
			said += fmt.Sprint(ready, " ")
			f.Step([]Taken{{Planting: "Z", On: f.today, Stems: ready}})
		}
		return said
	}
	usual := grow(func(*habits) {})
	for name, change := range map[string]func(*habits){
		"rung by rung": func(h *habits) { h.rungSD *= 2 }, "a stem's own speed": func(h *habits) { h.stemSD += 0.1 }, "first flush": func(h *habits) { h.flush /= 2 },
		"regrowth": func(h *habits) { h.regrowSD *= 2 }, "bend": func(h *habits) { h.bend *= 2 }, "level": func(h *habits) { h.level *= 0.7 }, "length of bloom": func(h *habits) { h.bloomSD = 0.4 },
		"pinching": func(h *habits) { h.pinchLoss = 0 }, "losses": func(h *habits) { h.lost = 0.3 }, "low light": func(h *habits) { h.darkRate, h.dimH = 0.3, 12 }, "seed bed": func(h *habits) { h.soilC += 3 },
		"temperature": func(h *habits) { h.heat.base += 2 },
	} {
		if grow(change) == usual {
			t.Errorf("%s: the field is the same", name)
		}
	}
	if grow(func(*habits) {}) != usual {
		t.Error("the same field is not the same")
	}
}

// A plant of one stem gives one, or none where it was lost.
func TestOneStemOfAPlant(t *testing.T) {
	p, market := habit("sunflower-single")
	out := day.Must("2026-05-10")
	f := NewField(7, NewWeather(Valley, 7, newYear), 46.9, []Row{{Planting: "S", Variety: "gold", Profile: p, Method: crop.Direct, Market: market, Plants: 200, Started: out, Out: out}}, nil, out.Add(150))
	if got := f.FirstFlush("S"); got > 200 || got < 170 {
		t.Errorf("%d stems of 200 plants", got)
	}
}

// The answer to temperature is none outside its bounds, agrees with the table where it is said to, and differs elsewhere.
func TestHeatAgreesAtOneTemperature(t *testing.T) {
	p, _ := habit("zinnia-tall")
	h := shifted(p, 1, -1, 0.5, 1.2, 19)
	if got, want := h.at(19), 19-p.Response.BaseC; math.Abs(got-want) > 1e-9 {
		t.Errorf("at 19 °C %v, want %v", got, want)
	}
	if h.at(p.Response.BaseC+0.9) != 0 || h.at(p.Response.CeilingC+0.6) != 0 || h.at(13) == newHeat(p, 17).at(13) {
		t.Error("the shifted answer does not lie where it should")
	}
}
