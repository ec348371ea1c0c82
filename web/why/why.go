package why

import (
	"cmp"
	"fmt"
	"math"
	"net/http"
	"slices"

	"dewcount/core/climate"
	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/core/forecast"
	"dewcount/core/growth"
	"dewcount/farm/book"
	"dewcount/farm/look"
	"dewcount/say"
	"dewcount/web/draw"
	"dewcount/web/page"
	"dewcount/web/parts"

	"github.com/labstack/echo/v5"
)

// A whyView explains one number of the forecast: what has moved it since yesterday, which rows it adds up, and what is known of each.
type whyView struct {
	Crop, CropID, Pick, On string
	Spread                 draw.SpreadView
	Yesterday              string
	Moves                  []moveView
	Rows                   []whyRow
	Sum, Rests             string
	Picks                  []parts.PickView
}

// A moveView is one cause and what it did.
type moveView struct {
	Words, Stems string
	Fewer        bool
}

type whyRow struct {
	ID, Variety, Bed string
	Spread           draw.SpreadView
	Knows, Learned   string
	Stands           string
	Warning          string
	mean             float64
}

// why explains the stems of a crop on a pick day.
func (s view) why(c *echo.Context, snap *say.Snapshot) error {
	id := c.Param("crop")
	cells, ok := snap.Forecast.Crops[id]
	if !ok || len(snap.Forecast.PickDays) == 0 {
		return book.ErrNoSuchRecord
	}
	pick := max(0, slices.IndexFunc(snap.Forecast.PickDays, func(d day.Day) bool { return d.String() == c.QueryParam("pick") }))
	profile := snap.Book.Crop(id)
	causes, ok, err := page.Soon(s.Site, c, snap, "/", "Why: "+profile.Name, func() (*look.Causes, error) { return snap.Causes(id) })
	if !ok {
		return err
	}
	on := snap.Forecast.PickDays[pick]
	spread := cells.ByPick[pick][crop.Market]
	most := max(1, spread.Bound(0.9)*1.04)
	v := whyView{Crop: profile.Name, CropID: id, Pick: on.String(), On: snap.Date(on), Spread: draw.NewSpreadView(spread, most, 0), Rests: say.Rests(snap),
		Sum: "The rows are added up within each possible weather before the bounds are taken: they would not all do badly on the same day, so the sum is surer than its parts."}
	for j, d := range snap.Forecast.PickDays {
		v.Picks = append(v.Picks, parts.PickView{Day: d.String(), Spoken: snap.Date(d), Stems: fmt.Sprintf("likely %d", cells.ByPick[j][crop.Market].Likely()), Chosen: j == pick})
	}
	v.Yesterday = fmt.Sprintf("Yesterday morning %.0f stems were likely on %s, now %d are.", causes.Before[pick], snap.Date(on), spread.Likely())
	for _, m := range causes.Moves {
		v.Moves = append(v.Moves, newMove(snap.Cause(m), m.Moved, pick))
	}
	for i, p := range snap.Model.Plantings {
		if p.Growth.Profile.ID != id {
			continue
		}
		own := snap.Forecast.Plantings[i].ByPick[pick][crop.Market]
		if own.AtBest() == 0 && (snap.Over(i) || p.Growth.Started.After(on)) {
			continue
		}
		learned, ok := snap.Stand.Learned(i)
		if !ok {
			continue
		}
		v.Rows = append(v.Rows, whyRow{ID: p.ID, Variety: p.Variety, Bed: snap.Book.BedOf(p.ID), Spread: draw.NewSpreadView(own, most, 0), Knows: say.Sentence(say.WhyNow(snap, i)),
			Learned: learnedWords(learned, p.Growth.Profile.Yield.Habit == crop.Again), Stands: standsWords(snap, i), Warning: say.Strain(learned), mean: own.Mean()})
	}
	slices.SortStableFunc(v.Rows, func(a, b whyRow) int { return cmp.Compare(b.mean, a.mean) })
	return s.Show(c, http.StatusOK, "why", "/", "Why "+profile.Name, snap, v)
}

// newMove says how many stems a cause moved, and onto which other picks they went.
func newMove(words string, moved []float64, pick int) moveView {
	n := math.Round(moved[pick])
	m := moveView{Words: say.Sentence(words), Stems: "hardly any change", Fewer: n < 0}
	if n != 0 {
		m.Stems = say.Stems(int(math.Abs(n)))
		if n > 0 {
			m.Stems = "+" + m.Stems
		} else {
			m.Stems = "-" + m.Stems
		}
	}
	earlier, later := 0.0, 0.0
	for j, by := range moved {
		switch {
		case j < pick:
			earlier += by
		case j > pick:
			later += by
		}
	}
	switch {
	case n > 0 && later < -0.5*n && -later > -earlier:
		m.Stems += " earlier"
	case n > 0 && earlier < -0.5*n:
		m.Stems += " later"
	case n < 0 && later > -0.5*n && later > earlier:
		m.Stems += ", they come later"
	case n < 0 && earlier > -0.5*n:
		m.Stems += ", they come earlier"
	}
	return m
}

// learnedWords says how a row differs from the crop table, as far as its records and those of its pool tell.
func learnedWords(l forecast.Learned, again bool) string {
	words := fmt.Sprintf("Beside the crop table it takes %s warmth and gives %s stems at first", between(l.Pace, "less", "more"), between(l.Stems, "fewer", "more"))
	if again {
		words += fmt.Sprintf(", and %s shoots follow a cut", between(l.Regrow, "fewer", "more"))
	}
	words += " (eight times in ten)."
	switch l.Answer {
	case climate.Flat:
		words += " It minds the cold less than the table has it, and makes less of warmth."
	case climate.Steep:
		words += " It minds the cold more than the table has it, and makes more of warmth."
	}
	switch {
	case again && l.Fade[2] < 1:
		words += " Its plants tire sooner than the table has it: fewer shoots follow late in the bloom."
	case again && l.Fade[0] > 1:
		words += " Its plants hold out longer than the table has it: more shoots follow late in the bloom."
	}
	switch l.Spread {
	case growth.Even:
		words += " Its stems come more together than most crops' do: a short flush, full while it lasts."
	case growth.Uneven:
		words += " Its stems come less evenly than most crops' do: a long flush, thinner on each pick."
	}
	return words
}

// between says a factor with its bounds: "2 to 5 % less", or "9 % less to 8 % more" where it is not known which.
func between(b [3]float64, less, more string) string {
	low, high := math.Round(100*(b[0]-1)), math.Round(100*(b[2]-1))
	switch {
	case low == 0 && high == 0:
		return "no " + more + " and no " + less
	case low == 0:
		return fmt.Sprintf("up to %.0f %% %s", high, more)
	case high == 0:
		return fmt.Sprintf("up to %.0f %% %s", -low, less)
	case low >= 0:
		return fmt.Sprintf("%.0f to %.0f %% %s", low, high, more)
	case high <= 0:
		return fmt.Sprintf("%.0f to %.0f %% %s", -high, -low, less)
	default:
		return fmt.Sprintf("from %.0f %% %s to %.0f %% %s", -low, less, high, more)
	}
}

// standsWords says what stands on a row where its records end, and what is still to come.
func standsWords(snap *say.Snapshot, i int) string {
	standing := snap.Stand.Standing(i)
	bud, window := 0.0, 0.0
	for k, n := range standing.Rungs {
		switch {
		case snap.Model.Plantings[i].Growth.Market.Holds(crop.Rung(k)):
			window += n
		case crop.Rung(k) < snap.Model.Plantings[i].Growth.Market.From:
			bud += n
		}
	}
	if math.Round(window+bud) == 0 {
		return fmt.Sprintf("Nothing stands in bud yet: about %s to come.", say.Stems(int(math.Round(standing.ToCome))))
	}
	return fmt.Sprintf("About %s in the window now, %.0f in bud, %.0f without a bud yet.", say.Stems(int(math.Round(window))), bud, standing.ToCome)
}
