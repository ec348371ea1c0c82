package book

import (
	"strconv"

	"dewcount/core/crop"
	"dewcount/core/day"
)

// A Planting is one variety started in one place.
type Planting struct {
	ID, Variety, Bed string
	Method           crop.Method
	StartedOn        day.Day
	PlantedOutOn     day.Day
	PinchedOn        day.Day
	PinchedShare     *float64 // of the plants; nil with PinchedOn: all
	Plants           int      // live plants expected to bear
	CutStyle         string   // "long", "keep-buds" or empty for long
	EndedOn          day.Day
	Squares          string  // of its bed, as plan.ParsePatch reads them; empty where it has no place yet
	Tray             string  // that it is raised in
	Succession       string  // the plan of successions that it belongs to
	BoughtOn         day.Day // as plugs that were sown elsewhere; zero where the farm starts it itself
}

// MostPlants is how many plants one planting can have.
const mostPlants = 100_000

// ReadPlanting reads a planting; what is wrong with it alone is noted in f.
func ReadPlanting(f *Fields) Planting {
	p := Planting{
		ID:           f.Key("planting", "the planting's name"),
		Variety:      f.Name("variety", "the variety"),
		Bed:          f.Text("bed"),
		Method:       crop.Method(f.Word("method", "direct", "tray", "tuber", "bulb", "corm", "cutting", "division", "established")),
		StartedOn:    f.Day("started_on"),
		PlantedOutOn: f.OptDay("planted_out_on"),
		PinchedOn:    f.OptDay("pinched_on"),
		PinchedShare: f.OptNumber("pinched_share", 0, 1),
		Plants:       f.Whole("plants", 1, mostPlants),
		CutStyle:     f.Word("cut_style", "", "long", "keep-buds"),
		EndedOn:      f.OptDay("ended_on"),
		Squares:      f.Text("squares"),
		Tray:         f.Text("tray"),
		Succession:   f.Text("succession"),
		BoughtOn:     f.OptDay("bought_on"),
	}
	f.notBefore("planted_out_on", p.PlantedOutOn, p.StartedOn, "planted out")
	f.notBefore("pinched_on", p.PinchedOn, p.StartedOn, "pinched")
	f.notBefore("ended_on", p.EndedOn, p.StartedOn, "pulled out")
	const longestInTray = 300
	if !p.PlantedOutOn.IsZero() && p.PlantedOutOn.Sub(p.StartedOn) > longestInTray {
		f.Fault("planted_out_on", "planted out %d days after its start: check both dates", p.PlantedOutOn.Sub(p.StartedOn))
	}
	f.notBefore("bought_on", p.BoughtOn, p.StartedOn, "bought")
	switch {
	case p.BoughtOn.IsZero():
	case p.Method != crop.Tray:
		f.Fault("bought_on", "only young plants out of trays are bought as plugs: leave this empty, or choose trays")
	case !p.PlantedOutOn.IsZero() && p.PlantedOutOn.Before(p.BoughtOn):
		f.Fault("bought_on", "bought on %s, after it was planted out on %s: check both dates", p.BoughtOn, p.PlantedOutOn)
	}
	if p.Method == crop.Direct && !p.PlantedOutOn.IsZero() {
		f.Fault("planted_out_on", "a direct sowing is not planted out: leave this empty, or choose tray")
	}
	return p
}

func (f *Fields) notBefore(name string, d, start day.Day, done string) {
	if !d.IsZero() && d.Before(start) {
		f.Fault(name, "%s on %s, before its start on %s: check both dates", done, d, start)
	}
}

// PinchedPart returns the share of the plants that is pinched, 0 to 1.
func (p Planting) PinchedPart() float64 {
	switch {
	case p.PinchedOn.IsZero():
		return 0
	case p.PinchedShare == nil:
		return 1
	default:
		return *p.PinchedShare
	}
}

// Record returns the planting as text.
func (p Planting) Record() Record {
	return Record{Plantings, [][]string{{p.ID, p.Variety, p.Bed, string(p.Method), p.StartedOn.String(), p.PlantedOutOn.String(),
		p.PinchedOn.String(), optDecimal(p.PinchedShare), strconv.Itoa(p.Plants), p.CutStyle, p.EndedOn.String(), p.Squares, p.Tray, p.Succession, p.BoughtOn.String()}}}
}

// A Variety is a sort of a crop as the farm names it.
type Variety struct {
	Name, Crop, Colour, Role string
	HeightCM                 *float64
	SpacingCM, StemCM        *float64 // of its own; nil: as the crop's
	Germination              *float64 // of its seed, 0 to 1; nil: as the crop's
	SeedsInStock             *int
	SeedsAPacket             *int
	Days                     *int   // from its usual start to the first cut, as its packet says; nil: as the crop's
	Traits                   string // in words, such as scented, mildew-resistant
}

// ReadVariety reads a variety.
func ReadVariety(f *Fields) Variety {
	v := Variety{
		Name: f.Key("variety", "the variety's name"), Crop: f.Name("crop", "the crop"), Colour: f.Text("colour"),
		Role:     f.Word("role", "", "focal", "filler", "spike", "accent", "foliage"),
		HeightCM: f.OptNumber("height_cm", 5, 500), SpacingCM: f.OptNumber("spacing_cm", 2, 400), StemCM: f.OptNumber("stem_cm", 3, 300),
		Germination: f.OptNumber("germination", 0.01, 1), SeedsInStock: f.OptWhole("seeds_in_stock", 0, 10_000_000), SeedsAPacket: f.OptWhole("seeds_a_packet", 1, 1_000_000),
		Days: f.OptWhole("days", 15, 400), Traits: f.Text("traits"),
	}
	if err := checkColour(v.Colour); err != nil {
		f.Fault("colour", "%v", err)
	}
	return v
}

// Record returns the variety as text.
func (v Variety) Record() Record {
	return Record{Varieties, [][]string{{v.Name, v.Crop, v.Colour, v.Role, optDecimal(v.HeightCM), optDecimal(v.SpacingCM),
		optDecimal(v.StemCM), optDecimal(v.Germination), optWhole(v.SeedsInStock), optWhole(v.SeedsAPacket), optWhole(v.Days), v.Traits}}}
}

// A Bed is a place to grow in.
type Bed struct {
	ID                          string
	LengthM, WidthM, BearingDeg *float64
	Zone, Cover, Exposure       string
	SunH                        *float64
}

// ReadBed reads a bed.
func ReadBed(f *Fields) Bed {
	return Bed{
		ID: f.Key("bed", "the bed's name"), LengthM: f.OptNumber("length_m", 0.1, 2000), WidthM: f.OptNumber("width_m", 0.1, 200),
		BearingDeg: f.OptNumber("bearing_deg", 0, 360), Zone: f.Text("zone"),
		Cover:    f.Word("cover", "", "open", "tunnel", "house", "pot"),
		Exposure: f.Word("exposure", "", "sheltered", "open", "windy"), SunH: f.OptNumber("sun_h", 0, 24),
	}
}

// Record returns the bed as text.
func (b Bed) Record() Record {
	return Record{Beds, [][]string{{b.ID, optDecimal(b.LengthM), optDecimal(b.WidthM), optDecimal(b.BearingDeg), b.Zone, b.Cover,
		b.Exposure, optDecimal(b.SunH)}}}
}

// A Tray is a size of tray that the farm has.
type Tray struct {
	ID                string
	Cells             int
	LengthCM, WidthCM *float64
}

// ReadTray reads a tray.
func ReadTray(f *Fields) Tray {
	return Tray{ID: f.Key("tray", "the tray's name"), Cells: f.Whole("cells", 1, 2000), LengthCM: f.OptNumber("length_cm", 1, 500),
		WidthCM: f.OptNumber("width_cm", 1, 500)}
}

// Record returns the tray as text.
func (t Tray) Record() Record {
	return Record{Trays, [][]string{{t.ID, strconv.Itoa(t.Cells), optDecimal(t.LengthCM), optDecimal(t.WidthCM)}}}
}
