package web

// A pickView is a pick day to choose.
type pickView struct {
	Day, Spoken, Stems string
	Chosen             bool
}
