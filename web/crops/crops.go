package crops

import (
	"fmt"
	"net/http"
	"net/url"
	"slices"
	"strings"

	"dewcount/core/crop"
	"dewcount/croptable"
	"dewcount/farm/book"
	"dewcount/fault"
	"dewcount/say"
	"dewcount/web/draw"
	"dewcount/web/page"
	"dewcount/web/parts"

	"github.com/labstack/echo/v5"
)

// A cropsView lists all crops, those of the farm first.
type cropsView struct {
	Search    string
	Least     string         // a height that could be searched for
	Varieties []foundVariety // that the search names by more than their crop
	Here      []cropLink
	Others    []cropLink
}

type cropLink struct {
	ID, Name, Words string
	Rungs           []draw.RungView
	Own             bool
}

func (s view) crops(c *echo.Context, snap *say.Snapshot) error {
	const leastCM = 80
	v := cropsView{Least: snap.Exact(say.Centimetre, leastCM), Search: strings.TrimSpace(c.QueryParam("search"))}
	for _, variety := range snap.Book.FindVarieties(v.Search) {
		p := snap.Book.Crop(variety.Crop)
		v.Varieties = append(v.Varieties, foundVariety{variety.Name, newVariety(snap.Locale, variety, p).Words, p.Name, "/crops/" + url.PathEscape(p.ID)})
	}
	varieties := make(map[string]int)
	for _, variety := range snap.Book.Varieties {
		varieties[variety.Crop]++
	}
	for _, p := range snap.Book.Crops() {
		e, own, _ := snap.Book.Entry(p.ID)
		if v.Search != "" && !strings.Contains(strings.ToLower(p.Name+" "+e.Botanical+" "+e.Life+" "+e.Form), strings.ToLower(v.Search)) {
			continue
		}
		windows, _ := snap.Book.Windows(p)
		l := cropLink{ID: p.ID, Name: p.Name, Words: say.LifeWords[p.Life] + ", " + say.HabitWords[p.Yield.Habit], Rungs: draw.RungsOf(p.Ladder, windows[crop.Market]), Own: own}
		if n := varieties[p.ID]; n > 0 {
			l.Words += "; " + varietiesHere(n)
			v.Here = append(v.Here, l)
		} else {
			v.Others = append(v.Others, l)
		}
	}
	return s.Show(c, http.StatusOK, "crops", "/crops", "Crops", snap, v)
}

// A foundVariety is a variety with what it is, which leads to its crop.
type foundVariety struct{ Name, Words, Crop, Href string }

// A cropCard is all that is known of a crop, and what this farm chose.
type cropCard struct {
	ID, Name, Botanical, About string
	Own                        bool
	Ladder                     []draw.RungView
	Uses                       []useView
	Needs                      []factView
	Care, Hazards, Pests       []string
	Cut                        *questionView
	Questions                  []questionView
	Varieties                  []varietyView
	Rows                       []string
	CanPlan                    bool
	Notes                      parts.NotesView
}

type useView struct {
	Use, Window, Tests string
	Rungs              []draw.RungView
}

type factView struct{ What, Fact string }

// A questionView is a question with its schools, and the one chosen here.
type questionView struct {
	ID, Words, Action, CSRF string
	Acts                    string // what goes by it
	Shown                   string // the school that stands
	Choices                 []choiceView
}

type choiceView struct {
	ID, Words, Why string
	Chosen         bool
	Default        bool
}

type varietyView struct{ Name, Words, Warning string }

func (s view) cropCard(c *echo.Context, snap *say.Snapshot) error {
	e, own, ok := snap.Book.Entry(c.Param("crop"))
	if !ok {
		return book.ErrNoSuchRecord
	}
	p := snap.Book.Crop(e.ID)
	v := cropCard{ID: e.ID, Name: e.Name, Botanical: e.Botanical, About: say.Sentence(say.LifeWords[p.Life] + ", " + say.HabitWords[p.Yield.Habit]), Own: own, Needs: cropFacts(snap.Locale, e, p),
		Care: prose(snap.Locale, e.Care), Pests: e.Pests, CanPlan: true}
	v.Hazards = slices.DeleteFunc(slices.Clone(e.Hazards), func(h string) bool { return slices.Contains(p.Scalding(), h) }) // it stands beside the hot bath
	windows, has := snap.Book.Windows(p)
	var none [crop.Rungs]float64
	v.Ladder = draw.LadderOf(p.Ladder, none, windows[crop.Market])
	for u := range crop.Use(crop.Uses) {
		if has[u] {
			v.Uses = append(v.Uses, useView{u.String(), windows[u].String(), strings.Join(say.TestWords(e.Cut[u.String()].Tests), "; "), draw.RungsOf(p.Ladder, windows[u])})
		}
	}
	if len(p.Schools) > 0 {
		v.Cut = cutQuestion(snap.Book, p)
	}
	for _, q := range p.Questions() {
		view := questionView{ID: q.ID, Words: q.Words, Acts: q.Acts, Shown: snap.Book.SchoolOf(p.ID, q.ID)}
		chosen := snap.Book.Chosen(p, q.ID)
		for i, o := range q.Choices {
			view.Choices = append(view.Choices, choiceView{o.ID, o.Words, o.Why, o.ID == chosen, i == 0})
		}
		v.Questions = append(v.Questions, view)
	}
	for _, variety := range snap.Book.Varieties {
		if variety.Crop == e.ID {
			v.Varieties = append(v.Varieties, newVariety(snap.Locale, variety, p))
		}
	}
	for _, planting := range snap.Book.Plantings {
		if variety, _ := snap.Book.Variety(planting.Variety); variety.Crop == e.ID {
			v.Rows = append(v.Rows, planting.ID)
		}
	}
	slices.Sort(v.Rows)
	v.Notes = parts.NewNotes(snap, book.AboutCrop, e.ID)
	token, _ := c.Get("csrf").(string)
	address := "/crops/" + url.PathEscape(e.ID) + "/school"
	for i := range v.Questions {
		v.Questions[i].Action, v.Questions[i].CSRF = address, token
	}
	if v.Cut != nil {
		v.Cut.Action, v.Cut.CSRF = address, token
	}
	return s.Show(c, http.StatusOK, "cropcard", "/crops", e.Name, snap, v)
}

// cropFacts says what a crop needs.
func cropFacts(locale say.Locale, e croptable.Entry, p *crop.Profile) []factView {
	var facts []factView
	add := func(when bool, what, fact string, args ...any) {
		if when {
			facts = append(facts, factView{what, fmt.Sprintf(fact, args...)})
		}
	}
	num := book.Decimal
	var starts []string
	for _, m := range p.Starts {
		starts = append(starts, string(m))
	}
	add(true, "Started", "%s; best %s", strings.Join(starts, ", "), e.PreferredStart)
	if g := e.Germination; g != nil {
		light := map[string]string{"needs-light": "on the surface, in light", "needs-dark": "covered, in the dark", "either": "in light or dark"}[g.Light]
		add(true, "Seed", "soil of %s or more, best %s; %s to %s days; %s, %s deep; %.0f in 100 come up", locale.Exact(say.Celsius, g.SoilMinC), locale.Number(say.Celsius, g.SoilOptC), num(g.Days[0]), num(g.Days[1]), light, locale.Exact(say.Millimetre, g.DepthMM), 100*g.Rate)
	}
	if n := e.Nursery; n != nil {
		bound := map[string]string{"stunts": "kept longer it is stunted for good", "slows": "kept longer it is held back", "tolerates": "it bears waiting"}[n.RootBound]
		heat := ""
		if n.OffHeat {
			heat = "; off the heat when up"
		}
		add(true, "Nursery", "%s to %s weeks, %s; %d days to harden off%s", num(n.Weeks[0]), num(n.Weeks[1]), bound, n.HardenDays, heat)
	}
	add(true, "Frost", "top growth dies at %s", locale.Exact(say.Celsius, e.FrostKillC))
	add(e.Winter.Overwinters, "Winter", "an autumn start stands through a usual winter")
	add(e.Winter.ChillDays > 0, "Chill", "%d cold days before it moves on", e.Winter.ChillDays)
	add(true, "Warmth", "grows from %s, fastest at %s, not beyond %s", locale.Exact(say.Celsius, e.Temperature.BaseC), locale.Number(say.Celsius, e.Temperature.OptC), locale.Number(say.Celsius, e.Temperature.CeilingC))
	add(e.Daylength.Kind != "neutral" && e.Daylength.CriticalH != nil, "Day length", "buds in %s days, about %s hours", e.Daylength.Kind, numOr(e.Daylength.CriticalH))
	add(true, "First cut", "%d to %d days from its usual start", e.TypicalDays[0], e.TypicalDays[1])
	add(e.SowEveryDays != nil, "By the calendar", "a sowing every %d to %d days", p.SowEveryDays[0], p.SowEveryDays[1])
	add(true, "Space", "%s apart, %s to %s high, support: %s", locale.Exact(say.Centimetre, e.SpacingCM), locale.Number(say.Centimetre, e.HeightCM[0]), locale.Exact(say.Centimetre, e.HeightCM[1]), e.Support)
	add(true, "Pinching", "%s", map[string]string{"always": "always", "optional": "may be pinched: later and more stems", "never": "never"}[e.Pinch.Policy]+atCM(locale, e.Pinch.AtCM))
	add(true, "Stems", "%s a plant in the first flush, %s in a season; %s at first, %s later", num(e.Yield.FirstStems), num(e.Yield.SeasonStems), locale.Exact(say.Centimetre, e.StemCM.First), locale.Number(say.Centimetre, e.StemCM.Later))
	add(true, "Vase", "%s to %s days at %s; %s in water", num(e.Vase.Days20C[0]), num(e.Vase.Days20C[1]), locale.Celsius(20), map[string]string{"no": "does not open further", "some": "opens a little", "yes": "opens"}[e.InWater.Opens])
	add(true, "Store", "%s to %s, %s days at the most%s", locale.Number(say.Celsius, e.Store.TempC[0]), locale.Exact(say.Celsius, e.Store.TempC[1]), num(e.Store.MaxDays), coldWords(locale, e.Store.ChillInjuryBelowC))
	add(true, "Bucket", "%d stems in ten litres", e.BucketStems)
	return facts
}

func numOr(n *float64) string {
	if n == nil {
		return ""
	}
	return book.Decimal(*n)
}

func atCM(locale say.Locale, cm *float64) string {
	if cm == nil {
		return ""
	}
	return ", at " + locale.Exact(say.Centimetre, *cm)
}

func coldWords(locale say.Locale, c *float64) string {
	if c == nil {
		return ""
	}
	return "; hurt below " + locale.Exact(say.Celsius, *c)
}

func newVariety(locale say.Locale, v book.Variety, p *crop.Profile) varietyView {
	var parts []string
	for _, part := range []string{v.Colour, v.Role} {
		if part != "" {
			parts = append(parts, part)
		}
	}
	own := func(n *float64, unit string) {
		if n != nil {
			parts = append(parts, locale.Exact(say.Centimetre, *n)+unit)
		}
	}
	own(v.HeightCM, " high")
	own(v.StemCM, " of stem")
	own(v.SpacingCM, " apart")
	if v.Days != nil {
		parts = append(parts, fmt.Sprintf("%d days to the first cut", *v.Days))
	}
	if v.Traits != "" {
		parts = append(parts, v.Traits)
	}
	view := varietyView{Name: v.Name, Words: strings.Join(parts, ", ")}
	if p.TooLow(orNone(v.HeightCM), orNone(v.StemCM)) {
		view.Warning = "too low for cutting: a bedding form looks the same as seed and seedlings, and ends up without a stem"
	}
	return view
}

func prose(locale say.Locale, sentences []string) []string {
	said := make([]string, len(sentences))
	for i, s := range sentences {
		said[i] = locale.Prose(s)
	}
	return said
}

func orNone(n *float64) float64 {
	if n == nil {
		return 0
	}
	return *n
}

// chooseSchool writes down which school is followed in a question of a crop.
func (s view) chooseSchool(c *echo.Context, snap *say.Snapshot) error {
	id := c.Param("crop")
	p := snap.Book.Crop(id)
	if p == nil {
		return book.ErrNoSuchRecord
	}
	question, school := c.FormValue("question"), c.FormValue("school")
	if question != "cut" && !slices.ContainsFunc(p.Questions(), func(q crop.Question) bool {
		return q.ID == question && slices.ContainsFunc(q.Choices, func(o crop.Choice) bool { return o.ID == school })
	}) {
		return fault.List{{Field: "school", Advice: "this crop has no such school: choose one from its card"}}
	}
	if err := s.Farm.ChooseSchool(c.Request().Context(), page.By(c), id, question, c.FormValue(page.ShownKey), school); err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, "/crops/"+url.PathEscape(id)+"#q-"+url.QueryEscape(question))
}

func varietiesHere(n int) string {
	if n == 1 {
		return "1 variety here"
	}
	return fmt.Sprintf("%d varieties here", n)
}

func cutQuestion(b *book.Book, p *crop.Profile) *questionView {
	chosen := b.SchoolOf(p.ID, "cut")
	table, _ := p.Window(crop.Market, "")
	v := &questionView{ID: "cut", Shown: chosen, Words: "Rung to cut on for the market", Acts: "the forecast, the call at the row and every promise", Choices: []choiceView{{"", table.String(), "the table's, until a school is chosen", chosen == "", true}}}
	for _, o := range p.Schools {
		v.Choices = append(v.Choices, choiceView{o.ID, o.Window.String(), o.Why, o.ID == chosen, false})
	}
	return v
}
