// Package croptable ships the crop table inside the program, reads and writes profiles in its JSON schema, and turns them
// into what the core computes with.
package croptable

import (
	"bytes"
	_ "embed"
	"encoding/json"
	"fmt"
	"io"
	"slices"
	"strings"
	"sync"

	"dewcount/core/climate"
	"dewcount/core/crop"
)

//go:embed crops.json
var shipped []byte

// Shipped returns the profiles that come with the program, in the order of the table. They are read once: nobody may change
// them.
var Shipped = sync.OnceValue(func() []Entry {
	entries, err := Read(bytes.NewReader(shipped))
	if err != nil {
		panic("croptable: the shipped table cannot be read: " + err.Error()) // a test reads it
	}
	return entries
})

// An Entry is a profile as the table writes it. Pointers are null where a field does not apply.
type Entry struct {
	ID             string          `json:"id"`
	Name           string          `json:"name"`
	Botanical      string          `json:"botanical"`
	Form           string          `json:"form"`
	Life           string          `json:"life"`
	FrostKillC     float64         `json:"frost_kill_c"`
	Starts         []string        `json:"starts"`
	PreferredStart string          `json:"preferred_start"`
	Germination    *Germination    `json:"germination"`
	Nursery        *Nursery        `json:"nursery"`
	Temperature    Temperature     `json:"temperature"`
	Thermal        Thermal         `json:"thermal"`
	SpreadCV       float64         `json:"spread_cv"`
	Daylength      Daylength       `json:"daylength"`
	Winter         Winter          `json:"winter"`
	SowEveryDays   *[2]int         `json:"sow_every_days"`
	SpacingCM      float64         `json:"spacing_cm"`
	HeightCM       [2]float64      `json:"height_cm"`
	Support        string          `json:"support"`
	Pinch          Pinch           `json:"pinch"`
	Yield          Yield           `json:"yield"`
	StemCM         StemCM          `json:"stem_cm"`
	Cut            map[string]Use  `json:"cut"`
	Schools        []School        `json:"schools"`
	InWater        InWater         `json:"in_water"`
	Vase           Vase            `json:"vase"`
	Store          Store           `json:"store"`
	Condition      []ConditionStep `json:"condition"`
	BucketStems    int             `json:"bucket_stems"`
	Care           []string        `json:"care"`
	Pests          []string        `json:"pests"`
	Hazards        []string        `json:"hazards"`
	TypicalDays    [2]int          `json:"typical_days"`
}

// The parts of an Entry, as crops-schema.md explains them.
type (
	Germination struct {
		SoilMinC float64    `json:"soil_min_c"`
		SoilOptC float64    `json:"soil_opt_c"`
		Days     [2]float64 `json:"days"`
		Light    string     `json:"light"`
		DepthMM  float64    `json:"depth_mm"`
		Rate     float64    `json:"rate"`
	}
	Nursery struct {
		Weeks      [2]float64 `json:"weeks"`
		RootBound  string     `json:"root_bound"`
		HardenDays int        `json:"harden_days"`
		OffHeat    bool       `json:"off_heat"`
	}
	Temperature struct {
		BaseC    float64 `json:"base_c"`
		OptC     float64 `json:"opt_c"`
		CeilingC float64 `json:"ceiling_c"`
	}
	Thermal struct {
		EmergeCd float64    `json:"emerge_cd"`
		BudCd    float64    `json:"bud_cd"`
		RungsCd  [7]float64 `json:"rungs_cd"`
	}
	Daylength struct {
		Kind      string   `json:"kind"`
		CriticalH *float64 `json:"critical_h"`
		Slowest   float64  `json:"slowest"`
		WidthH    *float64 `json:"width_h"`
	}
	Winter struct {
		Overwinters bool `json:"overwinters"`
		ChillDays   int  `json:"chill_days"`
	}
	Pinch struct {
		Policy      string   `json:"policy"`
		AtCM        *float64 `json:"at_cm"`
		DelayCd     *float64 `json:"delay_cd"`
		StemsFactor *float64 `json:"stems_factor"`
	}
	Yield struct {
		Habit        string   `json:"habit"`
		FirstStems   float64  `json:"first_stems"`
		SeasonStems  float64  `json:"season_stems"`
		FloweringCd  *float64 `json:"flowering_cd"`
		RegrowCd     *float64 `json:"regrow_cd"`
		ShootsPerCut *float64 `json:"shoots_per_cut"`
	}
	StemCM struct {
		First float64 `json:"first"`
		Later float64 `json:"later"`
		SD    float64 `json:"sd"`
	}
	Use struct {
		From  string   `json:"from"`
		To    string   `json:"to"`
		Tests []string `json:"tests"`
	}
	School struct {
		ID   string `json:"id"`
		From string `json:"from"`
		To   string `json:"to"`
		Why  string `json:"why"`
	}
	InWater struct {
		Opens       string   `json:"opens"`
		DaysPerRung *float64 `json:"days_per_rung"`
		To          *string  `json:"to"`
	}
	Vase struct {
		Days20C [2]float64 `json:"days_20c"`
		Q10     float64    `json:"q10"`
	}
	Store struct {
		TempC             [2]float64 `json:"temp_c"`
		ChillInjuryBelowC *float64   `json:"chill_injury_below_c"`
		MaxDays           float64    `json:"max_days"`
		DryOK             bool       `json:"dry_ok"`
		Ethylene          string     `json:"ethylene"`
		Apart             string     `json:"apart"`
		Upright           bool       `json:"upright"`
	}
	ConditionStep struct {
		ID      string     `json:"id"`
		WaterC  [2]float64 `json:"water_c"`
		DepthCM float64    `json:"depth_cm"`
		Hours   [2]float64 `json:"hours"`
	}
)

// Read reads a table and checks each profile; its error says which profile is wrong, and why.
func Read(r io.Reader) ([]Entry, error) {
	decoder := json.NewDecoder(r)
	decoder.DisallowUnknownFields()
	var entries []Entry
	if err := decoder.Decode(&entries); err != nil {
		return nil, fmt.Errorf("this is no crop table: %w", err)
	}
	seen := make(map[string]bool)
	for _, e := range entries {
		if err := e.check(); err != nil {
			return nil, fmt.Errorf("crop %q: %w", e.ID, err)
		}
		if seen[e.ID] {
			return nil, fmt.Errorf("crop %q stands twice: give each its own id", e.ID)
		}
		seen[e.ID] = true
	}
	return entries, nil
}

// Write writes a table as Read reads it; the same entries give the same bytes.
func Write(w io.Writer, entries []Entry) error {
	if len(entries) == 0 {
		_, err := io.WriteString(w, "[]\n")
		return err
	}
	encoder := json.NewEncoder(w)
	encoder.SetEscapeHTML(false)
	encoder.SetIndent("", "  ")
	return encoder.Encode(entries)
}

// Profile returns what the core needs of the entry, which Read has checked.
func (e *Entry) Profile() *crop.Profile {
	p := &crop.Profile{
		ID: e.ID, Name: e.Name, Form: e.Form, Ladder: crop.LadderOf(e.Form, e.Botanical), Botanical: e.Botanical, Hazards: e.Hazards, Feeding: e.feeding(), Beetles: e.hasBeetles(), Life: crop.Life(e.Life), FrostKillC: e.FrostKillC,
		Overwinters: e.Winter.Overwinters, ChillDays: int(e.Winter.ChillDays),
		PreferredStart: crop.Method(e.PreferredStart),
		SoilOptC:       e.Temperature.OptC,
		Response:       climate.Response(e.Temperature),
		EmergeCd:       e.Thermal.EmergeCd, BudCd: e.Thermal.BudCd, RungsCd: e.Thermal.RungsCd,
		SpreadCV: e.SpreadCV,
		Daylength: crop.Daylength{Kind: e.Daylength.Kind, Slowest: e.Daylength.Slowest,
			CriticalH: orZero(e.Daylength.CriticalH), WidthH: orZero(e.Daylength.WidthH)},
		Pinch: crop.Pinch{Policy: e.Pinch.Policy, AtCM: orZero(e.Pinch.AtCM), DelayCd: orZero(e.Pinch.DelayCd), StemsFactor: orZero(e.Pinch.StemsFactor)},
		Yield: crop.Yield{Habit: crop.Habit(e.Yield.Habit), FirstStems: e.Yield.FirstStems, SeasonStems: e.Yield.SeasonStems,
			FloweringCd: orZero(e.Yield.FloweringCd), RegrowCd: orZero(e.Yield.RegrowCd), ShootsPerCut: orZero(e.Yield.ShootsPerCut)},
		Cut: make(map[crop.Use]crop.Window), CutTests: make(map[crop.Use][]crop.Test),
		Stem:      crop.Stem{FirstCM: e.StemCM.First, LaterCM: e.StemCM.Later, SDCM: e.StemCM.SD},
		SpacingCM: e.SpacingCM, HeightCM: e.HeightCM, Support: e.Support,
		TypicalDays: e.TypicalDays,
	}
	if e.SowEveryDays != nil {
		p.SowEveryDays = *e.SowEveryDays
	}
	for _, s := range e.Starts {
		p.Starts = append(p.Starts, crop.Method(s))
	}
	if e.Germination != nil {
		g := e.Germination
		p.SoilMinC, p.SoilOptC = g.SoilMinC, g.SoilOptC
		p.Germination = crop.Germination{Days: g.Days, Light: g.Light, DepthMM: g.DepthMM, Rate: g.Rate}
	}
	if e.Nursery != nil {
		p.Nursery = crop.Nursery{EarliestWeeks: e.Nursery.Weeks[0], LatestWeeks: e.Nursery.Weeks[1],
			HardenDays: e.Nursery.HardenDays, OffHeat: e.Nursery.OffHeat}
		p.Nursery.RootBound = crop.RootBound(e.Nursery.RootBound)
		p.Nursery.Night, p.Nursery.Day = nurseryWarmth(p.Life)
	}
	for id, u := range e.Cut {
		use, _ := crop.ParseUse(id)
		p.Cut[use] = window(u.From, u.To)
		for _, t := range u.Tests {
			p.CutTests[use] = append(p.CutTests[use], crop.Test(t))
		}
	}
	e.afterTheCut(p)
	for _, s := range e.Schools {
		p.Schools = append(p.Schools, crop.School{ID: s.ID, Window: window(s.From, s.To), Why: s.Why})
	}
	return p
}

// nurseryWarmth returns the night and day temperatures in °C of the bench that a kind of plant is raised on.
func nurseryWarmth(life crop.Life) (night, day float64) {
	switch life {
	case crop.TenderAnnual:
		return 16, 24
	case crop.HalfHardyAnnual, crop.TuberLife:
		return 12, 20
	default:
		return 8, 17
	}
}

func window(from, to string) crop.Window {
	f, _ := crop.ParseRung(from)
	t, _ := crop.ParseRung(to)
	return crop.Window{From: f, To: t}
}

func orZero(v *float64) float64 {
	if v == nil {
		return 0
	}
	return *v
}

// check returns the first thing that would make the computation wrong or impossible.
func (e *Entry) check() error {
	within := func(name string, value, low, high float64) error {
		if !(low <= value && value <= high) {
			return fmt.Errorf("%s is %v: it should lie within %v to %v", name, value, low, high)
		}
		return nil
	}
	given := func(name string, value *float64, wanted bool) error {
		if (value != nil) != wanted {
			return fmt.Errorf("%s should be %s here", name, map[bool]string{true: "a number", false: "null"}[wanted])
		}
		return nil
	}
	oneOf := func(name, value string, words ...string) error {
		if !slices.Contains(words, value) {
			return fmt.Errorf("%s is %q: it should be one of %s", name, value, strings.Join(words, ", "))
		}
		return nil
	}
	faults := append(e.checkAfterTheCut(within, given, oneOf),
		oneOf("yield.habit", e.Yield.Habit, "single", "branching", "again", "fixed"),
		oneOf("life", e.Life, "tender-annual", "half-hardy-annual", "hardy-annual", "biennial", "bulb", "corm", "tuber", "perennial", "cutting", "shrub"),
		oneOf("daylength.kind", e.Daylength.Kind, "neutral", "short", "long"),
		oneOf("pinch.policy", e.Pinch.Policy, "always", "optional", "never"),
		within("frost_kill_c", e.FrostKillC, -35, 5),
		within("temperature.base_c", e.Temperature.BaseC, -2, 12),
		within("temperature.opt_c", e.Temperature.OptC, e.Temperature.BaseC+8, 32),
		within("temperature.ceiling_c", e.Temperature.CeilingC, e.Temperature.OptC+6, 45),
		within("winter.chill_days", float64(e.Winter.ChillDays), 0, 130),
		within("thermal.emerge_cd", e.Thermal.EmergeCd, 10, 600),
		within("thermal.bud_cd", e.Thermal.BudCd, 50, 2500),
		within("spread_cv", e.SpreadCV, 0.02, 0.25),
		within("daylength.slowest", e.Daylength.Slowest, 0, 1),
		within("yield.first_stems", e.Yield.FirstStems, 1, 60),
		within("yield.season_stems", e.Yield.SeasonStems, 1, 100),
		within("stem_cm.sd", e.StemCM.SD, 1, 30),
		within("spacing_cm", e.SpacingCM, 2, 400),
		within("height_cm[0]", e.HeightCM[0], 10, e.HeightCM[1]),
		within("height_cm[1]", e.HeightCM[1], 10, 600),
		oneOf("support", e.Support, "none", "net", "stake"),
		given("daylength.critical_h", e.Daylength.CriticalH, e.Daylength.Kind != "neutral"),
		given("daylength.width_h", e.Daylength.WidthH, e.Daylength.Kind != "neutral"),
		given("pinch.delay_cd", e.Pinch.DelayCd, e.Pinch.Policy != "never"),
		given("pinch.stems_factor", e.Pinch.StemsFactor, e.Pinch.Policy != "never"),
		given("yield.flowering_cd", e.Yield.FloweringCd, e.Yield.Habit != "single"),
		given("yield.regrow_cd", e.Yield.RegrowCd, e.Yield.Habit == "again"),
		given("yield.shoots_per_cut", e.Yield.ShootsPerCut, e.Yield.Habit == "again"),
	)
	for i, cd := range e.Thermal.RungsCd {
		faults = append(faults, within(fmt.Sprintf("thermal.rungs_cd[%d]", i), cd, 3, 1200))
	}
	if e.ID == "" || e.Name == "" {
		faults = append(faults, fmt.Errorf("id and name must not be empty"))
	}
	if !slices.Contains(e.Starts, e.PreferredStart) {
		faults = append(faults, fmt.Errorf("preferred_start %q is not one of starts", e.PreferredStart))
	}
	if e.Nursery == nil && slices.Contains(e.Starts, "tray") {
		faults = append(faults, fmt.Errorf("nursery is null: a crop raised in trays needs it"))
	}
	if e.Germination != nil {
		faults = append(faults, within("germination.rate", e.Germination.Rate, 0.05, 1),
			oneOf("germination.light", e.Germination.Light, "needs-light", "needs-dark", "either"))
	}
	if e.Nursery != nil {
		faults = append(faults, oneOf("nursery.root_bound", e.Nursery.RootBound, "stunts", "slows", "tolerates"),
			within("nursery.weeks[0]", e.Nursery.Weeks[0], 1, e.Nursery.Weeks[1]), within("nursery.weeks[1]", e.Nursery.Weeks[1], 1, 20))
	}
	if _, ok := e.Cut["market"]; !ok {
		faults = append(faults, fmt.Errorf("cut has no window for the market"))
	}
	for id, u := range e.Cut {
		if _, err := crop.ParseUse(id); err != nil {
			faults = append(faults, err)
		}
		faults = append(faults, checkWindow("cut."+id, u.From, u.To))
	}
	for _, s := range e.Schools {
		faults = append(faults, checkWindow("schools."+s.ID, s.From, s.To))
	}
	for _, fault := range faults {
		if fault != nil {
			return fault
		}
	}
	return nil
}

func checkWindow(name, from, to string) error {
	f, err := crop.ParseRung(from)
	if err != nil {
		return fmt.Errorf("%s: %w", name, err)
	}
	t, err := crop.ParseRung(to)
	if err != nil {
		return fmt.Errorf("%s: %w", name, err)
	}
	if f > t {
		return fmt.Errorf("%s: from %s comes after to %s", name, from, to)
	}
	return nil
}
