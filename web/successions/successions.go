package successions

import (
	"context"
	"fmt"
	"math"
	"net/http"
	"net/url"
	"strings"

	"dewcount/core/day"
	"dewcount/farm/book"
	"dewcount/farm/plans"
	"dewcount/fault"
	"dewcount/say"
	"dewcount/web/page"

	"github.com/labstack/echo/v5"
)

// A successionsView is the form for successions, and the answer beside it.
type successionsView struct {
	page.Question
	Asked  bool
	Result *successionResult
	Made   []successionLine // successions on record, to be taken back
}

// A successionLine is a plan of successions that was taken over.
type successionLine struct {
	Name, Words string
	CanGo       bool
}

func (s view) successions(c *echo.Context, snap *say.Snapshot) error {
	from := withPeriod(snap, func(name string) string { return c.QueryParam(name) })
	v := successionsView{Asked: from("asked") != "", Made: successionsMade(snap)}
	if !v.Asked {
		return s.successionsPage(c, http.StatusOK, snap, v, successionDefaults(snap, from), nil)
	}
	if query := c.QueryParams(); query.Get("from") != from("from") || query.Get("until") != from("until") { // the address says what is shown, to be taken over as it is
		query.Set("from", from("from"))
		query.Set("until", from("until"))
		return c.Redirect(http.StatusSeeOther, "/season/successions?"+query.Encode())
	}
	f := book.NewFields(from)
	ask := plans.ReadSuccessionAsk(snap.Book, f, snap.View.Today)
	if faults, only := page.FaultsBy(f.Faults()); only {
		return s.successionsPage(c, http.StatusUnprocessableEntity, snap, v, from, faults)
	}
	result, ok, err := s.Answer(c, snap, "/season", "Plan successions", ask, planSuccession(snap, ask))
	if err != nil || !ok {
		return err
	}
	v.Result = newSuccessionResult(snap, result.(*plans.SuccessionPlan))
	v.Result.front(c.QueryParams(), result.(*plans.SuccessionPlan))
	return s.successionsPage(c, http.StatusOK, snap, v, from, nil)
}

func planSuccession(snap *say.Snapshot, ask plans.SuccessionAsk) page.Does {
	return func(ctx context.Context, progress func(float64)) (any, error) {
		return plans.Successions(ctx, snap.Snapshot, ask, progress)
	}
}

// withPeriod fills in the weeks that are left empty, as soon as the crop is known: those in which what can still be sown blooms.
func withPeriod(snap *say.Snapshot, from page.Typed) page.Typed {
	cropID := from("crop")
	if v, ok := snap.Book.Variety(from("variety")); ok {
		cropID = v.Crop
	}
	profile := snap.Book.Crop(cropID)
	begins, ends := from("from"), from("until")
	if begins == "" && profile != nil {
		begins = plans.UsualFrom(snap.Snapshot, profile, from("variety")).String()
	}
	if on, err := day.Parse(begins); ends == "" && err == nil {
		ends = plans.UsualUntil(snap.Snapshot, on).String()
	}
	return func(name string) string {
		switch name {
		case "from":
			return begins
		case "until":
			return ends
		}
		return from(name)
	}
}

// successionDefaults fills what else is not typed yet.
func successionDefaults(snap *say.Snapshot, from page.Typed) page.Typed {
	place, _ := snap.Book.Place()
	return func(name string) string {
		if typed := from(name); typed != "" {
			return typed
		}
		switch name {
		case "chance":
			return book.Decimal(math.Round(100 * plans.UsualChance(snap.Book, place)))
		case "stems":
			return "50"
		case "existing", "pinch":
			return "1"
		}
		return ""
	}
}

func (s view) successionsPage(c *echo.Context, code int, snap *say.Snapshot, v successionsView, from page.Typed, faults map[string]string) error {
	v.Question = page.Ask(c, snap, "/season/successions", []page.Field{
		page.CropField(snap),
		page.VarietyField(),
		{Name: "stems", Label: "Stems a week", Mode: "numeric", Needed: true},
		{Name: "from", Label: "From", Kind: "date", Hint: "Empty: from when what can still be sown is in bloom."},
		{Name: "until", Label: "Until", Kind: "date", Hint: "Empty: twelve weeks, or until a week before the frost."},
		{Name: "chance", Label: "How sure, in 100", Mode: "numeric", Hint: "90: nine weeks in ten have enough."},
		page.MethodField(),
		{Name: "sowings", Label: "So many sowings", Mode: "numeric", Hint: "Empty: as many as cost least work."},
		{Name: "every", Label: "Calendar: a sowing every … days", Mode: "numeric", Hint: "Empty: as the crop table has it."},
		{Name: "plants_each", Label: "Calendar: plants in each", Mode: "numeric", Hint: "Empty: as many stems in all as by warmth."},
		page.BedField(snap),
		page.Field{Name: "existing", Label: "What is planted already", Kind: "select"}.Choose(page.Option{Value: "1", Label: "counts"}, page.Option{Value: "", Label: "is left out"}),
		page.Field{Name: "pinch", Label: "Pinching", Kind: "select"}.Choose(page.Option{Value: "1", Label: "may be used"}, page.Option{Value: "", Label: "is not used"}),
		page.Field{Name: "by", Label: "School", Kind: "select"}.Choose(page.Option{Value: "", Label: "by warmth, even bloom (usual)"}, page.Option{Value: "weeks", Label: "every so many days"}, page.Option{Value: "dates", Label: "back from the dates of orders"}),
	}, from, faults)
	return s.Show(c, code, "successions", "/season", "Plan successions", snap, v)
}

// takeOver keeps all sowings of a plan as plantings, in one step.
func (s view) takeOver(c *echo.Context, snap *say.Snapshot) error {
	from := page.Typed(func(name string) string { return c.QueryParam(name) })
	f := book.NewFields(from)
	ask := plans.ReadSuccessionAsk(snap.Book, f, snap.View.Today)
	if err := f.Faults(); err != nil {
		return err
	}
	answer, _, err := s.Answer(c, snap, "/season", "Plan successions", ask, planSuccession(snap, ask))
	if err != nil {
		return err
	}
	result := answer.(*plans.SuccessionPlan)
	records, name := plans.PlantingsOf(snap.Snapshot, result, strings.TrimSpace(c.FormValue("name")))
	if len(records) == 0 {
		return fault.List{{Field: "stems", Advice: "this plan has no sowings to take over: ask for another period"}}
	}
	if err := s.Farm.Add(c.Request().Context(), page.By(c), records...); err != nil {
		return err
	}
	blooms := page.YearIn(snap, result.From) // who sows in September for next summer looks at next summer
	return c.Redirect(http.StatusSeeOther, "/season?"+url.Values{"year": {blooms}, "crop": {ask.Crop}, "succession": {name}}.Encode())
}

// takeBack withdraws all plantings of a succession, in one step.
func (s view) takeBack(c *echo.Context, snap *say.Snapshot) error {
	if err := s.Farm.WithdrawSuccession(c.Request().Context(), page.By(c), c.FormValue("succession")); err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, "/season/successions")
}

// successionsMade lists the plans that were taken over.
func successionsMade(snap *say.Snapshot) []successionLine {
	var names []string
	count, first := make(map[string]int), make(map[string]day.Day)
	for _, p := range snap.Book.Plantings {
		if p.Succession == "" {
			continue
		}
		if count[p.Succession] == 0 {
			names = append(names, p.Succession)
		}
		count[p.Succession]++
		if first[p.Succession].IsZero() || p.StartedOn.Before(first[p.Succession]) {
			first[p.Succession] = p.StartedOn
		}
	}
	var lines []successionLine
	for _, n := range names {
		lines = append(lines, successionLine{Name: n, Words: fmt.Sprintf("%s from %s on", say.Number(count[n], "sowing"), snap.Date(first[n])), CanGo: first[n].After(snap.View.Today)})
	}
	return lines
}
