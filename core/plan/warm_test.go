package plan_test

import (
	"encoding/json"
	"fmt"
	"reflect"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"ochrestone/core/card"
	"ochrestone/core/kit"
	"ochrestone/core/plan"
)

// field is one value of a card or kit that an edit may change.
type field struct {
	path string
	v    reflect.Value
}

// fields walks a document and lists what an edit may change: every number, truth
// and string that is not an id, and every map's entries. New fields are found by
// themselves.
func fields(path string, v reflect.Value, out *[]field) {
	switch v.Kind() {
	case reflect.Pointer:
		if !v.IsNil() {
			fields(path, v.Elem(), out)
		}
	case reflect.Struct:
		for i := range v.NumField() {
			f := v.Type().Field(i)
			if f.Name == "ID" || f.Name == "Version" || f.Name == "Outline" || !f.IsExported() {
				continue
			}
			fields(path+"."+f.Name, v.Field(i), out)
		}
	case reflect.Slice:
		for i := range v.Len() {
			fields(fmt.Sprintf("%s[%d]", path, i), v.Index(i), out)
		}
	case reflect.Map:
		keys := v.MapKeys()
		slices.SortFunc(keys, func(a, b reflect.Value) int { return len(a.String()) - len(b.String()) })
		for _, k := range keys {
			*out = append(*out, field{path + "[" + k.String() + "]", v})
		}
	case reflect.String, reflect.Bool, reflect.Int, reflect.Float64:
		*out = append(*out, field{path, v})
	}
}

// edit changes one random field to another value of its kind; it tells which.
func edit(t *rapid.T, c *card.Card, k kit.Kit) string {
	var fs []field
	fields("card", reflect.ValueOf(c).Elem(), &fs)
	f := fs[rapid.IntRange(0, len(fs)-1).Draw(t, "field")]
	set := func(v reflect.Value, name string) {
		switch v.Kind() {
		case reflect.Bool:
			v.SetBool(!v.Bool())
		case reflect.Int:
			v.SetInt(int64(rapid.IntRange(1, 5).Draw(t, "int")))
		case reflect.Float64:
			v.SetFloat(rapid.Float64Range(0.1, 60).Draw(t, "float"))
		case reflect.String:
			v.SetString(another(t, v, name, k))
		}
	}
	if f.v.Kind() != reflect.Map {
		set(f.v, f.path)
		return f.path
	}
	m, ok := f.v.Interface().(map[string]card.Finish)
	if !ok {
		return f.path
	}
	keys := make([]string, 0, len(m))
	for id := range m {
		keys = append(keys, id)
	}
	slices.Sort(keys)
	id := keys[rapid.IntRange(0, len(keys)-1).Draw(t, "layer")]
	fin := m[id]
	var inner []field
	fields("finish", reflect.ValueOf(&fin).Elem(), &inner)
	g := inner[rapid.IntRange(0, len(inner)-1).Draw(t, "part of finish")]
	set(g.v, g.path)
	m[id] = fin
	return f.path + g.path
}

// another is a string of the same meaning: an id of the stores for an id, one of
// the enumeration for an enumeration, else a name.
func another(t *rapid.T, v reflect.Value, path string, k kit.Kit) string {
	pick := func(of ...string) string { return rapid.SampledFrom(of).Draw(t, "string") }
	inks, papers := []string{""}, []string{}
	for _, i := range k.Inks {
		inks = append(inks, i.ID)
	}
	for _, p := range k.Papers {
		papers = append(papers, p.ID)
	}
	switch v.Interface().(type) {
	case card.Make:
		return pick(string(card.Cut), string(card.Printed), string(card.Stencilled))
	case card.School:
		return pick(string(card.LightGround), string(card.DarkGround), string(card.LocalColour), string(card.EveryPiece))
	case card.Zone:
		return pick(string(card.AllOver), string(card.Rim), string(card.Foot))
	case kit.Fit:
		return pick(string(kit.FitFree), string(kit.FitWithin), string(kit.FitEvenRim), string(kit.FitFills), string(kit.FitOffset))
	case card.Face:
		return pick(string(card.Front), string(card.InsideLeft), string(card.Beside))
	}
	for suffix, of := range map[string][]string{".Paper": papers, ".Ink": inks, ".Edge": inks, ".Back": inks, ".Spacer": {k.Spacers[0].ID, k.Spacers[1].ID}, ".Adhesive": {"", k.Adhesives[0].ID, k.Adhesives[1].ID}} {
		if len(path) > len(suffix) && path[len(path)-len(suffix):] == suffix {
			return pick(of...)
		}
	}
	for _, name := range []string{".Label", ".Title", ".Text", ".Name"} {
		if len(path) > len(name) && path[len(path)-len(name):] == name {
			return pick("One", "Another", "Third")
		}
	}
	return v.String()
}

// A plan from memory is the plan from nothing, whatever was edited before: a
// card and its sets are changed field by field, and one maker that has seen all
// of it is held against one that has seen none.
func TestAWarmPlanIsAColdPlan(t *testing.T) {
	t.Parallel()
	k := manySets(t)
	k.Sets = slices.DeleteFunc(k.Sets, func(s kit.Set) bool { return len(s.Parts) > 4 }) // small ones, for many cases in little time
	require.NotEmpty(t, k.Sets)
	rapid.Check(t, func(t *rapid.T) {
		c := clone(anyCard(t, k))
		maker := plan.NewPlanner()
		maker.Of(c, k)
		for range 3 {
			before := clone(c)
			what := edit(t, &c, k)
			if c.Validate() != nil {
				c = before
				continue
			}
			warm, _ := json.Marshal(maker.Of(c, k))
			cold, _ := json.Marshal(plan.Of(c, k))
			if string(warm) != string(cold) {
				t.Fatalf("after an edit of %s the remembered plan differs", what)
			}
		}
	})
}

func clone(c card.Card) card.Card {
	b, _ := json.Marshal(c)
	var out card.Card
	_ = json.Unmarshal(b, &out)
	return out
}

// The height of the stack follows the foam beneath a layer at once.
func TestFoamUnderALayerIsSeenAtOnce(t *testing.T) {
	t.Parallel()
	c, k := moth(t)
	maker := plan.NewPlanner()
	flat := maker.Of(c, k).Depth.Total
	last := len(c.Motifs[0].Layers) - 1
	c.Motifs[0].Layers[last].Bonds = card.Foam("foam", 1)
	raised := maker.Of(c, k).Depth.Total
	assert.InDelta(t, plan.Of(c, k).Depth.Total, raised, 1e-12)
	assert.Greater(t, raised, flat+1.9)
}

// A part's own copies and stamp are no part of its shape, and count at once.
func TestCopiesOfAPartAreSeenAtOnce(t *testing.T) {
	t.Parallel()
	c, k := moth(t)
	maker := plan.NewPlanner()
	maker.Of(c, k)
	k.Sets = slices.Clone(k.Sets)
	for i, s := range k.Sets {
		if s.ID == c.Motifs[0].Set {
			k.Sets[i].Parts = slices.Clone(s.Parts)
			k.Sets[i].Parts[1].Copies = 4
		}
	}
	warm, cold := maker.Of(c, k), plan.Of(c, k)
	a, _ := json.Marshal(cold.Steps)
	b, _ := json.Marshal(warm.Steps)
	require.True(t, string(a) == string(b), "the steps differ")
}
