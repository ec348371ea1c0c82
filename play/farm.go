// Package play is a season to be played: a made-up farm with empty beds, a made-up crew and weather, what is asked of it, and at its end what the plan, the cutting and the rest
// have cost beside a season that knew everything. The same seed and the same decisions give the same season.
package play

import (
	"context"
	"fmt"
	"math/rand/v2"
	"strconv"
	"time"

	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/croptable"
	"dewcount/demo"
	"dewcount/farm"
	"dewcount/farm/book"
	"dewcount/people"
)

// The season lasts from its first day until its last has passed.
var (
	First = day.Of(2027, 3, 1)
	Last  = day.Of(2027, 10, 31)
)

// What a season's accounts go by, in its currency. All are made up.
const (
	aSowing  = 8.    // minutes and seed tray
	aPlant   = 0.15  // seed, soil and its place in a bed
	aStem    = 0.06  // to cut and carry
	aMissing = 0.5   // of its price, for each stem of a promise that is missing
	currency = "CHF" // its
)

// A line is what somebody wants of a crop, at a price a stem.
type line struct {
	crop  string
	stems int
	price float64
}

// A sale is an order of the season's farm, known from the first day.
type sale struct {
	order book.Order
	lines []line
}

var stallEnds, bucketEnds = day.Of(2027, 10, 9), day.Of(2027, 9, 29)

var sales = []sale{
	{book.Order{ID: "Saturday stall", Kind: "market", DueOn: day.Of(2027, 7, 3), Repeats: "weekly", Until: stallEnds}, []line{
		{"sunflower-single", 30, 0.9}, {"zinnia-tall", 40, 0.7}, {"cosmos-single", 40, 0.5}, {"snapdragon", 30, 0.9}}},
	{book.Order{ID: "Florist's bucket", Kind: "standing", DueOn: day.Of(2027, 7, 7), Repeats: "weekly", Until: bucketEnds, Customer: "the florist by the bridge"}, []line{
		{"ammi", 30, 0.6}, {"snapdragon", 20, 0.95}, {"cornflower", 30, 0.45}}},
	{book.Order{ID: "Wedding by the lake", Kind: "event", DueOn: day.Of(2027, 8, 14), Customer: "the couple by the lake"}, []line{
		{"cosmos-single", 60, 0.9}, {"dahlia-ball", 40, 1.8}, {"snapdragon", 40, 1.3}}},
	{book.Order{ID: "Harvest supper", Kind: "event", DueOn: day.Of(2027, 9, 11), Customer: "the village"}, []line{{"dahlia-ball", 60, 1.6}, {"sunflower-single", 50, 1.1}}},
}

// usual is what a stem of each crop brings where nothing else is agreed.
var usual = map[string]float64{"sunflower-single": 0.9, "zinnia-tall": 0.7, "cosmos-single": 0.5, "snapdragon": 0.9, "ammi": 0.6, "cornflower": 0.45, "dahlia-ball": 1.4}

var crops = []string{"sunflower-single", "zinnia-tall", "cosmos-single", "snapdragon", "ammi", "cornflower", "dahlia-ball"}

var varieties = []book.Variety{
	{Name: "Sunflower amber", Crop: "sunflower-single", Colour: "gold", Role: "focal"}, {Name: "Zinnia rose", Crop: "zinnia-tall", Colour: "rose", Role: "focal"},
	{Name: "Cosmos pearl", Crop: "cosmos-single", Colour: "white", Role: "filler"}, {Name: "Snapdragon lemon", Crop: "snapdragon", Colour: "yellow", Role: "spike"},
	{Name: "Ammi cloud", Crop: "ammi", Colour: "white", Role: "filler"}, {Name: "Cornflower noon", Crop: "cornflower", Colour: "blue", Role: "accent"},
	{Name: "Dahlia plum", Crop: "dahlia-ball", Colour: "wine", Role: "focal"},
}

const (
	coolRoom = "Cool room"
	shade    = "Barn shade"
)

// Fill makes the farm of a season in an empty store: beds, trays, places, varieties and what is ordered, and nothing planted. It does nothing in one that has a farm.
func Fill(ctx context.Context, store farm.Store, seed uint64) error {
	b, _, err := store.Load(ctx)
	if err != nil || len(b.Settings) > 0 {
		return err
	}
	b, err = begin(seed)
	if err != nil {
		return err
	}
	change := book.Change{Stamp: First.String() + "T04:00:00Z"}
	for _, k := range book.Kinds() {
		change.Add = append(change.Add, b.Records(k)...)
	}
	return store.Apply(ctx, change)
}

// begin returns the farm on its first morning.
func begin(seed uint64) (*book.Book, error) {
	b := book.NewBook([]croptable.Entry(nil))
	for _, s := range [][2]string{{"name", "Upper Meadow"}, {"latitude", "46.9"}, {"longitude", "7.2"}, {"elevation_m", "520"}, {"timezone", "Europe/Zurich"}, {"pick_days", "tue fri"},
		{"last_frost", "05-12"}, {"first_frost", "10-14"}, {"square_cm", "30"}, {"stems_an_hour", "220"}, {"chance", "0.8"}, {"currency", currency},
		{"demo_day", First.String()}, {"demo_seed", strconv.FormatUint(seed, 10)}, {"game", Counts + " " + Cuts + " " + Sells}} {
		b.Settings = append(b.Settings, book.Setting{Key: s[0], Value: s[1]})
	}
	place, err := b.Place()
	if err != nil {
		return nil, fmt.Errorf("the season's settings: %w", err)
	}
	length, width, bearing, sun := 25.0, 1.2, 90.0, 10.0
	for n := range 10 {
		b.Beds = append(b.Beds, book.Bed{ID: fmt.Sprintf("Meadow %d", n+1), LengthM: &length, WidthM: &width, BearingDeg: &bearing, Cover: "open", Exposure: "sheltered", SunH: &sun})
	}
	b.Trays = []book.Tray{{ID: "72 cells", Cells: 72}}
	b.StorePlaces = []book.StorePlace{{ID: coolRoom, Kind: "room", Celsius: 5, Since: First}, {ID: shade, Kind: "shade", Celsius: 17, Since: First}}
	b.Varieties = varieties
	for _, s := range sales {
		b.Orders = append(b.Orders, s.order)
		b.OrderLines = append(b.OrderLines, linesOf(s)...)
	}
	b.Weather = demo.Past(demo.WeatherOf(place), First)
	return b, nil
}

// linesOf returns the lines of a sale as records.
func linesOf(s sale) []book.OrderLine {
	var all []book.OrderLine
	use := map[string]crop.Use{"market": crop.Market, "standing": crop.Florist, "event": crop.Event}[s.order.Kind]
	for i, l := range s.lines {
		all = append(all, book.OrderLine{Order: s.order.ID, Line: i + 1, Crop: l.crop, Stems: &l.stems, Use: use.String(), Price: &l.price})
	}
	return all
}

// An Offer is what somebody asks for on a day, and waits some days for a yes.
type Offer struct {
	ID, Who      string // as the order is called that is made of it, and who asks
	Crop         string
	Stems        int
	Price        float64 // a stem
	Asked, Until day.Day // on which it is open first and last
	On           day.Day
}

// open tells whether an answer is waited for on a day.
func (o *Offer) open(d day.Day) bool { return !d.Before(o.Asked) && !d.After(o.Until) }

func (o *Offer) sale() sale {
	return sale{book.Order{ID: o.ID, Kind: "event", DueOn: o.On, Customer: o.Who}, []line{{o.Crop, o.Stems, o.Price}}}
}

// Offers returns all that is asked for in the season of a seed, in order.
func Offers(seed uint64) []Offer {
	const (
		openDays = 4
		dearer   = 1.5 // than at the stall
	)
	random := rand.New(rand.NewPCG(seed, 0x0ffe5))
	who := []string{"the inn at the ford", "the chapel", "a neighbour", "the bakery", "the school fair", "the reading circle", "the mayor's office", "a shop in town", "the choir", "the old mill", "a birthday", "the doctor's house"}
	random.Shuffle(len(who), func(i, j int) { who[i], who[j] = who[j], who[i] })
	var all []Offer
	on := day.Of(2027, 7, 9)
	for _, w := range who {
		on = on.Add(4 + random.IntN(5))
		for on.Weekday() == time.Sunday || on.Weekday() == time.Monday {
			on = on.Add(1)
		}
		if on.After(stallEnds) {
			break
		}
		o := Offer{Who: w, Crop: crops[random.IntN(len(crops))], Stems: 10 * (2 + random.IntN(4)), On: on, Asked: on.Add(-12 - random.IntN(10))}
		o.Price, o.Until = dearer*usual[o.Crop], o.Asked.Add(openDays)
		_, month, date := on.Date()
		o.ID = fmt.Sprintf("For %s, %d %s", w, date, month)
		all = append(all, o)
	}
	return all
}

// Open returns the offers that wait for an answer on the season's day.
func Open(b *book.Book, place book.Place) []Offer {
	var open []Offer
	for _, o := range Offers(place.DemoSeed) {
		if _, made := b.Order(o.ID); o.open(place.DemoDay) && !made {
			open = append(open, o)
		}
	}
	return open
}

// Records returns the order that an offer is once it is taken.
func (o *Offer) Records() []book.Record {
	s := o.sale()
	records := []book.Record{s.order.Record()}
	for _, l := range linesOf(s) {
		records = append(records, l.Record())
	}
	return records
}

// A Tariff is what a season's accounts go by, in its currency.
type Tariff struct {
	Sowing, Plant, Stem float64
	Missing             float64 // of its price, for each stem of a promise that is missing
	InTime              int     // days before its due day until which an offer that was taken is given back for nothing
}

// TariffOf returns what all seasons' accounts go by.
func TariffOf() Tariff { return Tariff{aSowing, aPlant, aStem, aMissing, inTime} }

// Player is the name as whom a season signs in whoever plays it.
const Player = "Player"

// Let writes the season's player down where nobody is.
func Let(ctx context.Context, store people.Store) error {
	there, err := store.People(ctx)
	if err != nil || len(there) > 0 {
		return err
	}
	_, err = store.Admit(ctx, people.Person{ID: "player", Name: Player, Role: people.Owner, JoinedAt: First.String() + "T04:00:00Z"}, "")
	return err
}
