package notebook

import (
	"bytes"
	"strings"
	"testing"
	"time"

	"dewcount/core/day"
	"dewcount/core/rounds"
	"dewcount/farm/work"

	ics "github.com/arran4/golang-ical"
)

func TestCalendarIsReadByOthers(t *testing.T) {
	made := time.Date(2027, 1, 10, 12, 0, 0, 0, time.UTC)
	appointments := []work.Appointment{
		{ID: "start ZC1", On: day.Must("2027-05-15"), What: "Sow ZC1 Zinnia, coral; tall", Where: "Brook 1", Note: rounds.Sentence{strings.Repeat("a long note, with commas; ", 8)}},
		{ID: "order Market 2027-07-10", On: day.Must("2027-07-10"), What: "Market"},
	}
	var one, two bytes.Buffer
	if err := WriteCalendar(&one, "Three Beds", appointments, made, rounds.Sentence.String); err != nil {
		t.Fatal(err)
	}
	appointments[0].On = day.Must("2027-05-22") // the same thing on another day keeps its name
	if err := WriteCalendar(&two, "Three Beds", appointments, made, rounds.Sentence.String); err != nil {
		t.Fatal(err)
	}
	for line := range strings.SplitSeq(strings.TrimSuffix(one.String(), "\r\n"), "\r\n") {
		if len(line) > 75 || strings.ContainsAny(line, "\r\n") {
			t.Errorf("a line of %d octets: %q", len(line), line)
		}
	}
	a, err := ics.ParseCalendar(&one)
	if err != nil {
		t.Fatal(err)
	}
	b, err := ics.ParseCalendar(&two)
	if err != nil {
		t.Fatal(err)
	}
	if len(a.Events()) != 2 || a.Events()[0].Id() != b.Events()[0].Id() || a.Events()[0].Id() == a.Events()[1].Id() {
		t.Fatalf("%d events: %v", len(a.Events()), a.Events())
	}
	first := a.Events()[0]
	start, err := first.GetAllDayStartAt()
	if err != nil || start.Format("2006-01-02") != "2027-05-15" {
		t.Errorf("it starts on %v, %v", start, err)
	}
	if got := ics.FromText(first.GetProperty(ics.ComponentPropertySummary).Value); got != appointments[0].What {
		t.Errorf("its summary is %q", got)
	}
}
