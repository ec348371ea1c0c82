package exports

import (
	"bytes"
	"fmt"
	"html/template"
	"io"
	"net/http"
	"strings"
	"time"

	"dewcount/core/day"
	"dewcount/farm/market"
	"dewcount/farm/plans"
	"dewcount/farm/work"
	"dewcount/notebook"
	"dewcount/say"
	"dewcount/web/assets"
	"dewcount/web/draw"
	"dewcount/web/page"

	"github.com/labstack/echo/v5"
)

// export answers with a file of a season that write makes; name gets its year.
func (s view) export(name, kind string, write func(w io.Writer, c *echo.Context, snap *say.Snapshot, season *say.Season) error) func(*echo.Context, *say.Snapshot) error {
	return func(c *echo.Context, snap *say.Snapshot) error {
		year, _ := page.YearOf(c, snap)
		season, err := s.Farm.Season(snap.Snapshot, year)
		if err != nil {
			return err
		}
		var file bytes.Buffer
		if err := write(&file, c, snap, &say.Season{Season: season, Locale: snap.Locale}); err != nil {
			return fmt.Errorf("%s: %w", name, err)
		}
		dot := strings.LastIndex(name, ".")
		c.Response().Header().Set("Content-Disposition", fmt.Sprintf(`attachment; filename="%s-%s%s"`, name[:dot], strings.ReplaceAll(page.YearName(year, snap), "/", "-"), name[dot:]))
		return c.Blob(http.StatusOK, kind, file.Bytes())
	}
}

// exports are the files that a season can be taken away as.
func (s view) exports() []page.Route {
	const csv = "text/csv; charset=utf-8"
	file := func(name, kind string, write func(io.Writer, *echo.Context, *say.Snapshot, *say.Season) error) page.Route {
		return page.Get("/"+name, page.Look, s.On(s.export(name, kind, write)))
	}
	return []page.Route{
		file("season.csv", csv, func(w io.Writer, _ *echo.Context, _ *say.Snapshot, season *say.Season) error {
			return notebook.WriteSeason(w, season.Season)
		}),
		file("beds.csv", csv, func(w io.Writer, _ *echo.Context, _ *say.Snapshot, season *say.Season) error {
			return notebook.WriteBeds(w, season.Season)
		}),
		file("seeds.csv", csv, func(w io.Writer, _ *echo.Context, _ *say.Snapshot, season *say.Season) error {
			return notebook.WriteSeeds(w, plans.Seeds(season.Season))
		}),
		file("calendar.ics", calendarType, s.calendar),
		file("season.svg", "image/svg+xml", s.seasonSVG),
		file("beds.svg", "image/svg+xml", s.bedsSVG),
	}
}

const calendarType = "text/calendar; charset=utf-8"

func (s view) calendar(w io.Writer, _ *echo.Context, snap *say.Snapshot, season *say.Season) error {
	place, err := snap.Book.Place()
	if err != nil {
		return err
	}
	made, err := time.Parse(time.RFC3339, s.Farm.Stamp())
	if err != nil {
		return err
	}
	return notebook.WriteCalendar(w, place.Name, work.Appointments(season.Season), made, snap.Words)
}

// A svgFile is drawings one under the other in a file of their own.
type svgFile struct {
	Width, Height int
	Style         template.CSS // of our own style sheet
	Season        *draw.SeasonDrawing
	Beds          []draw.BedView
	Heading       string
}

// drawn is the style of drawings, with the colours that it names.
func drawn() template.CSS {
	text := func(name string) string {
		text, err := assets.File(name)
		if err != nil {
			panic("web: the style sheets are shipped with the program: " + err.Error())
		}
		return string(text)
	}
	_, root, _ := strings.Cut(text("app.css"), ":root")
	colours, _, _ := strings.Cut(root, "}")
	return template.CSS("svg" + colours + "}\ntext{font-family:sans-serif}" + text("drawings.css"))
}

func (s view) seasonSVG(w io.Writer, c *echo.Context, snap *say.Snapshot, season *say.Season) error {
	cropID := c.QueryParam("crop")
	plantings := draw.SortedPlantings(season, cropID)
	d := draw.NewSeasonDrawing(season, plantings, "", nil, day.Day{})
	d.Chart = draw.NewChart(season, plantings, market.Wanted(season.Season, cropID))
	for i := range d.Rows {
		d.Rows[i].Href = "#"
	}
	year, _ := page.YearOf(c, snap)
	return s.Pages["svgfile"].ExecuteTemplate(w, "svg-file", svgFile{Width: d.Width, Height: d.Height + d.Chart.Height + 34, Style: drawn(), Season: &d, Heading: "Season " + page.YearName(year, snap)})
}

func (s view) bedsSVG(w io.Writer, c *echo.Context, snap *say.Snapshot, season *say.Season) error {
	place, err := snap.Book.Place()
	if err != nil {
		return err
	}
	date, err := day.Parse(c.QueryParam("on"))
	if err != nil {
		date = snap.View.Today
	}
	f := svgFile{Width: 600, Height: 40, Style: drawn(), Heading: "Beds on " + snap.FullDate(date)}
	for _, b := range plans.BedYears(season.Season) {
		v := draw.NewBedView(season, b, date, place)
		if !v.HasGrid {
			continue
		}
		for i := range v.Patches {
			v.Patches[i].Href = "#"
		}
		v.At = f.Height
		f.Width, f.Height = max(f.Width, v.Width+20), f.Height+v.Height+56
		f.Beds = append(f.Beds, v)
	}
	return s.Pages["svgfile"].ExecuteTemplate(w, "svg-file", f)
}

// feed answers a calendar program that has nothing but a secret.
func (s view) feed(c *echo.Context) error {
	if s.People == nil {
		return echo.ErrNotFound
	}
	secret := c.Param("secret")
	const ending = ".ics"
	if len(secret) > len(ending) && secret[len(secret)-len(ending):] == ending {
		secret = secret[:len(secret)-len(ending)]
	}
	who, err := s.People.OfCalendar(c.Request().Context(), secret, page.PlaceOf(c))
	if err != nil {
		if _, code := page.GuessFault(c, err); code == http.StatusTooManyRequests {
			return echo.NewHTTPError(code, "too many tries: come back later")
		}
		return echo.ErrNotFound
	}
	page.ReadAs(c, who)
	return s.On(s.export("calendar.ics", calendarType, s.calendar))(c)
}
