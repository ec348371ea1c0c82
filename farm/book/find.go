package book

import (
	"regexp"
	"slices"
	"strconv"
	"strings"
)

// From which height on a variety is tall, and up to which it is short, in cm, as growers of cut flowers say.
const (
	tallCM  = 90
	shortCM = 60
)

var heightWords = regexp.MustCompile(`(\d+) ?(cm|in\b|inch)`)

// FindVarieties returns the varieties that fit all of some words, in any order and letters: parts of a name, of the crop's, of a colour, a role or a trait; tall, short,
// or a least height such as 80 cm or 32 in. None where there are no words.
func (b *Book) FindVarieties(words string) []Variety {
	words = strings.ToLower(words)
	least, most := 0.0, 0.0
	if m := heightWords.FindStringSubmatch(words); m != nil {
		const inchCM = 2.54
		if least, _ = strconv.ParseFloat(m[1], 64); m[2] != "cm" {
			least *= inchCM
		}
		words = strings.Replace(words, m[0], " ", 1)
	}
	asked := slices.DeleteFunc(strings.Fields(words), func(w string) bool {
		switch w {
		case "tall":
			least = max(least, tallCM)
		case "short":
			most = shortCM
		default:
			return slices.Contains([]string{"in", "of", "for", "the", "a", "and", "cm"}, w)
		}
		return true
	})
	if len(asked) == 0 && least == 0 && most == 0 {
		return nil
	}
	var found []Variety
	for _, v := range b.Varieties {
		p := b.Crop(v.Crop)
		if p == nil {
			continue
		}
		low, high := p.HeightCM[0], p.HeightCM[1]
		if v.HeightCM != nil {
			low, high = *v.HeightCM, *v.HeightCM
		}
		text := strings.ToLower(strings.Join([]string{v.Name, p.Name, p.Botanical, v.Colour, v.Role, v.Traits}, " "))
		fits := !slices.ContainsFunc(asked, func(w string) bool {
			return !strings.Contains(text, w) && !strings.Contains(text, strings.TrimSuffix(w, "s"))
		})
		if fits && high >= least && (most == 0 || low <= most) {
			found = append(found, v)
		}
	}
	slices.SortStableFunc(found, func(x, y Variety) int { return CompareFold(x.Name, y.Name) })
	return found
}
