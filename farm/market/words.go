package market

import (
	"slices"
	"strings"
	"unicode"

	"dewcount/farm/book"
)

// idle are words that say nothing of what is wanted.
var idle = []string{"any", "anything", "of", "the", "a", "some", "stem", "stems", "flower", "flowers", "in", "and", "or", "for", "on", "by", "to", "at", "with", "from", "please", "this", "next"}

// A Named is what somebody's words may mean: a line without its number, and how it is called.
type Named struct {
	Line book.OrderLine
	Name string
}

// Name returns what words for stems may mean, in any order and any letters: a variety, a crop, a role, a colour, or a crop or role in a colour. Several where the words
// leave it open, such as a zinnia that is tall or small; none where they name nothing that the farm knows.
func Name(b *book.Book, words string) []Named {
	named := names(b, words)
	for _, n := range named {
		if book.CompareFold(n.Name, strings.TrimSpace(words)) == 0 { // said as the farm calls it: nothing is left open
			return []Named{n}
		}
	}
	return named
}

func names(b *book.Book, words string) []Named {
	for _, v := range b.Varieties {
		if sameWords(v.Name, words) {
			return []Named{{book.OrderLine{Variety: v.Name}, v.Name}}
		}
	}
	left := tokens(words)
	left = slices.DeleteFunc(left, func(w string) bool { return slices.Contains(idle, w) })
	if len(left) == 0 {
		return nil
	}
	colour, rest := takeColour(b, left)
	for more, others := takeColour(b, rest); more != ""; more, others = takeColour(b, rest) { // any of several
		colour, rest = colour+" / "+more, others
	}
	role, rest := takeRole(rest)
	line := book.OrderLine{Colour: colour, Role: role}
	if len(rest) == 0 {
		if colour == "" && role == "" {
			return nil
		}
		return []Named{{line, b.Called(line)}}
	}
	var found []Named
	add := func(fits func(w, name string) bool) {
		for _, p := range b.Crops() {
			if all(rest, tokens(p.Name+" "+strings.ReplaceAll(p.ID, "-", " ")), fits) {
				one := line
				one.Crop = p.ID
				found = append(found, Named{one, b.Called(one)})
			}
		}
	}
	add(func(w, name string) bool {
		return name == w || name == w+"s" || name+"s" == w || name+"es" == w || strings.TrimSuffix(w, "ies")+"y" == name
	})
	if found == nil {
		add(func(w, name string) bool { return len(w) > 3 && strings.HasPrefix(name, w) })
	}
	grown := slices.DeleteFunc(slices.Clone(found), func(n Named) bool {
		return !slices.ContainsFunc(b.Varieties, func(v book.Variety) bool { return v.Crop == n.Line.Crop })
	})
	if len(grown) > 0 {
		return grown
	}
	if found == nil { // words of a variety, such as its plain name without the colour
		for _, v := range b.Varieties {
			if all(left, tokens(v.Name), func(w, name string) bool { return name == w || name == w+"s" || name+"s" == w }) {
				found = append(found, Named{book.OrderLine{Variety: v.Name}, v.Name})
			}
		}
	}
	return found
}

// tokens are words in small letters.
func tokens(words string) []string {
	return strings.FieldsFunc(strings.ToLower(words), func(r rune) bool { return !unicode.IsLetter(r) && !unicode.IsMark(r) })
}

func sameWords(a, b string) bool {
	return slices.Equal(slices.Sorted(slices.Values(tokens(a))), slices.Sorted(slices.Values(tokens(b))))
}

// all tells whether each of some words fits one of a name's.
func all(words, name []string, fits func(w, name string) bool) bool {
	for _, w := range words {
		if !slices.ContainsFunc(name, func(n string) bool { return fits(w, n) }) {
			return false
		}
	}
	return true
}

// takeColour takes the words of a colour that the farm has out of others, the longest that there is.
func takeColour(b *book.Book, words []string) (colour string, rest []string) {
	for _, v := range b.Varieties {
		for _, c := range v.Colours() {
			of := tokens(c)
			if len(of) > len(tokens(colour)) && all(of, words, func(w, name string) bool { return w == name }) {
				colour = c
			}
		}
	}
	of := tokens(colour)
	return colour, slices.DeleteFunc(slices.Clone(words), func(w string) bool { return slices.Contains(of, w) })
}

func takeRole(words []string) (role string, rest []string) {
	for _, r := range book.Roles {
		rest = slices.DeleteFunc(slices.Clone(words), func(w string) bool { return w == r || w == r+"s" })
		if len(rest) < len(words) {
			return r, rest
		}
	}
	return "", words
}
