package orders

import (
	"fmt"
	"net/http"

	"dewcount/core/crop"
	"dewcount/farm/book"
	"dewcount/say"
	"dewcount/web/page"

	"github.com/labstack/echo/v5"
)

// A recipesView is what the farm's bouquets are made of.
type recipesView struct {
	Recipes []recipeView
	Fields  []page.Field
	Fault   string
	Crops   []string
}

type recipeView struct {
	Name, Words string
	Lines       []recipeLineView
}

type recipeLineView struct {
	Words, Mark string
	Withdraw    *page.DoneView
}

func (s view) recipes(c *echo.Context, snap *say.Snapshot) error {
	return s.recipesPage(c, http.StatusOK, snap, func(string) string { return "" }, nil)
}

func (s view) recipesPage(c *echo.Context, code int, snap *say.Snapshot, from page.Typed, faults map[string]string) error {
	var v recipesView
	stems := make(map[string]int)
	at := make(map[string]int)
	for _, l := range snap.Book.RecipeLines {
		if _, known := at[l.Recipe]; !known {
			at[l.Recipe] = len(v.Recipes)
			v.Recipes = append(v.Recipes, recipeView{Name: l.Recipe})
		}
		r := &v.Recipes[at[l.Recipe]]
		stems[l.Recipe] += l.Stems
		r.Lines = append(r.Lines, recipeLineView{ingredientWords(snap, l), l.Record().Mark(), &page.DoneView{Words: "Withdraw", Kind: book.RecipeLines.Name, ID: l.Record().ID()}})
		r.Words = say.Stems(stems[l.Recipe])
	}
	var roles, rungs []page.Option
	roles, rungs = append(roles, page.Option{Value: "", Label: "any"}), append(rungs, page.Option{Value: "", Label: "as it is cut for its use"})
	for _, r := range book.Roles {
		roles = append(roles, page.Option{Value: r, Label: r})
	}
	for k := range crop.Rung(crop.Over) {
		rungs = append(rungs, page.Option{Value: k.String(), Label: k.String() + ": " + k.Words()})
	}
	v.Fields = page.Fill(c, []page.Field{
		{Name: "recipe", Label: "Recipe", Needed: true, Hint: "A new name begins a new recipe."},
		{Name: "stems", Label: "Stems in one bouquet", Mode: "numeric", Needed: true},
		page.Field{Name: "role", Label: "Role", Kind: "select"}.Choose(roles...),
		{Name: "crop", Label: "Crop", List: "recipe-crops", Hint: "Empty: any of the role."},
		{Name: "colour", Label: "Colour", Hint: "Empty: any. Of several: white / cream."},
		{Name: "substitutes", Label: "Or where it is short", List: "recipe-crops", Hint: substitutesHint},
		{Name: "min_length_cm", Label: "At least so long in cm", Mode: "decimal"},
		page.Field{Name: "rung", Label: "How far open on the day", Kind: "select"}.Choose(rungs...),
	}, from, faults)
	v.Fault = page.Rest(v.Fields, faults)
	for _, p := range snap.Book.Crops() {
		v.Crops = append(v.Crops, p.Name)
	}
	return s.Show(c, code, "recipes", "/orders", "Recipes", snap, v)
}

// ingredientWords says what a line of a recipe takes.
func ingredientWords(snap *say.Snapshot, l book.RecipeLine) string {
	words := fmt.Sprintf("%d %s", l.Stems, l.Called(snap.Book))
	words += insteadWords(snap, l.Substitutes)
	if l.MinLengthCM != nil {
		words += ", " + snap.Exact(say.Centimetre, *l.MinLengthCM) + " or longer"
	}
	if l.Rung != "" {
		words += ", " + l.Rung + " on the day"
	}
	return words
}

// addIngredient adds a line to a recipe.
func (s view) addIngredient(c *echo.Context, snap *say.Snapshot) error {
	from := page.Posted(c)
	f := book.NewFields(func(name string) string {
		if name == "crop" || name == "substitutes" {
			return cropIDs(snap, from(name))
		}
		return from(name)
	}).For(snap.Locale)
	l := book.ReadRecipeLine(f)
	return s.Keep(c, f.Faults(), l.Record(), false, func(faults map[string]string) error {
		return s.recipesPage(c, http.StatusUnprocessableEntity, snap, from, faults)
	}, "recipes")
}
