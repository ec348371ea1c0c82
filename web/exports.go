package web

import (
	"bytes"
	"fmt"
	"html/template"
	"io"
	"net/http"
	"strings"
	"time"

	"dewcount/core/day"
	"dewcount/farm/look"
	"dewcount/farm/market"
	"dewcount/farm/plans"
	"dewcount/farm/work"
	"dewcount/notebook"

	"github.com/labstack/echo/v5"
)

// export answers with a file of a season that write makes; name gets its year.
func (s *server) export(name, kind string, write func(w io.Writer, c *echo.Context, snap *look.Snapshot, season *look.Season) error) func(*echo.Context, *look.Snapshot) error {
	return func(c *echo.Context, snap *look.Snapshot) error {
		year, _ := yearOf(c, snap)
		season, err := s.farm.Season(snap, year)
		if err != nil {
			return err
		}
		var file bytes.Buffer
		if err := write(&file, c, snap, season); err != nil {
			return fmt.Errorf("%s: %w", name, err)
		}
		dot := strings.LastIndex(name, ".")
		c.Response().Header().Set("Content-Disposition", fmt.Sprintf(`attachment; filename="%s-%s%s"`, name[:dot], strings.ReplaceAll(yearName(year, snap), "/", "-"), name[dot:]))
		return c.Blob(http.StatusOK, kind, file.Bytes())
	}
}

// exports are the files that a season can be taken away as.
func (s *server) exports() []route {
	const csv = "text/csv; charset=utf-8"
	file := func(name, kind string, write func(io.Writer, *echo.Context, *look.Snapshot, *look.Season) error) route {
		return route{http.MethodGet, "/" + name, see, s.on(s.export(name, kind, write))}
	}
	return []route{
		file("season.csv", csv, func(w io.Writer, _ *echo.Context, _ *look.Snapshot, season *look.Season) error {
			return notebook.WriteSeason(w, season)
		}),
		file("beds.csv", csv, func(w io.Writer, _ *echo.Context, _ *look.Snapshot, season *look.Season) error {
			return notebook.WriteBeds(w, season)
		}),
		file("seeds.csv", csv, func(w io.Writer, _ *echo.Context, _ *look.Snapshot, season *look.Season) error {
			return notebook.WriteSeeds(w, plans.Seeds(season))
		}),
		file("calendar.ics", calendarType, s.calendar),
		file("season.svg", "image/svg+xml", s.seasonSVG),
		file("beds.svg", "image/svg+xml", s.bedsSVG),
	}
}

const calendarType = "text/calendar; charset=utf-8"

func (s *server) calendar(w io.Writer, _ *echo.Context, snap *look.Snapshot, season *look.Season) error {
	place, err := snap.Book.Place()
	if err != nil {
		return err
	}
	made, err := time.Parse(time.RFC3339, s.farm.Stamp())
	if err != nil {
		return err
	}
	return notebook.WriteCalendar(w, place.Name, work.Appointments(season), made)
}

// A svgFile is drawings one under the other in a file of their own.
type svgFile struct {
	Width, Height int
	Style         template.CSS // of our own style sheet
	Season        *seasonDrawing
	Beds          []bedView
	Heading       string
}

// drawn is the style of drawings, with the colours that it names.
func drawn() template.CSS {
	text := func(name string) string {
		text, err := shipped.ReadFile("assets/" + name)
		if err != nil {
			panic("web: the style sheets are shipped with the program: " + err.Error())
		}
		return string(text)
	}
	_, root, _ := strings.Cut(text("app.css"), ":root")
	colours, _, _ := strings.Cut(root, "}")
	return template.CSS("svg" + colours + "}\ntext{font-family:sans-serif}" + text("drawings.css"))
}

func (s *server) seasonSVG(w io.Writer, c *echo.Context, snap *look.Snapshot, season *look.Season) error {
	cropID := c.QueryParam("crop")
	plantings := sortedPlantings(season, cropID)
	d := newSeasonDrawing(season, plantings, "", nil, day.Day{})
	d.Chart = newChart(season, plantings, market.Wanted(season, cropID))
	for i := range d.Rows {
		d.Rows[i].Href = "#"
	}
	year, _ := yearOf(c, snap)
	return s.pages["svgfile"].ExecuteTemplate(w, "svg-file", svgFile{Width: d.Width, Height: d.Height + d.Chart.Height + 34, Style: drawn(), Season: &d, Heading: "Season " + yearName(year, snap)})
}

func (s *server) bedsSVG(w io.Writer, c *echo.Context, snap *look.Snapshot, season *look.Season) error {
	place, err := snap.Book.Place()
	if err != nil {
		return err
	}
	date, err := day.Parse(c.QueryParam("on"))
	if err != nil {
		date = snap.View.Today
	}
	f := svgFile{Width: 600, Height: 40, Style: drawn(), Heading: "Beds on " + fullDay(date)}
	for _, b := range plans.BedYears(season) {
		v := newBedView(season, b, date, place)
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
	return s.pages["svgfile"].ExecuteTemplate(w, "svg-file", f)
}

// feed answers a calendar program that has nothing but a secret.
func (s *server) feed(c *echo.Context) error {
	if s.doors == nil {
		return echo.ErrNotFound
	}
	secret := c.Param("secret")
	const ending = ".ics"
	if len(secret) > len(ending) && secret[len(secret)-len(ending):] == ending {
		secret = secret[:len(secret)-len(ending)]
	}
	if _, err := s.doors.OfCalendar(c.Request().Context(), secret, placeOf(c)); err != nil {
		if _, code := doorFault(c, err); code == http.StatusTooManyRequests {
			return echo.NewHTTPError(code, "too many tries: come back later")
		}
		return echo.ErrNotFound
	}
	return s.on(s.export("calendar.ics", calendarType, s.calendar))(c)
}
