package review

import (
	"testing"

	"dewcount/core/day"
	"dewcount/core/review"
	"dewcount/farm/look"
)

// By hand: of three forecasts two are a week ahead and hold, one is two weeks ahead and does not; of a pick that was foretold twice in its last week the earlier one
// is shown.
func TestTrustByHand(t *testing.T) {
	pick := func(asOf, on string, came float64) review.Pick {
		return review.Pick{Planting: "A", Crop: "zinnia-tall", AsOf: day.Must(asOf), Pick: day.Must(on), Stems: [5]float64{10, 20, 30, 40, 50}, Mean: 30, Calendar: 60, Came: came}
	}
	b := &look.Backtest{Picks: []review.Pick{pick("2026-07-01", "2026-07-07", 35), pick("2026-07-04", "2026-07-07", 35), pick("2026-07-01", "2026-07-14", 70)}}
	b.Picks[2].Crop = "cosmos-single"
	got := TrustOf(b)
	if got.All.Picks != 3 || got.All.In80 != 2 || len(got.Leads) != 2 || got.Leads[0].Weeks != 1 || got.Leads[0].In80 != 2 || got.Leads[1].In80 != 0 {
		t.Errorf("%+v", got)
	}
	if len(got.Crops) != 1 || got.Crops[0].Crop != "zinnia-tall" || got.Crops[0].Came != 70 || got.Crops[0].Score.Picks != 2 { // what was foretold two weeks before is not among them
		t.Errorf("%+v", got.Crops)
	}
	if len(got.Last) != 1 || got.Last[0].AsOf != day.Must("2026-07-01") {
		t.Errorf("%+v", got.Last)
	}
}
