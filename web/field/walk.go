package field

import (
	"fmt"
	"math"
	"net/http"
	"slices"

	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/croptable"
	"dewcount/farm/work"
	"dewcount/say"
	"dewcount/web/assets"
	"dewcount/web/draw"
	"dewcount/web/draw/ladder"
	"dewcount/web/page"

	"github.com/labstack/echo/v5"
)

// A walkView is the count of all rows on one page, so that it works on where there is no signal.
type walkView struct {
	Beds   []walkBed
	Rungs  []draw.RungView // of the buttons; the drawings follow the row
	Data   walkData
	Causes []string
}

type walkBed struct {
	Name string
	Rows []page.Option
}

// walkData is what the page's script needs.
type walkData struct {
	Today    string              `json:"today"`
	Now      string              `json:"now"` // in the demo, whose clock stands; empty where the phone's own time counts
	Zone     string              `json:"zone"`
	Counter  string              `json:"counter"`
	Rungs    []string            `json:"rungs"`
	Rows     []walkRow           `json:"rows"`
	Words    map[string][]string `json:"words"` // of the rungs, by form
	Drawings map[string]string   `json:"drawings"`
}

type walkRow struct {
	ID       string     `json:"id"`
	Name     string     `json:"name"`
	Form     string     `json:"form"`
	Plants   int        `json:"plants"`
	Sample   int        `json:"sample"`
	Hint     string     `json:"hint"`
	Expected []float64  `json:"expected"` // stems on each rung, a plant
	Window   []string   `json:"window"`
	Calls    []callView `json:"calls"`
	Wag      bool       `json:"wag"` // its necks are tried
	Due      bool       `json:"due"` // somebody waits for it and nobody is sure
	Done     string     `json:"done"`
	Waiting  string     `json:"waiting"`
}

func (s view) walk(c *echo.Context, snap *say.Snapshot) error {
	place, err := snap.Book.Place()
	if err != nil {
		return err
	}
	v := walkView{Data: walkData{Today: snap.View.Today.String(), Zone: place.Zone.String(), Counter: page.By(c), Words: make(map[string][]string), Drawings: make(map[string]string)}}
	if !place.DemoDay.IsZero() {
		v.Data.Now = day.At(snap.View.Today, 6, 0).String()
	}
	for k := range crop.Rung(crop.Rungs) {
		v.Rungs, v.Data.Rungs = append(v.Rungs, draw.NewRung(ladder.Any, k)), append(v.Data.Rungs, k.String())
	}
	for _, id := range work.Walk(snap.Book, snap.View.Today) {
		i := snap.Index(id)
		if i < 0 || snap.Over(i) || snap.Rests(i, snap.View.Today) {
			continue
		}
		row := newWalkRow(snap, i)
		v.Data.Rows = append(v.Data.Rows, row)
		if v.Data.Words[row.Form] == nil {
			for k := range crop.Rung(crop.Rungs) {
				v.Data.Words[row.Form] = append(v.Data.Words[row.Form], crop.Sign(row.Form, k))
			}
			v.Data.Drawings[row.Form] = assets.Address("ladder/" + ladder.Known(row.Form) + ".svg")
		}
		bed := snap.Book.BedOf(id)
		if bed == "" {
			bed = "no bed"
		}
		if n := len(v.Beds); n == 0 || v.Beds[n-1].Name != bed {
			v.Beds = append(v.Beds, walkBed{Name: bed})
		}
		last := &v.Beds[len(v.Beds)-1]
		last.Rows = append(last.Rows, page.Option{Value: id, Label: row.ID + " " + snap.Model.Plantings[i].Variety})
	}
	v.Causes = s.usualCauses(snap)
	return s.Show(c, http.StatusOK, "walk", "/count", "Count", snap, v)
}

// usualCauses are the pests of the crops that stand here, for a list of suggestions.
func (s view) usualCauses(snap *say.Snapshot) []string {
	causes := []string{"rain", "hail", "heat", "wind"}
	for _, p := range snap.Model.Plantings {
		if e, _, ok := snap.Book.Entry(p.Growth.Profile.ID); ok {
			causes = append(causes, e.Pests...)
		}
	}
	slices.Sort(causes)
	return slices.Compact(causes)
}

// triesNecks tells whether a crop's stems are wagged before they are cut.
func triesNecks(e croptable.Entry) bool {
	return slices.Contains(e.Cut[crop.Market.String()].Tests, "stiff-neck")
}

func newWalkRow(snap *say.Snapshot, i int) walkRow {
	p := &snap.Model.Plantings[i]
	standing := snap.Stand.Standing(i)
	r := walkRow{ID: p.ID, Name: p.ID + " " + p.Variety, Form: p.Growth.Profile.Ladder, Plants: p.Growth.Plants}
	for _, n := range standing.Rungs {
		r.Expected = append(r.Expected, math.Round(100*n/float64(r.Plants))/100)
	}
	for k := p.Growth.Market.From; k <= p.Growth.Market.To; k++ {
		r.Window = append(r.Window, k.String())
	}
	if e, _, ok := snap.Book.Entry(p.Growth.Profile.ID); ok {
		r.Wag = triesNecks(e)
	}
	r.Calls = callsOf(snap, i)
	if last, ok := snap.Book.LastCount(p.ID); ok && last.CountedAt.Day() == snap.View.Today {
		r.Done = last.CountedAt.String()
	}
	r.Due = work.CountNow(snap.Snapshot, i)
	r.Waiting = snap.Waits(p.ID, snap.View.Today)
	r.Sample, r.Hint = sampleHint(snap, i)
	return r
}

// sampleHint says how many plants of a row to count, which, and what that and twice as many would leave of the next pick's spread.
func sampleHint(snap *say.Snapshot, i int) (int, string) {
	sample, plants := snap.Sample(i), snap.Model.Plantings[i].Growth.Plants
	if !sample.Buds {
		return sample.Plants, "No buds are expected here yet: a look along the row will do."
	}
	hint := fmt.Sprintf("Count %d of these %d plants", sample.Plants, plants)
	if sample.Plants == plants {
		hint = fmt.Sprintf("Count all %d plants", plants)
	} else if sample.Every > 1 {
		hint += ", every " + say.Ordinal(sample.Every)
	}
	if sample.Few {
		return sample.Plants, hint + "."
	}
	said := func(bounds [2]float64) string { return fmt.Sprintf("%.0f–%.0f", bounds[0], bounds[1]) }
	pick := snap.Forecast.PickDays[0]
	stems := fmt.Sprintf("the %s stems of %s", said(sample.Now), snap.Date(pick))
	if pick.Sub(snap.View.Today) < 7 {
		stems = fmt.Sprintf("%s's %s stems", pick.Weekday(), said(sample.Now))
	}
	if n, bounds, ok := sample.Narrowing(plants); ok {
		with := said(bounds)
		switch {
		case n == sample.Plants:
			hint += fmt.Sprintf(": it narrows %s to about %s", stems, with)
		case n >= plants:
			hint += fmt.Sprintf(". All would narrow %s to about %s", stems, with)
		default:
			hint += fmt.Sprintf(". %d would narrow %s only to about %s", n, stems, with)
		}
	}
	return sample.Plants, hint + "."
}
