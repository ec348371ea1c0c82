package years

import (
	"testing"

	"dewcount/core/day"
	"dewcount/farm/book"
	"dewcount/farm/look"
	"dewcount/farm/review"
	"dewcount/say"
)

// A peony of the year before the last is cut in one year and not in the next, in which nobody planted any: that year says nothing.
func TestWhatACropBroughtYearByYear(t *testing.T) {
	snap := &say.Snapshot{Snapshot: &look.Snapshot{Book: book.NewBook(nil)}}
	peony := func(plants, cut int) review.Year {
		return review.Year{Crops: []review.CropYear{{Crop: "peony", Plants: plants, Cut: cut, StemsAPlant: 7.3, FirstCut: day.Must("2026-06-02"), LastCut: day.Must("2026-07-10")}}}
	}
	var v yearsView
	v.crops(snap, []review.Year{peony(0, 0), peony(0, 616), peony(84, 0)})
	want := []cellView{{}, {"616", "7.3 a plant, 2 June to 10 July"}, {"", "84 plants"}}
	for i, cell := range v.Crops[0].Cells {
		if cell != want[i] {
			t.Errorf("year %d: %+v, want %+v", i, cell, want[i])
		}
	}
}
