package field

import (
	"fmt"
	"net/url"

	"dewcount/farm/book"
	"dewcount/farm/work"
	"dewcount/say"
	"dewcount/web/page"

	"github.com/labstack/echo/v5"
)

func usualScouting(snap *say.Snapshot, _ book.Planting) map[string]string {
	return map[string]string{"on": snap.View.Today.String()}
}

// scoutingForm shows the form of a look for pests: of a new one, or of the one with an id.
func (s view) scoutingForm(c *echo.Context, code int, snap *say.Snapshot, p book.Planting, id string, from page.Typed, faults map[string]string) error {
	here := "/plantings/" + url.PathEscape(p.ID)
	v := page.FormView{Heading: "Pests and damage on " + p.ID, Action: here + "/scout", Save: "Record it", Cancel: here,
		Lead: fmt.Sprintf("%s. The share of spoiled stems counts in the forecast for ten days.", p.Variety)}
	if id != "" {
		v.Action, v.Save = "/scouting/"+url.PathEscape(id), "Keep the correction"
		v.Withdraw = &page.DoneView{Words: "Withdraw it", Kind: book.Scoutings.Name, ID: id}
	}
	v.Fields = page.Fill(c, []page.Field{
		{Name: "id", Kind: "hidden"},
		{Name: "cause", Label: "What was seen", List: "causes", Needed: true, Hint: "Such as earwigs, mildew, hail."},
		{Name: "on", Label: "When", Kind: "date", Needed: true},
		{Name: "stems", Label: "Stems looked at", Mode: "numeric", Needed: true},
		{Name: "spoiled", Label: "Spoiled among them", Mode: "numeric", Hint: "Empty if only the pest was seen."},
		{Name: "done", Label: "What was done", Hint: "Such as bags, picked by hand."},
		{Name: "note", Label: "Note"},
	}, from, faults)
	v.Fault = page.Rest(v.Fields, faults)
	v.Suggestions, v.ListID = s.usualCauses(snap), "causes"
	return s.Show(c, code, "form", "/plantings", v.Heading, snap, v)
}

func readScouting(from page.Typed, locale say.Locale) (book.Record, error) {
	f := book.NewFields(from)
	x := book.ReadScouting(f)
	notToComeDay(f, "on", x.On, locale)
	return x.Record(), f.Faults()
}

func (s view) usualSpray(snap *say.Snapshot, _ book.Planting) map[string]string {
	return map[string]string{"sprayed_at": s.usually(snap, 21)}
}

func (s view) sprayForm(c *echo.Context, code int, snap *say.Snapshot, p book.Planting, id string, from page.Typed, faults map[string]string) error {
	here := "/plantings/" + url.PathEscape(p.ID)
	v := page.FormView{Heading: "A spray on " + p.ID, Action: here + "/spray", Save: "Record the spray", Cancel: here,
		Lead: "Only as the product's label says, by whoever is licensed where that is asked for, and by the local rules. " + sprayHours(snap)}
	if id != "" {
		v.Action, v.Save = "/sprays/"+url.PathEscape(id), "Keep the correction"
		v.Withdraw = &page.DoneView{Words: "Withdraw it", Kind: book.Sprays.Name, ID: id}
	}
	v.Fields = page.Fill(c, []page.Field{
		{Name: "id", Kind: "hidden"},
		{Name: "product", Label: "Product", Needed: true, Hint: "As its label names it."},
		{Name: "sprayed_at", Label: "When", Kind: "datetime-local", Needed: true},
		{Name: "wait_days", Label: "Days until it may be cut", Mode: "numeric", Needed: true, Hint: "The waiting time on the label. Until then the row is marked."},
		{Name: "entry_h", Label: "Hours until anybody goes in", Mode: "numeric", Needed: true, Hint: "From the label; 0 if it names none."},
		{Name: "note", Label: "Note"},
	}, from, faults)
	v.Fault = page.Rest(v.Fields, faults)
	return s.Show(c, code, "form", "/plantings", v.Heading, snap, v)
}

// sprayHours says when no bees fly, and what the weather has against a spray.
func sprayHours(snap *say.Snapshot) string {
	place, err := snap.Book.Place()
	if err != nil {
		return ""
	}
	sky := work.SprayingOn(snap.Snapshot)
	words := fmt.Sprintf("Never on open flowers, and not while bees fly: tonight they are home from about %s.", say.Clock(sky.BeesHome, snap.View.Today, place))
	var against []string
	if sky.HotC > 0 {
		against = append(against, snap.Celsius(sky.HotC)+" are expected, which burns leaves and dries the drops")
	}
	for _, r := range sky.Rain {
		against = append(against, fmt.Sprintf("%s of rain on %s would wash it off", snap.MM(r.MM), snap.Date(r.Day)))
	}
	if against != nil {
		words += " " + say.Sentence(say.List(against))
	}
	return words
}

func readSpray(from page.Typed, locale say.Locale) (book.Record, error) {
	f := book.NewFields(from)
	x := book.ReadSpray(f)
	notToCome(f, "sprayed_at", x.SprayedAt, locale)
	return x.Record(), f.Faults()
}
