package orders

import (
	"context"
	"fmt"
	"net/http"
	"net/url"

	"dewcount/core/day"
	"dewcount/farm/book"
	"dewcount/farm/market"
	"dewcount/say"
	"dewcount/web/page"

	"github.com/labstack/echo/v5"
)

// An optionsView answers: this order is short, so what can be done, and who pays for it?
type optionsView struct {
	Order, On, OnDay string
	Now              string
	Options          []optionView
	None             string
	Tell             string // by when the customer should know
	Plans            []page.LinkView
	Late             string // what sown today would come too late
}

type optionView struct {
	Key, What, Effect string
	Losers            []string
}

// asked is the question of an order's options.
type asked struct {
	Order string
	On    day.Day
}

// shortfall works out the options of an order on the day that the address names, the next where it names none.
func (s view) shortfall(c *echo.Context, snap *say.Snapshot, o book.Order, on string) (market.Due, []market.Option, bool, error) {
	var due market.Due
	for _, d := range market.Dues(snap.Snapshot) {
		if d.Order.ID == o.ID && (on == "" && due.On.IsZero() || d.On.String() == on) {
			due = d
		}
	}
	if due.On.IsZero() {
		return due, nil, true, nil
	}
	result, ok, err := s.Answer(c, snap, "/orders", "What can be done about "+o.ID, asked{o.ID, due.On}, func(context.Context, func(float64)) (any, error) {
		return market.OptionsFor(snap.Snapshot, o.ID, due.On), nil
	})
	if !ok || err != nil {
		return due, nil, false, err
	}
	return due, result.([]market.Option), true, nil
}

func (s view) options(c *echo.Context, snap *say.Snapshot, o book.Order) error {
	due, all, ok, err := s.shortfall(c, snap, o, c.QueryParam("on"))
	if !ok || err != nil {
		return err
	}
	v := optionsView{Order: o.ID, None: "It is not due within five weeks."}
	if !due.On.IsZero() {
		v.On, v.OnDay, v.None = snap.Date(due.On), due.On.String(), ""
		v.Now = fmt.Sprintf("As it stands all of it is filled %s.", say.Tenths(due.Chance))
		for _, option := range all {
			if say.Tenths(option.Chance) == say.Tenths(due.Chance) && option.Short == option.Before && option.OfLine == 0 {
				continue // nobody could tell the difference
			}
			v.Options = append(v.Options, newOption(snap, option))
		}
		var late []string
		if v.Plans, late = planLinks(snap, o, due.On); len(late) > 0 && !due.Covered() {
			v.Late = "Sown today " + say.Or(late) + " would come too late."
		}
		switch {
		case due.Covered():
			v.Plans = nil
			v.None = "It is covered: nothing has to be done."
		case len(v.Options) == 0:
			v.None = "Nothing that was tried would help: not another order of serving, not another crop of the same role and colour, not a pick day more."
		}
		const notice = 7 // days that a customer needs to find others
		if tell := due.On.Add(-notice); tell.After(snap.View.Today) {
			v.Tell = fmt.Sprintf("Tell the customer by %s what is not sure.", snap.Date(tell))
		} else {
			v.Tell = "Tell the customer today what is not sure: a promise broken on the day is the worst."
		}
	}
	return s.Show(c, http.StatusOK, "options", "/orders", "What can be done about "+o.ID, snap, v)
}

// keyOf tells an option from the others of its order, also where they stand in another order by now.
func keyOf(o market.Option) string {
	return fmt.Sprintf("%s|%d|%d|%s|%s|%s|%s", o.Kind, o.Line, o.N, o.On, o.Row, o.What, o.For)
}

func newOption(snap *say.Snapshot, o market.Option) optionView {
	v := optionView{Key: keyOf(o)}
	switch o.Kind {
	case market.First:
		v.What = "Serve it before all others"
	case market.Looser:
		v.What = fmt.Sprintf("Take %s too from now on, where %s is short", o.What, o.For)
	case market.Fewer:
		v.What = fmt.Sprintf("Promise %d %s, which are sure", o.N, o.What)
	case market.Smaller:
		v.What = fmt.Sprintf("Promise %d of %s, which are sure", o.N, o.What)
	case market.Slimmer:
		v.What = fmt.Sprintf("Make as many of %s with %s each", o.What, say.Stems(o.N))
	case market.ExtraPick:
		v.What = fmt.Sprintf("Cut on %s as well", snap.Date(o.On))
	case market.Fleece:
		v.What = fmt.Sprintf("Lay fleece over %s (%s) today, so that it comes sooner", o.Row, o.What)
	case market.Shade:
		v.What = fmt.Sprintf("Shade %s (%s) from today on, so that it comes later", o.Row, o.What)
	case market.Pinch:
		v.What = fmt.Sprintf("Pinch half of %s (%s) today, which comes later then", o.Row, o.What)
	case market.Long:
		v.What = fmt.Sprintf("Wipe the side buds off %s (%s) and cut it long from now on", o.Row, o.What)
	case market.Leave:
		v.What = fmt.Sprintf("Leave %s (%s) standing until %s", o.Row, o.What, snap.Date(o.On))
	case market.Buy:
		v.What = fmt.Sprintf("Buy %d %s in", o.N, o.What)
	}
	switch {
	case o.OfLine > 0:
		v.Effect = "that line is filled " + say.Tenths(o.OfLine)
	default:
		v.Effect = "all of it is filled " + say.Tenths(o.Chance)
	}
	switch {
	case o.Short == 0 && o.Before > 0:
		v.Effect += fmt.Sprintf(", and likely nothing is short instead of %s", say.Stems(o.Before))
	case o.Short < o.Before:
		v.Effect += fmt.Sprintf(", and likely %s short in all instead of %d", say.Stems(o.Short), o.Before)
	}
	for _, l := range o.Losers {
		if say.Tenths(l.Now) == say.Tenths(l.Before) {
			continue
		}
		v.Losers = append(v.Losers, fmt.Sprintf("%s on %s: %s instead of %s", l.Order, snap.Date(l.On), say.Tenths(l.Now), say.Tenths(l.Before)))
	}
	return v
}

// doOption does what was chosen.
func (s view) doOption(c *echo.Context, snap *say.Snapshot, o book.Order) error {
	on := c.FormValue("on")
	_, all, ok, err := s.shortfall(c, snap, o, on)
	if !ok || err != nil {
		return err
	}
	for _, option := range all {
		if keyOf(option) != c.FormValue("option") {
			continue
		}
		if err := s.Farm.Make(c.Request().Context(), page.By(c), option.Change); err != nil {
			return err
		}
		return c.Redirect(http.StatusSeeOther, "/orders/"+url.PathEscape(o.ID))
	}
	return book.ErrNoSuchRecord // the farm has changed meanwhile
}

// cancel cancels an order, or brings it back.
func (s view) cancel(c *echo.Context, snap *say.Snapshot, o book.Order) error {
	if o.CancelledOn.IsZero() {
		o.CancelledOn = snap.View.Today
	} else {
		o.CancelledOn = day.Day{}
	}
	if err := s.Farm.Correct(c.Request().Context(), page.By(c), o.Record()); err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, "/orders/"+url.PathEscape(o.ID))
}
