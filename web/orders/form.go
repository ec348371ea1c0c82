package orders

import (
	"net/http"
	"net/url"
	"slices"
	"strings"

	"dewcount/core/day"
	"dewcount/farm/book"
	"dewcount/say"
	"dewcount/web/page"

	"github.com/labstack/echo/v5"
)

func orderFields() []page.Field {
	return []page.Field{
		{Name: "order", Label: "Name", Needed: true, Hint: "Such as Saturday market, or the event."},
		page.Field{Name: "kind", Label: "Kind", Kind: "select"}.Choose(page.Option{Value: "market", Label: "market day"}, page.Option{Value: "event", Label: "event"},
			page.Option{Value: "standing", Label: "standing bucket"}),
		{Name: "due_on", Label: "Due on", Kind: "date", Needed: true},
		page.Field{Name: "repeats", Label: "Again", Kind: "select"}.Choose(page.Option{Value: "", Label: "once"}, page.Option{Value: "weekly", Label: "every week"}),
		{Name: "until", Label: "Until", Kind: "date"},
		{Name: "hour", Label: "Ready at what hour", Mode: "decimal", Hint: "Such as 7 or 16.5."},
		{Name: "place", Label: "Where it goes"},
		{Name: "customer", Label: "For whom"},
		{Name: "palette", Label: "Palette", Hint: "Such as white / blush: what lines may be of that name no colour. Empty: any."},
		page.Field{Name: "importance", Label: "Served", Kind: "select"}.Choose(page.Option{Value: "", Label: "as usual: events, then standing buckets, then markets"}, page.Option{Value: "1", Label: "with the events, first"},
			page.Option{Value: "2", Label: "with the standing buckets"}, page.Option{Value: "3", Label: "with the markets"}, page.Option{Value: "4", Label: "after all others"}),
		{Name: "note", Label: "Note"},
	}
}

func (s view) newOrder(c *echo.Context, snap *say.Snapshot) error {
	return s.orderForm(c, http.StatusOK, snap, "", func(name string) string { return c.QueryParam(name) }, nil)
}

func (s view) editOrder(c *echo.Context, snap *say.Snapshot, o book.Order) error {
	return s.orderForm(c, http.StatusOK, snap, o.ID, page.Of(o.Record()), nil)
}

// orderForm shows the form of an order: of a new one, or of the one with an id.
func (s view) orderForm(c *echo.Context, code int, snap *say.Snapshot, id string, from page.Typed, faults map[string]string) error {
	v := page.FormView{Heading: "Add a market day or an order", Action: "/orders", Save: "Add it", Cancel: "/orders",
		Lead: "Then say what it wants, and see what is covered."}
	fields := orderFields()
	if id != "" {
		here := "/orders/" + url.PathEscape(id)
		v = page.FormView{Heading: "Correct " + id, Action: here, Save: "Keep the correction", Cancel: here, Lead: "Its lines stay as they are.",
			Withdraw: &page.DoneView{Words: "Withdraw this order", Kind: book.Orders.Name, ID: id}}
		fields[0].Hint = "Another name takes its lines along."
	}
	if faults["due_on"] != "" {
		if on, err := day.Parse(from("due_on")); err == nil {
			meant := page.Field{Name: meantKey, Label: "Is that day meant?", Kind: "select"}.Choose(page.Option{Value: "", Label: "no: the day above is corrected"},
				page.Option{Value: on.String(), Label: "yes, " + snap.Date(on)})
			at := slices.IndexFunc(fields, func(f page.Field) bool { return f.Name == "due_on" })
			fields = slices.Insert(fields, at+1, meant)
		}
	}
	v.Fields = page.Fill(c, fields, from, faults)
	v.Fault = page.Rest(v.Fields, faults)
	return s.Show(c, code, "form", "/orders", v.Heading, snap, v)
}

func (s view) addOrder(c *echo.Context, snap *say.Snapshot) error {
	return s.keepOrder(c, snap, "")
}

func (s view) correctOrder(c *echo.Context, snap *say.Snapshot, o book.Order) error {
	return s.keepOrder(c, snap, o.ID)
}

// keepOrder keeps the order that a form sent: a new one, or in the place of the one with an id, which may have another name then. A day that is hardly meant is
// asked about first.
func (s view) keepOrder(c *echo.Context, snap *say.Snapshot, id string) error {
	from := page.Posted(c)
	name := strings.TrimSpace(from("order"))
	f := book.NewFields(func(field string) string {
		if field == "order" && id != "" {
			return id
		}
		return from(field)
	})
	o := book.ReadOrder(f)
	before, _ := snap.Book.Order(id)
	o.CancelledOn = before.CancelledOn // a correction does not bring it back
	if odd := o.OddDay(snap.View.Today); odd != "" && before.DueOn != o.DueOn && from(meantKey) != o.DueOn.String() {
		f.Fault("due_on", "%s %s: correct it, or say below that it is meant", snap.Date(o.DueOn), odd)
	}
	again := func(faults map[string]string) error {
		return s.orderForm(c, http.StatusUnprocessableEntity, snap, id, from, faults)
	}
	err := f.Faults()
	if err == nil && id != "" && name != "" && name != id {
		renamed := book.NewFields(from)
		if renamed.Key("order", "the order's name"); renamed.Faults() != nil {
			err = renamed.Faults()
		} else if err = s.Farm.Rename(c.Request().Context(), page.By(c), id, name, c.FormValue(page.ShownKey), o); err == nil {
			return c.Redirect(http.StatusSeeOther, "/orders/"+url.PathEscape(name))
		}
	}
	return s.Keep(c, err, o.Record(), id != "", again, "orders", o.ID)
}

// meantKey is the field by which somebody says that an odd day is meant.
const meantKey = "meant"
