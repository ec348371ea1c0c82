package web

import (
	"crypto/rand"
	"net/http"
	"net/url"

	"dewcount/farm"

	"github.com/labstack/echo/v5"
)

// A cutView is the page that records a cut.
type cutView struct {
	formView
	ID, Planting, Variety string
	Rungs                 []rungView
	Window, Expected      string
	Waits                 string // that it must not be cut yet
}

func (s *server) newCut(c *echo.Context, snap *farm.Snapshot, p farm.Planting) error {
	usual := map[string]string{"id": rand.Text(), "cut_at": s.usually(snap, 8)}
	return s.cutForm(c, http.StatusOK, snap, p, "", func(name string) string { return usual[name] }, nil)
}

// cutForm shows the form of a cut: of a new one, or of the one with an id.
func (s *server) cutForm(c *echo.Context, code int, snap *farm.Snapshot, p farm.Planting, id string, from typed, faults map[string]string) error {
	i := snap.Index(p.ID)
	window := snap.Model.Plantings[i].Growth.Market
	here := "/plantings/" + url.PathEscape(p.ID)
	v := cutView{formView: formView{Heading: "Record a cut", Action: here + "/cut", Save: "Record the cut", Cancel: here},
		ID: from("id"), Planting: p.ID, Variety: p.Variety, Rungs: rungsOf(snap.Model.Plantings[i].Growth.Profile.Form, window), Window: window.String(), Expected: newPlanting(snap, i).Next, Waits: waits(snap.Book, p.ID, snap.View.Today)}
	if id != "" {
		v.Heading, v.Action, v.Save = "Correct a cut", "/cuts/"+url.PathEscape(id), "Keep the correction"
		v.Withdraw = &doneView{Words: "Withdraw this cut", Kind: farm.Cuts.Name, ID: id}
	}
	v.Fields = fill([]field{
		{Name: "stems", Label: "Sound stems", Mode: "numeric", Needed: true, Hint: "Kept, seconds among them. 0 if nothing was ready."},
		{Name: "culled", Label: "Culled", Mode: "numeric", Hint: "Cut and thrown away, beside the sound ones."},
		{Name: "cull_reason", Label: "Why culled", Hint: "Such as earwigs, bent, too far open."},
		{Name: "cut_at", Label: "When", Kind: "datetime-local", Needed: true},
	}, from, faults)
	v.More = fill([]field{
		{Name: "left", Label: "Ready stems left standing", Mode: "numeric", Hint: "Empty: as the farm usually picks."},
		{Name: "seconds", Label: "Seconds", Mode: "numeric", Hint: "Of the sound stems, how many are short, bent or late."},
		{Name: "length_cm", Label: "Length in cm", Mode: "decimal"},
	}, from, faults)
	v.Fault = rest(append(v.Fields, v.More...), faults)
	return s.show(c, code, "cut", "/plantings", v.Heading+" "+p.ID, snap, v)
}

// readCut reads a cut from its form; id replaces the one that the form brought where it is not empty.
func readCut(from typed, planting, id string, snap *farm.Snapshot) (farm.Cut, error) {
	f := farm.NewFields(func(name string) string {
		switch {
		case name == "planting":
			return planting
		case name == "id" && id != "":
			return id
		}
		return from(name)
	})
	cut := farm.ReadCut(f)
	notToCome(f, "cut_at", cut.CutAt, snap.View.Today)
	return cut, f.Faults()
}

func (s *server) addCut(c *echo.Context, snap *farm.Snapshot, p farm.Planting) error {
	from := posted(c)
	cut, err := readCut(from, p.ID, "", snap)
	if err == nil {
		err = s.farm.Add(c.Request().Context(), by(c), cut.Record())
	}
	return s.afterCut(c, "recorded", snap, p, "", from, cut, err)
}

// afterCut leads on from a cut that was sent: back to its form if something is wrong with it, else to its planting.
func (s *server) afterCut(c *echo.Context, did string, snap *farm.Snapshot, p farm.Planting, id string, from typed, cut farm.Cut, err error) error {
	if faults, only := faultsBy(err); only {
		return s.cutForm(c, http.StatusUnprocessableEntity, snap, p, id, from, faults)
	}
	if err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, addressOf(did, cut.Record(), "plantings", p.ID)+"&seen="+url.QueryEscape("cuts:"+cut.ID))
}

func (s *server) editCut(c *echo.Context, snap *farm.Snapshot) error {
	cut, ok := snap.Book.Cut(c.Param("id"))
	p, grows := snap.Book.Planting(cut.Planting)
	if !ok || !grows {
		return farm.ErrNoSuchRecord
	}
	return s.cutForm(c, http.StatusOK, snap, p, cut.ID, of(cut.Record()), nil)
}

func (s *server) correctCut(c *echo.Context, snap *farm.Snapshot) error {
	old, ok := snap.Book.Cut(c.Param("id"))
	p, grows := snap.Book.Planting(old.Planting)
	if !ok || !grows {
		return farm.ErrNoSuchRecord
	}
	from := posted(c)
	cut, err := readCut(from, p.ID, old.ID, snap)
	if err == nil {
		err = s.farm.Correct(c.Request().Context(), by(c), cut.Record())
	}
	return s.afterCut(c, "corrected", snap, p, old.ID, from, cut, err)
}
