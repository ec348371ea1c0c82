package ladder

import (
	"encoding/xml"
	"errors"
	"io"
	"math"
	"regexp"
	"strconv"
	"strings"
	"testing"

	"dewcount/core/crop"
	"dewcount/croptable"
)

func TestEveryFormOfTheTableHasItsOwnLadderInDrawingAndWords(t *testing.T) {
	for _, e := range croptable.Shipped() {
		if Known(e.Form) != e.Form {
			t.Errorf("%s: Known(%q) = %q: the form has no routine", e.ID, e.Form, Known(e.Form))
		}
		seen := make(map[string]crop.Rung)
		for k := range crop.Rung(crop.Rungs) {
			words := crop.Sign(e.Form, k)
			if other, twice := seen[words]; twice || words == "" || words == k.Words() {
				t.Errorf("Sign(%q, %s) = %q, which says no more than %s, or what is said of all forms", e.Form, k, words, other)
			}
			seen[words] = k
		}
	}
}

func TestSheetsAreWellFormedWithASymbolARung(t *testing.T) {
	for _, form := range Forms() {
		d := xml.NewDecoder(strings.NewReader(string(Sheet(form))))
		symbols := 0
		for {
			token, err := d.Token()
			if errors.Is(err, io.EOF) {
				break
			}
			if err != nil {
				t.Fatalf("Sheet(%q): %v", form, err)
			}
			if start, ok := token.(xml.StartElement); ok && start.Name.Local == "symbol" {
				if id := start.Attr[0].Value; id != crop.Rung(symbols).String() {
					t.Errorf("Sheet(%q): symbol %d is %q, want %s", form, symbols, id, crop.Rung(symbols))
				}
				symbols++
			}
		}
		if symbols != crop.Rungs {
			t.Errorf("Sheet(%q) has %d symbols, want %d", form, symbols, crop.Rungs)
		}
	}
}

// What is green is ink and what shows colour is outlined: a tight bud and a spent head have no outline, an open flower has.
func TestColourIsOutlined(t *testing.T) {
	for _, form := range Forms()[1:] {
		for k := range crop.Rung(crop.Rungs) {
			has := strings.Contains(Drawing(form, k), `fill="var(--petal,#fff)"`)
			if want := k != crop.Tight && k != crop.Spent; has != want {
				t.Errorf("Drawing(%q, %s) has outlines: %v, want %v", form, k, has, want)
			}
		}
	}
}

var absolute = regexp.MustCompile(`[MLCQ]([-\d. ]+)`)

func TestDrawingsKeepToTheirSheet(t *testing.T) {
	const beyond = 6 // a handle of a curve, or a petal's edge
	for _, form := range Forms()[1:] {
		for k := range crop.Rung(crop.Rungs) {
			for _, found := range absolute.FindAllStringSubmatch(Drawing(form, k), -1) {
				for i, word := range strings.Fields(found[1]) {
					v, err := strconv.ParseFloat(word, 64)
					if err != nil || math.IsNaN(v) {
						t.Fatalf("Drawing(%q, %s) holds %q", form, k, word)
					}
					if most := []float64{Width, Height}[i%2]; v < -beyond || v > most+beyond {
						t.Errorf("Drawing(%q, %s): %s lies off its sheet of %v", form, k, word, most)
					}
				}
			}
		}
	}
}

func TestAnUnknownFormIsDrawnAsAny(t *testing.T) {
	if got := Known("of-my-own"); got != Any {
		t.Errorf("Known = %q, want %q", got, Any)
	}
	if Drawing("of-my-own", crop.Half) != Drawing(Any, crop.Half) {
		t.Error("an unknown form is not drawn as the ladder of all")
	}
}
