package plantings

import (
	"fmt"

	"dewcount/core/crop"
	"dewcount/farm/book"
	"dewcount/say"
	"dewcount/web/draw"
)

// A changeView holds the forecast before a record beside the one after it.
type changeView struct {
	Record  string
	Warning string
	Lines   []changeLine
}

type changeLine struct {
	Spoken        string
	Before, After draw.SpreadView
	Moved         string
}

const changePicks = 5

func newChange(before, now *say.Snapshot, i int, kind, id string) *changeView {
	v := &changeView{Record: "the " + book.KindNamed(kind).Singular}
	if kind == book.Counts.Name {
		if count, ok := now.Book.Count(id); ok {
			v.Warning = surprise(before, i, count)
		}
	}
	a, b := before.Forecast.Plantings[i].ByPick, now.Forecast.Plantings[i].ByPick
	most := 1.0
	for j := range min(changePicks, len(b)) {
		most = max(most, a[j][crop.Market].Bound(0.9), b[j][crop.Market].Bound(0.9))
	}
	for j, d := range now.Forecast.PickDays[:min(changePicks, len(b))] {
		x, y := a[j][crop.Market], b[j][crop.Market]
		moved := "as before"
		switch n := y.Likely() - x.Likely(); {
		case n > 0:
			moved = fmt.Sprintf("%d more", n)
		case n < 0:
			moved = fmt.Sprintf("%d fewer", -n)
		}
		if y.AtBest()-y.Sure() < x.AtBest()-x.Sure() {
			moved += ", surer"
		}
		v.Lines = append(v.Lines, changeLine{before.Date(d), draw.NewSpreadView(x, most, 0), draw.NewSpreadView(y, most, 0), moved})
	}
	return v
}

// surprise says so where a count is far from what was expected, empty where it is not.
func surprise(before *say.Snapshot, i int, c book.Count) string {
	s, far := before.Surprise(i, c)
	switch {
	case !far:
		return ""
	case s.More:
		return fmt.Sprintf("%.0f stems are far more than the %.0f to %.0f expected on these plants. Was it the right row, and each branch counted once? If so, leave it: the forecast has moved.", s.Seen, s.Low, s.High)
	default:
		return fmt.Sprintf("%.0f stems are far fewer than the %.0f to %.0f expected on these plants. Was it the right row? If so, leave it: the forecast has moved.", s.Seen, s.Low, s.High)
	}
}
