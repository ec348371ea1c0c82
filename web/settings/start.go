package settings

import (
	"fmt"
	"net/http"
	"net/url"
	"slices"
	"strconv"
	"strings"

	"dewcount/farm/book"
	"dewcount/say"
	"dewcount/web/page"

	"github.com/labstack/echo/v5"
)

// A startView is the way from an empty farm to a first plan, step by step.
type startView struct {
	Steps   []startStep
	Beds    []page.Field
	Market  []page.Field
	Choices []startCrop
	Fault   string
	Plans   []page.LinkView
	Frost   string
}

type startStep struct {
	ID, Title, Done string
}

// A startCrop is a crop to begin with.
type startCrop struct {
	ID, Name, Words string
	Here            bool
}

// easyCrops are the crops that a first year is best begun with: quick from seed, or sure.
var easyCrops = []string{"sunflower-single", "zinnia-tall", "cosmos-single", "cornflower", "nigella", "ammi", "snapdragon", "statice", "strawflower", "marigold-tall",
	"celosia-plume", "phacelia", "larkspur", "scabious", "sweet-pea", "dahlia-ball", "tulip", "gladiolus", "basil", "amaranth-hanging"}

func (s view) start(c *echo.Context, snap *say.Snapshot) error {
	return s.startPage(c, http.StatusOK, snap, func(string) string { return "" }, nil)
}

func (s view) startPage(c *echo.Context, code int, snap *say.Snapshot, from page.Typed, faults map[string]string) error {
	place, err := snap.Book.Place()
	if err != nil {
		return err
	}
	v := startView{Frost: say.FrostWords(snap)}
	done := func(n int, what string) string {
		if n == 0 {
			return ""
		}
		return say.Number(n, what) + " so far"
	}
	v.Steps = []startStep{
		{"place", "The place", fmt.Sprintf("%s, cut on %s", place.Name, place.PickDays.Spoken())},
		{"beds", "Beds", done(len(snap.Book.Beds), "bed")},
		{"crops", "What to grow", done(len(snap.Book.Varieties), "crop")},
		{"market", "What is wanted", done(len(snap.Book.Orders), "market day")},
		{"plan", "The first plan", done(len(snap.Book.Plantings), "planting")},
	}
	v.Beds = page.Fill(c, []page.Field{{Name: "count", Label: "How many alike", Mode: "numeric", Needed: true}, {Name: "bed", Label: "Called", Hint: "Bed makes Bed 1, Bed 2 …"},
		{Name: "length_m", Label: "Length in m", Mode: "decimal", Needed: true}, {Name: "width_m", Label: "Width in m", Mode: "decimal", Needed: true},
		{Name: "bearing_deg", Label: "Direction in which they run", Mode: "decimal", Hint: "90 is east to west, 0 north to south; empty if you do not know."}}, from, faults)
	v.Market = page.Fill(c, []page.Field{{Name: "order", Label: "Called", Needed: true, Hint: "Such as Saturday market."}, {Name: "due_on", Label: "First on", Kind: "date", Needed: true},
		{Name: "until", Label: "Until", Kind: "date"}, {Name: "stems", Label: "Stems of each crop a week", Mode: "numeric", Needed: true}}, from, faults)
	v.Fault = page.Rest(slices.Concat(v.Beds, v.Market), faults)
	for _, id := range easyCrops {
		if p := snap.Book.Crop(id); p != nil {
			here := slices.ContainsFunc(snap.Book.Varieties, func(o book.Variety) bool { return o.Crop == id })
			v.Choices = append(v.Choices, startCrop{id, p.Name, say.LifeWords[p.Life] + ", " + say.HabitWords[p.Yield.Habit], here})
			if here {
				q := url.Values{"variety": {snap.Book.AnyVariety(p)}}
				for _, l := range snap.Book.OrderLines { // as the market was said to want it
					if o, ok := snap.Book.Order(l.Order); ok && l.Crop == id && l.Stems != nil && o.Repeats != "" {
						q.Set("stems", strconv.Itoa(*l.Stems))
						if !o.Until.IsZero() {
							q.Set("until", o.Until.String())
						}
					}
				}
				v.Plans = append(v.Plans, page.LinkView{Name: p.Name, Href: "/season/successions?" + q.Encode()})
			}
		}
	}
	return s.Show(c, code, "start", "/season", "From nothing to a first plan", snap, v)
}

// startBeds adds several beds of one size.
func (s view) startBeds(c *echo.Context, snap *say.Snapshot) error {
	from := page.Posted(c)
	f := book.NewFields(from).For(snap.Locale)
	const mostBeds = 60
	count := f.Whole("count", 1, mostBeds)
	name := strings.TrimSpace(from("bed"))
	if name == "" {
		name = "Bed"
	}
	f.Number("length_m", 0.1, 2000)
	f.Number("width_m", 0.1, 200)
	err := f.Faults()
	if err == nil {
		var records []book.Record
		for n := 1; len(records) < count; n++ {
			id := name + " " + strconv.Itoa(n)
			if _, taken := snap.Book.Bed(id); taken {
				continue
			}
			g := book.NewFields(func(field string) string {
				if field == "bed" {
					return id
				}
				return from(field)
			}).For(snap.Locale)
			b := book.ReadBed(g)
			if err = g.Faults(); err != nil {
				break
			}
			records = append(records, b.Record())
		}
		if err == nil {
			err = s.Farm.Add(c.Request().Context(), page.By(c), records...)
		}
	}
	return s.started(c, snap, from, err, "crops")
}

// startCrops adds a variety of each crop that was chosen.
func (s view) startCrops(c *echo.Context, snap *say.Snapshot) error {
	form, err := c.FormValues()
	if err != nil {
		return err
	}
	var records []book.Record
	for _, id := range form["crop"] {
		p := snap.Book.Crop(id)
		if p == nil || slices.ContainsFunc(snap.Book.Varieties, func(v book.Variety) bool { return v.Crop == id }) {
			continue
		}
		records = append(records, book.Variety{Name: snap.Book.AnyVariety(p), Crop: id}.Record())
	}
	if len(records) > 0 {
		err = s.Farm.Add(c.Request().Context(), page.By(c), records...)
	}
	return s.started(c, snap, page.Posted(c), err, "market")
}

// startMarket adds a weekly market that wants some stems of each crop.
func (s view) startMarket(c *echo.Context, snap *say.Snapshot) error {
	from := page.Posted(c)
	f := book.NewFields(func(name string) string {
		switch name {
		case "kind":
			return "market"
		case "repeats":
			return "weekly"
		}
		return from(name)
	}).For(snap.Locale)
	o := book.ReadOrder(f)
	stems := f.Whole("stems", 1, 100_000)
	records := []book.Record{o.Record()}
	seen := make(map[string]bool)
	for _, v := range snap.Book.Varieties {
		if !seen[v.Crop] {
			seen[v.Crop] = true
			records = append(records, book.OrderLine{Order: o.ID, Line: len(seen), Crop: v.Crop, Stems: &stems, Use: "market"}.Record())
		}
	}
	err := f.Faults()
	if err == nil {
		err = s.Farm.Add(c.Request().Context(), page.By(c), records...)
	}
	return s.started(c, snap, from, err, "plan")
}

// started goes on to the next step, or shows what is wrong in this one.
func (s view) started(c *echo.Context, snap *say.Snapshot, from page.Typed, err error, next string) error {
	if faults, only := page.FaultsBy(err); only {
		return s.startPage(c, http.StatusUnprocessableEntity, snap, from, faults)
	}
	if err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, "/start#"+next)
}
