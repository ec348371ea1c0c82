package web

import (
	"encoding/xml"
	"errors"
	"io"
	"net/http"
	"net/url"
	"regexp"
	"slices"
	"strings"
	"testing"

	"dewcount/core/day"
	"dewcount/farm/book"
)

func (s *site) planting(id string) (book.Planting, bool) {
	s.t.Helper()
	book, _, err := s.store.Load(ctx)
	if err != nil {
		s.t.Fatal(err)
	}
	return book.Planting(id)
}

// A move takes the dates that follow the start along, unless they were typed anew; what is wrong loses nothing that was typed.
func TestAMoveIsKept(t *testing.T) {
	s := newSite(t, true)
	before, _ := s.planting("SN3")
	form := url.Values{"typed": {"1"}, "planting": {"SN3"}, "started_on": {before.StartedOn.Add(7).String()}, "planted_out_on": {before.PlantedOutOn.String()},
		"pinched_on": {before.PinchedOn.Add(20).String()}, "plants": {"150"}}
	status, to, _ := s.post("/season?year=2027&planting=SN3&started_on="+before.StartedOn.Add(7).String(), "/season/move?year=2027", form)
	if status != http.StatusSeeOther || !strings.Contains(to, "planting=SN3") {
		t.Fatalf("a move: %d to %s", status, to)
	}
	after, _ := s.planting("SN3")
	if after.StartedOn != before.StartedOn.Add(7) || after.PlantedOutOn != before.PlantedOutOn.Add(7) || after.PinchedOn != before.PinchedOn.Add(20) || after.Plants != 150 {
		t.Errorf("moved to %+v", after)
	}
	form.Set("plants", "many")
	form.Set("started_on", "2027-02-30")
	status, _, body := s.post("/season?year=2027&planting=SN3&started_on=2027-03-01", "/season/move?year=2027&planting=SN3", form)
	if status != http.StatusUnprocessableEntity || !strings.Contains(body, `value="many"`) || !strings.Contains(body, `value="2027-02-30"`) {
		t.Errorf("a bad move: %d", status)
	}
	if now, _ := s.planting("SN3"); now != after {
		t.Error("a bad move changed the planting")
	}
}

// Scabious for next summer are sown before the winter too: those have no week after a frost that comes half a year later, and those of spring have one.
func TestWeeksAreCountedFromTheFrostTheyLieNear(t *testing.T) {
	s := newSite(t, true)
	address := "/season/successions?asked=1&crop=scabious&stems=40&from=2027-06-18&until=2027-09-10&method=any"
	_, body := s.get(address)
	near, far := 0, 0
	for _, r := range regexp.MustCompile(`<th scope="row">\w+ \d+ (\w+)(?: 2027)?</th>\s*<td>([^<]*)</td>`).FindAllStringSubmatch(body, -1) {
		switch spring := slices.Contains([]string{"February", "March", "April", "May", "June"}, r[1]); {
		case spring && r[2] != "":
			near++
		case !spring && r[2] == "" && strings.Contains("July August September October", r[1]):
			far++
		default:
			t.Errorf("a sowing of %s is in week %q", r[1], r[2])
		}
	}
	if far == 0 || near+far < 2 {
		t.Errorf("%d sowings have a week, %d none", near, far)
	}
	if status, to, _ := s.post(address, address, url.Values{}); status != http.StatusSeeOther || !strings.Contains(to, "year=2027") {
		t.Errorf("taken over in July for next summer: %d to %s", status, to)
	}
}

// Zinnias that the farm sows where they grow bloom from August on: who wants them sooner is told that another way was tried, and why; who asks for that way is not.
func TestAnotherWayToStartIsTold(t *testing.T) {
	s := newSite(t, true)
	const address, told = "/season/successions?asked=1&crop=zinnia-tall&stems=50&from=2027-06-28&until=2027-08-15&chance=70",
		"Started as it usually is it would hold none of these weeks: so any way to start it was tried."
	if _, body := s.get(address); !strings.Contains(body, told) || !strings.Contains(body, "6 of 7 weeks have 50 stems") {
		t.Errorf("nobody told that another way was tried: %s", regexp.MustCompile(`(?s)id="result-heading".{0,400}`).FindString(body))
	}
	if _, body := s.get(address + "&method=direct"); strings.Contains(body, "was tried") {
		t.Error("another way was tried than was asked for")
	}
}

func TestSuccessionsAreTakenOverAndBack(t *testing.T) {
	s := newSite(t, true)
	address := "/season/successions?asked=1&crop=cosmos-single&stems=60&from=2027-07-19&until=2027-08-29&existing=1"
	before := s.revision()
	status, body := s.get(address)
	if status != http.StatusOK || !strings.Contains(body, "Take these sowings over") {
		t.Fatalf("successions: %d", status)
	}
	if s.revision() != before {
		t.Error("looking at a plan changed the records")
	}
	status, to, _ := s.post(address, address, url.Values{})
	if status != http.StatusSeeOther {
		t.Fatalf("taking over: %d to %s", status, to)
	}
	taken, err := url.Parse(to)
	if err != nil {
		t.Fatal(err)
	}
	name := taken.Query().Get("succession")
	b, _, err := s.store.Load(ctx)
	if err != nil {
		t.Fatal(err)
	}
	of := func(p book.Planting) bool { return p.Succession == name && name != "" }
	if !slices.ContainsFunc(b.Plantings, of) {
		t.Fatalf("nothing belongs to plan %q", name)
	}
	if status, _, _ := s.post("/season/successions", "/season/successions/back", url.Values{"succession": {name}}); status != http.StatusSeeOther {
		t.Errorf("taking back: %d", status)
	}
	if b, _, err = s.store.Load(ctx); err != nil || slices.ContainsFunc(b.Plantings, of) {
		t.Errorf("the plan is still there: %v", err)
	}
	if status, _, _ := s.post("/season/successions", "/season/successions/back", url.Values{"succession": {name}}); status != http.StatusNotFound {
		t.Errorf("taking back twice: %d", status)
	}
	if status, body := s.get("/season/successions?asked=1&stems=40&from=&until="); status != http.StatusUnprocessableEntity || !strings.Contains(body, "crop-fault") || strings.Contains(body, "from-fault") {
		t.Errorf("neither crop nor weeks: %d", status)
	}
	if status, body := s.get("/season/successions?asked=1&crop=cosmos-single&stems=40&from=2027-02-30&until="); status != http.StatusUnprocessableEntity || !strings.Contains(body, "from-fault") || strings.Contains(body, "until-fault") {
		t.Errorf("a wrong day, and no other: %d", status)
	}
	// On the ninth of July the first cosmos that can still be sown bloom in September, and a week before the frost of 14 October they are over.
	for asked, want := range map[string]string{"from=&until=": "from=2026-09-1.&stems=40&until=2026-10-07", "from=2026-08-24&until=": "from=2026-08-24&stems=40&until=2026-10-07", "from=&until=2026-09-27": "from=2026-09-1.&stems=40&until=2026-09-27"} {
		answer, err := s.client.Get(s.server.URL + "/season/successions?asked=1&crop=cosmos-single&stems=40&" + asked)
		if err != nil {
			t.Fatal(err)
		}
		answer.Body.Close()
		to := answer.Header.Get("Location")
		if matched, _ := regexp.MatchString(want, to); answer.StatusCode != http.StatusSeeOther || !matched {
			t.Errorf("%s: %d to %s", asked, answer.StatusCode, to)
		}
	}
	if status, body := s.get("/season/successions?asked=1&crop=peony&stems=lots&from=2027-07-19&until=2027-08-29"); status != http.StatusUnprocessableEntity ||
		!strings.Contains(body, `value="lots"`) || !strings.Contains(body, "successions make no sense") {
		t.Errorf("a bad ask: %d", status)
	}
}

func TestCropsOfOnesOwn(t *testing.T) {
	s := newSite(t, true)
	book, _, err := s.store.Load(ctx)
	if err != nil {
		t.Fatal(err)
	}
	form := func(id string) url.Values {
		e, _, _ := book.Entry(id)
		v := url.Values{}
		for _, l := range e.Leaves() {
			v.Set(l.Path, l.Text)
		}
		return v
	}
	wrong := form("zinnia-tall")
	wrong.Set("spread_cv", "9")
	if status, _, body := s.post("/crops/zinnia-tall/edit", "/crops/zinnia-tall", wrong); status != http.StatusUnprocessableEntity || !strings.Contains(body, "should lie within") || !strings.Contains(body, `value="9"`) {
		t.Errorf("a spread of nine: %d", status)
	}
	right := form("zinnia-tall")
	right.Set("spacing_cm", "20")
	if status, _, _ := s.post("/crops/zinnia-tall/edit", "/crops/zinnia-tall", right); status != http.StatusSeeOther {
		t.Errorf("another spacing: %d", status)
	}
	if now, _, _ := s.store.Load(ctx); now.Crop("zinnia-tall").SpacingCM != 20 {
		t.Errorf("zinnias stand at %v cm", now.Crop("zinnia-tall").SpacingCM)
	}
	if status, _, _ := s.post("/crops/zinnia-tall/edit", "/crops/zinnia-tall/drop", url.Values{}); status != http.StatusSeeOther {
		t.Errorf("back to the shipped values: %d", status)
	}
	if now, _, _ := s.store.Load(ctx); now.Crop("zinnia-tall").SpacingCM != 25 {
		t.Errorf("the shipped spacing is %v cm", now.Crop("zinnia-tall").SpacingCM)
	}
	for id, want := range map[string]int{"zinnia-tall": http.StatusUnprocessableEntity, "Zinnia Giant": http.StatusUnprocessableEntity, "zinnia-giant": http.StatusSeeOther} {
		v := form("zinnia-tall")
		v.Set("id", id)
		v.Set("like", "zinnia-tall")
		if status, _, _ := s.post("/crops/new?like=zinnia-tall", "/crops", v); status != want {
			t.Errorf("a new crop called %q: %d, want %d", id, status, want)
		}
	}
	for school, want := range map[string]int{"weeks": http.StatusSeeOther, "astrology": http.StatusUnprocessableEntity} {
		status, _, body := s.post("/crops/zinnia-tall", "/crops/zinnia-tall/school", url.Values{"question": {"sow"}, "school": {school}})
		if status != want || want != http.StatusSeeOther && !strings.Contains(body, "no such school") {
			t.Errorf("the school of %s: %d", school, status)
		}
	}
}

func TestAFarmIsStartedFromNothing(t *testing.T) {
	s := newSite(t, false)
	first := url.Values{"name": {"Four Beds"}, "timezone": {"Europe/London"}, "pick_days": {"tue fri"}, "climate": {"maritime-52n"}}
	if status, to, _ := s.post("/farm", "/farm", first); status != http.StatusSeeOther || to != "/start" {
		t.Fatalf("a place by its climate: %d to %s", status, to)
	}
	for _, step := range []struct {
		path string
		form url.Values
		want int
	}{
		{"/start/beds", url.Values{"count": {"none"}, "length_m": {"10"}, "width_m": {"1.2"}}, http.StatusUnprocessableEntity},
		{"/start/beds", url.Values{"count": {"4"}, "length_m": {"10"}, "width_m": {"1.2"}, "bearing_deg": {"90"}}, http.StatusSeeOther},
		{"/start/crops", url.Values{"crop": {"cosmos-single", "cornflower", "no-crop"}}, http.StatusSeeOther},
		{"/start/market", url.Values{"order": {"Market"}, "due_on": {"2027-06-05"}, "stems": {"-3"}}, http.StatusUnprocessableEntity},
		{"/start/market", url.Values{"order": {"Market"}, "due_on": {"2027-06-05"}, "stems": {"40"}}, http.StatusSeeOther},
	} {
		if status, _, _ := s.post("/start", step.path, step.form); status != step.want {
			t.Errorf("%s %v: %d, want %d", step.path, step.form, status, step.want)
		}
	}
	book, _, err := s.store.Load(ctx)
	if err != nil || len(book.Beds) != 4 || len(book.Varieties) != 2 || len(book.OrderLines) != 2 {
		t.Errorf("%d beds, %d varieties, %d lines: %v", len(book.Beds), len(book.Varieties), len(book.OrderLines), err)
	}
	place, err := book.Place()
	if err != nil || place.Latitude != 52 || place.Longitude != 0 {
		t.Errorf("the farm lies at %v, %v: %v", place.Latitude, place.Longitude, err)
	}
	wanted := `href="/season/successions?stems=40&amp;until=2027-12-` // until the year's end, week after week
	if _, page := s.get("/season?year=2027"); strings.Count(page, wanted) != 2 || !strings.Contains(page, "Orders want these, and nothing of them will come.") || !strings.Contains(page, "Cosmos, single, 40 a week") {
		t.Errorf("the season names no crop that is wanted and not planned")
	}
	row := url.Values{"variety": {book.Varieties[0].Name}, "method": {"direct"}, "started_on": {"2027-05-20"}, "plants": {"100"}}
	if status, _, _ := s.post("/plantings/new", "/plantings", row); status != http.StatusSeeOther {
		t.Fatalf("a row of what is wanted: %d", status)
	}
	if _, page := s.get("/season?year=2027"); strings.Count(page, wanted) != 1 || strings.Contains(page, "Cosmos, single, 40 a week") {
		t.Errorf("cosmos is planned, and the season still asks for it")
	}
}

// The drawings are XML that any reader takes, with nothing that scripts.
func TestDrawingsAreWellFormed(t *testing.T) {
	s := newSite(t, true)
	for _, path := range []string{"/season.svg?year=2026", "/beds.svg?on=2026-08-01"} {
		status, body := s.get(path)
		decoder := xml.NewDecoder(strings.NewReader(body))
		elements := 0
		for {
			token, err := decoder.Token()
			if errors.Is(err, io.EOF) {
				break
			}
			if err != nil {
				t.Fatalf("%s: %d, %v", path, status, err)
			}
			if start, ok := token.(xml.StartElement); ok {
				if elements++; start.Name.Local == "script" {
					t.Errorf("%s has a script", path)
				}
			}
		}
		if elements < 100 || strings.Contains(body, "ZgotmplZ") {
			t.Errorf("%s has %d elements", path, elements)
		}
	}
}

// A tray that is added later takes the sowings that have none yet, if that is wished, and those alone.
func TestATrayTakesTheSowingsThatHaveNone(t *testing.T) {
	s := newSite(t, true)
	if status, _, _ := s.post("/plantings/new", "/plantings", url.Values{"planting": {"NT1"}, "variety": {"Snapdragon white"}, "method": {"tray"}, "started_on": {"2026-08-10"}, "planted_out_on": {"2026-09-20"}, "plants": {"70"}}); status != http.StatusSeeOther {
		t.Fatalf("the sowing is answered with %d", status)
	}
	if _, before := s.get("/seeds"); !strings.Contains(before, "1 sowing without a tray") {
		t.Error("nobody offers to raise the sowing in a new tray")
	}
	if status, _, _ := s.post("/seeds", "/trays", url.Values{"tray": {"Späte 50"}, "cells": {"50"}, "raise": {"all"}}); status != http.StatusSeeOther {
		t.Fatalf("the tray is answered with %d", status)
	}
	if _, after := s.get("/seeds"); strings.Contains(after, "without a tray") || !strings.Contains(after, "of Späte 50") {
		t.Error("sowings without a tray are not raised in it")
	}
}

// The plan of this year goes into the next in one step, what was not chosen stays away, and it is undone in one.
func TestThePlanIsCarriedOver(t *testing.T) {
	s := newSite(t, true)
	_, before := s.get("/season/carry")
	if !strings.Contains(before, "Carry 2026 over into 2027") || !strings.Contains(before, `name="planting" value="ZC1"`) || strings.Contains(before, `name="planting" value="LM1"`) {
		t.Fatal("the page does not offer this year's annuals, and them alone")
	}
	if status, address, _ := s.post("/season/carry", "/season/carry", url.Values{"from": {"2026"}, "planting": {"ZC1", "CO1"}}); status != http.StatusSeeOther || !strings.HasPrefix(address, "/season?year=2027&done=") {
		t.Fatalf("two are answered with %d, to %s", status, address)
	}
	_, after := s.get("/season/carry")
	if strings.Contains(after, `name="planting" value="ZC1"`) || !strings.Contains(after, `name="planting" value="ZC2"`) {
		t.Error("what was carried over is offered again, or what was not is gone")
	}
}

// Plugs take no seed and no day in a tray of one's own: their start is reckoned, they are ordered with what will be lost, and their day is a job. Tubers of one's own are
// counted, and the list says how many are to be bought beside them.
func TestPlugsAndTubersOfOnesOwn(t *testing.T) {
	s := newSite(t, true)
	plugs := url.Values{"planting": {"PL1"}, "variety": {"Snapdragon white"}, "method": {"tray"}, "bought_on": {"2026-07-13"}, "planted_out_on": {"2026-07-17"}, "plants": {"70"}}
	if status, _, body := s.post("/plantings/new", "/plantings", plugs); status != http.StatusSeeOther {
		t.Fatalf("plugs are answered with %d: %s", status, body)
	}
	_, list := s.get("/seeds")
	if !strings.Contains(list, "78 plugs") || !strings.Contains(list, "PL1: 78 plugs to come on Mon 13 July") || strings.Contains(list, "PL1, ") { // 70 of 78 are left where one in ten is lost
		t.Error("the seed list does not order 78 plugs for 70 plants, or sows them too")
	}
	if _, jobs := s.get("/rounds"); !strings.Contains(jobs, "Take in plugs") || strings.Contains(jobs, "Sow PL1") {
		t.Error("the day on which plugs come is no job, or they are to be sown")
	}
	plugs.Set("planting", "PL2")
	plugs.Set("method", "direct")
	if status, _, body := s.post("/plantings/new", "/plantings", plugs); status != http.StatusUnprocessableEntity || !strings.Contains(body, "Only young plants out of trays") {
		t.Errorf("plugs sown where they grow are answered with %d", status)
	}
	if status, _, _ := s.post("/plantings/new", "/plantings", url.Values{"planting": {"TU9"}, "variety": {"Dahlia decorative cream"}, "method": {"tuber"}, "started_on": {"2027-05-10"}, "plants": {"24"}}); status != http.StatusSeeOther {
		t.Fatalf("tubers are answered with %d", status)
	}
	for _, count := range [][2]string{{"2026-07-01", "18"}, {"2025-11-03", "12"}} { // an old count is written down later
		if status, _, _ := s.post("/seeds", "/stock", url.Values{"variety": {"Dahlia decorative cream"}, "part": {"tuber"}, "on": {count[0]}, "pieces": {count[1]}}); status != http.StatusSeeOther {
			t.Fatalf("the count is answered with %d", status)
		}
	}
	if _, next := s.get("/seeds?year=2027"); !strings.Contains(next, "18 tubers on Wed 1 July") || !strings.Contains(next, "before: 12 tubers on Mon 3 November 2025") ||
		!strings.Contains(next, `<td class="number"><strong>6</strong></td>`) {
		t.Error("of 24 tubers 6 are not to be bought beside 18 of one's own")
	}
	if status, _, body := s.post("/seeds", "/stock", url.Values{"variety": {"Dahlia decorative cream"}, "part": {"bulb"}, "on": {"2026-07-01"}, "pieces": {"3"}}); status != http.StatusUnprocessableEntity || !strings.Contains(body, "is not started so") {
		t.Errorf("bulbs of a dahlia are answered with %d", status)
	}
}

// A farm that writes its first cuts down weeks after they were to be expected is told from when on it is looked back on, and not that nothing came.
func TestLookingBackSaysSinceWhen(t *testing.T) {
	s := newSite(t, true)
	all, _, err := s.store.Load(ctx)
	if err != nil {
		t.Fatal(err)
	}
	change := book.Change{}
	for _, c := range all.Cuts {
		if c.CutAt.Day().Before(day.Of(2026, 7, 4)) {
			change.Withdraw = append(change.Withdraw, c.Record())
		}
	}
	if err := s.store.Apply(ctx, change); err != nil {
		t.Fatal(err)
	}
	if _, page := s.get("/review?year=2026"); !strings.Contains(page, "Cuts are on record from") || !strings.Contains(page, "what was expected before is left out") {
		t.Error("the review does not say from when on it looks")
	}
}
