package settings

import (
	"errors"
	"net/http"
	"net/url"
	"slices"
	"strings"
	"time"

	"dewcount/core/climate"
	"dewcount/farm"
	"dewcount/farm/book"
	"dewcount/fault"
	"dewcount/say"
	"dewcount/trust"
	"dewcount/web/page"

	"github.com/labstack/echo/v5"
)

// placeFields are the settings of a farm that a page shows; the demo's own are not among them.
func placeFields() (needed, more []page.Field) {
	needed = []page.Field{
		{Name: "name", Label: "The farm's name", Needed: true},
		{Name: "latitude", Label: "Latitude", Needed: true, Hint: "Such as 46.9, 46°54'N, or both at once: 46.9, 7.2"},
		{Name: "longitude", Label: "Longitude", Needed: true, Hint: "Such as 7.2 or 7°12'E"},
		{Name: "elevation_m", Label: "Height above the sea in m", Mode: "decimal", Needed: true, Hint: "A new farm may leave it empty, and is taken to lie low."},
		{Name: "timezone", Label: "Time zone", Needed: true, List: "zones", Hint: "Such as Europe/Zurich, or its city alone."},
		page.Field{Name: "pick_days", Label: "Days on which you cut", Needed: true}.Boxes(strings.Fields(strings.ToLower(strings.Join(weekNames, " "))), weekNames),
	}
	for _, g := range []struct {
		name   string
		fields []page.Field
	}{
		{"Climate and ground", []page.Field{
			climates(),
			page.Field{Name: "climate_tmin_c", Label: "Or your own: nights of the twelve months in °C", Hint: "Mean minima; with the days below they take the place of the climate above."}.Each(yearNames),
			page.Field{Name: "climate_tmax_c", Label: "Days of the twelve months in °C", Hint: "Mean maxima."}.Each(yearNames),
			{Name: "last_frost", Label: "Last frost in spring", Hint: "Such as 12 May"},
			{Name: "first_frost", Label: "First frost in autumn", Hint: "Such as 14 October"},
			page.Field{Name: "soil", Label: "Soil", Kind: "select"}.Choose(page.Option{Value: "", Label: "usual"}, page.Option{Value: "heavy", Label: "heavy: holds water long, wants it seldom"}),
		}},
		{"Cutting", []page.Field{
			page.Field{Name: "picking", Label: "On a pick day you cut", Kind: "select"}.Choose(page.Option{Value: "", Label: "all that is ready (usual)"},
				page.Option{Value: "ahead", Label: "that, and what would be over by the next pick"}, page.Option{Value: "sold", Label: "only what is sold"}),
			{Name: "pick_hour", Label: "Hour of the pick", Mode: "decimal", Hint: "8 unless you say otherwise."},
			{Name: "stems_an_hour", Label: "Stems that one person cuts in an hour", Mode: "decimal", Hint: "200 unless you say otherwise."},
			{Name: "pick_hours_a_week", Label: "Hours a week there are for cutting", Mode: "decimal"},
			{Name: "cut_until_c", Label: "Cutting ends in the morning at °C", Mode: "decimal", Hint: "22 unless you say otherwise; never above 24."},
		}},
		{"Plans", []page.Field{
			{Name: "chance", Label: "How sure a plan shall be", Mode: "decimal", Hint: "0.9 is nine weeks in ten."},
			{Name: "sowing_minutes", Label: "Minutes that one sowing more is worth", Mode: "decimal", Hint: "20 unless you say otherwise: successions have more sowings the fewer they are."},
			{Name: "losses", Label: "Share of plants lost on the way", Mode: "decimal", Hint: "0.1 is a tenth."},
			{Name: "margin", Label: "Share sown beyond what is needed", Mode: "decimal", Hint: "0.1 is a tenth more."},
			{Name: "square_cm", Label: "Side of a square of the bed plan in cm", Mode: "decimal", Hint: "30 unless you say otherwise."},
		}},
		{"Nursery", []page.Field{
			{Name: "bench_trays", Label: "Trays that the nursery holds", Mode: "numeric"},
			{Name: "nursery_min_c", Label: "Nursery's nights in °C", Mode: "decimal", Hint: "Empty: as the crop likes it."},
			{Name: "nursery_max_c", Label: "Nursery's days in °C", Mode: "decimal"},
		}},
		{"Store and market", []page.Field{
			{Name: "bunch_stems", Label: "Stems of a straight bunch", Mode: "numeric", Hint: "10 unless you say otherwise."},
			{Name: "bouquet_minutes", Label: "Minutes that making up a bouquet takes", Mode: "decimal", Hint: "5 unless you say otherwise."},
			{Name: "currency", Label: "Currency of your prices", Hint: "Such as CHF."},
		}},
		{"Crew and phones", []page.Field{
			page.Field{Name: "crew_hours", Label: "Hours the crew has for the field"}.Each(weekNames),
			{Name: "address", Label: "Address by which phones reach it", Hint: "Such as https://dew.lan:8443. Who may come in is set under People."},
		}},
	} {
		g.fields[0].Group = g.name
		more = append(more, g.fields...)
	}
	return needed, more
}

func climates() page.Field {
	options := []page.Option{{Value: "", Label: "by latitude and height (usual)"}}
	for _, r := range climate.Regions() {
		options = append(options, page.Option{Value: r.ID, Label: r.Name})
	}
	return page.Field{Name: "climate", Label: "Climate, until your own weather is on record", Kind: "select"}.Choose(options...)
}

func (s view) settings(c *echo.Context) error {
	book, err := s.Farm.Load(c.Request().Context())
	if err != nil {
		return err
	}
	c.Set(page.ShownKey, book.SettingsMark())
	return s.settingsForm(c, http.StatusOK, func(name string) string { return shownSetting(book, name) }, nil)
}

// shownSetting is a setting as its form shows it.
func shownSetting(b *book.Book, key string) string {
	value := settingOf(b, key)
	if key == "last_frost" || key == "first_frost" {
		return spokenDay(value)
	}
	return value
}

func settingOf(b *book.Book, key string) string {
	for _, setting := range b.Settings {
		if setting.Key == key {
			return setting.Value
		}
	}
	return ""
}

func (s view) settingsForm(c *echo.Context, code int, from page.Typed, faults map[string]string) error {
	now, err := s.Farm.Snapshot(c.Request().Context())
	v := page.FormView{Heading: "The farm", Action: "/farm", Save: "Keep", Cancel: "/",
		Lead: "Day length, the usual season and the pick days follow from this. All of it can be changed later."}
	if errors.Is(err, farm.ErrNoFarm) {
		v.Heading, v.Cancel = "Where does the farm lie?", ""
	} else if err != nil {
		return err
	}
	var snap *say.Snapshot
	if now != nil {
		snap = page.ReadBy(c, now)
		v.Lead += " " + say.FrostWords(snap)
		v.Links = []page.LinkView{{Name: "People who may come in", Href: "/people"}, {Name: "Devices: weather station, store, post box", Href: "/box"}, {Name: "Units and week numbers", Href: "/reads"}}
	}
	v.Fields, v.More = placeFields()
	v.Suggestions, v.ListID = zoneNames(), "zones"
	if snap == nil {
		v.Lead = "Day length, the usual season and the pick days follow from this. Write where it lies, or pick the climate that is most like yours and leave latitude, longitude and height empty; without either it lies by the city of its time zone. All of it can be changed later."
		i := slices.IndexFunc(v.More, func(f page.Field) bool { return f.Name == "climate" })
		v.Fields = append(v.Fields, v.More[i])
		v.More = nil
	}
	v.Fields, v.More = page.Fill(c, v.Fields, from, faults), page.Fill(c, v.More, from, faults)
	if faults[""] != "" {
		v.Fault = faults[""]
	}
	return s.Show(c, code, "form", "/farm", "The farm", snap, v)
}

func (s view) setSettings(c *echo.Context) error {
	b, err := s.Farm.Load(c.Request().Context())
	if err != nil {
		return err
	}
	first := len(b.Settings) == 0
	from := byClimate(spoken(c, page.Posted(c)), first)
	needed, more := placeFields()
	place, err := book.ReadPlaceFor(page.LocaleOf(c), func(key string) string {
		if key == "demo_day" || key == "demo_seed" || key == "game" {
			return settingOf(b, key)
		}
		return from(key)
	})
	if err == nil {
		err = canBeTrusted(place.Address)
	}
	if faults, only := page.FaultsBy(err); only {
		return s.settingsForm(c, http.StatusUnprocessableEntity, from, faults)
	}
	var settings []book.Setting
	for _, f := range append(needed, more...) {
		value := strings.TrimSpace(from(f.Name))
		if f.Name == "address" {
			value = place.Address // as browsers write it
		}
		if value != settingOf(b, f.Name) {
			settings = append(settings, book.Setting{Key: f.Name, Value: value})
		}
	}
	err = s.Farm.Set(c.Request().Context(), page.By(c), from(page.ShownKey), settings)
	if changed, ok := errors.AsType[*book.Changed](err); ok {
		var names []string
		for _, f := range append(needed, more...) {
			names = append(names, f.Name)
		}
		faults := page.Theirs(c, changed, b.SettingsMark(), names, from, func(name string) string { return settingOf(b, name) })
		return s.settingsForm(c, http.StatusConflict, from, faults)
	}
	if err != nil {
		return err
	}
	if first {
		return c.Redirect(http.StatusSeeOther, "/start")
	}
	return c.Redirect(http.StatusSeeOther, "/")
}

// canBeTrusted tries the address of a farm: a certificate is made for its host and looked at as a phone would. An empty one is none.
func canBeTrusted(address string) error {
	if address == "" {
		return nil
	}
	at, err := url.Parse(address)
	if err == nil {
		err = trust.Try([]string{at.Hostname()})
	}
	if err != nil {
		return fault.List{{Field: "address", Advice: "no certificate can be made for this address, so that no phone would trust it: write a name such as https://dew.lan:8443, or the machine's own numbers"}}
	}
	return nil
}

// usualHeightM is how high a new farm lies of which nobody says: every hundred metres are about half a degree.
const usualHeightM = "100"

// byClimate completes a form in which a climate stands for the place: its latitude, the middle of the time zone, and sea level; where there is no climate either
// a new farm lies by the city of its time zone, and of any of which nobody says how high it lies it is assumed.
func byClimate(from page.Typed, first bool) page.Typed {
	region, known := climate.RegionNamed(strings.TrimSpace(from("climate")))
	near, listed := zoneOf(from("timezone"))
	unplaced := first && listed
	return func(name string) string {
		typed := from(name)
		switch nowhere := strings.TrimSpace(from("latitude")) == ""; {
		case name == "timezone" && listed:
			return near.name
		case name == "elevation_m" && first && !(known && nowhere) && strings.TrimSpace(typed) == "":
			return usualHeightM
		case strings.TrimSpace(typed) != "" || !nowhere:
		case name == "latitude" && known:
			return book.Decimal(region.Latitude)
		case name == "longitude" && known:
			return book.Decimal(zoneMiddle(strings.TrimSpace(from("timezone"))))
		case name == "elevation_m" && known:
			return "0"
		case name == "latitude" && unplaced:
			return book.Decimal(near.latitude)
		case name == "longitude" && unplaced:
			return book.Decimal(near.longitude)
		}
		return typed
	}
}

// zoneMiddle returns the longitude in the middle of a time zone, in degrees east: fifteen for every hour of its winter time.
func zoneMiddle(zone string) float64 {
	location, err := time.LoadLocation(zone)
	if err != nil {
		return 0
	}
	least := 0
	for i, month := range []time.Month{time.January, time.July} {
		_, offset := time.Date(2026, month, 1, 12, 0, 0, 0, location).Zone()
		if i == 0 || offset < least {
			least = offset
		}
	}
	return float64(least) / 3600 * 15
}
