package web

import "dewcount/farm/look"

func methodField() field {
	return field{Name: "method", Label: "Started", Kind: "select"}.choose(option{Value: "", Label: "as the crop likes it best"}, option{Value: "any", Label: "in any way it can be"}, option{Value: "direct", Label: "sown where it grows"},
		option{Value: "tray", Label: "in trays"}, option{Value: "tuber", Label: "as tubers"}, option{Value: "bulb", Label: "as bulbs"},
		option{Value: "corm", Label: "as corms"}, option{Value: "cutting", Label: "as cuttings"})
}

func bedField(snap *look.Snapshot) field {
	f := field{Name: "bed", Label: "Bed", Kind: "select"}.choose(option{Value: "", Label: "none yet"})
	for _, b := range snap.Book.Beds {
		f.Options = append(f.Options, option{Value: b.ID, Label: b.ID})
	}
	return f
}
