package web

import (
	"crypto/rand"
	"fmt"
	"net/http"
	"net/url"

	"dewcount/core/climate"
	"dewcount/core/day"
	"dewcount/farm"

	"github.com/labstack/echo/v5"
)

func (s *server) newScouting(c *echo.Context, snap *farm.Snapshot, p farm.Planting) error {
	usual := map[string]string{"id": rand.Text(), "on": snap.View.Today.String()}
	return s.scoutingForm(c, http.StatusOK, snap, p, "", func(name string) string { return usual[name] }, nil)
}

// scoutingForm shows the form of a look for pests: of a new one, or of the one with an id.
func (s *server) scoutingForm(c *echo.Context, code int, snap *farm.Snapshot, p farm.Planting, id string, from typed, faults map[string]string) error {
	here := "/plantings/" + url.PathEscape(p.ID)
	v := formView{Heading: "Pests and damage on " + p.ID, Action: here + "/scout", Save: "Record it", Cancel: here,
		Lead: fmt.Sprintf("%s. The share of spoiled stems counts in the forecast for ten days.", p.Variety)}
	if id != "" {
		v.Action, v.Save = "/scouting/"+url.PathEscape(id), "Keep the correction"
		v.Withdraw = &doneView{Words: "Withdraw it", Kind: farm.Scoutings.Name, ID: id}
	}
	v.Fields = fill([]field{
		{Name: "id", Kind: "hidden"},
		{Name: "cause", Label: "What was seen", List: "causes", Needed: true, Hint: "Such as earwigs, mildew, hail."},
		{Name: "on", Label: "When", Kind: "date", Needed: true},
		{Name: "stems", Label: "Stems looked at", Mode: "numeric", Needed: true},
		{Name: "spoiled", Label: "Spoiled among them", Mode: "numeric", Hint: "Empty if only the pest was seen."},
		{Name: "done", Label: "What was done", Hint: "Such as bags, picked by hand."},
		{Name: "note", Label: "Note"},
	}, from, faults)
	v.Fault = rest(v.Fields, faults)
	v.Suggestions, v.ListID = s.usualCauses(snap), "causes"
	return s.show(c, code, "form", "/plantings", v.Heading, snap, v)
}

func (s *server) keepScouting(c *echo.Context, snap *farm.Snapshot, p farm.Planting, id string) error {
	from := posted(c)
	f := farm.NewFields(onPlantingForm(from, p.ID, id))
	x := farm.ReadScouting(f)
	notToComeDay(f, "on", x.On, snap.View.Today)
	return s.keep(c, f.Faults(), x.Record(), id != "", func(faults map[string]string) error {
		return s.scoutingForm(c, http.StatusUnprocessableEntity, snap, p, id, from, faults)
	}, "plantings", p.ID)
}

func (s *server) addScouting(c *echo.Context, snap *farm.Snapshot, p farm.Planting) error {
	return s.keepScouting(c, snap, p, "")
}

func (s *server) editScouting(c *echo.Context, snap *farm.Snapshot) error {
	r, p, err := onRecord(c, snap, &farm.Scoutings)
	if err != nil {
		return err
	}
	return s.scoutingForm(c, http.StatusOK, snap, p, r.ID(), of(r), nil)
}

func (s *server) correctScouting(c *echo.Context, snap *farm.Snapshot) error {
	r, p, err := onRecord(c, snap, &farm.Scoutings)
	if err != nil {
		return err
	}
	return s.keepScouting(c, snap, p, r.ID())
}

func (s *server) newSpray(c *echo.Context, snap *farm.Snapshot, p farm.Planting) error {
	usual := map[string]string{"id": rand.Text(), "sprayed_at": s.usually(snap, 21)}
	return s.sprayForm(c, http.StatusOK, snap, p, "", func(name string) string { return usual[name] }, nil)
}

func (s *server) sprayForm(c *echo.Context, code int, snap *farm.Snapshot, p farm.Planting, id string, from typed, faults map[string]string) error {
	here := "/plantings/" + url.PathEscape(p.ID)
	v := formView{Heading: "A spray on " + p.ID, Action: here + "/spray", Save: "Record the spray", Cancel: here,
		Lead: "Only as the product's label says, by whoever is licensed where that is asked for, and by the local rules. " + sprayHours(snap)}
	if id != "" {
		v.Action, v.Save = "/sprays/"+url.PathEscape(id), "Keep the correction"
		v.Withdraw = &doneView{Words: "Withdraw it", Kind: farm.Sprays.Name, ID: id}
	}
	v.Fields = fill([]field{
		{Name: "id", Kind: "hidden"},
		{Name: "product", Label: "Product", Needed: true, Hint: "As its label names it."},
		{Name: "sprayed_at", Label: "When", Kind: "datetime-local", Needed: true},
		{Name: "wait_days", Label: "Days until it may be cut", Mode: "numeric", Needed: true, Hint: "The waiting time on the label. Until then the row is marked."},
		{Name: "entry_h", Label: "Hours until anybody goes in", Mode: "numeric", Needed: true, Hint: "From the label; 0 if it names none."},
		{Name: "note", Label: "Note"},
	}, from, faults)
	v.Fault = rest(v.Fields, faults)
	return s.show(c, code, "form", "/plantings", v.Heading, snap, v)
}

// sprayHours says when no bees fly, and what the weather has against a spray.
func sprayHours(snap *farm.Snapshot) string {
	place, err := snap.Book.Place()
	if err != nil {
		return ""
	}
	today := snap.View.Today
	const beesHome = 0.5 // hours after sunset
	sunset := 12 + min(23, max(1, climate.SunHours(place.Latitude, today.YearDay())))/2
	words := fmt.Sprintf("Never on open flowers, and not while bees fly: tonight they are home from about %s.", clock(sunset+beesHome, today, place))
	var against []string
	if e := snap.Stand.Weather(today); e.TmaxC >= 25 {
		against = append(against, fmt.Sprintf("%.0f °C are expected, which burns leaves and dries the drops", e.TmaxC))
	}
	for _, d := range []day.Day{today, today.Add(1)} {
		if mm, known := rainOn(snap.Book, d, today); known && mm >= 1 {
			against = append(against, fmt.Sprintf("%.0f mm of rain on %s would wash it off", mm, d.Spoken()))
		}
	}
	if against != nil {
		words += " " + sentence(list(against))
	}
	return words
}

// rainOn returns the rain of a day as it was observed, or foretold last.
func rainOn(b *farm.Book, d, today day.Day) (float64, bool) {
	var last farm.WeatherDay
	found := false
	for _, w := range b.Weather {
		if w.Date != d || w.RainMM == nil || w.IssuedOn.After(today) {
			continue
		}
		if !found || w.IssuedOn.IsZero() || !last.IssuedOn.IsZero() && w.IssuedOn.After(last.IssuedOn) {
			last, found = w, true
		}
	}
	if !found {
		return 0, false
	}
	return *last.RainMM, true
}

func (s *server) keepSpray(c *echo.Context, snap *farm.Snapshot, p farm.Planting, id string) error {
	from := posted(c)
	f := farm.NewFields(onPlantingForm(from, p.ID, id))
	x := farm.ReadSpray(f)
	notToCome(f, "sprayed_at", x.SprayedAt, snap.View.Today)
	return s.keep(c, f.Faults(), x.Record(), id != "", func(faults map[string]string) error {
		return s.sprayForm(c, http.StatusUnprocessableEntity, snap, p, id, from, faults)
	}, "plantings", p.ID)
}

func (s *server) addSpray(c *echo.Context, snap *farm.Snapshot, p farm.Planting) error {
	return s.keepSpray(c, snap, p, "")
}

func (s *server) editSpray(c *echo.Context, snap *farm.Snapshot) error {
	r, p, err := onRecord(c, snap, &farm.Sprays)
	if err != nil {
		return err
	}
	return s.sprayForm(c, http.StatusOK, snap, p, r.ID(), of(r), nil)
}

func (s *server) correctSpray(c *echo.Context, snap *farm.Snapshot) error {
	r, p, err := onRecord(c, snap, &farm.Sprays)
	if err != nil {
		return err
	}
	return s.keepSpray(c, snap, p, r.ID())
}

// waits says that a planting must not be cut on a day, empty where it may.
func waits(b *farm.Book, planting string, on day.Day) string {
	spray, until, waits := b.Waiting(planting, on)
	if !waits {
		return ""
	}
	return fmt.Sprintf("Do not cut %s before %s: sprayed with %s on %s, %d days of waiting by its label.", planting, until.Spoken(), spray.Product, spray.SprayedAt.Day().Spoken(), spray.WaitDays)
}
