package croptable

import (
	"bytes"
	"testing"
)

// Every shipped profile comes back from its form as it was.
func TestLeavesReadBack(t *testing.T) {
	for _, e := range Shipped() {
		leaves := make(map[string]string)
		for _, l := range e.Leaves() {
			leaves[l.Path] = l.Text
		}
		again, faults := e.With(func(path string) string { return leaves[path] })
		var was, is bytes.Buffer
		if err := Write(&was, []Entry{e}); err != nil {
			t.Fatal(err)
		}
		if err := Write(&is, []Entry{again}); err != nil {
			t.Fatal(err)
		}
		if len(faults) > 0 || was.String() != is.String() {
			t.Errorf("%s does not read back: %v", e.ID, faults)
		}
	}
}

func TestLeavesAreCheckedLikeTheTable(t *testing.T) {
	e := Shipped()[0]
	change := func(path, text string) map[string]string {
		leaves := make(map[string]string)
		for _, l := range e.Leaves() {
			leaves[l.Path] = l.Text
		}
		leaves[path] = text
		next, faults := e.With(func(path string) string { return leaves[path] })
		if len(faults) == 0 && next.Name == e.Name && path != "name" && path != "spacing_cm" {
			return nil
		}
		return faults
	}
	for path, text := range map[string]string{"temperature.base_c": "40", "spacing_cm": "wide", "thermal.rungs_cd": "1 2 3", "spread_cv": "", "cut.market.from": "ripe",
		"life": "tree", "bucket_stems": "2.5", "pinch.policy": "often"} {
		faults := change(path, text)
		if len(faults) != 1 {
			t.Errorf("%s = %q: %v", path, text, faults)
			continue
		}
		for at := range faults {
			if at != path && path != "cut.market.from" {
				t.Errorf("%s = %q is blamed on %s", path, text, at)
			}
		}
	}
	if faults := change("name", "Another"); len(faults) > 0 {
		t.Errorf("another name: %v", faults)
	}
	if e.Name == "Another" {
		t.Error("the shipped profile was changed")
	}
}
