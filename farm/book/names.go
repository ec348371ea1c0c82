package book

import (
	"fmt"
	"strings"
	"unicode"

	"dewcount/core/crop"
)

// CompareFold orders names, whatever their capitals.
func CompareFold(a, b string) int { return strings.Compare(strings.ToLower(a), strings.ToLower(b)) }

// AnyVariety returns the variety that sowings of a crop are booked on where none is named: the only one on record, or "some" of the crop.
func (b *Book) AnyVariety(p *crop.Profile) string {
	var names []string
	for _, v := range b.Varieties {
		if v.Crop == p.ID {
			names = append(names, v.Name)
		}
	}
	if len(names) == 1 {
		return names[0]
	}
	return "Some " + strings.ToLower(p.Name)
}

// FreeName makes a short name for a planting of a variety: the first letters of its words, and the next number.
func (b *Book) FreeName(variety string) string {
	initials := ""
	for _, word := range strings.Fields(variety) {
		if letter := []rune(word)[0]; unicode.IsLetter(letter) && len([]rune(initials)) < 3 {
			initials += string(unicode.ToUpper(letter))
		}
	}
	if initials == "" {
		initials = "P"
	}
	for n := 1; ; n++ {
		name := fmt.Sprintf("%s%d", initials, n)
		if _, taken := b.Planting(name); !taken {
			return name
		}
	}
}
