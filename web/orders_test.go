package web

import (
	"net/http"
	"net/url"
	"regexp"
	"strings"
	"testing"
)

// What cannot be asked for is told so: a count below nothing, no count, letters for one.
func TestAskingForWhatCannotBe(t *testing.T) {
	s := newSite(t, true)
	for _, q := range []string{"-5 ammi 18 July", "0 ammi 18 July", "many ammi 18 July", "ammi 18 July"} {
		if status, body := s.get("/ask?q=" + url.QueryEscape(q)); status != http.StatusOK || !strings.Contains(body, "q-fault") || strings.Contains(body, "nobody else loses any") {
			t.Errorf("%q is answered", q)
		}
	}
}

// This Saturday is different: the market wants no zinnias and ten ammi on that day alone; said as usual again it is forgotten.
func TestOneDayOfAMarketIsDifferent(t *testing.T) {
	s := newSite(t, true)
	const market = "/orders/Fallow%20Steps%20market"
	due := func(on string) string {
		_, body := s.get(market)
		_, rest, _ := strings.Cut(body, `<span class="due-on">`+on)
		rest, _, _ = strings.Cut(rest, "</article>")
		return rest
	}
	if before := due("Sat 11 July"); !strings.Contains(before, "40 wanted: likely") {
		t.Fatalf("on the eleventh: %s", before)
	}
	form := url.Values{"on": {"2026-07-11"}, "number-2": {"0"}, "number-6": {"10"}}
	if status, _, _ := s.post(market, market+"/days", form); status != http.StatusSeeOther {
		t.Fatalf("another day: %d", status)
	}
	eleventh, next := due("Sat 11 July"), due("Sat 18 July")
	if !strings.Contains(eleventh, "nothing wanted") || !strings.Contains(eleventh, "10 wanted: covered") || strings.Contains(next, "nothing wanted") {
		t.Errorf("on the eleventh %s, on the eighteenth %s", eleventh, next)
	}
	for want, form := range map[string]url.Values{"is not due on": {"on": {"2026-07-12"}, "number-2": {"3"}}, "is no whole number": {"on": {"2026-07-11"}, "number-2": {"some"}}} {
		if status, _, body := s.post(market, market+"/days", form); status != http.StatusUnprocessableEntity || !strings.Contains(body, want) {
			t.Errorf("%v: %d", form, status)
		}
	}
	if status, _, _ := s.post(market, market+"/days", url.Values{"on": {"2026-07-11"}, "number-2": {"40"}, "number-6": {"40"}}); status != http.StatusSeeOther {
		t.Error("as usual again is refused")
	}
	if again := due("Sat 11 July"); strings.Contains(again, "nothing wanted") {
		t.Error("as usual again, and it is not")
	}
}

// A line says how it is sold: twelve bunches of ten are 120 stems, are corrected as bunches, and come to what they cost; a set that is alike wants its spare
// stems too and is of one variety.
func TestLinesAreWrittenDownAsTheyAreSold(t *testing.T) {
	s := newSite(t, true)
	if status, _, _ := s.post("/orders/new", "/orders", url.Values{"order": {"Käthe's table"}, "kind": {"event"}, "due_on": {"2026-07-25"}}); status != http.StatusSeeOther {
		t.Fatalf("an order: %d", status)
	}
	const at = "/orders/K%C3%A4the%27s%20table"
	add := func(form url.Values) (int, string) {
		status, _, body := s.post(at, at+"/lines", form)
		return status, body
	}
	if status, body := add(url.Values{"what": {"anything white"}, "stems": {"12"}, "bunch": {"10"}, "rung": {"half"}, "price": {"4.5"}}); status != http.StatusSeeOther {
		t.Fatalf("bunches: %d %s", status, body)
	}
	if status, body := add(url.Values{"what": {"dahlia"}, "stems": {"5"}, "spares": {"2"}}); status != http.StatusUnprocessableEntity || !strings.Contains(body, "of one variety") {
		t.Errorf("a set of any dahlias: %d", status)
	}
	if status, _ := add(url.Values{"what": {"Dahlia ball wine"}, "stems": {"5"}, "spares": {"2"}, "price": {"2"}}); status != http.StatusSeeOther {
		t.Errorf("a set: %d", status)
	}
	_, page := s.get(at)
	for _, want := range []string{"anything white, bunches of 10, half on the day, at 4.50", `value="12"`, "120 wanted", "alike, with 2 to spare", "7 wanted", "Comes to 64.00"} {
		if !strings.Contains(page, want) {
			t.Errorf("the order does not say %q", want)
		}
	}
	if status, _, _ := s.post(at, at+"/lines", url.Values{"line": {"1"}, "stems": {"6"}}); status != http.StatusSeeOther {
		t.Errorf("six bunches: %d", status)
	}
	if _, page = s.get(at); !strings.Contains(page, "60 wanted") {
		t.Error("six bunches of ten are not sixty stems")
	}
}

// Another name takes along what an order wants and what is different on a day; a name that is taken, or none, changes nothing.
func TestAnOrderIsRenamedWhole(t *testing.T) {
	s := newSite(t, true)
	const old, fresh = "/orders/Fallow%20Steps%20market", "/orders/Market%20%2F%20steps"
	s.post(old, old+"/days", url.Values{"on": {"2026-07-11"}, "number-2": {"3"}})
	form := url.Values{"order": {"Gate stall"}, "kind": {"market"}, "due_on": {"2026-05-02"}, "repeats": {"weekly"}}
	if status, _, body := s.post(old+"/edit", old, form); status != http.StatusUnprocessableEntity || !strings.Contains(body, "There is an order of that name already") {
		t.Errorf("the name of another: %d", status)
	}
	form.Set("order", "Market / steps")
	if status, where, _ := s.post(old+"/edit", old, form); status != http.StatusSeeOther || where != fresh {
		t.Fatalf("another name: %d %s", status, where)
	}
	if status, _ := s.get(old); status != http.StatusNotFound {
		t.Errorf("the old name: %d", status)
	}
	_, body := s.get(fresh)
	if _, eleventh, _ := strings.Cut(body, `<span class="due-on">Sat 11 July`); !strings.Contains(eleventh, "3 wanted") || !strings.Contains(body, "40 wanted") {
		t.Error("the lines or the day have been lost")
	}
}

// An order that was cancelled stays so when it is corrected; a letter for a day that is past is not taken.
func TestACorrectionDoesNotBringAnOrderBack(t *testing.T) {
	s := newSite(t, true)
	const mill = "/orders/Wedding%20at%20the%20mill"
	s.post(mill, mill+"/cancel", url.Values{})
	form := url.Values{"order": {"Wedding at the mill"}, "kind": {"event"}, "due_on": {"2026-07-18"}, "customer": {"both"}}
	if status, _, body := s.post(mill+"/edit", mill, form); status != http.StatusSeeOther {
		t.Fatalf("corrected: %d %s", status, body)
	}
	if _, order := s.get(mill); !strings.Contains(order, "Cancelled on") || !strings.Contains(order, "For both.") {
		t.Error("a correction brings a cancelled order back")
	}
	take := url.Values{"order": {"Late"}, "kind": {"event"}, "due_on": {"2026-07-01"}, "what-1": {"Ammi"}, "count-1": {"3"}}
	if status, _, body := s.post("/letters/new", "/letters/take", take); status != http.StatusUnprocessableEntity || !strings.Contains(body, "is past: correct it") {
		t.Errorf("a letter for a day that is past: %d", status)
	}
}

// A day that is hardly meant is asked about, and kept where it is meant.
func TestAnOddDayIsAskedAbout(t *testing.T) {
	s := newSite(t, true)
	for on, says := range map[string]string{"2126-07-25": "is 100 years off", "2026-07-01": "is past"} {
		form := url.Values{"order": {"On " + on}, "kind": {"event"}, "due_on": {on}}
		if status, _, body := s.post("/orders/new", "/orders", form); status != http.StatusUnprocessableEntity || !strings.Contains(body, says) || !strings.Contains(body, "Is that day meant?") {
			t.Errorf("%s: %d", on, status)
		}
		form.Set("meant", on)
		if status, _, _ := s.post("/orders/new", "/orders", form); status != http.StatusSeeOther {
			t.Errorf("%s, meant: %d", on, status)
		}
	}
}

// An order that came in is read and shown, and counts nothing until it is taken: then what was understood stands in it, and what was left empty does not.
func TestALetterIsAnOrderOnceItIsTaken(t *testing.T) {
	s := newSite(t, true)
	letter := url.Values{"text": {"30 white snapdragons and 20 cosmos for the 18th of July; twelve jars of anything"}, "order": {"Mühle & Söhne"}, "customer": {"the mill"}}
	status, _, body := s.post("/letters/new", "/letters/read", letter)
	if status != http.StatusOK {
		t.Fatalf("a letter: %d", status)
	}
	for _, want := range []string{`value="2026-07-18"`, `name="what-1" value="Snapdragon white"`, "30 wanted: ", "It may be Cosmos, double or Cosmos, single: say which.", `name="count-3" value="12"`, "Nothing that the farm grows is named here"} {
		if !strings.Contains(body, want) {
			t.Errorf("the letter's page does not say %q: %s", want, body[strings.Index(body, "letter-lines"):])
		}
	}
	if _, all := s.get("/orders"); strings.Contains(all, "Söhne") {
		t.Error("an order counts before it was taken")
	}
	take := url.Values{"order": {"Mühle & Söhne"}, "kind": {"event"}, "due_on": {"2026-07-18"}, "text": letter["text"], "said-1": {"30 white"}, "what-1": {"Snapdragon white"}, "count-1": {"30"},
		"what-2": {"unicorns"}, "count-2": {"20"}, "what-3": {""}, "count-3": {"12"}}
	if status, _, body := s.post("/letters/new", "/letters/take", take); status != http.StatusUnprocessableEntity || !strings.Contains(body, "is no variety, crop, role or colour here") {
		t.Errorf("unicorns: %d", status)
	}
	take.Set("what-2", "Cosmos, single")
	take.Set("count-2", "no")
	if status, _, body := s.post("/letters/new", "/letters/take", take); status != http.StatusUnprocessableEntity || !strings.Contains(body, "is no number: write how many") {
		t.Errorf("no number: %d", status)
	}
	take.Set("count-2", "2")
	take.Set("bunch-2", "10")
	take.Set("look", "1")
	if status, _, body := s.post("/letters/new", "/letters/take", take); status != http.StatusOK || !strings.Contains(body, "20 wanted: ") {
		t.Errorf("looked at again: %d", status)
	}
	take.Del("look")
	status, where, _ := s.post("/letters/new", "/letters/take", take)
	if status != http.StatusSeeOther {
		t.Fatalf("taken: %d", status)
	}
	_, order := s.get(strings.Split(where, "?")[0])
	if strings.Count(order, `name="line" value=`) != 2 || !strings.Contains(order, "bunches of 10") || !strings.Contains(order, "30 wanted") {
		t.Error("the order is not what was taken")
	}
}

// What a grower keeps for an order is for nobody else: not for another order that came first, not for bouquets made up for another; and it can be taken back.
func TestWhatIsKeptForAnOrderStaysForIt(t *testing.T) {
	s := newSite(t, true)
	const florist, mill = "/orders/Square%20florist%20bucket", "/orders/Wedding%20at%20the%20mill"
	due := func(at, on string) string {
		_, body := s.get(at)
		_, rest, _ := strings.Cut(body, `<span class="due-on">`+on)
		rest, _, _ = strings.Cut(rest, "</article>")
		return rest
	}
	if before := due(florist, "Fri 10 July"); !strings.Contains(before, "that stand in Cool room") {
		t.Fatalf("the florist is given nothing of the store: %s", before)
	}
	status, where, _ := s.post(florist, "/store/keep", url.Values{"order": {"Square florist bucket"}, "on": {"2026-07-10"}})
	if status != http.StatusSeeOther || !strings.Contains(where, "moves") {
		t.Fatalf("kept: %d %s", status, where)
	}
	if kept := due(florist, "Fri 10 July"); !strings.Contains(kept, "kept for it") || strings.Contains(kept, "that stand in") {
		t.Errorf("it is kept, and the order says %s", kept)
	}
	if _, body := s.get(florist); strings.Contains(body, "of the store for it") {
		t.Error("what is kept can be kept again")
	}
	_, store := s.get("/store")
	if !strings.Contains(store, "kept for Square florist bucket") {
		t.Error("the store does not say for whom it keeps")
	}
	// the same stems, kept for the wedding instead
	lots := regexp.MustCompile(`/store/move\?from=Cool&#43;room&amp;lot=([a-z0-9-]+)&amp;stems=\d+"><strong>\d+</strong> Snapdragon white`).FindStringSubmatch(strings.ReplaceAll(store, "+", "&#43;"))
	if lots == nil {
		t.Fatal("no white snapdragons stand in the cool room")
	}
	other := url.Values{"lot": {lots[1]}, "what": {"kept"}, "stems": {"3"}, "order": {"Wedding at the mill"}, "from": {"Cool room"}, "at": {"2026-07-09T09:00"}}
	if status, _, body := s.post("/store", "/store/moves?lot="+lots[1], other); status != http.StatusUnprocessableEntity || !strings.Contains(body, "cannot have been kept") {
		t.Errorf("more than is there is kept: %d", status)
	}
	other.Set("stems", "1")
	if status, _, body := s.post("/store", "/store/moves?lot="+lots[1], other); status != http.StatusSeeOther {
		t.Fatalf("kept for the wedding: %d %s", status, body)
	}
	if florist := due(florist, "Fri 10 July"); !strings.Contains(florist, "2 kept for it") {
		t.Errorf("the florist keeps what the wedding has now: %s", florist)
	}
	if wedding := due(mill, "Sat 18 July"); !strings.Contains(wedding, "1 kept for it") {
		t.Errorf("the wedding: %s", wedding)
	}
	s.post(mill, mill+"/cancel", url.Values{})
	if _, store := s.get("/store"); strings.Contains(store, `<span class="tag">kept for Wedding at the mill`) {
		t.Error("stems are kept for an order that was cancelled")
	}
	if status, _, body := s.post("/store", "/store/moves?lot="+lots[1], url.Values{"lot": {lots[1]}, "what": {"kept"}, "stems": {"3"}, "at": {"2026-07-09T09:00"}}); status != http.StatusUnprocessableEntity || !strings.Contains(body, "for which order") {
		t.Errorf("kept for nobody: %d", status)
	}
}
