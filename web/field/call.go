package field

import (
	"dewcount/farm/work"
	"dewcount/say"
)

// A callView is what to do with a stem of a row in the hand, for one use.
type callView struct {
	For   string   `json:"for"`
	Rungs []string `json:"rungs"` // by rung: the verdict, and why
	Fails []string `json:"fails"` // on its rungs, for each test that it may fail
}

// callsOf returns the calls on stems of planting i, the market's first.
func callsOf(snap *say.Snapshot, i int) []callView {
	var views []callView
	for _, calls := range work.CallsOf(snap.Snapshot, i) {
		v := callView{For: say.For(calls.Use), Fails: []string{}}
		for _, call := range calls.ByRung {
			v.Rungs = append(v.Rungs, say.Sentence(say.Call(call, calls.Use)))
		}
		for _, call := range calls.Failing {
			v.Fails = append(v.Fails, say.Sentence("if "+say.Fails(call.Test)+": "+say.Call(call, calls.Use)))
		}
		views = append(views, v)
	}
	return views
}
