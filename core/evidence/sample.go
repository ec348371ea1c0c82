package evidence

import "math"

// SampleCV returns the coefficient of variation of what stands on a row of so many plants when some of them, taken evenly along it, are
// counted: stems come by chance and plants differ (plantsCV), and the plants that were counted are known for sure, so that what is
// left unsure shrinks with the share that was not looked at (finite population correction, Cochran 1977, Sampling Techniques, eq. 2.19).
// perPlant is how many stems a plant is thought to have. With nothing counted, or nothing there, it is infinite.
func SampleCV(some, all int, perPlant float64) float64 {
	if some <= 0 || all <= 0 || perPlant <= 0 {
		return math.Inf(1)
	}
	n := float64(min(some, all))
	return math.Sqrt((1/perPlant + plantsCV*plantsCV) / n * (1 - n/float64(all)))
}

// What a count leaves of a pick's spread: the weather, the picker's eye and the model's own error stay whatever is counted (leastPart of
// the width), and a poor count leaves all of it. In between the variance goes with the sample's own, half way at halfCV2. Fitted to what
// counts of 6 to all plants did to the spread of the next pick in fourteen rows of the demo farm that had been counted before; a first count
// narrows more.
const (
	leastPart = 0.83
	halfCV2   = 0.05
)

// Narrowed returns the part of the next pick's spread, from P10 to P90, that a count with a coefficient of variation leaves; without a
// count, all of it.
func Narrowed(sampleCV float64) float64 {
	if math.IsInf(sampleCV, 1) {
		return 1
	}
	poor := sampleCV * sampleCV / (sampleCV*sampleCV + halfCV2)
	return math.Sqrt(leastPart*leastPart + (1-leastPart*leastPart)*poor)
}

// Samples of a row are neither so small that a single plant decides nor so large that the morning is over.
const (
	leastSample = 6
	mostSample  = 40
	goodCV      = 0.45 // so well known that a row twice or half as good as foreseen is seen
)

// Sample returns how many plants of a row of so many are worth counting, where a plant has perPlant stems for the next pick: so many that
// a row that is not as foreseen is seen.
func Sample(all int, perPlant float64) int {
	n := min(all, leastSample)
	for n < min(all, mostSample) && SampleCV(n, all, perPlant) > goodCV {
		n++
	}
	return n
}
