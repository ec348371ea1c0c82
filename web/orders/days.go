package orders

import (
	"net/http"
	"net/url"
	"strconv"

	"dewcount/core/day"
	"dewcount/farm/book"
	"dewcount/farm/market"
	"dewcount/say"
	"dewcount/web/page"
	"dewcount/web/parts"

	"github.com/labstack/echo/v5"
)

// An orderDueView is one day of an order, and its lines where they are different on that day.
type orderDueView struct {
	parts.DueView
	Day   string
	Keep  string // what of the store can be kept for it, empty for nothing
	Lines []dayLineView
}

type dayLineView struct{ Name, What, Number, Fault string }

// keepWords says which stems of the store can be kept for an order on a day.
func keepWords(snap *say.Snapshot, d market.Due) string {
	stems := 0
	for _, g := range d.Keepable(snap.Book) {
		stems += g.Stems
	}
	if stems == 0 {
		return ""
	}
	return "Keep " + say.Stems(stems) + " of the store for it"
}

// dayName is the field of a line's number on one day.
func dayName(line int) string { return "number-" + strconv.Itoa(line) }

// dayLines are an order's lines with what they want on one of its days; none where it has but one day.
func dayLines(snap *say.Snapshot, o book.Order, on day.Day, from page.Typed, faults map[string]string) []dayLineView {
	if o.Repeats == "" {
		return nil
	}
	var views []dayLineView
	for _, l := range snap.Book.OrderLines {
		if l.Order != o.ID {
			continue
		}
		v := dayLineView{Name: dayName(l.Line), What: lineWords(snap, l), Number: strconv.Itoa(snap.Book.LineOn(l, on).Number())}
		if from("on") == on.String() {
			v.Number, v.Fault = from(v.Name), faults[v.Name]
		}
		views = append(views, v)
	}
	return views
}

// setDay keeps what an order wants on one of its days alone.
func (s view) setDay(c *echo.Context, snap *say.Snapshot, o book.Order) error {
	from := page.Posted(c)
	f := book.NewFields(from).For(snap.Locale)
	on := f.Day("on")
	var change book.Change
	for _, l := range snap.Book.OrderLines {
		if l.Order != o.ID || from(dayName(l.Line)) == "" {
			continue
		}
		d := book.OrderDay{Order: o.ID, Line: l.Line, On: on, Number: f.Whole(dayName(l.Line), 0, 100_000) * l.Each()}
		old, there := snap.Book.Record(book.OrderDays, d.Record().ID())
		switch {
		case d.Number == l.Number()*l.Each() && there:
			change.Withdraw = append(change.Withdraw, old)
		case d.Number == l.Number()*l.Each() || there && old.Equal(d.Record()):
		case there:
			change.Correct = append(change.Correct, d.Record())
		default:
			change.Add = append(change.Add, d.Record())
		}
	}
	err := f.Faults()
	if err == nil {
		err = s.Farm.Make(c.Request().Context(), page.By(c), change)
	}
	if faults, only := page.FaultsBy(err); only {
		return s.orderPage(c, http.StatusUnprocessableEntity, snap, o, from, faults)
	}
	if err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, "/orders/"+url.PathEscape(o.ID))
}
