package market

import (
	"bytes"
	"encoding/csv"
	"regexp"
	"slices"
	"strings"

	"dewcount/core/day"
	"dewcount/farm/book"
)

// A Read is an order as somebody wrote it, as far as it could be understood. It counts nothing until the grower has looked at it.
type Read struct {
	On    day.Day // zero where it names no day
	Lines []ReadLine
}

// A ReadLine is a line as it was written.
type ReadLine struct {
	Said  string // the words that it was read from
	What  string // what is meant, as the farm calls it; empty where that is not understood, or where it may be several
	May   []string
	Count int
	Bunch int // stems of a bunch where bunches are meant, 0 for single stems
}

// mostRead is how many lines of an order are read, and mostClauses how many clauses of a message: more is no order.
const mostRead, mostClauses = 200, 1000

// ReadOrder reads an order out of a message in plain words, or out of a table such as the list of what is to be had with what is wanted written into it.
func ReadOrder(b *book.Book, text string, today day.Day) Read {
	if r, ok := readTable(b, text); ok {
		return r
	}
	var r Read
	r.On, text = DayIn(text, today)
	text = clock.ReplaceAllString(text, " ") // when it is fetched
	names := namesOf(b)
	for _, said := range clauses(text) {
		line := readClause(b, names, said)
		switch {
		case line.Count == 0 && line.What == "" && line.May == nil:
			continue // neither a number nor a flower
		case line.Count == 0 && len(r.Lines) > 0 && r.Lines[len(r.Lines)-1].What == "": // such as: five bunches, yellow if there is some
			last := &r.Lines[len(r.Lines)-1]
			last.Said, last.What, last.May = last.Said+", "+said, line.What, line.May
		case line.Count == 0:
			continue
		default:
			r.Lines = append(r.Lines, line)
		}
		if len(r.Lines) == mostRead {
			break
		}
	}
	return r
}

var parted = regexp.MustCompile(`[,;\n\r?!]+|\.\s|\.$|(?i:\band\b|\bplus\b)`)

// clauses parts a message where a new thing is said.
func clauses(text string) []string {
	var parts []string
	for _, part := range parted.Split(text, mostClauses) {
		if part = strings.TrimSpace(part); part != "" {
			parts = append(parts, part)
		}
	}
	return parts
}

var bunches = regexp.MustCompile(`(?i)\bbunch(es)?\b`)

func readClause(b *book.Book, names vocabulary, said string) ReadLine {
	line := ReadLine{Said: said}
	rest := said
	line.Count, rest = NumberIn(rest)
	line.Count = max(0, line.Count)
	if bunches.MatchString(rest) {
		place, err := b.Place()
		if err == nil {
			line.Bunch = place.BunchStems
		}
		rest = bunches.ReplaceAllString(rest, " ")
	}
	line.name(b, names.of(rest))
	return line
}

// name says what a line means where that is understood.
func (l *ReadLine) name(b *book.Book, words string) {
	named := Name(b, words)
	if len(named) == 1 {
		l.What = named[0].Name
		return
	}
	for _, n := range named {
		l.May = append(l.May, n.Name)
	}
}

// A vocabulary is the words that name what a farm grows, by whether they name it by themselves: small says nothing without a flower.
type vocabulary map[string]bool

// little are words of names, such as Basil for foliage, that name nothing by themselves or with others.
var little = []string{"for", "the", "of", "and", "in", "on", "with", "a", "from", "to"}

func namesOf(b *book.Book) vocabulary {
	names := make(vocabulary)
	add := func(words []string) {
		for i, w := range words {
			if !slices.Contains(little, w) {
				names[w] = names[w] || i == 0
			}
		}
	}
	for _, v := range b.Varieties {
		if p := b.Crop(v.Crop); p != nil {
			add(tokens(p.Name))
		}
		add(tokens(v.Name))
		for _, c := range v.Colours() {
			for _, w := range tokens(c) {
				add([]string{w})
			}
		}
	}
	for _, r := range book.Roles {
		add([]string{r})
	}
	return names
}

// of returns the words of a message that name something; none where they do not by themselves.
func (names vocabulary) of(said string) string {
	var kept []string
	named := false
	for _, w := range tokens(said) {
		for _, form := range []string{w, strings.TrimSuffix(w, "s"), strings.TrimSuffix(w, "es"), strings.TrimSuffix(w, "ies") + "y"} {
			if alone, known := names[form]; known {
				named = named || alone
				kept = append(kept, form)
				break
			}
		}
	}
	if !named {
		return ""
	}
	return strings.Join(kept, " ")
}

// columns under which tables say what is wanted, how much and when, the first that is there.
var (
	whatColumns  = []string{"what", "variety", "flower", "crop"}
	countColumns = []string{"wanted", "stems", "number", "how many", "quantity"}
	dayColumns   = []string{"due_on", "due", "date", "day", "pick_day"}
)

// readTable reads a table with a heading; ok tells whether it is one. Lines of which none is wanted are left out.
func readTable(b *book.Book, text string) (r Read, ok bool) {
	text = strings.TrimPrefix(text, "\ufeff")
	first, _, _ := strings.Cut(text, "\n")
	reader := csv.NewReader(bytes.NewReader([]byte(text)))
	reader.FieldsPerRecord, reader.LazyQuotes, reader.TrimLeadingSpace = -1, true, true
	for _, comma := range []rune{';', '\t'} {
		if strings.ContainsRune(first, comma) {
			reader.Comma = comma
		}
	}
	rows, err := reader.ReadAll()
	if err != nil || len(rows) < 2 {
		return r, false
	}
	at := func(names []string) int {
		for _, n := range names {
			if i := slices.IndexFunc(rows[0], func(h string) bool { return strings.EqualFold(strings.TrimSpace(h), n) }); i >= 0 {
				return i
			}
		}
		return -1
	}
	what, count, on, colour := at(whatColumns), at(countColumns), at(dayColumns), at([]string{"colour", "color"})
	if what < 0 || count < 0 {
		return r, false
	}
	cell := func(row []string, i int) string {
		if i < 0 || i >= len(row) {
			return ""
		}
		return strings.TrimSpace(row[i])
	}
	names := namesOf(b)
	for _, row := range rows[1:] {
		n, _ := NumberIn(cell(row, count))
		if n < 1 || len(r.Lines) == mostRead {
			continue
		}
		line := ReadLine{Said: strings.Join(slices.DeleteFunc([]string{cell(row, count), cell(row, what)}, func(s string) bool { return s == "" }), " "), Count: n}
		if line.name(b, cell(row, what)); line.What == "" && line.May == nil {
			line.name(b, names.of(cell(row, colour)+" "+cell(row, what)))
		}
		if d, err := day.Parse(cell(row, on)); err == nil && (r.On.IsZero() || d.Before(r.On)) {
			r.On = d
		}
		r.Lines = append(r.Lines, line)
	}
	return r, true
}
