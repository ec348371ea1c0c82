package seeds

import (
	"fmt"
	"net/http"
	"slices"
	"strconv"

	"dewcount/core/crop"
	"dewcount/farm/book"
	"dewcount/farm/plans"
	"dewcount/say"
	"dewcount/web/page"

	"github.com/labstack/echo/v5"
)

// partWords are what the pieces of stock are called, one and several.
var partWords = map[crop.Method][2]string{crop.Tuber: {"tuber", "tubers"}, crop.Division: {"division", "divisions"}, crop.Cutting: {"stock plant", "stock plants"},
	crop.Corm: {"corm", "corms"}, crop.Bulb: {"bulb", "bulbs"}}

// parts are what can be counted, in the order in which the form offers it.
var parts = []crop.Method{crop.Tuber, crop.Division, crop.Cutting, crop.Corm, crop.Bulb}

func pieces(part crop.Method, n int) string {
	words := partWords[part]
	if n == 1 {
		return "1 " + words[0]
	}
	return strconv.Itoa(n) + " " + words[1]
}

// A stockView is what was counted of a variety, the latest first.
type stockView struct {
	Variety, Now string
	Before       []string
}

// stockViews returns what was counted, by variety and part.
func stockViews(snap *say.Snapshot) []stockView {
	var all []stockView
	for _, v := range snap.Book.Varieties {
		for _, part := range parts {
			counts := snap.Book.StockOf(v.Name, part)
			if len(counts) == 0 {
				continue
			}
			view := stockView{Variety: v.Name, Now: fmt.Sprintf("%s on %s", pieces(part, counts[0].Pieces), snap.Date(counts[0].On))}
			for _, c := range counts[1:] {
				view.Before = append(view.Before, fmt.Sprintf("%s on %s", pieces(part, c.Pieces), snap.Date(c.On)))
			}
			all = append(all, view)
		}
	}
	slices.SortStableFunc(all, func(a, b stockView) int { return book.CompareFold(a.Variety, b.Variety) })
	return all
}

// stockFields ask for a count: of the varieties that are started from pieces.
func stockFields(snap *say.Snapshot) []page.Field {
	variety := page.Field{Name: "variety", Label: "Variety", Kind: "select", Needed: true}
	for _, v := range snap.Book.Varieties {
		if p := snap.Book.Crop(v.Crop); p != nil && slices.ContainsFunc(parts, p.HasStart) {
			variety.Options = append(variety.Options, page.Option{Value: v.Name, Label: v.Name})
		}
	}
	if len(variety.Options) == 0 {
		return nil
	}
	part := page.Field{Name: "part", Label: "Counted", Kind: "select"}
	for _, p := range parts {
		part.Options = append(part.Options, page.Option{Value: string(p), Label: partWords[p][1]})
	}
	return []page.Field{variety, part, {Name: "pieces", Label: "How many are sound", Mode: "numeric", Needed: true}, {Name: "on", Label: "On", Kind: "date", Needed: true}}
}

// countStock keeps a count of tubers, divisions or stock plants.
func (s view) countStock(c *echo.Context, snap *say.Snapshot) error {
	f := book.NewFields(page.Posted(c)).For(snap.Locale)
	count := book.ReadStockCount(f)
	if count.On.After(snap.View.Today) {
		f.Fault("on", "%s is still to come: choose today or a day before", snap.Date(count.On))
	}
	return s.Keep(c, f.Faults(), count.Record(), false, func(faults map[string]string) error {
		return s.seedsPage(c, http.StatusUnprocessableEntity, snap, page.Posted(c), faults)
	}, "seeds")
}

// stockOf says what a line's own stock gives and what is to be bought beside it; empty where nothing but seed is needed.
func stockOf(l plans.SeedLine) (own, order string) {
	for _, o := range l.Own {
		if len(o.Counts) > 0 {
			words := pieces(o.Part, o.Counts[0].Pieces)
			if o.Part == crop.Cutting {
				words += fmt.Sprintf(", some %d cuttings", o.Gives)
			}
			own = join(own, words)
		}
		order = join(order, strconv.Itoa(o.ToBuy))
	}
	return own, order
}

func join(a, b string) string {
	if a == "" {
		return b
	}
	return a + ", " + b
}
