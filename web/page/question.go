package page

import (
	"dewcount/core/plan"
	"dewcount/say"

	"github.com/labstack/echo/v5"
)

// A Question is a form that asks for a plan: its answer has the address of the question.
type Question struct {
	Action    string
	Fields    []Field
	Varieties []string // on record, for the field of that name
	Fault     string
}

// Ask fills in the form of a question with what was asked, and what is wrong with it.
func Ask(c *echo.Context, snap *say.Snapshot, action string, fields []Field, from Typed, faults map[string]string) Question {
	q := Question{Action: action, Fields: Fill(c, fields, from, faults)}
	q.Fault = Rest(q.Fields, faults)
	for _, v := range snap.Book.Varieties {
		q.Varieties = append(q.Varieties, v.Name)
	}
	return q
}

// CropField asks for a crop that can be sown in succession.
func CropField(snap *say.Snapshot) Field {
	f := Field{Name: "crop", Label: "Crop", Kind: "select"}.Choose(Option{Value: "", Label: "that of the variety"})
	for _, p := range snap.Book.Crops() {
		if plan.Succeeds(p) {
			f.Options = append(f.Options, Option{Value: p.ID, Label: p.Name})
		}
	}
	return f
}

// VarietyField asks for a variety on record.
func VarietyField() Field {
	return Field{Name: "variety", Label: "Variety", List: "varieties", Hint: "Empty: any of the crop."}
}

// MethodField asks how it is started.
func MethodField() Field {
	return Field{Name: "method", Label: "Started", Kind: "select"}.Choose(Option{Value: "", Label: "as the crop likes it best"}, Option{Value: "any", Label: "in any way it can be"}, Option{Value: "direct", Label: "sown where it grows"},
		Option{Value: "tray", Label: "in trays"}, Option{Value: "tuber", Label: "as tubers"}, Option{Value: "bulb", Label: "as bulbs"},
		Option{Value: "corm", Label: "as corms"}, Option{Value: "cutting", Label: "as cuttings"})
}

// BedField asks for a bed.
func BedField(snap *say.Snapshot) Field {
	f := Field{Name: "bed", Label: "Bed", Kind: "select"}.Choose(Option{Value: "", Label: "none yet"})
	for _, b := range snap.Book.Beds {
		f.Options = append(f.Options, Option{Value: b.ID, Label: b.ID})
	}
	return f
}
