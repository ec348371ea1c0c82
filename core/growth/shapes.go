package growth

import (
	"sync"

	"dewcount/core/climate"
	"dewcount/core/crop"
)

// Shapes are what plantings of a crop have in common, worked out once: how their first flush comes, how their vigour falls and what
// light leaves of it. They can be used at the same time; nil ones keep nothing.
type Shapes struct {
	mu      sync.Mutex
	flushes map[flushOf]*flushes
	vigours map[bloom]*vigour
	lights  map[*climate.DayLengths]*lights
}

// NewShapes returns shapes of which none is known yet.
func NewShapes() *Shapes {
	return &Shapes{flushes: make(map[flushOf]*flushes), vigours: make(map[bloom]*vigour), lights: make(map[*climate.DayLengths]*lights)}
}

// flushOf is what a flush rests on.
type flushOf struct {
	emergeCd, budCd, spreadCV, delayCd float64
	yield                              crop.Yield
}

// flushes are those of a planting by its spread.
type flushes [len(Spreads)]*flush

func (s *Shapes) flushesOf(p *crop.Profile, delayCd float64) *flushes {
	of := flushOf{p.EmergeCd, p.BudCd, p.SpreadCV, delayCd, p.Yield}
	if s != nil {
		s.mu.Lock()
		defer s.mu.Unlock()
		if known := s.flushes[of]; known != nil {
			return known
		}
	}
	var all flushes
	for i, spread := range Spreads {
		all[i] = newFlush(p, delayCd, spread)
	}
	if s != nil {
		s.flushes[of] = &all
	}
	return &all
}

// vigourOf returns the vigour of a crop that is cut from a rung on, nil where it does not come again.
func (s *Shapes) vigourOf(p *crop.Profile, from crop.Rung) *vigour {
	if p.Yield.Habit != crop.Again {
		return nil
	}
	of := bloom{p.Yield, p.OnRungCd()[from]}
	if s == nil {
		return newVigour(of)
	}
	s.mu.Lock()
	defer s.mu.Unlock()
	if s.vigours[of] == nil {
		s.vigours[of] = newVigour(of)
	}
	return s.vigours[of]
}

func (s *Shapes) lightsOf(lengths *climate.DayLengths) *lights {
	if s == nil {
		return newLights(lengths)
	}
	s.mu.Lock()
	defer s.mu.Unlock()
	if s.lights[lengths] == nil {
		s.lights[lengths] = newLights(lengths)
	}
	return s.lights[lengths]
}

// of returns the flush of a spread.
func (f *flushes) of(s Spread) *flush { return f[s+1] }
