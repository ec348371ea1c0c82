package orders

import (
	"fmt"
	"net/http"
	"net/url"
	"slices"
	"strconv"
	"strings"

	"dewcount/core/day"
	"dewcount/farm/book"
	"dewcount/farm/market"
	"dewcount/say"
	"dewcount/web/page"
	"dewcount/web/parts"

	"github.com/labstack/echo/v5"
)

// An ordersView shows what is promised, day by day, and how sure it is.
type ordersView struct {
	Find   page.FindView
	Dues   []parts.DueView
	Orders []orderLink
}

type orderLink struct{ ID, Words string }

func (s view) orders(c *echo.Context, snap *say.Snapshot) error {
	v := ordersView{Find: page.NewFind(c, "/orders", "order, customer, what it wants", nil)}
	found := make(map[string]bool)
	for _, o := range snap.Book.Orders {
		said := []string{o.ID, o.Customer, orderWords(o, snap.Locale)}
		for _, l := range snap.Book.OrderLines {
			if l.Order == o.ID {
				said = append(said, lineWords(snap, l))
			}
		}
		if found[o.ID] = v.Find.Takes("", said...); found[o.ID] {
			v.Orders = append(v.Orders, orderLink{o.ID, orderWords(o, snap.Locale)})
		}
	}
	for _, d := range market.Dues(snap.Snapshot) {
		if found[d.Order.ID] {
			due := parts.NewDue(snap.Locale, d)
			if v.Find.Typed == "" { // what is looked for may be a line
				due = due.InShort(d)
			}
			v.Dues = append(v.Dues, due)
		}
	}
	slices.SortFunc(v.Orders, func(a, b orderLink) int { return strings.Compare(a.ID, b.ID) })
	return s.Show(c, http.StatusOK, "orders", "/orders", "Orders", snap, v)
}

func orderWords(o book.Order, locale say.Locale) string {
	words := map[string]string{"market": "market", "event": "event", "standing": "standing bucket"}[o.Kind]
	if o.Place != "" {
		words += " at " + o.Place
	}
	if !o.CancelledOn.IsZero() {
		words = "cancelled " + words
	}
	if o.Palette != "" {
		words += " in " + o.Palette
	}
	if o.Repeats == "" {
		return words + " on " + locale.Date(o.DueOn)
	}
	words += " every " + o.DueOn.Weekday().String() + " from " + locale.Date(o.DueOn)
	if !o.Until.IsZero() {
		words += " to " + locale.Date(o.Until)
	}
	return words
}

// An orderView shows one order's wants, to be changed.
type orderView struct {
	ID, Words string
	Customer  string
	Cancelled string // when, empty while it stands
	Lines     []orderLineView
	New, More []page.Field // of one more line
	Comes     string       // what it comes to, where it has prices
	Fault     string
	Names     []string
	Dues      []orderDueView
	Plans     []page.LinkView // what can be sown for it, where it is due beyond the forecast
	Past      []string        // what went to it
	Notes     parts.NotesView
}

// planLinks lead an order into the planner, a line or an ingredient each; what would come too late is said apart.
func planLinks(snap *say.Snapshot, o book.Order, on day.Day) (links []page.LinkView, late []string) {
	for _, l := range market.ToSow(snap.Snapshot, o, on) {
		if l.TooLate {
			late = append(late, l.What)
			continue
		}
		links = append(links, page.LinkView{Name: fmt.Sprintf("Sow for it: %d %s", l.Stems, l.What), Href: "/season/date?" + url.Values{"asked": {"1"}, "crop": {l.Crop}, "variety": {l.Variety},
			"stems": {strconv.Itoa(l.Stems)}, "on": {on.String()}, "use": {l.Use}}.Encode()})
	}
	return links, late
}

// pastWords says what went to an order on its last days.
func pastWords(snap *say.Snapshot, o book.Order) []string {
	const days, named = 4, 6
	var words []string
	for _, p := range market.Past(snap.Snapshot, o, days) {
		var went []string
		all := 0
		for i, g := range p.Gone {
			if all += g.Stems; i < named {
				went = append(went, fmt.Sprintf("%d %s", g.Stems, g.Variety))
			}
		}
		switch {
		case went == nil:
			words = append(words, fmt.Sprintf("%s: nothing is written down; %s were wanted", snap.Date(p.On), say.Stems(p.Wanted)))
		case len(p.Gone) > named:
			words = append(words, fmt.Sprintf("%s: %s went, of %d wanted: %s and others", snap.Date(p.On), say.Stems(all), p.Wanted, strings.Join(went, ", ")))
		default:
			words = append(words, fmt.Sprintf("%s: %s went, of %d wanted: %s", snap.Date(p.On), say.Stems(all), p.Wanted, say.List(went)))
		}
	}
	if past := market.Past(snap.Snapshot, o, 1); len(past) > 0 { // what it teaches for the next time
		for _, b := range past[0].Back {
			words = append(words, nextWords(b))
		}
	}
	return words
}

// nextWords says what a variety that came back in part teaches for the next time.
func nextWords(b market.Came) string {
	words := fmt.Sprintf("%d of %d %s came back", b.Back, b.Sold+b.Back, b.Variety)
	if b.Why != "" {
		words += ", " + b.Why
	}
	switch {
	case b.Next() == 0:
		return words + ": leave it at home the next time"
	case b.OfTheStems():
		return words + fmt.Sprintf(": take %d again, and see that they are better", b.Next())
	}
	return words + fmt.Sprintf(": %d will do the next time", b.Next())
}

func (s view) order(c *echo.Context, snap *say.Snapshot, o book.Order) error {
	return s.orderPage(c, http.StatusOK, snap, o, func(string) string { return "" }, nil)
}

// orderPage shows an order with what was typed and what is wrong in a line.
func (s view) orderPage(c *echo.Context, code int, snap *say.Snapshot, o book.Order, from page.Typed, faults map[string]string) error {
	v := orderView{ID: o.ID, Words: say.Sentence(orderWords(o, snap.Locale)), Customer: o.Customer}
	if !o.CancelledOn.IsZero() {
		v.Cancelled = "Cancelled on " + snap.Date(o.CancelledOn) + ": nothing is kept for it."
	}
	for _, l := range snap.Book.OrderLines {
		if l.Order != o.ID {
			continue
		}
		line := orderLineView{Line: strconv.Itoa(l.Line), What: lineWords(snap, l), ID: l.Record().ID(), Shown: l.Record().Mark()}
		if l.Quantity != nil || l.Stems != nil {
			line.Stems = strconv.Itoa(l.Number())
		}
		if from("line") == line.Line {
			line.Stems, line.Fault = from("stems"), strings.TrimSpace(faults[""]+" "+faults["stems"])
		}
		v.Lines = append(v.Lines, line)
	}
	slices.SortFunc(v.Lines, func(a, b orderLineView) int {
		return len(a.Line)*1000 - len(b.Line)*1000 + strings.Compare(a.Line, b.Line)
	})
	v.New, v.More = newLineFields(snap)
	v.Comes = comesTo(snap, o)
	switch {
	case from("on") != "":
		v.Fault = faults["on"]
	case from("line") == "":
		v.New, v.More = page.Fill(c, v.New, from, faults), page.Fill(c, v.More, from, faults)
		v.Fault = page.Rest(slices.Concat(v.New, v.More), faults)
	}
	v.Names = wantNames(snap)
	for _, d := range market.Dues(snap.Snapshot) {
		if d.Order.ID == o.ID {
			v.Dues = append(v.Dues, orderDueView{parts.NewDue(snap.Locale, d).WithGifts(snap, d), d.On.String(), keepWords(snap, d), dayLines(snap, o, d.On, from, faults)})
		}
	}
	if o.DueOn.After(snap.View.To) {
		v.Plans, _ = planLinks(snap, o, o.DueOn)
	}
	v.Past, v.Notes = pastWords(snap, o), parts.NewNotes(snap, book.AboutOrder, o.ID)
	return s.Show(c, code, "order", "/orders", o.ID, snap, v)
}
