package web

import (
	"bytes"
	"mime/multipart"
	"net/http"
	"strings"
	"testing"

	"dewcount/farm/book"
)

// sendFile posts a form with a file, by the token of the page of devices.
func (s *site) sendFile(file string, fields map[string]string) (int, string, string) {
	s.t.Helper()
	answer, err := s.client.Get(s.server.URL + "/box")
	if err != nil {
		s.t.Fatal(err)
	}
	var page bytes.Buffer
	page.ReadFrom(answer.Body)
	answer.Body.Close()
	var body bytes.Buffer
	form := multipart.NewWriter(&body)
	form.WriteField("csrf", string(token.FindSubmatch(page.Bytes())[1]))
	for name, value := range fields {
		form.WriteField(name, value)
	}
	if file != "" {
		part, _ := form.CreateFormFile("file", "station.csv")
		part.Write([]byte(file))
	}
	form.Close()
	request, err := http.NewRequest(http.MethodPost, s.server.URL+"/box/weather", &body)
	if err != nil {
		s.t.Fatal(err)
	}
	request.Header.Set("Content-Type", form.FormDataContentType())
	for _, c := range answer.Cookies() {
		request.AddCookie(c)
	}
	if answer, err = s.client.Do(request); err != nil {
		s.t.Fatal(err)
	}
	defer answer.Body.Close()
	var text bytes.Buffer
	text.ReadFrom(answer.Body)
	return answer.StatusCode, answer.Header.Get("Location"), text.String()
}

func TestAStationsFileIsReadByAMappingThatIsRemembered(t *testing.T) {
	s := newSite(t, true)
	file := "Tag;Kalt;Warm;Nass\n07.07.2026;9,5;27,5;0\n08.07.2026;10,1;28,4;2,5\n09.07.2026;12;20;0\n"
	status, _, page := s.sendFile(file, nil)
	if status != http.StatusOK || !strings.Contains(page, "Which column of station.csv holds what?") {
		t.Fatalf("a file of an unknown station: %d", status)
	}
	mapping := map[string]string{"text": file, "file_name": "station.csv", "date": "Tag", "low": "Kalt", "high": "Warm", "rain": "Nass", "format": "2006-01-02", "unit": "C"}
	status, _, page = s.sendFile("", mapping)
	if status != http.StatusUnprocessableEntity || !strings.Contains(page, "station.csv:2:1: ") || !strings.Contains(page, "07.07.2026;9,5") {
		t.Errorf("a wrong form of date: %d; the place must be named and the file kept", status)
	}
	mapping["format"] = "02.01.2006"
	if status, to, _ := s.sendFile("", mapping); status != http.StatusSeeOther || !strings.Contains(to, "2+were+corrected") {
		t.Fatalf("the right one: %d to %s", status, to)
	}
	b, _, err := s.store.Load(ctx)
	if err != nil {
		t.Fatal(err)
	}
	if r, ok := b.Record(book.Weather, "2026-07-08|"); !ok || strings.Join(r.Lines[0], ",") != "2026-07-08,10.1,28.4,2.5," {
		t.Errorf("8 July is on record as %v", r.Lines)
	}
	if r, ok := b.Record(book.Weather, "2026-07-09|"); ok {
		t.Errorf("today, which is not over, is on record: %v", r.Lines)
	}
	if status, to, _ := s.sendFile(strings.Replace(file, "10,1", "10,3", 1), nil); status != http.StatusSeeOther || !strings.Contains(to, "1+were+corrected") {
		t.Errorf("the next file of that station: %d to %s, want it to be read at once", status, to)
	}
	if status, _, page := s.sendFile("", nil); status != http.StatusUnprocessableEntity || !strings.Contains(page, "Choose a file first") {
		t.Errorf("no file: %d", status)
	}
}
