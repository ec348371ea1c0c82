package store

import (
	"crypto/rand"
	"fmt"
	"net/http"
	"net/url"
	"slices"
	"strings"

	"dewcount/core/day"
	"dewcount/farm/book"
	"dewcount/farm/market"
	ledger "dewcount/farm/store"
	"dewcount/say"
	"dewcount/web/page"

	"github.com/labstack/echo/v5"
)

// A worksheetView answers: what is to be made up next, of what, and how long does it take?
type worksheetView struct {
	Heading, Answer, None string
	Tasks                 []taskView
	Cautions              []string
}

type taskView struct {
	Words, Lacks string
	Each         []string // of one bouquet
	Takes        []string // stems and where they stand
}

// worksheet shows the bouquets that the next day with any wants, and of which stems they are made.
func (s view) worksheet(c *echo.Context, snap *say.Snapshot) error {
	place, err := snap.Book.Place()
	if err != nil {
		return err
	}
	v := worksheetView{Heading: "To make up", None: "No order of the next weeks wants bouquets of a recipe."}
	l := ledger.Of(snap.Book, s.hour(snap))
	on, wanted := toMake(snap)
	if len(wanted) == 0 {
		return s.Show(c, http.StatusOK, "worksheet", "/store", v.Heading, snap, v)
	}
	sheet := l.Worksheet(snap.Book, wanted, place.BouquetMinutes)
	v.None, v.Heading = "", "To make up for "+snap.Date(on)
	bouquets, whole := 0, 0
	for _, t := range sheet.Tasks {
		bouquets, whole = bouquets+t.Wanted, whole+t.Whole
		v.Tasks = append(v.Tasks, newTask(snap, &l, t))
	}
	v.Answer = fmt.Sprintf("%s are wanted and all can be made of what stands in the store: %s of work for one.", say.Number(bouquets, "bouquet"), say.SpokenHours(sheet.Minutes))
	if whole < bouquets {
		v.Answer = fmt.Sprintf("Of %s wanted %d can be made of what stands in the store now: %s of work for one.", say.Number(bouquets, "bouquet"), whole, say.SpokenHours(sheet.Minutes))
	}
	v.Cautions = []string{"Knives and shears cut: close them when you lay them down. Sap can irritate skin: wash your hands."}
	return s.Show(c, http.StatusOK, "worksheet", "/store", v.Heading, snap, v)
}

// toMake returns the next day on which orders want bouquets that are not made up yet, and which.
func toMake(snap *say.Snapshot) (day.Day, []ledger.Wanting) {
	var on day.Day
	var wanted []ledger.Wanting
	for _, d := range market.Dues(snap.Snapshot) {
		if wanted != nil && d.On != on {
			break
		}
		for _, line := range snap.Book.OrderLines {
			if line.Order != d.Order.ID || line.Recipe == "" {
				continue
			}
			if n := book.OrZero(line.Quantity) - snap.Book.MadeUp(line.Order, line.Recipe, d.On, snap.View.Upto); n > 0 {
				on = d.On
				wanted = append(wanted, ledger.Wanting{Order: line.Order, Recipe: line.Recipe, Bouquets: n})
			}
		}
	}
	return on, wanted
}

func newTask(snap *say.Snapshot, l *ledger.Ledger, t ledger.Task) taskView {
	v := taskView{Words: fmt.Sprintf("%d %s for %s", t.Whole, t.Recipe, t.Order)}
	if t.Whole < t.Wanted {
		v.Words = fmt.Sprintf("%d of %d %s for %s", t.Whole, t.Wanted, t.Recipe, t.Order)
	}
	var lacks []string
	for _, line := range t.Lacks {
		lacks = append(lacks, line.Called(snap.Book))
	}
	if lacks != nil {
		v.Lacks = say.Sentence(say.List(lacks) + runs(len(lacks)))
	}
	for _, line := range snap.Book.RecipeLines {
		if line.Recipe == t.Recipe {
			v.Each = append(v.Each, fmt.Sprintf("%d %s", line.Stems, line.Called(snap.Book)))
		}
	}
	v.Takes = takeWords(l, t.Takes)
	return v
}

// takeWords says which stems are taken, and where they stand; those of one variety and place together.
func takeWords(l *ledger.Ledger, takes []ledger.Taking) []string {
	type from struct{ variety, place string }
	stems := make(map[from]int)
	var order []from
	for _, t := range takes {
		f := from{l.Heaps[t.Heap].Variety, l.Heaps[t.Heap].Place}
		if stems[f] == 0 {
			order = append(order, f)
		}
		stems[f] += t.Stems
	}
	var words []string
	for _, f := range order {
		where := "from where it rests"
		if f.place != "" {
			where = "from " + f.place
		}
		words = append(words, fmt.Sprintf("%d %s %s", stems[f], f.variety, where))
	}
	return words
}

// A bunchView is a variety and the straight bunches that there are of it.
type bunchView struct {
	ID, Variety, Colour, Words string
	Bunches                    int
}

func bunches(l *ledger.Ledger, size int) []bunchView {
	var views []bunchView
	for i, b := range l.Bunches(size) {
		if b.Bunches == 0 {
			continue
		}
		v := bunchView{ID: fmt.Sprintf("bunch-%d", i), Variety: b.Variety, Colour: b.Colour, Bunches: b.Bunches, Words: fmt.Sprintf("%s of %d", say.Number(b.Bunches, "bunch"), size)}
		if b.Over > 0 {
			v.Words += fmt.Sprintf(", %d left over", b.Over)
		}
		views = append(views, v)
	}
	return views
}

// bunch takes the stems of so many straight bunches out of the store, what goes first first.
func (s view) bunch(c *echo.Context, snap *say.Snapshot) error {
	place, err := snap.Book.Place()
	if err != nil {
		return err
	}
	f := book.NewFields(page.Posted(c)).For(snap.Locale)
	variety, colour, order, n := f.Name("variety", "the variety"), f.Text("colour"), f.Text("order"), f.Whole("bunches", 1, 5000)
	now := s.hour(snap)
	l := ledger.Of(snap.Book, now).For(order)
	all := l.Bunches(place.BunchStems)
	at := slices.IndexFunc(all, func(b ledger.Bunching) bool { return b.Variety == variety && b.Colour == colour })
	var takes []ledger.Taking
	if f.Faults() == nil {
		enough, there := false, 0
		if at >= 0 {
			takes, enough = all[at].Takes(&l, n, place.BunchStems)
			there = all[at].Bunches
		}
		if !enough {
			f.Fault("bunches", "there are stems for %s of %s: write that many or fewer", say.Number(there, "bunch"), variety)
		}
	}
	if by, only := page.FaultsBy(f.Faults()); only {
		v := newStore(snap, now)
		v.Fault, v.FaultOf = page.Rest(nil, by), fmt.Sprintf("bunch-%d", at)
		return s.Show(c, http.StatusUnprocessableEntity, "store", "/store", "Store", snap, v)
	}
	return s.takeOut(c, &l, takes, now, order, fmt.Sprintf("%s of %d", say.Number(n, "bunch"), place.BunchStems))
}

// takeOut records stems as made up, and leads back to the store.
func (s view) takeOut(c *echo.Context, l *ledger.Ledger, takes []ledger.Taking, now day.Moment, order, note string) error {
	var moves []book.Record
	var ids []string
	for _, t := range takes {
		h := l.Heaps[t.Heap]
		m := book.Move{ID: newID(), Lot: h.Lot, At: now, What: book.MadeUp, Stems: t.Stems, From: h.Place, Order: order, Note: note}
		moves, ids = append(moves, m.Record()), append(ids, m.ID)
	}
	if err := s.Farm.Add(c.Request().Context(), page.By(c), moves...); err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, "/store?done="+url.QueryEscape("recorded:"+book.Moves.Name+":"+joinIDs(ids)))
}

// newID returns an id that no other record has.
func newID() string { return strings.ToLower(rand.Text()) }

// joinIDs writes the ids of records that were made together, to be undone together.
func joinIDs(ids []string) string { return strings.Join(ids, "\t") }
