package say

import "dewcount/core/rounds"

var taskWords = map[rounds.Task]string{rounds.Sow: "Sow", rounds.Receive: "Take in plugs", rounds.OffHeat: "Take off the heat", rounds.Uncover: "Take the cover off cuttings", rounds.PotOn: "Pot on", rounds.Harden: "Begin to harden off", rounds.PlantOut: "Plant out",
	rounds.Thin: "Thin", rounds.ThinMore: "Thin to the final distance", rounds.Weed: "Weed", rounds.Water: "Water", rounds.Steer: "Set its light", rounds.Net: "Net or stake", rounds.RaiseNet: "Raise the net", rounds.Pinch: "Pinch",
	rounds.Strip: "Strip low leaves", rounds.Feed: "Feed", rounds.Disbud: "Disbud", rounds.Bag: "Bag buds", rounds.Scout: "Look for pests", rounds.Count: "Count", rounds.Cut: "Cut",
	rounds.Deadhead: "Deadhead", rounds.SeedHead: "Take seed heads", rounds.Frost: "Cut before frost", rounds.PullOut: "Pull out and cover", rounds.Mulch: "Cover the bare soil", rounds.Lift: "Lift", rounds.Cover: "Cover for winter"}

// TaskWord names a job: how the planting is begun, where it is to be begun.
func (s *Snapshot) TaskWord(j rounds.Job) string {
	switch p, _ := s.Book.Planting(j.Planting); {
	case j.Task == rounds.Sow && rounds.StartWords[p.Method] != "":
		return rounds.StartWords[p.Method]
	case j.Task == rounds.Water && j.ByHand:
		return "Water by hand"
	}
	return taskWords[j.Task]
}

// Caution says what to heed where a task is done, empty for most.
func (l Locale) Caution(t rounds.Task) string {
	switch t {
	case rounds.Cut:
		return "Knives: cut away from yourself. A full bucket weighs as much as " + l.KG(15) + "."
	case rounds.Steer:
		return "Lights and wires near water: only as an electrician has put them."
	case rounds.Water:
		return "In the heat: hat, water, shade."
	}
	return ""
}
