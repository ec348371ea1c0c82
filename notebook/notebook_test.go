package notebook

import (
	"bytes"
	"errors"
	"io/fs"
	"slices"
	"strings"
	"testing"
	"testing/fstest"

	"dewcount/farm/book"
	"dewcount/fault"
)

// small is a notebook of one row.
func small() fstest.MapFS {
	return fstest.MapFS{
		"farm.csv": file(`key,value
name,Three Beds
latitude,51.2
longitude,-1.5
elevation_m,80
timezone,Europe/London
pick_days,tue fri
`),
		"varieties.csv": file("variety,crop,colour\nZinnia coral,zinnia-tall,coral:0.6;red:0.4\n"),
		"beds.csv":      file("bed\nA\n"),
		"plantings.csv": file("planting,variety,bed,method,started_on,plants\nZ1,Zinnia coral,A,direct,2026-05-02,60\n"),
		"weather.csv":   file("date,tmin_c,tmax_c\n2026-05-02,8.50,19\n2026-05-03,-0,21.25\n"),
		"counts.csv": file("counted_at,planting,plants_counted,rung,stems\n" +
			"2026-07-09T06:20,Z1,12,tight,20\n2026-07-09T06:20,Z1,12,5,3\n2026-07-12,Z1,12,tight,0\n"),
		"cuts.csv": file("cut_at,planting,stems,culled,cull_reason\n2026-07-10,Z1,9,1,\"bent, \"\"badly\"\"\"\n"),
	}
}

func file(text string) *fstest.MapFile { return &fstest.MapFile{Data: []byte(text)} }

func read(folder fs.FS) (*book.Book, book.Change, error) { return Read(folder, book.NewBook(nil)) }

func TestReadSmallNotebook(t *testing.T) {
	book, change, err := read(small())
	if err != nil {
		t.Fatal(err)
	}
	if len(book.Counts) != 2 || book.Counts[0].Stems != [8]int{20, 0, 0, 0, 0, 3} || book.Counts[1].Total() != 0 {
		t.Errorf("counts are %+v", book.Counts)
	}
	if got := book.Cuts[0]; got.CullReason != `bent, "badly"` || got.Taken() != 10 {
		t.Errorf("cut is %+v", got)
	}
	if len(change.Add) != 6+1+1+1+2+2+1 {
		t.Errorf("%d records are new", len(change.Add))
	}
}

// A folder that was written reads back to the same bytes; byte-order marks and CRLF are taken.
func TestRoundTrip(t *testing.T) {
	folder := small()
	folder["beds.csv"] = file("bed,length_m,width_m\nA,10,1.2\n")
	folder["trays.csv"] = file("tray,cells,length_cm\n72,72,53.5\n")
	folder["varieties.csv"] = file("variety,crop,colour,spacing_cm,germination,seeds_in_stock,seeds_a_packet\nZinnia coral,zinnia-tall,coral:0.6;red:0.4,22.5,0.85,120,250\n")
	folder["plantings.csv"] = file("planting,variety,bed,method,started_on,plants,squares,tray,succession\nZ1,Zinnia coral,A,direct,2026-05-02,60,3-14x1-4,72,Zinnias 2026\n")
	folder["plantings.csv"].Data = append([]byte("\xef\xbb\xbf"), bytes.ReplaceAll(folder["plantings.csv"].Data, []byte("\n"), []byte("\r\n"))...)
	book, _, err := read(folder)
	if err != nil {
		t.Fatal(err)
	}
	first := written(t, book)
	again, _, err := read(first)
	if err != nil {
		t.Fatal(err)
	}
	same(t, first, written(t, again))
	if got := string(first["weather.csv"].Data); !strings.Contains(got, "2026-05-02,8.5,19,,\n2026-05-03,0,21.25,,\n") {
		t.Errorf("weather is written as %q", got)
	}
}

func written(t testing.TB, b *book.Book) fstest.MapFS {
	t.Helper()
	files, err := Files(b)
	if err != nil {
		t.Fatal(err)
	}
	folder := make(fstest.MapFS)
	for _, f := range files {
		folder[f.Name] = &fstest.MapFile{Data: f.Text}
	}
	return folder
}

func same(t testing.TB, a, b fstest.MapFS) {
	t.Helper()
	for name := range a {
		if !bytes.Equal(a[name].Data, b[name].Data) {
			t.Fatalf("%s was %q, is %q", name, a[name].Data, b[name].Data)
		}
	}
}

func TestFaultsNameTheirPlace(t *testing.T) {
	for _, c := range []struct{ name, old, new, place, advice string }{
		{"plantings.csv", "2026-05-02", "2.5.2026", "plantings.csv:2:26: ", "no date"},
		{"plantings.csv", "direct", "thrown", "plantings.csv:2:19: ", "not known"},
		{"plantings.csv", ",60", ",-3", "plantings.csv:2:37: ", "out of reason"},
		{"plantings.csv", ",60", ",0", "plantings.csv:2:37: ", "out of reason"},
		{"plantings.csv", "Zinnia coral", "Zinnia lime", "plantings.csv:2:4: ", "no variety on record"},
		{"plantings.csv", "plants\n", "plants,mood\n", "plantings.csv:1:47: ", "no column"},
		{"plantings.csv", ",60\n", ",60,7\n", "plantings.csv:2:", "not the 6 fields"},
		{"varieties.csv", "zinnia-tall", "zinnia-huge", "varieties.csv:2:14: ", "no crop"},
		{"varieties.csv", "zinnia-tall", "tulip", "plantings.csv:2:19: ", "is not started as direct"},
		{"varieties.csv", "0.6;", "often;", "varieties.csv:2:26: ", "mix"},
		{"counts.csv", "12,5,3", "12,9,3", "counts.csv:3:24: ", "no rung"},
		{"counts.csv", "12,5,3", "12,tight,3", "counts.csv:3:24: ", "twice"},
		{"counts.csv", "2026-07-12", "2026-04-12", "counts.csv:4:1: ", "before Z1 was started"},
		{"counts.csv", "12,tight,20", "12,tight,20000", "counts.csv:2:", "plants_counted"},
		{"cuts.csv", ",9,1", ",4000,1", "cuts.csv:2:", "cannot have stood"},
		{"cuts.csv", "\"\"badly\"\"\"", "\"badly", "cuts.csv:", "no CSV"},
		{"weather.csv", "8.50,19", "28.5,19", "weather.csv:2:17: ", "below its lowest"},
		{"weather.csv", "2026-05-03", "2026-05-02", "weather.csv:3:1: ", "twice"},
		{"farm.csv", "latitude,51.2\n", "", "farm.csv:1:1: ", "latitude is missing"},
		{"farm.csv", "51.2", "512", "farm.csv:3:10: ", "out of reason"},
		{"farm.csv", "Europe/London", "Valley", "farm.csv:6:10: ", "no time zone"},
		{"farm.csv", "Beds", "Be\xffds", "farm.csv:2:14: ", "UTF-8"},
		{"beds.csv", "bed\nA\n", "", "beds.csv:1:1: ", "header"},
		{"crops.json", "", "[{]", "crops.json:1:", "no crop table"},
		{"shopping.csv", "", "milk\n", "shopping.csv:1:1: ", "no file of a notebook"},
	} {
		folder := small()
		if folder[c.name] == nil {
			folder[c.name] = file(c.new)
		} else {
			text := strings.Replace(string(folder[c.name].Data), c.old, c.new, 1)
			if text == string(folder[c.name].Data) {
				t.Fatalf("%q does not stand in %s", c.old, c.name)
			}
			folder[c.name] = file(text)
		}
		_, _, err := read(folder)
		if c.advice == "plants_counted" {
			c.advice = "cannot stand"
		}
		if _, ok := errors.AsType[*fault.InFile](err); !ok || !strings.HasPrefix(err.Error(), c.place) || !strings.Contains(err.Error(), c.advice) {
			t.Errorf("%s with %q for %q: %v, want %s … %s", c.name, c.new, c.old, err, c.place, c.advice)
		}
	}
}

func TestMergeSkipsTheSameAndRefusesAnother(t *testing.T) {
	base, _, err := read(small())
	if err != nil {
		t.Fatal(err)
	}
	if _, change, err := Read(small(), base); err != nil || len(change.Add) != 0 {
		t.Errorf("the same notebook again: %d new records, %v", len(change.Add), err)
	}
	other := small()
	other["plantings.csv"] = file(strings.Replace(string(other["plantings.csv"].Data), ",60", ",61", 1))
	if _, _, err := Read(other, base); err == nil || !strings.Contains(err.Error(), "plantings.csv:2:1: ") {
		t.Errorf("a planting with other plants: %v", err)
	}
}

func TestRowsWithIdsOfTheirOwnAreOneCount(t *testing.T) {
	folder := small()
	folder["counts.csv"] = file("counted_at,planting,plants_counted,rung,stems,counter,id\n" +
		"2026-07-09T06:20,Z1,12,tight,20,Ada,r1\n2026-07-09T06:20,Z1,12,open,3,Ada,r2\n2026-07-09T06:20,Z1,12,open,4,Bo,r3\n")
	book, _, err := read(folder)
	if err != nil {
		t.Fatal(err)
	}
	if len(book.Counts) != 2 || book.Counts[0].Total() != 23 || book.Counts[1].Total() != 4 {
		t.Errorf("counts are %+v", book.Counts)
	}
}

// FuzzRead holds that whatever a file says, reading it ends in a fault with a place or in a book that can be written and read
// back to the same bytes.
func FuzzRead(f *testing.F) {
	names := []string{"crops.json", "history.csv"}
	for _, k := range book.Kinds() {
		names = append(names, k.Name+".csv")
	}
	at := func(name string) uint8 { return uint8(slices.Index(names, name)) }
	for name, file := range small() {
		f.Add(at(name), file.Data)
	}
	f.Add(at("counts.csv"), []byte("counted_at,planting,plants_counted,rung,stems,firm,counter,id\n2026-07-09,Z1,1,open,2,1,\"a\nb\",x\n"))
	f.Add(at("orders.csv"), []byte("order,kind,due_on,repeats,until,customer,note\nFete,event,2026-08-15,,,,\"two\r\nlines\"\n"))
	f.Add(at("crops.json"), []byte("[]"))
	f.Add(at("history.csv"), []byte("kind,id,content,ended,ended_at,ended_by\nextra_picks,2026-07-12,\"[[\"\"2026-07-12\"\"]]\",withdrawn,2026-07-01T05:00:00Z,Ada\n"))
	f.Fuzz(func(t *testing.T, which uint8, text []byte) {
		folder := small()
		folder[names[int(which)%len(names)]] = &fstest.MapFile{Data: text}
		book, _, err := read(folder)
		if err != nil {
			if f, ok := errors.AsType[*fault.InFile](err); !ok || f.Line < 1 || f.Column < 1 || f.Advice == "" {
				t.Fatalf("a fault without a place: %v", err)
			}
			return
		}
		first := written(t, book)
		again, _, err := read(first)
		if err != nil {
			t.Fatalf("what was written cannot be read: %v", err)
		}
		same(t, first, written(t, again))
	})
}
