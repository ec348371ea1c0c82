package croptable

import (
	"fmt"
	"reflect"
	"strconv"
	"strings"
)

// A Leaf is one value of a profile, as a form shows it: its path such as "temperature.base_c" or "schools.0.from", what kind of value it
// is, and the value as text. An empty text is null where that is allowed.
type Leaf struct {
	Path, Text string
	Kind       LeafKind
}

// A LeafKind is how a leaf's text is read.
type LeafKind int

const (
	Text    LeafKind = iota
	Number           // may be null where the schema says so
	Whole            // a whole number
	Truth            // true or false
	Texts            // one a line
	Numbers          // parted by blanks
)

// Leaves returns the values of a profile in the order of the schema.
func (e Entry) Leaves() []Leaf {
	var leaves []Leaf
	walk(reflect.ValueOf(&e).Elem(), "", func(path string, v reflect.Value) {
		leaves = append(leaves, Leaf{path, textOf(v), kindOf(v.Type())})
	})
	return leaves
}

// With returns the profile with other values, by the paths of its leaves; what is wrong is named by them. The profile is checked as one from
// a file is.
func (e Entry) With(value func(path string) string) (Entry, map[string]string) {
	next := e.clone()
	faults := make(map[string]string)
	walk(reflect.ValueOf(&next).Elem(), "", func(path string, v reflect.Value) {
		if advice := setText(v, value(path)); advice != "" {
			faults[path] = advice
		}
	})
	if len(faults) > 0 {
		return e, faults
	}
	if err := next.check(); err != nil {
		path, _, _ := strings.Cut(err.Error(), " ")
		path, _, _ = strings.Cut(path, "[")
		return e, map[string]string{strings.TrimSuffix(path, ":"): err.Error()}
	}
	return next, nil
}

// clone returns a copy that shares nothing with e.
func (e Entry) clone() Entry {
	to := reflect.New(reflect.TypeOf(e)).Elem()
	deepCopy(to, reflect.ValueOf(e))
	return to.Interface().(Entry)
}

func deepCopy(to, from reflect.Value) {
	switch from.Kind() {
	case reflect.Pointer:
		if !from.IsNil() {
			to.Set(reflect.New(from.Type().Elem()))
			deepCopy(to.Elem(), from.Elem())
		}
	case reflect.Slice:
		if !from.IsNil() {
			to.Set(reflect.MakeSlice(from.Type(), from.Len(), from.Len()))
			for i := range from.Len() {
				deepCopy(to.Index(i), from.Index(i))
			}
		}
	case reflect.Map:
		to.Set(reflect.MakeMap(from.Type()))
		for _, key := range from.MapKeys() {
			value := reflect.New(from.Type().Elem()).Elem()
			deepCopy(value, from.MapIndex(key))
			to.SetMapIndex(key, value)
		}
	case reflect.Struct:
		for i := range from.NumField() {
			deepCopy(to.Field(i), from.Field(i))
		}
	default:
		to.Set(from)
	}
}

// uses is the order in which the windows of a profile are shown.
var uses = []string{"market", "event", "florist", "drying"}

// walk calls see for each leaf of a value.
func walk(v reflect.Value, path string, see func(string, reflect.Value)) {
	join := func(name string) string {
		if path == "" {
			return name
		}
		return path + "." + name
	}
	switch {
	case isLeaf(v.Type()):
		see(path, v)
	case v.Kind() == reflect.Pointer:
		if !v.IsNil() {
			walk(v.Elem(), path, see)
		}
	case v.Kind() == reflect.Struct:
		for i := range v.NumField() {
			walk(v.Field(i), join(v.Type().Field(i).Tag.Get("json")), see)
		}
	case v.Kind() == reflect.Slice:
		for i := range v.Len() {
			walk(v.Index(i), join(strconv.Itoa(i)), see)
		}
	case v.Kind() == reflect.Map:
		for _, use := range uses {
			here := v.MapIndex(reflect.ValueOf(use))
			if !here.IsValid() {
				continue
			}
			copied := reflect.New(here.Type()).Elem()
			copied.Set(here)
			walk(copied, join(use), see)
			v.SetMapIndex(reflect.ValueOf(use), copied)
		}
	}
}

// isLeaf tells whether a type is one value of a form: text, a number, a yes or no, lists of them, and what may be null of these.
func isLeaf(t reflect.Type) bool {
	switch t.Kind() {
	case reflect.String, reflect.Float64, reflect.Int, reflect.Bool:
		return true
	case reflect.Slice:
		return t.Elem().Kind() == reflect.String
	case reflect.Array:
		return true
	case reflect.Pointer:
		return t.Elem().Kind() != reflect.Struct && isLeaf(t.Elem())
	}
	return false
}

func kindOf(t reflect.Type) LeafKind {
	switch t.Kind() {
	case reflect.Pointer:
		return kindOf(t.Elem())
	case reflect.Float64:
		return Number
	case reflect.Int:
		return Whole
	case reflect.Bool:
		return Truth
	case reflect.Slice:
		return Texts
	case reflect.Array:
		return Numbers
	default:
		return Text
	}
}

func textOf(v reflect.Value) string {
	switch v.Kind() {
	case reflect.Pointer:
		if v.IsNil() {
			return ""
		}
		return textOf(v.Elem())
	case reflect.Float64:
		return strconv.FormatFloat(v.Float(), 'f', -1, 64)
	case reflect.Int:
		return strconv.FormatInt(v.Int(), 10)
	case reflect.Bool:
		return strconv.FormatBool(v.Bool())
	case reflect.Slice, reflect.Array:
		var parts []string
		for i := range v.Len() {
			parts = append(parts, textOf(v.Index(i)))
		}
		if v.Kind() == reflect.Array {
			return strings.Join(parts, " ")
		}
		return strings.Join(parts, "\n")
	default:
		return v.String()
	}
}

// setText reads a text into a leaf; what is wrong is said in one sentence.
func setText(v reflect.Value, text string) string {
	text = strings.TrimSpace(strings.ReplaceAll(text, "\r\n", "\n"))
	switch v.Kind() {
	case reflect.Pointer:
		if text == "" {
			v.SetZero()
			return ""
		}
		v.Set(reflect.New(v.Type().Elem()))
		return setText(v.Elem(), text)
	case reflect.Float64:
		n, err := strconv.ParseFloat(text, 64)
		if err != nil {
			return fmt.Sprintf("%q is no number: write it with a decimal point", text)
		}
		v.SetFloat(n)
	case reflect.Int:
		n, err := strconv.Atoi(text)
		if err != nil {
			return fmt.Sprintf("%q is no whole number", text)
		}
		v.SetInt(int64(n))
	case reflect.Bool:
		v.SetBool(text == "true")
	case reflect.Slice:
		lines := []string{}
		for line := range strings.SplitSeq(text, "\n") {
			if line = strings.TrimSpace(line); line != "" {
				lines = append(lines, line)
			}
		}
		v.Set(reflect.ValueOf(lines))
	case reflect.Array:
		words := strings.Fields(text)
		if len(words) != v.Len() {
			return fmt.Sprintf("write %d numbers parted by blanks, not %d", v.Len(), len(words))
		}
		for i, word := range words {
			if advice := setText(v.Index(i), word); advice != "" {
				return advice
			}
		}
	default:
		v.SetString(text)
	}
	return ""
}
