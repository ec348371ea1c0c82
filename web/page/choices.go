package page

import "dewcount/say"

func MethodField() Field {
	return Field{Name: "method", Label: "Started", Kind: "select"}.Choose(Option{Value: "", Label: "as the crop likes it best"}, Option{Value: "any", Label: "in any way it can be"}, Option{Value: "direct", Label: "sown where it grows"},
		Option{Value: "tray", Label: "in trays"}, Option{Value: "tuber", Label: "as tubers"}, Option{Value: "bulb", Label: "as bulbs"},
		Option{Value: "corm", Label: "as corms"}, Option{Value: "cutting", Label: "as cuttings"})
}

func BedField(snap *say.Snapshot) Field {
	f := Field{Name: "bed", Label: "Bed", Kind: "select"}.Choose(Option{Value: "", Label: "none yet"})
	for _, b := range snap.Book.Beds {
		f.Options = append(f.Options, Option{Value: b.ID, Label: b.ID})
	}
	return f
}
