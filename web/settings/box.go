package settings

import (
	"errors"
	"fmt"
	"io"
	"net/http"
	"net/url"
	"strings"

	"dewcount/farm/book"
	"dewcount/notebook"
	"dewcount/say"
	"dewcount/web/page"

	"github.com/labstack/echo/v5"
)

// A boxView is the devices outside: the weather station by its files, the store's thermometer, the post box.
type boxView struct {
	Last    string // day of the weather that is on record last
	Service string // how the weather service has erred
	Told    string // what a file brought
	Fault   string
	Mapping *mappingView
	Store   string
	Letters []letterView
	HasPost bool
}

// A mappingView asks which column of a station's file holds what.
type mappingView struct {
	File, Text string // the file itself goes back and forth, so that it need not be chosen again
	Fields     []page.Field
}

type letterView struct{ From, Text, Due, On string }

// stationSetting is where the mapping is remembered.
const stationSetting = "station"

func (s view) boxPage(c *echo.Context, snap *say.Snapshot) error {
	return s.showBox(c, http.StatusOK, snap, boxView{Told: c.QueryParam("told")})
}

func (s view) showBox(c *echo.Context, code int, snap *say.Snapshot, v boxView) error {
	ctx := c.Request().Context()
	v.Service = say.Service(snap)
	for _, w := range snap.Book.Weather {
		if w.IssuedOn.IsZero() {
			v.Last = snap.Date(w.Date)
		}
	}
	if t := s.Box.Thermometer; t != nil {
		celsius, at, err := t.Celsius(ctx)
		if err != nil {
			v.Store = say.Sentence(err.Error())
		} else {
			v.Store = fmt.Sprintf("%s, read at %s.", snap.Tenth(celsius), at.Format("15:04"))
		}
	}
	if p := s.Box.PostBox; p != nil {
		v.HasPost = true
		letters, err := p.Letters(ctx)
		if err != nil {
			v.Fault = say.Sentence(err.Error())
		}
		for _, l := range letters {
			view := letterView{From: l.From, Text: l.Text}
			if !l.DueOn.IsZero() {
				view.Due, view.On = snap.Date(l.DueOn), l.DueOn.String()
			}
			v.Letters = append(v.Letters, view)
		}
	}
	return s.Show(c, code, "box", "/farm", "Devices", snap, v)
}

// loadWeather reads a station's file: at once by the mapping that is remembered, or after asking which column holds what.
func (s view) loadWeather(c *echo.Context, snap *say.Snapshot) error {
	name, text, err := uploaded(c)
	if err != nil {
		return s.showBox(c, http.StatusUnprocessableEntity, snap, boxView{Fault: say.Sentence(err.Error())})
	}
	columns, err := notebook.StationColumns(text)
	if err != nil {
		return s.showBox(c, http.StatusUnprocessableEntity, snap, boxView{Fault: say.Sentence(err.Error())})
	}
	from := page.Posted(c)
	station := notebook.ParseStation(settingOf(snap.Book, stationSetting))
	chosen := from("date") != ""
	if chosen {
		station = notebook.Station{Date: from("date"), Low: from("low"), High: from("high"), Rain: from("rain"), Format: from("format"), Unit: from("unit")}
	}
	if !chosen && !station.Fits(columns) {
		return s.showBox(c, http.StatusOK, snap, boxView{Mapping: newMapping(name, text, columns, notebook.Guess(columns))})
	}
	days, err := station.Read(name, text)
	if err != nil {
		return s.showBox(c, http.StatusUnprocessableEntity, snap, boxView{Fault: err.Error(), Mapping: newMapping(name, text, columns, station)})
	}
	told, err := s.keepWeather(c, snap, days, station)
	if err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, "/box?told="+url.QueryEscape(told))
}

// uploaded returns the file of a form: the one that was chosen, or the text that came back with the mapping.
func uploaded(c *echo.Context) (name string, text []byte, err error) {
	if again := c.FormValue("text"); again != "" {
		return c.FormValue("file_name"), []byte(again), nil
	}
	header, err := c.FormFile("file")
	if errors.Is(err, http.ErrMissingFile) {
		return "", nil, errors.New("choose a file first: the table that your station has written")
	}
	if err != nil {
		return "", nil, fmt.Errorf("the file did not arrive whole: send it again: %w", err)
	}
	file, err := header.Open()
	if err != nil {
		return "", nil, fmt.Errorf("the file cannot be read: send it again: %w", err)
	}
	defer file.Close()
	text, err = io.ReadAll(file)
	return header.Filename, text, err
}

func newMapping(name string, text []byte, columns []string, s notebook.Station) *mappingView {
	pick := func(id, label, now string, none string) page.Field {
		f := page.Field{Name: id, Label: label, Kind: "select", Typed: now}
		var options []page.Option
		if none != "" {
			options = append(options, page.Option{Value: "", Label: none})
		}
		for _, c := range columns {
			options = append(options, page.Option{Value: c, Label: c})
		}
		return f.Choose(options...)
	}
	format := page.Field{Name: "format", Label: "Dates look like", Kind: "select", Typed: s.Format}
	var formats []page.Option
	for _, f := range notebook.Formats() {
		formats = append(formats, page.Option{Value: f, Label: strings.NewReplacer("2006", "2026", "01", "07", "02", "31").Replace(f)})
	}
	unit := page.Field{Name: "unit", Label: "Units", Kind: "select", Typed: s.Unit}.Choose(page.Option{Value: "C", Label: "°C and mm"}, page.Option{Value: "F", Label: "°F and inches"})
	return &mappingView{File: name, Text: string(text), Fields: []page.Field{
		pick("date", "Date", s.Date, ""), format.Choose(formats...), pick("low", "Lowest temperature, or the one temperature", s.Low, ""),
		pick("high", "Highest temperature, or the same again", s.High, ""), pick("rain", "Rain", s.Rain, "none"), unit}}
}

// keepWeather writes the days down: new ones are added, others correct what stands, and the mapping is remembered. Days that are not over
// are left out.
func (s view) keepWeather(c *echo.Context, snap *say.Snapshot, days []book.WeatherDay, station notebook.Station) (string, error) {
	ctx := c.Request().Context()
	fresh, corrected, same := 0, 0, 0
	var add, correct []book.Record
	standing := make(map[string]book.Record)
	for _, r := range snap.Book.Records(book.Weather) {
		standing[r.ID()] = r
	}
	for _, d := range days {
		if !d.Date.Before(snap.View.Today) {
			continue
		}
		there, ok := standing[d.Record().ID()]
		switch {
		case !ok:
			add, fresh = append(add, d.Record()), fresh+1
		case there.Equal(d.Record()):
			same++
		default:
			correct, corrected = append(correct, d.Record()), corrected+1
		}
	}
	if err := s.Farm.AddAndCorrect(ctx, page.By(c), add, correct); err != nil {
		return "", err
	}
	if settingOf(snap.Book, stationSetting) != station.String() {
		if err := s.Farm.Set(ctx, page.By(c), "", []book.Setting{{Key: stationSetting, Value: station.String()}}); err != nil {
			return "", err
		}
	}
	return fmt.Sprintf("%s of weather are new, %d were corrected, %d were on record already.", daysOf(fresh), corrected, same), nil
}

func daysOf(n int) string {
	if n == 0 {
		return "No days"
	}
	return say.Days(n)
}
