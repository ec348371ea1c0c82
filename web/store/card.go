package store

import (
	"fmt"
	"net/http"
	"slices"
	"strings"

	"dewcount/core/crop"
	"dewcount/core/postharvest"
	"dewcount/farm/book"
	ledger "dewcount/farm/store"
	"dewcount/say"

	"github.com/labstack/echo/v5"
)

// A cardView is the card that leaves with a bouquet, as often as it fits on a page.
type cardView struct {
	Heading, None string
	Farm          string
	In            string
	Lines         []string
	Cautions      []string
	Copies        []struct{}
}

// copies is how many cards fit on a page of A4.
const copies = 6

// card shows the care card of a recipe's bouquet: of what the store's stems give it now.
func (s view) card(c *echo.Context, snap *say.Snapshot) error {
	recipe := c.QueryParam("recipe")
	if !slices.Contains(recipes(snap.Book), recipe) {
		return book.ErrNoSuchRecord
	}
	v := cardView{Heading: "Care card: " + recipe, Copies: make([]struct{}, copies)}
	if place, err := snap.Book.Place(); err == nil {
		v.Farm = place.Name
	}
	l := ledger.Of(snap.Book, s.hour(snap))
	crops := cropsOf(snap, &l, recipe)
	if crops == nil {
		v.None = "A card says what is really in the bouquet, and the store holds too little for one now."
		return s.Show(c, http.StatusOK, "card", "/store", v.Heading, snap, v)
	}
	card := postharvest.CardOf(crops)
	v.In = say.Sentence(say.List(names(crops)))
	v.Lines = careWords(card, len(crops))
	for _, caution := range card.Cautions {
		v.Cautions = append(v.Cautions, plainName(caution.Crop)+": "+caution.Words)
	}
	return s.Show(c, http.StatusOK, "card", "/store", v.Heading, snap, v)
}

// cropsOf returns the crops of which the next bouquets of a recipe are made: as many as are wanted, or one where none is.
func cropsOf(snap *say.Snapshot, l *ledger.Ledger, recipe string) []*crop.Profile {
	takes, _ := l.Takes(snap.Book, recipe, 1)
	_, wanted := toMake(snap)
	for _, t := range l.Worksheet(snap.Book, wanted, 0).Tasks {
		if t.Recipe == recipe && t.Takes != nil {
			takes = t.Takes
		}
	}
	var crops []*crop.Profile
	for _, t := range takes {
		if p := l.Heaps[t.Heap].Crop; !slices.Contains(crops, p) {
			crops = append(crops, p)
		}
	}
	return crops
}

// careWords says to somebody who takes a bouquet of so many crops home how it lasts.
func careWords(c postharvest.Card, crops int) []string {
	water := "Fresh cool water in a clean vase, renewed every second or third day. "
	if c.Deep {
		water = "Deep fresh water in a clean vase, since some of these drink much: top it up daily, renew it every second or third day. "
	}
	place := "Cool, out of the sun, away from heaters."
	if c.NoFruit {
		place = "Cool, out of the sun, away from heaters and from ripe fruit, whose gas ages them."
	}
	lines := []string{"Cut two centimetres off the ends, slanting, with a sharp knife.", water + "No leaves below the water.", place, "Pluck what fades and cut the ends again: the rest goes on."}
	for _, p := range c.Alone {
		lines = append(lines, plainName(p)+" bleeds sap into the water: do not cut its ends again.")
	}
	if c.Opening != nil {
		lines = append(lines, say.Sentence(say.List(names(c.Opening))+" will go on opening"))
	}
	lasts := fmt.Sprintf("It lasts %.0f to %.0f days in a room.", c.Days[0], c.Days[1])
	if crops > 1 {
		lasts = fmt.Sprintf("%s fades first, after %.0f days or more; the last flowers stand up to %.0f days in a room.", plainName(c.First), c.Days[0], c.Days[1])
	}
	return append(lines, lasts)
}

// plainName is a crop's name without its habit: a customer knows no "Zinnia, tall double".
func plainName(p *crop.Profile) string {
	name, _, _ := strings.Cut(p.Name, ",")
	return name
}

// names are the crops by their plain names, none twice.
func names(crops []*crop.Profile) []string {
	var all []string
	for _, p := range crops {
		if name := plainName(p); !slices.Contains(all, name) {
			all = append(all, name)
		}
	}
	return all
}
