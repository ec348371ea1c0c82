package cut

import (
	"fmt"
	"net/http"

	"dewcount/farm/work"
	"dewcount/say"

	"github.com/labstack/echo/v5"
)

// A frostView answers: what do I save before the frost, in which order, and can we?
type frostView struct {
	Heading, Answer string
	Hours, Buckets  string
	Left            string
	Rows            []frostRowView
	None            string
	Cautions        []string
}

type frostRowView struct {
	ID, Variety, Bed string
	Stems            int
	For, Holds       string
	NoTime           bool
}

// frost shows what to cut on the evening before a frost.
func (s view) frost(c *echo.Context, snap *say.Snapshot) error {
	place, err := snap.Book.Place()
	if err != nil {
		return err
	}
	e, threatens := work.FrostEveningOf(snap.Snapshot)
	v := frostView{Heading: "Before the frost"}
	switch {
	case !threatens:
		v.None = "No frost that would kill a row threatens in the next days. Should one come, this page says what to save first. " + say.FrostWords(snap)
		return s.Show(c, http.StatusOK, "frost", "/cut", v.Heading, snap, v)
	case len(e.Rows) == 0:
		v.None = fmt.Sprintf("Frost may come in the night to %s (%s), and nothing that it kills carries stems that can be used. Cover what should live on.", snap.Date(e.Night), say.Tenths(e.Chance))
		return s.Show(c, http.StatusOK, "frost", "/cut", v.Heading, snap, v)
	}
	stems, late := 0, 0
	for _, r := range e.Rows {
		stems += r.Stems
		p := &snap.Model.Plantings[r.Planting]
		row := frostRowView{ID: p.ID, Variety: p.Variety, Bed: snap.Book.BedOf(p.ID), Stems: r.Stems, Holds: "holds " + say.Days(r.Holds), NoTime: r.NoTime, For: "nobody waits for them"}
		if r.Wanted > 0 {
			row.For = fmt.Sprintf("%d %s waited for", r.Wanted, verb(r.Wanted, "is", "are"))
		}
		if r.NoTime {
			late++
		}
		v.Rows = append(v.Rows, row)
	}
	v.Answer = fmt.Sprintf("Frost in the night to %s (%s): cut about %s on the evening of %s.", snap.Date(e.Night), say.Tenths(e.Chance), say.Stems(stems), snap.Date(e.Evening))
	if e.Hands > 0 {
		v.Hours = fmt.Sprintf("About %s for one, and the light goes at %s: %s of hands that %s at %s %s done in time.", say.SpokenHours(e.Minutes), say.Clock(e.Light.To, e.Evening, place),
			say.Number(e.Hands, "pair"), verb(e.Hands, "starts", "start"), say.Clock(e.Light.From, e.Evening, place), verb(e.Hands, "is", "are"))
	}
	v.Buckets = fmt.Sprintf("Have %s ready.", say.Number(e.Buckets, "bucket"))
	if e.Room > 0 && e.Buckets > e.Room {
		v.Buckets = fmt.Sprintf("It takes %s and the store holds %d: what has no room can hang in the loft if it dries, or go away the same evening.", say.Number(e.Buckets, "bucket"), e.Room)
	}
	if late > 0 {
		v.Left = fmt.Sprintf("The crew has %s that day: it does not reach for the last %s. Call somebody in, or cover them.", say.SpokenHours(e.Crew), say.Number(late, "row"))
	}
	v.Cautions = []string{"Work while there is light: knives and full buckets in the dark hurt people. A full bucket weighs up to " + snap.KG(15) + "."}
	return s.Show(c, http.StatusOK, "frost", "/cut", v.Heading, snap, v)
}

func verb(n int, one, many string) string {
	if n == 1 {
		return one
	}
	return many
}
