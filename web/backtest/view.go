// Package backtest answers: how far could past forecasts have been trusted?
package backtest

import (
	"context"
	"embed"
	"fmt"
	"net/http"
	"net/url"

	"dewcount/core/day"
	core "dewcount/core/review"
	"dewcount/farm/look"
	"dewcount/farm/review"
	"dewcount/say"
	"dewcount/web/draw"
	"dewcount/web/page"

	"github.com/labstack/echo/v5"
)

//go:embed *.html
var templates embed.FS

// A view is the site as this folder's handlers have it.
type view struct{ *page.Site }

// View returns the addresses of this folder, who may use them, and the templates that they show.
func View(site *page.Site) page.View {
	s := view{site}
	return page.View{Templates: templates, Routes: []page.Route{page.Get("/backtest", page.Look, s.On(s.backtest))}}
}

// A trustView is the answer in a sentence, and what it rests on.
type trustView struct {
	Verdict string
	Told    string // what counting was worth
	None    string
	Groups  []groupView
	Last    []pickView
}

type groupView struct {
	Name  string
	Lines []lineView
}

// A lineView is a group of forecasts beside what came.
type lineView struct {
	Name, Href, Picks, Came, Expected, Held, Better string
	Poor                                            bool // clearly fewer held than should
}

// A pickView is one pick as it was foretold, drawn with what came.
type pickView struct {
	On, Planting, Href, Words, Came string
	Band                            draw.BandView
	Missed                          bool
}

// asked is the question of the backtest; there is one a state of the farm.
type asked struct{ Backtest bool }

func (s view) backtest(c *echo.Context, snap *say.Snapshot) error {
	first := snap.View.Today
	for _, p := range snap.Book.Plantings {
		if p.StartedOn.Before(first) {
			first = p.StartedOn
		}
	}
	all := float64(max(1, snap.View.Today.Sub(first)))
	result, ok, err := s.Answer(c, snap, "/backtest", "How far could it be trusted?", asked{true}, func(_ context.Context, progress func(float64)) (any, error) {
		test, err := look.NewBacktest(snap.Book, snap.View.Today, func(d day.Day) { progress(float64(d.Sub(first)) / all) })
		if err != nil {
			return nil, err
		}
		return review.TrustOf(test), nil
	})
	if !ok || err != nil {
		return err
	}
	return s.Show(c, http.StatusOK, "backtest", "", "How far could it be trusted?", snap, newTrust(snap, result.(review.Trust)))
}

func newTrust(snap *say.Snapshot, t review.Trust) trustView {
	if t.All.Picks == 0 {
		return trustView{None: "No cut on record was ever forecast. Write down the cuts of some pick days, and look again."}
	}
	v := trustView{Verdict: verdict(t.All)}
	if t.Untold.Picks == t.All.Picks && t.Untold.WIS > 0 {
		v.Told = fmt.Sprintf("Without what was counted, cut and seen the same forecasts would have erred %.1f times as much.", t.Untold.WIS/t.All.WIS)
	}
	ahead := groupView{Name: "By how long before"}
	for _, l := range t.Leads {
		ahead.Lines = append(ahead.Lines, newLine(say.Number(l.Weeks, "week")+" before", "", l.Score))
	}
	crops := groupView{Name: "By crop, a week before"}
	for _, c := range t.Crops {
		name := c.Crop
		if p := snap.Book.Crop(c.Crop); p != nil {
			name = p.Name
		}
		crops.Lines = append(crops.Lines, newLine(name, "/crops/"+url.PathEscape(c.Crop), c.Score))
	}
	v.Groups = []groupView{ahead, crops}
	const shown = 24
	last := t.Last[:min(shown, len(t.Last))]
	most := 1.0
	for _, p := range last {
		most = max(most, p.Came, p.Stems[4])
	}
	for _, p := range last {
		v.Last = append(v.Last, newPick(snap, p, most))
	}
	return v
}

// heldShare is the share of picks that should lie between sure and at best.
const heldShare = 0.8

// verdict says in a sentence how far all forecasts could have been trusted.
func verdict(s core.Score) string {
	held := s.Share(s.In80)
	words := fmt.Sprintf("Of %s foretold one to five weeks before, %.0f in 100 came between sure and at best", say.Number(s.Picks, "pick"), 100*held)
	const off = 0.05
	switch {
	case held < heldShare-off:
		words += ": fewer than the 80 that should, so plan with less than sure"
	case held > heldShare+off:
		words += ": more than the 80 that should, so the bounds are wider than they need be"
	default:
		words += ", as they should: 80"
	}
	return words + fmt.Sprintf(". They erred %.0f %% less than a calendar on the wall.", 100*s.Skill())
}

func newLine(name, href string, s core.Score) lineView {
	const enough, poor = 10, 0.7
	held := s.Share(s.In80)
	return lineView{Name: name, Href: href, Picks: fmt.Sprint(s.Picks), Came: fmt.Sprintf("%.0f", s.Came), Expected: fmt.Sprintf("%.0f", s.Expected), Held: fmt.Sprintf("%.0f in 100", 100*held),
		Better: better(s.Skill()), Poor: s.Picks >= enough && held < poor}
}

// better says by how much a forecast errs less than the calendar, or more.
func better(skill float64) string {
	if skill < 0 {
		return fmt.Sprintf("%.0f %% worse", -100*skill)
	}
	return fmt.Sprintf("%.0f %%", 100*skill)
}

func newPick(snap *say.Snapshot, p core.Pick, most float64) pickView {
	record, _ := snap.Book.Planting(p.Planting)
	v := pickView{On: snap.Date(p.Pick), Planting: p.Planting + " " + record.Variety, Href: "/plantings/" + url.PathEscape(p.Planting), Came: fmt.Sprintf("%.0f came", p.Came),
		Words: say.Bounds(int(p.Stems[0]), int(p.Stems[2]+0.5), int(p.Stems[4]+0.5)), Missed: p.Came < p.Stems[0] || p.Came > p.Stems[4],
		Band: draw.NewBand(p.Stems[0], p.Stems[1], p.Stems[2], p.Stems[3], p.Stems[4], most, int(p.Came+0.5))}
	v.Band.Title = v.Words + "; " + v.Came
	return v
}
