package book

import (
	"cmp"
	"slices"
	"strings"

	"dewcount/core/day"
)

// A Kind is one sort of record: a file of the notebook, a table of the database, the names of its fields in both, and how a book keeps it.
type Kind struct {
	Name     string
	Singular string // what one record of the kind is called
	Columns  []string
	Key      []string // columns that tell one record from another
	Needed   []string // columns that a notebook file must have; the others may be missing
	Parts    []string // columns by which the lines of one record differ, the first of them its part's key; none where a record is one line
	By       Keeper
	in       keeping
}

// A Keeper is who makes records of a kind, and may take them back.
type Keeper int

// The crew records what happens in the field, the owner plans; the program itself, or one form of its own, writes the rest.
const (
	ByProgram Keeper = iota
	ByCrew
	ByOwner
)

// The kinds of records. What each is stands in the table below.
var (
	Settings     = new(Kind)
	Weather      = new(Kind)
	Beds         = new(Kind)
	Trays        = new(Kind)
	Varieties    = new(Kind)
	Plantings    = new(Kind)
	Events       = new(Kind)
	Counts       = new(Kind)
	Cuts         = new(Kind)
	Scoutings    = new(Kind)
	Sprays       = new(Kind)
	Jobs         = new(Kind)
	Schools      = new(Kind)
	Orders       = new(Kind)
	OrderLines   = new(Kind)
	OrderDays    = new(Kind) // on which a line wants another number
	RecipeLines  = new(Kind)
	ExtraPicks   = new(Kind)
	Places       = new(Kind)
	Temperatures = new(Kind)
	Lots         = new(Kind) // of stems that did not grow here; a cut is a lot of its own
	Moves        = new(Kind)
	Inquiries    = new(Kind)
	Stock        = new(Kind) // of tubers, divisions and plants that cuttings are taken from
	Notes        = new(Kind)
	Lessons      = new(Kind)
	Authors      = new(Kind)
	History      = new(Kind) // of what stood; it is no record of its own
)

// kinds are those that hold what stands now, in the order in which each only speaks of those before it.
var kinds = []*Kind{Settings, Weather, Beds, Trays, Varieties, Plantings, Events, Counts, Cuts, Scoutings, Sprays, Jobs, Schools, Orders, OrderLines,
	OrderDays, RecipeLines, ExtraPicks, Places, Temperatures, Lots, Moves, Inquiries, Stock, Notes, Lessons, Authors}

// The table is filled in here, since what reads and writes a record names its kind.
func init() {
	*Settings = Kind{
		Name: "farm", Singular: "setting", By: ByProgram,
		Columns: words("key value"),
		Key:     words("key"), Needed: words("key value"),
		in: kept[Setting]{
			list: func(b *Book) *[]Setting { return &b.Settings }, reads: one(ReadSetting), writes: Setting.Record,
		},
	}
	*Weather = Kind{
		Name: "weather", Singular: "weather of", By: ByOwner,
		Columns: words("date tmin_c tmax_c rain_mm issued_on"),
		Key:     words("date issued_on"), Needed: words("date tmin_c tmax_c"),
		in: kept[WeatherDay]{
			list: func(b *Book) *[]WeatherDay { return &b.Weather }, reads: one(ReadWeather), writes: WeatherDay.Record,
			id: func(w WeatherDay) string { return w.Date.String() + "|" + w.IssuedOn.String() },
		},
	}
	*Beds = Kind{
		Name: "beds", Singular: "bed", By: ByOwner,
		Columns: words("bed length_m width_m bearing_deg zone cover exposure sun_h"),
		Key:     words("bed"), Needed: words("bed"),
		in: kept[Bed]{
			list: func(b *Book) *[]Bed { return &b.Beds }, reads: one(ReadBed), writes: Bed.Record, held: (*Book).holdsBed,
		},
	}
	*Trays = Kind{
		Name: "trays", Singular: "tray", By: ByOwner,
		Columns: words("tray cells length_cm width_cm"),
		Key:     words("tray"), Needed: words("tray cells"),
		in: kept[Tray]{
			list: func(b *Book) *[]Tray { return &b.Trays }, reads: one(ReadTray), writes: Tray.Record, held: (*Book).holdsTray,
		},
	}
	*Varieties = Kind{
		Name: "varieties", Singular: "variety", By: ByOwner,
		Columns: words("variety crop colour role height_cm spacing_cm stem_cm germination seeds_in_stock seeds_a_packet days traits"),
		Key:     words("variety"), Needed: words("variety crop"),
		in: kept[Variety]{
			list: func(b *Book) *[]Variety { return &b.Varieties }, reads: one(ReadVariety), writes: Variety.Record, checks: (*Book).checkVariety, held: (*Book).holdsVariety,
		},
	}
	*Plantings = Kind{
		Name: "plantings", Singular: "planting", By: ByOwner,
		Columns: words("planting variety bed method started_on planted_out_on pinched_on pinched_share plants cut_style ended_on squares tray succession bought_on"),
		Key:     words("planting"), Needed: words("planting variety method started_on plants"),
		in: kept[Planting]{
			list: func(b *Book) *[]Planting { return &b.Plantings }, reads: one(ReadPlanting), writes: Planting.Record,
			id: func(p Planting) string { return p.ID }, checks: (*Book).checkPlanting, held: (*Book).holdsPlanting,
		},
	}
	*Events = Kind{
		Name: "events", Singular: "event", By: ByCrew,
		Columns: words("planting event on id"),
		Key:     words("id"), Needed: words("planting event on"),
		in: kept[Event]{
			list: func(b *Book) *[]Event { return &b.Events }, reads: one(ReadEvent), writes: Event.Record,
			id: func(e Event) string { return e.ID }, checks: (*Book).checkEvent,
		},
	}
	*Counts = Kind{
		Name: "counts", Singular: "count", By: ByCrew,
		Columns: words("counted_at planting plants_counted rung stems firm counter id"), Parts: words("rung stems firm"),
		Key: words("id"), Needed: words("counted_at planting plants_counted rung stems"),
		in: kept[Count]{
			list: func(b *Book) *[]Count { return &b.Counts }, reads: readCount, writes: Count.Record,
			id: func(c Count) string { return c.ID },
			order: func(x, y Count) int {
				return inField(x.CountedAt, y.CountedAt, x.Planting+"|"+x.ID, y.Planting+"|"+y.ID)
			}, checks: (*Book).checkCount,
		},
	}
	*Cuts = Kind{
		Name: "cuts", Singular: "cut", By: ByCrew,
		Columns: words("cut_at planting stems culled cull_reason length_cm left seconds id"),
		Key:     words("id"), Needed: words("cut_at planting stems"),
		in: kept[Cut]{
			list: func(b *Book) *[]Cut { return &b.Cuts }, reads: one(ReadCut), writes: Cut.Record,
			id:    func(c Cut) string { return c.ID },
			order: func(x, y Cut) int { return inField(x.CutAt, y.CutAt, x.Planting+"|"+x.ID, y.Planting+"|"+y.ID) }, checks: (*Book).checkCut, held: (*Book).holdsLot,
		},
	}
	*Scoutings = Kind{
		Name: "scouting", Singular: "scouting", By: ByCrew,
		Columns: words("planting on cause stems spoiled done note id"),
		Key:     words("id"), Needed: words("planting on cause stems"),
		in: kept[Scouting]{
			list: func(b *Book) *[]Scouting { return &b.Scoutings }, reads: one(ReadScouting), writes: Scouting.Record, checks: (*Book).checkScouting,
		},
	}
	*Sprays = Kind{
		Name: "sprays", Singular: "spray", By: ByCrew,
		Columns: words("planting sprayed_at product wait_days entry_h note id"),
		Key:     words("id"), Needed: words("planting sprayed_at product wait_days entry_h"),
		in: kept[Spray]{
			list: func(b *Book) *[]Spray { return &b.Sprays }, reads: one(ReadSpray), writes: Spray.Record, checks: (*Book).checkSpray,
		},
	}
	*Jobs = Kind{
		Name: "jobs", Singular: "job", By: ByCrew,
		Columns: words("job planting task state on person"),
		Key:     words("job"), Needed: words("job planting task state"),
		in: kept[JobRecord]{
			list: func(b *Book) *[]JobRecord { return &b.Jobs }, reads: one(ReadJob), writes: JobRecord.Record,
			id: func(j JobRecord) string { return j.Job }, checks: (*Book).checkJob,
		},
	}
	*Schools = Kind{
		Name: "schools", Singular: "school", By: ByOwner,
		Columns: words("crop question school"),
		Key:     words("crop question"), Needed: words("crop question school"),
		in: kept[School]{
			list: func(b *Book) *[]School { return &b.Schools }, reads: one(ReadSchool), writes: School.Record, checks: (*Book).checkSchool,
		},
	}
	*Orders = Kind{
		Name: "orders", Singular: "order", By: ByOwner,
		Columns: words("order kind due_on repeats until customer note hour place importance cancelled_on palette"),
		Key:     words("order"), Needed: words("order kind due_on"),
		in: kept[Order]{
			list: func(b *Book) *[]Order { return &b.Orders }, reads: one(ReadOrder), writes: Order.Record, held: (*Book).holdsOrder,
		},
	}
	*OrderLines = Kind{
		Name: "order_lines", Singular: "order line", By: ByOwner,
		Columns: words("order line recipe quantity variety crop role colour stems use min_length_cm priority bunch rung spares price substitutes"),
		Key:     words("order line"), Needed: words("order line"),
		in: kept[OrderLine]{
			list: func(b *Book) *[]OrderLine { return &b.OrderLines }, reads: one(ReadOrderLine), writes: OrderLine.Record,
			order: func(x, y OrderLine) int {
				return cmp.Or(strings.Compare(x.Order, y.Order), cmp.Compare(x.Line, y.Line))
			}, checks: (*Book).checkOrderLine, held: (*Book).holdsOrderLine,
		},
	}
	*OrderDays = Kind{
		Name: "order_days", Singular: "day of an order", By: ByOwner,
		Columns: words("order line on number"),
		Key:     words("order line on"), Needed: words("order line on number"),
		in: kept[OrderDay]{
			list: func(b *Book) *[]OrderDay { return &b.OrderDays }, reads: one(ReadOrderDay), writes: OrderDay.Record, checks: (*Book).checkOrderDay,
		},
	}
	*RecipeLines = Kind{
		Name: "recipes", Singular: "recipe line", By: ByOwner,
		Columns: words("recipe role crop colour stems min_length_cm rung substitutes"),
		Key:     words("recipe role crop colour rung"), Needed: words("recipe stems"),
		in: kept[RecipeLine]{
			list: func(b *Book) *[]RecipeLine { return &b.RecipeLines }, reads: one(ReadRecipeLine), writes: RecipeLine.Record, checks: (*Book).checkRecipeLine,
		},
	}
	*ExtraPicks = Kind{
		Name: "extra_picks", Singular: "pick day", By: ByOwner,
		Columns: words("date"),
		Key:     words("date"), Needed: words("date"),
		in: kept[day.Day]{
			list: func(b *Book) *[]day.Day { return &b.ExtraPicks }, reads: one(ReadPick), writes: PickRecord,
		},
	}
	*Places = Kind{
		Name: "places", Singular: "place", By: ByOwner,
		Columns: words("place kind celsius buckets since"),
		Key:     words("place"), Needed: words("place kind celsius since"),
		in: kept[StorePlace]{
			list: func(b *Book) *[]StorePlace { return &b.StorePlaces }, reads: one(ReadStorePlace), writes: StorePlace.Record, held: (*Book).holdsStorePlace,
		},
	}
	*Temperatures = Kind{
		Name: "temperatures", Singular: "temperature", By: ByCrew,
		Columns: words("place at celsius id"),
		Key:     words("id"), Needed: words("place at celsius"),
		in: kept[Reading]{
			list: func(b *Book) *[]Reading { return &b.Readings }, reads: one(ReadReading), writes: Reading.Record,
			order: func(x, y Reading) int { return inField(x.At, y.At, x.Place+"|"+x.ID, y.Place+"|"+y.ID) }, checks: (*Book).checkReading,
		},
	}
	*Lots = Kind{
		Name: "lots", Singular: "lot", By: ByCrew,
		Columns: words("lot variety stems bought_at rung note"),
		Key:     words("lot"), Needed: words("variety stems bought_at rung"),
		in: kept[Bought]{
			list: func(b *Book) *[]Bought { return &b.Bought }, reads: one(ReadBought), writes: Bought.Record, checks: (*Book).checkBought, held: (*Book).holdsLot,
		},
	}
	*Moves = Kind{
		Name: "moves", Singular: "move", By: ByCrew,
		Columns: words("lot at what stems from place colour order note id"),
		Key:     words("id"), Needed: words("lot at what stems"),
		in: kept[Move]{
			list: func(b *Book) *[]Move { return &b.Moves }, reads: one(ReadMove), writes: Move.Record,
			id:    func(m Move) string { return m.ID },
			order: func(x, y Move) int { return inField(x.At, y.At, x.Lot+"|"+x.ID, y.Lot+"|"+y.ID) }, checks: (*Book).checkMove, held: (*Book).holdsMove,
		},
	}
	*Inquiries = Kind{
		Name: "inquiries", Singular: "inquiry", By: ByOwner,
		Columns: words("asked_on customer what stems due_on note done_on id"),
		Key:     words("id"), Needed: words("asked_on customer what stems"),
		in: kept[Inquiry]{
			list: func(b *Book) *[]Inquiry { return &b.Inquiries }, reads: one(ReadInquiry), writes: Inquiry.Record,
		},
	}
	*Stock = Kind{
		Name: "stock", Singular: "count of stock", By: ByOwner,
		Columns: words("variety part on pieces id"),
		Key:     words("id"), Needed: words("variety part on pieces"),
		in: kept[StockCount]{
			list: func(b *Book) *[]StockCount { return &b.Stock }, reads: one(ReadStockCount), writes: StockCount.Record,
			id:    func(c StockCount) string { return c.ID },
			order: func(x, y StockCount) int { return cmp.Or(x.On.Compare(y.On), strings.Compare(x.ID, y.ID)) }, checks: (*Book).checkStock,
		},
	}
	*Notes = Kind{
		Name: "notes", Singular: "note", By: ByCrew,
		Columns: words("on about subject words id"),
		Key:     words("id"), Needed: words("on words"),
		in: kept[Note]{
			list: func(b *Book) *[]Note { return &b.Notes }, reads: one(ReadNote), writes: Note.Record,
			id:    func(r Note) string { return r.ID },
			order: func(x, y Note) int { return cmp.Or(x.On.Compare(y.On), strings.Compare(x.ID, y.ID)) }, checks: (*Book).checkNote,
		},
	}
	*Lessons = Kind{
		Name: "lessons", Singular: "lesson", By: ByCrew,
		Columns: words("person at counts answers id"),
		Key:     words("id"), Needed: words("person at answers"),
		in: kept[Lesson]{
			list: func(b *Book) *[]Lesson { return &b.Lessons }, reads: one(ReadLesson), writes: Lesson.Record,
			id:    func(l Lesson) string { return l.ID },
			order: func(x, y Lesson) int { return inField(x.At, y.At, x.ID, y.ID) },
		},
	}
	*Authors = Kind{
		Name: "made", Singular: "maker of", By: ByProgram,
		Columns: words("kind id at by"),
		Key:     words("kind id at"), Needed: words("kind id at by"),
		in: kept[Author]{
			list: func(b *Book) *[]Author { return &b.Authors }, reads: one(ReadAuthor), writes: Author.Record,
			id: func(m Author) string { return m.Kind + "|" + m.ID + "|" + m.At },
		},
	}
	*History = Kind{Name: "history", Columns: words("kind id content ended ended_at ended_by"), Needed: words("kind id content ended ended_at ended_by")}
}

func words(s string) []string { return strings.Fields(s) }

// one is the reader of a kind whose records have one line.
func one[T any](read func(*Fields) T) func(*Fields, [][]string) T {
	return func(f *Fields, _ [][]string) T { return read(f) }
}

// inField orders what happened in the field by its time, and of one time by its key.
func inField(a, b day.Moment, keyA, keyB string) int {
	return cmp.Or(a.Compare(b), strings.Compare(keyA, keyB))
}

// Kinds returns the kinds that hold what stands now, in the order in which each only speaks of those before it. Own crops are beside them:
// their file is JSON.
func Kinds() []*Kind { return slices.Clone(kinds) }

// KindNamed returns the kind of a name, nil if there is none.
func KindNamed(name string) *Kind {
	i := slices.IndexFunc(kinds, func(k *Kind) bool { return k.Name == name })
	if i < 0 {
		return nil
	}
	return kinds[i]
}
