package store

import (
	"fmt"
	"math"
	"net/http"
	"net/url"
	"slices"
	"strconv"
	"strings"

	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/farm/book"
	"dewcount/farm/market"
	ledger "dewcount/farm/store"
	"dewcount/say"
	"dewcount/web/draw"
	"dewcount/web/page"

	"github.com/labstack/echo/v5"
)

// A storeView answers: what is there, what goes first, and what is wrong with where it stands?
type storeView struct {
	First   []string // what goes first
	None    string   // why there is nothing
	Places  []placeView
	Sum     string
	Makings []makingView
	Bunches []bunchView
	Orders  []string
	Fates   []page.Option
	Degrees string // the unit in which a thermometer is read
	Lately  []latelyView
	Fault   string // of what was to be made up
	FaultOf string
}

// BunchesInAll is how many straight bunches could be tied.
func (v storeView) BunchesInAll() int {
	n := 0
	for _, b := range v.Bunches {
		n += b.Bunches
	}
	return n
}

// FaultKind is whether what is at fault is a recipe or a bunch.
func (v storeView) FaultKind() string {
	kind, _, _ := strings.Cut(v.FaultOf, "-")
	return kind
}

// A latelyView is a move of the last days, to be taken back if it was wrong.
type latelyView struct {
	Words, Mark string
	Done        *page.DoneView
}

type placeView struct {
	ID, Name, Kind string
	Facts          string
	Full, Lost     string
	Heaps          []heapView
}

type heapView struct {
	Variety, Lot, Stems string
	Cut                 string
	Rung                draw.RungView
	Left                string
	Dry                 string
	Colour, Kept        string
	Worries             []string
	For                 []string // whom its stems are promised
	Move                string   // address of what became of it
}

func (s view) store(c *echo.Context, snap *say.Snapshot) error {
	return s.Show(c, http.StatusOK, "store", "/store", "Store", snap, newStore(snap, s.hour(snap)))
}

// hour returns the hour that the store is looked at: now, but in the demo, whose clock stands. What was written down for later today has been done.
func (s view) hour(snap *say.Snapshot) day.Moment {
	now := s.Farm.Now(snap.Snapshot)
	if place, err := snap.Book.Place(); err == nil && !place.DemoDay.IsZero() {
		now = day.At(snap.View.Today, 6, 20)
	}
	for _, m := range snap.Book.Moves {
		if m.At.Day() == snap.View.Today && m.At.Compare(now) > 0 {
			now = m.At
		}
	}
	return now
}

func newStore(snap *say.Snapshot, now day.Moment) storeView {
	b := snap.Book
	var v storeView
	if len(b.StorePlaces) == 0 {
		v.None = "The farm has written down no place for cut stems yet. Add the fridge, the cool room or the shade in which they stand: from then on every stem is accounted for."
		return v
	}
	l := ledger.Of(b, now)
	worries, tooLong := make(map[int][]string), make(map[int]bool)
	for _, w := range l.Worries(b, now) {
		worries[w.Heap] = append(worries[w.Heap], worryWords(snap, l.Heaps[w.Heap], w))
		tooLong[w.Heap] = tooLong[w.Heap] || w.Trouble == ledger.TooLong
	}
	const firsts, soon = 3, 2.0
	for i, h := range l.Heaps {
		if !h.Dry() && (h.Now.Left[1] < soon || tooLong[i]) && len(v.First) < firsts {
			v.First = append(v.First, fmt.Sprintf("%d %s (%s)", h.Stems, h.Variety, leftWords(h)))
		}
	}
	promised := promisedOf(snap, now)
	names := []string{""}
	for _, p := range b.StorePlaces {
		names = append(names, p.ID)
	}
	for _, name := range names {
		p := newPlaceView(snap, &l, name)
		for i, h := range l.Heaps {
			if h.Place == name {
				heap := newHeap(snap, h, worries[i])
				heap.For = promised(h)
				p.Heaps = append(p.Heaps, heap)
			}
		}
		if name != "" || len(p.Heaps) > 0 {
			v.Places = append(v.Places, p)
		}
	}
	v.Sum = sumWords(snap, &l)
	unkept := l.For("")
	v.Makings = makings(snap, &unkept)
	if place, err := b.Place(); err == nil {
		v.Bunches = bunches(&unkept, place.BunchStems)
	}
	v.Lately = lately(snap)
	v.Fates, v.Degrees = fates, snap.Name(say.Celsius)
	for _, o := range b.Orders {
		v.Orders = append(v.Orders, o.ID)
	}
	return v
}

// lotIn is stems of a lot in one place, kept for one order.
type lotIn struct{ lot, place, keptFor string }

// promisedOf says for whom the stems of a heap are, and what they will be on that day if they stay where they stand.
func promisedOf(snap *say.Snapshot, now day.Moment) func(ledger.Heap) []string {
	type gift struct {
		order string
		on    day.Day
		stems int
	}
	promised := make(map[lotIn][]gift)
	for _, d := range market.Dues(snap.Snapshot) {
		for _, w := range d.Lines {
			for _, g := range w.From {
				if g.Lot != "" {
					at := lotIn{g.Lot, g.Place, g.KeptFor}
					promised[at] = append(promised[at], gift{d.Order.ID, d.On, g.Stems})
				}
			}
		}
	}
	return func(h ledger.Heap) []string {
		var words []string
		for _, g := range promised[lotIn{h.Lot, h.Place, h.KeptFor}] {
			then := h.On(snap.Book, now, g.on)
			words = append(words, fmt.Sprintf("%d for %s, %s: %s then, about %s left", g.stems, g.order, snap.Date(g.on), then.Rung, say.Days(int(math.Round(then.Left[1])))))
		}
		return words
	}
}

func newPlaceView(snap *say.Snapshot, l *ledger.Ledger, id string) placeView {
	p, ok := snap.Book.StorePlace(id)
	if !ok {
		return placeView{Name: "Resting, place not said", Facts: "Taken to stand in open shade."}
	}
	v := placeView{ID: id, Name: id, Facts: "set to " + snap.Celsius(p.Celsius)}
	if p.Kind == book.Loft {
		v.Facts = "hung to dry"
		return v
	}
	var last book.Reading
	for _, r := range snap.Book.Readings {
		if r.Place == id && (last.At.IsZero() || r.At.Compare(last.At) > 0) {
			last = r
		}
	}
	if !last.At.IsZero() {
		v.Facts += fmt.Sprintf(", %s on %s", snap.Tenth(last.Celsius), snap.Moment(last.At))
	}
	if least, most := l.LostIn(id); most >= 0.05 {
		v.Lost = fmt.Sprintf("It was warmer than it is set to: that has cost what stands here %.1f to %.1f days of its life.", least, most)
		if math.Round(10*least) == math.Round(10*most) {
			v.Lost = fmt.Sprintf("It was warmer than it is set to: that has cost what stands here %.1f days of its life.", most)
		}
	}
	n := l.Buckets(id)
	v.Facts += ", " + say.Number(n, "bucket")
	if p.Buckets != nil {
		v.Facts += fmt.Sprintf(" of %d", *p.Buckets)
		if n > *p.Buckets {
			v.Full = fmt.Sprintf("%s too many for it: bring what bears it into another place.", say.Number(n-*p.Buckets, "bucket"))
		}
	}
	return v
}

func newHeap(snap *say.Snapshot, h ledger.Heap, worries []string) heapView {
	v := heapView{Variety: h.Variety, Lot: h.Planting, Stems: strconv.Itoa(h.Stems), Cut: snap.Moment(h.CutAt), Rung: draw.NewRung(h.Crop.Ladder, min(h.Now.Rung, crop.Open)), Left: leftWords(h), Worries: worries,
		Move: "/store/move?" + url.Values{"lot": {h.Lot}, "from": {h.Place}, "stems": {strconv.Itoa(h.Stems)}}.Encode()}
	if h.Dry() {
		v.Left, v.Dry = "", "dry about "+snap.Date(h.DryOn())
		if !h.DryOn().After(snap.View.Today) {
			v.Dry = "dry"
		}
	}
	if variety, _ := snap.Book.Variety(h.Variety); variety.Colour != h.Colour {
		v.Colour = "tinted " + h.Colour
	}
	if h.KeptFor != "" {
		v.Kept = "kept for " + h.KeptFor
	}
	return v
}

// leftWords says how long stems last on a table in a room from now on.
func leftWords(h ledger.Heap) string {
	low, high := math.Round(h.Now.Left[0]), math.Round(h.Now.Left[2])
	switch {
	case high == 0:
		return "over"
	case low == high:
		return "about " + say.Days(int(high)) + " left"
	default:
		return fmt.Sprintf("%.0f to %s left", low, say.Days(int(high)))
	}
}

func worryWords(snap *say.Snapshot, h ledger.Heap, w ledger.Worry) string {
	to := ""
	if w.Place != "" {
		to = ": bring them to " + w.Place
	}
	switch w.Trouble {
	case ledger.TooCold:
		return fmt.Sprintf("Too cold: below %s they are hurt%s.", snap.Celsius(h.Crop.Store.ChillBelowC), to)
	case ledger.TooWarm:
		return "They would last longer elsewhere" + to + "."
	case ledger.OldNear:
		return "Spent stems stand beside them and make them age: throw those away."
	case ledger.WasWrong:
		return fmt.Sprintf("The place was not as it is set to, and that has cost them %.1f days.", w.Days)
	default:
		return fmt.Sprintf("Kept longer than %s: they fade soon after they are sold.", say.Days(int(h.Crop.Store.MaxDays)))
	}
}

// sumWords says what became of the stems of the last week, both sides of the account.
func sumWords(snap *say.Snapshot, l *ledger.Ledger) string {
	var sum ledger.Account
	since := snap.View.Today.Add(-7)
	for _, a := range l.Accounts {
		if _, at, ok := snap.Book.LotOf(a.Lot); !ok || at.Day().Before(since) {
			continue
		}
		sum.Cut += a.Cut
		sum.Returned += a.Returned
		sum.There += a.There
		sum.Sold += a.Sold
		sum.MadeUp += a.MadeUp
		sum.Given += a.Given
		sum.Composted += a.Composted
		sum.Forgone += a.Forgone
	}
	if sum.In() == 0 {
		return ""
	}
	words := []string{fmt.Sprintf("%d here", sum.There)}
	for _, p := range []struct {
		n     int
		words string
	}{{sum.Sold, "sold"}, {sum.MadeUp, "made up"}, {sum.Given, "given away"}, {sum.Composted, "composted"}, {sum.Forgone, "gone, nobody wrote where"}} {
		if p.n > 0 {
			words = append(words, fmt.Sprintf("%d %s", p.n, p.words))
		}
	}
	in := fmt.Sprintf("Of %d stems cut in the last week", sum.Cut)
	if sum.Returned > 0 {
		in += fmt.Sprintf(" and %d brought back", sum.Returned)
	}
	return in + ": " + say.List(slices.Clip(words)) + "."
}

// lately are the last moves, the newest first.
func lately(snap *say.Snapshot) []latelyView {
	const last = 12
	moves := slices.Clone(snap.Book.Moves)
	slices.SortStableFunc(moves, func(x, y book.Move) int { return y.At.Compare(x.At) })
	var views []latelyView
	for _, m := range moves[:min(last, len(moves))] {
		what := m.Lot
		if c, ok := snap.Book.Cut(m.Lot); ok {
			p, _ := snap.Book.Planting(c.Planting)
			what = p.Variety
		} else if b, ok := book.Find(snap.Book.Bought, func(b book.Bought) bool { return b.ID == m.Lot }); ok {
			what = b.Variety
		}
		words := fmt.Sprintf("%s: %d %s %s", snap.Moment(m.At), m.Stems, what, fateWords(m))
		views = append(views, latelyView{words, m.Record().Mark(), &page.DoneView{Words: "Take it back", Kind: book.Moves.Name, ID: m.ID}})
	}
	return views
}

// reason puts a note that says why something happened into brackets.
func reason(note string) string {
	if note == "" {
		return ""
	}
	return "(" + note + ")"
}

// fateWords says what became of stems.
func fateWords(m book.Move) string {
	words := m.What
	switch m.What {
	case book.ToPlace:
		words = "to " + m.Place
	case book.Given:
		words = "given away"
	case book.Returned:
		words = "brought back"
	case book.Tinted:
		words = "tinted " + m.Colour
	case book.Unsold:
		words = strings.TrimSpace("came back unsold " + reason(m.Note))
	case book.Kept:
		return "kept for " + m.Order
	}
	if m.Order != "" {
		words += ", " + m.Order
	}
	return words
}
