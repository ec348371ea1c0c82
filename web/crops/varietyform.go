package crops

import (
	"net/http"
	"net/url"

	"dewcount/farm/book"
	"dewcount/say"
	"dewcount/web/page"

	"github.com/labstack/echo/v5"
)

func varietyFields(snap *say.Snapshot, isNew bool) []page.Field {
	fields := []page.Field{
		{Name: "colour", Label: "Colour", Hint: "One, or a mix with shares: coral:0.6;red:0.4"},
		page.Field{Name: "role", Label: "Role in a bouquet", Kind: "select"}.Choose(page.Option{Value: "", Label: "not said"}, page.Option{Value: "focal", Label: "focal"}, page.Option{Value: "filler", Label: "filler"},
			page.Option{Value: "spike", Label: "spike"}, page.Option{Value: "accent", Label: "accent"}, page.Option{Value: "foliage", Label: "foliage"}),
		{Name: "height_cm", Label: "Height in cm", Mode: "decimal", Hint: "Empty: as the crop."},
		{Name: "stem_cm", Label: "Stem for the vase in cm", Mode: "decimal"},
		{Name: "spacing_cm", Label: "Spacing in cm", Mode: "decimal", Hint: "Empty: as the crop."},
		{Name: "days", Label: "Days to the first cut", Mode: "numeric", Hint: "As its packet says, from its usual start; empty: as the crop."},
		{Name: "germination", Label: "Share of seeds that come up", Mode: "decimal", Hint: "0.8 is eight in ten; empty: as the crop."},
		{Name: "traits", Label: "Traits", Hint: "Such as scented, mildew-resistant: they are found by it."},
		{Name: "seeds_in_stock", Label: "Seeds in stock", Mode: "numeric"},
		{Name: "seeds_a_packet", Label: "Seeds in a packet", Mode: "numeric"},
	}
	if !isNew {
		return fields
	}
	crops := page.Field{Name: "crop", Label: "Crop", Kind: "select", Needed: true}.Choose()
	for _, p := range snap.Book.Crops() {
		crops.Options = append(crops.Options, page.Option{Value: p.ID, Label: p.Name})
	}
	return append([]page.Field{{Name: "variety", Label: "Name", Needed: true, Hint: "Of an unknown variety: such as Some zinnia."}, crops}, fields...)
}

func (s view) newVariety(c *echo.Context, snap *say.Snapshot) error {
	return s.varietyForm(c, http.StatusOK, snap, "", func(name string) string { return c.QueryParam(name) }, nil)
}

func (s view) editVariety(c *echo.Context, snap *say.Snapshot) error {
	v, ok := snap.Book.Variety(c.Param("variety"))
	if !ok {
		return book.ErrNoSuchRecord
	}
	page.Shows(c, v.Record())
	return s.varietyForm(c, http.StatusOK, snap, v.Name, page.Of(v.Record()), nil)
}

func (s view) varietyForm(c *echo.Context, code int, snap *say.Snapshot, name string, from page.Typed, faults map[string]string) error {
	v := page.FormView{Heading: "Add a variety", Action: "/varieties", Save: "Add the variety", Cancel: "/crops", Lead: "What is left empty is as its crop has it."}
	if name != "" {
		v.Heading, v.Action, v.Save = "Correct "+name, "/varieties/"+url.PathEscape(name), "Keep the correction"
		v.Withdraw = &page.DoneView{Words: "Withdraw this variety", Kind: book.Varieties.Name, ID: name}
	}
	if id := from("crop"); id != "" {
		v.Cancel = "/crops/" + url.PathEscape(id)
	}
	v.Fields = page.Fill(c, varietyFields(snap, name == ""), from, faults)
	v.Fault = page.Rest(v.Fields, faults)
	return s.Show(c, code, "form", "/crops", v.Heading, snap, v)
}

// keepVariety keeps a new variety, or other values of one.
func (s view) keepVariety(c *echo.Context, snap *say.Snapshot) error {
	from := page.Posted(c)
	old, known := snap.Book.Variety(c.Param("variety"))
	f := book.NewFields(func(name string) string {
		switch {
		case known && name == "variety":
			return old.Name
		case known && name == "crop":
			return old.Crop
		}
		return from(name)
	}).For(snap.Locale)
	v := book.ReadVariety(f)
	return s.Keep(c, f.Faults(), v.Record(), known, func(faults map[string]string) error {
		return s.varietyForm(c, http.StatusUnprocessableEntity, snap, old.Name, from, faults)
	}, "crops", v.Crop)
}
