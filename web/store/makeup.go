package store

import (
	"fmt"
	"net/http"
	"slices"

	"dewcount/farm/book"
	ledger "dewcount/farm/store"
	"dewcount/say"
	"dewcount/web/page"

	"github.com/labstack/echo/v5"
)

// A makingView is a recipe, how many whole bouquets of it there are stems for, and what keeps it from more.
type makingView struct {
	ID, Recipe, Words string
	Whole             int
	Takes             []string // of which stems the whole ones are made
}

// makings are the farm's recipes with what stands in the store.
func makings(snap *say.Snapshot, l *ledger.Ledger) []makingView {
	var views []makingView
	for i, name := range recipes(snap.Book) {
		m := l.MakeUp(snap.Book, name)
		v := makingView{ID: fmt.Sprintf("recipe-%d", i), Recipe: name, Whole: m.Whole}
		var out, left []string
		for _, line := range m.RunsOut {
			out = append(out, line.Called(snap.Book))
		}
		lines := 0
		for _, r := range snap.Book.RecipeLines {
			if r.Recipe == name {
				if n := m.Left[lines]; n > 0 {
					left = append(left, fmt.Sprintf("%d %s", n, r.Called(snap.Book)))
				}
				lines++
			}
		}
		v.Words = say.Sentence(say.List(out) + runs(len(out)))
		if len(left) > 0 {
			v.Words += " Left over: " + say.List(left) + "."
		}
		stems := make(map[string]int)
		var varieties []string
		for _, t := range m.Takes {
			variety := l.Heaps[t.Heap].Variety
			if stems[variety] == 0 {
				varieties = append(varieties, variety)
			}
			stems[variety] += t.Stems
		}
		for _, variety := range varieties {
			v.Takes = append(v.Takes, fmt.Sprintf("%d %s", stems[variety], variety))
		}
		views = append(views, v)
	}
	return views
}

func runs(n int) string {
	if n == 1 {
		return " runs out"
	}
	return " run out"
}

// recipes are the names of the farm's recipes in the order in which they were written down.
func recipes(b *book.Book) []string {
	var names []string
	for _, r := range b.RecipeLines {
		if !slices.Contains(names, r.Recipe) {
			names = append(names, r.Recipe)
		}
	}
	return names
}

// makeUp takes the stems of so many bouquets out of the store, what goes first first.
func (s view) makeUp(c *echo.Context, snap *say.Snapshot) error {
	f := book.NewFields(page.Posted(c)).For(snap.Locale)
	recipe, order, n := f.Name("recipe", "the recipe"), f.Text("order"), f.Whole("bouquets", 1, 5000)
	now := s.hour(snap)
	l := ledger.Of(snap.Book, now).For(order)
	takes, enough := l.Takes(snap.Book, recipe, n)
	if f.Faults() == nil && !enough {
		f.Fault("bouquets", "there are stems for %d of %s: write that many or fewer", l.MakeUp(snap.Book, recipe).Whole, recipe)
	}
	if by, only := page.FaultsBy(f.Faults()); only {
		v := newStore(snap, now)
		for i := range v.Makings {
			if v.Makings[i].Recipe == recipe {
				v.Fault, v.FaultOf = page.Rest(nil, by), v.Makings[i].ID
			}
		}
		return s.Show(c, http.StatusUnprocessableEntity, "store", "/store", "Store", snap, v)
	}
	return s.takeOut(c, &l, takes, now, order, book.MadeUpNote(n, recipe))
}
