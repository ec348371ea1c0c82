package play

import (
	"cmp"
	"context"
	"fmt"
	"math"
	"slices"
	"strings"

	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/demo"
	"dewcount/farm"
	"dewcount/farm/book"
	"dewcount/farm/plans"
	"dewcount/farm/store"
	"dewcount/standin"
)

// What the made-up crew does where the player does not: words of the setting game.
const (
	Counts = "counts"
	Cuts   = "cuts"
	Sells  = "sells"
)

const crewName = "crew"

// Does tells whether the crew of a season does something.
func Does(place book.Place, what string) bool {
	return slices.Contains(strings.Fields(place.Game), what)
}

// Over tells whether a season has come to its end.
func Over(place book.Place) bool { return place.DemoDay.After(Last) }

// mostRun is for how many days a season runs on where nothing is to be decided.
const mostRun = 28

// Pass lets a day of a season pass.
func Pass(ctx context.Context, store farm.Store) error {
	_, err := pass(ctx, store, 1)
	return err
}

// A Why is what made a season stop, and the row or order that it is about.
type Why struct{ What, Of string }

// What makes a season stop.
const (
	Asked     = "asked"   // somebody asks for stems
	Budding   = "budding" // a row has its first buds
	NearlyDue = "due"     // a promise is due in three days
	NewMonth  = "month"
	FrostNear = "frost"
	Unplanned = "unplanned" // a week has passed, and nothing is planted
	Quiet     = "quiet"     // nothing has come up for weeks
	Ended     = "ended"
)

// Run lets days pass until something is to be decided, and says what.
func Run(ctx context.Context, store farm.Store) (why Why, err error) {
	return pass(ctx, store, mostRun)
}

func pass(ctx context.Context, store farm.Store, days int) (why Why, err error) {
	return why, store.Change(ctx, func() (book.Change, error) {
		b, _, err := store.Load(ctx)
		if err != nil {
			return book.Change{}, err
		}
		var c book.Change
		c, why, err = run(b.Own(), days)
		return c, err
	})
}

// run lets so many days at most pass over a book, which it changes, and returns what that leaves on record.
func run(b *book.Book, days int) (c book.Change, why Why, err error) {
	place, err := b.Place()
	if err != nil {
		return c, why, err
	}
	if place.Game == "" || place.DemoDay.IsZero() {
		return c, why, fmt.Errorf("this farm is no season to be played: its days pass by themselves")
	}
	today := place.DemoDay
	if Over(place) {
		return c, Why{What: Ended}, nil
	}
	c = book.Change{Who: crewName, Stamp: today.String() + "T20:00:00Z"}
	weather := demo.WeatherOf(place)
	field := demo.FieldOf(b, place, weather, today)
	for range days {
		c.Correct = append(c.Correct, trueCuts(b, field, today)...)
		work := demo.MorningOf(b, field, place, today)
		if !Does(place, Counts) {
			work.Counts = nil
		}
		if !Does(place, Cuts) {
			work.Cuts = nil
		}
		work.Enter(b)
		c.Add = append(c.Add, work.Records()...)
		for _, p := range work.Ended {
			c.Correct = append(c.Correct, p.Record())
		}
		moves := stored(b, today)
		if Does(place, Sells) {
			moves = append(moves, sold(b, place, today)...)
		}
		b.Moves = append(b.Moves, moves...)
		gone := composted(b, today)
		b.Moves = append(b.Moves, gone...)
		for _, m := range append(moves, gone...) {
			c.Add = append(c.Add, m.Record())
		}
		for _, w := range demo.Evening(weather, today) {
			b.Weather = append(b.Weather, w)
			c.Add = append(c.Add, w.Record())
		}
		field.Step(demo.TakenOn(b, today))
		today = today.Add(1)
		if why = decision(b, place, work, weather, today); why.What != "" {
			break
		}
		why.What = Quiet
	}
	c.Correct = append(c.Correct, book.Setting{Key: "demo_day", Value: today.String()}.Record())
	return c, why, nil
}

// decision says what is to be decided on a morning, if anything.
func decision(b *book.Book, place book.Place, before demo.Morning, weather *standin.Weather, today day.Day) Why {
	switch {
	case today.After(Last):
		return Why{What: Ended}
	case b.Plantings == nil && today.Sub(First)%7 == 0:
		return Why{What: Unplanned}
	}
	for _, o := range Offers(place.DemoSeed) {
		if o.Asked == today {
			return Why{Asked, o.ID}
		}
	}
	for _, e := range before.Events {
		if e.Event == book.FirstBud {
			return Why{Budding, e.Planting}
		}
	}
	const ahead = 3 // days
	for _, o := range b.Orders {
		if o.Kind == "event" && o.DueOn == today.Add(ahead) && o.CancelledOn.IsZero() {
			return Why{NearlyDue, o.ID}
		}
	}
	_, month, date := today.Date()
	const frostC, autumn = 1, 9
	if month >= autumn {
		for _, on := range weather.Forecast(today.Add(-1))[:2] {
			if on.TminC <= frostC {
				return Why{What: FrostNear}
			}
		}
	}
	if date == 1 {
		return Why{What: NewMonth}
	}
	return Why{}
}

// trueCuts puts right what the player wrote down of this morning's cuts: no more stems than stood there, and as many spoilt as there were; and never fewer than have been moved on
// already. It returns what is corrected.
func trueCuts(b *book.Book, field *standin.Field, today day.Day) []book.Record {
	moved := make(map[string]int)
	for _, m := range b.Moves {
		if m.From == "" { // out of what was cut
			moved[m.Lot] += m.Stems
		}
	}
	left := make(map[string][2]int) // by planting: stems that can be taken, of them spoilt
	var corrected []book.Record
	for i := range b.Cuts {
		c := &b.Cuts[i]
		if c.CutAt.Day() != today {
			continue
		}
		there, seen := left[c.Planting]
		if !seen {
			look := demo.Seen(field, c.Planting)
			there = [2]int{look.Ready + tighter(field, b, c.Planting), look.Culled}
		}
		was := c.Record()
		taken := min(c.Taken(), there[0])
		culled := min(taken, max(book.OrZero(c.Culled), min(there[1], int(math.Round(float64(taken)*float64(there[1])/float64(max(1, there[0])))))))
		c.Stems = max(taken-culled, min(moved[c.ID], c.Stems))
		if culled > 0 {
			c.Culled = &culled
			c.CullReason = cmp.Or(c.CullReason, "spoilt")
		}
		if c.Seconds != nil && *c.Seconds > c.Stems {
			c.Seconds = &c.Stems
		}
		left[c.Planting] = [2]int{there[0] - taken, max(0, there[1]-culled)}
		if now := c.Record(); !now.Equal(was) {
			corrected = append(corrected, now)
		}
	}
	return corrected
}

// tighter returns the stems of a row that are not ready and could be cut all the same.
func tighter(field *standin.Field, b *book.Book, planting string) int {
	p, ok := b.Planting(planting)
	if !ok {
		return 0
	}
	profile := b.ProfileOf(p)
	market, _ := profile.Window(crop.Market, b.SchoolOf(profile.ID, "cut"))
	sum := 0
	for k, n := range field.Rungs(planting) {
		if crop.Rung(k) < market.From {
			sum += n
		}
	}
	return sum
}

// stored puts what was cut this morning into its place.
func stored(b *book.Book, today day.Day) []book.Move {
	var moves []book.Move
	moved := make(map[string]bool)
	for _, m := range b.Moves {
		moved[m.Lot] = true
	}
	for _, h := range store.Of(b, day.At(today, 11, 0)).Heaps {
		if moved[h.Lot] || h.CutAt.Day() != today || h.Stems == 0 {
			continue
		}
		to := coolRoom
		if h.Crop.Store.ChillBelowC >= 6 {
			to = shade
		}
		moves = append(moves, book.Move{ID: fmt.Sprintf("stored-%s-%d", today, len(moves)), Lot: h.Lot, At: day.At(today, 11, 30), What: book.ToPlace, Stems: h.Stems, Place: to})
	}
	return moves
}

// holds is for how many days stems of a crop are held and sold: as the rule of promises has it for a market, a day at least.
func holds(b *book.Book, p *crop.Profile) int { return max(1, plans.HoldDays(b, p, crop.Market)) }

// sold returns the sales of a day: what the orders of the day want and have not got, promises first, the oldest stems that still serve.
func sold(b *book.Book, place book.Place, today day.Day) []book.Move {
	var moves []book.Move
	heaps := store.Of(b, day.At(today, 5, 0)).Heaps
	slices.SortStableFunc(heaps, func(x, y store.Heap) int { return x.CutAt.Compare(y.CutAt) })
	for _, d := range dues(b, place) {
		if d.On != today {
			continue
		}
		need := d.Wanted - sent(b, d)
		for i := range heaps {
			h := &heaps[i]
			if h.Crop.ID != d.crop || h.Dry() || h.KeptFor != "" && h.KeptFor != d.order || today.Sub(h.CutAt.Day()) > holds(b, h.Crop) {
				continue
			}
			if n := min(need, h.Stems); n > 0 {
				moves = append(moves, book.Move{ID: fmt.Sprintf("sold-%s-%d", today, len(moves)), Lot: h.Lot, At: day.At(today, 9, 0), What: book.Sold, Stems: n, From: h.Place, Order: d.order})
				h.Stems, need = h.Stems-n, need-n
			}
		}
	}
	return moves
}

// composted throws away on the evening what no longer serves anybody.
func composted(b *book.Book, today day.Day) []book.Move {
	var moves []book.Move
	for _, h := range store.Of(b, day.At(today, 18, 0)).Heaps {
		if !h.Dry() && h.Stems > 0 && today.Sub(h.CutAt.Day()) >= holds(b, h.Crop) {
			moves = append(moves, book.Move{ID: fmt.Sprintf("composted-%s-%d", today, len(moves)), Lot: h.Lot, At: day.At(today, 18, 0), What: book.Composted, Stems: h.Stems, From: h.Place})
		}
	}
	return moves
}
