package play

import (
	"fmt"
	"net/http"
	"net/url"
	"slices"
	"strconv"

	"dewcount/core/day"
	"dewcount/play"
	"dewcount/say"

	"github.com/labstack/echo/v5"
)

// A seasonView is where a season stands, and what is to be decided.
type seasonView struct {
	Seed, Day, SoFar, Costs string
	Why                     string
	WhyHref                 string
	Over                    bool
	Offers                  []offerView
	Crew                    []helpView
	Steps                   []stepView
	Promised                []promiseView
}

type offerView struct{ ID, Words, Until string }

// A helpView is something that the crew does by itself or leaves.
type helpView struct {
	Key, Words string
	Does       bool
}

// A stepView is something that a player can do, and where.
type stepView struct{ Href, Name, Words string }

type promiseView struct {
	Name, Href, On string
	due            day.Day
}

func (s view) play(c *echo.Context, snap *say.Snapshot) error {
	place, err := snap.Book.Place()
	if err != nil {
		return err
	}
	v := seasonView{Seed: strconv.FormatUint(place.DemoSeed, 10), Day: snap.FullDate(place.DemoDay), Over: play.Over(place)}
	t := play.TariffOf()
	v.Costs = fmt.Sprintf("A sowing costs %s, a plant %s, a stem cut %s; each stem that is missing of a promise %.0f in 100 of its price. An offer that you took can be given back, by cancelling its order, for nothing until %d days before. Paid is what goes to the orders that were there on the first day and to the offers that you took.",
		snap.Money(t.Sowing), snap.Money(t.Plant), snap.Money(t.Stem), 100*t.Missing, t.InTime)
	v.SoFar = soFar(snap, play.Until(snap.Book, place, place.DemoDay))
	v.Why, v.WhyHref = whyWords(c.QueryParam("why"), c.QueryParam("of"))
	for _, o := range play.Open(snap.Book, place) {
		v.Offers = append(v.Offers, offerView{o.ID, fmt.Sprintf("%s of %s for %s on %s, at %s a stem", say.Number(o.Stems, "stem"), snap.Book.Crop(o.Crop).Name, o.Who, snap.Date(o.On), snap.Money(o.Price)), snap.Date(o.Until)})
	}
	v.Crew = []helpView{{play.Counts, "counts a row every few days that you have not counted", play.Does(place, play.Counts)}, {play.Cuts, "cuts on pick days what is ready and you have not cut", play.Does(place, play.Cuts)},
		{play.Sells, "takes to each order what it wants of what lies in the store", play.Does(place, play.Sells)}}
	for _, o := range snap.Book.Orders {
		if o.Kind == "event" && !o.DueOn.Before(place.DemoDay) && o.CancelledOn.IsZero() {
			v.Promised = append(v.Promised, promiseView{o.ID, "/orders/" + url.PathEscape(o.ID), snap.Date(o.DueOn), o.DueOn})
		}
	}
	slices.SortStableFunc(v.Promised, func(a, b promiseView) int { return a.due.Compare(b.due) })
	v.Steps = steps(snap, place.DemoDay)
	return s.Show(c, http.StatusOK, "play", "/play", "A season to play", snap, v)
}

// soFar says what a season has come to.
func soFar(snap *say.Snapshot, a play.Account) string {
	if a.Plants == 0 {
		return "Nothing is sown yet."
	}
	words := fmt.Sprintf("%s so far: %s sold for %s, %s and %d plants for %s, cutting included.", snap.Money(a.Money()), say.Number(a.Stems, "stem"), snap.Money(a.Sales), say.Number(a.Sowings, "sowing"), a.Plants, snap.Money(a.Costs))
	if a.Broken > 0 {
		words += fmt.Sprintf(" %s of promises were missing.", say.Number(a.Broken, "stem"))
	}
	return words
}

// whyWords says why a season stopped, and where that is looked at.
func whyWords(what, of string) (words, href string) {
	switch what {
	case play.Asked:
		return "Somebody asks for stems: say yes or no below.", ""
	case play.Budding:
		return "First buds on " + of + ": count it, and see what the forecast makes of it.", "/plantings/" + url.PathEscape(of)
	case play.NearlyDue:
		return of + " is due in three days: see whether it will be filled.", "/orders/" + url.PathEscape(of)
	case play.NewMonth:
		return "A month begins: look at the season, is there a gap to sow for?", "/season"
	case play.FrostNear:
		return "Frost is forecast: cut what can be cut the evening before.", "/cut/frost"
	case play.Unplanned:
		return "A week has passed, and nothing is sown or planned yet.", "/season/successions"
	case play.Quiet:
		return "Four weeks have passed in which nothing came up.", ""
	case play.Ended:
		return "The season is over.", "/play/reckoning"
	case "gone":
		return "They could not wait and have asked elsewhere.", ""
	case "seed":
		return "A season has a whole number for its name, such as 7.", ""
	}
	return "", ""
}

// steps are what can be done on a day, what matters first.
func steps(snap *say.Snapshot, today day.Day) []stepView {
	all := []stepView{{"/orders", "Orders", "what is wanted until October, and what of it your rows will fill"},
		{"/season/successions", "Plan successions", "sowings of one crop for weeks of bloom; “for the orders on record” takes what is wanted"},
		{"/season/date", "Sow for a date", "a wedding, a supper"}}
	if len(snap.Book.Plantings) == 0 {
		return all
	}
	all = append([]stepView{{"/", "The morning", "what is short and what to do about it"}, {"/count", "Count", "rows in bud"}, {"/cut", "Cut", "what is ready"}}, all...)
	if place, err := snap.Book.Place(); err == nil && snap.Book.PickDays(place).Has(today) {
		all[0], all[2] = all[2], all[0]
	}
	return all
}
