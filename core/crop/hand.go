package crop

// fedLonger is by how much longer flower food keeps stems, and fedRungs how much further it lets those open that open in water. Sugar and clean water do more in
// trials, up to twice (Halevy & Mayak 1979, Horticultural Reviews 1:204-236); this is what a grower can promise.
const (
	fedLonger = 1.2
	fedRungs  = 1
)

// Fed returns the crop as its stems are in water with flower food.
func (p *Profile) Fed() *Profile {
	fed := *p
	for i := range fed.Vase.Days {
		fed.Vase.Days[i] *= fedLonger
	}
	if fed.InWater.Opens != "no" {
		fed.InWater.To = max(fed.InWater.To, min(Open, fed.InWater.To+fedRungs))
	}
	return &fed
}

// Questions of the way from the row into the bucket.
const (
	Strip     = "strip"
	Carry     = "carry"
	Condition = "condition"
)

// handSeconds is how much longer a stem takes by a school than by the first of its question, in seconds of one person: guesses with a watch in the hand.
var handSeconds = map[string]map[string]float64{
	Strip:     {"all": 2, "show": 1},
	Carry:     {"dry": 2},
	Condition: {"hot": 1.5, Drained: 1},
}

// HandSeconds returns how many seconds more than usual a stem takes on its way into the bucket by the schools that are chosen, by question.
func HandSeconds(chosen func(question string) string) float64 {
	sum := 0.0
	for question, by := range handSeconds {
		sum += by[chosen(question)]
	}
	return sum
}
