package crops

import (
	"errors"
	"maps"
	"net/http"
	"net/url"
	"slices"
	"strings"

	"dewcount/croptable"
	"dewcount/farm/book"
	"dewcount/say"
	"dewcount/web/page"

	"github.com/labstack/echo/v5"
)

// A cropFormView is every value of a profile, section by section.
type cropFormView struct {
	Heading, Action, Save, Lead, Fault string
	Like                               string // the crop that a new one is made from
	Sections                           []cropSection
	Drop                               string // id of an own profile that can be taken away
	Shipped                            bool   // the shipped one comes back then
}

type cropSection struct {
	Name   string
	Fields []page.Field
	Lines  []page.Field // several lines each
}

// newCrop shows the form of a new crop, filled from the one that it is like.
func (s view) newCrop(c *echo.Context, snap *say.Snapshot) error {
	e, _, ok := snap.Book.Entry(c.QueryParam("like"))
	if !ok {
		return book.ErrNoSuchRecord
	}
	e.ID, e.Name = "", ""
	return s.cropForm(c, http.StatusOK, snap, e, c.QueryParam("like"), nil, nil)
}

func (s view) editCrop(c *echo.Context, snap *say.Snapshot) error {
	e, _, ok := snap.Book.Entry(c.Param("crop"))
	if !ok {
		return book.ErrNoSuchRecord
	}
	c.Set(page.ShownKey, book.CropMark(e))
	return s.cropForm(c, http.StatusOK, snap, e, "", nil, nil)
}

// cropForm shows the values of a profile; like is the crop that a new one is made from, empty where one is changed.
func (s view) cropForm(c *echo.Context, code int, snap *say.Snapshot, e croptable.Entry, like string, from page.Typed, faults map[string]string) error {
	v := cropFormView{Heading: "A new crop", Action: "/crops", Save: "Add the crop", Like: like,
		Lead: "It starts with the values of the crop that it is like. All of them are checked like the shipped ones."}
	if like == "" {
		_, own, _ := snap.Book.Entry(e.ID)
		v.Heading, v.Action, v.Save = "Correct "+e.Name, "/crops/"+url.PathEscape(e.ID), "Keep the correction"
		v.Lead = "Changed values are the farm's own; they travel with its notebook. What your records teach comes on top of them."
		if own {
			v.Drop = e.ID
			v.Shipped = book.NewBook(nil).Crop(e.ID) != nil
		}
	}
	sections := make(map[string]int)
	for _, l := range e.Leaves() {
		if l.Path == "id" && like == "" {
			continue
		}
		name, rest, nested := strings.Cut(l.Path, ".")
		if !nested {
			name, rest = "general", l.Path
		}
		if _, ok := sections[name]; !ok {
			sections[name] = len(v.Sections)
			v.Sections = append(v.Sections, cropSection{Name: strings.ReplaceAll(name, "_", " ")})
		}
		f := page.Field{Name: l.Path, Label: snap.Label(l.Path, leafLabel(snap.Locale, rest)), Typed: snap.Out(l.Path, l.Text), Fault: faults[l.Path]}
		if from != nil {
			f.Typed = snap.Out(l.Path, from(l.Path))
		}
		section := &v.Sections[sections[name]]
		switch l.Kind {
		case croptable.Number, croptable.Whole:
			f.Mode = "decimal"
		case croptable.Truth:
			f.Kind = "select"
			f = f.Choose(page.Option{Value: "true", Label: "yes"}, page.Option{Value: "false", Label: "no"})
		case croptable.Texts:
			section.Lines = append(section.Lines, f)
			continue
		}
		section.Fields = append(section.Fields, f)
	}
	for _, path := range slices.Backward(slices.Sorted(maps.Keys(faults))) { // the first stays
		advice := faults[path]
		if path == "" {
			v.Fault = advice
			continue
		}
		if !strings.HasPrefix(path, "id") {
			v.Fault = say.Sentence(snap.Label(path, leafLabel(snap.Locale, path)) + ": " + advice)
		} else {
			v.Fault = say.Sentence(advice)
		}
	}
	return s.Show(c, code, "cropform", "/crops", v.Heading, snap, v)
}

// keepCrop keeps a new crop, or other values of one.
func (s view) keepCrop(c *echo.Context, snap *say.Snapshot) error {
	from := page.Posted(c)
	id, like := c.Param("crop"), from("like")
	base := id
	if id == "" {
		base = like
	}
	e, _, ok := snap.Book.Entry(base)
	if !ok {
		return book.ErrNoSuchRecord
	}
	value := func(path string) string {
		if path == "id" && id != "" {
			return id
		}
		return from(path)
	}
	next, faults := e.With(value)
	if faults == nil && id == "" {
		if strings.ContainsAny(next.ID, " /?#%\"'\\") || next.ID != strings.ToLower(next.ID) {
			faults = map[string]string{"id": "write the id in small letters with hyphens, such as zinnia-giant"}
		}
	}
	if faults != nil {
		return s.cropForm(c, http.StatusUnprocessableEntity, snap, e, like, from, faults)
	}
	var err error
	if id == "" {
		err = s.Farm.AddCrop(c.Request().Context(), page.By(c), next)
	} else {
		err = s.Farm.SetCrop(c.Request().Context(), page.By(c), from(page.ShownKey), next)
	}
	if changed, ok := errors.AsType[*book.Changed](err); ok {
		now := make(map[string]string)
		var names []string
		for _, l := range e.Leaves() {
			now[l.Path], names = l.Text, append(names, l.Path)
		}
		faults := page.Theirs(c, changed, book.CropMark(e), names, value, func(path string) string { return now[path] })
		return s.cropForm(c, http.StatusConflict, snap, e, like, from, faults)
	}
	if faults, only := page.FaultsBy(err); only {
		return s.cropForm(c, http.StatusUnprocessableEntity, snap, e, like, from, faults)
	}
	if err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, "/crops/"+url.PathEscape(next.ID))
}

// dropCrop takes an own profile away.
func (s view) dropCrop(c *echo.Context, snap *say.Snapshot) error {
	id := c.Param("crop")
	if err := s.Farm.DropCrop(c.Request().Context(), page.By(c), id); err != nil {
		return err
	}
	if book.NewBook(nil).Crop(id) == nil {
		return c.Redirect(http.StatusSeeOther, "/crops")
	}
	return c.Redirect(http.StatusSeeOther, "/crops/"+url.PathEscape(id))
}

// leafLabel writes the schema's name of a value as a label, with its unit.
func leafLabel(locale say.Locale, name string) string {
	units := []struct{ suffix, unit string }{{"_cd", " in °Cd"}, {"_cm", " in cm"}, {"_mm", " in mm"}, {"_cv", ", coefficient of variation"}, {"_20c", " at " + locale.Celsius(20)}, {"_c", " in °C"}, {"_h", " in hours"}}
	for _, u := range units {
		if cut, ok := strings.CutSuffix(name, u.suffix); ok {
			name = cut + u.unit
			break
		}
	}
	return strings.ReplaceAll(strings.ReplaceAll(name, "_", " "), ".", " ")
}
