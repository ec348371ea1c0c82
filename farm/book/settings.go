package book

import (
	"net"
	"net/netip"
	"net/url"
	"slices"
	"strconv"
	"strings"
	"time"

	"dewcount/core/climate"
	"dewcount/core/cutting"
	"dewcount/core/day"
	"dewcount/fault"

	"golang.org/x/net/idna"
)

// A Setting is one line of farm.csv.
type Setting struct{ Key, Value string }

// The settings that are known, in the order in which pages show them; the first six are needed.
var settingKeys = []string{"name", "latitude", "longitude", "elevation_m", "timezone", "pick_days",
	"last_frost", "first_frost", "nursery_min_c", "nursery_max_c", "picking", "pick_hour", "square_cm",
	"climate", "climate_tmin_c", "climate_tmax_c", "chance", "losses", "margin", "bench_trays", "stems_an_hour", "pick_hours_a_week", "crew_hours", "cut_until_c", "bunch_stems", "bouquet_minutes", "sowing_minutes", "currency", "soil", "address", "station",
	"demo_day", "demo_seed", "game"}

const neededSettings = 6

// ReadSetting reads a setting.
func ReadSetting(f *Fields) Setting {
	s := Setting{f.Word("key", settingKeys...), f.Note("value")}
	if slices.Contains(settingKeys, s.Key) {
		_, faults := readPlace(f.as, func(key string) string {
			if key == s.Key {
				return s.Value
			}
			return ""
		})
		for _, fault := range faults {
			if fault.Field == s.Key && s.Value != "" {
				f.Fault("value", "%s: %s", s.Key, fault.Advice)
			}
		}
	}
	return s
}

// Record returns the setting as text.
func (s Setting) Record() Record { return Record{Settings, [][]string{{s.Key, s.Value}}} }

// A Place is where the farm lies and how it works.
type Place struct {
	Name                            string
	Latitude, Longitude, ElevationM float64
	Zone                            *time.Location
	PickDays                        day.Weekdays
	Bench                           *climate.Extremes // of the nursery, where the farm has set it
	Picking                         string            // all, ahead or sold
	PickHour                        float64
	Usual                           *climate.Season // where the farm has chosen a climate or written down its own
	LastFrost, FirstFrost           string          // month-days that the farm has written down, empty for those of the 10 % risk
	SquareCM                        float64         // side of a square of the bed plan
	Chance                          float64         // that a plan holds its want, 0 to 1
	Losses                          float64         // share of the plants set out or thinned to that die, 0 to 1
	Margin                          float64         // seeds sown beyond what is needed, as a share
	BenchTrays                      *int            // that the nursery holds
	StemsAnHour                     float64         // that one person cuts
	CutUntilC                       float64         // °C up to which stems are cut
	BunchStems                      int             // of a straight bunch
	BouquetMinutes                  float64         // that making up a bouquet takes
	SowingMinutes                   float64         // that a sowing more takes, with all that comes of it, whatever its size
	Currency                        string          // as it stands behind a price; empty for none
	PickHoursAWeek                  *float64        // that the hands have for cutting
	Heavy                           bool            // its soil holds water long
	CrewHours                       [7]float64      // that the crew has on each day, Monday first
	Address                         string          // by which phones reach the program, such as https://dew.lan:8443; empty where none do
	DemoDay                         day.Day         // zero on a real farm
	DemoSeed                        uint64
	Game                            string // of a season that is played: what its crew does by itself; empty on other farms
}

// What a farm plans with until it says otherwise.
const (
	usualSquareCM    = 30
	usualChance      = 0.9
	usualLosses      = 0.1
	usualMargin      = 0.1
	usualStemsAnHour = 200
	usualBunchStems  = 10
	usualBouquet     = 5 // minutes; a guess
	usualSowing      = 20
)

// ReadPlace reads a farm's settings by their keys; what is wrong is named by them.
func ReadPlace(get func(key string) string) (Place, error) { return ReadPlaceFor(metric{}, get) }

// ReadPlaceFor is ReadPlace for somebody who reads measures in a way of their own.
func ReadPlaceFor(m Measures, get func(key string) string) (Place, error) {
	p, faults := readPlace(m, get)
	return p, faults.OrNil()
}

func readPlace(m Measures, get func(key string) string) (Place, fault.List) {
	f := NewFields(get).For(m)
	p := Place{
		Name: f.Name("name", "the farm's name"), Latitude: f.Number("latitude", -90, 90), Longitude: f.Number("longitude", -180, 180),
		ElevationM: f.Number("elevation_m", -450, 6000), Picking: f.Word("picking", "", "all", "ahead", "sold"),
		PickHour: 8, SquareCM: usualSquareCM, Chance: usualChance, Losses: usualLosses, Margin: usualMargin, StemsAnHour: usualStemsAnHour, CutUntilC: cutting.UsualUntilC, BunchStems: usualBunchStems, BouquetMinutes: usualBouquet, SowingMinutes: usualSowing,
		LastFrost: f.Raw("last_frost"), FirstFrost: f.Raw("first_frost"), BenchTrays: f.OptWhole("bench_trays", 0, 100_000), PickHoursAWeek: f.OptNumber("pick_hours_a_week", 0, 10_000),
		DemoDay: f.OptDay("demo_day"), Game: f.Raw("game"),
	}
	for name, set := range map[string]struct {
		to        *float64
		low, high float64
	}{"square_cm": {&p.SquareCM, 5, 500}, "chance": {&p.Chance, 0.5, 0.99}, "losses": {&p.Losses, 0, 0.9}, "margin": {&p.Margin, 0, 5},
		"stems_an_hour": {&p.StemsAnHour, 1, 5000}, "cut_until_c": {&p.CutUntilC, 12, 24}, "bouquet_minutes": {&p.BouquetMinutes, 0.1, 600}, "sowing_minutes": {&p.SowingMinutes, 0, 600}} {
		if n := f.OptNumber(name, set.low, set.high); n != nil {
			*set.to = *n
		}
	}
	if n := f.OptWhole("bunch_stems", 1, 200); n != nil {
		p.BunchStems = *n
	}
	zone, err := time.LoadLocation(f.Raw("timezone"))
	if err != nil || f.Raw("timezone") == "" || f.Raw("timezone") == "Local" {
		f.Fault("timezone", "%q is no time zone: write one such as Europe/Zurich", f.Raw("timezone"))
		zone = time.UTC
	}
	p.Zone = zone
	if p.PickDays, err = day.ParseWeekdays(f.Raw("pick_days")); err != nil {
		f.Fault("pick_days", "%v", err)
	} else if p.PickDays == 0 {
		f.Fault("pick_days", "the farm needs a day on which it cuts, such as tue and fri")
	}
	if hour := f.OptNumber("pick_hour", 0, 23.99); hour != nil {
		p.PickHour = *hour
	}
	low, high := f.OptNumber("nursery_min_c", -5, 40), f.OptNumber("nursery_max_c", -5, 45)
	switch {
	case low != nil && high != nil && *low > *high:
		f.Fault("nursery_max_c", "the nursery's warmest %s is below its coldest %s: check both", f.measure("nursery_max_c", *high), f.measure("nursery_min_c", *low))
	case low != nil && high != nil:
		p.Bench = &climate.Extremes{TminC: *low, TmaxC: *high}
	}
	p.Usual = f.season()
	if p.Currency = f.Text("currency"); len([]rune(p.Currency)) > 8 {
		f.Fault("currency", "write the currency in at most eight letters, such as CHF")
	}
	p.Address = f.site("address")
	p.CrewHours = f.crewHours("crew_hours")
	p.Heavy = f.Word("soil", "", "usual", "heavy") == "heavy"
	f.monthDay("last_frost")
	f.monthDay("first_frost")
	if s := f.Raw("demo_seed"); s != "" {
		if p.DemoSeed, err = strconv.ParseUint(s, 10, 64); err != nil {
			f.Fault("demo_seed", "%q is no seed: write a whole number", s)
		}
	}
	return p, f.faults
}

// usualCrewHours are what one grower has for the field on a day, until the farm says otherwise.
var usualCrewHours = [7]float64{6, 6, 6, 6, 6, 4, 0}

// crewHours reads the hours of the seven days of a week, parted by blanks.
func (f *Fields) crewHours(name string) [7]float64 {
	words := strings.Fields(f.Raw(name))
	if len(words) == 0 {
		return usualCrewHours
	}
	var hours [7]float64
	for i, w := range words {
		n, err := strconv.ParseFloat(w, 64)
		if err != nil || !(n >= 0 && n <= 500) || len(words) != len(hours) {
			f.Fault(name, "write the crew's hours of the seven days from Monday on, parted by blanks, such as 6 6 4 6 8 3 0")
			return usualCrewHours
		}
		hours[i] = n
	}
	return hours
}

// site reads the address of a site: https, a host, perhaps a port. It returns it as browsers write it: small letters, names beyond ASCII in
// their punycode, no port where it is the usual one.
func (f *Fields) site(name string) string {
	s := strings.TrimSuffix(f.Raw(name), "/")
	if s == "" {
		return ""
	}
	wrong := func() string {
		f.Fault(name, "%q is no address of the farm: write it as https://dew.lan:8443", s)
		return ""
	}
	at, err := url.Parse(s)
	if err != nil || at.Scheme != "https" || at.Path != "" || at.RawQuery != "" || at.Fragment != "" || at.User != nil {
		return wrong()
	}
	host, port := strings.TrimSuffix(at.Hostname(), "."), at.Port()
	if n, err := strconv.Atoi(port); port != "" && (err != nil || n < 1 || n > 65535) || strings.HasSuffix(at.Host, ":") {
		return wrong()
	}
	if ip, err := netip.ParseAddr(host); err == nil {
		if ip.Zone() != "" || ip.IsUnspecified() || ip.IsMulticast() {
			return wrong()
		}
		host = ip.Unmap().String()
	} else if host, err = idna.Lookup.ToASCII(host); err != nil || host == "" || strings.Trim(host, "0123456789.") == "" {
		return wrong()
	}
	canonical := url.URL{Scheme: "https", Host: host}
	switch {
	case port != "" && port != "443":
		canonical.Host = net.JoinHostPort(host, port)
	case strings.Contains(host, ":"):
		canonical.Host = "[" + host + "]"
	}
	return canonical.String()
}

// season reads the climate that the farm has chosen, or its own means of the months; nil where it has done neither.
func (f *Fields) season() *climate.Season {
	if low, high := f.months("climate_tmin_c"), f.months("climate_tmax_c"); low != nil && high != nil {
		for i := range low {
			if low[i] > high[i] {
				f.Fault("climate_tmax_c", "in month %d the days of %s are colder than the nights of %s: check both", i+1, f.measure("climate_tmax_c", high[i]), f.measure("climate_tmin_c", low[i]))
			}
		}
		s := climate.MonthlySeason(*low, *high)
		return &s
	}
	id := f.Raw("climate")
	if id == "" {
		return nil
	}
	region, ok := climate.RegionNamed(id)
	if !ok {
		var ids []string
		for _, r := range climate.Regions() {
			ids = append(ids, r.ID)
		}
		f.Fault("climate", "%q is no climate to choose: write one of %s", id, strings.Join(ids, ", "))
		return nil
	}
	s := region.Season()
	return &s
}

// months reads twelve numbers parted by blanks; nil where there are none.
func (f *Fields) months(name string) *[12]float64 {
	words := strings.Fields(f.Raw(name))
	if len(words) == 0 {
		return nil
	}
	var months [12]float64
	for i, w := range words {
		celsius, err := strconv.ParseFloat(w, 64)
		if err != nil || !(celsius >= -60 && celsius <= 60) || len(words) != len(months) {
			f.Fault(name, "write twelve means in %s from January on, parted by blanks, such as %s %s %s …: this has %d, and %q in place %d", f.as.UnitOf(name),
				f.as.Write(name, -3), f.as.Write(name, -2.5), f.as.Write(name, 0.5), len(words), w, i+1)
			return nil
		}
		months[i] = celsius
	}
	return &months
}

// monthDay checks a day of the year such as "05-12".
func (f *Fields) monthDay(name string) {
	if s := f.Raw(name); s != "" {
		if _, err := time.Parse("2006-01-02", "2024-"+s); err != nil {
			f.Fault(name, "%q is no day of the year: write month and day such as 05-12", s)
		}
	}
}

// LacksSetting returns the first needed setting that a set of them lacks, empty if none.
func LacksSetting(settings []Setting) string {
	for _, key := range settingKeys[:neededSettings] {
		if !slices.ContainsFunc(settings, func(s Setting) bool { return s.Key == key && strings.TrimSpace(s.Value) != "" }) {
			return key
		}
	}
	return ""
}
