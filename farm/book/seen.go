package book

import (
	"crypto/sha256"
	"encoding/hex"
	"errors"
	"slices"
	"strconv"
	"strings"

	"dewcount/core/crop"
	"dewcount/core/day"
)

// An Event is what was seen or done on a planting, and when.
type Event struct {
	ID, Planting, Event string
	On                  day.Day
}

// The events that the model reads; other words are notes.
const (
	Emerged   = "emerged"
	FirstBud  = "first_bud"
	ShortDays = "short_days" // blackout began over a steered crop
	Fleeced   = "fleeced"    // fleece was laid over the row
	Shaded    = "shaded"     // shade cloth
	Uncovered = "uncovered"  // either was taken off
)

// ReadEvent reads an event.
func ReadEvent(f *Fields) Event {
	e := Event{ID: f.ID("id"), Planting: f.Name("planting", "the planting"), Event: f.Note("event"), On: f.Day("on")}
	if e.Event == "" {
		f.Fault("event", "what happened is missing: write it here")
	}
	if e.ID == "" {
		e.ID = idOf(Events.Name, e.Planting, e.Event, e.On.String())
	}
	return e
}

// Record returns the event as text.
func (e Event) Record() Record {
	return Record{Events, [][]string{{e.Planting, e.Event, e.On.String(), e.ID}}}
}

// idOf makes the id of a record that was given none from what it says, so that the same record read twice is one.
func idOf(parts ...string) string {
	sum := sha256.Sum256([]byte(strings.Join(parts, "\x00")))
	return hex.EncodeToString(sum[:8])
}

// countHour is the hour that a count has whose hour was not written down.
const CountHour = 6

// A Count is what a morning count saw: on so many plants, the stems of each rung.
type Count struct {
	ID          string
	CountedAt   day.Moment
	Planting    string
	PlantsCount int
	Counter     string
	Stems       [crop.Rungs]int
	Firm        [crop.Rungs]*int // of the stems, how many passed the stiff-neck test; nil where not tried
}

// Total returns the stems counted on all rungs.
func (c Count) Total() int {
	sum := 0
	for _, n := range c.Stems {
		sum += n
	}
	return sum
}

// mostStems is the most stems that one number can hold: beyond it a key was held down.
const mostStems = 1_000_000

// ReadCountHead reads what a count's lines have in common.
func ReadCountHead(f *Fields) Count {
	return Count{
		ID: f.ID("id"), CountedAt: f.Moment("counted_at"), Planting: f.Name("planting", "the planting"),
		PlantsCount: f.Whole("plants_counted", 1, mostPlants), Counter: f.Text("counter"),
	}
}

// ReadCountLine reads the rung of a line and its stems into c, and returns the rung.
func ReadCountLine(f *Fields, c *Count) crop.Rung {
	rung, err := crop.ParseRung(f.Raw("rung"))
	if err != nil {
		f.Fault("rung", "%v", err)
		return 0
	}
	c.Stems[rung] = f.Whole("stems", 0, mostStems)
	c.Firm[rung] = f.OptWhole("firm", 0, mostStems)
	if firm := c.Firm[rung]; firm != nil && *firm > c.Stems[rung] {
		f.Fault("firm", "%d of %d stems cannot be firm: count the firm ones among the stems", *firm, c.Stems[rung])
	}
	return rung
}

// Record returns the count as text: a line for each rung on which stems were seen, one of tight with none where nothing was.
func (c Count) Record() Record {
	r := Record{Kind: Counts}
	line := func(k crop.Rung) {
		r.Lines = append(r.Lines, []string{c.CountedAt.String(), c.Planting, strconv.Itoa(c.PlantsCount), k.String(),
			strconv.Itoa(c.Stems[k]), optWhole(c.Firm[k]), c.Counter, c.ID})
	}
	for k := range crop.Rung(crop.Rungs) {
		if c.Stems[k] > 0 || c.Firm[k] != nil {
			line(k)
		}
	}
	if len(r.Lines) == 0 {
		line(crop.Tight)
	}
	return r
}

// WithID returns the count with an id made from what it says where it has none.
func (c Count) WithID() Count {
	if c.ID == "" {
		parts := []string{Counts.Name}
		for _, line := range c.Record().Lines {
			parts = append(parts, line...)
		}
		c.ID = idOf(parts...)
	}
	return c
}

// A Cut is what was taken from a planting at once.
type Cut struct {
	ID         string
	CutAt      day.Moment
	Planting   string
	Stems      int  // sound stems kept
	Culled     *int // cut and thrown away, beside Stems; nil where not written down
	CullReason string
	LengthCM   *float64
	Left       *int // ready stems left standing; nil: as the farm's picking says
	Seconds    *int // of Stems, how many are short, bent or late
}

// Taken returns the stems that left the row.
func (c Cut) Taken() int { return c.Stems + OrZero(c.Culled) }

// ReadCut reads a cut.
func ReadCut(f *Fields) Cut {
	c := Cut{
		ID: f.ID("id"), CutAt: f.Moment("cut_at"), Planting: f.Name("planting", "the planting"),
		Stems: f.Whole("stems", 0, mostStems), Culled: f.OptWhole("culled", 0, mostStems), CullReason: f.Text("cull_reason"),
		LengthCM: f.OptNumber("length_cm", 1, 300), Left: f.OptWhole("left", 0, mostStems), Seconds: f.OptWhole("seconds", 0, mostStems),
	}
	if c.Seconds != nil && *c.Seconds > c.Stems {
		f.Fault("seconds", "%d seconds of %d stems cannot be: count the seconds among the stems", *c.Seconds, c.Stems)
	}
	if c.ID == "" {
		c.ID = idOf(append([]string{Cuts.Name}, c.Record().Lines[0]...)...)
	}
	return c
}

// Record returns the cut as text.
func (c Cut) Record() Record {
	return Record{Cuts, [][]string{{c.CutAt.String(), c.Planting, strconv.Itoa(c.Stems), optWhole(c.Culled), c.CullReason, optDecimal(c.LengthCM),
		optWhole(c.Left), optWhole(c.Seconds), c.ID}}}
}

// A WeatherDay is a day's weather, observed or forecast.
type WeatherDay struct {
	Date         day.Day
	TminC, TmaxC float64
	RainMM       *float64
	IssuedOn     day.Day // the evening on which it was forecast; zero where it was observed
}

// ReadWeather reads a day's weather.
func ReadWeather(f *Fields) WeatherDay {
	w := WeatherDay{Date: f.Day("date"), TminC: f.Number("tmin_c", -70, 60), TmaxC: f.Number("tmax_c", -70, 60),
		RainMM: f.OptNumber("rain_mm", 0, 2000), IssuedOn: f.OptDay("issued_on")}
	if w.TmaxC < w.TminC {
		f.Fault("tmax_c", "the day's highest %s is below its lowest %s: check both", f.measure("tmax_c", w.TmaxC), f.measure("tmin_c", w.TminC))
	}
	if !w.IssuedOn.IsZero() && !w.IssuedOn.Before(w.Date) {
		f.Fault("issued_on", "a forecast for %s cannot be issued on %s: leave this empty for an observed day", w.Date, w.IssuedOn)
	}
	return w
}

// Record returns the day's weather as text.
func (w WeatherDay) Record() Record {
	return Record{Weather, [][]string{{w.Date.String(), Decimal(w.TminC), Decimal(w.TmaxC), optDecimal(w.RainMM), w.IssuedOn.String()}}}
}

// checkColour tells what is wrong with a colour: one word, or shares as "coral:0.6;red:0.4".
func checkColour(s string) error {
	if !strings.ContainsAny(s, ":;") {
		return nil
	}
	for part := range strings.SplitSeq(s, ";") {
		name, share, ok := strings.Cut(part, ":")
		n, err := strconv.ParseFloat(share, 64)
		if !ok || strings.TrimSpace(name) == "" || err != nil || !(0 <= n && n <= 1) {
			return errors.New("write one colour, or a mix with shares such as coral:0.6;red:0.4")
		}
	}
	return nil
}

// Colours returns the variety's colours: one, or those of a mix.
func (v Variety) Colours() []string {
	var colours []string
	for part := range strings.SplitSeq(v.Colour, ";") {
		name, _, _ := strings.Cut(part, ":")
		if name = strings.TrimSpace(name); name != "" {
			colours = append(colours, name)
		}
	}
	return colours
}

// ColourShare returns the share of a variety's stems that has a colour, or one of several such as white / blush, 0 to 1: all of them where any colour will do.
func (v Variety) ColourShare(colour string) float64 {
	if colour == "" || strings.EqualFold(v.Colour, colour) {
		return 1
	}
	if strings.Contains(colour, "/") && !slices.ContainsFunc(v.Colours(), func(c string) bool { return strings.EqualFold(c, colour) }) {
		share := 0.0
		for c := range strings.SplitSeq(colour, "/") {
			if c = strings.TrimSpace(c); c != "" {
				share += v.ColourShare(c)
			}
		}
		return min(1, share)
	}
	for part := range strings.SplitSeq(v.Colour, ";") {
		name, share, ok := strings.Cut(part, ":")
		if n, err := strconv.ParseFloat(strings.TrimSpace(share), 64); ok && err == nil && strings.EqualFold(strings.TrimSpace(name), colour) {
			return n
		}
	}
	return 0
}

// What was done to a row on a day, which is written down with the planting too: growth goes by it.
const (
	Pinched    = "pinched"
	PlantedOut = "planted_out"
)

// Rain returns the rain of each day in mm as it was known on the evening of a day: observed, else as it was foretold last.
func (b *Book) Rain(asOf day.Day) map[day.Day]float64 {
	rain := make(map[day.Day]float64)
	issued := make(map[day.Day]day.Day) // zero where it was observed
	for _, w := range b.Weather {
		if w.RainMM == nil || w.IssuedOn.After(asOf) {
			continue
		}
		last, known := issued[w.Date]
		if known && !w.IssuedOn.IsZero() && (last.IsZero() || w.IssuedOn.Before(last)) {
			continue
		}
		issued[w.Date], rain[w.Date] = w.IssuedOn, *w.RainMM
	}
	return rain
}
