package parts

// A PickView is a pick day to choose.
type PickView struct {
	Day, Spoken, Stems string
	Chosen             bool
}
