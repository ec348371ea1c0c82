package season

import (
	"fmt"
	"math"
	"net/http"
	"strconv"

	"dewcount/farm/plans"
	"dewcount/say"
	"dewcount/web/draw"
	"dewcount/web/page"

	"github.com/labstack/echo/v5"
)

// A possibleView answers: what does this plan bring in twenty possible years?
type possibleView struct {
	YearName string
	Year     int
	Years    []page.LinkView
	Verdict  string
	None     string
	Lines    []possibleLine
}

type possibleLine struct {
	Place                        int
	Short, Lacking, Stems, Hours string
	Filled, Why                  string
	Bar                          string // how many weeks are short, of a drawing of a hundred units
}

// possible tries a season's plan on the weathers that it is drawn in.
func (s view) possible(c *echo.Context, snap *say.Snapshot) error {
	year, years := page.YearOf(c, snap)
	season, ok, err := s.SeasonOf(c, snap, "/season", "Twenty possible years", year)
	if err != nil || !ok {
		return err
	}
	p := plans.PossibleYears(season.Season)
	v := possibleView{YearName: page.YearName(year, snap), Year: year}
	for _, y := range years {
		v.Years = append(v.Years, page.LinkView{Name: page.YearName(y, snap), Href: "/season/possible?year=" + strconv.Itoa(y), Here: y == year})
	}
	if p.Wanted == 0 {
		v.None = "No order wants a crop of what is to come of this season: say on the orders' page what a market day or an event wants, and the plan is held against it."
		p.Years = nil
	}
	v.Verdict = possibleVerdict(p)
	scale := draw.NewScale(0, float64(max(1, p.Wanted)), 0, 100)
	for i, y := range p.Years {
		line := possibleLine{Place: i + 1, Short: strconv.Itoa(y.Short), Filled: fmt.Sprintf("%d of %d", y.Filled, p.Dues), Lacking: fmt.Sprintf("%.0f", y.Lacking), Stems: fmt.Sprintf("%.0f", y.Stems),
			Hours: fmt.Sprintf("%.0f, at most %.0f a week", y.Hours, y.Busiest), Bar: draw.Place1(scale.At(float64(y.Short)))}
		if crop := snap.Book.Crop(y.Worst); crop != nil {
			line.Why = crop.Name + why(y)
		}
		v.Lines = append(v.Lines, line)
	}
	return s.Show(c, http.StatusOK, "possible", "/season", "Twenty possible years", snap, v)
}

// possibleVerdict says in a sentence how a plan does over all years.
func possibleVerdict(p plans.Possible) string {
	if p.Wanted == 0 || len(p.Years) == 0 {
		return ""
	}
	whole, sum := 0, 0
	for _, y := range p.Years {
		if sum += y.Short; y.Short == 0 {
			whole++
		}
	}
	mean := float64(sum) / float64(len(p.Years))
	words := fmt.Sprintf("In %d of %d years nothing is short. ", whole, len(p.Years))
	if whole == 0 {
		words = "In every year something is short. "
	}
	return words + fmt.Sprintf("Of %d times that a week's orders want a crop, %.0f are short on the mean, and %d in the worst year.", p.Wanted, mean, p.Years[0].Short)
}

// why says what makes a year's worst crop short: late, early or few, or neither: then there is too little of it in any year.
func why(y plans.PossibleYear) string {
	const days, part = 4, 0.1
	switch {
	case y.Part == 0:
		return ": none comes"
	case y.Part < 1-part && y.Late > days:
		return fmt.Sprintf(": %s late, and %.0f in 100 of its usual stems", say.Days(int(math.Round(y.Late))), 100*y.Part)
	case y.Part < 1-part:
		return fmt.Sprintf(": %.0f in 100 of its usual stems", 100*y.Part)
	case y.Late > days:
		return fmt.Sprintf(": %s late", say.Days(int(math.Round(y.Late))))
	case y.Late < -days:
		return fmt.Sprintf(": %s early", say.Days(int(math.Round(-y.Late))))
	}
	return ": too little of it in any year"
}
