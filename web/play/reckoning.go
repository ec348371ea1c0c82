package play

import (
	"context"
	"fmt"
	"math"
	"net/http"
	"strconv"

	"dewcount/play"
	"dewcount/say"
	"dewcount/web/draw"

	"github.com/labstack/echo/v5"
)

// A reckonView is what a season came to, beside one that knew everything.
type reckonView struct {
	Seed, Verdict, Result string
	Costs                 []costView
	Stairs                []stairView
	Box                   string
	Worlds                []worldView
}

// A costView is what one thing cost, in words.
type costView struct{ Name, Words, Stems, Money string }

// A stairView is a bar of the drawing: what a season came to, or what one thing adds to it.
type stairView struct {
	Name, Money, Class  string
	X, W, Y, TextX      string
	LabelY, NameY, Join string
}

type worldView struct {
	Name, Stems, Broken, Cut, Sowings, Plants, Sales, Costs, Money string
}

// reckoned is the question of a season's reckoning; there is one a state of the farm.
type reckoned struct{ Season bool }

func (s view) reckoning(c *echo.Context, snap *say.Snapshot) error {
	place, err := snap.Book.Place()
	if err != nil {
		return err
	}
	if !play.Over(place) {
		return c.Redirect(http.StatusSeeOther, "/play") // it would tell what nobody can know yet
	}
	const title = "What the season came to"
	result, ok, err := s.Answer(c, snap, "/play", title, reckoned{true}, func(ctx context.Context, progress func(float64)) (any, error) {
		return play.Reckon(ctx, snap.Book, progress)
	})
	if !ok || err != nil {
		return err
	}
	return s.Show(c, http.StatusOK, "reckoning", "/play", title, snap, newReckoning(snap, result.(*play.Reckoning), strconv.FormatUint(place.DemoSeed, 10)))
}

// costWords say what each thing means.
var costWords = map[string][2]string{
	play.OfSelling:  {"Selling", "the same stems, given to who paid most and before they were too old"},
	play.OfCounting: {"Counting", "offers taken that could not be filled, and offers left that could have been: who knows what will stand says yes to the right ones"},
	play.OfCutting:  {"Cutting", "all that was ready, on each pick day"},
	play.OfThePlan:  {"The plan", "sown as the program would have planned it on the first day, without knowing the weather"},
	play.OfWeather:  {"The weather", "what nobody could know: the days that came, and how this year's crops grew"},
}

func newReckoning(snap *say.Snapshot, r *play.Reckoning, seed string) reckonView {
	v := reckonView{Seed: seed}
	best, own := r.Best.Money(), r.Played.Money()
	v.Verdict = fmt.Sprintf("You came to %s. A season that knew everything would have come to %s.", snap.Money(own), snap.Money(best))
	v.Result = fmt.Sprintf("Season %s: %s of %s, %d of %d stems. Who plays the same season has the same weather, field and offers.", seed, snap.Money(own), snap.Money(best), r.Played.Stems, r.Best.Stems)
	for _, c := range r.Costs() {
		words := costWords[c.Of]
		line := costView{Name: words[0], Words: words[1], Stems: strconv.Itoa(c.Stems), Money: snap.Money(c.Money)}
		if c.Money < 0 {
			line.Words += "; you did better"
		}
		v.Costs = append(v.Costs, line)
	}
	v.stairs(snap, r)
	for _, w := range []struct {
		name string
		play.Account
	}{{"As it was played", r.Played}, {"The same stems, sold as well as can be", r.Given}, {"… and the right offers taken", r.Knowing}, {"… and all cut that was ready", r.Cut},
		{"… and sown as planned on the first day", r.Planned}, {"A season that knew everything", r.Best}} {
		v.Worlds = append(v.Worlds, worldView{w.name, strconv.Itoa(w.Stems), strconv.Itoa(w.Broken), strconv.Itoa(w.Account.Cut), strconv.Itoa(w.Sowings), strconv.Itoa(w.Plants), snap.Money(w.Sales), snap.Money(w.Account.Costs), snap.Money(w.Money())})
	}
	return v
}

// stairs draws the way from what was played to what could have been: each step begins where the one before it ended.
func (v *reckonView) stairs(snap *say.Snapshot, r *play.Reckoning) {
	const width, left, high = 640.0, 150.0, 34.0
	costs := r.Costs()
	least, most, sum := math.Min(0, r.Played.Money()), math.Max(r.Best.Money(), r.Played.Money()), r.Played.Money()
	for _, c := range costs {
		sum += c.Money
		least, most = math.Min(least, sum), math.Max(most, sum)
	}
	at := func(money float64) float64 { return left + (width-left-110)*(money-least)/math.Max(1, most-least) }
	add := func(name, class string, from, to float64, money string) {
		y := high * float64(len(v.Stairs))
		x, w := math.Min(at(from), at(to)), math.Abs(at(to)-at(from))
		v.Stairs = append(v.Stairs, stairView{Name: name, Money: money, Class: class, X: draw.Place1(x), W: draw.Place1(math.Max(1.5, w)), Y: draw.Place1(y + 6), TextX: draw.Place1(x + w + 8),
			LabelY: draw.Place1(y + 22), NameY: draw.Place1(y + 22), Join: fmt.Sprintf("M%s %sv%s", draw.Place1(at(to)), draw.Place1(y+28), draw.Place1(high-22))})
	}
	add("You", "stair-own", 0, r.Played.Money(), snap.Money(r.Played.Money()))
	sum = r.Played.Money()
	for _, c := range costs {
		class, sign := "stair-lost", "+"
		if c.Money < 0 {
			class, sign = "stair-won", "−"
		}
		add(costWords[c.Of][0], class, sum, sum+c.Money, sign+snap.Money(math.Abs(c.Money)))
		sum += c.Money
	}
	add("Knew everything", "stair-best", 0, r.Best.Money(), snap.Money(r.Best.Money()))
	v.Stairs[len(v.Stairs)-1].Join = ""
	v.Box = fmt.Sprintf("0 0 %.0f %.0f", width, high*float64(len(v.Stairs)))
}
