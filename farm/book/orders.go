package book

import (
	"cmp"
	"fmt"
	"slices"
	"strconv"
	"strings"

	"dewcount/core/crop"
	"dewcount/core/day"
)

// An Order is a market day, an event or a standing bucket.
type Order struct {
	ID, Kind       string // kind: market, event, standing
	DueOn          day.Day
	Repeats        string // "weekly" or empty
	Until          day.Day
	Customer, Note string
	Hour           *float64 // by which it is to be ready, 0 to 24
	Place          string   // to which it goes
	Importance     *int     // 1 is served first; nil as its kind has it
	CancelledOn    day.Day  // zero while it stands
	Palette        string   // the colours, such as white / blush, that lines may be of which name none and no variety; empty for any
}

// ReadOrder reads an order.
func ReadOrder(f *Fields) Order {
	o := Order{ID: f.Key("order", "the order's name"), Kind: f.Word("kind", "market", "event", "standing"), DueOn: f.Day("due_on"),
		Repeats: f.Word("repeats", "", "weekly"), Until: f.OptDay("until"), Customer: f.Text("customer"), Note: f.Note("note"),
		Hour: f.OptNumber("hour", 0, 23.99), Place: f.Text("place"), Importance: f.OptWhole("importance", 1, 9), CancelledOn: f.OptDay("cancelled_on"), Palette: f.Text("palette")}
	f.notBefore("until", o.Until, o.DueOn, "ends")
	return o
}

// Record returns the order as text.
func (o Order) Record() Record {
	return Record{Orders, [][]string{{o.ID, o.Kind, o.DueOn.String(), o.Repeats, o.Until.String(), o.Customer, o.Note, optDecimal(o.Hour), o.Place, optWhole(o.Importance), o.CancelledOn.String(), o.Palette}}}
}

// farOff is after how many days nobody has taken an order yet.
const farOff = 2 * 365

// OddDay tells what makes an order's day one that is hardly meant, seen from today; empty where nothing does.
func (o Order) OddDay(today day.Day) string {
	switch days := o.DueOn.Sub(today); {
	case o.DueOn.IsZero():
		return ""
	case days < 0 && o.Repeats == "":
		return "is past"
	case days > farOff:
		return fmt.Sprintf("is %d years off", days/365)
	case days < -farOff:
		return fmt.Sprintf("is %d years ago", -days/365)
	}
	return ""
}

// Between returns the days within first to last, both included, on which the order is due: none where it was cancelled.
func (o Order) Between(first, last day.Day) []day.Day {
	var due []day.Day
	if !o.CancelledOn.IsZero() {
		return nil
	}
	for d := o.DueOn; !d.After(last) && (o.Until.IsZero() || !d.After(o.Until)); d = d.Add(7) {
		if !d.Before(first) {
			due = append(due, d)
		}
		if o.Repeats == "" {
			break
		}
	}
	return due
}

// Roles are the parts that stems play in a bouquet.
var Roles = []string{"focal", "filler", "spike", "accent", "foliage"}

// An OrderLine is what an order wants of one thing; what is left empty may be anything.
type OrderLine struct {
	Order                       string
	Line                        int
	Recipe                      string
	Quantity                    *int
	Variety, Crop, Role, Colour string
	Stems                       *int
	Use                         string
	MinLengthCM                 *float64
	Priority                    *int
	Bunch                       *int     // stems that are tied together; nil for single ones
	Rung                        string   // on which they stand on the day; empty as their use has it
	Spares                      *int     // stems beyond what is wanted, so that a set can be chosen alike
	Price                       *float64 // of a bouquet, a bunch or a stem, in the farm's currency
	Substitutes                 string   // ids of crops, such as zinnia / cosmos, that will do as well, of the same colour and length
}

// ReadOrderLine reads a line of an order.
func ReadOrderLine(f *Fields) OrderLine {
	l := OrderLine{Order: f.Name("order", "the order"), Line: f.Whole("line", 1, 100_000), Recipe: f.Text("recipe"),
		Quantity: f.OptWhole("quantity", 0, mostStems), Variety: f.Text("variety"), Crop: f.Text("crop"),
		Role: f.Word("role", append([]string{""}, Roles...)...), Colour: f.Text("colour"),
		Stems: f.OptWhole("stems", 0, mostStems), Use: f.Text("use"), MinLengthCM: f.OptNumber("min_length_cm", 1, 300),
		Priority: f.OptWhole("priority", -1000, 1000), Bunch: f.OptWhole("bunch", 1, 200), Rung: f.Rung("rung"), Spares: f.OptWhole("spares", 0, mostStems),
		Price: f.OptNumber("price", 0, 100_000), Substitutes: f.Text("substitutes")}
	if _, err := crop.ParseUse(l.Use); l.Use != "" && err != nil {
		f.Fault("use", "%v", err)
	}
	if OrZero(l.Spares) > 0 && l.Variety == "" {
		f.Fault("spares", "a set that is alike is of one variety: name it, or leave the spare stems out")
	}
	return l
}

// Rung reads the id of a rung; empty for none.
func (f *Fields) Rung(name string) string {
	s := f.Raw(name)
	if s == "" {
		return ""
	}
	rung, err := crop.ParseRung(s)
	if err != nil {
		f.Fault(name, "%v", err)
	}
	return rung.String()
}

// Number returns how many a line wants as they are sold: bouquets of a recipe, bunches, or stems.
func (l OrderLine) Number() int {
	if l.Recipe != "" {
		return OrZero(l.Quantity)
	}
	return OrZero(l.Stems) / l.Each()
}

// WithNumber returns a line that wants another number, as they are sold.
func (l OrderLine) WithNumber(n int) OrderLine {
	if l.Recipe != "" {
		l.Quantity = &n
		return l
	}
	n *= l.Each()
	l.Stems = &n
	return l
}

// Each is what a day's number counts in one of the line's: the stems of a bunch, or 1.
func (l OrderLine) Each() int {
	if l.Bunch != nil && l.Recipe == "" {
		return *l.Bunch
	}
	return 1
}

// Record returns the line as text.
func (l OrderLine) Record() Record {
	return Record{OrderLines, [][]string{{l.Order, strconv.Itoa(l.Line), l.Recipe, optWhole(l.Quantity), l.Variety, l.Crop, l.Role,
		l.Colour, optWhole(l.Stems), l.Use, optDecimal(l.MinLengthCM), optWhole(l.Priority), optWhole(l.Bunch), l.Rung, optWhole(l.Spares), optDecimal(l.Price), l.Substitutes}}}
}

// Takes tells whether a variety is what a line asks for, its colour aside, and whether it would do only as a substitute.
func (l OrderLine) Takes(v Variety) (takes, substitute bool) {
	if (l.Variety == "" || v.Name == l.Variety) && (l.Crop == "" || v.Crop == l.Crop) && (l.Role == "" || v.Role == l.Role) {
		return true, false
	}
	does := slices.Contains(Substitutes(l.Substitutes), v.Crop)
	return does, does
}

// Takes is that of an OrderLine.
func (l RecipeLine) Takes(v Variety) (takes, substitute bool) {
	return OrderLine{Crop: l.Crop, Role: l.Role, Substitutes: l.Substitutes}.Takes(v)
}

// Called says what a line of an order wants as the farm calls it, its recipe aside: a variety, a crop or a role, with a colour.
func (b *Book) Called(l OrderLine) string {
	kind := cmp.Or(l.Crop, l.Role)
	if p := b.Crop(l.Crop); p != nil {
		kind = p.Name
	}
	kind = cmp.Or(l.Variety, kind, "anything")
	switch {
	case l.Colour == "":
		return kind
	case kind == "anything":
		return kind + " " + l.Colour
	}
	return l.Colour + " " + kind
}

// Called is that of an OrderLine.
func (l RecipeLine) Called(b *Book) string {
	return b.Called(OrderLine{Crop: l.Crop, Role: l.Role, Colour: l.Colour})
}

// NextLine returns the number of an order's next line; a withdrawn one keeps its number, so that it can come back.
func (b *Book) NextLine(order string) int {
	last := 0
	for _, l := range b.OrderLines {
		if l.Order == order {
			last = max(last, l.Line)
		}
	}
	for _, p := range b.History {
		if r, err := p.Record(); err == nil && r.Kind == OrderLines && r.Field("order") == order {
			if n, err := strconv.Atoi(r.Field("line")); err == nil {
				last = max(last, n)
			}
		}
	}
	return last + 1
}

// Substitutes returns the ids of crops that stand in a line's or a recipe's substitutes.
func Substitutes(written string) []string {
	var ids []string
	for id := range strings.SplitSeq(written, "/") {
		if id = strings.TrimSpace(id); id != "" {
			ids = append(ids, id)
		}
	}
	return ids
}

// An OrderDay is a day on which a line of an order wants another number than usual: 0 for none.
type OrderDay struct {
	Order  string
	Line   int
	On     day.Day
	Number int // stems, or bouquets of a recipe
}

// ReadOrderDay reads a day on which a line of an order wants another number.
func ReadOrderDay(f *Fields) OrderDay {
	return OrderDay{Order: f.Name("order", "the order"), Line: f.Whole("line", 1, 100_000), On: f.Day("on"), Number: f.Whole("number", 0, mostStems)}
}

// Record returns it as text.
func (d OrderDay) Record() Record {
	return Record{OrderDays, [][]string{{d.Order, strconv.Itoa(d.Line), d.On.String(), strconv.Itoa(d.Number)}}}
}

// LineOn returns a line of an order as it is on one of its days, of its order's palette where it leaves the colour open.
func (b *Book) LineOn(l OrderLine, on day.Day) OrderLine {
	if o, ok := b.Order(l.Order); ok && l.Variety == "" && l.Colour == "" {
		l.Colour = o.Palette
	}
	if d, ok := Find(b.OrderDays, func(d OrderDay) bool { return d.Order == l.Order && d.Line == l.Line && d.On == on }); ok {
		if l.Recipe != "" {
			l.Quantity = &d.Number
		} else {
			l.Stems = &d.Number
		}
	}
	return l
}

// A RecipeLine is one ingredient of a bouquet.
type RecipeLine struct {
	Recipe, Role, Crop, Colour string
	Stems                      int
	MinLengthCM                *float64
	Rung                       string
	Substitutes                string // as those of an OrderLine
}

// ReadRecipeLine reads a line of a recipe.
func ReadRecipeLine(f *Fields) RecipeLine {
	l := RecipeLine{Recipe: f.Key("recipe", "the recipe's name"), Role: f.Word("role", append([]string{""}, Roles...)...),
		Crop: f.Text("crop"), Colour: f.Text("colour"), Stems: f.Whole("stems", 1, 10_000),
		MinLengthCM: f.OptNumber("min_length_cm", 1, 300)}
	l.Rung, l.Substitutes = f.Rung("rung"), f.Text("substitutes")
	return l
}

// Record returns the line as text.
func (l RecipeLine) Record() Record {
	return Record{RecipeLines, [][]string{{l.Recipe, l.Role, l.Crop, l.Colour, strconv.Itoa(l.Stems), optDecimal(l.MinLengthCM), l.Rung, l.Substitutes}}}
}

// A School is a choice that the farm has made where growers disagree.
type School struct{ Crop, Question, School string }

// ReadSchool reads a school.
func ReadSchool(f *Fields) School {
	return School{f.Name("crop", "the crop"), f.Name("question", "the question"), f.Name("school", "the school")}
}

// Record returns the school as text.
func (s School) Record() Record {
	return Record{Schools, [][]string{{s.Crop, s.Question, s.School}}}
}

// PickRecord returns a pick day beside the weekly ones as text.
func PickRecord(d day.Day) Record { return Record{ExtraPicks, [][]string{{d.String()}}} }

// ReadPick reads a pick day beside the weekly ones.
func ReadPick(f *Fields) day.Day { return f.Day("date") }
