package fordate

import (
	"context"
	"math"
	"net/http"

	"dewcount/core/crop"
	"dewcount/farm/book"
	"dewcount/farm/plans"
	"dewcount/say"
	"dewcount/web/page"

	"github.com/labstack/echo/v5"
)

// A dateView is the form for stems on a date, and the answer beside it.
type dateView struct {
	page.Question
	Result *dateResult
}

func (s view) forDate(c *echo.Context, snap *say.Snapshot) error {
	from := page.Typed(func(name string) string { return c.QueryParam(name) })
	if from("asked") == "" {
		return s.datePage(c, http.StatusOK, snap, dateView{}, dateDefaults(snap, from), nil)
	}
	f := book.NewFields(from)
	ask := plans.ReadDateAsk(snap.Book, f, snap.View.Today)
	if faults, only := page.FaultsBy(f.Faults()); only {
		return s.datePage(c, http.StatusUnprocessableEntity, snap, dateView{}, dateDefaults(snap, from), faults)
	}
	result, ok, err := s.Answer(c, snap, "/season", "Sow for a date", ask, func(ctx context.Context, progress func(float64)) (any, error) {
		return plans.ForDate(ctx, snap.Snapshot, ask, progress)
	})
	if err != nil || !ok {
		return err
	}
	return s.datePage(c, http.StatusOK, snap, dateView{Result: newDateResult(snap, result.(*plans.DateResult))}, dateDefaults(snap, from), nil)
}

func dateDefaults(snap *say.Snapshot, from page.Typed) page.Typed {
	place, _ := snap.Book.Place()
	return func(name string) string {
		if typed := from(name); typed != "" {
			return typed
		}
		switch name {
		case "chance":
			return book.Decimal(math.Round(100 * place.Chance))
		case "use":
			return crop.Event.String()
		case "what": // a link names a crop or a variety by itself
			if variety := from("variety"); variety != "" {
				return variety
			}
			if p := snap.Book.Crop(from("crop")); p != nil {
				return p.Name
			}
		}
		return ""
	}
}

func (s view) datePage(c *echo.Context, code int, snap *say.Snapshot, v dateView, from page.Typed, faults map[string]string) error {
	v.Question = page.Ask(c, snap, "/season/date", []page.Field{
		{Name: "on", Label: "The day", Kind: "date", Needed: true},
		{Name: "stems", Label: "Stems", Mode: "numeric", Needed: true},
		{Name: "what", Label: "Of what", List: "varieties", Needed: true, Hint: "A crop, a variety, or a role and colour such as white filler."},
		page.Field{Name: "use", Label: "For", Kind: "select"}.Choose(page.Option{Value: "event", Label: "an event"}, page.Option{Value: "market", Label: "a market"},
			page.Option{Value: "florist", Label: "a florist, tight"}, page.Option{Value: "drying", Label: "drying"}),
		{Name: "chance", Label: "How sure, in 100", Mode: "numeric"},
		{Name: "cut_on", Label: "Cut on", Kind: "date", Hint: "Empty: your last pick of the three days before."},
		page.MethodField(), page.BedField(snap),
	}, from, faults)
	for _, p := range snap.Book.Crops() {
		v.Varieties = append(v.Varieties, p.Name)
	}
	return s.Show(c, code, "fordate", "/season", "Sow for a date", snap, v)
}
