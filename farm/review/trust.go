package review

import (
	"cmp"
	"maps"
	"slices"

	"dewcount/core/review"
	"dewcount/farm/look"
)

// A Trust is how far past forecasts could have been trusted: in all, by how many weeks ahead they were made, and of the last
// week before by crop, the most stems first.
type Trust struct {
	All    review.Score
	Untold review.Score // of the same picks without what was counted, cut and seen
	Leads  []LeadScore
	Crops  []CropScore
	Last   []review.Pick // the last picks as they were foretold a week before, the latest first
}

// A LeadScore is of forecasts made so many weeks before their pick.
type LeadScore struct {
	Weeks int
	review.Score
}

// A CropScore is of a crop's forecasts of a week before, in which each pick is once.
type CropScore struct {
	Crop string
	review.Score
}

// TrustOf adds a backtest up.
func TrustOf(b *look.Backtest) Trust {
	t := Trust{Untold: b.Untold}
	leads, crops := make(map[int]*review.Score), make(map[string]*review.Score)
	latest := make(map[string]review.Pick) // of a planting's pick the forecast of least lead
	for _, p := range b.Picks {
		t.All.Add(p)
		if leads[p.Lead()] == nil {
			leads[p.Lead()] = new(review.Score)
		}
		leads[p.Lead()].Add(p)
		if p.Lead() == 1 {
			if crops[p.Crop] == nil {
				crops[p.Crop] = new(review.Score)
			}
			crops[p.Crop].Add(p)
		}
		if key := p.Planting + "\x00" + p.Pick.String(); p.Lead() == 1 && (latest[key].Planting == "" || p.AsOf.Before(latest[key].AsOf)) {
			latest[key] = p
		}
	}
	for _, weeks := range slices.Sorted(maps.Keys(leads)) {
		t.Leads = append(t.Leads, LeadScore{weeks, *leads[weeks]})
	}
	for crop, s := range crops {
		t.Crops = append(t.Crops, CropScore{crop, *s})
	}
	slices.SortFunc(t.Crops, func(a, b CropScore) int { return cmp.Or(cmp.Compare(b.Came, a.Came), cmp.Compare(a.Crop, b.Crop)) })
	for _, p := range latest {
		t.Last = append(t.Last, p)
	}
	slices.SortFunc(t.Last, func(a, b review.Pick) int {
		return cmp.Or(b.Pick.Compare(a.Pick), cmp.Compare(b.Came, a.Came), cmp.Compare(a.Planting, b.Planting))
	})
	return t
}
