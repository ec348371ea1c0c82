package store

import (
	"net/http"
	"net/url"

	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/farm/book"
	"dewcount/say"
	"dewcount/web/page"

	"github.com/labstack/echo/v5"
)

// A storeForm is how a kind of record of the store is made on a page.
type storeForm struct {
	kind          *book.Kind
	heading, save string
	lead          string
	action        string
	fields        func(*say.Snapshot) []page.Field
	read          func(*book.Fields) book.Record
}

func (s view) show(c *echo.Context, code int, snap *say.Snapshot, f storeForm, from page.Typed, faults map[string]string) error {
	v := page.FormView{Heading: f.heading, Action: f.action, Save: f.save, Cancel: "/store", Lead: f.lead}
	for _, p := range snap.Book.Varieties {
		v.Varieties = append(v.Varieties, p.Name)
	}
	v.Fields = page.Fill(c, f.fields(snap), from, faults)
	v.Fault = page.Rest(v.Fields, faults)
	return s.Show(c, code, "form", "/store", f.heading, snap, v)
}

func (s view) keep(c *echo.Context, snap *say.Snapshot, f storeForm, key string, stands bool) error {
	from := page.Posted(c)
	fields := book.NewFields(func(name string) string {
		if name == f.kind.Key[0] && key != "" {
			return key
		}
		return from(name)
	}).For(snap.Locale)
	r := f.read(fields)
	for _, hour := range []string{"at", "bought_at"} {
		if m, err := day.ParseMoment(fields.Raw(hour)); err == nil && m.Day().After(snap.View.Today) {
			fields.Fault(hour, "%s has not come yet: today is %s", snap.Date(m.Day()), snap.Date(snap.View.Today))
		}
	}
	return s.Keep(c, fields.Faults(), r, stands, func(faults map[string]string) error {
		return s.show(c, http.StatusUnprocessableEntity, snap, f, from, faults)
	}, "store")
}

// usual is a form's values before anybody has typed: what the address says, and the hour.
func (s view) usual(c *echo.Context, snap *say.Snapshot, hour string) page.Typed {
	return func(name string) string {
		if name == hour {
			return s.hour(snap).String()
		}
		return c.QueryParam(name)
	}
}

func places(snap *say.Snapshot, none string) []page.Option {
	options := []page.Option{{Value: "", Label: none}}
	for _, p := range snap.Book.StorePlaces {
		options = append(options, page.Option{Value: p.ID, Label: p.ID})
	}
	return options
}

// fates are what can become of stems.
var fates = []page.Option{{Value: book.ToPlace, Label: "brought to another place"}, {Value: book.Sold, Label: "sold"}, {Value: book.MadeUp, Label: "made up into bouquets or bunches"},
	{Value: book.Given, Label: "given away"}, {Value: book.Composted, Label: "composted"}, {Value: book.Returned, Label: "brought back unsold"}, {Value: book.Tinted, Label: "tinted"}, {Value: book.Kept, Label: "kept for an order"},
	{Value: book.Unsold, Label: "taken along and not sold"}}

func moveForm(snap *say.Snapshot, lot string) storeForm {
	f := storeForm{kind: book.Moves, heading: "What became of them", save: "Record it", action: "/store/moves?lot=" + url.QueryEscape(lot), read: func(f *book.Fields) book.Record { return book.ReadMove(f).Record() }}
	if c, ok := snap.Book.Cut(lot); ok {
		p, _ := snap.Book.Planting(c.Planting)
		f.heading = p.Variety + " of " + snap.Date(c.CutAt.Day()) + ": what became of them"
	}
	f.fields = func(snap *say.Snapshot) []page.Field {
		orders := []page.Option{{Value: "", Label: "nobody named"}}
		for _, o := range snap.Book.Orders {
			orders = append(orders, page.Option{Value: o.ID, Label: o.ID})
		}
		return []page.Field{
			page.Field{Name: "what", Label: "What", Kind: "select"}.Choose(fates...),
			{Name: "stems", Label: "Stems", Mode: "numeric", Needed: true},
			page.Field{Name: "place", Label: "To the place", Kind: "select"}.Choose(places(snap, "none")...),
			page.Field{Name: "order", Label: "For", Kind: "select"}.Choose(orders...),
			{Name: "colour", Label: "Colour, if tinted"},
			{Name: "at", Label: "When", Kind: "datetime-local", Needed: true},
			page.Field{Name: "from", Label: "They stood in", Kind: "select"}.Choose(places(snap, "not said")...),
			{Name: "note", Label: "Note"},
		}
	}
	return f
}

func (s view) newMove(c *echo.Context, snap *say.Snapshot) error {
	lot := c.QueryParam("lot")
	if _, _, ok := snap.Book.LotOf(lot); !ok {
		return book.ErrNoSuchRecord
	}
	return s.show(c, http.StatusOK, snap, moveForm(snap, lot), s.usual(c, snap, "at"), nil)
}

func (s view) keepMove(c *echo.Context, snap *say.Snapshot) error {
	return s.keep(c, snap, moveForm(snap, c.QueryParam("lot")), "", false)
}

var readingForm = storeForm{kind: book.Temperatures, heading: "A temperature", save: "Record it", action: "/store/temperatures", lead: "What the thermometer of a place shows. It is believed for half a day, or until the next.",
	fields: func(snap *say.Snapshot) []page.Field {
		return []page.Field{page.Field{Name: "place", Label: "Place", Kind: "select"}.Choose(places(snap, "choose")...), {Name: "celsius", Label: "°C", Mode: "decimal", Needed: true},
			{Name: "at", Label: "When", Kind: "datetime-local", Needed: true}}
	}, read: func(f *book.Fields) book.Record { return book.ReadReading(f).Record() }}

// newReading asks what a thermometer shows; where the farm has one connected, its answer stands there already.
func (s view) newReading(c *echo.Context, snap *say.Snapshot) error {
	form, usual := readingForm, s.usual(c, snap, "at")
	from := usual
	if t := s.Box.Thermometer; t != nil {
		celsius, _, err := t.Celsius(c.Request().Context())
		if err != nil {
			form.lead = say.Sentence(err.Error()) + " " + form.lead
		} else {
			form.lead = "The thermometer that is connected shows " + snap.Tenth(celsius) + " now. " + form.lead
			from = func(name string) string {
				if name == "celsius" {
					return snap.Write(name, celsius)
				}
				return usual(name)
			}
		}
	}
	return s.show(c, http.StatusOK, snap, form, from, nil)
}

func (s view) keepReading(c *echo.Context, snap *say.Snapshot) error {
	return s.keep(c, snap, readingForm, "", false)
}

var lotForm = storeForm{kind: book.Lots, heading: "Stems bought", save: "Add them to the store", action: "/store/lots", lead: "Stems that did not grow here. The variety tells what they are: add it to the varieties of its crop first.",
	fields: func(snap *say.Snapshot) []page.Field {
		var varieties, rungs []page.Option
		for _, v := range snap.Book.Varieties {
			varieties = append(varieties, page.Option{Value: v.Name, Label: v.Name})
		}
		for k := range crop.Rung(crop.Over) {
			rungs = append(rungs, page.Option{Value: k.String(), Label: k.String() + ": " + k.Words()})
		}
		return []page.Field{page.Field{Name: "variety", Label: "Variety", Kind: "select"}.Choose(varieties...), {Name: "stems", Label: "Stems", Mode: "numeric", Needed: true},
			page.Field{Name: "rung", Label: "How far open", Kind: "select"}.Choose(rungs...), {Name: "bought_at", Label: "When", Kind: "datetime-local", Needed: true}, {Name: "note", Label: "Note"}}
	}, read: func(f *book.Fields) book.Record { return book.ReadBought(f).Record() }}

func (s view) newLot(c *echo.Context, snap *say.Snapshot) error {
	return s.show(c, http.StatusOK, snap, lotForm, s.usual(c, snap, "bought_at"), nil)
}

func (s view) keepLot(c *echo.Context, snap *say.Snapshot) error {
	return s.keep(c, snap, lotForm, "", false)
}

func placeForm(id string) storeForm {
	f := storeForm{kind: book.Places, heading: "Add a place", save: "Add the place", action: "/store/places", lead: "Where cut stems stand: from the day below on every stem that is cut is accounted for.", read: func(f *book.Fields) book.Record { return book.ReadStorePlace(f).Record() }}
	if id != "" {
		f.heading, f.save, f.action = "Correct "+id, "Keep the correction", "/store/places/"+url.PathEscape(id)
	}
	f.fields = func(*say.Snapshot) []page.Field {
		fields := []page.Field{
			page.Field{Name: "kind", Label: "What it is", Kind: "select"}.Choose(page.Option{Value: "fridge", Label: "a fridge"}, page.Option{Value: "room", Label: "a cool room"}, page.Option{Value: "shade", Label: "open shade"},
				page.Option{Value: book.Loft, Label: "a loft in which stems dry"}, page.Option{Value: "table", Label: "a table in a room"}),
			{Name: "celsius", Label: "How warm in °C", Mode: "decimal", Needed: true, Hint: "That it is set to, or usually is."},
			{Name: "buckets", Label: "Buckets that it holds", Mode: "numeric"},
			{Name: "since", Label: "Stems accounted for since", Kind: "date", Needed: true},
		}
		if id == "" {
			return append([]page.Field{{Name: "place", Label: "Name", Needed: true, Hint: "Such as cool room."}}, fields...)
		}
		return fields
	}
	return f
}

func (s view) newPlace(c *echo.Context, snap *say.Snapshot) error {
	return s.show(c, http.StatusOK, snap, placeForm(""), func(name string) string {
		if name == "since" {
			return snap.View.Today.String()
		}
		return ""
	}, nil)
}

func (s view) editPlace(c *echo.Context, snap *say.Snapshot) error {
	p, ok := snap.Book.StorePlace(c.Param("place"))
	if !ok {
		return book.ErrNoSuchRecord
	}
	page.Shows(c, p.Record())
	return s.show(c, http.StatusOK, snap, placeForm(p.ID), page.Of(p.Record()), nil)
}

func (s view) keepPlace(c *echo.Context, snap *say.Snapshot) error {
	id := c.Param("place")
	return s.keep(c, snap, placeForm(id), id, id != "")
}
