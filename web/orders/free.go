package orders

import (
	"encoding/csv"
	"net/http"
	"net/url"
	"strconv"

	"dewcount/core/day"
	"dewcount/farm/market"
	"dewcount/say"
	"dewcount/web/page"
	"dewcount/web/parts"

	"github.com/labstack/echo/v5"
)

// A freeView is what can be had: stems that nobody was promised, as many as are sure, by variety and pick day.
type freeView struct {
	Farm    string
	Until   string
	Picks   []string
	Rows    []freeRow
	Link    *linkView // to be given to customers
	HasLink bool
	Public  bool
}

type freeRow struct {
	Variety, Crop, Colour, Role, Long string
	Stems                             []string // by pick, empty for none
}

// A linkView is an address with its code, which is shown once.
type linkView struct {
	Words, Address string
	QR             parts.QrView
}

// listDays is how far ahead the list tells: what lies further is too unsure to be sold.
const listDays = 14

func newFree(snap *say.Snapshot) freeView {
	last := snap.View.Today.Add(listDays)
	v := freeView{Until: snap.Date(last)}
	if place, err := snap.Book.Place(); err == nil {
		v.Farm = place.Name
	}
	var picks []day.Day
	for _, d := range snap.Forecast.PickDays {
		if !d.After(last) {
			picks = append(picks, d)
			v.Picks = append(v.Picks, snap.Date(d))
		}
	}
	for _, f := range market.FreeStems(snap.Snapshot, last) {
		if n := len(v.Rows); n == 0 || v.Rows[n-1].Variety != f.Variety.Name {
			row := freeRow{Variety: f.Variety.Name, Crop: f.Crop.Name, Role: f.Variety.Role, Long: snap.CM(f.LongCM), Stems: make([]string, len(picks))}
			if colours := f.Variety.Colours(); len(colours) > 1 {
				row.Colour = "mixed"
			} else if len(colours) == 1 {
				row.Colour = colours[0]
			}
			v.Rows = append(v.Rows, row)
		}
		for j, d := range picks {
			if d == f.Pick {
				v.Rows[len(v.Rows)-1].Stems[j] = strconv.Itoa(f.Stems.Sure())
			}
		}
	}
	return v
}

func (s view) free(c *echo.Context, snap *say.Snapshot) error {
	return s.freePage(c, snap, nil)
}

func (s view) freePage(c *echo.Context, snap *say.Snapshot, link *linkView) error {
	v := newFree(snap)
	v.Link, v.HasLink = link, link != nil || page.Who(c).List != ""
	return s.Show(c, http.StatusOK, "free", "/orders", "To be had", snap, v)
}

// freeFile is the list as CSV.
func (s view) freeFile(c *echo.Context, snap *say.Snapshot) error {
	c.Response().Header().Set("Content-Type", "text/csv; charset=utf-8")
	c.Response().Header().Set("Content-Disposition", `attachment; filename="to-be-had.csv"`)
	w := csv.NewWriter(c.Response())
	rows := [][]string{{"variety", "crop", "colour", "role", "pick_day", "sure", "likely", "length_cm", "wanted"}}
	for _, f := range market.FreeStems(snap.Snapshot, snap.View.Today.Add(listDays)) {
		rows = append(rows, []string{f.Variety.Name, f.Crop.ID, f.Variety.Colour, f.Variety.Role, f.Pick.String(), strconv.Itoa(f.Stems.Sure()), strconv.Itoa(f.Stems.Likely()), strconv.FormatFloat(f.LongCM, 'f', -1, 64), ""})
	}
	return w.WriteAll(rows)
}

// newList makes a new address of the list that can be given away, or ends it.
func (s view) newList(c *echo.Context, snap *say.Snapshot) error {
	ctx, id := c.Request().Context(), page.Who(c).ID
	if s.People == nil || id == "" {
		return c.Redirect(http.StatusSeeOther, "/people") // nobody is set up yet whose address it could be
	}
	if c.FormValue("drop") != "" {
		if err := s.People.DropList(ctx, id); err != nil {
			return err
		}
		return c.Redirect(http.StatusSeeOther, "/free")
	}
	secret, err := s.People.NewList(ctx, id)
	if err != nil {
		return err
	}
	address := s.Base(snap.Snapshot) + "/list/" + url.PathEscape(secret)
	code, err := parts.NewQR(address, "QR code of the address")
	if err != nil {
		return err
	}
	return s.freePage(c, snap, &linkView{"Whoever has this address reads what is to be had, and nothing else. It is not shown again; a new one ends it.", address, code})
}

// list shows the list to who has nothing but its address.
func (s view) list(c *echo.Context) error {
	if s.People == nil {
		return echo.ErrNotFound
	}
	who, err := s.People.OfList(c.Request().Context(), c.Param("secret"), page.PlaceOf(c))
	if err != nil {
		if _, code := page.GuessFault(c, err); code == http.StatusTooManyRequests {
			return echo.NewHTTPError(code, "too many tries: come back later")
		}
		return echo.ErrNotFound
	}
	page.ReadAs(c, who)
	return s.On(func(c *echo.Context, snap *say.Snapshot) error {
		v := newFree(snap)
		v.Public = true
		return s.Render(c, http.StatusOK, "free", page.Frame{Title: "To be had from " + v.Farm, SignedOut: true}, v)
	})(c)
}
