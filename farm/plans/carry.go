package plans

import (
	"cmp"
	"slices"
	"strings"

	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/farm/book"
	"dewcount/farm/look"

	"github.com/maruel/natural"
)

// A Carried is a planting of a growing year as it would be in the next.
type Carried struct {
	From    book.Planting
	To      book.Planting
	Moved   bool // into another bed, since its kind stood in its own
	NoOther bool // its kind stood in its own bed, and no other has room
	Past    bool // its start would be past already
}

// aYear is by how many days a start moves: fifty-two weeks, so that it stays on its weekday.
const aYear = 364

// CarryOver returns the plantings of a growing year as they would be in the next one, in the order of their starts: a year later on the same weekday, without squares,
// in another bed of the same cover where a kind of its genus stood in its own in either of the last two years. What stands for years is left where it is, and what the next
// year has already, of the same variety started within a few days, is not made again.
func CarryOver(s *look.Snapshot, year int) []Carried {
	b := s.Book
	place, err := b.Place()
	if err != nil {
		return nil // a snapshot was made of it, so it is sound
	}
	c := carrier{b: b, in: func(p book.Planting) int { return look.SeasonYear(p.StartedOn, place.Latitude) }, stood: make(map[string]bool), area: make(map[string]float64)}
	for _, p := range b.Plantings {
		if y := c.in(p); y == year || y == year-1 {
			c.stood[p.Bed+"\x00"+c.genus(p)] = true
		} else if y == year+1 {
			c.area[p.Bed] += c.m2(p)
		}
	}
	taken := b.Own()
	var all []Carried
	for _, p := range byStart(b.Plantings) {
		profile := b.ProfileOf(p)
		if c.in(p) != year || profile == nil || profile.Lasts(p.Method) || p.Method == crop.Established || c.there(p) {
			continue
		}
		next := Carried{From: p, To: p}
		to := &next.To
		to.ID, to.Squares, to.Succession, to.EndedOn = taken.FreeName(p.Variety), "", "", day.Day{}
		for _, on := range []*day.Day{&to.StartedOn, &to.PlantedOutOn, &to.PinchedOn, &to.BoughtOn} {
			if !on.IsZero() {
				*on = on.Add(aYear)
			}
		}
		next.Past = to.StartedOn.Before(s.View.Today)
		if c.stood[p.Bed+"\x00"+c.genus(p)] && p.Bed != "" {
			to.Bed, next.Moved = c.other(p)
			next.NoOther = !next.Moved
		}
		c.area[to.Bed] += c.m2(p)
		taken.Plantings = append(taken.Plantings, *to)
		all = append(all, next)
	}
	return all
}

// byStart returns plantings in the order of their starts, and of one day of their names.
func byStart(plantings []book.Planting) []book.Planting {
	return slices.SortedStableFunc(slices.Values(plantings), func(x, y book.Planting) int {
		return cmp.Or(x.StartedOn.Compare(y.StartedOn), natural.Compare(x.ID, y.ID))
	})
}

type carrier struct {
	b     *book.Book
	in    func(book.Planting) int // its growing year
	stood map[string]bool         // beds and the genera that stood in them of late
	area  map[string]float64      // m² that the next year's plantings take, by bed
}

func (c *carrier) genus(p book.Planting) string {
	if profile := c.b.ProfileOf(p); profile != nil {
		genus, _, _ := strings.Cut(profile.Botanical, " ")
		return genus
	}
	return ""
}

func (c *carrier) m2(p book.Planting) float64 {
	profile := c.b.ProfileOf(p)
	if profile == nil {
		return 0
	}
	const cm2 = 1e4
	spacing := c.b.SpacingCM(p.Variety, profile)
	return float64(p.Plants) * spacing * spacing / cm2
}

// there tells whether the next year has a planting already: of the same variety, started in the same way within a few days.
func (c *carrier) there(p book.Planting) bool {
	const few = 4 // days
	for _, o := range c.b.Plantings {
		if off := o.StartedOn.Sub(p.StartedOn.Add(aYear)); o.Variety == p.Variety && o.Method == p.Method && off >= -few && off <= few {
			return true
		}
	}
	return false
}

// other returns the bed with the most room left beside what was given to it, of the same cover, in which no kind of the planting's genus stood of late; its own where there
// is none.
func (c *carrier) other(p book.Planting) (string, bool) {
	const shared = 1.5 // of a bed's area that plantings which follow each other through a year may take together
	own, _ := c.b.Bed(p.Bed)
	best, most := p.Bed, 0.0
	for _, x := range c.b.Beds {
		if x.ID == p.Bed || x.Cover != own.Cover || x.LengthM == nil || x.WidthM == nil || c.stood[x.ID+"\x00"+c.genus(p)] {
			continue
		}
		if left := shared**x.LengthM**x.WidthM - c.area[x.ID] - c.m2(p); left > most {
			best, most = x.ID, left
		}
	}
	return best, best != p.Bed
}
