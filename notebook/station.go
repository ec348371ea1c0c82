package notebook

import (
	"bytes"
	"encoding/csv"
	"errors"
	"fmt"
	"io"
	"math"
	"slices"
	"strconv"
	"strings"
	"time"

	"dewcount/core/day"
	"dewcount/farm/book"
	"dewcount/fault"
)

// A Station is how a weather station writes its CSV: which column holds what. It is kept as text in a setting of the farm.
type Station struct {
	Date   string // column with the date, or date and time
	Low    string // with the lowest temperature of a day, or of a shorter time
	High   string // with the highest; the same as Low where the station has one temperature
	Rain   string // empty where it measures none
	Format string // of the date, one of the Formats
	Unit   string // "C" or "F"; rain is in mm or in inches with it
}

// Formats are the ways in which stations write dates, as time.Parse names them; a time may follow.
func Formats() []string {
	return []string{"2006-01-02", "02.01.2006", "02/01/2006", "01/02/2006", "20060102"}
}

// ParseStation reads a mapping as String writes it; the zero Station where there is none.
func ParseStation(text string) Station {
	parts := strings.Split(text, "|")
	if len(parts) != 6 {
		return Station{}
	}
	return Station{parts[0], parts[1], parts[2], parts[3], parts[4], parts[5]}
}

// String writes the mapping for a setting.
func (s Station) String() string {
	return strings.Join([]string{s.Date, s.Low, s.High, s.Rain, s.Format, s.Unit}, "|")
}

// Fits tells whether a file with these columns can be read by the mapping.
func (s Station) Fits(columns []string) bool {
	has := func(c string) bool { return slices.Contains(columns, c) }
	return s.Date != "" && has(s.Date) && has(s.Low) && has(s.High) && (s.Rain == "" || has(s.Rain))
}

// table reads a CSV whose cells are parted by commas, semicolons or tabs: by whichever its first line has most of.
func stationTable(text []byte) (rows [][]string, lines []int, err error) {
	text = bytes.TrimPrefix(text, byteOrderMark)
	first, _, _ := bytes.Cut(text, []byte("\n"))
	comma, most := ',', 0
	for _, mark := range ",;\t" {
		if n := bytes.Count(first, []byte(string(mark))); n > most {
			comma, most = mark, n
		}
	}
	r := csv.NewReader(bytes.NewReader(text))
	r.Comma, r.FieldsPerRecord, r.TrimLeadingSpace, r.LazyQuotes = comma, -1, true, true
	for {
		row, err := r.Read()
		if errors.Is(err, io.EOF) {
			break
		}
		if err != nil {
			return nil, nil, fmt.Errorf("this is no CSV: %w", err)
		}
		line, _ := r.FieldPos(0)
		rows, lines = append(rows, row), append(lines, line)
	}
	if len(rows) < 2 {
		return nil, nil, errors.New("a header and at least one row are wanted: choose another file")
	}
	for i := range rows[0] {
		rows[0][i] = strings.TrimSpace(rows[0][i])
	}
	return rows, lines, nil
}

// StationColumns returns the columns of a station's file.
func StationColumns(text []byte) ([]string, error) {
	rows, _, err := stationTable(text)
	if err != nil {
		return nil, err
	}
	return rows[0], nil
}

// The years within which a station's day can be.
const (
	firstYear = 1950
	lastYear  = 2199
)

// leastReadings is how many readings of a day there must be, where a station writes several a day, for its extremes to be those of the
// day: half of the usual ones.
const leastReadings = 0.5

// Read reads a station's file: a day of the farm's weather for each day of which there are rows enough, in order. Where a day has several
// rows their extremes and the sum of their rain are the day's. file is its name, for faults, which name line and column.
func (s Station) Read(file string, text []byte) ([]book.WeatherDay, error) {
	rows, lines, err := stationTable(text)
	if err != nil {
		return nil, &fault.InFile{File: file, Line: 1, Column: 1, Advice: err.Error(), Err: err}
	}
	if !s.Fits(rows[0]) {
		return nil, &fault.InFile{File: file, Line: 1, Column: 1, Advice: "a column of the mapping is not in this file: choose the columns again"}
	}
	at := func(column string) int { return slices.Index(rows[0], column) }
	type gathered struct {
		book.WeatherDay
		readings int
	}
	days := make(map[day.Day]*gathered)
	for i, row := range rows[1:] {
		fault := func(column int, advice string, args ...any) error {
			return &fault.InFile{File: file, Line: lines[i+1], Column: column + 1, Advice: fmt.Sprintf(advice, args...)}
		}
		cell := func(column string) (string, int) {
			k := at(column)
			if k >= len(row) {
				return "", k
			}
			return strings.TrimSpace(row[k]), k
		}
		written, k := cell(s.Date)
		on, ok := s.date(written)
		if !ok {
			return nil, fault(k, "%q is no date as %s: choose another form of date", written, s.Format)
		}
		if year, _, _ := on.Date(); year < firstYear || year > lastYear {
			return nil, fault(k, "the year %d is out of reason: choose another form of date", year)
		}
		lowText, lowAt := cell(s.Low)
		highText, highAt := cell(s.High)
		if missing(lowText) || missing(highText) {
			continue // the station was off
		}
		low, ok := number(lowText)
		if !ok {
			return nil, fault(lowAt, "%q is no temperature: choose another column", lowText)
		}
		high, ok := number(highText)
		if !ok {
			return nil, fault(highAt, "%q is no temperature: choose another column", highText)
		}
		if s.Unit == "F" {
			low, high = (low-32)/1.8, (high-32)/1.8
		}
		if low > high || low < -70 || high > 60 {
			return nil, fault(highAt, "%.1f to %.1f °C is out of reason: check the columns and the unit", low, high)
		}
		g := days[on]
		if g == nil {
			g = &gathered{WeatherDay: book.WeatherDay{Date: on, TminC: low, TmaxC: high}}
			days[on] = g
		}
		g.readings++
		g.TminC, g.TmaxC = math.Min(g.TminC, low), math.Max(g.TmaxC, high)
		if s.Rain == "" {
			continue
		}
		rainText, rainAt := cell(s.Rain)
		if missing(rainText) {
			continue
		}
		rain, ok := number(rainText)
		if !ok || rain < 0 {
			return nil, fault(rainAt, "%q is no rain: choose another column, or none", rainText)
		}
		if s.Unit == "F" {
			rain *= 25.4
		}
		if g.RainMM != nil {
			rain += *g.RainMM
		}
		g.RainMM = &rain
	}
	most := 0
	for _, g := range days {
		most = max(most, g.readings)
	}
	var all []book.WeatherDay
	for _, g := range days {
		if float64(g.readings) < leastReadings*float64(most) {
			continue // the first or the last day of the file, cut off
		}
		tenth := func(v float64) float64 { return math.Round(v*10) / 10 }
		g.TminC, g.TmaxC = tenth(g.TminC), tenth(g.TmaxC)
		if g.RainMM != nil {
			rain := tenth(*g.RainMM)
			g.RainMM = &rain
		}
		all = append(all, g.WeatherDay)
	}
	slices.SortFunc(all, func(a, b book.WeatherDay) int { return a.Date.Compare(b.Date) })
	return all, nil
}

// date reads the date in front of a cell, whatever time follows.
func (s Station) date(written string) (day.Day, bool) {
	if len(written) < len(s.Format) {
		return day.Day{}, false
	}
	t, err := time.Parse(s.Format, written[:len(s.Format)])
	if err != nil {
		return day.Day{}, false
	}
	return day.Of(t.Date()), true
}

func missing(cell string) bool {
	return cell == "" || cell == "-" || cell == "--" || strings.EqualFold(cell, "nan") || strings.EqualFold(cell, "null")
}

// number reads a number with a decimal point or comma.
func number(cell string) (float64, bool) {
	v, err := strconv.ParseFloat(strings.ReplaceAll(cell, ",", "."), 64)
	return v, err == nil && !math.IsNaN(v) && !math.IsInf(v, 0)
}

// Guess proposes a mapping by the names that columns often have.
func Guess(columns []string) Station {
	find := func(words ...string) string {
		for _, w := range words {
			for _, c := range columns {
				if strings.Contains(strings.ToLower(c), w) {
					return c
				}
			}
		}
		return ""
	}
	s := Station{Date: find("date", "day", "time", "datum"), Low: find("min", "low"), High: find("max", "high"), Rain: find("rain", "precip", "niederschlag"), Format: Formats()[0], Unit: "C"}
	if both := find("temp", "air"); s.Low == "" && s.High == "" {
		s.Low, s.High = both, both
	}
	if s.Date == "" && len(columns) > 0 {
		s.Date = columns[0]
	}
	return s
}
