package climate

import "math"

// twilightDeg is the sun's place below the horizon at the end of civil twilight, in degrees.
const twilightDeg = 6.0

// sunriseDeg is the place of the sun's middle below the horizon at sunrise, in degrees: its radius and the bent light.
const sunriseDeg = 0.8333

// Photoperiod returns the hours of light, civil twilight included, at a latitude in degrees north
// (-90 to 90) on day yearDay of the year (1 to 366): 24 in polar day, 0 in polar night.
//
// The formula is the CBM model of Forsythe et al. (1995), Ecological Modelling 80:87-95, eqs 1-3.
func Photoperiod(latitude float64, yearDay int) float64 {
	return hoursAbove(latitude, yearDay, -twilightDeg)
}

// SunHours returns the hours from sunrise to sunset, by the same formula and in the same ranges as Photoperiod.
func SunHours(latitude float64, yearDay int) float64 {
	return hoursAbove(latitude, yearDay, -sunriseDeg)
}

// SundialFast returns by how many hours the sun is ahead of an even clock on day yearDay of the year (1 to 366), -0.24 to 0.28: the equation of time
// of Spencer (1971), Search 2:172.
func SundialFast(yearDay int) float64 {
	turn := 2 * math.Pi * float64(yearDay-1) / 365
	return 24 / (2 * math.Pi) * (0.000075 + 0.001868*math.Cos(turn) - 0.032077*math.Sin(turn) - 0.014615*math.Cos(2*turn) - 0.04089*math.Sin(2*turn))
}

func hoursAbove(latitude float64, yearDay int, altitudeDeg float64) float64 {
	theta := 0.2163108 + 2*math.Atan(0.9671396*math.Tan(0.00860*float64(yearDay-186)))
	declination := math.Asin(0.39795 * math.Cos(theta))
	phi := latitude * math.Pi / 180
	x := (math.Sin(-altitudeDeg*math.Pi/180) + math.Sin(phi)*math.Sin(declination)) /
		(math.Cos(phi) * math.Cos(declination))
	return 24 - 24/math.Pi*math.Acos(min(1, max(-1, x)))
}

// Sunlight returns the sun's energy above the air in MJ per m² and day at a latitude in degrees north on day yearDay of the year (1 to
// 366): Allen et al. (1998), eqs 21 to 25.
func Sunlight(latitude float64, yearDay int) float64 {
	const solarMJ = 0.0820 // per m² and minute
	phi := latitude * math.Pi / 180
	turn := 2 * math.Pi * float64(yearDay) / 365
	distance := 1 + 0.033*math.Cos(turn)
	declination := 0.409 * math.Sin(turn-1.39)
	sunset := math.Acos(min(1, max(-1, -math.Tan(phi)*math.Tan(declination))))
	return max(0, 24*60/math.Pi*solarMJ*distance*(sunset*math.Sin(phi)*math.Sin(declination)+math.Cos(phi)*math.Cos(declination)*math.Sin(sunset)))
}

// DayLengths are the photoperiods and the sun's energy of one latitude, worked out once, from 1 January on.
type DayLengths struct{ hours, sunMJ [366]float64 }

// DayLengthsAt returns the photoperiods at a latitude in degrees north (-90 to 90).
func DayLengthsAt(latitude float64) *DayLengths {
	var l DayLengths
	for i := range l.hours {
		l.hours[i], l.sunMJ[i] = Photoperiod(latitude, i+1), Sunlight(latitude, i+1)
	}
	return &l
}

// SunMJ returns what Sunlight does on day yearDay of the year (1 to 366).
func (l *DayLengths) SunMJ(yearDay int) float64 { return l.sunMJ[yearDay-1] }

// Lengthen tells whether days grow longer on day yearDay of the year (1 to 366).
func (l *DayLengths) Lengthen(yearDay int) bool {
	return l.hours[yearDay-1] > l.hours[(yearDay+364)%len(l.hours)]
}

// On returns the photoperiod in hours on day yearDay of the year (1 to 366).
func (l *DayLengths) On(yearDay int) float64 { return l.hours[yearDay-1] }
