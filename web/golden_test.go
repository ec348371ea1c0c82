package web

import (
	"crypto/sha256"
	"encoding/hex"
	"flag"
	"net/http"
	"net/url"
	"os"
	"path/filepath"
	"regexp"
	"slices"
	"strings"
	"testing"

	"dewcount/farm/book"

	"golang.org/x/net/html"
)

// What pages say is kept in testdata/golden as a person reads it, and read by one before it is kept: go test ./web -run Golden -update, then
// git diff.
var update = flag.Bool("update", false, "write the golden pages anew")

// golden holds what a page says against its golden file.
func golden(t *testing.T, name, page string) {
	t.Helper()
	said := spoken(t, page)
	path := filepath.Join("testdata", "golden", name+".txt")
	if *update {
		if err := os.WriteFile(path, []byte(said), 0o644); err != nil {
			t.Fatal(err)
		}
		return
	}
	want, err := os.ReadFile(path)
	if err != nil {
		t.Fatalf("%v: write it with -update and read it", err)
	}
	if said == string(want) {
		return
	}
	now, before := strings.Split(said, "\n"), strings.Split(string(want), "\n")
	for i := range min(len(now), len(before)) {
		if now[i] != before[i] {
			t.Errorf("%s, line %d:\n says %.300q\n want %.300q", path, i+1, now[i], before[i])
			return
		}
	}
	t.Errorf("%s: %d lines, want %d", path, len(now), len(before))
}

var (
	// blocks begin a line of their own.
	blocks = strings.Fields("h1 h2 h3 p li tr th td dt dd form label input select option button textarea summary details nav section article caption legend svg a title script div datalist")
	// tokens and marks are other ones each time; a file's mark goes with the program.
	otherEachTime = regexp.MustCompile(`csrf|^id=[A-Z2-7]{26}$|^shown=|^(job|back|do)=`)
	fileMark      = regexp.MustCompile(`\?(v=)?[0-9a-f]{12}`)
)

// spoken writes a page as a person reads it: a line for each piece of text, with where links lead, what fields hold, and which things are marked
// as short, late, chosen or faulty. Of drawings it has their words, and a hash of all that is drawn.
func spoken(t *testing.T, page string) string {
	t.Helper()
	root, err := html.Parse(strings.NewReader(page))
	if err != nil {
		t.Fatal(err)
	}
	var text strings.Builder
	line := func(parts ...string) {
		said := strings.Join(strings.Fields(strings.Join(parts, " ")), " ")
		if said != "" && !otherEachTime.MatchString(said) {
			text.WriteString(said + "\n")
		}
	}
	var walk func(n *html.Node)
	walk = func(n *html.Node) {
		switch {
		case n.Type == html.TextNode && n.Parent.Data == "script": // what the page's script goes by, a thing a line
			for part := range strings.SplitSeq(fileMark.ReplaceAllString(n.Data, ""), "},{") {
				line(part)
			}
			return
		case n.Type == html.TextNode:
			line(n.Data)
			return
		case n.Type != html.ElementNode:
		case n.Data == "head" || n.Data == "noscript" || n.Data == "header" || n.Data == "datalist" || n.Data == "option" && !has(n, "selected"):
			return
		case n.Data == "svg":
			line("drawing:", attribute(n, "aria-label"), titleOf(n), drawn16(n))
			return
		case slices.Contains(blocks, n.Data):
			line(opening(n))
		}
		for c := n.FirstChild; c != nil; c = c.NextSibling {
			walk(c)
		}
	}
	walk(root)
	return text.String()
}

// opening says what an element holds beside its text.
func opening(n *html.Node) string {
	name, value := attribute(n, "name"), attribute(n, "value")
	var marks []string
	for _, class := range strings.Fields(attribute(n, "class")) {
		if strings.HasPrefix(class, "is-") || class == "in-window" || class == "notice-warn" || class == "to-order" {
			marks = append(marks, class)
		}
	}
	for _, a := range []string{"checked", "selected", "open", "disabled", "aria-current", "aria-invalid"} {
		if has(n, a) {
			marks = append(marks, a)
		}
	}
	mark := strings.Join(marks, " ")
	switch n.Data {
	case "a":
		return strings.TrimSpace("→ " + fileMark.ReplaceAllString(attribute(n, "href"), "") + " " + mark)
	case "input", "button", "textarea":
		if name != "" {
			return strings.TrimSpace(name + "=" + value + " " + mark)
		}
	case "form":
		return "form " + attribute(n, "action")
	case "h1", "h2", "h3":
		return "# " + mark
	}
	return mark
}

func attribute(n *html.Node, name string) string {
	for _, a := range n.Attr {
		if a.Key == name {
			return a.Val
		}
	}
	return ""
}

func has(n *html.Node, name string) bool {
	return slices.ContainsFunc(n.Attr, func(a html.Attribute) bool { return a.Key == name })
}

// titleOf returns the words of a drawing, which stand in its titles and labels.
func titleOf(n *html.Node) string {
	var words []string
	for d := range n.Descendants() {
		if d.Type == html.ElementNode && (d.Data == "title" || d.Data == "text") && d.FirstChild != nil {
			words = append(words, d.FirstChild.Data)
		}
	}
	return strings.Join(words, " | ")
}

// betweenElements is what draws nothing: a template may be written an element a line.
var betweenElements = regexp.MustCompile(`>\s+<`)

// drawn16 names what is drawn: places, paths and classes.
func drawn16(n *html.Node) string {
	var text strings.Builder
	if err := html.Render(&text, n); err != nil {
		return err.Error()
	}
	drawn := betweenElements.ReplaceAllString(fileMark.ReplaceAllString(text.String(), ""), "><")
	sum := sha256.Sum256([]byte(drawn))
	return "#" + hex.EncodeToString(sum[:8])
}

func TestGoldenPagesOfTheDemo(t *testing.T) {
	s := newSite(t, true)
	s.get("/rounds") // the morning has them once they are worked out
	for name, path := range map[string]string{
		"morning": "/", "morning-later": "/?pick=2026-07-21", "why": "/why/zinnia-tall?pick=2026-07-17", "rounds": "/rounds", "plantings": "/plantings", "plantings-found": "/plantings?find=kon+buds",
		"planting": "/plantings/ZC1", "planting-lasting": "/plantings/PE1", "planting-over": "/plantings/TU1", "planting-to-come": "/plantings/SN3", "planting-edit": "/plantings/ZL1/edit", "planting-new": "/plantings/new",
		"count-form": "/plantings/ZC1/count", "cut-form": "/plantings/WC1/cut", "scout-form": "/plantings/DA1/scout", "spray-form": "/plantings/ZC1/spray", "walk": "/count?row=ZC1", "cut-sheet": "/cut", "store": "/store", "store-place": "/store/places/Cool%20room/edit", "store-bought": "/store/lot", "store-temperature": "/store/temperature", "cut-sheet-later": "/cut?pick=2026-07-14",
		"bucket-labels": "/cut/labels?pick=2026-07-10", "free": "/free", "years": "/years", "review": "/review", "carry": "/season/carry", "possible": "/season/possible?year=2026", "school": "/school", "find": "/find?q=white+dahlia+last+August", "find-none": "/find?q=unicorn+2024", "find-all": "/find", "note": "/notes/note-3", "recipes": "/recipes", "sold": "/store/sold?order=Gate+stall", "ask": "/ask?q=40+WHITE+snapdragon+18+July", "ask-which": "/ask?q=30+zinnias+saturday", "ask-none": "/ask?q=purple+unicorns", "ask-short": "/ask?q=400+dahlias+18+July", "order-options": "/orders/Fallow%20Steps%20market/options", "before-frost": "/cut/frost", "worksheet": "/store/worksheet", "care-card": "/store/card?recipe=Steps+bouquet",
		"orders": "/orders", "order-market": "/orders/Fallow%20Steps%20market", "order-standing": "/orders/Square%20florist%20bucket", "order-edit": "/orders/Wedding%20at%20the%20mill/edit",
		"season": "/season", "season-frost-weeks": "/season?year=2027&weeks=frost", "season-move": "/season?crop=sunflower-single&planting=SU8&started_on=2026-07-28",
		"successions": "/season/successions?asked=1&crop=cosmos-single&stems=60&from=2027-07-05&until=2027-09-19&existing=1&pinch=1", "successions-held": "/season/successions?asked=1&crop=snapdragon&stems=90&from=2026-07-13&until=2026-10-25&chance=70&existing=1", "successions-form": "/season/successions?crop=zinnia-tall",
		"date": "/season/date?asked=1&crop=sunflower-single&stems=40&on=2027-07-24&use=event", "date-too-late": "/season/date?asked=1&crop=dahlia-ball&stems=40&on=2026-07-30&use=event",
		"date-steered": "/season/date?asked=1&crop=chrysanthemum-controlled&stems=40&on=2026-11-20&use=event",
		"beds":         "/beds", "beds-autumn": "/beds?on=2026-10-20", "bed-edit": "/beds/Tunnel/edit", "seeds": "/seeds?year=2027", "seeds-now": "/seeds?year=2026", "labels": "/labels?year=2027",
		"crops": "/crops", "crop-zinnia": "/crops/zinnia-tall", "crop-celosia": "/crops/celosia-plume", "crop-dahlia": "/crops/dahlia-ball", "crop-aster": "/crops/china-aster", "crop-tulip": "/crops/tulip", "crop-edit": "/crops/zinnia-tall/edit",
		"variety-edit": "/varieties/Zinnia%20button%20mix/edit", "ladders": "/ladders", "stakes": "/stakes", "people": "/people", "farm": "/farm", "box": "/box", "start": "/start",
	} {
		status, body := s.get(path)
		if status != http.StatusOK {
			t.Errorf("%s: %d", path, status)
		}
		golden(t, name, body)
	}
}

func TestGoldenAnswersOfTheDemo(t *testing.T) {
	s := newSite(t, true)
	count := url.Values{"id": {"golden"}, "counted_at": {"2026-07-09T06:10"}, "plants_counted": {"15"}, "counter": {"Jörn"}, "stems_half": {"500"}}
	for _, c := range []struct {
		name, from, path string
		form             url.Values
	}{
		{"fault-count", "/plantings/ZC1/count", "/plantings/ZC1/count", count},
		{"fault-cut", "/plantings/SU1/cut", "/plantings/SU1/cut", url.Values{"id": {"g"}, "cut_at": {"2026-07-19T08:00"}, "stems": {"many"}, "culled": {"-3"}, "length_cm": {"9000"}}},
		{"fault-planting", "/plantings/ZC1/edit", "/plantings/ZC1", url.Values{"variety": {"Nobody's"}, "method": {"bulb"}, "started_on": {"2029-02-30"}, "plants": {"0"}, "bed": {"Nowhere"}, "pinched_share": {"7"}}},
		{"fault-order", "/orders/new", "/orders", url.Values{"order": {".."}, "kind": {"gift"}, "due_on": {"tomorrow"}}},
		{"fault-line", "/orders/Gate%20stall", "/orders/Gate%20stall/lines", url.Values{"what": {"moonbeams"}, "stems": {"0"}}},
		{"fault-bed", "/beds/new", "/beds", url.Values{"bed": {"a|b"}, "length_m": {"wide"}, "bearing_deg": {"400"}}},
		{"fault-variety", "/varieties/new", "/varieties", url.Values{"variety": {""}, "crop": {"none"}, "colour": {"red:2"}, "germination": {"80"}}},
		{"fault-farm", "/farm", "/farm", url.Values{"name": {""}, "latitude": {"146"}, "longitude": {"x"}, "elevation_m": {"9999"}, "timezone": {"Moon"}, "pick_days": {"never"}, "address": {"http://dew.lan"}, "crew_hours": {"1 2"}}},
		{"fault-crop", "/crops/zinnia-tall/edit", "/crops/zinnia-tall", url.Values{"name": {"Zinnia"}, "spacing_cm": {"-4"}}},
	} {
		status, _, body := s.post(c.from, c.path, c.form)
		if status != http.StatusUnprocessableEntity {
			t.Errorf("%s: %d", c.name, status)
		}
		golden(t, c.name, body)
	}
	count.Set("stems_half", "40")
	if status, to, body := s.post("/plantings/ZC1/count", "/plantings/ZC1/count", count); status != http.StatusSeeOther {
		t.Errorf("a count: %d, %s", status, body)
	} else if status, body := s.get(to); status != http.StatusOK {
		t.Errorf("%s: %d", to, status)
	} else {
		golden(t, "count-recorded", body)
		if _, other := s.get(strings.Replace(to, "ZC1", "ZL1", 1)); strings.Contains(other, "What the count changed") {
			t.Error("ZL1 says what a count of ZC1 changed")
		}
	}
	edit := url.Values{"shown": {"what somebody saw"}, "variety": {"Zinnia coral"}, "method": {"tray"}, "started_on": {"2026-03-28"}, "planted_out_on": {"2026-05-01"}, "plants": {"110"}, "bed": {"Brook 2"}}
	if status, _, body := s.post("/plantings/ZC1/edit", "/plantings/ZC1", edit); status != http.StatusUnprocessableEntity {
		t.Errorf("the second of two editors: %d", status)
	} else {
		golden(t, "both-versions", body)
	}
}

// dated sets the demo's clock to another day: no weather is known since July.
func (s *site) dated(day string) {
	s.t.Helper()
	if err := s.store.Apply(ctx, book.Change{Correct: []book.Record{book.Setting{Key: "demo_day", Value: day}.Record()}}); err != nil {
		s.t.Fatal(err)
	}
}

func TestGoldenPagesInOtherSeasons(t *testing.T) {
	s := newSite(t, true)
	for day, paths := range map[string]map[string]string{
		"2026-12-09": {"winter-morning": "/", "winter-rounds": "/rounds", "winter-plantings": "/plantings", "winter-count": "/count", "winter-orders": "/orders", "winter-cut": "/cut"},
		"2027-04-28": {"spring-morning": "/", "spring-rounds": "/rounds", "spring-planting": "/plantings/RO1"},
	} {
		s.dated(day)
		s.get("/rounds")
		for name, path := range paths {
			status, body := s.get(path)
			if status != http.StatusOK {
				t.Errorf("%s on %s: %d", path, day, status)
			}
			golden(t, name, body)
		}
	}
}

// A farm in the south that has nothing on record, and then one row and a bedding
// form that is too low to cut.
func TestGoldenPagesOfAFarmOfOnesOwn(t *testing.T) {
	s := newSite(t, false)
	_, body := s.get("/farm")
	golden(t, "own-farm", body)
	settings := url.Values{"name": {"Süd-Hof"}, "latitude": {"-43.5"}, "longitude": {"172"}, "elevation_m": {"20"}, "timezone": {"Pacific/Auckland"}, "pick_days": {"fri"}}
	if status, _, body := s.post("/farm", "/farm", settings); status != http.StatusSeeOther {
		t.Fatalf("settings: %d, %s", status, body)
	}
	for name, path := range map[string]string{"own-start": "/start", "own-morning": "/", "own-plantings": "/plantings", "own-orders": "/orders", "own-season": "/season", "own-beds": "/beds", "own-seeds": "/seeds", "own-count": "/count", "own-cut": "/cut", "own-store": "/store", "own-place": "/store/places/new", "own-rounds": "/rounds"} {
		if status, body := s.get(path); status != http.StatusOK {
			t.Errorf("%s: %d", path, status)
		} else {
			golden(t, name, body)
		}
	}
	row := url.Values{"variety": {"Zinnia coral"}, "crop": {"zinnia-tall"}, "planting": {"Z/1"}, "method": {"direct"}, "started_on": {"2026-11-20"}, "plants": {"60"}}
	if status, _, body := s.post("/plantings/new", "/plantings", row); status != http.StatusSeeOther {
		t.Fatalf("a row: %d, %s", status, body)
	}
	low := url.Values{"variety": {"Bedding zinnia"}, "crop": {"zinnia-tall"}, "colour": {"red"}, "role": {"focal"}, "height_cm": {"25"}, "stem_cm": {"15"}, "spacing_cm": {"20"}, "germination": {"0.8"}}
	if status, _, body := s.post("/varieties/new", "/varieties", low); status != http.StatusSeeOther {
		t.Fatalf("a variety: %d, %s", status, body)
	}
	for name, path := range map[string]string{"south-planting": "/plantings/Z%2F1", "south-season": "/season", "low-variety": "/crops/zinnia-tall"} {
		if status, body := s.get(path); status != http.StatusOK {
			t.Errorf("%s: %d", path, status)
		} else {
			golden(t, name, body)
		}
	}
}
