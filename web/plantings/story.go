package plantings

import (
	"fmt"
	"net/url"
	"slices"

	"dewcount/core/crop"
	"dewcount/farm/book"
	"dewcount/say"
)

// A storyLine is a record of a planting.
type storyLine struct {
	When, Words, Who, Edit, Kind, ID string
	Past                             string // how it was ended, for what no longer stands
	sort                             float64
}

// story lists a planting's records, the newest first, with what no longer stands.
func story(snap *say.Snapshot, planting string) []storyLine {
	locale := snap.Locale
	var lines []storyLine
	for _, c := range snap.Book.Counts {
		if c.Planting == planting {
			lines = append(lines, countLine(c, locale))
		}
	}
	for _, c := range snap.Book.Cuts {
		if c.Planting == planting {
			lines = append(lines, cutLine(c, locale))
		}
	}
	for _, e := range snap.Book.Events {
		if e.Planting == planting {
			words := map[string]string{book.Emerged: "most plants are up", book.FirstBud: "first tight buds", book.ShortDays: "short days begin", book.Fleeced: "fleece laid over it", book.Shaded: "shade cloth laid over it", book.Uncovered: "uncovered", book.Pinched: "pinched", book.PlantedOut: "planted out"}[e.Event]
			if words == "" {
				words = e.Event
			}
			lines = append(lines, storyLine{When: snap.Date(e.On), Words: words, Kind: book.Events.Name, ID: e.ID, sort: e.On.At(0)})
		}
	}
	for _, x := range snap.Book.Scoutings {
		if x.Planting == planting {
			lines = append(lines, scoutingLine(x, locale))
		}
	}
	for _, x := range snap.Book.Sprays {
		if x.Planting == planting {
			lines = append(lines, sprayLine(x, locale))
		}
	}
	for _, n := range snap.Book.NotesOn(book.AboutPlanting, planting) {
		lines = append(lines, storyLine{When: snap.Date(n.On), Words: n.Words, Edit: "/notes/" + url.PathEscape(n.ID), Kind: book.Notes.Name, ID: n.ID, sort: n.On.At(12)})
	}
	for i := range lines {
		if made, ok := snap.Book.AuthorOf(book.KindNamed(lines[i].Kind), lines[i].ID); ok && lines[i].Who == "" {
			lines[i].Who = made.By
		}
	}
	for _, p := range snap.Book.History {
		if line, ok := pastLine(p, planting, locale); ok {
			lines = append(lines, line)
		}
	}
	slices.SortStableFunc(lines, func(a, b storyLine) int {
		switch {
		case a.sort > b.sort:
			return -1
		case a.sort < b.sort:
			return 1
		default:
			return 0
		}
	})
	return lines
}

func countLine(c book.Count, locale say.Locale) storyLine {
	var seen []string
	for k, n := range c.Stems {
		if n > 0 {
			seen = append(seen, fmt.Sprintf("%d %s", n, crop.Rung(k)))
		}
	}
	words := fmt.Sprintf("count of %d plants: nothing in bud", c.PlantsCount)
	if len(seen) > 0 {
		words = fmt.Sprintf("count of %d plants: %s", c.PlantsCount, say.List(seen))
	}
	return storyLine{When: locale.Moment(c.CountedAt), Words: words, Who: c.Counter, Edit: "/counts/" + url.PathEscape(c.ID), Kind: book.Counts.Name, ID: c.ID,
		sort: c.CountedAt.Instant(6)}
}

func cutLine(c book.Cut, locale say.Locale) storyLine {
	words := "cut " + say.Stems(c.Stems)
	if c.Culled != nil && *c.Culled > 0 {
		words += fmt.Sprintf(", %d culled", *c.Culled)
		if c.CullReason != "" {
			words += ": " + c.CullReason
		}
	}
	if c.Left != nil && *c.Left > 0 {
		words += fmt.Sprintf(", %d left standing", *c.Left)
	}
	return storyLine{When: locale.Moment(c.CutAt), Words: words, Edit: "/cuts/" + url.PathEscape(c.ID), Kind: book.Cuts.Name, ID: c.ID, sort: c.CutAt.Instant(8)}
}

func scoutingLine(x book.Scouting, locale say.Locale) storyLine {
	words := fmt.Sprintf("%s seen on %s", x.Cause, say.Stems(x.Stems))
	if x.Spoiled != nil {
		words = fmt.Sprintf("%s: %d of %s spoiled", x.Cause, *x.Spoiled, say.Stems(x.Stems))
	}
	if x.Done != "" {
		words += ", " + x.Done
	}
	return storyLine{When: locale.Date(x.On), Words: words, Edit: "/scouting/" + url.PathEscape(x.ID), Kind: book.Scoutings.Name, ID: x.ID, sort: x.On.At(7)}
}

func sprayLine(x book.Spray, locale say.Locale) storyLine {
	return storyLine{When: locale.Moment(x.SprayedAt), Words: fmt.Sprintf("sprayed with %s, not cut before %s", x.Product, locale.Date(x.SprayedAt.Day().Add(x.WaitDays))),
		Edit: "/sprays/" + url.PathEscape(x.ID), Kind: book.Sprays.Name, ID: x.ID, sort: x.SprayedAt.Instant(20)}
}

// pastLine shows a record of a planting that was corrected or withdrawn.
func pastLine(p book.Version, planting string, locale say.Locale) (storyLine, bool) {
	r, err := p.Record()
	if err != nil || !slices.Contains(r.Kind.Columns, "planting") || r.Field("planting") != planting {
		return storyLine{}, false
	}
	var line storyLine
	b := new(book.Book)
	if _, err := b.Read(r.Kind, r.Lines); err != nil {
		return storyLine{}, false
	}
	switch r.Kind {
	case book.Counts:
		line = countLine(b.Counts[0], locale)
	case book.Cuts:
		line = cutLine(b.Cuts[0], locale)
	case book.Scoutings:
		line = scoutingLine(b.Scoutings[0], locale)
	case book.Sprays:
		line = sprayLine(b.Sprays[0], locale)
	case book.Plantings:
		line = storyLine{When: locale.Date(b.Plantings[0].StartedOn), Words: about(b.Plantings[0], locale), Kind: r.Kind.Name, ID: r.ID(),
			sort: b.Plantings[0].StartedOn.At(0)}
	default:
		return storyLine{}, false
	}
	line.Edit = ""
	line.Past = map[string]string{"superseded": "corrected since", "withdrawn": "withdrawn"}[p.Ended]
	if p.EndedBy != "" {
		line.Past += " by " + p.EndedBy
	}
	return line, true
}
