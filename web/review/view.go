// Package review answers, in the winter: what was expected of the year and what came, what is to be done otherwise in the next, and what the records say of the crops.
package review

import (
	"context"
	"embed"
	"fmt"
	"net/http"
	"net/url"
	"strconv"
	"strings"

	"dewcount/farm/book"
	"dewcount/farm/look"
	"dewcount/farm/review"
	"dewcount/say"
	"dewcount/web/draw"
	"dewcount/web/page"

	"github.com/labstack/echo/v5"
)

//go:embed *.html
var templates embed.FS

// A view is the site as this folder's handlers have it.
type view struct{ *page.Site }

// View returns the addresses of this folder, who may use them, and the templates that they show.
func View(site *page.Site) page.View {
	s := view{site}
	return page.View{Templates: templates, Routes: []page.Route{page.Get("/review", page.Look, s.On(s.review)), page.Post("/review/values", page.Own, s.On(s.answer))}}
}

// A reviewView is a year as it was expected beside what came.
type reviewView struct {
	Year, Verdict, Dates string
	Since                string // from when on there are records, where that is not the whole year
	Number               int
	Years                []page.LinkView
	Next                 []adviceView
	Seeds                string // address of the next year's seed list
	NextYear             string
	Crops, Plantings     cameTable
	Values               []valueView
	Empty                bool
	MayOwn               bool
}

// A cameTable is crops or plantings beside each other.
type cameTable struct {
	Name  string
	Lines []cameView
}

// A cameView is a crop or a planting.
type cameView struct {
	Name, Href, Expected, Came, First, Length, Thrown, Fates string
	Band                                                     draw.BandView
	Off                                                      bool // it came otherwise than was thought possible
}

// An adviceView is something to do otherwise, and why.
type adviceView struct{ Do, Why, Href string }

// A valueView is another value for a crop, to take or to leave.
type valueView struct{ Crop, Name, Href, Value, Words, Rests, Factor string }

// asked is the question of a year's review; there is one a state of the farm and a year.
type asked struct{ Year int }

func (s view) review(c *echo.Context, snap *say.Snapshot) error {
	place, err := snap.Book.Place()
	if err != nil {
		return err
	}
	year, years := chosen(c, snap, place.Latitude)
	title := "Looking back on " + page.YearName(year, snap)
	v := reviewView{Number: year, Year: page.YearName(year, snap), MayOwn: page.Who(c).Role.May(page.Own)}
	for _, y := range years {
		v.Years = append(v.Years, page.LinkView{Name: page.YearName(y, snap), Href: "/review?year=" + strconv.Itoa(y), Here: y == year})
	}
	if len(years) == 0 {
		v.Empty = true
		return s.Show(c, http.StatusOK, "review", "", title, snap, v)
	}
	result, ok, err := s.Answer(c, snap, "/review", title, asked{year}, func(_ context.Context, progress func(float64)) (any, error) {
		return review.CameOf(snap.Snapshot, year, progress)
	})
	if !ok || err != nil {
		return err
	}
	looked := result.(*review.Looked)
	if v.Empty = looked.Upto.Before(looked.Since); !v.Empty {
		v.fill(snap, looked)
	}
	v.NextYear, v.Seeds = page.YearName(year+1, snap), "/seeds?year="+strconv.Itoa(year+1)
	if year == years[0] {
		v.values(snap, looked)
	}
	return s.Show(c, http.StatusOK, "review", "", title, snap, v)
}

// chosen returns the year that is looked at and all of which something is on record, the latest first. In spring it is the year before.
func chosen(c *echo.Context, snap *say.Snapshot, latitude float64) (year int, years []int) {
	for _, y := range review.Years(snap.Book, snap.View.Today) {
		if y.Cut+y.Culled > 0 {
			years = append(years, y.Year)
		}
	}
	if len(years) == 0 {
		return look.SeasonYear(snap.View.Today, latitude), nil
	}
	year = years[0]
	if n, err := strconv.Atoi(c.QueryParam("year")); err == nil {
		for _, y := range years {
			if y == n {
				year = n
			}
		}
	}
	return year, years
}

func (v *reviewView) fill(snap *say.Snapshot, l *review.Looked) {
	all := &l.All
	v.Verdict = fmt.Sprintf("%s came by %s; when the year began, %s to %s were expected, likely %s.", say.Number(all.Stems, "stem"), snap.Date(l.Upto), whole(all.Expected[0]), whole(all.Expected[4]), whole(all.Expected[2]))
	soon, late, rows := 0, 0, 0
	for i := range l.Plantings {
		p := &l.Plantings[i]
		days, beyond := p.Late()
		if p.FirstCut.Likely.IsZero() || p.First.IsZero() {
			continue
		}
		rows++
		if beyond && days < 0 {
			soon++
		} else if beyond {
			late++
		}
	}
	if l.Since != l.AsOf.Add(1) {
		v.Since = fmt.Sprintf("Cuts are on record from %s on: what was expected before is left out.", snap.Date(l.Since))
	}
	if rows > 0 {
		v.Dates = fmt.Sprintf("Of %s whose first cut was foreseen, %d came sooner and %d later than was thought possible nine times in ten.", say.Number(rows, "row"), soon, late)
	}
	v.Crops.Name, v.Plantings.Name = "Crop by crop", "Planting by planting"
	most := 1.0
	for i := range l.Crops {
		most = max(most, l.Crops[i].Expected[4], float64(l.Crops[i].Stems))
	}
	for i := range l.Crops {
		c := &l.Crops[i]
		v.Crops.Lines = append(v.Crops.Lines, newCame(snap, l, c, snap.Book.Crop(c.Crop).Name, "/crops/"+url.PathEscape(c.Crop), most))
	}
	for i := range l.Plantings {
		c := &l.Plantings[i]
		v.Plantings.Lines = append(v.Plantings.Lines, newCame(snap, l, c, c.Planting+" "+c.Variety, "/plantings/"+url.PathEscape(c.Planting), most))
	}
	for _, a := range l.Next() {
		v.Next = append(v.Next, newAdvice(snap, a))
	}
}

func whole(n float64) string { return strconv.Itoa(int(n + 0.5)) }

func newCame(snap *say.Snapshot, l *review.Looked, c *review.Came, name, href string, most float64) cameView {
	e := c.Expected
	v := cameView{Name: name, Href: href, Came: strconv.Itoa(c.Stems), Expected: fmt.Sprintf("%s to %s, likely %s", whole(e[0]), whole(e[4]), whole(e[2])), Band: draw.NewBand(e[0], e[1], e[2], e[3], e[4], most, c.Stems)}
	if e[4] < 0.5 {
		v.Expected = "none yet"
	}
	v.Band.Title = "Expected " + v.Expected + "; " + v.Came + " came"
	_, v.Off = c.Part()
	switch days, beyond := c.Late(); {
	case c.First.IsZero() && c.FirstCut.Likely.IsZero():
	case c.First.IsZero():
		v.First = "none yet; expected " + snap.DayOfYear(c.FirstCut.Likely)
	default:
		v.First = snap.DayOfYear(c.First)
		if !c.FirstCut.Likely.IsZero() {
			v.First += ", " + offWords(days)
		}
		v.Off = v.Off || beyond
	}
	if c.LengthCM > 0 {
		v.Length = fmt.Sprintf("%s; the crop card says %s", snap.Exact(say.Centimetre, c.LengthCM), snap.Exact(say.Centimetre, c.UsualCM))
	}
	if n := c.Thrown(); n > 0 {
		v.Thrown = fmt.Sprintf("%d, %.0f in 100", n, 100*float64(n)/float64(n+c.Stems))
		if why := c.Reasons(); why[0] != "" {
			v.Thrown += ", above all " + why[0]
		}
	}
	v.Fates = fateWords(c, l.All.Fates.Of() > 0)
	return v
}

// offWords says by how many days something came otherwise than was likely.
func offWords(days int) string {
	switch {
	case days == 0:
		return "as expected"
	case days < 0:
		return say.Number(-days, "day") + " sooner"
	default:
		return say.Number(days, "day") + " later"
	}
}

// fateWords says what became of stems; of how many nothing is said, where the farm keeps a store at all.
func fateWords(c *review.Came, store bool) string {
	var words []string
	add := func(n int, what string) {
		if n > 0 {
			words = append(words, strconv.Itoa(n)+" "+what)
		}
	}
	f := c.Fates
	add(f.Sold, "sold")
	add(f.MadeUp, "made up")
	add(f.Lost, "went to nobody")
	add(f.There, "still there")
	add(f.Back, "brought back of these")
	if store {
		add(c.Untold(), "not written down")
	}
	add(c.Left, "were left standing")
	return strings.Join(words, ", ")
}

// newAdvice says what is to be done otherwise, and why.
func newAdvice(snap *say.Snapshot, a review.Advice) adviceView {
	name := snap.Book.Crop(a.Crop).Name
	v := adviceView{Href: "/crops/" + url.PathEscape(a.Crop)}
	switch a.Change {
	case review.FewerPlants:
		v.Do = fmt.Sprintf("%s: plant a third less", name)
		if a.Part > 0.67 {
			v.Do = fmt.Sprintf("%s: plant %.0f in 100 less", name, 100*(1-a.Part))
		}
		v.Why = fmt.Sprintf("%.0f of 100 of its %d stems in the store went to nobody", 100*a.Share, a.Stems)
	case review.MorePlants:
		v.Do = fmt.Sprintf("%s: plant %.0f in 100 more", name, 100*(a.Part-1))
		v.Why = fmt.Sprintf("%s came, fewer than nine times in ten were to be expected", say.Number(a.Stems, "stem"))
	case review.LessCulled:
		v.Do = fmt.Sprintf("%s: mind %s", name, a.Cause)
		if a.Cause == "" {
			v.Do = fmt.Sprintf("%s: write down why stems are thrown away", name)
		}
		v.Why = fmt.Sprintf("%.0f of 100 were thrown away at the cut, most for this", 100*a.Share)
	case review.SowEarlier, review.SowLater:
		when := map[review.Change]string{review.SowEarlier: "earlier", review.SowLater: "later"}[a.Change]
		v.Do = fmt.Sprintf("%s %s: %s %s, where it has to come on the day", a.Planting, name, say.Number(a.Days, "day"), when)
		v.Why, v.Href = "it was first cut "+offWords(map[bool]int{true: a.Days, false: -a.Days}[a.Change == review.SowEarlier])+" than likely; a part of that may be the year's weather", "/plantings/"+url.PathEscape(a.Planting)
	case review.DropIt:
		v.Do = fmt.Sprintf("%s: leave it out, or find somebody who wants it", name)
		v.Why = fmt.Sprintf("%.0f of 100 of its %d stems in the store went to nobody", 100*a.Share, a.Stems)
	}
	return v
}

// values adds what the records say of the values of the year's crops.
func (v *reviewView) values(snap *say.Snapshot, l *review.Looked) {
	for _, c := range l.Crops {
		for _, p := range review.Proposals(snap.Snapshot, c.Crop) {
			words, rests := valueWords(snap, p)
			v.Values = append(v.Values, valueView{Crop: c.Crop, Name: snap.Book.Crop(c.Crop).Name, Href: "/crops/" + url.PathEscape(c.Crop), Value: string(p.Value), Words: words, Rests: rests, Factor: book.Decimal(p.Factor)})
		}
	}
}

// valueWords says what a proposal would change, and what it rests on.
func valueWords(snap *say.Snapshot, p review.Proposal) (words, rests string) {
	e, _, _ := snap.Book.Entry(p.Crop)
	now := review.Take(e, p)
	num := book.Decimal
	switch p.Value {
	case review.Warmth:
		how := "slower"
		if p.Factor < 1 {
			how = "quicker"
		}
		words = fmt.Sprintf("%.0f in 100 %s than the card has it: %s instead of %s °Cd from shoots to the first bud, and so on", 100*abs(p.Factor-1), how, num(now.Thermal.BudCd), num(e.Thermal.BudCd))
	case review.Stems:
		words = fmt.Sprintf("%s instead of %s stems a plant in the first flush, %s instead of %s in a season", num(now.Yield.FirstStems), num(e.Yield.FirstStems), num(now.Yield.SeasonStems), num(e.Yield.SeasonStems))
	case review.Shoots:
		words = fmt.Sprintf("%s instead of %s new shoots after each cut", num(*now.Yield.ShootsPerCut), num(*e.Yield.ShootsPerCut))
	case review.Length:
		words = fmt.Sprintf("stems of %s at first and %s later, instead of %s and %s", snap.Exact(say.Centimetre, now.StemCM.First), snap.Exact(say.Centimetre, now.StemCM.Later), snap.Exact(say.Centimetre, e.StemCM.First), snap.Exact(say.Centimetre, e.StemCM.Later))
	}
	rests = fmt.Sprintf("%s of %s", say.Number(p.Plantings, "planting"), say.Number(p.Years, "year"))
	if p.Value == review.Length {
		return words, rests + fmt.Sprintf(", %d stems measured", p.Stems)
	}
	return words, rests + fmt.Sprintf("; between %+.0f and %+.0f in 100, four times in five", 100*(p.Bounds[0]-1), 100*(p.Bounds[1]-1))
}

func abs(v float64) float64 { return max(v, -v) }

// answer takes a value into the farm's own crop, or leaves it, and writes down which.
func (s view) answer(c *echo.Context, snap *say.Snapshot) error {
	from := page.Posted(c)
	back := "/review?year=" + url.QueryEscape(from("year")) // no fragment: a page that is worked out loads itself anew, and with one it would only be scrolled
	e, _, ok := snap.Book.Entry(from("crop"))
	if !ok {
		return book.ErrNoSuchRecord
	}
	year, err := strconv.Atoi(from("year"))
	if err != nil {
		return book.ErrNoSuchRecord
	}
	for _, p := range review.Proposals(snap.Snapshot, e.ID) {
		if string(p.Value) != from("value") || book.Decimal(p.Factor) != from("factor") {
			continue // newer records say something else: the page shows it
		}
		took := from("take") == "yes"
		words, rests := valueWords(snap, p)
		note := book.Note{On: snap.View.Today, About: book.AboutCrop, Subject: e.ID, Words: review.Answer(p, year, took, words+" ("+rests+")")}
		f := book.NewFields(page.Of(note.Record()))
		change := book.Change{Add: []book.Record{book.ReadNote(f).Record()}}
		if took {
			change.SetCrops = append(change.SetCrops, review.Take(e, p))
		}
		if err := s.Farm.Make(c.Request().Context(), page.By(c), change); err != nil {
			return err
		}
	}
	return c.Redirect(http.StatusSeeOther, back)
}
