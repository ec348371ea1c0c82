package notebook

import (
	"crypto/sha256"
	"encoding/hex"
	"fmt"
	"io"
	"time"

	"dewcount/core/rounds"
	"dewcount/farm/work"

	ics "github.com/arran4/golang-ical"
)

// WriteCalendar writes appointments as an iCalendar (RFC 5545) of days without hours. made is when, in UTC; words writes notes for
// whoever the calendar is for.
func WriteCalendar(w io.Writer, name string, appointments []work.Appointment, made time.Time, words func(rounds.Sentence) string) error {
	calendar := ics.NewCalendarFor("Dew Count")
	calendar.SetMethod(ics.MethodPublish)
	calendar.SetName(name)
	for _, a := range appointments {
		sum := sha256.Sum256([]byte(name + "\x00" + a.ID))
		event := calendar.AddEvent(hex.EncodeToString(sum[:12]) + "@dewcount")
		event.SetDtStampTime(made)
		event.SetAllDayStartAt(a.On.Midnight())
		event.SetAllDayEndAt(a.On.Add(1).Midnight())
		event.SetSummary(a.What)
		if a.Where != "" {
			event.SetLocation(a.Where)
		}
		if len(a.Note) > 0 {
			event.SetDescription(words(a.Note))
		}
	}
	if err := calendar.SerializeTo(w, ics.WithNewLineWindows); err != nil {
		return fmt.Errorf("write the calendar: %w", err)
	}
	return nil
}
