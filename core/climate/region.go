package climate

// A Region is a general climate that a grower can start from: the means of each month's extremes in °C, January first. They are round
// numbers for a kind of country, not for a place.
type Region struct {
	ID, Name     string
	Latitude     float64 // degrees north, about
	ElevationM   float64 // about
	TminC, TmaxC [12]float64
}

// Season returns the region's seasonal mean.
func (r Region) Season() Season { return MonthlySeason(r.TminC, r.TmaxC) }

// Regions returns the climates to choose from, from the north to the south.
func Regions() []Region { return regions }

// RegionNamed returns a region by its id, and whether there is one.
func RegionNamed(id string) (Region, bool) {
	for _, r := range regions {
		if r.ID == id {
			return r, true
		}
	}
	return Region{}, false
}

var regions = []Region{
	{"boreal-62n", "boreal, long winter, 62 N", 62, 100,
		[12]float64{-12, -12, -7.5, -2, 3.5, 8.5, 11.5, 10, 5.5, 1, -4.5, -9.5},
		[12]float64{-4.5, -4, 1, 7.5, 14.5, 19, 21.5, 19.5, 13.5, 6.5, 0.5, -3}},
	{"oceanic-north-57n", "oceanic, cool summer, 57 N", 57, 100,
		[12]float64{1, 1, 2, 3.5, 6, 8.5, 10.5, 10.5, 8.5, 6, 3.5, 1.5},
		[12]float64{6.5, 7, 9, 11.5, 14.5, 17, 18.5, 18.5, 16, 12.5, 9, 7}},
	{"maritime-52n", "maritime, mild winter, 52 N", 52, 100,
		[12]float64{1.5, 1.5, 3, 4.5, 8, 11, 13, 12.5, 10.5, 7.5, 4.5, 2},
		[12]float64{6.5, 7.5, 10.5, 14, 17.5, 20, 22.5, 22, 19, 14.5, 10, 7}},
	{"inland-51n", "inland, cold winter, 51 N", 51, 100,
		[12]float64{-4, -3.5, -0.5, 3.5, 8.5, 11.5, 13.5, 13, 9.5, 5, 1, -2.5},
		[12]float64{1, 3, 8, 14.5, 19.5, 22.5, 24.5, 24, 19, 13, 6.5, 2}},
	{"foothills-47n", "foothills of mountains, 47 N, 500 m", 47, 500,
		[12]float64{-3, -2.5, 0.5, 3.5, 8, 11.5, 13.5, 13, 9.5, 6, 1.5, -2},
		[12]float64{3, 5, 10, 14.5, 19, 22.5, 25, 24, 19.5, 14, 7.5, 3.5}},
	{"plains-45n", "plains, hot summer and cold winter, 45 N", 45, 100,
		[12]float64{-9.5, -7.5, -1.5, 4.5, 10.5, 15.5, 18, 17, 12.5, 6, -0.5, -7},
		[12]float64{-0.5, 2, 8, 15.5, 21.5, 26.5, 29, 28, 23.5, 16.5, 8, 1}},
	{"east-coast-42n", "humid with snowy winters, 42 N", 42, 100,
		[12]float64{-6, -5, -1, 4.5, 10, 15, 18, 17.5, 13.5, 7.5, 2.5, -3},
		[12]float64{2.5, 4, 8.5, 14.5, 20.5, 25.5, 28.5, 27.5, 23.5, 17, 10.5, 5}},
	{"west-coast-45n", "wet winter and dry summer, 45 N", 45, 100,
		[12]float64{2, 2, 3.5, 5, 8, 10.5, 13, 13, 10.5, 7, 4, 2},
		[12]float64{8, 10, 13, 16, 20, 23, 27, 27, 24, 17.5, 11.5, 8}},
	{"mediterranean-39n", "mediterranean, 39 N", 39, 100,
		[12]float64{5.5, 6, 7.5, 9.5, 13, 17, 19.5, 20, 17, 13.5, 9.5, 6.5},
		[12]float64{13.5, 14.5, 17, 20, 24.5, 29, 32, 31.5, 28, 23, 18, 14.5}},
	{"humid-south-34n", "humid with mild winters, 34 N", 34, 100,
		[12]float64{0.5, 2, 5.5, 9.5, 14.5, 19, 21.5, 21, 17.5, 11, 5.5, 1.5},
		[12]float64{11.5, 14, 18.5, 23, 27, 30.5, 32, 31.5, 28.5, 23, 17.5, 12.5}},
	{"highland-5n", "tropical highland, no frost, 5 N, 2000 m", 5, 2000,
		[12]float64{9, 9.5, 10.5, 11, 11, 10.5, 10, 10, 10, 10.5, 10, 9.5},
		[12]float64{21, 21.5, 21.5, 21, 20.5, 20, 19.5, 20, 20.5, 20.5, 20.5, 20.5}},
	{"mediterranean-33s", "mediterranean, 33 S", -33, 100,
		[12]float64{15.5, 15.5, 14, 11.5, 9, 7, 6.5, 7, 8, 10, 12.5, 14.5},
		[12]float64{27.5, 27.5, 26, 23.5, 20.5, 18, 17.5, 18, 19.5, 22, 24, 26}},
	{"temperate-38s", "temperate with mild winters, 38 S", -38, 100,
		[12]float64{14, 14.5, 12.5, 10, 8, 6, 5.5, 6, 7.5, 9, 10.5, 12.5},
		[12]float64{26, 26, 23.5, 20, 16.5, 14, 13.5, 15, 17, 19.5, 22, 24}},
	{"oceanic-43s", "oceanic, cool summer, 43 S", -43, 100,
		[12]float64{12, 12, 10, 7.5, 5, 2.5, 1.5, 2.5, 4.5, 6.5, 8.5, 11},
		[12]float64{22.5, 22, 20, 17.5, 14.5, 11.5, 11, 12.5, 15, 17, 19, 21}},
}
