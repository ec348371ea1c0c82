package orders

import (
	"net/http"
	"net/url"
	"slices"
	"strconv"
	"strings"

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
			v.Dues = append(v.Dues, parts.NewDue(snap.Locale, d))
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
	New       []page.Field
	Fault     string
	Names     []string
	Dues      []orderDueView
	Plans     []page.LinkView // what can be sown for it, where it is due beyond the forecast
}

// planLinks lead an order that is due beyond the forecast into the planner, a line each.
func planLinks(snap *say.Snapshot, o book.Order) []page.LinkView {
	var links []page.LinkView
	for _, l := range snap.Book.OrderLines {
		v, named := snap.Book.Variety(l.Variety)
		cropID := l.Crop
		if named {
			cropID = v.Crop
		}
		if l.Order != o.ID || cropID == "" || l.Stems == nil {
			continue
		}
		links = append(links, page.LinkView{Name: "Sow for it: " + lineWords(snap, l), Href: "/season/date?" + url.Values{"asked": {"1"}, "crop": {cropID}, "stems": {strconv.Itoa(*l.Stems)},
			"on": {o.DueOn.String()}, "use": {market.UseOf(l, o).String()}}.Encode()})
	}
	return links
}

type orderLineView struct {
	Line, What, Stems, ID string
	Shown, Fault          string
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
		switch {
		case l.Recipe != "" && l.Quantity != nil:
			line.Stems = strconv.Itoa(*l.Quantity)
		case l.Stems != nil:
			line.Stems = strconv.Itoa(*l.Stems)
		}
		if from("line") == line.Line {
			line.Stems, line.Fault = from("stems"), strings.TrimSpace(faults[""]+" "+faults["stems"])
		}
		v.Lines = append(v.Lines, line)
	}
	slices.SortFunc(v.Lines, func(a, b orderLineView) int {
		return len(a.Line)*1000 - len(b.Line)*1000 + strings.Compare(a.Line, b.Line)
	})
	v.New = []page.Field{{Name: "what", Label: "Recipe, variety, crop, role or colour", List: "wants", Needed: true, Hint: "Such as Tall zinnia, filler, white filler, anything white."},
		{Name: "stems", Label: "Stems", Mode: "numeric", Needed: true, Hint: "Of a recipe: bouquets."}, {Name: "min_length_cm", Label: "At least so long in cm", Mode: "decimal"}}
	switch {
	case from("on") != "":
		v.Fault = faults["on"]
	case from("line") == "":
		v.New = page.Fill(c, v.New, from, faults)
		v.Fault = page.Rest(v.New, faults)
	}
	v.Names = wantNames(snap)
	for _, d := range market.Dues(snap.Snapshot) {
		if d.Order.ID == o.ID {
			v.Dues = append(v.Dues, orderDueView{parts.NewDue(snap.Locale, d).WithGifts(snap, d), d.On.String(), dayLines(snap, o, d.On, from, faults)})
		}
	}
	if o.DueOn.After(snap.View.To) {
		v.Plans = planLinks(snap, o)
	}
	return s.Show(c, code, "order", "/orders", o.ID, snap, v)
}

// lineWords says what a line wants.
func lineWords(snap *say.Snapshot, l book.OrderLine) string {
	words := market.What(snap.Snapshot, l)
	if l.Recipe != "" {
		words = "bouquets: " + l.Recipe
	}
	if l.MinLengthCM != nil {
		words += ", " + snap.Exact(say.Centimetre, *l.MinLengthCM) + " or longer"
	}
	return words
}

// wantNames are the varieties on record, the crops that they are of, and their roles and colours.
func wantNames(snap *say.Snapshot) []string {
	var names []string
	for _, r := range snap.Book.RecipeLines {
		names = append(names, r.Recipe)
	}
	for _, v := range snap.Book.Varieties {
		names = append(names, v.Name)
		if p := snap.Book.Crop(v.Crop); p != nil {
			names = append(names, p.Name)
		}
		for _, colour := range v.Colours() {
			names = append(names, "anything "+colour)
			if v.Role != "" {
				names = append(names, colour+" "+v.Role, v.Role)
			}
		}
	}
	slices.Sort(names)
	return slices.Compact(names)
}

// setLine adds a line to an order, or gives one that is there another number of stems.
func (s view) setLine(c *echo.Context, snap *say.Snapshot, o book.Order) error {
	from := page.Posted(c)
	line := book.OrderLine{Order: o.ID, Use: map[string]string{"market": "market", "event": "event", "standing": "florist"}[o.Kind]}
	f := book.NewFields(from).For(snap.Locale)
	did := "recorded"
	if n, err := strconv.Atoi(from("line")); err == nil {
		for _, l := range snap.Book.OrderLines {
			if l.Order == o.ID && l.Line == n {
				line, did = l, "corrected"
			}
		}
	} else {
		s.name(snap, f, &line, strings.TrimSpace(from("what")))
		for _, l := range snap.Book.OrderLines {
			if l.Order == o.ID {
				line.Line = max(line.Line, l.Line)
			}
		}
		for _, p := range snap.Book.History { // a withdrawn line keeps its number, so that it can come back
			if r, err := p.Record(); err == nil && r.Kind == book.OrderLines && r.Field("order") == o.ID {
				if n, err := strconv.Atoi(r.Field("line")); err == nil {
					line.Line = max(line.Line, n)
				}
			}
		}
		line.Line++
	}
	wanted := f.Whole("stems", 1, 100_000)
	if line.Recipe != "" {
		line.Quantity = &wanted
	} else {
		line.Stems = &wanted
	}
	if did == "recorded" {
		line.MinLengthCM = f.OptNumber("min_length_cm", 1, 300)
	}
	err := f.Faults()
	if err == nil {
		if did == "corrected" {
			err = s.Farm.CorrectShown(c.Request().Context(), page.By(c), from(page.ShownKey), line.Record())
		} else {
			err = s.Farm.Add(c.Request().Context(), page.By(c), line.Record())
		}
	}
	if faults, only := page.FaultsOf(c, err, from, page.Of, "stems"); only {
		return s.orderPage(c, http.StatusUnprocessableEntity, snap, o, from, faults)
	}
	if err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, page.AddressOf(did, line.Record(), "orders", o.ID))
}

// name gives a line the variety, the crop, or the colour and role of a name.
func (s view) name(snap *say.Snapshot, f *book.Fields, l *book.OrderLine, what string) {
	for _, r := range snap.Book.RecipeLines {
		if strings.EqualFold(r.Recipe, what) {
			l.Recipe = r.Recipe
			return
		}
	}
	named := market.Name(snap.Book, what)
	for _, n := range named {
		if strings.EqualFold(n.Name, what) || n.Line.Crop == what {
			named = []market.Named{n}
			break
		}
	}
	switch {
	case len(named) == 0:
		f.Fault("what", "%q is no variety, crop, role or colour here: choose one from the list", what)
	case len(named) > 1:
		var names []string
		for _, n := range named {
			names = append(names, n.Name)
		}
		f.Fault("what", "%q may be %s: say which", what, say.Or(names))
	default:
		l.Variety, l.Crop, l.Role, l.Colour = named[0].Line.Variety, named[0].Line.Crop, named[0].Line.Role, named[0].Line.Colour
	}
}

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
		fields = fields[1:]
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

// keepOrder keeps the order that a form sent: a new one, or in the place of the one with an id.
func (s view) keepOrder(c *echo.Context, snap *say.Snapshot, id string) error {
	from := page.Posted(c)
	f := book.NewFields(func(name string) string {
		if name == "order" && id != "" {
			return id
		}
		return from(name)
	})
	o := book.ReadOrder(f)
	return s.Keep(c, f.Faults(), o.Record(), id != "", func(faults map[string]string) error {
		return s.orderForm(c, http.StatusUnprocessableEntity, snap, id, from, faults)
	}, "orders", o.ID)
}
