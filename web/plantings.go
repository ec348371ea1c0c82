package web

import (
	"fmt"
	"net/http"
	"net/url"
	"slices"
	"strings"

	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/farm"

	"github.com/labstack/echo/v5"
)

// A plantingsView lists what is growing, was and will be.
type plantingsView struct {
	Growing, Ended []plantingLine
}

type plantingLine struct {
	ID, Variety, Crop, Bed, Started, State string
	Plants                                 int
	Spread                                 spreadView
	Pick                                   string
}

func (s *server) plantings(c *echo.Context) error {
	snap, err := s.snapshot(c)
	if snap == nil || err != nil {
		return err
	}
	var v plantingsView
	for i, p := range snap.Model.Plantings {
		line := plantingLine{ID: p.ID, Variety: p.Variety, Crop: p.Growth.Profile.Name, Bed: bedOf(snap, p.ID),
			Started: p.Growth.Started.Spoken(), Plants: p.Growth.Plants, State: state(snap, i)}
		if len(snap.Forecast.PickDays) > 0 {
			spread := snap.Forecast.Plantings[i].ByPick[0][crop.Market]
			line.Spread = newSpreadView(spread, spread.Quantile(0.9)*1.04, 0)
			line.Pick = snap.Forecast.PickDays[0].Spoken()
		}
		if over(snap, i) {
			v.Ended = append(v.Ended, line)
		} else {
			v.Growing = append(v.Growing, line)
		}
	}
	byID := func(a, b plantingLine) int { return strings.Compare(a.ID, b.ID) }
	slices.SortFunc(v.Growing, byID)
	slices.SortFunc(v.Ended, byID)
	return s.show(c, http.StatusOK, "plantings", "/plantings", "Plantings", snap, v)
}

func over(snap *farm.Snapshot, i int) bool {
	ended := snap.Model.Plantings[i].Ended
	return snap.Stand.Dead(i) || !ended.IsZero() && !ended.After(snap.View.Today)
}

// state says where a planting stands in its life.
func state(snap *farm.Snapshot, i int) string {
	p := snap.Model.Plantings[i]
	today := snap.View.Today
	standing := snap.Stand.Standing(i)
	switch {
	case snap.Stand.Dead(i):
		return "killed by frost"
	case !p.Ended.IsZero() && !p.Ended.After(today):
		return "pulled out on " + p.Ended.Spoken()
	case p.Growth.Started.After(today):
		return "to be started"
	case standing.Likely >= 1:
		return fmt.Sprintf("about %s in bud or bloom", stems(roundly(standing.Likely)))
	case p.Growth.Out().After(today):
		return "in the nursery"
	default:
		return "growing, no buds yet"
	}
}

// A plantingView answers for one row: when, how many, and from what that is known.
type plantingView struct {
	ID, Variety, Crop, About, Next string
	Over                           bool
	Ladder                         []rungView
	Standing, Window               string
	Life                           lifeView
	Picks                          []pickLine
	HasUses                        bool
	Change                         *changeView
	Story                          []storyLine
	Why                            string
}

type pickLine struct {
	Spoken string
	Spread spreadView
	Uses   []string
}

// A storyLine is a record of a planting.
type storyLine struct {
	When, Words, Who, Edit, Kind, ID string
	Past                             string // how it was ended, for what no longer stands
	sort                             float64
}

func (s *server) planting(c *echo.Context) error {
	snap, err := s.snapshot(c)
	if snap == nil || err != nil {
		return err
	}
	i := snap.Index(c.Param("planting"))
	if i < 0 {
		return farm.ErrNoSuchRecord
	}
	v := newPlanting(snap, i)
	if kind, id, ok := strings.Cut(c.QueryParam("seen"), ":"); ok && (kind == farm.Counts.Name || kind == farm.Cuts.Name) {
		if _, stands := snap.Book.Record(farm.KindNamed(kind), id); stands {
			before, err := s.farm.Without(c.Request().Context(), farm.KindNamed(kind), id)
			if err != nil {
				return err
			}
			v.Change = newChange(before, snap, i, kind, id)
		}
	}
	return s.show(c, http.StatusOK, "planting", "/plantings", v.ID+" "+v.Variety, snap, v)
}

func newPlanting(snap *farm.Snapshot, i int) plantingView {
	p := snap.Model.Plantings[i]
	record, _ := snap.Book.Planting(p.ID)
	standing := snap.Stand.Standing(i)
	v := plantingView{ID: p.ID, Variety: p.Variety, Crop: p.Growth.Profile.Name, About: about(record), Over: over(snap, i),
		Ladder: ladder(standing.Rungs, p.Growth.Market), Window: p.Growth.Market.String(), Why: why(snap, i),
		Standing: bounds(int(standing.Sure+0.5), int(standing.Likely+0.5), int(standing.AtBest+0.5)),
		Life:     newLife(snap, i), Story: story(snap, p.ID)}
	cells := snap.Forecast.Plantings[i].ByPick
	most := 1.0
	for j := range cells {
		most = max(most, cells[j][crop.Market].Quantile(0.9))
	}
	v.Next = "Nothing to cut in the next five weeks."
	found := false
	for j, d := range snap.Forecast.PickDays {
		spread := cells[j][crop.Market]
		line := pickLine{Spoken: d.Spoken(), Spread: newSpreadView(spread, most, 0)}
		for u := crop.Event; int(u) < crop.Uses; u++ {
			if p.HasUse[u] && p.Windows[u] != p.Growth.Market {
				other := cells[j][u]
				line.Uses = append(line.Uses, fmt.Sprintf("%s %s: %s", u, p.Windows[u], bounds(other.Sure(), other.Likely(), other.AtBest())))
			}
		}
		v.Picks = append(v.Picks, line)
		v.HasUses = v.HasUses || len(line.Uses) > 0
		if !found && spread.Likely() > 0 {
			found = true
			v.Next = fmt.Sprintf("%s: %s.", d.Spoken(), line.Spread.Words)
		}
	}
	return v
}

// about says how a planting was started.
func about(p farm.Planting) string {
	words := map[crop.Method]string{crop.Direct: "sown where it grows", crop.Tray: "sown in trays", crop.Tuber: "tubers started"}[p.Method]
	text := fmt.Sprintf("%d plants, %s on %s", p.Plants, words, p.StartedOn.Spoken())
	if p.Bed != "" {
		text += ", bed " + p.Bed
	}
	if !p.PlantedOutOn.IsZero() {
		text += ", planted out on " + p.PlantedOutOn.Spoken()
	}
	if !p.PinchedOn.IsZero() {
		part := ""
		if share := p.PinchedPart(); share < 1 {
			part = fmt.Sprintf(" (%.0f %% of them)", 100*share)
		}
		text += ", pinched on " + p.PinchedOn.Spoken() + part
	}
	if !p.EndedOn.IsZero() {
		text += ", pulled out on " + p.EndedOn.Spoken()
	}
	return text + "."
}

// A changeView holds the forecast before a record beside the one after it.
type changeView struct {
	Record  string
	Warning string
	Lines   []changeLine
}

type changeLine struct {
	Spoken        string
	Before, After spreadView
	Moved         string
}

const changePicks = 5

func newChange(before, now *farm.Snapshot, i int, kind, id string) *changeView {
	v := &changeView{Record: "the " + farm.KindNamed(kind).Singular()}
	if kind == farm.Counts.Name {
		if count, ok := now.Book.Count(id); ok {
			v.Warning = surprise(before, i, count)
		}
	}
	a, b := before.Forecast.Plantings[i].ByPick, now.Forecast.Plantings[i].ByPick
	most := 1.0
	for j := range min(changePicks, len(b)) {
		most = max(most, a[j][crop.Market].Quantile(0.9), b[j][crop.Market].Quantile(0.9))
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
		v.Lines = append(v.Lines, changeLine{d.Spoken(), newSpreadView(x, most, 0), newSpreadView(y, most, 0), moved})
	}
	return v
}

// surprise says so where a count is far from what was expected, empty where it is not.
func surprise(before *farm.Snapshot, i int, c farm.Count) string {
	expected := before.Stand.Standing(i)
	share := float64(c.PlantsCount) / float64(before.Model.Plantings[i].Growth.Plants)
	seen := 0.0
	for k, n := range c.Stems {
		if crop.Rung(k) < crop.Over {
			seen += float64(n)
		}
	}
	const few = 5 // stems whose number is chance
	low, high := expected.Sure*share, expected.AtBest*share
	switch {
	case seen > 1.3*high+few:
		return fmt.Sprintf("%.0f stems are far more than the %.0f to %.0f expected on these plants. Was it the right row, and each branch counted once? If so, leave it: the forecast has moved.", seen, low, high)
	case seen < 0.7*low-few:
		return fmt.Sprintf("%.0f stems are far fewer than the %.0f to %.0f expected on these plants. Was it the right row? If so, leave it: the forecast has moved.", seen, low, high)
	}
	return ""
}

// story lists a planting's records, the newest first, with what no longer stands.
func story(snap *farm.Snapshot, planting string) []storyLine {
	var lines []storyLine
	for _, c := range snap.Book.Counts {
		if c.Planting == planting {
			lines = append(lines, countLine(c))
		}
	}
	for _, c := range snap.Book.Cuts {
		if c.Planting == planting {
			lines = append(lines, cutLine(c))
		}
	}
	for _, e := range snap.Book.Events {
		if e.Planting == planting {
			words := map[string]string{farm.Emerged: "most plants are up", farm.FirstBud: "first tight buds"}[e.Event]
			if words == "" {
				words = e.Event
			}
			lines = append(lines, storyLine{When: e.On.Spoken(), Words: words, Kind: farm.Events.Name, ID: e.ID, sort: e.On.At(0)})
		}
	}
	for _, p := range snap.Book.History {
		if line, ok := pastLine(p, planting); ok {
			lines = append(lines, line)
		}
	}
	slices.SortStableFunc(lines, func(a, b storyLine) int {
		switch {
		case a.sort > b.sort:
			return -1
		case a.sort < b.sort:
			return 1
		default:
			return 0
		}
	})
	return lines
}

func countLine(c farm.Count) storyLine {
	var seen []string
	for k, n := range c.Stems {
		if n > 0 {
			seen = append(seen, fmt.Sprintf("%d %s", n, crop.Rung(k)))
		}
	}
	words := fmt.Sprintf("count of %d plants: nothing in bud", c.PlantsCount)
	if len(seen) > 0 {
		words = fmt.Sprintf("count of %d plants: %s", c.PlantsCount, list(seen))
	}
	return storyLine{When: c.CountedAt.Spoken(), Words: words, Who: c.Counter, Edit: "/counts/" + url.PathEscape(c.ID), Kind: farm.Counts.Name, ID: c.ID,
		sort: c.CountedAt.Instant(6)}
}

func cutLine(c farm.Cut) storyLine {
	words := "cut " + stems(c.Stems)
	if c.Culled > 0 {
		words += fmt.Sprintf(", %d culled", c.Culled)
		if c.CullReason != "" {
			words += ": " + c.CullReason
		}
	}
	if c.Left != nil && *c.Left > 0 {
		words += fmt.Sprintf(", %d left standing", *c.Left)
	}
	return storyLine{When: c.CutAt.Spoken(), Words: words, Edit: "/cuts/" + url.PathEscape(c.ID), Kind: farm.Cuts.Name, ID: c.ID, sort: c.CutAt.Instant(8)}
}

// pastLine shows a record of a planting that was corrected or withdrawn.
func pastLine(p farm.Past, planting string) (storyLine, bool) {
	r, err := p.Record()
	if err != nil || !slices.Contains(r.Kind.Columns, "planting") || r.Field("planting") != planting {
		return storyLine{}, false
	}
	var line storyLine
	book := new(farm.Book)
	if _, err := book.Read(r.Kind, r.Rows); err != nil {
		return storyLine{}, false
	}
	switch r.Kind {
	case &farm.Counts:
		line = countLine(book.Counts[0])
	case &farm.Cuts:
		line = cutLine(book.Cuts[0])
	case &farm.Plantings:
		line = storyLine{When: book.Plantings[0].StartedOn.Spoken(), Words: about(book.Plantings[0]), Kind: r.Kind.Name, ID: r.ID(),
			sort: book.Plantings[0].StartedOn.At(0)}
	default:
		return storyLine{}, false
	}
	line.Edit = ""
	line.Past = map[string]string{"superseded": "corrected since", "withdrawn": "withdrawn"}[p.Ended]
	if p.EndedBy != "" {
		line.Past += " by " + p.EndedBy
	}
	return line, true
}

// jump leads from a name to its page.
func (s *server) jump(c *echo.Context) error {
	snap, err := s.snapshot(c)
	if snap == nil || err != nil {
		return err
	}
	to := strings.TrimSpace(c.QueryParam("to"))
	name, _, _ := strings.Cut(to, " ")
	for _, p := range snap.Book.Plantings {
		if strings.EqualFold(p.ID, to) || strings.EqualFold(p.ID, name) || strings.EqualFold(p.Variety, to) {
			return c.Redirect(http.StatusSeeOther, "/plantings/"+url.PathEscape(p.ID))
		}
	}
	for _, o := range snap.Book.Orders {
		if strings.EqualFold(o.ID, to) {
			return c.Redirect(http.StatusSeeOther, "/orders/"+url.PathEscape(o.ID))
		}
	}
	for word, address := range map[string]string{"morning": "/", "plantings": "/plantings", "orders": "/orders", "farm": "/farm", "add": "/plantings/new"} {
		if strings.EqualFold(word, to) {
			return c.Redirect(http.StatusSeeOther, address)
		}
	}
	if d, err := day.Parse(to); err == nil {
		return c.Redirect(http.StatusSeeOther, "/?pick="+d.String())
	}
	return s.show(c, http.StatusNotFound, "error", "", "Not found", snap,
		errorView{Advice: fmt.Sprintf("Nothing here is called %q: write a planting such as ZC2, an order, or a view.", to)})
}
