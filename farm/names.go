package farm

import (
	"dewcount/core/crop"
	"dewcount/core/day"
	"fmt"
	"slices"
	"strings"
	"unicode"
)

func compareFold(a, b string) int { return strings.Compare(strings.ToLower(a), strings.ToLower(b)) }

func boolOrder(a, b bool) int {
	switch {
	case a == b:
		return 0
	case a:
		return 1
	default:
		return -1
	}
}

func maxDay(a, b day.Day) day.Day {
	if a.Before(b) {
		return b
	}
	return a
}

// anyVariety returns a variety that a crop's sowings are booked on where none was named: the only one on record, or "some" of the crop.
func (b *Book) anyVariety(cropID, cropName string) string {
	var names []string
	for _, v := range b.Varieties {
		if v.Crop == cropID {
			names = append(names, v.Name)
		}
	}
	if len(names) == 1 {
		return names[0]
	}
	return "Some " + strings.ToLower(cropName)
}

// AnyVariety returns the variety that sowings of a crop are booked on where none is named.
func (b *Book) AnyVariety(p *crop.Profile) string { return b.anyVariety(p.ID, p.Name) }

// freeSuccession makes a name for a plan that no other has.
func (b *Book) freeSuccession(p *SuccessionPlan) string {
	what := p.Variety
	if what == "" {
		what = p.Profile.Name
	}
	year, _, _ := p.From.Date()
	for n := 1; ; n++ {
		name := fmt.Sprintf("%s %d", what, year)
		if n > 1 {
			name = fmt.Sprintf("%s (%d)", name, n)
		}
		if !slices.ContainsFunc(b.Plantings, func(o Planting) bool { return o.Succession == name }) {
			return name
		}
	}
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
