// Package demo is Larkenfold Flowers, a made-up farm in a made-up valley: what it grows and sells, and a crew that counts and cuts
// where the visitor does not.
package demo

import (
	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/farm/book"
)

// FirstDay is the day on which the demo's clock stands at the start: a Thursday, the day before a pick day.
var FirstDay = day.Of(2026, 7, 9)

// seed is the demo's own; the same farm grows everywhere.
const seed = 41

// weatherSince is where the farm's weather record begins: two seasons before this one.
var weatherSince = day.Of(2024, 1, 1)

var settings = []book.Setting{
	{Key: "name", Value: "Larkenfold Flowers"}, {Key: "latitude", Value: "46.9"}, {Key: "longitude", Value: "7.2"},
	{Key: "elevation_m", Value: "520"}, {Key: "timezone", Value: "Europe/Zurich"}, {Key: "pick_days", Value: "tue fri"},
	{Key: "last_frost", Value: "05-12"}, {Key: "first_frost", Value: "10-14"}, {Key: "picking", Value: "all"}, {Key: "pick_hour", Value: "8"}, {Key: "square_cm", Value: "30"}, {Key: "bench_trays", Value: "24"}, {Key: "stems_an_hour", Value: "220"}, {Key: "pick_hours_a_week", Value: "24"}, {Key: "currency", Value: "CHF"}, {Key: "crew_hours", Value: "7 9 6 7 10 3 0"},
}

// A block is beds side by side: so many of one length and width in metres, the compass direction in which they run, their watering zone, cover, exposure
// and sun hours. With the paths between them, the headlands and the yard they make the farm's 0.4 ha.
type block struct {
	name              string
	beds              int // 1: the bed has no number
	length, width     float64
	bearing, sun      float64
	zone, cover, wind string
}

var blocks = []block{
	{"Brook", 9, 40, 1.2, 80, 9.5, "brook", "open", "sheltered"},
	{"Barn", 8, 36, 1.2, 10, 8.5, "barn", "open", "open"},
	{"Hill", 8, 40, 1.2, 95, 11, "hill", "open", "windy"},
	{"Mühlacker", 8, 45, 1.2, 95, 10.5, "hill", "open", "open"},
	{"Föhrenrain", 4, 50, 2.4, 100, 8, "barn", "open", "sheltered"},
	{"Wall border", 1, 40, 1.2, 100, 7, "barn", "open", "sheltered"},
	{"Tunnel", 1, 30, 1.2, 85, 10, "tunnel", "tunnel", "sheltered"},
	{"Tunnel Süd", 1, 30, 1.2, 85, 10, "tunnel", "tunnel", "sheltered"},
}

func whole(n int) *int { return &n }

var varieties = []book.Variety{
	{Name: "Zinnia coral", Crop: "zinnia-tall", Colour: "coral", Role: "focal", SeedsInStock: whole(120), SeedsAPacket: whole(250)},
	{Name: "Zinnia lime", Crop: "zinnia-tall", Colour: "green", Role: "focal"},
	{Name: "Zinnia button mix", Crop: "zinnia-small", Colour: "orange:0.4;pink:0.4;red:0.2", Role: "accent"},
	{Name: "Cosmos white", Crop: "cosmos-single", Colour: "white", Role: "filler"},
	{Name: "Cosmos shell pink", Crop: "cosmos-single", Colour: "pink", Role: "filler"},
	{Name: "Cosmos double rose", Crop: "cosmos-double", Colour: "rose", Role: "filler"},
	{Name: "Sunflower gold", Crop: "sunflower-single", Colour: "gold", Role: "focal"},
	{Name: "Sunflower branching rust", Crop: "sunflower-branching", Colour: "rust", Role: "focal"},
	{Name: "Snapdragon blush", Crop: "snapdragon", Colour: "blush", Role: "spike"},
	{Name: "Snapdragon white", Crop: "snapdragon", Colour: "white", Role: "spike"},
	{Name: "Statice blue", Crop: "statice", Colour: "blue", Role: "filler"},
	{Name: "Dahlia ball wine", Crop: "dahlia-ball", Colour: "wine", Role: "focal"},
	{Name: "Dahlia ball apricot", Crop: "dahlia-ball", Colour: "apricot", Role: "focal"},
	{Name: "Dahlia decorative cream", Crop: "dahlia-decorative", Colour: "cream", Role: "focal"},
	{Name: "Cornflower blue", Crop: "cornflower", Colour: "blue", Role: "accent", SeedsInStock: whole(600), SeedsAPacket: whole(500)},
	{Name: "Ammi white", Crop: "ammi", Colour: "white", Role: "filler"},
	{Name: "Larkspur violet", Crop: "larkspur", Colour: "violet", Role: "spike"},
	{Name: "Nigella sky", Crop: "nigella", Colour: "blue", Role: "accent"},
	{Name: "Sweet pea mauve", Crop: "sweet-pea", Colour: "mauve", Role: "accent"},
	{Name: "Scabious dark", Crop: "scabious", Colour: "wine", Role: "accent"},
	{Name: "Strawflower copper", Crop: "strawflower", Colour: "copper", Role: "accent"},
	{Name: "Celosia plume rose", Crop: "celosia-plume", Colour: "rose", Role: "spike"},
	{Name: "Marigold tall orange", Crop: "marigold-tall", Colour: "orange", Role: "focal"},
	{Name: "Basil for bouquets", Crop: "basil", Colour: "green", Role: "foliage"},
	{Name: "China aster lilac", Crop: "china-aster", Colour: "lilac", Role: "focal"},
	{Name: "Wild carrot chocolate", Crop: "wild-carrot", Colour: "chocolate", Role: "filler"},
	{Name: "Peony shell", Crop: "peony", Colour: "blush", Role: "focal"},
	{Name: "Coneflower rose", Crop: "echinacea", Colour: "rose", Role: "focal"},
	{Name: "Hydrangea white", Crop: "hydrangea", Colour: "white", Role: "focal"},
	{Name: "Michaelmas aster lavender", Crop: "michaelmas-aster", Colour: "lavender", Role: "filler"},
	{Name: "Garden chrysanthemum bronze", Crop: "chrysanthemum-garden", Colour: "bronze", Role: "focal"},
	{Name: "Tulip Märzlicht", Crop: "tulip", Colour: "white", Role: "focal"},
	{Name: "Tulip spät, purple", Crop: "tulip", Colour: "purple", Role: "focal"},
	{Name: "Daffodil Frühgold", Crop: "daffodil", Colour: "yellow", Role: "focal"},
	{Name: "Ranunculus Blütenmix", Crop: "ranunculus", Colour: "rose:0.4;apricot:0.4;white:0.2", Role: "focal"},
	{Name: "Anemone Königsblau", Crop: "anemone", Colour: "blue", Role: "accent"},
	{Name: "Sweet william Dämmerung", Crop: "sweet-william", Colour: "wine", Role: "filler"},
	{Name: "Garden rose Mädchenröte", Crop: "rose-garden", Colour: "blush", Role: "focal"},
	{Name: "Delphinium Föhnblau", Crop: "delphinium", Colour: "blue", Role: "spike"},
	{Name: "Gayfeather Wiesenkerze", Crop: "liatris", Colour: "purple", Role: "spike"},
	{Name: "Masterwort Älplerin", Crop: "astrantia", Colour: "white", Role: "filler"},
	{Name: "Lady's mantle", Crop: "ladys-mantle", Colour: "green", Role: "foliage"},
	{Name: "Goldenrod Spätsommer", Crop: "goldenrod", Colour: "yellow", Role: "filler"},
	{Name: "Lilac Flüeblick", Crop: "lilac", Colour: "lilac", Role: "focal"},
}

var trays = []book.Tray{{ID: "40 cells", Cells: 40}, {ID: "72 cells", Cells: 72}, {ID: "128 cells", Cells: 128}}

// A sowing is a planting as the farm's plan has it; out and pinched are days after the start, 0 for none.
type sowing struct {
	id, variety, bed string
	method           crop.Method
	start            string
	out, pinched     int
	share            float64 // of the plants pinched
	plants           int
}

var sowings = []sowing{
	{"ZC1", "Zinnia coral", "Brook 1", crop.Tray, "2026-03-28", 34, 0, 0, 120},
	{"ZC2", "Zinnia coral", "Brook 1", crop.Direct, "2026-05-10", 0, 0, 0, 140},
	{"ZC3", "Zinnia coral", "Brook 2", crop.Direct, "2026-06-06", 0, 0, 0, 140},
	{"ZL1", "Zinnia lime", "Brook 2", crop.Tray, "2026-04-20", 28, 46, 0.5, 90},
	{"ZL2", "Zinnia lime", "Brook 2", crop.Direct, "2026-06-02", 0, 0, 0, 100},
	{"ZB1", "Zinnia button mix", "Brook 3", crop.Direct, "2026-05-04", 0, 0, 0, 110},
	{"CW1", "Cosmos white", "Hill 1", crop.Tray, "2026-03-22", 32, 0, 0, 80},
	{"CW2", "Cosmos white", "Hill 1", crop.Direct, "2026-05-14", 0, 0, 0, 80},
	{"CW3", "Cosmos white", "Hill 2", crop.Direct, "2026-06-08", 0, 0, 0, 80},
	{"CP1", "Cosmos shell pink", "Hill 2", crop.Tray, "2026-04-02", 30, 42, 0.5, 80},
	{"CD1", "Cosmos double rose", "Hill 2", crop.Direct, "2026-05-20", 0, 0, 0, 60},
	{"SU1", "Sunflower gold", "Hill 3", crop.Direct, "2026-04-06", 0, 0, 0, 180},
	{"SU2", "Sunflower gold", "Hill 3", crop.Direct, "2026-04-22", 0, 0, 0, 180},
	{"SU3", "Sunflower gold", "Hill 3", crop.Direct, "2026-05-06", 0, 0, 0, 180},
	{"SU4", "Sunflower gold", "Hill 3", crop.Direct, "2026-05-20", 0, 0, 0, 200},
	{"SU5", "Sunflower gold", "Barn 1", crop.Direct, "2026-06-02", 0, 0, 0, 200},
	{"SU6", "Sunflower gold", "Barn 1", crop.Direct, "2026-06-15", 0, 0, 0, 200},
	{"SU7", "Sunflower gold", "Barn 2", crop.Direct, "2026-07-03", 0, 0, 0, 200},
	{"SU8", "Sunflower gold", "Barn 2", crop.Direct, "2026-07-16", 0, 0, 0, 200},
	{"SB1", "Sunflower branching rust", "Barn 2", crop.Direct, "2026-05-15", 0, 0, 0, 60},
	{"SN1", "Snapdragon blush", "Tunnel", crop.Tray, "2026-02-12", 56, 70, 1, 160},
	{"SN2", "Snapdragon white", "Barn 3", crop.Tray, "2026-03-05", 56, 72, 1, 160},
	{"ST1", "Statice blue", "Barn 3", crop.Tray, "2026-03-10", 52, 0, 0, 90},
	{"DW1", "Dahlia ball wine", "Barn 4", crop.Tuber, "2026-03-28", 40, 54, 1, 40},
	{"DA1", "Dahlia ball apricot", "Barn 4", crop.Tuber, "2026-04-12", 36, 54, 1, 40},
	{"DC1", "Dahlia decorative cream", "Barn 4", crop.Tuber, "2026-05-14", 0, 0, 0, 36},
	{"CO1", "Cornflower blue", "Brook 4", crop.Direct, "2026-04-02", 0, 0, 0, 150},
	{"CO3", "Cornflower blue", "Brook 1", crop.Direct, "2026-09-08", 0, 0, 0, 150},
	{"LA2", "Larkspur violet", "Brook 2", crop.Direct, "2026-09-14", 0, 0, 0, 140},
	{"SN3", "Snapdragon white", "Barn 1", crop.Tray, "2027-02-18", 56, 72, 1, 160},
	{"ZC5", "Zinnia coral", "Brook 3", crop.Direct, "2027-05-16", 0, 0, 0, 120},
	{"CO2", "Cornflower blue", "Brook 4", crop.Direct, "2026-05-04", 0, 0, 0, 150},
	{"AM1", "Ammi white", "Brook 4", crop.Direct, "2026-04-06", 0, 0, 0, 110},
	{"AM2", "Ammi white", "Brook 3", crop.Direct, "2026-05-06", 0, 0, 0, 110},
	{"LA1", "Larkspur violet", "Brook 3", crop.Direct, "2026-03-28", 0, 0, 0, 140},
	{"NI1", "Nigella sky", "Brook 3", crop.Direct, "2026-04-10", 0, 0, 0, 120},
	{"SP1", "Sweet pea mauve", "Tunnel", crop.Tray, "2026-02-20", 42, 50, 1, 60},
	{"SC1", "Scabious dark", "Barn 1", crop.Tray, "2026-03-12", 44, 0, 0, 70},
	{"SW1", "Strawflower copper", "Barn 3", crop.Tray, "2026-03-24", 46, 62, 1, 70},
	{"CE1", "Celosia plume rose", "Tunnel", crop.Tray, "2026-04-16", 34, 50, 1, 80},
	{"MA1", "Marigold tall orange", "Barn 2", crop.Tray, "2026-04-18", 32, 48, 1, 60},
	{"BA1", "Basil for bouquets", "Tunnel", crop.Tray, "2026-04-22", 34, 48, 1, 80},
	{"CA1", "China aster lilac", "Barn 2", crop.Tray, "2026-03-30", 46, 0, 0, 120},
	{"CA2", "China aster lilac", "Barn 1", crop.Tray, "2026-04-24", 44, 0, 0, 120},
	{"WC1", "Wild carrot chocolate", "Hill 1", crop.Direct, "2026-04-12", 0, 0, 0, 90},
	{"PE1", "Peony shell", "Wall border", crop.Established, "2025-10-01", 0, 0, 0, 24},
	{"EC1", "Coneflower rose", "Wall border", crop.Established, "2025-10-01", 0, 0, 0, 30},
	{"HY1", "Hydrangea white", "Föhrenrain 3", crop.Established, "2025-10-01", 0, 0, 0, 8},
	{"MI1", "Michaelmas aster lavender", "Wall border", crop.Established, "2025-10-01", 0, 0, 0, 20},
	{"CG1", "Garden chrysanthemum bronze", "Mühlacker 8", crop.Cutting, "2026-05-25", 0, 20, 1, 60},
	{"TU1", "Tulip Märzlicht", "Mühlacker 1", crop.Bulb, "2025-10-25", 0, 0, 0, 500},
	{"TU2", "Tulip spät, purple", "Mühlacker 2", crop.Bulb, "2025-11-05", 0, 0, 0, 500},
	{"NA1", "Daffodil Frühgold", "Föhrenrain 4", crop.Bulb, "2025-10-10", 0, 0, 0, 400},
	{"RA1", "Ranunculus Blütenmix", "Tunnel Süd", crop.Corm, "2025-11-10", 0, 0, 0, 220},
	{"AN1", "Anemone Königsblau", "Tunnel Süd", crop.Corm, "2025-11-10", 0, 0, 0, 180},
	{"SD1", "Sweet william Dämmerung", "Mühlacker 3", crop.Tray, "2025-06-20", 50, 0, 0, 240},
	{"SD2", "Sweet william Dämmerung", "Mühlacker 4", crop.Tray, "2026-06-18", 52, 0, 0, 240},
	{"PE2", "Peony shell", "Föhrenrain 1", crop.Established, "2025-10-01", 0, 0, 0, 60},
	{"RO1", "Garden rose Mädchenröte", "Föhrenrain 2", crop.Established, "2025-10-01", 0, 0, 0, 50},
	{"DE1", "Delphinium Föhnblau", "Mühlacker 5", crop.Established, "2025-10-01", 0, 0, 0, 60},
	{"LI1", "Gayfeather Wiesenkerze", "Mühlacker 6", crop.Established, "2025-10-01", 0, 0, 0, 150},
	{"AS1", "Masterwort Älplerin", "Föhrenrain 3", crop.Established, "2025-10-01", 0, 0, 0, 80},
	{"LM1", "Lady's mantle", "Föhrenrain 3", crop.Established, "2025-10-01", 0, 0, 0, 60},
	{"GO1", "Goldenrod Spätsommer", "Mühlacker 7", crop.Established, "2025-10-01", 0, 0, 0, 80},
	{"FL1", "Lilac Flüeblick", "Föhrenrain 4", crop.Established, "2025-10-01", 0, 0, 0, 12},
}

// recipes are the bouquets that the farm makes.
var recipes = []book.RecipeLine{
	{Recipe: "Steps bouquet", Role: "focal", Stems: 2}, {Recipe: "Steps bouquet", Role: "filler", Stems: 4}, {Recipe: "Steps bouquet", Role: "spike", Stems: 2}, {Recipe: "Steps bouquet", Role: "foliage", Stems: 2},
	{Recipe: "Gate posy", Role: "accent", Stems: 4}, {Recipe: "Gate posy", Role: "filler", Stems: 3},
	{Recipe: "Table posy for the mill", Role: "filler", Colour: "white", Stems: 4}, {Recipe: "Table posy for the mill", Role: "spike", Colour: "blush", Stems: 2},
}

// A want is a line of an order: so many stems of a variety, of any of a crop, or of a colour and role; or so many bouquets of a recipe.
type want struct {
	variety, crop string
	stems         int
	colour, role  string
}

// A bunch is so many bouquets of a recipe that an order wants beside its stems.
type bunch struct {
	recipe   string
	quantity int
}

var bouquets = map[string]bunch{"Fallow Steps market": {"Steps bouquet", 12}, "Gate stall": {"Gate posy", 10}, "Wedding at the mill": {"Table posy for the mill", 8}}

func hour(h float64) *float64 { return &h }

// A sale is an order with what it wants.
type sale struct {
	order book.Order
	use   crop.Use
	wants []want
}

var seasonEnds = day.Of(2026, 10, 10)

var sales = []sale{
	{book.Order{ID: "Fallow Steps market", Kind: "market", DueOn: day.Of(2026, 5, 16), Repeats: "weekly", Until: seasonEnds, Hour: hour(7), Place: "Fallow Steps"}, crop.Market, []want{
		{"", "sunflower-single", 90, "", ""}, {"Zinnia coral", "", 40, "", ""}, {"", "zinnia-tall", 30, "", ""}, {"", "cosmos-single", 80, "", ""}, {"", "snapdragon", 60, "", ""},
		{"", "ammi", 40, "", ""}, {"", "dahlia-ball", 20, "", ""}, {"", "cornflower", 70, "", ""}}},
	{book.Order{ID: "Gate stall", Kind: "market", DueOn: day.Of(2026, 5, 20), Repeats: "weekly", Until: seasonEnds}, crop.Market, []want{
		{"", "sunflower-single", 40, "", ""}, {"", "cosmos-single", 40, "", ""}, {"", "zinnia-small", 30, "", ""}, {"Sweet pea mauve", "", 40, "", ""}}},
	{book.Order{ID: "Bridge florist bucket", Kind: "standing", DueOn: day.Of(2026, 5, 27), Repeats: "weekly", Until: seasonEnds,
		Customer: "the florist at the bridge"}, crop.Florist, []want{{"", "statice", 30, "", ""}, {"", "ammi", 30, "", ""}}},
	{book.Order{ID: "Square florist bucket", Kind: "standing", DueOn: day.Of(2026, 5, 29), Repeats: "weekly", Until: seasonEnds,
		Customer: "the florist on the square", Hour: hour(17)}, crop.Florist, []want{{"Snapdragon white", "", 40, "", ""}, {"", "scabious", 30, "", ""}}},
	{book.Order{ID: "Wedding at the mill", Kind: "event", DueOn: day.Of(2026, 7, 18), Customer: "the couple at the mill", Hour: hour(9), Place: "the mill"}, crop.Event, []want{
		{"Cosmos white", "", 60, "", ""}, {"", "", 60, "white", "filler"}, {"Snapdragon white", "", 40, "", ""}, {"Ammi white", "", 50, "", ""}}},
	{book.Order{ID: "Wedding in the orchard", Kind: "event", DueOn: day.Of(2026, 8, 8), Customer: "the couple in the orchard", Hour: hour(10), Place: "the orchard"}, crop.Event, []want{
		{"Dahlia ball apricot", "", 40, "", ""}, {"Zinnia coral", "", 50, "", ""}}},
	{book.Order{ID: "Village fete", Kind: "event", DueOn: day.Of(2026, 8, 15), Customer: "the village"}, crop.Event, []want{
		{"", "sunflower-single", 150, "", ""}, {"", "cosmos-single", 100, "", ""}}},
	{book.Order{ID: "Wedding on the hill", Kind: "event", DueOn: day.Of(2026, 9, 12), Customer: "the couple on the hill", Hour: hour(9), Place: "the hill"}, crop.Event, []want{
		{"Dahlia decorative cream", "", 60, "", ""}, {"Dahlia ball wine", "", 40, "", ""}}},
}
