package field

import (
	"net/url"

	"dewcount/core/crop"
	"dewcount/farm/book"
	"dewcount/say"
	"dewcount/web/draw"
	"dewcount/web/page"

	"github.com/labstack/echo/v5"
)

// A cutView is the page that records a cut.
type cutView struct {
	page.FormView
	ID, Planting, Variety string
	Rungs                 []draw.RungView
	Window, Expected      string
	Waits                 string   // that it must not be cut yet
	Hazards, Cautions     []string // of the crop, and of any cut
}

func (s view) usualCut(snap *say.Snapshot, _ book.Planting) map[string]string {
	return map[string]string{"cut_at": s.usually(snap, 8)}
}

// cutForm shows the form of a cut: of a new one, or of the one with an id.
func (s view) cutForm(c *echo.Context, code int, snap *say.Snapshot, p book.Planting, id string, from page.Typed, faults map[string]string) error {
	i := snap.Index(p.ID)
	window := snap.Model.Plantings[i].Growth.Market
	here := "/plantings/" + url.PathEscape(p.ID)
	v := cutView{FormView: page.FormView{Heading: "Record a cut", Action: here + "/cut", Save: "Record the cut", Cancel: here},
		ID: from("id"), Planting: p.ID, Variety: p.Variety, Rungs: draw.RungsOf(snap.Model.Plantings[i].Growth.Profile.Ladder, window), Window: window.String(), Expected: say.NextCut(snap, i), Waits: snap.Waits(p.ID, snap.View.Today)}
	v.Hazards, v.Cautions = cutCautions(snap, snap.Model.Plantings[i].Growth.Profile)
	if id != "" {
		v.Heading, v.Action, v.Save = "Correct a cut", "/cuts/"+url.PathEscape(id), "Keep the correction"
		v.Withdraw = &page.DoneView{Words: "Withdraw this cut", Kind: book.Cuts.Name, ID: id}
	}
	v.Fields = page.Fill(c, []page.Field{
		{Name: "stems", Label: "Sound stems", Mode: "numeric", Needed: true, Hint: "Kept, seconds among them. 0 if nothing was ready."},
		{Name: "culled", Label: "Culled", Mode: "numeric", Hint: "Cut and thrown away, beside the sound ones."},
		{Name: "cull_reason", Label: "Why culled", Hint: "Such as earwigs, bent, too far open."},
		{Name: "cut_at", Label: "When", Kind: "datetime-local", Needed: true},
	}, from, faults)
	v.More = page.Fill(c, []page.Field{
		{Name: "left", Label: "Ready stems left standing", Mode: "numeric", Hint: "Empty: as the farm usually picks."},
		{Name: "seconds", Label: "Seconds", Mode: "numeric", Hint: "Of the sound stems, how many are short, bent or late."},
		{Name: "length_cm", Label: "Length in cm", Mode: "decimal"},
	}, from, faults)
	v.Fault = page.Rest(append(v.Fields, v.More...), faults)
	return s.Show(c, code, "cut", "/plantings", v.Heading+" "+p.ID, snap, v)
}

// cutCautions are what somebody who cuts a crop must heed: in the row, and where its water is poured if that is hot here.
func cutCautions(snap *say.Snapshot, p *crop.Profile) (row, any []string) {
	if snap.Book.Chosen(p, "condition") == "hot" {
		any = p.Scalding()
	}
	return p.Handling(), append(any, "Knives cut: close them on the walk. A full bucket weighs up to "+snap.KG(15)+".")
}

func readCut(from page.Typed, locale say.Locale) (book.Record, error) {
	f := book.NewFields(from).For(locale)
	cut := book.ReadCut(f)
	notToCome(f, "cut_at", cut.CutAt, locale)
	return cut.Record(), f.Faults()
}
