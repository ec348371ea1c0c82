package orders

import (
	"fmt"
	"net/http"
	"slices"
	"strconv"
	"strings"

	"dewcount/core/crop"
	"dewcount/farm/book"
	"dewcount/farm/market"
	"dewcount/say"
	"dewcount/web/page"

	"github.com/labstack/echo/v5"
)

type orderLineView struct {
	Line, What, Stems, ID string
	Shown, Fault          string
}

// lineWords says what a line wants.
func lineWords(snap *say.Snapshot, l book.OrderLine) string {
	words := market.What(snap.Snapshot, l)
	if l.Recipe != "" {
		words = "bouquets: " + l.Recipe
	}
	if l.Bunch != nil {
		words += fmt.Sprintf(", bunches of %d", *l.Bunch)
	}
	words += insteadWords(snap, l.Substitutes)
	if l.MinLengthCM != nil {
		words += ", " + snap.Exact(say.Centimetre, *l.MinLengthCM) + " or longer"
	}
	if l.Rung != "" {
		words += ", " + l.Rung + " on the day"
	}
	if n := book.OrZero(l.Spares); n > 0 {
		words += fmt.Sprintf(", alike, with %d to spare", n)
	}
	if l.Price != nil {
		words += ", at " + snap.Money(*l.Price)
	}
	return words
}

// insteadWords says which crops stand in where something is short.
func insteadWords(snap *say.Snapshot, substitutes string) string {
	var names []string
	for _, id := range book.Substitutes(substitutes) {
		if p := snap.Book.Crop(id); p != nil {
			names = append(names, p.Name)
		}
	}
	if names == nil {
		return ""
	}
	return ", or where that is short " + say.Or(names)
}

const substitutesHint = "Of the same colour and length. Several with a stroke between: zinnia / cosmos."

// cropIDs puts the ids of crops in the place of their names, of several with strokes between them; what is none stays as it is.
func cropIDs(snap *say.Snapshot, names string) string {
	ids := book.Substitutes(names)
	for i, name := range ids {
		named := market.Name(snap.Book, name)
		if len(named) == 1 && named[0].Line.Crop != "" && named[0].Line.Colour == "" && named[0].Line.Role == "" {
			ids[i] = named[0].Line.Crop
		}
		for _, p := range snap.Book.Crops() {
			if strings.EqualFold(p.Name, name) || strings.EqualFold(p.ID, name) {
				ids[i] = p.ID
			}
		}
	}
	return strings.Join(ids, " / ")
}

// comesTo says what an order comes to on a usual day; nothing where a line of it has no price.
func comesTo(snap *say.Snapshot, o book.Order) string {
	sum, priced := 0.0, false
	for _, l := range snap.Book.OrderLines {
		switch {
		case l.Order != o.ID:
		case l.Price == nil:
			return ""
		default:
			sum, priced = sum+*l.Price*float64(l.Number()), true
		}
	}
	switch {
	case !priced:
		return ""
	case o.Repeats != "":
		return "Comes to " + snap.Money(sum) + " a day."
	}
	return "Comes to " + snap.Money(sum) + "."
}

// newLineFields are the fields of one more line: what is always asked, and what is seldom needed.
func newLineFields(snap *say.Snapshot) (always, more []page.Field) {
	always = []page.Field{{Name: "what", Label: "Recipe, variety, crop, role or colour", List: "wants", Needed: true, Hint: "Such as Tall zinnia, filler, white filler, anything white."},
		{Name: "stems", Label: "How many", Mode: "numeric", Needed: true, Hint: "Stems; of a recipe bouquets, of bunches bunches."},
		{Name: "bunch", Label: "In bunches of", Mode: "numeric", Hint: "Empty: single stems."}}
	rungs := []page.Option{{Value: "", Label: "as its use has it"}}
	for k := range crop.Over {
		rungs = append(rungs, page.Option{Value: k.String(), Label: k.String() + ": " + k.Words()})
	}
	more = []page.Field{{Name: "min_length_cm", Label: "At least so long in cm", Mode: "decimal"},
		page.Field{Name: "rung", Label: "How far open on the day", Kind: "select"}.Choose(rungs...),
		{Name: "substitutes", Label: "Crops that will do too, where it is short", List: "wants", Hint: substitutesHint},
		{Name: "spares", Label: "Stems to spare, of a set that is alike", Mode: "numeric", Hint: "Of one variety: cut beyond those wanted, so that they can be matched."},
		{Name: "price", Label: "Price of a bouquet, a bunch or a stem", Mode: "decimal"}}
	return always, more
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
	line := book.OrderLine{Order: o.ID, Use: usesOf[o.Kind].String()}
	f := book.NewFields(from).For(snap.Locale)
	did := "recorded"
	if n, err := strconv.Atoi(from("line")); err == nil {
		for _, l := range snap.Book.OrderLines {
			if l.Order == o.ID && l.Line == n {
				line, did = l, "corrected"
			}
		}
	} else {
		nameLine(snap, f, &line, strings.TrimSpace(from("what")))
		line.Line = snap.Book.NextLine(o.ID)
	}
	if did == "recorded" {
		line.MinLengthCM, line.Bunch, line.Rung, line.Spares, line.Price, line.Substitutes = f.OptNumber("min_length_cm", 1, 300), f.OptWhole("bunch", 1, 200), f.Rung("rung"),
			f.OptWhole("spares", 0, 100_000), f.OptNumber("price", 0, 100_000), cropIDs(snap, from("substitutes"))
		switch {
		case line.Recipe != "" && line.Bunch != nil:
			f.Fault("bunch", "a recipe is of bouquets: leave the bunches out")
		case line.Variety == "" && book.OrZero(line.Spares) > 0 && from("what") != "":
			f.Fault("spares", "a set that is alike is of one variety: name it above, or leave the spare stems out")
		}
	}
	line = line.WithNumber(f.Whole("stems", 1, 100_000))
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

// usesOf is what the stems of each kind of order are cut for.
var usesOf = map[string]crop.Use{"market": crop.Market, "event": crop.Event, "standing": crop.Florist}

// nameLine gives a line the recipe, the variety, the crop, or the colour and role of a name.
func nameLine(snap *say.Snapshot, f *book.Fields, l *book.OrderLine, what string) {
	for _, r := range snap.Book.RecipeLines {
		if strings.EqualFold(r.Recipe, what) {
			l.Recipe = r.Recipe
			return
		}
	}
	named := market.Name(snap.Book, what)
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
