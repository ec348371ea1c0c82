package orders

import (
	"fmt"
	"net/http"
	"net/url"
	"strconv"
	"strings"

	"dewcount/farm/book"
	"dewcount/farm/market"
	"dewcount/say"
	"dewcount/web/draw"
	"dewcount/web/page"

	"github.com/labstack/echo/v5"
)

// An askView answers somebody on the telephone: can I have so many of these on that day?
type askView struct {
	Q       string
	Fault   string
	Choices []page.LinkView // where the words leave open what is meant
	Asked   string
	Verdict string
	IsShort bool
	Spread  *draw.SpreadView
	From    []string
	Others  []string
	Order   *askOrder
	What    string // as it would be kept
	Stems   string
	On      string
	Waiting []waitingView
}

// A waitingView is somebody who was not promised anything yet.
type waitingView struct {
	ID, Mark, Words, When string
	Ring                  bool // there is enough now: ring them up
}

// waiting is the list of those who asked and wait, with when there is enough beyond all promises.
func waiting(snap *say.Snapshot) []waitingView {
	var views []waitingView
	var free []market.Free
	for _, q := range snap.Book.Inquiries {
		if !q.DoneOn.IsZero() || !q.DueOn.IsZero() && q.DueOn.Before(snap.View.Today) {
			continue
		}
		v := waitingView{ID: q.ID, Mark: q.Record().Mark(), Words: fmt.Sprintf("%s: %d %s", q.Customer, q.Stems, q.What), When: "whenever there is some"}
		if !q.DueOn.IsZero() {
			v.When = "for " + snap.Date(q.DueOn)
		}
		if free == nil {
			free = market.FreeStems(snap.Snapshot, snap.View.To)
		}
		if pick, ok := market.FirstFree(snap.Snapshot, free, q.What, q.Stems); ok {
			v.Ring = q.DueOn.IsZero() || pick.Before(q.DueOn)
			v.When += fmt.Sprintf("; so many are free from %s on", snap.Date(pick))
		} else {
			v.When += "; not sure within five weeks"
		}
		views = append(views, v)
	}
	return views
}

// keepInquiry writes down who asked for what.
func (s view) keepInquiry(c *echo.Context, snap *say.Snapshot) error {
	from := page.Posted(c)
	f := book.NewFields(func(name string) string {
		if name == "asked_on" {
			return snap.View.Today.String()
		}
		return from(name)
	}).For(snap.Locale)
	q := book.ReadInquiry(f)
	err := f.Faults()
	if err == nil {
		err = s.Farm.Add(c.Request().Context(), page.By(c), q.Record())
	}
	if by, only := page.FaultsBy(err); only {
		v := askView{Q: c.FormValue("q"), Fault: page.Rest(nil, by), Waiting: waiting(snap)}
		return s.Show(c, http.StatusUnprocessableEntity, "ask", "/orders", "Can it be promised?", snap, v)
	}
	if err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, page.AddressOf("recorded", q.Record(), "ask"))
}

// endInquiry notes that somebody was rung up.
func (s view) endInquiry(c *echo.Context, snap *say.Snapshot) error {
	q, ok := book.Find(snap.Book.Inquiries, func(q book.Inquiry) bool { return q.ID == c.FormValue("id") })
	if !ok {
		return book.ErrNoSuchRecord
	}
	q.DoneOn = snap.View.Today
	if err := s.Farm.CorrectShown(c.Request().Context(), page.By(c), c.FormValue(page.ShownKey), q.Record()); err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, "/ask")
}

// askOrder is the order that would be made of it.
type askOrder struct{ Variety, Crop, Role, Colour, Stems, On string }

// ask answers one line that was typed.
func (s view) ask(c *echo.Context, snap *say.Snapshot) error {
	v := askView{Q: strings.TrimSpace(c.QueryParam("q"))}
	if v.Q != "" {
		v.answer(snap, c.QueryParam("crop"))
	}
	v.Waiting = waiting(snap)
	return s.Show(c, http.StatusOK, "ask", "/orders", "Can it be promised?", snap, v)
}

func (v *askView) answer(snap *say.Snapshot, cropID string) {
	on, rest := market.DayIn(v.Q, snap.View.Today)
	stems, rest := market.NumberIn(rest)
	named := market.Name(snap.Book, rest)
	for _, n := range named {
		if cropID != "" && n.Line.Crop == cropID {
			named = []market.Named{n}
			break
		}
	}
	switch {
	case len(named) == 0:
		v.Fault = fmt.Sprintf("“%s” names nothing that the farm grows: write such as 40 white snapdragon 18 July.", strings.TrimSpace(rest))
	case stems < 1:
		v.Fault = "How many? Write such as 40 white snapdragon 18 July."
	case on.IsZero():
		v.Fault = "For which day? Write such as 40 white snapdragon 18 July, or Saturday."
		if len(named) == 1 {
			v.What, v.Stems = named[0].Name, strconv.Itoa(stems)
		}
	case on.Before(snap.View.From):
		v.Fault = snap.Date(on) + " is past."
	case on.After(snap.View.To):
		v.Fault = fmt.Sprintf("%s lies beyond the forecast, which reaches to %s. Plan it: sow for that date.", snap.Date(on), snap.Date(snap.View.To))
	case len(named) > 1:
		v.Fault = "Which of them?"
		for _, n := range named {
			v.Choices = append(v.Choices, page.LinkView{Name: n.Name, Href: "/ask?" + url.Values{"q": {v.Q}, "crop": {n.Line.Crop}}.Encode()})
		}
	}
	if v.Fault != "" {
		return
	}
	a := market.Ask{Line: named[0].Line, Stems: stems, On: on, Kind: "event"}
	answer := a.Answer(snap.Snapshot, on)
	w := answer.Want
	v.Asked = fmt.Sprintf("%d %s on %s", stems, named[0].Name, snap.Date(on))
	v.From = say.Gifts(snap.Locale, snap.Snapshot, w.From)
	switch cover := w.Cover(); {
	case cover == market.Covered:
		v.Verdict = "Yes: " + say.Tenths(w.Chance) + ", and nobody else loses any."
	case w.Filled.Sure() > 0:
		v.Verdict = fmt.Sprintf("%d are sure; all %d %s.", w.Filled.Sure(), stems, say.Tenths(w.Chance))
		v.IsShort = true
	default:
		v.Verdict, v.IsShort = "No: none are sure on that day.", true
	}
	if w.Known {
		spread := draw.NewSpreadView(w.Filled, float64(stems), stems)
		v.Spread = &spread
	}
	if v.IsShort {
		const others = 3
		for _, o := range a.Others(snap.Snapshot, others) {
			v.Others = append(v.Others, fmt.Sprintf("%s, %s", snap.Date(o.On), say.Tenths(o.Want.Chance)))
		}
	}
	v.What, v.Stems, v.On = named[0].Name, strconv.Itoa(stems), on.String()
	l := named[0].Line
	v.Order = &askOrder{l.Variety, l.Crop, l.Role, l.Colour, strconv.Itoa(stems), on.String()}
}

// takeAsk writes down an order of what was asked for.
func (s view) takeAsk(c *echo.Context, snap *say.Snapshot) error {
	f := book.NewFields(page.Posted(c)).For(snap.Locale)
	stems := f.Whole("stems", 1, 100_000)
	o := book.Order{ID: f.Key("order", "the order's name"), Kind: "event", DueOn: f.Day("due_on")}
	line := book.OrderLine{Order: o.ID, Line: 1, Variety: f.Text("variety"), Crop: f.Text("crop"), Role: f.Text("role"), Colour: f.Text("colour"), Stems: &stems, Use: "event"}
	err := f.Faults()
	if err == nil {
		err = s.Farm.Add(c.Request().Context(), page.By(c), o.Record(), line.Record())
	}
	if by, only := page.FaultsBy(err); only {
		v := askView{Q: c.FormValue("q"), Fault: page.Rest(nil, by)}
		return s.Show(c, http.StatusUnprocessableEntity, "ask", "/orders", "Can it be promised?", snap, v)
	}
	if err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, page.AddressOf("recorded", o.Record(), "orders", o.ID))
}
