package plantings

import (
	"net/http"
	"net/url"
	"slices"
	"strconv"
	"strings"

	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/core/plan"
	"dewcount/farm/book"
	"dewcount/say"
	"dewcount/web/page"

	"github.com/labstack/echo/v5"
)

// farthestStart is how many days ahead a planting can be planned.
const farthestStart = 730

func (s view) newPlanting(c *echo.Context, snap *say.Snapshot) error {
	return s.plantingForm(c, http.StatusOK, snap, nil, func(name string) string { return c.QueryParam(name) }, nil)
}

func (s view) editPlanting(c *echo.Context, snap *say.Snapshot, p book.Planting) error {
	return s.plantingForm(c, http.StatusOK, snap, &p, page.Of(p.Record()), nil)
}

// plantingForm shows the form of a planting, or of a new one where p is nil.
func (s view) plantingForm(c *echo.Context, code int, snap *say.Snapshot, p *book.Planting, from page.Typed, faults map[string]string) error {
	v := page.FormView{Heading: "Add a planting", Action: "/plantings", Save: "Add the planting", Cancel: "/plantings",
		Lead: "Once it is added you see when it will shoot, bud and be cut, and how sure that is."}
	title := "Add a planting"
	if p != nil {
		v.Heading, v.Action, v.Save = "Correct "+p.ID, "/plantings/"+url.PathEscape(p.ID), "Keep the correction"
		v.Cancel, v.Lead, title = v.Action, "What stood before stays in the planting's history.", "Correct "+p.ID
		v.Withdraw = &page.DoneView{Words: "Withdraw this planting", Kind: book.Plantings.Name, ID: p.ID}
	}
	for _, variety := range snap.Book.Varieties {
		v.Varieties = append(v.Varieties, variety.Name)
	}
	slices.Sort(v.Varieties)
	v.Fields = plantingFields(snap, p == nil)
	v.More = []page.Field{
		{Name: "pinched_on", Label: "Pinched on", Kind: "date", Hint: "Also a day to come, as planned."},
		{Name: "pinched_share", Label: "Share pinched", Mode: "decimal", Hint: "0.5 is half of the row; empty means all of it."},
		page.Field{Name: "cut_style", Label: "Cut", Kind: "select"}.Choose(page.Option{Value: "", Label: "low, for long stems (usual)"}, page.Option{Value: "keep-buds", Label: "high, to keep the side buds"}),
		{Name: "ended_on", Label: "Pulled out on", Kind: "date"},
		{Name: "squares", Label: "Squares of its bed", Hint: "Along and across: 3-14x1-4; or 3-14 for the whole width."},
		trayField(snap),
		{Name: "bought_on", Label: "Bought as plugs, coming on", Kind: "date", Hint: "Empty where you sow it yourself. Leave the start empty too where nobody says when they were sown."},
		{Name: "succession", Label: "Belongs to the plan"},
	}
	v.Fields, v.More = page.Fill(c, v.Fields, from, faults), page.Fill(c, v.More, from, faults)
	v.Fault = page.Rest(slices.Concat(v.Fields, v.More), faults)
	return s.Show(c, code, "planting_form", "/plantings", title, snap, v)
}

func trayField(snap *say.Snapshot) page.Field {
	f := page.Field{Name: "tray", Label: "Tray", Kind: "select"}.Choose(page.Option{Value: "", Label: "none"})
	for _, t := range snap.Book.Trays {
		f.Options = append(f.Options, page.Option{Value: t.ID, Label: t.ID})
	}
	return f
}

func plantingFields(snap *say.Snapshot, isNew bool) []page.Field {
	beds := page.Field{Name: "bed", Label: "Bed", Kind: "select"}.Choose(page.Option{Value: "", Label: "none"})
	for _, b := range snap.Book.Beds {
		beds.Options = append(beds.Options, page.Option{Value: b.ID, Label: b.ID})
	}
	fields := []page.Field{{Name: "variety", Label: "Variety", List: "varieties", Needed: true, Hint: "One on record, or the name of a new one."}}
	if isNew {
		crops := page.Field{Name: "crop", Label: "Crop, for a new variety", Kind: "select"}.Choose(page.Option{Value: "", Label: "the variety is on record"})
		for _, p := range snap.Book.Crops() {
			crops.Options = append(crops.Options, page.Option{Value: p.ID, Label: p.Name})
		}
		fields = append(fields, crops, page.Field{Name: "planting", Label: "Short name", Hint: "Such as ZC4, for stakes and lists; empty makes one."})
	}
	return append(fields,
		page.Field{Name: "method", Label: "Started", Kind: "select"}.Choose(page.Option{Value: "direct", Label: "sown where it grows"},
			page.Option{Value: "tray", Label: "in trays"}, page.Option{Value: "tuber", Label: "as tubers"}, page.Option{Value: "bulb", Label: "as bulbs"},
			page.Option{Value: "corm", Label: "as corms"}, page.Option{Value: "cutting", Label: "as cuttings"}, page.Option{Value: "division", Label: "as divisions"},
			page.Option{Value: "established", Label: "established plants"}),
		page.Field{Name: "started_on", Label: "Started on", Kind: "date", Needed: true, Hint: "Of established plants: any day of the rest before their first season here."},
		page.Field{Name: "planted_out_on", Label: "Planted out on", Kind: "date", Hint: "What was raised under cover; also a day to come."},
		page.Field{Name: "plants", Label: "Plants", Mode: "numeric", Needed: true, Hint: "Live plants that you expect to bear, losses taken off; empty with squares below: as many as they hold."},
		beds)
}

func (s view) addPlanting(c *echo.Context, snap *say.Snapshot) error {
	from := page.Posted(c)
	named := func(name string) string {
		if name == "plants" && strings.TrimSpace(from(name)) == "" {
			return plantsBySquares(snap, from)
		}
		if name == "started_on" && strings.TrimSpace(from(name)) == "" {
			return plugStart(snap, from)
		}
		if name == "planting" && strings.TrimSpace(from(name)) == "" {
			return snap.Book.FreeName(from("variety"))
		}
		return from(name)
	}
	f := book.NewFields(named)
	p := book.ReadPlanting(f)
	notTooFar(f, p, snap.View.Today)
	records := []book.Record{p.Record()}
	if _, known := snap.Book.Variety(p.Variety); !known && p.Variety != "" {
		of := strings.TrimSpace(from("crop"))
		if of == "" {
			f.Fault("variety", "%q is no variety on record: choose one from the list, or say below which crop it is", p.Variety)
		} else {
			records = append([]book.Record{book.Variety{Name: p.Variety, Crop: of}.Record()}, records...)
		}
	}
	err := f.Faults()
	if err == nil {
		err = s.Farm.Add(c.Request().Context(), page.By(c), records...)
	}
	if faults, only := page.FaultsBy(err); only {
		return s.plantingForm(c, http.StatusUnprocessableEntity, snap, nil, from, faults)
	}
	if err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, page.AddressOf("recorded", p.Record(), "plantings", p.ID))
}

// profileOf returns the crop of the variety that a form names, nil where that is not known.
func profileOf(snap *say.Snapshot, from page.Typed) *crop.Profile {
	if v, ok := snap.Book.Variety(strings.TrimSpace(from("variety"))); ok {
		return snap.Book.CropOf(v)
	}
	return snap.Book.Crop(strings.TrimSpace(from("crop")))
}

// plugStart returns when bought plants were probably sown; empty for what is not bought.
func plugStart(snap *say.Snapshot, from page.Typed) string {
	on, err := day.Parse(strings.TrimSpace(from("bought_on")))
	profile := profileOf(snap, from)
	if err != nil || profile == nil || !profile.HasStart(crop.Tray) {
		return ""
	}
	return plan.PlugStart(profile, on).String()
}

// plantsBySquares returns how many plants the squares of a form hold, where no number of plants was typed: a place may be filled by area as
// well as by plants. It is empty where that is not known.
func plantsBySquares(snap *say.Snapshot, from page.Typed) string {
	profile := profileOf(snap, from)
	grid, ok := snap.Book.Grid(strings.TrimSpace(from("bed")))
	if profile == nil || !ok {
		return ""
	}
	patch, err := plan.ParsePatch(strings.TrimSpace(from("squares")), grid)
	if err != nil {
		return ""
	}
	return strconv.Itoa(grid.Plants(patch, snap.Book.SpacingCM(strings.TrimSpace(from("variety")), profile)))
}

func notTooFar(f *book.Fields, p book.Planting, today day.Day) {
	if p.StartedOn.Sub(today) > farthestStart {
		f.Fault("started_on", "%s lies more than two years ahead: check the year", p.StartedOn)
	}
}

func (s view) correctPlanting(c *echo.Context, snap *say.Snapshot, old book.Planting) error {
	from := page.Posted(c)
	f := book.NewFields(func(name string) string {
		if name == "planting" {
			return old.ID
		}
		return from(name)
	})
	p := book.ReadPlanting(f)
	notTooFar(f, p, snap.View.Today)
	err := f.Faults()
	if err == nil {
		err = s.Farm.CorrectShown(c.Request().Context(), page.By(c), c.FormValue(page.ShownKey), p.Record())
	}
	if faults, only := page.FaultsOf(c, err, from, page.Of); only {
		return s.plantingForm(c, http.StatusUnprocessableEntity, snap, &old, from, faults)
	}
	if err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, page.AddressOf("corrected", p.Record(), "plantings", p.ID))
}
