package plans

import (
	"slices"

	"dewcount/core/forecast"
	"dewcount/farm/book"
	"dewcount/farm/look"
	"dewcount/farm/market"
)

// ownStems returns what the farm's own rows of a crop will have for a date beside its orders; nil where it has none, or the date lies beyond any forecast.
func ownStems(s *look.Snapshot, a DateAsk) (*forecast.Spread, error) {
	const all = 100_000
	b := s.Book.Own()
	b.Plantings = slices.DeleteFunc(slices.Clone(b.Plantings), func(p book.Planting) bool {
		profile := b.ProfileOf(p)
		return profile == nil || profile.ID != a.Crop
	})
	if len(b.Plantings) == 0 || a.On.Sub(s.View.From) >= forecast.Horizon {
		return nil, nil
	}
	view := s.View
	view.To = a.On
	field, err := look.NewSnapshot(b, s.Revision, view, nil)
	if err != nil {
		return nil, err
	}
	kind := map[string]string{"market": "market", "florist": "standing"}[a.Use.String()]
	if kind == "" {
		kind = "event"
	}
	line := book.OrderLine{Crop: a.Crop, Variety: a.Variety, Use: a.Use.String()}
	answer := market.Ask{Line: line, Stems: all, On: a.On, Kind: kind}.Answer(field, a.On)
	if answer.Want.Filled.AtBest() == 0 {
		return nil, nil
	}
	return &answer.Want.Filled, nil
}

// samplesOf returns stems as they may be, each as likely as the others.
func samplesOf(own *forecast.Spread) []float32 {
	if own == nil {
		return nil
	}
	const n = 101
	samples := make([]float32, n)
	for i := range samples {
		samples[i] = float32(own.Quantile((float64(i) + 0.5) / n))
	}
	return samples
}
